import { toDyadic } from '../numbers/dyadic'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { isZero } from '../values/beyond'
import { integer } from '../values/make'
import type { Factors, NumberValue, Polynomial, PolynomialValue } from '../values/types'
import * as P from './polynomial'

/**
 * The factors that a value with rounded coefficients was made of. What was
 * multiplied out cannot be taken apart again but nearly; kept apart, the same
 * factor above and below goes exactly, and nothing that is only near it.
 */

const ofPolynomial = (p: Polynomial): readonly Polynomial[] => (P.degree(p) === 0 && P.asNumber(p)?.re === 1 ? [] : [p])

export function factorsOf(value: PolynomialValue): Factors {
  return value.factors ?? { top: ofPolynomial(value.top), bottom: value.bottom ? ofPolynomial(value.bottom) : [] }
}

/** Powers of the unknowns that all terms have, as factors of their own: they are exact, whatever is rounded of the rest. */
function apart(p: Polynomial): readonly Polynomial[] {
  const powers = p.unknowns.map((_, k) => Math.min(...p.terms.map((term) => term.powers[k] ?? 0)))
  if (!powers.some((n) => n > 0)) return ofPolynomial(p)
  const monomials = p.unknowns.flatMap((name, k): Polynomial[] => {
    const n = powers[k] ?? 0
    return n > 0 ? [{ unknowns: [name], terms: [{ powers: [n], factor: integer(1) }] }] : []
  })
  const rest = P.divide(p, { unknowns: p.unknowns, terms: [{ powers, factor: integer(1) }] })
  if ('kind' in rest) return ofPolynomial(p)
  return [...monomials, ...ofPolynomial(rest.quotient)]
}

const allApart = (list: readonly Polynomial[]): readonly Polynomial[] => list.flatMap(apart)

/** Without what stands on both sides. A factor that is a multiple of one on the other side leaves the number. */
export function cancelled(factors: Factors): Factors {
  let top = [...allApart(factors.top)]
  const bottom: Polynomial[] = []
  for (const below of allApart(factors.bottom)) {
    let rest: Polynomial | null = below
    for (let k = 0; k < top.length && rest; k += 1) {
      const above = top[k]
      if (!above || P.asNumber(above) || P.asNumber(rest)) continue
      const found = reduced(above, rest)
      if (!found) continue
      top = [...top.slice(0, k), ...ofPolynomial(found.top), ...top.slice(k + 1)]
      rest = ofPolynomial(found.bottom)[0] ?? null
      k -= 1
    }
    if (rest) bottom.push(rest)
  }
  return { top, bottom }
}

/** Two factors without what they have in common; `null` where that is nothing. */
function reduced(above: Polynomial, below: Polynomial): { top: Polynomial; bottom: Polynomial } | null {
  const [a, b] = [above.terms[0], below.terms[0]]
  if (a && b && isMultiple(above, below)) return { top: P.constant(a.factor), bottom: P.constant(b.factor) }
  if (!P.isExact(above) || !P.isExact(below) || P.joinedUnknowns(above, below).length > 1) return null
  const common = P.commonDivisor(above, below)
  if (!common || P.degree(common) === 0) return null
  const [top, bottom] = [P.divide(above, common), P.divide(below, common)]
  return 'kind' in top || 'kind' in bottom ? null : { top: top.quotient, bottom: bottom.quotient }
}

/** True where one is a number times the other, to the last bit. */
export function isMultiple(a: Polynomial, b: Polynomial): boolean {
  if (a.unknowns.join() !== b.unknowns.join()) return false
  const [x, y] = [a.terms[0]?.factor, b.terms[0]?.factor]
  if (!x || !y || !samePowers(a, b)) return false
  return (
    a.terms.every((term, k) => sameNumber(term.factor, b.terms[k]?.factor)) ||
    a.terms.every((term, k) => {
      const other = b.terms[k]
      return other !== undefined && sameProducts(term.factor, y, other.factor, x)
    })
  )
}

