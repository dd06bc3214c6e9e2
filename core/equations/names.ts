import { childrenOf } from '../notation/references'
import type { Node } from '../notation/tree'

/** The sought names of a closed term, each once. */
export function namesIn(...nodes: readonly Node[]): readonly string[] {
  const found = new Set<string>()
  for (const node of nodes) gather(node, found)
  return [...found]
}

function gather(node: Node, found: Set<string>): void {
  if (node.type === 'name') found.add(node.name)
  else for (const child of childrenOf(node)) gather(child, found)
}
