import type { Node } from '../notation/tree'
import type { Complex } from '../numbers/complex'
import type { Value } from '../values/types'

/** A sum laid tip to tail. */

/** A term of a sum: its text without its sign, and whether it is taken off. */
export interface Term {
  readonly source: string
  readonly negative: boolean
}

/** The terms of a line that is a sum, from the left; none where it is no sum of two or more. */
export function termsOf(source: string, body: Node | null): readonly Term[] {
  const terms = body ? collect(source, body, false) : []
  return terms.length < 2 ? [] : terms
}

function collect(source: string, node: Node, negative: boolean): Term[] {
  if (node.type === 'group') return collect(source, node.inner, negative)
  if (node.type === 'sum')
    return [
      ...collect(source, node.left, negative),
      ...collect(source, node.right, node.sign === '-' ? !negative : negative),
    ]
  if (node.type === 'sign') return collect(source, node.operand, node.sign === '-' ? !negative : negative)
  return [{ source: source.slice(node.from, node.to), negative }]
}

/** A term as an arrow on the plane. */
export interface Link {
  readonly label: string
  readonly tail: Complex
  readonly tip: Complex
}

/** Where a value stands on the plane: a number, or a vector of two components. */
export function pointOf(value: Value): Complex | null {
  if (value.kind === 'number') return { re: value.re, im: value.im }
  if (value.kind !== 'vector' || value.items.length !== 2) return null
  const [x, y] = value.items
  return x?.kind === 'number' && y?.kind === 'number' && x.im === 0 && y.im === 0 ? { re: x.re, im: y.re } : null
}

/** Lays arrows tip to tail, the first at the origin. */
export function linksOf(parts: readonly { readonly label: string; readonly value: Complex }[]): readonly Link[] {
  let tail: Complex = { re: 0, im: 0 }
  return parts.map(({ label, value }) => {
    const tip = { re: tail.re + value.re, im: tail.im + value.im }
    const link = { label, tail, tip }
    tail = tip
    return link
  })
}
