import type { Complex } from '../numbers/complex'
import * as C from '../numbers/complex'
import { toDyadic } from '../numbers/dyadic'
import { bitLength } from '../numbers/rational'
import { halves } from './frequency'
import { polesOf, roughRoots } from './poles'
import { rootsOfWhole } from './transfer'
import { realRoots } from './realRoots'
import type { Transfer } from './transfer'
import * as W from './whole'
import type { Whole } from './whole'
import * as Z from './wide'

/**
 * The root locus of 1 + k·L = 0 for real k (W. R. Evans, 1948; G. F. Franklin, J. D. Powell and A. Emami-Naeini,
 * "Feedback Control of Dynamic Systems", chapter 5): its branches, and what is known of them without drawing.
 */
export interface LocusRules {
  readonly poles: readonly Complex[]
  readonly zeros: readonly Complex[]
  readonly asymptotes: { readonly centroid: number; readonly angles: readonly number[] } | null
  /** Where branches meet: double roots, with their k. */
  readonly breakaways: readonly Meeting[]
  /** Where branches cross the imaginary axis, with their k. */
  readonly crossings: readonly { readonly at: Complex; readonly k: number }[]
  /** The angles at which branches leave complex poles, and arrive at complex zeros. */
  readonly departures: readonly { readonly at: Complex; readonly angle: number; readonly arrives: boolean }[]
}

export type LocusSide = 'positive' | 'negative'

/** A polynomial D + k·N over whole numbers, for the double k. */
function closedBy({ top, bottom }: Transfer, k: number): Whole {
  const q = toDyadic(k)
  return q ? W.add(W.times(bottom, BigInt(q.d)), W.times(top, BigInt(q.n))) : bottom
}

/** Roots listed as often as they count, the order being that of the polynomial. */
function rootList(p: Whole): readonly Complex[] | null {
  const found = p.length > 1 ? rootsOfWhole(p) : []
  return found && found.flatMap(({ z, times }) => Array.from({ length: times }, () => z))
}

/** The same as good as doubles make them. */
function quickRoots(p: Whole): readonly Complex[] | null {
  const atZero = p.findIndex((c) => c !== 0n)
  if (atZero < 0) return null
  const found = p.length - atZero > 1 ? roughRoots(p.slice(atZero)) : []
  return found && [...Array.from({ length: atZero }, () => ({ re: 0, im: 0 })), ...found]
}

/** The k at which a point lies on the locus: −D/N there; its imaginary part is how far it is off. */
export function gainAt({ top, bottom }: Transfer, s: Complex): Complex {
  const n = valueAt(top, s)
  const d = valueAt(bottom, s)
  return C.divide({ re: -d.re, im: -d.im }, n)
}

function valueAt(p: Whole, s: Complex): Complex {
  let value: Complex = { re: 0, im: 0 }
  for (let k = p.length - 1; k >= 0; k -= 1) {
    const product = C.multiply(value, s)
    value = { re: product.re + Number(W.coefficient(p, k)), im: product.im }
  }
  return value
}

export function locusRules(l: Transfer, side: LocusSide = 'positive'): LocusRules | null {
  const [poles, zeros] = [rootList(l.bottom), l.top.length > 1 ? rootList(l.top) : []]
  if (!poles || !zeros) return null
  const sign = side === 'positive' ? 1 : -1
  const lead = W.leading(l.top) * W.leading(l.bottom) < 0n ? -1 : 1
  // Of k·N/D with leading coefficients of opposite signs the rules for negative k hold.
  const odd = sign * lead > 0
  const excess = poles.length - zeros.length
  const re = (list: readonly Complex[]): number => list.reduce((sum, z) => sum + z.re, 0)
  return {
    poles,
    zeros,
    asymptotes:
      excess > 0
        ? {
            centroid: (re(poles) - re(zeros)) / excess,
            angles: Array.from({ length: excess }, (_, i) => normal(((2 * i + (odd ? 1 : 0)) * Math.PI) / excess)).sort((a, b) => a - b), // prettier-ignore
          }
        : null,
    breakaways: breakaways(l).filter(({ k }) => k * sign > 0),
    crossings: crossings(l).filter(({ k }) => k * sign > 0),
    departures: [...angles(poles, zeros, odd, false), ...angles(zeros, poles, odd, true)],
  }
}

function normal(angle: number): number {
  const turned = Math.atan2(Math.sin(angle), Math.cos(angle))
  return Math.abs(turned + Math.PI) < 1e-12 ? Math.PI : turned
}

/** Where branches meet: the point, its k, and how many come together there. */
export interface Meeting {
  readonly at: Complex
  readonly k: number
  readonly times: number
}

