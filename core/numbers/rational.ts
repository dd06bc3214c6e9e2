import { gcdBig, gcdSmall } from './divisors'
import { timesPowerOfTwo } from './scale'
import { work } from './work'

/**
 * Exact rational numbers n/d in lowest terms, d > 0.
 *
 * Both parts are plain numbers while they are safe integers and bigints beyond
 * that, so that everyday arithmetic never allocates a bigint.
 */
export interface Rational {
  readonly n: number | bigint
  readonly d: number | bigint
}

/** Largest size of a numerator or denominator, in bits, before exactness is given up. */
export const MAX_BITS = 4096
const LIMIT = 1n << BigInt(MAX_BITS)
const SAFE = Number.MAX_SAFE_INTEGER
const SAFE_BIG = BigInt(SAFE)
/** From here on a common divisor takes tens of microseconds. */
const LONG = 1n << 256n

/**
 * The one place where a fraction is made. Objects of a class, here and for the other small values, since
 * V8 puts what object literals make among the long-lived once enough of them have been kept, and
 * then every later one is collected dearly.
 */
class Fraction implements Rational {
  declare readonly n: number | bigint
  declare readonly d: number | bigint

  constructor(n: number | bigint, d: number | bigint) {
    this.n = n
    this.d = d
  }
}

// The first ones have parts of every kind: what is made before V8 has met them all keeps a shape that it gives up
// later, and what works with 0 or 1 would then never be compiled.
void [new Fraction(0.5, 0.5), new Fraction(1n, 1n)]

export const ZERO: Rational = new Fraction(0, 1)
export const ONE: Rational = new Fraction(1, 1)

function demote(value: bigint): number | bigint {
  return value <= SAFE_BIG && value >= -SAFE_BIG ? Number(value) : value
}

/** n/d in lowest terms from bigints; `null` where d is 0 or a part outgrows {@link MAX_BITS}. */
export function fromBig(n: bigint, d: bigint): Rational | null {
  if (d === 0n) return null
  work(d > LONG || n > LONG || n < -LONG ? 20_000 : 400)
  if (d < 0n) {
    n = -n
    d = -d
  }
  const g = gcdBig(n, d)
  if (g > 1n) {
    n /= g
    d /= g
  }
  if (n >= LIMIT || n <= -LIMIT || d >= LIMIT) return null
  const small = n <= SAFE_BIG && n >= -SAFE_BIG && d <= SAFE_BIG
  return small ? new Fraction(Number(n), Number(d)) : new Fraction(demote(n), demote(d))
}

/** A whole number: a safe integer. */
export function whole(n: number): Rational {
  return new Fraction(n, 1)
}

/** n/d of safe integers that are in lowest terms already. */
export function ratio(n: number, d: number): Rational {
  return new Fraction(n, d)
}

/** The greatest common divisor of two safe integers; positive where not both are 0. */
export function commonDivisor(a: number, b: number): number {
  return gcdSmall(a < 0 ? -a : a, b < 0 ? -b : b)
}

/** n/d in lowest terms from safe integers; `null` where d is 0. */
export function fromSmall(n: number, d: number): Rational | null {
  if (d === 0) return null
  if (d < 0) {
    n = -n
    d = -d
  }
  if (n === 0) return ZERO
  if (d === 1) return new Fraction(n, d)
  const g = gcdSmall(n < 0 ? -n : n, d)
  return g === 1 ? new Fraction(n, d) : new Fraction(n / g, d / g)
}

/** The rational n/d of two integers; `null` where d is 0 or either is not an integer. */
export function rational(n: number, d = 1): Rational | null {
  if (!Number.isInteger(n) || !Number.isInteger(d)) return null
  if (Math.abs(n) <= SAFE && Math.abs(d) <= SAFE) return fromSmall(n, d)
  return fromBig(BigInt(n), BigInt(d))
}

function areSmall(a: Rational, b: Rational): boolean {
  return typeof a.n === 'number' && typeof a.d === 'number' && typeof b.n === 'number' && typeof b.d === 'number'
}

export function add(a: Rational, b: Rational): Rational | null {
  return combine(a, b, 1)
}

export function subtract(a: Rational, b: Rational): Rational | null {
  return combine(a, b, -1)
}

