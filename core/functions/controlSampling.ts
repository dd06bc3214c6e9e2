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
import type { NumberValue, Value } from '../values/types'
import { argumentAt, numberAt } from './arguments'
import { rateOf, timeMisfit } from './controlMeasures'
import { G, unknownName, withTransfer } from './controlShared'
import type { FunctionDefinition, Parameter } from './definition'
import { dressed } from './measures'
import type { MeasureRule } from './measures'
import { quantityWords } from '../units/named'

/** Of the chapter on control: samples, and approximations of delays. */

const T: Parameter = { name: 'T', kind: 'real' }
const Z: Parameter = { name: 'z', kind: 'algebra' }

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

function sampling(name: string, args: readonly Value[], apply: (with_: Sampling) => Value | Failure): Value | Failure {
  const value = argumentAt(args, 0)
  const period = numberAt(args, 1)
  const time = realFraction(period)
  if (!time || !(period.re > 0)) return failure('period-needed', { name })
  const unknown = unknownName(name, 'z', argumentAt(args, 2))
  if (typeof unknown !== 'string') return unknown
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

function approximation(args: readonly Value[]): Value | Failure {
  const [delay, n] = [numberAt(args, 0), numberAt(args, 1)]
  const unknown = unknownName('delay_approximation', 's', argumentAt(args, 2))
  if (typeof unknown !== 'string') return unknown
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
  {
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
  },
  {
    name: 'bilinear',
    group: 'control',
    parameters: [G, T, Z, { name: 'w', kind: 'real' }],
    optional: 1,
    measures: sampledMeasure,
    summary: 'G with 2/T·(z − 1)/(z + 1) for s; with a frequency w (in radians over the time) right at that one.',
    examples: [
      { before: ['unknown s, z'], entry: 'bilinear(1/s, 2, z)', gives: '(z + 1)/(z - 1)' },
      { before: ['unknown s, z'], entry: 'bilinear(1/(s + 1), 1, z)', gives: '(0.33333z + 0.33333)/(z - 0.33333)' },
      { before: ['unknown s, z'], entry: 'bilinear(1/s, 2, z, pi/4)', gives: '(1.2732z + 1.2732)/(z - 1)' },
    ],
    apply: (args) => sampling('bilinear', args, (s) => tustin(s, args.length > 3 ? numberAt(args, 3) : null)),
  },
  {
    name: 'delay_approximation',
    group: 'control',
    parameters: [T, { name: 'n', kind: 'whole' }, { name: 's', kind: 'algebra' }],
    measures: ([t, , s], _, name) => (t && !isWild(t) ? timeMisfit(s, t, name) : null) ?? PLAIN,
    summary: 'A ratio of degree n that stands for the delay e^(−s·T) at low frequencies (H. Padé, 1892).',
    examples: [
      { before: ['unknown s'], entry: 'delay_approximation(2, 1, s)', gives: '(-s + 1)/(s + 1)' },
      { before: ['unknown s'], entry: 'delay_approximation(1, 2, s)', gives: '(0.083333s^2 - 0.5s + 1)/(0.083333s^2 + 0.5s + 1)' }, // prettier-ignore
      { before: ['unknown s'], entry: 'static_gain(delay_approximation(0.3, 4, s))', gives: '1' },
    ],
    apply: (args, context) => {
      const value = approximation(args)
      if (value.kind !== 'failure' && context.at) context.hint('delay-approximate', context.at, { order: numberAt(args, 1).re }) // prettier-ignore
      return value
    },
  },
]
