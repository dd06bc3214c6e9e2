import { advised, hintAdvised } from '../advice/advise'
import type { Place } from '../advice/advise'
import { unknownValue } from '../algebra/ratio'
import { inverseOf, standardName } from '../functions/registry'
import { definedName, definedNames, definedNodes } from '../notation/references'
import { parseLine } from '../notation/parser'
import { isReserved } from '../notation/words'
import type { Kept } from '../notation/names'
import type { Parsed } from '../notation/parser'
import { problem } from '../notation/problem'
import { stampUnit } from '../notation/stamp'
import type { Problem } from '../notation/problem'
import { doublesOf, identical } from '../kinds/kinds'
import { dataOf } from '../values/problemData'
import type { Value } from '../values/types'
import { TIME_LIMIT } from '../operators/context'
import type { AngleUnit } from '../values/convert'
import { evaluateLine } from './line'
import { Enclosures } from './enclosures'
import { NearNames } from './nearNames'
import type { Evaluated, Surroundings } from './line'
import type { Failure } from '../values/failure'

/** A line as the evaluator gets it. */
export interface SourceLine {
  readonly id: string
  readonly source: string
}

/** What the evaluator knows of a line. */
export interface LineResult {
  readonly id: string
  readonly parsed: Parsed
  readonly evaluated: Evaluated
  /** A hint that the name is defined above already. */
  readonly redefined: Problem | null
  /** A hint that the name changes how lines below are read (`33n` once `n` is kept). */
  readonly changesReading: Problem | null
}

export interface EvaluationSettings {
  readonly angle: AngleUnit
  readonly letter: 'i' | 'j'
  /** Longest time for one line, in milliseconds; see `context.ts` for the usual one. */
  readonly timeLimit?: number
  /**
   * Time for a line before the others have had theirs, in milliseconds: one that takes longer is
   * postponed until it is given its turn. Without it every line has its whole time at once.
   */
  readonly firstTurn?: number
  /** Told which line is reckoned, where several are. */
  readonly onLine?: (id: string) => void
  /** Told now and then how far a long line has come. */
  readonly report?: (done: number, total: number) => void
}

/** A question a line asked about its surroundings, with the answer it got. */
interface Question {
  readonly kind: 'above' | 'below' | 'anywhere' | 'line' | 'near' | 'near-function' | 'enclosure'
  readonly name: string
  readonly answer: number | string | boolean | null
}

interface Entry extends Kept {
  /** Changes whenever what a reader would see changes. */
  readonly stamp: string
}

interface Cached {
  source: string
  parsed: Parsed
  result: LineResult | null
  questions: readonly Question[]
  settings: EvaluationSettings | null
  stamp: number
  /** Doubles that its value holds. */
  weight: number
  /** Doubles that its value would hold, where there was no room for it. */
  refused: number
}

/** Most doubles that the values of a folio hold together (480 MB): two sweeps of the largest kind. */
export const DOUBLES_MOST = 60_000_000
/** First turns of one update, all together, in milliseconds: once they are spent, later lines have short ones. */
const FIRST_TURNS = 800
const SHORTEST_TURN = 8

/**
 * Evaluates a folio, and after a change only the lines whose inputs changed:
 * each line remembers what it asked (names above, names below, the settings it
 * used) and is left alone while all answers stay the same.
 */
export class FolioEvaluator {
  private lines: readonly SourceLine[] = []
  private settings: EvaluationSettings = { angle: 'deg', letter: 'j' }
  private readonly cache = new Map<string, Cached>()
  private stamps = 0
  /** How many lines the last update evaluated, for tests and the bench. */
  evaluatedLines = 0
  /** Lines that took longer than their first turn, in the order in which they wait. */
  private readonly waiting = new Set<string>()
  /** Lines that have their whole time in this update. */
  private granted: ReadonlySet<string> = NOBODY
  /** What is left of the first turns of this update, in milliseconds. */
  private turns = 0
  private readonly nearNames = new NearNames()
  readonly enclosures = new Enclosures()
  /** Doubles that all values hold. */
  private held = 0

  setLines(lines: readonly SourceLine[]): void {
    this.lines = lines
  }

  setSettings(settings: EvaluationSettings): void {
    this.settings = settings
  }

  result(id: string): LineResult | null {
    return this.cache.get(id)?.result ?? null
  }

  /** Lines that wait for their turn. */
  get postponed(): readonly string[] {
    return [...this.waiting]
  }

