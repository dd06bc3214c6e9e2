import type { Range } from '../notation/tree'
import * as Q from '../numbers/rational'
import { isZero } from '../values/beyond'
import { exactReal, integer } from '../values/make'
import { degrees } from '../values/convert'
import { angleSweep, numberSweep, POINTS_MOST } from '../values/sweeps'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import type { AngleValue, Axis, NumberValue, Value } from '../values/types'
import type { Context, Evaluate } from '../operators/context'
import { finiteReal } from './finiteReal'
import { quantity } from '../values/quantity'
import { rangeParts } from './rangeUnits'
import { realNumber } from '../kinds/kinds'

type End = NumberValue | AngleValue

/** A share of a step within which a point counts as the end of its range. */
const SLACK = 1e-9

/** `0 to 10`, `0 to 4pi step pi/10`, `-1 to 1 count 201`, `10 to 100k per decade 50`: a sweep. */
export function evaluateRange(node: Range, context: Context, evaluate: Evaluate): Value | Failure {
  const [from, to] = [evaluate(node.first, context), evaluate(node.last, context)]
  if (from.kind === 'failure') return from
  if (to.kind === 'failure') return to
  const amount = node.amount ? evaluate(node.amount, context) : null
  if (amount?.kind === 'failure') return amount
  if (![from, to, amount].some((value) => value?.kind === 'quantity')) return plainRange(node, from, to, amount)
  const parts = rangeParts(node, from, to, amount)
  if ('code' in parts) return parts
  const sweep = plainRange(node, parts.first, parts.last, parts.amount)
  if (sweep.kind !== 'sweep') return sweep
  const { unit, measure } = parts
  return quantity({ ...sweep, axis: { ...sweep.axis, unit } }, measure, { unit, asWritten: true })
}

/** A range of numbers or angles. */
function plainRange(node: Range, from: Value, to: Value, amount: Value | null): Value | Failure {
  const first = end(from, node.first)
  if (first.kind === 'failure') return first
  const last = end(to, node.last)
  if (last.kind === 'failure') return last
  if (first.kind !== last.kind) return failure('range-kinds')
  const at = (failed: Failure): Failure => (node.amount ? failureAt(node.amount, failed) : failed)
  const [a, b] = [sizeOf(first), sizeOf(last)]
  const points =
    node.by === 'count'
      ? byCount(first, last, amount)
      : node.by === 'decade'
        ? byDecade(a, b, amount)
        : byStep(first, last, amount)
  if ('kind' in points) return points.code === 'decade-ends' ? points : at(points)
  const axis: Axis = { values: points, name: null, angle: first.kind === 'angle', decades: node.by === 'decade' }
  const sweep = first.kind === 'angle' ? angleSweep(axis, points) : numberSweep(axis, points, null)
  const pi = node.by === 'decade' ? null : multiplesOfPi(first, last, amount, node.by)
  return pi ? { ...sweep, pi: () => pi } : sweep
}

/** Of a range between multiples of π, or angles of known turns, how often π is in each point; `null` for others. */
function multiplesOfPi(first: End, last: End, amount: Value | null, by: Range['by']): Float64Array | null {
  const factor = (x: Value | null): NumberValue | null => {
    if (x?.kind === 'angle') return x.turns && exactReal(Q.multiply(x.turns, { n: 2, d: 1 }) ?? x.turns)
    if (x?.kind !== 'number' || x.im !== 0) return null
    return x.pi ? exactReal(x.pi.re) : isZero(x) ? x : null
  }
  const [a, b] = [factor(first), factor(last)]
  if (!a || !b || (isZero(a) && isZero(b))) return null
  const usual = first.kind === 'angle' ? degrees(integer(1)) : null
  const step = by === 'count' ? amount : factor(amount ?? usual)
  const points = by === 'count' ? byCount(a, b, step) : step ? byStep(a, b, step) : null
  return points instanceof Float64Array ? points : null
}

function end(value: Value, node: Range['first']): End | Failure {
  return value.kind === 'angle' ? value : finiteReal(value, node, 'range-end')
}

const sizeOf = (end: End): number => (end.kind === 'angle' ? end.radians : end.re)

/** How many points a range would have, or why it has none. */
function counted(count: number): number | Failure {
  if (count > POINTS_MOST)
    return failure('too-many-points', { count: count > 1e15 ? 'more than 10^15' : count, limit: POINTS_MOST })
  return count
}

