import { unknownsOf } from '../algebra/ratio'
import type { CurveMark, LoopCount, SweepData } from '../scene/curve'
import type { Drawn } from '../scene/drawn'
import type { DelayedValue, PolynomialValue } from '../values/types'
import { marginsOf } from './margins'
import type { Margins } from './margins'
import { straightLines } from './straightLines'
import { rootsOfWhole, transferOf } from './transfer'
import type { Transfer } from './transfer'
import { bitLength } from '../numbers/rational'
import type { Whole } from './whole'

/** A transfer function along the imaginary axis, as plates draw it: over a range that its poles and zeros choose. */

/** On a plane it is a locus, which is put there by hand. */
export const ALONG_AXIS: Drawn = { role: 'arrow', usual: false, entries: [], locus: true }

/** A ratio in one unknown, with or without a delay. */
export function isTransfer(value: PolynomialValue | DelayedValue): boolean {
  if (value.kind === 'delayed') return value.ratio.kind === 'number' || unknownsOf(value.ratio).length === 1
  return value.bottom !== null && unknownsOf(value).length === 1
}

const PER_DECADE = 80
/** About a lightly damped pair points stand closer. */
const PEAK_POINTS = 24
const POINTS_MOST = 4000

const known = new WeakMap<Transfer, Map<number, SweepData>>()

export function frequencyCurve(value: PolynomialValue | DelayedValue): SweepData | null {
  const [ratio, delay] = value.kind === 'delayed' ? [value.ratio, value.delay.re] : [value, 0]
  const g = transferOf('margins', ratio)
  if ('kind' in g || g.top.length === 0 || !isTransfer(value)) return null
  const before = known.get(g) ?? new Map<number, SweepData>()
  known.set(g, before)
  const found = before.get(delay) ?? drawn(g, delay)
  before.set(delay, found)
  return found
}

function drawn(g: Transfer, delay: number): SweepData {
  const per = g.discrete ? (g.period?.value.re ?? 1) : 1
  const margins = marginsOf(g, delay)
  const x = frequencies(g, per, margins)
  const at = onCircle(g, per)
  const re = new Float64Array(x.length)
  const im = new Float64Array(x.length)
  x.forEach((w, k) => {
    const z = at(w)
    const [c, s] = [Math.cos(w * delay), Math.sin(w * delay)]
    re[k] = z.re * c + z.im * s
    im[k] = z.im * c - z.re * s
  })
  const unit = g.period?.measured ? { xUnit: 'rad/s' } : {}
  const loop = loopCount(margins)
  const straight = straightLines(g, x[0] ?? 0, x.at(-1) ?? 0, delay)
  return { ...unit, along: null, axis: 'ω', x, turns: false, decades: true, of: 'number', re, im, marks: marksOf(margins, per), ...(loop ? { loop } : {}), ...(straight ? { straight } : {}) } // prettier-ignore
}

/** From well below the slowest to well above the fastest pole, zero or crossover; of samples up to π/T. */
function frequencies(g: Transfer, per: number, { crossovers }: Margins): Float64Array {
  const roots = [...(rootsOfWhole(g.bottom) ?? []), ...(rootsOfWhole(g.top) ?? [])].map(({ z }) => z)
  // Of samples where ln z lies.
  const rates = roots.map((z) => (g.discrete ? { re: Math.log(Math.hypot(z.re, z.im)) / per, im: Math.atan2(z.im, z.re) / per } : z)) // prettier-ignore
  const speeds = [...rates.map((z) => Math.hypot(z.re, z.im)), ...crossovers.map(({ at }) => at / per)].filter((w) => w > 0 && Number.isFinite(w)) // prettier-ignore
  const end = g.discrete ? Math.PI / per : Infinity
  const [least, most] = speeds.length > 0 ? [Math.min(...speeds), Math.max(...speeds)] : [1, 1]
  const low = 10 ** Math.floor(Math.log10(Math.min(least, end) / 12))
  const high = Math.min(end, 10 ** Math.ceil(Math.log10(most * 12)))
  const count = Math.min(POINTS_MOST, Math.ceil(Math.log10(high / low) * PER_DECADE) + 1)
  const even = Array.from({ length: count }, (_, k) => low * (high / low) ** (k / (count - 1)))
  const peaks = rates.flatMap((z) => {
    const size = Math.hypot(z.re, z.im)
    const damping = Math.abs(z.re) / size
    if (z.im <= 0 || damping > 0.2 || !(size > 0)) return []
    const width = Math.max(damping, 1e-6)
    return Array.from({ length: PEAK_POINTS }, (_, k) => size * (1 + width * Math.sinh((k - PEAK_POINTS / 2) / 4)))
  })
  const all = [...even, ...peaks.filter((w) => w > low && w < high)].sort((a, b) => a - b)
  return Float64Array.from(all.filter((w, k) => k === 0 || w > (all[k - 1] ?? 0)))
}

/** The ratio at jω, or at e^(jωT), in doubles: for pictures. */
function onCircle(g: Transfer, per: number): (w: number) => { readonly re: number; readonly im: number } {
  const [top, bottom] = doubles(g)
  const at = (p: readonly number[], zr: number, zi: number): readonly [number, number] => {
    let [re, im] = [0, 0]
    for (let k = p.length - 1; k >= 0; k -= 1) [re, im] = [re * zr - im * zi + (p[k] ?? 0), re * zi + im * zr]
    return [re, im]
  }
  return (w) => {
    const [zr, zi] = g.discrete ? [Math.cos(w * per), Math.sin(w * per)] : [0, w]
    const [a, b] = at(top, zr, zi)
    const [c, d] = at(bottom, zr, zi)
    const size = c * c + d * d
    return { re: (a * c + b * d) / size, im: (b * c - a * d) / size }
  }
}

function doubles({ top, bottom }: Transfer): readonly [readonly number[], readonly number[]] {
  const most = Math.max(...[...top, ...bottom].map((c) => bitLength(c < 0n ? -c : c)))
  const shift = BigInt(Math.max(0, most - 400))
  const side = (p: Whole): readonly number[] => p.map((c) => Number(c >> shift))
  return [side(top), side(bottom)]
}

function marksOf({ phase, gain }: Margins, per: number): readonly CurveMark[] {
  const found: CurveMark[] = []
  if (phase) found.push({ what: 'phase-margin', x: phase.at / per, value: phase.value })
  if (gain && gain.at > 0 && Number.isFinite(gain.at)) found.push({ what: 'gain-margin', x: gain.at / per, value: gain.value }) // prettier-ignore
  return found
}

function loopCount({ closedLoop, openRight }: Margins): LoopCount | null {
  if (!closedLoop || openRight === null) return null
  return { closed: closedLoop.right, open: openRight, encirclements: closedLoop.right - openRight }
}
