import type { SlipWhy } from '../units/slips'
import type { Kind } from './types'

/** What a sentence calls a value: its kind, or more closely what it is. */
export type KindWord = Kind | 'complex number'

/** What a parameter asks for. */
export type Needed = Kind | 'real' | 'whole' | 'real or angle' | 'scalar' | 'real sweep' | 'array' | 'algebra' | 'any'

/** What cannot be done with values of two units, as a sentence says it. */
export type Joining = 'added' | 'subtracted' | 'compared' | 'put in parallel' | 'put together' | 'divided with a rest'

type Nothing = Readonly<Record<string, never>>

/**
 * Every error and hint by its code, with what its sentence needs. A code that is not here, and a datum that is left
 * out, do not compile; the sentences stand in `core/sentences/`.
 */
export interface ProblemData {
  // Reading a line.
  'line-too-long': { limit: number }
  'missing-operator': { left: string; right: string }
  unfinished: { after: string }
  unclosed: { bracket: string; open: number; missing: string }
  unbalanced: { bracket: string }
  'operand-expected': { found: string }
  'odd-character': { character: string }
  'text-too-long': { limit: number }
  'text-not-closed': Nothing
  'not-definable': { left: string }
  'nothing-defined': Nothing
  'second-equals': Nothing
  'check-inside': Nothing
  'stray-comma': Nothing
  'names-comma': { left: string; right: string }
  'too-many-terms': { limit: number }
  'too-deep': { limit: number }
  'angle-bracketing': { text: string }
  'power-bracketing': { text: string }
  'second-angle': Nothing
  'bars-unclear': Nothing
  'vectors-in-list': Nothing
  'rows-differ': { row: number; found: string; expected: string }
  'blocks-differ': { row: number; left: number; right: number }
  'entries-are-numbers': { kind: KindWord }
  'shapes-differ': { left: string; sign: string; right: string }
  'shapes-product': { left: string; right: string; cols: number; rows: number }
  'not-square': { name: string; shape: string }
  singular: { what: string }
  'matrix-division': Nothing
  'matrix-function': { name: string; whole: string }
  'matrix-exponent': Nothing
  'not-converged': Nothing
  'not-positive': Nothing
  'no-such-part': { name: string; known: string }
  'too-many-indices': Nothing
  'index-row-range': { count: number }
  'index-column-range': { count: number }
  'matrix-too-large': { count: number; limit: number }
  defective: Nothing
  'nearly-defective': Nothing
  'ill-conditioned': { value: string; digits: number }
  'comma-missing': { sign: string }
  'empty-list': Nothing
  'series-form': Nothing
  'series-place': Nothing
  'range-form': { word: string }
  'per-decade': Nothing
  'range-in-list': { text: string }
  'range-end': { kind: KindWord }
  'range-finite': Nothing
  'range-kinds': Nothing
  'step-kind': Nothing
  'count-whole': Nothing
  'decade-count': Nothing
  'decade-ends': Nothing
  'too-many-points': { count: number | string; limit: number }
  'sweeps-differ': { left: number; first: string; right: number; second: string }
  'sweeps-unrelated': { count: number; first: string; second: string }
  'point-range': { count: number }

  // Polynomials.
  'where-form': Nothing
  'where-bracket': Nothing
  'where-unknown': { name: string }
  'where-body': { kind: KindWord }
  'where-matrix': Nothing
  'where-matrix-sweep': Nothing
  'unknown-kept': { name: string; line: number }
  'polynomial-by-zero': Nothing
  'polynomial-exponent': Nothing
  'polynomial-too-large': { limit: number }
  'degree-too-high': { limit: number }
  'ratio-unknowns': { names: string }
  'ratio-given': { name: string }
  // Control engineering.
  'periods-differ': { one: number; other: number }
  'transfer-needed': { name: string; kind: KindWord }
  'transfer-complex': { name: string }
  'transfer-not-finite': { name: string }
  'transfer-delayed': { name: string }
  'transfer-too-large': { name: string }
  'exponential-of-unknown': Nothing
  'matrix-not-real': { name: string }
  'state-shape': { part: string; found: string; rows: number; cols: number }
  'modes-hidden': { hidden: number; states: number }
  'no-states': { name: string }
  controllable: { rank: number; order: number }
  observable: { rank: number; order: number }
  'not-controllable': { rank: number; order: number }
  'not-observable': { rank: number; order: number }
  'one-input': { found: string }
  'poles-count': { wanted: number; given: number }
  'poles-paired': Nothing
  'cannot-place': Nothing
  'period-needed': { name: string }
  'delay-between-samples': Nothing
  'delay-approximate': { order: number }
  'prewarp-beyond': Nothing
  'pole-cancelled': { poles: string; unstable: boolean }
  'closed-loop-unstable': { right: number }
  'closed-loop-marginal': Nothing
  'peak-infinite': Nothing
  'roots-counted': { right: number; axis: number; discrete: boolean }
  'stable-range': { range: string }
  'routh-small': { rows: string }
  'routh-auxiliary': { rows: string }
  'transfer-improper': { name: string }
  'no-steady-state': { why: 'unstable' | 'integrating' }
  'response-sampled': Nothing
  'response-input': Nothing
  'response-times': Nothing
  'laplace-of-samples': { name: string }
  'unknown-needed': { name: string; parameter: string }
  'loop-without-answer': { name: string }
  'transfer-zero': { name: string }
  'one-unknown-and-parameter': { name: string; names: string }
  'delay-negative': Nothing
  'delayed-sum': { sign: string }
  'one-unknown': { name: string; names: string }
  'no-roots': { name: string }
  'roots-of-zero': Nothing
  'roots-cluster': { off: string }
  'roots-off': { off: string }
  'no-unknowns': { name: string }
  'algebra-order': { name: string; limit: number }
  'series-bound': { kind: KindWord }
  'step-real': Nothing
  'step-whole': Nothing
  'step-zero': Nothing
  'step-direction': { step: number }
  'too-many-entries': { count: number; limit: number }
  'no-entries': { kind: KindWord }
  'entry-range': { count: number }
  'lengths-differ': { left: number; right: number }
  'vector-plus-number': { kind: KindWord; sign: string }
  /** How many entries it has, for the correction. */
  'vector-argument': { count: number }
  'vector-product': { sign: string }