/** a + sign·b. */
function combine(a: Rational, b: Rational, sign: 1 | -1): Rational | null {
  if (areSmall(a, b)) {
    const ad = a.d as number
    const bd = b.d as number
    const left = (a.n as number) * bd
    const right = (b.n as number) * ad * sign
    const n = left + right
    const d = ad * bd
    if (Math.abs(left) <= SAFE && Math.abs(right) <= SAFE && Math.abs(n) <= SAFE && d <= SAFE)
      // With a whole number the sum of fractions in lowest terms is in lowest terms.
      return ad === 1 || bd === 1 ? new Fraction(n + 0, d) : fromSmall(n, d)
  }
  return combineBig(a, b, sign)
}

function combineBig(a: Rational, b: Rational, sign: 1 | -1): Rational | null {
  const ad = BigInt(a.d)
  const bd = BigInt(b.d)
  return fromBig(BigInt(a.n) * bd + BigInt(sign) * BigInt(b.n) * ad, ad * bd)
}

export function negate(a: Rational): Rational {
  return a.n === 0 ? a : new Fraction(-a.n, a.d)
}

export function multiply(a: Rational, b: Rational): Rational | null {
  if (areSmall(a, b)) {
    const n = (a.n as number) * (b.n as number)
    const d = (a.d as number) * (b.d as number)
    if (Math.abs(n) <= SAFE && d <= SAFE) return fromSmall(n, d)
  }
  return fromBig(BigInt(a.n) * BigInt(b.n), BigInt(a.d) * BigInt(b.d))
}

/** a/b; `null` where b is 0. */
export function divide(a: Rational, b: Rational): Rational | null {
  if (areSmall(a, b)) {
    const n = (a.n as number) * (b.d as number)
    const d = (a.d as number) * (b.n as number)
    if (Math.abs(n) <= SAFE && Math.abs(d) <= SAFE) return fromSmall(n, d)
  }
  return fromBig(BigInt(a.n) * BigInt(b.d), BigInt(a.d) * BigInt(b.n))
}

export function sign(a: Rational): -1 | 0 | 1 {
  return a.n > 0 ? 1 : a.n < 0 ? -1 : 0
}

export function isZero(a: Rational): boolean {
  return a.n === 0
}

export function isInteger(a: Rational): boolean {
  return a.d === 1
}

export function compare(a: Rational, b: Rational): -1 | 0 | 1 {
  if (areSmall(a, b)) {
    const left = (a.n as number) * (b.d as number)
    const right = (b.n as number) * (a.d as number)
    if (Math.abs(left) <= SAFE && Math.abs(right) <= SAFE) return left < right ? -1 : left > right ? 1 : 0
  }
  const left = BigInt(a.n) * BigInt(b.d)
  const right = BigInt(b.n) * BigInt(a.d)
  return left < right ? -1 : left > right ? 1 : 0
}

export function equals(a: Rational, b: Rational): boolean {
  return a.n === b.n && a.d === b.d
}

export function bitLength(value: number | bigint): number {
  if (typeof value === 'number') return value === 0 ? 0 : Math.floor(Math.log2(Math.abs(value))) + 1
  // Four bits a hexadecimal digit, less the leading zeros of the first.
  const digits = (value < 0n ? -value : value).toString(16)
  return 4 * digits.length - Math.clz32(parseInt(digits.charAt(0), 16)) + 28
}

/** A power of a safe integer while it is one: products of doubles are exact up to there. */
export function smallPower(base: number, exponent: number): number | null {
  let result = 1
  for (let k = 0; k < exponent; k += 1) {
    result *= base
    if (result > SAFE || result < -SAFE) return null
  }
  return result
}

/** a to an integer power by repeated squaring; `null` for 0 to a negative power or beyond {@link MAX_BITS}. */
export function power(a: Rational, exponent: number): Rational | null {
  if (!Number.isInteger(exponent)) return null
  if (exponent < 0) {
    const inverse = divide(ONE, a)
    return inverse && power(inverse, -exponent)
  }
  if (exponent < 64 && typeof a.n === 'number' && typeof a.d === 'number') {
    // Powers of coprime numbers are coprime.
    const n = smallPower(a.n, exponent)
    const d = a.d === 1 ? 1 : smallPower(a.d, exponent)
    if (n !== null && d !== null) return new Fraction(n, d)
  }
  const size = Math.max(bitLength(a.n), bitLength(a.d))
  if (size > 1 && (size - 1) * exponent > MAX_BITS) return null
  let result: Rational = ONE
  let base: Rational | null = a
  for (let e = exponent; e > 0; e = Math.floor(e / 2)) {
    if (base === null) return null
    if (e % 2 === 1) {
      const next: Rational | null = multiply(result, base)
      if (next === null) return null
      result = next
    }
    if (e > 1) base = multiply(base, base)
  }
  return result
}

