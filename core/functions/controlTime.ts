import { algebraic, isAlgebraic, unknownsOf } from '../algebra/ratio'
import { closedForm } from '../control/closedForm'
import { fractionsForm, partialFractions, timeConstantForm } from '../control/fractions'
import { responseTo, responseToLines, SAMPLES_MOST, transformed } from '../control/response'
import { stepFigures } from '../control/stepFigures'
import type { StepFigures } from '../control/stepFigures'
import { relativeDegree, transferOf } from '../control/transfer'
import type { Transfer } from '../control/transfer'
import { valueAt } from '../control/timeFunction'
import type { Context } from '../operators/context'
import { atEveryPoint } from '../operators/lift'
import { isWild, measureOf } from '../quantities/shape'
import { PLAIN } from '../units/measure'
import { integer, real } from '../values/make'
import { numberSweep } from '../values/sweeps'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare } from '../values/quantity'
import type { NumberValue, PolynomialValue, SweepValue, Value } from '../values/types'
import { partsOf, responseMeasure, timeOf, unknownMeasure } from './controlMeasures'
import { G, listed, orNone, periodOf, withTransfer } from './controlShared'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import type { Algebraic } from '../algebra/ratio'
import * as take from '../signatures/take'
import type { TransferValue } from '../signatures/take'

/** Of the chapter on control: responses over the time, and the fractions that they are made of. */

const LOOPS = take.transfers('G')
const T = take.times('t')

type Time = NumberValue | SweepValue

/** A response at a time or at all times of a sweep. */
function overTime(
  name: string,
  g: TransferValue | SweepValue,
  t: Time,
  context: Context,
  at: (g: Transfer, t: Time) => Value | Failure,
): Value | Failure {
  if (g.kind === 'sweep') {
    const node = context.at
    if (!node) return failure('transfer-needed', { name, kind: g.kind })
    return atEveryPoint([g, t], node, context, ([one, time]) => {
      const [of, when] = [G.read(one, node, context, { name }), T.read(time, node, context, { name })]
      if (of?.kind === 'failure') return of
      if (when?.kind === 'failure') return when
      return of && when ? overTime(name, of, when, context, at) : failure('transfer-needed', { name, kind: one.kind })
    })
  }
  const { ratio, delay } = g.kind === 'delayed' ? { ratio: g.ratio, delay: g.delay.re } : { ratio: g, delay: 0 }
  return withTransfer(name, ratio, (of) => (delay > 0 ? later(t, delay, name, (time) => at(of, time)) : at(of, t)))
}

/** Behind a delay the response is the same, so much later. */
function later(t: Time, delay: number, name: string, at: (t: Time) => Value | Failure): Value | Failure {
  if (t.kind === 'number') return at(real(t.re - delay))
  const shifted = at(numberSweep(t.axis, t.re.map((x) => x - delay), null)) // prettier-ignore
  return shifted.kind === 'sweep' ? { ...shifted, axis: t.axis } : shifted.kind === 'failure' ? shifted : failure('wrong-kind', { what: name, kind: shifted.kind }) // prettier-ignore
}

function along(t: Time, f: (t: number) => number, context: Context): Value | Failure {
  if (t.kind === 'number') return finite(f(t.re))
  const values = new Float64Array(t.count)
  for (let k = 0; k < t.count; k += 1) {
    if (k % 256 === 0) context.budget.report?.(k, t.count)
    const value = f(t.re[k] ?? NaN)
    if (!Number.isFinite(value)) return failure('too-large')
    values[k] = value
  }
  return numberSweep(t.axis, values, null)
}

const finite = (x: number): Value | Failure => (Number.isFinite(x) ? real(x) : failure('too-large'))

