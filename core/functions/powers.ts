import * as C from '../numbers/complex'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { exponentialOf } from '../algebra/delayed'
import * as A from '../values/arithmetic'
import { beyondOne, isBeyond, isZero, logarithm, scaledOf } from '../values/beyond'
import type { ScaledNumber } from '../values/beyond'
import { exactReal, integer, real } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, Value } from '../values/types'
import { raised } from './measures'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'

/** ln z; −∞ at 0. */
function naturalLog(z: NumberValue): Value | Failure {
  const far = isBeyond(z) ? scaledOf(z) : null
  if (far) return farLog(z, far, 1)
  if (z.re === 0 && z.im === 0) return real(-Infinity)
  if (z.exact && Q.equals(z.exact.re, Q.ONE) && z.im === 0) return integer(0)
  const difference = beyondOne(z)
  if (difference !== null) return real(Math.log1p(difference))
  if (z.im === 0 && z.re > 0) return A.rounded({ re: Math.log(z.re), im: 0 }, false, z)
  return A.rounded(C.log(z), true, z)
}

/** lg z, also of what lies beyond the range of doubles. */
export function commonLog(z: NumberValue): Value | Failure {
  return scaledLog(z, 10, Math.log10, Math.LN10)
}

/** A logarithm whose base has a method of its own for positive reals. */
function scaledLog(z: NumberValue, base: number, onReals: (x: number) => number, unit: number): Value | Failure {
  const far = isBeyond(z) ? scaledOf(z) : null
  if (z.re === 0 && z.im === 0 && !far) return real(-Infinity)
  const whole = z.im === 0 ? wholeLog(z, integer(base), far ? farLog(z, far, unit) : real(onReals(z.re))) : null
  if (whole) return whole
  if (far) return farLog(z, far, unit)
  const difference = beyondOne(z)
  if (difference !== null) return real(Math.log1p(difference) / unit)
  if (z.im === 0 && z.re > 0) return A.rounded({ re: onReals(z.re), im: 0 }, false, z)
  const log = C.log(z)
  return A.rounded({ re: log.re / unit, im: log.im / unit }, true, z)
}

/** The logarithm of an exact number beyond the range of doubles. */
function farLog(z: NumberValue, far: ScaledNumber, unit: number): NumberValue | Failure {
  const { re, im } = logarithm(far)
  return A.rounded({ re: re / unit, im: im / unit }, im !== 0, z)
}

/** The whole number that the logarithm is near to, proved by the power; `null` where it is none. */
function wholeLog(x: NumberValue, base: NumberValue, near: NumberValue | Failure): NumberValue | null {
  if (near.kind !== 'number' || !x.exact || !base.exact) return null
  const exponent = Math.round(near.re)
  const power = Math.abs(near.re - exponent) < 1e-6 ? G.power(base.exact, exponent) : null
  return power && G.equals(power, x.exact) ? integer(exponent) : null
}

const z = take.number('z')

export const powerFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'sqrt',
    measures: raised({ n: 1, d: 2 }),
    group: 'powers and logarithms',
    whole: 'the eigenvalues',
    typesetting: { as: 'enclosed', before: '\\sqrt{', after: '}' },
    parameters: [z],
    summary: 'Principal square root: real part not negative. Also written √.',
    examples: [
      { entry: 'sqrt(16)', gives: '4' },
      { entry: 'sqrt(-4)', gives: '0 + 2j' },
      { entry: 'sqrt(10^400)', gives: '1e200' },
    ],
    apply: ([z]) => A.squareRoot(z),
  }),
  define({
    name: 'cbrt',
    measures: raised({ n: 1, d: 3 }),
    group: 'powers and logarithms',
    typesetting: { as: 'enclosed', before: '\\sqrt[3]{', after: '}' },
    parameters: [take.real('x')],
    summary: 'Real cube root of a real number.',
    examples: [
      { entry: 'cbrt(-27)', gives: '-3' },
      { entry: 'cbrt(2)', gives: '1.2599' },
      { entry: 'cbrt(1e-300)', gives: '1e-100' },
    ],
    apply: ([value]) => {
      const root = Math.cbrt(value.re)
      const size = A.magnitude(value)
      if (size.kind === 'failure') return size
      const exact = size.exact && A.exactNthRoot(size.exact.re, 3)
      const known = exact ? exactReal(exact) : A.farNthRoot(size, 3)
      if (known) return known.kind === 'failure' || value.re > 0 ? known : A.negate(known)
      return A.rounded({ re: root, im: 0 }, false, value)
    },
  }),
  define({
    name: 'exp',
    group: 'powers and logarithms',
    whole: 'expm(A)',
    exponential: true,
    parameters: [z],
    summary: 'e to the power z.',
    examples: [
      { entry: 'exp(1)', gives: '2.7183' },
      { entry: 'exp(j*90°)', gives: '0 + 1j' },
      { entry: 'exp(j*180°) + 1', gives: '0 + 0j' },
    ],
    algebra: ({ items }) => {
      const [item] = items
      if (items.length !== 1 || item?.kind !== 'polynomial') return failure('no-unknowns', { name: 'exp' })
      return exponentialOf(item)
    },
    apply: ([z]) => A.exponential(z),
  }),
  define({
    name: 'ln',
    group: 'powers and logarithms',
    whole: 'the eigenvalues',
    parameters: [z],
    summary: 'Natural logarithm, base e.',
    examples: [
      { entry: 'ln(-1)', gives: '0 + 3.1416j' },
      { entry: 'ln(10)', gives: '2.3026' },
      { entry: 'ln(1 + 1e-20)', gives: '1e-20' },
    ],
    apply: ([z]) => naturalLog(z),
  }),
  define({
    name: 'lg',
    group: 'powers and logarithms',
    parameters: [z],
    spellings: ['log10'],
    summary: 'Common logarithm, base 10.',
    examples: [
      { entry: 'lg(1000)', gives: '3' },
      { entry: 'lg(2)', gives: '0.30103' },
      { entry: 'lg(10^400)', gives: '400' },
    ],
    apply: ([z]) => commonLog(z),
  }),
  define({
    name: 'lb',
    group: 'powers and logarithms',
    parameters: [z],
    spellings: ['log2'],
    summary: 'Binary logarithm, base 2.',
    examples: [
      { entry: 'lb(8)', gives: '3' },
      { entry: 'lb(10)', gives: '3.3219' },
      { entry: 'lb(2^-2000)', gives: '-2000' },
    ],
    apply: ([z]) => scaledLog(z, 2, Math.log2, Math.LN2),
  }),
  define({
    name: 'log',
    group: 'powers and logarithms',
    refuses: (given) => (given === 1 ? failure('log-base') : null),
    parameters: [take.number('x'), take.number('base')],
    summary: 'Logarithm of x to a base that is always said.',
    examples: [
      { entry: 'log(81, 3)', gives: '4' },
      { entry: 'log(2, 10)', gives: '0.30103' },
      { entry: 'log(1000, 10) == 3', gives: 'true' },
    ],
    apply: ([x, base]) => {
      if (isZero(base) || (base.re === 1 && base.im === 0 && !beyondOne(base)))
        return failure('domain', { name: 'log', needs: 'a base other than 0 and 1' })
      const top = naturalLog(x)
      const bottom = naturalLog(base)
      if (top.kind !== 'number') return top
      if (bottom.kind !== 'number') return bottom
      const value = A.divide(top, bottom)
      return (value.kind === 'number' && wholeLog(x, base, value)) || value
    },
  }),
]
