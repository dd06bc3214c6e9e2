import type { Complex } from '../numbers/complex'
import { toDyadic } from '../numbers/dyadic'
import { fromCircle, onAxis, valueAtFrequency } from './frequency'
import type { OnAxis } from './frequency'
import { positiveRoots } from './realRoots'
import { sidesOf } from './stability'
import type { Transfer } from './transfer'
import * as W from './whole'
import type { Whole } from './whole'
import * as Z from './wide'

/**
 * Stability margins of an open loop (K. J. Åström and R. M. Murray, "Feedback Systems", chapter 10). Crossovers are
 * roots of polynomials in ω²; behind a delay the phase is monotone between roots of another, so that each crossover is
 * bracketed by proof.
 */
export interface Margins {
  readonly phase: AtFrequency | null
  /** The smallest factor above 1 that brings the loop to −1, and the largest below. */
  readonly gain: AtFrequency | null
  readonly gainBelow: AtFrequency | null
  readonly delay: AtFrequency | null
  /** The least |1 + L|. */
  readonly distance: AtFrequency
  readonly crossovers: readonly Crossover[]
  /** Poles of the closed loop to the right, and on the axis; `null` where that is not known. */
  readonly closedLoop: { readonly right: number; readonly axis: number } | null
  /** Poles of the open loop to the right. */
  readonly openRight: number | null
}

export interface AtFrequency {
  readonly value: number
  readonly at: number
}

export interface Crossover {
  readonly sort: 'gain' | 'phase'
  readonly at: number
  /** The loop there. */
  readonly value: Complex
}

/** The loop as it runs along the positive imaginary axis. */
interface Loop {
  readonly axis: OnAxis
  readonly delay: number
  /** The frequency at a place of the axis, and the place of a frequency: of samples they differ. */
  readonly frequency: (v: number) => number
  readonly valueAt: (v: number) => Complex
}

/** Of samples the frequencies are radians a sample. */
export function marginsOf(l: Transfer, delay = 0): Margins {
  const [top, bottom] = l.discrete ? fromCircle(l.top, l.bottom) : [l.top, l.bottom]
  const axis = onAxis(top, bottom)
  const frequency = l.discrete ? (v: number): number => 2 * Math.atan(v) : (v: number): number => v
  const loop: Loop = {
    axis,
    delay,
    frequency,
    valueAt: (v) => delayedBy(valueAtFrequency(axis, v), frequency(v) * delay),
  }
  const gains = gainCrossovers(loop)
  const phases = delay > 0 ? delayedPhaseCrossovers(loop, gains) : phaseCrossovers(loop)
  const at = (sort: Crossover['sort']) => (v: number): Crossover => ({ sort, at: frequency(v), value: loop.valueAt(v) }) // prettier-ignore
  const crossovers = [...gains.map(at('gain')), ...phases.map(at('phase'))].sort((a, b) => a.at - b.at)
  const open = sidesOf(bottom)
  return {
    ...headlines(crossovers),
    distance: nearest(loop, gains),
    crossovers,
    closedLoop: closedLoopSides(top, bottom, loop, gains),
    openRight: open && open.right,
  }
}

function delayedBy(z: Complex, turn: number): Complex {
  if (turn === 0 || !Number.isFinite(turn)) return z
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  return { re: z.re * c + z.im * s, im: z.im * c - z.re * s }
}

const root = ({ x }: { readonly x: number }): number => Math.sqrt(x)

function gainCrossovers({ axis }: Loop): readonly number[] {
  const difference = W.subtract(axis.above, axis.below)
  return difference.length === 0 ? [] : positiveRoots(difference).map(root)
}

