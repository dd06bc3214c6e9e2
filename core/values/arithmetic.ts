import {
  beyondOne,
  isBeyond,
  isZero,
  logarithm,
  product,
  quotient,
  root as farRoot,
  scaledOf,
  isNegative,
} from './beyond'
import * as C from '../numbers/complex'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { timesPowerOfTwo } from '../numbers/scale'
import { cosDegrees, cosTurns, sinDegrees, sinTurns } from '../numbers/turns'
import {
  complexNumber, exactNumber, exactReal, integer, isSafe, multipleOfPi, ofSort, ratio, real, reducedRatio, rough,
  wholeComplex, wholeNumber,
} from './make' // prettier-ignore
import type { AngleValue, NumberValue } from './types'
import { failure } from './failure'
import type { Failure } from './failure'

/** The rules of the operators on numbers: exact while it can be, doubles after that. */

const isFinite = (z: NumberValue): boolean => Number.isFinite(z.re) && Number.isFinite(z.im)

/** True where nothing has been rounded, π aside. */
const isKnown = (z: NumberValue): boolean => z.bottom !== 0 || z.pi !== null || z.exact !== null

/** A rounded result; a finite computation that left the range of doubles is an error. */
export function rounded(z: C.Complex, complex: boolean, a: NumberValue, b: NumberValue = a): NumberValue | Failure {
  return measured(z.re, z.im, complex, a, b)
}

/** The same from its parts. What is rare is kept out of it, here and in the operators below, so that they stay small. */
function measured(re: number, im: number, complex: boolean, a: NumberValue, b: NumberValue): NumberValue | Failure {
  // x − x is 0 for what is finite, NaN for what is not.
  if (re - re + (im - im) === 0) return rough(re, im, complex)
  return beyond(re, im, complex, a, b)
}

function beyond(re: number, im: number, complex: boolean, a: NumberValue, b: NumberValue): NumberValue | Failure {
  // An exact number is finite, whatever its double has become.
  if ((!a.exact && !isFinite(a)) || (!b.exact && !isFinite(b))) return rough(re, im, complex)
  const large = C.isInfinite({ re, im }) || (a.exact && !isFinite(a)) || (b.exact && !isFinite(b))
  return large ? failure('too-large') : undefinedNumber(complex)
}

export function undefinedNumber(complex = false): NumberValue {
  return ofSort(real(NaN), complex)
}

export function add(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  const re = a.re + b.re
  const im = a.im + b.im
  if (a.bottom === 1 && b.bottom === 1 && isSafe(re) && isSafe(im)) return wholeComplex(re, im, complex)
  const known = isKnown(a) && isKnown(b) ? knownSum(a, b, complex, 1) : null
  return known ?? measured(re, im, complex, a, b)
}

export function subtract(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  const re = a.re - b.re
  const im = a.im - b.im
  if (a.bottom === 1 && b.bottom === 1 && isSafe(re) && isSafe(im)) return wholeComplex(re, im, complex)
  const known = isKnown(a) && isKnown(b) ? knownSum(a, b, complex, -1) : null
  return known ?? measured(re, im, complex, a, b)
}

/** The numerator of a small real number over its {@link NumberValue.bottom}. */
const topOf = (z: NumberValue): number => (z.bottom === 1 ? z.re : z.top)

/** a + sign·b of exact numbers or of multiples of π, of which one may be 0; `null` where they are neither. */
function knownSum(a: NumberValue, b: NumberValue, complex: boolean, sign: 1 | -1): NumberValue | null {
  const small = !complex && a.bottom !== 0 && b.bottom !== 0 ? ratioSum(a, b, sign) : null
  return small ?? knownSumOf(a, b, complex, sign)
}

/** The same of small real numbers; `null` where a part is no safe integer. */
function ratioSum(a: NumberValue, b: NumberValue, sign: 1 | -1): NumberValue | null {
  const left = topOf(a) * b.bottom
  const right = sign * topOf(b) * a.bottom
  const n = left + right
  const d = a.bottom * b.bottom
  if (!(isSafe(left) && isSafe(right) && isSafe(n) && isSafe(d))) return null
  // With a whole number the sum of fractions in lowest terms is in lowest terms.
  return a.bottom === 1 || b.bottom === 1 ? reducedRatio(n + 0, d) : ratio(n, d)
}

