import { findFunction } from '../functions/registry'
import * as N from '../notation/nodes'
import type { OpenName } from '../notation/names'
import { withChildren, withNames } from '../notation/rebuilt'
import { childrenOf } from '../notation/references'
import type { Apply, Node, Span } from '../notation/tree'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Value } from '../values/types'
import { Body } from './functionBody'

/** What the names of a term stand for where it stands. */
export interface Closing {
  readonly open: (name: string) => OpenName | null
  readonly value: (name: string) => Value | null
  /** The value of a term without sought names. */
  readonly evaluate: (node: Node) => Value | Failure
}

/**
 * A bound term that needs nothing round it any more: what has no sought name in it is worked out, definitions that
 * depend on sought names take the places of their names, and functions that lines define those of their calls. Only
 * sought names and counters of the term itself are left.
 */
export function closedTerm(node: Node, closing: Closing, parameters: readonly string[] = []): Node | Failure {
  return new Closer(closing).close(node, new Set(parameters), true)
}

const NO_NAMES: ReadonlySet<string> = new Set()

class Closer {
  /** Terms that have been looked through: a long sum is a deep tree. */
  private readonly seen = new Map<Node, boolean>()

  constructor(private readonly closing: Closing) {}

  /** `plain`: a term without sought names may be worked out by itself; not so in an exponent, an index, `each`. */
  close(node: Node, locals: ReadonlySet<string>, plain: boolean): Node | Failure {
    if (node.type === 'name') return this.name(node, locals)
    const children = childrenOf(node)
    const called = this.calledOpenly(node)
    if (children.length === 0 && !called) return node
    if (plain && !called && !this.hasOpen(node, locals)) return this.workedOut(node, locals)
    if (node.type === 'apply' && !node.builtIn) return this.substituted(node, locals)
    const inner = node.type === 'series' ? new Set([...locals, node.counter.name]) : locals
    const made: Node[] = []
    for (const [k, child] of children.entries()) {
      if (node.type === 'where' && k % 2 === 1) {
        made.push(child)
        continue
      }
      const closed = this.close(child, inner, plain && staysPlain(node, k))
      if ('kind' in closed) return closed
      made.push(closed)
    }
    return withChildren(node, made)
  }

  private name(node: Extract<Node, { type: 'name' }>, locals: ReadonlySet<string>): Node | Failure {
    const { name, from, to } = node
    if (locals.has(name)) return node
    const open = this.closing.open(name)
    if (open?.kind === 'sought') return node
    if (open?.kind === 'term') return N.group(moved(open.term, node), false, from, to)
    const value = this.closing.value(name)
    return value ? N.valued(value, 'plain', from, to) : failureAt(node, failure('unknown-name', { name, near: '' }))
  }

  private workedOut(node: Node, locals: ReadonlySet<string>): Node | Failure {
    if (!this.readsNames(node, locals) && isShort(node)) return node
    const value = this.closing.evaluate(node)
    return value.kind === 'failure' ? failureAt({ from: value.from ?? node.from, to: value.to ?? node.to }, value) : N.valued(value, 'plain', node.from, node.to) // prettier-ignore
  }

  private calledOpenly(node: Node): boolean {
    return node.type === 'apply' && !node.builtIn && this.closing.open(node.name) !== null
  }

  /** True where a name in the term is sought, stands for what is, or belongs to a term round it. */
  private hasOpen(node: Node, locals: ReadonlySet<string>, own: ReadonlySet<string> = NO_NAMES): boolean {
    if (node.type === 'name')
      return !own.has(node.name) && (locals.has(node.name) || this.closing.open(node.name) !== null)
    const plain = locals.size === 0 && own.size === 0
    const before = plain ? this.seen.get(node) : undefined
    if (before !== undefined) return before
    const inner = node.type === 'series' ? new Set([...own, node.counter.name]) : own
    const found = this.calledOpenly(node) || childrenOf(node).some((child) => this.hasOpen(child, locals, inner))
    if (plain) this.seen.set(node, found)
    return found
  }

  private readsNames(node: Node, locals: ReadonlySet<string>): boolean {
    if (node.type === 'name') return !locals.has(node.name)
    return (node.type === 'apply' && !node.builtIn) || childrenOf(node).some((child) => this.readsNames(child, locals))
  }

  /** The body of a function that a line defines, with the arguments in it. */
  private substituted(node: Apply, locals: ReadonlySet<string>): Node | Failure {
    const args: Node[] = []
    for (const arg of node.args) {
      const closed = this.close(arg, locals, true)
      if ('kind' in closed) return closed
      args.push(closed)
    }
    const body = this.bodyOf(node)
    if ('code' in body) return failureAt(node, body)
    if (body.parameters.length !== args.length) {
      const signature = `${node.name}(${body.parameters.join(', ')})`
      return failureAt(node, failure('argument-count', { signature, given: args.length }))
    }
    const given = new Map(body.parameters.map((name, k) => [name, N.group(args[k] ?? node, false, node.from, node.to)]))
    const whole = N.group(withNames(moved(body.term, node), given), false, node.from, node.to)
    if (node.raised === null) return whole
    const raised = this.close(node.raised, locals, true)
    return 'kind' in raised ? raised : N.power(whole, raised, node.from, node.to)
  }

  private bodyOf(node: Apply): { readonly parameters: readonly string[]; readonly term: Node } | Failure {
    const open = this.closing.open(node.name)
    if (open?.kind === 'function') return open
    const value = this.closing.value(node.name)
    if (value?.kind !== 'function' || !(value.body instanceof Body)) return failure('not-a-function', { name: node.name }) // prettier-ignore
    const { term, captured } = value.body
    const closing: Closing = { ...this.closing, open: () => null, value: (name) => captured.get(name) ?? null }
    const closed = new Closer(closing).close(term, new Set(value.parameters), false)
    return 'kind' in closed ? closed : { parameters: value.parameters, term: closed }
  }
}

/** True where what stands in a place below a term means what it would mean by itself. */
function staysPlain(node: Node, k: number): boolean {
  switch (node.type) {
    case 'power':
      return k === 0
    case 'entry':
      return k === 0
    case 'apply': {
      const definition = node.builtIn ? findFunction(node.name) : null
      return !definition?.lazy && !definition?.exponential
    }
    default:
      return true
  }
}

/** A number as it is written, also with a unit: it stays as it stands. */
function isShort(node: Node): boolean {
  switch (node.type) {
    case 'group':
      return isShort(node.inner)
    case 'sign':
    case 'united':
    case 'postfix':
      return isShort(node.operand)
    default:
      return childrenOf(node).length === 0
  }
}

/** A term of another line in the place of what stands for it. */
function moved(node: Node, { from, to }: Span): Node {
  const inner = withChildren(node, childrenOf(node).map((child) => moved(child, { from, to }))) // prettier-ignore
  return inner.from === from && inner.to === to ? inner : N.placed(inner, from, to)
}
