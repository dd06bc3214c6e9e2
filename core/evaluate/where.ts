import { algebraMatrix } from '../algebra/polyMatrix'
import { isAlgebraic } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import { substitute } from '../algebra/where'
import type { Operate } from '../algebra/where'
import type { Where } from '../notation/tree'
import type { Context, Evaluate } from '../operators/context'
import { lifted, loopBinary, settle } from '../operators/lift'
import { operateOn } from '../operators/operate'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Value } from '../values/types'
import { mapVector } from '../values/vectors'

/** Unknowns replaced, all at once. */
export function where(node: Where, context: Context, evaluate: Evaluate): Value | Failure {
  const body = evaluate(node.body, context)
  if (body.kind === 'failure') return body
  const given = new Map<string, Value>()
  for (const { name, value: valueNode } of node.given) {
    const unknown = context.lookup(name.name)
    if (unknown?.kind !== 'polynomial' || unknown.bottom || unknown.top.unknowns[0] !== name.name)
      return failureAt(name, failure('where-unknown', { name: name.name }))
    const value = evaluate(valueNode, context)
    if (value.kind === 'failure') return value
    given.set(name.name, value)
  }
  const operate: Operate = (sign, a, b) =>
    sign === '^' && (a.kind === 'sweep' || b.kind === 'sweep')
      ? (loopBinary('^', a, b, node, context) ?? failure('wrong-kind', { what: '^', kind: 'sweep' }))
      : operateOn(sign, a, b, node, node, context)
  return lifted([body], node, context, ([x]) => substituteIn(x, given, operate))
}

function substituted(value: Value, given: ReadonlyMap<string, Value>, operate: Operate): Value | Failure {
  return settle(substitute(value, given, operate))
}

/** In a vector or a matrix, entry by entry. */
function substituteIn(body: Value, given: ReadonlyMap<string, Value>, operate: Operate): Value | Failure {
  if (body.kind === 'vector') return mapVector(body, (item) => substituted(item, given, operate))
  if (body.kind !== 'algebra-matrix') return substituted(body, given, operate)
  const items: Algebraic[] = []
  for (const item of body.items) {
    const value = substituted(item, given, operate)
    if (value.kind === 'failure') return value
    if (!isAlgebraic(value)) return failure('where-matrix-sweep')
    items.push(value)
  }
  return algebraMatrix(body.rows, body.cols, items)
}
