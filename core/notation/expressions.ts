import { FactorParser } from './factors'
import { write } from './problem'
import { comesApart, endsInPolar, isAngle, isNamed, isPi, lastPolar, radiansOver } from './syntax'
import { endsOperand, isComparison, isWordOperator, Level, levelOf, multiplies, startsOperand, Tok } from './tokenKinds'
import type { ChainSign, Comparison, NameNode, Node, Span } from './tree'
import { infixCall } from './words'
import * as N from './nodes'

/** Operators by precedence (V. Pratt, Top down operator precedence, 1973): one loop for all levels. */
export abstract class ExpressionParser extends FactorParser {
  protected expression(): Node {
    if (!this.down()) return this.tooDeep()
    const node = this.operators(Level.or)
    this.up()
    return node
  }

  /** The whole of a line or of a bracket: `where` may stand behind it. */
  protected whole(): Node {
    const body = this.expression()
    return this.is(Tok.where) ? this.where(body) : body
  }

  private where(body: Node): Node {
    const word = this.span()
    const given: { name: NameNode; value: Node }[] = []
    do {
      this.take()
      const name = this.givenName()
      if (name === null) return this.problem ? body : this.fail('where-form', word)
      if (!this.is(Tok.equals)) return this.problem ? body : this.fail('where-form', { from: word.from, to: name.to })
      this.take()
      this.another()
      given.push({ name, value: this.expression() })
    } while (this.is(Tok.comma))
    return N.where(body, given, body.from, given.at(-1)?.value.to ?? word.to)
  }

  /** Operators from a level on, each with its operands of tighter levels, from the left. */
  private operators(least: Level): Node {
    let left = this.kind === Tok.not && least <= Level.not ? this.negation() : this.factor()
    for (;;) {
      const level = levelOf(this.kind)
      if (level < least || level === Level.none) return left
      const before = left
      if (level === Level.chain) left = this.chainAfter(left)
      else if (level === Level.sum) left = this.sum(left)
      else left = this.looser(left, level)
      // What could not be joined ends the expression: a closing bar, a range where none is allowed.
      if (left === before) return left
    }
  }

  /** Anything but sums and products, which are left as they are by binding: all else may deserve a hint. */
  private looser(left: Node, level: Level): Node {
    this.free = false
    switch (level) {
      case Level.parallel:
        return this.is(Tok.along) ? this.along(left) : this.parallel(left)
      case Level.comparison:
        return this.comparison(left)
      case Level.range:
        return this.range(left)
      default:
        return this.logic(left, level)
    }
  }

  private logic(left: Node, level: Level): Node {
    const sign = level === Level.or ? 'or' : 'and'
    this.take()
    this.another()
    const right = this.operators(level + 1)
    return N.logic(sign, [left, right], left.from, right.to)
  }

  private negation(): Node {
    const { from } = this
    this.take()
    if (!this.down()) return this.tooDeep()
    const operand = this.operators(Level.not)
    this.up()
    return N.logic('not', [operand], from, operand.to)
  }

  private comparison(first: Node): Node {
    const rest: { sign: Comparison; node: Node }[] = []
    let last = first
    while (isComparison(this.kind)) {
      const sign = this.text as Comparison
      this.take()
      last = this.operators(Level.range)
      rest.push({ sign, node: last })
    }
    return N.compare(first, rest, first.from, last.to)
  }

  /** `first to last`, with a step, a count or so many points a decade; not where `to` ends an index or a series. */
  private range(first: Node): Node {
    if (!this.ranges || first.type === 'range') return first
    this.take()
    const last = this.operators(Level.sum)
    const by = rangeBy(this.kind)
    if (by === null) return N.range(first, last, by, null, first.from, last.to)
    const word = this.span()
    this.take()
    if (by === 'decade') {
      if (!this.is(Tok.name) || this.text !== 'decade') return this.fail('per-decade', word)
      this.take()
    }
    const amount = this.operators(Level.sum)
    return N.range(first, last, by, amount, first.from, amount.to)
  }

  private sum(left: Node): Node {
    const sign = this.is(Tok.plus) ? '+' : '-'
    if (this.opener === Tok.openSquare && this.spaced && !this.tokens.spaced(this.at + 1))
      return this.commaMissing(left)
    this.take()
    this.another()
    const right = this.operators(Level.parallel)
    if (this.angled && isAngle(right) && endsInPolar(left)) return this.bracketings(lastPolar(left), right, sign)
    return N.sum(sign, left, right, left.from, right.to)
  }

