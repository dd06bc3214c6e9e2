import type { SweepValue } from '../values/types'
import { factorNumber } from '../units/unit'
import type { SweepData } from './curve'

/** Most points of a sweep that the page gets; of longer ones it gets lows and highs. */
const TOLD_MOST = 200_000

/** The points of a sweep for plates: all of them, or of a long one the extremes of every stretch. */
export function sweepData(value: SweepValue): SweepData | null {
  if (value.of === 'other') return null
  const { axis, re, im, count } = value
  const own = re === axis.values
  const xFactor = own ? 1 : factorNumber(axis.unit)
  const unit = axis.unit ? { xUnit: axis.unit.text } : {}
  const along = (xs: Float64Array): Float64Array => (xFactor === 1 ? xs : xs.map((x) => x / xFactor))
  const common = { ...unit, along: axis.name, turns: axis.angle, decades: axis.decades, of: value.of }
  if (count <= TOLD_MOST) return { ...common, x: along(axis.values), re, im: value.complex ? im : null }
  const places = extremePlaces(re, im, count)
  const pick = (list: Float64Array): Float64Array => Float64Array.from(places, (k) => list[k] ?? NaN)
  return { ...common, x: along(pick(axis.values)), re: pick(re), im: im && pick(im) }
}

function extremePlaces(re: Float64Array, im: Float64Array | null, count: number): number[] {
  const stretches = TOLD_MOST / 6
  const found: number[] = []
  for (let n = 0; n < stretches; n += 1) {
    const from = Math.floor((n * count) / stretches)
    const to = Math.floor(((n + 1) * count) / stretches)
    const places = [from, from, from, from]
    for (let k = from; k < to; k += 1) {
      if ((re[k] as number) < (re[places[0] as number] as number)) places[0] = k
      if ((re[k] as number) > (re[places[1] as number] as number)) places[1] = k
      if (im && (im[k] as number) < (im[places[2] as number] as number)) places[2] = k
      if (im && (im[k] as number) > (im[places[3] as number] as number)) places[3] = k
    }
    found.push(...[...new Set([from, ...places, to - 1])].sort((a, b) => a - b))
  }
  return found
}
