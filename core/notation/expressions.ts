import { MAX_DEPTH } from './cursor'
import { digitsNode } from './literals'
import { OperandParser } from './operands'
import { write } from './problem'
import {
  comesApart,
  COMPARISONS,
  endsInPolar,
  isAngle,
  isPi,
  isWordOperator,
  lastPolar,
  multiplies,
  radiansOver,
  startsOperand,
} from './syntax'
import type { Token } from './tokens'
import type { ChainSign, Comparison, NameNode, Node, Quantity, Span } from './tree'

/** Operators, loosest first: each level reads the next tighter one. */
export abstract class ExpressionParser extends OperandParser {
  protected expression(): Node {
    if (this.depth >= MAX_DEPTH) return this.tooDeep()
    this.depth += 1
    const node = this.either()
    this.depth -= 1
    return node
  }

  /** The whole of a line or of a bracket: `where` may stand behind it. */
  protected whole(): Node {
    const body = this.expression()
    if (!this.isWord('where')) return body
    const word = this.take()
    const given: { name: NameNode; value: Node }[] = []
    do {
      if (given.length > 0) this.take()
      const name = this.token
      if (name.type !== 'name') return this.problem ? body : this.fail('where-form', word)
      this.take()
      if (!this.isSign('=')) return this.problem ? body : this.fail('where-form', { from: word.from, to: name.to })
      this.take()
      this.another()
      const value = this.expression()
      given.push({ name: { type: 'name', name: name.text, from: name.from, to: name.to }, value })
    } while (this.isSign(','))
    return { type: 'where', body, given, from: body.from, to: given.at(-1)?.value.to ?? word.to }
  }

  protected either(): Node {
    let left = this.both()
    while (this.isWord('or')) {
      this.take()
      this.another()
      const right = this.both()
      left = { type: 'logic', sign: 'or', operands: [left, right], from: left.from, to: right.to }
    }
    return left
  }

  protected both(): Node {
    let left = this.negation()
    while (this.isWord('and')) {
      this.take()
      this.another()
      const right = this.negation()
      left = { type: 'logic', sign: 'and', operands: [left, right], from: left.from, to: right.to }
    }
    return left
  }

  protected negation(): Node {
    if (!this.isWord('not')) return this.comparison()
    const { from } = this.take()
    const operand = this.deeper(this.negation)
    return { type: 'logic', sign: 'not', operands: [operand], from, to: operand.to }
  }

  protected comparison(): Node {
    const first = this.range()
    if (this.token.type !== 'sign' || !COMPARISONS.has(this.token.text)) return first
    const rest: { sign: Comparison; node: Node }[] = []
    while (this.token.type === 'sign' && COMPARISONS.has(this.token.text)) {
      const sign = this.take().text as Comparison
      rest.push({ sign, node: this.range() })
    }
    const last = rest.at(-1)
    return last ? { type: 'compare', first, rest, from: first.from, to: last.node.to } : first
  }

  /** `first to last`, with a step, a count or so many points a decade; not where `to` ends an index or a series. */
  protected range(): Node {
    const first = this.sum()
    if (!this.ranges || !this.isWord('to')) return first
    this.take()
    const last = this.sum()
    const by = this.isWord('step') ? 'step' : this.isWord('count') ? 'count' : this.isWord('per') ? 'decade' : null
    if (by === null) return { type: 'range', first, last, by, amount: null, from: first.from, to: last.to }
    const word = this.take()
    if (by === 'decade') {
      if (!this.isWord('decade')) return this.fail('per-decade', word)
      this.take()
    }
    const amount = this.sum()
    return { type: 'range', first, last, by, amount, from: first.from, to: amount.to }
  }

  protected sum(): Node {
    let left = this.parallel()
    while (this.isSign('+') || this.isSign('-')) {
      if (this.open.at(-1)?.sign === '[' && this.token.spaced && !this.peek(1).spaced) return this.commaMissing(left)
      const sign = this.take().text as '+' | '-'
      this.another()
      const right = this.parallel()
      if (endsInPolar(left) && isAngle(right)) return this.bracketings(lastPolar(left), right, sign)
      left = { type: 'sum', sign, left, right, from: left.from, to: right.to }
    }
    return left
  }

