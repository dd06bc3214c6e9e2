import { asMatrix, itemAt, likeOperands, mapMatrix, matrixOf, shapeText, zipMatrices } from '../values/matrices'
import { mapVector, zipVectors } from '../values/vectors'
import { holdsTooLarge } from '../values/beyond'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { MatrixValue, NumberValue, Value, VectorValue } from '../values/types'

/** Vectors and matrices entry by entry, as inside each( ). */

export function isArray(value: Value): value is VectorValue | MatrixValue {
  return value.kind === 'vector' || value.kind === 'matrix'
}

type Join = (x: Value, y: Value) => Value | Failure

/** An operator on entries: two arrays of one shape, or one array and a value that stands for every entry. */
export function entrywise(a: Value, b: Value, sign: string, join: Join): Value | Failure {
  if (a.kind === 'vector' && b.kind === 'vector') return zipVectors(a, b, join)
  if (isArray(a) && isArray(b)) {
    const [left, right] = [asMatrix(a), asMatrix(b)]
    if (!left || !right) return failure('shapes-differ', { left: shapeText(a), right: shapeText(b), sign })
    return likeOperands(zipMatrices(left, right, sign, join), a, b)
  }
  if (a.kind === 'vector') return mapVector(a, (x) => join(x, b))
  if (b.kind === 'vector') return mapVector(b, (y) => join(a, y))
  if (a.kind === 'matrix') return mapMatrix(a, (x) => join(x, b))
  if (b.kind === 'matrix') return mapMatrix(b, (y) => join(a, y))
  return join(a, b)
}

export function entriesText(n: number): string {
  return n === 1 ? '1 entry' : `${n} entries`
}

/** Blocks put together row by row, as in a textbook. */
export function fromBlocks(rows: readonly (readonly MatrixValue[])[]): MatrixValue | Failure {
  const strips: MatrixValue[] = []
  for (const [k, blocks] of rows.entries()) {
    const strip = sideBySide(blocks, k + 1)
    if (strip.kind === 'failure') return strip
    const above = strips.at(-1)
    if (above && above.cols !== strip.cols) {
      const [found, expected] = [entriesText(strip.cols), entriesText(above.cols)]
      return failure('rows-differ', { row: k + 1, found, expected })
    }
    strips.push(strip)
  }
  return stacked(strips)
}

/** Blocks next to one another; `row` counts the rows of blocks from 1. */
export function sideBySide(blocks: readonly MatrixValue[], row = 1): MatrixValue | Failure {
  const [first] = blocks
  if (!first) return failure('empty-list')
  const other = blocks.find((b) => b.rows !== first.rows)
  if (other) return failure('blocks-differ', { row, left: first.rows, right: other.rows })
  const cols = blocks.reduce((sum, b) => sum + b.cols, 0)
  const items = Array.from({ length: first.rows }, (_, r) => blocks.flatMap((b) => rowOf(b, r))).flat()
  return entered(first.rows, cols, items)
}

export function stacked(blocks: readonly MatrixValue[]): MatrixValue | Failure {
  const [first] = blocks
  if (!first) return failure('empty-list')
  const other = blocks.find((b) => b.cols !== first.cols)
  if (other) return failure('shapes-differ', { left: shapeText(first), right: shapeText(other), sign: 'above' })
  const items = blocks.flatMap((b) => Array.from({ length: b.rows }, (_, r) => rowOf(b, r)).flat())
  return entered(
    blocks.reduce((sum, b) => sum + b.rows, 0),
    first.cols,
    items,
  )
}

/** Beside a rounded entry all are doubles: an exact one that no double is as large as cannot be among them. */
function entered(rows: number, cols: number, items: readonly NumberValue[]): MatrixValue | Failure {
  const matrix = matrixOf(rows, cols, items)
  return matrix.exact === null && items.some(holdsTooLarge) ? failure('too-large') : matrix
}

function rowOf(m: MatrixValue, r: number) {
  return Array.from({ length: m.cols }, (_, c) => itemAt(m, r * m.cols + c))
}
