import { advised, hintAdvised } from '../advice/advise'
import type { Place as AdvisedPlace } from '../advice/advise'
import { equalData } from '../equalData'
import { identical } from '../kinds/kinds'
import { asEquation, GroupReader, readAmong, readLike } from '../notation/groups'
import type { AsEquation, Place } from '../notation/groups'
import { parseLine } from '../notation/parser'
import type { Parsed } from '../notation/parser'
import type { Problem } from '../notation/problem'
import { stampUnit } from '../notation/stamp'
import type { Node } from '../notation/tree'
import type { AngleUnit } from '../values/convert'
import { dataOf } from '../values/problemData'
import type { Value } from '../values/types'
import { Asked, holdTrue } from './asked'
import type { Question, Standing } from './asked'
import { changesReading, readersOf } from './changedReadings'
import { definitionsOf } from './definitions'
import type { Definitions } from './definitions'
import { Enclosures } from './enclosures'
import { evaluateLine } from './line'
import type { Evaluated, OpenLine } from './line'
import type { LineResult, SourceLine } from './lineResult'
import { NearNames } from './nearNames'
import { OpenGroup, withoutOpen } from './openGroup'
import { Room } from './room'
import type { Tenant } from './room'
import { enter, redefinition } from './scope'
import type { Entry, Scope } from './scope'
import type { EvaluationSettings } from './settings'
import { NOBODY, Turns } from './turns'

