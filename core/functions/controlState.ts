import * as P from '../algebra/polynomial'
import { algebraMatrix } from '../algebra/polyMatrix'
import { algebraic, polynomialValue } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import * as S from '../control/stateSpace'
import type { WholeMatrix } from '../control/stateSpace'
import { quotientValue, relativeDegree } from '../control/transfer'
import type { Transfer } from '../control/transfer'
import * as W from '../control/whole'
import type { Whole } from '../control/whole'
import { toDyadic } from '../numbers/dyadic'
import { combine } from '../linear/dense'
import * as L from '../matrices/linearAlgebra'
import type { Context } from '../operators/context'
import * as Q from '../numbers/rational'
import { negate } from '../values/arithmetic'
import { exactReal, integer, real } from '../values/make'
import { fromDense, identityMatrix, matrixOf, shapeText, transposed as flipped } from '../values/matrices'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { MatrixValue, NumberValue, PolynomialValue, Value, VectorValue } from '../values/types'
import { G, listed, nameOf, withTransfer } from './controlShared'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'
import type { TransferValue } from '../signatures/take'
import * as SM from './stateMeasures'

/** Of the chapter on control: state descriptions x′ = A·x + B·u, y = C·x + D·u. */

const A = take.matrix('A')
const B = take.matrix('B')
const C = take.matrix('C')

const transposed = (m: MatrixValue): MatrixValue => flipped(m, false)

/** A real matrix as whole numbers over one. */
function whole(name: string, m: MatrixValue): WholeMatrix | Failure {
  return S.wholeMatrix(m) ?? failure('matrix-not-real', { name })
}

function square(name: string, a: MatrixValue): Failure | null {
  return a.rows === a.cols ? null : failure('not-square', { name, shape: shapeText(a) })
}

/** Inputs have a row for each state. */
function inputs(a: MatrixValue, b: MatrixValue): Failure | null {
  return a.rows === b.rows
    ? null
    : failure('state-shape', { part: 'B', found: shapeText(b), rows: a.rows, cols: b.cols })
}

/** Outputs have a column for each state; a vector with one entry for each is a row. */
function outputs(a: MatrixValue, c: MatrixValue): MatrixValue | Failure {
  if (c.cols === a.rows) return c
  if (c.cols === 1 && c.rows === a.rows) return transposed(c)
  return failure('state-shape', { part: 'C', found: shapeText(c), rows: c.rows, cols: a.rows })
}

/** What goes straight through: 0 is a matrix of zeros. */
function direct(c: MatrixValue, b: MatrixValue, value: MatrixValue | NumberValue): MatrixValue | Failure {
  if (value.kind === 'number' && value.re === 0 && value.im === 0)
    return matrixOf(
      c.rows,
      b.cols,
      Array.from({ length: c.rows * b.cols }, () => integer(0)),
    )
  const d = value.kind === 'number' ? matrixOf(1, 1, [value]) : value
  if (d.rows === c.rows && d.cols === b.cols) return d
  return failure('state-shape', { part: 'D', found: shapeText(d), rows: c.rows, cols: b.cols })
}

/** Largest order of what is worked out exactly. */
const ORDER_MOST = 30

function transfer(
  [a, b, seen, through, s]: readonly [
    MatrixValue,
    MatrixValue,
    MatrixValue,
    MatrixValue | NumberValue,
    PolynomialValue,
  ],
  context: Context,
): Value | Failure {
  const c = outputs(a, seen)
  if (c.kind === 'failure') return c
  const d = direct(c, b, through)
  if (d.kind === 'failure') return d
  const name = nameOf(s)
  const wrong = square('transfer', a) ?? inputs(a, b) ?? tooLarge(a)
  if (wrong) return wrong
  const all = [a, b, c, d].map((m) => whole('transfer', m))
  const [wa, wb, wc, wd] = all
  if (!wa || !wb || !wc || !wd) return failure('too-large')
  for (const m of [wa, wb, wc, wd]) if ('kind' in m) return m
  if ('kind' in wa || 'kind' in wb || 'kind' in wc || 'kind' in wd) return failure('too-large')
  const found = S.transferOfState(wa, wb, wc, wd)
  const exact = [a, b, c, d].every((m) => m.exact !== null)
  const items: Algebraic[] = []
  for (const row of found.tops)
    for (const top of row) {
      const value = ratio(top, found.bottom, name, exact)
      if (value.kind === 'failure') return value
      items.push(value)
    }
  const [only] = items
  if (items.length > 1) return algebraMatrix(c.rows, b.cols, items)
  if (context.at && only) hintHidden(only, a.rows, context)
  return only ?? failure('too-large')
}

