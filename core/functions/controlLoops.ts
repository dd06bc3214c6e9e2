import { algebraic, isAlgebraic } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import { isZero } from '../values/beyond'
import { order, quotientValue, relativeDegree, rootsOfWhole } from '../control/transfer'
import type { Transfer } from '../control/transfer'
import * as W from '../control/whole'
import * as C from '../numbers/complex'
import { tellCancelled } from '../operators/loopHints'
import { PLAIN } from '../units/measure'
import { measureOf } from '../quantities/shape'
import { complexNumber, exactNumber, integer, real, valueList } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, Value } from '../values/types'
import type { TransferValue } from '../signatures/take'
import { declaredMeasure, partsOf, plainLoop, rateOf, timeOf, unknownMeasure } from './controlMeasures'
import { G, L, listed, periodOf, withTransfer } from './controlShared'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'
import { first, free } from './measures'

/** Of the chapter on control: loops, and what a transfer function tells at a glance. */

/** above/(1 + loop); of ratios without a delay only. */
function closed(name: string, above: TransferValue, loop: TransferValue): Algebraic | Failure {
  if (above.kind === 'delayed' || loop.kind === 'delayed') return failure('transfer-delayed', { name })
  const below = algebraic('+', integer(1), loop)
  if (below.kind === 'failure') return below
  if (below.kind === 'number' && isZero(below)) return failure('loop-without-answer', { name })
  return algebraic('/', above, below)
}

function product(a: TransferValue, b: TransferValue): TransferValue | Failure {
  return isAlgebraic(a) && isAlgebraic(b) ? algebraic('*', a, b) : a
}

/** The value of s^k·L as s goes to 0: of samples of ((z − 1)/T)^k as z goes to 1. */
function errorConstant(l: Transfer, k: number): NumberValue {
  const root: W.Whole = l.discrete ? [-1n, 1n] : [0n, 1n]
  let [top, bottom] = [l.top, l.bottom]
  for (let i = 0; i < k; i += 1) top = W.multiply(top, root)
  const common = W.commonDivisor(top, bottom)
  if (top.length > 0 && W.degreeOf(common) > 0) [top, bottom] = ratioOver(top, bottom, common)
  const at = (p: W.Whole): bigint => (l.discrete ? p.reduce((sum, c) => sum + c, 0n) : W.coefficient(p, 0))
  const [above, below] = [at(top), at(bottom)]
  const value =
    below === 0n ? real(above === 0n ? NaN : above > 0n ? Infinity : -Infinity) : quotientValue(above, below, l.exact)
  const period = periodOf(l)
  return k === 0 || !l.discrete || period === 1 ? value : real(value.re / period ** k)
}

/** Both without a common factor; their quotient stays as it is. */
function ratioOver(top: W.Whole, bottom: W.Whole, common: W.Whole): [W.Whole, W.Whole] {
  const [a, b] = [W.division(top, common), W.division(bottom, common)]
  return [W.times(a.quotient, b.scale), W.times(b.quotient, a.scale)]
}

/** How many poles are at 0 (of samples at 1). */
function systemType(l: Transfer): number {
  const root: W.Whole = l.discrete ? [-1n, 1n] : [0n, 1n]
  let [rest, count] = [l.bottom, 0]
  while (W.degreeOf(W.commonDivisor(rest, root)) > 0) {
    rest = W.divided(rest, root)
    count += 1
  }
  return count
}

function modes(g: Transfer): Value | Failure {
  const found = rootsOfWhole(g.bottom)
  if (!found) return failure('transfer-too-large', { name: 'modes' })
  const poles = found.flatMap((pole) => Array.from({ length: pole.times }, () => pole))
  if (poles.length === 0) return failure('no-roots', { name: 'poles' })
  const complex = poles.some(({ z }) => z.im !== 0)
  const period = periodOf(g)
  const rates = poles.map(({ z }) => (g.discrete ? C.log(z) : z)).map((z) => (g.discrete ? { re: z.re / period, im: z.im / period } : z)) // prettier-ignore
  const list = (of: (z: C.Complex) => number): Value => valueList(rates.map((z) => real(of(z))))
  const value = (k: number): Value => {
    const pole = poles[k]
    if (!pole) return real(NaN)
    return pole.exact && g.exact ? exactNumber(pole.exact, complex) : complex ? complexNumber(pole.z) : real(pole.z.re)
  }
  const size = (z: C.Complex): number => Math.hypot(z.re, z.im)
  return listed('modes', [
    ['poles', valueList(poles.map((_, k) => value(k)))],
    ['frequency', list(size)],
    ['damping', list((z) => (size(z) === 0 ? NaN : z.re === -Infinity ? 1 : -z.re / size(z)))],
    ['time_constant', list((z) => (z.re === 0 ? Infinity : z.re === -Infinity ? 0 : -1 / z.re))],
  ])
}

