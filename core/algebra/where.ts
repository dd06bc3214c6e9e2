import { asAlgebra } from './polyMatrix'
import { polynomialValue, unknownValue } from './ratio'
import { negate } from '../values/arithmetic'
import { integer, real } from '../values/make'
import { asMatrix, identityMatrix } from '../values/matrices'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { DelayedValue, Polynomial, Value } from '../values/types'

/** `p where s = 2j, a = 1`: unknowns replaced, all at once. */

/** An operator on any two values, sweeps among them. */
export type Operate = (sign: '+' | '*' | '/' | '^', a: Value, b: Value) => Value | Failure

export function substitute(value: Value, given: ReadonlyMap<string, Value>, operate: Operate): Value | Failure {
  if (value.kind === 'number') return value
  if (value.kind === 'polynomial') {
    const top = put(value.top, given, operate)
    if (top.kind === 'failure' || !value.bottom) return top
    const bottom = put(value.bottom, given, operate)
    if (bottom.kind === 'failure') return bottom
    if (bottom.kind === 'matrix') return failure('matrix-division')
    return operate('/', top, bottom)
  }
  if (value.kind === 'delayed') return delayedAt(value, given, operate)
  return failure('where-body', { kind: value.kind })
}

/** The ratio there, times e^(−delay·there). */
function delayedAt(value: DelayedValue, given: ReadonlyMap<string, Value>, operate: Operate): Value | Failure {
  const ratio = substitute(value.ratio, given, operate)
  const at = given.get(value.unknown)
  if (ratio.kind === 'failure' || !at) return ratio.kind === 'failure' ? ratio : value
  const exponent = operate('*', at, negate(value.delay))
  if (exponent.kind === 'failure') return exponent
  const factor = operate('^', EULER, exponent)
  return factor.kind === 'failure' ? factor : operate('*', ratio, factor)
}

const EULER = real(Math.E)

function put(p: Polynomial, given: ReadonlyMap<string, Value>, operate: Operate): Value | Failure {
  const replaced = p.unknowns.filter((name) => given.has(name))
  if (replaced.length === 0) return polynomialValue(p)
  const [only] = replaced
  const value = only === undefined ? undefined : given.get(only)
  const matrix = value && value.kind !== 'number' ? asMatrix(value) : null
  if (matrix && value) {
    if (p.unknowns.length > 1) return failure('where-matrix')
    if (matrix.rows !== matrix.cols)
      return failure('not-square', { name: 'where', shape: `${matrix.rows} × ${matrix.cols}` })
    return byHorner(p, value, operate, identityMatrix(matrix.rows))
  }
  if (p.unknowns.length === 1 && value) return byHorner(p, value, operate, null)
  return byTerms(p, given, operate)
}

/** One unknown: from the highest power down. */
function byHorner(p: Polynomial, at: Value, operate: Operate, unit: Value | null): Value | Failure {
  const degree = p.terms[0]?.powers[0] ?? 0
  const factors = new Map(p.terms.map(({ powers, factor }) => [powers[0] ?? 0, factor]))
  const scaled = (k: number): Value | Failure => {
    const factor = factors.get(k) ?? integer(0)
    return unit ? operate('*', factor, unit) : factor
  }
  let value = scaled(degree)
  for (let k = degree - 1; k >= 0; k -= 1) {
    if (value.kind === 'failure') return value
    const product = operate('*', value, at)
    if (product.kind === 'failure') return product
    if (!factors.has(k)) {
      value = product
      continue
    }
    const next = scaled(k)
    if (next.kind === 'failure') return next
    value = operate('+', product, next)
  }
  return value
}

/** Several unknowns: term by term; the ones that get no value stay. */
function byTerms(p: Polynomial, given: ReadonlyMap<string, Value>, operate: Operate): Value | Failure {
  let sum: Value | Failure = integer(0)
  for (const { powers, factor } of p.terms) {
    let term: Value | Failure = factor
    for (const [k, name] of p.unknowns.entries()) {
      const n = powers[k] ?? 0
      if (n === 0) continue
      const value: Value = given.get(name) ?? unknownValue(name)
      if (value.kind === 'matrix' || (value.kind === 'vector' && asAlgebra(value))) return failure('where-matrix')
      const raised: Value | Failure = operate('^', value, integer(n))
      if (raised.kind === 'failure') return raised
      term = operate('*', term, raised)
      if (term.kind === 'failure') return term
    }
    sum = operate('+', sum, term)
    if (sum.kind === 'failure') return sum
  }
  return sum
}
