import { notePieces } from '#core/exchange/pages'
import type { Answer, Entry, Figure, Report, Result } from '#core/exchange/report'
import type { PrintedCell, RunsTable } from '#core/exchange/runsOut'
import type { SheetChoices } from '~/stores/sheet'

/** What stands on the sheet, piece by piece: none of them is broken by a page. */
export type SheetItem = {
  readonly id: string
  readonly keepWithNext: boolean
} & (
  | { readonly kind: 'title'; readonly report: Report }
  | { readonly kind: 'answers' }
  | { readonly kind: 'answer'; readonly answer: Answer; readonly result: Result }
  | { readonly kind: 'note'; readonly text: string }
  | { readonly kind: 'entry'; readonly entry: Entry; readonly result: Result }
  | { readonly kind: 'figure'; readonly figure: Figure }
  | { readonly kind: 'runs' }
  | { readonly kind: 'run'; readonly row: RunsRow }
)

/** A row of the account of the runs. The names of the columns are a row of their own. */
export interface RunsRow {
  readonly part: 'names' | 'varied' | 'last-varied' | 'watched'
  readonly head: string
  readonly cells: readonly PrintedCell[]
}

export function sheetItems(
  report: Report,
  choices: SheetChoices,
  runs: readonly RunsTable[] = [],
): readonly SheetItem[] {
  const title: SheetItem = { id: 'title', kind: 'title', keepWithNext: false, report }
  const answers: readonly SheetItem[] =
    choices.answers === 'none' || report.answers.length === 0
      ? []
      : [
          { id: 'answers', kind: 'answers', keepWithNext: true },
          ...report.answers.map((answer, k): SheetItem => ({ id: `answer-${k}`, kind: 'answer', keepWithNext: false, answer, result: chosen(answer.entry.result, choices) })), // prettier-ignore
        ]
  const body = report.blocks.flatMap((block, n): SheetItem[] => {
    switch (block.kind) {
      case 'note':
        return notePieces(block.text).map(({ text, heading }, k) => ({ id: `note-${block.number}-${k}`, kind: 'note', keepWithNext: heading, text })) // prettier-ignore
      case 'figure':
        return [{ id: `figure-${n}-${block.id}`, kind: 'figure', keepWithNext: false, figure: block }]
      case 'entry': {
        const next = report.blocks[n + 1]
        const remarkOnly = block.reading === '' && block.remark !== null && block.problem === null
        return [{ id: `entry-${block.id}`, kind: 'entry', keepWithNext: remarkOnly && next !== undefined, entry: block, result: chosen(block.result, choices) }] // prettier-ignore
      }
    }
  })
  const account = runsItems(runs, choices)
  return choices.answers === 'head'
    ? [title, ...answers, ...body, ...account]
    : [title, ...body, ...account, ...answers]
}

/** The runs below the lines: a row is never broken, and the names of the columns stay with the first of theirs. */
function runsItems(tables: readonly RunsTable[], choices: SheetChoices): readonly SheetItem[] {
  if (tables.length === 0) return []
  const named = (text: string): PrintedCell => ({ result: { kind: 'words', text }, problem: null, change: { kind: 'none' } }) // prettier-ignore
  const shown = (cell: PrintedCell): PrintedCell => ({ ...cell, result: chosen(cell.result, choices), change: chosen(cell.change, choices) }) // prettier-ignore
  const rows = tables.flatMap(({ columns, varied, watched }): RunsRow[] => [
    { part: 'names', head: '', cells: columns.map(named) },
    ...varied.map(({ head, cells }, k): RunsRow => ({ part: k === varied.length - 1 ? 'last-varied' : 'varied', head, cells })), // prettier-ignore
    ...watched.map(({ head, cells }): RunsRow => ({ part: 'watched', head, cells: cells.map(shown) })),
  ])
  return [
    { id: 'runs', kind: 'runs', keepWithNext: true },
    ...rows.map((row, k): SheetItem => ({ id: `run-${k}`, kind: 'run', keepWithNext: row.part === 'names', row })),
  ]
}

/** The result in the forms that are wanted; one form stays where there is no other. */
function chosen(result: Result, { forms }: SheetChoices): Result {
  if (result.kind !== 'value' || forms === 'both' || result.forms.length < 2) return result
  return { kind: 'value', forms: forms === 'polar' ? result.forms.slice(1) : result.forms.slice(0, 1) }
}
