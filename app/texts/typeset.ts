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
export function typeset(latex: string, words: 'in it' | 'beside it' = 'in it'): string | null {
  const key = `${words === 'in it' ? '' : '\0'}${latex}`
  const known = kept.get(key)
  if (known !== undefined) return known
  if (!katex.value) {
    void fetchTypesetter()
    return null
  }
  const html = katex.value.renderToString(latex, {
    throwOnError: false,
    trust,
    strict: false,
    // Where the words that say it stand beside it, it is only looked at.
    output: words === 'in it' ? 'htmlAndMathml' : 'html',
    errorColor: 'inherit',
  })
  if (kept.size >= KEPT_MOST) kept.delete(kept.keys().next().value ?? '')
  kept.set(key, html)
  return html
}
