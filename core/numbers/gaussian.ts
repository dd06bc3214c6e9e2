import * as Q from './rational'
import type { Rational } from './rational'

/** Exact complex numbers with rational parts (Gaussian rationals). */
export interface Gaussian {
  readonly re: Rational
  readonly im: Rational
}

class Pair implements Gaussian {
  declare readonly re: Rational
  declare readonly im: Rational

  constructor(re: Rational, im: Rational) {
    this.re = re
    this.im = im
  }
}

export const ZERO: Gaussian = new Pair(Q.ZERO, Q.ZERO)
export const ONE: Gaussian = new Pair(Q.ONE, Q.ZERO)
export const I: Gaussian = new Pair(Q.ZERO, Q.ONE)

export function gaussian(re: Rational, im: Rational): Gaussian {
  return new Pair(re, im)
}

export function fromRational(re: Rational): Gaussian {
  return new Pair(re, Q.ZERO)
}

/** Joins two parts that may have outgrown the bit budget; `null` when either has. */
function join(re: Rational | null, im: Rational | null): Gaussian | null {
  return re === null || im === null ? null : new Pair(re, im)
}

export function isReal(a: Gaussian): boolean {
  return Q.isZero(a.im)
}

export function isZero(a: Gaussian): boolean {
  return Q.isZero(a.re) && Q.isZero(a.im)
}

export function equals(a: Gaussian, b: Gaussian): boolean {
  return Q.equals(a.re, b.re) && Q.equals(a.im, b.im)
}

export function negate(a: Gaussian): Gaussian {
  return new Pair(Q.negate(a.re), Q.negate(a.im))
}

export function conjugate(a: Gaussian): Gaussian {
  return new Pair(a.re, Q.negate(a.im))
}

export function add(a: Gaussian, b: Gaussian): Gaussian | null {
  if (isReal(a) && isReal(b)) return join(Q.add(a.re, b.re), Q.ZERO)
  return join(Q.add(a.re, b.re), Q.add(a.im, b.im))
}

export function subtract(a: Gaussian, b: Gaussian): Gaussian | null {
  if (isReal(a) && isReal(b)) return join(Q.subtract(a.re, b.re), Q.ZERO)
  return join(Q.subtract(a.re, b.re), Q.subtract(a.im, b.im))
}

function products(a: Rational, b: Rational, c: Rational, d: Rational): Rational | null {
  const left = Q.multiply(a, b)
  const right = Q.multiply(c, d)
  return left && right && Q.add(left, right)
}

/** Whole parts below this have products and sums that are whole numbers of doubles. */
const SMALL = 2 ** 25

function isSmall(a: Gaussian): boolean {
  const { re, im } = a
  if (re.d !== 1 || im.d !== 1 || typeof re.n !== 'number' || typeof im.n !== 'number') return false
  return re.n < SMALL && re.n > -SMALL && im.n < SMALL && im.n > -SMALL
}

/** The product of two numbers with small whole parts, in plain arithmetic. */
function smallProduct(a: Gaussian, b: Gaussian): Gaussian {
  const ar = a.re.n as number
  const ai = a.im.n as number
  const br = b.re.n as number
  const bi = b.im.n as number
  return new Pair(Q.whole(ar * br - ai * bi + 0), Q.whole(ar * bi + ai * br + 0))
}

export function multiply(a: Gaussian, b: Gaussian): Gaussian | null {
  if (isReal(a) && isReal(b)) return join(Q.multiply(a.re, b.re), Q.ZERO)
  if (isSmall(a) && isSmall(b)) return smallProduct(a, b)
  return join(products(a.re, b.re, Q.negate(a.im), b.im), products(a.re, b.im, a.im, b.re))
}

/** re/d + j·im/d from safe integers; `null` where d is 0. */
export function fromSmall(re: number, im: number, d: number): Gaussian | null {
  return join(Q.fromSmall(re, d), Q.fromSmall(im, d))
}

/** The quotient of two numbers with small whole parts, the second not real. */
function smallQuotient(a: Gaussian, b: Gaussian): Gaussian | null {
  const ar = a.re.n as number
  const ai = a.im.n as number
  const br = b.re.n as number
  const bi = b.im.n as number
  return fromSmall(ar * br + ai * bi, ai * br - ar * bi, br * br + bi * bi)
}

/** |a|², a rational. */
export function squaredMagnitude(a: Gaussian): Rational | null {
  return products(a.re, a.re, a.im, a.im)
}

/** a/b; `null` where b is 0. */
export function divide(a: Gaussian, b: Gaussian): Gaussian | null {
  if (isReal(b)) return join(Q.divide(a.re, b.re), isReal(a) ? (Q.isZero(b.re) ? null : Q.ZERO) : Q.divide(a.im, b.re))
  if (isSmall(a) && isSmall(b)) return smallQuotient(a, b)
  const size = squaredMagnitude(b)
  const top = multiply(a, conjugate(b))
  return size && top && join(Q.divide(top.re, size), Q.divide(top.im, size))
}

/** a to an integer power; `null` for 0 to a negative power or beyond the bit budget. */
export function power(a: Gaussian, exponent: number): Gaussian | null {
  if (isReal(a)) return join(Q.power(a.re, exponent), Q.ZERO)
  if (!Number.isInteger(exponent) || Math.abs(exponent) > Q.MAX_BITS) return null
  if (exponent < 0) {
    const inverse = divide(ONE, a)
    return inverse && power(inverse, -exponent)
  }
  let result: Gaussian | null = ONE
  let base: Gaussian | null = a
  for (let e = exponent; e > 0; e >>= 1) {
    if (base === null || result === null) return null
    if (e & 1) result = multiply(result, base)
    if (e > 1) base = multiply(base, base)
  }
  return result
}
