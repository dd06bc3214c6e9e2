import { FolioEvaluator } from '../evaluate/folio'
import type { LineResult, SourceLine } from '../evaluate/lineResult'
import type { EvaluationSettings } from '../evaluate/settings'
import type { Conventions } from '../format/conventions'
import type { Readout } from '../format/readout'
import { copyText, readout, valueText as shownText } from '../kinds/kinds'
import type { Data } from '../measured/data'
import { hole } from '../notation/nodes'
import { headText, valueText, withValue } from '../notation/valuePart'
import * as C from '../numbers/complex'
import { Context, DEPTH_LIMIT, STEP_LIMIT } from '../operators/context'
import { settle } from '../operators/lift'
import { operateOn } from '../operators/operate'
import { sentence } from '../sentences/sentences'
import { failure } from '../values/failure'
import { sameNumbers } from '../values/sweeps'
import { bare } from '../values/quantity'
import type { Value } from '../values/types'

/** Runs: the folio reckoned anew under each set of values, and what that changes. */

/** Values in the place of those that the varied lines have; a line that is not named keeps its own. */
export interface SetOfValues {
  readonly id: string
  readonly values: Readonly<Record<string, string>>
}

export interface RunsTask {
  readonly lines: readonly SourceLine[]
  readonly varied: readonly string[]
  readonly watched: readonly string[]
  readonly sets: readonly SetOfValues[]
}

/** The account: one column for the folio as it stands, then one for each set. */
export interface RunsAccount {
  /** The set of each column by its identifier; empty for the folio itself. */
  readonly columns: readonly string[]
  readonly varied: readonly RunsRow<VariedCell>[]
  readonly watched: readonly RunsRow<WatchedCell>[]
}

export interface RunsRow<Cell> {
  readonly line: string
  /** What stands at the left: the name that the line keeps, or its entry. */
  readonly head: string
  readonly cells: readonly Cell[]
}

export interface VariedCell {
  readonly entry: string
  /** False where the line keeps the value that it has in the folio. */
  readonly other: boolean
  readonly problem: string | null
}

export interface WatchedCell {
  readonly readout: Readout
  readonly problem: string | null
  /** The value less what the folio has; none in the folio's own column, and of what has no difference. */
  readonly difference: Readout
  /** The same as numbers, for tables that are reckoned with. */
  readonly figures: Figures | null
  readonly differenceFigures: Figures | null
  /** Everything that is known of the value, as text that reads back in. */
  readonly full: string
}

/** A single value in figures: a complex number by its parts, an angle in radians. */
export interface Figures {
  readonly kind: 'real' | 'complex' | 'angle'
  readonly re: number
  readonly im: number
}

/** What the folio itself is kept under, beside the sets. */
const AS_IT_STANDS = ''

/** Keeps an evaluator for each set: after a change only what depends on it is reckoned again. */
export class RunsReckoner {
  private readonly evaluators = new Map<string, FolioEvaluator>()
  private readonly enclosed = new Map<string, readonly [stamp: string, data: Data | null, lost: boolean]>()

  /** Measured data for all the sets. */
  enclose(name: string, stamp: string, data: Data | null, lost = false): void {
    this.enclosed.set(name, [stamp, data, lost])
    for (const { enclosures } of this.evaluators.values()) enclosures.put(name, stamp, data, lost)
  }

  unenclose(name: string): void {
    this.enclosed.delete(name)
    for (const { enclosures } of this.evaluators.values()) enclosures.remove(name)
  }

