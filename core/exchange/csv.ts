import Papa from 'papaparse'
import { polar } from '../numbers/complex'
import { ENTRIES_MOST } from '../values/matrices'
import { COLUMNS_MOST, ROWS_MOST } from '../measured/data'
import type { Column, Data } from '../measured/data'
import { blockOf, cellOf, dialectOf, numeralText } from './dialect'
import type { Dialect } from './dialect'
import { bareUnit, belongTogether, headOf, isImaginary, joinedName } from './heads'
import type { Head } from './heads'
import { fault, remark } from './told'
import type { Fault, Remark } from './told'
import { fromDegrees } from './touchstone'

/**
 * Tables of text: RFC 4180 as it is met in the wild. How a table is to be read is guessed from its first lines,
 * shown, changed where the guess is wrong, and only then is the whole of it read.
 */

/** One or two columns of the file that become one column of the table. */
export interface Source {
  readonly name: string
  readonly unit: string
  /** Its column in the file, counted from 0. */
  readonly first: number
  /** The other half of a complex value. */
  readonly second: number | null
  readonly form: 'RI' | 'MA' | 'DB'
  /** The unit of the angle of MA and DB. */
  readonly angle: 'deg' | 'rad'
  readonly skip: boolean
}

/** How a file is read as a table. */
export interface TableReading {
  readonly dialect: Dialect
  /** Records of names and units; `null` where there are none. Counted from 0. */
  readonly header: number | null
  readonly units: number | null
  /** The first record of numbers. */
  readonly first: number
  readonly as: 'table' | 'matrix'
  readonly sources: readonly Source[]
  /** Which of the sources the others run along; -1 for none. */
  readonly parameter: number
}

export interface TableGuess {
  readonly kind: 'guess'
  readonly reading: TableReading
  /** The first records as the file has them, from the header on. */
  readonly shown: readonly (readonly string[])[]
  /** The record that is shown first. */
  readonly from: number
}

export interface ReadTable {
  readonly kind: 'read'
  readonly data: Data
  readonly told: readonly Remark[]
}

/** Records that a guess looks at, and of which the first are shown. */
const LOOKED_AT = 400
const SHOWN = 12

/** A guess at how a text is read as a table. */
export function guessTable(text: string, chosen: Partial<Dialect> = {}): TableGuess | Fault {
  const lines = headLines(text)
  const found = dialectOf(lines)
  if (!found && !chosen.separator) return fault('no-table', {})
  const dialect: Dialect = { separator: ';', mark: '.', ...found?.dialect, ...chosen }
  const records = recordsOf(lines.join('\n'), dialect, LOOKED_AT)
  const block = blockOf(
    records.map((cells) => cells.join('\u0001')),
    dialect,
    (line) => line.split('\u0001'),
  )
  if (!block) return fault('no-table', {})
  const { from, width } = block
  if (width > COLUMNS_MOST) return fault('too-many-columns', { count: width, most: COLUMNS_MOST })
  const { header, units } = headsBefore(records, from, width)
  const heads = Array.from({ length: width }, (_, k) =>
    headOf(header === null ? '' : (records[header]?.[k] ?? ''), units === null ? '' : (records[units]?.[k] ?? '')),
  )
  const body = records.slice(from, block.to)
  const reading = readingOf(dialect, header, units, from, heads, body)
  const start = header ?? from
  return { kind: 'guess', reading, shown: records.slice(start, start + SHOWN), from: start }
}

/** The first lines, whole; a first line that only names the separator is left in, as a line without numbers. */
function headLines(text: string): string[] {
  let at = 0
  const lines: string[] = []
  while (lines.length < LOOKED_AT && at < text.length && at < 4_000_000) {
    const end = text.slice(at, at + 1_000_000).search(/\r\n|\r|\n/)
    const to = end < 0 ? Math.min(text.length, at + 1_000_000) : at + end
    lines.push(text.slice(at, to))
    at = to + (text.startsWith('\r\n', to) ? 2 : 1)
  }
  return lines
}

/** Records of a short text. */
function recordsOf(text: string, dialect: Dialect, most: number): string[][] {
  const records: string[][] = []
  eachRecord(text, dialect, (cells) => {
    records.push(cells)
    return records.length < most
  })
  return records
}

/** Characters that are taken apart between two reports. */
const PART = 1 << 20

/**
 * Every record of a text in turn, until `take` says no. Blanks that separate are counted as one; what is quoted
 * is seen to by the library.
 */
