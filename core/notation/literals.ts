import type { NumberValue } from '../values/types'
import * as N from './nodes'
import { numeralOf, onImaginaryAxis, scaled } from './numerals'
import type { Numeral } from './numerals'
import type { Lettered, Literal, Span } from './tree'
import { CODE_LETTERS, PREFIXES } from './words'

/** Digits with their power of ten, as a real number: exact unless absurdly long. */
export function realLiteral(digits: string, exponent = 0): NumberValue {
  return exponent === 0 ? numeralOf(digits).real : scaled(digits, exponent)
}

/** The same on the imaginary axis. */
export function imaginaryLiteral(digits: string, exponent = 0): NumberValue {
  return exponent === 0 ? numeralOf(digits).imaginary : onImaginaryAxis(scaled(digits, exponent))
}

/** Plain digits as a node: what they say depends on nothing that is kept. */
export function numeralNode({ real, digits }: Numeral, from: number, to: number): Literal {
  return N.literal(real, digits, '', 'none', from, to)
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
export function readSuffix(run: string, isImaginary: (name: string) => boolean): Suffix | null {
  const prefix = run.charAt(0)
  const exponent = PREFIXES.get(prefix)
  if (exponent !== undefined) {
    if (run.length === 1) return { kind: 'prefix', prefix, exponent, imaginary: false }
    if (run.length === 2 && isImaginary(run.charAt(1))) return { kind: 'prefix', prefix, exponent, imaginary: true }
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

/** Digits with a prefix as a node. */
export function literal(span: Span, value: NumberValue, digits: string, prefix: string): Literal {
  return N.literal(value, digits, prefix, 'none', span.from, span.to)
}

/** `4j` as a node. */
export function imaginaryNumeral({ numeral, from, to }: Lettered): Literal {
  return N.literal(numeral.imaginary, numeral.digits, '', 'after', from, to)
}

/** Digits with the imaginary letter, and a prefix, as a node. */
export function imaginary(
  span: Span,
  digits: string,
  prefix: string,
  exponent: number,
  letter: 'after' | 'before',
): Literal {
  return N.literal(imaginaryLiteral(digits, exponent), digits, prefix, letter, span.from, span.to)
}