const tooLarge = (a: MatrixValue): Failure | null =>
  a.rows > ORDER_MOST ? failure('algebra-order', { name: 'a state description', limit: ORDER_MOST }) : null

/** States that cannot be seen from outside are said. */
function hintHidden(value: Algebraic, states: number, context: Context): void {
  const seen = value.kind === 'polynomial' && value.bottom ? P.degree(value.bottom) : 0
  if (seen < states && context.at) context.hint('modes-hidden', context.at, { hidden: states - seen, states })
}

/** A ratio of polynomials with whole coefficients; rounded where what it was made of is. */
function ratio(top: Whole, bottom: Whole, name: string, exact: boolean): Algebraic | Failure {
  const common = W.commonDivisor(top, bottom)
  const [a, b] = [reduced(top, common), reduced(bottom, common)]
  const lead = W.leading(b.whole) * a.scale
  const list = (p: Whole, over: bigint): readonly NumberValue[] => p.map((c) => quotientValue(c, over, exact)).reverse()
  const above = P.fromCoefficients(name, list(W.times(a.whole, b.scale), lead))
  const below = P.fromCoefficients(name, list(b.whole, W.leading(b.whole)))
  if (P.isZero(above)) return integer(0)
  return algebraic('/', polynomialValue(above), polynomialValue(below))
}

function reduced(p: Whole, common: Whole): { readonly whole: Whole; readonly scale: bigint } {
  if (W.degreeOf(common) <= 0) return { whole: p, scale: 1n }
  const { quotient, scale } = W.division(p, common)
  return { whole: quotient, scale }
}

/** The coefficients of a proper transfer function, that of the highest power below being 1, from the constant up. */
function normalized(g: Transfer): {
  readonly below: readonly NumberValue[]
  readonly above: readonly NumberValue[]
  readonly through: NumberValue
} {
  // prettier-ignore
  const n = W.degreeOf(g.bottom)
  const lead = W.leading(g.bottom)
  const through = quotientValue(W.coefficient(g.top, n), lead, g.exact)
  // N − d·D over the leading coefficient.
  const rest = W.subtract(W.times(g.top, lead), W.times(g.bottom, W.coefficient(g.top, n)))
  const at = (p: Whole, over: bigint): readonly NumberValue[] => Array.from({ length: n }, (_, k) => quotientValue(W.coefficient(p, k), over, g.exact)) // prettier-ignore
  return { below: at(g.bottom, lead), above: at(rest, lead * lead), through }
}

function form(name: 'controller_form' | 'observer_form', value: TransferValue): Value | Failure {
  return withTransfer(name, value, (g) => {
    if (relativeDegree(g) < 0) return failure('transfer-improper', { name })
    const n = W.degreeOf(g.bottom)
    if (n < 1) return failure('no-states', { name })
    const { below, above, through } = normalized(g)
    const [zero, one] = [integer(0), integer(1)]
    const entries = Array.from({ length: n * n }, (_, k): NumberValue => {
      const [r, c] = [Math.floor(k / n), k % n]
      // The first row has the coefficients, from the highest power down, and ones stand below the diagonal.
      if (r === 0) return negate(below[n - 1 - c] ?? zero)
      return r === c + 1 ? one : zero
    })
    const first = Array.from({ length: n }, (_, k) => (k === 0 ? one : zero))
    const falling = [...above].reverse()
    const a = matrixOf(n, n, entries)
    const controller = [a, matrixOf(n, 1, first), matrixOf(1, n, falling)] as const
    const observer = [transposed(a), matrixOf(n, 1, falling), matrixOf(1, n, first)] as const
    const [stateA, stateB, stateC] = name === 'controller_form' ? controller : observer
    return listed(name, [['A', stateA], ['B', stateB], ['C', stateC], ['D', matrixOf(1, 1, [through])]]) // prettier-ignore
  })
}

