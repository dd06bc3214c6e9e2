import type { Node } from '../notation/tree'
import * as A from '../values/arithmetic'
import { integer } from '../values/make'
import { asMatrix, itemAt, matrixOf } from '../values/matrices'
import { bare } from '../values/quantity'
import type { MatrixValue, NumberValue, Value } from '../values/types'
import { eliminated, entryAt, freeColumns, leadingColumns } from './elimination'
import type { Entries, Stage } from './elimination'
import type { Rule } from './rules'
import { call, column, difference, equation, grouped, isZero, joined, minus, negated, numberOr, over, sum, times, valued, whole } from './terms' // prettier-ignore
import type { Done, Progress } from './work'
import { gridOf, numbersOf } from './vectors'

/** Determinants, inverses, systems and what is reduced row by row. */

/** Sides up to which elimination is shown row by row. */
const SIDE_MOST = 6
/** Sides up to which a determinant is expanded. */
const EXPANDED_MOST = 4

export function rowsOf(m: MatrixValue): Entries {
  return Array.from({ length: m.rows }, (_, r) => Array.from({ length: m.cols }, (_, c) => itemAt(m, r * m.cols + c)))
}

const matrixIn = (p: Progress, k: number): MatrixValue | null => asMatrix(bare(p.operand(k).value))

const ROW_RULES: { readonly [K in Stage['change']['type']]: Rule } = {
  swap: 'row-exchange',
  scale: 'row-scaled',
  add: 'row-added',
}
const TAKEN = 'What is within rounding of 0 is taken for 0.'

/** Tells an elimination, one operation after another; the rows at its end. */
export function tellElimination(p: Progress, start: Entries, stages: readonly Stage[], left: number): Entries {
  for (const { rows, change, taken } of stages) p.rows(ROW_RULES[change.type], rows, left, change, taken ? TAKEN : null)
  return stages.at(-1)?.rows ?? start
}

/** det A. */
export function determinant(p: Progress): Done | null {
  const m = matrixIn(p, 0)
  if (!m || m.rows !== m.cols) return p.done('determinant-expansion')
  if (m.rows === 1) return p.done('determinant-one')
  if (m.rows === 2) {
    const [a, b, c, d] = rowsOf(m).flat().map((z) => valued(z)) as [Node, Node, Node, Node]
    return p.rewrite('determinant-two', p.hasUnits ? p.now : difference(times(a, d), times(b, c)))
  }
  if (m.rows > EXPANDED_MOST || p.hasUnits) return m.rows > SIDE_MOST ? p.done('determinant-elimination') : byElimination(p, m)
  const ways = m.rows === 3 ? ['expansion', 'Sarrus', 'elimination'] : ['expansion', 'elimination']
  const way = p.way(ways, 'expansion')
  if (way === 'elimination') return byElimination(p, m)
  return way === 'Sarrus' ? sarrus(p, m) : expansion(p, m)
} // prettier-ignore

function sarrus(p: Progress, m: MatrixValue): Done | null {
  const at = (r: number, c: number): Node => valued(itemAt(m, r * 3 + (c % 3)))
  const down = [0, 1, 2].map((c) => times(times(at(0, c), at(1, c + 1)), at(2, c + 2)))
  const up = [0, 1, 2].map((c) => times(times(at(2, c), at(1, c + 1)), at(0, c + 2)))
  const worked = (terms: readonly Node[]): readonly Node[] => terms.map((t) => valued(numberOr(p.work.tools.see(t).value)))
  const row = (a: readonly Node[], b: readonly Node[]): Node =>
    b.reduce((left, term) => difference(left, term), joined(a, '+', whole(0)))
  p.move('determinant-sarrus', row(down, up))
  p.move('products-worked-out', row(worked(down), worked(up)))
  return p.done('add')
} // prettier-ignore

