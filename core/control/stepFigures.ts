import { work } from '../numbers/work'
import { Sequence } from './sequence'
import { timeFunction, valueAt } from './timeFunction'
import type { Mode, TimeFunction } from './timeFunction'
import { quotientNumber, rootsOfWhole } from './transfer'
import type { Transfer } from './transfer'
import * as W from './whole'
import type { Whole } from './whole'

/**
 * The figures of a step response (K. J. Åström and R. M. Murray, "Feedback Systems", chapter 6), from its closed form:
 * extremes lie where the impulse response changes its sign, and every crossing is closed in on by halves.
 */
export interface StepFigures {
  /** From 10 to 90 % of the change from y(0+) to the final value; `null` without a change. */
  readonly rise: number | null
  /** When it is at 10 % of it. */
  readonly riseFrom: number | null
  /** The last exit from ±2 % of the change (of the peak, where there is no change) about the final value. */
  readonly settling: number
  /** How far it goes beyond the final value, as a share of the change; 0 where it does not. */
  readonly overshoot: number | null
  /** How far it goes the other way at first, likewise. */
  readonly undershoot: number | null
  /** The largest value in the direction of the change, and when; `null` where the final value is not exceeded. */
  readonly peak: number
  readonly peakAt: number | null
  readonly start: number
  readonly final: number
}

export type NoFigures = 'unstable' | 'integrating' | 'improper' | 'too-large'

/** What a response needs to be walked along. */
interface Walk {
  at(t: number): number
  /** Changes its sign where the response has an extreme. */
  slope(t: number): number
  /** A bound of how far the response is from its final value from t on. */
  bound(t: number): number
  /** How far the next point may be from t, so that nothing is missed that is larger than `least`. */
  step(t: number, least: number): number
  /** A time after which the bound only falls. */
  readonly falling: number
}

const TEN = 0.1
const BAND = 0.02

/** The figures of a continuous transfer function; why there are none. */
export function stepFigures(g: Transfer): StepFigures | NoFigures {
  if (W.degreeOf(g.top) > W.degreeOf(g.bottom)) return 'improper'
  const poles = rootsOfWhole(g.bottom)
  if (!poles) return 'too-large'
  const outside = g.discrete
    ? (z: { re: number; im: number }): number => Math.hypot(z.re, z.im) - 1
    : (z: { re: number; im: number }): number => z.re
  const summing = g.discrete ? W.trimmed([-1n, 1n]) : W.trimmed([0n, 1n])
  const integrates = W.degreeOf(W.commonDivisor(g.bottom, summing)) > 0
  if (poles.some(({ z }) => outside(z) > 0)) return 'unstable'
  if (integrates) return 'integrating'
  if (poles.some(({ z }) => outside(z) >= (g.discrete ? -1e-15 : 0))) return 'unstable'
  const final = quotient(g, g.discrete)
  return g.discrete
    ? sampledFigures(
        g,
        final,
        poles.map(({ z }) => Math.hypot(z.re, z.im)),
      )
    : smoothFigures(g, final)
}

/** G at 0, or of samples at 1. */
function quotient({ top, bottom }: Transfer, discrete: boolean): number {
  const at = (p: Whole): bigint => (discrete ? p.reduce((sum, c) => sum + c, 0n) : W.coefficient(p, 0))
  return quotientNumber(at(top), at(bottom))
}

function smoothFigures(g: Transfer, final: number): StepFigures | NoFigures {
  const response = timeFunction(g.top, W.multiply(g.bottom, [0n, 1n]))
  const slope = timeFunction(g.top, g.bottom)
  if (!response || !slope) return 'too-large'
  const start = W.degreeOf(g.top) === W.degreeOf(g.bottom) ? valueAt(response, 0) : 0
  return figuresOf(walkOf(response, slope), start, final)
}

