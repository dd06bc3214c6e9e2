import { aberth } from '../algebra/aberth'
import { preciseRoots } from '../algebra/preciseRoots'
import type { Complex } from '../numbers/complex'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import { bitLength, fromBig, toNumber } from '../numbers/rational'
import { timesPowerOfTwo } from '../numbers/scale'
import * as W from './whole'
import type { Whole } from './whole'
import * as Z from './wide'
import type { Wide } from './wide'

/** A root of a polynomial with whole coefficients, known to far more digits than a double. */
export interface Pole {
  readonly z: Complex
  readonly wide: Wide
  /** How often it counts: exactly, since multiple factors are split off before any root is looked for. */
  readonly times: number
  /** The rational number that it is, proved by putting it in. */
  readonly exact: Gaussian | null
}

/** All roots, by real part, then by imaginary part; `null` where they outgrew what can be worked out. */
export function polesOf(p: Whole): readonly Pole[] | null {
  const atZero = p.findIndex((c) => c !== 0n)
  if (atZero < 0) return null
  const found: Pole[] = atZero > 0 ? [{ z: { re: 0, im: 0 }, wide: Z.ZERO, times: atZero, exact: G.ZERO }] : []
  for (const { factor, times } of W.squareFree(p.slice(atZero))) {
    const roots = simpleRoots(factor)
    if (!roots) return null
    found.push(...roots.map((root) => ({ ...root, times })))
  }
  return found.sort((a, b) => (near(a.z.re, b.z.re) ? a.z.im - b.z.im : a.z.re - b.z.re))
}

const near = (x: number, y: number): boolean => Math.abs(x - y) <= 1e-12 * Math.max(Math.abs(x), Math.abs(y))

/** Digits that poles are worked out to, in bits, of the largest. */
const POLE_BITS = 288

function simpleRoots(p: Whole): readonly Omit<Pole, 'times'>[] | null {
  if (W.degreeOf(p) === 1) {
    const [c0, c1] = [W.coefficient(p, 0), W.coefficient(p, 1)]
    const exact = fromBig(-c0, c1)
    const wide = Z.divide(Z.fromWhole(-c0), Z.fromWhole(c1))
    return [
      { z: exact ? { re: toNumber(exact), im: 0 } : Z.toComplex(wide), wide, exact: exact && G.fromRational(exact) },
    ]
  }
  const list = [...p].reverse().flatMap((c) => {
    const q = fromBig(c, 1n)
    return q ? [G.fromRational(q)] : []
  })
  const rough = roughRoots(p)
  if (!rough || list.length < p.length) return null
  const precise = preciseRoots(list, rough, POLE_BITS)
  return (
    precise &&
    precise.map(({ z, near: close, digits }) => {
      const wide = Z.fromBig(digits.re, digits.im, digits.exponent)
      return { z, wide, exact: close && isRoot(p, close) ? close : null }
    })
  )
}

/** Roots as good as doubles make them, whatever the size of the coefficients. */
export function roughRoots(p: Whole): readonly Complex[] | null {
  const n = W.degreeOf(p)
  const size = (c: bigint): number => bitLength(c < 0n ? -c : c)
  // In units of 2^k the first and the last coefficient are alike.
  const k = Math.round((size(W.coefficient(p, 0)) - size(W.leading(p))) / n)
  const scaled = p.map((c, i) => ({ c, bits: k * i }))
  const most = Math.max(...scaled.map(({ c, bits }) => size(c) + bits))
  const list = scaled.map(({ c, bits }) => ({ re: scaledNumber(c, bits - most), im: 0 }))
  const found = aberth(list.reverse())
  return found && found.map(({ z }) => ({ re: timesPowerOfTwo(z.re, k), im: timesPowerOfTwo(z.im, k) }))
}

function scaledNumber(c: bigint, bits: number): number {
  const extra = Math.max(0, bitLength(c < 0n ? -c : c) - 80)
  return timesPowerOfTwo(Number(c >> BigInt(extra)), bits + extra)
}

/** Puts a rational number in. */
function isRoot(p: Whole, { re, im }: Gaussian): boolean {
  const d = BigInt(re.d) * BigInt(im.d)
  const [x, y] = [BigInt(re.n) * BigInt(im.d), BigInt(im.n) * BigInt(re.d)]
  let [a, b, power] = [0n, 0n, 1n]
  for (let k = p.length - 1; k >= 0; k -= 1, power *= d)
    [a, b] = [a * x - b * y + W.coefficient(p, k) * power, a * y + b * x]
  return a === 0n && b === 0n
}
