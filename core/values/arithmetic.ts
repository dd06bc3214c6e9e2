import * as C from '../numbers/complex'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { cosTurns, sinTurns } from '../numbers/turns'
import {
  complexNumber, exactNumber, integer, isSafe, multipleOfPi, ofSort, real, wholeComplex,
} from './make' // prettier-ignore
import type { Failure, NumberValue } from './value'
import { failure } from './value'

/** The rules of the operators on numbers: exact while it can be, doubles after that. */

const isFinite = (z: NumberValue): boolean => Number.isFinite(z.re) && Number.isFinite(z.im)

/** A rounded result; a finite computation that left the range of doubles is an error. */
export function rounded(z: C.Complex, complex: boolean, a: NumberValue, b: NumberValue = a): NumberValue | Failure {
  // x − x is 0 for what is finite, NaN for what is not.
  if (z.re - z.re + (z.im - z.im) !== 0 && isFinite(a) && isFinite(b)) {
    return C.isInfinite(z) ? failure('too-large') : undefinedNumber(complex)
  }
  return complex || z.im !== 0 ? complexNumber(z) : real(z.re)
}

export function undefinedNumber(complex = false): NumberValue {
  return ofSort(real(NaN), complex)
}

export function add(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  if (a.whole && b.whole) {
    const re = a.re + b.re
    const im = a.im + b.im
    if (isSafe(re) && isSafe(im)) return wholeComplex(re, im, complex)
  }
  if (a.exact && b.exact) {
    const value = G.add(a.exact, b.exact)
    if (value) return exactNumber(value, complex)
  } else if (a.pi || b.pi) {
    const multiple = multiplesOfPi(a, b, G.add)
    if (multiple) return multipleOfPi(multiple, complex)
  }
  return complex ? rounded(C.add(a, b), true, a, b) : roundedReal(a.re + b.re, a, b)
}

export function subtract(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  if (a.whole && b.whole) {
    const re = a.re - b.re
    const im = a.im - b.im
    if (isSafe(re) && isSafe(im)) return wholeComplex(re, im, complex)
  }
  if (a.exact && b.exact) {
    const value = G.subtract(a.exact, b.exact)
    if (value) return exactNumber(value, complex)
  } else if (a.pi || b.pi) {
    const multiple = multiplesOfPi(a, b, G.subtract)
    if (multiple) return multipleOfPi(multiple, complex)
  }
  return complex ? rounded(C.subtract(a, b), true, a, b) : roundedReal(a.re - b.re, a, b)
}

/** A sum or difference of two multiples of π, of which one may be 0; `null` where it is none. */
function multiplesOfPi(
  a: NumberValue,
  b: NumberValue,
  join: (a: Gaussian, b: Gaussian) => Gaussian | null,
): Gaussian | null {
  const of = (z: NumberValue): Gaussian | null => z.pi ?? (z.exact && G.isZero(z.exact) ? G.ZERO : null)
  const left = of(a)
  const right = of(b)
  return left && right && join(left, right)
}

export function negate(a: NumberValue): NumberValue {
  if (a.whole) return wholeComplex(0 - a.re, 0 - a.im, a.complex)
  if (a.exact) return exactNumber(G.negate(a.exact), a.complex)
  if (a.pi) return multipleOfPi(G.negate(a.pi), a.complex)
  return a.complex ? complexNumber({ re: 0 - a.re, im: 0 - a.im }) : real(0 - a.re)
}

// Whole numbers, in plain arithmetic as long as that is exact.

