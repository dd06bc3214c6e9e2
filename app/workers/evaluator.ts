import { FamilyReckoner } from './families'
import type { Family, FamilyAsked } from './families'
import { PlaceReader } from '#core/evaluate/between'
import type { NoReading, PlaceReading } from '#core/evaluate/between'
import { FolioEvaluator } from '#core/evaluate/folio'
import { definedName } from '#core/notation/references'
import type { Data } from '#core/measured/data'
import { fault } from '#core/exchange/told'
import type { Fault } from '#core/exchange/told'
import { isNumber, writeFirst, writeValue } from '#core/exchange/writeValue'
import type { Named, NumberFile, NumberFormat, ValueOptions } from '#core/exchange/writeValue'
import type { LineResult, SourceLine } from '#core/evaluate/lineResult'
import { copyText, curveOf, pointOf, readout, tableRows } from '#core/kinds/kinds'
import type { CopyForm } from '#core/kinds/kind'
import { answerId, answerPlace } from '#core/views/answerIds'
import { answersOf, resultAt } from '#core/views/answers'
import { benchOf } from '#core/views/bench'
import type { BenchStart } from '#core/views/bench'
import { solvedDetails } from '#core/views/solvedDetails'
import type { SolvedDetail } from '#core/views/solvedDetails'
import { lineView, stoppedView } from '#core/views/lineView'
import type { LineView, PointView } from '#core/views/lineView'
import type { AngleUnit } from '#core/values/convert'
import { checkChain } from '#core/working/chain'
import type { Chain } from '#core/working/chain'
import { noWorkingSaid, workingView } from '#core/working/view'
import type { WorkingView } from '#core/working/view'
import { workingOf } from '#core/working/working'
import type { Example } from '#core/signatures/definition'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { Conventions } from '#core/format/conventions'
import type { SweepRows } from '#core/kinds/sweep'
import { inHeldUnit } from '#core/quantities/shown'
import { pointIn } from '#core/quantities/through'
import { sweepIn } from '#core/values/quantity'
import type { Value } from '#core/values/types'
import { linksOf, termsOf } from '#core/scene/chain'
import type { Link } from '#core/scene/chain'

/** What the page sends: only what changed. */
export interface Edits {
  /** The ids of all lines in order, where lines came, went or moved. */
  readonly order?: readonly string[]
  /** New texts. */
  readonly sources?: readonly SourceLine[]
  readonly conventions?: Conventions
  /** Lines whose sums some plate lays tip to tail. */
  readonly chains?: readonly string[]
  /** Lines whose points are shown somewhere. */
  readonly sweeps?: readonly string[]
  /** The point that is read along; `null` ends it. */
  readonly along?: Along | null
  readonly families?: readonly FamilyAsked[]
}

/** A place on whatever runs along a kept name: one of its points, or a value of its own. */
export interface Along {
  readonly name: string
  /** The point, counted from 0; of a value of its own the nearest one, once it is known. */
  readonly index: number
  /** The value, as it is typed; `null` of a point. */
  readonly entry: string | null
}

/** Where a typed value was found, or why it could not be. */
export interface Placed {
  readonly problem: string | null
  readonly x: number
  readonly index: number
}

/** Measured data of the folio, under the identifier of its numbers. */
export interface Enclosed {
  readonly block: string
  /** `null` while the numbers are on their way. */
  readonly data: Data | null
  /** True where they cannot be had. */
  readonly lost: boolean
}

/** What is shown beyond the lines themselves. */
export interface Watched {
  readonly chains: readonly string[]
  readonly sweeps: readonly string[]
  readonly along: Along | null
  /** Plates that show their values for several texts of one line. */
  readonly families: readonly FamilyAsked[]
}

/** What comes back: views of the lines that changed. */
export interface Update {
  readonly views: readonly LineView[]
  /** The view of an entry that is still being typed and cannot be evaluated yet. */
  readonly draft: LineView | null
  /** Lines that take long and wait for their turn. */
  readonly postponed: readonly string[]
  /** Where the typed value that is read along was found; `null` while none is typed. */
  readonly placed: Placed | null
  /** What the plates of families show; `null` where there are none. */
  readonly families: readonly Family[] | null
}

/** What is asked for besides the line: the point of a sweep, and ways chosen for operations. */
export interface WorkingAsked {
  readonly point?: number
  readonly ways: readonly (readonly [number, string])[]
  /** How many steps are told at first, where not all of them are. */
  readonly most?: number | undefined
}

/** Longest time for a line of an example, in milliseconds. */
const EXAMPLE_LIMIT = 2_000

