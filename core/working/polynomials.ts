import * as P from '../algebra/polynomial'
import { isAlgebraic, parts, polynomialValue } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import type { Node } from '../notation/tree'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { exactReal, integer } from '../values/make'
import { bare } from '../values/quantity'
import type { NumberValue, Polynomial, Value } from '../values/types'
import { commonDivisor } from './reals'
import {
  column, difference, equation, grouped, isZero, joined, minus, named, negated, numberOr, over, power, radical, squared,
  sum, times, valued, whole,
} from './terms' // prettier-ignore
import type { Done, Progress } from './work'

/** Polynomials: like terms, products term by term, division, roots. */

/** Pairs of terms that are written out. */
const PAIRS_SHOWN = 24
/** Terms that are written out in a sum. */
const TERMS_SHOWN = 8

const algebraicOf = (p: Progress, k: number): Algebraic | null => {
  const inner = bare(p.operand(k).value)
  return isAlgebraic(inner) ? inner : null
}

/** The terms of a polynomial, each as a value. */
function termsOf(p: Polynomial): readonly Value[] {
  return p.terms.map((term) => polynomialValue({ unknowns: p.unknowns, terms: [term] }))
}

/** a ± b: like terms side by side. */
export function polynomialSum(p: Progress, sign: '+' | '-'): Done | null {
  const [x, y] = [algebraicOf(p, 0), algebraicOf(p, 1)]
  if (!x || !y || p.hasUnits) return p.done('like-terms')
  const [a, b] = [parts(x), parts(y)]
  if (a.bottom.unknowns.length > 0 || b.bottom.unknowns.length > 0) return p.done('common-denominator')
  const unknowns = P.joinedUnknowns(a.top, b.top)
  const powersOf = (q: Polynomial, powers: readonly number[]): string =>
    unknowns.map((name) => powers[q.unknowns.indexOf(name)] ?? 0).join(' ')
  const groups = new Map<string, { readonly letters: Value; readonly left: NumberValue | null; readonly right: NumberValue | null }>()
  for (const [q, side] of [[a.top, 'left'], [b.top, 'right']] as const)
    for (const term of q.terms) {
      const key = powersOf(q, term.powers)
      const letters = polynomialValue({ unknowns: q.unknowns, terms: [{ powers: term.powers, factor: integer(1) }] })
      groups.set(key, { left: null, right: null, ...groups.get(key), letters, [side]: term.factor })
    }
  const shared = [...groups.values()].some(({ left, right }) => left && right)
  if (!shared || groups.size > TERMS_SHOWN) return p.done('like-terms')
  const order = [...groups.entries()].sort(([s], [t]) => degreeOf(t) - degreeOf(s))
  const made = order.map(([, { letters, left, right }]) => {
    const factor = left && right ? grouped(sum(valued(left), valued(right), sign)) : valued(left ?? (sign === '-' ? negated(right ?? integer(0)) : (right ?? integer(0))))
    const one = factor.type === 'valued' && isOne(factor.value)
    return isOne(letters) ? factor : one ? valued(letters) : times(factor, valued(letters))
  })
  p.move('like-terms', joined(made, '+', whole(0)))
  return p.done('parts-worked-out')
} // prettier-ignore

const degreeOf = (key: string): number => key.split(' ').reduce((total, n) => total + Number(n), 0)
const isOne = (value: Value): boolean => value.kind === 'number' && value.re === 1 && value.im === 0

/** a·b: each term times each term. */
export function polynomialProduct(p: Progress): Done | null {
  const [x, y] = [algebraicOf(p, 0), algebraicOf(p, 1)]
  if (!x || !y || p.hasUnits) return p.done('term-by-term')
  const [a, b] = [parts(x), parts(y)]
  if (a.bottom.unknowns.length > 0 || b.bottom.unknowns.length > 0) return p.done('multiply-fractions')
  const pairs = a.top.terms.length * b.top.terms.length
  if (pairs === 1 || pairs > PAIRS_SHOWN) return p.done('term-by-term')
  const terms = termsOf(a.top).flatMap((s) => termsOf(b.top).map((t) => times(valued(s), valued(t))))
  p.move('term-by-term', joined(terms, '+', whole(0)))
  const worked = terms.map((t) => p.work.tools.see(t).value)
  p.move('products-worked-out', joined(worked.map((v) => (v.kind === 'failure' ? whole(0) : valued(v))), '+', whole(0)))
  return p.done('like-terms')
} // prettier-ignore

