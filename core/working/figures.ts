import { withChildren } from '../notation/rebuilt'
import { childrenOf } from '../notation/references'
import * as N from '../notation/nodes'
import type { Node } from '../notation/tree'
import * as C from '../numbers/complex'
import type { Failure } from '../values/failure'
import { itemsOf } from '../values/matrices'
import { bare } from '../values/quantity'
import * as A from '../values/arithmetic'
import { real } from '../values/make'
import type { NumberValue, Value } from '../values/types'

/**
 * Written figures as what they stand for: a decimal for itself and half a unit of its last place on either side. What
 * that means for a term is worked out literal by literal (the first terms of its Taylor series, by differences).
 */

/** The numbers of a value, an angle by its radians; `null` of what is none. */
export function figuresOf(value: Value | Failure): readonly C.Complex[] | null {
  if (value.kind === 'failure') return null
  const inner = bare(value)
  switch (inner.kind) {
    case 'number':
      return [inner]
    case 'angle':
      return [{ re: inner.radians, im: 0 }]
    case 'matrix':
      return itemsOf(inner)
    case 'vector': {
      const found = inner.items.flatMap((item) => figuresOf(item) ?? [])
      return found.length === inner.items.length ? found : null
    }
    default:
      return null
  }
}

/** How far each part of a value may be off. */
export interface Room {
  readonly re: number
  readonly im: number
}

const NO_ROOM: Room = { re: 0, im: 0 }

/** Half a unit of the last place of a decimal, with its prefix; 0 of whole numbers, unless they are rounded, too. */
function halfPlace(node: Node, wholes: boolean): number {
  if (node.type !== 'literal' || !(wholes || node.digits.includes('.'))) return 0
  const [mantissa = '', exponent = '0'] = node.digits.toLowerCase().split('e')
  const places = mantissa.split('.')[1]?.length ?? 0
  const written = Math.abs(Number(node.digits))
  const size = node.value.kind === 'number' ? C.abs(node.value) : written
  const prefix = written === 0 ? 1 : size / written
  return 0.5 * 10 ** (Number(exponent) - places) * prefix
}

/** The decimals of a term, each with what its place is worth. */
export function decimalsIn(node: Node, wholes = false): readonly Decimal[] {
  const half = halfPlace(node, wholes)
  if (node.type === 'literal') return half > 0 ? [{ literal: node, half, digits: node.digits }] : []
  return childrenOf(node).flatMap((child) => decimalsIn(child, wholes))
}

/** A decimal as it is written, and half a unit of its last place. */
export interface Decimal {
  readonly literal: Node
  readonly half: number
  readonly digits: string
}

/** A term with one literal moved by an amount. */
function moved(node: Node, literal: Node, by: number): Node {
  if (node === literal && node.type === 'literal' && node.value.kind === 'number') {
    const { value } = node
    const direction = value.im === 0 ? real(by) : imaginary(by)
    const next = A.add(value, direction)
    return next.kind === 'failure' ? node : N.literal(next, node.digits, node.prefix, node.letter, node.from, node.to)
  }
  return withChildren(node, childrenOf(node).map((child) => moved(child, literal, by)))
} // prettier-ignore

function imaginary(by: number): NumberValue {
  return { ...real(0), kind: 'number', re: 0, im: by, exact: null, bottom: 0, top: 0, pi: null, complex: true }
}

/** How far the parts of a term may be off for what its decimals stand for; those among `given` stand for themselves. */
export function roomOf(
  node: Node,
  evaluate: (node: Node) => Value | Failure,
  given: ReadonlySet<string>,
  wholes = false,
): readonly Room[] {
  const start = figuresOf(evaluate(node)) ?? []
  const rooms = start.map(() => ({ ...NO_ROOM }))
  for (const { literal, half, digits } of decimalsIn(node, wholes)) {
    if (given.has(digits)) continue
    const sides = [half, -half].map((by) => figuresOf(evaluate(moved(node, literal, by))) ?? [])
    rooms.forEach((room, k) => {
      const from = start[k] ?? { re: 0, im: 0 }
      room.re += Math.max(...sides.map((side) => Math.abs((side[k]?.re ?? from.re) - from.re)))
      room.im += Math.max(...sides.map((side) => Math.abs((side[k]?.im ?? from.im) - from.im)))
    })
  }
  return rooms
}
