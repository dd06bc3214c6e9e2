import { inverseOf, standardName, typesettingOf } from '../functions/registry'
import { bindStatement } from '../notation/bind'
import { statementToLatex } from '../notation/latex'
import { parseLine } from '../notation/parser'

/**
 * Mathematics inside a note as LaTeX, from our own notation; `null` where the
 * text is not ours (it has a backslash, or cannot be read): then it is LaTeX already.
 */
export function noteMath(text: string, letter: 'i' | 'j'): string | null {
  if (/[\\{}]/.test(text)) return null
  const parsed = parseLine(text)
  if (parsed.problem || parsed.statement.type === 'empty') return null
  // Names need not be kept anywhere: a note only speaks of them.
  const bound = bindStatement(text, parsed.statement, {
    letter,
    above: () => null,
    below: () => null,
    anywhere: () => false,
    builtIn: standardName,
    inverseOf,
    near: () => [],
  })
  return statementToLatex(parsed.statement, bound, {
    letter,
    bare: new Set(),
    angleUnit: 'deg',
    grouping: false,
    typesetting: typesettingOf,
  })
}
