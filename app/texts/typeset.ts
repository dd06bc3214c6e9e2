import katex from 'katex'

const kept = new Map<string, string>()
const KEPT_MOST = 2_000

/** Only the marks that the core itself writes are trusted. */
function trust(context: { readonly command: string }): boolean {
  return context.command === '\\htmlData' || context.command === '\\htmlClass'
}

/** LaTeX → HTML with MathML for screen readers; remembered, since lines are drawn again and again. */
export function typeset(latex: string): string {
  const known = kept.get(latex)
  if (known !== undefined) return known
  const html = katex.renderToString(latex, {
    throwOnError: false,
    trust,
    strict: false,
    output: 'htmlAndMathml',
    errorColor: 'inherit',
  })
  if (kept.size >= KEPT_MOST) kept.delete(kept.keys().next().value ?? '')
  kept.set(latex, html)
  return html
}
