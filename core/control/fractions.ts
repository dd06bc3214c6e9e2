import * as P from '../algebra/polynomial'
import { exactSolve } from '../linear/exact'
import type { ExactMatrix } from '../linear/exact'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import type { Failure } from '../values/failure'
import { exactNumber, exactReal, integer, real } from '../values/make'
import type { NumberValue, Polynomial, RatioForm, RatioTerm } from '../values/types'
import { nearFraction } from './nearFraction'
import type { Pole } from './poles'
import { timeFunction } from './timeFunction'
import type { TimeFunction } from './timeFunction'
import { quotientValue, rootsOfWhole } from './transfer'
import type { Transfer } from './transfer'
import * as W from './whole'
import type { Whole } from './whole'
import * as Z from './wide'

/** A ratio as the sum of its partial fractions, and by its time constants. */

/** A real factor below: s − p, or s² − 2σs + |p|² of a pair. From the constant up, the last is 1. */
export interface RealFactor {
  readonly pole: Pole
  readonly times: number
  readonly list: readonly NumberValue[]
}

/** The numerators over the powers of one factor: of factor¹ first, each from the constant up. */
export interface Fraction {
  readonly factor: RealFactor
  readonly numerators: readonly (readonly NumberValue[])[]
}

export interface Fractions {
  /** What is improper of it, from the constant up. */
  readonly whole: readonly NumberValue[]
  readonly fractions: readonly Fraction[]
}

/**
 * The factors of a polynomial over the real numbers, from the right to the left: what decays last comes first. `null`
 * where its roots could not be worked out.
 */
export function realFactors(p: Whole): readonly RealFactor[] | null {
  const poles = rootsOfWhole(p)?.filter(({ z }) => z.im >= 0)
  return poles?.map((pole) => ({ pole, times: pole.times, list: factorOf(p, pole) })).reverse() ?? null
}

function factorOf(p: Whole, { z, exact, wide }: Pole): readonly NumberValue[] {
  if (z.im === 0) return [exact ? exactReal(Q.negate(exact.re)) : real(-z.re), integer(1)]
  const sum = Z.toComplex({ ...wide, im: 0n }).re * -2
  const size = Z.toComplex(Z.multiply(wide, Z.conjugate(wide))).re
  const fractions = pairExactly(p, wide)
  return fractions
    ? [exactReal(fractions[0]), exactReal(fractions[1]), integer(1)]
    : [real(size), real(sum), integer(1)]
}

/** |p|² and −2·Re p as fractions, proved by dividing; `null` where they are none. */
function pairExactly(p: Whole, wide: Z.Wide): readonly [Q.Rational, Q.Rational] | null {
  const size = nearFraction(Z.multiply(wide, Z.conjugate(wide)))
  const twice = Z.negate({ re: 2n * wide.re, im: 0n, exp: wide.exp })
  // On the axis: what is left beside its size are the last digits.
  const sum = Z.sizeOf(twice) < Z.sizeOf(wide) - 160 ? Q.ZERO : nearFraction(twice)
  if (!size || !sum) return null
  const { whole } = W.overOne([size, sum, Q.ONE])
  return W.division(p, whole).rest.length === 0 ? [size, sum] : null
}

/** The partial fractions of a ratio: exact where all real factors are, else from the residues. */
export function partialFractions(g: Transfer): Fractions | null {
  const { quotient, rest, scale } = W.division(g.top, g.bottom)
  const factors = realFactors(g.bottom)
  if (!factors) return null
  const whole = quotient.map((c) => quotientValue(c, scale, g.exact))
  if (rest.length === 0) return { whole, fractions: [] }
  const exact = g.exact && factors.every(({ list }) => list.every((c) => c.exact)) ? exactly(rest, scale, g.bottom, factors) : null // prettier-ignore
  const found = exact ?? byResidues(g, factors)
  return found && { whole, fractions: found }
}

