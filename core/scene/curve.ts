import type { Complex } from '../numbers/complex'
import { sameInk } from './scene'
import type { Ink } from './scene'
import type { InUnit } from './unitScales'

/** Curves of sweeps: what of a value is drawn over what, thinned to what a picture can show. */

/** What of a complex value a curve shows. */
export const CURVE_PARTS = ['re', 'im', 'magnitude', 'dB', 'angle', 'unwrapped'] as const
export type CurvePart = (typeof CURVE_PARTS)[number]

/** Quantities that share an axis. */
export const SORTS = ['number', 'dB', 'angle'] as const
export type Sort = (typeof SORTS)[number]

/** A sweep as the page gets it. */
export interface SweepData {
  /** The kept name of what it runs along; `null` where that has none. */
  readonly along: string | null
  readonly x: Float64Array
  /** True where `x` are radians. */
  readonly turns: boolean
  readonly decades: boolean
  readonly of: 'number' | 'angle'
  readonly re: Float64Array
  readonly im: Float64Array | null
  /** The units that the values, and what they run along, are written in; left out of plain numbers. */
  readonly unit?: string
  readonly xUnit?: string
  /** The unit of the values as planes need it. */
  readonly in?: InUnit
  /** What the horizontal axis is called where what it runs along has no kept name. */
  readonly axis?: string
  /** What is known of the curve and marked on it. */
  readonly marks?: readonly CurveMark[]
  /** Of an open loop on the imaginary axis: how often it runs round −1, and what follows. */
  readonly loop?: LoopCount
  /** Of a frequency response: what it comes near to. */
  readonly straight?: StraightLines | null
}

/** A frequency response by straight lines over the logarithm of ω: levels in dB, angles in radians. */
export interface StraightLines {
  readonly level: readonly Point[]
  /** Empty where there are none, as with a delay. */
  readonly angle: readonly Point[]
  readonly corners: readonly Corner[]
}

/** Where one slope goes over into the next: both in dB a decade. */
export interface Corner {
  readonly x: number
  readonly level: number
  readonly bend: number
  /** The slope beyond it. */
  readonly slope: number
}

/** A figure that belongs to a place of a curve: margins of a loop, and the figures of a step response. */
export interface CurveMark {
  readonly what: 'phase-margin' | 'gain-margin' | 'rise' | 'settling' | 'peak' | 'final'
  readonly x: number
  /** The figure: radians, a factor, a time, or a height in the unit of the curve. */
  readonly value: number
  /** Where a stretch ends. */
  readonly to?: number
}

/** Encirclements of −1, clockwise; poles of the open loop to the right; poles of the closed loop there. */
export interface LoopCount {
  readonly encirclements: number
  readonly open: number
  readonly closed: number
}

/** A sweep as a plate draws it, as a curve or as a locus: with its name and dress. */
export interface ShownSweep {
  /** Which member of a family it is: `ζ = 0.2`. */
  readonly member?: string
  /** True of the members beside the values as they stand. */
  readonly beside?: boolean
  readonly line: string
  readonly name: string
  readonly ink: Ink
  readonly data: SweepData
}

/** True where nothing of it is to be drawn anew. */
export function sameShown(a: ShownSweep | undefined, b: ShownSweep): boolean {
  return a !== undefined && a.data === b.data && a.line === b.line && a.name === b.name && a.member === b.member && sameInk(a.ink, b.ink) // prettier-ignore
}

export function sortOf(part: CurvePart, of: SweepData['of']): Sort {
  if (of === 'angle' || part === 'angle' || part === 'unwrapped') return 'angle'
  return part === 'dB' ? 'dB' : 'number'
}

/** The heights of a curve; angles in the unit that is asked for. */
export function heights({ of, re, im }: SweepData, part: CurvePart, unit: 'deg' | 'rad'): Float64Array {
  const turn = unit === 'deg' ? 180 / Math.PI : 1
  if (of === 'angle') {
    const radians = part === 'unwrapped' ? unwrapped(re) : re
    return radians.map((x) => x * turn)
  }
  switch (part) {
    case 're':
      return re
    case 'im':
      return im ?? new Float64Array(re.length)
    case 'magnitude':
      return re.map((x, k) => Math.hypot(x, im?.[k] ?? 0))
    case 'dB':
      return re.map((x, k) => 20 * Math.log10(Math.hypot(x, im?.[k] ?? 0)))
    default: {
      const radians = re.map((x, k) => Math.atan2((im?.[k] ?? 0) + 0, x + 0))
      const shown = part === 'unwrapped' ? unwrapped(radians) : radians
      return shown.map((x) => x * turn)
    }
  }
}

/**
 * The height of a curve at a value of its own, between its points; unwrapped angles in the turn of the nearest point,
 * whose height is `beside`.
 */
