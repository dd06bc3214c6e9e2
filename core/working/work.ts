import { algebraAgrees, isAlgebraic } from '../algebra/ratio'
import { findFunction } from '../functions/registry'
import type { Conventions } from '../format/conventions'
import { isComplex } from '../format/number'
import { copyText } from '../kinds/kinds'
import * as N from '../notation/nodes'
import { childrenOf } from '../notation/references'
import { withChildren } from '../notation/rebuilt'
import type { Form, Node } from '../notation/tree'
import * as C from '../numbers/complex'
import { Measure } from '../units/measure'
import { coherentUnit } from '../units/named'
import { itemsOf } from '../values/matrices'
import { bare } from '../values/quantity'
import { argumentOf, vector } from '../values/make'
import * as A from '../values/arithmetic'
import type { Failure } from '../values/failure'
import type { NumberValue, Value } from '../values/types'
import type { Rule } from './rules'
import { seenOf, unbracketed } from './seen'
import type { Seen } from './seen'
import { conventionsFor, termShowsWhole } from './shown'
import type { Depth, EntryStep, Relation, Rows, RowChange, Standing, Step } from './step'
import { call, imaginary, inUnitOf, numberOr, sum, times, valued } from './terms'

/** Most steps of one working. */
export const STEPS_MOST = 600

/** A term that has been worked out: how it stands now, and its value. */
export interface Done {
  readonly node: Node
  readonly value: Value
  readonly form: Form
}

/** Puts what a term has become into the whole line. */
export type Wrap = (node: Node) => Node

/** What a student may choose for an operation, by its place in the working. */
export type Ways = ReadonlyMap<number, string>

/** An operation that can be worked in several ways. */
export interface Choice {
  readonly operation: number
  readonly ways: readonly string[]
  readonly way: string
}

/** What the chapters need of the evaluator and of the folio. */
export interface Tools {
  readonly conventions: Conventions
  /** Evaluates a term, and says what was seen. */
  readonly see: (node: Node) => Seen
  /** What a name stands for. */
  readonly lookup: (name: string) => Value | null
  /** A term as it is typeset. */
  readonly typeset: (node: Node) => string
  /** The text of a value as the student sees it, read back in; `null` where it cannot be. */
  readonly readBack: (text: string) => Value | null
  readonly ways: Ways
}

/** A chapter: works an operation out, or leaves it to another one. */
export type Chapter = (p: Progress) => Done | null

/** The steps of a working while they are found. */
export class Work {
  readonly steps: Step[] = []
  readonly choices: Choice[] = []
  /** Terms that are shown with one figure more, since what follows cancels. */
  readonly guarded = new Set<Node>()
  /** True where steps were left out. */
  cut = false
  operations = 0

  constructor(
    readonly tools: Tools,
    private readonly chapter: Chapter,
  ) {}

  /** Works a term out; `null` where it has no value. */
  term(seen: Seen, wrap: Wrap): Done | null {
    const { node, value } = seen
    const written = asWritten(seen)
    if (written) return written
    if (node.type === 'parallel' && node.left.type === 'parallel') return this.parallelRow(seen, wrap)
    if (node.type === 'list' && value.kind !== 'failure' && !node.entries.some((e) => e.type === 'series')) {
      const entries = this.operands(seen, wrap)
      // Entries stay as they are written, or as they have become.
      return entries && { node: withChildren(node, entries.map((e) => e.node)), value, form: commonForm(entries) } // prettier-ignore
    }
    const turned = eulerAngle(seen)
    if (turned) return this.chapter(new Progress(this, seen, turned, node, wrap))
    const ownOrder = OWN_ORDER.has(node.type) || isLazy(node) || node.type === 'list'
    const operands = ownOrder ? NO_OPERANDS : this.operands(seen, wrap)
    if (operands === null) return null
    const children = childrenOf(node)
    const now = operands === NO_OPERANDS ? node : withChildren(node, children.map((child, k) => operands[k]?.node ?? child)) // prettier-ignore
    const progress = new Progress(this, seen, operands, now, wrap)
    return this.chapter(progress)
  }

