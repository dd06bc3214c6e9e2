import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { complexNumber, exactNumber, exactReal, integer, real } from '../values/make'
import type { NumberValue } from '../values/value'
import type { Literal } from './tree'
import { CODE_LETTERS, PREFIXES } from './words'

/** Digits as they are written, with what they are worth alone and on the imaginary axis. */
class Numeral {
  private imaginaryValue: NumberValue | null = null

  constructor(
    readonly digits: string,
    readonly real: NumberValue,
  ) {}

  get imaginary(): NumberValue {
    this.imaginaryValue ??= onImaginaryAxis(this.real)
    return this.imaginaryValue
  }
}

/** Plain numerals read before: while a line is typed, all its other numbers stay the same. */
const known = new Map<string, Numeral>()
const KNOWN_MOST = 2_000
/** Whole numbers of up to three digits, by value. */
const SMALL: readonly Numeral[] = Array.from({ length: 1000 }, (_, n) => new Numeral(String(n), integer(n)))

/** A numeral of up to three digits that begins with no zero; `undefined` for any other. */
function small(source: string, from: number, to: number): Numeral | undefined {
  if (to === from || to - from > 3) return undefined
  let n = 0
  for (let k = from; k < to; k += 1) {
    const digit = source.charCodeAt(k) - 48
    if (digit < 0 || digit > 9 || (n === 0 && k > from)) return undefined
    n = 10 * n + digit
  }
  return SMALL[n]
}

function numeral(digits: string): Numeral {
  const before = known.get(digits)
  if (before) return before
  const made = new Numeral(digits, readReal(digits, 0))
  if (known.size >= KNOWN_MOST) known.clear()
  if (digits.length <= 15) known.set(digits, made)
  return made
}

/** Digits with their power of ten, as a real number: exact unless absurdly long. */
export function realLiteral(digits: string, exponent = 0): NumberValue {
  return exponent === 0 ? (small(digits, 0, digits.length) ?? numeral(digits)).real : readReal(digits, exponent)
}

/** Plain digits as a node: what they say depends on nothing that is kept. */
export function digitsNode(digits: string, from: number, to: number): Literal {
  const { real } = small(digits, 0, digits.length) ?? numeral(digits)
  return { type: 'literal', value: real, digits, prefix: '', letter: 'none', from, to }
}

/** The same from the place in a line where the digits stand. */
export function digitsAt(source: string, from: number, to: number): Literal {
  const { real, digits } = small(source, from, to) ?? numeral(source.slice(from, to))
  return { type: 'literal', value: real, digits, prefix: '', letter: 'none', from, to }
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
  return (small(digits, 0, digits.length) ?? numeral(digits)).imaginary
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
