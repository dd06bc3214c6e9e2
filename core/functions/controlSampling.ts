import * as P from '../algebra/polynomial'
import { algebraic, isAlgebraic, polynomialValue, unknownValue } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import { bilinear, heldSamples } from '../control/sampling'
import { quotientValue, realFraction, relativeDegree } from '../control/transfer'
import type { Transfer } from '../control/transfer'
import type { Whole } from '../control/whole'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { PLAIN } from '../units/measure'
import { NONE } from '../units/dimension'
import { isWild, measureOf } from '../quantities/shape'
import { exactReal, integer, real } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare, quantity } from '../values/quantity'
import type { NumberValue, PolynomialValue, Value } from '../values/types'
import type { TransferValue } from '../signatures/take'
import { rateOf, timeMisfit } from './controlMeasures'
import { G, nameOf, withTransfer } from './controlShared'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'
import { dressed } from './measures'
import type { MeasureRule } from '../signatures/definition'
import { quantityWords } from '../units/named'

/** Of the chapter on control: samples, and approximations of delays. */

const T = take.real('T')
const Z = take.unknown('z')

/** Samples measure what is sampled; that their time is known in seconds is kept with them. */
const sampledMeasure: MeasureRule = (args, result, name) => {
  const [g, t] = args
  const misfit = timeMisfit(g, t, name)
  if (misfit) return misfit
  const w = args[3]
  if (w && measureOf(w).dimension !== rateOf(g).dimension) return failure('unit-alike', { name, one: quantityWords(rateOf(g)), other: quantityWords(measureOf(w)) }) // prettier-ignore
  const measured = t !== undefined && measureOf(t).dimension !== NONE
  const inner = bare(result)
  const kept = inner.kind === 'polynomial' && inner.period && measured ? { ...inner, period: { ...inner.period, measured } } : inner // prettier-ignore
  return dressed(quantity(kept, g ? measureOf(g) : PLAIN))
}

interface Sampling {
  readonly g: Transfer
  readonly period: NumberValue
  readonly time: Rational
  readonly unknown: string
}

function sampling(
  name: string,
  [value, period, z]: readonly [TransferValue, NumberValue, PolynomialValue, ...unknown[]],
  apply: (with_: Sampling) => Value | Failure,
): Value | Failure {
  const time = realFraction(period)
  if (!time || !(period.re > 0)) return failure('period-needed', { name })
  const unknown = nameOf(z)
  const delay = value.kind === 'delayed' ? value.delay : integer(0)
  const ratio = value.kind === 'delayed' ? value.ratio : value
  const steps = Math.round(delay.re / period.re)
  if (Math.abs(delay.re - steps * period.re) > 1e-12 * delay.re) return failure('delay-between-samples')
  return withTransfer(name, ratio, (g) => {
    if (g.discrete) return failure('laplace-of-samples', { name })
    const found = apply({ g, period, time, unknown })
    if (found.kind === 'failure' || steps === 0 || !isAlgebraic(found)) return dated(found, period)
    const shift = algebraic('^', unknownValue(unknown), integer(steps))
    return dated(shift.kind === 'failure' ? shift : algebraic('/', found, shift), period)
  })
}

function dated(value: Value | Failure, period: NumberValue): Value | Failure {
  return value.kind === 'polynomial' ? { ...value, period: { value: period, measured: false } } : value
}

function held({ g, time, unknown }: Sampling): Value | Failure {
  if (relativeDegree(g) < 0) return failure('transfer-improper', { name: 'sampled' })
  if (g.unknown === null) return gain(g)
  const factors = heldSamples(g, time, unknown)
  if (!factors) return failure('transfer-too-large', { name: 'sampled' })
  let value: Algebraic | Failure = polynomialValue(factors.top[0] ?? P.constant(integer(0)))
  for (const factor of factors.bottom) {
    value = value.kind === 'failure' ? value : algebraic('/', value, polynomialValue(factor))
  }
  return value
}

const gain = ({ top, bottom, exact }: Transfer): Value => quotientValue(top[0] ?? 0n, bottom[0] ?? 1n, exact)

function tustin({ g, time, unknown }: Sampling, w: NumberValue | null): Value | Failure {
  if (g.unknown === null) return gain(g)
  const c = w ? prewarped(w.re, Q.toNumber(time)) : Q.divide({ n: 2, d: 1 }, time)
  if (!c) return failure(w ? 'prewarp-beyond' : 'too-large')
  const [top, bottom] = bilinear(g, c)
  const exact = g.exact && w === null
  const side = (p: Whole): Algebraic => {
    const lead = bottom[bottom.length - 1] ?? 1n
    const list = [...p].reverse().map((x) => Q.fromBig(x, lead) ?? Q.ZERO)
    return polynomialValue(P.fromCoefficients(unknown, list.map((q) => (exact ? exactReal(q) : real(Q.toNumber(q)))))) // prettier-ignore
  }
  return algebraic('/', side(top), side(bottom))
}

