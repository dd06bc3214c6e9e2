import { ExpressionParser } from './expressions'
import type { Problem, ProblemFix } from './problem'
import { problem, write } from './problem'
import { isName, Tok } from './tokenKinds'
import { MAX_LINE } from './tokenRows'
import type { Between, NameNode, Near, Node, Span, Statement, UnitTerm } from './tree'
import * as N from './nodes'
import { DefineStatement, ExpressionStatement } from './statements'

const RANGE_WORDS: ReadonlySet<string> = new Set(['to', 'step', 'count', 'per'])

/** A line as read: its statement, its remark, and the first thing that could not be read. */
export interface Parsed {
  readonly source: string
  readonly statement: Statement
  readonly remark: string | null
  readonly problem: Problem | null
}

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
  return reader.read(source, NO_PLACES)
}

/** Reads a line of a group of equations as one of them. */
export function parseEquation(source: string, products: ReadonlySet<number> = NO_PLACES): Parsed {
  return reader.readEquation(source, products)
}

/** Reads a line again in which products are meant where units could stand. */
export function parseProducts(source: string, products: ReadonlySet<number>): Parsed {
  return reader.read(source, products)
}

const NO_PLACES: ReadonlySet<number> = new Set()

class ParsedLine implements Parsed {
  constructor(
    readonly source: string,
    readonly statement: Statement,
    readonly remark: string | null,
    readonly problem: Problem | null,
  ) {}
}

class StatementParser extends ExpressionParser {
  read(source: string, products: ReadonlySet<number>): Parsed {
    this.start(source)
    this.products = products
    return this.line(source, this.statement())
  }

  /** Reads a line as an equation: whatever stands on either side. */
  readEquation(source: string, products: ReadonlySet<number>): Parsed {
    this.start(source)
    this.products = products
    const left = this.whole()
    if (this.is(Tok.equals)) this.take()
    else if (!this.problem) this.finish()
    const right = this.whole()
    this.finish()
    return this.line(source, { type: 'equation', left, right })
  }

  private line(source: string, statement: Statement): Parsed {
    const { remarkAt } = this.tokens
    const remark = remarkAt < 0 ? null : source.slice(remarkAt + 1).trim()
    return new ParsedLine(source, statement, remark, this.problem)
  }

  private statement(): Statement {
    if (this.is(Tok.end)) return { type: 'empty' }
    if (this.is(Tok.sought) && isName(this.peek(1))) return { type: 'sought', names: this.givenNames(() => {}) }
    if (this.is(Tok.determine) && (this.peek(1) === Tok.end || isName(this.peek(1)))) return this.determine()
    const equals = this.tokens.equals ? this.topLevel(Tok.equals) : -1
    if (equals >= 0) return this.definition(equals)
    if (this.is(Tok.unknown) && isName(this.peek(1))) return this.unknowns()
    const left = this.whole()
    if (this.is(Tok.approximately)) return this.check(left)
    const shown = this.shownIn()
    this.finish()
    return new ExpressionStatement(left, this.free, shown)
  }

  /** `in kW` at the end of a line: the unit that its value is shown in. */
  private shownIn(): UnitTerm | null {
    if (!this.is(Tok.name) || !this.asksForUnit()) return null
    this.goTo(this.at + 1)
    return this.unitTerm(true)
  }

  /** The unit that an unknown is declared with: `unknown s in 1/s`. */
  private declaredIn(): UnitTerm | null {
    if (!this.is(Tok.name) || this.text !== 'in') return null
    const word = this.span()
    this.goTo(this.at + 1)
    const unit = this.unitTerm(true)
    if (!unit) this.fail('unit-expected', word)
    return unit
  }

  private check(left: Node): Statement {
    this.take()
    const right = this.expression()
    const within = this.is(Tok.within) ? this.tolerance() : null
    this.finish()
    return { type: 'check', left, right, within }
  }

  /** `unknown s, a, b` */
  private unknowns(): Statement {
    const units: (UnitTerm | null)[] = []
    const names = this.givenNames(() => units.push(this.declaredIn()))
    return { type: 'unknown', names, units }
  }

  /** Names after the word of a line; `after` reads what may follow each. */
  private givenNames(after: () => void): readonly NameNode[] {
    const names: NameNode[] = []
    do {
      this.take()
      const name = this.givenName()
      if (name === null) {
        this.unfinished()
        break
      }
      this.another()
      names.push(name)
      after()
    } while (this.is(Tok.comma))
    this.betweenNames(names.at(-1))
    this.finish()
    return names
  }

  /** `sought x y`: what stands behind a name is another one. */
  private betweenNames(before: NameNode | undefined): void {
    // `to` and its like are words of a range: nobody means names by them.
    if (!before || !this.is(Tok.name) || RANGE_WORDS.has(before.name) || RANGE_WORDS.has(this.text)) return
    const here = this.span()
    const gap = { from: this.previousEnd, to: here.from }
    this.fail('names-comma', gap, { left: before.name, right: this.slice(here) }, [{ label: ', comma', replacement: ', ' }]) // prettier-ignore
  }