function wholeProduct(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | null {
  const n = a.re * b.re
  return isSafe(n) ? wholeComplex(n, 0, complex) : null
}

/** Whole parts below this have products and sums that are safe integers. */
const SMALL = 2 ** 25

function isSmall({ re, im }: NumberValue): boolean {
  return re < SMALL && re > -SMALL && im < SMALL && im > -SMALL
}

function wholeProducts(a: NumberValue, b: NumberValue, complex: boolean): NumberValue | null {
  if (!isSmall(a) || !isSmall(b)) return null
  return wholeComplex(a.re * b.re - a.im * b.im, a.re * b.im + a.im * b.re, complex)
}

/** re/d + j·im/d of safe integers, d not 0. */
function wholeQuotient(re: number, im: number, d: number, complex: boolean): NumberValue | null {
  const x = re / d
  const y = im / d
  // Where d does not divide a part its quotient is not whole, or was rounded to be.
  if (Math.floor(x) === x && Math.floor(y) === y && x * d === re && y * d === im) return wholeComplex(x, y, complex)
  const parts = G.fromSmall(re, im, d)
  return parts && exactNumber(parts, complex)
}

function wholeQuotients(a: NumberValue, b: NumberValue): NumberValue | null {
  if (!isSmall(a) || !isSmall(b)) return null
  const size = b.re * b.re + b.im * b.im
  return wholeQuotient(a.re * b.re + a.im * b.im, a.im * b.re - a.re * b.im, size, true)
}

export function multiply(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  if (a.whole && b.whole) {
    const product = a.im === 0 && b.im === 0 ? wholeProduct(a, b, complex) : wholeProducts(a, b, complex)
    if (product) return product
  }
  if (a.exact && b.exact) {
    const value = G.multiply(a.exact, b.exact)
    if (value) return exactNumber(value, complex)
  }
  const pi = a.pi ?? b.pi
  const factor = a.pi ? b.exact : a.exact
  if (pi && factor) {
    const multiple = G.multiply(pi, factor)
    if (multiple) return multipleOfPi(multiple, complex)
  }
  return complex ? rounded(C.multiply(a, b), true, a, b) : roundedReal(a.re * b.re, a, b)
}

/** The same for a result known to be real. */
function roundedReal(re: number, a: NumberValue, b: NumberValue): NumberValue | Failure {
  return re - re === 0 ? real(re) : rounded({ re, im: 0 }, false, a, b)
}

/** a/b: 7/0 is ∞, 0/0 undefined; a complex quotient by zero is ∞ without a direction. */
export function divide(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  if (b.re === 0 && b.im === 0) {
    if ((a.re === 0 && a.im === 0) || Number.isNaN(a.re)) return undefinedNumber(complex)
    if (a.im !== 0) return complexNumber({ re: Infinity, im: 0 })
    return ofSort(real(a.re > 0 ? Infinity : -Infinity), complex)
  }
  if (a.whole && b.whole) {
    const quotient = b.im === 0 ? wholeQuotient(a.re, a.im, b.re, complex) : wholeQuotients(a, b)
    if (quotient) return quotient
  }
  if (a.exact && b.exact) {
    const value = G.divide(a.exact, b.exact)
    if (value) return exactNumber(value, complex)
  }
  if (a.pi && (b.exact || b.pi)) {
    const multiple = G.divide(a.pi, b.exact ?? b.pi ?? G.ONE)
    if (multiple) return b.exact ? multipleOfPi(multiple, complex) : exactNumber(multiple, complex)
  }
  return complex ? rounded(C.divide(a, b), true, a, b) : roundedReal(a.re / b.re, a, b)
}

/** a − n·⌊a/n⌋ for real numbers. */
export function modulo(a: NumberValue, n: NumberValue): NumberValue | Failure {
  if (a.im !== 0 || n.im !== 0) return failure('real-needed', { operator: 'mod' })
  if (n.re === 0) return undefinedNumber()
  if (a.exact && n.exact) {
    const value = Q.modulo(a.exact.re, n.exact.re)
    if (value) return exactNumber(G.fromRational(value))
  }
  const rest = a.re % n.re
  return rounded({ re: rest !== 0 && rest < 0 !== n.re < 0 ? rest + n.re : rest, im: 0 }, false, a, n)
}

/** The exact square root of a rational that has one. */
export function exactRoot(q: Rational): Rational | null {
  if (Q.sign(q) < 0) return null
  if (typeof q.n === 'number' && typeof q.d === 'number') {
    const [top, bottom] = [Math.round(Math.sqrt(q.n)), Math.round(Math.sqrt(q.d))]
    return top * top === q.n && bottom * bottom === q.d ? { n: top, d: bottom } : null
  }
  const n = wholeRoot(BigInt(q.n))
  const d = wholeRoot(BigInt(q.d))
  return n !== null && d !== null ? Q.fromBig(n, d) : null
}

function wholeRoot(n: bigint): bigint | null {
  if (n < 2n) return n
  // Newton's iteration from above on integers.
  let x = 1n << BigInt(Math.ceil(n.toString(2).length / 2))
  for (;;) {
    const next = (x + n / x) >> 1n
    if (next >= x) break
    x = next
  }
  return x * x === n ? x : null
}

/** The principal square root; exact for squares of rationals. */
export function squareRoot(a: NumberValue): NumberValue | Failure {
  if (a.exact && G.isReal(a.exact)) {
    const positive = Q.sign(a.exact.re) >= 0
    const root = exactRoot(positive ? a.exact.re : Q.negate(a.exact.re))
    if (root) return exactNumber(positive ? G.fromRational(root) : G.gaussian(Q.ZERO, root), a.complex || !positive)
  }
  return rounded(C.sqrt(a), a.complex, a)
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

/** The principal power a^b; an exact base to an integer exponent stays exact. */
export function power(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  if (a.re === Math.E && a.im === 0 && !a.exact) return exponential(b)
  if (a.whole && b.whole && a.im === 0 && b.im === 0 && b.re > 0 && b.re < 64) {
    const n = Q.smallPower(a.re, b.re)
    if (n !== null) return wholeComplex(n, 0, complex)
  }
  if (b.exact && G.isReal(b.exact)) {
    const exponent = b.exact.re
    const atZero = zeroBase(a, b)
    if (atZero) return atZero
    if (Q.isInteger(exponent) && typeof exponent.n === 'number') {
      const value = a.exact && G.power(a.exact, exponent.n)
      if (value) return exactNumber(value, complex)
      if (exponent.n === 1) return a
    } else if (exponent.d === 2 && a.exact && G.isReal(a.exact)) {
      const root = squareRoot(a)
      if (root.kind === 'number' && root.exact)
        return power(root, exactNumber({ re: { n: exponent.n, d: 1 }, im: Q.ZERO }, complex))
    }
  }
  return rounded(C.power(a, b), complex, a, b)
}

function zeroBase(a: NumberValue, b: NumberValue): NumberValue | null {
  if (a.re !== 0 || a.im !== 0) return null
  if (b.re > 0) return exactNumber(G.ZERO, a.complex)
  if (b.re === 0) return exactNumber(G.ONE, a.complex)
  return ofSort(real(Infinity), a.complex)
}

/** The parallel combination 1/(1/a + 1/b) = a·b/(a + b); 0 where either is 0. */
export function parallel(a: NumberValue, b: NumberValue): NumberValue | Failure {
  const complex = a.complex || b.complex
  const zero = (z: NumberValue): boolean => z.re === 0 && z.im === 0
  if (zero(a) || zero(b)) return exactNumber(G.ZERO, complex)
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
  if (z.exact) {
    if (G.isReal(z.exact)) return exactNumber(G.fromRational(absolute(z.exact.re)))
    const square = G.squaredMagnitude(z.exact)
    const root = square && exactRoot(square)
    if (root) return exactNumber(G.fromRational(root))
  }
  if (z.pi && G.isReal(z.pi)) return multipleOfPi(G.fromRational(absolute(z.pi.re)))
  return rounded({ re: C.abs(z), im: 0 }, false, z)
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
