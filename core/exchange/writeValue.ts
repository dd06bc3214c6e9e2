import { numberInUnit } from '../quantities/shown'
import { factorNumber, parsed } from '../units/unit'
import { bare } from '../values/quantity'
import type { Value } from '../values/types'
import { PLAIN_CSV, SPREADSHEET, TSV, writeCsv, writeScalars } from './csvOut'
import type { CsvStyle } from './csvOut'
import type { Column, Data, DataTable } from '../measured/data'
import { valueData } from '../kinds/kinds'
import { writeMatrixMarket } from './matrixMarket'
import { fault } from './told'
import type { Fault } from './told'
import { PARAMETERS } from './touchstone'
import type { Parameter } from './touchstone'
import { writeTouchstone } from './touchstoneOut'

/** Values and data as files of numbers, each format with what it can hold. */

export type NumberFormat = 'csv' | 'tsv' | 'spreadsheet' | 'mtx' | 'touchstone'

export interface NumberFile {
  readonly kind: 'file'
  readonly text: string
  /** `.mtx`, `.s2p`: what its name ends in. */
  readonly ending: string
}

/** A value under a name. */
export interface Named {
  readonly name: string
  readonly value: Value
}

const STYLES: Readonly<Record<'csv' | 'tsv' | 'spreadsheet', CsvStyle>> = { csv: PLAIN_CSV, tsv: TSV, spreadsheet: SPREADSHEET } // prettier-ignore
const ENDINGS: Readonly<Record<'csv' | 'tsv' | 'spreadsheet', string>> = { csv: '.csv', tsv: '.tsv', spreadsheet: '.csv' } // prettier-ignore
const TAKES: Readonly<Record<NumberFormat, string>> = {
  csv: 'a sweep, a matrix, a vector, or numbers',
  tsv: 'a sweep, a matrix, a vector, or numbers',
  spreadsheet: 'a sweep, a matrix, a vector, or numbers',
  mtx: 'a matrix or a vector',
  touchstone: 'a sweep of numbers or of square matrices',
}

export interface ValueOptions {
  readonly angle: 'deg' | 'rad'
  readonly form?: 'parts' | 'polar'
  /** Which parameter a network is written as; by its name where it is not said, else impedances. */
  readonly parameter?: Parameter
}

/** One value as a file. */
export function writeValue({ name, value }: Named, format: NumberFormat, options: ValueOptions): NumberFile | Fault {
  if (isNumber(value) && format !== 'mtx' && format !== 'touchstone') return writeNumbers([{ name, value }], format, options) // prettier-ignore
  const data = valueData(value, name)
  return data ? writeData(data, name, format, options) : fault('wrong-value', { name, format, needs: TAKES[format] })
}

/** Data as a file. */
export function writeData(data: Data, name: string, format: NumberFormat, options: ValueOptions): NumberFile | Fault {
  const wrong = fault('wrong-value', { name, format, needs: TAKES[format] })
  switch (format) {
    case 'csv':
    case 'tsv':
    case 'spreadsheet': {
      const style = { ...STYLES[format], angle: options.angle, form: options.form ?? 'parts' }
      return { kind: 'file', text: writeCsv(data, style, name), ending: ENDINGS[format] }
    }
    case 'mtx':
      return data.kind === 'matrix' ? { kind: 'file', text: writeMatrixMarket(data, name), ending: '.mtx' } : wrong
    case 'touchstone':
      return data.kind === 'table' ? network(data, name, options) : wrong
  }
}

function network(data: DataTable, name: string, options: ValueOptions): NumberFile | Fault {
  const own = data.columns[data.parameter]
  const column = data.columns.find((c): c is Column => c !== own)
  if (!own || !column) return fault('nothing-to-write', { format: 'network data', needs: TAKES.touchstone })
  const initial = PARAMETERS.find((p) => p === column.name.charAt(0).toUpperCase())
  const fits = initial !== undefined && (column.order === 2 || (initial !== 'G' && initial !== 'H'))
  const parameter = options.parameter ?? (fits ? initial : 'Z')
  const text = writeTouchstone(coherent(own).re, coherent(column), parameter, name)
  return typeof text === 'string' ? { kind: 'file', text, ending: `.s${column.order}p` } : text
}

/** Hertz, ohms and siemens, whatever prefix they are shown with. */
function coherent(column: Column): Column {
  const factor = factorNumber(parsed(column.unit))
  if (factor === 1) return column
  const by = (x: number): number => x * factor
  return { ...column, re: column.re.map(by), im: column.im && column.im.map(by) }
}

/** True of numbers, with a unit or without. */
export const isNumber = (value: Value): boolean => bare(value).kind === 'number'

/** Numbers under their names, as a table. */
export function writeNumbers(
  named: readonly Named[],
  format: 'csv' | 'tsv' | 'spreadsheet',
  options: ValueOptions,
): NumberFile {
  const rows = named.flatMap(({ name, value }) => {
    const { number, unit } = numberInUnit(value)
    return number.kind === 'number' ? [{ name, re: number.re, im: number.im, unit }] : []
  })
  return {
    kind: 'file',
    text: writeScalars(rows, { ...STYLES[format], angle: options.angle }),
    ending: ENDINGS[format],
  }
}

/** The value that a file is made of where none is named: the only one that fits; of numbers all of them. */
export function writeFirst(all: readonly Named[], format: NumberFormat, options: ValueOptions): NumberFile | Fault {
  const numbers = all.filter(({ value }) => isNumber(value))
  const larger = all.filter(({ name, value }) => !isNumber(value) && valueData(value, name) !== null)
  const fitting = larger.filter((named) => writeValue(named, format, options).kind === 'file')
  const tabular = format !== 'mtx' && format !== 'touchstone'
  if (tabular && fitting.length === 0 && numbers.length > 0) return writeNumbers(numbers, format, options)
  const last = fitting.at(-1)
  if (last) return writeValue(last, format, options)
  return fault('nothing-to-write', { format, needs: TAKES[format] })
}
