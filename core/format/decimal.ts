import type { Conventions } from './conventions'

type Shown = Pick<Conventions, 'digits' | 'style'>

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
export function formatReal(x: number, { digits, style }: Shown): string {
  if (Number.isNaN(x)) return 'undefined'
  if (x === Infinity) return '∞'
  if (x === -Infinity) return '-∞'
  if (x === 0) return '0'
  const size = Math.abs(x)
  if (style === 'plain' && size < PLAIN_MOST && size >= PLAIN_LEAST) return plain(x, digits)
  const [mantissa = '0', exponent = '0'] = x.toExponential(digits - 1).split('e')
  const power = Number(exponent)
  if (style === 'engineering' || style === 'prefix') return inThrees(mantissa, power, digits, style === 'prefix')
  if (style === 'scientific' && power === 0) return trimmed(mantissa)
  return `${trimmed(mantissa)}e${power}`
}

function plain(x: number, digits: number): string {
  const exponent = Number(x.toExponential(digits - 1).split('e')[1])
  return trimmed(x.toFixed(Math.max(0, digits - 1 - exponent)))
}

/** An exponent in threes, or the SI prefix for it where there is one. */
function inThrees(mantissa: string, power: number, digits: number, prefixed: boolean): string {
  const threes = Math.floor(power / 3) * 3
  const shift = power - threes
  const value = Number(mantissa) * 10 ** shift
  const text = trimmed(value.toFixed(Math.max(0, digits - 1 - shift)))
  const prefix = prefixed ? PREFIX_OF.get(threes) : undefined
  if (prefix !== undefined) return `${text}${prefix}`
  return threes === 0 ? text : `${text}e${threes}`
}

function trimmed(text: string): string {
  if (!text.includes('.')) return text
  const short = text.replace(/\.?0+$/, '')
  return short === '-0' ? '0' : short
}
