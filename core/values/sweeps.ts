import { divide, fromDecimal, multiply, rational, ZERO } from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { angleOf, angleOfTurns, complexNumber, multipleOfPi, real } from './make'
import type { AngleValue, Axis, NumberValue, SweepValue, Value } from './types'

/** Sweeps as values: numbers and angles in typed arrays, other kinds as a list. */

/** Most points of a sweep. */
export const POINTS_MOST = 10_000_000

/** A sweep of numbers; `im` is `null` where all of them are real. */
export function numberSweep(axis: Axis, re: Float64Array, im: Float64Array | null, complex = im !== null): SweepValue {
  return { kind: 'sweep', of: 'number', axis, count: re.length, re, im, complex, items: null }
}

/** A sweep of angles, in radians. */
export function angleSweep(axis: Axis, radians: Float64Array): SweepValue {
  return { kind: 'sweep', of: 'angle', axis, count: radians.length, re: radians, im: null, complex: false, items: null }
}

const TWO: Rational = { n: 2, d: 1 }
const NOTHING = new Float64Array(0)

/** The sweep of these values, one for each point: in typed arrays where they are all numbers, or all angles. */
export function sweepOf(axis: Axis, items: readonly Value[]): SweepValue {
  if (items.every((item) => item.kind === 'number')) {
    const re = new Float64Array(items.length)
    const im = new Float64Array(items.length)
    let complex = false
    items.forEach((item, k) => {
      re[k] = item.re
      im[k] = item.im
      complex ||= item.complex || item.im !== 0
    })
    return numberSweep(axis, re, complex ? im : null)
  }
  if (items.every((item) => item.kind === 'angle'))
    return angleSweep(
      axis,
      Float64Array.from(items, (a) => a.radians),
    )
  return { kind: 'sweep', of: 'other', axis, count: items.length, re: NOTHING, im: null, complex: false, items }
}

/** A sweep whose values are made when they are asked for. */
export function madeSweep(axis: Axis, make: (k: number) => Value): SweepValue {
  const count = axis.values.length
  return { kind: 'sweep', of: 'other', axis, count, re: NOTHING, im: null, complex: false, items: null, make }
}

/** The value at a point, counted from 0. */
export function pointAt(sweep: SweepValue, k: number): Value {
  if (sweep.make) return sweep.make(k)
  if (sweep.items) return sweep.items[k] ?? real(NaN)
  const re = sweep.re[k] ?? NaN
  const half = turnsAt(sweep, k)
  if (sweep.of === 'angle') return half ? angleOfTurns(half) : angleAt(re)
  const factor = half && multiply(half, TWO)
  return factor ? multipleOfPi({ re: factor, im: ZERO }) : numberAt(sweep, k)
}

/** Up to this many points multiples of π are known exactly again at each of them. */
const EXACT_POINTS = 20_000

/** A half turn in parts that every number up to 16 divides. */
const PARTS = 720_720

/** The exact turns of a point of a sweep of multiples of π. */
function turnsAt({ pi, count }: SweepValue, k: number): Rational | null {
  const factor = pi && count <= EXACT_POINTS ? pi()[k] : undefined
  if (factor === undefined || !Number.isFinite(factor)) return null
  // Thirds and the like are no short decimals.
  const parts = Math.round(factor * PARTS)
  const near = Math.abs(factor * PARTS - parts) <= 4e-15 * Math.abs(parts)
  const exact = near && Math.abs(parts) < 1e12 ? rational(parts, PARTS) : fromDecimal(String(factor))
  return exact && divide(exact, TWO)
}

/** Twenty-fourths of a turn are known exactly again: sin 180° is 0 on a sweep, too. */
function angleAt(radians: number): AngleValue {
  const parts = Math.round(radians / (Math.PI / 12))
  const near = Math.abs(radians - (parts * Math.PI) / 12) <= 4e-16 * Math.abs(radians)
  const turns = near && Math.abs(parts) < 1e9 ? rational(parts, 24) : null
  return turns ? angleOfTurns(turns) : angleOf(radians)
}

export function numberAt({ re, im, complex }: SweepValue, k: number): NumberValue {
  const x = re[k] ?? NaN
  return complex ? complexNumber({ re: x, im: im?.[k] ?? 0 }) : real(x)
}

/** The number that a value is, of a sweep that at a point, counted from 0 and no further than the last; `null` of others. */
export function numberThere(value: Value, point: number | null): NumberValue | null {
  if (value.kind === 'number') return value
  if (value.kind !== 'sweep' || value.of !== 'number' || point === null) return null
  return numberAt(value, Math.min(point, value.count - 1))
}

export function pointsOf(sweep: SweepValue): Value[] {
  return Array.from({ length: sweep.count }, (_, k) => pointAt(sweep, k))
}

/** Some points of a sweep as a sweep of its own, its parameter with them. */
export function pickPoints(sweep: SweepValue, places: readonly number[]): SweepValue {
  const axis = { ...sweep.axis, values: Float64Array.from(places, (k) => sweep.axis.values[k] ?? NaN) }
  const picked = places.map((k) => pointAt(sweep, k))
  const found = sweepOf(axis, picked)
  return found.of === 'number' && sweep.complex && !found.complex
    ? numberSweep(axis, found.re, new Float64Array(found.count))
    : found
}

/** True where two sweeps run along one range. */
export function sameAxis(a: Axis, b: Axis): boolean {
  if (a === b) return true
  if (a.values === b.values) return true
  if (a.name !== b.name || a.name === null || a.values.length !== b.values.length) return false
  return sameNumbers(a.values, b.values)
}

export function sameNumbers(a: Float64Array, b: Float64Array): boolean {
  if (a.length !== b.length) return false
  for (let k = 0; k < a.length; k += 1) {
    const x = a[k] as number
    const y = b[k] as number
    if (x !== y && (x === x || y === y)) return false
  }
  return true
}