  /** Reckons a postponed line with its whole time, and what depends on it. */
  giveTurn(id: string): string[] {
    const cached = this.cache.get(id)
    this.waiting.delete(id)
    if (cached) cached.settings = null
    return this.update(new Set([id]))
  }

  /**
   * Brings every line up to date; returns the ids of those whose result changed.
   * Lines that are `granted` it have their whole time at once.
   */
  update(granted: ReadonlySet<string> = NOBODY): string[] {
    this.evaluatedLines = 0
    this.granted = granted
    this.turns = FIRST_TURNS
    this.forgetRemoved()
    const changed: string[] = []
    const definitions = this.definitions()
    this.nearNames.begin(definitions)
    const scope = new Map<string, Entry>()
    this.lines.forEach((line, index) => {
      const cached = this.cachedLine(line)
      if (this.bringUpToDate(cached, line.id, index, scope, definitions)) changed.push(line.id)
      this.enter(cached, index, scope)
    })
    for (const id of this.noteChangedReadings(definitions)) if (!changed.includes(id)) changed.push(id)
    return changed
  }

  /** Tells each definition which lines below read its name where a prefix or a unit stood before. */
  private noteChangedReadings(definitions: ReadonlyMap<string, readonly number[]>): string[] {
    const readers = new Map<number, number[]>()
    this.lines.forEach((line, index) => {
      for (const hint of this.cache.get(line.id)?.result?.evaluated.hints ?? []) {
        const shadowed = dataOf(hint, 'prefix-shadowed') ?? dataOf(hint, 'unit-shadowed')
        if (!shadowed) continue
        const by = definitions.get(shadowed.name)?.findLast((d) => d < index)
        if (by !== undefined) readers.set(by, [...new Set([...(readers.get(by) ?? []), index + 1])])
      }
    })
    return this.lines.flatMap((line, index) => {
      const result = this.cache.get(line.id)?.result
      const cached = this.cache.get(line.id)
      if (!result || !cached) return []
      const lines = lineList(readers.get(index) ?? [])
      const before = result.changesReading && dataOf(result.changesReading, 'changes-reading')
      if ((before?.lines ?? '') === lines) return []
      const { statement } = result.parsed
      const named = statement.type === 'define' || statement.type === 'function'
      const changesReading =
        named && lines !== '' ? problem('changes-reading', statement.name, { name: statement.name.name, lines }) : null
      cached.result = { ...result, changesReading }
      return [line.id]
    })
  }

  /** Evaluates a text as though it stood in the place of a line; `null` where there is no such line. */
  evaluateAt(id: string, source: string): Evaluated | null {
    const definitions = this.definitions()
    this.nearNames.begin(definitions)
    const scope = new Map<string, Entry>()
    for (const [index, line] of this.lines.entries()) {
      if (line.id === id)
        return evaluateLine(
          parseLine(source),
          new Asked(this.settings, index, scope, definitions, this.nearNames, this.enclosures),
        )
      this.enter(this.cachedLine(line), index, scope)
    }
    return null
  }

  /**
   * Lines with the unit written in under which they were written: each as it would then read, or `null` where that
   * would change what it is worth, or cannot be done. Proved by evaluating both.
   */
  stamped(units: ReadonlyMap<string, AngleUnit>): ReadonlyMap<string, string | null> {
    const found = new Map<string, string | null>()
    const definitions = this.definitions()
    this.nearNames.begin(definitions)
    const scope = new Map<string, Entry>()
    this.lines.forEach((line, index) => {
      const cached = this.cachedLine(line)
      const unit = units.get(line.id)
      if (unit) found.set(line.id, this.stampedAs(cached, unit, index, scope, definitions))
      this.enter(cached, index, scope)
    })
    return found
  }

  private stampedAs(
    { parsed }: Cached,
    angleUnit: AngleUnit,
    index: number,
    scope: ReadonlyMap<string, Entry>,
    definitions: ReadonlyMap<string, readonly number[]>,
  ): string | null {
    const ask = (angle: AngleUnit): Asked =>
      new Asked({ ...this.settings, angle }, index, scope, definitions, this.nearNames, this.enclosures)
    const meant = evaluateLine(parsed, ask(angleUnit))
    if (meant.problem || meant.bare.size === 0) return null
    const text = stampUnit(parsed.source, meant.bare, angleUnit)
    const other = angleUnit === 'deg' ? 'rad' : 'deg'
    // It must say the same in either angleUnit.
    const both = [angleUnit, other] as const
    const same = both.every((angle) => {
      const found = evaluateLine(parseLine(text), ask(angle))
      return found.problem === null && found.bare.size === 0 && sameForReaders(meant, found)
    })
    return same ? text : null
  }