  /** `determine`, `determine near I1 = 2 A, I2 = 1 A`, `determine from t = 0 to 5 ms`. */
  private determine(): Statement {
    const near: Near[] = []
    const between: Between[] = []
    this.take()
    while (!this.problem && (this.isWord('near') || this.isWord('from'))) {
      const word = { span: this.span(), text: this.text }
      do {
        this.take()
        this.another()
        const name = this.givenName()
        if (name === null || !this.is(Tok.equals)) {
          if (!this.problem) this.fail('determine-form', name ? { from: word.span.from, to: name.to } : word.span)
          break
        }
        this.take()
        const value = this.expression()
        if (this.problem) break
        if (word.text === 'near') near.push({ name, value })
        else if (value.type === 'range' && value.by === null)
          between.push({ name, first: value.first, last: value.last })
        else this.fail('determine-form', { from: word.span.from, to: value.to })
      } while (this.is(Tok.comma))
    }
    this.finish()
    return { type: 'determine', near, between }
  }

  private isWord(word: string): boolean {
    return this.is(Tok.name) && this.text === word
  }

  private tolerance(): { amount: Node; percent: boolean } {
    this.take()
    const amount = this.expression()
    if (amount.type === 'united' && amount.unit.unit.text === '%') return { amount: amount.operand, percent: true }
    const percent = this.is(Tok.odd) && this.text === '%'
    if (percent) this.take()
    return { amount, percent }
  }

  /** Where a sign stands outside all brackets; −1 where it does not. */
  private topLevel(sign: Tok): number {
    let depth = 0
    for (let k = 0; k < this.tokens.count; k += 1) {
      const kind = this.tokens.kind(k)
      if (kind === Tok.open || kind === Tok.openSquare) depth += 1
      else if (kind === Tok.close || kind === Tok.closeSquare) depth -= 1
      else if (depth !== 0) continue
      else if (kind === sign) return k
      // Behind where an equals sign gives a value, and keeps no name.
      else if (kind === Tok.where && k > 0) return -1
    }
    return -1
  }

  private definition(equals: number): Statement {
    if (equals === 0) {
      const sign = this.span()
      return new ExpressionStatement(this.fail('nothing-defined', sign), true, null)
    }
    const parameters = equals > 1 ? this.parameterList(equals) : null
    if (!isName(this.kind) || (equals > 1 && parameters === null)) return this.notDefinable(equals)
    const { from, to, text } = this
    const name: NameNode = N.name(text, from, to)
    this.goTo(equals + 1)
    const body = this.whole()
    const shown = parameters ? null : this.shownIn()
    this.finish()
    return parameters ? { type: 'function', name, parameters, body } : new DefineStatement(name, body, this.free, shown)
  }

  /** The names in `f(x, y) =`; `null` where something else stands before the equals sign. */
  private parameterList(equals: number): readonly NameNode[] | null {
    const { tokens } = this
    const last = equals - 1
    if (tokens.kind(1) !== Tok.open || tokens.kind(last) !== Tok.close || last % 2 === 0) return null
    const names: NameNode[] = []
    for (let k = 2; k < last; k += 2) {
      if (!isName(tokens.kind(k)) || (k > 2 && tokens.kind(k - 1) !== Tok.comma)) return null
      names.push(N.name(tokens.text(k), tokens.from(k), tokens.to(k)))
    }
    return names.length > 0 ? names : null
  }

  private notDefinable(equals: number): Statement {
    const { tokens } = this
    const end = tokens.count - 1
    const head: Span = { from: tokens.from(0), to: tokens.to(equals - 1) }
    const left = this.slice(head)
    const right = this.source.slice(tokens.from(equals + 1), tokens.to(end - 1))
    // The whole statement is the span, so that the sides can be exchanged.
    const whole = end - equals === 2 && isName(tokens.kind(equals + 1))
    const fixes: ProblemFix[] = equals + 1 === end ? [] : [write(whole ? `${right} = ${left}` : `${left} == ${right}`)]
    // A·x = b of matrices outside of a group: the x that solves it.
    const factors = /^([\p{L}_][\p{L}\p{Nd}_]*)\s*[*·]\s*([\p{L}_][\p{L}\p{Nd}_]*)$/u.exec(left)
    if (factors && right !== '') fixes.push(write(`${factors[2]} = solve(${factors[1]}, ${right})`))
    const to = equals + 1 === end ? head.to : tokens.to(end - 1)
    this.fail('not-definable', { from: head.from, to }, { left }, fixes)
    return new ExpressionStatement(N.hole(head.from, head.to), true, null)
  }
}

/** Every line is read by one reader. */
const reader = new StatementParser()