function byStep(first: End, last: End, amount: Value | null): Float64Array | Failure {
  const [a, b] = [sizeOf(first), sizeOf(last)]
  const usual = first.kind === 'angle' ? degrees(integer(1)) : integer(1)
  const given = amount ?? usual
  if ((given.kind !== 'number' && given.kind !== 'angle') || given.kind !== first.kind) return failure('step-kind')
  if (given.kind === 'number' && given.im !== 0) return failure('step-real')
  const size = sizeOf(given)
  // A range that falls needs no sign where no step is given.
  const step = amount === null && b < a ? -size : size
  if (!Number.isFinite(step)) return failure('step-real')
  if (step === 0) return failure('step-zero')
  if (step > 0 !== b > a && a !== b) return failure('step-direction', { step: Number(step.toPrecision(6)) })
  const count = counted(Math.floor((b - a) / step + SLACK) + 1)
  if (typeof count !== 'number') return count
  const exact = exactSteps(first, given, step < 0 && size > 0)
  const out = new Float64Array(count)
  for (let k = 0; k < count; k += 1) out[k] = exact ? (exact.start + k * exact.step) / exact.bottom : a + k * step
  const end = out[count - 1] as number
  if (count > 1 && Math.abs(end - b) <= SLACK * Math.abs(step)) out[count - 1] = b
  return out
}

/** start and step over one whole denominator, so that each point is rounded once; `null` where one is not exact. */
function exactSteps(first: End, step: End, falling: boolean): { start: number; step: number; bottom: number } | null {
  if (first.kind !== 'number' || step.kind !== 'number' || !first.exact || !step.exact) return null
  const [p, q] = [first.exact.re, step.exact.re]
  const parts = [p.n, p.d, q.n, q.d]
  if (!parts.every((x) => typeof x === 'number')) return null
  const [pn, pd, qn, qd] = parts as [number, number, number, number]
  const found = { start: pn * qd, step: (falling ? -1 : 1) * qn * pd, bottom: pd * qd }
  const safe = (x: number): boolean => Math.abs(x) < 2 ** 40
  return safe(found.start) && safe(found.step) && safe(found.bottom) && Number.isSafeInteger(found.step * POINTS_MOST)
    ? found
    : null
}

function byCount(first: End, last: End, amount: Value | null): Float64Array | Failure {
  const wanted = (amount && realNumber(amount)?.re) ?? NaN
  if (!Number.isInteger(wanted) || wanted < 2) return failure('count-whole')
  const count = counted(wanted)
  if (typeof count !== 'number') return count
  const [a, b] = [sizeOf(first), sizeOf(last)]
  const out = new Float64Array(count)
  const exact = commonEnds(first, last)
  for (let k = 0; k < count; k += 1)
    out[k] = exact
      ? (exact.a * (count - 1 - k) + exact.b * k) / (exact.bottom * (count - 1))
      : a + (b - a) * (k / (count - 1))
  out[count - 1] = b
  return out
}

/** Both ends over one whole denominator. */
function commonEnds(first: End, last: End): { a: number; b: number; bottom: number } | null {
  if (first.kind !== 'number' || last.kind !== 'number' || !first.exact || !last.exact) return null
  const [p, q] = [first.exact.re, last.exact.re]
  if (typeof p.n !== 'number' || typeof p.d !== 'number' || typeof q.n !== 'number' || typeof q.d !== 'number')
    return null
  const found = { a: p.n * q.d, b: q.n * p.d, bottom: p.d * q.d }
  return [found.a, found.b, found.bottom].every((x) => Math.abs(x) < 2 ** 28) ? found : null
}

/** a·10^p; where the power alone would leave the range of doubles, in two steps. */
function multiplied(a: number, p: number): number {
  if (Math.abs(p) < 300) return a * 10 ** p
  const half = Math.trunc(p / 2)
  return a * 10 ** half * 10 ** (p - half)
}

function divided(a: number, p: number): number {
  return p < 300 ? a / 10 ** p : a / 1e300 / 10 ** (p - 300)
}

function byDecade(a: number, b: number, amount: Value | null): Float64Array | Failure {
  const per = (amount && realNumber(amount)?.re) ?? NaN
  if (!(per > 0) || !Number.isFinite(per)) return failure('decade-count')
  if (!(a > 0) || !(b > 0)) return failure('decade-ends')
  const ratio = b / a
  const decades = ratio > 0 && Number.isFinite(ratio) ? Math.log10(ratio) : Math.log10(b) - Math.log10(a)
  const count = counted(Math.floor(Math.abs(decades) * per + SLACK) + 1)
  if (typeof count !== 'number') return count
  const direction = decades < 0 ? -1 : 1
  const out = new Float64Array(count)
  const whole = Number.isInteger(per)
  for (let k = 0; k < count; k += 1) {
    // Whole decades down are hit exactly by a quotient, not by a negative power.
    const down = direction < 0 && whole && k % per === 0
    out[k] = down ? divided(a, k / per) : multiplied(a, (direction * k) / per)
  }
  const end = out[count - 1] as number
  if (Math.abs(end / b - 1) < SLACK) out[count - 1] = b
  return out
}
