import { eigen } from '../linear/eigen'
import * as D from '../linear/dense'
import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { complexNumber, exactNumber, integer, ofSort, real } from '../values/make'
import { failure } from '../values/value'
import type { Failure, NumberValue } from '../values/value'
import { nearRational } from '../linear/eigenValues'
import * as P from './polynomial'

/** The roots of a polynomial in one unknown. */

export interface Roots {
  /** Each as often as its multiplicity says, by real part, then by imaginary part. */
  readonly values: readonly NumberValue[]
  /** True where rounded roots lie so near one another that they may be one of higher multiplicity. */
  readonly clustered: boolean
}

/** Highest degree whose roots are worked out. */
const DEGREE_MOST = 400
/** Highest degree up to which multiple roots are told apart exactly. */
const EXACT_DEGREE = 40

/**
 * Coefficients from the highest power down. With exact coefficients the factors
 * of each multiplicity are separated first (D. Y. Y. Yun, "On square-free
 * decomposition algorithms", 1976), so that every root that is computed is a
 * simple one; rational roots come out exactly. The others are the eigenvalues
 * of the balanced companion matrix, a backward-stable method (A. Edelman and
 * H. Murakami, Math. Comp. 64, 1995), polished by Newton's iteration.
 */
export function rootsOf(list: readonly NumberValue[]): Roots | Failure {
  const first = list.findIndex((c) => !P.isZeroNumber(c))
  if (first < 0) return failure('roots-of-zero')
  const trimmed = list.slice(first)
  if (!trimmed.every((c) => C.isFinite(c))) return failure('domain', { name: 'roots', needs: 'finite coefficients' })
  if (trimmed.length - 1 > DEGREE_MOST) return failure('degree-too-high', { limit: DEGREE_MOST })
  const last = trimmed.findLastIndex((c) => !P.isZeroNumber(c))
  const atZero = Array.from({ length: trimmed.length - 1 - last }, () => integer(0))
  const core = trimmed.slice(0, last + 1)
  const exact = core.every((c) => c.exact) && core.length - 1 <= EXACT_DEGREE ? separated(core) : null
  const found = exact ?? simple(core)
  if ('kind' in found) return found
  const complex = found.some((z) => z.im !== 0)
  const values = [...atZero, ...found]
    .map((z) => (complex ? ofSort(z, true) : z))
    .sort((a, b) => (near(a.re, b.re) ? a.im - b.im : a.re - b.re))
  return { values, clustered: exact === null && clustered(found) }
}

const near = (x: number, y: number): boolean => Math.abs(x - y) <= 1e-9 * Math.max(1, Math.abs(x), Math.abs(y))

/** The roots of exact coefficients, factor by factor; `null` where the exact numbers outgrew their budget. */
function separated(list: readonly NumberValue[]): NumberValue[] | null {
  const factors = squareFree(P.fromCoefficients('x', list))
  if (!factors) return null
  const found: NumberValue[] = []
  for (const { factor, times } of factors) {
    const coefficients = P.coefficients(factor)
    const roots = coefficients && simple(coefficients)
    if (!roots || 'kind' in roots) return null
    for (let k = 0; k < times; k += 1) found.push(...roots)
  }
  return found
}

/** Factors without multiple roots, each with its multiplicity. */
function squareFree(p: P.Polynomial): { factor: P.Polynomial; times: number }[] | null {
  const slope = P.derivative(p)
  if (P.isFailed(slope)) return null
  const common = P.commonDivisor(p, slope)
  if (!common) return null
  if (P.degree(common) === 0) return [{ factor: p, times: 1 }]
  const factors: { factor: P.Polynomial; times: number }[] = []
  let rest = exactly(p, common)
  let inner: P.Polynomial | null = common
  for (let times = 1; rest && inner && P.degree(rest) > 0; times += 1) {
    const shared: P.Polynomial | null = P.commonDivisor(rest, inner)
    const factor: P.Polynomial | null = shared && exactly(rest, shared)
    if (!shared || !factor) return null
    if (P.degree(factor) > 0) factors.push({ factor, times })
    rest = shared
    inner = exactly(inner, shared)
  }
  return rest && inner ? factors : null
}

