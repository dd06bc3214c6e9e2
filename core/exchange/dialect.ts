import { readNumeral } from './numerals'

/** How a table of text is written: what separates cells, and what marks decimals. */

/** ` `: any run of blanks. */
export const SEPARATORS = [',', ';', '\t', '|', ' '] as const
export type Separator = (typeof SEPARATORS)[number]
export type DecimalMark = '.' | ','

export interface Dialect {
  readonly separator: Separator
  readonly mark: DecimalMark
}

/** Cells that instruments write where they could not measure, or the range was exceeded. */
const UNMEASURED =
  /^(?:nan|[-+]?1?\.?#?(?:inf|ind|qnan)\w*|[+-]?inf(?:inity)?|n\/?a|null|none|-{1,5}|\*{2,9}|\?+|o\.?l\.?|[+-]?over(?:load|range|flow)?|ovl[d]?|ovrng|-?over|-?under(?:range)?|#n\/a|#num!|#div\/0!|#value!|err(?:or)?|invalid|open)$/i

/** Beyond this SCPI instruments mean an overload (9.9E37), or no number (9.91E37). Source: SCPI-1999, 7.2.1. */
const OVERLOAD = 9.9e37

export type Cell = number | 'text' | 'undefined'

/** What a cell says under a decimal mark; `undefined` of one that is empty or holds no measured number. */
export function cellOf(text: string, mark: DecimalMark): Cell {
  // Most cells are plain numerals: these are not looked at any further.
  const quick = mark === '.' ? readNumeral(text) : 'not-a-number'
  if (typeof quick === 'number' && Math.abs(quick) < OVERLOAD) return quick
  const bare = text.trim()
  if (bare === '') return 'undefined'
  const x = readNumeral(numeralText(bare, mark))
  if (typeof x === 'number') return Math.abs(x) >= OVERLOAD && Math.abs(x) < 1e38 ? 'undefined' : x
  return x === 'too-large' || UNMEASURED.test(bare) ? 'undefined' : 'text'
}

/** The numeral with a point, and without marks of thousands, where both marks are there; a minus may be typeset. */
export function numeralText(text: string, mark: DecimalMark): string {
  const minus = text.replace(/^[−–]/, '-')
  if (mark === '.') return /^[+-]?\d{1,3}(?:,\d{3})+\.\d+$/.test(minus) ? minus.replace(/,/g, '') : minus
  if (/^[+-]?\d{1,3}(?:[. ]\d{3})+,\d+$/.test(minus)) return minus.replace(/[. ]/g, '').replace(',', '.')
  // With a comma for decimals a point is none, unless no comma is near: 1.5e3 is no date.
  return minus.includes(',') ? minus.replace(',', '.') : minus
}

/** The cells of a line; quotation marks are seen to where the whole is read. */
export function cellsOf(line: string, separator: Separator): string[] {
  if (separator === ' ') return line.trim() === '' ? [] : line.trim().split(/\s+/)
  return splitQuoted(line, separator)
}

function splitQuoted(line: string, separator: string): string[] {
  if (!line.includes('"')) return line.split(separator)
  const cells: string[] = []
  let cell = ''
  let quoted = false
  for (let k = 0; k < line.length; k += 1) {
    const letter = line[k] ?? ''
    if (letter === '"') {
      if (quoted && line[k + 1] === '"') {
        cell += '"'
        k += 1
      } else quoted = !quoted
    } else if (letter === separator && !quoted) {
      cells.push(cell)
      cell = ''
    } else cell += letter
  }
  return [...cells, cell]
}

/** A stretch of lines that have the same number of cells, most of them numbers. */
export interface Block {
  readonly dialect: Dialect
  /** Its first line, counted from 0, and the one after its last. */
  readonly from: number
  readonly to: number
  readonly width: number
  readonly numbers: number
}

/** Lines that are looked at to tell how a table is written. */
const SAMPLE = 400

/** The likeliest way in which the lines are written; `null` where no table of numbers is among them. */
export function dialectOf(lines: readonly string[]): Block | null {
  const sample = lines.slice(0, SAMPLE)
  let best: Block | null = null
  for (const separator of SEPARATORS)
    for (const mark of ['.', ','] as const) {
      if (separator === ',' && mark === ',') continue
      const block = blockOf(sample, { separator, mark })
      if (block && (best === null || isBetter(block, best))) best = block
    }
  return best
}

function isBetter(a: Block, b: Block): boolean {
  if (a.numbers !== b.numbers) return a.numbers > b.numbers
  // One column of 1,5 is one of decimals; the same numbers in fewer pieces are read with fewer assumptions.
  return a.width < b.width && a.to - a.from >= b.to - b.from
}

/** The longest stretch of numbers, read in a given way. */
export function blockOf(
  lines: readonly string[],
  dialect: Dialect,
  split = (line: string): string[] => cellsOf(line, dialect.separator),
): Block | null {
  let best: Block | null = null
  let open: { from: number; width: number; numbers: number } | null = null
  const close = (to: number): void => {
    if (open && (best === null || open.numbers > best.numbers)) best = { dialect, ...open, to }
    open = null
  }
  lines.forEach((line, k) => {
    const cells = split(line)
    const found = countIn(cells, dialect.mark)
    // A row holds a number, and not more texts than numbers: a date or a remark may stand beside them.
    const isRow = found.numbers > 0 && found.texts <= found.numbers
    const near = open !== null && Math.abs(cells.length - open.width) <= 1
    if (isRow && near && open)
      open = { ...open, width: Math.max(open.width, cells.length), numbers: open.numbers + found.numbers } // prettier-ignore
    else if (isRow) {
      close(k)
      open = { from: k, width: cells.length, numbers: found.numbers }
    } else if (line.trim() !== '' || open === null) {
      // An overload in every cell is a row as well, if rows of numbers go before it.
      const gap = open !== null && found.texts === 0 && near && cells.length > 1
      if (!gap) close(k)
    }
  })
  close(lines.length)
  return best
}

function countIn(cells: readonly string[], mark: DecimalMark): { numbers: number; texts: number } {
  let numbers = 0
  let texts = 0
  for (const text of cells) {
    const cell = cellOf(text, mark)
    if (typeof cell === 'number') numbers += 1
    else if (cell === 'text') texts += 1
  }
  return { numbers, texts }
}
