import { rootsOf } from '../algebra/roots'
import type { Roots } from '../algebra/roots'
import * as C from '../numbers/complex'
import * as P from '../algebra/polynomial'
import { parts, polynomialValue } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import { substitute } from '../algebra/where'
import type { Operate } from '../algebra/where'
import { isZero } from '../values/beyond'
import type { Failure } from '../values/failure'
import type { NumberValue, Polynomial, Value } from '../values/types'

/** Polynomial equations: linear ones are put into the others, until one sought name is left, whose roots are known. */

export interface PolynomialEquation {
  readonly line: number
  /** What is to be 0. */
  readonly top: Polynomial
}

/** A solution: a value for each sought name, in their order. */
export interface PolynomialSolution {
  readonly values: readonly NumberValue[]
  readonly times: number
}

export type PolynomialOutcome =
  | {
      readonly kind: 'solved'
      readonly solutions: readonly PolynomialSolution[]
      readonly spare: number
      /** The roots that were taken, where any were. */
      readonly roots: Roots | null
    }
  | { readonly kind: 'few'; readonly free: readonly string[] }
  | { readonly kind: 'never'; readonly line: number }
  /** Several unknowns are left that no equation gives in terms of the others. */
  | { readonly kind: 'open' }
  | Failure

/** A sought name in terms of others. */
interface Given {
  readonly name: string
  readonly value: Algebraic
}

/** Highest degree that equations come to while they are put into one another. */
const DEGREE_MOST = 24

export function solvePolynomials(
  equations: readonly PolynomialEquation[],
  names: readonly string[],
  operate: Operate,
): PolynomialOutcome {
  let left = equations
  let spare = 0
  const given: Given[] = []
  for (;;) {
    const remaining: PolynomialEquation[] = []
    for (const equation of left) {
      const number = P.asNumber(equation.top)
      if (number === null) remaining.push(equation)
      else if (isZero(number) || negligible(number, equation, equations)) spare += 1
      else return { kind: 'never', line: equation.line }
    }
    left = remaining
    const solvable = pick(left)
    if (!solvable) break
    const { equation, name, value } = solvable
    given.push({ name, value })
    const next: PolynomialEquation[] = []
    for (const other of left) {
      if (other === equation) continue
      const put = putIn(other.top, name, value, operate)
      if (put === null) return { kind: 'open' }
      next.push({ line: other.line, top: put })
    }
    left = next
  }
  const known = new Set(given.map(({ name }) => name))
  const open = names.filter((name) => !known.has(name))
  if (left.length === 0) return open.length === 0 ? backwards(given, [], names, operate, 1, spare) : { kind: 'few', free: open } // prettier-ignore
  if (open.length > left.length) return { kind: 'few', free: open }
  if (open.length !== 1) return { kind: 'open' }
  const [name] = open
  return name === undefined ? { kind: 'open' } : ofOne(left, name, given, names, operate, spare)
}

/** Rounded terms that went away but for rounding. */
function negligible(
  number: NumberValue,
  equation: PolynomialEquation,
  equations: readonly PolynomialEquation[],
): boolean {
  if (number.exact) return false
  const own = equations.find(({ line }) => line === equation.line)
  const size = Math.max(...(own?.top.terms ?? []).map(({ factor }) => Math.hypot(factor.re, factor.im)))
  return Math.hypot(number.re, number.im) <= 1e-12 * size
}

/** An equation that gives one name in terms of others: the simplest. */
function pick(left: readonly PolynomialEquation[]) {
  let best: { equation: PolynomialEquation; name: string; value: Algebraic; cost: number } | null = null
  for (const equation of left) {
    const { unknowns, terms } = equation.top
    for (const [k, name] of unknowns.entries()) {
      const own = terms.filter(({ powers }) => (powers[k] ?? 0) > 0)
      const [only] = own
      if (!only || own.length !== 1 || only.powers[k] !== 1 || only.powers.some((p, j) => j !== k && p > 0)) continue
      const rest = terms.filter((term) => term !== only)
      // Alone it is the last unknown: its roots say the same, but another equation may need it.
      if (rest.some(({ factor }) => factor.re === 0 && factor.im === 0)) continue
      const degree = Math.max(0, ...rest.map(({ powers }) => powers.reduce((sum, p) => sum + p, 0)))
      // Put into one another equations grow by the product of their degrees.
      if (degree > 1 && left.some((other) => other !== equation && degreeIn(other.top, name) * degree + P.degree(other.top) > DEGREE_MOST)) continue // prettier-ignore
      const cost = degree * 1_000 + terms.length - Math.min(1, Math.hypot(only.factor.re, only.factor.im))
      if (best && best.cost <= cost) continue
      const value = solvedFor({ unknowns, terms: rest }, only.factor)
      if (value) best = { equation, name, value, cost }
    }
  }
  return best
}

