import { DEFAULT_CONVENTIONS } from '../format/conventions'
import type { Conventions } from '../format/conventions'
import { bindStatement } from '../notation/bind'
import { usedNames } from '../notation/names'
import type { Bound, Names, Used } from '../notation/names'
import type { Parsed } from '../notation/parser'
import * as N from '../notation/nodes'
import type { OpenName } from '../notation/names'
import { problem, problemAt, write } from '../notation/problem'
import type { Problem } from '../notation/problem'
import type { Node, Span, Statement } from '../notation/tree'
import * as C from '../numbers/complex'
import { onTheClock } from '../numbers/work'
import type { Clock } from '../numbers/work'
import { failure, failureAt } from '../values/failure'
import { dataOf } from '../values/problemData'
import type { Code, Told } from '../values/problemData'
import type { Failure } from '../values/failure'
import { holdsTooLarge } from '../values/beyond'
import type { FunctionValue, NumberValue, Value } from '../values/types'
import { determine } from '../equations/determine'
import { alwaysOrNever, equationForm } from '../equations/form'
import type { Equation, EquationGroup } from '../equations/group'
import { check } from './check'
import { namesIn } from '../equations/names'
import { closedTerm } from './closed'
import type { Closing } from './closed'
import type { Tolerance } from './check'
import { beforeDeadline, Context, DEPTH_LIMIT, STEP_LIMIT, TIME_LIMIT } from '../operators/context'
import type { Budget, Notes, Scope, Watch } from '../operators/context'
import { arrayFixes } from './arrayFixes'
import { evaluate } from './evaluate'
import { Body } from './functionBody'
import { hintFixes, unitFixes } from './unitFixes'
import { suspiciousArgument } from './suspicions'
import type { AngleUnit } from '../values/convert'
import { realNumber, valueText } from '../kinds/kinds'
import { inAskedUnit } from '../quantities/asked'
import { asKept } from '../quantities/through'
import { bare, quantity } from '../values/quantity'

/** What the evaluation of one line came to. */
export interface Evaluated {
  readonly bound: Bound
  /** Set where the value comes only once the equations of its group are solved. */
  readonly open: OpenLine | null
  readonly value: Value | null
  readonly problem: Problem | null
  readonly hints: readonly Problem[]
  /** Terms that were read in the unit of the conventions. */
  readonly bare: ReadonlySet<Node>
  /** True where the outcome depends on the unit of the conventions. */
  readonly angleUnitUsed: boolean
}

class Outcome implements Evaluated {
  constructor(
    readonly bound: Bound,
    readonly value: Value | null,
    readonly problem: Problem | null,
    readonly hints: readonly Problem[],
    readonly bare: ReadonlySet<Node>,
    readonly angleUnitUsed: boolean,
    readonly open: OpenLine | null = null,
  ) {}
}

/** What a line of a group is to the group: an equation, or what stands under the name that it keeps. */
export type OpenLine =
  | { readonly kind: 'equation'; readonly equation: Omit<Equation, 'line'> }
  | { readonly kind: 'name'; readonly open: OpenName }

/** What a line sees of the lines above it. */
export interface Surroundings extends Names {
  readonly angleUnit: AngleUnit
  /** Longest time for the line, in milliseconds. */
  readonly timeLimit: number | undefined
  /** Told now and then how far a long calculation has come. */
  readonly report?: Budget['report']
  /** How a value is written into a text. */
  readonly conventions?: Conventions
  /** The line that keeps a name, counted from 1. */
  lineOf?(name: string): number | null
  /** Measured data that is kept with the folio. */
  enclosure?(name: string): Value | Failure
  /** The equations that stand above, since `sought`. */
  group?(): EquationGroup | null
}