const known =
  (name: 'step_response' | 'impulse_response', of: 'step' | 'impulse') =>
  ([loop, t]: readonly [TransferValue | SweepValue, Time], context: Context): Value | Failure =>
    overTime(name, loop, t, context, (g, time) => {
      const improper = improperly(name, g)
      if (improper) return improper
      const period = periodOf(g)
      const last = time.kind === 'sweep' ? Math.max(...time.re) : time.re
      if (g.discrete && last / period > SAMPLES_MOST) return failure('too-many-points', { count: Math.floor(last / period), limit: SAMPLES_MOST }) // prettier-ignore
      const f = responseTo(g, of, period)
      if (!f) return failure('transfer-too-large', { name })
      const found = along(time, f, context)
      return found.kind === 'sweep' && of === 'step' ? withMarks(found, g) : found
    })

/** The figures of a step response go with its curve, which marks them. */
function withMarks(curve: SweepValue, g: Transfer): SweepValue {
  return { ...curve, stepOf: g }
}

/** Impulses at 0 are no values of a curve. */
function improperly(name: string, g: Transfer): Failure | null {
  return relativeDegree(g) < 0 ? failure('transfer-improper', { name }) : null
}

function response(
  [g, u, t]: readonly [TransferValue | SweepValue, Algebraic | SweepValue, Time],
  context: Context,
): Value | Failure {
  return overTime('response', g, t, context, (of, time) => {
    const improper = improperly('response', of)
    if (improper) return improper
    if (u.kind === 'sweep') return toSamples(of, u, time)
    if (of.discrete) return failure('response-sampled')
    // A number is put in from 0 on; anything with the unknown in it is the transform of what is put in.
    const transform = u.kind === 'number' ? constantInput(of, u.re) : transferOf('response', u)
    if ('kind' in transform) return transform
    if (relativeDegree(of) + relativeDegree(transform) < 1) return failure('transfer-improper', { name: 'response' })
    const f = transformed(of, transform)
    return f ? along(time, (at) => valueAt(f, at), context) : failure('transfer-too-large', { name: 'response' })
  })
}

function constantInput({ unknown }: Transfer, level: number): Transfer | Failure {
  const step = algebraic('/', real(level), { kind: 'polynomial', top: { unknowns: [unknown ?? 's'], terms: [{ powers: [1], factor: integer(1) }] }, bottom: null }) // prettier-ignore
  return step.kind === 'failure' ? step : transferOf('response', step)
}

/** Values put in at the times of a sweep: with straight lines between them, of samples as they are. */
function toSamples(g: Transfer, u: SweepValue, t: Time): Value | Failure {
  if (t.kind !== 'sweep' || u.of !== 'number' || u.im !== null || u.count !== t.count) return failure('response-input')
  if (g.discrete) return sampledResponse(g, u, t)
  const found = responseToLines(g, t.re, u.re)
  return found ? numberSweep(t.axis, found, null) : failure('response-times')
}

/** Sample by sample: y = Σ h(k − i)·u(i). */
function sampledResponse(g: Transfer, u: SweepValue, t: SweepValue): Value | Failure {
  const h = responseTo(g, 'impulse', 1)
  if (!h || u.count > 20_000) return failure('too-many-points', { count: u.count, limit: 20_000 })
  const values = new Float64Array(u.count)
  for (let k = 0; k < u.count; k += 1)
    for (let i = 0; i <= k; i += 1) values[k] = (values[k] ?? 0) + h(k - i) * (u.re[i] ?? 0)
  return numberSweep(t.axis, values, null)
}

function figures(f: StepFigures, period: number): Value {
  const time = (x: number | null): Value => orNone(x === null ? null : x * period)
  return listed('step_figures', [
    ['rise', time(f.rise)],
    ['settling', time(f.settling)],
    ['overshoot', orNone(f.overshoot)],
    ['undershoot', orNone(f.undershoot)],
    ['peak', real(f.peak)],
    ['peak_at', time(f.peakAt)],
    ['final', real(f.final)],
    // What rounding leaves beside 1 is no error.
    ['error', real(Math.abs(1 - f.final) < 1e-14 ? 0 : 1 - f.final)],
  ])
}

