import { isComplex } from '../format/number'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { exactReal, integer } from '../values/make'
import type { NumberValue } from '../values/types'
import { isNegative, joined, over, power, radical, sum, times, valued, whole } from './terms'
import { termShowsWhole } from './shown'
import { isWholeDone } from './work'
import type { Done, Progress } from './work'

/** Sums, products, quotients and powers of real numbers. */

const exactOf = (z: NumberValue): Rational | null => z.exact?.re ?? null
const number = (q: Rational) => valued(exactReal(q))
const big = (n: Rational['n']): Rational => Q.fromBig(BigInt(n), 1n) ?? Q.ONE

/** a ± b. */
export function realSum(p: Progress, sign: '+' | '-', a: NumberValue, b: NumberValue): Done | null {
  const [x, y] = [exactOf(a), exactOf(b)]
  const fractions = x && y && p.operands.every(isWholeDone) && !(Q.isInteger(x) && Q.isInteger(y))
  if (fractions && !p.hasUnits) return fractionSum(p, sign, x, y)
  guardCancelling(p, a, b)
  return p.done(sign === '+' ? 'add' : 'subtract')
}

/** What cancels needs a figure more in what it comes from. */
export function guardCancelling(p: Progress, a: NumberValue, b: NumberValue): void {
  const { value } = p
  const inner = value.kind === 'quantity' ? value.value : value
  if (inner.kind !== 'number') return
  const size = Math.hypot(inner.re, inner.im)
  if (size < 0.1 * Math.max(Math.hypot(a.re, a.im), Math.hypot(b.re, b.im))) p.guard()
}

function fractionSum(p: Progress, sign: '+' | '-', x: Rational, y: Rational): Done | null {
  const [xd, yd] = [big(x.d), big(y.d)]
  const g = commonDivisor(x.d, y.d)
  const common = Q.divide(Q.multiply(xd, yd) ?? xd, g)
  const scaled = (q: Rational): Rational | null => common && Q.multiply(q, common)
  const [left, right] = [scaled(x), scaled(y)]
  const top = left && right && (sign === '+' ? Q.add(left, right) : Q.subtract(left, right))
  if (!common || !left || !right || !top) return p.done(sign === '+' ? 'add' : 'subtract')
  if (!Q.equals(xd, yd)) {
    const wide = (q: Rational) => {
      const by = Q.divide(common, big(q.d))
      return by && !Q.equals(by, Q.ONE) ? times(number(big(q.n)), number(by)) : number(big(q.n))
    }
    p.move('common-denominator', over(sum(wide(x), wide(y), sign), number(common)), { says: `The common denominator is ${common.n}.` }) // prettier-ignore
  }
  p.move('common-denominator', over(sum(number(left), number(right), sign), number(common)), { depth: 'all' })
  const reduced = commonDivisor(top.n, common.n)
  const plain = Q.equals(reduced, Q.ONE)
  if (plain) return p.done(sign === '+' ? 'add' : 'subtract')
  p.move(sign === '+' ? 'add' : 'subtract', over(number(top), number(common)))
  return p.done('reduce-fraction', undefined, { says: `Both are divided by ${reduced.n}.` })
}

export function commonDivisor(a: Rational['n'], b: Rational['n']): Rational {
  let [x, y] = [abs(BigInt(a)), abs(BigInt(b))]
  while (y !== 0n) [x, y] = [y, x % y]
  return Q.fromBig(x === 0n ? 1n : x, 1n) ?? Q.ONE
}

const abs = (n: bigint): bigint => (n < 0n ? -n : n)

/** a·b. */
export function realProduct(p: Progress, a: NumberValue, b: NumberValue): Done | null {
  const [x, y] = [exactOf(a), exactOf(b)]
  const fractions = x && y && p.operands.every(isWholeDone) && !(Q.isInteger(x) && Q.isInteger(y))
  if (!fractions || p.hasUnits) return p.done('multiply', undefined, p.unitsSaid('·'))
  return reducedQuotient(p, 'multiply-fractions', [big(x.n), big(y.n)], [big(x.d), big(y.d)])
}

