import { kindWords } from './kindWords'
import type { SentencesOf } from './sentencesOf'

/** Of polynomials and unknowns. */
export const polynomials = {
  'where-form': () => 'Values for unknowns are written as where s = 2j, with a comma before the next one.',
  'where-bracket': () => 'Inside a call or a list, where stands in brackets of its own: f((p where s = 2)).',
  'where-unknown': (d) => `${d.name} is not an unknown here. A line unknown ${d.name} above makes it one.`,
  'where-body': (d) => `where puts values into a polynomial, not into ${kindWords(d.kind)}.`,
  'where-matrix': () => 'A matrix can take the place of an unknown only where there is no other.',
  'where-matrix-sweep': () => 'Into a matrix with unknowns go numbers and polynomials.',
  'unknown-kept': (d) =>
    `${d.name} was an unknown from line ${d.line} on. What is made with it above stays algebraic; below, ${d.name} is this value.`,
  'polynomial-by-zero': () => 'A polynomial cannot be divided by zero.',
  'polynomial-exponent': () => 'A polynomial is raised to whole numbers only.',
  'polynomial-too-large': (d) => `This polynomial has more than ${d.limit} terms.`,
  'degree-too-high': (d) => `The degree goes beyond ${d.limit}.`,
  'ratio-unknowns': (d) =>
    `This quotient does not divide, and ratios are worked out in one unknown only; here are ${d.names}.`,
  'ratio-given': (d) => `${d.name} is of a polynomial; this is a ratio. Its parts are found by zeros(H) and poles(H).`,
  'one-unknown': (d) => `${d.name} needs a polynomial in one unknown; here are ${d.names}.`,
  'no-roots': (d) => `A constant has no ${d.name}.`,
  'roots-of-zero': () => 'Every number is a root of 0.',
  'roots-cluster': (d) =>
    `Some roots lie so near one another that they may be one of higher multiplicity; they may be off by ${d.off} of their size.`,
  'roots-off': (d) =>
    `The coefficients are rounded, and some roots depend on them strongly: they may be off by ${d.off} of their size.`,
  'no-unknowns': (d) => `${d.name} cannot be worked out with unknowns. Give them values first: … where s = 2.`,
  'algebra-order': (d) => `With unknowns, ${d.name} is worked out up to order ${d.limit}.`,
} satisfies SentencesOf
