import { gcdBig, lcmBig } from '../numbers/divisors'
import type { Rational } from '../numbers/rational'
import { work } from '../numbers/work'

/**
 * Polynomials with whole coefficients: the one of xᵏ at place k, the last not 0; none for the zero polynomial. What a
 * loop is judged by (crossovers, multiplicities, signs of arrays) is worked out with them, so that none of it is rounded.
 */
export type Whole = readonly bigint[]

export const ONE: Whole = [1n]

export const degreeOf = (p: Whole): number => p.length - 1

export function trimmed(list: readonly bigint[]): Whole {
  let count = list.length
  while (count > 0 && list[count - 1] === 0n) count -= 1
  return count === list.length ? list : list.slice(0, count)
}

export const coefficient = (p: Whole, k: number): bigint => p[k] ?? 0n

/** The coefficient of the highest power; 0 of the zero polynomial. */
export const leading = (p: Whole): bigint => p[p.length - 1] ?? 0n

export function add(a: Whole, b: Whole, sign: 1n | -1n = 1n): Whole {
  const count = Math.max(a.length, b.length)
  return trimmed(Array.from({ length: count }, (_, k) => coefficient(a, k) + sign * coefficient(b, k)))
}

export const subtract = (a: Whole, b: Whole): Whole => add(a, b, -1n)

export function multiply(a: Whole, b: Whole): Whole {
  if (a.length === 0 || b.length === 0) return []
  work(20 * a.length * b.length)
  const result = new Array<bigint>(a.length + b.length - 1).fill(0n)
  for (const [i, x] of a.entries()) {
    if (x === 0n) continue
    for (const [k, y] of b.entries()) result[i + k] = (result[i + k] ?? 0n) + x * y
  }
  return result
}

export const times = (p: Whole, factor: bigint): Whole => (factor === 0n ? [] : p.map((c) => c * factor))

export function derivative(p: Whole): Whole {
  return p.slice(1).map((c, k) => c * BigInt(k + 1))
}

/** p(−x). */
export const mirrored = (p: Whole): Whole => p.map((c, k) => (k % 2 === 0 ? c : -c))

const abs = (x: bigint): bigint => (x < 0n ? -x : x)

/** The whole number that divides all coefficients of both. */
export function content(a: Whole, b: Whole): bigint {
  return [...a, ...b].reduce((common, c) => (common === 1n ? common : gcdBig(common, abs(c))), 0n)
}

export const over = (p: Whole, factor: bigint): Whole => (factor <= 1n ? p : p.map((c) => c / factor))

/** Without the factor that all coefficients have in common. */
export function primitive(p: Whole): Whole {
  let common = 0n
  for (const c of p) {
    common = gcdBig(common, abs(c))
    if (common === 1n) return p
  }
  return common === 0n ? p : p.map((c) => c / common)
}

/**
 * Two polynomials and the negated remainders of each by the next, up to positive numbers, the last that is not 0 at the
 * end. What the coefficients have in common by the way is known beforehand, so that it is divided out without being looked
 * for (G. E. Collins, 1967, and W. S. Brown, 1978: subresultants). The degree of a is not below that of b.
 */
export function remainders(a: Whole, b: Whole): readonly Whole[] {
  const chain: Whole[] = [a, b]
  let [g, h] = [1n, 1n]
  for (let [x, y] = [a, b]; degreeOf(y) > 0;) {
    const delta = BigInt(degreeOf(x) - degreeOf(y))
    const { rest } = division(x, y)
    if (rest.length === 0) break
    const known = g * h ** delta
    ;[x, y] = [y, rest.map((c) => -c / known)]
    chain.push(y)
    g = abs(leading(x))
    h = delta === 0n ? h : g ** delta / h ** (delta - 1n)
  }
  return chain
}

/** The greatest common divisor, without a number in front; its leading coefficient is positive. */
export function commonDivisor(a: Whole, b: Whole): Whole {
  const [x, y] = a.length < b.length ? [primitive(b), primitive(a)] : [primitive(a), primitive(b)]
  const last = y.length === 0 ? x : (remainders(x, y).at(-1) ?? ONE)
  // The last one divides both, or is a number.
  const found = primitive(last)
  return leading(found) < 0n ? times(found, -1n) : found
}

/** a/b where b divides a but for a number: the primitive quotient, with a positive leading coefficient. */
export function divided(a: Whole, b: Whole): Whole {
  const { quotient } = division(a, b)
  const found = primitive(quotient)
  return leading(found) < 0n ? times(found, -1n) : found
}

/** scale·a = quotient·b + rest, with a positive scale. */
export function division(
  a: Whole,
  b: Whole,
): { readonly quotient: Whole; readonly rest: Whole; readonly scale: bigint } {
  const sign = leading(b) < 0n ? -1n : 1n
  const lead = abs(leading(b))
  const count = Math.max(0, a.length - b.length + 1)
  const scale = lead ** BigInt(count)
  const rest = a.map((c) => c * scale)
  const quotient = new Array<bigint>(count).fill(0n)
  for (let k = count - 1; k >= 0; k -= 1) {
    work(30 * b.length)
    const factor = ((rest[k + b.length - 1] ?? 0n) / lead) * sign
    quotient[k] = factor
    for (const [i, c] of b.entries()) rest[k + i] = (rest[k + i] ?? 0n) - factor * c
  }
  return { quotient: trimmed(quotient), rest: trimmed(rest), scale }
}

/**
 * The factors of each multiplicity, none of them with a multiple root (D. Y. Y. Yun, "On square-free decomposition
 * algorithms", 1976).
 */
export function squareFree(p: Whole): readonly { readonly factor: Whole; readonly times: number }[] {
  const found: { factor: Whole; times: number }[] = []
  let inner = commonDivisor(p, derivative(p))
  let rest = divided(p, inner)
  for (let times = 1; degreeOf(rest) > 0; times += 1) {
    const shared = commonDivisor(rest, inner)
    const factor = divided(rest, shared)
    if (degreeOf(factor) > 0) found.push({ factor, times })
    rest = shared
    inner = divided(inner, shared)
  }
  return found
}

/** p at n/2^shift, times a positive number: all that matters of it is its sign. */
export function signAt(p: Whole, n: bigint, shift: number): -1 | 0 | 1 {
  let value = 0n
  const by = BigInt(shift)
  for (let k = p.length - 1, raised = 0n; k >= 0; k -= 1, raised += by)
    value = value * n + (coefficient(p, k) << raised)
  return value < 0n ? -1 : value > 0n ? 1 : 0
}

/** Fractions times the least number that makes all of them whole. */
export function overOne(list: readonly Rational[]): {
  readonly whole: readonly bigint[]
  readonly denominator: bigint
} {
  let denominator = 1n
  for (const { d } of list) denominator = lcmBig(denominator, BigInt(d))
  return { whole: list.map(({ n, d }) => BigInt(n) * (denominator / BigInt(d))), denominator }
}