/** By equating coefficients: one linear equation for each power of the unknown. */
function exactly(
  rest: Whole,
  scale: bigint,
  bottom: Whole,
  factors: readonly RealFactor[],
): readonly Fraction[] | null {
  const n = W.degreeOf(bottom)
  const lead = Q.fromBig(W.leading(bottom) * scale, 1n)
  if (!lead) return null
  // The columns: (bottom/lead)/factorʲ·sⁱ.
  const columns: Q.Rational[][] = []
  const monic = factors.map(({ list }) => list.map((c) => c.exact?.re ?? Q.ZERO))
  for (const [k, { times, list }] of factors.entries())
    for (let j = 1; j <= times; j += 1) {
      const others = factors.flatMap((f, i) =>
        Array.from({ length: i === k ? f.times - j : f.times }, () => monic[i] ?? []),
      )
      const product = others.reduce<Q.Rational[] | null>((so, next) => so && timesList(so, next), [Q.ONE])
      if (!product) return null
      for (let i = 0; i < list.length - 1; i += 1)
        columns.push([...Array.from({ length: i }, () => Q.ZERO), ...product])
    }
  const entries: Gaussian[] = []
  for (let r = 0; r < n; r += 1) for (const column of columns) entries.push(G.fromRational(column[r] ?? Q.ZERO))
  const right = Array.from(
    { length: n },
    (_, r) => Q.divide(Q.fromBig(W.coefficient(rest, r), 1n) ?? Q.ZERO, lead) ?? Q.ZERO,
  )
  const a: ExactMatrix = { rows: n, cols: n, entries }
  const solved = exactSolve(a, { rows: n, cols: 1, entries: right.map(G.fromRational) })
  if (!solved || solved === 'singular') return null
  let at = 0
  return factors.map((factor) => ({
    factor,
    numerators: Array.from({ length: factor.times }, () => {
      const count = factor.list.length - 1
      const part = solved.entries.slice(at, at + count)
      at += count
      return part.map((z) => exactNumber(z))
    }),
  }))
}

function timesList(a: readonly Q.Rational[], b: readonly Q.Rational[]): Q.Rational[] | null {
  const result: Q.Rational[] = Array.from({ length: a.length + b.length - 1 }, () => Q.ZERO)
  for (const [i, x] of a.entries())
    for (const [k, y] of b.entries()) {
      const product = Q.multiply(x, y)
      const sum = product && Q.add(result[i + k] ?? Q.ZERO, product)
      if (!sum) return null
      result[i + k] = sum
    }
  return result
}

/** From residues of many digits; of a pair c/(s − p)ʲ and its conjugate are one fraction with a real numerator. */
function byResidues(g: Transfer, factors: readonly RealFactor[]): readonly Fraction[] | null {
  const f = timeFunction(g.top, g.bottom)
  if (!f) return null
  return factors.map((factor) => {
    const mode = f.modes.find(({ pole }) => pole === factor.pole)
    if (!mode) return { factor, numerators: [] }
    if (factor.list.length === 2) return { factor, numerators: mode.wide.map((c) => [real(Z.toComplex(c).re)]) }
    return { factor, numerators: pairNumerators(mode) }
  })
}

