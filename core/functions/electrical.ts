import * as A from '../values/arithmetic'
import { isBeyond, isZero } from '../values/beyond'
import { integer, real } from '../values/make'
import type { NumberValue, Value } from '../values/types'
import { numberAt } from './arguments'
import { commonLog } from './powers'
import { keep } from './measures'
import { waveMeasure } from './otherMeasures'
import type { FunctionDefinition } from './definition'
import type { Failure } from '../values/failure'
import { realLoop } from './loops'
import { decibels, magnitudes } from '../values/sweepLoops'

function inDecibels(x: NumberValue): Value | Failure {
  const size = A.magnitude(x)
  if (size.kind === 'failure') return size
  if (isZero(size)) return real(-Infinity)
  if (isBeyond(size)) {
    const bels = commonLog(size)
    return bels.kind === 'number' ? A.multiply(integer(20), bels) : bels
  }
  const value = 20 * Math.log10(size.re)
  return Number.isInteger(value) && size.exact ? integer(value) : real(value)
}

const amplitude = [{ name: 'a', kind: 'number' }] as const

export const electricalFunctions: readonly FunctionDefinition[] = [
  {
    name: 'par',
    measures: keep,
    group: 'electrical',
    parameters: [{ name: 'a', kind: 'number' }],
    repeats: true,
    spellings: ['parallel'],
    summary: 'Parallel combination 1/(1/a + 1/b + …), also written a || b.',
    examples: [
      { entry: 'par(6, 3)', gives: '2' },
      { entry: 'par(2, 2j)', gives: '1 + 1j' },
      { entry: 'par(4, 0)', gives: '0' },
    ],
    apply: (args) => {
      let total: NumberValue | Failure = numberAt(args, 0)
      for (let k = 1; k < args.length; k += 1) {
        if (total.kind === 'failure') return total
        total = A.parallel(total, numberAt(args, k))
      }
      return total
    },
  },
  {
    name: 'dB',
    amplitudes: true,
    group: 'electrical',
    loop: realLoop((value) => decibels(magnitudes(value))),
    parameters: [{ name: 'x', kind: 'number' }],
    summary: '20·lg|x|, a ratio of amplitudes in decibels; −∞ at 0.',
    examples: [
      { entry: 'dB(10)', gives: '20' },
      { entry: 'dB(0.5)', gives: '-6.0206' },
      { entry: 'dB(10^-400)', gives: '-8000' },
    ],
    apply: (args) => inDecibels(numberAt(args, 0)),
  },
  {
    name: 'from_dB',
    group: 'electrical',
    parameters: [{ name: 'L', kind: 'real' }],
    summary: 'The ratio of amplitudes 10^(L/20) of a level in decibels.',
    examples: [
      { entry: 'from_dB(20)', gives: '10' },
      { entry: 'from_dB(-3)', gives: '0.70795' },
      { entry: 'dB(from_dB(0.1))', gives: '0.1' },
    ],
    apply: (args) => {
      const exponent = A.divide(numberAt(args, 0), integer(20))
      return exponent.kind === 'number' ? A.power(integer(10), exponent) : exponent
    },
  },
  {
    name: 'rms',
    measures: keep,
    group: 'electrical',
    parameters: amplitude,
    summary: 'Effective value a/√2 of a sinusoid of peak value a.',
    examples: [
      { entry: 'rms(325.27)', gives: '230' },
      { entry: 'rms(10∠30°)', gives: '6.1237 + 3.5355j' },
      { entry: 'rms(peak(3))', gives: '3' },
    ],
    apply: (args) => A.divide(numberAt(args, 0), real(Math.SQRT2)),
  },
  {
    name: 'peak',
    measures: keep,
    group: 'electrical',
    parameters: amplitude,
    summary: 'Peak value a·√2 of a sinusoid of effective value a.',
    examples: [
      { entry: 'peak(230)', gives: '325.27' },
      { entry: 'peak(1)', gives: '1.4142' },
      { entry: 'peak(rms(3))', gives: '3' },
    ],
    apply: (args) => A.multiply(numberAt(args, 0), real(Math.SQRT2)),
  },
  {
    name: 'wave',
    measures: waveMeasure,
    group: 'electrical',
    parameters: [
      { name: 'V', kind: 'number' },
      { name: 'w', kind: 'real' },
      { name: 't', kind: 'real' },
    ],
    summary: 'Value |V|·cos(ωt + arg V) of a phasor V at the time t.',
    examples: [
      { entry: 'wave(10∠60°, 0, 1)', gives: '5' },
      { entry: 'wave(3 + 4j, 0, 1)', gives: '3' },
      { entry: 'wave(5, 2pi*50, 0.01)', gives: '-5' },
    ],
    apply: (args) => {
      const v = numberAt(args, 0)
      const angle = numberAt(args, 1).re * numberAt(args, 2).re
      // |V|·cos(ωt + arg V) = Re V·cos ωt − Im V·sin ωt, without taking |V| and arg V apart.
      return A.rounded({ re: v.re * Math.cos(angle) - v.im * Math.sin(angle), im: 0 }, false, v)
    },
  },
]
