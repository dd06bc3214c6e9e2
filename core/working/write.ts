import { withoutMarks } from '../notation/latex'
import type { StepView, WorkingView } from './view'

/** A working as text that leaves it: steps of the headless contract, LaTeX, and the note under a line. */

/** How deep a working goes: in one line, by hand, or with every intermediate. */
export const WORKING_DEPTHS = ['short', 'hand', 'all'] as const
export type WorkingDepth = (typeof WORKING_DEPTHS)[number]

/** A step of the headless contract. */
export interface WrittenStep {
  readonly rule: string
  readonly text: string
  readonly relation: '=' | '≈' | '⇔' | '~'
  readonly latex: string
}

/** The steps that a depth shows. */
export function stepsAt({ steps }: WorkingView, depth: WorkingDepth): readonly StepView[] {
  return depth === 'all' ? steps : steps.filter((step) => step.depth === 'hand')
}

const sentence = ({ text, says }: StepView): string => (says === null ? text : `${text} ${says}`)

/** The steps for the headless contract. */
export function writtenSteps(view: WorkingView, depth: WorkingDepth): readonly WrittenStep[] {
  if (depth === 'short') return shortSteps(view)
  return stepsAt(view, depth).map((step) => ({
    rule: step.rule,
    text: sentence(step),
    relation: step.relation,
    latex: withoutMarks(step.then),
  }))
}

function shortSteps(view: WorkingView): readonly WrittenStep[] {
  const { letters, figures, result, relation, order } = view
  const put = letters === figures ? [] : [{ rule: 'put-in', text: 'The values are put in the places of the names.', relation: view.putIn, latex: withoutMarks(figures) }] // prettier-ignore
  if (result === '') return put
  return [...put, { rule: 'rules-in-order', text: order, relation, latex: withoutMarks(result) }]
}

/** The signs of relations as LaTeX. */
export const RELATION_LATEX: Readonly<Record<StepView['relation'], string>> = { '=': '=', '≈': '\\approx', '⇔': '\\Leftrightarrow', '~': '\\sim' } // prettier-ignore

/** The working as LaTeX: one chain, each line with its rule beside it. */
export function workingLatex(view: WorkingView, depth: WorkingDepth, name: string | null): string {
  const head = `${name === null ? '' : `${name} = `}${withoutMarks(view.letters)}`
  const lines = writtenSteps(view, depth).map(({ relation, latex, text }) => `&${RELATION_LATEX[relation]} ${latex} && \\text{${plainText(text)}}`) // prettier-ignore
  return `\\begin{aligned}\n${[`${head} `, ...lines].join(' \\\\\n')}\n\\end{aligned}`
}

/** A sentence inside \text: what LaTeX would take for a sign of its own is left out. */
function plainText(text: string): string {
  return text.replace(/[\\{}$%&#_^~]/g, (sign) => ({ '%': '\\%', '&': '\\&', '#': '\\#', _: '\\_' })[sign] ?? ' ')
}

/** The working as a note (Markdown): a numbered list, what stands then as mathematics. */
export function workingNote(view: WorkingView, depth: WorkingDepth, name: string | null): string {
  const head = name === null ? 'Working:' : `Working of $${name}$:`
  const start = `$${withoutMarks(view.letters)}$`
  const lines = writtenSteps(view, depth).map(({ text, relation, latex }, k) => `${k + 1}. ${text} $${RELATION_LATEX[relation]} ${latex}$`) // prettier-ignore
  return [head, '', start, '', ...lines].join('\n')
}
