import { advised, hintAdvised } from '../advice/advise'
import type { Place } from '../advice/advise'
import { identical } from '../kinds/kinds'
import { parseLine } from '../notation/parser'
import type { Parsed } from '../notation/parser'
import type { Problem } from '../notation/problem'
import { stampUnit } from '../notation/stamp'
import type { Node } from '../notation/tree'
import type { AngleUnit } from '../values/convert'
import { dataOf } from '../values/problemData'
import { Asked, holdTrue } from './asked'
import type { Question, Standing } from './asked'
import { changesReading, readersOf } from './changedReadings'
import { definitionsOf } from './definitions'
import type { Definitions } from './definitions'
import { Enclosures } from './enclosures'
import { evaluateLine } from './line'
import type { Evaluated } from './line'
import type { LineResult, SourceLine } from './lineResult'
import { NearNames } from './nearNames'
import { Room } from './room'
import type { Tenant } from './room'
import { enter, redefinition } from './scope'
import type { Entry } from './scope'
import type { EvaluationSettings } from './settings'
import { NOBODY, Turns } from './turns'

interface Cached extends Tenant {
  readonly parsed: Parsed
  /** What it came to before its text changed; forgotten once that is compared. */
  before: LineResult | null
  result: LineResult | null
  questions: readonly Question[]
  settings: EvaluationSettings | null
  stamp: number
}

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
  private readonly turns = new Turns()
  private readonly room = new Room()
  private readonly nearNames = new NearNames()

  /** Measured data can be shared by several. */
  constructor(readonly enclosures: Enclosures = new Enclosures()) {}

  setLines(lines: readonly SourceLine[]): void {
    this.lines = lines
  }

  setSettings(settings: EvaluationSettings): void {
    this.settings = settings
  }

  result(id: string): LineResult | null {
    return this.cache.get(id)?.result ?? null
  }

  /** The term of the line in a place, counted from 0; `null` where it has none. */
  bodyAt(index: number): Node | null {
    const id = this.lines[index]?.id
    return (id === undefined ? null : this.result(id)?.evaluated.bound.body) ?? null
  }

  /** Lines that wait for their turn. */
  get postponed(): readonly string[] {
    return this.turns.postponed
  }

  /** Reckons a postponed line with its whole time, and what depends on it. */
  giveTurn(id: string): string[] {
    const cached = this.cache.get(id)
    this.turns.forget(id)
    if (cached) cached.settings = null
    return this.update(new Set([id]))
  }

  /**
   * Brings every line up to date; returns the ids of those whose result changed.
   * Lines that are `granted` it have their whole time at once.
   */
  update(granted: ReadonlySet<string> = NOBODY): string[] {
    this.evaluatedLines = 0
    this.turns.begin(granted)
    this.forgetRemoved()
    const changed: string[] = []
    const definitions = this.goThrough((cached, id, standing) => {
      if (this.bringUpToDate(cached, id, standing)) changed.push(id)
      return 'go on'
    })
    for (const id of this.noteChangedReadings(definitions)) if (!changed.includes(id)) changed.push(id)
    return changed
  }

  /** Evaluates a text as though it stood in the place of a line; `null` where there is no such line. */
  evaluateAt(id: string, source: string): Evaluated | null {
    return this.inPlaceOf(id, (standing) => evaluateLine(parseLine(source), new Asked(standing)))
  }

  /** What can be seen from the place of a line; `null` where there is no such line. */
  inPlaceOf<T>(id: string, look: (standing: Standing) => T): T | null {
    let found: T | null = null
    this.goThrough((_, line, standing) => {
      if (line !== id) return 'go on'
      found = look(standing)
      return 'enough'
    })
    return found
  }

  /**
   * Lines with the unit written in under which they were written: each as it would then read, or `null` where that
   * would change what it is worth, or cannot be done. Proved by evaluating both.
   */
  stamped(units: ReadonlyMap<string, AngleUnit>): ReadonlyMap<string, string | null> {
    const found = new Map<string, string | null>()
    this.goThrough(({ parsed }, id, standing) => {
      const unit = units.get(id)
      if (unit) found.set(id, stampedAs(parsed, unit, standing))
      return 'go on'
    })
    return found
  }

  /** Visits the lines in order, each with where it stands, until one visit says that it was enough. */
  private goThrough(visit: (cached: Cached, id: string, standing: Standing) => 'go on' | 'enough'): Definitions {
    const { settings, nearNames, enclosures } = this
    const all = this.lines.map((line) => this.cachedLine(line))
    const definitions = definitionsOf(
      all.map((cached) => cached.parsed),
      settings.letter,
    )
    nearNames.begin(definitions)
    const scope = new Map<string, Entry>()
    for (const [index, { id }] of this.lines.entries()) {
      const cached = all[index]
      if (!cached || visit(cached, id, { settings, index, scope, definitions, nearNames, enclosures }) === 'enough')
        break
      if (cached.result) enter(scope, index, cached.parsed, cached.result.evaluated, cached.stamp, settings.letter)
    }
    return definitions
  }

  /** Tells each definition which lines below read its name where a prefix or a letter stood before. */
  private noteChangedReadings(definitions: Definitions): string[] {
    const readers = readersOf(
      this.lines.map(({ id }) => this.result(id)),
      definitions,
    )
    return this.lines.flatMap(({ id }, index) => {
      const cached = this.cache.get(id)
      if (!cached?.result) return []
      const hint = changesReading(cached.result, readers.get(index) ?? [])
      if (hint === 'same') return []
      cached.result = { ...cached.result, changesReading: hint }
      return [id]
    })
  }

  private forgetRemoved(): void {
    if (this.cache.size <= this.lines.length) {
      // Sizes can match by chance only after an exchange of lines; then the stale entry is harmless.
      if (this.lines.every((l) => this.cache.has(l.id))) return
    }
    const present = new Set(this.lines.map((l) => l.id))
    for (const [id, cached] of this.cache) {
      if (present.has(id)) continue
      this.room.leave(cached)
      this.turns.forget(id)
      this.cache.delete(id)
    }
  }

  private cachedLine({ id, source }: SourceLine): Cached {
    const old = this.cache.get(id)
    if (old?.source === source) return old
    const fresh: Cached = {
      source,
      parsed: parseLine(source),
      before: old?.result ?? old?.before ?? null,
      result: null,
      questions: [],
      settings: null,
      // The old stamp is kept until the value is known: an edit that changes nothing wakes no one.
      stamp: old?.stamp ?? 0,
      weight: old?.weight ?? 0,
      refused: 0,
    }
    this.cache.set(id, fresh)
    return fresh
  }

  private bringUpToDate(cached: Cached, id: string, standing: Standing): boolean {
    const redefined = redefinition(cached.parsed, standing.index, standing.scope)
    const { result } = cached
    if (result && this.holds(cached, standing)) {
      if (sameHint(result.redefined, redefined)) return false
      cached.result = { ...result, redefined }
      return true
    }
    this.evaluatedLines += 1
    if (this.evaluatedLines > 1 || this.turns.isGranted(id)) this.settings.onLine?.(id)
    const asked = new Asked(standing)
    const reckoned = this.turns.give(id, this.settings, (limit) => {
      asked.limit = limit
      return evaluateLine(cached.parsed, asked)
    })
    const evaluated = this.room.take(cached, this.withAdvice(cached, reckoned, asked))
    const before = result ?? cached.before
    cached.before = null
    if (!before || !sameForReaders(before.evaluated, evaluated)) cached.stamp = this.stamps += 1
    cached.questions = asked.questions
    cached.settings = this.settings
    cached.result = { id, parsed: cached.parsed, evaluated, redefined, changesReading: null }
    return true
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

  private holds(cached: Cached, standing: Standing): boolean {
    const { settings, result } = cached
    if (settings === null || settings.letter !== this.settings.letter) return false
    if (this.room.hasCome(cached)) return false
    if (result?.evaluated.angleUnitUsed && settings.angle !== this.settings.angle) return false
    return holdTrue(cached.questions, standing)
  }
}