  /** `[1 -2]`: two entries, or a difference? */
  protected commaMissing(left: Node): Node {
    const { text, to } = this.token
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

  protected parallel(): Node {
    let left = this.chain()
    while (this.isSign('||') && !this.closesBars()) {
      const sign = this.take()
      this.another()
      if (this.problem) return left
      const right = this.chain()
      left = { type: 'parallel', left, right, from: left.from, to: right.to }
      if (sign.type === 'end') break
    }
    return left
  }

  /**
   * In operator position: does `||` close open bars? Inside open single bars it is
   * the parallel sign only with spaces round it; `|a||b|` is refused.
   */
  protected closesBars(): boolean {
    const top = this.open.at(-1)
    if (top === undefined || top.sign === '(' || top.sign === '[') return false
    if (top.sign === '||') return true
    const next = this.peek(1)
    if (this.token.spaced && next.spaced && startsOperand(next)) return false
    const bars = this.open.filter((o) => o.sign === '|').length
    if (bars >= 2 && !startsOperand(next)) {
      const { from, to, spaced } = this.token
      this.tokens.splice(
        this.at,
        1,
        { type: 'sign', text: '|', from, to: from + 1, spaced },
        { type: 'sign', text: '|', from: from + 1, to, spaced: false },
      )
      this.goTo(this.at)
      return true
    }
    this.fail('bars-unclear', this.token, {}, [
      { label: '| · |, a product of magnitudes', replacement: '|*|' },
      { label: ' ∥ , in parallel', replacement: ' || ' },
    ])
    return true
  }

  protected chain(): Node {
    return this.chainAfter(this.factor())
  }

  /** `x/2 rad`: the unit may belong to 2 or to the quotient. */
  protected radiansUnclear(quotient: Node, bottom: Node): Node {
    const text = this.slice(quotient)
    const top = this.source.slice(quotient.from, bottom.from)
    const span = { from: quotient.from, to: bottom.to }
    return this.fail('angle-bracketing', span, { text: this.slice(span) }, [
      write(`(${text}) rad`),
      write(`${top}(${this.slice(bottom)})`),
    ])
  }

  protected chainAfter(first: Node): Node {
    let rest: { sign: ChainSign; node: Node; at: Span }[] | null = null
    /** Nothing in the row can come apart, so that it is a row of products at once. */
    let whole = !comesApart(first)
    let before = first
    for (;;) {
      const token = this.token
      let sign: ChainSign
      if (this.isSign('*') || this.isSign('/')) sign = this.take().text as '*' | '/'
      else if (this.isWord('mod')) {
        this.take()
        sign = 'mod'
      } else if (before.type === 'literal' && multiplies(token) && !this.meansAngleSign()) sign = 'implicit'
      else {
        if (token.text !== '||' && startsOperand(token) && !this.closesHere(token) && !isWordOperator(token))
          this.missingOperator(before, token)
        break
      }
      this.another()
      const node = this.factor()
      if (sign === '*' && before.type === 'polar' && isAngle(node)) {
        return this.bracketings(before, node, sign)
      }
      const unit = sign === '/' ? radiansOver(node) : null
      if (unit) {
        const quotient: Node = {
          type: 'chain',
          first,
          rest: [...(rest ?? []), { sign, node: unit, at: token }],
          from: first.from,
          to: unit.to,
        }
        if (rest || !isPi(first)) return this.radiansUnclear(quotient, node)
        return this.chainAfter({ type: 'postfix', sign: 'rad', operand: quotient, from: first.from, to: node.to })
      }
      rest ??= []
      rest.push({ sign, node, at: token })
      whole &&= sign !== 'implicit' && !comesApart(node)
      before = node
    }
    if (rest === null) return first
    if (!whole) return { type: 'chain', first, rest, from: first.from, to: before.to }
    let left = first
    for (const { sign, node } of rest)
      left = { type: 'product', sign, left, right: node, from: first.from, to: node.to }
    return left
  }

  /** `5 angle 30`: the word where the sign ∠ is meant; `2 angle(u, v)` is a call. */
  protected meansAngleSign(): boolean {
    return this.isWord('angle') && this.peek(1).text !== '('
  }

  protected closesHere(token: Token): boolean {
    return token.text === '|' && this.open.some((o) => o.sign === '|')
  }

  protected missingOperator(before: Node, token: Token): void {
    const gap = { from: before.to, to: token.from }
    const angleWord = token.type === 'name' && token.text === 'angle'
    if (angleWord) {
      this.fail('missing-operator', { from: token.from, to: token.to }, { left: this.slice(before), right: 'angle' }, [
        write('∠'),
      ])
      return
    }
    const right = this.source.slice(token.from, token.to)
    this.fail('missing-operator', gap, { left: this.slice(before), right }, [
      { label: '* multiply', replacement: '*' },
      { label: '+ add', replacement: ' + ' },
    ])
  }

  protected factor(): Node {
    if (this.isSign('-') || this.isSign('+')) {
      const token = this.take()
      const operand = this.deeper(this.factor)
      return { type: 'sign', sign: token.text as '+' | '-', operand, from: token.from, to: operand.to }
    }
    return this.polar()
  }

  protected polar(): Node {
    const magnitude = this.power()
    if (!this.isSign('/_')) return magnitude
    this.take()
    const angle = this.angleOperand()
    const node: Node = { type: 'polar', magnitude, angle, from: magnitude.from, to: angle.to }
    if (this.isSign('^') && !this.problem) return this.polarPower(magnitude, angle)
    if (this.isSign('/_')) return this.fail('second-angle', this.token)
    return node
  }

  protected polarPower(magnitude: Node, angle: Node): Node {
    const from = angle.from
    this.take()
    const exponent = this.exponent()
    if (this.problem) return exponent
    const span = { from: magnitude.from, to: exponent.to }
    const m = this.slice(magnitude)
    const a = this.slice(angle)
    const x = this.slice(exponent)
    return this.fail('angle-bracketing', { from: Math.min(from, span.from), to: span.to }, { text: this.slice(span) }, [
      write(`(${m}∠${a})^${x}`),
      write(`${m}∠(${a}^${x})`),
    ])
  }

  /** One signed operand, or a fraction of π with digits: `-3pi/4`. */
  protected angleOperand(): Node {
    if (this.isSign('-') || this.isSign('+')) {
      const token = this.take()
      const operand = this.deeper(this.angleOperand)
      return { type: 'sign', sign: token.text as '+' | '-', operand, from: token.from, to: operand.to }
    }
    const operand = this.postfix()
    const [slash, below, after] = [this.token, this.peek(1), this.peek(2)]
    const divides =
      isPi(operand) &&
      slash.text === '/' &&
      below.type === 'number' &&
      !(after.type === 'name' && !after.spaced) &&
      !['/_', '^', '!'].includes(after.text)
    if (!divides) return operand
    this.take()
    this.take()
    const bottom = digitsNode(below.text, below.from, below.to)
    const span = { from: operand.from, to: below.to }
    const fraction: Node = { type: 'chain', first: operand, rest: [{ sign: '/', node: bottom, at: slash }], ...span }
    const unit = this.isSign('°') || this.isWord('deg') ? 'deg' : this.isWord('rad') ? 'rad' : null
    return unit ? { type: 'postfix', sign: unit, operand: fraction, from: span.from, to: this.take().to } : fraction
  }

  protected power(): Node {
    let base = this.postfix()
    while (this.isSign('^')) {
      const caret = this.take()
      this.another()
      const mark = this.markSign()
      if (mark) {
        const token = this.take()
        base = { type: 'mark', sign: mark, operand: base, from: base.from, to: token.to }
        continue
      }
      if (base.type === 'name' || base.type === 'quantity') {
        const call = this.raisedCall(base)
        if (call) return call
      }
      const exponent = this.exponent()
      base = { type: 'power', base, exponent, from: base.from, to: Math.max(exponent.to, caret.to) }
    }
    return base
  }

  protected markSign(): 'T' | 'H' | '*' | null {
    if (this.isSign('*')) return '*'
    const next = this.peek(1)
    const alone = !(next.type === 'sign' && next.text === '(' && !next.spaced)
    if (alone && this.isWord('T')) return 'T'
    if (alone && this.isWord('H')) return 'H'
    return null
  }

  /** `sin^2(x)`: a number between the caret and a bracket that touches it. */
  protected raisedCall(callee: NameNode | Quantity): Node | null {
    const signed = this.isSign('-') ? 1 : 0
    const number = this.peek(signed)
    const bracket = this.peek(signed + 1)
    if (number.type !== 'number' || bracket.text !== '(' || bracket.spaced) return null
    const from = this.token.from
    if (signed) this.take()
    this.take()
    const plain = digitsNode(number.text, number.from, number.to)
    const raised: Node = signed ? { type: 'sign', sign: '-', operand: plain, from, to: number.to } : plain
    return this.call(callee, raised)
  }

  protected exponent(): Node {
    if (this.isSign('-') || this.isSign('+')) {
      const token = this.take()
      const operand = this.deeper(this.exponent)
      return { type: 'sign', sign: token.text as '+' | '-', operand, from: token.from, to: operand.to }
    }
    const base = this.deeper(this.postfix)
    if (!this.isSign('^')) return base
    this.goTo(this.at + 1)
    const mark = this.markSign()
    this.goTo(this.at - 1)
    if (mark) return base
    this.take()
    const exponent = this.deeper(this.exponent)
    return { type: 'power', base, exponent, from: base.from, to: exponent.to }
  }
}
