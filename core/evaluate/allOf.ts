import type { Node } from '../notation/tree'
import type { Context, Evaluate } from '../operators/context'
import type { Failure } from '../values/failure'
import type { Value } from '../values/types'

/** The values of a row of terms, or the first failure. */
export function allOf(nodes: readonly Node[], context: Context, evaluate: Evaluate): Value[] | Failure {
  const first = nodes[0]
  if (first === undefined) return []
  const value = evaluate(first, context)
  if (value.kind === 'failure') return value
  const values = [value]
  for (let k = 1; k < nodes.length; k += 1) {
    const next = evaluate(nodes[k] ?? first, context)
    if (next.kind === 'failure') return next
    values.push(next)
  }
  return values
}
