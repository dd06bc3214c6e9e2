import type { Data } from './measured/data'
import { FolioEvaluator } from './evaluate/folio'
import type { EvaluationSettings } from './evaluate/settings'
import { DEFAULT_CONVENTIONS } from './format/conventions'
import type { Conventions } from './format/conventions'
import { lineView, showProblem } from './views/lineView'
import type { LineView, ShownProblem } from './views/lineView'
import { valueText } from './kinds/kinds'
import type { Value } from './values/types'

/** For tests: lines evaluated as a folio, with what a student would see of each. */
export interface Reckoned {
  readonly value: Value | null
  readonly text: string
  readonly polar: string
  readonly error: ShownProblem | null
  readonly hints: readonly ShownProblem[]
  readonly view: LineView
}

export function reckon(
  lines: readonly string[],
  conventions: Partial<Conventions & EvaluationSettings> = {},
  enclosed: readonly { readonly name: string; readonly data: Data }[] = [],
): Reckoned[] {
  const settings = { ...DEFAULT_CONVENTIONS, timeLimit: 700, ...conventions }
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(settings)
  evaluator.setLines(lines.map((source, k) => ({ id: String(k), source })))
  for (const { name, data } of enclosed) evaluator.enclosures.put(name, name, data)
  evaluator.update()
  return lines.map((_, k) => {
    const result = evaluator.result(String(k))
    if (!result) throw new Error('every line has a result')
    const view = lineView(result, settings)
    const { value, problem } = result.evaluated
    return {
      value,
      text: value ? valueText(value, settings) : '',
      polar: view.readout.shape === 'twin' ? view.readout.polar : '',
      error: problem ? showProblem(problem) : null,
      hints: view.hints,
      view,
    }
  })
}
