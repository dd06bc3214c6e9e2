import { callFunction } from '../functions/call'
import { magnitudeOfVector } from '../functions/complex'
import { findFunction } from '../functions/registry'
import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import type { Mark, Node, Polar, United } from '../notation/tree'
import * as A from '../values/arithmetic'
import { inAngleUnit } from '../values/convert'
import { hintCondition } from '../operators/conditioning'
import { euclideanNorm } from '../values/vectors'
import { angleOf, angleOfTurns, integer, text } from '../values/make'
import type { NumberValue, QuantityValue, Value } from '../values/types'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import { algebraDeterminant } from '../algebra/polyMatrix'
import { entrywise, isArray } from '../operators/arrays'
import { apply } from './calls'
import { comparison, logic } from './conditions'
import { spend } from '../operators/context'
import type { Context, Watch } from '../operators/context'
import { atEveryPoint, loopBinary, loopNegate, settle, lifted } from '../operators/lift'
import { entry, gathered, list } from './lists'
import { hintBareExponent, operateOn, raiseValues } from '../operators/operate'
import { operateOnQuantities } from '../operators/quantities'
import { hintTurns } from '../operators/unitHints'
import { callOnQuantities } from '../functions/quantities'
import { binary, onNumbers, Plainly } from '../operators/rules'
import type { BinarySign } from '../operators/rules'
import { evaluateRange } from './range'
import { evaluateSeries } from './series'
import { where } from './where'
import { withUnit } from '../quantities/attach'
import { angleFrom, throughQuantity } from '../quantities/through'
import { signedMeasures, unary } from '../operators/unary'
import { looped } from '../functions/loops'

/**
 * The value of a bound tree, or the first failure with the span it is about.
 * Total: odd trees give failures, never exceptions.
 */
export function evaluate(node: Node, context: Context): Value | Failure {
  const value = unsettled(node, context)
  const { kind } = value
  return kind === 'sweep' || kind === 'quantity' ? at(node, settle(value)) : value
}

/**
 * The same, but a sweep may still have to be worked out: for operators, which make one loop of a whole term.
 * The commonest nodes are dealt with at once, and what is rare stands apart, so that V8 makes one piece of them.
 */
function unsettled(node: Node, context: Context): Value | Failure {
  const { type } = node
  if (type === 'literal') return literalValue(node.value, node)
  if (type === 'group') return unsettled(node.inner, context)
  if (context.watch !== null && context.watch.due(node)) return watched(node, context, context.watch)
  if (!spend(context.budget)) return at(node, failure('too-long'))
  let value: Value | Failure
  if (type === 'name') value = context.lookup(node.name) ?? failure('unknown-name', { name: node.name, near: '' })
  else if (type === 'product' || type === 'sum' || type === 'parallel') {
    const left = unsettled(node.left, context)
    if (left.kind === 'failure') return left
    const right = unsettled(node.right, context)
    if (right.kind === 'failure') return right
    value =
      left.kind === 'number' && right.kind === 'number' && !isZero(right)
        ? onNumbers(node.sign, left, right)
        : operateOn(plainSign(node.sign), left, right, node.left, node.right, context)
  } else if (type === 'apply') value = apply(node, context, evaluate)
  else value = step(node, context)
  return value.kind === 'failure' ? at(node, value) : value
}

/** An observed term: all of a sweep is worked out, so that there is something to see. */
function watched(node: Node, context: Context, watch: Watch): Value | Failure {
  const value = at(node, settle(unsettled(node, context)))
  watch.saw(node, value, context)
  return value
}

const isZero = (z: NumberValue): boolean => z.re === 0 && z.im === 0
const plainSign = (sign: BinarySign | 'implicit'): BinarySign => (sign === 'implicit' ? '*' : sign)

function at(node: Node, value: Value | Failure): Value | Failure {
  return value.kind === 'failure' && value.from === undefined ? { ...value, from: node.from, to: node.to } : value
}

function step(node: Node, context: Context): Value | Failure {
  switch (node.type) {
    case 'constant':
      return node.value
    case 'power':
      return powerOf(node.base, node.exponent, context)
    case 'united':
      return united(node, context)
    case 'sign':
      return signed(node.sign, node.operand, context)
    case 'polar':
      return polar(node, context)
    case 'postfix':
      return postfix(node.sign, node.operand, context)
    case 'mark':
      return marked(node, context)
    case 'bars':
      return magnitude(node.inner, node.double, context)
    case 'root': {
      const value = evaluate(node.operand, context)
      const definition = findFunction('sqrt')
      if (value.kind === 'failure' || definition === null) return value
      const root = (of: readonly Value[]): Value | Failure =>
        lifted(of, node, context, (values, inner) => callFunction(definition, values, [node.operand], inner))
      return value.kind === 'quantity'
        ? callOnQuantities(definition, [value], [node.operand], context, root)
        : root([value])
    }
    case 'list':
      return list(node.entries, context, evaluate)
    case 'series':
      return gathered(evaluateSeries(node, context, evaluate), context)
    case 'entry':
      return entry(node, context, evaluate)
    case 'part':
      return part(node, context)
    case 'last':
      return context.last === null ? failure('unknown-name', { name: 'last', near: '' }) : integer(context.last)
    case 'range':
      return evaluateRange(node, context, evaluate)
    case 'where':
      return where(node, context, evaluate)
    case 'compare':
      return comparison(node, context, evaluate)
    case 'logic':
      return logic(node, context, evaluate)
    case 'text':
      return text(node.text)
    case 'dms':
      return minutesAndSeconds(node)
    case 'valued':
      return node.value
    default:
      return failure('unfinished', { after: '' })
  }
}

