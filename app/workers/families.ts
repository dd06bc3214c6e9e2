import { FolioEvaluator } from '#core/evaluate/folio'
import type { Conventions } from '#core/format/conventions'
import { resultAt } from '#core/views/answers'
import { curveOf } from '#core/kinds/kinds'
import { lineView } from '#core/views/lineView'
import type { SourceLine } from '#core/evaluate/lineResult'
import type { SweepData } from '#core/scene/curve'
import type { Drawn } from '#core/scene/drawn'

/** A plate that shows its values for several texts of one line. */
export interface FamilyAsked {
  readonly plate: string
  readonly line: string
  /** The line with each of the values. */
  readonly sources: readonly string[]
  /** What is shown of them. */
  readonly ids: readonly string[]
}

/** What the values of a plate are for one of the texts. */
export interface FamilyMember {
  readonly sweeps: ReadonlyMap<string, SweepData>
  readonly drawn: ReadonlyMap<string, Drawn>
}

export interface Family {
  readonly plate: string
  readonly members: readonly FamilyMember[]
}

/** Longest time for a line of a member, in milliseconds: nobody stops one by hand. */
const LINE_LIMIT = 2_000

/** Each member has an evaluator of its own, which goes on from what it knew. */
export class FamilyReckoner {
  private readonly evaluators = new Map<string, FolioEvaluator>()

  reckon(
    asked: readonly FamilyAsked[],
    lines: readonly SourceLine[],
    settings: Conventions,
    enclose: (to: FolioEvaluator) => void,
  ): readonly Family[] {
    const used = new Set<string>()
    const found = asked.map(({ plate, line, sources, ids }): Family => ({
      plate,
      members: sources.map((source, k) => {
        const key = `${plate} ${k}`
        used.add(key)
        const evaluator = this.evaluators.get(key) ?? new FolioEvaluator()
        this.evaluators.set(key, evaluator)
        evaluator.setSettings({ ...settings, timeLimit: LINE_LIMIT })
        enclose(evaluator)
        evaluator.setLines(lines.map((one) => (one.id === line ? { id: line, source } : one)))
        evaluator.update()
        return memberOf(evaluator, ids, settings)
      }),
    }))
    for (const key of [...this.evaluators.keys()]) if (!used.has(key)) this.evaluators.delete(key)
    return found
  }
}

function memberOf(evaluator: FolioEvaluator, ids: readonly string[], settings: Conventions): FamilyMember {
  const sweeps = new Map<string, SweepData>()
  const drawn = new Map<string, Drawn>()
  for (const id of ids) {
    const result = resultAt(evaluator, id)
    const value = result?.evaluated.problem ? null : result?.evaluated.value
    if (!result || !value) continue
    const curve = curveOf(value)
    if (curve) sweeps.set(id, curve)
    const { drawn: marks } = lineView(result, settings)
    if (marks) drawn.set(id, marks)
  }
  return { sweeps, drawn }
}