/** Along the row or column with most zeros. */
function expansion(p: Progress, m: MatrixValue): Done | null {
  const n = m.rows
  const at = (r: number, c: number): NumberValue => itemAt(m, r * n + c)
  const zeros = (of: (k: number) => NumberValue): number => Array.from({ length: n }, (_, k) => of(k)).filter(isZero).length // prettier-ignore
  const rows = Array.from({ length: n }, (_, r) => zeros((c) => at(r, c)))
  const cols = Array.from({ length: n }, (_, c) => zeros((r) => at(r, c)))
  const most = Math.max(...rows, ...cols)
  const alongRow = rows.includes(most)
  const line = alongRow ? rows.indexOf(most) : cols.indexOf(most)
  const says = `Along ${alongRow ? 'row' : 'column'} ${line + 1}${most === 0 ? '' : `, which has ${most} ${most === 1 ? 'zero' : 'zeros'}`}.` // prettier-ignore
  let made: Node | null = null
  for (let k = 0; k < n; k += 1) {
    const [r, c] = alongRow ? [line, k] : [k, line]
    const entry = at(r, c)
    if (isZero(entry)) continue
    const term = times(valued(entry), call('det', valued(minor(m, r, c))))
    const odd = (r + c) % 2 === 1
    made = made === null ? (odd ? minus(term) : term) : sum(made, term, odd ? '-' : '+')
  }
  if (made === null) return p.done('determinant-expansion', undefined, { says })
  return p.rewrite('determinant-expansion', made, { says })
}

function minor(m: MatrixValue, row: number, col: number): Value {
  const rows = rowsOf(m).flatMap((entries, r) => (r === row ? [] : [entries.filter((_, c) => c !== col)]))
  return matrixOf(m.rows - 1, m.cols - 1, rows.flat())
}

function byElimination(p: Progress, m: MatrixValue): Done | null {
  const start = rowsOf(m)
  const stages = eliminated(start, m.cols, false)
  const swaps = stages.filter((s) => s.change.type === 'swap').length
  if (stages.length > 0) p.aside('determinant-elimination', { kind: 'rows', rows: start, left: m.cols, operation: null }, '=')
  const last = tellElimination(p, start, stages, m.cols)
  const diagonal = last.map((row, k) => row[k] ?? integer(0))
  const product = joined(diagonal.map((z) => valued(z)), '*', whole(1))
  const said = swaps === 0 ? 'No rows were exchanged.' : `Rows were exchanged ${swaps === 1 ? 'once' : `${swaps} times`}.`
  p.move('determinant-diagonal', p.inUnit(swaps % 2 === 1 ? minus(grouped(product)) : product), { says: said })
  return p.done('products-worked-out')
} // prettier-ignore

/** A⁻¹. */
export function inverse(p: Progress): Done | null {
  const m = matrixIn(p, 0)
  const isSquare = m && m.rows === m.cols
  if (!isSquare || m.rows > SIDE_MOST) return p.done('inverse-augmented')
  if (m.rows === 2 && !p.hasUnits && p.way(['formula', 'elimination'], 'formula') === 'formula') return inverseOfTwo(p, m)
  const n = m.rows
  const unit = (r: number, c: number): NumberValue => integer(r === c ? 1 : 0)
  const start = rowsOf(m).map((row, r) => [...row, ...Array.from({ length: n }, (_, c) => unit(r, c))])
  return solved(p, start, n, 'inverse-augmented', 'inverse-read-off')
} // prettier-ignore

function inverseOfTwo(p: Progress, m: MatrixValue): Done | null {
  const [a, b, c, d] = rowsOf(m).flat() as [NumberValue, NumberValue, NumberValue, NumberValue]
  const det = numberOr(A.subtract(numberOr(A.multiply(a, d)), numberOr(A.multiply(b, c))))
  const terms = difference(times(valued(a), valued(d)), times(valued(b), valued(c)))
  const swapped = valued(matrixOf(2, 2, [d, negated(b), negated(c), a]))
  if (isZero(det) || p.value.kind === 'failure') {
    p.aside('determinant-two', { kind: 'equation', node: equation(terms, whole(0)) }, '=', 'The determinant is 0: there is no inverse.')
    return p.ended()
  }
  p.move('inverse-two', times(grouped(over(whole(1), terms)), swapped))
  p.move('products-worked-out', times(grouped(over(whole(1), valued(det))), swapped))
  p.move('matrix-scaled', gridOf(2, 2, (r, k) => over(valued([[d, negated(b)], [negated(c), a]][r]?.[k] ?? d), valued(det))), { depth: 'all' })
  return p.done('matrix-scaled')
} // prettier-ignore

