import * as N from './nodes'
import { childrenOf } from './references'
import type { Node, Slice } from './tree'

/** A term with others in the places of those below it, in the order of `childrenOf`; what has none stays as it is. */
export function withChildren(node: Node, children: readonly Node[]): Node {
  return childrenOf(node).every((child, k) => child === children[k]) ? node : rebuilt(node, children)
}

/** The same as an object of its own. */
function rebuilt(node: Node, children: readonly Node[]): Node {
  const { from, to } = node
  const at = (k: number): Node => children[k] ?? node
  switch (node.type) {
    case 'group':
      return N.group(at(0), node.free, from, to)
    case 'postfix':
      return N.postfix(node.sign, at(0), from, to)
    case 'united':
      return N.united(at(0), node.unit, from, to)
    case 'power':
      return N.power(at(0), at(1), from, to)
    case 'mark':
      return N.mark(node.sign, at(0), node.kept, from, to)
    case 'polar':
      return N.polar(at(0), at(1), from, to)
    case 'sign':
      return N.sign(node.sign, at(0), from, to)
    case 'parallel':
      return N.parallel(at(0), at(1), from, to)
    case 'sum':
      return N.sum(node.sign, at(0), at(1), from, to)
    case 'product':
      return N.product(node.sign, at(0), at(1), from, to)
    case 'compare':
      return N.compare(at(0), node.rest.map(({ sign }, k) => ({ sign, node: at(k + 1) })), from, to) // prettier-ignore
    case 'logic':
      return N.logic(node.sign, children, from, to)
    case 'bars':
      return N.bars(at(0), node.double, from, to)
    case 'root':
      return N.root(at(0), from, to)
    case 'list':
      return N.list(children, from, to)
    case 'apply': {
      // The power of the call comes before its arguments.
      const raised = node.raised ? at(0) : null
      return N.apply(node.name, node.builtIn, raised, children.slice(raised ? 1 : 0), from, to)
    }
    case 'entry':
      return N.entry(at(0), at(1), node.column ? at(2) : null, from, to)
    case 'series':
      return N.series(at(0), node.counter, asSlice(at(1), node.over), from, to)
    case 'slice':
      return N.slice(at(0), at(1), node.step ? at(2) : null, from, to)
    case 'range':
      return N.range(at(0), at(1), node.by, node.amount ? at(2) : null, from, to)
    case 'where':
      return N.where(at(0), node.given.map(({ name }, k) => ({ name, value: at(2 * k + 2) })), from, to) // prettier-ignore
    case 'part':
      return N.part(at(0), node.name, from, to)
    default:
      return node
  }
}

const asSlice = (node: Node, before: Slice): Slice => (node.type === 'slice' ? node : before)

/**
 * A term with others in the places of names; counters and unknowns that bear such a name stay what they are. What has
 * terms below it is made anew, so that the same term can be put in several places and be told apart there.
 */
export function withNames(node: Node, given: ReadonlyMap<string, Node>): Node {
  if (node.type === 'name') return given.get(node.name) ?? node
  const inner = node.type === 'series' ? without(given, node.counter.name) : given
  const children = childrenOf(node)
  if (children.length === 0) return node
  return rebuilt(node, children.map((child, k) => (isOwn(node, k) ? child : withNames(child, inner)))) // prettier-ignore
}

/** The unknowns of a `where` are no names to be replaced. */
const isOwn = (node: Node, k: number): boolean => node.type === 'where' && k % 2 === 1

function without(given: ReadonlyMap<string, Node>, name: string): ReadonlyMap<string, Node> {
  return new Map([...given].filter(([key]) => key !== name))
}