  /** A row of a matrix that is written entry by entry: it stays a row. */
  private row(seen: Seen, wrap: Wrap): Done | null {
    const entries = this.operands(seen, wrap)
    if (entries === null) return null
    return { node: withChildren(seen.node, entries.map((e) => e.node)), value: vector(entries.map((e) => e.value)), form: commonForm(entries) } // prettier-ignore
  }

  /** a ∥ b ∥ c: one operation on all of them. */
  private parallelRow(seen: Seen, wrap: Wrap): Done | null {
    const terms: Seen[] = []
    const gather = (at: Seen): void => {
      if (at.node.type !== 'parallel') return
      const left = seenOf(at, at.node.left)
      if (at.node.left.type === 'parallel') gather(left)
      else terms.push(left)
      terms.push(seenOf(at, at.node.right))
    }
    gather(seen)
    const row = (nodes: readonly Node[]): Node => nodes.reduce((left, right) => N.parallel(left, right, 0, 0))
    const now = terms.map((t) => t.node)
    const found: Done[] = []
    for (const [k, term] of terms.entries()) {
      const done = this.term(term, (inner) => wrap(row(now.map((n, at) => (at === k ? inner : n)))))
      if (done === null) return null
      now[k] = done.node
      found.push(done)
    }
    return this.chapter(new Progress(this, seen, found, row(now), wrap))
  }

  /** The terms below one, each worked out in its place. */
  private operands(seen: Seen, wrap: Wrap): readonly Done[] | null {
    const { node } = seen
    const children = childrenOf(node)
    const now: Node[] = [...children]
    const found: Done[] = []
    for (const [k, child] of children.entries()) {
      const around = (inner: Node): Node => wrap(withChildren(node, now.map((n, at) => (at === k ? inner : n)))) // prettier-ignore
      const row = node.type === 'list' && child.type === 'list' && !seen.inner.some((s) => s.node === child)
      const done = row ? this.row({ ...seen, node: child }, around) : this.term(seenOf(seen, child), around)
      if (done === null) return null
      now[k] = done.node
      found.push(done)
    }
    return found
  }

  /** The last step ends with a value that is the same but for rounding. */
  endWith(found: Node, node: Node, whole: Node): void {
    const last = this.steps.at(-1)
    if (last?.made.kind !== 'term' || last.made.node !== found) return
    const [made, then] = [{ kind: 'term', node } as const, { kind: 'term', node: whole } as const]
    this.steps.splice(-1, 1, { ...last, made, then })
  }

  push(step: Omit<Step, 'operation'>): void {
    if (this.steps.length >= STEPS_MOST) this.cut = true
    else this.steps.push({ ...step, operation: this.operations })
  }
}

/** e^(j·30°): the angle is taken as it is written. */
function eulerAngle(seen: Seen): readonly Done[] | null {
  const { node, value } = seen
  if (node.type !== 'power' || value.kind !== 'number') return null
  const [base, exponent] = [unbracketed(node.base), unbracketed(node.exponent)]
  if (base.type !== 'constant' || base.name !== 'e' || exponent.type !== 'product' || exponent.sign === '/') return null
  const [left, right] = [unbracketed(exponent.left), unbracketed(exponent.right)]
  const other = isLetter(left) ? right : isLetter(right) ? left : null
  const inner = seen.inner.find((s) => s.node === exponent)
  const angle = other && inner ? seenOf(inner, other).value : null
  if (angle?.kind !== 'angle' || !other || !isLiteral(other.type === 'postfix' ? other.operand : other)) return null
  return [{ node: base, value: base.value, form: 'fraction' }, { node: exponent, value: angle, form: 'plain' }]
} // prettier-ignore

const isLetter = (node: Node): boolean => node.type === 'constant' && node.name === 'imaginary'

const NO_OPERANDS: readonly Done[] = []

/** Terms whose parts are no operands: they are put in, or run through, first. */
const OWN_ORDER: ReadonlySet<Node['type']> = new Set(['where', 'series', 'range', 'slice'])

function isLazy(node: Node): boolean {
  if (node.type !== 'apply') return false
  return (
    (node.builtIn && findFunction(node.name)?.opaque === true) ||
    node.args.some((a) => unbracketed(a).type === 'series')
  )
}

