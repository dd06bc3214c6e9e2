import { answerId, answerPlace } from './answerIds'
import type { LineResult } from '../evaluate/lineResult'
import { BoundLine } from '../notation/names'
import * as N from '../notation/nodes'
import { DefineStatement } from '../notation/statements'
import type { Node } from '../notation/tree'
import type { Value } from '../values/types'

/** The values that `determine` found: each is shown, drawn and listed as though a line of its own kept it. */

const NO_ANSWERS: readonly LineResult[] = []
const NO_TERMS: ReadonlySet<Node> = new Set()

/** The answers of a line, in the order in which they are sought. */
export function answersOf(result: LineResult): readonly LineResult[] {
  const { value, problem } = result.evaluated
  if (problem || value?.kind !== 'parts' || !value.solved) return NO_ANSWERS
  return [...value.parts].map(([name, part], k) => answerOf(result.id, k, name, part))
}

/** What came of a line, or one of the answers of a line that has several. */
export function resultAt(evaluator: { result(id: string): LineResult | null }, id: string): LineResult | null {
  const own = evaluator.result(id)
  const place = own ? null : answerPlace(id)
  const line = place && evaluator.result(place.line)
  return own ?? (line && (answersOf(line)[place.k] ?? null))
}

function answerOf(line: string, k: number, name: string, value: Value): LineResult {
  const node = N.name(name, 0, name.length)
  const statement = new DefineStatement(node, N.hole(0, 0), true, null)
  return {
    id: answerId(line, k),
    parsed: { source: name, statement, remark: null, problem: null },
    evaluated: {
      bound: new BoundLine(null, null, null, null, [], null),
      value,
      problem: null,
      hints: [],
      bare: NO_TERMS,
      angleUnitUsed: false,
      open: null,
    },
    redefined: null,
    changesReading: null,
    place: null,
  }
}
