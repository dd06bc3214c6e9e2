import type { Complex } from '../numbers/complex'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { normalTurns } from '../numbers/turns'
import type { AngleValue, NumberValue, TextValue, TruthValue, Value, VectorValue } from './value'

class Scalar implements NumberValue {
  declare readonly kind: 'number'
  declare readonly re: number
  declare readonly im: number
  declare readonly pi: Gaussian | null
  declare readonly complex: boolean
  declare readonly whole: boolean
  declare private parts: Gaussian | null

  constructor(re: number, im: number, parts: Gaussian | null, pi: Gaussian | null, complex: boolean, whole: boolean) {
    this.kind = 'number'
    this.re = re
    this.im = im
    this.pi = pi
    this.complex = complex
    this.whole = whole
    this.parts = parts
  }

  /** Of whole numbers made when they are asked for: most are only passed through. */
  get exact(): Gaussian | null {
    return this.whole ? this.made() : this.parts
  }

  private made(): Gaussian {
    this.parts ??= G.gaussian(Q.whole(this.re), Q.whole(this.im))
    return this.parts
  }
}

// As of the first fractions: numbers that are kept from the start must have the shape of those to come.
void new Scalar(0.5, 0.5, G.UNIT, G.UNIT, true, false)

/** A rounded real number. */
export function real(re: number): NumberValue {
  return new Scalar(re + 0, 0, null, null, false, false)
}

/** A rounded number of either sort. */
export function rough(re: number, im: number, complex: boolean): NumberValue {
  return new Scalar(re + 0, im + 0, null, null, complex || im !== 0, false)
}

/** The same value of the other sort, if need be. */
export function ofSort(z: NumberValue, complex: boolean): NumberValue {
  if (z.complex === complex) return z
  return new Scalar(z.re, z.im, z.whole ? null : z.exact, z.pi, complex, z.whole)
}

/** The same value, with parts that are only as good as they are shown. */
export function shownAs(z: NumberValue, re: number, im: number): NumberValue {
  return re === z.re && im === z.im ? z : new Scalar(re, im, z.exact, z.pi, z.complex, false)
}

/** A rounded number of the complex sort. */
export function complexNumber(z: Complex): NumberValue {
  return new Scalar(z.re + 0, z.im + 0, null, null, true, false)
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
  const isReal = im.n === 0
  const whole = re.d === 1 && im.d === 1 && typeof re.n === 'number' && typeof im.n === 'number'
  return new Scalar(Q.toNumber(re), isReal ? 0 : Q.toNumber(im), exact, null, complex || !isReal, whole)
}

export function exactReal(q: Rational): NumberValue {
  if (q.d === 1 && typeof q.n === 'number') return wholeNumber(q.n)
  return new Scalar(Q.toNumber(q), 0, G.fromRational(q), null, false, false)
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
  return new Scalar(n, 0, null, null, false, true)
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
  return complex || im !== 0 ? new Scalar(re + 0, im + 0, null, null, true, true) : wholeNumber(re)
}

/** A number known to be `multiple`·π. */
export function multipleOfPi(multiple: Gaussian, complex = !G.isReal(multiple)): NumberValue {
  if (G.isZero(multiple)) return exactNumber(G.ZERO, complex)
  return new Scalar(timesPi(multiple.re), timesPi(multiple.im), null, multiple, complex || !G.isReal(multiple), false)
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