/** The form in which entries of an array go on. */
function commonForm(entries: readonly Done[]): Form {
  if (entries.some((e) => e.form === 'fraction') && entries.every(isWholeDone)) return 'fraction'
  return entries.length > 0 && entries.every((e) => e.form === 'polar') ? 'polar' : 'plain'
}

/** What needs no working: literals, constants, names of unknowns, numbers as they are written. */
function asWritten(seen: Seen): Done | null {
  const { node, value } = seen
  if (value.kind === 'failure') return null
  switch (node.type) {
    case 'valued':
      return { node, value, form: node.form }
    case 'literal':
    case 'name':
    case 'text':
    case 'last':
    case 'all':
      return { node, value, form: 'plain' }
    case 'dms':
      return { node: valued(value), value, form: 'plain' }
    case 'constant':
      return { node, value, form: 'fraction' }
    case 'sign':
      return isPlainLiteral(node.operand) && !isNothing(value) ? { node: hasPrefix(node.operand) ? node : valued(value), value, form: 'plain' } : null // prettier-ignore
    case 'united': {
      const inner = unbracketed(node.operand)
      const form = inner.type === 'polar' ? 'polar' : 'plain'
      return isLiteral(inner) || isRectangular(inner) || isPolarLiteral(inner) ? { node, value, form } : null
    }
    case 'postfix':
      return node.sign !== '!' && isLiteral(node.operand) ? { node, value, form: 'plain' } : null
    case 'polar':
      return isPolarLiteral(node) ? { node, value, form: 'polar' } : null
    case 'sum':
      return isRectangular(node) ? { node, value, form: 'plain' } : null
    case 'product':
      return isImaginary(node) ? { node, value, form: 'plain' } : null
    default:
      return null
  }
}

const isNothing = (value: Value): boolean => value.kind === 'number' && value.re === 0 && value.im === 0

function isPlainLiteral(node: Node): boolean {
  const inner = unbracketed(node)
  return inner.type === 'literal' || inner.type === 'dms'
}

function hasPrefix(node: Node): boolean {
  const inner = unbracketed(node)
  return inner.type === 'literal' && inner.prefix !== ''
}

function isLiteral(node: Node): boolean {
  const inner = unbracketed(node)
  if (inner.type === 'sign') return isLiteral(inner.operand)
  return inner.type === 'literal' || inner.type === 'dms'
}

function isReal(node: Node): boolean {
  const inner = unbracketed(node)
  if (inner.type === 'sign') return isReal(inner.operand)
  return inner.type === 'literal' && inner.letter === 'none' && inner.value.kind === 'number' && inner.value.im === 0
}

/** `4j`, `j4`, `j*4`. */
function isImaginary(node: Node): boolean {
  const inner = unbracketed(node)
  if (inner.type === 'literal') return inner.letter !== 'none'
  if (isLetter(inner)) return true
  if (inner.type !== 'product' || inner.sign === '/' || inner.sign === 'mod') return false
  const [left, right] = [unbracketed(inner.left), unbracketed(inner.right)]
  return (isLetter(left) && right.type === 'literal' && isReal(right)) || (isLetter(right) && left.type === 'literal' && isReal(left)) // prettier-ignore
}

/** `3 + 4j`, as it is written. */
function isRectangular(node: Node): boolean {
  return node.type === 'sum' && node.left.type !== 'group' && isReal(node.left) && isImaginary(node.right) && !hasSign(node.right) // prettier-ignore
}

const hasSign = (node: Node): boolean => node.type === 'sign' || node.type === 'group' || childrenOf(node).some(hasSign)

function isPolarLiteral(node: Node): boolean {
  if (node.type !== 'polar' || !isReal(node.magnitude)) return false
  const angle = unbracketed(node.angle)
  const turned = angle.type === 'sign' ? unbracketed(angle.operand) : angle
  const inner = turned.type === 'postfix' && turned.sign !== '!' ? turned.operand : turned
  return isLiteral(inner)
}

