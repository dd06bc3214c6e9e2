import type { Node } from './tree'

/**
 * The line with the unit written behind every term that was read in the unit of
 * the conventions: `sin(30)` becomes `sin(30°)`, `5∠a + b` keeps its structure.
 */
export function stampUnit(source: string, bare: ReadonlySet<Node>, unit: 'deg' | 'rad'): string {
  const terms = [...bare].sort((a, b) => b.from - a.from)
  let text = source
  let limit = source.length + 1
  for (const term of terms) {
    // A term inside one that is stamped already cannot be stamped again.
    if (term.to > limit) continue
    limit = term.from
    const inner = source.slice(term.from, term.to)
    const sign = unit === 'deg' ? '°' : ' rad'
    text = `${text.slice(0, term.from)}${stamped(term, inner, sign)}${text.slice(term.to)}`
  }
  return text
}

function stamped(term: Node, inner: string, sign: string): string {
  const operand = term.type === 'sign' ? term.operand : term
  const simple = ['literal', 'constant', 'name', 'group', 'apply'].includes(operand.type)
  return simple ? `${inner}${sign}` : `(${inner})${sign}`
}
