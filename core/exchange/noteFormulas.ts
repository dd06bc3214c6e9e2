import { noteMath } from '../views/noteMath'
import { isSafeMath } from './texText'

/** `$…$` inside a line and `$$…$$`: no blank next to the inner side of a single dollar. */
const FORMULA = /\$\$([^$]+)\$\$|\$(?!\s)([^$\n]*[^\s$\n])\$(?!\d)/g

/** Marks that no text has stand in the place of formulas while a note is read as Markdown. */
const mark = (k: number): string => `\uE000${k}\uE001`
export const HELD = /\uE000(\d+)\uE001/g

export interface HeldFormulas {
  readonly text: string
  readonly formulas: readonly string[]
}

/**
 * A note with its formulas taken out. `write` writes one: as LaTeX, or `null` where it is neither of our notation nor
 * LaTeX that cannot fail; where it gives `null` itself, the text stays.
 */
export function holdFormulas(
  text: string,
  letter: 'i' | 'j',
  write: (latex: string | null, own: string, whole: string) => string | null,
): HeldFormulas {
  const formulas: string[] = []
  const held = text.replace(FORMULA, (whole, display: string | undefined, inline: string | undefined) => {
    const own = (display ?? inline ?? '').trim()
    const written = write(noteMath(own, letter) ?? (isSafeMath(own) ? own : null), own, whole)
    if (written === null) return whole
    formulas.push(written)
    return mark(formulas.length - 1)
  })
  return { text: held, formulas }
}
