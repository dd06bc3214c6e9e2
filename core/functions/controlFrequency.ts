import { bandwidthOf, marginsOf, peakGainOf } from '../control/margins'
import type { AtFrequency, Margins } from '../control/margins'
import { Branches } from '../control/rootLocus'
import { transferOf } from '../control/transfer'
import type { Transfer } from '../control/transfer'
import { isAlgebraic } from '../algebra/ratio'
import type { Context } from '../operators/context'
import { PLAIN } from '../units/measure'
import { angleOf, complexNumber, real, text, valueList } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, PartsValue, Value } from '../values/types'
import type { TransferValue } from '../signatures/take'
import { declaredMeasure, ofLoop, partsOf, plainly, rateOf, timeOf } from './controlMeasures'
import { L, listed, orNone, periodOf, withTransfer } from './controlShared'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'
import { measureOf } from '../quantities/shape'
import { dressed } from './measures'

/** Of the chapter on control: margins, bandwidth, and the locus of the roots. */

const LOOP = take.transfer('T')

/** The margins of a loop, with or without a delay. */
function marginsIn(value: TransferValue): { readonly loop: Transfer; readonly margins: Margins } | Failure {
  if (value.kind === 'delayed') {
    const loop = transferOf('margins', value.ratio)
    if ('kind' in loop) return loop
    return loop.discrete ? failure('transfer-delayed', { name: 'margins' }) : { loop, margins: marginsOf(loop, value.delay.re) } // prettier-ignore
  }
  const loop = transferOf('margins', value)
  return 'kind' in loop ? loop : { loop, margins: marginsOf(loop) }
}

function margins(value: TransferValue, context: Context): Value | Failure {
  const found = marginsIn(value)
  if ('kind' in found) return found
  const { loop, margins: m } = found
  if (loop.top.length === 0) return failure('transfer-zero', { name: 'margins' })
  const per = loop.discrete ? periodOf(loop) : 1
  const at = (x: AtFrequency | null): Value => orNone(x && x.at / per)
  const right = m.closedLoop?.right ?? 0
  if (right > 0 && context.at) context.hint('closed-loop-unstable', context.at, { right })
  else if ((m.closedLoop?.axis ?? 0) > 0 && context.at) context.hint('closed-loop-marginal', context.at)
  return listed('margins', [
    ['phase', m.phase ? angleOf(m.phase.value) : text('none')],
    ['phase_at', at(m.phase)],
    ['gain', orNone(m.gain && m.gain.value)],
    ['gain_at', at(m.gain)],
    ['gain_below', orNone(m.gainBelow && m.gainBelow.value)],
    ['delay', orNone(m.delay && m.delay.value * (loop.discrete ? periodOf(loop) : 1))],
    ['distance', real(m.distance.value)],
    ['stable', text(m.closedLoop === null ? 'not known' : right > 0 ? 'no' : m.closedLoop.axis > 0 ? 'on the edge' : 'yes')], // prettier-ignore
    ['all', crossovers(m, per)],
  ])
}

/** Every crossover: its frequency, the loop there, and its argument. */
function crossovers({ crossovers: all }: Margins, per: number): PartsValue {
  return listed('crossovers', [
    ['frequency', valueList(all.map(({ at }) => real(at / per)))],
    ['loop', valueList(all.map(({ value }) => complexNumber(value)))],
    ['argument', valueList(all.map(({ value, sort }) => angleOf(sort === 'phase' ? Math.PI : Math.atan2(value.im, value.re))))], // prettier-ignore
  ])
}

const branches = new WeakMap<Transfer, { readonly positive: Branches; readonly negative: Branches }>()

/** The branches of a loop, which are followed once. */
export function branchesOf(l: Transfer): { readonly positive: Branches; readonly negative: Branches } {
  const known = branches.get(l) ?? { positive: new Branches(l), negative: new Branches(l, -1) }
  branches.set(l, known)
  return known
}

function rootLocus(value: TransferValue, k: NumberValue): Value | Failure {
  return withTransfer('root_locus', value, (l) => {
    if (l.unknown === null) return failure('transfer-needed', { name: 'root_locus', kind: value.kind })
    if (l.top.length > l.bottom.length) return failure('transfer-improper', { name: 'root_locus' })
    const { positive, negative } = branchesOf(l)
    const roots = (k.re >= 0 ? positive : negative).at(k.re)
    if (!roots || !isAlgebraic(value)) return failure('transfer-too-large', { name: 'root_locus' })
    return { ...valueList(roots.map(complexNumber)), locusOf: { ...l, k: k.re } }
  })
}

