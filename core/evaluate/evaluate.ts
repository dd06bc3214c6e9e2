import { callFunction } from '../functions/call'
import { conjugate, magnitudeOfVector } from '../functions/complex'
import { findFunction } from '../functions/registry'
import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import type { Node, Polar } from '../notation/tree'
import * as A from '../values/arithmetic'
import { degrees, inUnit, radians } from '../values/convert'
import { asMatrix, mapMatrix, turned } from '../values/matrices'
import { hintCondition } from '../operators/conditioning'
import { euclideanNorm, mapVector } from '../values/vectors'
import { angleOf, angleOfTurns, integer, text } from '../values/make'
import type { NumberValue, Value } from '../values/types'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { algebraDeterminant, algebraMatrix, algebraTranspose } from '../algebra/polyMatrix'
import { isAlgebraic } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import { substitute } from '../algebra/where'
import type { Operate } from '../algebra/where'
import { entrywise, isArray } from '../operators/arrays'
import { apply } from './calls'
import { comparison, logic } from './conditions'
import { spend } from '../operators/context'
import type { Context } from '../operators/context'
import { atEveryPoint, loopBinary, loopFunction, loopNegate, settle } from '../operators/lift'
import { entry, list } from './lists'
import { hintBareExponent, operateOn, raiseValues } from '../operators/operate'
import { binary, negate, onNumbers, Plainly } from '../operators/rules'
import type { BinarySign } from '../operators/rules'
import { evaluateRange } from './range'
import { evaluateSeries } from './series'

/**
 * The value of a bound tree, or the first failure with the span it is about.
 * Total: odd trees give failures, never exceptions.
 */
export function evaluate(node: Node, context: Context): Value | Failure {
  const value = unsettled(node, context)
  return value.kind === 'sweep' && value.pending ? at(node, settle(value)) : value
}

/**
 * The same, but a sweep may still have to be worked out: for operators, which make one loop of a whole term.
 * The commonest nodes are dealt with at once, and what is rare stands apart, so that V8 makes one piece of them.
 */
function unsettled(node: Node, context: Context): Value | Failure {
  const { type } = node
  if (type === 'literal') return literalValue(node.value, node)
  if (type === 'group') return unsettled(node.inner, context)
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
      if (value.kind === 'sweep')
        return atEveryPoint([value], node, context, (values, inner) =>
          callFunction(definition, values, [node.operand], inner),
        )
      return callFunction(definition, [value], [node.operand], context)
    }
    case 'list':
      return list(node.entries, context, evaluate)
    case 'series':
      return evaluateSeries(node, context, evaluate)
    case 'entry':
      return entry(node, context, evaluate)
    case 'part':
      return part(node, context)
    case 'last':
      return context.last === null ? failure('unknown-name', { name: 'last', near: '' }) : integer(context.last)
    case 'range':
      return evaluateRange(node, context, evaluate)
    case 'where':
      return where(node, context)
    case 'compare':
      return comparison(node, context, evaluate)
    case 'logic':
      return logic(node, context, evaluate)
    case 'text':
      return text(node.text)
    case 'dms':
      return minutesAndSeconds(node)
    default:
      return failure('unfinished', { after: '' })
  }
}

/** Unknowns replaced, all at once. */
function where(node: Extract<Node, { type: 'where' }>, context: Context): Value | Failure {
  const body = evaluate(node.body, context)
  if (body.kind === 'failure') return body
  const given = new Map<string, Value>()
  for (const { name, value: valueNode } of node.given) {
    const unknown = context.lookup(name.name)
    if (unknown?.kind !== 'polynomial' || unknown.bottom || unknown.top.unknowns[0] !== name.name)
      return { ...failure('where-unknown', { name: name.name }), from: name.from, to: name.to }
    const value = evaluate(valueNode, context)
    if (value.kind === 'failure') return value
    given.set(name.name, value)
  }
  const operate: Operate = (sign, a, b) =>
    sign === '^' && (a.kind === 'sweep' || b.kind === 'sweep')
      ? (loopBinary('^', a, b, node, context) ?? failure('wrong-kind', { what: '^', kind: 'sweep' }))
      : operateOn(sign, a, b, node, node, context)
  if (body.kind === 'sweep') return atEveryPoint([body], node, context, ([x]) => substitute(x, given, operate))
  return substituteIn(body, given, operate)
}

function substituted(value: Value, given: ReadonlyMap<string, Value>, operate: Operate): Value | Failure {
  return settle(substitute(value, given, operate))
}

/** In a vector or a matrix, entry by entry. */
function substituteIn(body: Value, given: ReadonlyMap<string, Value>, operate: Operate): Value | Failure {
  if (body.kind === 'vector') return mapVector(body, (item) => substituted(item, given, operate))
  if (body.kind !== 'algebra-matrix') return substituted(body, given, operate)
  const items: Algebraic[] = []
  for (const item of body.items) {
    const value = substituted(item, given, operate)
    if (value.kind === 'failure') return value
    if (!isAlgebraic(value)) return failure('where-matrix-sweep')
    items.push(value)
  }
  return algebraMatrix(body.rows, body.cols, items)
}

