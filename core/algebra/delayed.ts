import * as A from '../values/arithmetic'
import { isZero } from '../values/beyond'
import { integer } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { DelayedValue, NumberValue, PolynomialValue } from '../values/types'
import * as P from './polynomial'
import { algebraic, unknownsOf } from './ratio'
import type { AlgebraSign, Algebraic } from './ratio'

/** Ratios behind a delay, e^(−s·T): products and quotients add up the delays; sums need the same one. */

export type Delaying = Algebraic | DelayedValue

/** e to the power of a polynomial: a delay where that is a negative multiple of the unknown, and a number. */
export function exponentialOf(exponent: PolynomialValue): Delaying | Failure {
  const [name] = unknownsOf(exponent)
  const list = P.coefficients(exponent.top)
  const linear = exponent.bottom === null && list?.length === 2 && name !== undefined
  const [slope, constant] = list ?? []
  if (!linear || !slope || !constant || slope.im !== 0) return failure('exponential-of-unknown')
  const factor = isZero(constant) ? integer(1) : A.exponential(constant)
  return factor.kind === 'failure' ? factor : behind(factor, A.negate(slope), name)
}

/** A ratio behind a delay; without one it is itself. An answer before its cause is refused. */
function behind(ratio: Algebraic, delay: NumberValue, unknown: string): Delaying | Failure {
  if (isZero(delay) || (ratio.kind === 'number' && isZero(ratio))) return ratio
  if (delay.re < 0) return failure('delay-negative')
  if (ratio.kind === 'polynomial' && unknownsOf(ratio).some((name) => name !== unknown))
    return failure('ratio-unknowns', { names: [...unknownsOf(ratio), unknown].join(', ') })
  return { kind: 'delayed', ratio, unknown, delay }
}

const NO_DELAY = integer(0)
const delayOf = (x: Delaying): NumberValue => (x.kind === 'delayed' ? x.delay : NO_DELAY)
const ratioOf = (x: Delaying): Algebraic => (x.kind === 'delayed' ? x.ratio : x)

/** An operator where one side is behind a delay. */
export function delayedOperator(sign: AlgebraSign, x: Delaying, y: Delaying): Delaying | Failure {
  const unknown = x.kind === 'delayed' ? x.unknown : y.kind === 'delayed' ? y.unknown : ''
  if (x.kind === 'delayed' && y.kind === 'delayed' && x.unknown !== y.unknown)
    return failure('ratio-unknowns', { names: `${x.unknown}, ${y.unknown}` })
  const ratio = algebraic(sign, ratioOf(x), ratioOf(y))
  if (ratio.kind === 'failure') return ratio
  const delay = joinedDelay(sign, x, y)
  return delay.kind === 'failure' ? delay : behind(ratio, delay, unknown)
}

function joinedDelay(sign: AlgebraSign, x: Delaying, y: Delaying): NumberValue | Failure {
  const [a, b] = [delayOf(x), delayOf(y)]
  switch (sign) {
    case '*':
      return A.add(a, b)
    case '/':
      return A.subtract(a, b)
    case '^':
      return y.kind === 'number' ? A.multiply(a, y) : failure('polynomial-exponent')
    default: {
      const same = A.subtract(a, b)
      const nothing = [x, y].some((side) => side.kind === 'number' && isZero(side))
      if (sign !== '||' && nothing) return A.add(a, b)
      return same.kind === 'number' && isZero(same) ? a : failure('delayed-sum', { sign })
    }
  }
}

/** True where two are the same ratio behind the same delay. */
export function sameDelay(x: DelayedValue, y: DelayedValue): boolean {
  const rest = A.subtract(x.delay, y.delay)
  return x.unknown === y.unknown && rest.kind === 'number' && isZero(rest)
}
