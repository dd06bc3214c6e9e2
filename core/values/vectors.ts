import * as C from '../numbers/complex'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { exactRoot, rounded } from './arithmetic'
import { exactReal, valueList, real, vector } from './make'
import { failure } from './failure'
import type { Failure } from './failure'
import type { NumberValue, Value, VectorValue } from './types'

/** Entry by entry; the first failure is the whole's. */
export function mapVector(v: VectorValue, change: (item: Value) => Value | Failure): VectorValue | Failure {
  const items: Value[] = []
  for (const item of v.items) {
    const value = change(item)
    if (value.kind === 'failure') return value
    items.push(value)
  }
  return v.list ? valueList(items) : vector(items)
}

/** Two vectors of one length, entry by entry. */
export function zipVectors(
  a: VectorValue,
  b: VectorValue,
  join: (x: Value, y: Value) => Value | Failure,
): VectorValue | Failure {
  if (a.items.length !== b.items.length)
    return failure('lengths-differ', { left: a.items.length, right: b.items.length })
  let k = 0
  return mapVector(a, (item) => {
    const other = b.items[k]
    k += 1
    return other === undefined
      ? failure('lengths-differ', { left: a.items.length, right: b.items.length })
      : join(item, other)
  })
}

/** The Euclidean norm √(Σ|x|²), scaled by the largest entry so that nothing overflows in between. */
export function euclideanNorm(v: VectorValue): NumberValue | Failure {
  const numbers: NumberValue[] = []
  for (const item of v.items) {
    if (item.kind !== 'number') return failure('wrong-kind', { what: '| |', kind: item.kind })
    numbers.push(item)
  }
  const exact = exactNorm(numbers)
  if (exact) return exact
  const largest = numbers.reduce((m, z) => Math.max(m, C.abs(z)), 0)
  if (largest === 0 || !Number.isFinite(largest)) return real(largest)
  const sum = numbers.reduce((total, z) => total + (z.re / largest) ** 2 + (z.im / largest) ** 2, 0)
  return rounded({ re: largest * Math.sqrt(sum), im: 0 }, false, real(largest))
}

function exactNorm(numbers: readonly NumberValue[]): NumberValue | null {
  let sum: Q.Rational | null = Q.ZERO
  for (const { exact } of numbers) {
    const square: Q.Rational | null = exact && G.squaredMagnitude(exact)
    sum = sum && square && Q.add(sum, square)
    if (sum === null) return null
  }
  const root = exactRoot(sum)
  return root && exactReal(root)
}