function knownSumOf(a: NumberValue, b: NumberValue, complex: boolean, sign: 1 | -1): NumberValue | null {
  const pi = a.pi !== null || b.pi !== null
  const left = pi ? overPi(a) : a.exact
  const right = pi ? overPi(b) : b.exact
  if (left === null || right === null) return null
  const value = sign > 0 ? G.add(left, right) : G.subtract(left, right)
  return value && (pi ? multipleOfPi(value, complex) : exactNumber(value, complex))
}

/** z/π of a multiple of π; `null` of other numbers. */
function overPi(z: NumberValue): Gaussian | null {
  return z.pi ?? (z.exact && G.isZero(z.exact) ? G.ZERO : null)
}

export function negate(a: NumberValue): NumberValue {
  if (a.bottom === 1) return wholeComplex(0 - a.re, 0 - a.im, a.complex)
  if (a.exact) return exactNumber(G.negate(a.exact), a.complex)
  if (a.pi) return multipleOfPi(G.negate(a.pi), a.complex)
  return rough(0 - a.re, 0 - a.im, a.complex)
}

export function multiply(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  const known = isKnown(a) && isKnown(b) ? (knownProduct(a, b, complex) ?? farProduct(a, b, complex)) : null
  if (known) return known
  if (!complex) return measured(a.re * b.re, 0, false, a, b)
  const { re, im } = C.multiply(a, b)
  return measured(re, im, true, a, b)
}