/** a/b: long division where it divides, else a ratio. */
export function polynomialQuotient(p: Progress): Done | null {
  const [x, y] = [algebraicOf(p, 0), algebraicOf(p, 1)]
  const { value } = p
  if (!x || !y || p.hasUnits || value.kind === 'failure') return p.done('divide-terms')
  const [a, b] = [parts(x), parts(y)]
  const plain = a.bottom.unknowns.length === 0 && b.bottom.unknowns.length === 0
  if (!plain) return p.done('divide-fractions')
  if (b.top.unknowns.length === 0) return p.done('divide-terms')
  if (value.kind === 'polynomial' && value.bottom) {
    const asItStands = P.agree(value.top, a.top) && P.agree(value.bottom, b.top)
    return asItStands ? p.silently() : p.done('lowest-terms')
  }
  if (P.joinedUnknowns(a.top, b.top).length > 1) return p.done('long-division')
  let [quotient, rest]: [Polynomial, Polynomial] = [P.constant(integer(0)), a.top]
  for (let k = 0; k < TERMS_SHOWN && !P.isZero(rest) && P.degree(rest) >= P.degree(b.top); k += 1) {
    const found = leading(rest, b.top)
    if (!found) break
    const next = P.add(quotient, found.term)
    if (P.isFailed(next)) break
    ;[quotient, rest] = [next, found.rest]
    if (P.isZero(rest)) break
    p.move('long-division', sum(valued(polynomialValue(quotient)), over(valued(polynomialValue(rest)), valued(polynomialValue(b.top)))))
  }
  return p.done('long-division')
} // prettier-ignore

/** The leading term of a quotient, and what is left when its product is subtracted. */
function leading(top: Polynomial, bottom: Polynomial): { readonly term: Polynomial; readonly rest: Polynomial } | null {
  const [a, b] = [top.terms[0], bottom.terms[0]]
  if (!a || !b) return null
  const factor = A.divide(a.factor, b.factor)
  if (factor.kind === 'failure') return null
  const term: Polynomial = { unknowns: bottom.unknowns, terms: [{ powers: [(a.powers[0] ?? 0) - (b.powers[0] ?? 0)], factor }] }
  const product = P.multiply(term, bottom)
  const rest = P.isFailed(product) ? product : P.subtract(top, product)
  if (P.isFailed(rest)) return null
  const degree = P.degree(top)
  // The leading term is gone, whatever rounding would leave of it.
  return { term, rest: { ...rest, terms: rest.terms.filter((t) => (t.powers[0] ?? 0) < degree) } }
} // prettier-ignore

/** A polynomial with terms in the places of some unknowns. */
export function polynomialTerm(p: Polynomial, given: ReadonlyMap<string, Node>): Node {
  const terms = p.terms.map(({ powers, factor }) => {
    const letters = p.unknowns.flatMap((name, k) => {
      const n = powers[k] ?? 0
      const base = given.get(name) ?? named(name)
      return n === 0 ? [] : [n === 1 ? base : power(base, whole(n))]
    })
    const one = factor.re === 1 && factor.im === 0
    return one && letters.length > 0 ? joined(letters, '*', whole(1)) : joined([valued(factor), ...letters], '*', whole(1))
  })
  return joined(terms, '+', whole(0))
} // prettier-ignore

/** A polynomial or a ratio with values in the places of unknowns; `null` of others. */
export function replacedUnknowns(value: Value, given: ReadonlyMap<string, Node>): Node | null {
  const inner = bare(value)
  if (!isAlgebraic(inner)) return null
  const { top, bottom } = parts(inner)
  const above = polynomialTerm(top, given)
  return inner.kind === 'polynomial' && inner.bottom ? over(above, polynomialTerm(bottom, given)) : above
}

/**
 * The roots of a polynomial in one unknown, by the formulas up to degree 2, rational roots split off before; what is
 * left is said to have been found numerically.
 */
