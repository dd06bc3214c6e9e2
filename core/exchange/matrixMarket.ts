import { ENTRIES_MOST } from '../values/matrices'
import type { DataMatrix } from '../measured/data'
import { readNumeralOrWord, writeNumeral } from './numerals'
import { fault, remark } from './told'
import type { Fault, Remark } from './told'

/**
 * Matrix Market exchange files: matrices as dense arrays or by coordinates.
 * Source: R. F. Boisvert, R. Pozo, K. A. Remington, The Matrix Market Exchange Formats: Initial Design, NISTIR 5935
 * (1996).
 */

export interface ReadMatrix {
  readonly kind: 'read'
  readonly data: DataMatrix
  readonly told: readonly Remark[]
}

const LAYOUTS = ['array', 'coordinate'] as const
const FIELDS = ['real', 'double', 'integer', 'complex', 'pattern'] as const
const SYMMETRIES = ['general', 'symmetric', 'skew-symmetric', 'hermitian'] as const
type Symmetry = (typeof SYMMETRIES)[number]

interface Banner {
  readonly layout: (typeof LAYOUTS)[number]
  readonly field: (typeof FIELDS)[number]
  readonly symmetry: Symmetry
}

/** A line that says something: its words, and where it stands. */
interface Row {
  readonly number: number
  readonly words: readonly string[]
  readonly text: string
}

export function isMatrixMarket(text: string): boolean {
  return /^\s*%%matrixmarket\b/i.test(text.slice(0, 200))
}

/** Reads a matrix. Faults name the line; sizes are refused before anything is made for them. */
export function readMatrixMarket(text: string): ReadMatrix | Fault {
  const rows = rowsOf(text)
  const first = rows.next()
  const banner = first.done ? fault('empty', {}) : bannerOf(first.value)
  if ('kind' in banner) return banner
  const second = rows.next()
  if (second.done) return fault('no-data', {})
  const sizes = sizesOf(second.value, banner)
  if ('kind' in sizes) return sizes
  return fill(rows, banner, sizes)
}

/** The lines but for comments and blank ones; the banner is the first, and starts with % as well. */
function* rowsOf(text: string): Generator<Row> {
  let at = 0
  for (let number = 1; at <= text.length; number += 1) {
    const end = text.indexOf('\n', at)
    const line = text.slice(at, end < 0 ? text.length : end).trim()
    at = end < 0 ? text.length + 1 : end + 1
    const isBanner = /^%%matrixmarket\b/i.test(line)
    if (line === '' || (line.startsWith('%') && !isBanner)) continue
    yield { number, words: line.split(/\s+/), text: line }
  }
}

function bannerOf({ words, number }: Row): Banner | Fault {
  const [, object = '', layoutWord = '', fieldWord = '', symmetryWord = ''] = words.map((w) => w.toLowerCase())
  const layout = LAYOUTS.find((l) => l === layoutWord)
  const field = FIELDS.find((f) => f === fieldWord)
  const symmetry = SYMMETRIES.find((s) => s === symmetryWord)
  const odd = (word: string): Fault => fault('matrix-market-banner', { text: word }, number)
  if (object !== 'matrix') return odd(object)
  if (!layout) return odd(layoutWord)
  if (!field) return odd(fieldWord)
  if (!symmetry) return odd(symmetryWord)
  if (field === 'pattern' && layout === 'array') return fault('pattern-array', {}, number)
  if (symmetry === 'hermitian' && field !== 'complex') return odd(symmetryWord)
  if (field === 'pattern' && symmetry === 'skew-symmetric') return odd(symmetryWord)
  return { layout, field, symmetry }
}

interface Sizes {
  readonly rows: number
  readonly cols: number
  /** How many entries the file is to hold. */
  readonly entries: number
}

function sizesOf({ words, text, number }: Row, banner: Banner): Sizes | Fault {
  const wrong = fault('matrix-market-sizes', { text }, number)
  if (words.length !== (banner.layout === 'array' ? 2 : 3)) return wrong
  if (!words.every((w) => /^\d{1,15}$/.test(w))) return wrong
  const [rows = 0, cols = 0, stated = 0] = words.map(Number)
  if (rows === 0 || cols === 0) return wrong
  if (rows * cols > ENTRIES_MOST) return fault('too-many-entries', { count: rows * cols, most: ENTRIES_MOST }, number)
  const { symmetry } = banner
  if (symmetry !== 'general' && rows !== cols)
    return fault('matrix-market-square', { rows, cols, kind: symmetry }, number)
  const inTriangle = (rows * (rows - 1)) / 2
  const dense = symmetry === 'general' ? rows * cols : symmetry === 'skew-symmetric' ? inTriangle : inTriangle + rows
  return { rows, cols, entries: banner.layout === 'array' ? dense : stated }
}

