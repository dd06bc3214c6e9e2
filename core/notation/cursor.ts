import { NOTHING } from '../values/problemData'
import type { BareCode, Code, Told } from '../values/problemData'
import * as N from './nodes'
import { problemAt, write } from './problem'
import type { Problem, ProblemFix } from './problem'
import { Tok } from './tokenKinds'
import { endAt, kindAt, startAt } from './tokenRows'
import { Tokens } from './tokens'
import type { Node, Span } from './tree'

/** Deepest nesting of brackets, powers and signs. */
const MAX_DEPTH = 150
/** Most terms and factors that may follow one another in a line. */
const MAX_TERMS = 800

/** What can be open: brackets and bars. */
export type Opener = Tok.open | Tok.openSquare | Tok.bar | Tok.parallel

/**
 * A place in the tokens of a line, what is open there, and the first problem met.
 * One cursor reads line after line: making it costs as much as reading a short one.
 */
export class Cursor {
  problem: Problem | null = null
  protected readonly tokens = new Tokens()
  protected source = ''
  protected at = 0
  protected depth = 0
  protected terms = 0
  /** What was opened last and is still open; `end` where nothing is. */
  protected opener: Opener | Tok.end = Tok.end
  /** How many single bars, and how many brackets, are open. */
  protected openBars = 0
  protected openBrackets = 0
  /** True until something is read that depends on what is kept, or that binding may have a hint about. */
  protected free = true
  /** True once the line has a factor that may come apart, and once it has an angle or ∠: most lines have neither. */
  protected apart = false
  protected angled = false
  /** What the token at hand is: kept, since every level of the grammar asks for it. */
  protected kind: Tok = Tok.end

  protected start(source: string): void {
    this.source = source
    this.tokens.read(source)
    this.problem = null
    this.depth = 0
    this.terms = 0
    this.free = true
    this.apart = false
    this.angled = false
    this.opener = Tok.end
    this.openBars = 0
    this.openBrackets = 0
    this.goTo(0)
  }

  protected goTo(at: number): void {
    this.at = at
    this.kind = kindAt(at)
  }

  protected is(kind: Tok): boolean {
    return this.kind === kind
  }

  /** What a token further on is. */
  protected peek(ahead: number): Tok {
    return kindAt(this.at + ahead)
  }

  protected get from(): number {
    return startAt(this.at)
  }

  protected get to(): number {
    return endAt(this.at)
  }

  protected get spaced(): boolean {
    return this.tokens.spaced(this.at)
  }

  protected get text(): string {
    return this.tokens.text(this.at)
  }

  protected span(at: number = this.at): Span {
    return { from: this.tokens.from(at), to: this.tokens.to(at) }
  }

  protected get previousEnd(): number {
    return this.at > 0 ? this.tokens.to(this.at - 1) : 0
  }

  /** Goes on to the next token; where the one left behind ends. */
  protected take(): number {
    const { at } = this
    if (this.kind !== Tok.end) this.goTo(at + 1)
    return endAt(at)
  }

  /** Takes an opening sign; what was open before it, for {@link left}. */
  protected enter(opener: Opener): Opener | Tok.end {
    const outer = this.opener
    this.opener = opener
    if (opener === Tok.bar) this.openBars += 1
    else if (opener !== Tok.parallel) this.openBrackets += 1
    this.take()
    return outer
  }

  /** What was opened last is open no more. */
  protected left(outer: Opener | Tok.end): void {
    if (this.opener === Tok.bar) this.openBars -= 1
    else if (this.opener !== Tok.parallel) this.openBrackets -= 1
    this.opener = outer
  }

  /** Notes the first problem and skips to the end, so that every loop ends. */
  protected fail<C extends BareCode>(code: C, span: Span, data?: Told<C>['data'], fixes?: readonly ProblemFix[]): Node
  protected fail<C extends Code>(code: C, span: Span, data: Told<C>['data'], fixes?: readonly ProblemFix[]): Node
  protected fail(code: Code, span: Span, data: Told['data'] = NOTHING, fixes: readonly ProblemFix[] = []): Node {
    this.problem ??= problemAt(span, { code, data }, fixes)
    this.goTo(this.tokens.count - 1)
    return N.hole(span.from, span.to)
  }

  protected slice(span: Span): string {
    return this.source.slice(span.from, span.to)
  }

  /** Goes a level deeper; false where that would be too deep. Whoever goes down comes up again. */
  protected down(): boolean {
    if (this.depth >= MAX_DEPTH) return false
    this.depth += 1
    return true
  }

  protected up(): void {
    this.depth -= 1
  }

  protected tooDeep(): Node {
    return this.fail('too-deep', this.span(), { limit: MAX_DEPTH })
  }

  /** Counts what a loop strings together: a long row of terms is a deep tree, too. */
  protected another(): void {
    this.terms += 1
    if (this.terms > MAX_TERMS) this.tooMany()
  }

  private tooMany(): void {
    this.fail('too-many-terms', this.span(), { limit: MAX_TERMS })
  }

  /** The line must end here. */
  protected finish(): void {
    if (!this.is(Tok.end) && !this.problem) this.wrongEnd()
  }

  private wrongEnd(): void {
    const { kind, text } = this
    const here = this.span()
    switch (kind) {
      case Tok.close:
      case Tok.closeSquare:
        this.fail('unbalanced', here, { bracket: text }, [{ label: `remove ${text}`, replacement: '' }])
        return
      case Tok.equals:
        this.fail('second-equals', here, {}, [write('==')])
        return
      case Tok.approximately:
        this.fail('check-inside', here)
        return
      case Tok.bar:
      case Tok.parallel:
        this.fail('unbalanced', here, { bracket: '|' })
        return
      case Tok.for:
        this.fail('series-place', here)
        return
      case Tok.where:
        this.fail('where-bracket', here)
        return
      case Tok.comma:
        this.fail('stray-comma', here, {}, this.decimalComma())
        return
      case Tok.to:
      case Tok.step:
      case Tok.count:
      case Tok.along:
      case Tok.per:
        this.fail('range-form', here, { word: text })
        return
      default:
        this.odd()
    }
  }

  /** `3,5` between two numbers was probably a decimal comma. */
  private decimalComma(): ProblemFix[] {
    const between = this.tokens.kind(this.at - 1) === Tok.number && this.peek(1) === Tok.number
    return between ? [write('.')] : []
  }

  protected odd(): Node {
    const here = this.span()
    const { kind, text } = this
    if (kind === Tok.odd && /^["“”]/.test(text))
      return this.fail('text-not-closed', here, {}, [{ label: 'close the text', replacement: `${text}"` }])
    return this.fail('odd-character', here, { character: text }, kind === Tok.at ? [write('∠')] : [])
  }
}
