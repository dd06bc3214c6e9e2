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
  declare readonly exact: Gaussian | null
  declare readonly pi: Gaussian | null
  declare readonly complex: boolean

  constructor(re: number, im: number, exact: Gaussian | null, pi: Gaussian | null, complex: boolean) {
    this.kind = 'number'
    this.re = re
    this.im = im
    this.exact = exact
    this.pi = pi
    this.complex = complex
  }
}

/** A rounded real number. */
export function real(re: number): NumberValue {
  return new Scalar(re + 0, 0, null, null, false)
}

/** The same value of the other sort, if need be. */
export function ofSort(z: NumberValue, complex: boolean): NumberValue {
  return z.complex === complex ? z : new Scalar(z.re, z.im, z.exact, z.pi, complex)
}

/** A rounded number of the complex sort. */
export function complexNumber(z: Complex): NumberValue {
  return new Scalar(z.re + 0, z.im + 0, null, null, true)
}

/** An exact number; of the complex sort where it has an imaginary part or `complex` says so. */
export function exactNumber(exact: Gaussian, complex = false): NumberValue {
  const isReal = exact.im.n === 0
  return new Scalar(Q.toNumber(exact.re), isReal ? 0 : Q.toNumber(exact.im), exact, null, complex || !isReal)
}

export function exactReal(q: Rational): NumberValue {
  return exactNumber(G.fromRational(q))
}

export function integer(n: number): NumberValue {
  if (Number.isSafeInteger(n)) return wholeNumber(n)
  const q = Q.rational(n)
  return q ? exactReal(q) : real(n)
}

/** A plain real number that is a safe integer. */
export function isWhole(z: NumberValue): boolean {
  return z.exact !== null && z.exact.re.d === 1 && !z.complex && z.re <= MOST_SAFE && z.re >= -MOST_SAFE
}

const MOST_SAFE = Number.MAX_SAFE_INTEGER

/** The same from its value; those that are met most are made once. */
export function wholeNumber(n: number): NumberValue {
  return n >= 0 && n < SMALL_COUNT ? (SMALL[n] ?? madeWhole(n)) : madeWhole(n + 0)
}

function madeWhole(n: number): NumberValue {
  return new Scalar(n, 0, G.fromRational(Q.whole(n)), null, false)
}

const SMALL_COUNT = 1000
const SMALL: readonly NumberValue[] = Array.from({ length: SMALL_COUNT }, (_, n) => madeWhole(n))

/** A number known to be `multiple`·π. */
export function multipleOfPi(multiple: Gaussian, complex = !G.isReal(multiple)): NumberValue {
  if (G.isZero(multiple)) return exactNumber(G.ZERO, complex)
  return new Scalar(timesPi(multiple.re), timesPi(multiple.im), null, multiple, complex || !G.isReal(multiple))
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