/** [B, AB, …] with rank and verdict; for outputs the same of the transposed matrices. */
function reach(
  name: 'controllability' | 'observability',
  [a, beside]: readonly [MatrixValue, MatrixValue],
  context: Context,
): Value | Failure {
  const wrong = square(name, a) ?? tooLarge(a)
  if (wrong) return wrong
  const other = name === 'controllability' ? beside : outputs(a, beside)
  if (other.kind === 'failure') return other
  const misfit = name === 'controllability' ? inputs(a, other) : null
  if (misfit) return misfit
  const [state, input] = name === 'controllability' ? [a, other] : [transposed(a), transposed(other)]
  const [wa, wb] = [whole(name, state), whole(name, input)]
  if ('kind' in wa) return wa
  if ('kind' in wb) return wb
  const found = S.krylov(wa, wb)
  const exact = a.exact !== null && other.exact !== null
  const rank = exact ? S.rankOf(found) : S.staircaseRank(state.dense, input.dense)
  if (context.at) context.hint(rank === a.rows ? `${name === 'controllability' ? 'controllable' : 'observable'}` : `${name === 'controllability' ? 'not-controllable' : 'not-observable'}`, context.at, { rank, order: a.rows }) // prettier-ignore
  const shown = matrixOf(found.rows, found.cols, found.entries.map((x) => quotientValue(x, found.over, exact))) // prettier-ignore
  return name === 'controllability' ? shown : transposed(shown)
}

/** ∏(s − p) of poles that come in conjugate pairs, as whole numbers over one. */
function polynomialOf(poles: readonly Value[]): { readonly p: Whole; readonly over: bigint } | null {
  let re: Whole = W.ONE
  let im: Whole = []
  let over = 1n
  for (const pole of poles) {
    if (pole.kind !== 'number') return null
    const [x, y] = [pole.exact?.re ?? toDyadic(pole.re), pole.exact?.im ?? toDyadic(pole.im)]
    if (!x || !y) return null
    const { whole: parts, denominator } = W.overOne([x, y])
    const [a = 0n, b = 0n] = parts
    // (re + j·im)·(d·s − a − j·b)
    const linear = W.trimmed([-a, denominator])
    const [r, i] = [re, im]
    re = W.add(W.multiply(r, linear), W.times(i, b))
    im = W.subtract(W.multiply(i, linear), W.times(r, b))
    over *= denominator
  }
  const size = Math.max(...re.map((c) => Q.bitLength(c < 0n ? -c : c)))
  // Rounded pairs may differ in the last place.
  const left = Math.max(0, ...im.map((c) => Q.bitLength(c < 0n ? -c : c)))
  return im.length === 0 || left < size - 46 ? { p: re, over } : null
}

function placed([a, b, poles]: readonly [MatrixValue, MatrixValue, VectorValue]): Value | Failure {
  const wrong = square('pole_placement', a) ?? inputs(a, b) ?? tooLarge(a)
  if (wrong) return wrong
  if (b.cols !== 1) return failure('one-input', { found: shapeText(b) })
  if (poles.items.length !== a.rows) return failure('poles-count', { wanted: a.rows, given: poles.items.length })
  const wanted = polynomialOf(poles.items)
  if (!wanted) return failure('poles-paired')
  const [wa, wb] = [whole('pole_placement', a), whole('pole_placement', b)]
  if ('kind' in wa) return wa
  if ('kind' in wb) return wb
  const row = S.placement(wa, wb, wanted.p, wanted.over)
  if (!row) return failure('cannot-place')
  const exact =
    a.exact !== null && b.exact !== null && poles.items.every((z) => z.kind === 'number' && z.exact !== null)
  return matrixOf(1, a.rows, row.map((q) => (exact ? exactReal(q) : real(Q.toNumber(q))))) // prettier-ignore
}

function transition([a, t]: readonly [MatrixValue, NumberValue]): Value | Failure {
  const wrong = square('transition_matrix', a)
  if (wrong) return wrong
  if (t.re === 0) return identityMatrix(a.rows, a.complex)
  return L.exponential(fromDense(combine(t.re, a.dense, 0, a.dense), a.complex))
}

