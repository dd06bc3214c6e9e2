import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import { magnitude } from '../values/arithmetic'
import { largest } from '../linear/dense'
import { argumentOf, fromComponents, ofSort, shownAs } from '../values/make'
import { itemAt, itemsOf } from '../values/matrices'
import { euclideanNorm } from '../values/vectors'
import type { MatrixValue, NumberValue, Value, VectorValue } from '../values/types'
import { algebraArrayLatex, algebraMatrixText, polynomialLatex, polynomialText } from './algebra'
import type { Conventions } from './conventions'
import { sweepReadout, sweepText } from './sweep'
import type { SweepReadout } from './sweep'
import { formatAngle, formatPart, isCompound, multipleOfPiText, showsWhole } from './parts'

/** A part below this share of the magnitude is noise and is shown as 0. */
export const NOISE = 5e-15

/** A complex value in both forms. */
export interface Twin {
  readonly rectangular: string
  readonly polar: string
}

/**
 * What a line shows: one text, a twin readout of a complex value, or the entries
 * of a vector. All texts are plain characters that read back in; the interface
 * dresses them.
 */
export type Readout =
  | ({ readonly shape: 'twin' } & Twin)
  | { readonly shape: 'single'; readonly text: string }
  | { readonly shape: 'words'; readonly text: string }
  | GridReadout
  | {
      readonly shape: 'list'
      readonly entries: readonly (string | Twin)[]
      readonly count: number
      readonly size: VectorSize | null
    }
  | SweepReadout
  /** Polynomials, and arrays of them: typeset, and as text that reads back. */
  | { readonly shape: 'algebra'; readonly latex: string; readonly text: string }
  | { readonly shape: 'none' }

/** What two or three components, or complex entries, say besides: the length, and in the plane the direction. */
export interface VectorSize {
  readonly magnitude: string
  readonly direction: string | null
}

/** A matrix: its size, and its entries row by row as far as they are shown. */
export interface GridReadout {
  readonly shape: 'grid'
  readonly rows: number
  readonly cols: number
  /** How many rows and columns the cells are of. */
  readonly shownRows: number
  readonly shownCols: number
  readonly cells: readonly string[]
  /** The same in polar form, where an entry is complex. */
  readonly polar: readonly string[] | null
}

/** Rows and columns of a matrix that a readout carries at most. */
const GRID_MOST = 24

/** Entries of a vector that a readout carries at most. */
const ENTRIES_SHOWN = 60

/** A value's parts with noise taken out; the stored value is untouched. */
export function quiet(z: C.Complex): C.Complex {
  const size = C.abs(z)
  if (!Number.isFinite(size)) return z
  const floor = NOISE * size
  return { re: Math.abs(z.re) < floor ? 0 : z.re, im: Math.abs(z.im) < floor ? 0 : z.im }
}

function quieted(z: NumberValue): NumberValue {
  if (z.exact) return z
  const { re, im } = quiet(z)
  return shownAs(z, re, im)
}

const NO_DIRECTION = '∞ (no direction)'

/** `3 + 4j`, `3 - j4`: always both parts. */
export function formatRectangular(z: NumberValue, conventions: Conventions): string {
  if (Number.isNaN(z.re) || Number.isNaN(z.im)) return 'undefined'
  if (C.isInfinite(z)) return NO_DIRECTION
  // Of an exact value every part is meant.
  const { re, im } = z.exact ? z : quiet(z)
  const real = formatPart(re, z.exact?.re ?? null, conventions)
  const negative = im < 0
  const size = z.exact ? (negative ? Q.negate(z.exact.im) : z.exact.im) : null
  const imaginary = formatPart(Math.abs(im), size, conventions)
  return `${real} ${negative ? '-' : '+'} ${withLetter(imaginary, conventions)}`
}

function withLetter(text: string, { letter, place }: Conventions): string {
  if (isCompound(text)) return place === 'before' ? `${letter}(${text})` : `(${text})*${letter}`
  if (text.includes('/')) {
    const [top = '', bottom = ''] = text.split('/')
    return place === 'before' ? `${letter}${top}/${bottom}` : `${top}${letter}/${bottom}`
  }
  if (place === 'before') return `${letter}${text}`
  // A letter behind a prefix must not make a word with it: 3p and i would be 3π.
  if (letter === 'i' && text.endsWith('p')) return `${text.slice(0, -1)}e-12${letter}`
  return `${text}${letter}`
}