function eachRecord(
  text: string,
  { separator }: Dialect,
  take: (cells: string[], line: number) => boolean,
  report?: (done: number, total: number) => void,
): void {
  let goesOn = true
  let index = 0
  const row = (cells: string[]): void => {
    if (goesOn) goesOn = take(cells, index)
    index += 1
  }
  if (separator === ' ') {
    let at = 0
    while (goesOn && at < text.length) {
      const end = text.indexOf('\n', at)
      const line = text.slice(at, end < 0 ? text.length : end).trim()
      row(line === '' ? [''] : line.replace(/^[#%!;]+\s+/, '').split(/\s+/))
      at = end < 0 ? text.length : end + 1
      if (index % 50_000 === 0) report?.(at, text.length)
    }
    return
  }
  const quoted = text.includes('"')
  // A mark that is never closed is one for inches, or the file is cut off: then none of them means anything.
  const quoteChar = quoted && closes(text, 0, text.length) ? '"' : NO_QUOTES
  for (let at = 0; goesOn && at < text.length;) {
    const end = cutAfter(text, at, quoteChar === '"')
    const { data } = Papa.parse<string[]>(text.slice(at, end), { delimiter: separator, quoteChar })
    // The break that ends a part begins no record of its own.
    if (data.at(-1)?.length === 1 && data.at(-1)?.[0] === '') data.pop()
    for (const cells of data) row(quoteChar === '"' || !quoted ? cells : cells.map(unquoted))
    at = end
    report?.(at, text.length)
  }
}

const NO_QUOTES = '\u0000'

const unquoted = (cell: string): string => /^\s*"(.*)"\s*$/s.exec(cell)?.[1] ?? cell

/** True where every quotation mark between two places has its partner there. */
function closes(text: string, from: number, to: number): boolean {
  let even = true
  for (let k = text.indexOf('"', from); k >= 0 && k < to; k = text.indexOf('"', k + 1)) even = !even
  return even
}

/** The end of a record, a part further on. */
function cutAfter(text: string, from: number, quoted: boolean): number {
  for (let at = from + PART; at < text.length;) {
    const end = text.indexOf('\n', at)
    if (end < 0) break
    if (!quoted || closes(text, from, end)) return end + 1
    at = end + 1
  }
  return text.length
}

/** The rows of names and of units just before the numbers. */
function headsBefore(
  records: readonly (readonly string[])[],
  from: number,
  width: number,
): { header: number | null; units: number | null } {
  const isHead = (k: number): boolean => {
    const cells = (records[k] ?? []).map((c) => c.trim())
    const filled = cells.filter((c) => c !== '').length
    return Math.abs(cells.length - width) <= 1 && filled > 0 && filled >= Math.ceil(width / 2) && !cells.every(isNumber)
  }
  const filledBefore = (k: number): number => {
    for (let at = k - 1; at >= 0; at -= 1) if (records[at]?.some((c) => c.trim() !== '')) return at
    return -1
  }
  const last = filledBefore(from)
  if (!isHead(last)) return { header: null, units: null }
  const above = filledBefore(last)
  if (areUnits(records[last] ?? []) && isHead(above)) return { header: above, units: last }
  return { header: last, units: null }
}

const isNumber = (cell: string): boolean => typeof cellOf(cell, '.') === 'number'

function areUnits(cells: readonly string[]): boolean {
  const filled = cells.map((c) => bareUnit(c.replace(/^[\s#%!]+/, ''))).filter((c) => c !== '')
  return filled.length > 0 && filled.every(isImaginary)
}

function readingOf(
  dialect: Dialect,
  header: number | null,
  units: number | null,
  first: number,
  heads: readonly Head[],
  body: readonly (readonly string[])[],
): TableReading {
  const { mark } = dialect
  const cell = (row: readonly string[], k: number): ReturnType<typeof cellOf> => cellOf(row[k] ?? '', mark)
  const numbers = heads.map((_, k) => body.filter((row) => typeof cell(row, k) === 'number').length)
  const texts = heads.map((_, k) => body.filter((row) => cell(row, k) === 'text').length)
  const ofText = (k: number): boolean => (texts[k] ?? 0) > (numbers[k] ?? 0) || ((numbers[k] ?? 0) === 0 && header === null) // prettier-ignore
  const sources: Source[] = []
  for (let k = 0; k < heads.length; k += 1) {
    const [a, b] = [heads[k], heads[k + 1]]
    if (!a) break
    // What separates the last cell from nothing makes no column.
    if (a.name === '' && body.every((row) => (row[k] ?? '').trim() === '')) continue
    const plain = { name: a.name === '' ? `column_${k + 1}` : a.name, unit: a.unit, first: k }
    const form = b && !ofText(k) && !ofText(k + 1) ? belongTogether(a, b) : null
    if (b && form) {
      const turned = b.unit === 'rad' || (b.unit !== '°' && body.every((row) => isSmall(cell(row, k + 1))))
      const unit = form === 'DB' ? '' : a.unit
      sources.push({ ...plain, name: joinedName(a, b), unit, second: k + 1, form, angle: turned ? 'rad' : 'deg', skip: false }) // prettier-ignore
      k += 1
    } else sources.push({ ...plain, second: null, form: 'RI', angle: 'deg', skip: ofText(k) })
  }
  const taken = sources.filter((s) => !s.skip)
  const [own] = taken
  const rising = own?.second === null && runsOn(own, header !== null, body.map((row) => cell(row, own.first))) // prettier-ignore
  const matrix = header === null ? !rising && taken.length > 1 : taken.length > 0 && areEntries(taken)
  const as = matrix ? 'matrix' : 'table'
  const parameter = as === 'table' && rising && taken.length > 1 ? sources.findIndex((s) => !s.skip) : -1
  return { dialect, header, units, first, as, sources, parameter }
}

/** At most half a turn in radians: degrees are rarely all so small. */
const isSmall = (x: ReturnType<typeof cellOf>): boolean => typeof x !== 'number' || Math.abs(x) <= Math.PI * 1.000001

/** Heads such as M[1], M[2] are those of a matrix that was written here. */
function areEntries(sources: readonly Source[]): boolean {
  return sources.every(
    (s, k) => s.name.endsWith(`[${k + 1}]`) && s.name.split('[')[0] === sources[0]?.name.split('[')[0],
  )
}

/** Names and units of what others are measured along. */
const USUAL_NAME = /^(?:f|freq\w*|t|time|ω|omega|w|x|n|angle|position|distance)$/i
const USUAL_UNIT = /Hz$|^[mµn]?s$|^rad\/s$/

/** True of a column that the others may run along: it goes one way, or is named as what usually does. */
function runsOn({ name, unit }: Source, headed: boolean, cells: readonly ReturnType<typeof cellOf>[]): boolean {
  const usual = headed && (USUAL_NAME.test(name) || USUAL_UNIT.test(unit))
  let before: number | null = null
  let direction = 0
  // What stands below the numbers, a mean perhaps, is none of them.
  const last = cells.findLastIndex((x) => typeof x === 'number')
  for (const x of cells.slice(0, last + 1)) {
    if (typeof x !== 'number') return false
    const sign = before === null ? 0 : Math.sign(x - before)
    if (before !== null && sign === 0 && !headed) return false
    if (sign !== 0 && direction !== 0 && sign !== direction && !usual) return false
    if (sign !== 0) direction = sign
    before = x
  }
  return direction !== 0
}

/** A column of doubles that grows as the rows come. */
class Growing {
  values = new Float64Array(1024)
  length = 0

  push(x: number): void {
    if (this.length === this.values.length) {
      const more = new Float64Array(2 * this.length)
      more.set(this.values)
      this.values = more
    }
    this.values[this.length] = x
    this.length += 1
  }

  done(): Float64Array {
    return this.values.slice(0, this.length)
  }
}

/** Reads the whole table as it was chosen. Cells that hold no number are undefined, and counted. */
export function readTable(
  text: string,
  reading: TableReading,
  report?: (done: number, total: number) => void,
): ReadTable | Fault {
  const { dialect, sources, first } = reading
  const taken = sources.filter((s) => !s.skip)
  const columns = taken.map((s) => ({ ...s, re: new Growing(), im: s.second === null ? null : new Growing() }))
  const missing = { cells: 0, line: 0, column: 0, text: '' }
  let rows = 0
  let after = 0
  let over = false
  const cellsRead = columns.flatMap(({ first: a, second }) => (second === null ? [a] : [a, second]))
  const own = sources[reading.parameter]?.first
  const values = new Float64Array(1 + Math.max(-1, ...cellsRead))
  /** Reads the cells that are taken; false where the record is no row of numbers. */
  const readRow = (cells: readonly string[], record: number): boolean => {
    let known = false
    let text = false
    const holes: number[] = []
    for (const k of cellsRead) {
      const x = cellOf(cells[k] ?? '', dialect.mark)
      if (typeof x === 'number') known = true
      else {
        holes.push(k)
        if (x === 'text') text = true
        // Words where the parameter should stand: a mean, a total.
        if (x === 'text' && k === own) return false
      }
      values[k] = typeof x === 'number' ? x : NaN
    }
    if (!known && (text || cells.length < 2)) return false
    for (const k of holes) {
      if (missing.cells === 0)
        Object.assign(missing, { line: record + 1, column: k + 1, text: (cells[k] ?? '').trim().slice(0, 40) })
      missing.cells += 1
    }
    return true
  }
  eachRecord(
    text,
    dialect,
    (cells, record) => {
      if (record < first || cells.every((c) => c.trim() === '')) return true
      if (after > 0 || !readRow(cells, record)) {
        after += 1
        return true
      }
      if (rows === ROWS_MOST) {
        over = true
        return false
      }
      rows += 1
      for (const column of columns) addTo(column, values, cells, dialect)
      return true
    },
    report,
  )
  if (over) return fault('too-many-rows', { most: ROWS_MOST })
  if (rows === 0 || columns.length === 0) return fault('no-data', {})
  const told = remarksOf(reading, missing, after)
  const parts = columns.map(({ name, unit, re, im }): Column => ({ name, unit, order: 1, re: re.done(), im: im?.done() ?? null })) // prettier-ignore
  if (reading.as === 'matrix') {
    if (rows * parts.length > ENTRIES_MOST)
      return fault('too-many-entries', { count: rows * parts.length, most: ENTRIES_MOST })
    return { kind: 'read', data: matrixFrom(parts, rows), told }
  }
  const parameter = reading.parameter < 0 ? -1 : taken.findIndex((s) => s === sources[reading.parameter])
  const along = parts[parameter]
  if (along) told.push(...parameterRemarks(along))
  return { kind: 'read', data: { kind: 'table', rows, columns: parts, parameter }, told }
}

interface Filling extends Source {
  readonly re: { push(x: number): void }
  readonly im: { push(x: number): void } | null
}

function addTo(column: Filling, values: Float64Array, cells: readonly string[], { mark }: Dialect): void {
  const a = values[column.first] ?? NaN
  if (column.second === null || column.im === null) return column.re.push(a)
  const b = values[column.second] ?? NaN
  if (column.form === 'RI') {
    column.re.push(a)
    return column.im.push(b)
  }
  const size = column.form === 'DB' ? 10 ** (a / 20) : a
  const text = (cells[column.second] ?? '').trim()
  const z =
    Number.isNaN(size) || Number.isNaN(b)
      ? { re: NaN, im: NaN }
      : column.angle === 'deg'
        ? fromDegrees(size, b, numeralText(text, mark))
        : polar(size, b)
  column.re.push(z.re)
  column.im.push(z.im)
}

function matrixFrom(columns: readonly Column[], rows: number): Data {
  const cols = columns.length
  const complex = columns.some((c) => c.im !== null)
  const re = new Float64Array(rows * cols)
  const im = complex ? new Float64Array(rows * cols) : null
  columns.forEach((column, c) => {
    for (let r = 0; r < rows; r += 1) {
      re[r * cols + c] = column.re[r] ?? NaN
      if (im) im[r * cols + c] = column.im?.[r] ?? 0
    }
  })
  return { kind: 'matrix', rows, cols, re, im }
}

function remarksOf(
  { sources, header, first }: TableReading,
  missing: { cells: number; line: number; column: number; text: string },
  after: number,
): Remark[] {
  const told: Remark[] = []
  const before = header ?? first
  if (before > 0) told.push(remark('lines-before', { lines: before }))
  if (after > 0) told.push(remark('lines-after', { lines: after }))
  const left = sources.filter((s) => s.skip).map((s) => s.name)
  if (left.length > 0) told.push(remark('columns-of-text', { names: left.join(', ') }))
  if (missing.cells > 0) told.push(remark('cells-undefined', missing))
  return told
}

function parameterRemarks({ name, re }: Column): Remark[] {
  let falls = false
  let repeated = 0
  for (let k = 1; k < re.length; k += 1) {
    const step = (re[k] ?? NaN) - (re[k - 1] ?? NaN)
    if (step < 0) falls = true
    if (step === 0) repeated += 1
  }
  const told: Remark[] = []
  if (falls) told.push(remark('parameter-unsorted', { name }))
  if (repeated > 0) told.push(remark('parameter-repeated', { name, points: repeated }))
  return told
}
