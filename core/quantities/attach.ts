import * as G from '../numbers/gaussian'
import { ArrayMeasures } from '../units/arrayMeasures'
import { NONE } from '../units/dimension'
import type { Measure } from '../units/measure'
import type { Unit } from '../units/unit'
import { quantityWords } from '../units/named'
import * as A from '../values/arithmetic'
import { wordsOf } from './shape'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { exactReal, multipleOfPi } from '../values/make'
import { mapMatrix } from '../values/matrices'
import { bare, quantity } from '../values/quantity'
import { numberSweep } from '../values/sweeps'
import { mapVector } from '../values/vectors'
import type { Bare, NumberValue, Value } from '../values/types'

/** Units put on plain numbers, and numbers in a unit. */

/** How many coherent SI units a unit is, as a number. */
export function factorOf({ factor, ofPi }: Unit): NumberValue {
  return ofPi ? multipleOfPi(G.fromRational(factor)) : exactReal(factor)
}

const isOne = ({ factor, ofPi }: Unit): boolean => !ofPi && factor.n === 1 && factor.d === 1

/** A value of plain numbers with a unit. */
export function withUnit(value: Value, unit: Unit): Value | Failure {
  if (value.kind === 'quantity') return hasUnit(value.measure) ? failure('unit-twice', { unit: unit.text }) : withUnit(value.value, unit) // prettier-ignore
  const scaled = isOne(unit) ? value : times(value, factorOf(unit))
  if (scaled === null) return failure('unit-on', { kind: value.kind })
  return scaled.kind === 'failure' ? scaled : quantity(bare(scaled), unit.measure, { unit, asWritten: true })
}

function hasUnit(measure: Measure | ArrayMeasures): boolean {
  return measure instanceof ArrayMeasures || measure.dimension !== NONE
}

/** Every number of a value times a factor; `null` of what holds no numbers. */
function times(value: Bare, factor: NumberValue): Value | Failure | null {
  switch (value.kind) {
    case 'number':
      return A.multiply(value, factor)
    case 'vector':
      return mapVector(value, (item) => times(bare(item), factor) ?? failure('unit-on', { kind: item.kind }))
    case 'matrix':
      return mapMatrix(value, (item) => A.multiply(item, factor))
    case 'sweep': {
      if (value.of !== 'number') return null
      return { ...value, ...scaledParts(value.re, value.im, (x) => x * factor.re) }
    }
    default:
      return null
  }
}

function scaledParts(re: Float64Array, im: Float64Array | null, by: (x: number) => number) {
  return { re: re.map(by), im: im && im.map(by) }
}

/** The numbers of a quantity in a unit: what is shown, and what `in` asks for. */
export function inUnit(value: Bare, unit: Unit): Bare {
  if (isOne(unit)) return value
  const factor = factorOf(unit)
  const divided = (z: NumberValue): NumberValue => {
    const found = A.divide(z, factor)
    return found.kind === 'failure' ? z : found
  }
  switch (value.kind) {
    case 'number':
      return divided(value)
    case 'vector': {
      const found = mapVector(value, (item) => (item.kind === 'number' ? divided(item) : item))
      return found.kind === 'failure' ? value : found
    }
    case 'matrix': {
      const found = mapMatrix(value, divided)
      return found.kind === 'failure' ? value : bare(found)
    }
    case 'sweep': {
      if (value.of !== 'number') return value
      const by = (x: number): number => x / factor.re
      // The quantity itself stays its own parameter.
      const own = value.re === value.axis.values
      const { re, im } = scaledParts(value.re, value.im, by)
      const axis = own ? { ...value.axis, values: re } : value.axis
      return numberSweep(axis, re, im, value.complex)
    }
    default:
      return value
  }
}

/** True where a value may be shown in a unit; else why not. */
export function unitFits(measure: Measure | ArrayMeasures, unit: Unit): Failure | null {
  if (measure.uniform?.dimension === unit.measure.dimension) return null
  return failure('unit-asked', { unit: unit.text, asked: quantityWords(unit.measure), is: wordsOf(measure) })
}
