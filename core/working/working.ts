import { isUnknown } from '../algebra/ratio'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import type { Conventions } from '../format/conventions'
import { isComplex } from '../format/number'
import { Asked } from '../evaluate/asked'
import type { Standing } from '../evaluate/asked'
import type { FolioEvaluator } from '../evaluate/folio'
import { evaluateLine, evaluateTerm } from '../evaluate/line'
import type { Evaluated } from '../evaluate/line'
import type { LineResult } from '../evaluate/lineResult'
import { findFunction } from '../functions/registry'
import { termToLatex, withoutSpans } from '../notation/latex'
import type { ReadingStyle } from '../notation/latex'
import { parseLine } from '../notation/parser'
import { withChildren, withNames } from '../notation/rebuilt'
import { childrenOf } from '../notation/references'
import type { Form, Node, Statement } from '../notation/tree'
import * as C from '../numbers/complex'
import { pointIn } from '../quantities/through'
import type { Failure } from '../values/failure'
import { bare, sweepIn } from '../values/quantity'
import type { Value } from '../values/types'
import { sentence } from '../sentences/sentences'
import { chapters } from './chapters'
import { otherForm } from './complexNumbers'
import { formsOf } from './forms'
import { Recorder, seenOf, unbracketed } from './seen'
import type { Seen } from './seen'
import { readingStyle, termShowsWhole } from './shown'
import { answersAt, solvingTerm } from './equations'
import type { SolvingTerm } from './equations'
import type { Step } from './step'
import { column, valued } from './terms'
import { Progress, Work } from './work'
import type { Choice, Done, Tools, Ways } from './work'

/** What is asked for besides the line. */
export interface WorkingOptions {
  readonly conventions: Conventions
  /** The point at which a sweep is worked, counted from 0. */
  readonly point?: number
  readonly ways?: Ways
}

/** How the value of a line comes about. */
export interface Working {
  /** The line as it is bound, and with the values in the places of its names. */
  readonly letters: Node
  readonly figures: Node
  /** What it comes to; `null` of a line in error. */
  readonly result: Done | null
  readonly steps: readonly Step[]
  readonly choices: readonly Choice[]
  /** Terms that were read in the unit of the conventions. */
  readonly bare: ReadonlySet<Node>
  /** Terms that are shown with one figure more. */
  readonly guarded: ReadonlySet<Node>
  /** True where steps were left out. */
  readonly cut: boolean
  /** The point of a sweep that was worked, counted from 0; `null` of other lines. */
  readonly point: number | null
}

/** Why a line has no working. */
export type NoWorking = 'function' | 'unknown' | 'remark' | 'unread' | 'sought' | 'equation' | 'search'

/** The working of a line of a folio; why there is none. */
export function workingOf(evaluator: FolioEvaluator, id: string, options: WorkingOptions): Working | NoWorking {
  const result = evaluator.result(id)
  if (!result) return 'remark'
  const found = evaluator.inPlaceOf(id, (standing) => {
    const forms = formsOf(evaluator, standing)
    return workedIn(result, standing, forms, options)
  })
  return found ?? 'remark'
}

/** The working of a text as though it stood in the place of a line. */
export function workingAt(
  evaluator: FolioEvaluator,
  id: string,
  source: string,
  options: WorkingOptions,
): Working | NoWorking | null {
  // prettier-ignore
  return evaluator.inPlaceOf(id, (standing) => {
    const parsed = parseLine(source)
    const evaluated = evaluateLine(parsed, new Asked(standing))
    const result: LineResult = { id, parsed, evaluated, redefined: null, changesReading: null, place: null }
    return workedIn(result, standing, formsOf(evaluator, standing), options)
  })
}

function workedIn(
  { parsed, evaluated }: LineResult,
  standing: Standing,
  formOf: (name: string) => Form,
  options: WorkingOptions,
): Working | NoWorking {
  const { statement } = parsed
  const { body, right } = evaluated.bound
  if (statement.type === 'function' || statement.type === 'unknown') return statement.type
  if (statement.type === 'sought' || statement.type === 'equation') return statement.type
  if (statement.type === 'determine')
    return determineWorking(new Desk(standing, options), evaluated, options.point ?? 0)
  if (body === null || statement.type === 'empty') return parsed.problem ? 'unread' : 'remark'
  if (parsed.problem || evaluated.bound.problem) return 'unread'
  const desk = new Desk(standing, options)
  return desk.line(statement, body, right, evaluated, formOf)
}

