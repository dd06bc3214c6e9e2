import * as P from '../algebra/polynomial'
import { isAlgebraic, parts, unknownsOf } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import { toDyadic } from '../numbers/dyadic'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { exactReal, real } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, Period, Polynomial, Value } from '../values/types'
import { polesOf } from './poles'
import type { Pole } from './poles'
import * as W from './whole'
import * as Z from './wide'
import type { Whole } from './whole'

/**
 * A transfer function: a ratio of polynomials in one unknown with real coefficients. Rounded coefficients are taken for
 * exactly the doubles that they are, so that whatever follows from them follows exactly.
 */
export interface Transfer {
  /** The unknown; `null` of a plain number, which is a gain. */
  readonly unknown: string | null
  readonly top: Whole
  readonly bottom: Whole
  /** True where no coefficient is rounded. */
  readonly exact: boolean
  /** True where the unknown is z, that of samples. */
  readonly discrete: boolean
  readonly period: Period | null
}

const known = new WeakMap<Algebraic, Transfer | Failure>()

/** A value as a transfer function; why it is none. `name` is the function that asks. */
export function transferOf(name: string, value: Value): Transfer | Failure {
  if (value.kind === 'delayed') return failure('transfer-delayed', { name })
  if (!isAlgebraic(value)) return failure('transfer-needed', { name, kind: value.kind })
  const before = known.get(value)
  if (before) return before
  const found = read(name, value)
  // A sentence names the function that asked.
  if (!('kind' in found)) known.set(value, found)
  return found
}

function read(name: string, value: Algebraic): Transfer | Failure {
  const unknowns = value.kind === 'number' ? [] : unknownsOf(value)
  if (unknowns.length > 1) return failure('one-unknown', { name, names: unknowns.join(', ') })
  const { top, bottom } = parts(value)
  if ([...top.terms, ...bottom.terms].some(({ factor }) => factor.im !== 0))
    return failure('transfer-complex', { name })
  // Factors that were kept apart keep what is exact of them: a pole at 1 is at 1.
  const factors = value.kind === 'polynomial' && value.factors ? value.factors : { top: [top], bottom: [bottom] }
  const [above, below] = [productOf(factors.top), productOf(factors.bottom)]
  if (!above || !below) return failure('transfer-not-finite', { name })
  const unknown = unknowns[0] ?? null
  const [up, down] = [W.times(above.whole, below.denominator), W.times(below.whole, above.denominator)]
  const common = W.content(up, down)
  return {
    unknown,
    top: W.over(up, common),
    bottom: W.over(down, common),
    exact: P.isExact(top) && P.isExact(bottom),
    discrete: unknown?.startsWith('z') ?? false,
    period: value.kind === 'polynomial' ? (value.period ?? null) : null,
  }
}

/** A product of polynomials in one unknown, over a whole number. */
function productOf(list: readonly Polynomial[]): { readonly whole: Whole; readonly denominator: bigint } | null {
  let so: { whole: Whole; denominator: bigint } = { whole: W.ONE, denominator: 1n }
  for (const p of list) {
    const coefficients = P.coefficients(p)
    const fractions = coefficients?.flatMap((z) => realFraction(z) ?? []) ?? []
    if (!coefficients || fractions.length < coefficients.length) return null
    const { whole, denominator } = W.overOne(fractions)
    const one = W.trimmed([...whole].reverse())
    so = { whole: W.multiply(so.whole, one), denominator: so.denominator * denominator }
  }
  return so
}

/** A real number as the fraction that it is, or that its double is. */
export function realFraction(z: NumberValue): Rational | null {
  return z.exact ? z.exact.re : toDyadic(z.re)
}

/** Poles of a transfer function, which are worked out once. */
const poleSets = new WeakMap<Whole, readonly Pole[] | null>()

export function rootsOfWhole(p: Whole): readonly Pole[] | null {
  const before = poleSets.get(p)
  if (before !== undefined) return before
  const found = polesOf(p)
  poleSets.set(p, found)
  return found
}

export const order = ({ bottom }: Transfer): number => W.degreeOf(bottom)

/** How many more poles than zeros there are. */
export const relativeDegree = ({ top, bottom }: Transfer): number =>
  top.length === 0 ? Infinity : W.degreeOf(bottom) - W.degreeOf(top)

/** A quotient of whole numbers, d not 0, as a number: exact where what it is made of is. */
export function quotientValue(n: bigint, d: bigint, exact: boolean): NumberValue {
  const q = Q.fromBig(n, d)
  return q && exact ? exactReal(q) : real(quotientNumber(n, d))
}

/** The same as a double. */
export function quotientNumber(n: bigint, d: bigint): number {
  const q = Q.fromBig(n, d)
  return q ? Q.toNumber(q) : Z.toComplex(Z.divide(Z.fromWhole(n), Z.fromWhole(d))).re
}