/** A product of exact numbers, of which one may have the factor π; `null` where it is none. */
function knownProduct(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | null {
  return smallProduct(a, b, complex) ?? exactProduct(a, b, complex)
}

function smallProduct(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | null {
  if (complex) return a.bottom === 1 && b.bottom === 1 ? wholeProduct(a, b) : null
  const d = a.bottom * b.bottom
  const n = topOf(a) * topOf(b)
  if (d === 0 || !isSafe(d) || !isSafe(n)) return null
  return d === 1 ? wholeNumber(n) : ratio(n, d)
}

function exactProduct(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | null {
  const pi = a.pi ?? b.pi
  const factor = a.pi ? b.exact : a.exact
  const other = pi ?? b.exact
  const value = factor && other && G.multiply(other, factor)
  return value && (pi ? multipleOfPi(value, complex) : exactNumber(value, complex))
}

/** Whole parts below this have products and sums that are safe integers. */
const SMALL = 2 ** 25

function isSmall({ re, im }: NumberValue): boolean {
  return re < SMALL && re > -SMALL && im < SMALL && im > -SMALL
}

function wholeProduct(a: NumberValue, b: NumberValue): NumberValue | null {
  if (!isSmall(a) || !isSmall(b)) return null
  return wholeComplex(a.re * b.re - a.im * b.im, a.re * b.im + a.im * b.re, true)
}

/** a/b: 7/0 is ∞, 0/0 undefined; a complex quotient by zero is ∞ without a direction. */
export function divide(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  if (b.re === 0 && b.im === 0 && !isBeyond(b)) return overZero(a, complex)
  const known = isKnown(a) && isKnown(b) ? (knownQuotient(a, b, complex) ?? farQuotient(a, b, complex)) : null
  if (known) return known
  if (!complex) return measured(a.re / b.re, 0, false, a, b)
  const { re, im } = C.divide(a, b)
  return measured(re, im, true, a, b)
}

/** A product that is not exact any more, of numbers of which one lies beyond the range of doubles; `null` for others. */
function farProduct(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | Failure | null {
  if (!isBeyond(a) && !isBeyond(b)) return null
  const [x, y] = [scaledOf(a), scaledOf(b)]
  return x && y ? rounded(product(x, y), complex, a, b) : null
}

function farQuotient(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | Failure | null {
  if (!isBeyond(a) && !isBeyond(b)) return null
  const [x, y] = [scaledOf(a), scaledOf(b)]
  return x && y ? rounded(quotient(x, y), complex, a, b) : null
}

function overZero(a: NumberValue, complex: boolean): NumberValue {
  if ((a.re === 0 && a.im === 0) || Number.isNaN(a.re)) return undefinedNumber(complex)
  if (a.im !== 0) return complexNumber({ re: Infinity, im: 0 })
  return ofSort(real(a.re > 0 ? Infinity : -Infinity), complex)
}

/** A quotient of exact numbers, also of multiples of π; `null` where it is none. */
function knownQuotient(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | null {
  return smallQuotient(a, b, complex) ?? exactQuotient(a, b, complex)
}

function smallQuotient(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | null {
  if (complex) return a.bottom === 1 && b.bottom === 1 ? wholeQuotient(a, b) : null
  if (a.bottom === 0 || b.bottom === 0) return null
  const n = topOf(a) * b.bottom
  const d = a.bottom * topOf(b)
  return isSafe(n) && isSafe(d) ? ratio(n, d) : null
}

function wholeQuotient(a: NumberValue, b: NumberValue): NumberValue | null {
  if (b.im === 0) return wholeOver(a.re, a.im, b.re)
  if (!isSmall(a) || !isSmall(b)) return null
  return wholeOver(a.re * b.re + a.im * b.im, a.im * b.re - a.re * b.im, b.re * b.re + b.im * b.im)
}

/** re/d + j·im/d of safe integers, d not 0. */
function wholeOver(re: number, im: number, d: number): NumberValue | null {
  const x = re / d
  const y = im / d
  // Where d does not divide a part its quotient is not whole, or was rounded to be.
  if (Math.floor(x) === x && Math.floor(y) === y && x * d === re && y * d === im) return wholeComplex(x, y, true)
  const parts = G.fromSmall(re, im, d)
  return parts && exactNumber(parts, true)
}

function exactQuotient(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | null {
  const top = a.pi ?? a.exact
  const bottom = b.pi ?? b.exact
  // An exact number over a multiple of π is neither.
  if (!top || !bottom || (b.pi && !a.pi)) return null
  const value = G.divide(top, bottom)
  return value && (a.pi && !b.pi ? multipleOfPi(value, complex) : exactNumber(value, complex))
}

/** a − n·⌊a/n⌋ for real numbers. */
export function modulo(a: NumberValue, n: NumberValue): NumberValue | Failure {
  if (a.im !== 0 || n.im !== 0) return failure('real-needed', { operator: 'mod' })
  if (isZero(n)) return undefinedNumber()
  if (a.exact && n.exact) {
    const value = Q.modulo(a.exact.re, n.exact.re)
    if (value) return exactNumber(G.fromRational(value))
  }
  const rest = a.re % n.re
  return rounded({ re: rest !== 0 && rest < 0 !== n.re < 0 ? rest + n.re : rest, im: 0 }, false, a, n)
}

/** √n of a safe integer that is not negative, where it is whole. */
function wholeRootOf(n: number): number | null {
  const root = Math.round(Math.sqrt(n))
  return root * root === n ? root : null
}

/** √(n/d) of such integers, where it is rational. */
function ratioRoot(n: number, d: number): NumberValue | null {
  const top = wholeRootOf(n)
  const bottom = wholeRootOf(d)
  return top === null || bottom === null ? null : reducedRatio(top, bottom)
}

/** The exact square root of a rational that has one. */
export function exactRoot(q: Rational): Rational | null {
  if (Q.sign(q) < 0) return null
  if (typeof q.n === 'number' && typeof q.d === 'number') {
    const n = wholeRootOf(q.n)
    const d = wholeRootOf(q.d)
    return n !== null && d !== null ? Q.ratio(n, d) : null
  }
  return exactNthRoot(q, 2)
}

/** The n-th root of a rational that has a rational one; `null` for others. */
export function exactNthRoot(q: Rational, n: number): Rational | null {
  if (Q.sign(q) < 0) return null
  const [top, bottom] = [wholeNthRoot(BigInt(q.n), n), wholeNthRoot(BigInt(q.d), n)]
  return top !== null && bottom !== null ? Q.fromBig(top, bottom) : null
}

function wholeNthRoot(value: bigint, n: number): bigint | null {
  if (value < 2n) return value
  const order = BigInt(n)
  // Newton's iteration from above on integers.
  let x = 1n << BigInt(Math.ceil(Q.bitLength(value) / n))
  for (;;) {
    const next = ((order - 1n) * x + value / x ** (order - 1n)) / order
    if (next >= x) return x ** order === value ? x : null
    x = next
  }
}

/** The n-th root of a positive exact number beyond the range of doubles. */
export function farNthRoot(z: NumberValue, n: number): NumberValue | Failure | null {
  const far = isBeyond(z) && z.im === 0 ? scaledOf(z) : null
  if (!far) return null
  const rest = ((far.exponent % n) + n) % n
  const root = n === 3 ? Math.cbrt(far.z.re * 2 ** rest) : (far.z.re * 2 ** rest) ** (1 / n)
  return rounded({ re: timesPowerOfTwo(root, (far.exponent - rest) / n), im: 0 }, z.complex, z)
}

/** The principal square root; exact for squares of rationals. */
export function squareRoot(a: NumberValue): NumberValue | Failure {
  const root = a.im === 0 && isKnown(a) ? knownRoot(a) : null
  if (root) return root
  const far = isBeyond(a) ? scaledOf(a) : null
  if (far) return rounded(farRoot(far), a.complex || far.z.im !== 0 || far.z.re < 0, a)
  if (a.im === 0 && a.re >= 0) return measured(Math.sqrt(a.re), 0, a.complex, a, a)
  return rounded(C.sqrt(a), a.complex, a)
}

/** The root of an exact real number, where it is rational but for the imaginary unit. */
function knownRoot(a: NumberValue): NumberValue | null {
  const root = a.bottom === 0 ? bigRoot(a) : ratioRoot(Math.abs(topOf(a)), a.bottom)
  if (!root || !isNegative(a)) return root && ofSort(root, a.complex)
  return root.exact && exactNumber(G.gaussian(Q.ZERO, root.exact.re), true)
}

function bigRoot({ exact }: NumberValue): NumberValue | null {
  const root = exact && exactRoot(absolute(exact.re))
  return root && exactReal(root)
}

/** e^z: exact on quarter and twelfth turns of a pure imaginary multiple of π. */
export function exponential(z: NumberValue): NumberValue | Failure {
  if (z.pi && Q.isZero(z.pi.re)) {
    const turns = Q.multiply(z.pi.im, { n: 1, d: 2 })
    if (turns) return onUnitCircle(turns)
  }
  if (z.exact && G.isZero(z.exact)) return exactNumber(G.ONE, z.complex)
  if (z.re === Infinity && z.im === 0) return real(Infinity)
  return rounded(C.exp(z), z.complex, z)
}

/** cos θ + j sin θ for an exact fraction of a turn. */
export function onUnitCircle(turns: Rational): NumberValue {
  const c = cosTurns(turns)
  const s = sinTurns(turns)
  return c.exact && s.exact
    ? exactNumber(G.gaussian(c.exact, s.exact), true)
    : complexNumber({ re: c.value, im: s.value })
}

/** cos θ + j sin θ of an angle: exact where its turns are, reduced in degrees where it was made of them. */
export function onUnitCircleAt(angle: AngleValue): NumberValue {
  if (angle.turns) return onUnitCircle(angle.turns)
  const { degrees } = angle
  if (degrees === undefined) return complexNumber(C.polar(1, angle.radians))
  return complexNumber({ re: cosDegrees(degrees), im: sinDegrees(degrees) })
}

/** The principal power a^b; an exact base to an integer exponent stays exact. */
export function power(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  if (a.re === Math.E && a.im === 0 && !a.exact) return exponential(b)
  if (b.im === 0 && (b.bottom !== 0 || b.exact !== null)) {
    if (a.re === 0 && a.im === 0 && !isBeyond(a)) return powerOfZero(a, b)
    const unit = a.exact && b.bottom !== 1 ? unitPower(a.exact, b, complex) : null
    if (unit) return unit
    const known = b.bottom === 1 ? wholePower(a, b.re, complex) : rootPower(a, b, complex)
    if (known) return known
  }
  return lostPower(a, b, complex) ?? rounded(C.power(a, b), complex, a, b)
}

/** A power of an exact number of which the double has lost something: beyond its range, or near 1. `null` for others. */
function lostPower(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | Failure | null {
  const far = isBeyond(a) ? scaledOf(a) : null
  if (far) {
    const power = C.exp(C.multiply(b, logarithm(far)))
    return rounded(power, complex || power.im !== 0, a, b)
  }
  const difference = beyondOne(a)
  if (difference === null) return null
  return rounded(C.exp(C.multiply(b, { re: Math.log1p(difference), im: 0 })), complex, a, b)
}

/** Whole exponents up to this go through plain products. */
const SMALL_EXPONENT = 64

function wholePower(a: NumberValue, exponent: number, complex: boolean): NumberValue | null {
  const small = !complex && a.bottom !== 0 && exponent > 0 && exponent < SMALL_EXPONENT
  const value = (small ? ratioPower(a, exponent) : null) ?? (a.exact && exactPower(a.exact, exponent, complex))
  return value ?? (exponent === 1 ? a : null)
}

/** 1, −1, j and −j to a whole exponent too large for a double: its last bits decide. */
function unitPower(a: Gaussian, b: NumberValue, complex: boolean): NumberValue | null {
  const exponent = b.exact?.re
  if (!exponent || exponent.d !== 1) return null
  const units = [G.ONE, G.I, G.negate(G.ONE), G.negate(G.I)]
  const turn = units.findIndex((u) => G.equals(u, a))
  if (turn < 0) return null
  const quarter = Number((((BigInt(exponent.n) * BigInt(turn)) % 4n) + 4n) % 4n)
  return exactNumber(units[quarter] ?? G.ONE, complex)
}

/** Powers of coprime numbers are coprime. */
function ratioPower(a: NumberValue, exponent: number): NumberValue | null {
  const n = Q.smallPower(topOf(a), exponent)
  const d = a.bottom === 1 ? 1 : Q.smallPower(a.bottom, exponent)
  return n === null || d === null ? null : reducedRatio(n, d)
}

function exactPower(a: Gaussian, exponent: number, complex: boolean): NumberValue | null {
  const value = G.power(a, exponent)
  return value && exactNumber(value, complex)
}

/** An exact power of the exact square root, where there is one: 4^(3/2). */
function rootPower(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | null {
  const exponent = b.exact?.re
  if (exponent?.d !== 2 || !a.exact || !G.isReal(a.exact)) return null
  const root = squareRoot(a)
  if (root.kind !== 'number' || !root.exact) return null
  const value = power(root, exactNumber({ re: { n: exponent.n, d: 1 }, im: Q.ZERO }, complex))
  return value.kind === 'number' ? value : null
}

function powerOfZero(a: NumberValue, b: NumberValue): NumberValue {
  if (b.re > 0 || (b.exact && Q.sign(b.exact.re) > 0)) return exactNumber(G.ZERO, a.complex)
  if (isZero(b)) return exactNumber(G.ONE, a.complex)
  return ofSort(real(Infinity), a.complex)
}

/** The parallel combination 1/(1/a + 1/b) = a·b/(a + b); 0 where either is 0. */
export function parallel(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  if (isZero(a) || isZero(b)) return exactNumber(G.ZERO, complex)
  if (!isFinite(a) && C.isInfinite(a)) return b
  if (!isFinite(b) && C.isInfinite(b)) return a
  const one = integer(1)
  const left = divide(one, a)
  if (left.kind === 'failure') return left
  const right = divide(one, b)
  if (right.kind === 'failure') return right
  const sum = add(left, right)
  if (sum.kind === 'failure') return sum
  const result = divide(one, sum)
  return result.kind === 'failure' ? result : ofSort(result, complex || result.complex)
}

/** |z|, exact where it is a rational. */
export function magnitude(z: NumberValue): NumberValue | Failure {
  const known = isKnown(z) ? (smallMagnitude(z) ?? exactMagnitude(z)) : null
  return known ?? measured(C.abs(z), 0, false, z, z)
}

function smallMagnitude(z: NumberValue): NumberValue | null {
  if (z.bottom === 0) return null
  if (z.im === 0) return reducedRatio(Math.abs(topOf(z)), z.bottom)
  return isSmall(z) ? ratioRoot(z.re * z.re + z.im * z.im, 1) : null
}

function exactMagnitude(z: NumberValue): NumberValue | null {
  if (z.pi) return G.isReal(z.pi) ? multipleOfPi(G.fromRational(absolute(z.pi.re))) : null
  if (!z.exact) return null
  const square = G.isReal(z.exact) ? null : G.squaredMagnitude(z.exact)
  const size = G.isReal(z.exact) ? absolute(z.exact.re) : square && exactRoot(square)
  return size && exactReal(size)
}

function absolute(q: Rational): Rational {
  return Q.sign(q) < 0 ? Q.negate(q) : q
}

/** Equality: exact where both are; NaN equals nothing. */
export function equal(a: NumberValue, b: NumberValue): boolean {
  if (a.exact && b.exact) return G.equals(a.exact, b.exact)
  if (a.pi && b.pi) return G.equals(a.pi, b.pi)
  return a.re === b.re && a.im === b.im
}

/** −1, 0, 1 for real numbers; `null` where they have no order. */
export function order(a: NumberValue, b: NumberValue): -1 | 0 | 1 | null {
  if (a.im !== 0 || b.im !== 0 || Number.isNaN(a.re) || Number.isNaN(b.re)) return null
  if (a.exact && b.exact) return Q.compare(a.exact.re, b.exact.re)
  return a.re < b.re ? -1 : a.re > b.re ? 1 : 0
}

/** z̄. */
export function conjugate(z: NumberValue): NumberValue {
  if (z.bottom === 1) return wholeComplex(z.re, 0 - z.im, z.complex)
  if (z.exact) return exactNumber(G.conjugate(z.exact), z.complex)
  if (z.pi) return multipleOfPi(G.conjugate(z.pi), z.complex)
  return z.complex ? complexNumber({ re: z.re, im: 0 - z.im }) : z
}