  // Units.
  'unit-expected': Nothing
  'unit-bracketing': { text: string }
  'unit-or-product': { text: string; name: string }
  'unit-brackets': { text: string }
  'unit-needs-space': { text: string; unit: string }
  'unit-slip': { name: string; meant: string; why: SlipWhy }
  'unit-celsius': Nothing
  'unit-effective': { word: string }
  'unit-twice': { unit: string }
  'unit-on': { kind: KindWord }
  'unit-missing': { joining: Joining; quantity: string; unit: string; side: 'left' | 'right' }
  'unit-unknown': { name: string; unit: string }
  'units-differ': { joining: Joining; left: string; right: string; one: string; other: string }
  'rate-and-cycles': { joining: Joining }
  'per-second-and-cycles': { joining: Joining; side: 'left' | 'right' }
  'unit-entry': { row: number; col: number; one: string; other: string }
  'unit-fit': { row: number; col: number }
  'unit-product': { col: number }
  'unit-square': { what: string }
  'unit-exponent': { quantity: string }
  'unit-power': { unit: string }
  'unit-plain': { name: string; quantity: string }
  'unit-angle': { name: string; quantity: string }
  'unit-alike': { name: string; one: string; other: string }
  'unit-asked': { unit: string; asked: string; is: string }
  'unit-per-second': { unit: string }
  'unit-whole': { name: string; unit: string }
  'unit-range': { one: string; other: string }
  'radians-mixed': Nothing
  'unit-hides-name': { name: string; text: string }
  'name-without-unit': { name: string; value: string; unit: string; quantity: string }
  'cycles-for-rate': { text: string }
  'power-by-cycles': { text: string }
  'watts-and-vars': Nothing
  'near-pi': { text: string; turns: 'pi' | '2pi'; below: boolean }
  'decibel-of-powers': Nothing

  // Names.
  'unknown-name': { name: string; near: string }
  'names-run-together': { name: string; parts: string }
  'defined-below': { name: string; line: number }
  'self-reference': { name: string }
  recursive: { name: string }
  'reserved-word': { name: string }
  'constant-reserved': { name: string }
  'letter-reserved': { name: string; other: string }
  'function-reserved': { name: string }
  'function-needs-bracket': { name: string }
  'not-a-function': { name: string }
  'no-line-above': Nothing
  'no-enclosure': { known: string; name: string }
  'enclosure-loading': { name: string }
  'enclosure-lost': { name: string }
  'along-outside': { points: number }
  'waits-for': { line: number; name: string }
  'not-a-name': { name: string }
  'name-taken': { name: string; line: number }
  'name-read-otherwise': { name: string; line: number }
  'name-caught': { line: number; name: string }

  // Functions and kinds.
  /** What failed inside the body of a function of another line. */
  'inside-function': { name: string; inner: Told }
  'not-at-points': { kind: KindWord }
  'argument-count': { signature: string; given: number }
  'argument-kind': { signature: string; name: string; needs: Needed; kind: KindWord }
  'log-base': Nothing
  'inverse-unclear': { name: string }
  'wrong-kinds': { left: KindWord; sign: string; right: KindWord }
  'wrong-kind': { what: string; kind: KindWord }
  'real-needed': { operator: string }
  'angle-with-complex': { sign: string }
  'magnitude-real': { kind: KindWord }
  'angle-real': { kind: KindWord }
  'angle-twice': Nothing
  'minutes-range': Nothing
  'transpose-number': { sign: string }
  'truth-needed': { kind: KindWord }
  'not-comparable': { left: KindWord; right: KindWord }
  'no-order': { sign: string }
  domain: { name: string; needs: string }
  tolerance: Nothing
  'tolerance-angle': Nothing
  'too-large': Nothing
  stopped: Nothing
  'too-long': Nothing
  postponed: Nothing
  'no-room': { has: number; most: number }
  'too-deep-calls': Nothing