/** `5 ∠ 53.13°`: magnitude and argument in the unit of the conventions. */
export function formatPolar(z: NumberValue, conventions: Conventions): string {
  if (Number.isNaN(z.re) || Number.isNaN(z.im)) return 'undefined'
  if (C.isInfinite(z)) return NO_DIRECTION
  const size = magnitude(z)
  const exactSize = size.kind === 'number' ? (size.exact?.re ?? null) : null
  const part = formatPart(C.abs(z), exactSize, conventions)
  const shown = isCompound(part) || part.includes('/') ? `(${part})` : part
  const zero = z.re === 0 && z.im === 0
  return `${shown} ∠ ${formatAngle(argumentOf(zero ? z : quieted(z)), conventions)}`
}

/** A value as one text. */
export function formatSingle(value: Value, conventions: Conventions): string {
  switch (value.kind) {
    case 'number': {
      if (value.im !== 0 || value.complex) return formatRectangular(value, conventions)
      if (value.pi && conventions.exact !== 'decimal') return multipleOfPiText(value.pi.re)
      return formatPart(value.re, value.exact?.re ?? null, conventions)
    }
    case 'angle':
      return formatAngle(value, conventions)
    case 'text':
      return value.text
    case 'truth':
      return value.truth ? 'true' : 'false'
    case 'check':
      return `${checkText(value.pass, value.figures)}${value.point === undefined ? '' : `, worst at point ${value.point}`}`
    case 'function':
      return `${value.name}(${value.parameters.join(', ')})`
    case 'matrix':
      return matrixText(value, (item) => formatSingle(item, conventions))
    case 'polynomial':
      return polynomialText(value, conventions)
    case 'algebra-matrix':
      return algebraMatrixText(value, conventions)
    case 'sweep':
      return sweepText(value, conventions)
    case 'parts':
      return [...value.parts.keys()].map((name) => `.${name}`).join(' ')
    case 'vector':
      return `[${value.items.map((item) => formatSingle(item, conventions)).join(', ')}]`
  }
}

function vectorSize(v: VectorValue, conventions: Conventions): VectorSize | null {
  if (v.list) return null
  const numbers = v.items.flatMap((item) => (item.kind === 'number' ? [item] : []))
  if (numbers.length < v.items.length || numbers.length < 2) return null
  const complex = numbers.some((z) => z.complex)
  if (!complex && numbers.length > 3) return null
  const length = euclideanNorm(v)
  if (length.kind !== 'number') return null
  const [x, y] = numbers
  const inPlane = numbers.length === 2 && !complex && x && y
  const direction = inPlane ? argumentOf(fromComponents(x, y)) : null
  return {
    magnitude: formatSingle(length, conventions),
    direction: direction ? formatAngle(direction, conventions) : null,
  }
}

/** A matrix as its rows are written. */
export function matrixText(m: MatrixValue, entry: (item: NumberValue) => string): string {
  const items = itemsOf(m).map(entry)
  const rows = Array.from({ length: m.rows }, (_, r) => `[${items.slice(r * m.cols, (r + 1) * m.cols).join(', ')}]`)
  return `[${rows.join(', ')}]`
}

function grid(m: MatrixValue, conventions: Conventions): GridReadout {
  const [shownRows, shownCols] = [Math.min(m.rows, GRID_MOST), Math.min(m.cols, GRID_MOST)]
  const floor = NOISE * magnitudesMost(m)
  const shown = Array.from({ length: shownRows * shownCols }, (_, k) => {
    const item = itemAt(m, Math.floor(k / shownCols) * m.cols + (k % shownCols))
    // Noise is measured by the largest entry of the matrix.
    if (item.exact) return item
    if (Math.max(Math.abs(item.re), Math.abs(item.im)) >= floor)
      return shownAs(item, Math.abs(item.re) < floor ? 0 : item.re, Math.abs(item.im) < floor ? 0 : item.im)
    return shownAs(item, 0, 0)
  })
  return {
    shape: 'grid',
    rows: m.rows,
    cols: m.cols,
    shownRows,
    shownCols,
    cells: shown.map((z) => formatSingle(z.im === 0 ? ofSort(z, false) : z, conventions)),
    polar: m.complex
      ? shown.map((z) =>
          z.im === 0 && z.re >= 0 ? formatSingle(ofSort(z, false), conventions) : formatPolar(z, conventions),
        )
      : null,
  }
}