/** Roots of N·D′ − N′·D at which k is real; a multiple root of D or N itself is the beginning or the end of branches. */
function breakaways(l: Transfer): readonly Meeting[] {
  const found = meetings.get(l) ?? meetingsOf(l)
  meetings.set(l, found)
  return found
}

/** Both signs of the gain, and its rules, ask for them. */
const meetings = new WeakMap<Transfer, readonly Meeting[]>()

function meetingsOf(l: Transfer): readonly Meeting[] {
  const p = W.subtract(W.multiply(l.top, W.derivative(l.bottom)), W.multiply(W.derivative(l.top), l.bottom))
  const roots = p.length > 1 ? (polesOf(W.primitive(p)) ?? []) : []
  return roots.flatMap(({ z, wide, times }) => {
    const [n, d] = [Z.valueAt(l.top, wide), Z.valueAt(l.bottom, wide)]
    if (isNothing(n, l.top, wide) || isNothing(d, l.bottom, wide)) return []
    const k = Z.negate(Z.divide(d, n))
    const real = Z.sizeOf({ re: k.im, im: 0n, exp: k.exp }) < Z.sizeOf(k) - FAR_BITS
    return real ? [{ at: z, k: Z.toComplex(k).re, times: times + 1 }] : []
  })
}

/** What is so many bits smaller than what it was summed up from is 0. */
const FAR_BITS = 120

function isNothing(value: Z.Wide, p: Whole, at: Z.Wide): boolean {
  const size = Z.sizeOf(at)
  const most = Math.max(...p.map((c, k) => Z.sizeOf(Z.fromWhole(c)) + (k === 0 ? 0 : k * size)))
  return Z.sizeOf(value) < most - FAR_BITS
}

/** Where L is real on the imaginary axis: of samples on the unit circle, which is the caller's to move. */
function crossings(l: Transfer): { readonly at: Complex; readonly k: number }[] {
  const [a, b] = halves(l.top)
  const [c, d] = halves(l.bottom)
  const odd = W.subtract(W.multiply(b, c), W.multiply(a, d))
  const found: { at: Complex; k: number }[] = []
  const take = (w: number): void => {
    const k = gainAt(l, { re: 0, im: w })
    if (Number.isFinite(k.re) && k.re !== 0 && Math.abs(k.im) <= 1e-6 * Math.abs(k.re)) found.push({ at: { re: 0, im: w }, k: k.re }) // prettier-ignore
  }
  take(0)
  if (odd.length > 0) for (const { x } of realRoots(odd).filter(({ x: at }) => at > 0)) [Math.sqrt(x), -Math.sqrt(x)].forEach(take) // prettier-ignore
  return found
}

/** By the angle rule: those of the vectors from all other poles and zeros add up to 180°, or to 0. */
function angles(
  own: readonly Complex[],
  others: readonly Complex[],
  odd: boolean,
  arrives: boolean,
): LocusRules['departures'] {
  const done: Complex[] = []
  const found: { at: Complex; angle: number; arrives: boolean }[] = []
  for (const at of own) {
    if (at.im === 0 || done.some((z) => z.re === at.re && z.im === at.im)) continue
    done.push(at)
    const times = own.filter((z) => z.re === at.re && z.im === at.im).length
    const turn = (list: readonly Complex[]): number =>
      list.reduce(
        (sum, z) => (z.re === at.re && z.im === at.im ? sum : sum + Math.atan2(at.im - z.im, at.re - z.re)),
        0,
      )
    const rest = turn(others) - turn(own)
    for (let i = 0; i < times; i += 1)
      found.push({ at, angle: normal((rest + (odd ? Math.PI : 0) + 2 * Math.PI * i) / times), arrives })
  }
  return found
}

/** The roots at a k, that of each branch at its place. */
interface Place {
  readonly k: number
  readonly roots: readonly Complex[]
}

/** So near to a meeting, as a share of its k, the roots that meet are still told apart well. */
const BESIDE = 1e-6

/**
 * The branches at rising k, each continued from the point before it. Between two meetings the roots are simple and go on
 * smoothly: a step is halved until each root lies far nearer to its continuation than any other does. What meets leaves
 * turned by half a turn over the number of branches, to the right of the way it came, all alike.
 */
export class Branches {
  private readonly places: Place[]
  private readonly meetings: readonly Meeting[]
  /** The step that was taken last, as a share of k: the next one begins with twice as much. */
  private stride = 0.05

  private readonly numbers: { readonly top: readonly number[]; readonly bottom: readonly number[] }

