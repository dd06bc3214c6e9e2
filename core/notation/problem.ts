import { NOTHING } from '../values/problemData'
import type { BareCode, Code, ProblemData, Told } from '../values/problemData'
import type { Span } from './tree'

/**
 * Errors and hints as data: a code with what its sentence needs, and the span they are about.
 * The sentences stand in `core/sentences/`.
 */
export interface Problem extends Told {
  /** What the corrections take the place of; where it is narrower, what is wrong itself is {@link at}. */
  readonly from: number
  readonly to: number
  readonly at?: Span
  /** Ready corrections, each the text that takes the place of the span. */
  readonly fixes: readonly ProblemFix[]
  /** A spelling that was brought along, which the sentence is about instead. */
  readonly brought?: Told
}

export interface ProblemFix {
  readonly label: string
  readonly replacement: string
  /** LaTeX of the reading that it leads to, once it has been evaluated. */
  readonly reading?: string
}

export function problem<C extends BareCode>(code: C, span: Span): Problem
export function problem<C extends Code>(
  code: C,
  span: Span,
  data: Readonly<ProblemData[C]>,
  fixes?: readonly ProblemFix[],
): Problem
export function problem(
  code: Code,
  span: Span,
  data: Told['data'] = NOTHING,
  fixes: readonly ProblemFix[] = [],
): Problem {
  return { code, from: span.from, to: span.to, data, fixes }
}

/** The problem that something told is, at a place. */
export function problemAt(span: Span, { code, data }: Told, fixes: readonly ProblemFix[] = []): Problem {
  return { code, from: span.from, to: span.to, data, fixes }
}

/** A fix whose label is what it writes. */
export function write(replacement: string): ProblemFix {
  return { label: replacement.trim(), replacement }
}