interface Cached extends Tenant {
  /** As it is read by itself, as an equation, and where it stands. */
  readonly plain: Parsed
  equation: AsEquation | null
  parsed: Parsed
  place: Place | null
  /** What it comes to once the equations of its group are solved, of a line that waits for that. */
  after: Cached | null
  /** Of that: the line while it waited, whose hints go on. */
  readonly first: Cached | null
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
    const cached = this.cache.get(id)
    return (cached?.after ?? cached)?.result ?? null
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
    const changed = new Set<string>()
    const definitions = this.goThrough((cached, id, standing) => {
      if (this.bringUpToDate(cached, id, standing)) changed.add(id)
      return 'go on'
    })
    for (const id of this.noteChangedReadings(definitions)) changed.add(id)
    return [...changed]
  }

  /** Evaluates a text as though it stood in the place of a line; `null` where there is no such line. */
  evaluateAt(id: string, source: string): Evaluated | null {
    return this.inPlaceOf(id, (standing) => evaluateLine(readThere(source, standing), new Asked(standing)))
  }

  /** What can be seen from the place of a line; `null` where there is no such line. */
  inPlaceOf<T>(id: string, look: (standing: Standing) => T): T | null {
    let there: Standing | null = null
    this.goThrough((_, line, standing) => {
      if (line !== id) return 'go on'
      there = standing
      // A line of a group is seen once more, with the values of what is sought.
      return standing.group ? 'go on' : 'enough'
    })
    const standing = there as Standing | null
    return standing && look(standing)
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
    const all = this.readLines()
    const definitions = definitionsOf(
      all.map((cached) => cached.parsed),
      settings.letter,
    )
    nearNames.begin(definitions)
    const scope = new Map<string, Entry>()
    const standingAt = (index: number, names: Scope, group: OpenGroup<Cached> | null): Standing => ({ settings, index, scope: names, definitions, nearNames, enclosures, group }) // prettier-ignore
    let group: OpenGroup<Cached> | null = null
    for (const [index, { id }] of this.lines.entries()) {
      const cached = all[index]
      if (!cached) continue
      const { role } = cached.place ?? NOWHERE
      if (role === 'sought') group ??= new OpenGroup<Cached>()
      if (visit(cached, id, standingAt(index, scope, group)) === 'enough') return definitions
      const { result } = cached
      if (group && result && role === 'member' && result.evaluated.open) group.wait(cached, id, index, scope)
      else if (result && cached.after) this.dropAfter(cached)
      if (result) enter(scope, index, cached.parsed, result.evaluated, cached.stamp, settings.letter)
      if (!group || !result) continue
      if (role === 'equation') group.equation(index, result.evaluated, cached.stamp)
      group.remember(index, cached.parsed, scope)
      if (role !== 'determine') continue
      const settled = group.settle(index, result.evaluated, cached.stamp, scope, (waiting, names) => {
        const after = this.afterwards(waiting.line)
        if (visit(after, waiting.id, standingAt(waiting.index, names, null)) === 'enough') return 'enough'
        return after.result && { parsed: after.parsed, evaluated: after.result.evaluated, stamp: after.stamp }
      }, settings.letter) // prettier-ignore
      if (settled === 'enough') return definitions
      group = null
    }
    for (const { line, id, scope: names, index } of group?.waiting ?? []) {
      const after = this.afterwards(line)
      if (visit(after, id, standingAt(index, withoutOpen(names), null)) === 'enough') break
    }
    return definitions
  }

  /** All lines, each read where it stands. */
  private readLines(): readonly Cached[] {
    const reader = new GroupReader()
    return this.lines.map((line) => {
      const cached = this.cachedLine(line)
      const { parsed, place } = reader.read(cached.plain, () => (cached.equation ??= asEquation(cached.source)))
      if (!sameReading(parsed, cached.parsed)) {
        cached.parsed = parsed
        cached.settings = null
      }
      cached.place = place
      if (place?.role !== 'member') this.forgetAfter(cached)
      return cached
    })
  }

  /** What a line comes to once its equations are solved. */
  private afterwards(cached: Cached): Cached {
    if (cached.after?.parsed === cached.parsed) return cached.after
    const { source, plain, equation, parsed, place } = cached
    const before = cached.after
    cached.after = { source, plain, equation, parsed, place, after: null, first: cached, before: before?.result ?? null, result: null, questions: [], settings: null, stamp: before?.stamp ?? 0, weight: before?.weight ?? 0, refused: 0 } // prettier-ignore
    return cached.after
  }

  /** A line that is no part of a group any more: it is told anew. */
  private forgetAfter(cached: Cached): void {
    if (!cached.after) return
    this.dropAfter(cached)
    cached.settings = null
  }

  private dropAfter(cached: Cached): void {
    if (cached.after) this.room.leave(cached.after)
    cached.after = null
  }

  /** Tells each definition which lines below read its name where a prefix or a letter stood before. */
  private noteChangedReadings(definitions: Definitions): string[] {
    const readers = readersOf(
      this.lines.map(({ id }) => this.result(id)),
      definitions,
    )
    return this.lines.flatMap(({ id }, index) => {
      const kept = this.cache.get(id)
      const cached = kept?.after ?? kept
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
      if (cached.after) this.room.leave(cached.after)
      this.turns.forget(id)
      this.cache.delete(id)
    }
  }

  private cachedLine({ id, source }: SourceLine): Cached {
    const old = this.cache.get(id)
    if (old?.source === source) return old
    const plain = parseLine(source)
    const fresh: Cached = {
      source,
      plain,
      equation: null,
      parsed: plain,
      place: null,
      after: old?.after ?? null,
      first: null,
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
      if (sameHint(result.redefined, redefined) && samePlace(result.place, cached.place)) return false
      cached.result = { ...result, redefined, place: cached.place }
      return true
    }
    this.evaluatedLines += 1
    if (this.evaluatedLines > 1 || this.turns.isGranted(id)) this.settings.onLine?.(id)
    const asked = new Asked(standing)
    const reckoned = this.turns.give(id, this.settings, (limit) => {
      asked.limit = limit
      return evaluateLine(cached.parsed, asked)
    })
    const evaluated = this.room.take(
      cached,
      withFirst(cached.first, this.withAdvice(cached, reckoned, asked, standing)),
    )
    const before = result ?? cached.before
    cached.before = null
    if (!before || !sameForReaders(before.evaluated, evaluated)) cached.stamp = this.stamps += 1
    cached.questions = asked.questions
    cached.settings = this.settings
    cached.result = { id, parsed: cached.parsed, evaluated, redefined, changesReading: null, place: cached.place }
    return true
  }

  /** Every correction is evaluated, in the place of the line, before it is offered. */
  private withAdvice(cached: Cached, evaluated: Evaluated, asked: Asked, standing: Standing): Evaluated {
    const { problem: failed, hints } = evaluated
    if (!failed && hints.every((h) => h.fixes.length === 0)) return evaluated
    const place: AdvisedPlace = {
      source: cached.source,
      letter: this.settings.letter,
      angleUnit: this.settings.angle,
      evaluate: (source, above) => {
        const parsed = readThere(source, standing)
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
    const found = evaluateLine(readLike(parsed, text), ask(angle))
    return found.problem === null && found.bare.size === 0 && sameForReaders(meant, found)
  })
  return same ? text : null
}

/** True where two hints about the same text say the same. */
function sameHint(a: Problem | null, b: Problem | null): boolean {
  if (a === null || b === null) return a === b
  const told = (hint: Problem) =>
    dataOf(hint, 'redefined') ?? dataOf(hint, 'unknown-kept') ?? dataOf(hint, 'sought-redefined')
  const [x, y] = [told(a), told(b)]
  return a.code === b.code && x?.line === y?.line && x?.name === y?.name
}

/** A text as it would be read in a place. */
function readThere(source: string, { group, scope }: Standing): Parsed {
  if (!group) return parseLine(source)
  const following = [...scope].flatMap(([name, { open }]) => (open && open.kind !== 'sought' ? [name] : []))
  return readAmong(parseLine(source), new Set(group.names.keys()), new Set(following))
}

/** With the hints that the line had while it waited for its equations. */
function withFirst(first: Cached | null, evaluated: Evaluated): Evaluated {
  const hints = first?.result?.evaluated.hints ?? []
  const asks = hints.find(({ code }) => code === 'equation-asks')
  // A question that waits for what only it could tell: the hint says what is wrong.
  if (asks && evaluated.problem?.code === 'waits-for') return { ...evaluated, problem: asks }
  const more = hints.filter(
    (hint) => !evaluated.hints.some(({ code, from }) => code === hint.code && from === hint.from),
  )
  return more.length === 0 ? evaluated : { ...evaluated, hints: [...more, ...evaluated.hints] }
}

const NOWHERE = { role: null } as const

/** Two readings of one text: what is wrong with them is all that can differ without their being anew. */
function sameReading(a: Parsed, b: Parsed): boolean {
  return a === b || (a.statement === b.statement && equalData(a.problem, b.problem))
}

function samePlace(a: Place | null, b: Place | null): boolean {
  return a?.role === b?.role && (a?.role !== 'equation' || b?.role !== 'equation' || a.number === b.number)
}

/** True of lines that are nothing to a group, and of equations with the same coefficients. */
function sameOpen(a: OpenLine | null, b: OpenLine | null): boolean {
  if (a === null || b === null) return a === b
  if (a.kind !== 'equation' || b.kind !== 'equation') return false
  const [x, y] = [a.equation.form, b.equation.form]
  if (x.kind !== 'linear' || y.kind !== 'linear' || x.factors.size !== y.factors.size) return false
  const same = (p: Value | null | undefined, q: Value | null | undefined): boolean =>
    p && q ? identical(p, q) : p === q
  return same(x.constant, y.constant) && [...x.factors].every(([name, factor]) => same(factor, y.factors.get(name)))
}

/** True where no line below can tell the two apart. */
function sameForReaders(a: Evaluated, b: Evaluated): boolean {
  if ((a.problem === null) !== (b.problem === null) || !sameOpen(a.open, b.open)) return false
  if (a.problem) return true
  const [x, y] = [a.value, b.value]
  return x === null || y === null ? x === y : identical(x, y)
}
