import * as C from '../numbers/complex'
import * as A from '../values/arithmetic'
import { isZero as isZeroNumber } from '../values/beyond'
import { integer } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, Polynomial, Term } from '../values/types'
import { work } from '../numbers/work'

/** Most terms of a polynomial, and its highest degree. */
export const TERMS_MOST = 4_000
export const DEGREE_MOST = 2_000

export const isFailed = (p: Polynomial | Failure): p is Failure => 'kind' in p

export function constant(factor: NumberValue): Polynomial {
  return { unknowns: [], terms: isZeroNumber(factor) ? [] : [{ powers: [], factor }] }
}

export function unknown(name: string): Polynomial {
  return { unknowns: [name], terms: [{ powers: [1], factor: integer(1) }] }
}

export function isZero(p: Polynomial): boolean {
  return p.terms.length === 0
}

/** The number that a polynomial without unknowns is; `null` for any other. */
export function asNumber(p: Polynomial): NumberValue | null {
  const [only] = p.terms
  if (!only) return integer(0)
  return p.terms.length === 1 && only.powers.every((n) => n === 0) ? only.factor : null
}

/** The sum of all powers of a term at its highest; 0 for a constant. */
export function degree(p: Polynomial): number {
  return p.terms.reduce((most, { powers }) => Math.max(most, total(powers)), 0)
}

export function isExact(p: Polynomial): boolean {
  return p.terms.every(({ factor }) => factor.exact !== null)
}

const total = (powers: readonly number[]): number => powers.reduce((sum, n) => sum + n, 0)

/** Higher degree first, then higher powers of earlier unknowns. */
function order(a: readonly number[], b: readonly number[]): number {
  const byDegree = total(b) - total(a)
  if (byDegree !== 0) return byDegree
  for (let k = 0; k < a.length; k += 1) if (a[k] !== b[k]) return (b[k] ?? 0) - (a[k] ?? 0)
  return 0
}

/** Collects like terms. */
function collected(unknowns: readonly string[], terms: Iterable<Term>): Polynomial | Failure {
  const found = new Map<string, Term>()
  for (const term of terms) {
    const key = term.powers.join(' ')
    const before = found.get(key)
    const factor = before ? A.add(before.factor, term.factor) : term.factor
    if (factor.kind === 'failure') return factor
    found.set(key, { powers: term.powers, factor })
    if (found.size > TERMS_MOST) return failure('polynomial-too-large', { limit: TERMS_MOST })
  }
  const kept = [...found.values()].filter(({ factor }) => !isZeroNumber(factor))
  return trimmed(unknowns, kept)
}

/** Without the unknowns that no term has. */
function trimmed(unknowns: readonly string[], terms: readonly Term[]): Polynomial {
  const used = unknowns.map((_, k) => terms.some(({ powers }) => (powers[k] ?? 0) > 0))
  const all = used.every((is) => is)
  const kept = all ? terms : terms.map((t) => ({ ...t, powers: t.powers.filter((_, k) => used[k]) }))
  return {
    unknowns: all ? unknowns : unknowns.filter((_, k) => used[k]),
    terms: [...kept].sort((a, b) => order(a.powers, b.powers)),
  }
}

/** The terms of a polynomial in other, more unknowns. */
function inUnknowns(p: Polynomial, unknowns: readonly string[]): readonly Term[] {
  if (p.unknowns.length === unknowns.length) return p.terms
  const places = unknowns.map((name) => p.unknowns.indexOf(name))
  return p.terms.map(({ powers, factor }) => ({ powers: places.map((k) => (k < 0 ? 0 : (powers[k] ?? 0))), factor }))
}

export function joinedUnknowns(a: Polynomial, b: Polynomial): readonly string[] {
  if (a.unknowns.length === b.unknowns.length && a.unknowns.every((n, k) => n === b.unknowns[k])) return a.unknowns
  return [...new Set([...a.unknowns, ...b.unknowns])].sort()
}

export function add(a: Polynomial, b: Polynomial): Polynomial | Failure {
  const unknowns = joinedUnknowns(a, b)
  return collected(unknowns, [...inUnknowns(a, unknowns), ...inUnknowns(b, unknowns)])
}

export function negate(p: Polynomial): Polynomial {
  return { ...p, terms: p.terms.map((t) => ({ ...t, factor: A.negate(t.factor) })) }
}

export function subtract(a: Polynomial, b: Polynomial): Polynomial | Failure {
  return add(a, negate(b))
}

export function multiply(a: Polynomial, b: Polynomial): Polynomial | Failure {
  if (degree(a) + degree(b) > DEGREE_MOST) return failure('degree-too-high', { limit: DEGREE_MOST })
  const unknowns = joinedUnknowns(a, b)
  const [left, right] = [inUnknowns(a, unknowns), inUnknowns(b, unknowns)]
  const products: Term[] = []
  for (const x of left) {
    work(100 * right.length)
    for (const y of right) {
      const factor = A.multiply(x.factor, y.factor)
      if (factor.kind === 'failure') return factor
      products.push({ powers: x.powers.map((n, k) => n + (y.powers[k] ?? 0)), factor })
    }
  }
  return collected(unknowns, products)
}

export function scale(p: Polynomial, factor: NumberValue): Polynomial | Failure {
  return multiply(p, constant(factor))
}

export function power(p: Polynomial, exponent: number): Polynomial | Failure {
  if (degree(p) * exponent > DEGREE_MOST) return failure('degree-too-high', { limit: DEGREE_MOST })
  let result: Polynomial | Failure = constant(integer(1))
  let square: Polynomial | Failure = p
  for (let n = exponent; n > 0; n = Math.floor(n / 2)) {
    if (n % 2 === 1) {
      result = multiply(result, square)
      if (isFailed(result)) return result
    }
    if (n > 1) {
      square = multiply(square, square)
      if (isFailed(square)) return square
    }
  }
  return result
}

