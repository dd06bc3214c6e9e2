import { Cursor } from './cursor'
import type { Opener } from './cursor'
import { numeralNode, readCircuitImaginary } from './literals'
import { write } from './problem'
import { isLetter } from './syntax'
import { endsOperand, isName, isNameToo, isSign, isWordOperator, Tok } from './tokenKinds'
import type { Call, Literal, NameNode, Node, Lettered, Slice, UnitTerm } from './tree'
import { unitAt } from './unitTerms'
import * as N from './nodes'
import { nameAt } from './spellings'
import { startAt } from './tokenRows'

const CLOSING_TEXT = new Map([
  [Tok.close, ')'],
  [Tok.closeSquare, ']'],
  [Tok.bar, '|'],
  [Tok.parallel, '||'],
])

const NO_PLACES: ReadonlySet<number> = new Set()

/** What a unit can stand behind: numerals, brackets, calls, bars, lists, roots; not names and entries. */
function carriesUnit(node: Node): boolean {
  switch (node.type) {
    case 'literal':
    case 'lettered':
    case 'group':
    case 'call':
    case 'bars':
    case 'list':
    case 'root':
    case 'polar':
      return true
    case 'name':
      return readCircuitImaginary(node.name) !== null
    case 'power':
      return carriesUnit(node.base)
    case 'postfix':
      return node.sign === '!'
    default:
      return false
  }
}

/** The sign that closes what a sign has opened. */
function closingOf(opener: Opener | Tok.end): Tok {
  if (opener === Tok.open) return Tok.close
  return opener === Tok.openSquare ? Tok.closeSquare : opener
}

/** Operands with what stands directly behind them: calls, entries, units, brackets, bars, lists. */
export abstract class OperandParser extends Cursor {
  protected abstract expression(): Node
  protected abstract whole(): Node

  /** False where `to` belongs to an index or a series and not to a range. */
  protected ranges = true
  /** How many index brackets are open: inside them `last` and `all` are words. */
  protected indexDepth = 0

  /** Where a unit could stand and a product is meant: places in the source. */
  protected products: ReadonlySet<number> = NO_PLACES
  /** How many brackets are open round an exponent or an angle: what follows their digits there is no unit. */
  protected bareAt = -1

  protected override start(source: string): void {
    super.start(source)
    this.ranges = true
    this.indexDepth = 0
    this.bareAt = -1
  }

  /** Reads an operand of which a unit behind it is no part: an exponent, an angle, what stands under a root. */
  protected unitless(read: () => Node): Node {
    const before = this.bareAt
    this.bareAt = this.openBrackets + this.openBars
    const node = read()
    this.bareAt = before
    return node
  }

  /** The operand with the unit that stands behind it, if one does. */
  protected withUnit(operand: Node): Node {
    const { kind } = this
    const sign = kind === Tok.odd || kind === Tok.degree
    if ((!isName(kind) && !sign) || this.bareAt === this.openBrackets + this.openBars) return operand
    if (!carriesUnit(operand)) return operand
    if (sign ? !this.endsShare() : !this.spaced) return operand
    const term = this.unitTerm(false)
    return term ? N.united(operand, term, operand.from, term.to) : operand
  }

  /** `5 %` is a share; in `7 % 3` the sign was meant for `mod`. */
  private endsShare(): boolean {
    const next = this.peek(1)
    return next === Tok.end || endsOperand(next) || isWordOperator(next) || next >= Tok.approximately
  }

  /** Takes the unit at hand; `null` where none stands here. `1/s` is one where no number can stand. */
  protected unitTerm(alone: boolean): UnitTerm | null {
    if (this.products.has(this.from)) return null
    const found = unitAt(this.tokens, this.at, alone)
    if (!found) return null
    this.free = false
    this.goTo(found.next)
    return found.term
  }

  /** `20 °C`: the sign belongs to a letter behind it. */
  private meansCelsius(): boolean {
    const letter = this.kind === Tok.name && !this.spaced ? this.text : ''
    return letter === 'C' || letter === 'F'
  }

