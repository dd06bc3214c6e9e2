import type { Node } from './tree'

/** Small questions about raw nodes that the parser asks. */

export function isPi(node: Node): boolean {
  if (node.type === 'name') return node.name === 'pi' || node.name === 'π'
  return node.type === 'lettered' && (node.run === 'pi' || node.run === 'π')
}

/** A name, or π, which a name below could divide as well as the whole phasor: `5∠pi/n`, `V∠theta/Z`. */
export function isNamed(node: Node): boolean {
  if (node.type === 'sign') return isNamed(node.operand)
  if (node.type === 'postfix') return node.sign === 'rad' && isNamed(node.operand)
  return node.type === 'name' || node.type === 'lettered'
}

/** What the unit stands behind in `4 rad`, `n rad`, `(2n) rad`; `null` for anything else. */
export function radiansOver(node: Node): Node | null {
  return node.type === 'postfix' && node.sign === 'rad' ? node.operand : null
}

/** Letters that can be the imaginary unit: `j(2 + 3)` is a product. */
export function isLetter(name: string): boolean {
  return name === 'i' || name === 'j'
}

/** True for a factor that may turn out to be digits and what they multiply: `2x`, `2x^2`, `j(2 + 3)`. */
export function comesApart(node: Node): boolean {
  switch (node.type) {
    case 'lettered':
      return true
    case 'call':
      return node.callee.type === 'lettered' || isLetter(node.callee.name)
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