/** True where both have terms of the same powers, as many of each. */
const samePowers = (a: Polynomial, b: Polynomial): boolean =>
  a.terms.length === b.terms.length &&
  a.terms.every(({ powers }, k) => powers.every((n, i) => n === b.terms[k]?.powers[i]))

function sameNumber(a: NumberValue, b: NumberValue | undefined): boolean {
  return b !== undefined && a.re === b.re && a.im === b.im && (a.exact === null) === (b.exact === null)
}

/** a·b = c·d for real numbers, each taken for exactly what it is. */
function sameProducts(a: NumberValue, b: NumberValue, c: NumberValue, d: NumberValue): boolean {
  const all = [a, b, c, d].map(rationalOf)
  const [w, x, y, z] = all
  if (!w || !x || !y || !z) return false
  const [left, right] = [Q.multiply(w, x), Q.multiply(y, z)]
  return left !== null && right !== null && Q.equals(left, right)
}

function rationalOf(z: NumberValue): Q.Rational | null {
  if (z.exact) return Q.isZero(z.exact.im) ? z.exact.re : null
  return z.im === 0 ? toDyadic(z.re) : null
}

/** Exact factors taken apart so far that what two lists have in common is a factor of its own in both. */
function refined(
  first: readonly Polynomial[],
  second: readonly Polynomial[],
): readonly [readonly Polynomial[], readonly Polynomial[]] {
  let [a, b] = [first, second]
  for (let again = true; again;) {
    again = false
    for (const [i, x] of a.entries())
      for (const [k, y] of b.entries()) {
        if (again || sameUpToLast(x, y)) continue
        const found = reduced(x, y)
        // Multiples of one another differ by a number only.
        const common = found && P.isExact(x) && P.isExact(y) ? P.commonDivisor(x, y) : null
        if (!found || !common || P.degree(common) === 0) continue
        const [above, below] = [P.divide(x, common), P.divide(y, common)]
        if ('kind' in above || 'kind' in below) continue
        a = [...a.slice(0, i), common, ...ofPolynomial(above.quotient), ...a.slice(i + 1)]
        b = [...b.slice(0, k), common, ...ofPolynomial(below.quotient), ...b.slice(k + 1)]
        again = true
      }
  }
  return [a, b]
}

/** The least product that both are factors of, by factors that are the same. */
export function leastCommon(
  first: readonly Polynomial[],
  second: readonly Polynomial[],
): { readonly all: readonly Polynomial[]; readonly ofA: readonly Polynomial[]; readonly ofB: readonly Polynomial[] } {
  const [a, b] = refined(allApart(first), allApart(second))
  const open = [...b]
  const ofB: Polynomial[] = []
  // The very same first: what is a number times it is so only where nothing else is.
  const others = a.filter((factor) => {
    const k = open.findIndex((other) => sameUpToLast(factor, other))
    if (k >= 0) open.splice(k, 1)
    return k < 0
  })
  for (const factor of others) {
    const k = open.findIndex((other) => !P.asNumber(other) && isMultiple(factor, other))
    const times = k < 0 ? null : quotientOfLeads(factor, open[k])
    if (times) open.splice(k, 1)
    ofB.push(times ? P.constant(times) : factor)
  }
  return { all: [...a, ...open], ofA: open, ofB }
}

function quotientOfLeads(a: Polynomial, b: Polynomial | undefined): NumberValue | null {
  const [x, y] = [a.terms[0]?.factor, b?.terms[0]?.factor]
  const times = x && y ? A.divide(x, y) : null
  return times && times.kind !== 'failure' && Number.isFinite(times.re) && times.re !== 0 ? times : null
}

/** The very same polynomial, number by number. */
function sameUpToLast(a: Polynomial, b: Polynomial): boolean {
  return (
    a.unknowns.join() === b.unknowns.join() &&
    samePowers(a, b) &&
    a.terms.every(({ factor }, k) => sameNumber(factor, b.terms[k]?.factor)) &&
    !a.terms.some(({ factor }) => isZero(factor))
  )
}
