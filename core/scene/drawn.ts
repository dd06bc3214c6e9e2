import type { Conventions } from '../format/conventions'
import { formatNumber, formatPolar, formatRectangular } from '../format/number'
import type { Readout, Twin } from '../format/readout'
import * as C from '../numbers/complex'
import { fromComponents } from '../values/make'
import type { NumberValue, Value, VectorValue } from '../values/types'
import type { Role } from './scene'
import type { InUnit } from './unitScales'

/** What of a value stands on a plane, with the texts of both forms. Plain data that crosses threads. */
export interface Drawn {
  /** Poles are crosses and zeros rings; everything else an arrow. */
  readonly role: Role
  /** True where a plate that shows whatever is kept shows it, too; other values are put on by hand. */
  readonly usual: boolean
  readonly entries: readonly DrawnEntry[]
  /** True for a sweep of complex numbers: its locus is drawn from its points. */
  readonly locus?: boolean
  /** The locus of the roots that the values are points of. */
  readonly branches?: LocusPicture
  /** The unit of what is drawn, its coordinates being coherent; left out of plain numbers. */
  readonly unit?: InUnit
}

/** A root locus as it is drawn: each branch at the same gains, and what is known of it without drawing. */
export interface LocusPicture {
  readonly k: Float64Array
  readonly branches: readonly { readonly re: Float64Array; readonly im: Float64Array }[]
  /** The same for gains below 0. */
  readonly negative: readonly { readonly re: Float64Array; readonly im: Float64Array }[]
  readonly negativeK: Float64Array
  readonly poles: readonly C.Complex[]
  readonly zeros: readonly C.Complex[]
  readonly centroid: number
  readonly asymptotes: readonly number[]
  readonly breakaways: readonly { readonly at: C.Complex; readonly k: number }[]
  readonly crossings: readonly { readonly at: C.Complex; readonly k: number }[]
  readonly departures: readonly { readonly at: C.Complex; readonly angle: number; readonly arrives: boolean }[]
}

export interface DrawnEntry extends C.Complex {
  /** Which entry of a vector, counted from 1; `null` where the value is one mark. */
  readonly index: number | null
  readonly rectangular: string
  readonly polar: string
}

/** Entries of a vector that are drawn at most. */
export const ENTRIES_DRAWN = 400

/** Where the texts of values come from. */
interface Texts {
  readonly conventions: Conventions
  text(value: Value): string
}

/** A number is an arrow from the origin. */
export function drawnNumber(value: NumberValue, conventions: Conventions, shown: Readout): Drawn | null {
  if (!C.isFinite(value)) return null
  const twin = shown.shape === 'twin' ? shown : null
  return { role: 'arrow', usual: value.complex, entries: [entryOf(value, null, conventions, twin)] }
}

/** The numbers of a vector, each for itself; two real components of a vector of space are one arrow. */
export function drawnVector(value: VectorValue, role: Role, texts: Texts, shown: Readout): Drawn | null {
  const shownEntries = shown.shape === 'list' ? shown.entries : []
  const numbers = value.items.flatMap((item) => (item.kind === 'number' && C.isFinite(item) ? [item] : []))
  if (numbers.length !== value.items.length || numbers.length === 0 || numbers.length > ENTRIES_DRAWN) return null
  const complex = numbers.some((z) => z.complex)
  const [x, y] = numbers
  if (role === 'arrow' && !value.list && !complex && numbers.length === 2 && x && y)
    return { role, usual: true, entries: [components(x, y, value, texts)] }
  return {
    role,
    usual: complex || role !== 'arrow',
    entries: numbers.map((z, k) => entryOf(z, k + 1, texts.conventions, shownEntries[k])),
  }
}

/** With both texts as the readout has them already, where it has them. */
function entryOf(
  z: NumberValue,
  index: number | null,
  conventions: Conventions,
  shown: Twin | string | null | undefined,
): DrawnEntry {
  const twin = typeof shown === 'object' ? shown : null
  const rectangular = twin?.rectangular ?? (z.complex ? formatRectangular : formatNumber)(z, conventions)
  return { re: z.re, im: z.im, index, rectangular, polar: twin?.polar ?? formatPolar(z, conventions) }
}

/** A vector of two components as the arrow it is. */
function components(x: NumberValue, y: NumberValue, value: VectorValue, texts: Texts): DrawnEntry {
  const as = fromComponents(x, y)
  return {
    re: x.re,
    im: y.re,
    index: null,
    rectangular: texts.text(value),
    polar: formatPolar(as, texts.conventions),
  }
}
