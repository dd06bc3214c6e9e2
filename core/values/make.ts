import type { Complex } from '../numbers/complex'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { normalTurns } from '../numbers/turns'
import type { AngleValue, NumberValue, TextValue, TruthValue, Value, VectorValue } from './types'

class Scalar implements NumberValue {
  declare readonly kind: 'number'
  declare readonly re: number
  declare readonly im: number
  declare readonly pi: Gaussian | null
  declare readonly complex: boolean
  declare readonly bottom: number
  declare readonly top: number
  declare private parts: Gaussian | null

  constructor(
    re: number,
    im: number,
    parts: Gaussian | null,
    pi: Gaussian | null,
    complex: boolean,
    bottom: number,
    top: number,
  ) {
    this.kind = 'number'
    this.re = re
    this.im = im
    this.pi = pi
    this.complex = complex
    this.bottom = bottom
    this.top = top
    this.parts = parts
  }

  /** Of small numbers made when they are asked for: most are only passed through. */
  get exact(): Gaussian | null {
    return this.bottom === 0 ? this.parts : this.made()
  }

  private made(): Gaussian {
    const { re, im, bottom, top } = this
    this.parts ??= bottom === 1 ? G.gaussian(Q.whole(re), Q.whole(im)) : G.fromRational(Q.ratio(top, bottom))
    return this.parts
  }
}

// As of the first fractions: numbers that are kept from the start must have the shape of those to come. What is
// a small integer at most times must not be taken for one always, nor for a double.
void new Scalar(0.5, 0.5, G.I, G.I, true, null as never, null as never)

/** A rounded real number. */
export function real(re: number): NumberValue {
  return new Scalar(re + 0, 0, null, null, false, 0, 0)
}

/** A rounded number of either sort. */
export function rough(re: number, im: number, complex: boolean): NumberValue {
  return new Scalar(re + 0, im + 0, null, null, complex || im !== 0, 0, 0)
}

/** The same value of the other sort, if need be. */
export function ofSort(z: NumberValue, complex: boolean): NumberValue {
  if (z.complex === complex) return z
  return new Scalar(z.re, z.im, z.bottom === 0 ? z.exact : null, z.pi, complex, z.bottom, z.top)
}

/** The same value, with parts that are only as good as they are shown. */
export function shownAs(z: NumberValue, re: number, im: number): NumberValue {
  return re === z.re && im === z.im ? z : new Scalar(re, im, z.exact, z.pi, z.complex, 0, 0)
}

/** A rounded number of the complex sort. */
export function complexNumber(z: Complex): NumberValue {
  return new Scalar(z.re + 0, z.im + 0, null, null, true, 0, 0)
}

/** x + jy of two real numbers, exact where both are: a point, or a vector of two components. */
export function fromComponents(x: NumberValue, y: NumberValue): NumberValue {
  return x.exact && y.exact
    ? exactNumber(G.gaussian(x.exact.re, y.exact.re), true)
    : complexNumber({ re: x.re, im: y.re })
}

/** An exact number; of the complex sort where it has an imaginary part or `complex` says so. */
export function exactNumber(exact: Gaussian, complex = false): NumberValue {
  const { re, im } = exact
  if (im.n === 0) return exactOf(re, exact, complex)
  const whole = re.d === 1 && im.d === 1 && typeof re.n === 'number' && typeof im.n === 'number'
  return new Scalar(Q.toNumber(re), Q.toNumber(im), exact, null, true, whole ? 1 : 0, 0)
}

function exactOf({ n, d }: Rational, parts: Gaussian, complex: boolean): NumberValue {
  if (typeof n === 'number' && typeof d === 'number')
    return new Scalar(n / d, 0, parts, null, complex, d, d === 1 ? 0 : n)
  return new Scalar(Q.toNumber(parts.re), 0, parts, null, complex, 0, 0)
}

export function exactReal(q: Rational): NumberValue {
  const { n, d } = q
  return typeof n === 'number' && typeof d === 'number' ? reducedRatio(n, d) : exactOf(q, G.fromRational(q), false)
}

/** n/d in lowest terms, d > 0. */
export function reducedRatio(n: number, d: number): NumberValue {
  return d === 1 ? wholeNumber(n) : new Scalar(n / d, 0, null, null, false, d, n)
}

/** n/d of safe integers, d not 0. */
export function ratio(n: number, d: number): NumberValue {
  const g = Q.commonDivisor(n, d)
  return d < 0 ? reducedRatio(-n / g, -d / g) : reducedRatio(n / g, d / g)
}

