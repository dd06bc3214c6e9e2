import { parseLine } from './parser'
import { bodiesOf, childrenOf, definedNodes } from './references'
import type { Node, United } from './tree'

/**
 * Folios from before units: `10 V` with a kept V was a product, `2 rad/s` with a kept s an angle over s. Such lines
 * get the sign or the brackets that say so, and go on to mean what they did.
 */

/** The lines of a folio as they are to be written; `null` for each that stays. */
export function olderProducts(sources: readonly string[]): readonly (string | null)[] {
  const kept = new Set<string>()
  return sources.map((source) => {
    const { statement } = parseLine(source)
    const places = bodiesOf(statement).flatMap(unitedIn)
    const text = places.sort((a, b) => b.from - a.from).reduce((line, node) => written(line, node, kept), source)
    // An unknown was a factor behind a blank, and is.
    for (const { name } of definedNodes(statement)) kept[statement.type === 'unknown' ? 'delete' : 'add'](name)
    return text === source ? null : text
  })
}

function written(source: string, { operand, unit, from }: United, kept: ReadonlySet<string>): string {
  const [first, ...later] = unit.words
  const gap = { from: operand.to, to: unit.from }
  if (first && kept.has(first.text) && isNumeral(operand)) return `${source.slice(0, gap.from)}*${source.slice(gap.to)}`
  const angle = first && (first.text === 'rad' || first.text === 'deg' || first.text === '°') ? first : null
  const next = later.find(({ text }) => kept.has(text))
  if (!angle || !next) return source
  return `${source.slice(0, from)}(${source.slice(from, angle.to)})${source.slice(angle.to)}`
}

/** Digits, with a prefix or a name behind them: what a blank could stand behind in a product. */
function isNumeral(node: Node): boolean {
  return node.type === 'literal' || node.type === 'lettered'
}

function unitedIn(node: Node): United[] {
  const inner = childrenOf(node).flatMap(unitedIn)
  return node.type === 'united' ? [node, ...inner] : inner
}