/** A line with the unit written in; `null` where it would not say the same in either unit. */
function stampedAs(parsed: Parsed, angleUnit: AngleUnit, standing: Standing): string | null {
  const ask = (angle: AngleUnit): Asked => new Asked({ ...standing, settings: { ...standing.settings, angle } })
  const meant = evaluateLine(parsed, ask(angleUnit))
  if (meant.problem || meant.bare.size === 0) return null
  const text = stampUnit(parsed.source, meant.bare, angleUnit)
  const same = (['deg', 'rad'] as const).every((angle) => {
    const found = evaluateLine(parseLine(text), ask(angle))
    return found.problem === null && found.bare.size === 0 && sameForReaders(meant, found)
  })
  return same ? text : null
}

/** True where two hints about the same text say the same. */
function sameHint(a: Problem | null, b: Problem | null): boolean {
  if (a === null || b === null) return a === b
  const told = (hint: Problem) => dataOf(hint, 'redefined') ?? dataOf(hint, 'unknown-kept')
  const [x, y] = [told(a), told(b)]
  return a.code === b.code && x?.line === y?.line && x?.name === y?.name
}

/** True where no line below can tell the two apart. */
function sameForReaders(a: Evaluated, b: Evaluated): boolean {
  if ((a.problem === null) !== (b.problem === null)) return false
  if (a.problem) return true
  const [x, y] = [a.value, b.value]
  return x === null || y === null ? x === y : identical(x, y)
}