export function heightOf(
  value: Complex,
  of: SweepData['of'],
  part: CurvePart,
  unit: 'deg' | 'rad',
  beside: number,
): number {
  // prettier-ignore
  const one = { re: Float64Array.of(value.re), im: Float64Array.of(value.im) }
  const [height = NaN] = heights({ along: null, x: one.re, turns: false, decades: false, of, ...one }, part, unit)
  if (part !== 'unwrapped') return height
  const turn = unit === 'deg' ? 360 : 2 * Math.PI
  return height + turn * Math.round((beside - height) / turn)
}

/** Whole turns added so that no step is larger than half a turn. */
export function unwrapped(radians: Float64Array): Float64Array {
  const out = new Float64Array(radians.length)
  let turns = 0
  for (let k = 0; k < radians.length; k += 1) {
    const x = radians[k] ?? NaN
    const step = k === 0 ? 0 : x - (radians[k - 1] ?? x)
    if (step > Math.PI) turns -= 1
    else if (step < -Math.PI) turns += 1
    out[k] = x + turns * 2 * Math.PI
  }
  return out
}

export interface Point {
  readonly x: number
  readonly y: number
}

/**
 * The points of a curve that a picture of so many columns can tell apart: in
 * each column the first, the last, the lowest and the highest. Points that are
 * not finite leave a gap.
 */
export function thinned(x: Float64Array, y: Float64Array, columnOf: (x: number) => number, columns: number): Point[] {
  const found: Point[] = []
  if (x.length <= 4 * columns) {
    for (let k = 0; k < x.length; k += 1) found.push({ x: x[k] ?? NaN, y: finite(y[k]) })
    return found
  }
  let start = 0
  while (start < x.length) {
    const column = Math.floor(columnOf(x[start] ?? NaN))
    let end = start
    let [low, high] = [start, start]
    let gap = false
    while (end < x.length && Math.floor(columnOf(x[end] ?? NaN)) === column) {
      const height = y[end] ?? NaN
      if (!Number.isFinite(height)) gap = true
      if (height < (y[low] ?? NaN)) low = end
      if (height > (y[high] ?? NaN)) high = end
      end += 1
    }
    if (end === start) end = start + 1
    const kept = [...new Set([start, Math.min(low, high), Math.max(low, high), end - 1])]
    for (const k of kept) found.push({ x: x[k] ?? NaN, y: finite(y[k]) })
    if (gap) found.push({ x: x[end - 1] ?? NaN, y: NaN })
    start = end
  }
  return found
}

const finite = (y: number | undefined): number => (y !== undefined && Number.isFinite(y) ? y : NaN)

/** The place of the point that is nearest along an axis that rises or falls. */
export function nearestIndex(x: Float64Array, to: number, log = false): number {
  const rising = (x.at(-1) ?? 0) >= (x[0] ?? 0)
  let [low, high] = [0, x.length - 1]
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if ((x[middle] ?? 0) < to === rising) low = middle
    else high = middle
  }
  const away = (k: number): number => (log ? Math.abs(Math.log((x[k] ?? NaN) / to)) : Math.abs((x[k] ?? NaN) - to))
  return away(low) <= away(high) ? low : high
}

export interface Feature extends Point {
  readonly kind: 'high' | 'low' | 'crossing'
  readonly index: number
}

/** Most features of a sort that are marked. */
const FEATURES_MOST = 12

/** The highest and the lowest point, and the other peaks and hollows inside, the most marked first. */
export function extremes(x: Float64Array, y: Float64Array): Feature[] {
  let [high, low] = [-1, -1]
  const inner: Feature[] = []
  for (let k = 0; k < y.length; k += 1) {
    const height = y[k] ?? NaN
    if (!Number.isFinite(height)) continue
    if (high < 0 || height > (y[high] ?? NaN)) high = k
    if (low < 0 || height < (y[low] ?? NaN)) low = k
    const [before, after] = [y[k - 1] ?? NaN, y[k + 1] ?? NaN]
    if (height > before && height >= after) inner.push({ kind: 'high', index: k, x: x[k] ?? NaN, y: height })
    if (height < before && height <= after) inner.push({ kind: 'low', index: k, x: x[k] ?? NaN, y: height })
  }
  const found: Feature[] = []
  if (high >= 0) found.push({ kind: 'high', index: high, x: x[high] ?? NaN, y: y[high] ?? NaN })
  if (low >= 0 && low !== high) found.push({ kind: 'low', index: low, x: x[low] ?? NaN, y: y[low] ?? NaN })
  const others = inner.filter((f) => f.index !== high && f.index !== low)
  return [...found, ...others.slice(0, FEATURES_MOST - found.length)]
}