/** A value with the unit behind it. */
function united({ operand, unit }: United, context: Context): Value | Failure {
  const value = evaluate(operand, context)
  if (value.kind === 'failure') return value
  const found = withUnit(value, unit.unit)
  return found.kind === 'failure' ? failureAt(operand, found) : found
}

/** A named part of a result: `lu(A).lower`. */
function part(node: Extract<Node, { type: 'part' }>, context: Context): Value | Failure {
  const value = evaluate(node.operand, context)
  if (value.kind === 'failure') return value
  return lifted([value], node, context, ([x]) => {
    const parts = x.kind === 'parts' ? x.parts : NO_PARTS
    const known = [...parts.keys()].map((k) => `.${k}`).join(', ')
    return parts.get(node.name) ?? failure('no-such-part', { name: node.name, known })
  })
}

const NO_PARTS: ReadonlyMap<string, Value> = new Map()

function literalValue(value: Value, node: Node): Value | Failure {
  // x − x is 0 for what is finite.
  const finite = value.kind !== 'number' || value.re - value.re + (value.im - value.im) === 0
  return finite || value.exact ? value : at(node, failure('too-large'))
}

function powerOf(baseNode: Node, exponentNode: Node, context: Context): Value | Failure {
  const base = unsettled(baseNode, context)
  if (base.kind === 'failure') return base
  const natural = base.kind === 'number' && base.re === Math.E && base.im === 0
  const inner = natural ? context.inExponent() : context
  const exponent = evaluate(exponentNode, inner)
  if (exponent.kind === 'failure') return exponent
  if (natural) hintBareExponent(exponent, exponentNode, context)
  if (base.kind === 'number' && exponent.kind === 'number') return A.power(base, exponent)
  if (base.kind === 'quantity' || exponent.kind === 'quantity')
    return operateOnQuantities('^', base, exponent, context, (a, b) => raised(a, b, baseNode, natural, inner))
  return raised(base, exponent, baseNode, natural, inner)
}

function raised(base: Value, exponent: Value, baseNode: Node, natural: boolean, context: Context): Value | Failure {
  if (base.kind === 'sweep' || exponent.kind === 'sweep') {
    const loop = loopBinary('^', base, exponent, baseNode, context)
    if (loop) return loop
    const ready = settle(base)
    if (ready.kind === 'failure') return ready
    return atEveryPoint([ready, exponent], baseNode, context, ([a, b], point) => raiseValues(a, b, point))
  }
  if (context.each && (isArray(base) || isArray(exponent)))
    return entrywise(base, exponent, '^', (x, y) => binary('^', x, y, new Plainly(context)))
  if (natural && exponent.kind === 'matrix') return failure('matrix-function', { name: 'exp', whole: 'expm(A)' })
  if (base.kind === 'matrix' && exponent.kind === 'number' && exponent.re < 0) hintCondition(base, context, baseNode)
  return binary('^', base, exponent, new Plainly(context))
}

function signed(sign: '+' | '-', operand: Node, context: Context): Value | Failure {
  const value = unsettled(operand, context)
  if (value.kind === 'failure') return value
  return throughQuantity(value, (inner) => signedValue(sign, inner, operand, context))
}

function signedValue(sign: '+' | '-', value: Value, operand: Node, context: Context): Value | Failure {
  if (value.kind === 'sweep' && sign === '+') return value
  const loop = value.kind === 'sweep' ? loopNegate(value) : null
  return loop ?? lifted([value], operand, context, ([x]) => unary(sign, x))
}

/** A real magnitude ∠ an angle. */
function polar(node: Polar, context: Context): Value | Failure {
  const size = evaluate(node.magnitude, context)
  if (size.kind === 'failure') return size
  const turned = evaluate(node.angle, context.outsideExponent())
  if (turned.kind === 'failure') return turned
  hintTurns(turned, node.angle, context)
  const angle = turned.kind === 'quantity' ? angleFrom(turned, '∠') : turned
  if (angle.kind === 'failure') return failureAt(node.angle, angle)
  const whole = (inner: Value): Value | Failure =>
    lifted([inner, angle], node, context, ([a, b], at) => polarOf(node, a, b, at))
  return throughQuantity(size, whole)
}