export const loopFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'closed_loop',
    group: 'control',
    parameters: [G, take.optional(take.transfer('H'))],
    measures: (args, result, name) => {
      const [g, h] = args
      const whole = g && h ? measureOf(g).times(measureOf(h)) : g ? measureOf(g) : PLAIN
      return (whole.dimension === PLAIN.dimension ? null : plainLoop(h ?? g, name)) ?? (h ? first(args.slice(0, 1), result, name) : PLAIN) // prettier-ignore
    },
    summary: 'The loop closed by negative feedback, G/(1 + G·H); without H that of G alone.',
    examples: [
      { before: ['unknown s'], entry: 'closed_loop(4/(s*(s + 2)))', gives: '4/(s^2 + 2s + 4)' },
      { before: ['unknown s'], entry: 'closed_loop(10/(s + 1), 0.5)', gives: '10/(s + 6)' },
      { before: ['unknown s', 'G = 1/(s^2 + sqrt(2)*s + 1)'], entry: 'closed_loop(G)', gives: '1/(s^2 + 1.4142s + 2)' }, // prettier-ignore
    ],
    apply: ([g, behind], context) => {
      const h = behind ?? integer(1)
      if (context.at && g.kind === 'polynomial' && h.kind === 'polynomial') tellCancelled(g, h, context.at, context)
      const loop = behind ? product(g, behind) : g
      return loop.kind === 'failure' ? loop : closed('closed_loop', g, loop)
    },
  }),
  define({
    name: 'sensitivity',
    group: 'control',
    parameters: [L],
    measures: (args, _, name) => plainLoop(args[0], name) ?? PLAIN,
    summary: 'The sensitivity of a closed loop, 1/(1 + L).',
    examples: [
      { before: ['unknown s'], entry: 'sensitivity(4/(s*(s + 2)))', gives: '(s^2 + 2s)/(s^2 + 2s + 4)' },
      { before: ['unknown s'], entry: 'sensitivity(9/(s + 1))', gives: '(s + 1)/(s + 10)' },
      { entry: 'sensitivity(4)', gives: '0.2' },
    ],
    apply: ([l]) => closed('sensitivity', integer(1), l),
  }),
  define({
    name: 'static_gain',
    group: 'control',
    parameters: [G],
    measures: (args) => (args[0] ? measureOf(args[0]) : PLAIN),
    summary: 'The gain at rest: G at s = 0, of samples at z = 1; ∞ where G integrates.',
    examples: [
      { before: ['unknown s'], entry: 'static_gain(6/((s + 1)*(s + 4)))', gives: '1.5' },
      { before: ['unknown s'], entry: 'static_gain(1/(s*(s + 1)))', gives: '∞' },
      { before: ['unknown z'], entry: 'static_gain(0.2/(z - 0.8))', gives: '1' },
    ],
    apply: ([of]) => withTransfer('static_gain', delayless(of), (g) => errorConstant(g, 0)),
  }),
  define({
    name: 'order',
    group: 'control',
    parameters: [G],
    measures: free,
    summary: 'The order of a transfer function: how many poles it has.',
    examples: [
      { before: ['unknown s'], entry: 'order(1/((s + 1)^2*(s + 3)))', gives: '3' },
      { before: ['unknown s'], entry: 'order((s + 1)/((s + 1)*(s + 3)))', gives: '1' },
      { entry: 'order(5)', gives: '0' },
    ],
    apply: ([of]) => withTransfer('order', of, (g) => integer(order(g))),
  }),
  define({
    name: 'relative_degree',
    group: 'control',
    parameters: [G],
    measures: free,
    summary: 'How many more poles than zeros there are; below 0 the ratio is improper.',
    examples: [
      { before: ['unknown s'], entry: 'relative_degree((s + 2)/(s^3 + 1))', gives: '2' },
      { before: ['unknown s'], entry: 'relative_degree((s + 2)/(s + 1))', gives: '0' },
      { before: ['unknown s'], entry: 'relative_degree(s^2 + 1)', gives: '-2' },
    ],
    apply: ([of]) =>
      withTransfer('relative_degree', of, (g) => {
        const degree = relativeDegree(g)
        return Number.isFinite(degree) ? integer(degree) : failure('transfer-zero', { name: 'relative_degree' })
      }),
  }),
  define({
    name: 'error_constants',
    group: 'control',
    parameters: [L],
    measures: partsOf(([l]) => {
      const of = l ? measureOf(l) : PLAIN
      const rate = unknownMeasure(l)
      return { position: of, velocity: of.times(rate), acceleration: of.times(rate).times(rate) }
    }),
    summary:
      'The type of an open loop (how many poles it has at 0) and its error constants: .type, .position, .velocity, .acceleration.',
    examples: [
      { before: ['unknown s'], entry: 'error_constants(20/(s*(s + 4)))', gives: 'type = 1, position = ∞, velocity = 5, acceleration = 0' }, // prettier-ignore
      { before: ['unknown s'], entry: 'error_constants(8/(s + 2)).position', gives: '4' },
      { before: ['unknown s'], entry: 'error_constants(3*(s + 1)/s^2).acceleration', gives: '3' },
    ],
    apply: ([of]) =>
      withTransfer('error_constants', delayless(of), (l) =>
        listed('error_constants', [
          ['type', integer(systemType(l))],
          ['position', errorConstant(l, 0)],
          ['velocity', errorConstant(l, 1)],
          ['acceleration', errorConstant(l, 2)],
        ]),
      ),
  }),
  define({
    name: 'modes',
    group: 'control',
    parameters: [G],
    measures: partsOf(([g]) => ({ poles: declaredMeasure(g), frequency: rateOf(g), time_constant: timeOf(g) })),
    summary:
      'The modes of a transfer function: .poles, and for each its natural frequency |p|, its damping −Re p/|p| and its time constant −1/Re p.',
    examples: [
      { before: ['unknown s'], entry: 'modes(25/(s^2 + 6s + 25)).frequency', gives: '[5, 5]' },
      { before: ['unknown s'], entry: 'modes(25/(s^2 + 6s + 25)).damping', gives: '[0.6, 0.6]' },
      { before: ['unknown s'], entry: 'modes(1/((s + 2)*(s + 5))).time_constant', gives: '[0.2, 0.5]' },
    ],
    apply: ([of]) => withTransfer('modes', delayless(of), modes),
  }),
]

/** What a delay does not change: gains at rest and poles. */
function delayless(value: TransferValue): Algebraic {
  return value.kind === 'delayed' ? value.ratio : value
}
