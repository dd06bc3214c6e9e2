import * as P from '../algebra/polynomial'
import { parts } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import { toNumber } from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { fromBig } from '../numbers/rational'
import type { Coefficients } from './criteria'
import { onPlane } from './frequency'
import { polesOf } from './poles'
import { realRoots } from './realRoots'
import { sidesOf } from './stability'
import { realFraction } from './transfer'
import * as W from './whole'
import type { Whole } from './whole'

/**
 * For which values of a parameter all roots lie to the left (of samples: inside the unit circle). The number of roots to
 * the right changes only where the polynomial has a root on the axis, at a root of aₙ·Δₙ₋₁·a₀ (A. Hurwitz, 1895); between
 * two of them it is counted at one value.
 */
export interface StableRange {
  readonly from: Limit | null
  readonly to: Limit | null
}

/** An end of a range: exactly where it is a fraction. */
export interface Limit {
  readonly exact: Rational | null
  readonly x: number
}

/** Largest degree for which the range is worked out. */
const DEGREE_MOST = 12

export function stableRanges(given: Coefficients, discrete: boolean): readonly StableRange[] | null {
  if (given.list.length - 1 > DEGREE_MOST) return null
  const straight = wholeIn(given.list)
  if (!straight) return null
  // From the lowest power up, each a polynomial in the parameter.
  const list = discrete ? moved(straight) : straight
  const critical = [list[list.length - 1] ?? [], hurwitz(list), list[0] ?? []].filter((p) => p.length > 0)
  const limits = critical
    .flatMap(exactRoots)
    .sort((a, b) => a.x - b.x)
    .filter((limit, k, all) => k === 0 || Math.abs(limit.x - (all[k - 1]?.x ?? 0)) > 1e-13 * Math.abs(limit.x))
  const edges: (Limit | null)[] = [null, ...limits, null]
  const stable: StableRange[] = []
  for (let k = 0; k + 1 < edges.length; k += 1) {
    const [from, to] = [edges[k] ?? null, edges[k + 1] ?? null]
    const [n, d] = between(from, to)
    const at = W.trimmed(list.map((p) => valueAt(p, n, d, degreeIn(list))))
    const sides = at.length > 1 ? sidesOf(at) : null
    if (sides?.right === 0 && sides.axis === 0 && at.length === list.length) stable.push({ from, to })
  }
  return stable
}

function wholeIn(list: readonly Algebraic[]): readonly Whole[] | null {
  const all = list.map((item) => P.coefficients(parts(item).top))
  const flat = all.flatMap((c) => c ?? [])
  const fractions = flat.flatMap((z) => realFraction(z) ?? [])
  if (all.includes(null) || fractions.length < flat.length) return null
  const { whole } = W.overOne(fractions)
  let at = 0
  const found = all.map((c) => {
    const count = c?.length ?? 0
    const part = whole.slice(at, at + count)
    at += count
    return W.trimmed([...part].reverse())
  })
  return found.reverse()
}

const degreeIn = (list: readonly Whole[]): number => Math.max(0, ...list.map(W.degreeOf))

/** p(n/d)·d^degree, d > 0. */
function valueAt(p: Whole, n: bigint, d: bigint, degree: number): bigint {
  return p.reduce((sum, c, k) => sum + c * n ** BigInt(k) * d ** BigInt(degree - k), 0n)
}

/** The coefficients in w of (1 − w)ⁿ·p((1 + w)/(1 − w)). */
function moved(list: readonly Whole[]): readonly Whole[] {
  const degree = list.length - 1
  const powers = list.map((_, k) => onPlane([...Array.from({ length: k }, () => 0n), 1n], degree))
  return Array.from({ length: degree + 1 }, (_, i) =>
    list.reduce<Whole>((sum, p, k) => W.add(sum, W.times(p, W.coefficient(powers[k] ?? [], i))), []),
  )
}

/** The last but one of Hurwitz's determinants, by elimination without fractions (E. H. Bareiss, 1968). */
function hurwitz(list: readonly Whole[]): Whole {
  const n = list.length - 1
  const size = n - 1
  if (size < 1) return W.ONE
  // Row r, column c: the coefficient of s^(n − 2c + r − 1), counted from 1.
  const rows: Whole[][] = Array.from({ length: size }, (_, r) =>
    Array.from({ length: size }, (__, c) => list[n - 2 * (c + 1) + (r + 1)] ?? []),
  )
  let before: Whole = W.ONE
  for (let k = 0; k < size - 1; k += 1) {
    const pivot = rows.findIndex((row, r) => r >= k && (row[k]?.length ?? 0) > 0)
    if (pivot < 0) return []
    ;[rows[k], rows[pivot]] = [rows[pivot] ?? [], rows[k] ?? []]
    const top = rows[k] ?? []
    for (let r = k + 1; r < size; r += 1) {
      const row = rows[r] ?? []
      const next = row.map((entry, c) =>
        c <= k
          ? []
          : quotient(W.subtract(W.multiply(top[k] ?? [], entry), W.multiply(row[k] ?? [], top[c] ?? [])), before),
      )
      rows[r] = next
    }
    before = top[k] ?? W.ONE
  }
  return rows[size - 1]?.[size - 1] ?? []
}

function quotient(a: Whole, b: Whole): Whole {
  const { quotient: found, scale } = W.division(a, b)
  return found.map((c) => c / scale)
}

/** The real roots, fractions among them exactly. */
function exactRoots(p: Whole): readonly Limit[] {
  if (p.length < 2) return []
  const exact = (polesOf(p) ?? []).flatMap(({ exact: root }) => (root && root.im.n === 0 ? [root.re] : []))
  return realRoots(p).map(({ x }) => {
    const near = exact.find((q) => Math.abs(toNumber(q) - x) <= 1e-12 * Math.abs(x))
    return { x, exact: x === 0 ? { n: 0, d: 1 } : (near ?? null) }
  })
}

/** A fraction between two limits. */
function between(from: Limit | null, to: Limit | null): readonly [bigint, bigint] {
  if (!from && !to) return [0n, 1n]
  if (!from) return whole(Math.floor((to?.x ?? 0) - 1) - Math.floor(Math.abs(to?.x ?? 0)))
  if (!to) return whole(Math.ceil(from.x + 1) + Math.ceil(Math.abs(from.x)))
  const middle = realFractionOf((from.x + to.x) / 2)
  return middle
}

const whole = (x: number): readonly [bigint, bigint] => [BigInt(x), 1n]

function realFractionOf(x: number): readonly [bigint, bigint] {
  let d = 1n
  let value = x
  for (let k = 0; k < 1100 && !Number.isInteger(value); k += 1) {
    value *= 2
    d *= 2n
  }
  const q = fromBig(BigInt(value), d)
  return q ? [BigInt(q.n), BigInt(q.d)] : [0n, 1n]
}
