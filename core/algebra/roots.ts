import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { isZero } from '../values/beyond'
import { complexNumber, exactNumber, integer, ofSort, real } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, Polynomial } from '../values/types'
import type { Gaussian } from '../numbers/gaussian'
import { aberth } from './aberth'
import * as P from './polynomial'
import { preciseRoots } from './preciseRoots'

/** The roots of a polynomial in one unknown. */

export interface Roots {
  /** Each as often as its multiplicity says, by real part, then by imaginary part. */
  readonly values: readonly NumberValue[]
  /** True where rounded roots lie so near one another that they may be one of higher multiplicity. */
  readonly clustered: boolean
  /** By which share of its size a root may be off, since the coefficients are rounded. */
  readonly off: number
}

/** Highest degree whose roots are worked out. */
const DEGREE_MOST = 400
/** Highest degree up to which multiple roots are told apart exactly. */
const EXACT_DEGREE = 40

/**
 * Coefficients from the highest power down. With exact coefficients the factors
 * of each multiplicity are separated first (D. Y. Y. Yun, "On square-free
 * decomposition algorithms", 1976), so that every root that is computed is a
 * simple one; they are worked out in as many digits as it takes (`preciseRoots.ts`),
 * and rational ones come out exactly, proved by putting them in. Those of rounded
 * coefficients come from `aberth.ts`, at any scale of the unknown.
 */
export function rootsOf(list: readonly NumberValue[]): Roots | Failure {
  const first = list.findIndex((c) => !isZero(c))
  if (first < 0) return failure('roots-of-zero')
  const trimmed = list.slice(first)
  if (!trimmed.every((c) => C.isFinite(c))) return failure('domain', { name: 'roots', needs: 'finite coefficients' })
  if (trimmed.length - 1 > DEGREE_MOST) return failure('degree-too-high', { limit: DEGREE_MOST })
  const last = trimmed.findLastIndex((c) => !isZero(c))
  const atZero = Array.from({ length: trimmed.length - 1 - last }, () => integer(0))
  const core = trimmed.slice(0, last + 1)
  const exact = core.every((c) => c.exact) && core.length - 1 <= EXACT_DEGREE ? separated(core) : null
  const found = exact ?? simple(core, false)
  if ('kind' in found) return found
  const complex = found.values.some((z) => z.im !== 0)
  const values = [...atZero, ...found.values]
    .map((z) => (complex ? ofSort(z, true) : z))
    .sort((a, b) => (near(a.re, b.re) ? a.im - b.im : a.re - b.re))
  return { values, clustered: exact === null && clustered(found.values), off: found.off }
}

const near = (x: number, y: number): boolean => Math.abs(x - y) <= 1e-9 * Math.max(1, Math.abs(x), Math.abs(y))

/** The roots of exact coefficients, factor by factor; `null` where the exact numbers outgrew their budget. */
function separated(list: readonly NumberValue[]): Rough | null {
  const factors = squareFree(P.fromCoefficients('x', list))
  if (!factors) return null
  const values: NumberValue[] = []
  let off = 0
  for (const { factor, times } of factors) {
    const coefficients = P.coefficients(factor)
    const roots = coefficients && simple(coefficients, true)
    if (!roots || 'kind' in roots) return null
    for (let k = 0; k < times; k += 1) values.push(...roots.values)
    off = Math.max(off, roots.off)
  }
  return { values, off }
}

/** Factors without multiple roots, each with its multiplicity. */
function squareFree(p: Polynomial): { factor: Polynomial; times: number }[] | null {
  const slope = P.derivative(p)
  if (P.isFailed(slope)) return null
  const common = P.commonDivisor(p, slope)
  if (!common) return null
  if (P.degree(common) === 0) return [{ factor: p, times: 1 }]
  const factors: { factor: Polynomial; times: number }[] = []
  let rest = exactly(p, common)
  let inner: Polynomial | null = common
  for (let times = 1; rest && inner && P.degree(rest) > 0; times += 1) {
    const shared: Polynomial | null = P.commonDivisor(rest, inner)
    const factor: Polynomial | null = shared && exactly(rest, shared)
    if (!shared || !factor) return null
    if (P.degree(factor) > 0) factors.push({ factor, times })
    rest = shared
    inner = exactly(inner, shared)
  }
  return rest && inner ? factors : null
}