  /** `[1 -2]`: two entries, or a difference? */
  protected commaMissing(left: Node): Node {
    const { text, to } = this
    return this.fail('comma-missing', { from: left.to, to }, { sign: text }, [
      { label: `, ${text} two entries`, replacement: `, ${text}` },
      { label: `${text} one entry`, replacement: ` ${text} ` },
    ])
  }

  /** `5∠2*30°` and its like: both bracketings are offered, none is guessed. */
  protected bracketings(polar: Node, right: Node, sign: string): Node {
    if (polar.type !== 'polar') return polar
    const magnitude = this.slice(polar.magnitude)
    const angle = this.slice(polar.angle)
    const more = this.slice(right)
    const span = { from: polar.from, to: right.to }
    return this.fail('angle-bracketing', span, { text: this.slice(span) }, [
      write(`${magnitude}∠(${angle}${sign}${more})`),
      write(`(${magnitude}∠${angle})${sign}${more}`),
    ])
  }

  /** `Z along f` is read as a call: along(Z, f). */
  private along(left: Node): Node {
    const word = this.span()
    this.take()
    this.another()
    if (this.problem) return left
    const right = this.operators(Level.chain)
    return N.call(N.name(infixCall('along'), word.from, word.to), null, [left, right], false, right.to)
  }

  private parallel(left: Node): Node {
    if (this.closesBars()) return left
    this.take()
    this.another()
    if (this.problem) return left
    const right = this.operators(Level.chain)
    return N.parallel(left, right, left.from, right.to)
  }

  /**
   * In operator position: does `||` close open bars? Inside open single bars it is
   * the parallel sign only with spaces round it; `|a||b|` is refused.
   */
  protected closesBars(): boolean {
    const { opener } = this
    if (opener === Tok.end || opener === Tok.open || opener === Tok.openSquare) return false
    if (opener === Tok.parallel) return true
    const next = this.peek(1)
    if (this.spaced && this.tokens.spaced(this.at + 1) && startsOperand(next)) return false
    if (this.openBars >= 2 && !startsOperand(next)) {
      this.tokens.splitBars(this.at)
      this.goTo(this.at)
      return true
    }
    this.fail('bars-unclear', this.span(), {}, [
      { label: '| · |, a product of magnitudes', replacement: '|*|' },
      { label: ' ∥ , in parallel', replacement: ' || ' },
    ])
    return true
  }

  /** `x/2 rad`: the unit may belong to 2 or to the quotient. */
  protected radiansUnclear(quotient: Span, bottom: Span): Node {
    const text = this.slice(quotient)
    const top = this.source.slice(quotient.from, bottom.from)
    const span = { from: quotient.from, to: bottom.to }
    return this.fail('angle-bracketing', span, { text: this.slice(span) }, [
      write(`(${text}) rad`),
      write(`${top}(${this.slice(bottom)})`),
    ])
  }

  /** What joins the factor at hand to the one before it; `null` where the row ends. */
  private chainSign(before: Node): ChainSign | null {
    const { kind } = this
    switch (kind) {
      case Tok.times:
        return '*'
      case Tok.over:
        return '/'
      case Tok.mod:
        return 'mod'
      default:
        if (!startsOperand(kind) || (kind === Tok.name && this.asksForUnit())) return null
        if (before.type === 'literal' && multiplies(kind) && !this.meansAngleSign()) return 'implicit'
        if (kind !== Tok.parallel && !this.closesHere() && !isWordOperator(kind)) this.missingOperator(before)
        return null
    }
  }

  /**
   * Factors from the left. While none of them can come apart the row is a tree of
   * products at once; from the first that can, it is kept flat for binding.
   */
  protected chainAfter(first: Node): Node {
    let left = first
    let before = first
    let products = 0
    // Most rows are only this.
    while ((this.kind === Tok.times || this.kind === Tok.over) && !this.angled && !this.apart) {
      const sign = this.kind === Tok.times ? '*' : '/'
      this.take()
      this.another()
      const node = this.factor()
      if (this.angled || this.apart) return this.chainOn(first, left, before, products, sign, node)
      left = N.product(sign, left, node, first.from, node.to)
      before = node
      products += 1
    }
    if (endsOperand(this.kind) && this.kind !== Tok.times && this.kind !== Tok.over) return left
    const sign = this.chainSign(before)
    return sign === null ? left : this.chainOn(first, left, before, products, sign, this.factorAfter(sign))
  }

