import type { Node, Series } from '../notation/tree'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { exactReal, real, vector } from '../values/make'
import { isZero } from '../values/beyond'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, Value, VectorValue } from '../values/types'
import type { Context, Evaluate, Scope } from '../operators/context'
import { finiteReal } from './finiteReal'

/** Most entries that `f(k) for k = …` may make. */
export const SERIES_LIMIT = 100_000

/** The names round a series, and its counter. */
class Counted implements Scope {
  constructor(
    private readonly counter: string,
    private readonly value: Value,
    private readonly outer: Scope,
  ) {}

  lookup(name: string): Value | null {
    return name === this.counter ? this.value : this.outer.lookup(name)
  }
}

/** The values of `f(k) for k = first to last step s`; none where the last lies before the first. */
export function evaluateSeries(node: Series, context: Context, evaluate: Evaluate): VectorValue | Failure {
  const { over } = node
  const first = bound(over.first, context, evaluate)
  if (first.kind === 'failure') return first
  const last = bound(over.last, context, evaluate)
  if (last.kind === 'failure') return last
  const step = over.step ? bound(over.step, context, evaluate) : exactReal(Q.ONE)
  if (step.kind === 'failure') return step
  if (isZero(step)) return failure('step-zero')
  const count = Math.floor((last.re - first.re) / step.re + 1e-9) + 1
  if (over.step && count <= 0 && last.re !== first.re) return failure('step-direction', { step: step.re })
  if (count > SERIES_LIMIT) return failure('too-many-entries', { count, limit: SERIES_LIMIT })
  const items: Value[] = []
  for (let k = 0; k < count; k += 1) {
    const counter = place(first, step, k)
    const value = evaluate(node.body, context.withNames(new Counted(node.counter.name, counter, context)))
    if (value.kind === 'failure') return value
    items.push(value)
  }
  return vector(items)
}

function bound(node: Node, context: Context, evaluate: Evaluate): NumberValue | Failure {
  const value = evaluate(node, context)
  return value.kind === 'failure' ? value : finiteReal(value, node, 'series-bound')
}

/** first + k·step, exactly where both are exact. */
function place(first: NumberValue, step: NumberValue, k: number): NumberValue {
  const index: Rational = { n: k, d: 1 }
  const offset = first.exact && step.exact && Q.multiply(step.exact.re, index)
  const exact = first.exact && offset && Q.add(first.exact.re, offset)
  return exact ? exactReal(exact) : real(first.re + k * step.re)
}