/** Time for a line before the others have had theirs, in milliseconds. */
const FIRST_TURN = 80

const NO_LINES: readonly string[] = []

/** Longest time for one line where it can be stopped by hand, in milliseconds. */
const WATCHED_LIMIT = 180_000

/** The folio as the worker holds it. */
export class EvaluatorService {
  private readonly evaluator = new FolioEvaluator()

  constructor(
    private readonly report?: (done: number, total: number) => void,
    private readonly onLine?: (id: string) => void,
  ) {}

  /** What is watched by a student may take longer than what nobody could stop. */
  private convene(conventions: Conventions): void {
    this.evaluator.setSettings({
      ...conventions,
      timeLimit: WATCHED_LIMIT,
      firstTurn: FIRST_TURN,
      ...(this.report ? { report: this.report } : {}),
      ...(this.onLine ? { onLine: this.onLine } : {}),
    })
  }

  private order: readonly string[] = []
  private readonly sources = new Map<string, string>()
  private conventions: Conventions | null = null
  /** An entry that is being typed, or dragged, in place of its line's text. */
  private draft: SourceLine | null = null
  /** The units that values were shown in before a line was being changed. */
  private readonly units = new Map<string, string>()
  private readonly unitHeld = new Set<string>()
  /** The last text of the drafted line that could be evaluated. */
  private good: string | null = null
  /** Texts that were stopped: such a line counts as empty until it is edited or asked for. */
  private readonly held = new Map<string, string>()
  private watched: Watched = { chains: [], sweeps: [], along: null, families: [] }
  private readonly familyReckoner = new FamilyReckoner()
  /** True where the page has some: it is told once when they end. */
  private familiesTold = false
  /** Measured data, for the evaluators of families. */
  private readonly enclosed = new Map<string, Enclosed>()
  private readonly places = new PlaceReader(this.evaluator.enclosures)
  /** What was found at the value that is read along. */
  private reading: PlaceReading | NoReading | null = null

  load(
    lines: readonly SourceLine[],
    conventions: Conventions,
    held: readonly (readonly [string, string])[] = [],
    watched: Watched = this.watched,
    enclosed: readonly (readonly [string, Enclosed])[] = [],
  ): Update {
    this.watched = watched
    for (const name of this.evaluator.enclosures.names()) this.evaluator.enclosures.remove(name)
    for (const [name, { block, data, lost }] of enclosed) this.evaluator.enclosures.put(name, block, data, lost)
    this.enclosed.clear()
    for (const [name, data] of enclosed) this.enclosed.set(name, data)
    this.sources.clear()
    this.held.clear()
    for (const [id, text] of held) this.held.set(id, text)
    for (const line of lines) this.sources.set(line.id, line.source)
    this.order = lines.map((l) => l.id)
    this.conventions = conventions
    this.draft = null
    this.good = null
    this.convene(conventions)
    this.evaluateAll()
    return this.told(this.allViews())
  }

  private told(views: readonly LineView[], draft: LineView | null = null): Update {
    const { reading } = this
    const placed: Placed | null =
      reading === null
        ? null
        : reading.kind === 'none'
          ? { problem: reading.why, x: NaN, index: 0 }
          : { problem: null, x: reading.x, index: reading.index }
    return { views, draft, postponed: this.evaluator.postponed, placed, families: this.families() }
  }

  private families(): readonly Family[] | null {
    const { conventions, watched, familiesTold } = this
    this.familiesTold = watched.families.length > 0
    if (!conventions || !(this.familiesTold || familiesTold)) return null
    return this.familyReckoner.reckon(watched.families, this.lines(), conventions, (to) => this.encloseIn(to))
  }

  /** Gives another evaluator the measured data of the folio. */
  private encloseIn(evaluator: FolioEvaluator): void {
    for (const [name, { block, data, lost }] of this.enclosed) evaluator.enclosures.put(name, block, data, lost)
  }

  /** Reckons anew what the lines are worth at the value that is read along; tells which of them that concerns. */
  private readPlace(): readonly string[] {
    const { along } = this.watched
    if (!along || along.entry === null || !this.conventions) {
      this.reading = null
      return NO_LINES
    }
    this.reading = this.places.read(this.lines(), this.conventions, along.name, along.entry, (id) => this.evaluator.result(id)) // prettier-ignore
    return this.sweepLines()
  }

  /** Reckons a line that was postponed, with all the time it may take. */
  giveTurn(id: string): Update {
    return this.told(this.viewsOf([...new Set([id, ...this.evaluator.giveTurn(id)])]))
  }

