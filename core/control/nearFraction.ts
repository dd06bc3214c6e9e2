import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import type { Wide } from './wide'

/**
 * The fraction with a small denominator that agrees with a real number of many digits to most of them, by its continued
 * fraction; `null` where there is none. Where it matters it is to be proved by putting it in.
 */
export function nearFraction({ re, exp }: Wide): Rational | null {
  if (re === 0n) return Q.ZERO
  const [n, d] = exp >= 0 ? [re << BigInt(exp), 1n] : [re, 1n << BigInt(-exp)]
  const size = n < 0n ? -n : n
  let [p0, q0, p1, q1] = [0n, 1n, 1n, 0n]
  let [a, b] = [size, d]
  while (b !== 0n) {
    const step = a / b
    ;[p0, q0, p1, q1] = [p1, q1, step * p1 + p0, step * q1 + q0]
    ;[a, b] = [b, a - step * b]
    if (q1 > 1n << 64n) return null
    const off = size * q1 - p1 * d
    if ((off < 0n ? -off : off) << 160n <= size * q1) return Q.fromBig(n < 0n ? -p1 : p1, q1)
  }
  return null
}
