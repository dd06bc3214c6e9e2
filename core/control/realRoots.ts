import { parted } from '../numbers/dyadic'
import { timesPowerOfTwo } from '../numbers/scale'
import { bitLength } from '../numbers/rational'
import { work } from '../numbers/work'
import * as W from './whole'
import type { Whole } from './whole'

/**
 * The real roots of a polynomial with whole coefficients, each proved: told apart by Sturm's chain (C. Sturm, 1829; see
 * F. Gantmacher, "The Theory of Matrices", vol. 2, chapter XV), then closed in until the nearest double is known by the
 * signs on both sides.
 */
export interface RealRoot {
  readonly x: number
  readonly times: number
}

/** All real roots, from the least on. */
export function realRoots(p: Whole): readonly RealRoot[] {
  const mirroredRoots = positiveRoots(W.mirrored(p)).map(({ x, times }) => ({ x: -x, times }))
  const atZero = zeroTimes(p)
  return [...mirroredRoots.reverse(), ...(atZero > 0 ? [{ x: 0, times: atZero }] : []), ...positiveRoots(p)]
}

const zeroTimes = (p: Whole): number =>
  Math.max(
    0,
    p.findIndex((c) => c !== 0n),
  )

/** The roots above 0, from the least on. */
export function positiveRoots(p: Whole): readonly RealRoot[] {
  const core = p.slice(zeroTimes(p))
  if (core.length < 2) return []
  return W.squareFree(core)
    .flatMap(({ factor, times }) => simpleRoots(factor).map((x) => ({ x, times })))
    .sort((a, b) => a.x - b.x)
}

/** Two dyadic numbers low/2^shift < high/2^shift, and how many roots lie above low, up to high. */
interface Span {
  readonly low: bigint
  readonly high: bigint
  readonly shift: number
  readonly above: number
  readonly upTo: number
}

function simpleRoots(p: Whole): readonly number[] {
  if (p.length === 2) {
    // −c₀/c₁
    return quotients(-W.coefficient(p, 0), W.coefficient(p, 1))
  }
  const chain = sturm(p)
  const most = boundOf(p)
  const changes = (n: bigint, shift: number): number => changesIn(chain.map((q) => W.signAt(q, n, shift)))
  const first: Span = { low: 0n, high: 1n << BigInt(most), shift: 0, above: changes(0n, 0), upTo: changes(1n << BigInt(most), 0) } // prettier-ignore
  const open: Span[] = [first]
  const roots: number[] = []
  while (open.length > 0) {
    const span = open.pop()
    if (!span || span.above === span.upTo) continue
    if (span.above - span.upTo === 1) {
      roots.push(closedIn(p, span))
      continue
    }
    work(200 * p.length)
    // The middle by size: roots of very different sizes are told apart in few steps.
    const { low, high, shift } = middleOf(span)
    const middle = high.middle
    const at = changes(middle, shift)
    open.push({ low, high: middle, shift, above: span.above, upTo: at }, { low: middle, high: high.end, shift, above: at, upTo: span.upTo }) // prettier-ignore
  }
  return roots.sort((a, b) => a - b)
}

/** A point between the ends: where the upper one is far greater, by size, else halfway. */
function middleOf({ low, high, shift }: Span): {
  readonly low: bigint
  readonly high: { readonly middle: bigint; readonly end: bigint }
  readonly shift: number
} {
  const [a, b, s] = [low << 2n, high << 2n, shift + 2]
  const [la, lb] = [a === 0n ? -s - 60 : bitLength(a), bitLength(b)]
  if (lb - la <= 2) return { low: a, high: { middle: (a + b) >> 1n, end: b }, shift: s }
  const half = Math.floor((la + lb) / 2)
  if (half >= 1) return { low: a, high: { middle: 1n << BigInt(half), end: b }, shift: s }
  const more = BigInt(2 - half)
  return { low: a << more, high: { middle: 4n, end: b << more }, shift: s + (2 - half) }
}

function quotients(n: bigint, d: bigint): readonly number[] {
  const [a, b] = d < 0n ? [-n, -d] : [n, d]
  return a > 0n ? [ratioOf(a, b)] : []
}

/** n/d of positive numbers, rounded once. */
function ratioOf(n: bigint, d: bigint): number {
  const shift = 66 - (bitLength(n) - bitLength(d))
  const q = shift >= 0 ? (n << BigInt(shift)) / d : n / (d << BigInt(-shift))
  return timesPowerOfTwo(Number(q), -shift)
}