/** The elimination of linear equations, or the roots of a polynomial one. */
function determineWorking(desk: Desk, { value, problem: failed }: Evaluated, point: number): Working | NoWorking {
  if (failed) return 'unread'
  const found = value?.kind === 'parts' && value.solved ? solvingTerm(value.solved, point) : null
  return found && value
    ? desk.solving(found, found.rule === 'equations-as-matrix' ? answersAt(value, found.point) : null)
    : 'search'
}

/** A line on the desk: evaluates terms in its place, and gathers what is to be known of all of them. */
class Desk {
  private readonly bare = new Set<Node>()
  private readonly names: Asked
  private readonly conventions: Conventions
  private readonly tools: Tools
  private readonly style: ReadingStyle

  constructor(
    standing: Standing,
    private readonly options: WorkingOptions,
  ) {
    this.names = new Asked(standing)
    this.names.limit = LONGEST
    this.conventions = options.conventions
    this.style = readingStyle(this.bare, options.conventions, NOTHING_GUARDED)
    this.tools = {
      conventions: options.conventions,
      see: (node) => this.see(node),
      lookup: (name) => this.names.above(name)?.value ?? null,
      typeset: (node) => withoutSpans(termToLatex(node, this.style)),
      readBack: (text) => this.readBack(text),
      ways: options.ways ?? new Map<number, string>(),
    }
  }

  private see(node: Node): Seen {
    const recorder = new Recorder()
    const { value, bare: terms } = evaluateTerm(node, this.names, recorder)
    for (const term of terms) this.bare.add(term)
    const inner = unbracketed(node)
    return recorder.whole ?? { node: inner, value, each: false, inner: [] }
  }

  private readBack(text: string): Value | null {
    const { letter, angle } = this.conventions
    const evaluated = evaluateLine(parseLine(text), { ...NOWHERE, letter, angleUnit: angle })
    return evaluated.value
  }

  line(
    statement: Statement,
    body: Node,
    right: Node | null,
    evaluated: Evaluated,
    formOf: (name: string) => Form,
  ): Working {
    // prettier-ignore
    const seen = this.see(body)
    const swept = sweepIn(seen.value.kind === 'failure' ? null : seen.value)
    const isRange = unbracketed(body).type === 'range'
    const point = swept && !isRange ? Math.min(Math.max(this.options.point ?? 0, 0), swept.count - 1) : null
    const figures = new PutIn(formOf, point).term(seen, point !== null)
    const work = new Work(this.tools, chapters)
    if (!sameTerm(body, figures)) this.putIn(work, body, figures, point)
    const start = this.see(figures)
    const left = work.term(start, (node) => node)
    const result = left && right ? this.checked(work, left, right, evaluated, formOf, point) : left
    if (result && statement.type !== 'check') this.finish(work, start, result, evaluated, statement)
    if (result && evaluated.value === null && statement.type !== 'check') this.ended(work, result)
    this.sayWhy(work, evaluated)
    if (work.cut) this.leftOut(work, result)
    return {
      letters: body,
      figures,
      result: result && this.asAsked(result, evaluated, point),
      steps: work.steps,
      choices: work.choices,
      bare: this.bare,
      guarded: work.guarded,
      cut: work.cut,
      point,
    }
  }

  /** Equations as the term that solves them. */
  solving({ names, term, rule, point, stands }: SolvingTerm, answers: readonly Value[] | null): Working {
    const work = new Work(this.tools, chapters)
    const shown = { kind: 'equation', node: stands } as const
    work.push({
      ...plainStep(rule, names, term, termShowsWhole(term, this.conventions) ? '⇔' : '≈'),
      made: shown,
      then: shown,
    })
    work.operations += 1
    const found = work.term(this.see(term), (node) => node)
    const end = found && answers ? this.readOff(work, found, answers) : found
    return { letters: names, figures: term, result: end, steps: work.steps, choices: work.choices, bare: this.bare, guarded: work.guarded, cut: work.cut, point } // prettier-ignore
  }

