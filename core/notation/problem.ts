/**
 * Errors and hints as data: a code, the span they are about, and what the
 * sentence needs. Sentences are made in one place, `sentences.ts`.
 */
export interface Problem {
  readonly code: string
  /** What the corrections take the place of; where it is narrower, what is wrong itself is {@link at}. */
  readonly from: number
  readonly to: number
  readonly at?: { readonly from: number; readonly to: number }
  readonly data: Readonly<Record<string, string | number>>
  /** Ready corrections, each the text that takes the place of the span. */
  readonly fixes: readonly ProblemFix[]
}

export interface ProblemFix {
  readonly label: string
  readonly replacement: string
  /** LaTeX of the reading that it leads to, once it has been evaluated. */
  readonly reading?: string
}

export function problem(
  code: string,
  span: { readonly from: number; readonly to: number },
  data: Readonly<Record<string, string | number>> = {},
  fixes: readonly ProblemFix[] = [],
): Problem {
  return { code, from: span.from, to: span.to, data, fixes }
}

/** A fix whose label is what it writes. */
export function write(replacement: string): ProblemFix {
  return { label: replacement.trim(), replacement }
}
