import { DEFAULT_CONVENTIONS } from '../format/conventions'
import type { Conventions } from '../format/conventions'
import { ArrayMeasures } from '../units/arrayMeasures'
import { coherentUnit } from '../units/named'
import { parsed, prefixed, prefixOf, takesPrefix, unitForSize } from '../units/unit'
import { quantity } from '../values/quantity'
import type { Unit } from '../units/unit'
import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import { inUnit } from './attach'
import type { Bare, QuantityValue, Value } from '../values/types'

/** The unit that a quantity is shown in, with the prefix that fits its size. */
export function shownUnit({ value, measure, unit, asWritten }: QuantityValue, conventions: Conventions): Unit | null {
  const of = measure.uniform
  if (of === null) return null
  if (unit && asWritten) return unit
  const plain = unit ? withoutPrefix(unit) : coherentUnit(of)
  if (conventions.style !== 'plain' || !takesPrefix(plain)) return plain
  const size = sizeOf(value) / Q.toNumber(plain.factor)
  return unitForSize(plain, Number(size.toPrecision(conventions.digits)))
}

function withoutPrefix(unit: Unit): Unit {
  return prefixOf(unit) === 0 || !takesPrefix(unit) ? unit : (prefixed(unit, 0) ?? unit)
}

/** How far a value may leave the unit that is held for it, up and down. */
const HELD_MOST = 1e5
const HELD_LEAST = 1e-3

/** A value in the unit that it had before: under a moving hand prefixes stay, unless the value runs far away from them. */
export function inHeldUnit(value: Value, text: string): Value {
  if (value.kind !== 'quantity' || value.asWritten) return value
  const unit = parsed(text)
  const of = value.measure.uniform
  if (!unit || !of || of.dimension !== unit.measure.dimension) return value
  const size = sizeOf(value.value) / Q.toNumber(unit.factor)
  if (size !== 0 && (size > HELD_MOST || size < HELD_LEAST)) return value
  return quantity(value.value, value.measure, { unit, asWritten: true, unknowns: value.unknowns })
}

/** The size by which a prefix is chosen: of arrays the largest entry, of a sweep over decades the middle one. */
function sizeOf(value: Bare): number {
  switch (value.kind) {
    case 'number':
      return C.abs(value)
    case 'vector':
      return Math.max(0, ...value.items.map((item) => (item.kind === 'number' ? finite(C.abs(item)) : 0)))
    case 'matrix':
      return extremes(value.dense.re, value.dense.im).largest
    case 'sweep': {
      if (value.of !== 'number') return 1
      const { largest, smallest } = extremes(value.re, value.im)
      return largest > 1e4 * smallest && smallest > 0 ? Math.sqrt(largest * smallest) : largest
    }
    default:
      return 1
  }
}

const finite = (x: number): number => (Number.isFinite(x) ? x : 0)

/** The largest and the smallest magnitude that is neither 0 nor infinite. */
function extremes(re: Float64Array, im: Float64Array | null): { readonly largest: number; readonly smallest: number } {
  let [largest, smallest] = [0, Infinity]
  for (let k = 0; k < re.length; k += 1) {
    const x = re[k] as number
    const y = im ? (im[k] as number) : 0
    const size = y === 0 ? Math.abs(x) : Math.hypot(x, y)
    if (size > largest && size < Infinity) largest = size
    if (size < smallest && size > 0) smallest = size
  }
  return { largest, smallest }
}

/** A value without its unit, counted in it, and the unit: as files of numbers have it. */
export function numberInUnit(value: Value): { readonly number: Bare; readonly unit: string } {
  if (value.kind !== 'quantity') return { number: value, unit: '' }
  const unit = shownUnit(value, DEFAULT_CONVENTIONS)
  return unit ? { number: inUnit(value.value, unit), unit: unit.text } : { number: value.value, unit: '' }
}

/** The units of the entries of an array in which they differ, row by row; `null` where all are alike. */
export function entryUnits({ measure }: QuantityValue): readonly (Unit | null)[] | null {
  if (!(measure instanceof ArrayMeasures) || measure.uniform !== null) return null
  return measure.rows.flatMap((_, r) =>
    measure.cols.map((__, c) => {
      const of = measure.entry(r, c)
      return of && coherentUnit(of)
    }),
  )
}