/** A system, or several at once, by elimination on the augmented matrix. */
function solved(p: Progress, start: Entries, left: number, first: Rule, last: Rule): Done | null {
  p.rows(first, start, left, null)
  const end = tellElimination(p, start, eliminated(start, left, true), left)
  const singular = leadingColumns(end, left).filter((c) => c !== null).length < left
  if (singular) {
    const contradicts = end.some((row) => row.slice(0, left).every(isZero) && row.slice(left).some((z) => !isZero(z)))
    p.rows('singular', end, left, null, contradicts ? 'A row says 0 = something else: there is no solution.' : 'A row says 0 = 0: there are infinitely many solutions.') // prettier-ignore
    return p.value.kind === 'failure' ? p.ended() : p.done(last)
  }
  return p.done(last)
}

/** solve(A, b). */
export function solution(p: Progress): Done | null {
  const [a, b] = [matrixIn(p, 0), matrixIn(p, 1)]
  if (!a || !b || a.rows !== a.cols || a.rows > SIDE_MOST || b.rows !== a.rows || b.cols > SIDE_MOST)
    return p.done('solve-augmented', undefined, { says: 'By elimination with exchange of rows.' })
  const right = numbersOf(p.operand(1).value)
  if (a.rows === 3 && right && !p.hasUnits && p.value.kind !== 'failure') {
    if (p.way(['elimination', 'Cramer'], 'elimination') === 'Cramer') return byCramer(p, a, right)
  }
  const [left, beside] = [rowsOf(a), rowsOf(b)]
  const start = left.map((row, r) => [...row, ...(beside[r] ?? [])])
  return solved(p, start, a.cols, 'solve-augmented', 'solution-read-off')
}

function byCramer(p: Progress, a: MatrixValue, right: readonly NumberValue[]): Done | null {
  const replaced = (k: number): Value =>
    matrixOf(3, 3, rowsOf(a).flatMap((row, r) => row.map((z, c) => (c === k ? (right[r] ?? z) : z))))
  const terms = [0, 1, 2].map((k) => over(call('det', valued(replaced(k))), call('det', valued(a))))
  return p.rewrite('cramer', column(terms))
} // prettier-ignore

/** A matrix as it is, and its reduction; the rows at the end. */
function reducedRows(p: Progress, m: MatrixValue, full: boolean): Entries {
  const start = rowsOf(m)
  p.rows('reduce-rows', start, m.cols, null)
  return tellElimination(p, start, eliminated(start, m.cols, full), m.cols)
}

/** rref(A), ref(A), rank(A). */
export function reduced(p: Progress, what: 'rref' | 'ref' | 'rank'): Done | null {
  const m = matrixIn(p, 0)
  if (!m || m.rows > SIDE_MOST || m.cols > SIDE_MOST + 2) return p.done('reduce-rows')
  const end = reducedRows(p, m, what === 'rref')
  if (what !== 'rank') return p.done('read-off')
  const rank = leadingColumns(end, m.cols).filter((c) => c !== null).length
  return p.done('rank-counted', undefined, { says: `${rank} ${rank === 1 ? 'row has' : 'rows have'} a leading entry.` })
}

/** nullspace(A). */
export function nullspace(p: Progress): Done | null {
  const m = matrixIn(p, 0)
  if (!m || m.rows > SIDE_MOST || m.cols > SIDE_MOST) return p.done('nullspace')
  const free = freeColumns(reducedRows(p, m, true), m.cols)
  const says = free.length === 0 ? 'No unknown is free: only 0 is sent to 0.' : `Free: unknown ${free.join(', ')}.`
  return p.done('nullspace', undefined, { says })
}

/** A^n. */
export function matrixPower(p: Progress): Done | null {
  const n = p.number(1)
  const exponent = n?.exact?.re.d === 1 && n.im === 0 ? n.re : null
  const base = p.operand(0).node
  if (exponent === null || exponent === 0) return p.done('matrix-power')
  if (exponent === 1) return p.done('power-one')
  if (exponent === -1) return p.rewrite('matrix-power', call('inv', base), { says: 'The power −1 is the inverse.' })
  if (exponent < 0 || exponent > 4) return p.done('matrix-power')
  return p.rewrite('matrix-power', joined(Array.from({ length: exponent }, () => base), '*', base))
} // prettier-ignore

/** tr A. */
export function trace(p: Progress): Done | null {
  const m = matrixIn(p, 0)
  if (!m || m.rows > 8) return p.done('trace')
  p.move('trace', p.inUnit(joined(Array.from({ length: m.rows }, (_, k) => valued(entryAt(rowsOf(m), k, k))), '+', whole(0)))) // prettier-ignore
  return p.done('add')
}
