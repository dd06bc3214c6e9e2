import type { Node } from '../notation/tree'
import type { Complex } from '../numbers/complex'

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