/** Binds and evaluates one parsed line. */
export function evaluateLine(parsed: Parsed, names: Surroundings): Evaluated {
  const bound = bindStatement(parsed.source, parsed.statement, names)
  const run = new Run(names, bound.used, parsed.source)
  const unread = parsed.problem ?? bound.problem
  if (unread !== null) return failed(bound, unread, run)
  const opens = parsed.statement.type === 'determine' ? null : openNames(bound)
  if (opens !== null || parsed.statement.type === 'equation')
    return openOutcome(parsed, bound, opens ?? NOTHING_OPEN, run)
  const worked = onTheClock(run, () => statementValue(parsed.statement, bound, run, parsed.source))
  const value = worked === 'late' ? failure('too-long') : shownAsAsked(worked, parsed.statement, run)
  if (value !== null && value.kind !== 'number') return otherOutcome(value, parsed, bound, run)
  const edge = value === null || C.isFinite(value) ? null : atTheEdge(value, bound, parsed)
  if (edge?.code === 'too-large') return failed(bound, edge, run)
  const hints = allHints(bound, run.hints, edge)
  return new Outcome(bound, value, null, hints, run.bareTerms, run.angleUnitUsed)
}

/** The value of a term that stands in the place of a line, and which terms were read in the unit of the conventions. */
export function evaluateTerm(
  node: Node,
  names: Surroundings,
  watch: Watch | null,
): { readonly value: Value | Failure; readonly bare: ReadonlySet<Node> } {
  const run = new Run(names, null, '')
  const worked = onTheClock(run, () => evaluate(node, Context.ofLine(run, run, run, watch)))
  return { value: worked === 'late' ? failure('too-long') : worked, bare: run.bareTerms }
}

/** A value in the unit that the end of its line asks for. */
function shownAsAsked(value: Value | Failure | null, statement: Statement, run: Run): Value | Failure | null {
  if (value === null || value.kind === 'failure') return value
  const asked = statement.type === 'expression' || statement.type === 'define' ? statement.shown : null
  if (asked === null) return asKept(value)
  // Asked for in var or VA, that is what it was meant to be.
  if (asked.unit.measure.power === 'var' || asked.unit.measure.power === 'VA') run.untold('watts-and-vars', null)
  const found = inAskedUnit(value, asked.unit)
  return found.kind === 'failure' ? failureAt(asked, found) : asKept(found)
}

function failed(bound: Bound, why: Problem, run: Run): Evaluated {
  return new Outcome(bound, null, why, NO_PROBLEMS, run.bareTerms, run.angleUnitUsed)
}

/** Anything but a number. */
function otherOutcome(outcome: Value | Failure, parsed: Parsed, bound: Bound, run: Run): Evaluated {
  if (outcome.kind === 'failure') return failed(bound, failureToProblem(outcome, parsed.source), run)
  if (holdsTooLarge(outcome)) return failed(bound, problem('too-large', wholeOf(bound, parsed)), run)
  const value = named(outcome, parsed.statement)
  return new Outcome(bound, value, null, allHints(bound, run.hints, null), run.bareTerms, run.angleUnitUsed)
}

/** What is to be said of a number that is not finite: nothing of ∞ itself. */
function atTheEdge(value: NumberValue, bound: Bound, parsed: Parsed): Problem | null {
  if (value.exact !== null) return problem('too-large', wholeOf(bound, parsed))
  const undefinedResult = Number.isNaN(value.re) || Number.isNaN(value.im)
  return undefinedResult ? problem('undefined-result', wholeOf(bound, parsed)) : null
}

function wholeOf({ body }: Bound, { source }: Parsed): Span {
  return { from: body?.from ?? 0, to: body?.to ?? source.length }
}

/** A range that is kept gives its name to its axis. */
function named(value: Value, statement: Statement): Value {
  if (value.kind === 'quantity') {
    const inner = named(value.value, statement)
    return inner === value.value || inner.kind === 'quantity' ? value : quantity(inner, value.measure, value)
  }
  if (value.kind !== 'sweep' || statement.type !== 'define' || value.axis.name !== null) return value
  if (value.re !== value.axis.values) return value
  return { ...value, axis: { ...value.axis, name: statement.name.name } }
}

