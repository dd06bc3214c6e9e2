import type { Node } from '../notation/tree'
import type { Context, Watch } from '../operators/context'
import type { Failure } from '../values/failure'
import type { Value } from '../values/types'

/** What was seen of a term: what it came to, and what was evaluated for it. */
export interface Seen {
  readonly node: Node
  readonly value: Value | Failure
  /** Inside each( ): entry by entry. */
  readonly each: boolean
  readonly inner: readonly Seen[]
}

/** Most terms that are written down of one evaluation. */
const SEEN_MOST = 100_000

/** Writes down what the evaluator does. */
export class Recorder implements Watch {
  private readonly open: Seen[][] = [[]]
  private entered: Node | null = null
  private count = 0

  due(node: Node): boolean {
    if (this.entered === node) {
      this.entered = null
      return false
    }
    if (this.count >= SEEN_MOST) return false
    this.count += 1
    this.entered = node
    this.open.push([])
    return true
  }

  saw(node: Node, value: Value | Failure, context: Context): void {
    const inner = this.open.pop() ?? []
    this.open.at(-1)?.push({ node, value, each: context.each, inner })
  }

  /** What was seen of the whole; `null` where it was no operation at all. */
  get whole(): Seen | null {
    return this.open[0]?.[0] ?? null
  }
}

/** A term without the brackets round it. */
export function unbracketed(node: Node): Node {
  return node.type === 'group' ? unbracketed(node.inner) : node
}

/** What was seen of a term below another one. */
export function seenOf(seen: Seen, node: Node): Seen {
  const inner = unbracketed(node)
  const found = seen.inner.find((s) => s.node === inner)
  if (found) return found
  if (inner.type === 'literal' || inner.type === 'valued') return { node: inner, value: inner.value, each: seen.each, inner: [] }
  return { node: inner, value: { kind: 'failure', code: 'unfinished', data: { after: '' } }, each: seen.each, inner: [] }
} // prettier-ignore
