import type { Complex } from '../numbers/complex'
import { parted } from '../numbers/dyadic'
import { bitLength } from '../numbers/rational'
import { timesPowerOfTwo } from '../numbers/scale'

/**
 * Complex numbers of many digits, (re + j·im)·2^exp with parts of up to {@link BITS} bits: where terms of a
 * response all but cancel, doubles would leave nothing of it.
 */
export interface Wide {
  readonly re: bigint
  readonly im: bigint
  readonly exp: number
}

export const BITS = 256

export const ZERO: Wide = { re: 0n, im: 0n, exp: 0 }
export const ONE: Wide = { re: 1n, im: 0n, exp: 0 }

const abs = (x: bigint): bigint => (x < 0n ? -x : x)
const length = (z: Wide): number => {
  const [a, b] = [abs(z.re), abs(z.im)]
  return bitLength(a > b ? a : b)
}

/** With no more bits than are kept. */
function cut(re: bigint, im: bigint, exp: number): Wide {
  const z = { re, im, exp }
  const extra = length(z) - BITS
  if (extra <= 0) return z
  const by = BigInt(extra)
  return { re: re >> by, im: im >> by, exp: exp + extra }
}

export const isZero = (z: Wide): boolean => z.re === 0n && z.im === 0n

export function fromBig(re: bigint, im: bigint, exp: number): Wide {
  return cut(re, im, exp)
}

export const fromWhole = (n: bigint): Wide => cut(n, 0n, 0)

export function fromNumber(x: number): Wide {
  const { mantissa, exponent } = parted(x)
  return { re: mantissa, im: 0n, exp: exponent }
}

export function fromComplex({ re, im }: Complex): Wide {
  return add(fromNumber(re), timesJ(fromNumber(im)))
}

const timesJ = (z: Wide): Wide => ({ re: -z.im, im: z.re, exp: z.exp })

export const conjugate = (z: Wide): Wide => ({ re: z.re, im: -z.im, exp: z.exp })

export function add(a: Wide, b: Wide): Wide {
  if (isZero(a)) return b
  if (isZero(b)) return a
  const [low, high] = a.exp <= b.exp ? [a, b] : [b, a]
  const shift = high.exp - low.exp
  // What lies far below the other's last bit is lost anyway.
  if (shift > 2 * BITS && length(high) + shift > length(low) + 2 * BITS) return high
  const by = BigInt(shift)
  return cut(low.re + (high.re << by), low.im + (high.im << by), low.exp)
}

export const negate = (z: Wide): Wide => ({ re: -z.re, im: -z.im, exp: z.exp })
export const subtract = (a: Wide, b: Wide): Wide => add(a, negate(b))

export function multiply(a: Wide, b: Wide): Wide {
  if (a.im === 0n && b.im === 0n) return cut(a.re * b.re, 0n, a.exp + b.exp)
  return cut(a.re * b.re - a.im * b.im, a.re * b.im + a.im * b.re, a.exp + b.exp)
}

/** a/b; b is not 0. */
export function divide(a: Wide, b: Wide): Wide {
  const size = b.re * b.re + b.im * b.im
  const [re, im] = [a.re * b.re + a.im * b.im, a.im * b.re - a.re * b.im]
  const shift = BITS + bitLength(size)
  const by = BigInt(shift)
  return cut((re << by) / size, (im << by) / size, a.exp - b.exp - shift)
}

export function toComplex(z: Wide): Complex {
  return { re: toNumber(z.re, z.exp), im: toNumber(z.im, z.exp) }
}

function toNumber(x: bigint, exp: number): number {
  const extra = Math.max(0, bitLength(abs(x)) - 80)
  return timesPowerOfTwo(Number(x >> BigInt(extra)), exp + extra)
}

/** Base-2 logarithm of the larger part, or a little more; −∞ of zero. */
export const sizeOf = (z: Wide): number => (isZero(z) ? -Infinity : length(z) + z.exp)

/** Halvings before the series of e^z, and as many squarings after it. */
const HALVINGS = 16
/** Fixed-point bits behind the point inside the exponential. */
const FIXED = BITS + 48