/** Where the loop is real and negative: at 0 and at ∞ as well. */
function phaseCrossovers({ axis, valueAt }: Loop): readonly number[] {
  const negative = (v: number): boolean => {
    const { re } = valueAt(v)
    return re < 0 && Number.isFinite(re)
  }
  const inside = axis.odd.length === 0 ? [] : positiveRoots(axis.odd).map(root).filter(negative)
  const first = W.coefficient(axis.below, 0) !== 0n && W.coefficient(axis.even, 0) < 0n
  const level = W.degreeOf(axis.above) === W.degreeOf(axis.below)
  const last = level && W.degreeOf(axis.even) === W.degreeOf(axis.below) && W.leading(axis.even) < 0n
  return [...(first ? [0] : []), ...inside, ...(last ? [Infinity] : [])]
}

/** 180° + the argument, in (−180°, 180°]. */
export function phaseMargin({ re, im }: Complex): number {
  const turned = Math.atan2(-im, -re)
  return turned === -Math.PI ? Math.PI : turned
}

function headlines(all: readonly Crossover[]): Pick<Margins, 'phase' | 'gain' | 'gainBelow' | 'delay'> {
  const phases = all.filter(({ sort }) => sort === 'gain').map(({ at, value }) => ({ at, value: phaseMargin(value) }))
  const gains = all
    .filter(({ sort }) => sort === 'phase')
    .map(({ at, value }) => ({ at, value: 1 / Math.hypot(value.re, value.im) }))
  const least = (list: readonly AtFrequency[], by: (x: AtFrequency) => number): AtFrequency | null =>
    list.reduce<AtFrequency | null>((best, one) => (best === null || by(one) < by(best) ? one : best), null)
  // Of the delay that turns the loop to −1: an angle of a whole turn at the most.
  const delays = phases.map(({ at, value }) => ({ at, value: (value > 0 ? value : value + 2 * Math.PI) / at }))
  return {
    phase: least(phases, ({ value }) => Math.abs(value)),
    gain: least(gains.filter(({ value }) => value >= 1), ({ value }) => value), // prettier-ignore
    gainBelow: least(gains.filter(({ value }) => value < 1), ({ value }) => -value), // prettier-ignore
    delay: least(delays, ({ value }) => value),
  }
}

/** The derivative of a quotient by x, but for the square below. */
const slope = (a: Whole, b: Whole): Whole => W.subtract(W.multiply(W.derivative(a), b), W.multiply(a, W.derivative(b)))

/** The least |1 + L|: at a root of its derivative, at 0 or at ∞; behind a delay closed in on between them. */
function nearest(loop: Loop, gains: readonly number[]): AtFrequency {
  const { axis, valueAt } = loop
  const distance = (v: number): number => {
    const { re, im } = valueAt(v)
    return Math.hypot(1 + re, im)
  }
  // |D + N|² = |D|² + |N|² + 2·Re N·D*
  const whole = W.add(W.add(axis.above, axis.below), W.times(axis.even, 2n))
  const stationary = loop.delay > 0 ? delayedNear(loop, gains, distance) : rootsOrNone(slope(whole, axis.below))
  const places = [0, ...stationary, ...(loop.delay > 0 ? [] : [Infinity])]
  const all = places
    .map((v) => ({ at: loop.frequency(v), value: distance(v) }))
    .filter(({ value }) => !Number.isNaN(value))
  const best = all.reduce((so, one) => (one.value < so.value ? one : so))
  return best.value > 1 && loop.delay > 0 ? { at: Infinity, value: 1 } : best
}

const rootsOrNone = (p: Whole): readonly number[] => (p.length === 0 ? [] : positiveRoots(p).map(root))

/** |D|²·|N|² is what phases are divided by; where it is 0 they jump. */
const weight = ({ above, below }: OnAxis): Whole => W.multiply(above, below)

/** The places between which the argument, the delay with it, is monotone and the ratio stays in one quadrant. */
function quarters({ axis, delay }: Loop): readonly number[] {
  const x: Whole = [0n, 1n]
  const { even, odd } = axis
  const size = weight(axis)
  // d arg/dω = (odd·even + 2x·(odd′·even − odd·even′)) / (|N|²·|D|²)
  const turning = W.add(
    W.multiply(odd, even),
    W.times(W.multiply(x, W.subtract(W.multiply(W.derivative(odd), even), W.multiply(odd, W.derivative(even)))), 2n),
  )
  const t = toDyadic(delay)
  const still = t ? W.subtract(W.times(turning, BigInt(t.d)), W.times(size, BigInt(t.n))) : turning
  const places = [still, size, even, odd].flatMap(rootsOrNone)
  return [...new Set([0, ...places])].sort((a, b) => a - b)
}