  private celsius(operand: Node): Node {
    const digits = operand.type === 'postfix' ? this.slice(operand.operand) : ''
    const span = { from: operand.from, to: this.to }
    const kelvin = this.text === 'C' && /^[\d.]+$/.test(digits) ? [write(`${(1000 * Number(digits) + 273150) / 1000} K`)] : [] // prettier-ignore
    return this.fail('unit-celsius', span, {}, kelvin)
  }

  /** The word `in` before a unit at the end of the line. */
  protected asksForUnit(): boolean {
    if (this.to - this.from !== 2 || this.text !== 'in') return false
    const found = unitAt(this.tokens, this.at + 1, true)
    return found !== null && this.tokens.kind(found.next) === Tok.end
  }

  /** `314 rad/s`, `90°/s`: an angle that goes on is a unit. */
  private angleRate(operand: Node): Node | null {
    if (this.peek(1) !== Tok.over && !(isName(this.peek(1)) && this.peek(2) === Tok.caret)) return null
    if (this.bareAt === this.openBrackets + this.openBars || !carriesUnit(operand)) return null
    const { at } = this
    const term = this.unitTerm(false)
    if (term && term.unit.parts.length > 1) return N.united(operand, term, operand.from, term.to)
    this.goTo(at)
    return null
  }

  /** An end of an index or of a series, behind which `to` may stand. */
  protected bound(): Node {
    return this.within(false)
  }

  /** An expression inside brackets, where ranges are allowed again. */
  protected inside(): Node {
    return this.within(true)
  }

  private within(ranges: boolean): Node {
    const before = this.ranges
    this.ranges = ranges
    const node = this.expression()
    this.ranges = before
    return node
  }

  protected postfix(): Node {
    const { kind } = this
    // Most operands are one number or name with an operator behind it.
    if (endsOperand(this.peek(1))) {
      if (kind === Tok.number) return this.digits()
      if (kind === Tok.name) return this.plainName()
    }
    const operand = kind === Tok.open ? this.round() : this.calls() ? this.call(this.plainName(), null) : this.primary()
    return endsOperand(this.kind) ? operand : this.postfixes(operand)
  }

  /** A plain name that a bracket touches. */
  private calls(): boolean {
    return this.kind === Tok.name && this.peek(1) === Tok.open && startAt(this.at + 1) === this.to
  }

  private postfixes(first: Node): Node {
    let operand = first
    for (;;) {
      const { kind } = this
      switch (kind) {
        case Tok.open:
          if (this.spaced || (operand.type !== 'name' && operand.type !== 'lettered')) return operand
          operand = this.call(operand, null)
          break
        case Tok.openSquare:
          if (this.spaced || operand.type === 'literal' || operand.type === 'lettered') return operand
          operand = this.entry(operand)
          break
        case Tok.dot: {
          if (this.spaced || !isName(this.peek(1)) || this.tokens.spaced(this.at + 1)) return operand
          this.take()
          const name = this.text
          operand = N.part(operand, name, operand.from, this.take())
          break
        }
        case Tok.factorial:
          operand = N.postfix('!', operand, operand.from, this.take())
          this.another()
          break
        case Tok.degree:
        case Tok.deg:
        case Tok.rad: {
          const rate = this.angleRate(operand)
          if (rate) return rate
          const sign = kind === Tok.rad ? 'rad' : 'deg'
          this.angled = true
          operand = N.postfix(sign, operand, operand.from, this.take())
          this.another()
          if (sign === 'deg' && this.meansCelsius()) return this.celsius(operand)
          break
        }
        default:
          return this.withUnit(operand)
      }
    }
  }

  protected entry(operand: Node): Node {
    const open = this.at
    const outer = this.enter(Tok.openSquare)
    this.another()
    this.indexDepth += 1
    const index = this.index()
    const column = this.is(Tok.comma) ? (this.take(), this.index()) : null
    this.indexDepth -= 1
    const to = this.close(open, outer)
    return N.entry(operand, index, column, operand.from, to)
  }

