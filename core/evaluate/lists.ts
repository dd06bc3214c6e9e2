import { dataOf } from '../values/problemData'
import { kindOf, realNumber } from '../kinds/kinds'
import type { Entries, Places } from '../kinds/kind'
import { hole } from '../notation/nodes'
import type { Entry, Node } from '../notation/tree'
import { asRadians } from '../values/convert'
import { work } from '../numbers/work'
import { holdsTooLarge } from '../values/beyond'
import { vector } from '../values/make'
import { asMatrix, itemAt, matrixOf } from '../values/matrices'
import { madeSweep, pointAt } from '../values/sweeps'
import { algebraMatrix, asAlgebra, hasUnknowns } from '../algebra/polyMatrix'
import { isAlgebraic } from '../algebra/ratio'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import type { AlgebraMatrixValue, MatrixValue, NumberValue, QuantityValue, Value, VectorValue } from '../values/types'
import { entriesText, fromBlocks } from '../operators/arrays'
import { atEveryPoint, commonAxis, isSweep } from '../operators/lift'
import { bare, isQuantity, quantity } from '../values/quantity'
import { withBlockUnits, withEntryUnits } from './listUnits'
import { evaluateSeries } from './series'
import type { Context, Evaluate } from '../operators/context'

/** Vectors and matrices written out, and entries taken from them. */

/** `[1, 2, 3]` is a vector, `[[1, 2], [3, 4]]` a matrix by rows; a series as the only entry gives all its values. */
export function list(entries: readonly Node[], context: Context, evaluate: Evaluate): Value | Failure {
  if (entries.every((node) => node.type === 'list')) return rows(entries, context, evaluate)
  const items: Value[] = []
  for (const node of entries) {
    if (node.type === 'series') {
      const row = evaluateSeries(node, context, evaluate)
      if (row.kind === 'failure') return row
      if (row.items.length === 0) return failureAt(node, failure('empty-list'))
      items.push(...row.items)
      continue
    }
    const value = evaluate(node, context)
    if (value.kind === 'failure') return value
    const { kind } = bare(value)
    if (kind === 'vector' || kind === 'matrix' || kind === 'algebra-matrix')
      return failureAt(node, failure('vectors-in-list'))
    items.push(value)
  }
  return listed(items, context)
}

function listed(items: readonly Value[], context: Context): Value | Failure {
  const plain = items.some(isQuantity) ? items.map(bare) : items
  const value = lifted(plain, context, (values) =>
    values.some((item) => item.kind === 'vector') ? fromRows(values) : entered(values),
  )
  return plain === items || value.kind === 'failure' ? value : withEntryUnits(bare(value), items)
}

/** Beside a rounded entry an exact one that no double is as large as would be lost as soon as a matrix meets it. */
function entered(values: readonly Value[]): VectorValue | Failure {
  const rounded = values.some((item) => item.kind === 'number' && item.exact === null)
  return rounded && values.some(holdsTooLarge) ? failure('too-large') : vector(values)
}

/** The values of a series as a vector. */
export function gathered(row: VectorValue | Failure, context: Context): Value | Failure {
  return row.kind === 'failure' || !row.items.some(isQuantity) ? row : listed(row.items, context)
}

/** An array whose entries are sweeps is a sweep of arrays. */
function lifted(
  items: readonly Value[],
  context: Context,
  build: (items: readonly Value[]) => Value | Failure,
): Value | Failure {
  if (!items.some(isSweep)) return build(items)
  const axis = commonAxis(items, NOWHERE, context)
  if ('kind' in axis) return axis
  const at = (k: number): Value | Failure =>
    build(items.map((item) => (item.kind === 'sweep' ? pointAt(item, k) : item)))
  const first = at(0)
  if (first.kind === 'failure') return first
  // Where all of them are numbers or angles, what can be built at one point can be at every other.
  const uniform = items.every((item) => item.kind !== 'sweep' || item.of !== 'other' || item.make !== undefined)
  if (uniform)
    return madeSweep(axis, (k) => {
      const value = at(k)
      return value.kind === 'failure' ? first : value
    })
  return atEveryPoint(items, NOWHERE, context, build)
}

const NOWHERE = hole(0, 0)