/** A whole number as it is written, or one that goes on as a fraction: what is reckoned from such does so, too. */
export function isWholeDone({ node, value, form }: Done): boolean {
  if (form === 'fraction') return true
  const inner = unbracketed(node)
  return inner.type === 'literal' && inner.prefix === '' && /^\d+$/.test(inner.digits) && value.kind === 'number'
}

/** One operation while it is worked out. */
export class Progress {
  /** How the operation stands now. */
  now: Node
  private entered = false
  /** Set where there is no figure to be carried on wrongly. */
  untrapped = false
  readonly operands: Done[]

  constructor(
    readonly work: Work,
    readonly seen: Seen,
    operands: readonly Done[],
    first: Node,
    readonly wrap: Wrap,
  ) {
    this.now = first
    this.operands = [...operands]
  }

  get node(): Node {
    return this.seen.node
  }

  get value(): Value | Failure {
    return this.seen.value
  }

  get conventions(): Conventions {
    return this.work.tools.conventions
  }

  operand(k: number): Done {
    const found = this.operands[k]
    if (!found) throw new Error('an operation has its operands')
    return found
  }

  /** The number of an operand, in coherent units; `null` where it is none. */
  number(k: number): NumberValue | null {
    const done = this.operands[k]
    const inner = done && bare(done.value)
    return inner?.kind === 'number' ? inner : null
  }

  /** True where something in the operation has a unit. */
  get hasUnits(): boolean {
    return this.value.kind === 'quantity' || this.operands.some(({ value }) => value.kind === 'quantity')
  }

  /** A term of plain numbers in the unit of the result. */
  inUnit(node: Node): Node {
    const { value } = this
    if (value.kind !== 'quantity') return node
    return value.measure instanceof Measure ? inUnitOf(node, value.measure) : node
  }

  /** What becomes of the units of a product or a quotient: `Ω·A = V`. */
  unitsSaid(sign: '·' | '/'): { says?: string } {
    const units = [...this.operands.map((o) => o.value), this.value].map((v) =>
      v.kind === 'quantity' && v.measure instanceof Measure ? coherentUnit(v.measure).text : '',
    )
    const [a, b, c] = units
    if (units.length !== 3 || !a || !b) return {}
    const right = /[·/]/.test(b) ? `(${b})` : b
    return { says: `${a}${sign}${right} = ${c === '' ? '1' : c}` }
  }

  /** The way that was chosen for this operation. */
  way(ways: readonly string[], usual: string): string {
    const { work } = this
    const operation = work.operations
    const asked = work.tools.ways.get(operation)
    const way = asked !== undefined && ways.includes(asked) ? asked : usual
    work.choices.push({ operation, ways, way })
    return way
  }

  /** A step by which the operation comes to stand otherwise. */
  move(rule: Rule, made: Node, more: { says?: string; depth?: Depth; relation?: Relation } = {}): void {
    this.put(rule, { kind: 'term', node: made }, more)
    this.now = made
  }

  /** A step whose outcome does not stand in the line: rows, or an equation. */
  aside(rule: Rule, made: Standing, relation: Relation, says: string | null = null, depth: Depth = 'hand'): void {
    this.put(rule, made, { relation, depth, ...(says === null ? {} : { says }) })
  }

  rows(rule: Rule, rows: Rows['rows'], left: number, operation: RowChange | null, says: string | null = null): void {
    this.aside(rule, { kind: 'rows', rows, left, operation }, '~', says)
  }

  private put(
    rule: Rule,
    made: Standing,
    { says, depth = 'hand', relation }: { says?: string; depth?: Depth; relation?: Relation },
    entries: readonly EntryStep[] = [],
    trap: Node | null = null,
  ): void {
    // What would read the same is no step; that the power comes first is one.
    if (made.kind === 'term' && rule !== 'power-before-sign' && entries.length === 0 && this.reads(made.node)) return
    this.entered = true
    this.work.push({
      rule,
      says: says ?? null,
      depth,
      relation: relation ?? (made.kind === 'term' && termShowsWhole(made.node, this.conventions) ? '=' : '≈'),
      before: this.wrap(this.now),
      dealt: this.now,
      made,
      then: made.kind === 'term' ? { kind: 'term', node: this.wrap(made.node) } : made,
      entries,
      trap,
    })
  }