export const frequencyFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'margins',
    group: 'control',
    parameters: [L],
    measures: ofLoop((args, result, name) => {
      const [l] = args
      const [rate, time] = [rateOf(l), timeOf(l)]
      const found = partsOf(() => ({ phase_at: rate, gain_at: rate, delay: time }))(args, result, name)
      if (!('dressed' in found) || found.dressed.kind !== 'parts') return found
      const all = found.dressed.parts.get('all')
      if (all?.kind !== 'parts') return found
      const inner = partsOf(() => ({ frequency: rate }))(args, all, name)
      const parts = new Map(found.dressed.parts)
      if ('dressed' in inner && inner.dressed.kind === 'parts') parts.set('all', inner.dressed)
      return dressed({ ...found.dressed, parts })
    }),
    summary:
      'The stability margins of an open loop L: .phase and .gain, where they are (.phase_at, .gain_at), .gain_below, .delay, .distance (the least |1 + L|), whether the closed loop is .stable, and .all crossovers.',
    examples: [
      { before: ['unknown s'], entry: 'margins(10/(s*(s + 1)*(s + 5))).gain', gives: '3' },
      { before: ['unknown s'], entry: 'margins(10/(s*(s + 1)*(s + 5))).phase', gives: '25.39°' },
      { before: ['unknown s'], entry: 'margins(1/(s + 1)).gain', gives: 'none' },
    ],
    apply: ([l], context) => margins(l, context),
  }),
  define({
    name: 'bandwidth',
    group: 'control',
    parameters: [LOOP],
    measures: plainly(([t]) => rateOf(t)),
    summary: 'The bandwidth of a closed loop: the lowest ω at which |T| is |T(0)|/√2.',
    examples: [
      { before: ['unknown s'], entry: 'bandwidth(5/(s + 5))', gives: '5' },
      { before: ['unknown s'], entry: 'bandwidth(4/(s^2 + 2s + 4))', gives: '2.544' },
      { before: ['unknown s'], entry: 'bandwidth(s/(s + 5))', gives: 'none' },
    ],
    apply: ([of]) =>
      withTransfer('bandwidth', of, (t) => {
        const w = bandwidthOf(t)
        return orNone(w === null ? null : w / (t.discrete ? periodOf(t) : 1))
      }),
  }),
  define({
    name: 'peak_gain',
    group: 'control',
    parameters: [LOOP],
    measures: plainly(([t]) => (t ? measureOf(t) : PLAIN)),
    summary: 'The largest |T| over all frequencies.',
    examples: [
      { before: ['unknown s'], entry: 'peak_gain(4/(s^2 + 2s + 4))', gives: '1.1547' },
      { before: ['unknown s'], entry: 'peak_gain(3/(s + 1))', gives: '3' },
      { before: ['unknown s'], entry: 'peak_gain(s/(s + 1))', gives: '1' },
    ],
    apply: ([of]) =>
      withTransfer('peak_gain', of, (t) => {
        const peak = peakGainOf(t)
        return peak ? real(peak.value) : failure('peak-infinite')
      }),
  }),
  define({
    name: 'root_locus',
    group: 'control',
    marks: 'cross',
    parameters: [L, take.real('k')],
    measures: plainly(([l]) => declaredMeasure(l)),
    summary:
      'The roots of 1 + k·L = 0, each on its branch: the poles of the closed loop with the gain k, in the order of the poles of L that the branches begin at.',
    examples: [
      { before: ['unknown s'], entry: 'root_locus(1/(s*(s + 2)), 0)', gives: '[-2 + 0j, 0 + 0j]' },
      { before: ['unknown s'], entry: 'root_locus(1/(s*(s + 2)), 0.75)', gives: '[-1.5 + 0j, -0.5 + 0j]' },
      { before: ['unknown s'], entry: 'root_locus(1/(s*(s + 2)), 2)', gives: '[-1 + 1j, -1 - 1j]' },
    ],
    apply: ([l, k]) => rootLocus(l, k),
  }),
]
