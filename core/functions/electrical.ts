import * as A from '../values/arithmetic'
import { isBeyond, isZero } from '../values/beyond'
import { integer, real } from '../values/make'
import type { NumberValue, Value } from '../values/types'
import { commonLog } from './powers'
import { keep } from './measures'
import { waveMeasure } from './otherMeasures'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'
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

const amplitude = [take.number('a')] as const

export const electricalFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'par',
    measures: keep,
    group: 'electrical',
    parameters: [take.number('a')],
    repeats: true,
    spellings: ['parallel'],
    summary: 'Parallel combination 1/(1/a + 1/b + …), also written a || b.',
    examples: [
      { entry: 'par(6, 3)', gives: '2' },
      { entry: 'par(2, 2j)', gives: '1 + 1j' },
      { entry: 'par(4, 0)', gives: '0' },
    ],
    apply: (args) => {
      const [first = integer(0), ...others] = args
      let total: NumberValue | Failure = first
      for (const next of others) {
        if (total.kind === 'failure') return total
        total = A.parallel(total, next)
      }
      return total
    },
  }),
  define({
    name: 'dB',
    amplitudes: true,
    group: 'electrical',
    loop: realLoop((value) => decibels(magnitudes(value))),
    parameters: [take.number('x')],
    summary: '20·lg|x|, a ratio of amplitudes in decibels; −∞ at 0.',
    examples: [
      { entry: 'dB(10)', gives: '20' },
      { entry: 'dB(0.5)', gives: '-6.0206' },
      { entry: 'dB(10^-400)', gives: '-8000' },
    ],
    apply: (args) => inDecibels(args[0]),
  }),
  define({
    name: 'from_dB',
    group: 'electrical',
    parameters: [take.real('L')],
    summary: 'The ratio of amplitudes 10^(L/20) of a level in decibels.',
    examples: [
      { entry: 'from_dB(20)', gives: '10' },
      { entry: 'from_dB(-3)', gives: '0.70795' },
      { entry: 'dB(from_dB(0.1))', gives: '0.1' },
    ],
    apply: (args) => {
      const exponent = A.divide(args[0], integer(20))
      return exponent.kind === 'number' ? A.power(integer(10), exponent) : exponent
    },
  }),
  define({
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
    apply: (args) => A.divide(args[0], real(Math.SQRT2)),
  }),
  define({
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
    apply: (args) => A.multiply(args[0], real(Math.SQRT2)),
  }),
  define({
    name: 'wave',
    measures: waveMeasure,
    group: 'electrical',
    parameters: [take.number('V'), take.real('w'), take.real('t')],
    summary: 'Value |V|·cos(ωt + arg V) of a phasor V at the time t.',
    examples: [
      { entry: 'wave(10∠60°, 0, 1)', gives: '5' },
      { entry: 'wave(3 + 4j, 0, 1)', gives: '3' },
      { entry: 'wave(5, 2pi*50, 0.01)', gives: '-5' },
    ],
    apply: ([v, w, t]) => {
      const angle = w.re * t.re
      // |V|·cos(ωt + arg V) = Re V·cos ωt − Im V·sin ωt, without taking |V| and arg V apart.
      return A.rounded({ re: v.re * Math.cos(angle) - v.im * Math.sin(angle), im: 0 }, false, v)
    },
  }),
]