/** From here on the magnitude falls, and is below 1. */
function quietFrom({ axis }: Loop, gains: readonly number[]): number {
  return Math.max(0, ...gains, ...rootsOrNone(slope(axis.above, axis.below)))
}

/** The most crossovers behind a delay that are listed. */
const LISTED_MOST = 1000

/**
 * Behind a delay there is no end to them: they are listed as far as one that comes after the last gain crossover and
 * after the last extreme of the magnitude, since from there on gain margins only grow.
 */
function delayedPhaseCrossovers(loop: Loop, gains: readonly number[]): readonly number[] {
  const { axis, delay, valueAt } = loop
  const places = quarters(loop)
  const quiet = quietFrom(loop, gains)
  const found: number[] = []
  const first = valueAt(0)
  if (Number.isFinite(first.re) && first.re < 0) found.push(0)
  const end = Math.max(places.at(-1) ?? 0, quiet) + (6 * Math.PI) / delay
  const edges = [...places, end]
  for (let k = 0; k + 1 < edges.length; k += 1) {
    const [a, b] = [edges[k] ?? 0, edges[k + 1] ?? 0]
    const middle = (a + b) / 2
    // The argument without the delay, unwrapped from the middle: within the piece it stays in one quadrant.
    const at = valueAtFrequency(axis, middle)
    const base = Math.atan2(at.im, at.re)
    const angle = (v: number): number => {
      const z = valueAtFrequency(axis, v)
      const turned = Math.atan2(z.im, z.re)
      return turned + 2 * Math.PI * Math.round((base - turned) / (2 * Math.PI)) - v * delay
    }
    const inside = (v: number): number => Math.min(b, Math.max(a, v))
    const [left, right] = [angle(inside(a + (b - a) * 1e-12)), angle(inside(b - (b - a) * 1e-12))]
    const [low, high] = [Math.min(left, right), Math.max(left, right)]
    const piece: number[] = []
    for (let n = Math.ceil((low / Math.PI - 1) / 2); (2 * n + 1) * Math.PI <= high; n += 1) {
      if (piece.length > LISTED_MOST) break
      piece.push(crossing(angle, a, b, (2 * n + 1) * Math.PI, right > left))
    }
    for (const v of piece.sort((x, y) => x - y)) {
      found.push(v)
      if (v > quiet || found.length >= LISTED_MOST) return found
    }
  }
  return found
}

/** Where a monotone angle takes a value. */
function crossing(angle: (v: number) => number, a: number, b: number, wanted: number, rises: boolean): number {
  let [low, high] = [a, b]
  for (let k = 0; k < 200; k += 1) {
    const middle = (low + high) / 2
    if (middle <= low || middle >= high) break
    if (angle(middle) < wanted === rises) low = middle
    else high = middle
  }
  return (low + high) / 2
}

/** Where |1 + L| may be least behind a delay: looked for in steps of a small part of a turn, as far as L can matter. */
function delayedNear(loop: Loop, gains: readonly number[], distance: (v: number) => number): readonly number[] {
  const { delay, valueAt } = loop
  const edges = quarters(loop)
  const quiet = quietFrom(loop, gains)
  const step = 0.1 / delay
  const found: number[] = []
  let best = 1
  let [before, v] = [0, 0]
  let values = [Infinity, distance(0)]
  for (let count = 0; count < 200_000; count += 1) {
    const ahead = edges.find((edge) => edge > v) ?? Infinity
    const next = Math.min(v + step, v > 0 ? v * 1.02 : (edges[1] ?? step) * 1e-3, Math.max(ahead, v + step * 1e-3))
    const now = distance(next)
    const [older = 0, last = 0] = values
    if (last <= older && last <= now) {
      const low = least(distance, before, next)
      found.push(low)
      best = Math.min(best, distance(low))
    }
    ;[before, v] = [v, next]
    values = [last, now]
    const { re, im } = valueAt(v)
    if (v > quiet && Math.hypot(re, im) < 1 - best) break
    if (v > quiet && Math.hypot(re, im) < 1e-12) break
  }
  return found
}