/** ω/tan(ωT/2): at ω the response of the samples is that of what is sampled. */
function prewarped(w: number, period: number): Rational | null {
  const turn = (w * period) / 2
  if (!(turn > 0) || turn >= Math.PI / 2) return null
  return realFraction(real(w / Math.tan(turn)))
}

/** The coefficients of the [n/n] approximation of e^(−x), from the constant up: (2n − k)!·n!/((2n)!·k!·(n − k)!). */
function pade(n: number): readonly Rational[] {
  let c: Rational = { n: 1, d: 1 }
  const list: Rational[] = [c]
  for (let k = 0; k < n; k += 1) {
    c = Q.multiply(c, Q.rational(n - k, (2 * n - k) * (k + 1)) ?? Q.ONE) ?? c
    list.push(c)
  }
  return list
}

const PADE_MOST = 12

function approximation(delay: NumberValue, n: NumberValue, s: PolynomialValue): Value | Failure {
  const unknown = nameOf(s)
  if (!(delay.re >= 0)) return failure('delay-negative')
  if (!(n.re >= 1) || n.re > PADE_MOST) return failure('domain', { name: 'delay_approximation', needs: `an order from 1 to ${PADE_MOST}` }) // prettier-ignore
  const time = realFraction(delay)
  if (!time) return failure('too-large')
  const exact = delay.exact !== null
  const list = pade(n.re).map((c, k) => Q.multiply(c, Q.power(time, k) ?? Q.ONE) ?? Q.ZERO)
  const side = (sign: 1 | -1): Algebraic =>
    polynomialValue(
      P.fromCoefficients(
        unknown,
        list.map((q, k) => numberOf(k % 2 === 1 && sign < 0 ? Q.negate(q) : q, exact)).reverse(),
      ),
    )
  return algebraic('/', side(-1), side(1))
}

const numberOf = (q: Rational, exact: boolean): NumberValue => (exact ? exactReal(q) : real(Q.toNumber(q)))

export const samplingFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'sampled',
    group: 'control',
    parameters: [G, T, Z],
    measures: sampledMeasure,
    summary: 'The transfer function of the samples of G every T behind a hold of order zero, in the unknown z.',
    examples: [
      { before: ['unknown s, z'], entry: 'sampled(1/s, 0.1, z)', gives: '0.1/(z - 1)' },
      { before: ['unknown s, z'], entry: 'sampled(1/(s + 1), ln(2), z)', gives: '0.5/(z - 0.5)' },
      { before: ['unknown s, z'], entry: 'sampled(1/s^2, 2, z)', gives: '(2z + 2)/(z^2 - 2z + 1)' },
    ],
    apply: (args) => sampling('sampled', args, held),
  }),
  define({
    name: 'bilinear',
    group: 'control',
    parameters: [G, T, Z, take.optional(take.real('w'))],
    measures: sampledMeasure,
    summary: 'G with 2/T·(z − 1)/(z + 1) for s; with a frequency w (in radians over the time) right at that one.',
    examples: [
      { before: ['unknown s, z'], entry: 'bilinear(1/s, 2, z)', gives: '(z + 1)/(z - 1)' },
      { before: ['unknown s, z'], entry: 'bilinear(1/(s + 1), 1, z)', gives: '(0.33333z + 0.33333)/(z - 0.33333)' },
      { before: ['unknown s, z'], entry: 'bilinear(1/s, 2, z, pi/4)', gives: '(1.2732z + 1.2732)/(z - 1)' },
    ],
    apply: (args) => sampling('bilinear', args, (s) => tustin(s, args[3] ?? null)),
  }),
  define({
    name: 'delay_approximation',
    group: 'control',
    parameters: [T, take.whole('n'), take.unknown('s')],
    measures: ([t, , s], _, name) => (t && !isWild(t) ? timeMisfit(s, t, name) : null) ?? PLAIN,
    summary: 'A ratio of degree n that stands for the delay e^(−s·T) at low frequencies (H. Padé, 1892).',
    examples: [
      { before: ['unknown s'], entry: 'delay_approximation(2, 1, s)', gives: '(-s + 1)/(s + 1)' },
      { before: ['unknown s'], entry: 'delay_approximation(1, 2, s)', gives: '(0.083333s^2 - 0.5s + 1)/(0.083333s^2 + 0.5s + 1)' }, // prettier-ignore
      { before: ['unknown s'], entry: 'static_gain(delay_approximation(0.3, 4, s))', gives: '1' },
    ],
    apply: ([delay, n, s], context) => {
      const value = approximation(delay, n, s)
      if (value.kind !== 'failure' && context.at) context.hint('delay-approximate', context.at, { order: n.re }) // prettier-ignore
      return value
    },
  }),
]