  private forgetRemoved(): void {
    if (this.cache.size <= this.lines.length) {
      // Sizes can match by chance only after an exchange of lines; then the stale entry is harmless.
      if (this.lines.every((l) => this.cache.has(l.id))) return
    }
    const present = new Set(this.lines.map((l) => l.id))
    for (const [id, cached] of this.cache) {
      if (present.has(id)) continue
      this.held -= cached.weight
      this.waiting.delete(id)
      this.cache.delete(id)
    }
  }

  private cachedLine(line: SourceLine): Cached {
    const cached = this.cache.get(line.id)
    if (cached?.source === line.source) return cached
    const parsed = parseLine(line.source)
    const fresh: Cached = {
      source: line.source,
      parsed,
      result: null,
      questions: [],
      settings: null,
      stamp: 0,
      weight: cached?.weight ?? 0,
      refused: 0,
    }
    // The old stamp is kept until the value is known: an edit that changes nothing wakes no one.
    if (cached) fresh.stamp = cached.stamp
    const previous = cached?.result ?? null
    this.previous.set(line.id, previous)
    this.cache.set(line.id, fresh)
    return fresh
  }

  private readonly previous = new Map<string, LineResult | null>()

  /** For each kept name, the lines that define it, in order. */
  private definitions(): Map<string, number[]> {
    const found = new Map<string, number[]>()
    this.lines.forEach((line, index) => {
      for (const name of definedNames(this.cachedLine(line).parsed)) {
        if (this.isRefused(name)) continue
        const lines = found.get(name)
        if (lines) lines.push(index)
        else found.set(name, [index])
      }
    })
    return found
  }

  /** A name that no line can keep stays what it is, whatever a line in error tries to make of it. */
  private isRefused(name: string): boolean {
    return name === this.settings.letter || isReserved(name) || standardName(name) !== null
  }

  private bringUpToDate(
    cached: Cached,
    id: string,
    index: number,
    scope: ReadonlyMap<string, Entry>,
    definitions: ReadonlyMap<string, readonly number[]>,
  ): boolean {
    const redefined = this.redefinition(cached.parsed, index, scope)
    const result = cached.result
    if (result && this.holds(cached, index, scope, definitions)) {
      if (sameHint(result.redefined, redefined)) return false
      cached.result = { ...result, redefined }
      return true
    }
    this.evaluatedLines += 1
    if (this.evaluatedLines > 1 || this.granted.has(id)) this.settings.onLine?.(id)
    const asked = new Asked(this.settings, index, scope, definitions, this.nearNames, this.enclosures)
    const evaluated = this.withRoom(cached, this.withAdvice(cached, this.inTurn(cached, id, asked), asked))
    const before = result ?? this.previous.get(id) ?? null
    this.previous.delete(id)
    if (!before || !sameForReaders(before.evaluated, evaluated)) cached.stamp = this.stamps += 1
    cached.questions = asked.questions
    cached.settings = this.settings
    cached.result = { id, parsed: cached.parsed, evaluated, redefined, changesReading: null }
    return true
  }

  /** Evaluates a line within its turn; one that takes longer is postponed. */
  private inTurn(cached: Cached, id: string, asked: Asked): Evaluated {
    const { firstTurn, timeLimit = TIME_LIMIT } = this.settings
    this.waiting.delete(id)
    if (firstTurn === undefined || this.granted.has(id)) return evaluateLine(cached.parsed, asked)
    const turn = Math.min(timeLimit, Math.max(SHORTEST_TURN, Math.min(firstTurn, this.turns)))
    const began = Date.now()
    asked.limit = turn
    const evaluated = evaluateLine(cached.parsed, asked)
    const took = Date.now() - began
    if (took > SHORTEST_TURN) this.turns -= took
    if (evaluated.problem?.code !== 'too-long' || turn >= timeLimit || took < turn) return evaluated
    this.waiting.add(id)
    return { ...evaluated, problem: problem('postponed', evaluated.problem) }
  }

