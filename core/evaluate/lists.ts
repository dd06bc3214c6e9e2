import type { Entry, Node } from '../notation/tree'
import { asRadians } from '../values/convert'
import { text, vector } from '../values/make'
import { asMatrix, itemAt, matrixOf, settled } from '../values/matrices'
import { failure } from '../values/value'
import type { Failure, MatrixValue, NumberValue, Value } from '../values/value'
import { fromBlocks } from './arrays'
import { derive } from './context'
import type { Context } from './context'

/** Vectors and matrices written out, and entries taken from them. */

type Evaluate = (node: Node, context: Context) => Value | Failure

function at(node: Node, failed: Failure): Failure {
  return { ...failed, from: node.from, to: node.to }
}

/** `[1, 2, 3]` is a vector, `[[1, 2], [3, 4]]` a matrix by rows; a series as the only entry gives all its values. */
export function list(entries: readonly Node[], context: Context, evaluate: Evaluate): Value | Failure {
  if (entries.every((node) => node.type === 'list')) return rows(entries, context, evaluate)
  const items: Value[] = []
  for (const node of entries) {
    const value = evaluate(node, context)
    if (value.kind === 'failure') return value
    if (node.type === 'series' && value.kind === 'vector') {
      if (value.items.length === 0) return at(node, failure('empty-list'))
      items.push(...value.items)
    } else if (value.kind === 'vector' || value.kind === 'matrix') return at(node, failure('vectors-in-list'))
    else items.push(value)
  }
  return items.some((item) => item.kind === 'vector') ? fromRows(items) : vector(items)
}

/** `[[1/(r + c - 1) for c = 1 to 3] for r = 1 to 3]`: vectors of one length are the rows. */
function fromRows(items: readonly Value[]): Value | Failure {
  const blocks: MatrixValue[][] = []
  for (const item of items) {
    const row = asMatrix(item)
    if (!row) return failure('entries-are-numbers', { kind: item.kind })
    blocks.push(Array.from({ length: row.rows }, (_, k) => matrixOf(1, 1, [itemAt(row, k)])))
  }
  const matrix = fromBlocks(blocks)
  return matrix.kind === 'failure' ? matrix : settled(matrix)
}

function rows(entries: readonly Node[], context: Context, evaluate: Evaluate): Value | Failure {
  const blocks: MatrixValue[][] = []
  for (const node of entries) {
    if (node.type !== 'list') continue
    const row: MatrixValue[] = []
    for (const entry of node.entries) {
      const value = evaluate(entry, context)
      if (value.kind === 'failure') return value
      const numbers = entry.type === 'series' && value.kind === 'vector' ? value.items : [value]
      for (const item of numbers) {
        const block = blockOf(item)
        if (block.kind === 'failure') return at(entry, block)
        row.push(block)
      }
    }
    blocks.push(row)
  }
  const matrix = fromBlocks(blocks)
  if (matrix.kind === 'failure') {
    const row = entries[Number(matrix.data.row ?? 1) - 1] ?? entries[0]
    return row ? at(row, matrix) : matrix
  }
  // A matrix of one column that was written by rows is a vector, as every column is.
  return settled(matrix)
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

/** `v[2]`, `A[2, 3]`, `A[2, all]`, `v[2 to 4]`: entries of a vector or matrix, or letters of a text. */
export function entry(node: Entry, context: Context, evaluate: Evaluate): Value | Failure {
  const operand = evaluate(node.operand, context)
  if (operand.kind === 'failure') return operand
  if (operand.kind === 'matrix') return matrixEntry(operand, node, context, evaluate)
  if (operand.kind !== 'vector' && operand.kind !== 'text')
    return at(node.operand, failure('no-entries', { kind: operand.kind }))
  if (node.column) return at(node.column, failure('too-many-indices'))
  const letters = operand.kind === 'text' ? [...operand.text] : operand.items
  const places = indices(node.index, letters.length, 'entry-range', context, evaluate)
  if (!Array.isArray(places)) return places as Failure
  const found = places.flatMap((k) => letters[k] ?? [])
  const single = node.index.type !== 'all' && node.index.type !== 'slice'
  const [only] = found
  if (operand.kind === 'text') return text(found.join(''))
  const items = found.flatMap((x) => (typeof x === 'string' ? [] : [x]))
  return single && only !== undefined && typeof only !== 'string' ? only : vector(items)
}

function matrixEntry(m: MatrixValue, node: Entry, context: Context, evaluate: Evaluate): Value | Failure {
  // One index of a matrix is a whole row.
  const rowPlaces = indices(node.index, m.rows, 'index-row-range', context, evaluate)
  if (!Array.isArray(rowPlaces)) return rowPlaces as Failure
  const everything: readonly number[] = Array.from({ length: m.cols }, (_, k) => k)
  const columnPlaces = node.column ? indices(node.column, m.cols, 'index-column-range', context, evaluate) : everything
  if (!Array.isArray(columnPlaces)) return columnPlaces as Failure
  const items = rowPlaces.flatMap((r) => columnPlaces.map((c: number) => itemAt(m, r * m.cols + c)))
  const chosen = matrixOf(rowPlaces.length, columnPlaces.length, items)
  const single = isSingle(node.index) && node.column !== null && isSingle(node.column)
  return settled(chosen, single)
}

const isSingle = (node: Node): boolean => node.type !== 'all' && node.type !== 'slice'

/** The places that an index means, counted from 0. */
function indices(node: Node, count: number, code: string, context: Context, evaluate: Evaluate): number[] | Failure {
  if (node.type === 'all') return Array.from({ length: count }, (_, k) => k)
  const inner = derive(context, { last: count })
  const one = (part: Node): number | Failure => {
    const value = evaluate(part, inner)
    if (value.kind === 'failure') return value
    const k = value.kind === 'number' && value.im === 0 ? value.re : NaN
    return Number.isInteger(k) && k >= 1 && k <= count ? k : at(part, failure(code, { count }))
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
    step = value.kind === 'number' && value.im === 0 ? value.re : NaN
    if (!Number.isInteger(step) || step === 0) return at(node.step, failure('step-zero'))
    if (step > 0 !== first <= last && first !== last) return at(node.step, failure('step-direction', { step }))
  }
  const places: number[] = []
  for (let k = first; step > 0 ? k <= last : k >= last; k += step) places.push(k - 1)
  return places
}