  private factorAfter(sign: ChainSign): Node {
    if (sign !== 'implicit') this.take()
    this.another()
    return this.factor()
  }

  /** The same for any row, from a factor on that has just been read. */
  private chainOn(
    first: Node,
    leftSoFar: Node,
    last: Node,
    productsSoFar: number,
    itsSign: ChainSign,
    factor: Node,
  ): Node {
    let left = leftSoFar
    let before = last
    let products = productsSoFar
    let sign = itsSign
    let node = factor
    let rest: { sign: ChainSign; node: Node }[] | null = null
    for (;;) {
      if (this.angled) {
        if (sign === '*' && before.type === 'polar' && isAngle(node)) return this.bracketings(before, node, sign)
        if (sign === '/' && before.type === 'polar' && isNamed(before.angle) && isNamed(node))
          return this.bracketings(before, node, sign)
        const unit = sign === '/' ? radiansOver(node) : null
        if (unit) return this.radians(first, unit, node, products === 0)
      }
      if (rest === null && (sign === 'implicit' || this.comeApart(node, products === 0 ? first : null))) {
        rest = flat(left, products)
        this.free = false
      }
      if (rest === null) left = N.product(sign, left, node, first.from, node.to)
      else rest.push({ sign, node })
      products += 1
      before = node
      const next = this.chainSign(before)
      if (next === null) break
      sign = next
      node = this.factorAfter(next)
    }
    return rest === null ? left : N.chain(first, rest, first.from, before.to)
  }

  /** May one of these factors turn out to be digits and what they multiply? */
  private comeApart(node: Node, first: Node | null): boolean {
    return this.apart && (comesApart(node) || (first !== null && comesApart(first)))
  }

  /** `pi/4 rad`: the unit belongs to the fraction, where nothing else stands in the row. */
  private radians(first: Node, unit: Node, bottom: Node, alone: boolean): Node {
    const span = { from: first.from, to: unit.to }
    const numerator = first.type === 'sign' ? first.operand : first
    if (!alone || !isPi(numerator)) return this.radiansUnclear(span, bottom)
    const quotient: Node = N.chain(first, [{ sign: '/', node: unit }], span.from, span.to)
    return this.chainAfter(N.postfix('rad', quotient, first.from, bottom.to))
  }

  /** `5 angle 30`: the word where the sign ∠ is meant; `2 angle(u, v)` is a call. */
  protected meansAngleSign(): boolean {
    return this.is(Tok.angleWord) && this.peek(1) !== Tok.open
  }

  protected closesHere(): boolean {
    return this.is(Tok.bar) && this.openBars > 0
  }

  protected missingOperator(before: Node): void {
    const here = this.span()
    if (before.type === 'united' && EFFECTIVE.has(this.text)) {
      const gap = { from: before.to, to: this.to }
      this.fail('unit-effective', gap, { word: this.text }, [{ label: this.slice(before), replacement: '' }])
      return
    }
    const left = this.slice(before)
    if (this.is(Tok.angleWord)) {
      this.fail('missing-operator', here, { left, right: 'angle' }, [write('∠')])
      return
    }
    this.fail('missing-operator', { from: before.to, to: here.from }, { left, right: this.slice(here) }, [
      { label: '* multiply', replacement: '*' },
      { label: '+ add', replacement: ' + ' },
    ])
  }
}

/** What is said of a value behind its unit elsewhere. */
const EFFECTIVE: ReadonlySet<string> = new Set(['rms', 'RMS', 'eff', 'pk', 'pp', 'peak', 'AC', 'DC', 'ac', 'dc'])

function rangeBy(kind: Tok): 'step' | 'count' | 'decade' | null {
  if (kind === Tok.step) return 'step'
  if (kind === Tok.count) return 'count'
  return kind === Tok.per ? 'decade' : null
}

/** The last so many products of a tree as a flat row. */
function flat(node: Node, products: number): { sign: ChainSign; node: Node }[] {
  const row: { sign: ChainSign; node: Node }[] = []
  let left = node
  for (let k = 0; k < products && left.type === 'product'; k += 1) {
    row.unshift({ sign: left.sign, node: left.right })
    left = left.left
  }
  return row
}
