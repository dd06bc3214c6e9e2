import { isComplex } from '../format/number'
import type { Node } from '../notation/tree'
import * as A from '../values/arithmetic'
import { asMatrix, itemAt } from '../values/matrices'
import { bare } from '../values/quantity'
import type { MatrixValue, NumberValue, Value } from '../values/types'
import { rootOfSquares } from './complexNumbers'
import type { EntryStep } from './step'
import { call, column, difference, grouped, joined, numberOr, over, sum, times, valued, whole } from './terms'
import type { Done, Progress } from './work'

/** Vectors, and what goes entry by entry. */

/** Entries up to which a vector is written out in a step. */
const ENTRIES_SHOWN = 8
const MATRIX_SHOWN = 16

/** The numbers of a vector; `null` where it has others. */
export function numbersOf(value: Value | undefined): readonly NumberValue[] | null {
  const inner = value && bare(value)
  if (inner?.kind !== 'vector') return null
  const found = inner.items.flatMap((item) => (item.kind === 'number' ? [item] : []))
  return found.length === inner.items.length ? found : null
}

/** A matrix of terms. */
export function gridOf(rows: number, cols: number, entry: (r: number, c: number) => Node): Node {
  return column(Array.from({ length: rows }, (_, r) => column(Array.from({ length: cols }, (_, c) => entry(r, c)))))
}

/** u ± v, k·v, v/k, of vectors and of matrices. */
export function arraySum(p: Progress, sign: '+' | '-'): Done | null {
  const [u, v] = [numbersOf(p.operand(0).value), numbersOf(p.operand(1).value)]
  if (u && v && u.length === v.length) {
    if (u.length <= ENTRIES_SHOWN) p.move('componentwise', p.inUnit(column(u.map((x, k) => sum(valued(x), valued(v[k] ?? x), sign)))))
    return p.done('componentwise')
  }
  const [a, b] = [asMatrix(bare(p.operand(0).value)), asMatrix(bare(p.operand(1).value))]
  if (!a || !b) return p.done('entry-by-entry')
  const says = `Both are ${a.rows} × ${a.cols}.`
  if (a.rows * a.cols <= MATRIX_SHOWN && a.rows === b.rows && a.cols === b.cols && p.value.kind !== 'failure')
    p.move('matrix-sum', p.inUnit(gridOf(a.rows, a.cols, (r, c) => sum(valued(itemAt(a, r * a.cols + c)), valued(itemAt(b, r * a.cols + c)), sign))), { says })
  return p.done('matrix-sum')
} // prettier-ignore

/** A number times a vector or a matrix, or divided into it. */
export function scaledArray(p: Progress, sign: '*' | '/'): Done | null {
  const [first, second] = [p.operand(0), p.operand(1)]
  const number = p.number(0) ?? p.number(1)
  const array = bare((p.number(0) ? second : first).value)
  if (!number) return p.done('entry-by-entry')
  const of = (z: NumberValue): Node => (sign === '/' ? over(valued(z), valued(number)) : times(valued(number), valued(z)))
  const items = numbersOf(array)
  if (items) {
    if (items.length <= ENTRIES_SHOWN) p.move('scaled-components', p.inUnit(column(items.map(of))))
    return p.done('scaled-components')
  }
  const m = asMatrix(array)
  if (m && m.rows * m.cols <= MATRIX_SHOWN) p.move('matrix-scaled', p.inUnit(gridOf(m.rows, m.cols, (r, c) => of(itemAt(m, r * m.cols + c)))))
  return p.done('matrix-scaled')
} // prettier-ignore

/** A·B, A·v, vᵀ·w: row by column. */
export function matrixProduct(p: Progress): Done | null {
  const [a, b] = [asMatrix(bare(p.operand(0).value)), asMatrix(bare(p.operand(1).value))]
  if (!a || !b || p.value.kind === 'failure') return p.done('row-by-column')
  const says = `${a.rows} × ${a.cols} times ${b.rows} × ${b.cols} is ${a.rows} × ${b.cols}.`
  const entries = entrySteps(a, b, bare(p.value))
  const small = a.rows * b.cols * a.cols <= 32
  if (small) p.move('row-by-column', p.inUnit(gridOrColumn(a.rows, b.cols, p.value, (r, c) => dotTerm(a, b, r, c))), { says, depth: 'all' }) // prettier-ignore
  return p.done('row-by-column', undefined, { says, entries })
}