  /** The answers as their line has them, each with its unit. */
  private readOff(work: Work, found: Done, answers: readonly Value[]): Done {
    const node = column(answers.map((answer) => valued(answer)))
    work.push(plainStep('answers-read-off', found.node, node, termShowsWhole(node, this.conventions) ? '=' : '≈'))
    const { value } = this.see(node)
    return { node, value: value.kind === 'failure' ? found.value : value, form: found.form }
  }

  private putIn(work: Work, body: Node, figures: Node, point: number | null): void {
    work.push(plainStep(point === null ? 'put-in' : 'put-in-point', body, figures, termShowsWhole(figures, this.conventions) ? '=' : '≈')) // prettier-ignore
    work.operations += 1
  }

  /** The other side of a check, and the comparison. */
  private checked(
    work: Work,
    left: Done,
    right: Node,
    evaluated: Evaluated,
    formOf: (name: string) => Form,
    point: number | null,
  ): Done | null {
    const seen = this.see(right)
    const figures = new PutIn(formOf, point).term(seen, point !== null)
    const other = work.term(this.see(figures), (node) => node)
    const { value } = evaluated
    if (!other || value?.kind !== 'check') return null
    const agree = `${value.figures} significant ${value.figures === 1 ? 'figure agrees' : 'figures agree'}.`
    const node = valued(value)
    work.push({ ...plainStep('compared-figures', left.node, node, '='), says: value.figures > 0 && value.figures < 16 ? agree : null }) // prettier-ignore
    return { node, value, form: 'plain' }
  }

  /** What is to be said of the value as it stands: as a decimal, in the other form, in the unit asked for. */
  private finish(work: Work, start: Seen, result: Done, evaluated: Evaluated, statement: Statement): void {
    const inner = bare(result.value)
    const asked = statement.type === 'expression' || statement.type === 'define' ? statement.shown : null
    if (asked && evaluated.value && result.value.kind === 'quantity') {
      const made = valued(evaluated.value)
      work.push(plainStep('unit-conversion', result.node, made, termShowsWhole(made, this.conventions) ? '=' : '≈'))
    }
    if (inner.kind === 'number' && C.isFinite(inner)) {
      const decimal = valued(result.value, 'plain')
      const fraction = result.form === 'fraction' && this.conventions.exact === 'decimal' && work.steps.length > 0
      const differs = inner.pi !== null || (inner.exact !== null && inner.bottom !== 1 && inner.im === 0)
      const decimally = fraction && differs
      if (decimally) work.push(plainStep(inner.pi ? 'multiple-of-pi' : 'as-decimal', result.node, decimal, termShowsWhole(decimal, this.conventions) ? '=' : '≈')) // prettier-ignore
      const now = decimally ? { ...result, node: decimal, form: 'plain' as const } : result
      if (isComplex(inner) && (inner.re !== 0 || inner.im !== 0)) {
        const end = new Progress(work, { ...start, node: start.node, value: result.value }, [now], now.node, (node) => node)
        end.untrapped = true
        otherForm(end, inner)
      }
    }
  } // prettier-ignore

  /** The line has an error beyond its term: its value is not in the unit that is asked for, or at an edge. */
  private ended(work: Work, { node }: Done): void {
    work.push(plainStep('stops-here', node, node, '='))
  }

  /** Where it ended, the line's own message says why. */
  private sayWhy(work: Work, { problem }: Evaluated): void {
    const last = work.steps.at(-1)
    if (problem && last?.rule === 'stops-here') work.steps.splice(-1, 1, { ...last, says: sentence(problem) })
  }

  private leftOut(work: Work, result: Done | null): void {
    const last = work.steps.at(-1)
    if (!last || !result) return
    work.steps.splice(-1, 1, { ...last, rule: 'left-out', says: null, relation: '≈', made: { kind: 'term', node: result.node }, then: { kind: 'term', node: result.node }, entries: [], trap: null }) // prettier-ignore
  }