  /** True where a term reads as the operation stands now. */
  private reads(made: Node): boolean {
    const plain = (node: Node): string =>
      this.work.tools
        .typeset(node)
        .replace(/\\cdot|\\,|\s|[{}]/g, '')
        .replace(/\\dfrac/g, '\\frac')
    return plain(this.now) === plain(made)
  }

  /** The last step: the operation has its value. */
  done(rule: Rule, form?: Form, more: { says?: string; depth?: Depth; entries?: readonly EntryStep[] } = {}): Done | null {
    const { value } = this
    if (value.kind === 'failure') return this.ended()
    const own = form ?? this.form(value)
    const node = valued(value, own)
    this.put(rule, { kind: 'term', node }, more, more.entries ?? [], this.trap(value, own))
    this.now = node
    this.work.operations += 1
    return { node, value, form: own }
  } // prettier-ignore

  /** It has its value without a step of its own: what stands there says it already. */
  silently(form: Form = 'plain'): Done | null {
    const { value } = this
    if (value.kind === 'failure') return this.ended()
    if (this.entered) this.work.operations += 1
    return { node: valued(value, form), value, form }
  }

  /** Another term takes its place, and is worked out. */
  rewrite(rule: Rule, term: Node, more: { says?: string; depth?: Depth } = {}): Done | null {
    const seen = this.work.tools.see(term)
    const { value } = this
    // What would not lead to the value is no way to it.
    if (value.kind !== 'failure' && !alike(seen.value, value)) return this.done(rule, undefined, more)
    this.move(rule, term, more)
    this.work.operations += 1
    const done = this.work.term(seen, this.wrap)
    if (done === null || value.kind === 'failure') return null
    // Rounded on another way: the last figures may differ, the value is that of the line.
    const node = valued(value, done.form)
    this.work.endWith(done.node, node, this.wrap(node))
    return { node, value, form: done.form }
  }

  /** There is no value: the steps end. */
  ended(): null {
    this.work.push({
      rule: 'stops-here',
      says: null,
      depth: 'hand',
      relation: '=',
      before: this.wrap(this.now),
      dealt: this.now,
      made: { kind: 'term', node: this.now },
      then: { kind: 'term', node: this.wrap(this.now) },
      entries: [],
      trap: null,
    })
    return null
  }

  /** The form in which the result goes on: as fraction where all it comes from is whole. */
  form(value: Value): Form {
    const inner = bare(value)
    if (this.operands.length === 0 || !this.operands.every(isWholeDone)) return 'plain'
    if (inner.kind === 'number') return (inner.pi && (inner.im === 0 || inner.re === 0)) || (inner.exact && isShort(inner)) ? 'fraction' : 'plain' // prettier-ignore
    return inner.kind === 'vector' || inner.kind === 'matrix' || inner.kind === 'polynomial' ? 'fraction' : 'plain'
  }

  /** An operand in polar form comes into rectangular form before anything else. */
  inRectangular(k: number): void {
    const done = this.operand(k)
    const z = this.number(k)
    if (done.form !== 'polar' || !z || !isComplex(z)) return
    const inner = unbracketed(done.node)
    const written = inner.type === 'polar' ? inner : null
    const size = written?.magnitude ?? valued(numberOr(A.magnitude(z)))
    const angle = valued(argumentOf(z))
    const parts = sum(times(size, call('cos', angle)), imaginary(times(size, call('sin', angle))))
    this.replace(k, { node: inUnitOf(parts, unitOfOperand(done.value)), value: done.value, form: 'plain' }, 'polar-to-rectangular')
    this.replace(k, { node: valued(done.value), value: done.value, form: 'plain' }, 'parts-worked-out')
  } // prettier-ignore

  /** An operand is written otherwise, which is no step: a bare number as the angle that it was read as. */
  restate(k: number, done: Done): void {
    const children = this.operands.map((o) => o.node)
    children[k] = done.node
    this.operands[k] = done
    this.now = withChildren(this.node, children)
  }

  /** An operand comes into polar form. */
  inPolar(k: number, rule: Rule): void {
    const { value } = this.operand(k)
    this.replace(k, { node: valued(value, 'polar'), value, form: 'polar' }, rule)
  }

