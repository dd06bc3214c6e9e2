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
}

export const DEFAULT_CONVENTIONS: Conventions = {
  angle: 'deg',
  letter: 'j',
  place: 'after',
  digits: 5,
  style: 'plain',
  exact: 'decimal',
  degrees: 'decimal',
}

export const DIGITS_MIN = 2
export const DIGITS_MAX = 16