  /** Holds a line back that waits for its turn. */
  hold(id: string, source: string): Update {
    this.held.set(id, source)
    return this.told(this.viewsOf([...new Set([id, ...this.evaluateAll()])]))
  }

  apply(edits: Edits): Update {
    for (const { id, source } of edits.sources ?? []) {
      this.sources.set(id, source)
      // What was typed is kept: nothing is in the place of the line any more.
      if (this.draft?.id === id && this.draft.source === source) this.draft = null
    }
    if (edits.order) {
      this.order = edits.order
      const kept = new Set(edits.order)
      for (const id of this.sources.keys()) if (!kept.has(id)) this.sources.delete(id)
      if (this.draft && !kept.has(this.draft.id)) this.draft = null
    }
    if (edits.conventions) {
      this.conventions = edits.conventions
      this.convene(edits.conventions)
    }
    const { chains, sweeps, along, families } = edits
    this.watched = {
      chains: chains ?? this.watched.chains,
      sweeps: sweeps ?? this.watched.sweeps,
      along: along === undefined ? this.watched.along : along,
      families: families ?? this.watched.families,
    }
    const told = along === undefined ? [] : this.sweepLines()
    // What was just entered is waited for; of many lines each has a first turn.
    const entered = edits.sources?.length === 1 ? edits.sources.map((line) => line.id) : []
    const watched = [...(chains ?? []), ...(sweeps ?? [])].map((id) =>
      this.evaluator.result(id) ? id : (answerPlace(id)?.line ?? id),
    )
    const changed = [...new Set([...this.evaluateAll(entered), ...watched, ...told])]
    return this.told(edits.conventions ? this.allViews() : this.viewsOf(changed))
  }

  /**
   * Evaluates an unfinished entry in place of its line. While it cannot be
   * evaluated the lines below keep what they had, and only its problem is told.
   */
  type(id: string, source: string): Update {
    if (this.draft?.id !== id) {
      this.good = this.sources.get(id) ?? null
      this.draft = { id, source }
    }
    this.draft = { id, source }
    const changed = new Set(this.evaluateAll([id]))
    const result = this.evaluator.result(id)
    if (result === null || this.conventions === null) return this.told(this.viewsOf([...changed]))
    if (result.evaluated.problem === null) {
      this.good = source
      return this.told(this.viewsOf([...changed]))
    }
    const draft = lineView(result, this.conventions)
    this.draft = this.good === null ? null : { id, source: this.good }
    for (const other of this.evaluateAll([id])) changed.add(other)
    changed.delete(id)
    return this.told(this.viewsOf([...changed]), draft)
  }

  /** Gives the drafted line its own text back. */
  settle(): Update {
    this.draft = null
    this.good = null
    return this.told(this.viewsOf(this.evaluateAll()))
  }

  /** Tells lines, with the texts that the page has, whatever was told of them before. */
  again(lines: readonly SourceLine[]): Update {
    for (const { id, source } of lines) this.sources.set(id, source)
    return this.told(this.viewsOf([...new Set([...lines.map(({ id }) => id), ...this.evaluateAll()])]))
  }

  /** Evaluates a line again that was held back. */
  release(id: string): Update {
    this.held.delete(id)
    return this.told(this.viewsOf([...new Set([id, ...this.evaluateAll([id])])]))
  }

  /** The value of a line as text to copy; `null` where it has no such form. */
  copyText(id: string, form: CopyForm): string | null {
    const value = resultAt(this.evaluator, id)?.evaluated.value
    return value && this.conventions ? copyText(value, form, this.conventions) : null
  }

  /** What of a line can be reduced on the bench; a sentence where nothing can. */
  bench(id: string): BenchStart | string {
    const result = resultAt(this.evaluator, id)
    return result ? benchOf(result, this.watched.along?.index ?? 0) : ''
  }

  /** What is to be known of how a line solved its equations. */
  solvedDetails(id: string): readonly SolvedDetail[] {
    const result = this.evaluator.result(id)
    return result && this.conventions ? solvedDetails(result, this.conventions, this.watched.along?.index ?? 0) : []
  }

  /** How the value of a line comes about; a sentence where there is nothing to say. */
  working(id: string, { ways, point, most }: WorkingAsked): WorkingView | string {
    const { conventions } = this
    if (!conventions) return noWorkingSaid('remark')
    const at = point ?? this.watched.along?.index ?? 0
    return worked(this.evaluator, id, conventions, { ways, point: at, most })
  }

