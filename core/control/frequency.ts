import type { Complex } from '../numbers/complex'
import * as W from './whole'
import type { Whole } from './whole'
import * as Z from './wide'

/**
 * A transfer function on the imaginary axis, by polynomials in x = ω². With N(jω) = a(x) + jω·b(x), and D likewise,
 * |N|² = a² + x·b², and N·D* = even(x) + jω·odd(x): crossovers are their roots.
 */
export interface OnAxis {
  /** |N|² and |D|². */
  readonly above: Whole
  readonly below: Whole
  /** The real part of N·D*, and its imaginary part by ω. */
  readonly even: Whole
  readonly odd: Whole
}

/** a and b of p(jω) = a(ω²) + jω·b(ω²). */
export function halves(p: Whole): readonly [Whole, Whole] {
  const signed = (k: number): bigint => (Math.floor(k / 2) % 2 === 0 ? W.coefficient(p, k) : -W.coefficient(p, k))
  const pick = (from: number): Whole =>
    W.trimmed(Array.from({ length: Math.ceil((p.length - from) / 2) }, (_, i) => signed(2 * i + from)))
  return [pick(0), pick(1)]
}

const X: Whole = [0n, 1n]

export function onAxis(top: Whole, bottom: Whole): OnAxis {
  const [a, b] = halves(top)
  const [c, d] = halves(bottom)
  const times = W.multiply
  return {
    above: W.add(times(a, a), times(X, times(b, b))),
    below: W.add(times(c, c), times(X, times(d, d))),
    even: W.add(times(a, c), times(X, times(b, d))),
    odd: W.subtract(times(b, c), times(a, d)),
  }
}

/** Top and bottom of G((1 + w)/(1 − w)): the unit circle z = e^(jωT) becomes the axis w = j·tan(ωT/2). */
export function fromCircle(top: Whole, bottom: Whole): readonly [Whole, Whole] {
  const degree = Math.max(W.degreeOf(top), W.degreeOf(bottom))
  return [onPlane(top, degree), onPlane(bottom, degree)]
}

/** (1 − w)ⁿ·p((1 + w)/(1 − w)). */
export function onPlane(p: Whole, degree: number): Whole {
  let sum: Whole = []
  for (const [k, c] of p.entries())
    sum = W.add(sum, W.times(W.multiply(raised([1n, 1n], k), raised([1n, -1n], degree - k)), c))
  return sum
}

export function raised(p: Whole, exponent: number): Whole {
  let result: Whole = W.ONE
  for (let k = 0; k < exponent; k += 1) result = W.multiply(result, p)
  return result
}

/** The ratio at jω; ω is positive, or ∞, or 0. Where it has a pole there its magnitude is ∞. */
export function valueAtFrequency(axis: OnAxis, w: number): Complex {
  if (w === Infinity) return limit(axis)
  const x = Z.multiply(Z.fromNumber(w), Z.fromNumber(w))
  const below = Z.valueAt(axis.below, x)
  if (Z.isZero(below)) return { re: Infinity, im: 0 }
  const re = Z.divide(Z.valueAt(axis.even, x), below)
  const im = Z.divide(Z.multiply(Z.valueAt(axis.odd, x), Z.fromNumber(w)), below)
  return { re: Z.toComplex(re).re, im: Z.toComplex(im).re }
}

function limit({ even, below }: OnAxis): Complex {
  if (W.degreeOf(even) < W.degreeOf(below)) return { re: 0, im: 0 }
  const q = Z.divide(Z.fromWhole(W.leading(even)), Z.fromWhole(W.leading(below)))
  return { re: Z.toComplex(q).re, im: 0 }
}
