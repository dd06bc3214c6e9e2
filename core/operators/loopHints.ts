import { isUnknown } from '../algebra/ratio'
import { cancelledBetween } from '../control/cancelled'
import { childrenOf } from '../notation/references'
import type { Node } from '../notation/tree'
import { valueList } from '../values/make'
import type { PolynomialValue, Value } from '../values/types'
import type { Context } from './context'

/**
 * A product of two transfer functions of different lines in which a pole goes: said, since what it stood for is still
 * there, and where it lies to the right the whole is not internally stable.
 */
export function hintCancelled(left: Value, right: Value, leftNode: Node, rightNode: Node, context: Context): void {
  if (context.pointwise || left.kind !== 'polynomial' || right.kind !== 'polynomial') return
  if (!left.bottom && !right.bottom) return
  const [a, b] = [namesIn(leftNode, context), namesIn(rightNode, context)]
  if (a.size === 0 || b.size === 0 || [...a].some((name) => b.has(name))) return
  tellCancelled(left, right, rightNode, context)
}

export function tellCancelled(a: PolynomialValue, b: PolynomialValue, node: Node, context: Context): void {
  const found = cancelledBetween(a, b)
  if (!found) return
  const [only] = found.poles
  const poles = found.poles.length === 1 && only ? `The pole at ${context.written(only)}` : `Each of the poles ${context.written(valueList(found.poles))}` // prettier-ignore
  context.hint('pole-cancelled', node, { poles, unstable: found.unstable })
}

/** The kept names of a term; unknowns are none. */
function namesIn(node: Node, context: Context, found = new Set<string>()): ReadonlySet<string> {
  if (node.type === 'name') {
    const value = context.lookup(node.name)
    if (!value || !isUnknown(value, node.name)) found.add(node.name)
  }
  for (const child of childrenOf(node)) namesIn(child, context, found)
  return found
}
