import { kindOf } from '../kinds/kinds'
import type { Node } from '../notation/tree'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { complexNumber, integer, real } from '../values/make'
import { angleSweep, numberSweep, pointAt, sameAxis, sweepOf } from '../values/sweeps'
import { negated } from '../values/sweepLoops'
import { join, leaf, negate, power, run } from '../values/sweepProgram'
import type { LoopSign, Program } from '../values/sweepProgram'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Axis, NumberValue, SweepValue, Value } from '../values/types'
import { throughQuantity } from '../quantities/through'
import { inTime } from './context'
import type { Context } from './context'

/**
 * The one place where a sweep is lifted over: whatever is computed from sweeps
 * is computed at every point. Numbers under the common operators and functions
 * go through loops over typed arrays; everything else is worked out point by
 * point.
 */

export function isSweep(value: Value): value is SweepValue {
  return value.kind === 'sweep'
}

/** The range that several values run along, or why they have none in common; one of them is a sweep. */
export function commonAxis(values: readonly Value[], node: Node, context: Context): Axis | Failure {
  let axis: Axis | null = null
  for (const value of values) {
    if (value.kind !== 'sweep') continue
    if (axis === null) axis = value.axis
    else if (axis.values.length !== value.count) {
      const [left, right] = [axis.values.length, value.count]
      return failure('sweeps-differ', { left, right, ...placesOf(axis, value.axis, context) })
    } else if (!sameAxis(axis, value.axis))
      context.hint('sweeps-unrelated', node, { count: value.count, ...placesOf(axis, value.axis, context) })
  }
  if (axis === null) throw new Error('none of these is a sweep')
  return axis
}

function placesOf(a: Axis, b: Axis, context: Context): { readonly first: string; readonly second: string } {
  const place = (axis: Axis): string => {
    const line = axis.name === null ? null : context.lineOf(axis.name)
    return axis.name === null ? 'a range' : line === null ? axis.name : `${axis.name} (line ${line})`
  }
  return { first: place(a), second: place(b) }
}

/** What is made of values that are known already: at once, or where one of them is a sweep at each of its points. */
export function lifted<const V extends readonly Value[]>(
  values: V,
  node: Node,
  context: Context,
  apply: (values: { readonly [K in keyof V]: Value }, context: Context) => Value | Failure,
): Value | Failure {
  if (values.some(isSweep)) return atEveryPoint(values, node, context, apply)
  // Values are all that a row of them holds.
  return apply(values as { readonly [K in keyof V]: Value }, context)
}

/** What is made of values that are known already, at every point of the sweeps among them. */
export function atEveryPoint<const V extends readonly Value[]>(
  values: V,
  node: Node,
  context: Context,
  apply: (values: { readonly [K in keyof V]: Value }, context: Context) => Value | Failure,
): Value | Failure {
  const axis = commonAxis(values, node, context)
  if ('kind' in axis) return axis
  const inner = context.pointByPoint()
  const count = axis.values.length
  const items: Value[] = new Array<Value>(count)
  for (let k = 0; k < count; k += 1) {
    if (!inTime(context.budget, k)) return failure('too-long')
    if (k % 1024 === 0) context.budget.report?.(k, count)
    const at = values.map((v) => (v.kind === 'sweep' ? pointAt(v, k) : v))
    // As many as there are values.
    const value = apply(at as { readonly [K in keyof V]: Value }, inner)
    if (value.kind === 'failure') return value
    if (!kindOf(value).atPoints) return failure('not-at-points', { kind: value.kind })
    items[k] = value
  }
  return sweepOf(axis, items)
}

/** A number or a sweep of numbers as a program; `null` for any other kind. */
function programOf(value: Value): Program | null {
  if (value.kind === 'sweep')
    return value.of !== 'number' ? null : (value.pending ?? leaf({ re: value.re, im: value.im }))
  if (value.kind !== 'number') return null
  return leaf({ re: Float64Array.of(value.re), im: value.im === 0 ? null : Float64Array.of(value.im) })
}

const isComplex = (value: Value): boolean => (value.kind === 'number' || value.kind === 'sweep') && value.complex

/** A sweep that is still to be worked out: only operators that make a longer program of it see it so. */
function pendingSweep(axis: Axis, pending: Program, complex: boolean, pi: SweepValue['pi'] = undefined): SweepValue {
  const sweep = { ...numberSweep(axis, NOTHING, null, complex), count: axis.values.length, pending }
  return pi ? { ...sweep, pi } : sweep
}

/** How often π is in a value, as a program; `null` where it is not known to be a multiple. */
function piProgram(value: Value): Program | null {
  if (value.kind === 'sweep') return value.pi ? leaf({ re: value.pi(), im: null }) : null
  if (value.kind !== 'number' || !value.pi || value.im !== 0) return null
  return leaf({ re: Float64Array.of(Q.toNumber(value.pi.re)), im: null })
}