function walkOf(response: TimeFunction, slope: TimeFunction): Walk {
  const modes = response.modes.filter(({ pole: { z } }) => z.re !== 0 || z.im !== 0)
  const size = ({ pole, factors, weight }: Mode, t: number, ahead = t): number => {
    let [sum, term] = [0, 1]
    for (const [k, c] of factors.entries()) {
      if (k > 0) term *= ahead / k
      sum += Math.hypot(c.re, c.im) * term
    }
    return weight * sum * Math.exp(pole.z.re * t)
  }
  // What starts from nothing is soon there.
  const soon = (mode: Mode, t: number): number =>
    size(mode, t, Math.max(t, 1 / Math.hypot(mode.pole.z.re, mode.pole.z.im)))
  return {
    at: (t) => valueAt(response, t),
    slope: (t) => valueAt(slope, t),
    bound: (t) => modes.reduce((sum, mode) => sum + soon(mode, t), 0),
    step: (t, least) => {
      work(500 * modes.length)
      const active = modes.filter((mode) => soon(mode, t) > least / (4 * modes.length))
      return Math.min(...active.map(({ pole: { z } }) => 0.2 / Math.hypot(z.re, z.im)))
    },
    falling: Math.max(0, ...modes.map(({ pole: { z, times } }) => (2 * (times - 1)) / -z.re)),
  }
}

function figuresOf(walk: Walk, start: number, final: number): StepFigures {
  const change = final - start
  const scale = Math.abs(change) > 1e-12 * Math.max(Math.abs(start), Math.abs(final)) ? Math.abs(change) : 0
  return fromExtremes(
    { start, final, scale, ...extremes(walk, start, final, scale) },
    () => rise(walk, start, change),
    (band) => (band === 0 ? 0 : settling(walk, final, band)),
  )
}

/** What a response went between, and what its figures are measured by: the change, 0 where there is none. */
interface Reach {
  readonly start: number
  readonly final: number
  readonly scale: number
  readonly most: Place
  readonly least: Place
}

/** The figures that follow from the extremes; rise and settling are found by who knows the response. */
function fromExtremes(
  { start, final, scale, most, least }: Reach,
  rises: () => Pick<StepFigures, 'rise' | 'riseFrom'>,
  settles: (band: number) => number,
): StepFigures {
  const up = scale === 0 ? most.value - final >= final - least.value : final > start
  const [far, back] = up ? [most, least] : [least, most]
  const reference = scale > 0 ? scale : Math.abs(far.value - final)
  const beyond = Math.max(0, up ? far.value - final : final - far.value)
  const other = Math.max(0, up ? start - back.value : back.value - start)
  const exceeds = beyond > 1e-12 * reference
  return {
    ...(scale > 0 ? rises() : { rise: null, riseFrom: null }),
    settling: settles(BAND * reference),
    overshoot: scale > 0 ? (exceeds ? beyond / scale : 0) : null,
    undershoot: scale > 0 ? (other > 1e-12 * scale ? other / scale : 0) : null,
    peak: exceeds ? far.value : final,
    peakAt: exceeds ? far.t : null,
    start,
    final,
  }
}

interface Place {
  readonly t: number
  readonly value: number
}

const STEPS_MOST = 400_000

/** The highest and the lowest value. */
function extremes(walk: Walk, start: number, final: number, scale: number): { most: Place; least: Place } {
  let [most, least]: [Place, Place] = [
    { t: 0, value: start },
    { t: 0, value: start },
  ]
  const take = (t: number): void => {
    const value = walk.at(t)
    if (value > most.value) most = { t, value }
    if (value < least.value) least = { t, value }
  }
  let t = 0
  let before = walk.slope(0)
  for (let count = 0; count < STEPS_MOST; count += 1) {
    // What is left can go beyond neither of the two, nor by what would be seen beyond the final value.
    const left = walk.bound(t)
    const size = Math.max(scale, most.value - least.value)
    if (t > walk.falling && final + left <= Math.max(most.value, final + 1e-13 * size) && final - left >= Math.min(least.value, final - 1e-13 * size)) break // prettier-ignore
    const step = walk.step(t, 1e-13 * size)
    if (!Number.isFinite(step)) break
    const next = t + step
    const now = walk.slope(next)
    if (before !== 0 && Math.sign(now) !== Math.sign(before)) take(closed((x) => walk.slope(x), t, next, before))
    ;[t, before] = [next, now]
  }
  return { most, least }
}

