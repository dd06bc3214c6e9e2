import { PER_SECOND, perSecond } from '../units/marks'
import { Measure } from '../units/measure'
import { NONE } from '../units/dimension'
import { quantityWords } from '../units/named'
import type { Unit } from '../units/unit'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare, quantity } from '../values/quantity'
import type { Value } from '../values/types'
import { unitFits } from './attach'
import { measureOf } from './shape'

/** A value in the unit that is asked for with `in`; why it cannot be shown so. */
export function inAskedUnit(value: Value, unit: Unit): Value | Failure {
  const { kind } = value
  const numbers = kind === 'quantity' || kind === 'number' || kind === 'vector' || kind === 'matrix' || kind === 'sweep'
  if (!numbers) return failure('unit-on', { kind })
  const measure = value.kind === 'quantity' ? value.measure : measureOf(value)
  const misfit = unitFits(measure, unit)
  if (misfit) return misfit
  const of = measure.uniform
  const sort = of && of.dimension === PER_SECOND ? perSecond(of) : null
  const asked = perSecond(unit.measure)
  // What is neither known to be radians nor turns is not shown as turns, and what is one of them not as the other.
  if (sort === 'none' && asked === 'cycles') return failure('unit-per-second', { unit: unit.text })
  if (of && sort !== null && sort !== 'none' && asked !== 'none' && asked !== sort)
    return failure('unit-asked', { unit: unit.text, asked: quantityWords(unit.measure), is: quantityWords(of) })
  const unknowns = value.kind === 'quantity' ? value.unknowns : null
  const marked = of && measure instanceof Measure && of.dimension !== NONE ? asAsked(of, unit) : measure
  return quantity(bare(value), marked, { unit, asWritten: true, unknowns })
}

/** Asked for in W, VA or var, in J or Wb, that is what it is from here on. */
function asAsked(of: Measure, { measure }: Unit): Measure {
  return of.with({ electric: of.electric || measure.electric, flux: of.flux || measure.flux, power: measure.power === 'none' ? of.power : measure.power }) // prettier-ignore
}
