import type { Node } from '../notation/tree'
import { truth } from '../values/make'
import type { SweepValue, Value } from '../values/types'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Context, Evaluate } from '../operators/context'
import { atEveryPoint, lifted } from '../operators/lift'
import { compare } from '../operators/rules'
import { asReckoned } from '../quantities/shape'
import { alike, atSide } from '../quantities/sums'
import { asTurn } from '../quantities/through'
import { bare, isQuantity } from '../values/quantity'
import { allOf } from './allOf'

/** Comparisons, and what joins them. */

export function comparison(
  node: Extract<Node, { type: 'compare' }>,
  context: Context,
  evaluate: Evaluate,
): Value | Failure {
  const nodes = [node.first, ...node.rest.map((r) => r.node)]
  const values = allOf(nodes, context.outsideExponent(), evaluate)
  if (!Array.isArray(values)) return values
  const plain = values.some(isQuantity) ? comparable(values, nodes) : values
  if (!Array.isArray(plain)) return plain
  return lifted(plain, node, context, (at, inner) => comparedValues(node, at, inner))
}

/** The numbers of values with units, where neighbours measure the same; radians that came out of units are angles beside one. */
function comparable(values: readonly Value[], nodes: readonly Node[]): Value[] | Failure {
  const angles = values.some((value) => value.kind === 'angle')
  const ready = values.map((value, k) => (angles ? asTurn(value) : null) ?? asReckoned(value, nodes[k]))
  for (let k = 1; k < ready.length; k += 1) {
    const [a, b] = [ready[k - 1], ready[k]]
    if (!a || !b || (!isQuantity(a) && !isQuantity(b))) continue
    const found = alike(a, b, 'compared')
    if ('code' in found) return atSide(found, nodes[k - 1], nodes[k])
  }
  return ready.map(bare)
}

function comparedValues(
  node: Extract<Node, { type: 'compare' }>,
  values: readonly Value[],
  context: Context,
): Value | Failure {
  let [left] = values
  for (const [k, { sign, node: rightNode }] of node.rest.entries()) {
    const right = values[k + 1]
    if (!left || !right) throw new Error('as many values as sides')
    const bare = (left.kind === 'angle') !== (right.kind === 'angle')
    if (bare && left.kind === 'number') context.bare(node.first, left)
    if (bare && right.kind === 'number') context.bare(rightNode, right)
    const result = compare(sign, left, right, () => context.angleUnit)
    if (result.kind === 'failure') return result
    const inexact = (v: Value): boolean => v.kind === 'number' && v.exact === null && v.pi === null
    if (sign === '==' && (inexact(left) || inexact(right))) context.hint('equals-rounded', node)
    if (result.kind === 'truth' && !result.truth) return result
    left = right
  }
  return truth(true)
}

export function logic(node: Extract<Node, { type: 'logic' }>, context: Context, evaluate: Evaluate): Value | Failure {
  for (const [k, operand] of node.operands.entries()) {
    const value = evaluate(operand, context)
    if (value.kind === 'failure') return value
    if (value.kind === 'sweep') return logicAtPoints(node, k, value, context, evaluate)
    if (value.kind !== 'truth') return failureAt(operand, failure('truth-needed', { kind: value.kind }))
    if (node.sign === 'not') return truth(!value.truth)
    if (value.truth === (node.sign === 'or')) return value
  }
  return truth(node.sign === 'and')
}

/** From an operand that is a sweep on, all of them are evaluated and joined at every point. */
function logicAtPoints(
  node: Extract<Node, { type: 'logic' }>,
  from: number,
  first: SweepValue,
  context: Context,
  evaluate: Evaluate,
): Value | Failure {
  const others = allOf(node.operands.slice(from + 1), context, evaluate)
  if (!Array.isArray(others)) return others
  return atEveryPoint([first, ...others], node, context, (at) => {
    const truths = at.flatMap((x) => (x.kind === 'truth' ? [x.truth] : []))
    if (truths.length < at.length) return failure('truth-needed', { kind: 'sweep' })
    if (node.sign === 'not') return truth(!truths[0])
    return truth(node.sign === 'and' ? truths.every((t) => t) : truths.some((t) => t))
  })
}
