import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { diagonalOf, productOf } from '../units/arrayMeasures'
import type { ArrayMeasures } from '../units/arrayMeasures'
import { NONE } from '../units/dimension'
import { PLAIN } from '../units/measure'
import type { Measure } from '../units/measure'
import { coherentUnit, quantityWords } from '../units/named'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare } from '../values/quantity'
import type { Value } from '../values/types'
import { compact, isMisfit, measureOf, measuresOf, shapeOf, wholeMeasure } from './shape'
import type { Measures } from './shape'

/** What products, quotients and powers measure. */

/** Of a product: of matrices as they are multiplied, of everything else factor by factor. */
export function productMeasures(a: Value, b: Value): Measures | Failure {
  const [left, right] = [shapeOf(bare(a)), shapeOf(bare(b))]
  if (!left && !right) return measureOf(a).times(measureOf(b))
  if (!right) return scaledBy(a, (m) => m.times(measureOf(b)))
  if (!left) return scaledBy(b, (m) => measureOf(a).times(m))
  const [x, y] = [wholeMeasure(a), wholeMeasure(b)]
  return x && y ? x.times(y) : multiplied(measuresOf(a), measuresOf(b))
}

/** A matrix product; one entry alone is no array any more. */
export function multiplied(a: ArrayMeasures, b: ArrayMeasures): Measures | Failure {
  const found = productOf(a, b)
  if (isMisfit(found)) return failure('unit-product', { col: found.col + 1 })
  if (found.rows.length === 1 && found.cols.length === 1) return found.entry(0, 0) ?? PLAIN
  return compact(found)
}

export function quotientMeasures(a: Value, b: Value): Measures {
  const under = measureOf(b)
  return shapeOf(bare(a)) ? scaledBy(a, (m) => m.over(under)) : measureOf(a).over(under)
}

function scaledBy(array: Value, by: (m: Measure) => Measure): Measures {
  const whole = wholeMeasure(array)
  return whole ? by(whole) : compact(measuresOf(array).scaled(by))
}

/** Of a power: the exponent is a known fraction wherever the base has a unit. */
export function powerMeasures(base: Value, exponent: Value): Measures | Failure {
  const of = measureOf(exponent)
  if (of.dimension !== NONE) return failure('unit-exponent', { quantity: quantityWords(of) })
  const inner = bare(exponent)
  const shape = shapeOf(bare(base))
  const whole = shape ? wholeMeasure(base) : measureOf(base)
  if (whole?.dimension === NONE && !(shape && whole.turn !== 'none')) return PLAIN
  const power = knownExponent(inner)
  if (!power) return failure('unit-power', { unit: coherentUnit(measureOf(base)).text })
  return shape ? matrixPower(measuresOf(base), power, shape) : measureOf(base).to(power)
}

function knownExponent(value: Value): Rational | null {
  if (value.kind !== 'number' || value.im !== 0) return null
  if (value.exact) return value.exact.re
  return null
}

function matrixPower(of: ArrayMeasures, power: Rational, [rows, cols]: readonly [number, number]): Measures | Failure {
  if (rows !== cols || !Q.isInteger(power)) return compact(of)
  const n = Q.toNumber(power)
  if (n === 1) return compact(of)
  if (n === -1) return compact(of.inverse)
  const found = diagonalOf(n < 0 ? of.inverse : of)
  if (!found) return failure('unit-square', { what: 'a power' })
  const { along, measures } = found
  const factor = along.to(Q.whole(Math.abs(n) - 1))
  return compact(measures.scaled((m) => m.times(factor)))
}

/** row(i)·col(i) of a square array, and its measures with that in them; why there is none. */
export function alongDiagonal(
  value: Value,
  what: string,
): { readonly along: Measure; readonly measures: ArrayMeasures } | Failure {
  // prettier-ignore
  return diagonalOf(measuresOf(value)) ?? failure('unit-square', { what })
}
