import { NONE } from '../units/dimension'
import { isRadian } from '../units/marks'
import { Measure } from '../units/measure'
import { radians } from '../values/convert'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare, quantity } from '../values/quantity'
import { angleSweep, pointAt } from '../values/sweeps'
import type { Bare, QuantityValue, Value } from '../values/types'
import { wordsOf } from './shape'
import type { Measures } from './shape'

/** Values with units, taken for what their numbers are. */

/** Radians that came out of units as an angle; `null` of anything else. */
export function asTurn(value: Value): Bare | null {
  if (value.kind !== 'quantity' || !(value.measure instanceof Measure) || !isRadian(value.measure)) return null
  const inner = value.value
  if (inner.kind === 'number' && inner.im === 0) return radians(inner)
  if (inner.kind === 'sweep' && inner.of === 'number' && inner.im === null && !inner.pending)
    return angleSweep(inner.axis, inner.re)
  return null
}

/** A quantity where an angle is needed: radians that came out of units, or a plain number to be read as ever. */
export function angleFrom(value: QuantityValue, name: string): Bare | Failure {
  const turn = asTurn(value)
  if (turn) return turn
  const { measure } = value
  if (
    measure instanceof Measure &&
    measure.turn === 'mixed' &&
    measure.dimension === NONE &&
    !isComplexValue(value.value)
  )
    return failure('radians-mixed')
  return plainNumber(value) ?? failure('unit-angle', { name, quantity: wordsOf(measure) })
}

/** Complex arguments are radians as ever. */
const isComplexValue = (value: Bare): boolean => (value.kind === 'number' || value.kind === 'sweep') && value.im !== null && value.im !== 0 // prettier-ignore

/** What the unknowns in several values measure. */
export function unknownsOf(...values: readonly Value[]): QuantityValue['unknowns'] {
  let found: QuantityValue['unknowns'] = null
  for (const value of values)
    if (value.kind === 'quantity' && value.unknowns) found = new Map([...(found ?? []), ...value.unknowns])
  return found
}

/** What becomes of the number of a value, and of what it measures; of a value without a unit what becomes of it. */
export function throughQuantity(
  value: Value,
  apply: (inner: Bare) => Value | Failure,
  measured: (measures: Measures) => Measures = (m) => m,
): Value | Failure {
  if (value.kind !== 'quantity') return apply(value)
  const found = apply(value.value)
  if (found.kind === 'failure') return found
  const { unit, asWritten, unknowns } = value
  return quantity(bare(found), measured(value.measure), { unit, asWritten, unknowns })
}

/** The value of a sweep at a point, counted from 0, with its unit; `null` of what is no sweep. */
export function pointIn(value: Value, k: number): Value | null {
  const sweep = bare(value)
  if (sweep.kind !== 'sweep') return null
  const point = pointAt(sweep, k)
  return value.kind === 'quantity' ? quantity(bare(point), value.measure, { unit: value.unit, asWritten: value.asWritten }) : point // prettier-ignore
}

/** A value as it goes on under its name: what π did within its line is done. */
export function asKept(value: Value): Value {
  if (value.kind === 'parts') return { ...value, parts: new Map([...value.parts].map(([name, part]) => [name, asKept(part)])) } // prettier-ignore
  if (value.kind !== 'quantity') return value
  const { measure, unit, asWritten, unknowns } = value
  const { kept } = measure
  return kept === measure ? value : quantity(value.value, kept, { unit, asWritten, unknowns })
}

/** The number of what measures nothing, for whatever takes plain numbers only; `null` of real quantities. */
export function plainNumber(value: Value): Bare | null {
  if (value.kind !== 'quantity') return value
  const { measure } = value
  if (measure instanceof Measure) return measure.dimension === NONE ? value.value : null
  return measure.rows.every((_, r) => measure.cols.every((__, c) => (measure.entry(r, c)?.dimension ?? NONE) === NONE))
    ? value.value
    : null
}