/** p, p′ and the negated remainders of each by the next. */
const sturm = (p: Whole): readonly Whole[] => W.remainders(p, W.primitive(W.derivative(p)))

function changesIn(signs: readonly number[]): number {
  let count = 0
  let before = 0
  for (const sign of signs) {
    if (sign === 0) continue
    if (before !== 0 && sign !== before) count += 1
    before = sign
  }
  return count
}

/** All roots are below 2 to this power (Cauchy's bound). */
function boundOf(p: Whole): number {
  const lead = bitLength(W.leading(p))
  return Math.max(1, ...p.map((c) => bitLength(c) - lead + 2))
}

/** The one root of a span, closed in by halves until it is known to a double. */
function closedIn(p: Whole, { low, high, shift }: Span): number {
  let [a, b, s] = [low, high, shift]
  const upper = W.signAt(p, b, s)
  if (upper === 0) return toNumber(b, s)
  for (let step = 0; step < 4000; step += 1) {
    // Near enough for Newton's rule to be tried.
    if (a > 0n && (b - a) << 12n < a) {
      const found = polished(p, toNumber(a + b, s + 1), toNumber(a, s), toNumber(b, s), upper)
      if (found !== null) return found
    }
    if (a > 0n && (b - a) << 58n < a) break
    const span: Span = { low: a, high: b, shift: s, above: 0, upTo: 0 }
    const next = middleOf(span)
    const sign = W.signAt(p, next.high.middle, next.shift)
    if (sign === 0) return toNumber(next.high.middle, next.shift)
    ;[a, b, s] =
      sign === upper ? [next.low, next.high.middle, next.shift] : [next.high.middle, next.high.end, next.shift]
  }
  return toNumber(a + b, s + 1)
}

function toNumber(n: bigint, shift: number): number {
  const extra = Math.max(0, bitLength(n) - 80)
  return timesPowerOfTwo(Number(n >> BigInt(extra)), extra - shift)
}

/** The root by Newton's rule, where the signs at doubles beside it prove it. */
function polished(p: Whole, start: number, low: number, high: number, upper: number): number | null {
  const most = Math.max(...p.map((c) => bitLength(c)))
  const cut = BigInt(Math.max(0, most - 900))
  const list = p.map((c) => Number(c >> cut))
  let x = start
  for (let k = 0; k < 8; k += 1) {
    let [value, slope] = [0, 0]
    for (let i = list.length - 1; i >= 0; i -= 1) {
      slope = slope * x + value
      value = value * x + (list[i] ?? 0)
    }
    const next = x - value / slope
    if (!(next > low && next < high)) return null
    if (Math.abs(next - x) <= 1e-15 * x) break
    x = next
  }
  return nearest(p, x, upper)
}

/** Doubles beside one that Newton's rule has found are looked at, so many at most. */
const BESIDE = 6

/** The double that is nearest to the root, by the signs there and halfway between it and its neighbour. */
function nearest(p: Whole, start: number, upper: number): number | null {
  let [x, sign] = [start, signAtNumber(p, start)]
  for (let k = 0; k < BESIDE && sign !== 0; k += 1) {
    const y = neighbour(x, sign === upper ? -1n : 1n)
    const other = signAtNumber(p, y)
    if (other === 0) return y
    if (other !== sign) {
      // Both are mantissas of 53 bits: halfway between is one of 54.
      const [a, b] = [parted(x), parted(y)]
      const exponent = Math.min(a.exponent, b.exponent)
      const middle = (a.mantissa << BigInt(a.exponent - exponent)) + (b.mantissa << BigInt(b.exponent - exponent))
      return signAtDyadic(p, middle, exponent - 1) === sign ? y : x
    }
    ;[x, sign] = [y, other]
  }
  return sign === 0 ? x : null
}

const VIEW = new DataView(new ArrayBuffer(8))

/** The next double up, or down, of a positive one. */
function neighbour(x: number, by: 1n | -1n): number {
  VIEW.setFloat64(0, x)
  VIEW.setBigUint64(0, VIEW.getBigUint64(0) + by)
  return VIEW.getFloat64(0)
}

function signAtNumber(p: Whole, x: number): -1 | 0 | 1 {
  const { mantissa, exponent } = parted(x)
  return signAtDyadic(p, mantissa, exponent)
}

function signAtDyadic(p: Whole, mantissa: bigint, exponent: number): -1 | 0 | 1 {
  return exponent >= 0 ? W.signAt(p, mantissa << BigInt(exponent), 0) : W.signAt(p, mantissa, -exponent)
}