/** a/b. */
export function realQuotient(p: Progress, a: NumberValue, b: NumberValue): Done | null {
  if (b.re === 0) return p.done(a.re === 0 ? 'divide' : 'infinite')
  const [x, y] = [exactOf(a), exactOf(b)]
  if (!x || !y || !p.operands.every(isWholeDone) || p.hasUnits) return p.done('divide', undefined, p.unitsSaid('/'))
  if (Q.isInteger(x) && Q.isInteger(y)) {
    const g = commonDivisor(x.n, y.n)
    const whole = Q.equals(g, big(y.n)) || Q.equals(g, Q.negate(big(y.n)))
    if (whole) return p.done('divide')
    if (Math.max(Math.abs(a.re), Math.abs(b.re)) > LARGE && isShortDecimal(p)) return p.done('divide', 'plain')
    // The sign comes before the fraction.
    if (Q.equals(g, Q.ONE) && (a.re < 0 || b.re < 0)) return p.done('divide')
    if (Q.equals(g, Q.ONE)) return p.silently(p.value.kind === 'failure' ? 'plain' : p.form(p.value))
    return p.done('reduce-fraction', undefined, { says: `Both are divided by ${g.n}.` })
  }
  return reducedQuotient(p, 'divide-fractions', [big(x.n), big(y.d)], [big(x.d), big(y.n)])
}

/** Whole numbers beyond this are divided as decimals where that comes out even. */
const LARGE = 99

function isShortDecimal(p: Progress): boolean {
  return p.value.kind === 'number' && termShowsWhole(valued(p.value), { ...p.conventions, exact: 'decimal' })
}

function reducedQuotient(
  p: Progress,
  rule: 'multiply-fractions' | 'divide-fractions',
  tops: readonly [Rational, Rational],
  bottoms: readonly [Rational, Rational],
): Done | null {
  const side = ([a, b]: readonly [Rational, Rational]) => {
    if (Q.equals(a, Q.ONE)) return number(b)
    return Q.equals(b, Q.ONE) ? number(a) : times(number(a), number(b))
  }
  p.move(rule, over(side(tops), side(bottoms)))
  const [top, bottom] = [Q.multiply(...tops), Q.multiply(...bottoms)]
  if (!top || !bottom) return p.done('divide')
  const g = commonDivisor(top.n, bottom.n)
  if (Q.equals(g, Q.ONE)) return p.done('products-worked-out')
  p.move('products-worked-out', over(number(top), number(bottom)))
  return p.done('reduce-fraction', undefined, { says: `Both are divided by ${g.n}.` })
}

/** Whole powers that are written out as products. */
const WRITTEN_OUT = 6

/** a^b of real numbers. */
export function realPower(p: Progress, a: NumberValue, b: NumberValue): Done | null {
  const exponent = exactOf(b)
  const base = p.operand(0).node
  const { value } = p
  if (value.kind !== 'failure' && value.kind === 'number' && isComplex(value) && value.im !== 0) return null
  if (!exponent || p.hasUnits) return p.done('real-power')
  if (Q.isZero(exponent)) return p.done('power-zero')
  if (Q.equals(exponent, Q.ONE)) return p.done('power-one')
  if (Q.isInteger(exponent)) {
    const n = Q.toNumber(exponent)
    if (n < 0) return a.re === 0 ? p.done('infinite') : p.rewrite('negative-power', over(whole(1), n === -1 ? base : power(base, valued(integer(-n))))) // prettier-ignore
    if (n > WRITTEN_OUT) return p.done('repeated-product')
    p.move('repeated-product', joined(Array.from({ length: n }, () => base), '*', base)) // prettier-ignore
    return p.done('products-worked-out')
  }
  if (exponent.n === 1 && exponent.d === 2) return isNegative(a) ? null : p.rewrite('root-as-power', radical(base))
  return p.done('real-power')
}
