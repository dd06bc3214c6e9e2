import * as fc from 'fast-check'
import { Asked } from '../evaluate/asked'
import { FolioEvaluator } from '../evaluate/folio'
import { evaluateLine, evaluateTerm } from '../evaluate/line'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import type { Conventions } from '../format/conventions'
import { copyText } from '../kinds/kinds'
import { withoutSpans } from '../notation/latex'
import { parseLine } from '../notation/parser'
import { withChildren } from '../notation/rebuilt'
import { childrenOf } from '../notation/references'
import type { Node } from '../notation/tree'
import * as C from '../numbers/complex'
import type { Failure } from '../values/failure'
import { itemsOf } from '../values/matrices'
import { bare } from '../values/quantity'
import { pointAt } from '../values/sweeps'
import type { NumberValue, Value } from '../values/types'
import { ABOVE, line } from './randomLines.testing'
import { ALL_RULES, ruleWords } from './rules'
import { conventionsFor } from './shown'
import type { Rows, RowChange, Step } from './step'
import { valued } from './terms'
import { workingView } from './view'
import { workingOf } from './working'
import type { Working } from './working'
import { FUNCTIONS } from '../functions/registry'
import type { Example } from '../signatures/definition'
import { TOPICS, TOUR } from '../handbook/topics'

/** What a working says of each of its steps, tried: by the evaluator, and by the figures that are shown. */

function demand(holds: boolean, what: string): void {
  if (!holds) throw new Error(what)
}

/** A folio with one line below what is above, which can be changed. */
class Bench {
  readonly evaluator = new FolioEvaluator()
  constructor(
    readonly conventions: Conventions = DEFAULT_CONVENTIONS,
    private readonly above: readonly string[] = ABOVE,
  ) {
    this.evaluator.setSettings({ ...conventions, timeLimit: 2000 })
  }

  /** The last line's value, and its working. */
  work(
    text: string,
    options: { point?: number } = {},
  ): { readonly value: Value | null; readonly working: Working | null } {
    // prettier-ignore
    this.evaluator.setLines([...this.above, text].map((source, k) => ({ id: k < this.above.length ? String(k) : `last ${text}`, source }))) // prettier-ignore
    this.evaluator.update()
    const id = `last ${text}`
    const found = workingOf(this.evaluator, id, { conventions: this.conventions, ...options })
    return { value: this.evaluator.result(id)?.evaluated.value ?? null, working: typeof found === 'string' ? null : found } // prettier-ignore
  }

  /** What a term comes to in the place of the line, by the evaluator itself. */
  evaluate(text: string, node: Node): Value | Failure {
    const found = this.evaluator.inPlaceOf(`last ${text}`, (standing) => evaluateTerm(node, new Asked(standing), null))
    if (!found) throw new Error('the line is there')
    return found.value
  }

  /** Figures on show, read back as a student reads them. */
  read(text: string): Value | null {
    const { letter, angle } = this.conventions
    const nothing = { above: () => null, below: () => null, anywhere: () => false, builtIn: () => null, inverseOf: () => null, near: () => [], timeLimit: undefined } // prettier-ignore
    return evaluateLine(parseLine(text), { ...nothing, letter, angleUnit: angle }).value
  }

  /** The same term with the figures that are shown in the place of what they stand for. */
  asShown(node: Node): Node {
    if (node.type !== 'valued')
      return withChildren(
        node,
        childrenOf(node).map((child) => this.asShown(child)),
      )
    const { value, form } = node
    const form_ = form === 'polar' ? 'polar' : 'shown'
    const text = copyText(value, form_, conventionsFor(form, this.conventions)) ?? copyText(value, 'shown', this.conventions) // prettier-ignore
    const back = text === null || value.kind === 'text' ? null : this.read(text)
    return back ? valued(back, form) : node
  }
}

/** The numbers of a value; `null` of what has others. */
function numbers(value: Value | Failure): readonly C.Complex[] | null {
  if (value.kind === 'failure') return null
  const inner = bare(value)
  if (inner.kind === 'number') return [inner]
  if (inner.kind === 'angle') return [{ re: inner.radians, im: 0 }]
  if (inner.kind === 'matrix') return itemsOf(inner)
  if (inner.kind === 'vector') return inner.items.flatMap((item) => numbers(item) ?? [])
  if (inner.kind === 'polynomial')
    return [...inner.top.terms, ...(inner.bottom?.terms ?? [])].map((term) => term.factor)
  return null
}

/** The largest figure that stands in a term: what rounding is measured by. */
function largestIn(node: Node): number {
  const own = node.type === 'valued' || node.type === 'literal' ? (numbers(node.value) ?? []) : []
  const size = Math.max(0, ...own.map((z) => C.abs(z)).filter((x) => Number.isFinite(x)))
  return Math.max(size, ...childrenOf(node).map(largestIn))
}

