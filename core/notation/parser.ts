import type { Problem, ProblemFix } from './problem'
import { problem, write } from './problem'
import type { Token } from './tokens'
import { tokenize } from './tokens'
import type { Call, ChainSign, Comparison, NameNode, Node, Quantity, Span, Statement } from './tree'

/** A line as read: its statement, its remark, and the first thing that could not be read. */
export interface Parsed {
  readonly source: string
  readonly statement: Statement
  readonly remark: string | null
  readonly problem: Problem | null
}

/** Deepest nesting of brackets, powers and signs. */
const MAX_DEPTH = 150
/** Most terms and factors that may follow one another in a line. */
const MAX_TERMS = 800
/** Longest line, in UTF-16 units. */
export const MAX_LINE = 10_000

const COMPARISONS: ReadonlySet<string> = new Set(['==', '!=', '<', '<=', '>', '>='])

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
  const parser = new Parser(source, tokens)
  const statement = parser.statement()
  return { source, statement, remark, problem: parser.problem }
}

type Opener = '(' | '[' | '|' | '||'

class Parser {
  problem: Problem | null = null
  private at = 0
  private depth = 0
  private terms = 0
  private readonly open: { sign: Opener; token: Token }[] = []

  constructor(
    private readonly source: string,
    private readonly tokens: Token[],
  ) {
    this.token = this.peek(0)
  }

  /** The token at hand: kept, since every level of the grammar asks for it. */
  private token: Token

  private goTo(at: number): void {
    this.at = at
    this.token = this.peek(0)
  }

  private peek(ahead: number): Token {
    const index = Math.min(this.at + ahead, this.tokens.length - 1)
    const token = this.tokens[index]
    if (token === undefined) throw new Error('a token list always ends with an end token')
    return token
  }

  private get previousEnd(): number {
    return this.at > 0 ? (this.tokens[this.at - 1]?.to ?? 0) : 0
  }

  private isSign(text: string): boolean {
    return this.token.type === 'sign' && this.token.text === text
  }

  private isWord(text: string): boolean {
    return this.token.type === 'name' && this.token.text === text
  }

  private take(): Token {
    const token = this.token
    if (token.type !== 'end') this.goTo(this.at + 1)
    return token
  }

  /** Notes the first problem and skips to the end, so that every loop ends. */
  private fail(
    code: string,
    span: Span,
    data: Readonly<Record<string, string | number>> = {},
    fixes: readonly ProblemFix[] = [],
  ): Node {
    this.problem ??= problem(code, span, data, fixes)
    this.goTo(this.tokens.length - 1)
    return { type: 'hole', from: span.from, to: span.to }
  }

