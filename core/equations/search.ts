import { work } from '../numbers/work'
import { evaluated, follow } from './newton'
import type { Reached, RealSystem } from './newton'

/** Looking for all solutions of a system that is no polynomial: many starts, each followed by Newton's method. */

export interface Where {
  /** Where to begin, of each variable; `null` where nothing is said. */
  readonly near: readonly (number | null)[]
  /** Between which values each variable is; `null` where nothing is said. */
  readonly between: readonly (readonly [number, number] | null)[]
}

/** What is left over of a root, as a share of its terms. */
const ACCEPTED = 1e-9
/** Two roots are the same where they differ by less than this share of their size. */
const SAME = 1e-7

/** The solutions that were found, each once. */
export function search(system: RealSystem, where: Where): readonly Reached[] {
  const found = new Roots(system, where)
  // Where every variable is 0, what is left over may be no share of anything: it is 0 or not.
  const origin = new Float64Array(system.count)
  if (evaluated(system, origin, null).rest.every((r) => r === 0)) found.take({ x: origin, residual: 0 })
  const given = where.near.every((value) => value !== null)
  if (given) {
    const start = Float64Array.from(where.near, (value) => value ?? 0)
    found.from(
      start,
      Float64Array.from(start, (value) => Math.abs(value) || 1),
    )
    if (found.list.length > 0) return found.list
  }
  return system.count === 1 ? alongLine(system, where, found) : fromManyStarts(system, where, found)
}

/** The roots that have been found, each once. */
class Roots {
  readonly list: Reached[] = []

  constructor(
    private readonly system: RealSystem,
    private readonly where: Where,
  ) {}

  /** Follows a start; true where it leads to a root that was not known. */
  from(start: Float64Array, typical: Float64Array): boolean {
    work(50_000)
    const reached = follow(this.system, start, typical)
    return this.take(reached)
  }

  take(reached: Reached): boolean {
    if (!(reached.residual <= ACCEPTED) || !reached.x.every(Number.isFinite)) return false
    if (!this.inBounds(reached.x) || !isLocated(this.system, reached.x)) return false
    const size = Math.max(...reached.x.map(Math.abs))
    const known = this.list.findIndex(({ x }) => x.every((value, k) => Math.abs(value - (reached.x[k] ?? NaN)) <= SAME * Math.max(Math.abs(value), size * 1e-6))) // prettier-ignore
    if (known < 0) {
      this.list.push(reached)
      return true
    }
    if (reached.residual < (this.list[known]?.residual ?? 0)) this.list[known] = reached
    return false
  }

  private inBounds(x: Float64Array): boolean {
    return this.where.between.every((bounds, k) => {
      if (!bounds) return true
      const [low, high] = bounds
      const slack = 1e-9 * Math.max(Math.abs(low), Math.abs(high))
      const value = x[k] as number
      return value >= low - slack && value <= high + slack
    })
  }
}

/**
 * True where the equations tell the point from its neighbours, by each variable: not so where they only come ever
 * nearer to what they should be, as tanh x = 1 does for large x.
 */
function isLocated(system: RealSystem, x: Float64Array): boolean {
  const here = evaluated(system, x, null)
  const size = Math.max(...x.map(Math.abs))
  return x.every((value, k) => {
    // A part that is nothing beside the others is moved by their measure.
    const scale = Math.abs(value) > 1e-9 * size ? Math.abs(value) : size || 1
    for (const share of [1e-3, 1e-2, 0.1]) {
      const moved = Float64Array.from(x)
      moved[k] = value + share * scale
      const there = evaluated(system, moved, null)
      for (let r = 0; r < there.rest.length; r += 1) {
        const change = Math.abs((there.rest[r] as number) - (here.rest[r] as number))
        const noise = 64 * Number.EPSILON * Math.max(here.size[r] as number, there.size[r] as number)
        if (change > noise && change > LEAST) return true
      }
    }
    return false
  })
}

/** What changes by less has left the range of numbers: nothing can be told from it. */
const LEAST = 1e-250

/** Decades that are looked through on either side of 0, and points in each. */
const DECADES = 15
const PER_DECADE = 12
/** Points between two bounds, and most evaluations in all. */
const BETWEEN = 1_000
const EVALUATIONS_MOST = 30_000
const HALVINGS = 12

/** The value and its slope at a point of one variable. */
interface Point {
  readonly x: number
  readonly y: number
  readonly slope: number
}

/**
 * One variable: the function is followed along a grid that is made finer where its values do not go on as their slopes
 * say; between two of them it changes its sign, or comes near 0 and leaves again, or has no root.
 */