function algebraFromRows(items: readonly Value[]): Value | Failure {
  const rows: AlgebraMatrixValue[] = []
  for (const item of items) {
    const row = asAlgebra(item)
    if (!row) return failure('entries-are-numbers', { kind: item.kind })
    const above = rows.at(-1)
    if (above && above.rows !== row.rows)
      return failure('rows-differ', {
        row: rows.length + 1,
        found: entriesText(row.rows),
        expected: entriesText(above.rows),
      })
    rows.push(row)
  }
  return algebraMatrix(
    rows.length,
    rows[0]?.rows ?? 0,
    rows.flatMap((row) => row.items),
  )
}

/** `[[1/(r + c - 1) for c = 1 to 3] for r = 1 to 3]`: vectors of one length are the rows. */
function fromRows(items: readonly Value[]): Value | Failure {
  if (items.some(hasUnknowns)) return algebraFromRows(items)
  const numbers: NumberValue[] = []
  let cols = 0
  for (const [k, item] of items.entries()) {
    const row = asMatrix(item)
    if (!row) return failure('entries-are-numbers', { kind: item.kind })
    if (k > 0 && row.rows !== cols)
      return failure('rows-differ', { row: k + 1, found: entriesText(row.rows), expected: entriesText(cols) })
    cols = row.rows
    work(50 * cols)
    for (let c = 0; c < cols; c += 1) numbers.push(itemAt(row, c))
  }
  return matrixOf(items.length, cols, numbers)
}

function rows(entries: readonly Node[], context: Context, evaluate: Evaluate): Value | Failure {
  const cells: { readonly value: Value; readonly node: Node; readonly row: number }[] = []
  for (const [row, node] of entries.entries()) {
    if (node.type !== 'list') continue
    for (const entry of node.entries) {
      const value = entry.type === 'series' ? evaluateSeries(entry, context, evaluate) : evaluate(entry, context)
      if (value.kind === 'failure') return value
      const numbers = entry.type === 'series' && value.kind === 'vector' ? value.items : [value]
      for (const item of numbers) cells.push({ value: item, node: entry, row })
    }
  }
  const value = lifted(
    cells.map((cell) => bare(cell.value)),
    context,
    (values) =>
      rowsOf(
        entries,
        cells.map((cell, k) => ({ ...cell, value: values[k] ?? cell.value })),
      ),
  )
  if (value.kind === 'failure' || !cells.some((cell) => isQuantity(cell.value))) return value
  return withBlockUnits(bare(value), cells, entries)
}

type Cell = { readonly value: Value; readonly node: Node; readonly row: number }

function rowsOf(entries: readonly Node[], cells: readonly Cell[]): Value | Failure {
  if (cells.some(({ value }) => value.kind === 'polynomial')) return algebraRows(entries.length, cells)
  const blocks: MatrixValue[][] = entries.map(() => [])
  for (const { value, node, row } of cells) {
    const block = blockOf(value)
    if (block.kind === 'failure') return failureAt(node, block)
    blocks[row]?.push(block)
  }
  const matrix = fromBlocks(blocks)
  if (matrix.kind === 'failure') {
    const { row } = dataOf(matrix, 'rows-differ') ?? dataOf(matrix, 'blocks-differ') ?? { row: 1 }
    const place = entries[row - 1] ?? entries[0]
    return place ? failureAt(place, matrix) : matrix
  }
  return matrix
}

/** Entries with unknowns stand singly, not in blocks. */
function algebraRows(count: number, cells: readonly Cell[]): Value | Failure {
  const rows = Array.from({ length: count }, (_, row) => cells.filter((cell) => cell.row === row))
  const cols = rows[0]?.length ?? 0
  const odd = rows.findIndex((row) => row.length !== cols)
  const items = cells.flatMap(({ value }) => (isAlgebraic(value) ? [value] : []))
  if (items.length < cells.length) return failure('entries-are-numbers', { kind: 'vector' })
  if (odd >= 0)
    return failure('rows-differ', {
      row: odd + 1,
      found: entriesText(rows[odd]?.length ?? 0),
      expected: entriesText(cols),
    })
  return algebraMatrix(count, cols, items)
}

function blockOf(value: Value): MatrixValue | Failure {
  const number = scalar(value)
  if (number) return matrixOf(1, 1, [number])
  return asMatrix(value) ?? failure('entries-are-numbers', { kind: value.kind })
}

