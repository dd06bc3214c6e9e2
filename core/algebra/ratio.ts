import * as C from '../numbers/complex'
import * as A from '../values/arithmetic'
import { bare } from '../values/quantity'
import { integer } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Factors, NumberValue, Period, Polynomial, PolynomialValue, Value } from '../values/types'
import { cancelled, factorsOf, leastCommon } from './factors'
import * as P from './polynomial'

/** Polynomials and their ratios as values, with the rules of the operators. */

/** A number or an algebraic value. */
export type Algebraic = NumberValue | PolynomialValue

export function isAlgebraic(value: Value): value is Algebraic {
  return value.kind === 'number' || value.kind === 'polynomial'
}

export function unknownValue(name: string): PolynomialValue {
  return { kind: 'polynomial', top: P.unknown(name), bottom: null }
}

/** True of the bare unknown of a name, whatever unit it is declared with. */
export function isUnknown(of: Value, name: string): boolean {
  const value = bare(of)
  if (value.kind !== 'polynomial' || value.bottom) return false
  const [only] = value.top.terms
  return value.top.terms.length === 1 && value.top.unknowns[0] === name && only?.powers[0] === 1
}

const ONE = P.constant(integer(1))

export function parts(value: Algebraic): { readonly top: Polynomial; readonly bottom: Polynomial } {
  if (value.kind === 'number') return { top: P.constant(value), bottom: ONE }
  return { top: value.top, bottom: value.bottom ?? ONE }
}

/** A polynomial as a value: a number where no unknown is left. */
export function polynomialValue(p: Polynomial): Algebraic {
  return P.asNumber(p) ?? { kind: 'polynomial', top: p, bottom: null }
}

/**
 * A quotient: divided where it divides; in one unknown with exact coefficients
 * in lowest terms; with rounded ones as it stands.
 */
export function quotient(top: Polynomial, bottom: Polynomial): Algebraic | Failure {
  if (P.isZero(bottom)) return failure('polynomial-by-zero')
  const number = P.asNumber(bottom)
  if (number) {
    const divided = P.divideBy(top, number)
    return P.isFailed(divided) ? divided : polynomialValue(divided)
  }
  if (P.isZero(top)) return integer(0)
  const exact = P.isExact(top) && P.isExact(bottom)
  if (exact) {
    const found = P.divide(top, bottom)
    if ('kind' in found) return found
    if (P.isZero(found.rest)) return polynomialValue(found.quotient)
  } else if (sameUpToFactor(top, bottom)) {
    const [a, b] = [top.terms[0], bottom.terms[0]]
    if (a && b) return A.divide(a.factor, b.factor)
  }
  const unknowns = P.joinedUnknowns(top, bottom)
  if (unknowns.length > 1) return failure('ratio-unknowns', { names: unknowns.join(', ') })
  return lowest(top, bottom, exact)
}

/** The very same polynomial above and below. */
function sameUpToFactor(a: Polynomial, b: Polynomial): boolean {
  if (a.terms.length !== b.terms.length) return false
  const same = P.subtract(a, b)
  return !P.isFailed(same) && P.isZero(same)
}

function lowest(top: Polynomial, bottom: Polynomial, exact: boolean): PolynomialValue {
  const common = exact && top.unknowns.length === 1 ? P.commonDivisor(top, bottom) : null
  if (common && P.degree(common) > 0) {
    const [a, b] = [P.divide(top, common), P.divide(bottom, common)]
    if (!('kind' in a) && !('kind' in b)) return { kind: 'polynomial', top: a.quotient, bottom: b.quotient }
  }
  return { kind: 'polynomial', top, bottom }
}

type Join = (a: Polynomial, b: Polynomial) => Polynomial | Failure

function product(a: Polynomial, b: Polynomial): Polynomial | Failure {
  return a === ONE ? b : b === ONE ? a : P.multiply(a, b)
}

function productOf(all: readonly Polynomial[]): Polynomial | Failure {
  return all.reduce<Polynomial | Failure>((so, next) => (P.isFailed(so) ? so : product(so, next)), ONE)
}

const isExactValue = (x: Algebraic): boolean =>
  x.kind === 'number' ? x.exact !== null : P.isExact(x.top) && (x.bottom === null || P.isExact(x.bottom))

