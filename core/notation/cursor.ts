import { problem, write } from './problem'
import type { Problem, ProblemFix } from './problem'
import type { Token } from './tokens'
import type { Node, Span } from './tree'

/** Deepest nesting of brackets, powers and signs. */
export const MAX_DEPTH = 150
/** Most terms and factors that may follow one another in a line. */
const MAX_TERMS = 800

const RANGE_WORDS: ReadonlySet<string> = new Set(['to', 'step', 'count', 'per'])

export type Opener = '(' | '[' | '|' | '||'

/** A place in the tokens of a line, what is open there, and the first problem met. */
export class Cursor {
  problem: Problem | null = null
  protected at = 0
  protected depth = 0
  protected terms = 0
  protected readonly open: { sign: Opener; token: Token }[] = []

  /** The token at hand: kept, since every level of the grammar asks for it. */
  protected token: Token

  constructor(
    protected readonly source: string,
    protected readonly tokens: Token[],
  ) {
    this.token = this.peek(0)
  }

  protected goTo(at: number): void {
    this.at = at
    this.token = this.peek(0)
  }

  protected peek(ahead: number): Token {
    const index = Math.min(this.at + ahead, this.tokens.length - 1)
    const token = this.tokens[index]
    if (token === undefined) throw new Error('a token list always ends with an end token')
    return token
  }

  protected get previousEnd(): number {
    return this.at > 0 ? (this.tokens[this.at - 1]?.to ?? 0) : 0
  }

  protected isSign(text: string): boolean {
    return this.token.type === 'sign' && this.token.text === text
  }

  protected isWord(text: string): boolean {
    return this.token.type === 'name' && this.token.text === text
  }

  protected take(): Token {
    const token = this.token
    if (token.type !== 'end') this.goTo(this.at + 1)
    return token
  }

  /** Notes the first problem and skips to the end, so that every loop ends. */
  protected fail(
    code: string,
    span: Span,
    data: Readonly<Record<string, string | number>> = {},
    fixes: readonly ProblemFix[] = [],
  ): Node {
    this.problem ??= problem(code, span, data, fixes)
    this.goTo(this.tokens.length - 1)
    return { type: 'hole', from: span.from, to: span.to }
  }

  protected slice(span: Span): string {
    return this.source.slice(span.from, span.to)
  }

  protected tooDeep(): Node {
    return this.fail('too-deep', this.token, { limit: MAX_DEPTH })
  }

  protected deeper(read: () => Node): Node {
    if (this.depth >= MAX_DEPTH) return this.tooDeep()
    this.depth += 1
    const node = read.call(this)
    this.depth -= 1
    return node
  }

  /** Counts what a loop strings together: a long row of terms is a deep tree, too. */
  protected another(): void {
    this.terms += 1
    if (this.terms > MAX_TERMS) this.fail('too-many-terms', this.token, { limit: MAX_TERMS })
  }

  /** The line must end here. */
  protected finish(): void {
    const token = this.token
    if (token.type === 'end' || this.problem) return
    if (token.type === 'sign' && (token.text === ')' || token.text === ']'))
      this.fail('unbalanced', token, { bracket: token.text }, [{ label: `remove ${token.text}`, replacement: '' }])
    else if (token.text === '=') this.fail('second-equals', token, {}, [write('==')])
    else if (token.text === '~~') this.fail('check-inside', token)
    else if (token.type === 'sign' && (token.text === '|' || token.text === '||'))
      this.fail('unbalanced', token, { bracket: '|' })
    else if (this.isWord('for')) this.fail('series-place', token)
    else if (token.type === 'name' && RANGE_WORDS.has(token.text)) this.fail('range-form', token, { word: token.text })
    else if (this.isWord('where')) this.fail('where-bracket', token)
    else if (token.text === ',') this.fail('stray-comma', token, {}, this.decimalComma(token))
    else this.odd(token)
  }

  /** `3,5` between two numbers was probably a decimal comma. */
  protected decimalComma(token: Token): ProblemFix[] {
    const before = this.tokens[this.tokens.indexOf(token) - 1]
    const after = this.tokens[this.tokens.indexOf(token) + 1]
    return before?.type === 'number' && after?.type === 'number' ? [write('.')] : []
  }

  protected odd(token: Token): Node {
    const quote = token.type === 'odd' && /^["“”]/.test(token.text)
    if (quote)
      return this.fail('text-not-closed', token, {}, [
        { label: 'close the text', replacement: `${this.source.slice(token.from, token.to)}"` },
      ])
    return this.fail('odd-character', token, { character: token.text }, token.text === '@' ? [write('∠')] : [])
  }
}
