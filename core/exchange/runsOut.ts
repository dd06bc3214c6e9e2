import type { Figures, RunsAccount, WatchedCell } from '../views/runs'
import { PLAIN_CSV, writeRows } from './csvOut'
import type { CsvStyle } from './csvOut'
import { resultOf } from './report'
import type { Result } from './report'

/** The account of the runs as a file of numbers, and in print. `names` are those of the columns: the folio, then the sets. */

/**
 * A row a varied line, then rows of numbers for each watched one: of a complex value both parts, magnitude and angle,
 * and likewise its difference from what the folio has. What is no single number is its text, an error its sentence.
 */
export function runsCsv(account: RunsAccount, names: readonly string[], style: CsvStyle = PLAIN_CSV): string {
  const varied = account.varied.map(({ head, cells }) => [head, ...cells.map((cell) => cell.problem ?? cell.entry)])
  const watched = account.watched.flatMap(({ head, cells }) => [
    ...rowsOf(head, cells, (cell) => cell.figures, (cell) => cell.problem ?? cell.full, style), // prettier-ignore
    ...(cells.some((cell) => cell.differenceFigures) ? rowsOf(`change of ${head}`, cells, (cell) => cell.differenceFigures, () => '', style) : []), // prettier-ignore
  ])
  return writeRows([['', ...names], ...varied, ...watched], style)
}

type Row = (string | number)[]

function rowsOf(
  head: string,
  cells: readonly WatchedCell[],
  figuresOf: (cell: WatchedCell) => Figures | null,
  textOf: (cell: WatchedCell) => string,
  style: CsvStyle,
): Row[] {
  const kinds = new Set(cells.map((cell) => figuresOf(cell)?.kind ?? null))
  const row = (name: string, of: (f: Figures) => number): Row => [
    name,
    ...cells.map((cell) => {
      const figures = figuresOf(cell)
      return figures ? of(figures) : textOf(cell)
    }),
  ]
  const angles = style.angle === 'deg' ? '°' : 'rad'
  const turn = (radians: number): number => (style.angle === 'deg' ? (radians / Math.PI) * 180 : radians)
  kinds.delete(null)
  // An angle among plain numbers keeps its unit: there all are texts.
  if (kinds.has('angle') && kinds.size > 1) return [[head, ...cells.map(textOf)]]
  if (kinds.has('angle')) return [row(`${head} / ${angles}`, (f) => turn(f.re))]
  if (!kinds.has('complex')) return [row(head, (f) => f.re)]
  return [
    row(`re(${head})`, (f) => f.re),
    row(`im(${head})`, (f) => f.im),
    row(`abs(${head})`, (f) => Math.hypot(f.re, f.im)),
    row(`arg(${head}) / ${angles}`, (f) => turn(Math.atan2(f.im, f.re))),
  ]
}

/** Columns that stand side by side on paper; more go on in a table below. */
const COLUMNS_IN_PRINT = 4

export interface RunsTable {
  readonly columns: readonly string[]
  readonly varied: readonly { readonly head: string; readonly cells: readonly PrintedCell[] }[]
  readonly watched: readonly { readonly head: string; readonly cells: readonly PrintedCell[] }[]
}

export interface PrintedCell {
  readonly result: Result
  readonly problem: string | null
  readonly change: Result
}

const NOTHING: Result = { kind: 'none' }

export function runsInPrint(account: RunsAccount, names: readonly string[], letter: 'i' | 'j'): readonly RunsTable[] {
  const tables: RunsTable[] = []
  for (let from = 0; from < names.length; from += COLUMNS_IN_PRINT) {
    const part = <T>(cells: readonly T[]): readonly T[] => cells.slice(from, from + COLUMNS_IN_PRINT)
    tables.push({
      columns: part(names),
      varied: account.varied.map(({ head, cells }) => ({
        head,
        cells: part(cells).map(({ entry, problem }) => ({ result: { kind: 'words', text: entry }, problem, change: NOTHING })), // prettier-ignore
      })),
      watched: account.watched.map(({ head, cells }) => ({
        head,
        cells: part(cells).map(({ readout, problem, difference }) => ({
          result: problem === null ? resultOf(readout, letter) : NOTHING,
          problem,
          change: resultOf(difference, letter),
        })),
      })),
    })
  }
  return tables
}
