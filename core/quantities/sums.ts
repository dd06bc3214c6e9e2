import { degree } from '../algebra/polynomial'
import { unknownsOf } from '../algebra/ratio'
import * as Q from '../numbers/rational'
import { sumOf } from '../units/arrayMeasures'
import { NONE } from '../units/dimension'
import { isRadian, perSecond, PER_SECOND } from '../units/marks'
import { measure, summed } from '../units/measure'
import type { Measure } from '../units/measure'
import { coherentUnit, quantityWords } from '../units/named'
import type { Node } from '../notation/tree'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare, writtenUnit } from '../values/quantity'
import { dataOf } from '../values/problemData'
import type { Joining } from '../values/problemData'
import type { Value } from '../values/types'
import { compact, isMisfit, isWild, measureOf, measuresOf, shapeOf, wholeMeasure } from './shape'
import type { Measures } from './shape'

/** What is added, compared and chosen from must measure the same. */

/** The one measure of two values, or why they have none in common. */
export function alike(a: Value, b: Value, joining: Joining): Measures | Failure {
  if (shapeOf(bare(a)) || shapeOf(bare(b))) return arraysAlike(a, b, joining)
  const [x, y] = [measureOf(a), measureOf(b)]
  if (isWild(a)) return y
  if (isWild(b)) return x
  const found = measuresAlike(x, y, joining, a.kind !== 'quantity', b.kind !== 'quantity')
  return 'code' in found ? (undeclared(a, b) ?? inUnitOf(found, a, b)) : found
}

/** A failure that is about one of two sides, at its term. */
export function atSide(failed: Failure, left: Node | null | undefined, right: Node | null | undefined): Failure {
  const side = dataOf(failed, 'per-second-and-cycles')?.side
  const node = side === 'left' ? left : side === 'right' ? right : null
  return node && failed.from === undefined ? failureAt(node, failed) : failed
}

/** A number without a unit is offered the unit that the other side is written in. */
function inUnitOf(failed: Failure, a: Value, b: Value): Failure {
  const data = dataOf(failed, 'unit-missing')
  const unit = writtenUnit(data?.side === 'left' ? b : a)
  return data && unit ? failure('unit-missing', { ...data, unit: unit.text }) : failed
}

/** An unknown without a unit, and the one with which two sides would go together; `null` where that is not the matter. */
function undeclared(a: Value, b: Value): Failure | null {
  const names = new Set([a, b].flatMap((side) => openUnknowns(side)))
  const [name] = names
  const power = degreeOf(a) - degreeOf(b)
  if (name === undefined || names.size > 1 || power === 0) return null
  const unit = measureOf(b)
    .over(measureOf(a))
    .to(Q.rational(1, power) ?? Q.ONE)
  // Beside hertz it is declared in hertz.
  const { text } = coherentUnit(unit.dimension === PER_SECOND && Math.abs(power) === 1 ? unit : measure(unit.dimension))
  return failure('unit-unknown', { name, unit: text === 's⁻¹' ? '1/s' : text })
}

function openUnknowns(value: Value): readonly string[] {
  const inner = bare(value)
  if (inner.kind !== 'polynomial') return []
  const declared = value.kind === 'quantity' ? value.unknowns : null
  return [...unknownsOf(inner)].filter((name) => !declared?.has(name))
}

function degreeOf(value: Value): number {
  const inner = bare(value)
  return inner.kind === 'polynomial' ? degree(inner.top) - (inner.bottom ? degree(inner.bottom) : 0) : 0
}

/** The same of two measures; what is bare was written without a unit. */
export function measuresAlike(
  x: Measure,
  y: Measure,
  joining: Joining,
  xBare = false,
  yBare = false,
): Measure | Failure {
  if (x.dimension !== y.dimension) {
    const plain = xBare ? 'left' : yBare ? 'right' : null
    if (plain && (plain === 'left' ? x : y).dimension === NONE)
      return failure('unit-missing', { joining, quantity: quantityWords(plain === 'left' ? y : x), unit: coherentUnit(plain === 'left' ? y : x).text, side: plain }) // prettier-ignore
    return failure('units-differ', { joining, left: '', right: '', one: quantityWords(x), other: quantityWords(y) })
  }
  if (x.dimension === PER_SECOND) {
    const [p, q] = [perSecond(x), perSecond(y)]
    if ((p === 'rate' && q === 'cycles') || (p === 'cycles' && q === 'rate')) return failure('rate-and-cycles', { joining }) // prettier-ignore
    // One over a time constant counts radians, one over a period turns: nobody knows which this is.
    if (p !== q && (p === 'cycles' || q === 'cycles')) return failure('per-second-and-cycles', { joining, side: p === 'cycles' ? 'right' : 'left' }) // prettier-ignore
  }
  // Radians stay radians beside multiples of π and beside radians; beside other numbers they are an angle no more.
  const radians = [isRadian(x), isRadian(y)]
  if (x.dimension === NONE && radians[0] !== radians[1])
    return measure(NONE, { ...summed(x, y), turn: isOfPi(radians[0] ? y : x) ? 'rate' : 'mixed' })
  return summed(x, y)
}

const isOfPi = (m: Measure): boolean => m.turn === 'none' && m.pi === 1

function arraysAlike(a: Value, b: Value, joining: Joining): Measures | Failure {
  const [x, y] = [wholeMeasure(a), wholeMeasure(b)]
  if (x && y) return measuresAlike(x, y, joining)
  const found = sumOf(measuresOf(a), measuresOf(b))
  if (!isMisfit(found)) return compact(found)
  const [p, q] = [measuresOf(a).entry(found.row, found.col), measuresOf(b).entry(found.row, found.col)]
  const words = (m: Measure | null): string => (m ? quantityWords(m) : 'a plain number')
  return failure('unit-entry', { row: found.row + 1, col: found.col + 1, one: words(p), other: words(q) })
}