export function integer(n: number): NumberValue {
  if (Number.isSafeInteger(n)) return wholeNumber(n)
  const q = Q.rational(n)
  return q ? exactReal(q) : real(n)
}

/** A safe integer; those that are met most are made once. */
export function wholeNumber(n: number): NumberValue {
  return n >= 0 && n < SMALL_COUNT ? (SMALL[n] ?? madeWhole(n)) : madeWhole(n + 0)
}

function madeWhole(n: number): NumberValue {
  return new Scalar(n, 0, null, null, false, 1, 0)
}

const SMALL_COUNT = 1000
const SMALL: readonly NumberValue[] = Array.from({ length: SMALL_COUNT }, (_, n) => madeWhole(n))

const MOST_SAFE = Number.MAX_SAFE_INTEGER

/** True for a whole number, the result of whole numbers, that is surely exact. */
export function isSafe(n: number): boolean {
  return n <= MOST_SAFE && n >= -MOST_SAFE
}

/** An exact number of two safe integers. */
export function wholeComplex(re: number, im: number, complex: boolean): NumberValue {
  return complex || im !== 0 ? new Scalar(re + 0, im + 0, null, null, true, 1, 0) : wholeNumber(re)
}

/** A number known to be `multiple`·π. */
export function multipleOfPi(multiple: Gaussian, complex = !G.isReal(multiple)): NumberValue {
  if (G.isZero(multiple)) return exactNumber(G.ZERO, complex)
  return new Scalar(timesPi(multiple.re), timesPi(multiple.im), null, multiple, complex || !G.isReal(multiple), 0, 0)
}

/** q·π, rounded as few times as can be. */
function timesPi(q: Rational): number {
  return typeof q.n === 'number' && typeof q.d === 'number' ? (q.n * Math.PI) / q.d : Q.toNumber(q) * Math.PI
}

/** An angle of so many radians, in no known fraction of a turn. */
export function angleOf(radians: number): AngleValue {
  return { kind: 'angle', radians: radians + 0, turns: null }
}

/** An angle of an exact fraction of a turn. */
export function angleOfTurns(turns: Rational): AngleValue {
  return { kind: 'angle', radians: timesPi(Q.multiply(turns, { n: 2, d: 1 }) ?? turns), turns }
}

/** The argument of a complex value: in (−π, π], exact on the axes and the diagonals. */
export function argumentOf(z: NumberValue): AngleValue {
  const turns = z.exact ? exactArgument(z.exact) : axisArgument(z)
  return turns ? angleOfTurns(turns) : angleOf(Math.atan2(z.im, z.re))
}

function axisArgument(z: Complex): Rational | null {
  if (z.im === 0) return z.re < 0 ? { n: 1, d: 2 } : z.re >= 0 ? Q.ZERO : null
  if (z.re === 0) return z.im > 0 ? { n: 1, d: 4 } : z.im < 0 ? { n: -1, d: 4 } : null
  return null
}

function exactArgument(z: Gaussian): Rational | null {
  const re = Q.sign(z.re)
  const im = Q.sign(z.im)
  if (im === 0) return re < 0 ? { n: 1, d: 2 } : Q.ZERO
  if (re === 0) return { n: im, d: 4 }
  const size = re > 0 ? z.re : Q.negate(z.re)
  const height = im > 0 ? z.im : Q.negate(z.im)
  if (!Q.equals(size, height)) return null
  return { n: im * (re > 0 ? 1 : 3), d: 8 }
}

/** An angle reduced to (−180°, 180°]. */
export function normalAngle(a: AngleValue): AngleValue {
  if (a.turns) return angleOfTurns(normalTurns(a.turns))
  if (a.radians > -Math.PI && a.radians <= Math.PI) return a
  return angleOf(Math.atan2(Math.sin(a.radians), Math.cos(a.radians)))
}

export function text(value: string): TextValue {
  return { kind: 'text', text: value }
}

/** Values in a row: no vector of space. */
export function valueList(items: readonly Value[]): VectorValue {
  return { kind: 'vector', items, list: true }
}

export function vector(items: readonly Value[]): VectorValue {
  return { kind: 'vector', items }
}

export function truth(value: boolean): TruthValue {
  return { kind: 'truth', truth: value }
}

/** True for a real number (of either sort) that is not NaN. */
export function isReal(z: NumberValue): boolean {
  return z.im === 0
}
