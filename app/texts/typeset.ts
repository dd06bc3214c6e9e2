import { shallowRef } from 'vue'

type Katex = (typeof import('katex'))['default']

/** What typesets: it comes beside the page and not before it, while the lines are still being reckoned. */
const katex = shallowRef<Katex | null>(null)

export async function fetchTypesetter(): Promise<void> {
  try {
    katex.value ??= (await import('katex')).default
  } catch {
    // Without it lines stand as they were typed; what is drawn next asks for it again.
  }
}

const kept = new Map<string, string>()
const KEPT_MOST = 2_000

/** Only the marks that the core itself writes are trusted. */
function trust(context: { readonly command: string }): boolean {
  return context.command === '\\htmlData' || context.command === '\\htmlClass'
}

/**
 * LaTeX → HTML with MathML for screen readers; remembered, since lines are drawn again and again. `null` until what
 * typesets is there: whoever draws is told when it has come.
 */
export function typeset(latex: string): string | null {
  const known = kept.get(latex)
  if (known !== undefined) return known
  if (!katex.value) {
    void fetchTypesetter()
    return null
  }
  const html = katex.value.renderToString(latex, {
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
