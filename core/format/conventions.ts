import type { Shown } from '../numbers/decimal'
import type { AngleUnit } from '../values/convert'

/** How a folio reads bare angles and shows values. Display never touches stored precision. */
export interface Conventions extends Shown {
  /** The unit of a bare number where an angle is needed, and of every angle shown. */
  readonly angle: AngleUnit
  readonly letter: 'i' | 'j'
  /** `3 + j4` or `3 + 4j`. */
  readonly place: 'before' | 'after'
  /** How exact values that are no whole numbers are shown. */
  readonly exact: 'decimal' | 'fraction' | 'mixed'
  /** Degrees with decimals or with minutes and seconds. */
  readonly degrees: 'decimal' | 'minutes'
  /** What a word behind a number and a blank was when the lines were written: in older folios always a factor. */
  readonly spaced: 'product' | 'unit'
}

export const DEFAULT_CONVENTIONS: Conventions = {
  angle: 'deg',
  letter: 'j',
  place: 'after',
  digits: 5,
  style: 'plain',
  exact: 'decimal',
  degrees: 'decimal',
  spaced: 'unit',
}

export const DIGITS_MIN = 2
export const DIGITS_MAX = 16
