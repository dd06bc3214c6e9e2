import type { Corner, Point, StraightLines } from '../scene/curve'
import { quotientNumber, rootsOfWhole } from './transfer'
import type { Transfer } from './transfer'
import * as W from './whole'
import type { Whole } from './whole'

/**
 * A frequency response by straight lines, as it is drawn by hand. The magnitude goes over from one slope to the next at
 * the magnitude of each pole and zero; the angle goes over by 90° for each of them, in a straight line over ω from |p|·10^−ζ to
 * |p|·10^ζ, where ζ = |Re p|/|p|: a decade to both sides of a real one, at once where there is no damping (Franklin, Powell
 * and Emami-Naeini, ch. 6). Of a ratio of a constant top and bottom they are the response itself.
 */

/** One root, or the pair that it belongs to by halves: where it acts, and which way it turns. */
interface Bend {
  readonly at: number
  /** 1 of zeros, −1 of poles, times how often it counts. */
  readonly steps: number
  readonly damping: number
  /** 1 to the left of the axis or on it, −1 to the right. */
  readonly side: 1 | -1
}

/** Roots whose magnitudes agree to so much make one corner. */
const ONE_CORNER = 1e-9

/** Over ω from `low` to `high`; `null` of samples, whose response has no such lines, and of what outgrows a double. */
export function straightLines(g: Transfer, low: number, high: number, delay = 0): StraightLines | null {
  const [above, below] = [bendsOf(g.top, 1), bendsOf(g.bottom, -1)]
  if (g.discrete || !above || !below) return null
  const [first, under] = [firstOf(g.top), firstOf(g.bottom)]
  const gain = quotientNumber(first.c, under.c)
  const level0 = 20 * Math.log10(Math.abs(gain))
  if (!Number.isFinite(level0)) return null
  const integral = first.k - under.k
  const bends = [...above, ...below].sort((a, b) => a.at - b.at)

  const levelAt = (w: number): number =>
    bends.reduce(
      (sum, { at, steps }) => sum + (w > at ? 20 * steps * Math.log10(w / at) : 0),
      level0 + 20 * integral * Math.log10(w),
    )
  const angleAt = (w: number, after: boolean): number =>
    bends.reduce((sum, b) => sum + b.steps * b.side * (Math.PI / 2) * passed(b, w, after), start(gain, integral))

  const corners = cornersOf(bends, integral, levelAt)
  const inside = (w: number): boolean => w > low && w < high
  const level = [low, ...corners.map(({ x }) => x).filter(inside), high].map((x): Point => ({ x, y: levelAt(x) }))
  const turns = bends.flatMap(({ at, damping }) => [at / 10 ** damping, at * 10 ** damping]).filter(inside)
  const places = [low, ...new Set(turns.sort((a, b) => a - b)), high]
  const angle = places.flatMap((x): Point[] => {
    const [before, after] = [angleAt(x, false), angleAt(x, true)]
    return before === after ? [{ x, y: before }] : [{ x, y: before }, { x, y: after }] // prettier-ignore
  })
  // A delay turns by ω·T, which is no straight line over the logarithm.
  return { level, angle: delay === 0 ? angle : [], corners: corners.filter(({ x }) => inside(x)) }
}

function bendsOf(p: Whole, sign: 1 | -1): readonly Bend[] | null {
  const roots = rootsOfWhole(p)
  return (
    roots &&
    roots.flatMap(({ z, times }): Bend[] => {
      const at = Math.hypot(z.re, z.im)
      if (at === 0) return []
      return [{ at, steps: sign * times, damping: Math.min(1, Math.abs(z.re) / at), side: z.re > 0 ? -1 : 1 }]
    })
  )
}

/** The coefficient that is left near ω = 0, and of which power. */
function firstOf(p: Whole): { readonly k: number; readonly c: bigint } {
  const k = p.findIndex((c) => c !== 0n)
  return { k, c: W.coefficient(p, k) }
}

const start = (gain: number, integral: number): number => (gain < 0 ? Math.PI : 0) + (integral * Math.PI) / 2

/** Which share of its turn a root has made. */
function passed({ at, damping }: Bend, w: number, after: boolean): number {
  const t = Math.log10(w / at)
  if (damping === 0) return t > 0 || (after && t === 0) ? 1 : 0
  // The ends as they were reckoned, so that no rounding is left of them.
  if (w <= at / 10 ** damping) return 0
  if (w >= at * 10 ** damping) return 1
  return (t / damping + 1) / 2
}

function cornersOf(bends: readonly Bend[], integral: number, levelAt: (w: number) => number): readonly Corner[] {
  const found: { x: number; steps: number }[] = []
  for (const { at, steps } of bends) {
    const last = found.at(-1)
    if (last && at - last.x <= ONE_CORNER * at) last.steps += steps
    else found.push({ x: at, steps })
  }
  let slope = 20 * integral
  return found.flatMap(({ x, steps }): Corner[] => {
    slope += 20 * steps
    // A zero as far from the origin as a pole takes its corner away.
    return steps === 0 ? [] : [{ x, level: levelAt(x), bend: 20 * steps, slope }]
  })
}
