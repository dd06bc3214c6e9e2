import type { Complex } from '../numbers/complex'
import * as C from '../numbers/complex'
import { toDyadic } from '../numbers/dyadic'
import { halves } from './frequency'
import { polesOf, roughRoots } from './poles'
import { realRoots } from './realRoots'
import type { Transfer } from './transfer'
import * as W from './whole'
import type { Whole } from './whole'

/**
 * The root locus of 1 + k·L = 0 for real k (W. R. Evans, 1948; G. F. Franklin, J. D. Powell and A. Emami-Naeini,
 * "Feedback Control of Dynamic Systems", chapter 5): its branches, and what is known of them without drawing.
 */
export interface LocusRules {
  readonly poles: readonly Complex[]
  readonly zeros: readonly Complex[]
  readonly asymptotes: { readonly centroid: number; readonly angles: readonly number[] } | null
  /** Where branches meet: double roots, with their k. */
  readonly breakaways: readonly { readonly at: Complex; readonly k: number }[]
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
  const found = p.length > 1 ? polesOf(W.primitive(p)) : []
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

/** Roots of N·D′ − N′·D at which k is real. */
function breakaways(l: Transfer): { readonly at: Complex; readonly k: number }[] {
  const p = W.subtract(W.multiply(l.top, W.derivative(l.bottom)), W.multiply(W.derivative(l.top), l.bottom))
  const roots = p.length > 1 ? (polesOf(p) ?? []) : []
  return roots.flatMap(({ z }) => {
    const k = gainAt(l, z)
    const real = Math.abs(k.im) <= 1e-9 * Math.abs(k.re)
    return Number.isFinite(k.re) && real && k.re !== 0 ? [{ at: z, k: k.re }] : []
  })
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

/**
 * The branches at rising k, each continued from the point before it. Between two breakaways the roots are simple and go
 * on smoothly; steps are halved until the nearest continuation leaves no doubt, and at a breakaway those that meet turn to
 * the right of the way they came, all alike.
 */
export class Branches {
  private readonly points: { readonly k: number; readonly roots: readonly Complex[] }[] = []
  /** The k at which roots meet. */
  private readonly meetings: readonly number[]

  /** On the way roots need not be known better than doubles make them. */
  constructor(
    private readonly l: Transfer,
    private readonly sign: 1 | -1 = 1,
    private readonly precise = true,
  ) {
    this.meetings = breakaways(l)
      .map(({ k }) => k * sign)
      .filter((k) => k > 0)
      .sort((a, b) => a - b)
    const first = rootList(l.bottom) ?? []
    this.points.push({ k: 0, roots: first })
  }

  /** The root of each branch at k, of the sign of this side; `null` where roots could not be worked out. */
  at(k: number): readonly Complex[] | null {
    const wanted = k * this.sign
    if (!(wanted >= 0) || !Number.isFinite(wanted)) return null
    let last = this.points.findLast((point) => point.k <= wanted)
    for (let count = 0; last && last.k < wanted && count < 20_000; count += 1) {
      const next = this.next(last, wanted)
      if (!next) return null
      this.points.splice(this.points.findIndex((p) => p === last) + 1, 0, next)
      last = next
    }
    if (last?.k !== wanted) return null
    const exact = this.precise ? rootList(closedBy(this.l, k)) : null
    return exact ? paired(last.roots, exact).order : last.roots
  }

  private next(
    from: { readonly k: number; readonly roots: readonly Complex[] },
    wanted: number,
  ): { readonly k: number; readonly roots: readonly Complex[] } | null {
    const meeting = this.meetings.find((k) => k > from.k * (1 + 1e-12))
    // A meeting itself is stepped over closely, so that on each side roots are simple.
    const near = meeting !== undefined && from.k > meeting * (1 - 4e-6) ? meeting * (1 + 1e-6) : null
    const limit = near ?? (meeting === undefined ? wanted : Math.min(wanted, meeting * (1 - 1e-6)))
    let to = Math.min(wanted, Math.max(limit, from.k))
    if (near !== null && wanted < near) to = wanted
    for (let halving = 0; halving < 60; halving += 1) {
      const roots = quickRoots(closedBy(this.l, to * this.sign))
      if (!roots) return null
      const found =
        near !== null ? paired(from.roots, roots, this.turned(from.roots, roots)) : paired(from.roots, roots)
      if (found.sure || near !== null || to - from.k <= 1e-13 * to) return { k: to, roots: found.order }
      to = from.k === 0 ? to / 8 : from.k + (to - from.k) / 2
    }
    return null
  }

  /** Where roots are expected beyond a meeting: those that come together turn to the right. */
  private turned(before: readonly Complex[], after: readonly Complex[]): (z: Complex, k: number) => Complex {
    const apart = (z: Complex, list: readonly Complex[]): Complex | null => {
      const others = list.filter((w) => w !== z)
      return others.length === 0
        ? null
        : others.reduce((a, b) => (size(C.subtract(a, z)) <= size(C.subtract(b, z)) ? a : b))
    }
    void after
    return (z) => {
      const partner = apart(z, before)
      if (!partner) return z
      const middle = { re: (z.re + partner.re) / 2, im: (z.im + partner.im) / 2 }
      const half = C.subtract(z, middle)
      // What is near its partner leaves at right angles to the way it came.
      const meets = size(half) < 0.02 * Math.max(size(middle), 1e-300) || size(half) < 1e-3 * spread(before)
      return meets ? C.add(middle, { re: half.im, im: -half.re }) : z
    }
  }
}

const size = (z: Complex): number => Math.hypot(z.re, z.im)

const spread = (list: readonly Complex[]): number => Math.max(...list.map(size), 0)

/** Each root beside the one that it continues, and whether that leaves no doubt. */
function paired(
  before: readonly Complex[],
  after: readonly Complex[],
  expected: (z: Complex, k: number) => Complex = (z) => z,
): { readonly order: readonly Complex[]; readonly sure: boolean } {
  const open = [...after]
  const order: Complex[] = []
  let sure = true
  const wanted = before.map(expected)
  // Those that are nearest to a root come first.
  const places = wanted.map((_, k) => k).sort((a, b) => nearest(wanted[a], after) - nearest(wanted[b], after))
  for (const place of places) {
    const z = wanted[place] ?? { re: 0, im: 0 }
    const best = open.reduce((a, b) => (size(C.subtract(b, z)) < size(C.subtract(a, z)) ? b : a), open[0] ?? z)
    const distance = size(C.subtract(best, z))
    const rival = after
      .filter((w) => w !== best)
      .reduce((least, w) => Math.min(least, size(C.subtract(w, z))), Infinity)
    if (distance > 0 && distance * 3 > rival) sure = false
    const at = open.indexOf(best)
    if (at >= 0) open.splice(at, 1)
    order[place] = best
  }
  return { order, sure }
}

const nearest = (z: Complex | undefined, list: readonly Complex[]): number =>
  z ? list.reduce((least, w) => Math.min(least, size(C.subtract(w, z))), Infinity) : Infinity
