import { OperandParser } from './operands'
import { write } from './problem'
import { isPi } from './syntax'
import { isName, Tok } from './tokenKinds'
import type { NameNode, Node, Lettered } from './tree'
import * as N from './nodes'

/** Factors: operands with their signs, powers and angles, which bind tighter than any operator between two. */
export abstract class FactorParser extends OperandParser {
  /** An operand with its sign, its powers and its angle. */
  protected factor(): Node {
    const { kind } = this
    if (kind === Tok.minus || kind === Tok.plus) return this.signedFactor()
    let node = this.postfix()
    if (this.is(Tok.caret)) node = this.withUnit(this.power(node))
    return this.is(Tok.polar) ? this.withUnit(this.polar(node)) : node
  }

  private signedFactor(): Node {
    const { kind, from } = this
    this.free = false
    this.take()
    if (!this.down()) return this.tooDeep()
    const operand = this.factor()
    this.up()
    return N.sign(kind === Tok.plus ? '+' : '-', operand, from, operand.to)
  }

  protected polar(magnitude: Node): Node {
    this.free = false
    this.angled = true
    this.take()
    const angle = this.unitless(() => this.angleOperand())
    if (this.is(Tok.caret) && !this.problem) return this.polarPower(magnitude, angle)
    if (this.is(Tok.polar)) return this.fail('second-angle', this.span())
    return N.polar(magnitude, angle, magnitude.from, angle.to)
  }

  protected polarPower(magnitude: Node, angle: Node): Node {
    this.take()
    const exponent = this.exponent()
    if (this.problem) return exponent
    const span = { from: magnitude.from, to: exponent.to }
    const m = this.slice(magnitude)
    const a = this.slice(angle)
    const x = this.slice(exponent)
    return this.fail('angle-bracketing', span, { text: this.slice(span) }, [
      write(`(${m}∠${a})^${x}`),
      write(`${m}∠(${a}^${x})`),
    ])
  }

  /** One signed operand, or a fraction of π with digits: `-3pi/4`. */
  protected angleOperand(): Node {
    const { kind, from } = this
    if (kind === Tok.minus || kind === Tok.plus) {
      this.take()
      if (!this.down()) return this.tooDeep()
      const operand = this.angleOperand()
      this.up()
      return N.sign(kind === Tok.plus ? '+' : '-', operand, from, operand.to)
    }
    const operand = this.postfix()
    return this.is(Tok.over) && isPi(operand) && this.dividesPi() ? this.fractionOfPi(operand) : operand
  }

  /** Do digits stand below π, with nothing behind them that would take them first? */
  private dividesPi(): boolean {
    const after = this.peek(2)
    if (this.peek(1) !== Tok.number || (isName(after) && !this.tokens.spaced(this.at + 2))) return false
    return after !== Tok.polar && after !== Tok.caret && after !== Tok.factorial
  }

  private fractionOfPi(operand: Node): Node {
    this.take()
    const digits = this.digits()
    const fraction: Node = N.chain(operand, [{ sign: '/', node: digits }], operand.from, digits.to)
    const { kind } = this
    const unit = kind === Tok.degree || kind === Tok.deg ? 'deg' : kind === Tok.rad ? 'rad' : null
    return unit ? N.postfix(unit, fraction, operand.from, this.take()) : fraction
  }

  protected power(operand: Node): Node {
    let base = operand
    while (this.is(Tok.caret)) {
      const caret = this.take()
      this.another()
      const mark = this.markSign()
      if (mark) {
        this.free = false
        base = N.mark(mark, base, false, base.from, this.take())
        continue
      }
      if (base.type === 'name' || base.type === 'lettered') {
        const call = this.raisedCall(base)
        if (call) return call
      }
      const exponent = this.exponent()
      base = N.power(base, exponent, base.from, Math.max(exponent.to, caret))
    }
    return base
  }

  protected markSign(): 'T' | 'H' | '*' | null {
    const { kind } = this
    if (kind === Tok.times) return '*'
    if (kind !== Tok.transpose && kind !== Tok.hermitian) return null
    if (this.peek(1) === Tok.open && !this.tokens.spaced(this.at + 1)) return null
    return kind === Tok.transpose ? 'T' : 'H'
  }

  /** `sin^2(x)`: a number between the caret and a bracket that touches it. */
  protected raisedCall(callee: NameNode | Lettered): Node | null {
    const signed = this.is(Tok.minus) ? 1 : 0
    const bracket = this.at + signed + 1
    if (this.peek(signed) !== Tok.number || this.tokens.kind(bracket) !== Tok.open || this.tokens.spaced(bracket))
      return null
    const { from } = this
    if (signed) this.take()
    const digits = this.digits()
    const raised: Node = signed ? N.sign('-', digits, from, digits.to) : digits
    return this.call(callee, raised)
  }

  protected exponent(): Node {
    const { kind, from } = this
    if (!this.down()) return this.tooDeep()
    if (kind === Tok.minus || kind === Tok.plus) {
      this.free = false
      this.take()
      const operand = this.exponent()
      this.up()
      return N.sign(kind === Tok.plus ? '+' : '-', operand, from, operand.to)
    }
    const before = this.bareAt
    this.bareAt = this.openBrackets + this.openBars
    const base = this.postfix()
    this.bareAt = before
    this.up()
    if (!this.is(Tok.caret)) return base
    this.goTo(this.at + 1)
    const mark = this.markSign()
    this.goTo(this.at - 1)
    if (mark) return base
    this.take()
    if (!this.down()) return this.tooDeep()
    const exponent = this.exponent()
    this.up()
    return N.power(base, exponent, base.from, exponent.to)
  }
}