function inverseLaplace(
  [g, t]: readonly [TransferValue | SweepValue, Time | PolynomialValue],
  context: Context,
): Value | Failure {
  if (t.kind !== 'polynomial') {
    return overTime('inverse_laplace', g, t, context, (of, at) => {
      const f = of.discrete ? null : responseTo(of, 'impulse', 1)
      return f ? along(at, f, context) : failure(of.discrete ? 'laplace-of-samples' : 'transfer-too-large', { name: 'inverse_laplace' }) // prettier-ignore
    })
  }
  const [name] = unknownsOf(t)
  if (name === undefined || t.bottom || t.top.terms.length !== 1) return failure('unknown-needed', { name: 'inverse_laplace', parameter: 't' }) // prettier-ignore
  return withTransfer('inverse_laplace', g, (of) => {
    if (of.discrete) return failure('laplace-of-samples', { name: 'inverse_laplace' })
    const form = closedForm(of, name)
    if (!form || !isAlgebraic(g)) return failure('transfer-too-large', { name: 'inverse_laplace' })
    return { kind: 'time-function', of: g, ...form }
  })
}

/** The same ratio, written in another way. */
function written(
  name: string,
  value: Value,
  form: (g: Transfer, unknown: string) => PolynomialValue['form'] | null,
): Value | Failure {
  return withTransfer(name, value, (g) => {
    if (value.kind !== 'polynomial' || g.unknown === null) return value
    const found = form(g, g.unknown)
    return found ? { ...value, form: found } : failure('transfer-too-large', { name })
  })
}

