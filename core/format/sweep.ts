import { real, shownAs } from '../values/make'
import { pointAt } from '../values/sweeps'
import type { SweepValue, Value } from '../values/types'
import type { Conventions } from './conventions'
import type { Twin } from './readout'
import { formatPolar, formatRectangular, formatSingle, NOISE } from './readout'

/** A sweep in short: how many points, the first and the last, and the shape of its curve. */
export interface SweepReadout {
  readonly shape: 'sweep'
  readonly count: number
  readonly of: SweepValue['of']
  readonly complex: boolean
  readonly first: string | Twin
  readonly last: string | Twin
  /** The quantity it runs along; `null` where that has no name, or it is the quantity itself. */
  readonly along: string | null
  /** Heights of a small curve: real values, or magnitudes; lows and highs in turn. */
  readonly curve: readonly number[]
  /** What the curve shows. */
  readonly shows: 'value' | 'magnitude' | 'angle' | null
}

/** Pairs of low and high that a small curve has at most. */
const BUCKETS = 48

export function sweepReadout(sweep: SweepValue, conventions: Conventions, name: string | null): SweepReadout {
  const { axis } = sweep
  const floor = noiseFloor(sweep)
  return {
    shape: 'sweep',
    count: sweep.count,
    of: sweep.of,
    complex: sweep.complex,
    first: pointText(sweep, 0, conventions, floor),
    last: pointText(sweep, sweep.count - 1, conventions, floor),
    along: axis.name !== null && axis.name !== name ? axis.name : null,
    curve: sweep.of === 'other' ? [] : smallCurve(sweep),
    shows: sweep.of === 'other' ? null : sweep.of === 'angle' ? 'angle' : sweep.complex ? 'magnitude' : 'value',
  }
}

/** The value at a point, counted from 0, as it is shown. */
export function pointText(sweep: SweepValue, k: number, conventions: Conventions, floor = 0): string | Twin {
  const value = quieted(pointAt(sweep, k), floor)
  return value.kind === 'number' && sweep.complex
    ? { rectangular: formatRectangular(value, conventions), polar: formatPolar(value, conventions) }
    : formatSingle(value, conventions)
}

/** Below this a part is rounding noise beside the largest value of the sweep. */
export function noiseFloor({ of, re, im, axis }: SweepValue): number {
  // The quantity itself has none, and what runs over decades is meant to be small at one end.
  if (of !== 'number' || axis.decades || axis.values === re) return 0
  let largest = 0
  for (const part of im ? [re, im] : [re]) {
    for (let k = 0; k < part.length; k += 1) {
      const x = Math.abs(part[k] as number)
      if (x > largest && x < Infinity) largest = x
    }
  }
  return NOISE * largest
}

function quieted(value: Value, floor: number): Value {
  if (value.kind !== 'number' || floor === 0) return value
  const quiet = (x: number): number => (Math.abs(x) < floor ? 0 : x)
  return shownAs(value, quiet(value.re), quiet(value.im))
}

export function sweepText(sweep: SweepValue, conventions: Conventions): string {
  const floor = noiseFloor(sweep)
  const side = (k: number): string => formatSingle(quieted(pointAt(sweep, k), floor), conventions)
  return `${sweep.count} points, ${side(0)} … ${side(sweep.count - 1)}`
}

/** Every low and high, so that no peak is lost however many points there are. */
function smallCurve(sweep: SweepValue): number[] {
  const { re, im, count } = sweep
  const at = (k: number): number => (im ? Math.hypot(re[k] ?? NaN, im[k] ?? 0) : (re[k] ?? NaN))
  if (count <= 2 * BUCKETS) return Array.from({ length: count }, (_, k) => at(k))
  const found: number[] = []
  for (let bucket = 0; bucket < BUCKETS; bucket += 1) {
    const from = Math.floor((bucket * count) / BUCKETS)
    const to = Math.floor(((bucket + 1) * count) / BUCKETS)
    let [low, high, lowAt, highAt] = [Infinity, -Infinity, from, from]
    for (let k = from; k < to; k += 1) {
      const y = at(k)
      if (y < low) [low, lowAt] = [y, k]
      if (y > high) [high, highAt] = [y, k]
    }
    found.push(...(lowAt <= highAt ? [low, high] : [high, low]))
  }
  return found
}

/** Rows of the table of a sweep. */
export interface SweepRows {
  readonly count: number
  readonly along: string | null
  readonly complex: boolean
  readonly from: number
  readonly rows: readonly { readonly parameter: string | null; readonly value: string | Twin }[]
}

export function rowsOf(sweep: SweepValue, from: number, wanted: number, conventions: Conventions): SweepRows {
  const { axis, count } = sweep
  const floor = noiseFloor(sweep)
  const own = axis.values === sweep.re
  const parameter = (k: number): string | null => {
    if (own) return null
    const x = axis.values[k] ?? NaN
    return formatSingle(
      axis.angle ? pointAt({ ...sweep, of: 'angle', re: axis.values, items: null }, k) : real(x),
      conventions,
    )
  }
  const rows = Array.from({ length: Math.max(0, Math.min(wanted, count - from)) }, (_, k) => ({
    parameter: parameter(from + k),
    value: pointText(sweep, from + k, conventions, floor),
  }))
  return { count, along: own ? null : axis.name, complex: sweep.complex, from, rows }
}