function polarOf(node: Polar, size: Value, value: Value, context: Context): Value | Failure {
  if (size.kind !== 'number' || size.im !== 0) {
    const kind = size.kind === 'number' ? 'complex number' : size.kind
    return failureAt(node.magnitude, failure('magnitude-real', { kind }))
  }
  if (value.kind !== 'angle' && (value.kind !== 'number' || value.im !== 0)) {
    return failureAt(node.angle, failure('angle-real', { kind: value.kind }))
  }
  if (value.kind === 'number') context.bare(node.angle, value)
  const angle = value.kind === 'angle' ? value : inAngleUnit(value, context.angleUnit)
  if (angle.turns || angle.degrees !== undefined) return A.multiply(size, A.onUnitCircleAt(angle))
  return A.rounded(C.polar(size.re, angle.radians), true, size)
}

function postfix(sign: '!' | 'deg' | 'rad', operand: Node, context: Context): Value | Failure {
  const value = evaluate(operand, context)
  if (value.kind === 'failure') return value
  const factorial = sign === '!' ? findFunction('factorial') : null
  if (value.kind === 'quantity' && factorial)
    return callOnQuantities(factorial, [value], [operand], context, (of) => callFunction(factorial, of, [operand], context)) // prettier-ignore
  return lifted([value], operand, context, (values, inner) => {
    if (sign !== '!') return unary(sign, values[0])
    return factorial
      ? callFunction(factorial, values, [operand], inner)
      : failure('unknown-name', { name: '!', near: '' })
  })
}

function marked({ sign, operand, kept }: Mark, context: Context): Value | Failure {
  const value = evaluate(operand, context)
  if (value.kind === 'failure') return value
  return throughQuantity(
    value,
    (inner) => markedValue({ sign, kept }, inner, operand, context),
    (measures) => signedMeasures(sign, measures),
  )
}

function markedValue(
  { sign, kept }: Pick<Mark, 'sign' | 'kept'>,
  value: Value,
  operand: Node,
  context: Context,
): Value | Failure {
  const loop = sign === '*' ? looped(findFunction('conj'), value) : null
  return (
    loop ??
    lifted([value], operand, context, ([x]) =>
      x.kind === 'number' && sign !== '*' && kept ? failure('transpose-number', { sign }) : unary(sign, x),
    )
  )
}

function magnitude(inner: Node, double: boolean, context: Context): Value | Failure {
  const value = evaluate(inner, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'quantity') return quantityMagnitude(value, inner, double, context)
  const loop = looped(findFunction('abs'), value)
  return loop ?? lifted([value], inner, context, ([x], at) => magnitudeOf(x, inner, double, at))
}

function magnitudeOf(value: Value, inner: Node, double: boolean, context: Context): Value | Failure {
  if (value.kind === 'vector') return double ? euclideanNorm(value) : magnitudeOfVector(value)
  if (value.kind === 'algebra-matrix')
    return double ? failure('wrong-kind', { what: '‖ ‖', kind: value.kind }) : algebraDeterminant(value)
  const definition = findFunction(value.kind === 'matrix' ? (double ? 'norm' : 'det') : 'abs')
  return definition ? callFunction(definition, [value], [inner], context) : value
}

/** |z| measures what z does, |v| what its entries do, |A| what their determinant does. */
function quantityMagnitude(value: QuantityValue, inner: Node, double: boolean, context: Context): Value | Failure {
  const { kind } = value.value
  const matrix = kind === 'matrix' || kind === 'algebra-matrix'
  const definition = findFunction(matrix ? (double ? 'norm' : 'det') : double && kind === 'vector' ? 'norm' : 'abs')
  return definition ? callOnQuantities(definition, [value], [inner], context, ([x]) => bareMagnitude(x, inner, double, context)) : value // prettier-ignore
}

function bareMagnitude(x: Value | undefined, inner: Node, double: boolean, context: Context): Value | Failure {
  if (!x) throw new Error('one value')
  return looped(findFunction('abs'), x) ?? lifted([x], inner, context, ([at], c) => magnitudeOf(at, inner, double, c))
}

function minutesAndSeconds(node: Extract<Node, { type: 'dms' }>): Value | Failure {
  const minutes = Q.fromDecimal(node.minutes)
  const seconds = Q.fromDecimal(node.seconds === '' ? '0' : node.seconds)
  const whole = Q.fromDecimal(node.degrees)
  if (Number(node.minutes) >= 60 || Number(node.seconds) >= 60) return failure('minutes-range')
  const m = minutes && Q.divide(minutes, { n: 60, d: 1 })
  const s = seconds && Q.divide(seconds, { n: 3600, d: 1 })
  const fraction = m && s && Q.add(m, s)
  const total = whole && fraction && Q.add(whole, fraction)
  const turns = total && Q.divide(total, { n: 360, d: 1 })
  return turns ? angleOfTurns(turns) : angleOf(NaN)
}
