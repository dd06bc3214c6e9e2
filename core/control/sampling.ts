import type { Rational } from '../numbers/rational'
import * as P from '../algebra/polynomial'
import { exactReal, integer, real } from '../values/make'
import type { Factors, NumberValue, Polynomial } from '../values/types'
import { raised } from './frequency'
import type { Pole } from './poles'
import { rootsOfWhole } from './transfer'
import type { Transfer } from './transfer'
import { nearFraction } from './nearFraction'
import { timeFunction, wideAt } from './timeFunction'
import * as W from './whole'
import type { Whole } from './whole'
import * as Z from './wide'

/** Transfer functions of samples, from those of what is sampled. */

/**
 * With a hold of order zero (K. J. Åström and B. Wittenmark, "Computer-Controlled Systems", chapter 2): each pole p
 * becomes e^(pT), and at the samples the step response is the same. Worked out with many digits; a pole at 0 becomes one
 * at exactly 1. `null` where the poles could not be worked out.
 */
export function heldSamples(g: Transfer, period: Rational, unknown: string): Factors | null {
  const poles = rootsOfWhole(g.bottom)
  const response = timeFunction(g.top, W.multiply(g.bottom, [0n, 1n]))
  if (!poles || !response) return null
  const n = poles.reduce((sum, { times }) => sum + times, 0)
  const t = Z.divide(Z.fromWhole(BigInt(period.n)), Z.fromWhole(BigInt(period.d)))
  let below: Z.Wide[] = [Z.ONE]
  for (const { wide, times } of poles)
    for (let k = 0; k < times; k += 1)
      below = Z.timesSeries(below, [Z.negate(Z.exponential(Z.multiply(wide, t))), Z.ONE], below.length + 1)
  // The samples of y, and how they change: the numerator is the product with what is below, cut off.
  const y: Z.Wide[] = []
  for (let k = 0; k <= n; k += 1) y.push(wideAt(response, Z.multiply(t, Z.fromWhole(BigInt(k)))))
  const change = y.map((value, k) => (k === 0 ? value : Z.subtract(value, y[k - 1] ?? Z.ZERO)))
  const falling = [...below].reverse()
  const above = Array.from({ length: n + 1 }, (_, k) => {
    let sum = Z.ZERO
    for (let i = 0; i <= k; i += 1) sum = Z.add(sum, Z.multiply(falling[i] ?? Z.ZERO, change[k - i] ?? Z.ZERO))
    return sum
  })
  const exact = g.exact && poles.every(({ z }) => z.re === 0 && z.im === 0)
  const size = Math.max(...above.map(Z.sizeOf))
  const number = (z: Z.Wide): NumberValue => (Z.sizeOf(z) < size - 160 ? integer(0) : exact ? fractionOf(z) : real(Z.toComplex(z).re)) // prettier-ignore
  const top = P.fromCoefficients(unknown, above.map(number))
  return { top: [top], bottom: poles.filter(({ z }) => z.im >= 0).flatMap((pole) => factorsOf(pole, t, unknown)) }
}

function factorsOf({ z, wide, times }: Pole, t: Z.Wide, unknown: string): readonly Polynomial[] {
  const at = Z.exponential(Z.multiply(wide, t))
  const still = z.re === 0 && z.im === 0
  const list =
    z.im === 0
      ? [integer(1), still ? integer(-1) : real(-Z.toComplex(at).re)]
      : [integer(1), real(-2 * Z.toComplex(at).re), real(Z.toComplex(Z.multiply(at, Z.conjugate(at))).re)]
  return Array.from({ length: times }, () => P.fromCoefficients(unknown, list))
}

/** The fraction that a number of many digits is, where it is one. */
function fractionOf(z: Z.Wide): NumberValue {
  const q = nearFraction(z)
  return q ? exactReal(q) : real(Z.toComplex(z).re)
}

/** s = c·(z − 1)/(z + 1), both sides times (z + 1)ⁿ (A. Tustin, 1947). */
export function bilinear(g: Transfer, c: Rational): readonly [Whole, Whole] {
  const degree = Math.max(W.degreeOf(g.top), W.degreeOf(g.bottom))
  const side = (p: Whole): Whole => {
    let sum: Whole = []
    for (const [k, factor] of p.entries()) {
      const powers = W.multiply(raised([-1n, 1n], k), raised([1n, 1n], degree - k))
      sum = W.add(sum, W.times(powers, factor * BigInt(c.n) ** BigInt(k) * BigInt(c.d) ** BigInt(degree - k)))
    }
    return sum
  }
  return [side(g.top), side(g.bottom)]
}
