import { Cursor } from './cursor'
import { digitsNode } from './literals'
import { write } from './problem'
import { isWordOperator, NAMES_TOO } from './syntax'
import type { Token } from './tokens'
import type { Call, NameNode, Node, Quantity } from './tree'

/** Operands with what stands directly behind them: calls, entries, units, brackets, bars, lists. */
export abstract class OperandParser extends Cursor {
  protected abstract expression(): Node
  protected abstract whole(): Node

  /** False where `to` belongs to an index or a series and not to a range. */
  protected ranges = true

  protected bound(): Node {
    return this.within(false, () => this.expression())
  }

  /** Reads with ranges allowed or not; inside brackets they are allowed again. */
  protected within(ranges: boolean, read: () => Node): Node {
    const before = this.ranges
    this.ranges = ranges
    const node = read()
    this.ranges = before
    return node
  }

  protected postfix(): Node {
    let operand = this.primary()
    for (;;) {
      const token = this.token
      const bracket = this.isSign('(') && !token.spaced
      if (operand.type === 'postfix') this.another()
      if (bracket && (operand.type === 'name' || operand.type === 'quantity')) {
        operand = this.call(operand, null)
      } else if (this.isSign('[') && !token.spaced && operand.type !== 'literal' && operand.type !== 'quantity') {
        operand = this.entry(operand)
      } else if (this.isSign('.') && !token.spaced && this.peek(1).type === 'name' && !this.peek(1).spaced) {
        this.take()
        const name = this.take()
        operand = { type: 'part', operand, name: name.text, from: operand.from, to: name.to }
      } else if (this.isSign('!')) {
        this.take()
        operand = { type: 'postfix', sign: '!', operand, from: operand.from, to: token.to }
      } else if (this.isSign('°') || this.isWord('deg') || this.isWord('rad')) {
        this.take()
        const sign = token.text === 'rad' ? 'rad' : 'deg'
        operand = { type: 'postfix', sign, operand, from: operand.from, to: token.to }
      } else return operand
    }
  }

  protected entry(operand: Node): Node {
    const open = this.take()
    this.another()
    this.open.push({ sign: '[', token: open })
    this.indexDepth += 1
    const index = this.index()
    const column = this.isSign(',') ? (this.take(), this.index()) : null
    this.indexDepth -= 1
    const to = this.close(']', open)
    return { type: 'entry', operand, index, column, from: operand.from, to }
  }

  /** How many index brackets are open: inside them `last` and `all` are words. */
  protected indexDepth = 0

  protected index(): Node {
    const token = this.token
    if (this.isWord('all')) {
      const next = this.peek(1)
      if (next.type === 'end' || next.text === ']' || next.text === ',') {
        this.take()
        return { type: 'all', from: token.from, to: token.to }
      }
    }
    const first = this.bound()
    if (!this.isWord('to')) return first
    this.take()
    const last = this.bound()
    const step = this.isWord('step') ? (this.take(), this.bound()) : null
    return { type: 'slice', first, last, step, from: first.from, to: (step ?? last).to }
  }

  protected call(callee: NameNode | Quantity, raised: Node | null): Call {
    const open = this.take()
    this.open.push({ sign: '(', token: open })
    const args: Node[] = []
    if (!this.isSign(')')) {
      args.push(this.withSeries(this.within(true, () => this.expression())))
      while (this.isSign(',')) {
        this.take()
        args.push(this.within(true, () => this.expression()))
      }
    }
    const to = this.close(')', open)
    return { type: 'call', callee, raised, args, bracket: { from: open.from, to }, from: callee.from, to }
  }

  /** Takes the closing bracket, or says where it is missing. */
  protected close(sign: ')' | ']' | '|' | '||', open: Token): number {
    this.open.pop()
    if (this.isSign(sign)) return this.take().to
    if (!this.problem) {
      const token = this.token
      if (token.type === 'end') {
        const at = { from: this.previousEnd, to: this.previousEnd }
        this.fail('unclosed', at, { bracket: this.slice(open), missing: sign, open: open.from + 1 }, [write(sign)])
      } else if (token.text === ']' || token.text === ')') {
        this.fail('unbalanced', token, { bracket: token.text })
      } else this.finish()
    }
    return this.previousEnd
  }

  protected primary(): Node {
    const token = this.token
    switch (token.type) {
      case 'number':
        return this.number()
      case 'name':
        return this.name()
      case 'text':
        this.take()
        return { type: 'text', text: token.text, from: token.from, to: token.to }
      case 'dms': {
        this.take()
        const [degrees = '0', minutes = '0', seconds = '0'] = token.text.split(' ')
        return { type: 'dms', degrees, minutes, seconds, from: token.from, to: token.to }
      }
      case 'sign':
        return this.signed()
      case 'end':
        return this.unfinished()
      default:
        return this.odd(token)
    }
  }

