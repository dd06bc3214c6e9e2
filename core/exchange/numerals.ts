/** Numbers as files write them, and as they are written to files. */

const NUMERAL = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eEdD][+-]?\d+)?$/

/** Tells a number that is no number here: `too-large` of one that no double holds. */
export type Misread = 'not-a-number' | 'too-large'

/** A number in full: digits, point, exponent (with D as Fortran writes it); nothing else counts. */
export function readNumeral(text: string): number | Misread {
  if (!NUMERAL.test(text)) return 'not-a-number'
  const x = Number(/[dD]/.test(text) ? text.replace(/[dD]/, 'e') : text)
  return Number.isFinite(x) ? x : 'too-large'
}

/** What is written for ∞ and *undefined* in files of numbers. */
const WORDS: ReadonlyMap<string, number> = new Map([
  ['nan', NaN],
  ['inf', Infinity],
  ['+inf', Infinity],
  ['-inf', -Infinity],
  ['infinity', Infinity],
  ['+infinity', Infinity],
  ['-infinity', -Infinity],
])

/** A number, or ∞ and *undefined* in the words that programs print for them. */
export function readNumeralOrWord(text: string): number | Misread {
  return WORDS.get(text.toLowerCase()) ?? readNumeral(text)
}

/** The shortest decimal that reads back as the same double; the sign of zero is kept. */
export function writeNumeral(x: number): string {
  if (Number.isNaN(x)) return 'nan'
  if (!Number.isFinite(x)) return x > 0 ? 'inf' : '-inf'
  return Object.is(x, -0) ? '-0' : String(x).replace('e+', 'e')
}
