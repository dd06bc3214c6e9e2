import type { Complex } from '../numbers/complex'
import type { Gaussian } from '../numbers/gaussian'
import { lcmBig } from '../numbers/divisors'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { timesPowerOfTwo } from '../numbers/scale'
import { work } from '../numbers/work'

/**
 * Roots of exact coefficients to all the digits of a double and beyond: the
 * iteration of Ehrlich and Aberth on fixed-point numbers of as many bits as it
 * takes, until every root is isolated in a disc of its own far smaller than its
 * last place (there is a root within n·|p/p′| of a point; P. Henrici, "Applied and
 * Computational Complex Analysis", vol. 1, 1974).
 */
export interface Precise {
  readonly z: Complex
  /** A rational number that agrees with the root far beyond a double; to be proved by putting it in. */
  readonly near: Gaussian | null
  /** The root with all its digits: (re + j·im)·2^exponent. */
  readonly digits: { readonly re: bigint; readonly im: bigint; readonly exponent: number }
}

interface Fixed {
  readonly re: bigint
  readonly im: bigint
}

const BITS_FIRST = 192
const BITS_MOST = 6144
const ROUNDS_MOST = 80
/** Each root is known to so many bits of its own size at least. */
const GOOD_BITS = 70

/**
 * Coefficients from the highest power down, without multiple roots, the first and the last not zero; roots
 * that are roughly known. `null` where the numbers outgrow their budget.
 */
export function preciseRoots(
  list: readonly Gaussian[],
  rough: readonly Complex[],
  leastBits = BITS_FIRST,
): readonly Precise[] | null {
  const n = list.length - 1
  const size = (z: Complex): number => Math.hypot(z.re, z.im)
  const largest = Math.max(...rough.map(size))
  if (!(largest > 0) || !Number.isFinite(largest) || rough.length !== n) return null
  // In units of 2^t every root lies within the unit disc, or nearly.
  const t = Math.ceil(Math.log2(largest))
  const whole = integers(list, t)
  const isReal = list.every((c) => Q.isZero(c.im))
  for (let bits = leastBits; bits <= BITS_MOST; bits *= 2) {
    const p = new Precision(bits)
    const terms = p.normalized(whole)
    if (!terms) continue
    const roots = p.aberth(
      terms,
      rough.map((z, k) => p.start(z, t, k)),
    )
    const radii = roots && p.radii(terms, roots)
    if (!roots || !radii) continue
    const onAxis = (z: Fixed, k: number): boolean => abs(z.im) <= (radii[k] ?? 0n)
    const settled = isReal ? mirrored(roots.map((z, k) => (onAxis(z, k) ? { re: z.re, im: 0n } : z))) : roots
    return settled.map((z) => p.result(z, t))
  }
  return null
}

/** Of real coefficients the roots below the real axis are those above it, mirrored: to the last digit. */
function mirrored(roots: readonly Fixed[]): readonly Fixed[] {
  return roots.map((z) => {
    if (z.im >= 0n) return z
    let best: Fixed | null = null
    let least = 0n
    for (const w of roots) {
      if (w.im <= 0n) continue
      const distance = abs(w.re - z.re) + abs(w.im + z.im)
      if (best === null || distance < least) [best, least] = [w, distance]
    }
    return best ? { re: best.re, im: -best.im } : z
  })
}

const abs = (x: bigint): bigint => (x < 0n ? -x : x)

function big(x: number | bigint): bigint {
  return typeof x === 'bigint' ? x : BigInt(x)
}

/** The coefficients over one denominator, for the unknown in units of 2^t. */
function integers(list: readonly Gaussian[], t: number): Fixed[] {
  let denominator = 1n
  for (const { re, im } of list) for (const d of [big(re.d), big(im.d)]) denominator = lcmBig(denominator, d)
  const n = list.length - 1
  return list.map(({ re, im }, k) => {
    const shift = BigInt(t >= 0 ? t * (n - k) : -t * k)
    const over = ({ n: top, d }: Rational): bigint => (big(top) * (denominator / big(d))) << shift
    return { re: over(re), im: over(im) }
  })
}

/** Fixed-point numbers of so many bits behind the point. */
class Precision {
  private readonly p: bigint
  private readonly one: bigint

  constructor(private readonly bits: number) {
    this.p = BigInt(bits)
    this.one = 1n << this.p
  }

  /** The coefficients, the largest about 1; `null` where the smallest would be lost. */
  normalized(whole: readonly Fixed[]): Fixed[] | null {
    const lengths = whole.map((c) => Math.max(Q.bitLength(c.re), Q.bitLength(c.im)))
    const used = lengths.filter((_, k) => whole[k]?.re !== 0n || whole[k]?.im !== 0n)
    const [most, least] = [Math.max(...used), Math.min(...used)]
    if (most - least > this.bits / 2) return null
    const shift = BigInt(Math.abs(this.bits - most))
    const move = (x: bigint): bigint => (this.bits >= most ? x << shift : x >> shift)
    return whole.map(({ re, im }) => ({ re: move(re), im: move(im) }))
  }

  /** A rough root as a start, a little off the real axis: on it a pair would never be told apart. */
  start(z: Complex, t: number, k: number): Fixed {
    const scale = 2 ** 52
    const near = 1 + 1e-6 * (k + 1)
    const [re, im] = [z.re * 2 ** -t * near, z.im * 2 ** -t * near + Math.hypot(z.re, z.im) * 2 ** -t * 1e-5 * (k + 1)]
    const fixed = (x: number): bigint => {
      const digits = BigInt(Math.round(x * scale))
      return this.bits >= 52 ? digits << (this.p - 52n) : digits
    }
    return { re: fixed(re), im: fixed(im) }
  }

