import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { cosDegrees, cosTurns, sinDegrees, sinTurns, tanDegrees, tanTurns } from '../numbers/turns'
import type { TurnValue } from '../numbers/turns'
import * as A from '../values/arithmetic'
import { isZero, isBeyond, scaledOf, differenceFromOne, root, logarithm } from '../values/beyond'
import { asDegrees, asRadians } from '../values/convert'
import { angleOf, angleOfTurns, argumentOf, exactReal, fromComponents, integer, real } from '../values/make'
import type { AngleValue, NumberValue, Value } from '../values/types'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { ratio } from './measures'
import { define } from '../signatures/definition'
import type { Example, FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'

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

const theta = take.angle('θ')

function circular(which: Circular, summary: string, examples: readonly Example[]): FunctionDefinition {
  return define({
    name: which,
    group: 'angles',
    inverse: `arc${which}`,
    parameters: [theta],
    summary,
    examples,
    apply: ([z]) => circularValue(which, z),
  })
}

function reciprocal(name: string, of: Circular, summary: string, examples: readonly Example[]): FunctionDefinition {
  return define({
    name,
    group: 'angles',
    parameters: [theta],
    summary,
    examples,
    apply: ([z]) => {
      if (z.kind === 'number' && of !== 'tan') return A.rounded((of === 'cos' ? C.sec : C.csc)(z), true, z)
      const value = circularValue(of, z)
      if (value.kind === 'failure') return value
      if (of === 'tan' && value.re === Infinity) return integer(0)
      return A.divide(integer(1), value)
    },
  })
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
  return define({
    name,
    group: 'angles',
    parameters: [take.number('x')],
    spellings: [spelling],
    summary,
    examples,
    givesAngle: true,
    apply: ([x]) => apply(x),
  })
}

/** What is particular about a hyperbolic function. */
interface Particulars {
  readonly spellings?: readonly string[]
  readonly inverse?: string
  /** Of 0 it is 0, exactly. */
  readonly odd?: true
  /** Its value where it has one that is not finite. */
  readonly atPole?: (value: NumberValue) => Value | null
}

function hyperbolic(
  name: string,
  of: (z: NumberValue) => C.Complex,
  summary: string,
  examples: readonly Example[],
  { spellings = [], inverse: inverseName, odd, atPole }: Particulars = {},
): FunctionDefinition {
  return define({
    name,
    group: 'angles',
    ...(inverseName ? { inverse: inverseName } : {}),
    parameters: [take.number('z')],
    spellings,
    summary,
    examples,
    apply: ([value]) => {
      if (odd && value.exact && isZero(value)) return integer(0)
      const result = of(value)
      return atPole?.(value) ?? A.rounded(result, value.complex || result.im !== 0, value)
    },
  })
}

/** True of 1 and −1 themselves, not of exact numbers whose doubles they are. */
function isOne({ re, im, exact }: NumberValue): boolean {
  return Math.abs(re) === 1 && im === 0 && (exact === null || Q.isInteger(exact.re))
}

/** arcosh(1 + d) is 2·arsinh √(d/2), and 2j·arcsin √(−d/2) below 1: of exact numbers near 1, whose doubles have lost d. */
function areaCosine(value: NumberValue): C.Complex {
  const difference = differenceFromOne(value)
  if (difference === null) return C.arcosh(value)
  const scaled = isBeyond(difference) ? scaledOf(difference) : null
  if (scaled) return root({ ...scaled, exponent: scaled.exponent + 1 })
  const half = Math.sqrt(Math.abs(difference.re) / 2)
  return difference.re >= 0 ? { re: 2 * Math.asinh(half), im: 0 } : { re: 0, im: 2 * Math.asin(half) }
}

/** The real part of artanh(1 + d) is ½·ln((2 + d)/|d|), likewise; artanh is odd. */
function areaTangent(value: NumberValue): C.Complex {
  const negative = value.re < 0
  const difference = differenceFromOne(negative ? A.negate(value) : value)
  const { re, im } = C.artanh(value)
  if (difference === null || isZero(difference)) return { re, im }
  const scaled = isBeyond(difference) ? scaledOf(difference) : null
  const below = scaled ? logarithm(scaled).re : Math.log(Math.abs(difference.re))
  const size = (Math.log(2 + difference.re) - below) / 2
  return { re: negative ? -size : size, im }
}

export const angleFunctions: readonly FunctionDefinition[] = [
  circular('sin', 'Sine of an angle; a bare number is read in the unit of the conventions.', [
    { entry: 'sin(30°)', gives: '0.5' },
    { entry: 'sin(30)', gives: '0.5' },
    { entry: 'sin((10^22) rad)', gives: '-0.8522' },
  ]),
  circular('cos', 'Cosine of an angle.', [
    { entry: 'cos(60°)', gives: '0.5' },
    { entry: 'cos(120°)', gives: '-0.5' },
    { entry: 'cos((10^22) rad)', gives: '0.52321' },
  ]),
  circular('tan', 'Tangent of an angle.', [
    { entry: 'tan(45°)', gives: '1' },
    { entry: 'tan(pi/4 rad)', gives: '1' },
    { entry: 'tan((10^22) rad)', gives: '-1.6288' },
  ]),
  reciprocal('cot', 'tan', 'Cotangent, 1/tan.', [
    { entry: 'cot(90°)', gives: '0' },
    { entry: 'cot(45°)', gives: '1' },
    { entry: 'cot(1e-20 rad)', gives: '1e20' },
  ]),
  reciprocal('sec', 'cos', 'Secant, 1/cos.', [
    { entry: 'sec(60°)', gives: '2' },
    { entry: 'sec(120°)', gives: '-2' },
    { entry: 'sec(60°) == 2', gives: 'true' },
  ]),
  reciprocal('csc', 'sin', 'Cosecant, 1/sin.', [
    { entry: 'csc(30°)', gives: '2' },
    { entry: 'csc(210°)', gives: '-2' },
    { entry: 'csc(30°) == 2', gives: 'true' },
  ]),
  inverse(
    'arcsin',
    'asin',
    'The angle whose sine is x.',
    [
      { entry: 'arcsin(0.5)', gives: '30°' },
      { entry: 'arcsin(-1)', gives: '-90°' },
      { entry: 'arcsin(2)', gives: '1.5708 + 1.317j' },
    ],
    arcsine,
  ),
  inverse(
    'arccos',
    'acos',
    'The angle whose cosine is x.',
    [
      { entry: 'arccos(0.5)', gives: '60°' },
      { entry: 'arccos(-1)', gives: '180°' },
      { entry: 'arccos(1 - 1e-20)', gives: '8.1028e-9°' },
    ],
    arccosine,
  ),
  inverse(
    'arctan',
    'atan',
    'The angle whose tangent is x.',
    [
      { entry: 'arctan(1)', gives: '45°' },
      { entry: 'arctan(sqrt(3))', gives: '60°' },
      { entry: 'arctan(1e300)', gives: '90°' },
    ],
    arctangent,
  ),
  define({
    name: 'arctan2',
    measures: ratio,
    group: 'angles',
    parameters: [take.real('y'), take.real('x')],
    spellings: ['atan2'],
    summary: 'The angle of the point (x, y), in the right quadrant.',
    examples: [
      { entry: 'arctan2(1, -1)', gives: '135°' },
      { entry: 'arctan2(0, -1)', gives: '180°' },
      { entry: 'arctan2(1e-300, 1e-300)', gives: '45°' },
    ],
    givesAngle: true,
    apply: ([y, x]) => argumentOf(fromComponents(x, y)),
  }),
  hyperbolic(
    'sinh',
    C.sinh,
    'Hyperbolic sine.',
    [
      { entry: 'sinh(1)', gives: '1.1752' },
      { entry: 'sinh(2j)', gives: '0 + 0.9093j' },
      { entry: 'sinh(1e-20)', gives: '1e-20' },
    ],
    { inverse: 'arsinh', odd: true },
  ),
  hyperbolic(
    'cosh',
    C.cosh,
    'Hyperbolic cosine.',
    [
      { entry: 'cosh(1)', gives: '1.5431' },
      { entry: 'cosh(1j)', gives: '0.5403 + 0j' },
      { entry: 'cosh(710)', gives: '1.117e308' },
    ],
    { inverse: 'arcosh' },
  ),
  hyperbolic(
    'tanh',
    C.tanh,
    'Hyperbolic tangent.',
    [
      { entry: 'tanh(1)', gives: '0.76159' },
      { entry: 'tanh(1000)', gives: '1' },
      { entry: 'tanh(1e-20)', gives: '1e-20' },
    ],
    { inverse: 'artanh', odd: true },
  ),
  hyperbolic(
    'arsinh',
    C.arsinh,
    'Inverse hyperbolic sine.',
    [
      { entry: 'arsinh(1)', gives: '0.88137' },
      { entry: 'arsinh(-2)', gives: '-1.4436' },
      { entry: 'arsinh(1e-20)', gives: '1e-20' },
    ],
    { spellings: ['asinh'], odd: true },
  ),
  hyperbolic(
    'arcosh',
    areaCosine,
    'Inverse hyperbolic cosine.',
    [
      { entry: 'arcosh(2)', gives: '1.317' },
      { entry: 'arcosh(1)', gives: '0' },
      { entry: 'arcosh(1 + 1e-20)', gives: '1.4142e-10' },
    ],
    { spellings: ['acosh'] },
  ),
  hyperbolic(
    'artanh',
    areaTangent,
    'Inverse hyperbolic tangent.',
    [
      { entry: 'artanh(0.5)', gives: '0.54931' },
      { entry: 'artanh(1 - 1e-20)', gives: '23.372' },
      { entry: 'artanh(1e-20)', gives: '1e-20' },
    ],
    { spellings: ['atanh'], odd: true, atPole: (x) => (isOne(x) ? real(x.re * Infinity) : null) },
  ),
  define({
    name: 'degrees',
    group: 'angles',
    parameters: [take.angle('θ')],
    summary: 'The plain number of degrees in an angle.',
    idleIn: 'deg',
    examples: [
      { entry: 'degrees(pi/4 rad)', gives: '45' },
      { entry: 'degrees(1 rad)', gives: '57.296' },
      { entry: 'degrees(36°52\'12")', gives: '36.87' },
    ],
    apply: ([angle]) => plain(angle, asDegreesValue),
  }),
  define({
    name: 'radians',
    group: 'angles',
    parameters: [take.angle('θ')],
    summary: 'The plain number of radians in an angle.',
    idleIn: 'rad',
    examples: [
      { entry: 'radians(180°)', gives: '3.1416' },
      { entry: 'radians(1 rad)', gives: '1' },
      { entry: 'radians(180°) == pi', gives: 'true' },
    ],
    apply: ([angle]) => plain(angle, asRadians),
  }),
]

function asDegreesValue(angle: AngleValue): NumberValue {
  const exact = angle.turns && Q.multiply(angle.turns, { n: 360, d: 1 })
  return exact ? exactReal(exact) : real(asDegrees(angle))
}

function plain(value: AngleValue | NumberValue, convert: (angle: AngleValue) => NumberValue): Value | Failure {
  return value.kind === 'angle' ? convert(value) : failure('real-needed', { operator: 'an angle' })
}