function fill(lines: Generator<Row>, banner: Banner, { rows, cols, entries }: Sizes): ReadMatrix | Fault {
  const { layout, field, symmetry } = banner
  const re = new Float64Array(rows * cols)
  const im = field === 'complex' ? new Float64Array(rows * cols) : null
  const taken = layout === 'coordinate' ? new Uint8Array(rows * cols) : null
  const parts = field === 'pattern' ? 0 : im ? 2 : 1
  const places = layout === 'array' ? 0 : 2
  const order = arrayPlaces(rows, cols, symmetry)
  let repeated = 0
  let has = 0
  for (const { words, number, text } of lines) {
    if (has === entries) return fault('entries-over', { needs: entries }, number)
    if (words.length !== places + parts)
      return fault('entry-form', { has: words.length, needs: places + parts }, number)
    const place = layout === 'array' ? (order.next().value ?? null) : placeOf(words, rows, cols, number)
    if (place === null) return fault('entries-over', { needs: entries }, number)
    if ('kind' in place) return place
    const numbers = numbersOf(words, places, text, number)
    if (!Array.isArray(numbers)) return numbers
    const [x = 1, y = 0] = numbers
    const { row, col } = place
    const outside = symmetry !== 'general' && (col > row || (symmetry === 'skew-symmetric' && col === row))
    if (outside) return fault('matrix-market-triangle', { row: row + 1, col: col + 1, kind: symmetry }, number)
    if (symmetry === 'hermitian' && row === col && y !== 0) return fault('hermitian-diagonal', { row: row + 1 }, number)
    const at = row * cols + col
    const again = taken?.[at] === 1
    if (again) repeated += 1
    if (taken) taken[at] = 1
    re[at] = again ? (re[at] ?? 0) + x : x
    if (im) im[at] = again ? (im[at] ?? 0) + y : y
    has += 1
  }
  if (has < entries) return fault('entries-missing', { has, needs: entries })
  if (symmetry !== 'general') mirror(re, im, rows, symmetry)
  const told = repeated === 0 ? [] : [remark('duplicates-summed', { entries: repeated })]
  return { kind: 'read', data: { kind: 'matrix', rows, cols, re, im }, told }
}

interface Place {
  readonly row: number
  readonly col: number
}

/** Where the entries of an array stand: by columns, of the symmetric kinds from the diagonal down. */
function* arrayPlaces(rows: number, cols: number, symmetry: Symmetry): Generator<Place, null> {
  for (let col = 0; col < cols; col += 1) {
    const from = symmetry === 'general' ? 0 : symmetry === 'skew-symmetric' ? col + 1 : col
    for (let row = from; row < rows; row += 1) yield { row, col }
  }
  return null
}

function placeOf(
  [rowWord = '', colWord = '']: readonly string[],
  rows: number,
  cols: number,
  line: number,
): Place | Fault {
  for (const word of [rowWord, colWord]) if (!/^\d{1,15}$/.test(word)) return fault('bad-number', { text: word }, line)
  const [row, col] = [Number(rowWord), Number(colWord)]
  if (row < 1 || col < 1 || row > rows || col > cols)
    return fault('matrix-market-place', { row, col, rows, cols }, line)
  return { row: row - 1, col: col - 1 }
}

function numbersOf(words: readonly string[], from: number, text: string, line: number): number[] | Fault {
  const numbers: number[] = []
  for (const word of words.slice(from)) {
    const x = readNumeralOrWord(word)
    if (typeof x === 'string')
      return fault(x === 'too-large' ? 'number-too-large' : 'bad-number', { text: word }, line, text.indexOf(word) + 1)
    numbers.push(x)
  }
  return numbers
}

/** The upper triangle from the lower one. */
function mirror(re: Float64Array, im: Float64Array | null, n: number, symmetry: Symmetry): void {
  const turned = (x: number, negative: boolean): number => (negative ? 0 - x : x)
  for (let row = 0; row < n; row += 1)
    for (let col = 0; col < row; col += 1) {
      re[col * n + row] = turned(re[row * n + col] ?? 0, symmetry === 'skew-symmetric')
      if (im) im[col * n + row] = turned(im[row * n + col] ?? 0, symmetry !== 'symmetric')
    }
}

/** A matrix as an array of all its entries, by columns. */
export function writeMatrixMarket({ rows, cols, re, im }: DataMatrix, comment = ''): string {
  const lines = [`%%MatrixMarket matrix array ${im ? 'complex' : 'real'} general`]
  for (const line of comment === '' ? [] : comment.split(/[\r\n]+/)) lines.push(`% ${line}`)
  lines.push(`${rows} ${cols}`)
  for (let col = 0; col < cols; col += 1)
    for (let row = 0; row < rows; row += 1) {
      const at = row * cols + col
      const real = writeNumeral(re[at] ?? NaN)
      lines.push(im ? `${real} ${writeNumeral(im[at] ?? NaN)}` : real)
    }
  return `${lines.join('\n')}\n`
}