/** The largest integer not above a. */
export function floor(a: Rational): Rational {
  if (a.d === 1) return a
  if (typeof a.n === 'number' && typeof a.d === 'number') return new Fraction(Math.floor(a.n / a.d), 1)
  const n = BigInt(a.n)
  const d = BigInt(a.d)
  let q = n / d
  if (n < 0n && q * d !== n) q -= 1n
  return new Fraction(demote(q), 1)
}

/** a − n·⌊a/n⌋, in [0, n) for n > 0. */
export function modulo(a: Rational, n: Rational): Rational | null {
  const q = divide(a, n)
  if (q === null) return null
  const whole = multiply(floor(q), n)
  return whole && subtract(a, whole)
}

/** The nearest double (correctly rounded also where both parts are beyond doubles). */
export function toNumber(a: Rational): number {
  return typeof a.n === 'number' && typeof a.d === 'number' ? a.n / a.d : bigToNumber(a)
}

function bigToNumber(a: Rational): number {
  let n = BigInt(a.n)
  const d = BigInt(a.d)
  const negative = n < 0n
  if (negative) n = -n
  // Scale so that the integer quotient has at least 64 bits, then let the
  // conversion of the quotient (with a sticky bit) do the only rounding.
  const shift = 64 - (bitLength(n) - bitLength(d))
  let q: bigint
  let rest: bigint
  if (shift > 0) {
    q = (n << BigInt(shift)) / d
    rest = (n << BigInt(shift)) % d
  } else {
    q = n / (d << BigInt(-shift))
    rest = n % (d << BigInt(-shift))
  }
  if (rest !== 0n) q |= 1n
  const magnitude = timesPowerOfTwo(Number(q), -shift)
  return negative ? -magnitude : magnitude
}

/** mantissa·2^exponent, the mantissa between ½ and 2 in magnitude, or 0. */
export interface ScaledRational {
  readonly mantissa: number
  readonly exponent: number
}

/** A rational as a mantissa and a power of two: also where it lies beyond the range of doubles. */
export function scaled(a: Rational): ScaledRational {
  if (isZero(a)) return { mantissa: 0, exponent: -Infinity }
  const exponent = bitLength(a.n) - bitLength(a.d)
  const [n, d] = [BigInt(a.n), BigInt(a.d)]
  const [top, bottom] = exponent >= 0 ? [n, d << BigInt(exponent)] : [n << BigInt(-exponent), d]
  return { mantissa: bigToNumber({ n: top, d: bottom }), exponent }
}

/**
 * The exact value of a decimal numeral such as `12`, `.5`, `1.2e-3`;
 * `null` where it is malformed or would outgrow {@link MAX_BITS}.
 */
export function fromDecimal(text: string): Rational | null {
  const short = shortDecimal(text)
  if (short) return short
  const match = /^([+-]?)(\d*)\.?(\d*)(?:[eE]([+-]?\d+))?$/.exec(text)
  if (match === null) return null
  const [, signText = '', whole = '', part = '', exponentText = '0'] = match
  const digits = whole + part
  if (digits === '' || digits.length > 1200) return null
  const exponent = Number(exponentText) - part.length
  if (Math.abs(exponent) > 1200) return null
  let n = BigInt(digits)
  if (signText === '-') n = -n
  return exponent >= 0 ? fromBig(n * 10n ** BigInt(exponent), 1n) : fromBig(n, 10n ** BigInt(-exponent))
}

/** A plain decimal of at most 15 digits, without the detour over bigints. */
function shortDecimal(text: string): Rational | null {
  if (text.length > 15) return null
  let n = 0
  let d = 1
  let digits = 0
  let point = false
  for (let k = 0; k < text.length; k += 1) {
    const code = text.charCodeAt(k)
    if (code === 46 && !point) point = true
    else if (code >= 48 && code <= 57) {
      n = n * 10 + code - 48
      digits += 1
      if (point) d *= 10
    } else return null
  }
  return digits === 0 ? null : fromSmall(n, d)
}

/** `7`, `-1/3`: numerator and denominator as text. */
export function toText(a: Rational): string {
  return a.d === 1 ? String(a.n) : `${a.n}/${a.d}`
}