  /** Every correction is evaluated, in the place of the line, before it is offered. */
  private withAdvice(cached: Cached, evaluated: Evaluated, asked: Asked): Evaluated {
    const { problem: failed, hints } = evaluated
    if (!failed && hints.every((h) => h.fixes.length === 0)) return evaluated
    const place: Place = {
      source: cached.source,
      letter: this.settings.letter,
      angleUnit: this.settings.angle,
      evaluate: (source, above) => {
        const parsed = parseLine(source)
        const there = above === null ? asked : asked.under(parseLine(above))
        return { parsed, evaluated: there.briefly(() => evaluateLine(parsed, there)) }
      },
    }
    return {
      ...evaluated,
      problem: failed && advised(failed, place),
      hints: hints.map((hint) => hintAdvised(hint, place)),
    }
  }

  /** A value for which the folio has no room is not kept: the line says so. */
  private withRoom(cached: Cached, evaluated: Evaluated): Evaluated {
    this.held -= cached.weight
    cached.weight = 0
    cached.refused = 0
    const weight = evaluated.value ? doublesOf(evaluated.value) : 0
    if (weight > 0 && this.held + weight > DOUBLES_MOST) {
      cached.refused = weight
      const span = { from: 0, to: cached.source.length }
      const most = millions(DOUBLES_MOST)
      return { ...evaluated, value: null, problem: problem('no-room', span, { most, has: millions(weight) }) }
    }
    cached.weight = weight
    this.held += weight
    return evaluated
  }

  private holds(
    cached: Cached,
    index: number,
    scope: ReadonlyMap<string, Entry>,
    definitions: ReadonlyMap<string, readonly number[]>,
  ): boolean {
    const { settings, result } = cached
    if (settings === null || settings.letter !== this.settings.letter) return false
    // Room that others have given up since is room for this line.
    if (cached.refused > 0 && this.held + cached.refused <= DOUBLES_MOST) return false
    if (result?.evaluated.angleUnitUsed && settings.angle !== this.settings.angle) return false
    return cached.questions.every(
      (q) => ask(q.kind, q.name, index, scope, definitions, this.nearNames, this.enclosures) === q.answer,
    )
  }

  private redefinition(parsed: Parsed, index: number, scope: ReadonlyMap<string, Entry>): Problem | null {
    for (const node of definedNodes(parsed.statement)) {
      const earlier = scope.get(node.name)
      if (!earlier || earlier.line >= index) continue
      const algebraic = earlier.value?.kind === 'polynomial' && parsed.statement.type !== 'unknown'
      return problem(algebraic && isUnknown(earlier.value, node.name) ? 'unknown-kept' : 'redefined', node, {
        name: node.name,
        line: earlier.line + 1,
      })
    }
    return null
  }

  /** Makes the line's name, and `prev`, visible to the lines below. */
  private enter(cached: Cached, index: number, scope: Map<string, Entry>): void {
    const { parsed, result } = cached
    if (!result) return
    const { value, problem: failed } = result.evaluated
    const isFunction = parsed.statement.type === 'function'
    const stamp = failed ? `broken ${isFunction ? 'function' : 'value'} ${index}` : `${cached.stamp}`
    if (parsed.statement.type === 'unknown') {
      for (const { name } of parsed.statement.names)
        if (!failed)
          scope.set(name, { line: index, kind: 'value', value: unknownValue(name), stamp: `unknown ${name}` })
      return
    }
    const name = definedName(parsed)
    if (name !== null && !this.isRefused(name))
      scope.set(name, { line: index, kind: isFunction ? 'function' : 'value', value, stamp })
    const skipped = isFunction || parsed.statement.type === 'check' || (parsed.statement.type === 'empty' && !failed)
    if (!skipped) scope.set('prev', { line: index, kind: 'value', value, stamp })
  }
}

/** True where two hints about the same text say the same. */
function sameHint(a: Problem | null, b: Problem | null): boolean {
  if (a === null || b === null) return a === b
  const told = (hint: Problem) => dataOf(hint, 'redefined') ?? dataOf(hint, 'unknown-kept')
  const [x, y] = [told(a), told(b)]
  return a.code === b.code && x?.line === y?.line && x?.name === y?.name
}

const NOBODY: ReadonlySet<string> = new Set()

function millions(count: number): number {
  return Math.ceil(count / 1e6)
}

/** `line 3`, `lines 3 and 5`, `lines 3, 5 and 8`; nothing for none. */
function lineList(lines: readonly number[]): string {
  const last = lines.at(-1)
  if (last === undefined) return ''
  return lines.length === 1 ? `line ${last}` : `lines ${lines.slice(0, -1).join(', ')} and ${last}`
}