function magnitudesMost(m: MatrixValue): number {
  const most = largest(m.dense)
  return Number.isFinite(most) ? most : 0
}

/** A readout as text to copy: what reads back in. */
export function readoutText(shown: Readout): string {
  switch (shown.shape) {
    case 'twin':
      return shown.rectangular
    case 'grid': {
      const rows = Array.from({ length: shown.shownRows }, (_, r) =>
        shown.cells.slice(r * shown.shownCols, (r + 1) * shown.shownCols).join(', '),
      )
      return `[[${rows.join('], [')}]]`
    }
    case 'list':
      return `[${shown.entries.map((e) => (typeof e === 'string' ? e : e.rectangular)).join(', ')}]`
    case 'sweep':
      return `${shown.count} points, ${sideText(shown.first)} … ${sideText(shown.last)}`
    case 'none':
      return ''
    default:
      return shown.text
  }
}

const sideText = (side: string | Twin): string => (typeof side === 'string' ? side : side.rectangular)

function checkText(pass: boolean, figures: number): string {
  const agreed =
    figures === 0 ? 'no figure agrees' : `agrees to ${figures} significant ${figures === 1 ? 'figure' : 'figures'}`
  if (pass) return figures === 0 ? 'agrees within what is asked' : agreed
  return `does not agree: ${figures === 0 ? 'not even the first figure' : `only ${agreed.replace('agrees to ', '')}`}`
}

function twin(value: NumberValue, conventions: Conventions): Twin {
  return { rectangular: formatRectangular(value, conventions), polar: formatPolar(value, conventions) }
}

function isComplex(value: Value): value is NumberValue {
  return value.kind === 'number' && (value.complex || value.im !== 0)
}

export function readout(value: Value, conventions: Conventions, name: string | null = null): Readout {
  switch (value.kind) {
    case 'function':
      return { shape: 'none' }
    case 'polynomial':
      return {
        shape: 'algebra',
        latex: polynomialLatex(value, conventions),
        text: polynomialText(value, conventions),
      }
    case 'algebra-matrix':
      return {
        shape: 'algebra',
        latex: algebraArrayLatex(value.rows, value.cols, value.items, conventions),
        text: algebraMatrixText(value, conventions),
      }
    case 'sweep':
      return sweepReadout(value, conventions, name)
    case 'vector': {
      if (value.items.some((item) => item.kind === 'polynomial'))
        return {
          shape: 'algebra',
          latex: algebraArrayLatex(value.items.length, 1, value.items, conventions),
          text: formatSingle(value, conventions),
        }
      const entries = value.items
        .slice(0, ENTRIES_SHOWN)
        .map((item) => (isComplex(item) ? twin(item, conventions) : formatSingle(item, conventions)))
      return { shape: 'list', entries, count: value.items.length, size: vectorSize(value, conventions) }
    }
    case 'matrix':
      return grid(value, conventions)
    case 'parts':
    case 'text':
    case 'truth':
    case 'check':
      return { shape: 'words', text: formatSingle(value, conventions) }
    case 'angle':
      return { shape: 'single', text: formatSingle(value, conventions) }
    case 'number':
      if (C.isFinite(value))
        return isComplex(value)
          ? { shape: 'twin', ...twin(value, conventions) }
          : { shape: 'single', text: formatSingle(value, conventions) }
      return { shape: 'words', text: inWords(value) }
  }
}

/** Values at the edge, in words. */
function inWords(value: NumberValue): string {
  if (Number.isNaN(value.re) || Number.isNaN(value.im)) return 'undefined: it has no value'
  if (value.im !== 0 || value.complex) return 'infinite (∞), without a direction'
  return value.re > 0 ? 'infinite (∞)' : 'minus infinite (−∞)'
}

/** True where every digit of an exact value is on show. */
export function showsAll(value: Value, conventions: Conventions): boolean {
  if (value.kind !== 'number' || !value.exact) return false
  return showsWhole(value.re, value.exact.re, conventions) && showsWhole(value.im, value.exact.im, conventions)
}