/** The least value between two points, by the golden section. */
function least(f: (v: number) => number, a: number, b: number): number {
  const share = (Math.sqrt(5) - 1) / 2
  let [low, high] = [a, b]
  let [x, y] = [high - share * (high - low), low + share * (high - low)]
  let [fx, fy] = [f(x), f(y)]
  for (let k = 0; k < 90; k += 1) {
    if (fx < fy) {
      ;[high, y, fy] = [y, x, fx]
      x = high - share * (high - low)
      fx = f(x)
    } else {
      ;[low, x, fx] = [x, y, fy]
      y = low + share * (high - low)
      fy = f(y)
    }
  }
  return (low + high) / 2
}

/**
 * The poles of the closed loop to the right. Behind a delay: as the delay grows from 0, a pair crosses the axis at each
 * gain crossover whenever the loop is at −1 there, to the right where the magnitude falls and to the left where it rises
 * (K. Walton and J. E. Marshall, IEE Proceedings D 134, 1987).
 */
function closedLoopSides(top: Whole, bottom: Whole, loop: Loop, gains: readonly number[]): Margins['closedLoop'] {
  const sides = sidesOf(W.add(top, bottom))
  if (!sides || loop.delay === 0) return sides
  if (W.degreeOf(top) >= W.degreeOf(bottom)) return null
  let { right } = sides
  let axis = 0
  const falling = slope(loop.axis.above, loop.axis.below)
  for (const v of gains) {
    const { re: rising } = Z.valueAt(falling, Z.multiply(Z.fromNumber(v), Z.fromNumber(v)))
    const at = phaseMargin(valueAtFrequency(loop.axis, v))
    const first = (at > 0 ? at : at + 2 * Math.PI) / v
    for (let delay = first; delay <= loop.delay; delay += (2 * Math.PI) / v) {
      if (delay === loop.delay) axis += 2
      else right += rising < 0n ? 2 : rising > 0n ? -2 : 0
    }
  }
  return { right: Math.max(0, right), axis }
}

/** The lowest frequency at which |T| is |T(0)|/√2; `null` where there is none. Of samples in radians a sample. */
export function bandwidthOf(t: Transfer): number | null {
  const { axis, frequency } = along(t)
  const [above, below] = [W.coefficient(axis.above, 0), W.coefficient(axis.below, 0)]
  if (above === 0n || below === 0n) return null
  const [first] = rootsOrNone(W.subtract(W.times(axis.above, 2n * below), W.times(axis.below, above)))
  return first === undefined ? null : frequency(first)
}

function along(t: Transfer): { readonly axis: OnAxis; readonly frequency: (v: number) => number } {
  const [top, bottom] = t.discrete ? fromCircle(t.top, t.bottom) : [t.top, t.bottom]
  return { axis: onAxis(top, bottom), frequency: t.discrete ? (v) => 2 * Math.atan(v) : (v) => v }
}

/** The largest |T| over all frequencies, and where; `null` where there is a pole on the axis, or it grows without end. */
export function peakGainOf(t: Transfer): AtFrequency | null {
  const { axis, frequency } = along(t)
  const { above, below } = axis
  if (W.degreeOf(above) > W.degreeOf(below)) return null
  if (W.coefficient(below, 0) === 0n || positiveRoots(below).length > 0) return null
  const size = (v: number): AtFrequency => {
    const { re, im } = valueAtFrequency(axis, v)
    return { value: Math.hypot(re, im), at: frequency(v) }
  }
  return [0, ...rootsOrNone(slope(above, below)), Infinity].map(size).reduce((a, b) => (b.value > a.value ? b : a))
}