  /** The value of the line itself: in the unit that it asks for, exact where the line is. */
  private asAsked(result: Done, evaluated: Evaluated, point: number | null): Done {
    const { value } = evaluated
    const own = value && (point === null ? value : (pointIn(value, point) ?? value))
    const form = result.form === 'fraction' && this.conventions.exact === 'decimal' ? 'plain' : result.form
    return own ? { node: valued(own, form), value: own, form } : result
  }
}

/** Longest time for a term of a working, in milliseconds. */
const LONGEST = 2_000

const NOTHING_GUARDED: ReadonlySet<Node> = new Set()

/** A place without a folio: for figures that are read back. */
const NOWHERE = {
  above: () => null,
  below: () => null,
  anywhere: () => false,
  builtIn: () => null,
  inverseOf: () => null,
  near: () => [],
  timeLimit: undefined,
  conventions: DEFAULT_CONVENTIONS,
} as const

function plainStep(rule: Step['rule'], before: Node, made: Node, relation: Step['relation']): Omit<Step, 'operation'> {
  const then = { kind: 'term', node: made } as const
  return { rule, says: null, relation, depth: 'hand', before, dealt: before, made: then, then, entries: [], trap: null }
}

/** Puts values in the places of names: of sweeps those at one point, where what comes of them is a sweep, too. */
class PutIn {
  constructor(
    private readonly formOf: (name: string) => Form,
    private readonly point: number | null,
  ) {}

  /** `along`: everything round the term goes point by point. */
  term(seen: Seen, along: boolean): Node {
    const { node, value } = seen
    if (value.kind === 'failure' && node.type === 'name') return node
    const point = along && this.point !== null && value.kind !== 'failure' ? pointIn(value, this.point) : null
    if (node.type === 'name') return this.name(node.name, node, value, point)
    // Where a sweep begins: a range, a column of measured data.
    if (point && !seen.inner.some((inner) => hasSweep(inner.value))) return valued(point)
    const whole = node.type === 'apply' && node.builtIn && findFunction(node.name)?.sweeps === true
    if (whole && point) return valued(point)
    const inner = along && (point !== null || this.point === null || !hasSweep(value))
    if (node.type === 'series') {
      const names = this.namesIn(seen, along, new Map())
      names.delete(node.counter.name)
      return names.size === 0 ? node : withNames(node, names)
    }
    return withChildren(node, childrenOf(node).map((child, k) => (isUnknownName(node, k) ? child : this.below(seen, child, inner)))) // prettier-ignore
  }

  private below(seen: Seen, child: Node, along: boolean): Node {
    const inner = unbracketed(child)
    if (inner.type === 'literal' || inner.type === 'constant') return child
    const found = seenOf(seen, child)
    // A side that was not taken has not been seen: it stays as it is.
    if (found.value.kind === 'failure' && found.inner.length === 0 && inner.type !== 'name') return child
    const made = this.term(found, along)
    return child.type === 'group' ? regrouped(child, made) : made
  }

  /** The names that were looked up anywhere in a term, its counters aside, each with its value. */
  private namesIn(seen: Seen, along: boolean, found: Map<string, Node>): Map<string, Node> {
    const { node, value } = seen
    const point = along && this.point !== null && value.kind !== 'failure' ? pointIn(value, this.point) : null
    if (node.type === 'name' && !found.has(node.name)) {
      const made = this.name(node.name, node, value, point)
      if (made !== node) found.set(node.name, made)
    }
    for (const inner of seen.inner) this.namesIn(inner, along, found)
    return found
  }

  private name(name: string, node: Node, value: Value | Failure, point: Value | null): Node {
    if (value.kind === 'failure' || value.kind === 'function' || isUnknown(bare(value), name)) return node
    return valued(point ?? value, this.formOf(name))
  }
}

const hasSweep = (value: Value | Failure): boolean => value.kind !== 'failure' && sweepIn(value) !== null
const isUnknownName = (node: Node, k: number): boolean => node.type === 'where' && k % 2 === 1

/** The same brackets round another term; a value needs none. */
function regrouped(group: Node, inner: Node): Node {
  return inner.type === 'valued' ? inner : withChildren(group, [group.type === 'group' && group.inner.type === 'group' ? regrouped(group.inner, inner) : inner]) // prettier-ignore
}

function sameTerm(a: Node, b: Node): boolean {
  return unbracketed(a) === unbracketed(b)
}