function exactly(a: P.Polynomial, b: P.Polynomial): P.Polynomial | null {
  const found = P.divide(a, b)
  return 'kind' in found || !P.isExact(found.quotient) ? null : found.quotient
}

/** The roots of coefficients whose first and last are not zero. */
function simple(list: readonly NumberValue[]): NumberValue[] | Failure {
  const [lead, next, last] = list
  if (!lead || list.length < 2) return []
  if (list.length === 2 && next) {
    const root = A.divide(A.negate(next), lead)
    return root.kind === 'failure' ? root : [root]
  }
  if (list.length === 3 && next && last) {
    const exact = quadratic(lead, next, last)
    if (exact) return exact
  }
  const approximate = byCompanion(list)
  if ('kind' in approximate) return approximate
  const allReal = list.every((c) => c.im === 0)
  return approximate.map((z): NumberValue => {
    const polished = polish(list, z)
    const exact = list.every((c) => c.exact) ? exactRoot(list, polished) : null
    if (exact) return exact
    // Of real coefficients a root whose imaginary part is rounding noise is real.
    const isReal = allReal && Math.abs(polished.im) <= 1e-13 * C.abs(polished)
    return isReal ? real(polished.re) : complexNumber(polished)
  })
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

function byCompanion(list: readonly NumberValue[]): readonly C.Complex[] | Failure {
  const n = list.length - 1
  const [lead] = list
  if (!lead) return []
  const companion = D.zeros(n, n)
  for (let k = 0; k < n; k += 1) {
    const c = C.divide(list[k + 1] ?? lead, lead)
    companion.re[k] = -c.re
    companion.im[k] = -c.im
    if (k > 0) companion.re[k * n + k - 1] = 1
  }
  if (!D.isFinite(companion)) return failure('too-large')
  const { values, converged } = eigen(companion)
  return converged ? values : failure('not-converged')
}

/** Newton's iteration, as long as it makes the value of the polynomial smaller. */
function polish(list: readonly NumberValue[], start: C.Complex): C.Complex {
  let z = start
  let size = Infinity
  for (let k = 0; k < 6; k += 1) {
    const { value, slope } = horner(list, z)
    const now = C.abs(value)
    if (!(now < size)) break
    size = now
    if (now === 0 || C.abs(slope) === 0) break
    const next = C.subtract(z, C.divide(value, slope))
    if (!C.isFinite(next) || C.abs(horner(list, next).value) >= now) break
    z = next
  }
  return z
}

/** The value and the slope of a polynomial at a point, by Horner's rule. */
function horner(list: readonly C.Complex[], z: C.Complex): { value: C.Complex; slope: C.Complex } {
  let value: C.Complex = { re: 0, im: 0 }
  let slope: C.Complex = { re: 0, im: 0 }
  for (const c of list) {
    slope = C.add(C.multiply(slope, z), value)
    value = C.add(C.multiply(value, z), c)
  }
  return { value, slope }
}

/** The rational root near a rounded one, proved by putting it in. */
function exactRoot(list: readonly NumberValue[], z: C.Complex): NumberValue | null {
  const [re, im] = [nearRational(z.re), nearRational(z.im)]
  if (!re || !im) return null
  const root = exactNumber({ re, im })
  let value: NumberValue | Failure = integer(0)
  for (const c of list) {
    const product: NumberValue | Failure = A.multiply(value, root)
    value = product.kind === 'failure' ? product : A.add(product, c)
    if (value.kind === 'failure' || !value.exact) return null
  }
  return value.kind === 'number' && value.exact && Q.isZero(value.exact.re) && Q.isZero(value.exact.im) ? root : null
}

/** Rounded roots nearer to one another than this share of their size may be one root. */
const CLUSTER = 5e-5

function clustered(values: readonly NumberValue[]): boolean {
  return values.some((a, k) =>
    values.slice(k + 1).some((b) => C.abs(C.subtract(a, b)) <= CLUSTER * Math.max(C.abs(a), C.abs(b))),
  )
}