  /** The working of lines that stand by themselves: an example of the handbook. */
  workingOfExample({ before, entry, enclosed }: Example, asked: WorkingAsked): WorkingView | string {
    const conventions = this.conventions ?? DEFAULT_CONVENTIONS
    const evaluator = new FolioEvaluator()
    evaluator.setSettings({ ...conventions, timeLimit: EXAMPLE_LIMIT })
    if (enclosed) evaluator.enclosures.put(enclosed.name, enclosed.name, enclosed.data)
    const lines = [...(before ?? []), entry].map((source, k) => ({ id: String(k), source }))
    evaluator.setLines(lines)
    evaluator.update()
    return worked(evaluator, String(lines.length - 1), conventions, asked)
  }

  /** A student's own working, checked in the place of a line. */
  checkChain(id: string, lines: readonly string[]): Chain {
    const { conventions } = this
    return conventions ? checkChain(this.evaluator, id, lines, conventions) : { sides: [], links: [], broken: null }
  }

  enclose(name: string, { block, data, lost }: Enclosed): Update {
    this.enclosed.set(name, { block, data, lost })
    this.evaluator.enclosures.put(name, block, data, lost)
    return this.told(this.viewsOf(this.evaluateAll()))
  }

  unenclose(name: string): Update {
    this.enclosed.delete(name)
    this.evaluator.enclosures.remove(name)
    return this.told(this.viewsOf(this.evaluateAll()))
  }

  /** The value of a line as a file; without a line all kept numbers. */
  numberFile(id: string | null, format: NumberFormat, options: ValueOptions): NumberFile | Fault {
    if (id === null) {
      const kept = this.order.flatMap((line) => this.allKeptBy(line))
      return writeFirst(
        kept.filter(({ value }) => isNumber(value)),
        format,
        options,
      )
    }
    const value = this.valueOf(id)
    const name = this.keptBy(id)?.name ?? `line_${this.order.indexOf(id) + 1}`
    return value ? writeValue({ name, value }, format, options) : fault('no-such-name', { name: 'of this line' })
  }

  private valueOf(id: string): Value | null {
    const evaluated = resultAt(this.evaluator, id)?.evaluated
    return evaluated && !evaluated.problem ? evaluated.value : null
  }

  /** What a line keeps under names. */
  private allKeptBy(id: string): readonly Named[] {
    const result = this.evaluator.result(id)
    const own = this.keptBy(id)
    return [
      ...(own ? [own] : []),
      ...(result ? answersOf(result).flatMap((answer) => this.keptBy(answer.id) ?? []) : []),
    ]
  }

  /** What a line keeps under a name; `null` where it keeps nothing. */
  private keptBy(id: string): Named | null {
    const parsed = resultAt(this.evaluator, id)?.parsed
    const [name, value] = [parsed ? definedName(parsed) : null, this.valueOf(id)]
    return name !== null && value ? { name, value } : null
  }

  private textOf(id: string): string {
    return this.draft?.id === id ? this.draft.source : (this.sources.get(id) ?? '')
  }

  private isHeld(id: string): boolean {
    return this.held.get(id) === this.textOf(id) && this.held.has(id)
  }

  private lines(): readonly SourceLine[] {
    return this.order.map((id) => ({ id, source: this.isHeld(id) ? '' : this.textOf(id) }))
  }

  private evaluateAll(granted: readonly string[] = []): string[] {
    this.evaluator.setLines(this.lines())
    const changed = this.evaluator.update(new Set(granted))
    const read = this.readPlace()
    return read.length === 0 ? changed : [...new Set([...changed, ...read])]
  }

  private allViews(): LineView[] {
    return this.viewsOf(this.order)
  }

  private viewsOf(changed: readonly string[]): LineView[] {
    const { conventions } = this
    if (conventions === null) return []
    // What was shown in a unit that was held is shown anew once nothing holds it.
    const ids = this.draft === null && this.unitHeld.size > 0 ? [...new Set([...changed, ...this.unitHeld])] : changed
    if (this.draft === null) this.unitHeld.clear()
    return ids.flatMap((id) => {
      const result = this.evaluator.result(id)
      if (!result) return []
      const view = this.viewOf(id, result, conventions)
      return [this.isHeld(id) ? stoppedView(view, this.textOf(id)) : view]
    })
  }

  private viewOf(line: string, result: LineResult, conventions: Conventions): LineView {
    const view = lineView(this.withHeldUnits(line, result), conventions)
    const found = answersOf(result)
    const answers = view.answers.map((answer, k) => (found[k] ? this.followed(found[k], answer, conventions) : answer))
    return this.followed(result, { ...view, answers }, conventions)
  }