function expectSame(found: Value | Failure, value: Value, scale: number, tolerance: number, what: string): void {
  const [a, b] = [numbers(found), numbers(value)]
  if (!a || !b) {
    const kind = found.kind === 'failure' ? `failure ${found.code}` : bare(found).kind
    if (kind !== bare(value).kind) throw new Error(`${what}: ${kind} instead of ${bare(value).kind}`)
    return
  }
  if (a.length !== b.length) throw new Error(`${what}: ${a.length} entries instead of ${b.length}`)
  const most = Math.max(scale, ...b.map((z) => C.abs(z)).filter((x) => Number.isFinite(x)))
  b.forEach((z, k) => {
    const w = a[k] ?? { re: NaN, im: NaN }
    const off = C.isFinite(z) ? C.abs({ re: z.re - w.re, im: z.im - w.im }) : Object.is(z.re, w.re) ? 0 : Infinity
    if (!(off <= tolerance * most)) throw new Error(`${what}: entry ${k} is off by ${off}, at most ${tolerance * most}`)
  })
}

const near = (a: C.Complex, b: C.Complex, scale: number): boolean => C.abs({ re: a.re - b.re, im: a.im - b.im }) <= 1e-9 * scale // prettier-ignore

/** Rows after an operation, by its definition. */
function applied(rows: Rows['rows'], change: RowChange): C.Complex[][] {
  const now = rows.map((row) => row.map(({ re, im }) => ({ re, im })))
  const at = (r: number): C.Complex[] => now[r] ?? []
  if (change.type === 'swap') [now[change.a], now[change.b]] = [at(change.b), at(change.a)]
  if (change.type === 'scale') now[change.row] = at(change.row).map((z) => C.multiply(z, change.factor))
  if (change.type === 'add') now[change.row] = at(change.row).map((z, k) => C.add(z, C.multiply(change.factor, at(change.from)[k] ?? z))) // prettier-ignore
  return now
}

function expectRowEquivalent(before: Rows | null, after: Rows): void {
  if (!after.operation) return
  if (!before) throw new Error('rows stand before an operation')
  const scale = Math.max(1, ...before.rows.flat().map((z) => C.abs(z)))
  applied(before.rows, after.operation).forEach((row, r) =>
    row.forEach((z, c) => {
      const w: NumberValue | undefined = after.rows[r]?.[c]
      const taken = w?.re === 0 && w.im === 0 && C.abs(z) <= 1e-7 * scale
      const grown = Math.max(scale, C.abs(z))
      if (!w || !(taken || near(z, w, grown))) throw new Error(`row ${r + 1}, column ${c + 1} does not follow`)
    }),
  )
}

/** The rules by which a working ends with the roots of its equations. */
const ROOTS: ReadonlySet<string> = new Set(['read-off', 'eigenvalues-are-roots'])

/** Each step is what it says it is. */
function expectTrue(bench: Bench, text: string, value: Value | null, working: Working): void {
  const { steps, point } = working
  const own = value && point !== null && bare(value).kind === 'sweep' ? pointOf(value, point) : value
  const isCheck = own?.kind === 'check'
  let rows: Rows | null = null
  for (const [k, step] of steps.entries()) {
    const words = ruleWords(step.rule)
    const what = `${text}, step ${k + 1} (${step.rule})`
    demand(ALL_RULES.includes(step.rule) && words.text.length > 3 && !/evaluat/i.test(words.text), `${what} has a rule`)
    const { then, made } = step
    if (then.kind === 'rows') {
      demand(step.relation === '~', `${what} is row-equivalent`)
      expectRowEquivalent(rows, then)
      rows = then
    } else if (then.kind === 'equation')
      expectEquation(bench, text, step, ROOTS.has(steps.at(-1)?.rule ?? '') ? own : null)
    else if (own && !isCheck) {
      const found = bench.evaluate(text, then.node)
      expectSame(found, own, largestIn(then.node), 1e-9, what)
      if (step.relation === '=') {
        const shown = bench.evaluate(text, bench.asShown(made.kind === 'term' ? made.node : then.node))
        const meant = bench.evaluate(text, made.kind === 'term' ? made.node : then.node)
        if (meant.kind !== 'failure') expectSame(shown, meant, largestIn(then.node), 1e-12, `${what}, as shown`)
      }
    }
  }
  if (!own) return
  if (!working.result) throw new Error(`${text} has a value, and its working has none`)
  if (!isCheck) expectSame(working.result.value, own, 0, 1e-12, `${text}, result`)
  const last = steps.at(-1)?.then
  if (last?.kind === 'term' && !isCheck) expectSame(bench.evaluate(text, last.node), own, largestIn(last.node), 1e-9, `${text}, last`) // prettier-ignore
}

function pointOf(value: Value, point: number): Value {
  const inner = bare(value)
  return inner.kind === 'sweep' ? pointAt(inner, point) : value
}