  protected unfinished(): Node {
    const before = this.tokens[this.at - 1]
    const at = { from: this.previousEnd, to: this.token.to }
    return this.fail('unfinished', at, { after: before ? this.source.slice(before.from, before.to) : '' })
  }

  protected number(): Node {
    const token = this.take()
    const run = this.token
    if (run.type === 'name' && !run.spaced && run.text !== 'deg' && run.text !== 'rad') {
      this.take()
      return { type: 'quantity', digits: token.text, run: run.text, runFrom: run.from, from: token.from, to: run.to }
    }
    return digitsNode(token.text, token.from, token.to)
  }

  protected name(): Node {
    const token = this.token
    if (isWordOperator(token) && !NAMES_TOO.has(token.text)) {
      return this.fail('operand-expected', token, { found: token.text })
    }
    this.take()
    if (this.indexDepth > 0 && token.text === 'last') return { type: 'last', from: token.from, to: token.to }
    return { type: 'name', name: token.text, from: token.from, to: token.to }
  }

  protected signed(): Node {
    const token = this.token
    if (token.text === '(') {
      this.take()
      this.open.push({ sign: '(', token })
      const inner = this.within(true, () => this.whole())
      const to = this.close(')', token)
      return { type: 'group', inner, from: token.from, to }
    }
    if (token.text === '|') return this.bars('|')
    if (token.text === '||') return this.norm()
    if (token.text === '√') {
      this.take()
      const operand = this.deeper(this.postfix)
      return { type: 'root', operand, from: token.from, to: operand.to }
    }
    if (token.text === '[') return this.list()
    if (token.text === ')' || token.text === ']') {
      const opened = this.open.some((o) => o.sign === '(' || o.sign === '[')
      if (opened && this.at > 0)
        return this.fail('operand-expected', { from: this.previousEnd, to: token.to }, { found: token.text })
      return this.fail('unbalanced', token, { bracket: token.text }, [
        { label: `remove ${token.text}`, replacement: '' },
      ])
    }
    return this.fail('operand-expected', token, { found: this.slice(token) })
  }

  /** `[1, 2, 3]` or `[f(k) for k = 1 to n]`. */
  protected list(): Node {
    const token = this.take()
    this.open.push({ sign: '[', token })
    const entries: Node[] = []
    if (this.isSign(']')) return this.fail('empty-list', { from: token.from, to: this.token.to })
    do {
      if (entries.length > 0) this.take()
      this.another()
      entries.push(this.withSeries(this.within(true, () => this.expression())))
    } while (this.isSign(',') && entries.at(-1)?.type !== 'series')
    const to = this.close(']', token)
    return { type: 'list', entries, from: token.from, to }
  }

  /** A body with `for k = 1 to n step 2` behind it, if that follows. */
  protected withSeries(body: Node): Node {
    if (!this.isWord('for')) return body
    const word = this.take()
    const counter = this.token
    if (counter.type !== 'name') return this.fail('series-form', word)
    this.take()
    if (!this.isSign('=')) return this.fail('series-form', { from: word.from, to: counter.to })
    this.take()
    const first = this.bound()
    if (!this.isWord('to')) return this.problem ? first : this.fail('series-form', { from: word.from, to: first.to })
    this.take()
    const last = this.bound()
    const step = this.isWord('step') ? (this.take(), this.bound()) : null
    const name: NameNode = { type: 'name', name: counter.text, from: counter.from, to: counter.to }
    return { type: 'series', body, counter: name, first, last, step, from: body.from, to: (step ?? last).to }
  }

  protected bars(sign: '|' | '||'): Node {
    const token = this.take()
    this.open.push({ sign, token })
    const inner = this.expression()
    const to = this.close(sign, token)
    return { type: 'bars', double: sign === '||', inner, from: token.from, to }
  }

  /** `||v||`, or two single bars that touch: `||a| + b|`. */
  protected norm(): Node {
    const start = this.at
    const token = this.token
    const bars = this.open.length
    const node = this.bars('||')
    if (!this.problem || this.depth > 12) return node
    const first = this.problem
    this.problem = null
    this.goTo(start)
    this.open.length = bars
    const { from, to, spaced } = token
    const halves: Token[] = [
      { type: 'sign', text: '|', from, to: from + 1, spaced },
      { type: 'sign', text: '|', from: from + 1, to, spaced: false },
    ]
    this.tokens.splice(start, 1, ...halves)
    this.goTo(start)
    const nested = this.bars('|')
    if (this.problem) this.problem = first
    return nested
  }
}
