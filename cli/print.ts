import type { FolioEvaluator } from '#core/evaluate/folio'
import type { LineResult } from '#core/evaluate/lineResult'
import { definedName } from '#core/notation/references'
import type { Conventions } from '#core/format/conventions'
import { solvedWords } from '#core/format/solvedWords'
import { copyText, valueFields, valueText } from '#core/kinds/kinds'
import { showProblem } from '#core/views/lineView'
import type { ShownProblem } from '#core/views/lineView'
import type { Value } from '#core/values/types'
import { workingView } from '#core/working/view'
import { workingOf } from '#core/working/working'
import { writtenSteps } from '#core/working/write'
import type { WorkingDepth } from '#core/working/write'
import { formatPolar, formatRectangular } from '#core/format/number'

/** What `reckon` prints: one result a line, as text or as JSON. */

function jsonProblem({ code, message, from, to, fixes }: ShownProblem): object {
  return { code, message, from, to, fixes }
}

export function jsonLine(result: LineResult, number: number, conventions: Conventions, steps: object = {}): object {
  const { parsed, evaluated, redefined, changesReading } = result
  const hints = [...evaluated.hints, redefined, changesReading].flatMap((h) => (h ? [jsonProblem(showProblem(h))] : []))
  const head = { line: number, source: parsed.source, name: definedName(parsed) }
  if (evaluated.problem)
    return { ...head, kind: 'error', hints, error: jsonProblem(showProblem(evaluated.problem)), ...steps }
  const fields = evaluated.value ? valueFields(evaluated.value, conventions) : withoutValue(result)
  return { ...head, ...fields, hints, error: null, ...steps }
}

/** The kind of a line that has no value. */
function withoutValue({ parsed: { statement }, evaluated: { open } }: LineResult): object {
  if (open?.kind !== 'equation') return { kind: statement.type === 'sought' ? 'sought' : 'remark' }
  return { kind: 'equation', unknowns: open.equation.names }
}

/** The steps of a line, down to a depth. */
export function jsonSteps(
  evaluator: FolioEvaluator,
  id: string,
  depth: WorkingDepth,
  conventions: Conventions,
): object {
  const found = workingOf(evaluator, id, { conventions })
  return { steps: typeof found === 'string' ? [] : writtenSteps(workingView(found, conventions), depth) }
}

/** A value that no line made: a column of a file. */
export function jsonValue(name: string, value: Value, number: number, conventions: Conventions): object {
  return { line: number, source: '', name, ...valueFields(value, conventions), hints: [], error: null }
}

export function textLine({ evaluated, parsed }: LineResult, conventions: Conventions): string {
  if (evaluated.problem) return `error: ${showProblem(evaluated.problem).message}`
  const { value } = evaluated
  if (value?.kind === 'parts' && value.solved)
    return `${solvedWords(value.solved, value.parts)}: ${textValue(value, conventions)}`
  if (!value) return parsed.remark === null ? '' : `# ${parsed.remark}`
  return textValue(value, conventions)
}

export function textValue(value: Value, conventions: Conventions): string {
  if (value.kind === 'number' && (value.complex || value.im !== 0)) {
    return `${formatRectangular(value, conventions)} = ${formatPolar(value, conventions)}`
  }
  const polar = value.kind === 'quantity' ? copyText(value, 'polar', conventions) : null
  return polar === null ? valueText(value, conventions) : `${valueText(value, conventions)} = ${polar}`
}
