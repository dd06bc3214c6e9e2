import { allOf, ArrayMeasures, fromEntries } from '../units/arrayMeasures'
import type { Misfit } from '../units/arrayMeasures'
import { Measure, OF_PI, PLAIN, RADIAN } from '../units/measure'
import { quantityWords } from '../units/named'
import { isZero } from '../values/beyond'
import type { Node } from '../notation/tree'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare, plainQuantity } from '../values/quantity'
import { pointAt } from '../values/sweeps'
import type { Bare, Value } from '../values/types'

/** What values measure, numbers without a unit among them, and how arrays of them are shaped. */

/** One measure, or those of the rows and columns of an array. */
export type Measures = Measure | ArrayMeasures

/** A number that fits any unit: 0, ∞. */
export function isWild(value: Value): boolean {
  return value.kind === 'number' && (isZero(value) || value.re === Infinity || value.re === -Infinity)
}

/** A 0 or ∞ that stands in the line fits any unit; one that was reckoned is a plain number like any other. */
export function asReckoned(value: Value, node: Node | undefined): Value {
  return isWild(value) && !(node && isWritten(node)) ? plainQuantity(value) : value
}

function isWritten(node: Node): boolean {
  switch (node.type) {
    case 'group':
      return isWritten(node.inner)
    case 'sign':
      return isWritten(node.operand)
    default:
      return node.type === 'literal' || node.type === 'constant'
  }
}

/** Rows and columns of an array, of a sweep those at its points; `null` of scalars. A vector is one column. */
export function shapeOf(value: Bare): readonly [rows: number, cols: number] | null {
  switch (value.kind) {
    case 'vector':
      return [value.items.length, 1]
    case 'matrix':
    case 'algebra-matrix':
      return [value.rows, value.cols]
    case 'sweep': {
      if (value.of !== 'other' || value.count === 0) return null
      const first = pointAt(value, 0)
      return first.kind === 'quantity' ? null : shapeOf(first)
    }
    default:
      return null
  }
}

/** What a value without a unit measures as a factor: nothing, a multiple of π, or the radians of an angle. */
export function plainMeasure(value: Bare): Measure {
  switch (value.kind) {
    case 'number':
      return value.pi ? OF_PI : PLAIN
    case 'angle':
      return RADIAN
    case 'sweep':
      return value.of === 'angle' ? RADIAN : value.pi ? OF_PI : PLAIN
    default:
      return PLAIN
  }
}

/** What a scalar measures, as a factor. */
export function measureOf(value: Value): Measure {
  if (value.kind !== 'quantity') return plainMeasure(value)
  return value.measure.uniform ?? PLAIN
}

/** The measures of the entries of an array; zeros without a unit fit anywhere. */
export function measuresOf(value: Value): ArrayMeasures {
  const inner = bare(value)
  if (value.kind === 'quantity' && value.measure instanceof ArrayMeasures) return value.measure
  const [rows, cols] = shapeOf(inner) ?? [1, 1]
  if (value.kind === 'quantity' && value.measure instanceof Measure) return allOf(value.measure, rows, cols)
  const found = fromEntries(rows, cols, (r, c) => (isZeroAt(inner, r * cols + c) ? null : PLAIN))
  return found instanceof ArrayMeasures ? found : allOf(PLAIN, rows, cols)
}

/** True where an entry, counted row by row, is 0 at every point that is looked at. */
function isZeroAt(value: Bare, k: number): boolean {
  switch (value.kind) {
    case 'vector': {
      const item = value.items[k]
      return item !== undefined && isWild(item)
    }
    case 'matrix':
      return value.dense.re[k] === 0 && value.dense.im[k] === 0
    case 'algebra-matrix': {
      const item = value.items[k]
      return item !== undefined && isWild(item)
    }
    case 'sweep':
      return [0, value.count >> 1, value.count - 1].every((at) => {
        const point = pointAt(value, at)
        return point.kind !== 'quantity' && isZeroAt(point, k)
      })
    default:
      return false
  }
}

/** The measure of every entry, where all are known to have the same; `null` where zeros may be without one. */
export function wholeMeasure(value: Value): Measure | null {
  return value.kind === 'quantity' && value.measure instanceof Measure ? value.measure : null
}

/** What a value measures, in a sentence. */
export function wordsOf({ uniform }: Measures): string {
  return uniform ? quantityWords(uniform) : 'a value of several units'
}

/** The measures of an array from those of its entries, `null` where one fits anywhere. */
export function fitted(
  rows: number,
  cols: number,
  entry: (row: number, col: number) => Measure | null,
): Measures | Failure {
  const found = fromEntries(rows, cols, entry)
  return isMisfit(found) ? failure('unit-fit', { row: found.row + 1, col: found.col + 1 }) : compact(found)
}

/** One measure where it is that of every entry, else those of rows and columns. */
export function compact(measures: ArrayMeasures): Measures {
  return (measures.whole ? measures.uniform : null) ?? measures
}

export function isMisfit(found: ArrayMeasures | Misfit): found is Misfit {
  return !(found instanceof ArrayMeasures)
}
