import { kindWords } from './kindWords'
import type { SentencesOf } from './sentencesOf'

const poles = (n: number): string => (n === 1 ? 'one pole lies' : `${n} poles lie`)
const roots = (n: number): string => (n === 1 ? 'One root lies' : `${n} roots lie`)

/** Of control engineering. */
export const control = {
  'periods-differ': (d) =>
    `One of these was sampled every ${d.one}, the other every ${d.other}. Samples go together only at the same times.`,
  'transfer-needed': (d) =>
    `${d.name} is of a transfer function, a ratio of polynomials in one unknown such as 1/(s + 1); this is ${kindWords(d.kind)}.`,
  'transfer-complex': (d) => `${d.name} is worked out for real coefficients; this transfer function has complex ones.`,
  'transfer-not-finite': (d) => `${d.name} needs finite coefficients.`,
  'transfer-delayed': (d) =>
    `${d.name} takes a ratio of polynomials; this one has a delay. Put delay_approximation(T, n, s) in the place of e^(-s*T), which is an approximation and says so.`,
  'transfer-too-large': (d) => `${d.name} was given up: the poles of this transfer function could not be told apart.`,
  'one-unknown-and-parameter': (d) =>
    `${d.name} takes a polynomial in s or z, with at most one parameter besides; here are ${d.names}.`,
  'unknown-needed': (d) =>
    `${d.name} makes a ratio in an unknown: ${d.parameter} must be one, and nothing else. A line unknown ${d.parameter} above makes it one.`,
  'loop-without-answer': (d) => `${d.name}: 1 + L is 0, so that the loop has no answer at all.`,
  'transfer-zero': (d) => `${d.name} of 0 has no meaning.`,
  'transfer-improper': (d) =>
    `${d.name}: the numerator has a higher degree than the denominator, so that impulses would come out. inverse_laplace(G, t) names them.`,
  'no-steady-state': (d) =>
    d.why === 'unstable'
      ? 'The response does not settle: a pole lies to the right, on the imaginary axis, or (of samples) not inside the unit circle. modes(G) shows it.'
      : 'The response grows without end: there is a pole at rest (an integrator).',
  'response-sampled': () => 'Into samples go samples: u is a sweep of as many values as there are times.',
  'response-input': () => 'u is a sweep of real values along the times t, one for each.',
  'response-times': () => 'The times have to rise from one value to the next.',
  'laplace-of-samples': (d) =>
    `${d.name} is of the unknown s; for samples, impulse_response(G, k) gives one after the other.`,
  'closed-loop-unstable': (d) =>
    `The closed loop is unstable: ${poles(d.right)} to the right. Margins are those of a loop that is not stable as it is.`,
  'closed-loop-marginal': () => 'The closed loop is on the edge of stability: it has poles on the imaginary axis.',
  'peak-infinite': () =>
    'The gain has no largest value: there is a pole on the imaginary axis, or it grows without end.',
  'roots-counted': (d) => {
    const outside = d.discrete ? 'outside the unit circle' : 'to the right of the imaginary axis'
    const on = d.discrete ? 'on it' : 'on the axis'
    if (d.right === 0 && d.axis === 0) return `Stable: no root lies ${outside} or ${on}.`
    const edge = d.axis > 0 ? `, ${d.axis} ${on}` : ''
    return `${d.right === 0 ? 'No root' : roots(d.right)} ${outside}${edge}.`
  },
  'stable-range': (d) => (d.range === '' ? 'Not stable for any value.' : `Stable for ${d.range}.`),
  'routh-small': (d) => `The first entry of row ${d.rows} was 0: ε stands for a small positive number.`,
  'routh-auxiliary': (d) =>
    `Row ${d.rows} was 0 throughout: it is the derivative of the row above it, taken as a polynomial, which has roots opposite one another.`,
  'matrix-not-real': (d) => `${d.name} takes real, finite matrices.`,
  'state-shape': (d) => `${d.part} is ${d.found}; with these states it has to be ${d.rows} × ${d.cols}.`,
  'modes-hidden': (d) =>
    `${d.hidden} of ${d.states} states cannot be told from outside: the transfer function has no pole of theirs.`,
  'no-states': (d) => `${d.name}: a plain gain has no states.`,
  controllable: (d) => `Controllable: the rank is ${d.rank}, as there are states.`,
  observable: (d) => `Observable: the rank is ${d.rank}, as there are states.`,
  'not-controllable': (d) => `Not controllable: the rank is ${d.rank} of ${d.order}.`,
  'not-observable': (d) => `Not observable: the rank is ${d.rank} of ${d.order}.`,
  'one-input': (d) => `Poles are placed by one input; B is ${d.found}.`,
  'poles-count': (d) => `There are ${d.wanted} states, so as many poles are needed; here are ${d.given}.`,
  'poles-paired': () => 'Complex poles have to come in conjugate pairs.',
  'cannot-place': () => 'The system is not controllable: its poles cannot all be placed.',
  'period-needed': (d) => `${d.name} needs a time between samples above 0.`,
  'delay-between-samples': () => 'The delay has to be a whole number of sampling times.',
  'delay-approximate': (d) => `An approximation of order ${d.order}: right at low frequencies only.`,
  'prewarp-beyond': () => 'The frequency has to lie between 0 and π/T.',
  'pole-cancelled': (d) =>
    d.unstable
      ? `${d.poles} cancels against a zero of another line, and is still there inside: not internally stable.`
      : `${d.poles} cancels against a zero of another line, and is still there inside.`,
  'exponential-of-unknown': () =>
    'e to the power of an unknown is a delay, as in e^(-2*s): a negative number times the unknown, and nothing else of it.',
  'delay-negative': () => 'This would answer before it is asked: a delay is e to a negative multiple of the unknown.',
  'delayed-sum': (d) =>
    `${d.sign} joins ratios behind one and the same delay only. For a closed loop put delay_approximation(T, n, s) in the place of e^(-s*T).`,
} satisfies SentencesOf
