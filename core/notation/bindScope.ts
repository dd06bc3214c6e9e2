import { NOTHING } from '../values/problemData'
import type { BareCode, Code, ProblemData, Told } from '../values/problemData'
import { UsedName } from './names'
import type { Kept, Names, Used } from './names'
import { problemAt } from './problem'
import type { Problem, ProblemFix } from './problem'
import { isLetter } from './syntax'
import type { NameNode, Span } from './tree'
import { CONSTANTS, RESERVED } from './words'

export const NO_NAMES: ReadonlySet<string> = new Set()
export const NO_HINTS: readonly Problem[] = []

/** What a line that is bound sees of names, and what is found out of it: which it used, what is wrong, what is to be hinted at. */
export class BindScope {
  problem: Problem | null = null
  /** Made only when there is something to keep: most lines have no hint. */
  hints: readonly Problem[] = NO_HINTS
  used: Used | null = null
  locals: ReadonlySet<string>

  constructor(
    readonly source: string,
    readonly names: Names,
    parameters: readonly NameNode[],
    /** The name that the line itself defines. */
    readonly self: string | null,
  ) {
    this.locals = parameters.length === 0 ? NO_NAMES : new Set(parameters.map((p) => p.name))
  }

  fail<C extends BareCode>(code: C, span: Span): void
  fail<C extends Code>(code: C, span: Span, data: Readonly<ProblemData[C]>, fixes?: readonly ProblemFix[]): void
  fail(code: Code, span: Span, data: Told['data'] = NOTHING, fixes: readonly ProblemFix[] = []): void {
    this.problem ??= problemAt(span, { code, data }, fixes)
  }

  hint<C extends Code>(code: C, span: Span, data: Readonly<ProblemData[C]>, fixes: readonly ProblemFix[] = []): void {
    if (!this.hints.some((h) => h.code === code && h.from === span.from))
      this.hints = [...this.hints, problemAt(span, { code, data }, fixes)]
  }

  use(name: string, kept: Kept | null): void {
    for (let used = this.used; used !== null; used = used.before) if (used.name === name) return
    this.used = new UsedName(name, kept, this.used)
  }

  slice(span: Span): string {
    return this.source.slice(span.from, span.to)
  }

  /** Refuses names that the notation itself uses. */
  definable(name: NameNode): void {
    const { name: text } = name
    if (text === this.names.letter) this.fail('letter-reserved', name, { name: text, other: text === 'j' ? 'i' : 'j' })
    else if (RESERVED.has(text)) this.fail('reserved-word', name, { name: text })
    else if (CONSTANTS.get(text)) this.fail('constant-reserved', name, { name: text })
    else if (this.names.builtIn(text)) this.fail('function-reserved', name, { name: text })
    else if (text.includes('.')) this.fail('not-definable', name, { left: text })
  }

  isImaginary(name: string): boolean {
    if (name === this.names.letter) return true
    return isLetter(name) && !this.locals.has(name) && this.names.above(name) === null
  }

  isName(name: string): boolean {
    return this.locals.has(name) || this.names.above(name) !== null || CONSTANTS.get(name) !== undefined
  }

  isFunction(name: string): boolean {
    if (this.locals.has(name)) return false
    const kept = this.names.above(name)
    return kept ? kept.kind === 'function' : this.names.builtIn(name) !== null
  }
}