  statement(): Statement {
    if (this.token.type === 'end') return { type: 'empty' }
    const equals = this.topLevel('=')
    if (equals >= 0) return this.definition(equals)
    const left = this.expression()
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

  private tolerance(): { amount: Node; percent: boolean } {
    this.take()
    const amount = this.expression()
    const percent = this.token.type === 'odd' && this.token.text === '%'
    if (percent) this.take()
    return { amount, percent }
  }

  private topLevel(sign: string): number {
    let depth = 0
    for (let k = 0; k < this.tokens.length; k += 1) {
      const token = this.tokens[k]
      if (token?.type !== 'sign') continue
      if (token.text === '(' || token.text === '[') depth += 1
      else if (token.text === ')' || token.text === ']') depth -= 1
      else if (token.text === sign && depth === 0) return k
    }
    return -1
  }

  private definition(equals: number): Statement {
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
    const body = this.expression()
    this.finish()
    return parameters ? { type: 'function', name, parameters, body } : { type: 'define', name, body }
  }

  private notDefinable(first: Token, last: Token, equals: number): Statement {
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

  /** The line must end here. */
  private finish(): void {
    const token = this.token
    if (token.type === 'end' || this.problem) return
    if (token.type === 'sign' && (token.text === ')' || token.text === ']'))
      this.fail('unbalanced', token, { bracket: token.text }, [{ label: `remove ${token.text}`, replacement: '' }])
    else if (token.text === '=') this.fail('second-equals', token, {}, [write('==')])
    else if (token.text === '~~') this.fail('check-inside', token)
    else if (token.type === 'sign' && (token.text === '|' || token.text === '||'))
      this.fail('unbalanced', token, { bracket: '|' })
    else if (this.isWord('for')) this.fail('series-place', token)
    else if (this.isWord('to') || this.isWord('step')) this.fail('no-ranges-yet', token)
    else if (token.text === ',') this.fail('stray-comma', token, {}, this.decimalComma(token))
    else this.odd(token)
  }

  /** `3,5` between two numbers was probably a decimal comma. */
  private decimalComma(token: Token): ProblemFix[] {
    const before = this.tokens[this.tokens.indexOf(token) - 1]
    const after = this.tokens[this.tokens.indexOf(token) + 1]
    return before?.type === 'number' && after?.type === 'number' ? [write('.')] : []
  }

  private odd(token: Token): Node {
    const quote = token.type === 'odd' && /^["“”]/.test(token.text)
    if (quote)
      return this.fail('text-not-closed', token, {}, [
        { label: 'close the text', replacement: `${this.source.slice(token.from, token.to)}"` },
      ])
    return this.fail('odd-character', token, { character: token.text }, token.text === '@' ? [write('∠')] : [])
  }

  private deeper(read: (this: Parser) => Node): Node {
    if (this.depth >= MAX_DEPTH) return this.fail('too-deep', this.token, { limit: MAX_DEPTH })
    this.depth += 1
    const node = read.call(this)
    this.depth -= 1
    return node
  }

  /** Counts what a loop strings together: a long row of terms is a deep tree, too. */
  private another(): void {
    this.terms += 1
    if (this.terms > MAX_TERMS) this.fail('too-many-terms', this.token, { limit: MAX_TERMS })
  }

  private expression(): Node {
    return this.deeper(this.either)
  }

  private either(): Node {
    let left = this.both()
    while (this.isWord('or')) {
      this.take()
      this.another()
      const right = this.both()
      left = { type: 'logic', sign: 'or', operands: [left, right], from: left.from, to: right.to }
    }
    return left
  }

  private both(): Node {
    let left = this.negation()
    while (this.isWord('and')) {
      this.take()
      this.another()
      const right = this.negation()
      left = { type: 'logic', sign: 'and', operands: [left, right], from: left.from, to: right.to }
    }
    return left
  }

  private negation(): Node {
    if (!this.isWord('not')) return this.comparison()
    const { from } = this.take()
    const operand = this.deeper(this.negation)
    return { type: 'logic', sign: 'not', operands: [operand], from, to: operand.to }
  }

  private comparison(): Node {
    const first = this.sum()
    const rest: { sign: Comparison; node: Node }[] = []
    while (this.token.type === 'sign' && COMPARISONS.has(this.token.text)) {
      const sign = this.take().text as Comparison
      rest.push({ sign, node: this.sum() })
    }
    const last = rest.at(-1)
    return last ? { type: 'compare', first, rest, from: first.from, to: last.node.to } : first
  }

  private sum(): Node {
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
  private commaMissing(left: Node): Node {
    const { text, to } = this.token
    return this.fail('comma-missing', { from: left.to, to }, { sign: text }, [
      { label: `, ${text} two entries`, replacement: `, ${text}` },
      { label: `${text} one entry`, replacement: ` ${text} ` },
    ])
  }

  /** `5∠2*30°` and its like: both bracketings are offered, none is guessed. */
  private bracketings(polar: Node, right: Node, sign: string): Node {
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

  private slice(span: Span): string {
    return this.source.slice(span.from, span.to)
  }

  private parallel(): Node {
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
  private closesBars(): boolean {
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

  private chain(): Node {
    return this.chainAfter(this.factor())
  }

  /** `x/2 rad`: the unit may belong to 2 or to the quotient. */
  private radiansUnclear(quotient: Node, bottom: Node): Node {
    const text = this.slice(quotient)
    const top = this.source.slice(quotient.from, bottom.from)
    const span = { from: quotient.from, to: bottom.to }
    return this.fail('angle-bracketing', span, { text: this.slice(span) }, [
      write(`(${text}) rad`),
      write(`${top}(${this.slice(bottom)})`),
    ])
  }

  private chainAfter(first: Node): Node {
    const rest: { sign: ChainSign; node: Node; at: Span }[] = []
    for (;;) {
      const token = this.token
      const before = rest.at(-1)?.node ?? first
      let sign: ChainSign
      if (this.isSign('*') || this.isSign('/')) sign = this.take().text as '*' | '/'
      else if (this.isWord('mod')) {
        this.take()
        sign = 'mod'
      } else if (before.type === 'number' && multiplies(token)) sign = 'implicit'
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
          rest: [...rest, { sign, node: unit, at: token }],
          from: first.from,
          to: unit.to,
        }
        if (rest.length > 0 || !isPi(first)) return this.radiansUnclear(quotient, node)
        return this.chainAfter({ type: 'postfix', sign: 'rad', operand: quotient, from: first.from, to: node.to })
      }
      rest.push({ sign, node, at: { from: token.from, to: token.to } })
    }
    const last = rest.at(-1)
    return last ? { type: 'chain', first, rest, from: first.from, to: last.node.to } : first
  }

  private closesHere(token: Token): boolean {
    return token.text === '|' && this.open.some((o) => o.sign === '|')
  }

  private missingOperator(before: Node, token: Token): void {
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

  private factor(): Node {
    if (this.isSign('-') || this.isSign('+')) {
      const token = this.take()
      const operand = this.deeper(this.factor)
      return { type: 'sign', sign: token.text as '+' | '-', operand, from: token.from, to: operand.to }
    }
    return this.polar()
  }

  private polar(): Node {
    const magnitude = this.power()
    if (!this.isSign('/_')) return magnitude
    this.take()
    const angle = this.angleOperand()
    const node: Node = { type: 'polar', magnitude, angle, from: magnitude.from, to: angle.to }
    if (this.isSign('^') && !this.problem) return this.polarPower(magnitude, angle)
    if (this.isSign('/_')) return this.fail('second-angle', this.token)
    return node
  }

  private polarPower(magnitude: Node, angle: Node): Node {
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
  private angleOperand(): Node {
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
    const bottom: Node = { type: 'number', text: below.text, from: below.from, to: below.to }
    const span = { from: operand.from, to: below.to }
    const fraction: Node = { type: 'chain', first: operand, rest: [{ sign: '/', node: bottom, at: slash }], ...span }
    const unit = this.isSign('°') || this.isWord('deg') ? 'deg' : this.isWord('rad') ? 'rad' : null
    return unit ? { type: 'postfix', sign: unit, operand: fraction, from: span.from, to: this.take().to } : fraction
  }

  private power(): Node {
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

  private markSign(): 'T' | 'H' | '*' | null {
    if (this.isSign('*')) return '*'
    const next = this.peek(1)
    const alone = !(next.type === 'sign' && next.text === '(' && !next.spaced)
    if (alone && this.isWord('T')) return 'T'
    if (alone && this.isWord('H')) return 'H'
    return null
  }

  /** `sin^2(x)`: a number between the caret and a bracket that touches it. */
  private raisedCall(callee: NameNode | Quantity): Node | null {
    const signed = this.isSign('-') ? 1 : 0
    const number = this.peek(signed)
    const bracket = this.peek(signed + 1)
    if (number.type !== 'number' || bracket.text !== '(' || bracket.spaced) return null
    const from = this.token.from
    if (signed) this.take()
    this.take()
    const plain: Node = { type: 'number', text: number.text, from: number.from, to: number.to }
    const raised: Node = signed ? { type: 'sign', sign: '-', operand: plain, from, to: number.to } : plain
    return this.call(callee, raised)
  }

  private exponent(): Node {
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

  private postfix(): Node {
    let operand = this.primary()
    for (;;) {
      const token = this.token
      const bracket = this.isSign('(') && !token.spaced
      if (operand.type === 'postfix') this.another()
      if (bracket && (operand.type === 'name' || operand.type === 'quantity')) {
        operand = this.call(operand, null)
      } else if (this.isSign('[') && !token.spaced && operand.type !== 'number' && operand.type !== 'quantity') {
        operand = this.entry(operand)
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

  private entry(operand: Node): Node {
    const open = this.take()
    this.another()
    this.open.push({ sign: '[', token: open })
    const index = this.expression()
    const to = this.close(']', open)
    return { type: 'entry', operand, index, from: operand.from, to }
  }

  private call(callee: NameNode | Quantity, raised: Node | null): Call {
    const open = this.take()
    this.open.push({ sign: '(', token: open })
    const args: Node[] = []
    if (!this.isSign(')')) {
      args.push(this.withSeries(this.expression()))
      while (this.isSign(',')) {
        this.take()
        args.push(this.expression())
      }
    }
    const to = this.close(')', open)
    return { type: 'call', callee, raised, args, bracket: { from: open.from, to }, from: callee.from, to }
  }

  /** Takes the closing bracket, or says where it is missing. */
  private close(sign: ')' | ']' | '|' | '||', open: Token): number {
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

  private primary(): Node {
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

  private unfinished(): Node {
    const before = this.tokens[this.at - 1]
    const at = { from: this.previousEnd, to: this.token.to }
    return this.fail('unfinished', at, { after: before ? this.source.slice(before.from, before.to) : '' })
  }

  private number(): Node {
    const token = this.take()
    const run = this.token
    if (run.type === 'name' && !run.spaced && run.text !== 'deg' && run.text !== 'rad') {
      this.take()
      return { type: 'quantity', digits: token.text, run: run.text, runFrom: run.from, from: token.from, to: run.to }
    }
    return { type: 'number', text: token.text, from: token.from, to: token.to }
  }

  private name(): Node {
    const token = this.token
    if (isWordOperator(token) && !NAMES_TOO.has(token.text)) {
      return this.fail('operand-expected', token, { found: token.text })
    }
    this.take()
    return { type: 'name', name: token.text, from: token.from, to: token.to }
  }

  private signed(): Node {
    const token = this.token
    if (token.text === '(') {
      this.take()
      this.open.push({ sign: '(', token })
      const inner = this.expression()
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
  private list(): Node {
    const token = this.take()
    this.open.push({ sign: '[', token })
    const entries: Node[] = []
    if (this.isSign(']')) return this.fail('empty-list', { from: token.from, to: this.token.to })
    do {
      if (entries.length > 0) this.take()
      this.another()
      entries.push(this.withSeries(this.expression()))
    } while (this.isSign(',') && entries.at(-1)?.type !== 'series')
    const to = this.close(']', token)
    return { type: 'list', entries, from: token.from, to }
  }

  /** A body with `for k = 1 to n step 2` behind it, if that follows. */
  private withSeries(body: Node): Node {
    if (!this.isWord('for')) return body
    const word = this.take()
    const counter = this.token
    if (counter.type !== 'name') return this.fail('series-form', word)
    this.take()
    if (!this.isSign('=')) return this.fail('series-form', { from: word.from, to: counter.to })
    this.take()
    const first = this.expression()
    if (!this.isWord('to')) return this.problem ? first : this.fail('series-form', { from: word.from, to: first.to })
    this.take()
    const last = this.expression()
    const step = this.isWord('step') ? (this.take(), this.expression()) : null
    const name: NameNode = { type: 'name', name: counter.text, from: counter.from, to: counter.to }
    return { type: 'series', body, counter: name, first, last, step, from: body.from, to: (step ?? last).to }
  }

  private bars(sign: '|' | '||'): Node {
    const token = this.take()
    this.open.push({ sign, token })
    const inner = this.expression()
    const to = this.close(sign, token)
    return { type: 'bars', double: sign === '||', inner, from: token.from, to }
  }

  /** `||v||`, or two single bars that touch: `||a| + b|`. */
  private norm(): Node {
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

function parameterList(head: readonly Token[]): readonly NameNode[] | null {
  const inner = head.slice(2, -1)
  if (head[1]?.text !== '(' || head.at(-1)?.text !== ')' || inner.length === 0) return null
  const names: NameNode[] = []
  for (let k = 0; k < inner.length; k += 1) {
    const token = inner[k]
    if (token === undefined) return null
    if (k % 2 === 1) {
      if (token.text !== ',') return null
    } else if (token.type !== 'name') return null
    else names.push({ type: 'name', name: token.text, from: token.from, to: token.to })
  }
  return inner.length % 2 === 1 ? names : null
}

/** Words that follow a complete operand. `to` and `step` are names everywhere else. */
const WORD_OPERATORS: ReadonlySet<string> = new Set(['mod', 'and', 'or', 'within', 'where', 'for', 'to', 'step'])
/** Of these, the ones that can begin an operand: as names. */
const NAMES_TOO: ReadonlySet<string> = new Set(['to', 'step'])

function isWordOperator(token: Token): boolean {
  return token.type === 'name' && WORD_OPERATORS.has(token.text)
}

function startsOperand(token: Token): boolean {
  if (token.type === 'sign') return ['(', '[', '|', '||', '√'].includes(token.text)
  return token.type === 'number' || token.type === 'name' || token.type === 'text' || token.type === 'dms'
}

/** What digits multiply without a sign: a bracket or a name. */
function multiplies(token: Token): boolean {
  return (
    (token.type === 'name' && !isWordOperator(token)) ||
    (token.text === '(' && token.type === 'sign') ||
    token.text === '√'
  )
}

function isPi(node: Node): boolean {
  if (node.type === 'name') return node.name === 'pi' || node.name === 'π'
  return node.type === 'quantity' && (node.run === 'pi' || node.run === 'π')
}

/** The plain number in `4 rad`; `null` for anything else. */
function radiansOver(node: Node): Node | null {
  return node.type === 'postfix' && node.sign === 'rad' && node.operand.type === 'number' ? node.operand : null
}

function isAngle(node: Node): boolean {
  if (node.type === 'sign') return isAngle(node.operand)
  return node.type === 'dms' || (node.type === 'postfix' && node.sign !== '!')
}

function lastPolar(node: Node): Node {
  if (node.type === 'chain') return lastPolar(node.rest.at(-1)?.node ?? node.first)
  if (node.type === 'sum') return lastPolar(node.right)
  if (node.type === 'sign') return lastPolar(node.operand)
  return node
}

function endsInPolar(node: Node): boolean {
  const last = lastPolar(node)
  return last.type === 'polar'
}
