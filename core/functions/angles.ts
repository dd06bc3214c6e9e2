import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { cosDegrees, cosTurns, sinDegrees, sinTurns, tanDegrees, tanTurns } from '../numbers/turns'
import type { TurnValue } from '../numbers/turns'
import * as A from '../values/arithmetic'
import { isZero } from '../values/beyond'
import { asDegrees, asRadians } from '../values/convert'
import { angleOf, angleOfTurns, argumentOf, exactReal, fromComponents, integer, real } from '../values/make'
import type { AngleValue, NumberValue, Value } from '../values/types'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { numberAt } from './arguments'
import type { Example, FunctionDefinition } from './definition'

type Circular = 'sin' | 'cos' | 'tan'

const EXACT: Readonly<Record<Circular, (t: Rational) => TurnValue>> = { sin: sinTurns, cos: cosTurns, tan: tanTurns }
const PLAIN: Readonly<Record<Circular, (x: number) => number>> = { sin: Math.sin, cos: Math.cos, tan: Math.tan }
const IN_DEGREES: Readonly<Record<Circular, (x: number) => number>> = {
  sin: sinDegrees,
  cos: cosDegrees,
  tan: tanDegrees,
}
const COMPLEX: Readonly<Record<Circular, (z: C.Complex) => C.Complex>> = { sin: C.sin, cos: C.cos, tan: C.tan }

function circularValue(which: Circular, value: Value | undefined): NumberValue | Failure {
  if (value?.kind === 'angle') return ofAngle(which, value)
  if (value?.kind === 'number') {
    const z = COMPLEX[which](value)
    return A.rounded(z, true, value)
  }
  throw new Error('the argument is declared as an angle')
}

function ofAngle(which: Circular, angle: AngleValue): NumberValue | Failure {
  if (!Number.isFinite(angle.radians)) return A.undefinedNumber()
  if (!angle.turns)
    return real(angle.degrees === undefined ? PLAIN[which](angle.radians) : IN_DEGREES[which](angle.degrees))
  const { value, exact } = EXACT[which](angle.turns)
  return exact ? exactReal(exact) : real(value)
}

const theta = { name: 'θ', kind: 'angle' } as const

function circular(which: Circular, summary: string, examples: readonly Example[]): FunctionDefinition {
  return {
    name: which,
    group: 'angles',
    parameters: [theta],
    summary,
    examples,
    apply: (args) => circularValue(which, args[0]),
  }
}

function reciprocal(name: string, of: Circular, summary: string, examples: readonly Example[]): FunctionDefinition {
  return {
    name,
    group: 'angles',
    parameters: [theta],
    summary,
    examples,
    apply: (args) => {
      const [z] = args
      if (z?.kind === 'number' && of !== 'tan') return A.rounded((of === 'cos' ? C.sec : C.csc)(z), true, z)
      const value = circularValue(of, z)
      if (value.kind === 'failure') return value
      if (of === 'tan' && value.re === Infinity) return integer(0)
      return A.divide(integer(1), value)
    },
  }
}

/** The angles whose sine is a whole or half number, in turns. */
const ARC_TURNS: Readonly<Record<string, Rational>> = {
  '0': Q.ZERO,
  '1/2': { n: 1, d: 12 },
  '1': { n: 1, d: 4 },
  '-1/2': { n: -1, d: 12 },
  '-1': { n: -1, d: 4 },
}

function exactArc(value: NumberValue): Rational | null {
  return value.exact ? (ARC_TURNS[Q.toText(value.exact.re)] ?? null) : null
}

function arcsine(value: NumberValue): Value | Failure {
  if (value.im !== 0 || Math.abs(value.re) > 1) return A.rounded(C.arcsin(value), true, value)
  const turns = exactArc(value)
  return turns ? angleOfTurns(turns) : angleOf(Math.asin(value.re))
}

function arccosine(value: NumberValue): Value | Failure {
  if (value.im !== 0 || Math.abs(value.re) > 1) return A.rounded(C.arccos(value), true, value)
  const turns = exactArc(value)
  const rest = turns && Q.subtract({ n: 1, d: 4 }, turns)
  return rest ? angleOfTurns(rest) : angleOf(cosineAngle(value))
}

/** arccos x; of exact numbers near 1 by what is missing to 1: arccos x = 2·arcsin √((1 − x)/2). */
function cosineAngle({ re, exact }: NumberValue): number {
  const missing = exact && re > 0.5 ? Q.subtract(Q.ONE, exact.re) : null
  return missing ? 2 * Math.asin(Math.sqrt(Q.toNumber(missing) / 2)) : Math.acos(re)
}

function arctangent(value: NumberValue): Value | Failure {
  if (value.re === 0 && Math.abs(value.im) === 1)
    return failure('domain', { name: 'arctan', needs: 'a value other than j and −j, where it has poles' })
  if (value.im !== 0) return A.rounded(C.arctan(value), true, value)
  const eighth = value.exact && Math.abs(value.re) <= 1 && Q.isInteger(value.exact.re)
  return eighth ? angleOfTurns({ n: value.re, d: value.re === 0 ? 1 : 8 }) : angleOf(Math.atan(value.re))
}