function alongLine(system: RealSystem, where: Where, found: Roots): readonly Reached[] {
  const bounds = where.between[0] ?? null
  const grid = bounds ? evenly(bounds) : byDecades()
  let evaluations = 0
  const parts = new Set<'re' | 'im'>(['re'])
  const at = (x: number, part: 're' | 'im'): Point => {
    evaluations += 1
    work(4_000)
    const dual = system.equations[0]?.(Float64Array.of(x))
    if (dual && dual.im !== 0) parts.add('im')
    if (!dual) return { x, y: NaN, slope: NaN }
    return part === 're'
      ? { x, y: dual.re, slope: dual.dRe[0] as number }
      : { x, y: dual.im, slope: dual.dIm[0] as number }
  }
  const begin = (x: number): void => {
    found.from(Float64Array.of(x), Float64Array.of(Math.abs(x) || 1))
  }
  const between = (a: Point, b: Point, part: 're' | 'im', depth: number): void => {
    if (!Number.isFinite(a.y) || !Number.isFinite(b.y)) {
      if (Number.isFinite(a.y) !== Number.isFinite(b.y) && depth < HALVINGS) halve(a, b, part, depth)
      return
    }
    if (a.y === 0) begin(a.x)
    if (b.y === 0) begin(b.x)
    const h = b.x - a.x
    const middle = at((a.x + b.x) / 2, part)
    const expected = (a.y + b.y) / 2 + (h / 8) * (a.slope - b.slope)
    const size = Math.max(Math.abs(a.y), Math.abs(b.y), Math.abs(middle.y))
    const smooth = Math.abs(expected - middle.y) <= 0.05 * size
    const crosses = a.y * b.y < 0 || a.y * middle.y < 0
    const dips = a.y * a.slope * h < 0 && b.y * b.slope * h > 0
    if (!smooth && depth < HALVINGS && evaluations < EVALUATIONS_MOST) {
      between(a, middle, part, depth + 1)
      between(middle, b, part, depth + 1)
      return
    }
    if (crosses) begin(rootBetween(a, b, middle, part))
    if (a.y * middle.y < 0 && middle.y * b.y < 0) begin(rootBetween(middle, b, middle, part))
    if (!crosses && dips) begin(nearest(a, b, part))
  }
  const halve = (a: Point, b: Point, part: 're' | 'im', depth: number): void => {
    const middle = at((a.x + b.x) / 2, part)
    between(a, middle, part, depth + 1)
    between(middle, b, part, depth + 1)
  }
  /** By bisection, as far as a start for Newton's method needs it. */
  const rootBetween = (a: Point, b: Point, middle: Point, part: 're' | 'im'): number => {
    let [low, high] = a.y * middle.y < 0 ? [a, middle] : [middle, b]
    for (let k = 0; k < 40; k += 1) {
      const half = at((low.x + high.x) / 2, part)
      if (low.y * half.y <= 0) high = half
      else low = half
    }
    return (low.x + high.x) / 2
  }
  /** Where the value is nearest to 0, between two slopes of different sign. */
  const nearest = (a: Point, b: Point, part: 're' | 'im'): number => {
    let [low, high] = [a, b]
    for (let k = 0; k < 40; k += 1) {
      const half = at((low.x + high.x) / 2, part)
      if (half.y * a.y < 0) return rootBetween(low, high, half, part)
      if (half.slope * low.slope <= 0) high = half
      else low = half
    }
    return (low.x + high.x) / 2
  }
  const scan = (part: 're' | 'im'): void => {
    let before: Point | null = null
    for (const x of grid) {
      const here = at(x, part)
      if (before) between(before, here, part, 0)
      before = here
    }
  }
  scan('re')
  // Where the real part is 0 everywhere the imaginary part decides.
  if (found.list.length === 0 && parts.has('im')) scan('im')
  return found.list
}

function evenly([low, high]: readonly [number, number]): readonly number[] {
  const even = Array.from({ length: BETWEEN + 1 }, (_, k) => low + ((high - low) * k) / BETWEEN)
  // Where the bounds are decades apart, each has its share.
  if (low > 0 && high / low > 1e3) {
    const steps = Math.ceil(PER_DECADE * Math.log10(high / low))
    const decades = Array.from({ length: steps + 1 }, (_, k) => low * (high / low) ** (k / steps))
    return [...even, ...decades].sort((a, b) => a - b)
  }
  if (low === 0) {
    const decades = Array.from({ length: 8 * PER_DECADE }, (_, k) => high * 10 ** (-k / PER_DECADE))
    return [...even, ...decades].sort((a, b) => a - b)
  }
  return even
}

function byDecades(): readonly number[] {
  const positive = Array.from({ length: 2 * DECADES * PER_DECADE + 1 }, (_, k) => 10 ** (k / PER_DECADE - DECADES))
  return [...positive.map((x) => -x).reverse(), 0, ...positive]
}

/** Starts of several variables, and how many in a row may lead nowhere new. */
const STARTS = 400
const IN_VAIN = 120

function fromManyStarts(system: RealSystem, where: Where, found: Roots): readonly Reached[] {
  const { count: n } = system
  const random = sequence()
  let vain = 0
  for (let k = 0; k < STARTS && vain < IN_VAIN; k += 1) {
    const spread = 1 + (k % 4) * 2
    const start = new Float64Array(n)
    const typical = new Float64Array(n)
    for (let j = 0; j < n; j += 1) {
      const near = where.near[j] ?? null
      const bounds = where.between[j] ?? null
      const u = random()
      if (near !== null) start[j] = near * (1 + (k === 0 ? 0 : (u - 0.5) * 0.2))
      else if (bounds) start[j] = bounds[0] + (bounds[1] - bounds[0]) * u
      else if (k === 0) start[j] = 1
      else start[j] = (random() < 0.7 ? 1 : -1) * 10 ** ((u - 0.5) * 2 * spread)
      typical[j] = Math.abs(start[j] as number) || (bounds ? bounds[1] - bounds[0] : 1)
    }
    vain = found.from(start, typical) ? 0 : vain + 1
  }
  return found.list
}

/** The same numbers between 0 and 1 each time: what was found is found again (D. H. Lehmer's generator, 1951). */
function sequence(): () => number {
  let state = 20_261
  return () => {
    state = (state * 48_271) % 2_147_483_647
    return state / 2_147_483_647
  }
}