  /** A view with what plates, tables and the reading along a sweep want of its value. */
  private followed({ id, evaluated: { value } }: LineResult, view: LineView, conventions: Conventions): LineView {
    this.rememberUnit(id, view)
    return {
      ...view,
      links: this.linksOf(id),
      sweep: this.watched.sweeps.includes(id) ? curveOf(value) : null,
      at: this.pointOf(id, value, conventions),
    }
  }

  /** While a line is typed or dragged, what depends on it keeps the prefix that it had. */
  private withHeldUnits(line: string, result: LineResult): LineResult {
    const { value } = result.evaluated
    if (this.draft === null || this.draft.id === line || value === null) return result
    const held = this.inHeldUnits(line, result.id, value)
    return held === value ? result : { ...result, evaluated: { ...result.evaluated, value: held } }
  }

  private inHeldUnits(line: string, id: string, value: Value): Value {
    if (value.kind === 'parts' && value.solved) {
      const parts = [...value.parts].map(([name, part], k) => [name, this.inHeldUnits(line, answerId(id, k), part)] as const) // prettier-ignore
      return { ...value, parts: new Map(parts) }
    }
    const unit = this.units.get(id)
    const held = unit === undefined ? value : inHeldUnit(value, unit)
    if (held !== value) this.unitHeld.add(line)
    return held
  }

  private rememberUnit(id: string, { readout: shown }: LineView): void {
    if (this.draft !== null) return
    if ('unit' in shown && shown.unit) this.units.set(id, shown.unit)
    else this.units.delete(id)
  }

  private sweepLines(): string[] {
    return this.order.filter((id) => {
      const result = this.evaluator.result(id)
      return result && [result, ...answersOf(result)].some(({ evaluated }) => sweepIn(evaluated.value) !== null)
    })
  }

  /** The value of a sweep at the point that is read along. */
  private pointOf(id: string, value: Value | null, conventions: Conventions): PointView | null {
    const { along } = this.watched
    const sweep = sweepIn(value)
    if (!along || !value || sweep?.axis.name !== along.name) return null
    const { reading } = this
    if (reading?.kind === 'none') return null
    const between = reading?.values.get(id) ?? null
    const point = between ?? pointIn(value, Math.min(reading?.index ?? along.index, sweep.count - 1))
    if (!point) return null
    const at = pointOf(point) ?? { re: point.kind === 'angle' ? point.radians : NaN, im: 0 }
    return { exact: reading === null || between !== null, readout: readout(point, conventions), ...at }
  }

  /** What lines would say under another unit of bare angles; those that take long are left out. */
  viewsUnder(angle: AngleUnit, ids: readonly string[]): readonly LineView[] {
    if (!this.conventions) return []
    const conventions = { ...this.conventions, angle }
    const evaluator = new FolioEvaluator()
    evaluator.setSettings({ ...conventions, timeLimit: EXAMPLE_LIMIT })
    this.encloseIn(evaluator)
    evaluator.setLines(this.lines())
    evaluator.update()
    return ids.flatMap((id) => {
      const result = evaluator.result(id)
      const late = result?.evaluated.problem?.code === 'too-long'
      return result && !late ? [lineView(result, conventions)] : []
    })
  }

  /** Lines with the unit written in under which they were written; `null` where that would change them. */
  stamped(units: ReadonlyMap<string, AngleUnit>): ReadonlyMap<string, string | null> {
    return this.evaluator.stamped(units)
  }

  /** Some points of a sweep as rows of a table, texts and all. */
  sweepRows(id: string, from: number, count: number): SweepRows | null {
    const value = resultAt(this.evaluator, id)?.evaluated.value
    return value && this.conventions ? tableRows(value, from, count, this.conventions) : null
  }

  /** The terms of a sum tip to tail, each evaluated in the place of its line. */
  private linksOf(id: string): readonly Link[] {
    const result = this.watched.chains.includes(id) ? this.evaluator.result(id) : null
    if (!result) return []
    const parts = termsOf(result.parsed.source, result.evaluated.bound.body).flatMap(({ source, negative }) => {
      const value = this.evaluator.evaluateAt(id, source)?.value
      const at = value ? pointOf(value) : null
      if (!at) return []
      return [{ label: negative ? `−${source}` : source, value: negative ? { re: -at.re, im: -at.im } : at }]
    })
    return linksOf(parts)
  }
}

function worked(
  evaluator: FolioEvaluator,
  id: string,
  conventions: Conventions,
  asked: WorkingAsked,
): WorkingView | string {
  const { ways, point = 0, most } = asked
  const found = workingOf(evaluator, id, { conventions, ways: new Map(ways), point })
  return typeof found === 'string' ? noWorkingSaid(found) : workingView(found, conventions, most)
}