  /** A bare number is read as an angle: a step only where the angle is written otherwise. */
  readAs(k: number, done: Done): void {
    const text = (node: Node): string => this.work.tools.typeset(node).replace(/[{}\\\s]|htmlClass|read-unit/g, '')
    const { node } = this.operand(k)
    if (text(node) === text(done.node) || `${text(node)}^circ` === text(done.node)) this.restate(k, done)
    else this.replace(k, done, 'as-angle')
  }

  /** An operand comes to stand otherwise. */
  replace(k: number, done: Done, rule: Rule, depth: Depth = 'hand'): void {
    const children = this.operands.map((o) => o.node)
    children[k] = done.node
    const made = withChildren(this.node, children)
    this.operands[k] = done
    this.move(rule, made, { depth })
  }

  /** Operands that nearly cancel are shown with one figure more. */
  guard(): void {
    for (const { node } of this.operands) this.work.guarded.add(unbracketed(node))
  }

  /** What the figures on show would come to, where that is shown differently. */
  private trap(value: Value, form: Form): Node | null {
    const { conventions, work } = this
    if (this.untrapped || this.operands.length !== childrenOf(this.node).length) return null
    const rounded = this.operands.some(({ node, value: of, form: as }) => bare(of).kind === 'number' && node.type === 'valued' && !termShowsWhole(node, conventionsFor(as, conventions)))
    if (!rounded || bare(value).kind !== 'number') return null
    const figures = this.operands.map(({ node, value: of, form: as }) => {
      if (node.type !== 'valued') return node
      const own = { ...conventionsFor(as, conventions), digits: conventions.digits + (work.guarded.has(node) ? 1 : 0) }
      const text = copyText(of, as === 'polar' && isComplex(numberOr(bare(of))) ? 'polar' : 'shown', own)
      const back = text === null ? null : work.tools.readBack(text)
      return back ? valued(back, as) : node
    })
    const found = work.tools.see(withChildren(this.node, figures)).value
    if (found.kind === 'failure' || found.kind !== value.kind) return null
    const shown = (v: Value): string | null => copyText(v, form === 'polar' ? 'polar' : 'shown', conventionsFor(form, conventions))
    return shown(found) === shown(value) ? null : valued(found, form)
  } // prettier-ignore
}

const unitOfOperand = (value: Value): Measure | null =>
  value.kind === 'quantity' && value.measure instanceof Measure ? value.measure : null

const LONGEST_FRACTION = 12
function isShort({ exact }: NumberValue): boolean {
  return exact !== null && exact.im.n === 0 && `${exact.re.n}/${exact.re.d}`.length <= LONGEST_FRACTION
}

/** Values that are the same but for rounding on the way. */
export function alike(a: Value | Failure, b: Value): boolean {
  if (a.kind === 'failure') return false
  const [x, y] = [bare(a), bare(b)]
  if (x.kind === 'angle' && y.kind === 'angle') return Math.abs(x.radians - y.radians) <= 1e-9 * Math.abs(y.radians)
  const [left, right] = [numbersIn(x), numbersIn(y)]
  if (!left || !right) return x.kind === y.kind && (x.kind !== 'polynomial' || (isAlgebraic(y) && algebraAgrees(x, y)))
  if (left.length !== right.length) return false
  const size = Math.max(0, ...right.map((z) => C.abs(z)))
  return left.every((z, k) => isNear(z, right[k] ?? z, size))
}

/** The numbers of a value, in their order; `null` of what is more than numbers. */
function numbersIn(value: Value): readonly NumberValue[] | null {
  if (value.kind === 'number') return [value]
  if (value.kind === 'matrix') return itemsOf(value)
  if (value.kind !== 'vector') return null
  const found = value.items.flatMap((item) => (item.kind === 'number' ? [item] : []))
  return found.length === value.items.length ? found : null
}

function isNear(x: NumberValue, y: NumberValue, size: number): boolean {
  if (!C.isFinite(x) || !C.isFinite(y)) return Object.is(x.re, y.re)
  return C.abs({ re: x.re - y.re, im: x.im - y.im }) <= 1e-9 * size
}
