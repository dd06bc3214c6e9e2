import * as Q from './rational'
import type { Rational } from './rational'

/** Plain digits, one digit before the point and a power of ten, powers of a thousand, or SI prefixes. */
export type NumberStyle = 'plain' | 'scientific' | 'engineering' | 'prefix'

/** How a decimal is written. */
export interface Shown {
  /** Significant digits shown, 2 to 16. */
  readonly digits: number
  readonly style: NumberStyle
}

/** Beyond these a plain number is written with a power of ten. */
const PLAIN_MOST = 1e15
const PLAIN_LEAST = 1e-6

/** SI prefixes by their power of ten (BIPM, The International System of Units, table 7). */
const PREFIX_OF: ReadonlyMap<number, string> = new Map([
  [12, 'T'], [9, 'G'], [6, 'M'], [3, 'k'], [0, ''], [-3, 'm'], [-6, 'u'], [-9, 'n'], [-12, 'p'], [-15, 'f'],
]) // prettier-ignore

/**
 * A real number in so many significant digits, as text that reads back:
 * `0.33333`, `1.2e-7`, `4.7k`. Trailing zeros are dropped; in plain style the
 * whole part is always written in full.
 */
export function formatReal(x: number, { digits, style }: Shown, exact: Rational | null = null): string {
  if (Number.isNaN(x)) return 'undefined'
  if (x === Infinity) return '∞'
  if (x === -Infinity) return '-∞'
  if (x === 0) return '0'
  const size = Math.abs(x)
  const inFull = style === 'plain' && size < PLAIN_MOST && size >= PLAIN_LEAST
  const whole = inFull ? Number(x.toExponential(16).split('e')[1]) + 1 : 0
  const [mantissa = '0', exponent = '0'] = significant(x, Math.max(digits, whole), exact).split('e')
  const power = Number(exponent)
  if (inFull) return trimmed(unscaled(mantissa, power))
  if (style === 'engineering' || style === 'prefix') return inThrees(mantissa, power, style === 'prefix')
  if (style === 'scientific' && power === 0) return trimmed(mantissa)
  return `${trimmed(mantissa)}e${power}`
}

/** So many significant digits with an exponent. An exact value is rounded from its exact form, its double only once. */
function significant(x: number, digits: number, exact: Rational | null): string {
  if (exact === null || exact.d === 1) return x.toExponential(digits - 1)
  const negative = Q.sign(exact) < 0
  const [n, d] = [BigInt(exact.n) * (negative ? -1n : 1n), BigInt(exact.d)]
  let power = Number(x.toExponential(0).split('e')[1])
  // The double may have been rounded up to the next power of ten, or down from it.
  while (n >= d * tenTo(power + 1)) power += 1
  while (n * tenTo(-power) < d * tenTo(power)) power -= 1
  const shift = digits - 1 - power
  const [top, bottom] = [n * tenTo(shift), d * tenTo(-shift)]
  let rounded = (2n * top + bottom) / (2n * bottom)
  if (rounded >= tenTo(digits)) {
    rounded /= 10n
    power += 1
  }
  const text = String(rounded)
  return `${negative ? '-' : ''}${text.slice(0, 1)}${digits > 1 ? `.${text.slice(1)}` : ''}e${power}`
}

/** 10^k; 1 for negative k. */
function tenTo(k: number): bigint {
  return k > 0 ? 10n ** BigInt(k) : 1n
}

/** A mantissa times a power of ten, written in full: with zeros behind it where its digits end before the point. */
function unscaled(mantissa: string, power: number): string {
  const sign = mantissa.startsWith('-') ? '-' : ''
  const digits = mantissa.replace(/[-.]/g, '')
  if (power < 0) return `${sign}0.${'0'.repeat(-power - 1)}${digits}`
  const whole = digits.slice(0, power + 1).padEnd(power + 1, '0')
  const rest = digits.slice(power + 1)
  return `${sign}${whole}${rest === '' ? '' : `.${rest}`}`
}

/** An exponent in threes, or the SI prefix for it where there is one. */
function inThrees(mantissa: string, power: number, prefixed: boolean): string {
  const threes = Math.floor(power / 3) * 3
  const shift = power - threes
  const text = trimmed(unscaled(mantissa, shift))
  const prefix = prefixed ? PREFIX_OF.get(threes) : undefined
  if (prefix !== undefined) return `${text}${prefix}`
  return threes === 0 ? text : `${text}e${threes}`
}

function trimmed(text: string): string {
  if (!text.includes('.')) return text
  const short = text.replace(/\.?0+$/, '')
  return short === '-0' ? '0' : short
}