  /** On the way roots need not be known better than doubles make them. */
  constructor(
    private readonly l: Transfer,
    private readonly sign: 1 | -1 = 1,
    private readonly precise = true,
  ) {
    this.meetings = breakaways(l)
      .map((meeting) => ({ ...meeting, k: meeting.k * sign }))
      .filter(({ k }) => k > 0)
      .sort((a, b) => a.k - b.k)
    this.places = [{ k: 0, roots: rootList(l.bottom) ?? [] }]
    const shift = Math.max(0, ...[...l.top, ...l.bottom].map((c) => bitLength(c < 0n ? -c : c) - 500))
    const doubles = (p: Whole): readonly number[] => p.map((c) => Number(c >> BigInt(shift)))
    this.numbers = { top: doubles(l.top), bottom: doubles(l.bottom) }
  }

  /** The root of each branch at k, of the sign of this side; `null` where roots could not be worked out. */
  at(k: number): readonly Complex[] | null {
    const wanted = k * this.sign
    if (!(wanted >= 0) || !Number.isFinite(wanted)) return null
    let index = this.places.findLastIndex((place) => place.k <= wanted)
    for (let count = 0; count < STEPS_MOST; count += 1) {
      const from = this.places[index]
      if (!from) return null
      if (from.k === wanted) return this.exactly(from, k)
      const next = this.next(from, wanted)
      if (!next) return null
      index += 1
      this.places.splice(index, 0, next)
    }
    return null
  }

  /** The roots at a k, from those nearby. */
  private rootsAt(k: number, near: readonly Complex[]): readonly Complex[] | null {
    const { top, bottom } = this.numbers
    const p = bottom.map((c, i) => c + k * this.sign * (top[i] ?? 0))
    return followed(p, near) ?? quickRoots(closedBy(this.l, k * this.sign))
  }

  private exactly({ roots }: Place, k: number): readonly Complex[] {
    if (!this.precise) return roots
    const p = closedBy(this.l, k)
    const near = roots.map((z) => polished(p, z))
    if (near.every((z) => z !== null)) return near
    // Roots that all but meet are worked out with as many digits as it takes.
    const exact = rootList(p)
    return exact?.length === roots.length ? paired(roots, exact).order : roots
  }

  private next(from: Place, wanted: number): Place | null {
    if (from.k === 0) return this.first(wanted)
    const ahead = this.meetings.find(({ k }) => k * (1 + BESIDE) > from.k)
    if (ahead && from.k >= ahead.k * (1 - 2 * BESIDE)) return this.across(from, ahead.k, wanted)
    const limit = ahead ? Math.min(wanted, ahead.k * (1 - BESIDE)) : wanted
    for (let stride = Math.min(4, 2 * this.stride); stride > 1e-12; stride /= 2) {
      const to = Math.min(limit, from.k * (1 + stride))
      const roots = this.rootsAt(to, from.roots)
      if (!roots || roots.length !== from.roots.length) return null
      const found = paired(from.roots, roots)
      if (!found.sure) continue
      this.stride = stride
      return { k: to, roots: found.order }
    }
    // Roots that nearly meet, at a k that is not quite real, are told apart by nothing else.
    const to = Math.min(limit, from.k * (1 + 1e-9))
    const roots = this.rootsAt(to, from.roots)
    return roots && { k: to, roots: paired(from.roots, roots).order }
  }

  /** The first step leaves the poles so little that none comes near another; of a multiple one they spread out. */
  private first(wanted: number): Place | null {
    const [begin] = this.places
    if (!begin) return null
    const { roots: poles } = begin
    for (let k = Math.min(wanted, this.meetings[0]?.k ?? wanted) * 0.1; k > 1e-300; k /= 100) {
      const roots = quickRoots(closedBy(this.l, k * this.sign))
      if (!roots || roots.length !== poles.length) return null
      const { order } = paired(poles, roots)
      const calm = poles.every((z, i) => {
        const moved = size(C.subtract(order[i] ?? z, z))
        return poles.every((w) => size(C.subtract(w, z)) === 0 || size(C.subtract(w, z)) > 4 * moved)
      })
      if (calm) return { k, roots: order }
    }
    return null
  }

  /** Past all meetings at one k. */
  private across(from: Place, k: number, wanted: number): Place | null {
    const to = Math.min(wanted, k * (1 + BESIDE))
    const roots = quickRoots(closedBy(this.l, to * this.sign))
    if (!roots || roots.length !== from.roots.length) return null
    if (to <= k) return { k: to, roots: paired(from.roots, roots).order }
    const here = this.meetings.filter((m) => Math.abs(m.k - k) <= 2 * BESIDE * k)
    const expected = [...from.roots]
    // Beyond it what meets is as far away as before, turned.
    const shrink = Math.sqrt((to - k) / (k * BESIDE))
    for (const { at, times } of here) {
      const nearestOnes = from.roots.map((_, i) => i).sort((a, b) => size(C.subtract(from.roots[a] ?? at, at)) - size(C.subtract(from.roots[b] ?? at, at))) // prettier-ignore
      const turn = { re: Math.cos(Math.PI / times), im: -Math.sin(Math.PI / times) }
      for (const i of nearestOnes.slice(0, times)) {
        const away = C.multiply(C.subtract(from.roots[i] ?? at, at), turn)
        expected[i] = C.add(at, { re: away.re * shrink, im: away.im * shrink })
      }
    }
    return { k: to, roots: paired(expected, roots).order }
  }
}

