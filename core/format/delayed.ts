import { negate } from '../values/arithmetic'
import { isZero } from '../values/beyond'
import { ofSort } from '../values/make'
import type { AngleValue, DelayedValue, NumberValue, TimeFunctionValue, TimeTerm } from '../values/types'
import { numberLatex } from './latex'
import { nameToLatex } from '../notation/latex'
import { formatNumber } from './number'
import { formatAngle } from './parts'
import { polynomialLatex, polynomialText } from './polynomial'
import type { Conventions } from './conventions'

/** Ratios behind a delay, and functions of time, as text that reads back where the notation has a word for it. */

/** `3/(s + 1)*e^(-2s)`. */
export function delayText({ ratio, unknown, delay }: DelayedValue, conventions: Conventions): string {
  const power = `e^(-${one(delay) ? '' : timesText(formatNumber(delay, conventions))}${unknown})`
  if (ratio.kind === 'number') return one(ratio) ? power : `${formatNumber(ratio, conventions)}*${power}`
  const text = polynomialText(ratio, conventions)
  return ratio.bottom === null && ratio.top.terms.length > 1 ? `(${text})*${power}` : `${text}*${power}`
}

const one = (z: NumberValue): boolean => z.re === 1 && z.im === 0

/** A number before a name: `2`, but `2/3*`. */
const timesText = (text: string): string => (/^[\d.]+$/.test(text) ? text : `${text}*`)

export function delayLatex({ ratio, unknown, delay }: DelayedValue, conventions: Conventions): string {
  const exponent = `-${one(delay) ? '' : `${numberLatex(delay, conventions)}\\,`}${nameToLatex(unknown)}`
  const power = `\\mathrm{e}^{${exponent}}`
  if (ratio.kind === 'number') return one(ratio) ? power : `${numberLatex(ratio, conventions)}\\,${power}`
  const text = polynomialLatex(ratio, conventions)
  return ratio.bottom === null && ratio.top.terms.length > 1
    ? `\\left( ${text} \\right)\\,${power}`
    : `${text}\\,${power}`
}

/** How the parts of a function of time are written. */
interface Style {
  readonly number: (z: NumberValue) => string
  readonly angle: (a: AngleValue) => string
  readonly time: (power: number) => string
  readonly exponential: (exponent: string) => string
  readonly sine: (argument: string) => string
  readonly impulse: (derivative: number) => string
  readonly before: (factor: string) => string
  readonly join: string
  /** Behind what is in radians. */
  readonly radians: string
}

function inStyle({ impulses, terms }: TimeFunctionValue, style: Style): string {
  const parts = [
    ...terms.map((term) => termIn(term, style)),
    ...impulses.flatMap((factor, k) => (isZero(factor) ? [] : [{ factor, rest: style.impulse(k) }])),
  ]
  if (parts.length === 0) return '0'
  return parts
    .map(({ factor, rest }, k) => {
      const negative = factor.re < 0
      const size = style.number(negative ? ofNegative(factor) : factor)
      const text = rest === '' ? size : size === '1' ? rest : `${style.before(size)}${rest}`
      return k === 0 ? `${negative ? '-' : ''}${text}` : `${negative ? ' - ' : ' + '}${text}`
    })
    .join('')
}

const ofNegative = (z: NumberValue): NumberValue => negate(ofSort(z, false))

function termIn(
  { factor, power, rate, frequency, phase }: TimeTerm,
  style: Style,
): { factor: NumberValue; rest: string } {
  const pieces: string[] = []
  if (power > 0) pieces.push(style.time(power))
  if (!isZero(rate)) pieces.push(style.exponential(along(rate, style)))
  if (!isZero(frequency)) {
    const turned = phase.radians === 0 ? '' : `${phase.radians < 0 ? ' - ' : ' + '}${style.angle(sizeOfAngle(phase))}`
    pieces.push(style.sine(`${along(frequency, style)}${style.radians}${turned}`))
  }
  return { factor, rest: pieces.join(style.join) }
}

function along(rate: NumberValue, style: Style): string {
  const negative = rate.re < 0
  const size = style.number(negative ? ofNegative(rate) : rate)
  return `${negative ? '-' : ''}${size === '1' ? '' : style.before(size)}${style.time(1)}`
}

const sizeOfAngle = (a: AngleValue): AngleValue =>
  a.radians >= 0 ? a : { ...a, radians: -a.radians, turns: a.turns && { n: -a.turns.n, d: a.turns.d } }

export function timeFunctionText(value: TimeFunctionValue, conventions: Conventions): string {
  return inStyle(value, {
    number: (z) => formatNumber(z, conventions),
    angle: (a) => formatAngle(a, conventions),
    time: (power) => (power === 1 ? value.time : `${value.time}^${power}`),
    exponential: (exponent) => `e^(${exponent})`,
    sine: (argument) => `sin(${argument})`,
    impulse: (k) => `δ${"'".repeat(Math.min(k, 3))}${k > 3 ? `^(${k})` : ''}(${value.time})`,
    before: (factor) => (/^[\d.]+$/.test(factor) ? `${factor}*` : `(${factor})*`),
    join: '*',
    radians: ' rad',
  })
}

export function timeFunctionLatex(value: TimeFunctionValue, conventions: Conventions): string {
  const time = nameToLatex(value.time)
  return inStyle(value, {
    number: (z) => numberLatex(z, conventions),
    angle: (a) => angleLatex(formatAngle(a, conventions)),
    time: (power) => (power === 1 ? time : `{${time}}^{${power}}`),
    exponential: (exponent) => `\\mathrm{e}^{${exponent}}`,
    sine: (argument) => `\\sin\\left( ${argument} \\right)`,
    impulse: (k) => `\\delta${k > 0 ? `^{(${k})}` : ''}(${time})`,
    before: (factor) => `${factor}\\,`,
    join: '\\,',
    radians: '\\,\\mathrm{rad}',
  })
}

const angleLatex = (text: string): string => text.replace('°', '^{\\circ}').replace(' rad', '\\,\\mathrm{rad}')
