import { childrenOf } from '../notation/references'
import type { Node } from '../notation/tree'

/** The sought names of a closed term. */
export function namesIn(node: Node): readonly string[] {
  if (node.type === 'name') return [node.name]
  return childrenOf(node).flatMap(namesIn)
}
