import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { complexNumber, exactNumber, exactReal, real } from '../values/make'
import type { NumberValue } from '../values/types'

/** Digits as they are written, with what they are worth alone and on the imaginary axis. */
export class Numeral {
  private imaginaryValue: NumberValue | null = null

  constructor(
    readonly digits: string,
    readonly real: NumberValue,
    /** The digits without their decimal point. */
    readonly whole: number,
    /** How many stand behind the point; −1 where there is none. */
    readonly places: number,
  ) {}

  get imaginary(): NumberValue {
    this.imaginaryValue ??= onImaginaryAxis(this.real)
    return this.imaginaryValue
  }
}

/**
 * Numerals read before, each in the one place that its digits point to: while a line is typed all its
 * other numbers stay the same.
 */
const PLACES = 4096
const NOTHING = new Numeral('', real(0), NaN, -1)
const remembered: Numeral[] = Array.from({ length: PLACES }, () => NOTHING)
/** Longest numeral whose digits are a safe integer, point included. */
const LONGEST = 16

/**
 * The numeral that stands at a place of a line.
 * @param whole its digits as one whole number
 * @param places how many of them stand behind the point; −1 without one
 */
export function numeralAt(source: string, from: number, to: number, whole: number, places: number): Numeral {
  const length = to - from
  const place = ((whole | 0) + 331 * places + 97 * length) & (PLACES - 1)
  const before = remembered[place] as Numeral
  // Digits, point and length are all there is to a numeral: leading zeros show in the length.
  if (before.whole === whole && before.places === places && before.digits.length === length) return before
  return readAt(source.slice(from, to), whole, places, place)
}

function readAt(digits: string, whole: number, places: number, place: number): Numeral {
  // Two long ones could have the same double.
  if (digits.length > LONGEST) return made(digits, NaN, -1)
  const numeral = made(digits, whole, places)
  remembered[place] = numeral
  return numeral
}

/** The numeral of a text that holds nothing else. */
export function numeralOf(digits: string): Numeral {
  const point = digits.indexOf('.')
  if (!/^[\d.]+$/.test(digits)) return made(digits, NaN, -1)
  return numeralAt(
    digits,
    0,
    digits.length,
    Number(digits.replace('.', '')),
    point < 0 ? -1 : digits.length - point - 1,
  )
}

function made(digits: string, whole: number, places: number): Numeral {
  return new Numeral(digits, scaled(digits, 0), whole, places)
}

/** Digits with a power of ten, as a real number: exact unless absurdly long. */
export function scaled(digits: string, exponent: number): NumberValue {
  const exact = Q.fromDecimal(digits)
  if (exact && exponent === 0) return exactReal(exact)
  const scale = Q.power(Q.whole(10), exponent)
  const value = exact && scale && Q.multiply(exact, scale)
  return value ? exactReal(value) : real(Number(digits) * 10 ** exponent)
}

/** A real number on the imaginary axis; not exact where it is beyond doubles, so that it is refused there. */
export function onImaginaryAxis({ re, exact }: NumberValue): NumberValue {
  const isExact = exact !== null && Number.isFinite(re)
  return isExact ? exactNumber(G.gaussian(Q.ZERO, exact.re), true) : complexNumber({ re: 0, im: re })
}