function failureToProblem(f: Failure, source: string): Problem {
  const span = { from: f.from ?? 0, to: f.to ?? source.length }
  const text = source.slice(span.from, span.to)
  const declared = dataOf(f, 'unit-unknown')
  // The declaration stands in a line above, so that the whole line is in the place of itself.
  if (declared) return { ...problemAt({ from: 0, to: source.length }, f, [write(`unknown ${declared.name} in ${declared.unit}\n${source}`)]), at: span } // prettier-ignore
  return problemAt(span, f, arrayFixes(f, text) ?? unitFixes(f, text) ?? readyFixes(f.code, text))
}

/** Corrections that follow from the text of the term at fault. */
function readyFixes(code: Code, text: string): { label: string; replacement: string }[] {
  if (code === 'log-base') return logFixes(text)
  if (code !== 'transpose-number') return []
  const at = text.lastIndexOf('^')
  const [base, letter] = [text.slice(0, at), text.slice(at + 1).trim()]
  return [`${base}^(${letter})`, base].map((replacement) => ({ label: replacement, replacement }))
}

function logFixes(call: string): { label: string; replacement: string }[] {
  const inner = call.slice(call.indexOf('('))
  return ['ln', 'lg'].map((name) => ({ label: `${name}${inner}`, replacement: `${name}${inner}` }))
}

const NO_PROBLEMS: readonly Problem[] = []

function allHints(bound: Bound, told: readonly Problem[], edge: Problem | null): readonly Problem[] {
  if (edge === null && told.length === 0) return bound.hints
  return [...bound.hints, ...told, ...(edge ? [edge] : [])]
}

/** A name that the line reads is kept by a line in error. */
function waiting(name: string, line: number, body: Node): Failure {
  return failureAt(body, failure('waits-for', { name, line }))
}

const NO_TERMS: ReadonlySet<Node> = new Set()

/** One evaluation of a line: what is left of its steps, what it reads, and what it was told on the way. */
class Run implements Budget, Clock, Notes, Scope {
  steps = STEP_LIMIT
  depth = DEPTH_LIMIT
  deadline = 0
  hints: readonly Problem[] = NO_PROBLEMS
  angleUnitUsed = false
  /** Made only when a term is read in the unit of the conventions. */
  private terms: Set<Node> | null = null

  constructor(
    private readonly names: Surroundings,
    private readonly used: Used | null,
    private readonly source: string,
  ) {}

  get timeLimit(): number {
    return this.names.timeLimit ?? TIME_LIMIT
  }

  get report(): Budget['report'] {
    return this.names.report
  }

  goesOn(): boolean {
    return beforeDeadline(this)
  }

  get bareTerms(): ReadonlySet<Node> {
    return this.terms ?? NO_TERMS
  }

  get angleUnit(): AngleUnit {
    this.angleUnitUsed = true
    return this.names.angleUnit
  }

  bare(node: Node, value: Value): void {
    this.angleUnitUsed = true
    this.terms ??= new Set()
    this.terms.add(node)
    const hint = suspiciousArgument(value, this.names.angleUnit)
    if (hint) this.told(hint, node)
  }

  told(hint: Told, node: Node): void {
    if (this.hints.some((h) => h.code === hint.code && h.from === node.from)) return
    this.hints = [...this.hints, problemAt(node, hint, hintFixes(hint, this.source.slice(node.from, node.to)))]
  }

  untold(code: Code, within: Node | null): void {
    const { from, to } = within ?? { from: 0, to: this.source.length }
    this.hints = this.hints.filter((h) => h.code !== code || h.from < from || h.to > to)
  }

  written(value: Value): string {
    return valueText(value, this.names.conventions ?? DEFAULT_CONVENTIONS)
  }

  lineOf(name: string): number | null {
    return this.names.lineOf?.(name) ?? null
  }

