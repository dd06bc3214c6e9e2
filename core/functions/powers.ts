import * as C from '../numbers/complex'
import * as A from '../values/arithmetic'
import { integer, real } from '../values/make'
import { failure } from '../values/value'
import type { Failure, NumberValue, Value } from '../values/value'
import { numberAt } from './arguments'
import type { FunctionDefinition } from './definition'

/** ln z; −∞ at 0. */
function naturalLog(z: NumberValue): Value | Failure {
  if (z.re === 0 && z.im === 0) return real(-Infinity)
  if (z.exact && z.re === 1 && z.im === 0) return integer(0)
  if (z.im === 0 && z.re > 0) return A.rounded({ re: Math.log(z.re), im: 0 }, false, z)
  return A.rounded(C.log(z), true, z)
}

/** A logarithm whose base has a method of its own for positive reals. */
function scaledLog(z: NumberValue, onReals: (x: number) => number, unit: number): Value | Failure {
  if (z.re === 0 && z.im === 0) return real(-Infinity)
  if (z.im === 0 && z.re > 0) {
    const value = onReals(z.re)
    return Number.isInteger(value) && z.exact ? integer(value) : A.rounded({ re: value, im: 0 }, false, z)
  }
  const log = C.log(z)
  return A.rounded({ re: log.re / unit, im: log.im / unit }, true, z)
}

const z = { name: 'z', kind: 'number' } as const

export const powerFunctions: readonly FunctionDefinition[] = [
  {
    name: 'sqrt',
    group: 'powers and logarithms',
    parameters: [z],
    summary: 'Principal square root: real part not negative. Also written √.',
    examples: [
      { entry: 'sqrt(16)', gives: '4' },
      { entry: 'sqrt(-4)', gives: '0 + 2j' },
    ],
    apply: (args) => A.squareRoot(numberAt(args, 0)),
  },
  {
    name: 'cbrt',
    group: 'powers and logarithms',
    parameters: [{ name: 'x', kind: 'real' }],
    summary: 'Real cube root of a real number.',
    examples: [{ entry: 'cbrt(-27)', gives: '-3' }],
    apply: (args) => {
      const value = numberAt(args, 0)
      const root = Math.cbrt(value.re)
      return value.exact && Number.isInteger(root) && root ** 3 === value.re
        ? integer(root)
        : A.rounded({ re: root, im: 0 }, false, value)
    },
  },
  {
    name: 'exp',
    group: 'powers and logarithms',
    parameters: [z],
    summary: 'e to the power z.',
    examples: [
      { entry: 'exp(1)', gives: '2.7183' },
      { entry: 'exp(j*90°)', gives: '0 + 1j' },
    ],
    apply: (args) => A.exponential(numberAt(args, 0)),
  },
  {
    name: 'ln',
    group: 'powers and logarithms',
    parameters: [z],
    summary: 'Natural logarithm, base e.',
    examples: [{ entry: 'ln(-1)', gives: '0 + 3.1416j' }],
    apply: (args) => naturalLog(numberAt(args, 0)),
  },
  {
    name: 'lg',
    group: 'powers and logarithms',
    parameters: [z],
    spellings: ['log10'],
    summary: 'Common logarithm, base 10.',
    examples: [{ entry: 'lg(1000)', gives: '3' }],
    apply: (args) => scaledLog(numberAt(args, 0), Math.log10, Math.LN10),
  },
  {
    name: 'lb',
    group: 'powers and logarithms',
    parameters: [z],
    spellings: ['log2'],
    summary: 'Binary logarithm, base 2.',
    examples: [{ entry: 'lb(8)', gives: '3' }],
    apply: (args) => scaledLog(numberAt(args, 0), Math.log2, Math.LN2),
  },
  {
    name: 'log',
    group: 'powers and logarithms',
    parameters: [
      { name: 'x', kind: 'number' },
      { name: 'base', kind: 'number' },
    ],
    summary: 'Logarithm of x to a base that is always said.',
    examples: [{ entry: 'log(81, 3)', gives: '4' }],
    apply: (args) => {
      const x = numberAt(args, 0)
      const base = numberAt(args, 1)
      if ((base.re === 0 || base.re === 1) && base.im === 0)
        return failure('domain', { name: 'log', needs: 'a base other than 0 and 1' })
      const whole = Math.round(Math.log(x.re) / Math.log(base.re))
      if (x.exact && base.exact && x.im === 0 && base.im === 0 && base.re ** whole === x.re) return integer(whole)
      const top = naturalLog(x)
      const bottom = naturalLog(base)
      if (top.kind !== 'number') return top
      return bottom.kind === 'number' ? A.divide(top, bottom) : bottom
    },
  },
]