export const timeFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'step_response',
    group: 'control',
    parameters: [LOOPS, T],
    sweeps: true,
    measures: responseMeasure(() => PLAIN),
    summary:
      'What comes out at the time t when 1 is put in from 0 on, from the poles and residues; t is a number or a sweep. Samples (an unknown z) are held.',
    examples: [
      { before: ['unknown s'], entry: 'step_response(1/(s + 1), ln(2))', gives: '0.5' },
      { before: ['unknown s', 't = 0 to 4'], entry: 'step_response(2/(s + 1)^2, t)[3]', gives: '1.188' },
      { before: ['unknown z'], entry: 'step_response(0.5/(z - 0.5), 3)', gives: '0.875' },
    ],
    apply: known('step_response', 'step'),
  }),
  define({
    name: 'impulse_response',
    group: 'control',
    parameters: [LOOPS, T],
    sweeps: true,
    measures: responseMeasure(([g]) => unknownMeasure(g)),
    summary: 'What comes out at the time t after an impulse at 0: the inverse Laplace transform of G.',
    examples: [
      { before: ['unknown s'], entry: 'impulse_response(1/(s + 1), ln(4))', gives: '0.25' },
      { before: ['unknown s'], entry: 'impulse_response(2/(s^2 + 4), pi/4)', gives: '1' },
      { before: ['unknown z'], entry: 'impulse_response(z/(z - 0.5), 3)', gives: '0.125' },
    ],
    apply: known('impulse_response', 'impulse'),
  }),
  define({
    name: 'response',
    group: 'control',
    parameters: [LOOPS, take.input('u'), T],
    sweeps: true,
    measures: (args, result, name) => {
      const [g, u] = args
      const input = (): typeof PLAIN => {
        if (!u || isWild(u)) return PLAIN
        const m = measureOf(u)
        // A transform measures what is put in times the time.
        return bare(u).kind === 'polynomial' ? m.times(unknownMeasure(g)) : m
      }
      return responseMeasure(input)(args, result, name)
    },
    summary:
      'What comes out at the time t when u is put in: a number (from 0 on), a Laplace transform such as 1/s^2, or a sweep of values at the times t, with straight lines between them.',
    examples: [
      { before: ['unknown s'], entry: 'response(1/(s + 1), 1/s^2, 1)', gives: '0.36788' },
      { before: ['unknown s'], entry: 'response(1/(s + 1), 6, ln(2))', gives: '3' },
      { before: ['unknown s', 't = 0 to 2 step 0.5'], entry: 'response(1/s, t, t)[last]', gives: '2' },
    ],
    apply: response,
  }),
  define({
    name: 'step_figures',
    group: 'control',
    parameters: [G],
    measures: partsOf(([g]) => {
      const [time, of] = [timeOf(g), g ? measureOf(g) : PLAIN]
      return { rise: time, settling: time, peak_at: time, peak: of, final: of, error: of }
    }),
    summary:
      'The figures of the step response: .rise (10 to 90 %), .settling (±2 %), .overshoot and .undershoot as shares of the change, .peak, .peak_at, .final, .error.',
    examples: [
      { before: ['unknown s'], entry: 'step_figures(1/(s + 1)).rise', gives: '2.1972' },
      { before: ['unknown s'], entry: 'step_figures(25/(s^2 + 5s + 25)).overshoot', gives: '0.16303' },
      { before: ['unknown s'], entry: 'step_figures(3/(s + 2)).final', gives: '1.5' },
    ],
    apply: ([of]) =>
      withTransfer('step_figures', of, (g) => {
        const f = stepFigures(g)
        if (typeof f !== 'string') return figures(f, periodOf(g))
        if (f === 'too-large') return failure('transfer-too-large', { name: 'step_figures' })
        return f === 'improper' ? failure('transfer-improper', { name: 'step_figures' }) : failure('no-steady-state', { why: f }) // prettier-ignore
      }),
  }),
  define({
    name: 'partial_fractions',
    group: 'control',
    parameters: [G],
    measures: (args) => (args[0] ? measureOf(args[0]) : PLAIN),
    summary:
      'A ratio as the sum of its partial fractions, a pair of complex poles together; exact where the poles are.',
    examples: [
      { before: ['unknown s'], entry: 'partial_fractions((s + 3)/((s + 1)*(s + 2)))', gives: '2/(s + 1) - 1/(s + 2)' },
      { before: ['unknown s'], entry: 'partial_fractions(1/(s*(s + 1)^2))', gives: '1/s - 1/(s + 1) - 1/(s + 1)^2' },
      {
        before: ['unknown s'],
        entry: 'partial_fractions(5/(s*(s^2 + 2s + 5)))',
        gives: '1/s - (s + 2)/(s^2 + 2s + 5)',
      },
    ],
    apply: ([of]) =>
      written('partial_fractions', of, (g, unknown) => {
        const found = partialFractions(g)
        return found && fractionsForm(found, unknown)
      }),
  }),
  define({
    name: 'time_constant_form',
    group: 'control',
    parameters: [G],
    measures: (args) => (args[0] ? measureOf(args[0]) : PLAIN),
    summary:
      'A ratio with a gain in front and 1 for the constant of each factor, so that its time constants can be read.',
    examples: [
      { before: ['unknown s'], entry: 'time_constant_form(10/((s + 2)*(s + 5)))', gives: '1/((0.5s + 1)*(0.2s + 1))' },
      { before: ['unknown s'], entry: 'time_constant_form(3*(s + 4)/(s*(s + 6)))', gives: '2*(0.25s + 1)/(s*(0.16667s + 1))' }, // prettier-ignore
      { before: ['unknown s'], entry: 'time_constant_form(8/(s^2 + 2s + 4))', gives: '2/(0.25s^2 + 0.5s + 1)' },
    ],
    apply: ([of]) => written('time_constant_form', of, (g, unknown) => timeConstantForm(g, unknown)),
  }),
  define({
    name: 'inverse_laplace',
    group: 'control',
    parameters: [LOOPS, take.timesOrUnknown('t')],
    sweeps: true,
    measures: responseMeasure(([g]) => unknownMeasure(g)),
    summary:
      'The function of time whose Laplace transform is G, for t ≥ 0: with an unknown t in closed form, impulses named; with a number or a sweep its values.',
    examples: [
      { before: ['unknown s, t'], entry: 'inverse_laplace(1/((s + 1)*(s + 2)), t)', gives: 'e^(-t) - e^(-2*t)' },
      { before: ['unknown s, t'], entry: 'inverse_laplace(4/(s^2 + 2s + 5), t)', gives: '2*e^(-t)*sin(2*t rad)' },
      { before: ['unknown s, t'], entry: 'inverse_laplace((s + 3)/(s + 1), t)', gives: '2*e^(-t) + δ(t)' },
    ],
    apply: inverseLaplace,
  }),
]