export const stateFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'transfer',
    group: 'control',
    measures: SM.transfer,
    parameters: [A, B, C, take.matrixOrNumber('D'), take.unknown('s')],
    summary: 'The transfer function C·(sI − A)⁻¹·B + D of a state description, in the unknown s; of several inputs or outputs their matrix.', // prettier-ignore
    examples: [
      { before: ['unknown s'], entry: 'transfer([[0, 1], [-6, -5]], [0, 1], [[1, 0]], 0, s)', gives: '1/(s^2 + 5s + 6)' }, // prettier-ignore
      { before: ['unknown s'], entry: 'transfer([[-2]], [[3]], [[4]], 1, s)', gives: '(s + 14)/(s + 2)' },
      { before: ['unknown s'], entry: 'transfer([[-1, 0], [0, -2]], [1, 1], [[1, 0]], 0, s)', gives: '1/(s + 1)' },
    ],
    apply: transfer,
  }),
  define({
    name: 'controller_form',
    group: 'control',
    measures: SM.form,
    parameters: [G],
    summary:
      'A state description of a transfer function with its coefficients in the first row of .A; .B, .C, .D beside it.',
    examples: [
      { before: ['unknown s'], entry: 'controller_form((s + 3)/(s^2 + 5s + 6)).A', gives: '[[-2]]' },
      { before: ['unknown s'], entry: 'controller_form(4/(s^2 + 3s + 7)).A', gives: '[[-3, -7], [1, 0]]' },
      { before: ['unknown s'], entry: 'controller_form((2s + 5)/(s + 1)).D', gives: '[[2]]' },
    ],
    apply: ([g]) => form('controller_form', g),
  }),
  define({
    name: 'observer_form',
    group: 'control',
    measures: SM.dualForm,
    parameters: [G],
    summary: 'The dual of controller_form: the coefficients stand in the first column of .A, and the numerator in .B.',
    examples: [
      { before: ['unknown s'], entry: 'observer_form(4/(s^2 + 3s + 7)).A', gives: '[[-3, 1], [-7, 0]]' },
      { before: ['unknown s'], entry: 'observer_form((s + 9)/(s^2 + 3s + 7)).B', gives: '[[1], [9]]' },
      { before: ['unknown s'], entry: 'observer_form(4/(s^2 + 3s + 7)).C', gives: '[[1, 0]]' },
    ],
    apply: ([g]) => form('observer_form', g),
  }),
  define({
    name: 'controllability',
    group: 'control',
    measures: SM.reach,
    parameters: [A, B],
    summary:
      'The controllability matrix [B, A·B, A²·B, …]; its line says its rank, and whether every state can be reached.',
    examples: [
      { entry: 'controllability([[0, 1], [-6, -5]], [0, 1])', gives: '[[0, 1], [1, -5]]' },
      { entry: 'controllability([[-1, 0], [0, -2]], [1, 0])', gives: '[[1, -1], [0, 0]]' },
      { entry: 'rank(controllability([[-1, 0], [0, -1]], [1, 1]))', gives: '1' },
    ],
    apply: (args, context) => reach('controllability', args, context),
  }),
  define({
    name: 'observability',
    group: 'control',
    measures: SM.sight,
    parameters: [A, C],
    summary:
      'The observability matrix of C, C·A, C·A², …; its line says its rank, and whether every state can be seen.',
    examples: [
      { entry: 'observability([[0, 1], [-6, -5]], [[1, 0]])', gives: '[[1, 0], [0, 1]]' },
      { entry: 'observability([[0, 1], [-6, -5]], [[0, 1]])', gives: '[[0, 1], [-6, -5]]' },
      { entry: 'rank(observability([[-1, 0], [0, -2]], [[1, 0]]))', gives: '1' },
    ],
    apply: (args, context) => reach('observability', args, context),
  }),
  define({
    name: 'pole_placement',
    group: 'control',
    measures: SM.feedback,
    parameters: [A, B, take.vector('poles')],
    summary: 'The row K of a state feedback u = −K·x with which A − B·K has the poles asked for; of one input. An observer by duality: pole_placement(A^T, C^T, poles)^T.', // prettier-ignore
    examples: [
      { entry: 'pole_placement([[0, 1], [0, 0]], [0, 1], [-2, -3])', gives: '[[6, 5]]' },
      { entry: 'pole_placement([[0, 1], [-6, -5]], [0, 1], [-4 + 3j, -4 - 3j])', gives: '[[19, 3]]' },
      { entry: 'pole_placement([[2]], [[4]], [-6])', gives: '[[2]]' },
    ],
    apply: placed,
  }),
  define({
    name: 'transition_matrix',
    group: 'control',
    parameters: [A, take.real('t')],
    measures: SM.transition,
    summary: 'The transition matrix e^(A·t), by which the state at t follows from that at 0.',
    examples: [
      { entry: 'transition_matrix([[0, 1], [0, 0]], 3)', gives: '[[1, 3], [0, 1]]' },
      { entry: 'transition_matrix([[-1, 0], [0, -2]], ln(2))', gives: '[[0.5, 0], [0, 0.25]]' },
      { entry: 'transition_matrix([[0, 1], [-6, -5]], 0)', gives: '[[1, 0], [0, 1]]' },
    ],
    apply: transition,
  }),
]