const STEPS_MOST = 5000

const ROUNDS_MOST = 16

/** All roots at once from those of a polynomial nearby (O. Aberth, 1973); `null` where they are not soon there. */
function followed(p: readonly number[], start: readonly Complex[]): readonly Complex[] | null {
  const n = start.length
  const re = Float64Array.from(start, (z) => z.re)
  // A little off the axis: from it a pair would never be told apart.
  const im = Float64Array.from(start, (z, k) => (z.im === 0 ? (k + 1) * 1e-9 * Math.abs(z.re) : z.im))
  for (let round = 0; round < ROUNDS_MOST; round += 1) {
    let longest = 0
    for (let k = 0; k < n; k += 1) {
      const [x, y] = [re[k] ?? 0, im[k] ?? 0]
      let [vr, vi, sr, si] = [0, 0, 0, 0]
      for (let i = p.length - 1; i >= 0; i -= 1) {
        ;[sr, si] = [sr * x - si * y + vr, sr * y + si * x + vi]
        ;[vr, vi] = [vr * x - vi * y + (p[i] ?? 0), vr * y + vi * x]
      }
      // p′/p less the pull of the others is one over the step.
      const size = vr * vr + vi * vi
      if (size === 0) continue
      let [dr, di] = [(sr * vr + si * vi) / size, (si * vr - sr * vi) / size]
      for (let j = 0; j < n; j += 1) {
        if (j === k) continue
        const [a, b] = [x - (re[j] ?? 0), y - (im[j] ?? 0)]
        const away = a * a + b * b
        if (away === 0) return null
        dr -= a / away
        di += b / away
      }
      const down = dr * dr + di * di
      if (!(down > 0)) return null
      re[k] = x - dr / down
      im[k] = y + di / down
      longest = Math.max(longest, 1 / (Math.sqrt(down) * Math.hypot(re[k] ?? 0, im[k] ?? 0)))
    }
    if (!Number.isFinite(longest)) return null
    if (longest < 1e-13) return Array.from(re, (x, k) => ({ re: x, im: Math.abs(im[k] ?? 0) < 1e-12 * Math.abs(x) ? 0 : (im[k] ?? 0) })) // prettier-ignore
  }
  return null
}

/** A simple root to the last place, by Newton's rule with many digits; `null` where that is not soon there. */
function polished(p: Whole, start: Complex): Complex | null {
  const slope = W.derivative(p)
  let z = Z.fromComplex(start)
  const least = Z.sizeOf(z) - 70
  for (let k = 0; k < 5; k += 1) {
    const below = Z.valueAt(slope, z)
    if (Z.isZero(below)) return null
    const step = Z.divide(Z.valueAt(p, z), below)
    z = Z.subtract(z, step)
    if (Z.sizeOf(step) > Z.sizeOf(z) - 20) return null
    if (Z.sizeOf(step) < least) return onAxis(Z.toComplex(z))
  }
  return null
}

/** What is no more than rounding beside the real part is none. */
const onAxis = (z: Complex): Complex => (Math.abs(z.im) < 1e-25 * Math.abs(z.re) ? { re: z.re, im: 0 } : z)

const size = (z: Complex): number => Math.hypot(z.re, z.im)

/** Each root beside the one that it continues, and whether that leaves no doubt. */
function paired(
  before: readonly Complex[],
  after: readonly Complex[],
): { readonly order: readonly Complex[]; readonly sure: boolean } {
  // prettier-ignore
  const open = [...after]
  const order: Complex[] = []
  let sure = true
  // Those that are nearest to a root come first.
  const places = before.map((_, k) => k).sort((a, b) => nearest(before[a], after) - nearest(before[b], after))
  for (const place of places) {
    const z = before[place] ?? { re: 0, im: 0 }
    const best = open.reduce((a, b) => (size(C.subtract(b, z)) < size(C.subtract(a, z)) ? b : a), open[0] ?? z)
    const distance = size(C.subtract(best, z))
    const rival = after.reduce((least, w) => (w === best ? least : Math.min(least, size(C.subtract(w, z)))), Infinity)
    if (distance * 3 > rival) sure = false
    const at = open.indexOf(best)
    if (at >= 0) open.splice(at, 1)
    order[place] = best
  }
  return { order, sure }
}

const nearest = (z: Complex | undefined, list: readonly Complex[]): number =>
  z ? list.reduce((least, w) => Math.min(least, size(C.subtract(w, z))), Infinity) : Infinity