/** Where a curve goes through a height, between two points by a straight line (along a log axis: of its logarithm). */
export function crossings(x: Float64Array, y: Float64Array, level: number, log: boolean): Feature[] {
  const found: Feature[] = []
  for (let k = 1; k < y.length && found.length < FEATURES_MOST; k += 1) {
    const [a, b] = [(y[k - 1] ?? NaN) - level, (y[k] ?? NaN) - level]
    if (!Number.isFinite(a) || !Number.isFinite(b)) continue
    const touches = b === 0 && a !== 0
    if (!touches && !(a * b < 0)) continue
    const share = a / (a - b)
    const [p, q] = [x[k - 1] ?? NaN, x[k] ?? NaN]
    const at = log && p > 0 && q > 0 ? p * Math.pow(q / p, share) : p + share * (q - p)
    found.push({ kind: 'crossing', index: share < 0.5 ? k - 1 : k, x: at, y: level })
  }
  return found
}

/** Beyond this turn between two long strokes a curve is not to be trusted. */
const SHARP = (50 * Math.PI) / 180
/** Strokes shorter than this are not looked at, in pixels. */
const SHORT = 14

/**
 * True where a curve, in pixels, is made of strokes so long and turns so sharp
 * that the truth between its points may be another; `wrap`: a jump of so many
 * pixels is a whole turn and no corner.
 */
export function isCoarse(points: readonly Point[], wrap = Infinity): boolean {
  let sharp = 0
  for (let k = 1; k + 1 < points.length; k += 1) {
    const [a, b, c] = [points[k - 1], points[k], points[k + 1]]
    if (!a || !b || !c) continue
    const [dx, dy, ex, ey] = [b.x - a.x, b.y - a.y, c.x - b.x, c.y - b.y]
    if (Math.abs(dy) > wrap || Math.abs(ey) > wrap) continue
    const [d, e] = [Math.hypot(dx, dy), Math.hypot(ex, ey)]
    if (!(d > SHORT) || !(e > SHORT)) continue
    const turn = Math.abs(Math.atan2(dx * ey - dy * ex, dx * ex + dy * ey))
    if (turn > SHARP) sharp += 1
  }
  return sharp > 0
}

/** How far a thinned path may run from the true one, in pixels. */
const TOLERANCE = 0.25

/**
 * A path in pixels with the points left out that nobody could tell from the
 * strokes without them: from each kept point a stroke is drawn out as long as
 * all points passed lie within a fixed distance of it (H. Imai and M. Iri,
 * 1986, as a sector that narrows from point to point). Peaks stay to within
 * that distance. Points that are not finite leave a gap.
 */
export function thinnedPath(
  re: Float64Array,
  im: Float64Array,
  toX: (re: number) => number,
  toY: (im: number) => number,
): Float64Array {
  const out = new Float64Array(2 * re.length)
  let n = 0
  const put = (x: number, y: number): void => {
    if (n + 2 > out.length) return
    out[n] = x
    out[n + 1] = y
    n += 2
  }
  // The kept point, the last point passed, and the sector that is still open, about its middle direction.
  let [ax, ay, px, py] = [NaN, NaN, NaN, NaN]
  let [middle, low, high] = [0, -Math.PI, Math.PI]
  let fresh = true
  for (let k = 0; k < re.length; k += 1) {
    const x = toX(re[k] as number)
    const y = toY(im[k] as number)
    if (x - x !== 0 || y - y !== 0) {
      if (px === px && (px !== ax || py !== ay)) put(px, py)
      if (n > 0 && out[n - 1] === out[n - 1]) put(NaN, NaN)
      ax = px = NaN
      continue
    }
    if (ax !== ax) {
      put(x, y)
      ax = px = x
      ay = py = y
      fresh = true
      continue
    }
    const [dx, dy] = [x - ax, y - ay]
    const distance = Math.sqrt(dx * dx + dy * dy)
    if (distance > 2 * TOLERANCE) {
      const direction = Math.atan2(dy, dx)
      const half = Math.asin(Math.min(1, TOLERANCE / distance))
      if (fresh) {
        middle = direction
        low = -half
        high = half
        fresh = false
      } else {
        let turn = direction - middle
        if (turn > Math.PI) turn -= 2 * Math.PI
        else if (turn < -Math.PI) turn += 2 * Math.PI
        const back = (x - px) * (px - ax) + (y - py) * (py - ay) < 0
        if (turn < low || turn > high || back) {
          put(px, py)
          ax = px
          ay = py
          fresh = true
          k -= 1
          continue
        }
        low = Math.max(low, turn - half)
        high = Math.min(high, turn + half)
      }
    }
    px = x
    py = y
  }
  if (px === px && (px !== ax || py !== ay)) put(px, py)
  return out.subarray(0, n)
}
