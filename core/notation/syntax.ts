import type { Token } from './tokens'
import type { NameNode, Node } from './tree'

/** Small questions about tokens and raw nodes that the parser asks. */

export const COMPARISONS: ReadonlySet<string> = new Set(['==', '!=', '<', '<=', '>', '>='])

export function parameterList(head: readonly Token[]): readonly NameNode[] | null {
  const inner = head.slice(2, -1)
  if (head[1]?.text !== '(' || head.at(-1)?.text !== ')' || inner.length === 0) return null
  const names: NameNode[] = []
  for (let k = 0; k < inner.length; k += 1) {
    const token = inner[k]
    if (token === undefined) return null
    if (k % 2 === 1) {
      if (token.text !== ',') return null
    } else if (token.type !== 'name') return null
    else names.push({ type: 'name', name: token.text, from: token.from, to: token.to })
  }
  return inner.length % 2 === 1 ? names : null
}

/** Words that follow a complete operand. `to`, `step`, `count` and `per` are names everywhere else. */
export const WORD_OPERATORS: ReadonlySet<string> = new Set([
  'mod',
  'and',
  'or',
  'within',
  'where',
  'for',
  'to',
  'step',
  'count',
  'per',
])
/** Of these, the ones that can begin an operand: as names. */
export const NAMES_TOO: ReadonlySet<string> = new Set(['to', 'step', 'count', 'per'])

export function isWordOperator(token: Token): boolean {
  return token.type === 'name' && WORD_OPERATORS.has(token.text)
}

const OPENING: ReadonlySet<string> = new Set(['(', '[', '|', '||', '√'])

export function startsOperand(token: Token): boolean {
  if (token.type === 'sign') return OPENING.has(token.text)
  return token.type === 'number' || token.type === 'name' || token.type === 'text' || token.type === 'dms'
}

/** What digits multiply without a sign: a bracket or a name. */
export function multiplies(token: Token): boolean {
  return (
    (token.type === 'name' && !isWordOperator(token)) ||
    (token.text === '(' && token.type === 'sign') ||
    token.text === '√'
  )
}

export function isPi(node: Node): boolean {
  if (node.type === 'name') return node.name === 'pi' || node.name === 'π'
  return node.type === 'quantity' && (node.run === 'pi' || node.run === 'π')
}

/** The plain number in `4 rad`; `null` for anything else. */
export function radiansOver(node: Node): Node | null {
  return node.type === 'postfix' && node.sign === 'rad' && node.operand.type === 'literal' ? node.operand : null
}

/** True for a factor that may turn out to be digits and what they multiply: `2x`, `2x^2`, `j(2 + 3)`. */
export function comesApart(node: Node): boolean {
  switch (node.type) {
    case 'quantity':
    case 'call':
      return true
    case 'power':
      return comesApart(node.base)
    case 'postfix':
    case 'mark':
      return comesApart(node.operand)
    case 'polar':
      return comesApart(node.magnitude)
    default:
      return false
  }
}

export function isAngle(node: Node): boolean {
  if (node.type === 'sign') return isAngle(node.operand)
  return node.type === 'dms' || (node.type === 'postfix' && node.sign !== '!')
}

export function lastPolar(node: Node): Node {
  if (node.type === 'chain') return lastPolar(node.rest.at(-1)?.node ?? node.first)
  if (node.type === 'product') return lastPolar(node.right)
  if (node.type === 'sum') return lastPolar(node.right)
  if (node.type === 'sign') return lastPolar(node.operand)
  return node
}

export function endsInPolar(node: Node): boolean {
  const last = lastPolar(node)
  return last.type === 'polar'
}