/** One column stays a vector where the result is one. */
function gridOrColumn(rows: number, cols: number, like: Value, entry: (r: number, c: number) => Node): Node {
  const { kind } = bare(like)
  if (kind === 'number') return entry(0, 0)
  return kind === 'vector' ? column(Array.from({ length: rows }, (_, r) => entry(r, 0))) : gridOf(rows, cols, entry)
}

function dotTerm(a: MatrixValue, b: MatrixValue, r: number, c: number): Node {
  const terms = Array.from({ length: a.cols }, (_, k) => times(valued(itemAt(a, r * a.cols + k)), valued(itemAt(b, k * b.cols + c)))) // prettier-ignore
  return joined(terms, '+', whole(0))
}

/** Most entries that each have their own way. */
const ENTRY_STEPS = 64

function entrySteps(a: MatrixValue, b: MatrixValue, result: Value): readonly EntryStep[] {
  if (a.rows * b.cols > ENTRY_STEPS || a.cols > 12) return []
  const m = asMatrix(result)
  return Array.from({ length: a.rows * b.cols }, (_, k) => {
    const [r, c] = [Math.floor(k / b.cols), k % b.cols]
    const value = m ? itemAt(m, k) : numberOr(result)
    return { row: r + 1, col: c + 1, term: dotTerm(a, b, r, c), value }
  })
}

/** u · v, the entries of u conjugated. */
export function dotProduct(p: Progress): Done | null {
  const [u, v] = [numbersOf(p.operand(0).value), numbersOf(p.operand(1).value)]
  if (!u || !v || u.length !== v.length || u.length > ENTRIES_SHOWN) return p.done('dot-product')
  const pairs = u.map((x, k) => [A.conjugate(x), v[k] ?? x] as const)
  p.move('dot-product', p.inUnit(joined(pairs.map(([x, y]) => times(valued(x), valued(y))), '+', whole(0))))
  p.move('products-worked-out', p.inUnit(joined(pairs.map(([x, y]) => valued(numberOr(A.multiply(x, y)))), '+', whole(0))))
  return p.done('add')
} // prettier-ignore

/** u × v. */
export function crossProduct(p: Progress): Done | null {
  const [u, v] = [numbersOf(p.operand(0).value), numbersOf(p.operand(1).value)]
  if (u?.length !== 3 || v?.length !== 3) return p.done('cross-product')
  const at = (w: readonly NumberValue[], k: number): NumberValue => w[k % 3] ?? numberOr(p.value)
  const row = (of: (x: NumberValue, y: NumberValue) => Node): Node =>
    column([1, 2, 0].map((k) => difference(of(at(u, k), at(v, k + 1)), of(at(u, k + 1), at(v, k)))))
  p.move('cross-product', p.inUnit(row((x, y) => times(valued(x), valued(y)))))
  p.move('products-worked-out', p.inUnit(row((x, y) => valued(numberOr(A.multiply(x, y))))))
  return p.done('subtract')
}

/** The length of a vector. */
export function vectorLength(p: Progress): Done | null {
  const items = numbersOf(p.operand(0).value)
  if (!items || items.length > ENTRIES_SHOWN) return p.done('length')
  rootOfSquares(p, items, 'length')
  return p.done('square-root')
}

/** v/‖v‖. */
export function unitVector(p: Progress): Done | null {
  const { node } = p.operand(0)
  return p.rewrite('unit-vector', over(node, call('norm', node)))
}

/** The angle between two vectors. */
export function angleBetween(p: Progress): Done | null {
  const [u, v] = [p.operand(0).node, p.operand(1).node]
  const complex = [0, 1].some((k) => numbersOf(p.operand(k).value)?.some(isComplex))
  const dot = complex ? call('re', call('dot', u, v)) : call('dot', u, v)
  return p.rewrite('angle-between', call('arccos', over(dot, times(call('norm', u), call('norm', v)))))
}

/** The distance of two points. */
export function distance(p: Progress): Done | null {
  return p.rewrite('distance', call('norm', difference(p.operand(0).node, p.operand(1).node)))
}

/** The projection of u onto v. */
export function projection(p: Progress): Done | null {
  const [u, v] = [p.operand(0).node, p.operand(1).node]
  return p.rewrite('projection', times(grouped(over(call('dot', v, u), call('dot', v, v))), v))
}

/** Sums, products and means of the entries of a vector, or of several values. */
export function rowOf(p: Progress): readonly Node[] | null {
  const [only] = p.operands
  if (p.operands.length !== 1 || !only) return p.operands.map((o) => o.node)
  const inner = bare(only.value)
  if (inner.kind !== 'vector') return null
  return only.value.kind === 'quantity' ? null : inner.items.map((item) => valued(item, only.form))
}
