import * as C from '../numbers/complex'
import type { Complex } from '../numbers/complex'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { complexTimesPowerOfTwo } from '../numbers/scale'
import { exactReal } from './make'
import type { NumberValue, Value } from './types'

/**
 * Exact numbers that lie beyond the range of doubles (10^400, 2^-2000): their
 * double is ∞ or 0, which they are not. Functions whose result is within the range work on them scaled.
 */

/** z·2^exponent, with the larger part of z between ½ and 2. */
export interface ScaledNumber {
  readonly z: Complex
  readonly exponent: number
}

/** The smallest double with all its digits. */
const NORMAL = 2 ** -1022

/** True where the double of an exact number says less than all of it: a part has left the range, or lies at its lower end. */
export function isBeyond({ exact, re, im }: NumberValue): boolean {
  if (exact === null) return false
  const part = (x: number, q: Q.Rational): boolean => (Math.abs(x) < NORMAL ? !Q.isZero(q) : !Number.isFinite(x))
  return part(re, exact.re) || part(im, exact.im)
}

/** True of 0 alone, not of what is only too small for a double. */
export function isZero(z: NumberValue): boolean {
  return z.re === 0 && z.im === 0 && !isBeyond(z)
}

/** An exact number scaled; `null` for 0 and where nothing is exact. */
export function scaledOf({ exact }: NumberValue): ScaledNumber | null {
  if (!exact || G.isZero(exact)) return null
  const [x, y] = [Q.scaled(exact.re), Q.scaled(exact.im)]
  const exponent = Math.max(x.exponent, y.exponent)
  const part = ({ mantissa, exponent: own }: Q.ScaledRational): number =>
    mantissa === 0 ? 0 : mantissa * 2 ** Math.max(-1074, own - exponent)
  return { z: { re: part(x), im: part(y) }, exponent }
}

export function unscaled({ z, exponent }: ScaledNumber): Complex {
  return complexTimesPowerOfTwo(z, exponent)
}

export function product(a: ScaledNumber, b: ScaledNumber): Complex {
  return unscaled({ z: C.multiply(a.z, b.z), exponent: a.exponent + b.exponent })
}

export function quotient(a: ScaledNumber, b: ScaledNumber): Complex {
  return unscaled({ z: C.divide(a.z, b.z), exponent: a.exponent - b.exponent })
}

/** What an exact number near 1 differs from 1 by, which its double has lost; `null` for others. */
export function beyondOne(z: NumberValue): number | null {
  return differenceFromOne(z)?.re ?? null
}

/** The same exactly: it can be too small for a double itself. */
export function differenceFromOne({ re, im, exact }: NumberValue): NumberValue | null {
  const difference = exact && im === 0 && Math.abs(re - 1) < 0.1 ? Q.subtract(exact.re, Q.ONE) : null
  return difference && exactReal(difference)
}

/** The principal square root. */
export function root({ z, exponent }: ScaledNumber): Complex {
  const odd = exponent % 2 === 0 ? 0 : 1
  const even = exponent - odd
  const scale = 2 ** odd
  return unscaled({ z: C.sqrt({ re: z.re * scale, im: z.im * scale }), exponent: even / 2 })
}

/** The principal natural logarithm. */
export function logarithm({ z, exponent }: ScaledNumber): Complex {
  const { re, im } = C.log(z)
  return { re: re + exponent * Math.LN2, im }
}

/** True of a real part below 0; of what is too small for a double only the exact number has a sign. */
export function isNegative({ re, exact }: NumberValue): boolean {
  return re < 0 || (re === 0 && exact !== null && Q.sign(exact.re) < 0)
}

/** True where a value, or an entry of it, is known exactly and no double is as large: as a number it would read ∞. */
export function holdsTooLarge(value: Value): boolean {
  switch (value.kind) {
    case 'number':
      return value.exact !== null && !(Number.isFinite(value.re) && Number.isFinite(value.im))
    case 'quantity':
      return holdsTooLarge(value.value)
    case 'vector':
      return value.items.some(holdsTooLarge)
    case 'matrix':
      return value.exact !== null && ![value.dense.re, value.dense.im].every((part) => part.every(Number.isFinite))
    case 'parts':
      return [...value.parts.values()].some(holdsTooLarge)
    default:
      return false
  }
}
