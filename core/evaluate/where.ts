import { algebraMatrix } from '../algebra/polyMatrix'
import { isAlgebraic, isUnknown } from '../algebra/ratio'
import { quantityWords } from '../units/named'
import { isWild, measureOf } from '../quantities/shape'
import { throughQuantity } from '../quantities/through'
import { bare } from '../values/quantity'
import type { Algebraic } from '../algebra/ratio'
import { substitute } from '../algebra/where'
import type { Operate } from '../algebra/where'
import type { Where } from '../notation/tree'
import type { Context, Evaluate } from '../operators/context'
import { lifted, settle } from '../operators/lift'
import { operatingAt } from '../operators/operate'
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
    if (!unknown || !isUnknown(unknown, name.name))
      return failureAt(name, failure('where-unknown', { name: name.name }))
    const value = evaluate(valueNode, context.outsideExponent())
    if (value.kind === 'failure') return value
    const misfit = doesNotFit(unknown, value, name.name)
    if (misfit) return failureAt(valueNode, misfit)
    given.set(name.name, bare(value))
  }
  const operate = operatingAt(node, context)
  const put = (x: Value): Value | Failure => lifted([x], node, context, ([at]) => substituteIn(at, given, operate))
  if (body.kind !== 'quantity') return put(body)
  const left = [...(body.unknowns ?? [])].filter(([name]) => !given.has(name))
  const unknowns = left.length > 0 ? new Map(left) : null
  return throughQuantity({ ...body, unknowns }, put)
}

/** What takes the place of an unknown measures what the unknown was declared to. */
function doesNotFit(unknown: Value, value: Value, name: string): Failure | null {
  const [declared, given] = [measureOf(unknown), measureOf(value)]
  if (declared.dimension === given.dimension || isWild(value)) return null
  return failure('unit-alike', { name, one: quantityWords(declared), other: quantityWords(given) })
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
