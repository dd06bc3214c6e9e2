import * as Q from './rational'
import type { Rational } from './rational'

/**
 * Trigonometry on exact fractions of a turn: arguments are reduced before any
 * rounding, so `sin` of a million degrees is as good as `sin` of one, and
 * quarter and twelfth turns come out exact.
 */

const EIGHT: Rational = { n: 8, d: 1 }
const HALF: Rational = { n: 1, d: 2 }
const QUARTER: Rational = { n: 1, d: 4 }

/** A value with, where it has one, its exact rational. */
export interface TurnValue {
  readonly value: number
  readonly exact: Rational | null
}

const exactly = (q: Rational): TurnValue => ({ value: Q.toNumber(q), exact: q })

/** t reduced to [0, 1) turns; `null` only when it outgrows the bit budget. */
function reduced(t: Rational): Rational | null {
  return Q.modulo(t, Q.ONE)
}

/** t reduced to (−½, ½] turns, the normal range of an argument. */
export function normalTurns(t: Rational): Rational {
  const r = reduced(t) ?? Q.ZERO
  return Q.compare(r, HALF) > 0 ? (Q.subtract(r, Q.ONE) ?? r) : r
}

/** The sine of t turns. */
export function sinTurns(t: Rational): TurnValue {
  const r = reduced(t)
  if (r === null) return { value: NaN, exact: null }
  if (Q.compare(r, HALF) >= 0) {
    const back = Q.subtract(r, HALF)
    return back ? negated(firstHalf(back)) : { value: NaN, exact: null }
  }
  return firstHalf(r)
}

/** The cosine of t turns. */
export function cosTurns(t: Rational): TurnValue {
  const shifted = Q.add(t, QUARTER)
  return shifted ? sinTurns(shifted) : { value: NaN, exact: null }
}

/** The tangent of t turns; ∞ without a sign at the poles. */
export function tanTurns(t: Rational): TurnValue {
  const s = sinTurns(t)
  const c = cosTurns(t)
  if (c.exact && Q.isZero(c.exact)) return { value: Infinity, exact: null }
  if (s.exact && Q.isZero(s.exact)) return exactly(Q.ZERO)
  // An odd number of eighths of a turn: the two have the same size.
  const eighths = Q.multiply(t, EIGHT)
  if (eighths && Q.isInteger(eighths)) return exactly({ n: s.value * c.value > 0 ? 1 : -1, d: 1 })
  return { value: s.value / c.value, exact: null }
}

function negated(v: TurnValue): TurnValue {
  return v.exact ? exactly(Q.negate(v.exact)) : { value: -v.value, exact: null }
}

/** sin(2πr) for r in [0, ½). */
function firstHalf(r: Rational): TurnValue {
  const back = Q.subtract(HALF, r)
  const folded = back && Q.compare(r, QUARTER) > 0 ? back : r
  if (Q.isZero(folded)) return exactly(Q.ZERO)
  if (Q.equals(folded, QUARTER)) return exactly(Q.ONE)
  if (Q.equals(folded, { n: 1, d: 12 })) return exactly(HALF)
  if (Q.equals(folded, { n: 1, d: 6 })) return { value: Math.sqrt(3) / 2, exact: null }
  if (Q.equals(folded, { n: 1, d: 8 })) return { value: Math.SQRT1_2, exact: null }
  if (Q.compare(folded, { n: 1, d: 8 }) > 0) {
    const rest = Q.subtract(QUARTER, folded)
    return { value: Math.cos(2 * Math.PI * Q.toNumber(rest ?? folded)), exact: null }
  }
  return { value: Math.sin(2 * Math.PI * Q.toNumber(folded)), exact: null }
}

/** The sine of so many degrees, a double: reduced before any rounding, right on all quarters and twelfths of a turn. */
export function sinDegrees(x: number): number {
  // The remainder and the differences below are exact (P. H. Sterbenz, 1974).
  const rest = x % 360
  const size = Math.abs(rest)
  const half = size > 180 ? size - 180 : size
  const folded = half > 90 ? 180 - half : half
  const sign = rest < 0 !== size > 180 ? -1 : 1
  return sign * quarterSine(folded)
}

export function cosDegrees(x: number): number {
  const size = Math.abs(x % 360)
  const half = size > 180 ? 360 - size : size
  return half > 90 ? -quarterSine(half - 90) : quarterSine(90 - half)
}

/** ∞ without a sign at the poles. */
export function tanDegrees(x: number): number {
  const [s, c] = [sinDegrees(x), cosDegrees(x)]
  if (c === 0) return Infinity
  return Math.abs(s) === Math.abs(c) ? Math.sign(s) * Math.sign(c) : s / c
}

/** sin x for x from 0° to 90°. */
function quarterSine(x: number): number {
  if (x === 0 || x === 90) return x / 90
  if (x === 30) return 0.5
  if (x === 60) return Math.sqrt(3) / 2
  if (x === 45) return Math.SQRT1_2
  return x > 45 ? Math.cos(((90 - x) / 180) * Math.PI) : Math.sin((x / 180) * Math.PI)
}
