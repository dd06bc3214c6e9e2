import { nameToLatex } from '../notation/latex'
import * as C from '../numbers/complex'
import { negate } from '../values/arithmetic'
import { ofSort } from '../values/make'
import type { NumberValue, Polynomial, PolynomialValue, RatioForm, RatioTerm, Term } from '../values/types'
import type { Conventions } from './conventions'
import { numberLatex } from './latex'
import { formatNumber, NOISE } from './number'

/** Polynomials as text that reads back in, and as LaTeX. */

/** How the pieces of a polynomial are written. */
interface Style {
  readonly factor: (z: NumberValue) => string
  readonly unknown: (name: string, power: number) => string
  /** Between a factor and its unknowns, and between unknowns. */
  readonly times: (factor: string) => string
  readonly join: string
  readonly brackets: (text: string) => string
}

function textStyle(conventions: Conventions): Style {
  return {
    factor: (z) => formatNumber(z, conventions),
    unknown: (name, power) => (power === 1 ? name : `${name}^${power}`),
    times: (factor) => (/^[\d.]+$/.test(factor) ? '' : '*'),
    join: '*',
    brackets: (text) => `(${text})`,
  }
}

function latexStyle(conventions: Conventions): Style {
  return {
    factor: (z) => numberLatex(z, conventions),
    unknown: (name, power) => (power === 1 ? nameToLatex(name) : `{${nameToLatex(name)}}^{${power}}`),
    times: () => '\\,',
    join: '\\,',
    brackets: (text) => `\\left( ${text} \\right)`,
  }
}

function termText(term: Term, unknowns: readonly string[], style: Style): { negative: boolean; text: string } {
  const letters = unknowns.flatMap((name, k) => {
    const power = term.powers[k] ?? 0
    return power === 0 ? [] : [style.unknown(name, power)]
  })
  const { factor } = term
  const complex = factor.im !== 0
  const negative = !complex && factor.re < 0
  const size: NumberValue = complex ? factor : ofSort(negative ? negate(factor) : factor, false)
  const one = !complex && Math.abs(factor.re) === 1 && (factor.exact !== null || factor.pi === null)
  if (letters.length === 0) return { negative, text: complex ? style.brackets(style.factor(size)) : style.factor(size) }
  const rest = letters.join(style.join)
  if (one) return { negative, text: rest }
  const written = complex ? style.brackets(style.factor(size)) : style.factor(size)
  return { negative, text: `${written}${style.times(written)}${rest}` }
}

function polynomialIn(p: Polynomial, style: Style): string {
  const largest = Math.max(0, ...p.terms.map(({ factor }) => C.abs(factor)))
  const shown = p.terms.filter(({ factor }) => factor.exact || C.abs(factor) >= NOISE * largest)
  if (shown.length === 0) return '0'
  return shown
    .map((term) => termText(term, p.unknowns, style))
    .map(({ negative, text }, k) => (k === 0 ? `${negative ? '-' : ''}${text}` : `${negative ? ' - ' : ' + '}${text}`))
    .join('')
}

export function polynomialText(value: PolynomialValue, conventions: Conventions): string {
  const style = textStyle(conventions)
  if (value.form) return written(value.form, style, textRatio)
  const top = polynomialIn(value.top, style)
  if (!value.bottom) return top
  // A row of factors above needs no brackets.
  const side = (p: Polynomial, text: string): string => (p.terms.length === 1 ? text : `(${text})`)
  const bottom = polynomialIn(value.bottom, style)
  return `${side(value.top, top)}/${ONE_POWER.test(bottom) ? bottom : `(${bottom})`}`
}

export function polynomialLatex(value: PolynomialValue, conventions: Conventions): string {
  const style = latexStyle(conventions)
  if (value.form) return written(value.form, style, latexRatio)
  const top = polynomialIn(value.top, style)
  return value.bottom ? `\\dfrac{${top}}{${polynomialIn(value.bottom, style)}}` : top
}

/** A power of one unknown: what divides by it needs no brackets. */
const ONE_POWER = /^[\p{L}_][\p{L}\p{N}_]*(\^\d+)?$/u

/** A number in front, what stands above, and what below, each side as its factors. */
type Ratio = (factor: string, above: readonly Side[], below: readonly Side[], style: Style) => string

/** A factor as it is written, and whether it needs no brackets beside others. */
interface Side {
  readonly text: string
  readonly exponent: number
  readonly single: boolean
}

/** A sum of ratios, the sign of each taken out. */
function written(form: RatioForm, style: Style, ratio: Ratio): string {
  const sides = (powers: RatioTerm['top']): readonly Side[] =>
    powers.map(({ base, exponent }) => ({ text: polynomialIn(base, style), exponent, single: base.terms.length === 1 }))
  return form
    .map(({ factor, top, bottom }, k) => {
      const negative = factor.im === 0 && factor.re < 0
      const size = style.factor(ofSort(negative ? negate(factor) : factor, false))
      const text = ratio(size, sides(top), sides(bottom), style)
      return k === 0 ? `${negative ? '-' : ''}${text}` : `${negative ? ' - ' : ' + '}${text}`
    })
    .join('')
}

/** `2*(s + 4)/(s*(s + 6)^2)`. */
const textRatio: Ratio = (factor, above, below) => {
  const one = (side: Side, alone: boolean): string => {
    const text = side.single || (alone && side.exponent === 1) ? side.text : `(${side.text})`
    return side.exponent === 1 ? text : `${text}^${side.exponent}`
  }
  const shown = factor === '1' && above.length > 0 ? [] : [factor]
  const top = [...shown, ...above.map((side) => one(side, below.length === 0 && above.length === 1 && shown.length === 0))].join('*') // prettier-ignore
  if (below.length === 0) return top
  const [only] = below
  const bottom = below.map((side) => one(side, false)).join('*')
  return below.length === 1 && only && (!only.single || ONE_POWER.test(only.text))
    ? `${top}/${bottom}`
    : `${top}/(${bottom})`
}

const latexRatio: Ratio = (factor, above, below, style) => {
  const one = (side: Side, alone: boolean): string => {
    const text = side.single || (alone && side.exponent === 1) ? side.text : style.brackets(side.text)
    return side.exponent === 1 ? text : `{${text}}^{${side.exponent}}`
  }
  const shown = factor === '1' && above.length > 0 ? [] : [factor]
  const side = (list: readonly Side[], before: readonly string[]): string =>
    [...before, ...list.map((each) => one(each, list.length === 1 && before.length === 0))].join('\\,')
  return below.length === 0 ? side(above, shown) : `\\dfrac{${side(above, shown)}}{${side(below, [])}}`
}