  protected index(): Node {
    if (this.is(Tok.all)) {
      const next = this.peek(1)
      if (next === Tok.end || next === Tok.closeSquare || next === Tok.comma) {
        const { from } = this
        return N.everything(from, this.take())
      }
    }
    const first = this.bound()
    return this.is(Tok.to) ? this.sliceFrom(first) : first
  }

  /** `to` a last one, perhaps with a step, behind the first. */
  private sliceFrom(first: Node): Slice {
    this.take()
    const last = this.bound()
    const step = this.is(Tok.step) ? (this.take(), this.bound()) : null
    return N.slice(first, last, step, first.from, (step ?? last).to)
  }

  protected call(callee: NameNode | Lettered, raised: Node | null): Call {
    const { at, ranges } = this
    const outer = this.enter(Tok.open)
    this.free = true
    this.ranges = true
    const args = this.kind === Tok.close ? [] : this.args()
    this.ranges = ranges
    const { free } = this
    this.free = false
    if (callee.type === 'lettered' || isLetter(callee.name)) this.apart = true
    const to = this.close(at, outer)
    return N.call(callee, raised, args, free, to)
  }

  private args(): readonly Node[] {
    const first = this.expression()
    const args = [this.kind === Tok.for ? this.withSeries(first) : first]
    while (this.kind === Tok.comma) {
      this.take()
      args.push(this.expression())
    }
    return args
  }

  /** Takes the closing bracket of what was opened last, or says where it is missing. */
  protected close(opened: number, outer: Opener | Tok.end): number {
    const closing = closingOf(this.opener)
    this.left(outer)
    return this.kind === closing ? this.take() : this.missing(opened, closing)
  }

  private missing(opened: number, closing: Tok): number {
    if (!this.problem) this.notClosed(opened, CLOSING_TEXT.get(closing) ?? '')
    return this.previousEnd
  }

  private notClosed(opened: number, missing: string): void {
    const { kind } = this
    if (kind === Tok.end) {
      const at = { from: this.previousEnd, to: this.previousEnd }
      const open = this.span(opened)
      this.fail('unclosed', at, { bracket: this.slice(open), missing, open: open.from + 1 }, [write(missing)])
    } else if (kind === Tok.close || kind === Tok.closeSquare)
      this.fail('unbalanced', this.span(), { bracket: this.text })
    else this.finish()
  }

  protected primary(): Node {
    const { kind } = this
    if (kind === Tok.number) return this.number()
    if (isName(kind)) return this.name()
    if (isSign(kind)) return this.signed()
    const { from } = this
    if (kind === Tok.text) {
      const { text } = this
      return N.text(text, from, this.take())
    }
    if (kind === Tok.dms) {
      this.angled = true
      return N.dms(this.tokens.minutes(this.at), from, this.take())
    }
    return kind === Tok.end ? this.unfinished() : this.odd()
  }

  protected unfinished(): Node {
    const at = { from: this.previousEnd, to: this.to }
    return this.fail('unfinished', at, { after: this.at > 0 ? this.slice(this.span(this.at - 1)) : '' })
  }

  protected number(): Node {
    const { from } = this
    const numeral = this.tokens.numeral(this.at)
    const to = this.take()
    const { kind } = this
    // The ends of the tokens touch: letters directly behind the digits.
    if (isName(kind) && this.from === to && kind !== Tok.deg && kind !== Tok.rad) {
      const run = this.text
      this.free = false
      this.apart = true
      return N.lettered(numeral, run, from, this.take())
    }
    return numeralNode(numeral, from, to)
  }

  /** The digits at hand, and nothing behind them. */
  protected digits(): Literal {
    const { from } = this
    const numeral = this.tokens.numeral(this.at)
    return numeralNode(numeral, from, this.take())
  }

  protected name(): Node {
    const { kind, from } = this
    if (isWordOperator(kind) && !isNameToo(kind))
      return this.fail('operand-expected', this.span(), { found: this.text })
    if (kind === Tok.last && this.indexDepth > 0) return N.lastEntry(from, this.take())
    return this.plainName()
  }