function scalar(value: Value): NumberValue | null {
  if (value.kind === 'number') return value
  return value.kind === 'angle' ? asRadians(value) : null
}

/** `v[2]`, `A[2, 3]`, `A[2, all]`, `v[2 to 4]`: entries of a vector or matrix, points of a sweep, letters of a text. */
export function entry(node: Entry, context: Context, evaluate: Evaluate): Value | Failure {
  const operand = evaluate(node.operand, context)
  if (operand.kind === 'failure') return operand
  if (operand.kind === 'quantity') return quantityEntry(operand, node, context, evaluate)
  // Of a sweep of vectors and the like, the entry at every point.
  if (operand.kind === 'sweep' && operand.of === 'other' && kindOf(pointAt(operand, 0)).entries)
    return atEveryPoint([operand], node, context, ([x], inner) => entryOf(x, node, inner, evaluate))
  return entryOf(operand, node, context, evaluate)
}

/** The entry with what it measures; of a sweep of arrays what it measures at the first point it does at all. */
function quantityEntry(operand: QuantityValue, node: Entry, context: Context, evaluate: Evaluate): Value | Failure {
  const { value: inner, measure, unknowns } = operand
  if (inner.kind !== 'sweep' || inner.of !== 'other') return entryOf(operand, node, context, evaluate)
  const first = quantity(bare(pointAt(inner, 0)), measure, { unknowns })
  const one = entryOf(first, node, context, evaluate)
  if (one.kind === 'failure') return one
  const all = atEveryPoint([inner], node, context, ([x], c) => entryOf(x, node, c, evaluate))
  return all.kind === 'failure' || one.kind !== 'quantity' ? all : quantity(bare(all), one.measure, { unknowns })
}

function entryOf(operand: Value, node: Entry, context: Context, evaluate: Evaluate): Value | Failure {
  const { entries } = kindOf(operand)
  const range = kindOf(bare(operand)).entries?.range
  if (!entries || !range) return failureAt(node.operand, failure('no-entries', { kind: bare(operand).kind }))
  const [count, columns] = entries.sides(operand)
  if (node.column && columns === null) return failureAt(node.column, failure('too-many-indices'))
  const first = indices(node.index, count, range, context, evaluate)
  if ('kind' in first) return first
  if (!node.column || columns === null) return entries.take(operand, places(first, node.index), null)
  const second = indices(node.column, columns, 'index-column-range', context, evaluate)
  return 'kind' in second ? second : entries.take(operand, places(first, node.index), places(second, node.column))
}

const places = (at: readonly number[], node: Node): Places => ({ at, single: isSingle(node) })

const isSingle = (node: Node): boolean => node.type !== 'all' && node.type !== 'slice'

/** The places that an index means, counted from 0. */
function indices(
  node: Node,
  count: number,
  code: Entries<Value>['range'] | 'index-column-range',
  context: Context,
  evaluate: Evaluate,
): number[] | Failure {
  if (node.type === 'all') return Array.from({ length: count }, (_, k) => k)
  const inner = context.insideIndex(count)
  const one = (part: Node): number | Failure => {
    const value = evaluate(part, inner)
    if (value.kind === 'failure') return value
    const k = realNumber(value)?.re ?? NaN
    return Number.isInteger(k) && k >= 1 && k <= count ? k : failureAt(part, failure(code, { count }))
  }
  if (node.type !== 'slice') {
    const k = one(node)
    return typeof k === 'number' ? [k - 1] : k
  }
  const first = one(node.first)
  if (typeof first !== 'number') return first
  const last = one(node.last)
  if (typeof last !== 'number') return last
  let step = first <= last ? 1 : -1
  if (node.step) {
    const value = evaluate(node.step, inner)
    if (value.kind === 'failure') return value
    step = realNumber(value)?.re ?? NaN
    if (!Number.isInteger(step)) return failureAt(node.step, failure('step-whole'))
    if (step === 0) return failureAt(node.step, failure('step-zero'))
    if (step > 0 !== first <= last && first !== last) return failureAt(node.step, failure('step-direction', { step }))
  }
  const places: number[] = []
  for (let k = first; step > 0 ? k <= last : k >= last; k += step) places.push(k - 1)
  return places
}
