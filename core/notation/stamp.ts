import type { Node } from './tree'

/** Text put in at a place; of several at one place those of the inner term stand next to it. */
interface Insertion {
  readonly at: number
  readonly text: string
  readonly closes: boolean
  readonly length: number
}

/**
 * The line with the unit written behind every term that was read in the unit of
 * the conventions: `sin(30)` becomes `sin(30°)`, `5∠a + b` keeps its structure.
 */
export function stampUnit(source: string, bare: ReadonlySet<Node>, unit: 'deg' | 'rad'): string {
  const sign = unit === 'deg' ? '°' : ' rad'
  const terms = new Map([...bare].flatMap(entriesOf).map((term) => [`${term.from} ${term.to}`, term]))
  const insertions = [...terms.values()].flatMap((term) => around(term, sign))
  insertions.sort(
    (a, b) =>
      a.at - b.at || Number(b.closes) - Number(a.closes) || (a.closes ? a.length - b.length : b.length - a.length),
  )
  let text = ''
  let at = 0
  for (const insertion of insertions) {
    text += source.slice(at, insertion.at) + insertion.text
    at = insertion.at
  }
  return text + source.slice(at)
}

/** A vector that is written out takes the unit entry by entry. */
function entriesOf(term: Node): readonly Node[] {
  const listed = term.type === 'list' && term.entries.every((entry) => entry.type !== 'list' && entry.type !== 'series')
  return listed ? term.entries : [term]
}

function around(term: Node, sign: string): readonly Insertion[] {
  const operand = term.type === 'sign' ? term.operand : term
  const simple = ['literal', 'constant', 'name', 'group', 'apply'].includes(operand.type)
  const length = term.to - term.from
  const behind = { at: term.to, text: simple ? sign : `)${sign}`, closes: true, length }
  return simple ? [behind] : [{ at: term.from, text: '(', closes: false, length }, behind]
}