const factorsIn = (x: Algebraic): Factors => (x.kind === 'number' ? { top: [P.constant(x)], bottom: [] } : factorsOf(x))

/** More factors than this are not told apart. */
const FACTORS_MOST = 64

/** A ratio of products with rounded coefficients: what stands on both sides goes, and the rest is kept apart. */
function ofFactors(given: Factors): Algebraic | Failure {
  const factors = cancelled(given)
  const top = productOf(factors.top)
  if (P.isFailed(top)) return top
  const bottom = productOf(factors.bottom)
  if (P.isFailed(bottom)) return bottom
  const value = P.degree(bottom) === 0 ? quotient(top, bottom) : P.isZero(top) ? integer(0) : oneUnknown(top, bottom)
  if (value.kind !== 'polynomial') return value
  const count = factors.top.length + factors.bottom.length
  // What a number below has gone into is one factor again.
  const kept = bottom !== ONE && P.degree(bottom) === 0 ? undefined : factors
  return kept && count > 1 && count <= FACTORS_MOST ? { ...value, factors: kept } : value
}

/** Without a common factor; several unknowns only where it divides. */
function oneUnknown(top: Polynomial, bottom: Polynomial): Algebraic | Failure {
  const several = P.joinedUnknowns(top, bottom).length > 1
  return several ? quotient(top, bottom) : { kind: 'polynomial', top, bottom }
}

function sum(x: Algebraic, y: Algebraic, join: Join): Algebraic | Failure {
  const [a, b] = [parts(x), parts(y)]
  if (a.bottom === ONE && b.bottom === ONE) {
    const found = join(a.top, b.top)
    return P.isFailed(found) ? found : polynomialValue(found)
  }
  if (!isExactValue(x) || !isExactValue(y)) return roundedSum(factorsIn(x), factorsIn(y), join)
  if (sameUpToFactor(a.bottom, b.bottom)) {
    const top = join(a.top, b.top)
    return P.isFailed(top) ? top : quotient(top, a.bottom)
  }
  const left = product(a.top, b.bottom)
  if (P.isFailed(left)) return left
  const right = product(b.top, a.bottom)
  if (P.isFailed(right)) return right
  const top = join(left, right)
  if (P.isFailed(top)) return top
  const bottom = product(a.bottom, b.bottom)
  return P.isFailed(bottom) ? bottom : quotient(top, bottom)
}

/** Over the least common product of the factors below. */
function roundedSum(a: Factors, b: Factors, join: Join): Algebraic | Failure {
  const common = leastCommon(a.bottom, b.bottom)
  const left = productOf([...a.top, ...common.ofA])
  if (P.isFailed(left)) return left
  const right = productOf([...b.top, ...common.ofB])
  if (P.isFailed(right)) return right
  const top = join(left, right)
  if (P.isFailed(top)) return top
  return P.isZero(top) ? integer(0) : ofFactors({ top: [top], bottom: common.all })
}

export type AlgebraSign = '+' | '-' | '*' | '/' | '^' | '||'

/** An operator on numbers and polynomials. Of a polynomial with ∞ or what is undefined nothing is known. */
export function algebraic(sign: AlgebraSign, x: Algebraic, y: Algebraic): Algebraic | Failure {
  const period = periodOf(x, y)
  if (period && 'kind' in period) return period
  const value = joined(sign, x, y)
  return period && value.kind === 'polynomial' ? { ...value, period } : value
}

/** The time between samples that two values have in common. */
function periodOf(x: Algebraic, y: Algebraic): Period | Failure | undefined {
  const [a, b] = [x.kind === 'polynomial' ? x.period : undefined, y.kind === 'polynomial' ? y.period : undefined]
  if (!a || !b || a === b) return a ?? b
  const same = a.value.re === b.value.re && a.measured === b.measured
  return same ? a : failure('periods-differ', { one: a.value.re, other: b.value.re })
}