/** An equation of polynomials holds at the roots that come of it; one that names a figure holds as it stands. */
function expectEquation(bench: Bench, text: string, step: Step, value: Value | null): void {
  const { then } = step
  if (then.kind !== 'equation' || then.node.type !== 'compare') throw new Error('an equation has two sides')
  demand(step.relation === '=' || step.relation === '⇔', `${text}: an equation is equal or equivalent`)
  const left = bench.evaluate(text, then.node.first)
  const right = bench.evaluate(text, then.node.rest[0]?.node ?? then.node)
  if (step.relation !== '⇔' || left.kind !== 'polynomial' || right.kind !== 'number' || value?.kind !== 'vector') return
  if (left.top.unknowns.length !== 1) return
  for (const root of value.items) {
    if (root.kind !== 'number') continue
    const terms = left.top.terms.map(({ powers, factor }) => C.multiply(factor, C.power(root, { re: powers[0] ?? 0, im: 0 }))) // prettier-ignore
    const total = terms.reduce((a, b) => C.add(a, b), { re: 0, im: 0 })
    const scale = Math.max(1, ...terms.map((z) => C.abs(z)))
    if (!near(total, right, 1e3 * scale)) throw new Error(`${text}: ${root.re} + ${root.im}j is no root`)
  }
}

/** The steps follow one another: each begins where the last one of the line ended. */
function expectJoined(working: Working, conventions: Conventions): void {
  const { steps } = workingView(working, conventions)
  let stands: string | null = null
  const isCheck = working.result?.value.kind === 'check'
  const plain = (latex: string): string => withoutSpans(latex).replace(/\\htmlClass\{dealt\}/g, '').replace(/dfrac/g, 'frac').replace(/\\htmlClass\{read-unit\}|\^\{\\circ\}/g, '').replace(/\\mathbin\{\\htmlClass\{angle-sign\}\{\\angle\}\}/g, '\\angle').replace(/\\cdot|\s/g, '').replace(/(?<![\d.])1\\mathrm\{([ij])\}/g, '\\mathrm{$1}').replace(/\\left|\\right|\s|\\cdot|\\,|[{}()]/g, '') // prettier-ignore
  for (const [k, step] of steps.entries()) {
    if (working.steps[k]?.then.kind !== 'term') continue
    demand(step.before !== '' && step.then !== '', `step ${k + 1} stands`)
    // What is worked out twice, as the sides of a check, begins anew.
    const follows = stands === null || plain(step.before) === stands
    demand(follows || isCheck, `step ${k + 1} begins with ${plain(step.before)}, not with ${stands ?? ''}`)
    stands = plain(step.then)
  }
}

/** The steps solve the equations, as the term in which they stand; the last one has the answers of the line. */
function expectSolved(bench: Bench, entry: string, value: Value, working: Working): void {
  const figures = bench.evaluate(entry, working.figures)
  if (figures.kind === 'failure') throw new Error(`${entry} has figures`)
  const read = working.steps.findIndex((step) => step.rule === 'answers-read-off')
  expectTrue(bench, entry, figures, {
    ...working,
    steps: working.steps.slice(1, read < 0 ? undefined : read),
    result: working.result && read >= 0 ? { ...working.result, value: figures } : working.result,
  })
  expectJoined(working, DEFAULT_CONVENTIONS)
  const last = working.steps.at(-1)!.then
  if (last.kind !== 'term') throw new Error('it ends with a term')
  const answers = value.kind === 'parts' ? [...value.parts.values()] : []
  if (read >= 0)
    expect(childrenOf(last.node).map((node) => (node.type === 'valued' ? node.value : null))).toEqual(answers)
}

/** Every example of the handbook has a working, and each of its steps holds. */
const EXAMPLES: readonly (readonly [string, Example])[] = [
  ...FUNCTIONS.flatMap((f) => f.examples),
  ...TOPICS.flatMap((t) => t.examples),
  ...TOUR.flatMap((step) => step.lines.slice(0, 1)),
].map((example) => [[...(example.before ?? []), example.entry].join('; '), example] as const)

test.each(EXAMPLES)('%s', (_, { before = [], entry, enclosed }) => {
  const bench = new Bench(DEFAULT_CONVENTIONS, before)
  if (enclosed) bench.evaluator.enclosures.put(enclosed.name, enclosed.name, enclosed.data)
  const { value, working } = bench.work(entry)
  if (value === null || value.kind === 'function') {
    expect(working?.result ?? null).toBeNull()
    return
  }
  const solved = value.kind === 'parts' ? value.solved : undefined
  if (solved && !working) {
    // What was searched, and what is solved as a whole, is not written out.
    expect([solved.system, solved.roots]).toEqual([null, null])
    return
  }
  if (!working) throw new Error('a line with a value has a working')
  if (solved) return expectSolved(bench, entry, value, working)
  expectTrue(bench, entry, value, working)
  expectJoined(working, DEFAULT_CONVENTIONS)
})

const RUNS = Number(process.env.WORKING_RUNS ?? 20_000)

test(`${RUNS} random lines: every step holds as it says, and the last one has the line's value`, () => {
  const bench = new Bench()
  let [drawn, worked] = [0, 0]
  fc.assert(
    fc.property(line, (text) => {
      drawn += 1
      const { value, working } = bench.work(text)
      if (!working) return
      worked += 1
      expectTrue(bench, text, value, working)
      expectJoined(working, DEFAULT_CONVENTIONS)
    }),
    { numRuns: RUNS },
  )
  expect(worked).toBeGreaterThan(0.8 * drawn)
}, 240_000)
