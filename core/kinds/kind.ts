import type { Conventions } from '../format/conventions'
import type { Json } from '../format/json'
import type { Readout } from '../format/readout'
import type { Data } from '../measured/data'
import type { Complex } from '../numbers/complex'
import type { SweepData } from '../scene/curve'
import type { Drawn } from '../scene/drawn'
import type { Role } from '../scene/scene'
import type { Failure } from '../values/failure'
import type { NumberValue, Value } from '../values/types'

/**
 * What a kind of value can do. Each kind has a module that declares all of this, and the table in `kinds.ts`
 * names them; nothing else asks what kind a value is in order to show, write, compare or draw it.
 */
export interface KindOf<V extends Value> {
  /** What a sentence calls it: `a number`. */
  readonly words: string
  /** The value as one text. */
  text(value: V, to: Writing): string
  /** What its line shows; `name` is the name that the line keeps. */
  readout(value: V, to: Writing, name: string | null): Readout
  /** The fields that it adds to a line of the headless contract. */
  fields(value: V, to: Writing): Fields
  /** What of it can be put on the clipboard; `null` of what has no value to copy. */
  readonly copies: Copies<V> | null
  /** How much of an exact value is on show; `null` of kinds that are neither exact nor rounded. */
  exactness(value: V, conventions: Conventions): Exactness | null

  /** What `==` says; `null` where the two cannot be compared. */
  equals(a: V, b: Value, equal: (x: Value, y: Value) => boolean | null): boolean | null
  /** True where `<` has a meaning. */
  readonly ordered: boolean
  /** What `<` goes by: −1, 0, 1, or `null` where neither is less. */
  order(a: V, b: V): -1 | 0 | 1 | null
  /** True where no line below could tell two values of the kind apart; false where that is not known. */
  identical(a: V, b: V, same: (x: Value, y: Value) => boolean): boolean

  /** How its entries are counted and taken; `null` of kinds without entries. */
  readonly entries: Entries<V> | null
  /** True where a sweep can have it at its points. */
  readonly atPoints: boolean
  /** The real number that it is; `null` of what is none. */
  real(value: V): NumberValue | null
  /** How many doubles it holds in memory: what large sweeps and matrices take; small things count for nothing. */
  doubles(value: V, of: (x: Value) => number): number

  /** What of it stands on a plane, in the role that its line gives it; `null` where it is nothing there. */
  drawn(value: V, role: Role, to: Writing, shown: Readout): Drawn | null
  /** Where it stands on the plane as a term of a sum. */
  point(value: V): Complex | null
  /** The points that curves and loci are drawn of. */
  curve(value: V): SweepData | null
  /** What a file of numbers holds of it under a name; `null` where none can. */
  data(value: V, name: string): Data | null
}

export type Fields = Readonly<Record<string, Json>>

/** Writes values in one set of conventions: what a kind asks about the values inside its own. */
export interface Writing {
  readonly conventions: Conventions
  text(value: Value): string
  latex(value: Value): string
  full(value: Value): string
  polar(value: Value): string | null
  record(value: Value, complex: boolean): string
  fields(value: Value): Fields
}

/**
 * What is put on the clipboard. `shown`: the digits on show, as text that reads
 * back in; `full`: everything that is known of the value, likewise; `polar`: as
 * shown, in polar form; `latex`; `csv` (RFC 4180, one row an entry). `null` where it has no such form.
 */
export interface Copies<V> {
  shown(value: V, to: Writing): string | null
  full(value: V, to: Writing): string | null
  polar(value: V, to: Writing): string | null
  latex(value: V, to: Writing): string | null
  csv(value: V, to: Writing): string
  /** One record of a table: of complex numbers, where others in it are, both parts. */
  record(value: V, to: Writing, complex: boolean): string
}

export type CopyForm = 'shown' | 'full' | 'polar' | 'latex' | 'csv'

export interface Exactness {
  /** `exact`: all digits are on show; `exact-rounded`: exact but shown rounded; `rounded`: a double. */
  readonly shown: 'exact' | 'exact-rounded' | 'rounded'
  /** An exact value as a fraction, where the readout shows it rounded. */
  readonly fraction: string | null
}

/** The places that an index means, counted from 0; `single` where it is one, not a row of places. */
export interface Places {
  readonly at: readonly number[]
  readonly single: boolean
}

export interface Entries<V> {
  /** What is said of an index beyond them. */
  readonly range: 'entry-range' | 'point-range' | 'index-row-range'
  /** How many there are along the first index and along the second; `null` where there is no second. */
  sides(value: V): readonly [first: number, second: number | null]
  /** Those at the places; of a matrix one index means whole rows. */
  take(value: V, first: Places, second: Places | null): Value | Failure
}

/** What most kinds do not have. */
export const PLAIN = {
  exactness: () => null,
  ordered: false,
  order: () => null,
  identical: () => false,
  entries: null,
  atPoints: true,
  real: () => null,
  doubles: () => 0,
  drawn: () => null,
  point: () => null,
  curve: () => null,
  data: () => null,
} as const

/** The copies of a value of which all is on show in its text. */
export function plainCopies<V extends Value>(latex: (text: string, to: Writing) => string): Copies<V> {
  const text = (value: V, to: Writing): string => to.text(value)
  return {
    shown: text,
    full: text,
    polar: () => null,
    latex: (value, to) => latex(to.text(value), to),
    csv: (value, to) => to.record(value, false),
    record: (value, to) => csvText(to.text(value)),
  }
}

/** A text as a cell (RFC 4180). */
export function csvText(text: string): string {
  return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text
}

export function csvNumber(x: number): string {
  return Number.isFinite(x) ? String(x).replace('e+', 'e') : ''
}

export function angleHead({ angle }: Conventions): string {
  return angle === 'deg' ? 'degrees' : 'radians'
}
