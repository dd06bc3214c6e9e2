import { gcdBig, lcmBig } from '../numbers/divisors'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { binary, scaleAngle } from '../operators/rules'
import type { Context } from '../operators/context'
import * as A from '../values/arithmetic'
import { isZero } from '../values/beyond'
import { angleOf, angleOfTurns, exactReal, integer, real } from '../values/make'
import { asDegrees, asRadians, degrees, radians } from '../values/convert'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { AngleValue, NumberValue, Value } from '../values/types'
import { work } from '../numbers/work'
import { free, keep, ratio, unitBound } from './measures'
import { productOfAll, roundedTo } from './otherMeasures'
import { define } from '../signatures/definition'
import type { Example, FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'
import { total, extremePoint } from './loops'

type Rounding = 'floor' | 'ceil' | 'trunc' | 'round'

/** Halves away from zero. */
function roundRational(q: Rational, how: Rounding): Rational {
  const below = Q.floor(q)
  const above = Q.negate(Q.floor(Q.negate(q)))
  if (how === 'floor') return below
  if (how === 'ceil') return above
  if (how === 'trunc') return Q.sign(q) < 0 ? above : below
  const half = Q.add(Q.sign(q) < 0 ? Q.negate(q) : q, { n: 1, d: 2 })
  const up = half ? Q.floor(half) : below
  return Q.sign(q) < 0 ? Q.negate(up) : up
}

function roundDouble(x: number, how: Rounding): number {
  if (how !== 'round') return Math[how](x)
  return Math.sign(x) * Math.round(Math.abs(x))
}

function roundNumber(x: NumberValue, how: Rounding, places = 0): NumberValue {
  if (x.exact === null && !Number.isFinite(x.re)) return x
  const unit = Q.power({ n: 10, d: 1 }, places)
  // So large, a rounded number has no fraction left, and what it stands for is not known to the unit.
  if (x.exact === null && unit && Math.abs(x.re) * Q.toNumber(unit) >= 2 ** 53) return x
  // A double is a rational too: rounding its exact decimal value is free of surprises.
  const q = x.exact?.re ?? Q.fromDecimal(x.re.toPrecision(17))
  const scaled = q && unit && Q.multiply(q, unit)
  const result = scaled && unit && Q.divide(roundRational(scaled, how), unit)
  return result ? exactReal(result) : real(roundDouble(x.re, how))
}

/** An angle is rounded in the unit of the conventions. */
function roundQuantity(value: NumberValue | AngleValue, how: Rounding, places: number, context: Context): Value {
  if (value.kind === 'angle') {
    if (context.angleUnit === 'deg') {
      const exact = value.turns && Q.multiply(value.turns, { n: 360, d: 1 })
      return degrees(roundNumber(exact ? exactReal(exact) : real(asDegrees(value)), how, places))
    }
    return radians(roundNumber(asRadians(value), how, places))
  }
  return roundNumber(value, how, places)
}

/** A function that rounds; its own name is what is told where it cannot. */
const rounding = (name: Rounding, summary: string, examples: readonly Example[]): FunctionDefinition =>
  define({
    name,
    group: 'numbers',
    measures: unitBound,
    parameters: [take.realOrAngle('x')],
    summary,
    examples,
    apply: ([x], context) => roundQuantity(x, name, 0, context),
  })

const big = ({ re, exact }: NumberValue): bigint => BigInt(exact?.re.n ?? Math.round(re))

/** Whole numbers above this are not kept exactly. */
const LARGEST = 1n << BigInt(Q.MAX_BITS)

function fromBigInt(n: bigint): Value | Failure {
  const q = Q.fromBig(n, 1n)
  return q ? exactReal(q) : failure('too-large')
}

function fold(sign: '+' | '*', args: readonly Value[]): Value | Failure {
  let total: Value | Failure = args[0] ?? integer(0)
  for (const value of args.slice(1)) {
    if (total.kind === 'failure') return total
    total = binary(sign, total, value, { angleUnit: 'rad', exponent: false, bareSide: () => undefined })
  }
  return total
}

/** The smallest or largest; what is undefined makes the whole undefined, wherever it stands. */
function extreme(name: 'min' | 'max', args: readonly Value[]): Value | Failure {
  let best = args[0]
  for (const value of args.slice(1)) {
    if (best === undefined) break
    // A 0 is no angle and no number beside angles: it is either.
    if (best.kind !== value.kind && (isZeroBeside(best, value) || isZeroBeside(value, best))) {
      best = extremeOf(name, asAngle(best), asAngle(value))
      continue
    }
    if (best.kind !== value.kind) return failure('not-comparable', { left: best.kind, right: value.kind })
    if (isUndefined(best)) return best
    const order = isUndefined(value) ? null : compared(value, best)
    if (order === null || (name === 'min' ? order < 0 : order > 0)) best = value
  }
  return best ?? failure('domain', { name, needs: 'at least one value' })
}

const isZeroBeside = (value: Value, other: Value): boolean =>
  value.kind === 'number' && isZero(value) && other.kind === 'angle'
const asAngle = (value: Value): AngleValue => (value.kind === 'angle' ? value : angleOfTurns(Q.ZERO))

function extremeOf(name: 'min' | 'max', a: AngleValue, b: AngleValue): AngleValue {
  return (name === 'min' ? b.radians < a.radians : b.radians > a.radians) ? b : a
}

function size(value: Value): number {
  return value.kind === 'angle' ? value.radians : value.kind === 'number' ? value.re : NaN
}

function isUndefined(value: Value): boolean {
  return value.kind === 'angle' ? Number.isNaN(value.radians) : value.kind === 'number' && Number.isNaN(value.re)
}

/** Exact numbers are compared exactly, however near they are. */
function compared(a: Value, b: Value): number | null {
  if (a.kind === 'angle' && b.kind === 'angle')
    return a.turns && b.turns ? Q.compare(a.turns, b.turns) : Math.sign(a.radians - b.radians)
  return a.kind === 'number' && b.kind === 'number' ? A.order(a, b) : null
}

const realOrAngle = take.realOrAngle('a')
const scalar = take.scalar('a')

export const numberFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'round',
    group: 'numbers',
    measures: unitBound,
    ofQuantities: roundedTo,
    parameters: [take.realOrAngle('x'), take.optional(take.whole('n'))],
    summary: 'x to the nearest whole number, or to n places; halves go away from zero.',
    examples: [
      { entry: 'round(2.5)', gives: '3' },
      { entry: 'round(-2.5)', gives: '-3' },
      { entry: 'round(3.14159, 2)', gives: '3.14' },
    ],
    apply: ([x, places], context) => {
      const shift = places?.re ?? 0
      if (Math.abs(shift) > 300) return failure('domain', { name: 'round', needs: 'at most 300 places' })
      return roundQuantity(x, 'round', shift, context)
    },
  }),
  rounding('floor', 'Largest whole number not above x.', [
    { entry: 'floor(-2.5)', gives: '-3' },
    { entry: 'floor(2.7)', gives: '2' },
    { entry: 'floor(0.7/0.1)', gives: '7' },
  ]),
  rounding('ceil', 'Smallest whole number not below x.', [
    { entry: 'ceil(-2.5)', gives: '-2' },
    { entry: 'ceil(2.1)', gives: '3' },
    { entry: 'ceil((0.1 + 0.2)*10)', gives: '3' },
  ]),
  rounding('trunc', 'x without its fraction, towards zero.', [
    { entry: 'trunc(-2.5)', gives: '-2' },
    { entry: 'trunc(2.7)', gives: '2' },
    { entry: 'trunc(4.35*100)', gives: '435' },
  ]),
  define({
    name: 'sign',
    measures: free,
    group: 'numbers',
    parameters: [take.realOrAngle('x')],
    summary: '−1, 0 or 1 as x is negative, zero or positive.',
    examples: [
      { entry: 'sign(-7)', gives: '-1' },
      { entry: 'sign(0)', gives: '0' },
      { entry: 'sign(10^-400)', gives: '1' },
    ],
    apply: ([value]) => {
      const exact = value.kind === 'angle' ? value.turns : value.exact?.re
      return integer(exact ? Q.sign(exact) : Math.sign(size(value)))
    },
  }),
  define({
    name: 'quotient',
    measures: ratio,
    group: 'numbers',
    parameters: [take.real('a'), take.real('n')],
    summary: 'Whole part of a/n, rounded down; a is n·quotient + (a mod n).',
    examples: [
      { entry: 'quotient(-7, 3)', gives: '-3' },
      { entry: 'quotient(7, 3)', gives: '2' },
      { entry: 'quotient(1, 0.1)', gives: '10' },
    ],
    apply: ([a, n]) => {
      const ratio = A.divide(a, n)
      return ratio.kind === 'number' ? roundNumber(ratio, 'floor') : ratio
    },
  }),
  define({
    name: 'gcd',
    group: 'numbers',
    parameters: [take.whole('a'), take.whole('b')],
    repeats: true,
    summary: 'Greatest common divisor of whole numbers.',
    examples: [
      { entry: 'gcd(84, 36)', gives: '12' },
      { entry: 'gcd(0, 5)', gives: '5' },
      { entry: 'gcd(10^20, 6)', gives: '2' },
    ],
    apply: (args) => fromBigInt(args.reduce((g, n) => gcdBig(g, big(n)), 0n)),
  }),
  define({
    name: 'lcm',
    group: 'numbers',
    parameters: [take.whole('a'), take.whole('b')],
    repeats: true,
    summary: 'Least common multiple of whole numbers.',
    examples: [
      { entry: 'lcm(4, 6)', gives: '12' },
      { entry: 'lcm(6, 10)', gives: '30' },
      { entry: 'lcm(10^10, 15)', gives: '30000000000' },
    ],
    apply: (args) => {
      let result = 1n
      for (const value of args) {
        const n = big(value)
        if (n === 0n) return integer(0)
        result = lcmBig(result, n)
      }
      return fromBigInt(result < 0n ? -result : result)
    },
  }),
  define({
    name: 'binom',
    group: 'numbers',
    parameters: [take.whole('n'), take.whole('k')],
    summary: 'Number of ways to choose k of n.',
    examples: [
      { entry: 'binom(5, 2)', gives: '10' },
      { entry: 'binom(7, 0)', gives: '1' },
      { entry: 'binom(100, 50)', gives: '1.0089e29' },
    ],
    apply: ([all, some]) => {
      const [n, k] = [all.re, some.re]
      if (n < 0) return failure('domain', { name: 'binom', needs: 'n of 0 or more' })
      if (k < 0 || k > n) return integer(0)
      const [whole, chosen] = [big(all), big(some)]
      const least = chosen < whole - chosen ? chosen : whole - chosen
      let result = 1n
      for (let i = 1n; i <= least; i += 1n) {
        work(400)
        result = (result * (whole - i + 1n)) / i
        if (result > LARGEST) return failure('too-large')
      }
      return fromBigInt(result)
    },
  }),
  define({
    name: 'factorial',
    group: 'numbers',
    parameters: [take.whole('n')],
    summary: 'n!, the product of the whole numbers from 1 to n.',
    examples: [
      { entry: '5!', gives: '120' },
      { entry: '0!', gives: '1' },
      { entry: '200!/198!', gives: '39800' },
    ],
    apply: ([{ re: n }]) => {
      if (n < 0) return failure('domain', { name: 'factorial', needs: 'a whole number of 0 or more' })
      let result = 1n
      for (let k = 2; k <= n; k += 1) {
        result *= BigInt(k)
        if (result > LARGEST) return failure('too-large')
      }
      return fromBigInt(result)
    },
  }),
  define({
    name: 'min',
    measures: keep,
    group: 'numbers',
    overPoints: (sweep) => extremePoint(sweep, -1),
    parameters: [realOrAngle],
    repeats: true,
    summary: 'Smallest of its arguments.',
    examples: [
      { entry: 'min(3, -1, 2)', gives: '-1' },
      { entry: 'min([4, 2, 8])', gives: '2' },
      { entry: 'min(10^400, 10^401)/10^400', gives: '1' },
    ],
    apply: (args) => extreme('min', args),
  }),
  define({
    name: 'max',
    measures: keep,
    group: 'numbers',
    overPoints: (sweep) => extremePoint(sweep, 1),
    parameters: [realOrAngle],
    repeats: true,
    summary: 'Largest of its arguments.',
    examples: [
      { entry: 'max(3, -1, 2)', gives: '3' },
      { entry: 'max([4, 2, 8])', gives: '8' },
      { entry: 'max(10^-400, 0) > 0', gives: 'true' },
    ],
    apply: (args) => extreme('max', args),
  }),
  define({
    name: 'sum',
    measures: keep,
    group: 'numbers',
    inARow: '+',
    overPoints: (sweep) => total(sweep),
    typesetting: { as: 'large sign', sign: '\\sum' },
    parameters: [scalar],
    repeats: true,
    ofNothing: integer(0),
    summary: 'Sum of its arguments, of the entries of a vector, or of f(k) for k = 1 to n.',
    examples: [
      { entry: 'sum(1/k for k = 1 to 4)', gives: '2.0833' },
      { entry: 'sum(1, 2, 3j)', gives: '3 + 3j' },
      { entry: 'sum(0.1 for k = 1 to 10) == 1', gives: 'true' },
    ],
    apply: (args) => fold('+', args),
  }),
  define({
    name: 'product',
    measures: productOfAll,
    group: 'numbers',
    inARow: '*',
    typesetting: { as: 'large sign', sign: '\\prod' },
    parameters: [scalar],
    repeats: true,
    ofNothing: integer(1),
    summary: 'Product of its arguments, of the entries of a vector, or of f(k) for k = 1 to n.',
    examples: [
      { entry: 'product(k for k = 1 to 5)', gives: '120' },
      { entry: 'product(2, 3, 4)', gives: '24' },
      { entry: 'product(k/(k + 1) for k = 1 to 9)', gives: '0.1' },
    ],
    apply: (args) => fold('*', args),
  }),
  define({
    name: 'mean',
    measures: keep,
    group: 'numbers',
    overPoints: (sweep) => total(sweep, sweep.count),
    parameters: [scalar],
    repeats: true,
    summary: 'Arithmetic mean of its arguments.',
    examples: [
      { entry: 'mean(1, 2, 6)', gives: '3' },
      { entry: 'mean(10°, 350°)', gives: '180°' },
      { entry: 'mean(1e308, 1e308)', gives: '1e308' },
    ],
    apply: (args) => {
      const total = fold('+', args)
      if (total.kind === 'angle') return scaleAngle(total, exactReal(Q.rational(1, args.length) ?? Q.ONE))
      return total.kind === 'number' ? A.divide(total, integer(args.length)) : total
    },
  }),
]

/** |θ| of an angle. */
export function absoluteAngle(value: AngleValue): AngleValue {
  return value.radians < 0 ? (value.turns ? scaleAngle(value, integer(-1)) : angleOf(-value.radians)) : value
}