  enclosure(name: string): Value | Failure {
    return this.names.enclosure?.(name) ?? failure('no-enclosure', { name, known: '' })
  }

  group(): EquationGroup | null {
    return this.names.group?.() ?? null
  }

  lookup(name: string): Value | null {
    for (let { used } = this; used !== null; used = used.before) if (used.name === name) return used.kept?.value ?? null
    return this.names.above(name)?.value ?? null
  }
}

/** The names that a line reads whose values come only with `determine`; `null` where there are none. */
function openNames(bound: Bound): ReadonlyMap<string, OpenName> | null {
  let found: Map<string, OpenName> | null = null
  for (let { used } = bound; used !== null; used = used.before) {
    if (!used.kept?.open) continue
    found ??= new Map<string, OpenName>()
    found.set(used.name, used.kept.open)
  }
  return found
}

const NOTHING_OPEN: ReadonlyMap<string, OpenName> = new Map()

/** A line of a group: its terms are kept for `determine`, which needs nothing else of it. */
function openOutcome(parsed: Parsed, bound: Bound, opens: ReadonlyMap<string, OpenName>, run: Run): Evaluated {
  const never = [...opens].find(([, open]) => open.kind === 'never')
  if (never) return failed(bound, problem('not-determined', wholeOf(bound, parsed), { name: never[0] }), run)
  const worked = onTheClock(run, () => openLine(parsed, bound, opens, run))
  const found = worked === 'late' ? failure('too-long') : worked
  if (found.kind === 'failure') return failed(bound, failureToProblem(found, parsed.source), run)
  const hints = allHints(bound, run.hints, null)
  return new Outcome(bound, null, null, hints, run.bareTerms, run.angleUnitUsed, found)
}

function openLine(parsed: Parsed, bound: Bound, opens: ReadonlyMap<string, OpenName>, run: Run): OpenLine | Failure {
  const { statement, source } = parsed
  const { body, right } = bound
  for (let { used } = bound; used !== null; used = used.before)
    if (body && used.kept?.value === null && !used.kept.open) return waiting(used.name, used.kept.line + 1, body)
  const context = Context.ofLine(run, run, run)
  const closing: Closing = {
    open: (name) => opens.get(name) ?? null,
    value: (name) => run.lookup(name),
    evaluate: (node) => evaluate(node, context),
  }
  if (statement.type === 'equation')
    return body && right ? equationOf(bound, body, right, source, closing, context) : LATER
  if (statement.type !== 'define' && statement.type !== 'expression' && statement.type !== 'function') return LATER
  if (body === null) return LATER
  if (isQuestion(body)) context.hint('equation-asks', body, { text: source.slice(body.from, body.to) })
  const parameters = statement.type === 'function' ? statement.parameters.map((p) => p.name) : null
  const term = closedTerm(body, closing, parameters ?? [])
  if ('kind' in term) return term
  return { kind: 'name', open: parameters ? { kind: 'function', parameters, term } : { kind: 'term', term } }
}

const LATER: OpenLine = { kind: 'name', open: { kind: 'later' } }

/** `I1 == 3` among equations. */
const isQuestion = (node: Node): boolean =>
  node.type === 'compare' && node.rest.length === 1 && node.rest[0]?.sign === '=='

function equationOf(
  bound: Bound,
  body: Node,
  other: Node,
  source: string,
  closing: Closing,
  context: Context,
): OpenLine | Failure {
  const [left, right] = [closedTerm(body, closing), closedTerm(other, closing)]
  if ('kind' in left) return left
  if ('kind' in right) return right
  const form = equationForm(left, right, context, evaluate)
  if (form.kind === 'failure') return form
  const said = alwaysOrNever(form)
  if (said === 'never') return failureAt({ from: body.from, to: other.to }, failure('equation-false'))
  if (said === 'always') context.hint('equation-always', body)
  return {
    kind: 'equation',
    equation: {
      source,
      left,
      right,
      form,
      names: namesIn(left, right),
      uses: usedNames(bound).filter((name) => closing.open(name) === null),
    },
  }
}