/**
 * Quotient and rest of division by one divisor, by its leading term (D. A. Cox,
 * J. Little and D. O'Shea, "Ideals, Varieties, and Algorithms", section 2.3).
 * Each leading term is taken out as it is worked off, so that rounding leaves
 * no ghost of it behind.
 */
export function divide(
  a: Polynomial,
  b: Polynomial,
): { readonly quotient: Polynomial; readonly rest: Polynomial } | Failure {
  const unknowns = joinedUnknowns(a, b)
  const divisor = [...inUnknowns(b, unknowns)].sort((x, y) => lexical(x.powers, y.powers))
  const [lead] = divisor
  if (!lead) return failure('polynomial-by-zero')
  let open = [...inUnknowns(a, unknowns)].sort((x, y) => lexical(x.powers, y.powers))
  const quotient: Term[] = []
  const rest: Term[] = []
  for (let first = open[0]; first; first = open[0]) {
    work(100 * open.length)
    const powers = first.powers.map((n, k) => n - (lead.powers[k] ?? 0))
    if (powers.some((n) => n < 0)) {
      rest.push(first)
      open = open.slice(1)
      continue
    }
    const factor = A.divide(first.factor, lead.factor)
    if (factor.kind === 'failure') return factor
    quotient.push({ powers, factor })
    if (quotient.length > TERMS_MOST) return failure('polynomial-too-large', { limit: TERMS_MOST })
    const next = new Map(open.slice(1).map((t) => [t.powers.join(' '), t]))
    for (const term of divisor.slice(1)) {
      const product = A.multiply(factor, term.factor)
      if (product.kind === 'failure') return product
      const at = term.powers.map((n, k) => n + (powers[k] ?? 0))
      const before = next.get(at.join(' '))
      const left = before ? A.subtract(before.factor, product) : A.negate(product)
      if (left.kind === 'failure') return left
      if (isZeroNumber(left)) next.delete(at.join(' '))
      else next.set(at.join(' '), { powers: at, factor: left })
    }
    open = [...next.values()].sort((x, y) => lexical(x.powers, y.powers))
  }
  return { quotient: trimmed(unknowns, quotient), rest: trimmed(unknowns, rest) }
}

/** Powers of earlier unknowns first. */
function lexical(a: readonly number[], b: readonly number[]): number {
  for (let k = 0; k < a.length; k += 1) if (a[k] !== b[k]) return (b[k] ?? 0) - (a[k] ?? 0)
  return 0
}

/** Coefficients of a polynomial in one unknown, from the highest power down; `null` where it has several. */
export function coefficients(p: Polynomial): readonly NumberValue[] | null {
  if (p.unknowns.length > 1) return null
  const highest = degree(p)
  const found = new Map(p.terms.map(({ powers, factor }) => [powers[0] ?? 0, factor]))
  return Array.from({ length: highest + 1 }, (_, k) => found.get(highest - k) ?? integer(0))
}

export function fromCoefficients(name: string, list: readonly NumberValue[]): Polynomial {
  const highest = list.length - 1
  const terms = list.flatMap((factor, k): Term[] => (isZeroNumber(factor) ? [] : [{ powers: [highest - k], factor }]))
  return trimmed([name], terms)
}

/** The derivative of a polynomial in one unknown. */
export function derivative(p: Polynomial): Polynomial | Failure {
  const terms: Term[] = []
  for (const { powers, factor } of p.terms) {
    const [n = 0] = powers
    if (n === 0) continue
    const next = A.multiply(factor, integer(n))
    if (next.kind === 'failure') return next
    terms.push({ powers: [n - 1], factor: next })
  }
  return trimmed(p.unknowns, terms)
}

/** Every coefficient over a number. */
export function divideBy(p: Polynomial, number: NumberValue): Polynomial | Failure {
  const terms: Term[] = []
  for (const { powers, factor } of p.terms) {
    const next = A.divide(factor, number)
    if (next.kind === 'failure') return next
    terms.push({ powers, factor: next })
  }
  return { ...p, terms }
}

/** The polynomial with leading coefficient 1. */
export function monic(p: Polynomial): Polynomial | Failure {
  const [lead] = p.terms
  return lead ? divideBy(p, lead.factor) : p
}

/**
 * The monic greatest common divisor of two polynomials in one unknown with
 * exact coefficients, by Euclid's algorithm; `null` where the exact numbers
 * outgrew their budget on the way.
 */
export function commonDivisor(a: Polynomial, b: Polynomial): Polynomial | null {
  let [x, y]: [Polynomial, Polynomial] = [a, b]
  while (!isZero(y)) {
    const found = divide(x, y)
    if ('kind' in found) return null
    const rest = monic(found.rest)
    if (isFailed(rest) || !isExact(rest)) return null
    ;[x, y] = [y, rest]
  }
  const result = monic(x)
  return isFailed(result) || !isExact(result) ? null : result
}

/** True where two polynomials agree to a relative 1e-9 of their largest coefficient, term by term. */
export function agree(a: Polynomial, b: Polynomial): boolean {
  const rest = subtract(a, b)
  if (isFailed(rest)) return false
  const largest = Math.max(0, ...[...a.terms, ...b.terms].map((t) => C.abs(t.factor)))
  return rest.terms.every((t) => C.abs(t.factor) <= 1e-9 * largest)
}