function exactly(a: Polynomial, b: Polynomial): Polynomial | null {
  const found = P.divide(a, b)
  return 'kind' in found || !P.isExact(found.quotient) ? null : found.quotient
}

/**
 * The roots of coefficients whose first and last are not zero. Of exact ones without multiple roots
 * (`separate`) they are worked out to more digits than a double has, and rational ones are proved.
 */
function simple(list: readonly NumberValue[], separate: boolean): Rough | Failure {
  const [lead, next, last] = list
  if (!lead || list.length < 2) return { values: [], off: 0 }
  if (list.length === 2 && next) {
    const root = A.divide(A.negate(next), lead)
    return root.kind === 'failure' ? root : { values: [root], off: 0 }
  }
  if (list.length === 3 && next && last) {
    const exact = quadratic(lead, next, last)
    if (exact) return { values: exact, off: 0 }
  }
  const found = aberth(list)
  if (!found) return failure('too-large')
  const exactList = list.flatMap((c) => (c.exact ? [c.exact] : []))
  const precise =
    separate && exactList.length === list.length
      ? preciseRoots(
          exactList,
          found.map((f) => f.z),
        )
      : null
  if (precise) return { values: precise.map(({ z, near }) => (near && proved(list, near)) ?? rounded(z)), off: 0 }
  return {
    values: found.map(({ z }) => rounded(z)),
    off: Math.max(...found.map(({ z, radius }) => Math.min(1, radius / C.abs(z)))),
  }
}

/** Roots as they are worked out, and by which share of its size one may be off. */
interface Rough {
  readonly values: readonly NumberValue[]
  readonly off: number
}

function rounded(z: C.Complex): NumberValue {
  return z.im === 0 ? real(z.re) : complexNumber(z)
}

/** A rational root, proved by putting it in. */
function proved(list: readonly NumberValue[], near: Gaussian): NumberValue | null {
  const root = exactNumber(near)
  let value: NumberValue | Failure = integer(0)
  for (const c of list) {
    const product: NumberValue | Failure = A.multiply(value, root)
    value = product.kind === 'failure' ? product : A.add(product, c)
    if (value.kind === 'failure' || !value.exact) return null
  }
  return value.kind === 'number' && value.exact && Q.isZero(value.exact.re) && Q.isZero(value.exact.im) ? root : null
}

/** Both roots by the formula, where the root of the discriminant is exact. */
function quadratic(a: NumberValue, b: NumberValue, c: NumberValue): NumberValue[] | null {
  if (!a.exact || !b.exact || !c.exact) return null
  const number = (value: NumberValue | Failure): NumberValue | null =>
    value.kind === 'number' && value.exact ? value : null
  const square = number(A.multiply(b, b))
  const product = number(A.multiply(a, c))
  const four = product && number(A.multiply(integer(4), product))
  const inside = square && four && number(A.subtract(square, four))
  const root = inside && number(A.squareRoot(inside))
  const twice = number(A.multiply(integer(2), a))
  if (!root || !twice) return null
  const plus = number(A.subtract(root, b))
  const minus = number(A.subtract(A.negate(root), b))
  const one = plus && number(A.divide(plus, twice))
  const two = minus && number(A.divide(minus, twice))
  return one && two ? [one, two] : null
}

/** Rounded roots nearer to one another than this share of their size may be one root. */
const CLUSTER = 5e-5

function clustered(values: readonly NumberValue[]): boolean {
  return values.some((a, k) =>
    values.slice(k + 1).some((b) => C.abs(C.subtract(a, b)) <= CLUSTER * Math.max(C.abs(a), C.abs(b))),
  )
}
