import { notePieces } from '#core/exchange/pages'
import type { Answer, Entry, Figure, Report, Result } from '#core/exchange/report'
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
)

export function sheetItems(report: Report, choices: SheetChoices): readonly SheetItem[] {
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
  return choices.answers === 'head' ? [title, ...answers, ...body] : [title, ...body, ...answers]
}

/** The result in the forms that are wanted; one form stays where there is no other. */
function chosen(result: Result, { forms }: SheetChoices): Result {
  if (result.kind !== 'value' || forms === 'both' || result.forms.length < 2) return result
  return { kind: 'value', forms: forms === 'polar' ? result.forms.slice(1) : result.forms.slice(0, 1) }
}