/** The values that solve the equations above. */
function determined(
  statement: Extract<Statement, { type: 'determine' }>,
  bound: Bound,
  run: Run,
  source: string,
): Value | Failure {
  // prettier-ignore
  const group = run.group()
  const at = N.name('determine', 0, source.length)
  if (!group) return failureAt(at, failure('determine-without-sought'))
  for (let { used } = bound; used !== null; used = used.before)
    if (used.kept?.value === null) return waiting(used.name, used.kept.line + 1, at)
  const context = Context.ofLine(run, run, run)
  const terms = bound.body?.type === 'list' ? bound.body.entries : []
  const values: Value[] = []
  for (const term of terms) {
    const value = evaluate(term, context)
    if (value.kind === 'failure') return value
    values.push(value)
  }
  const near = new Map(statement.near.flatMap(({ name }, k) => pairOf(name.name, values[k])))
  const first = statement.near.length
  const between = new Map(
    statement.between.flatMap(({ name }, k): [string, readonly [Value, Value]][] => {
      const [low, high] = [values[first + 2 * k], values[first + 2 * k + 1]]
      return low && high ? [[name.name, [low, high]]] : []
    }),
  )
  const found = determine({ group, looked: { near, between }, context, evaluate, at })
  return found.kind === 'failure' ? failureAt(at, found) : found
}

const pairOf = (name: string, value: Value | undefined): [string, Value][] => (value ? [[name, value]] : [])

function statementValue(statement: Statement, bound: Bound, run: Run, source: string): Value | Failure | null {
  const { body, right } = bound
  if (statement.type === 'determine') return determined(statement, bound, run, source)
  if (statement.type === 'empty' || body === null) return null
  for (let { used } = bound; used !== null; used = used.before)
    if (used.kept?.value === null) return waiting(used.name, used.kept.line + 1, body)
  if (statement.type === 'function') return functionValue(statement, bound, body, run)
  const context = Context.ofLine(run, run, run)
  const value = evaluate(body, context)
  if (statement.type !== 'check' || right === null || value.kind === 'failure') return value
  return checkValue(statement, value, body, right, bound.within, context)
}

function checkValue(
  statement: Extract<Statement, { type: 'check' }>,
  left: Value,
  leftNode: Node,
  rightNode: Node,
  withinNode: Node | null,
  context: Context,
): Value | Failure {
  const right = evaluate(rightNode, context)
  if (right.kind === 'failure') return right
  const amount = statement.within && withinNode ? evaluate(withinNode, context) : null
  if (amount?.kind === 'failure') return amount
  const within = amount && withinNode ? tolerance(amount, withinNode, statement.within?.percent ?? false) : null
  if (within?.kind === 'failure') return within
  return check(left, right, { leftNode, rightNode, within, context })
}

/** What stands behind `within`: a real number or an angle, not negative. */
function tolerance(value: Value, node: Node, percent: boolean): Tolerance | Failure {
  const real = (realNumber(bare(value))?.re ?? -1) >= 0
  const turn = value.kind === 'angle' && value.radians >= 0 && !percent
  if (!real && !turn) return failureAt(node, failure('tolerance'))
  return { kind: 'tolerance', value, node, percent }
}

function functionValue(
  statement: Extract<Statement, { type: 'function' }>,
  bound: Bound,
  body: Node,
  scope: Scope,
): FunctionValue {
  const parameters = statement.parameters.map((p) => p.name)
  // Names in the body keep the values they have here, whatever is redefined below.
  const captured = new Map<string, Value>()
  for (const name of usedNames(bound)) {
    const value = scope.lookup(name)
    if (value) captured.set(name, value)
  }
  return { kind: 'function', name: statement.name.name, parameters, body: new Body(body, captured) }
}
