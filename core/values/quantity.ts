import type { ArrayMeasures } from '../units/arrayMeasures'
import { NONE } from '../units/dimension'
import { PLAIN } from '../units/measure'
import { Measure } from '../units/measure'
import type { Unit } from '../units/unit'
import type { Bare, QuantityValue, SweepValue, Value } from './types'

/** Values with units, and values freed of them. */

class Quantity implements QuantityValue {
  declare readonly kind: 'quantity'
  constructor(
    readonly value: Bare,
    readonly measure: Measure | ArrayMeasures,
    readonly unit: Unit | null,
    readonly asWritten: boolean,
    readonly unknowns: ReadonlyMap<string, Measure> | null,
  ) {
    this.kind = 'quantity'
  }
}

/** What is known of a result besides its number. */
export interface Attached {
  readonly unit?: Unit | null
  readonly asWritten?: boolean
  readonly unknowns?: ReadonlyMap<string, Measure> | null
}

/** A value with its measure; a plain number of which nothing else is known is no quantity. */
export function quantity(value: Bare, measure: Measure | ArrayMeasures, more: Attached = NO_MORE): Value {
  if (more === NO_MORE)
    return measure instanceof Measure && isNothing(measure) ? value : new Quantity(value, measure, null, false, null)
  const { unit = null, asWritten = false, unknowns = null } = more
  if (measure instanceof Measure && unit === null && unknowns === null && isNothing(measure)) return value
  return new Quantity(value, measure, unit, asWritten, unknowns)
}

const NO_MORE: Attached = {}

/** A plain number as a quantity that measures nothing: where it must not be taken for one that fits anything. */
export function plainQuantity(value: Value): Value {
  return value.kind === 'quantity' ? value : new Quantity(value, PLAIN, null, false, null)
}

/** Nothing is known of it that a plain number would not have. */
function isNothing(m: Measure): boolean {
  return m === PLAIN || (m.dimension === NONE && m.turn === 'none' && m.pi === 0 && m.power === 'none')
}

/** A value without its unit: the number in coherent SI units. */
export function bare(value: Value): Bare {
  return value.kind === 'quantity' ? value.value : value
}

/** The unit that a value was written in, or goes on in; `null` of plain numbers. */
export const writtenUnit = (value: Value): Unit | null => (value.kind === 'quantity' ? value.unit : null)

/** The sweep that a value is, with a unit or without; `null` of others. */
export function sweepIn(value: Value | null): SweepValue | null {
  const inner = value && bare(value)
  return inner?.kind === 'sweep' ? inner : null
}

export const isQuantity = (value: Value): value is QuantityValue => value.kind === 'quantity'