const hasPi = (value: Value): boolean =>
  value.kind === 'sweep' ? value.pi !== undefined : value.kind === 'number' && value.pi !== null && value.im === 0

/** The multiples of π that an operator makes of others, worked out when they are asked for. */
function piOf(sign: LoopSign, left: Value, right: Value, count: number): SweepValue['pi'] {
  const [a, b] = [hasPi(left), hasPi(right)]
  const sums = sign === '+' || sign === '-'
  if (sums ? !(a && b) : sign === '*' ? a === b : !(sign === '/' && a && !b)) return undefined
  if (isComplex(left) || isComplex(right)) return undefined
  let known: Float64Array | null = null
  return () => {
    const [x, y] = [a ? piProgram(left) : programOf(left), b ? piProgram(right) : programOf(right)]
    known ??= x && y ? run(join(sign, x, y), count).re : new Float64Array(count).fill(NaN)
    return known
  }
}

const NOTHING = new Float64Array(0)

/** Works a pending sweep out; a point that left the range of doubles is an error. */
export function settle(value: Value | Failure): Value | Failure {
  if (value.kind === 'quantity') return value.value.kind === 'sweep' && value.value.pending ? throughQuantity(value, settle) : value // prettier-ignore
  if (value.kind !== 'sweep' || !value.pending) return value
  const { re, im, overflow } = run(value.pending, value.count)
  if (overflow) return failure('too-large')
  const failed = mended(value.pending, re, im)
  if (failed) return failed
  const settled = numberSweep(value.axis, re, value.complex ? (im ?? new Float64Array(re.length)) : im)
  return value.pi ? { ...settled, pi: value.pi } : settled
}

/**
 * Loops know nothing of division by zero: points that are not finite are worked out
 * again as points are, so that a sweep equals its points there, too.
 */
function mended(program: Program, re: Float64Array, im: Float64Array | null): Failure | null {
  for (let k = 0; k < re.length; k += 1) {
    if (((re[k] as number) + (im ? (im[k] as number) : 0)) * 0 === 0) continue
    const value = pointOf(program, k)
    if (value.kind === 'failure') return value
    re[k] = value.re
    if (im) im[k] = value.im
  }
  return null
}

/** A program at one point, by the operators on numbers. */
function pointOf(program: Program, k: number): NumberValue | Failure {
  switch (program.type) {
    case 'leaf': {
      const at = (part: Float64Array): number => part[part.length === 1 ? 0 : k] ?? NaN
      return program.im ? complexNumber({ re: at(program.re), im: at(program.im) }) : real(at(program.re))
    }
    case 'negate': {
      const inner = pointOf(program.operand, k)
      return inner.kind === 'failure' ? inner : A.negate(inner)
    }
    case 'power': {
      const base = pointOf(program.base, k)
      return base.kind === 'failure' ? base : A.power(base, integer(program.exponent))
    }
    case 'join': {
      const left = pointOf(program.left, k)
      if (left.kind === 'failure') return left
      const right = pointOf(program.right, k)
      return right.kind === 'failure' ? right : JOINED[program.sign](left, right)
    }
  }
}

const JOINED: Readonly<Record<LoopSign, (a: NumberValue, b: NumberValue) => NumberValue | Failure>> = {
  '+': A.add,
  '-': A.subtract,
  '*': A.multiply,
  '/': A.divide,
  '||': A.parallel,
}

/** An operator on numbers and sweeps of numbers; `null` where it has no loop. */
export function loopBinary(
  sign: LoopSign | '^' | 'mod',
  left: Value,
  right: Value,
  node: Node,
  context: Context,
): Value | Failure | null {
  if (sign === 'mod') return null
  const [a, b] = [programOf(left), programOf(right)]
  if (!a || !b) return null
  const whole = sign === '^' ? wholeExponent(right) : null
  if (sign === '^' && whole === null) return null
  const axis = commonAxis([left, right], node, context)
  if ('kind' in axis) return axis
  const complex = isComplex(left) || isComplex(right)
  if (sign === '^') return pendingSweep(axis, power(a, whole ?? 1), complex)
  return pendingSweep(axis, join(sign, a, b), complex, piOf(sign, left, right, axis.values.length))
}

/** Exponents up to this are worked out by squaring. */
const SQUARED_MOST = 64

function wholeExponent(value: Value): number | null {
  const exact = value.kind === 'number' && value.im === 0 ? value.exact : null
  if (!exact || !Q.isInteger(exact.re) || value.kind !== 'number') return null
  return Math.abs(value.re) <= SQUARED_MOST ? value.re : null
}

export function loopNegate(value: SweepValue): Value | null {
  if (value.of === 'angle') return angleSweep(value.axis, negated(value.re))
  const program = programOf(value)
  const { pi } = value
  return program && pendingSweep(value.axis, negate(program), value.complex, pi && (() => negated(pi())))
}