function degreeIn({ unknowns, terms }: Polynomial, name: string): number {
  const k = unknowns.indexOf(name)
  return k < 0 ? 0 : Math.max(...terms.map(({ powers }) => powers[k] ?? 0))
}

/** −rest/factor. */
function solvedFor(rest: Polynomial, factor: NumberValue): Algebraic | null {
  const negative = P.negate(trimmed(rest))
  const found = P.divideBy(negative, factor)
  return P.isFailed(found) ? null : polynomialValue(found)
}

/** Without the unknowns that no term has. */
function trimmed({ unknowns, terms }: Polynomial): Polynomial {
  const used = unknowns.map((_, k) => terms.some(({ powers }) => (powers[k] ?? 0) > 0))
  return {
    unknowns: unknowns.filter((_, k) => used[k]),
    terms: terms.map(({ powers, factor }) => ({ factor, powers: powers.filter((_, k) => used[k]) })),
  }
}

/** A polynomial with an expression in the place of a name; `null` where it grows too large. */
function putIn(top: Polynomial, name: string, value: Algebraic, operate: Operate): Polynomial | null {
  if (!top.unknowns.includes(name)) return top
  const found = substitute(polynomialValue(top), new Map<string, Value>([[name, value]]), operate)
  return found.kind === 'number' || found.kind === 'polynomial' ? parts(found).top : null
}

/** The equations that are left have one name: its roots, as far as they solve all of them. */
function ofOne(
  left: readonly PolynomialEquation[],
  name: string,
  given: readonly Given[],
  names: readonly string[],
  operate: Operate,
  spare: number,
): PolynomialOutcome {
  const sorted = [...left].sort((a, b) => P.degree(a.top) - P.degree(b.top))
  const [first, ...others] = sorted
  const list = first && P.coefficients(first.top)
  if (!first || !list) return { kind: 'open' }
  const roots = rootsOf(list)
  if ('kind' in roots) return roots
  const distinct: { value: NumberValue; times: number }[] = []
  for (const value of roots.values) {
    const same = distinct.find((d) => d.value.re === value.re && d.value.im === value.im)
    if (same) same.times += 1
    else distinct.push({ value, times: 1 })
  }
  const solutions: PolynomialSolution[] = []
  for (const { value, times } of distinct) {
    if (others.some(({ top }) => !vanishes(top, name, value, operate))) continue
    const found = backwards(given, [{ name, value }], names, operate, times, 0)
    if (found.kind !== 'solved') return found
    solutions.push(...found.solutions)
  }
  return { kind: 'solved', solutions, spare: spare + others.length, roots }
}

function vanishes(top: Polynomial, name: string, value: NumberValue, operate: Operate): boolean {
  const found = substitute(polynomialValue(top), new Map<string, Value>([[name, value]]), operate)
  if (found.kind !== 'number') return false
  if (found.exact) return isZero(found)
  const at = Math.hypot(value.re, value.im)
  const size = top.terms.reduce(
    (sum, { factor, powers }) => sum + Math.hypot(factor.re, factor.im) * at ** (powers[0] ?? 0),
    0,
  )
  return Math.hypot(found.re, found.im) <= 1e-9 * size
}

/** The other names from the last to the first. */
function backwards(
  given: readonly Given[],
  start: readonly { readonly name: string; readonly value: NumberValue }[],
  names: readonly string[],
  operate: Operate,
  times: number,
  spare: number,
): PolynomialOutcome {
  const known = new Map<string, Value>(start.map(({ name, value }) => [name, value]))
  for (const { name, value } of [...given].reverse()) {
    const found = substitute(value, known, operate)
    if (found.kind === 'failure') return found
    known.set(name, found)
  }
  const values: NumberValue[] = []
  for (const name of names) {
    const value = known.get(name)
    if (value?.kind !== 'number' || !C.isFinite(value)) return { kind: 'open' }
    values.push(value)
  }
  return { kind: 'solved', solutions: [{ values, times }], spare, roots: null }
}