/** e^z, by its series on z/2^k and k squarings. What is far too small to be told from 0 is 0. */
export function exponential(z: Wide): Wide {
  if (isZero(z)) return ONE
  const size = Number(toNumber(z.re, z.exp))
  if (size < -1e6) return ZERO
  // e^z = 2^n·e^r, |Re r| ≤ ln 2 / 2
  const fixed = (x: bigint): bigint => {
    const shift = z.exp + FIXED
    return shift >= 0 ? x << BigInt(shift) : x >> BigInt(-shift)
  }
  const ln2 = logOfTwo()
  const re = fixed(z.re)
  const n = (2n * re + ln2) / (2n * ln2) - (2n * re + ln2 < 0n ? 1n : 0n)
  const extra = Math.max(0, Math.ceil(Math.log2(Math.abs(toNumber(z.im, z.exp)) + 1)))
  const halvings = HALVINGS + extra
  const by = BigInt(halvings)
  const [x, y] = [(re - n * ln2) >> by, fixed(z.im) >> by]
  const one = 1n << BigInt(FIXED)
  const f = BigInt(FIXED)
  let [sumRe, sumIm] = [one, 0n]
  let [termRe, termIm] = [one, 0n]
  for (let k = 1n; termRe !== 0n || termIm !== 0n; k += 1n) {
    ;[termRe, termIm] = [((termRe * x - termIm * y) >> f) / k, ((termRe * y + termIm * x) >> f) / k]
    sumRe += termRe
    sumIm += termIm
    if (abs(termRe) <= 1n && abs(termIm) <= 1n) break
  }
  for (let k = 0; k < halvings; k += 1)
    [sumRe, sumIm] = [(sumRe * sumRe - sumIm * sumIm) >> f, (2n * sumRe * sumIm) >> f]
  return cut(sumRe, sumIm, Number(n) - FIXED)
}

let knownLn2: bigint | null = null

/** ln 2 with {@link FIXED} bits behind the point, by the sum of 1/(k·2^k). */
function logOfTwo(): bigint {
  if (knownLn2 !== null) return knownLn2
  let sum = 0n
  const bits = BigInt(FIXED + 20)
  for (let k = 1n; k < bits; k += 1n) sum += (1n << (bits - k)) / k
  knownLn2 = sum >> 20n
  return knownLn2
}

/** p at a point, by Horner's rule; coefficients from that of x⁰ up. */
export function valueAt(p: readonly bigint[], at: Wide): Wide {
  let value = ZERO
  for (let k = p.length - 1; k >= 0; k -= 1) value = add(multiply(value, at), fromWhole(p[k] ?? 0n))
  return value
}

/** The first coefficients of p(at + x) in powers of x. */
export function shifted(p: readonly bigint[], at: Wide, count: number): Wide[] {
  const found: Wide[] = []
  let rest: readonly Wide[] = p.map(fromWhole)
  for (let k = 0; k < count; k += 1) {
    if (rest.length === 0) {
      found.push(ZERO)
      continue
    }
    const next: Wide[] = new Array<Wide>(rest.length)
    let value = ZERO
    for (let i = rest.length - 1; i >= 0; i -= 1) {
      value = add(multiply(value, at), rest[i] ?? ZERO)
      next[i] = value
    }
    found.push(next[0] ?? ZERO)
    rest = next.slice(1)
  }
  return found
}

/** a·b of series, up to so many terms. */
export function timesSeries(a: readonly Wide[], b: readonly Wide[], count: number): Wide[] {
  return Array.from({ length: count }, (_, n) => {
    let sum = ZERO
    for (let k = 0; k <= n; k += 1) sum = add(sum, multiply(a[k] ?? ZERO, b[n - k] ?? ZERO))
    return sum
  })
}

/** a/b of series, up to so many terms; the first of b is not 0. */
export function overSeries(a: readonly Wide[], b: readonly Wide[], count: number): Wide[] {
  const found: Wide[] = []
  const [first = ONE] = b
  for (let n = 0; n < count; n += 1) {
    let rest = a[n] ?? ZERO
    for (let k = 1; k <= n; k += 1) rest = subtract(rest, multiply(b[k] ?? ZERO, found[n - k] ?? ZERO))
    found.push(divide(rest, first))
  }
  return found
}
