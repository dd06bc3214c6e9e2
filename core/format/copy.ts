import * as C from '../numbers/complex'
import { asDegrees } from '../values/convert'
import { itemsOf } from '../values/matrices'
import { ofSort, vector } from '../values/make'
import { pointAt, pointsOf } from '../values/sweeps'
import type { MatrixValue, NumberValue, SweepValue, Value } from '../values/types'
import type { Conventions } from './conventions'
import { fractionText } from './json'
import { algebraArrayLatex, polynomialLatex } from './algebra'
import { formatPolar, formatSingle, matrixText, quiet } from './readout'

/**
 * What is put on the clipboard. `shown`: the digits on show, as text that reads
 * back in; `full`: everything that is known of the value, likewise; `polar`: as
 * shown, in polar form; `latex`; `csv` (RFC 4180, one row an entry).
 */
export type CopyForm = 'shown' | 'full' | 'polar' | 'latex' | 'csv'

/** The text of a value in a form; `null` where the value has no such form. */
export function copyText(value: Value, form: CopyForm, conventions: Conventions): string | null {
  if (value.kind === 'function') return null
  if (value.kind === 'sweep') return sweepCopy(value, form, conventions)
  switch (form) {
    case 'shown':
      return value.kind === 'text' ? quoted(value.text) : formatSingle(value, conventions)
    case 'full':
      return fullText(value, conventions)
    case 'polar':
      return polarText(value, conventions)
    case 'latex':
      return valueToLatex(value, conventions)
    case 'csv':
      return csv(value, conventions)
  }
}

/** Most points of a sweep that are copied as an entry. */
const COPIED_MOST = 2_000

/** A sweep as an entry that reads back, or as a table with what it runs along. */
function sweepCopy(sweep: SweepValue, form: CopyForm, conventions: Conventions): string | null {
  if (form === 'csv') return sweepCsv(sweep, conventions)
  if (sweep.count > COPIED_MOST || form === 'latex') return null
  const text = copyText(vector(pointsOf(sweep)), form, conventions)
  return text && `sweep(${text})`
}

/** The parameter and the value at every point; of a complex one both parts, magnitude and angle. */
function sweepCsv(sweep: SweepValue, conventions: Conventions): string {
  const { axis, re, im, count } = sweep
  const turn = (radians: number): number => (conventions.angle === 'deg' ? (radians / Math.PI) * 180 : radians)
  const own = axis.values === re
  const parameter = own ? [] : [axis.name ?? 'parameter']
  const heads = sweep.of === 'angle' ? [angleHead(conventions)] : sweep.complex ? ['re', 'im', 'magnitude', angleHead(conventions)] : ['value'] // prettier-ignore
  const rows = [[...parameter, ...heads].join(',')]
  for (let k = 0; k < count; k += 1) {
    const x = axis.values[k] ?? NaN
    const cells = own ? [] : [csvNumber(axis.angle ? turn(x) : x)]
    const [a, b] = [re[k] ?? NaN, im?.[k] ?? 0]
    if (sweep.of === 'other') cells.push(csvRow(pointAt(sweep, k), false, conventions))
    else if (sweep.of === 'angle') cells.push(csvNumber(turn(a)))
    else if (sweep.complex) cells.push(...[a, b, C.abs({ re: a, im: b }), turn(C.arg({ re: a, im: b }))].map(csvNumber))
    else cells.push(csvNumber(a))
    rows.push(cells.join(','))
  }
  return rows.join('\r\n')
}

const quoted = (text: string): string => `"${text}"`

/** The shortest decimal that reads back as the same double. */
function decimal(x: number): string {
  if (x === Infinity) return 'inf'
  if (x === -Infinity) return '-inf'
  if (Number.isNaN(x)) return '0/0'
  return String(x).replace('e+', 'e')
}

/** Longest exact fraction that is worth writing out. */
const LONGEST_EXACT = 400

function fullNumber(z: NumberValue, { letter }: Conventions): string {
  if (z.exact) {
    const text = fractionText(z.exact, letter)
    if (text.length <= LONGEST_EXACT) return text
  }
  if (z.im === 0) return decimal(z.re)
  const size = `${decimal(Math.abs(z.im))}${letter}`
  if (!C.isFinite(z)) return 'inf'
  return z.re === 0 ? `${z.im < 0 ? '-' : ''}${size}` : `${decimal(z.re)} ${z.im < 0 ? '-' : '+'} ${size}`
}

function fullText(value: Value, conventions: Conventions): string {
  switch (value.kind) {
    case 'number':
      return fullNumber(value, conventions)
    case 'angle':
      return conventions.angle === 'deg' ? `${decimal(asDegrees(value))}°` : `${decimal(value.radians)} rad`
    case 'matrix':
      return matrixText(value, (item) => fullNumber(item, conventions))
    case 'vector':
      return `[${value.items.map((item) => fullText(item, conventions)).join(', ')}]`
    case 'text':
      return quoted(value.text)
    default:
      return formatSingle(value, conventions)
  }
}

function polarText(value: Value, conventions: Conventions): string | null {
  if (value.kind === 'number') return value.complex || value.im !== 0 ? formatPolar(value, conventions) : null
  if (value.kind === 'matrix') return value.complex ? matrixText(value, (item) => formatPolar(item, conventions)) : null
  if (value.kind !== 'vector') return null
  const entries = value.items.map((item) => polarText(item, conventions) ?? formatSingle(item, conventions))
  return value.items.some((item) => polarText(item, conventions) !== null) ? `[${entries.join(', ')}]` : null
}