  private multiply(a: Fixed, b: Fixed): Fixed {
    return { re: (a.re * b.re - a.im * b.im) >> this.p, im: (a.re * b.im + a.im * b.re) >> this.p }
  }

  private divide(a: Fixed, b: Fixed): Fixed | null {
    const size = b.re * b.re + b.im * b.im
    if (size === 0n) return null
    return {
      re: ((a.re * b.re + a.im * b.im) << this.p) / size,
      im: ((a.im * b.re - a.re * b.im) << this.p) / size,
    }
  }

  private horner(terms: readonly Fixed[], z: Fixed): { readonly value: Fixed; readonly slope: Fixed } {
    let value: Fixed = { re: 0n, im: 0n }
    let slope: Fixed = value
    for (const c of terms) {
      const s = this.multiply(slope, z)
      slope = { re: s.re + value.re, im: s.im + value.im }
      const v = this.multiply(value, z)
      value = { re: v.re + c.re, im: v.im + c.im }
    }
    return { value, slope }
  }

  aberth(terms: readonly Fixed[], begun: readonly Fixed[]): Fixed[] | null {
    const roots = [...begun]
    // A step of a few units in the last place is rounding.
    const least = 1n << BigInt(Math.floor(this.bits / 4))
    for (let round = 0; round < ROUNDS_MOST; round += 1) {
      let longest = 0n
      for (const [k, z] of roots.entries()) {
        work(2000 * roots.length)
        const { value, slope } = this.horner(terms, z)
        const newton = this.divide(value, slope)
        if (!newton) return null
        let push: Fixed = { re: 0n, im: 0n }
        for (const [j, w] of roots.entries()) {
          if (j === k) continue
          const inverse = this.divide({ re: this.one, im: 0n }, { re: z.re - w.re, im: z.im - w.im })
          if (!inverse) return null
          push = { re: push.re + inverse.re, im: push.im + inverse.im }
        }
        const product = this.multiply(newton, push)
        const step = this.divide(newton, { re: this.one - product.re, im: -product.im })
        if (!step) return null
        roots[k] = { re: z.re - step.re, im: z.im - step.im }
        const length = abs(step.re) + abs(step.im)
        if (length > longest) longest = length
      }
      if (longest <= least) return roots
    }
    return null
  }

  /** How far each root may be off; `null` where they are not told apart, or not known well enough. */
  radii(terms: readonly Fixed[], roots: readonly Fixed[]): bigint[] | null {
    const n = BigInt(terms.length)
    const radii: bigint[] = []
    for (const z of roots) {
      const { value, slope } = this.horner(terms, z)
      const size = abs(slope.re) > abs(slope.im) ? abs(slope.re) : abs(slope.im)
      if (size === 0n) return null
      // Each step of Horner's rule rounds by a few units, and what was cut off the coefficients counts as well.
      const off = abs(value.re) + abs(value.im) + 8n * n
      const radius = ((2n * n * off) << this.p) / size + 1n
      const own = abs(z.re) + abs(z.im)
      if (radius << BigInt(GOOD_BITS) > own) return null
      radii.push(radius)
    }
    for (const [k, z] of roots.entries())
      for (const [j, w] of roots.entries()) {
        if (j <= k) continue
        const apart = abs(z.re - w.re) + abs(z.im - w.im)
        if (apart <= 2n * ((radii[k] ?? 0n) + (radii[j] ?? 0n))) return null
      }
    return radii
  }

  result(z: Fixed, t: number): Precise {
    const near = { re: this.rational(z.re, t), im: this.rational(z.im, t) }
    return {
      z: { re: this.toNumber(z.re, t), im: this.toNumber(z.im, t) },
      near: near.re && near.im ? { re: near.re, im: near.im } : null,
      digits: { ...z, exponent: t - this.bits },
    }
  }

  private toNumber(x: bigint, t: number): number {
    const extra = Math.max(0, Q.bitLength(x) - 80)
    return timesPowerOfTwo(Number(x >> BigInt(extra)), t - this.bits + extra)
  }

  /** The rational with a small denominator that agrees with x·2^(t − bits) to three quarters of the bits. */
  private rational(x: bigint, t: number): Rational | null {
    if (x === 0n) return Q.ZERO
    const [n, d] = t >= 0 ? [x << BigInt(t), this.one] : [x, this.one << BigInt(-t)]
    const close = BigInt(Math.floor((this.bits * 5) / 8))
    let [p0, q0, p1, q1] = [0n, 1n, 1n, 0n]
    let [a, b] = [abs(n), d]
    while (b !== 0n) {
      const whole = a / b
      ;[p0, q0, p1, q1] = [p1, q1, whole * p1 + p0, whole * q1 + q0]
      ;[a, b] = [b, a - whole * b]
      if (q1 > 1n << BigInt(Math.floor(this.bits / 4))) return null
      // |n/d − p/q| ≤ |n/d|·2^−close
      if (abs(abs(n) * q1 - p1 * d) << close <= abs(n) * q1) return Q.fromBig(n < 0n ? -p1 : p1, q1)
    }
    return null
  }
}