/** True for the bare unknown of this name. */
function isUnknown(value: Value | null, name: string): boolean {
  if (value?.kind !== 'polynomial' || value.bottom) return false
  const [only] = value.top.terms
  return value.top.terms.length === 1 && value.top.unknowns[0] === name && only?.powers[0] === 1
}

function ask(
  kind: Question['kind'],
  name: string,
  index: number,
  scope: ReadonlyMap<string, Entry>,
  definitions: ReadonlyMap<string, readonly number[]>,
  nearNames: NearNames,
  enclosures: Enclosures,
): Question['answer'] {
  if (kind === 'enclosure') return enclosures.stampOf(name)
  if (kind === 'near' || kind === 'near-function')
    return nearNames.near(name, kind === 'near' ? null : 'function', scope)
  if (kind === 'above') return scope.get(name)?.stamp ?? null
  if (kind === 'line') return (scope.get(name)?.line ?? -1) + 1
  const lines = definitions.get(name)
  if (kind === 'anywhere') return lines !== undefined
  const below = lines?.find((line) => line > index)
  return below === undefined ? null : below + 1
}

/** Longest time for a line that is only tried, in milliseconds. */
const BRIEF = 100

/** Answers a line's questions and writes them down. */
class Asked implements Surroundings {
  readonly questions: Question[] = []
  /** A shorter time than the settings give, where only a first turn is due. */
  limit: number | null = null

  constructor(
    private readonly settings: EvaluationSettings,
    private readonly index: number,
    private readonly scope: ReadonlyMap<string, Entry>,
    private readonly definitions: ReadonlyMap<string, readonly number[]>,
    private readonly nearNames: NearNames,
    private readonly enclosures: Enclosures,
  ) {}

  /** The same place with the unknowns of a line that would stand above it. */
  under(above: Parsed): Asked {
    const names = definedNames(above)
    const unknowns = names.map((name): [string, Entry] => [
      name,
      { line: this.index, kind: 'value', value: unknownValue(name), stamp: `unknown ${name}` },
    ])
    return new Asked(
      this.settings,
      this.index,
      new Map([...this.scope, ...unknowns]),
      this.definitions,
      this.nearNames,
      this.enclosures,
    )
  }

  /** With a short time only: for lines that nobody has entered. */
  briefly<T>(run: () => T): T {
    const before = this.limit
    this.limit = Math.min(before ?? BRIEF, BRIEF)
    try {
      return run()
    } finally {
      this.limit = before
    }
  }

  get angleUnit(): AngleUnit {
    return this.settings.angle
  }

  get timeLimit(): number | undefined {
    return this.limit ?? this.settings.timeLimit
  }

  get report(): EvaluationSettings['report'] {
    return this.settings.report
  }

  get letter(): 'i' | 'j' {
    return this.settings.letter
  }

  private note(kind: Question['kind'], name: string): Question['answer'] {
    for (const before of this.questions) if (before.name === name && before.kind === kind) return before.answer
    const answer = ask(kind, name, this.index, this.scope, this.definitions, this.nearNames, this.enclosures)
    this.questions.push({ kind, name, answer })
    return answer
  }

  above(name: string): Kept | null {
    this.note('above', name)
    return this.scope.get(name) ?? null
  }

  lineOf(name: string): number | null {
    const answer = this.note('line', name)
    return typeof answer === 'number' && answer > 0 ? answer : null
  }

  enclosure(name: string): Value | Failure {
    this.note('enclosure', name)
    return this.enclosures.valueOf(name)
  }

  below(name: string): number | null {
    const answer = this.note('below', name)
    return typeof answer === 'number' ? answer : null
  }

  anywhere(name: string): boolean {
    return this.note('anywhere', name) === true
  }

  builtIn(name: string, args?: number): string | null {
    return standardName(name, args)
  }

  inverseOf(name: string): string | null {
    return inverseOf(name)
  }

  near(name: string, only: 'function' | null): readonly string[] {
    const answer = this.note(only === null ? 'near' : 'near-function', name)
    return typeof answer === 'string' && answer !== '' ? answer.split(', ') : []
  }
}

/** True where no line below can tell the two apart. */
function sameForReaders(a: Evaluated, b: Evaluated): boolean {
  if ((a.problem === null) !== (b.problem === null)) return false
  if (a.problem) return true
  const [x, y] = [a.value, b.value]
  return x === null || y === null ? x === y : identical(x, y)
}