/** Where a function that has one sign at a has the other. */
function closed(f: (t: number) => number, a: number, b: number, atA: number): number {
  let [low, high] = [a, b]
  for (let k = 0; k < 100; k += 1) {
    const middle = (low + high) / 2
    if (middle <= low || middle >= high) break
    if (Math.sign(f(middle)) === Math.sign(atA)) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** From the first time at 10 % to the first time at 90 % of the change. */
function rise(walk: Walk, start: number, change: number): Pick<StepFigures, 'rise' | 'riseFrom'> {
  const share = (t: number): number => (walk.at(t) - start) / change
  const times: number[] = []
  let t = 0
  let from = 0
  for (const level of [TEN, 1 - TEN]) {
    for (let count = 0; count < STEPS_MOST && share(t) < level; count += 1) {
      from = t
      const step = walk.step(t, Math.abs(change) * 1e-6)
      t += Number.isFinite(step) ? step : 1
    }
    const low = from
    times.push(t === 0 ? 0 : closed((x) => share(x) - level, low, t, -1))
  }
  const [from10 = 0, at90 = 0] = times
  return { rise: at90 - from10, riseFrom: from10 }
}

/** The last time at which it is further from the final value than the band is wide. */
function settling(walk: Walk, final: number, band: number): number {
  let end = Math.max(walk.falling, 1e-300)
  const first = walk.step(0, 0)
  end = Math.max(end, Number.isFinite(first) ? first : 0)
  while (walk.bound(end) >= band && end < 1e300) end *= 2
  // From where the bound is within the band backwards.
  let [low, high] = [walk.bound(0) < band && walk.falling === 0 ? 0 : end / 2, end]
  for (let k = 0; k < 60 && high - low > 1e-3 * high; k += 1) {
    const middle = (low + high) / 2
    if (middle > walk.falling && walk.bound(middle) < band) high = middle
    else low = middle
  }
  const over = (t: number): number => Math.abs(walk.at(t) - final) - band
  let t = high
  let slope = walk.slope(t)
  for (let count = 0; count < STEPS_MOST && t > 0; count += 1) {
    const step = walk.step(t, band * 1e-3)
    const next = Math.max(0, t - (Number.isFinite(step) ? step : t))
    const now = walk.slope(next)
    // Between the two points it may just touch the band.
    const top = Math.sign(now) !== Math.sign(slope) ? closed((x) => walk.slope(x), next, t, now) : null
    if (top !== null && over(top) > 0) return closed(over, top, t, 1)
    if (over(next) > 0) return closed(over, next, top ?? t, 1)
    ;[t, slope] = [next, now]
  }
  return 0
}

/** The figures of held samples, at the samples; times count samples. */
function sampledFigures(g: Transfer, final: number, radii: readonly number[]): StepFigures {
  const samples = new Sequence(W.multiply(g.top, [0n, 1n]), W.multiply(g.bottom, [-1n, 1n]))
  const slowest = Math.max(0, ...radii)
  const order = W.degreeOf(g.bottom)
  const count = Math.min(
    200_000,
    order + 2 + (slowest > 0 ? Math.ceil((Math.log(1e-10) / Math.log(slowest)) * 1.5) : 0),
  )
  const values = Array.from({ length: count }, (_, k) => samples.at(k))
  const start = W.degreeOf(g.top) === order ? (values[0] ?? 0) : 0
  const change = final - start
  const best = (sign: 1 | -1): Place =>
    values.reduce<Place>((so, value, t) => (sign * value > sign * so.value ? { t, value } : so), { t: 0, value: start })
  const reaches = (level: number): number => values.findIndex((y) => (y - start) / change >= level)
  return fromExtremes(
    { start, final, scale: Math.abs(change), most: best(1), least: best(-1) },
    () => ({ rise: reaches(1 - TEN) - reaches(TEN), riseFrom: reaches(TEN) }),
    (band) => values.findLastIndex((y) => Math.abs(y - final) > band) + 1,
  )
}