  // Equations.
  'determine-form': Nothing
  'determine-without-sought': Nothing
  'nothing-sought': { names: string }
  'not-sought': { name: string; names: string }
  'no-equations': { names: string }
  'sought-unused': { name: string; line: number }
  'equations-wait': { lines: string }
  'not-determined': { name: string }
  'equation-false': Nothing
  'equation-never': { line: number }
  'equations-contradict': { lines: string }
  'equations-none': { line: number }
  'equation-units': { line: number; one: string; other: string }
  'equation-kind': { line: number }
  'equation-unknowns': { line: number }
  'equations-sweep-unknown': Nothing
  'equations-several-along': Nothing
  'in-equation': { line: number; inner: Told }
  'equation-value': { kind: KindWord }
  'equation-infinite': { line: number }
  'equation-sides': { left: KindWord; right: KindWord }
  'equations-count': { equations: number; sought: number }
  'equations-few': { equations: number; sought: number; free: string }
  'near-number': { name: string; kind: KindWord }
  'periodic-needs-range': { name: string }
  'not-smooth': { line: number; term: string }
  'no-solution': Nothing
  'no-solution-between': Nothing
  'no-solution-found': Nothing

  // Spellings that are brought along.
  'brought-power': Nothing
  'brought-transpose': Nothing
  'brought-quotient': Nothing
  'brought-rest': Nothing
  'brought-percent': Nothing
  'brought-definition': Nothing
  'brought-change': Nothing
  'brought-equals': Nothing
  'brought-end': Nothing
  'brought-remark': Nothing
  'brought-range': Nothing
  'brought-entries': Nothing
  'brought-rows': Nothing
  'brought-list': Nothing
  'brought-index': Nothing
  'brought-bracket': { name: string }
  'brought-bracket-power': Nothing
  'brought-direction': Nothing
  'brought-parameter': Nothing
  'brought-word': { name: string; ours: string }
  'brought-degrees': Nothing
  'brought-unit': Nothing
  'brought-comma': Nothing
  'brought-pair': Nothing
  'brought-groups': Nothing
  'brought-prefix': Nothing
  'brought-where': { name: string }
  'brought-logic': Nothing
  'brought-compare': Nothing
  'brought-if': Nothing
  'brought-phasor': Nothing
  'brought-exponent': Nothing
  'brought-solve': Nothing
  'brought-zeros': Nothing
  'brought-cross': Nothing
  'brought-dot': Nothing
  'brought-unknowns': { names: string }

  // Hints.
  'negative-power': { text: string; base: string }
  'implicit-after-quotient': { text: string; top: string; digits: string; tail: string }
  'quotient-imaginary': { bottom: string }
  'prefix-power': { base: string }
  'changes-reading': { name: string; lines: string }
  'unit-shadowed': { name: string }
  'prefix-shadowed': { name: string; text: string; digits: string }
  'parallel-quotient': { text: string }
  'angle-sign': { text: string }
  'angle-plus-number': Nothing
  'exponent-radians': { value: number }
  'multiple-of-pi-in-degrees': Nothing
  'round-degrees-in-radians': { value: number }
  'degrees-twice': Nothing
  'degrees-of-degrees': Nothing
  'radians-of-radians': Nothing
  'equals-rounded': Nothing
  redefined: { name: string; line: number }
  'sought-redefined': { name: string; line: number }
  'equation-asks': { text: string }
  'equation-always': Nothing
  'infinite-result': Nothing
  'undefined-result': Nothing
}

export type Code = keyof ProblemData

/** Codes whose sentence needs nothing. */
export type BareCode = { [C in Code]: ProblemData[C] extends Nothing ? C : never }[Code]

/** Spellings that students bring along. */
export type BroughtCode = Extract<Code, `brought-${string}`>

/** A code with what its sentence needs. */
export interface Told<C extends Code = Code> {
  readonly code: C
  readonly data: Readonly<ProblemData[C]>
}

export const NOTHING: Nothing = {}

/** What a problem of this code has to say; `null` of any other. */
export function dataOf<C extends Code>(told: Told, code: C): Readonly<ProblemData[C]> | null {
  // The code says which of them the data are.
  return told.code === code ? (told.data as ProblemData[C]) : null
}

/** A code with its data. */
export function told<C extends BareCode>(code: C): Told
export function told<C extends Code>(code: C, data: Readonly<ProblemData[C]>): Told
export function told(code: Code, data: Told['data'] = NOTHING): Told {
  return { code, data }
}