/** The numerators of 2·Re Σ c_j/(s − p)ʲ over powers of q = (s − p)(s − p*): digits of one polynomial to the base q. */
function pairNumerators({ pole, wide }: TimeFunction['modes'][number]): readonly (readonly NumberValue[])[] {
  const m = wide.length
  const other = Z.conjugate(pole.wide)
  const linear = [Z.negate(other), Z.ONE]
  const q = [Z.multiply(pole.wide, other), Z.negate(Z.add(pole.wide, other)), Z.ONE]
  // Over q^m: Σ c_j·(s − p*)ʲ·q^(m − j), twice its real part.
  let sum: Z.Wide[] = []
  for (const [k, c] of wide.entries()) {
    let term: Z.Wide[] = [c]
    for (let i = 0; i <= k; i += 1) term = product(term, linear)
    for (let i = k + 1; i < m; i += 1) term = product(term, q)
    sum = Array.from({ length: Math.max(sum.length, term.length) }, (_, i) =>
      Z.add(sum[i] ?? Z.ZERO, term[i] ?? Z.ZERO),
    )
  }
  let rest = sum.map((z) => ({ re: 2n * z.re, im: 0n, exp: z.exp }))
  const [q0 = Z.ZERO, q1 = Z.ZERO] = q
  const digits: (readonly NumberValue[])[] = []
  for (let j = 0; j < m; j += 1) {
    const next: Z.Wide[] = []
    const open = [...rest]
    for (let k = open.length - 1; k >= 2; k -= 1) {
      const factor = open[k] ?? Z.ZERO
      next[k - 2] = factor
      open[k - 1] = Z.subtract(open[k - 1] ?? Z.ZERO, Z.multiply(factor, q1))
      open[k - 2] = Z.subtract(open[k - 2] ?? Z.ZERO, Z.multiply(factor, q0))
    }
    digits.push([0, 1].map((k) => real(Z.toComplex(open[k] ?? Z.ZERO).re)))
    rest = Array.from({ length: Math.max(0, open.length - 2) }, (_, k) => ({ ...(next[k] ?? Z.ZERO), im: 0n }))
  }
  return digits.reverse()
}

function product(a: readonly Z.Wide[], b: readonly Z.Wide[]): Z.Wide[] {
  return Z.timesSeries(a, b, a.length + b.length - 1)
}

/** The sum as it is written. */
export function fractionsForm({ whole, fractions }: Fractions, unknown: string): RatioForm {
  const one = integer(1)
  const polynomial = (list: readonly NumberValue[]): Polynomial => P.fromCoefficients(unknown, [...list].reverse())
  const terms: RatioTerm[] = []
  if (whole.some((c) => c.re !== 0)) terms.push(termOf(polynomial(whole), []))
  for (const { factor, numerators } of fractions) {
    const base = polynomial(factor.list)
    const written = numerators.flatMap((list, k) =>
      list.every((c) => c.re === 0) ? [] : [termOf(polynomial(list), [{ base, exponent: k + 1 }])],
    )
    terms.push(...written)
  }
  return terms.length > 0 ? terms : [{ factor: integer(0), top: [], bottom: [] }].map((t) => ({ ...t, factor: one, top: [{ base: P.constant(integer(0)), exponent: 1 }] })) // prettier-ignore
}

/** With a number in front where the numerator is one, and the sign of its highest power there else. */
function termOf(top: Polynomial, bottom: RatioTerm['bottom']): RatioTerm {
  const number = P.asNumber(top)
  if (number) return { factor: number, top: [], bottom }
  const negative = (top.terms[0]?.factor.re ?? 0) < 0
  return {
    factor: integer(negative ? -1 : 1),
    top: [{ base: negative ? P.negate(top) : top, exponent: 1 }],
    bottom,
  }
}

/** K·(1 + τs)…/(sᵏ·(1 + τs)…): each factor with 1 for its constant. */
export function timeConstantForm(g: Transfer, unknown: string): RatioForm | null {
  const [above, below] = [realFactors(g.top), realFactors(g.bottom)]
  if (!above || !below) return null
  const constant = (p: Whole): bigint => p.find((c) => c !== 0n) ?? 0n
  const gain = quotientValue(constant(g.top), constant(g.bottom), g.exact)
  const side = (factors: readonly RealFactor[]): RatioTerm['top'] =>
    factors.map(({ list, times }) => {
      const [c0 = integer(1)] = list
      const scaled = c0.re === 0 ? list : list.map((c) => numberOr(A.divide(c, c0)))
      return { base: P.fromCoefficients(unknown, [...scaled].reverse()), exponent: times }
    })
  return [{ factor: gain, top: side(above), bottom: side(below) }]
}

/** Of numbers that are finite there is always one. */
export const numberOr = (x: NumberValue | Failure): NumberValue => (x.kind === 'number' ? x : real(NaN))
