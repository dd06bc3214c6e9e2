import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { complexNumber, exactNumber, exactReal, real } from '../values/make'
import type { NumberValue } from '../values/value'
import type { Literal } from './tree'
import { CODE_LETTERS, PREFIXES } from './words'
import { LiteralNode } from './nodes'

/** Digits as they are written, with what they are worth alone and on the imaginary axis. */
class Numeral {
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
const remembered: (Numeral | undefined)[] = Array.from({ length: PLACES })
/** Longest numeral whose digits are a safe integer. */
const LONGEST = 15

/** The numeral that stands at a place of a line. */
function numeralAt(source: string, from: number, to: number): Numeral {
  let whole = 0
  let places = -1
  for (let k = from; k < to; k += 1) {
    const code = source.charCodeAt(k)
    if (code === 46 && places < 0) places = 0
    else if (code < 48 || code > 57 || k - from > LONGEST) return made(source.slice(from, to), NaN, -1)
    else {
      whole = 10 * whole + code - 48
      if (places >= 0) places += 1
    }
  }
  const place = ((whole | 0) + 331 * places + 97 * (to - from)) & (PLACES - 1)
  const before = remembered[place]
  // Digits, point and length are all there is to a numeral: leading zeros show in the length.
  if (before?.whole === whole && before.places === places && before.digits.length === to - from) return before
  const numeral = made(source.slice(from, to), whole, places)
  remembered[place] = numeral
  return numeral
}

function made(digits: string, whole: number, places: number): Numeral {
  return new Numeral(digits, readReal(digits, 0), whole, places)
}

/** Digits with their power of ten, as a real number: exact unless absurdly long. */
export function realLiteral(digits: string, exponent = 0): NumberValue {
  return exponent === 0 ? numeralAt(digits, 0, digits.length).real : readReal(digits, exponent)
}

/** Plain digits as a node: what they say depends on nothing that is kept. */
export function digitsNode(digits: string, from: number, to: number): Literal {
  return new LiteralNode(realLiteral(digits), digits, '', 'none', from, to)
}

/** The same from the place in a line where the digits stand. */
export function digitsAt(source: string, from: number, to: number): Literal {
  const { real, digits } = numeralAt(source, from, to)
  return new LiteralNode(real, digits, '', 'none', from, to)
}

function readReal(digits: string, exponent: number): NumberValue {
  const exact = Q.fromDecimal(digits)
  if (exact && exponent === 0) return exactReal(exact)
  const scale = Q.power({ n: 10, d: 1 }, exponent)
  const value: Rational | null = exact && scale && Q.multiply(exact, scale)
  return value ? exactReal(value) : real(Number(`${digits}`) * 10 ** exponent)
}

/** The same on the imaginary axis. */
export function imaginaryLiteral(digits: string, exponent = 0): NumberValue {
  if (exponent !== 0) return onImaginaryAxis(readReal(digits, exponent))
  return numeralAt(digits, 0, digits.length).imaginary
}

function onImaginaryAxis(value: NumberValue): NumberValue {
  return value.exact ? exactNumber(G.gaussian(Q.ZERO, value.exact.re), true) : complexNumber({ re: 0, im: value.re })
}

/** What a run of letters directly after digits says, apart from names. */
export type Suffix =
  | { readonly kind: 'prefix'; readonly prefix: string; readonly exponent: number; readonly imaginary: boolean }
  | { readonly kind: 'code'; readonly tail: string; readonly exponent: number }

const CODE = /^([RKkMGTmuµμnp])(\d+)$/

/**
 * A prefix alone, a prefix before an imaginary letter, or an IEC 60062 code
 * (`4k7` is 4.7k); `null` for anything else.
 */
export function readSuffix(run: string, isUnit: (name: string) => boolean): Suffix | null {
  const prefix = run.charAt(0)
  const exponent = PREFIXES.get(prefix)
  if (exponent !== undefined) {
    if (run.length === 1) return { kind: 'prefix', prefix, exponent, imaginary: false }
    if (run.length === 2 && isUnit(run.charAt(1))) return { kind: 'prefix', prefix, exponent, imaginary: true }
  }
  const code = CODE.exec(run)
  const scale = code ? CODE_LETTERS.get(code[1] ?? '') : undefined
  if (code && scale !== undefined) return { kind: 'code', tail: code[2] ?? '', exponent: scale }
  return null
}

const CIRCUIT = /^[ij](\d+(?:\.\d*)?(?:[eE][+-]?\d+)?)([TGMkmunpfµμ]?)$/

/** `j4`, `j4.5`, `j10k`: the digits and the prefix behind the letter; `null` for other names. */
export function readCircuitImaginary(name: string): { digits: string; prefix: string; exponent: number } | null {
  const match = CIRCUIT.exec(name)
  if (!match) return null
  const prefix = match[2] ?? ''
  return { digits: match[1] ?? '', prefix, exponent: PREFIXES.get(prefix) ?? 0 }
}