export function rootSteps(p: Progress, start: Polynomial, isSet = false): void {
  const name = start.unknowns[0]
  if (name === undefined || start.unknowns.length > 1) return
  const x = named(name)
  const zero = whole(0)
  const tell = (rule: Parameters<Progress['aside']>[0], node: Node, says: string | null = null): void =>
    p.aside(rule, { kind: 'equation', node }, '⇔', says)
  let rest = start
  const split: Node[] = []
  const withFactors = (q: Polynomial): Node => joined([...split, grouped(valued(polynomialValue(q)))], '*', zero)
  if (!isSet) tell('equation-set', equation(valued(polynomialValue(rest)), zero))
  for (let k = 0; k < 12 && P.degree(rest) > 0; k += 1) {
    const list = P.coefficients(rest)
    const constant = list?.at(-1)
    if (!list || !constant) return
    if (P.degree(rest) > 1 && isZero(constant)) {
      split.push(x)
      rest = P.fromCoefficients(name, list.slice(0, -1))
      tell('zero-root', equation(P.degree(rest) === 0 ? joined(split, '*', zero) : withFactors(rest), zero))
      continue
    }
    if (P.degree(rest) <= 2) break
    const root = rationalRoot(list)
    if (!root) break
    const found = P.divide(rest, P.fromCoefficients(name, [integer(1), negated(root)]))
    if ('kind' in found) return
    split.push(grouped(difference(x, valued(root, 'fraction'))))
    rest = found.quotient
    tell('rational-root', equation(withFactors(rest), zero), `${Q.toText(root.exact?.re ?? Q.ZERO)} is a root.`)
  }
  const list = P.coefficients(rest) ?? []
  if (P.degree(rest) === 1) {
    const [a, b] = list
    if (a && b) tell('linear-equation', equation(x, over(valued(negated(b)), valued(a))))
  } else if (P.degree(rest) === 2) quadratic(p, x, list)
  else if (P.degree(rest) > 2) {
    const more = `The roots of degree ${P.degree(rest)} are found numerically, all at once (Aberth's method).`
    tell('numerically', equation(valued(polynomialValue(rest)), zero), more)
  }
}

function quadratic(p: Progress, x: Node, [a, b, c]: readonly NumberValue[]): void {
  if (!a || !b || !c) return
  const four = times(times(whole(4), valued(a)), valued(c))
  const terms = difference(squared(valued(b)), four)
  const found = numberOr(p.work.tools.see(terms).value)
  p.aside('discriminant', { kind: 'equation', node: equation(named('D'), terms) }, '=', null)
  const says =
    found.im !== 0 ? null : found.re < 0 ? 'It is negative: the roots are a conjugate pair.' : found.re === 0 ? 'It is 0: the root is double.' : null
  p.aside('discriminant', { kind: 'equation', node: equation(named('D'), valued(found)) }, '=', says)
  const top = minus(valued(b))
  const bottom = times(whole(2), valued(a))
  const one = (sign: '+' | '-'): Node => over(sum(isZero(b) ? whole(0) : top, radical(valued(found)), sign), bottom)
  p.aside('quadratic-formula', { kind: 'equation', node: equation(x, column([one('+'), one('-')])) }, '⇔')
} // prettier-ignore

/** Most numbers that are tried as numerator and denominator. */
const DIVISORS_MOST = 48

/** A rational root of whole coefficients, by the rational root theorem; `null` where none is found. */
export function rationalRoot(list: readonly NumberValue[]): NumberValue | null {
  const exact = list.map((z) => (z.exact && z.im === 0 ? z.exact.re : null))
  if (exact.some((q) => q === null)) return null
  const numbers = exact.flatMap((q) => q ?? [])
  const common = numbers.reduce<bigint>((d, q) => lcm(d, BigInt(q.d)), 1n)
  const integers = numbers.map((q) => (BigInt(q.n) * common) / BigInt(q.d))
  const [first, last] = [integers[0], integers.at(-1)]
  if (!first || !last) return null
  for (const n of divisors(last))
    for (const d of divisors(first))
      for (const sign of [1n, -1n]) {
        const value = integers.reduce((total, c, k) => total + c * (sign * n) ** BigInt(integers.length - 1 - k) * d ** BigInt(k), 0n) // prettier-ignore
        const q = value === 0n ? Q.fromBig(sign * n, d) : null
        if (q) return exactReal(q)
      }
  return null
}

function lcm(a: bigint, b: bigint): bigint {
  const g = commonDivisor(a, b).n
  return (a * b) / BigInt(g)
}

function divisors(n: bigint): readonly bigint[] {
  const size = n < 0n ? -n : n
  const found: bigint[] = []
  for (let d = 1n; d * d <= size && d <= 4096n && found.length < DIVISORS_MOST; d += 1n)
    if (size % d === 0n) found.push(d, size / d)
  return [...new Set(found)].sort((a, b) => (a < b ? -1 : 1))
}

/** roots(p), zeros(H), poles(H). */
export function rootsChapter(p: Progress, what: 'roots' | 'zeros' | 'poles'): Done | null {
  const inner = bare(p.operand(0).value)
  const said = what === 'zeros' ? 'zeros-of-numerator' : what === 'poles' ? 'poles-of-denominator' : 'read-off'
  if (inner.kind === 'vector') {
    const list = inner.items.flatMap((item) => (item.kind === 'number' ? [item] : []))
    if (list.length === inner.items.length && list.length > 1) rootSteps(p, P.fromCoefficients('x', list))
  } else if (isAlgebraic(inner)) {
    const { top, bottom } = parts(inner)
    rootSteps(p, what === 'poles' ? bottom : top)
  }
  return p.done(said)
}
