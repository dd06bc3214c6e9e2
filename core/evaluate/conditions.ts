import type { Node } from '../notation/tree'
import { truth } from '../values/make'
import type { SweepValue, Value } from '../values/types'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Context, Evaluate } from '../operators/context'
import { atEveryPoint, isSweep } from '../operators/lift'
import { compare } from '../operators/rules'

/** Comparisons, and what joins them. */

export function comparison(
  node: Extract<Node, { type: 'compare' }>,
  context: Context,
  evaluate: Evaluate,
): Value | Failure {
  const nodes = [node.first, ...node.rest.map((r) => r.node)]
  const values: Value[] = []
  for (const side of nodes) {
    const value = evaluate(side, context)
    if (value.kind === 'failure') return value
    values.push(value)
  }
  if (values.some(isSweep)) return atEveryPoint(values, node, context, (at, inner) => comparedValues(node, at, inner))
  return comparedValues(node, values, context)
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
    if (value.kind !== 'truth')
      return { ...failure('truth-needed', { kind: value.kind }), from: operand.from, to: operand.to }
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
  const nodes = node.operands.slice(from)
  const values: Value[] = [first]
  for (const operand of nodes.slice(1)) {
    const value = evaluate(operand, context)
    if (value.kind === 'failure') return value
    values.push(value)
  }
  return atEveryPoint(values, node, context, (at) => {
    const truths = at.flatMap((x) => (x.kind === 'truth' ? [x.truth] : []))
    if (truths.length < at.length) return failure('truth-needed', { kind: 'sweep' })
    if (node.sign === 'not') return truth(!truths[0])
    return truth(node.sign === 'and' ? truths.every((t) => t) : truths.some((t) => t))
  })
}