  private plainName(): NameNode {
    const { from } = this
    this.free = false
    const to = this.take()
    return N.name(nameAt(this.source, from, to), from, to)
  }

  /** What a sign opens. */
  protected signed(): Node {
    const { from } = this
    switch (this.kind) {
      case Tok.open:
        return this.round()
      case Tok.bar:
        return this.bars(Tok.bar)
      case Tok.parallel:
        return this.norm()
      case Tok.root: {
        this.take()
        if (!this.down()) return this.tooDeep()
        const operand = this.unitless(() => this.postfix())
        this.up()
        return N.root(operand, from, operand.to)
      }
      case Tok.openSquare:
        return this.list()
      case Tok.close:
      case Tok.closeSquare:
        return this.closedEarly()
      default:
        return this.fail('operand-expected', this.span(), { found: this.slice(this.span()) })
    }
  }

  /** A term in round brackets. */
  private round(): Node {
    const { at, from, ranges, free: freeBefore } = this
    const outer = this.enter(Tok.open)
    this.ranges = true
    this.free = true
    const inner = this.whole()
    const { free } = this
    this.ranges = ranges
    this.free = freeBefore && free
    return N.group(inner, free, from, this.close(at, outer))
  }

  /** A closing bracket where an operand should stand. */
  private closedEarly(): Node {
    const { text } = this
    if (this.openBrackets > 0 && this.at > 0)
      return this.fail('operand-expected', { from: this.previousEnd, to: this.to }, { found: text })
    return this.fail('unbalanced', this.span(), { bracket: text }, [{ label: `remove ${text}`, replacement: '' }])
  }

  /** `[1, 2, 3]` or `[f(k) for k = 1 to n]`. */
  protected list(): Node {
    const { at, from } = this
    const outer = this.enter(Tok.openSquare)
    this.free = false
    const entries: Node[] = []
    if (this.is(Tok.closeSquare)) {
      this.left(outer)
      return this.fail('empty-list', { from, to: this.to })
    }
    do {
      if (entries.length > 0) this.take()
      this.another()
      entries.push(this.withSeries(this.inside()))
    } while (this.is(Tok.comma) && entries.at(-1)?.type !== 'series')
    return N.list(entries, from, this.close(at, outer))
  }

  /** A body with `for k = 1 to n step 2` behind it, if that follows. */
  protected withSeries(body: Node): Node {
    if (!this.is(Tok.for)) return body
    const word = this.span()
    this.take()
    const counter = this.givenName()
    if (counter === null) return this.fail('series-form', word)
    if (!this.is(Tok.equals)) return this.fail('series-form', { from: word.from, to: counter.to })
    this.take()
    const first = this.bound()
    if (!this.is(Tok.to)) return this.problem ? first : this.fail('series-form', { from: word.from, to: first.to })
    const over = this.sliceFrom(first)
    return N.series(body, counter, over, body.from, over.to)
  }

  /** A name that is about to get a value, whatever else its letters mean; `null` where none stands here. */
  protected givenName(): NameNode | null {
    if (!isName(this.kind)) return null
    const { from, text } = this
    return N.name(text, from, this.take())
  }

  protected bars(opener: Tok.bar | Tok.parallel): Node {
    const { at, from } = this
    const outer = this.enter(opener)
    this.free = false
    const inner = this.expression()
    const to = this.close(at, outer)
    return N.bars(inner, opener === Tok.parallel, from, to)
  }

  /** `||v||`, or two single bars that touch: `||a| + b|`. */
  protected norm(): Node {
    const { at } = this
    const node = this.bars(Tok.parallel)
    if (!this.problem || this.depth > 12) return node
    const first = this.problem
    this.problem = null
    this.tokens.splitBars(at)
    this.goTo(at)
    const nested = this.bars(Tok.bar)
    if (this.problem) this.problem = first
    return nested
  }
}
