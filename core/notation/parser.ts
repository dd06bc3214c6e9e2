import { ExpressionParser } from './expressions'
import type { Problem, ProblemFix } from './problem'
import { problem, write } from './problem'
import { parameterList } from './syntax'
import type { Token } from './tokens'
import { tokenize } from './tokens'
import type { NameNode, Node, Statement } from './tree'

/** A line as read: its statement, its remark, and the first thing that could not be read. */
export interface Parsed {
  readonly source: string
  readonly statement: Statement
  readonly remark: string | null
  readonly problem: Problem | null
}

/** Longest line, in UTF-16 units. */
export const MAX_LINE = 10_000

/** Reads one line. Total: odd input gives a problem, never an exception. */
export function parseLine(source: string): Parsed {
  if (source.length > MAX_LINE) {
    const whole = { from: MAX_LINE, to: source.length }
    return {
      source,
      statement: { type: 'empty' },
      remark: null,
      problem: problem('line-too-long', whole, { limit: MAX_LINE }),
    }
  }
  const tokens = tokenize(source)
  let remark: string | null = null
  const found = tokens.at(-2)
  if (found?.type === 'remark') {
    remark = found.text
    tokens.splice(tokens.indexOf(found), tokens.length)
    const last = tokens.at(-1)
    const end = last ? last.to : found.from
    tokens.push({ type: 'end', text: '', from: end, to: end, spaced: true })
  }
  const parser = new StatementParser(source, tokens)
  const statement = parser.statement()
  return { source, statement, remark, problem: parser.problem }
}

class StatementParser extends ExpressionParser {
  statement(): Statement {
    if (this.token.type === 'end') return { type: 'empty' }
    const equals = this.source.includes('=') ? this.topLevel('=') : -1
    if (equals >= 0) return this.definition(equals)
    if (this.isWord('unknown') && this.peek(1).type === 'name') return this.unknowns()
    const left = this.whole()
    if (this.isSign('~~')) {
      this.take()
      const right = this.expression()
      const within = this.isWord('within') ? this.tolerance() : null
      this.finish()
      return { type: 'check', left, right, within }
    }
    this.finish()
    return { type: 'expression', body: left }
  }

  /** `unknown s, a, b` */
  protected unknowns(): Statement {
    this.take()
    const names: NameNode[] = []
    do {
      if (names.length > 0) this.take()
      const { type, text, from, to } = this.token
      if (type !== 'name') {
        this.unfinished()
        break
      }
      this.take()
      this.another()
      names.push({ type: 'name', name: text, from, to })
    } while (this.isSign(','))
    this.finish()
    return { type: 'unknown', names }
  }

  protected tolerance(): { amount: Node; percent: boolean } {
    this.take()
    const amount = this.expression()
    const percent = this.token.type === 'odd' && this.token.text === '%'
    if (percent) this.take()
    return { amount, percent }
  }

  protected topLevel(sign: string): number {
    let depth = 0
    for (let k = 0; k < this.tokens.length; k += 1) {
      const token = this.tokens[k]
      // Behind where an equals sign gives a value, and keeps no name.
      if (token?.type === 'name' && token.text === 'where' && depth === 0 && k > 0) return -1
      if (token?.type !== 'sign') continue
      if (token.text === '(' || token.text === '[') depth += 1
      else if (token.text === ')' || token.text === ']') depth -= 1
      else if (token.text === sign && depth === 0) return k
    }
    return -1
  }

  protected definition(equals: number): Statement {
    const head = this.tokens.slice(0, equals)
    const sign = this.tokens[equals]
    const first = head[0]
    if (sign === undefined) return { type: 'empty' }
    if (first === undefined) {
      this.fail('nothing-defined', sign)
      return { type: 'expression', body: { type: 'hole', from: sign.from, to: sign.to } }
    }
    const parameters = first.type === 'name' && head.length > 1 ? parameterList(head) : null
    if (first.type !== 'name' || (head.length > 1 && parameters === null)) {
      return this.notDefinable(first, head.at(-1) ?? first, equals)
    }
    const name: NameNode = { type: 'name', name: first.text, from: first.from, to: first.to }
    this.goTo(equals + 1)
    const body = this.whole()
    this.finish()
    return parameters ? { type: 'function', name, parameters, body } : { type: 'define', name, body }
  }

  protected notDefinable(first: Token, last: Token, equals: number): Statement {
    const tail = this.tokens.slice(equals + 1, -1)
    const only = tail[0]
    const left = this.source.slice(first.from, last.to)
    const fixes: ProblemFix[] = []
    const end = this.tokens.at(-1)?.from ?? last.to
    // The whole statement is the span, so that the sides can be exchanged.
    const whole = tail.length === 1 && only?.type === 'name'
    if (whole && only) fixes.push(write(`${only.text} = ${left}`))
    else fixes.push(write(`${left} == ${this.source.slice(tail[0]?.from ?? end, tail.at(-1)?.to ?? end)}`))
    const to = tail.at(-1)?.to ?? last.to
    this.fail('not-definable', { from: first.from, to }, { left }, tail.length > 0 ? fixes : [])
    return { type: 'expression', body: { type: 'hole', from: first.from, to: last.to } }
  }
}