  reckon(task: RunsTask, settings: EvaluationSettings & Conventions): RunsAccount {
    const sets: readonly SetOfValues[] = [{ id: AS_IT_STANDS, values: {} }, ...task.sets]
    for (const id of this.evaluators.keys()) if (!sets.some((set) => set.id === id)) this.evaluators.delete(id)
    const reckoned = sets.map((set) => this.under(set, task, settings))
    const [own] = reckoned
    const head = (id: string): string => {
      const result = own?.result(id)
      return result ? headText(result.parsed) : ''
    }
    const sourceOf = new Map(task.lines.map((line) => [line.id, line.source]))
    return {
      columns: sets.map((set) => set.id),
      varied: task.varied.map((line) => ({
        line,
        head: head(line),
        cells: sets.map(({ values }, k) => {
          const other = values[line]
          const entry = other ?? valueText(sourceOf.get(line) ?? '')
          return { entry, other: other !== undefined, problem: problemOf(reckoned[k]?.result(line) ?? null) }
        }),
      })),
      watched: task.watched.map((line) => ({
        line,
        head: head(line),
        cells: reckoned.map((folio) => watchedCell(folio.result(line), folio === own ? null : (own?.result(line) ?? null), settings)), // prettier-ignore
      })),
    }
  }

  /** The folio as it is with a set of values. */
  private under(set: SetOfValues, { lines, varied }: RunsTask, settings: EvaluationSettings): FolioEvaluator {
    const folio = this.evaluators.get(set.id) ?? this.fresh()
    this.evaluators.set(set.id, folio)
    const isVaried = new Set(varied)
    folio.setSettings(settings)
    folio.setLines(
      lines.map((line) => {
        const value = isVaried.has(line.id) ? set.values[line.id] : undefined
        return value === undefined ? line : { ...line, source: withValue(line.source, value) }
      }),
    )
    folio.update()
    return folio
  }

  private fresh(): FolioEvaluator {
    const folio = new FolioEvaluator()
    for (const [name, [stamp, data, lost]] of this.enclosed) folio.enclosures.put(name, stamp, data, lost)
    return folio
  }
}

function problemOf(result: LineResult | null): string | null {
  const problem = result?.evaluated.problem
  return problem ? sentence(problem) : null
}

/** Of equations what they were solved for, not how. */
function watchedReadout(value: Value, settings: Conventions): Readout {
  const solved = value.kind === 'parts' && value.solved !== undefined
  return solved ? { shape: 'words', text: shownText(value, settings) } : readout(value, settings)
}

const NO_READOUT: Readout = { shape: 'none' }

function watchedCell(
  result: LineResult | null,
  own: LineResult | null,
  settings: EvaluationSettings & Conventions,
): WatchedCell {
  // prettier-ignore
  const value = result?.evaluated.value ?? null
  const less = value && own?.evaluated.value ? differenceOf(value, own.evaluated.value, settings) : null
  return {
    readout: value ? watchedReadout(value, settings) : NO_READOUT,
    problem: problemOf(result),
    difference: less ? readout(less, settings) : NO_READOUT,
    figures: value && figuresOf(value),
    differenceFigures: less && figuresOf(less),
    full: (value && copyText(value, 'full', settings)) ?? '',
  }
}

/** One value less another; `null` where two such values have no difference. */
function differenceOf(value: Value, other: Value, settings: EvaluationSettings & Conventions): Value | null {
  if (value.kind === 'text' || value.kind === 'truth' || value.kind === 'check') return null
  // Points of other places have no difference, though they are as many.
  const [one, two] = [bare(value), bare(other)]
  if (one.kind === 'sweep' && two.kind === 'sweep' && !sameNumbers(one.axis.values, two.axis.values)) return null
  const term = hole(0, 0)
  const notes = {
    angleUnit: settings.angle,
    bare: () => undefined,
    told: () => undefined,
    untold: () => undefined,
    written: () => '',
    lineOf: () => null,
    enclosure: (name: string) => failure('no-enclosure', { name, known: '' }),
  }
  const budget = { steps: STEP_LIMIT, depth: DEPTH_LIMIT, deadline: 0, timeLimit: settings.timeLimit ?? 1_000 }
  const context = Context.ofLine(notes, { lookup: () => null }, budget)
  const found = settle(operateOn('-', value, other, term, term, context))
  return found.kind === 'failure' || (found.kind === 'number' && !C.isFinite(found)) ? null : found
}

function figuresOf(of: Value): Figures | null {
  const value = bare(of)
  if (value.kind === 'angle') return { kind: 'angle', re: value.radians, im: 0 }
  if (value.kind !== 'number') return null
  return { kind: value.complex || value.im !== 0 ? 'complex' : 'real', re: value.re, im: value.im }
}