/** A value as LaTeX, with the digits on show: `3 + \mathrm{j}4`, `5\,\angle\,53.13^{\circ}`. */
export function valueToLatex(value: Value, conventions: Conventions): string {
  if (value.kind === 'vector') {
    const rows = value.items.map((item) => valueToLatex(item, conventions))
    return `\\begin{pmatrix} ${rows.join(' \\\\ ')} \\end{pmatrix}`
  }
  if (value.kind === 'matrix') {
    const entries = itemsOf(value).map((item) =>
      readoutToLatex(formatSingle(item.im === 0 ? ofSort(item, false) : item, conventions), conventions.letter),
    )
    const rows = Array.from({ length: value.rows }, (_, r) =>
      entries.slice(r * value.cols, (r + 1) * value.cols).join(' & '),
    )
    return `\\begin{pmatrix} ${rows.join(' \\\\ ')} \\end{pmatrix}`
  }
  if (value.kind === 'polynomial') return polynomialLatex(value, conventions)
  if (value.kind === 'algebra-matrix') return algebraArrayLatex(value.rows, value.cols, value.items, conventions)
  if (value.kind === 'text') return `\\text{${value.text.replace(/[\\{}$&#^_%~]/g, (c) => `\\${c}`)}}`
  if (value.kind === 'truth' || value.kind === 'check') return `\\text{${formatSingle(value, conventions)}}`
  return readoutToLatex(formatSingle(value, conventions), conventions.letter)
}

/** The text of a readout as LaTeX. */
export function readoutToLatex(text: string, letter: 'i' | 'j'): string {
  const pieces = text.replace(/-/g, '-').match(/[\d.]+(?:e[+-]?\d+)?|[a-zµπ]+|\S/giu) ?? []
  let latex = ''
  pieces.forEach((piece, k) => {
    const power = /^([\d.]+)e([+-]?)(\d+)$/.exec(piece)
    if (power) latex += `${power[1]} \\times 10^{${power[2] === '-' ? '-' : ''}${power[3]}}`
    else if (piece === letter) latex += `\\mathrm{${letter}}`
    else if (piece === '∠') latex += ' \\,\\angle\\, '
    else if (piece === '°') latex += '^{\\circ}'
    else if (piece === "'") latex += "'"
    else if (piece === '"') latex += "''"
    else if (piece === 'pi' || piece === 'π') latex += '\\pi '
    else if (piece === 'rad') latex += '\\,\\mathrm{rad}'
    else if (piece === '∞') latex += '\\infty '
    else if (piece === '+' || piece === '-') latex += k === 0 ? piece : ` ${piece} `
    else if (piece === '*') latex += ' \\cdot '
    else if (/^[a-zµ]+$/i.test(piece))
      latex += piece === `k${letter}` ? `\\,\\mathrm{k}\\mathrm{${letter}}` : `\\,\\mathrm{${piece}}`
    else latex += piece
  })
  return latex
    .replace(
      /(\d*(?:\\mathrm\{[ij]\}|\\pi ?)?)\/(\d+)/g,
      (_, top: string, bottom: string) => `\\frac{${top.trim()}}{${bottom}}`,
    )
    .trim()
}

/** Rows for a spreadsheet, with full digits. */
function csv(value: Value, conventions: Conventions): string {
  if (value.kind === 'matrix') return matrixCsv(value, conventions)
  const items = value.kind === 'vector' ? value.items : [value]
  const complex = items.some((item) => item.kind === 'number' && (item.complex || item.im !== 0))
  const head = complex ? ['re,im'] : items.every((i) => i.kind === 'angle') ? [angleHead(conventions)] : []
  return [...head, ...items.map((item) => csvRow(item, complex, conventions))].join('\r\n')
}

/** A matrix as its rows; complex entries as text that spreadsheets take for numbers of that sort. */
function matrixCsv(m: MatrixValue, { letter }: Conventions): string {
  const cell = (z: NumberValue): string => {
    const { re, im } = quiet(z)
    if (im === 0) return csvNumber(re)
    return `${csvNumber(re)}${im < 0 ? '-' : '+'}${csvNumber(Math.abs(im))}${letter}`
  }
  const items = itemsOf(m).map(cell)
  return Array.from({ length: m.rows }, (_, r) => items.slice(r * m.cols, (r + 1) * m.cols).join(',')).join('\r\n')
}

function angleHead({ angle }: Conventions): string {
  return angle === 'deg' ? 'degrees' : 'radians'
}

function csvRow(item: Value, complex: boolean, conventions: Conventions): string {
  switch (item.kind) {
    case 'number': {
      const { re, im } = quiet(item)
      return complex ? `${csvNumber(re)},${csvNumber(im)}` : csvNumber(re)
    }
    case 'angle':
      return csvNumber(conventions.angle === 'deg' ? asDegrees(item) : item.radians)
    default: {
      const text = item.kind === 'text' ? item.text : formatSingle(item, conventions)
      return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text
    }
  }
}

function csvNumber(x: number): string {
  return Number.isFinite(x) ? String(x).replace('e+', 'e') : ''
}