function joined(sign: AlgebraSign, x: Algebraic, y: Algebraic): Algebraic | Failure {
  if (isOutside(x) || isOutside(y)) return A.undefinedNumber()
  switch (sign) {
    case '+':
      return sum(x, y, P.add)
    case '-':
      return sum(x, y, P.subtract)
    case '*':
    case '/': {
      if (!isExactValue(x) || !isExactValue(y)) return roundedProduct(sign, x, y)
      const a = parts(x)
      const other = parts(y)
      const b = sign === '*' ? other : { top: other.bottom, bottom: other.top }
      const top = product(a.top, b.top)
      if (P.isFailed(top)) return top
      const bottom = product(a.bottom, b.bottom)
      if (P.isFailed(bottom)) return bottom
      return bottom === ONE ? polynomialValue(top) : quotient(top, bottom)
    }
    case '^':
      return raised(x, y)
    case '||': {
      const top = algebraic('*', x, y)
      if (top.kind === 'failure') return top
      const bottom = algebraic('+', x, y)
      return bottom.kind === 'failure' ? bottom : algebraic('/', top, bottom)
    }
  }
}

function roundedProduct(sign: '*' | '/', x: Algebraic, y: Algebraic): Algebraic | Failure {
  const factor = y.kind === 'number' ? y : sign === '*' && x.kind === 'number' ? x : null
  const other = y.kind === 'number' ? x : y
  // A number does not matter to which factors are the same.
  if (factor && other.kind === 'polynomial' && !other.factors && !other.bottom) return scaledBy(other.top, factor, sign)
  const [a, b] = [factorsIn(x), factorsIn(y)]
  if (sign === '/' && P.isZero(parts(y).top)) return failure('polynomial-by-zero')
  return sign === '*'
    ? ofFactors({ top: [...a.top, ...b.top], bottom: [...a.bottom, ...b.bottom] })
    : ofFactors({ top: [...a.top, ...b.bottom], bottom: [...a.bottom, ...b.top] })
}

function scaledBy(p: Polynomial, factor: NumberValue, sign: '*' | '/'): Algebraic | Failure {
  const found = sign === '*' ? P.scale(p, factor) : P.divideBy(p, factor)
  return P.isFailed(found) ? found : polynomialValue(found)
}

const isOutside = (x: Algebraic): boolean => x.kind === 'number' && !x.exact && !C.isFinite(x)

function raised(x: Algebraic, y: Algebraic): Algebraic | Failure {
  if (y.kind !== 'number' || y.im !== 0 || !Number.isInteger(y.re)) return failure('polynomial-exponent')
  if (x.kind === 'number') return A.power(x, y)
  const { top, bottom } = parts(x)
  const n = Math.abs(y.re)
  const up = P.power(top, n)
  if (P.isFailed(up)) return up
  const down = bottom === ONE ? ONE : P.power(bottom, n)
  if (P.isFailed(down)) return down
  if (!isExactValue(x)) {
    const { top: above, bottom: below } = factorsOf(x)
    const times = (all: readonly Polynomial[]): Polynomial[] => all.flatMap((p) => Array.from({ length: n }, () => p))
    const [first, second] = y.re >= 0 ? [above, below] : [below, above]
    if (n * (above.length + below.length) <= FACTORS_MOST)
      return ofFactors({ top: times(first), bottom: times(second) })
  }
  if (y.re >= 0) return down === ONE ? polynomialValue(up) : quotient(up, down)
  return quotient(down, up)
}

export function negated({ top, bottom, factors, period }: PolynomialValue): PolynomialValue {
  const value: PolynomialValue = { kind: 'polynomial', top: P.negate(top), bottom, ...(period ? { period } : {}) }
  return factors ? { ...value, factors: { ...factors, top: [P.constant(integer(-1)), ...factors.top] } } : value
}

/** The unknowns of a value, in order. */
export function unknownsOf({ top, bottom }: PolynomialValue): readonly string[] {
  return bottom ? P.joinedUnknowns(top, bottom) : top.unknowns
}

/** True where two algebraic values are the same: a/b = c/d where ad = bc. */
export function sameAlgebra(x: Algebraic, y: Algebraic): boolean {
  return compared(x, y, (a, b) => {
    const rest = P.subtract(a, b)
    return !P.isFailed(rest) && P.isZero(rest)
  })
}

export function algebraAgrees(x: Algebraic, y: Algebraic): boolean {
  return compared(x, y, P.agree)
}

function compared(x: Algebraic, y: Algebraic, same: (a: Polynomial, b: Polynomial) => boolean): boolean {
  const [a, b] = [parts(x), parts(y)]
  const left = product(a.top, b.bottom)
  const right = product(b.top, a.bottom)
  return !P.isFailed(left) && !P.isFailed(right) && same(left, right)
}
