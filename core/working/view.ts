import type { Conventions } from '../format/conventions'
import { formatNumber } from '../format/number'
import { rowOperationWith } from '../format/rowOperation'
import { pmatrixOfRows, termToLatex } from '../notation/latex'
import type { ReadingStyle } from '../notation/latex'
import type { ExactMatrix } from '../linear/exact'
import type { Node } from '../notation/tree'
import type { NumberValue } from '../values/types'
import { ruleWords } from './rules'
import type { Rule } from './rules'
import { readingStyle, termShowsWhole, typesetValue } from './shown'
import type { Relation, Rows, Standing, Step } from './step'
import { valued } from './terms'
import type { NoWorking, Working } from './working'

/** A working as it is shown: plain data that crosses threads. */
export interface WorkingView {
  /** The line with its names, with its figures, and what it comes to. */
  readonly letters: string
  readonly figures: string
  readonly result: string
  readonly relation: Relation
  /** How the line with figures follows from the one with names. */
  readonly putIn: Relation
  /** The rules in the order in which they bind, as words. */
  readonly order: string
  readonly steps: readonly StepView[]
  readonly choices: readonly ChoiceView[]
  /** True where some figure is shown rounded. */
  readonly rounded: boolean
  readonly cut: boolean
  /** True where only the first steps are told: the others are asked for once these are in sight. */
  readonly more: boolean
  /** The point of a sweep that was worked, counted from 1. */
  readonly point: number | null
}

export interface ChoiceView {
  readonly operation: number
  readonly ways: readonly string[]
  readonly way: string
}

export interface StepView {
  readonly rule: Rule
  readonly text: string
  readonly formula: string | null
  readonly says: string | null
  readonly relation: Relation
  readonly depth: 'hand' | 'all'
  readonly operation: number
  /** LaTeX: the line as it stood, with the term that is dealt with, and the line then. */
  readonly before: string
  readonly then: string
  readonly entries: readonly EntryView[]
  /** A matrix that can be reduced by hand from here, and how many of its columns are right sides. */
  readonly bench: { readonly matrix: ExactMatrix; readonly right: number } | null
  /** What the figures shown would lead to, where that differs. */
  readonly trap: string | null
}

export interface EntryView {
  readonly row: number
  readonly col: number
  readonly latex: string
}

const SAID: { readonly [W in NoWorking]: string } = {
  function: 'A function is worked where it is called: open the working of a line that calls it.',
  unknown: 'From this line on a name is an unknown: there is nothing to work out.',
  remark: 'There is nothing to work out in this line.',
  sought: 'The names that are sought are worked out where they are found: open the working of determine.',
  equation: 'An equation is worked where it is solved: open the working of determine.',
  search:
    'These equations were solved by a search with Newton’s method, step by step from many starts: there is no working by hand. Every solution was put into both sides.',
  unread: 'The line cannot be read yet: its message says why.',
}

export const noWorkingSaid = (why: NoWorking): string => SAID[why]

/** A working in words and LaTeX. */
export function workingView(working: Working, conventions: Conventions, most = Infinity): WorkingView {
  const writer = new StepWriter(working, conventions)
  const { letters, figures, result, steps } = working
  const whole = result && termShowsWhole(result.node, conventions)
  return {
    letters: writer.term(letters),
    figures: writer.term(figures),
    result: result ? writer.term(result.node) : '',
    relation: whole ? '=' : '≈',
    putIn: termShowsWhole(figures, conventions) ? '=' : '≈',
    order: orderOf(steps),
    steps: steps.slice(0, most).map((step) => writer.step(step)),
    more: steps.length > most,
    choices: working.choices,
    rounded: steps.some((step) => step.relation === '≈'),
    cut: working.cut,
    point: working.point === null ? null : working.point + 1,
  }
}

/** The rules by which the operations are done, each once a run. */
function orderOf(steps: readonly Step[]): string {
  const last = new Map<number, Rule>()
  for (const step of steps) if (!last.has(step.operation)) last.set(step.operation, step.rule)
  const texts = [...last.values()].filter((r) => !['put-in', 'put-in-point', 'as-decimal', 'polar-form', 'rectangular-form'].includes(r)).map((r) => ruleWords(r).text.replace(/\.$/, '')) // prettier-ignore
  const once = texts.filter((text, k) => text !== texts[k - 1])
  return once.length === 0
    ? 'As it stands.'
    : `${once.slice(0, 8).join('; then: ')}${once.length > 8 ? '; and so on' : ''}.`
}

class StepWriter {
  private readonly style: ReadingStyle

  constructor(
    { bare, guarded }: Working,
    private readonly conventions: Conventions,
  ) {
    this.style = readingStyle(bare, conventions, guarded)
  }

  term(node: Node, dealt?: Node): string {
    return termToLatex(node, dealt ? { ...this.style, dealt } : this.style)
  }

  private standing(standing: Standing): string {
    if (standing.kind !== 'rows') return this.term(standing.node)
    return rowsLatex(standing.rows, standing.left, (z) => this.number(z))
  }

  private number(z: NumberValue): string {
    return typesetValue(valued(z, z.exact ? 'fraction' : 'plain'), this.conventions).latex
  }

  step(step: Step): StepView {
    const { text, formula } = ruleWords(step.rule)
    const change = step.made.kind === 'rows' && step.made.operation ? rowOperationWith(step.made.operation, (z) => formatNumber(z, { ...this.conventions, exact: 'fraction' })) : null // prettier-ignore
    const { rule, says, relation, depth, operation, before, dealt, made, then, entries, trap } = step
    return {
      rule,
      text,
      formula,
      says: [change, says].filter((s) => s !== null).join('. ') || null,
      relation,
      depth,
      operation,
      before: this.term(before, dealt === before ? undefined : dealt),
      then: this.standing(then),
      entries: entries.map(({ row, col, term, value }) => ({ row, col, latex: `${this.term(term)} = ${this.term(valued(value))}` })), // prettier-ignore
      bench: made.kind === 'rows' && made.operation === null ? benchOf(made) : null,
      trap: trap && this.term(trap),
    }
  }
}

/** Rows of exact numbers as a matrix for the bench. */
function benchOf({ rows, left }: Rows): StepView['bench'] {
  const entries = rows.flat().flatMap((z) => (z.exact ? [z.exact] : []))
  const cols = rows[0]?.length ?? 0
  return entries.length === rows.length * cols && cols > 0 ? { matrix: { rows: rows.length, cols, entries }, right: cols - left } : null // prettier-ignore
}

/** Rows with a rule before the last columns. */
export function rowsLatex(
  rows: readonly (readonly NumberValue[])[],
  left: number,
  number: (z: NumberValue) => string,
): string {
  // prettier-ignore
  const cols = rows[0]?.length ?? 0
  const lines = rows.map((row) => row.map(number).join(' & '))
  if (left >= cols) return pmatrixOfRows(lines)
  return `\\left(\\begin{array}{${'r'.repeat(left)}|${'r'.repeat(cols - left)}} ${lines.join(' \\\\ ')} \\end{array}\\right)`
}