/** A named part of a result: `lu(A).lower`. */
function part(node: Extract<Node, { type: 'part' }>, context: Context): Value | Failure {
  const value = evaluate(node.operand, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'sweep')
    return atEveryPoint(
      [value],
      node,
      context,
      ([x]) =>
        (x.kind === 'parts' ? x.parts.get(node.name) : undefined) ??
        failure('no-such-part', { name: node.name, known: '' }),
    )
  const found = value.kind === 'parts' ? value.parts.get(node.name) : undefined
  if (found) return found
  const known = value.kind === 'parts' ? [...value.parts.keys()].map((k) => `.${k}`).join(', ') : ''
  return failure('no-such-part', { name: node.name, known })
}

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
  if (base.kind === 'sweep' || exponent.kind === 'sweep') {
    const loop = loopBinary('^', base, exponent, baseNode, context)
    if (loop) return loop
    const ready = settle(base)
    if (ready.kind === 'failure') return ready
    return atEveryPoint([ready, exponent], baseNode, inner, ([a, b], point) => raiseValues(a, b, point))
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
  if (value.kind === 'sweep' && sign === '-')
    return loopNegate(value) ?? atEveryPoint([value], operand, context, ([x]) => negate(x))
  if (sign === '-') return negate(value)
  return value.kind === 'number' || value.kind === 'angle' || value.kind === 'sweep' || value.kind === 'polynomial'
    ? value
    : failure('wrong-kind', { what: '+', kind: value.kind })
}

/** A real magnitude ∠ an angle. */
function polar(node: Polar, context: Context): Value | Failure {
  const size = evaluate(node.magnitude, context)
  if (size.kind === 'failure') return size
  const turned = evaluate(node.angle, context)
  if (turned.kind === 'failure') return turned
  if (size.kind === 'sweep' || turned.kind === 'sweep')
    return atEveryPoint([size, turned], node, context, ([a, b], inner) => polarOf(node, a, b, inner))
  return polarOf(node, size, turned, context)
}

function polarOf(node: Polar, size: Value, value: Value, context: Context): Value | Failure {
  if (size.kind !== 'number' || size.im !== 0) {
    const kind = size.kind === 'number' ? 'complex number' : size.kind
    return { ...failure('magnitude-real', { kind }), from: node.magnitude.from, to: node.magnitude.to }
  }
  if (value.kind !== 'angle' && (value.kind !== 'number' || value.im !== 0)) {
    return { ...failure('angle-real', { kind: value.kind }), from: node.angle.from, to: node.angle.to }
  }
  if (value.kind === 'number') context.bare(node.angle, value)
  const angle = value.kind === 'angle' ? value : inUnit(value, context.unit)
  if (angle.turns || angle.degrees !== undefined) return A.multiply(size, A.onUnitCircleAt(angle))
  return A.rounded(C.polar(size.re, angle.radians), true, size)
}

function postfix(sign: '!' | 'deg' | 'rad', operand: Node, context: Context): Value | Failure {
  const value = evaluate(operand, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'sweep')
    return atEveryPoint([value], operand, context, ([x], inner) => postfixOf(sign, x, operand, inner))
  return postfixOf(sign, value, operand, context)
}

function postfixOf(sign: '!' | 'deg' | 'rad', value: Value, operand: Node, context: Context): Value | Failure {
  if (sign === '!') {
    const definition = findFunction('factorial')
    return definition
      ? callFunction(definition, [value], [operand], context)
      : failure('unknown-name', { name: '!', near: '' })
  }
  if (value.kind === 'angle') return failure('angle-twice')
  if (value.kind === 'vector') return mapVector(value, (item) => postfixOf(sign, item, operand, context))
  if (value.kind !== 'number' || value.im !== 0) return failure('angle-real', { kind: value.kind })
  return sign === 'deg' ? degrees(value) : radians(value)
}

function marked({ sign, operand, kept }: Extract<Node, { type: 'mark' }>, context: Context): Value | Failure {
  const value = evaluate(operand, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'sweep') {
    const loop = sign === '*' ? loopFunction('conj', value) : null
    return loop ?? atEveryPoint([value], operand, context, ([x]) => markedValue(sign, x, kept))
  }
  return markedValue(sign, value, kept)
}

function markedValue(sign: 'T' | 'H' | '*', value: Value, kept: boolean): Value | Failure {
  if (value.kind === 'algebra-matrix' && sign === 'T') return algebraTranspose(value)
  if (value.kind === 'number') {
    if (sign !== '*' && kept) return failure('transpose-number', { sign })
    return sign === 'T' ? value : conjugate(value)
  }
  if (value.kind === 'angle') return value
  if (value.kind === 'vector' && sign === '*')
    return mapVector(value, (item) => (item.kind === 'number' ? conjugate(item) : item))
  if (value.kind === 'matrix' && sign === '*') return mapMatrix(value, conjugate)
  const array = asMatrix(value)
  if (array) return turned(array, sign === 'H')
  return failure('wrong-kind', { what: `^${sign}`, kind: value.kind })
}

function magnitude(inner: Node, double: boolean, context: Context): Value | Failure {
  const value = evaluate(inner, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'sweep') {
    const loop = loopFunction('abs', value)
    return loop ?? atEveryPoint([value], inner, context, ([x], at) => magnitudeOf(x, inner, double, at))
  }
  return magnitudeOf(value, inner, double, context)
}

function magnitudeOf(value: Value, inner: Node, double: boolean, context: Context): Value | Failure {
  if (value.kind === 'vector') return double ? euclideanNorm(value) : magnitudeOfVector(value)
  if (value.kind === 'algebra-matrix')
    return double ? failure('wrong-kind', { what: '‖ ‖', kind: value.kind }) : algebraDeterminant(value)
  if (value.kind === 'matrix') {
    const named = findFunction(double ? 'norm' : 'det')
    return named ? callFunction(named, [value], [inner], context) : value
  }
  const definition = findFunction('abs')
  if (definition === null) return value
  return callFunction(definition, [value], [inner], context)
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
