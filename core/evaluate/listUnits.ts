import type { Node } from '../notation/tree'
import { fromEntries } from '../units/arrayMeasures'
import type { Measure } from '../units/measure'
import type { Unit } from '../units/unit'
import { compact, fitted, isMisfit, isWild, measureOf, measuresOf, shapeOf } from '../quantities/shape'
import { unknownsOf } from '../quantities/through'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare, quantity } from '../values/quantity'
import type { Bare, Value } from '../values/types'

/** What arrays measure that are written out of values with units. */

interface Cell {
  readonly value: Value
  readonly node: Node
  readonly row: number
}

/** A vector of values, or a matrix of rows, with what its entries measure. */
export function withEntryUnits(array: Bare, items: readonly Value[]): Value | Failure {
  const cols = items.some((item) => bare(item).kind === 'vector') ? (shapeOf(array)?.[1] ?? 1) : 1
  const found = fitted(items.length, cols, (r, c) => entryMeasure(items[r], c))
  if ('code' in found) return found
  return quantity(array, found, { ...commonUnit(items), unknowns: unknownsOf(...items) })
}

/** A value, or an entry of a column; a zero without a unit fits anywhere. */
function entryMeasure(item: Value | undefined, k: number): Measure | null {
  if (item === undefined) return null
  if (shapeOf(bare(item))) return measuresOf(item).entry(k, 0)
  return isWild(item) ? null : measureOf(item)
}

/** The unit that all entries are written in. */
function commonUnit(items: readonly Value[]): { readonly unit: Unit | null; readonly asWritten: boolean } {
  let unit: Unit | null = null
  for (const item of items) {
    if (item.kind !== 'quantity') {
      if (isWild(item)) continue
      return { unit: null, asWritten: false }
    }
    if (!item.unit || !item.asWritten || (unit && unit.text !== item.unit.text)) return { unit: null, asWritten: false }
    unit ??= item.unit
  }
  return { unit, asWritten: unit !== null }
}

/** A matrix of blocks, row by row, with what their entries measure. */
export function withBlockUnits(matrix: Bare, cells: readonly Cell[], rowNodes: readonly Node[]): Value | Failure {
  const [rows, cols] = shapeOf(matrix) ?? [1, 1]
  const grid: (Measure | null)[] = Array.from({ length: rows * cols }, () => null)
  let top = 0
  for (let row = 0; row < rowNodes.length; row += 1) {
    let [left, height] = [0, 1]
    for (const { value } of cells.filter((cell) => cell.row === row)) {
      const [h, w] = shapeOf(bare(value)) ?? [1, 1]
      const block = shapeOf(bare(value)) ? measuresOf(value) : null
      for (let r = 0; r < h; r += 1)
        for (let c = 0; c < w; c += 1)
          grid[(top + r) * cols + left + c] = block ? block.entry(r, c) : entryMeasure(value, 0)
      left += w
      height = h
    }
    top += height
  }
  const found = fromEntries(rows, cols, (r, c) => grid[r * cols + c] ?? null)
  if (isMisfit(found)) {
    const failed = failure('unit-fit', { row: found.row + 1, col: found.col + 1 })
    const place = cells.length === rows * cols ? cells[found.row * cols + found.col]?.node : rowNodes[found.row]
    return place ? failureAt(place, failed) : failed
  }
  const items = cells.map((cell) => cell.value)
  return quantity(matrix, compact(found), { ...commonUnit(items), unknowns: unknownsOf(...items) })
}
