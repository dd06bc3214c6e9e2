import * as C from '../numbers/complex'
import type { Column, Data, DataMatrix } from '../measured/data'
import { writeNumeral } from './numerals'

/**
 * Tables as RFC 4180 has them: a record a row, numerals in full, `name / unit` above. Complex values take two
 * columns, by parts or by magnitude and angle. For a spreadsheet: semicolons, a decimal comma, a byte order mark,
 * and no text that a spreadsheet would run.
 */
export interface CsvStyle {
  readonly separator: ',' | ';' | '\t'
  readonly mark: '.' | ','
  readonly form: 'parts' | 'polar'
  /** The unit of angles. */
  readonly angle: 'deg' | 'rad'
  readonly forSpreadsheet: boolean
}

export const PLAIN_CSV: CsvStyle = { separator: ',', mark: '.', form: 'parts', angle: 'deg', forSpreadsheet: false }
export const TSV: CsvStyle = { ...PLAIN_CSV, separator: '\t' }
export const SPREADSHEET: CsvStyle = { separator: ';', mark: ',', form: 'parts', angle: 'deg', forSpreadsheet: true }

/** A column of texts, as they stand in the file. */
interface Written {
  readonly head: string
  readonly cell: (row: number) => string
}

export function writeCsv(data: Data, style: CsvStyle = PLAIN_CSV, name = 'M'): string {
  const columns = data.kind === 'matrix' ? matrixColumns(data, name) : data.columns.flatMap(numberColumns)
  return records(
    columns.flatMap((column) => written(column, style)),
    data.rows,
    style,
  )
}

/** Kept numbers, one a record. */
export function writeScalars(
  scalars: readonly { readonly name: string; readonly re: number; readonly im: number; readonly unit?: string }[],
  style: CsvStyle = PLAIN_CSV,
): string {
  const part = (of: 're' | 'im') => (row: number) => numeral(scalars[row]?.[of] ?? NaN, style)
  const columns: Written[] = [
    { head: 'name', cell: (row) => textCell(scalars[row]?.name ?? '', style) },
    { head: 're', cell: part('re') },
    { head: 'im', cell: part('im') },
    ...(scalars.some(({ unit }) => unit) ? [{ head: 'unit', cell: (row: number) => textCell(scalars[row]?.unit ?? '', style) }] : []), // prettier-ignore
  ]
  return records(columns, scalars.length, style)
}

/** Rows as they are given: numbers in full, texts as they are. */
export function writeRows(rows: readonly (readonly (string | number)[])[], style: CsvStyle = PLAIN_CSV): string {
  const [head = [], ...others] = rows
  const columns = head.map((text, c): Written => ({
    head: String(text),
    cell: (row) => {
      const found = others[row]?.[c] ?? ''
      return typeof found === 'number' ? numeral(found, style) : textCell(found, style)
    },
  }))
  return records(columns, others.length, style)
}

function records(columns: readonly Written[], rows: number, style: CsvStyle): string {
  const lines = [columns.map((c) => textCell(c.head, style)).join(style.separator)]
  for (let row = 0; row < rows; row += 1) lines.push(columns.map((c) => c.cell(row)).join(style.separator))
  return `${style.forSpreadsheet ? '\uFEFF' : ''}${lines.join('\r\n')}\r\n`
}

function matrixColumns({ rows, cols, re, im }: DataMatrix, name: string): Column[] {
  const pick = (all: Float64Array, c: number): Float64Array => Float64Array.from({ length: rows }, (_, r) => all[r * cols + c] ?? NaN) // prettier-ignore
  return Array.from({ length: cols }, (_, c) => ({
    name: `${name}[${c + 1}]`,
    unit: '',
    order: 1,
    re: pick(re, c),
    im: im && pick(im, c),
  }))
}

/** Of a column of matrices every entry is a column: Z[2,1]. */
function numberColumns(column: Column): Column[] {
  const { order, re, im, name } = column
  if (order === 1) return [column]
  const size = order * order
  return Array.from({ length: size }, (_, k) => {
    const pick = (all: Float64Array): Float64Array => Float64Array.from({ length: all.length / size }, (__, r) => all[r * size + k] ?? NaN) // prettier-ignore
    const place = `${Math.floor(k / order) + 1},${(k % order) + 1}`
    return { ...column, name: `${name}[${place}]`, order: 1, re: pick(re), im: im && pick(im) }
  })
}

function written({ name, unit, re, im }: Column, style: CsvStyle): Written[] {
  const head = (text: string, of: string): string => (of === '' ? text : `${text} / ${of}`)
  const angles = style.angle === 'deg' ? '°' : 'rad'
  const turn = (radians: number): number => (style.angle === 'deg' ? (radians / Math.PI) * 180 : radians)
  if (im === null) {
    const isAngle = unit === 'rad'
    return [
      {
        head: head(name, isAngle ? angles : unit),
        cell: (row) => numeral(isAngle ? turn(re[row] ?? NaN) : (re[row] ?? NaN), style),
      },
    ]
  }
  if (style.form === 'parts')
    return [
      { head: head(`re(${name})`, unit), cell: (row) => numeral(re[row] ?? NaN, style) },
      { head: head(`im(${name})`, unit), cell: (row) => numeral(im[row] ?? NaN, style) },
    ]
  const at = (row: number): C.Complex => ({ re: re[row] ?? NaN, im: im[row] ?? NaN })
  return [
    { head: head(`abs(${name})`, unit), cell: (row) => numeral(C.abs(at(row)), style) },
    { head: head(`arg(${name})`, angles), cell: (row) => numeral(turn(C.arg(at(row))), style) }, // prettier-ignore
  ]
}

/** What is undefined is an empty cell. */
function numeral(x: number, { mark }: CsvStyle): string {
  if (Number.isNaN(x)) return ''
  const text = writeNumeral(x)
  return mark === ',' ? text.replace('.', ',') : text
}

/** Letters with which a spreadsheet would take a text for a formula. */
const RUN = /^[=+\-@\t\r]/

function textCell(text: string, { separator, forSpreadsheet }: CsvStyle): string {
  const guarded = forSpreadsheet && RUN.test(text) ? `'${text}` : text
  return guarded.includes(separator) || /["\r\n]/.test(guarded) ? `"${guarded.replace(/"/g, '""')}"` : guarded
}