function inverse(
  name: string,
  spelling: string,
  summary: string,
  examples: readonly Example[],
  apply: (value: NumberValue) => Value | Failure,
): FunctionDefinition {
  return {
    name,
    group: 'angles',
    parameters: [{ name: 'x', kind: 'number' }],
    spellings: [spelling],
    summary,
    examples,
    apply: (args) => apply(numberAt(args, 0)),
  }
}

function hyperbolic(
  name: string,
  of: (z: C.Complex) => C.Complex,
  summary: string,
  examples: readonly Example[],
  spellings: readonly string[] = [],
): FunctionDefinition {
  return {
    name,
    group: 'angles',
    parameters: [{ name: 'z', kind: 'number' }],
    spellings,
    summary,
    examples,
    apply: (args) => {
      const value = numberAt(args, 0)
      if (value.exact && isZero(value) && name !== 'cosh' && name !== 'arcosh') return integer(0)
      if (name === 'artanh' && Math.abs(value.re) === 1 && value.im === 0) return real(value.re * Infinity)
      const result = of(value)
      return A.rounded(result, value.complex || result.im !== 0, value)
    },
  }
}

export const angleFunctions: readonly FunctionDefinition[] = [
  circular('sin', 'Sine of an angle; a bare number is read in the unit of the conventions.', [
    { entry: 'sin(30°)', gives: '0.5' },
    { entry: 'sin(30)', gives: '0.5' },
  ]),
  circular('cos', 'Cosine of an angle.', [{ entry: 'cos(60°)', gives: '0.5' }]),
  circular('tan', 'Tangent of an angle.', [{ entry: 'tan(45°)', gives: '1' }]),
  reciprocal('cot', 'tan', 'Cotangent, 1/tan.', [{ entry: 'cot(90°)', gives: '0' }]),
  reciprocal('sec', 'cos', 'Secant, 1/cos.', [{ entry: 'sec(60°)', gives: '2' }]),
  reciprocal('csc', 'sin', 'Cosecant, 1/sin.', [{ entry: 'csc(30°)', gives: '2' }]),
  inverse('arcsin', 'asin', 'The angle whose sine is x.', [{ entry: 'arcsin(0.5)', gives: '30°' }], arcsine),
  inverse('arccos', 'acos', 'The angle whose cosine is x.', [{ entry: 'arccos(0.5)', gives: '60°' }], arccosine),
  inverse('arctan', 'atan', 'The angle whose tangent is x.', [{ entry: 'arctan(1)', gives: '45°' }], arctangent),
  {
    name: 'arctan2',
    group: 'angles',
    parameters: [
      { name: 'y', kind: 'real' },
      { name: 'x', kind: 'real' },
    ],
    spellings: ['atan2'],
    summary: 'The angle of the point (x, y), in the right quadrant.',
    examples: [{ entry: 'arctan2(1, -1)', gives: '135°' }],
    apply: (args) => {
      const y = numberAt(args, 0)
      const x = numberAt(args, 1)
      return argumentOf(fromComponents(x, y))
    },
  },
  hyperbolic('sinh', C.sinh, 'Hyperbolic sine.', [{ entry: 'sinh(1)', gives: '1.1752' }]),
  hyperbolic('cosh', C.cosh, 'Hyperbolic cosine.', [{ entry: 'cosh(1)', gives: '1.5431' }]),
  hyperbolic('tanh', C.tanh, 'Hyperbolic tangent.', [{ entry: 'tanh(1)', gives: '0.76159' }]),
  hyperbolic('arsinh', C.arsinh, 'Inverse hyperbolic sine.', [{ entry: 'arsinh(1)', gives: '0.88137' }], ['asinh']),
  hyperbolic('arcosh', C.arcosh, 'Inverse hyperbolic cosine.', [{ entry: 'arcosh(2)', gives: '1.317' }], ['acosh']),
  hyperbolic(
    'artanh',
    C.artanh,
    'Inverse hyperbolic tangent.',
    [{ entry: 'artanh(0.5)', gives: '0.54931' }],
    ['atanh'],
  ),
  {
    name: 'degrees',
    group: 'angles',
    parameters: [{ name: 'θ', kind: 'angle' }],
    summary: 'The plain number of degrees in an angle.',
    idleIn: 'deg',
    examples: [{ entry: 'degrees(pi/4 rad)', gives: '45' }],
    apply: (args) => plain(args[0], asDegreesValue),
  },
  {
    name: 'radians',
    group: 'angles',
    parameters: [{ name: 'θ', kind: 'angle' }],
    summary: 'The plain number of radians in an angle.',
    idleIn: 'rad',
    examples: [{ entry: 'radians(180°)', gives: '3.1416' }],
    apply: (args) => plain(args[0], asRadians),
  },
]

function asDegreesValue(angle: AngleValue): NumberValue {
  const exact = angle.turns && Q.multiply(angle.turns, { n: 360, d: 1 })
  return exact ? exactReal(exact) : real(asDegrees(angle))
}

function plain(value: Value | undefined, convert: (angle: AngleValue) => NumberValue): Value | Failure {
  return value?.kind === 'angle' ? convert(value) : failure('real-needed', { operator: 'an angle' })
}
