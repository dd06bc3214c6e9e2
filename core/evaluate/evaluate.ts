import { callFunction } from '../functions/call'
import { conjugate } from '../functions/complex'
import { findFunction } from '../functions/registry'
import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import type { Apply, Node, Polar, Product } from '../notation/tree'
import * as A from '../values/arithmetic'
import { degrees, inUnit, radians } from '../values/convert'
import { asMatrix, mapMatrix, settled, transposed } from '../values/matrices'
import { euclideanNorm, mapVector } from '../values/vectors'
import { angleOf, angleOfTurns, integer, text, truth } from '../values/make'
import type { Failure, NumberValue, Value } from '../values/value'
import { failure } from '../values/value'
import { entrywise, isArray } from './arrays'
import { entry, list } from './lists'
import { derive, spend } from './context'
import type { Context } from './context'
import { binary, compare, negate, onNumbers } from './operators'
import { evaluateSeries } from './series'
import type { BinarySign, OperatorContext } from './operators'

/**
 * The value of a bound tree, or the first failure with the span it is about.
 * Total: odd trees give failures, never exceptions.
 */
export function evaluate(node: Node, context: Context): Value | Failure {
  if (!spend(context.budget)) return failure('too-long')
  const value = step(node, context)
  return value.kind === 'failure' && value.from === undefined ? { ...value, from: node.from, to: node.to } : value
}

function step(node: Node, context: Context): Value | Failure {
  switch (node.type) {
    case 'literal':
      return literalValue(node.value)
    case 'constant':
      return node.value
    case 'name':
      return context.lookup(node.name) ?? failure('unknown-name', { name: node.name, near: '' })
    case 'group':
      return evaluate(node.inner, context)
    case 'product':
      return product(node, context)
    case 'sum':
      return operate(node.sign, node.left, node.right, context)
    case 'parallel':
      return operate('||', node.left, node.right, context)
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
      return callFunction(definition, [value], [node.operand], context)
    }
    case 'apply':
      return apply(node, context)
    case 'list':
      return list(node.entries, context, evaluate)
    case 'series':
      return evaluateSeries(node, context, evaluate)
    case 'entry':
      return entry(node, context, evaluate)
    case 'part':
      return part(node, context)
    case 'last':
      return context.last === undefined ? failure('unknown-name', { name: 'last', near: '' }) : integer(context.last)
    case 'compare':
      return comparison(node, context)
    case 'logic':
      return logic(node, context)
    case 'text':
      return text(node.text)
    case 'dms':
      return minutesAndSeconds(node)
    default:
      return failure('unfinished', { after: '' })
  }
}

/** A named part of a result: `lu(A).lower`. */
function part(node: Extract<Node, { type: 'part' }>, context: Context): Value | Failure {
  const value = evaluate(node.operand, context)
  if (value.kind === 'failure') return value
  const found = value.kind === 'parts' ? value.parts.get(node.name) : undefined
  if (found) return found
  const known = value.kind === 'parts' ? [...value.parts.keys()].map((k) => `.${k}`).join(', ') : ''
  return failure('no-such-part', { name: node.name, known })
}

function literalValue(value: Value): Value | Failure {
  const overflow = value.kind === 'number' && !value.exact && !C.isFinite(value)
  return overflow ? failure('too-large') : value
}

function operate(sign: BinarySign, leftNode: Node, rightNode: Node, context: Context): Value | Failure {
  const left = evaluate(leftNode, context)
  if (left.kind === 'failure') return left
  const right = evaluate(rightNode, context)
  if (right.kind === 'failure') return right
  if (left.kind === 'number' && right.kind === 'number') {
    if (sign === '/') hintZero(left, right, rightNode, context)
    return onNumbers(sign, left, right)
  }
  if (context.each && (isArray(left) || isArray(right)))
    return entrywise(left, right, sign, (x, y) => binary(sign, x, y, plainly(context)))
  if (sign === '*' || sign === '/') hintConversion(sign, left, right, leftNode, rightNode, context)
  return binary(sign, left, right, {
    // Asked for only where it matters: reading it makes the line depend on the unit.
    get unit() {
      return context.unit
    },
    exponent: context.exponent,
    bareSide: (side) => {
      const node = side === 'left' ? leftNode : rightNode
      context.bare(node, side === 'left' ? left : right)
      context.hint('angle-plus-number', node)
    },
  })
}

/** An angle times 180/π: it was free of its unit already. */
function hintConversion(
  sign: '*' | '/',
  left: Value,
  right: Value,
  leftNode: Node,
  rightNode: Node,
  context: Context,
): void {
  const [angle, factor] = left.kind === 'angle' ? [left, right] : [right, left]
  if (angle.kind !== 'angle' || factor.kind !== 'number' || factor.im !== 0) return
  if (sign === '/' && left.kind !== 'angle') return
  const perRadian = sign === '*' ? factor.re : 1 / factor.re
  const near = (x: number, y: number): boolean => Math.abs(x - y) < 1e-6 * y
  if (near(perRadian, 180 / Math.PI) || near(perRadian, Math.PI / 180)) {
    context.hint('degrees-twice', left.kind === 'angle' ? rightNode : leftNode)
  }
}

/** 7/0 is ∞: said, since it rarely was meant. */
function hintZero(left: NumberValue, right: NumberValue, rightNode: Node, context: Context): void {
  if (right.re !== 0 || right.im !== 0) return
  if (left.re !== 0 || left.im !== 0) context.hint('infinite-result', rightNode)
}

/** An operator outside an exponent, where no bare number is told of. */
function plainly(context: Context): OperatorContext {
  return {
    get unit() {
      return context.unit
    },
    exponent: false,
    bareSide: () => undefined,
  }
}

function product(node: Product, context: Context): Value | Failure {
  return operate(node.sign === 'implicit' ? '*' : node.sign, node.left, node.right, context)
}

function powerOf(baseNode: Node, exponentNode: Node, context: Context): Value | Failure {
  const base = evaluate(baseNode, context)
  if (base.kind === 'failure') return base
  const natural = base.kind === 'number' && base.re === Math.E && base.im === 0
  const inner = natural && !context.exponent ? derive(context, { exponent: true }) : context
  const exponent = evaluate(exponentNode, inner)
  if (exponent.kind === 'failure') return exponent
  if (natural) hintBareExponent(exponent, exponentNode, context)
  if (base.kind === 'number' && exponent.kind === 'number') return onNumbers('^', base, exponent)
  if (context.each && (isArray(base) || isArray(exponent)))
    return entrywise(base, exponent, '^', (x, y) => binary('^', x, y, plainly(context)))
  if (natural && exponent.kind === 'matrix') return failure('matrix-function', { name: 'exp', whole: 'expm(A)' })
  return binary('^', base, exponent, plainly(context))
}

/** `e^(j*30)` is 30 radians: said, since degrees were probably meant. */
function hintBareExponent(exponent: Value, node: Node, context: Context): void {
  if (exponent.kind !== 'number' || exponent.pi || exponent.re !== 0) return
  const size = Math.abs(exponent.im)
  if (exponent.exact && size >= 10 && size % 5 === 0) context.hint('exponent-radians', node, { value: exponent.im })
}

function signed(sign: '+' | '-', operand: Node, context: Context): Value | Failure {
  const value = evaluate(operand, context)
  if (value.kind === 'failure') return value
  if (sign === '-') return negate(value)
  return value.kind === 'number' || value.kind === 'angle'
    ? value
    : failure('wrong-kind', { what: '+', kind: value.kind })
}

/** A real magnitude ∠ an angle. */
function polar(node: Polar, context: Context): Value | Failure {
  const size = evaluate(node.magnitude, context)
  if (size.kind === 'failure') return size
  if (size.kind !== 'number' || size.im !== 0) {
    const kind = size.kind === 'number' ? 'complex number' : size.kind
    return { ...failure('magnitude-real', { kind }), from: node.magnitude.from, to: node.magnitude.to }
  }
  const value = evaluate(node.angle, context)
  if (value.kind === 'failure') return value
  if (value.kind !== 'angle' && (value.kind !== 'number' || value.im !== 0)) {
    return { ...failure('angle-real', { kind: value.kind }), from: node.angle.from, to: node.angle.to }
  }
  if (value.kind === 'number') context.bare(node.angle, value)
  const angle = value.kind === 'angle' ? value : inUnit(value, context.unit)
  if (angle.turns) return A.multiply(size, A.onUnitCircle(angle.turns))
  return A.rounded(C.polar(size.re, angle.radians), true, size)
}

function postfix(sign: '!' | 'deg' | 'rad', operand: Node, context: Context): Value | Failure {
  const value = evaluate(operand, context)
  if (value.kind === 'failure') return value
  if (sign === '!') {
    const definition = findFunction('factorial')
    return definition
      ? callFunction(definition, [value], [operand], context)
      : failure('unknown-name', { name: '!', near: '' })
  }
  if (value.kind === 'angle') return failure('angle-twice')
  if (value.kind !== 'number' || value.im !== 0) return failure('angle-real', { kind: value.kind })
  return sign === 'deg' ? degrees(value) : radians(value)
}

function marked({ sign, operand, kept }: Extract<Node, { type: 'mark' }>, context: Context): Value | Failure {
  const value = evaluate(operand, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'number') {
    if (sign !== '*' && kept) return failure('transpose-number', { sign })
    return sign === 'T' ? value : conjugate(value)
  }
  if (value.kind === 'angle') return value
  if (value.kind === 'vector' && sign === '*')
    return mapVector(value, (item) => (item.kind === 'number' ? conjugate(item) : item))
  if (value.kind === 'matrix' && sign === '*') return mapMatrix(value, conjugate)
  const array = asMatrix(value)
  if (array) return settled(transposed(array, sign === 'H'))
  return failure('wrong-kind', { what: `^${sign}`, kind: value.kind })
}

function magnitude(inner: Node, double: boolean, context: Context): Value | Failure {
  const value = evaluate(inner, context)
  if (value.kind === 'vector') return euclideanNorm(value)
  if (value.kind === 'matrix') {
    const named = findFunction(double ? 'norm' : 'det')
    return named ? callFunction(named, [value], [inner], context) : value
  }
  const definition = findFunction('abs')
  if (value.kind === 'failure' || definition === null) return value
  return callFunction(definition, [value], [inner], context)
}

function apply(node: Apply, context: Context): Value | Failure {
  if (node.name === 'if' && node.builtIn) return choose(node, context)
  if (node.name === 'each' && node.builtIn) {
    const [only] = node.args
    if (!only || node.args.length !== 1)
      return failure('argument-count', { signature: 'each(…)', given: node.args.length })
    return evaluate(only, derive(context, { each: true }))
  }
  const args: Value[] = []
  const inner = node.builtIn && node.name === 'exp' ? derive(context, { exponent: true }) : context
  for (const arg of node.args) {
    const value = evaluate(arg, inner)
    if (value.kind === 'failure') return value
    args.push(value)
  }
  const [only, onlyNode] = [args[0], node.args[0]]
  if (node.builtIn && node.name === 'exp' && only && onlyNode) hintBareExponent(only, onlyNode, context)
  const value = node.builtIn ? builtIn(node, args, context) : userDefined(node, args, context)
  if (value.kind === 'failure' || node.raised === null) return value
  const exponent = evaluate(node.raised, context)
  if (exponent.kind === 'failure') return exponent
  return binary('^', value, exponent, plainly(context))
}

function builtIn(node: Apply, args: readonly Value[], context: Context): Value | Failure {
  const definition = findFunction(node.name)
  return definition
    ? callFunction(definition, args, node.args, context)
    : failure('unknown-name', { name: node.name, near: '' })
}

function userDefined(node: Apply, args: readonly Value[], context: Context): Value | Failure {
  const value = context.lookup(node.name)
  if (value?.kind !== 'function') return failure('not-a-function', { name: node.name })
  if (args.length !== value.parameters.length) {
    return failure('argument-count', { signature: `${value.name}(${value.parameters.join(', ')})`, given: args.length })
  }
  if (context.budget.depth <= 0) return failure('too-deep-calls')
  context.budget.depth -= 1
  const result = value.call(args, context)
  context.budget.depth += 1
  // The span of a failure inside the body belongs to another line.
  if (result.kind !== 'failure') return result
  return result.code === 'too-long'
    ? failure('too-long')
    : failure('inside-function', { name: value.name, code: result.code, ...result.data })
}

/** if(condition, a, b): only the chosen side is evaluated. */
function choose(node: Apply, context: Context): Value | Failure {
  const [condition, yes, no] = node.args
  if (!condition || !yes || !no || node.args.length !== 3) {
    return failure('argument-count', { signature: 'if(condition, a, b)', given: node.args.length })
  }
  const value = evaluate(condition, context)
  if (value.kind === 'failure') return value
  if (value.kind !== 'truth')
    return { ...failure('truth-needed', { kind: value.kind }), from: condition.from, to: condition.to }
  return evaluate(value.truth ? yes : no, context)
}

function comparison(node: Extract<Node, { type: 'compare' }>, context: Context): Value | Failure {
  let left = evaluate(node.first, context)
  if (left.kind === 'failure') return left
  for (const { sign, node: rightNode } of node.rest) {
    const right = evaluate(rightNode, context)
    if (right.kind === 'failure') return right
    const bare = (left.kind === 'angle') !== (right.kind === 'angle')
    if (bare && left.kind === 'number') context.bare(node.first, left)
    if (bare && right.kind === 'number') context.bare(rightNode, right)
    const result = compare(sign, left, right, () => context.unit)
    if (result.kind === 'failure') return result
    const inexact = (v: Value): boolean => v.kind === 'number' && v.exact === null && v.pi === null
    if (sign === '==' && (inexact(left) || inexact(right))) context.hint('equals-rounded', node)
    if (result.kind === 'truth' && !result.truth) return result
    left = right
  }
  return truth(true)
}

function logic(node: Extract<Node, { type: 'logic' }>, context: Context): Value | Failure {
  for (const operand of node.operands) {
    const value = evaluate(operand, context)
    if (value.kind === 'failure') return value
    if (value.kind !== 'truth')
      return { ...failure('truth-needed', { kind: value.kind }), from: operand.from, to: operand.to }
    if (node.sign === 'not') return truth(!value.truth)
    if (value.truth === (node.sign === 'or')) return value
  }
  return truth(node.sign === 'and')
}

function minutesAndSeconds(node: Extract<Node, { type: 'dms' }>): Value | Failure {
  const minutes = Q.fromDecimal(node.minutes)
  const seconds = Q.fromDecimal(node.seconds)
  const whole = Q.fromDecimal(node.degrees)
  if (Number(node.minutes) >= 60 || Number(node.seconds) >= 60) return failure('minutes-range')
  const m = minutes && Q.divide(minutes, { n: 60, d: 1 })
  const s = seconds && Q.divide(seconds, { n: 3600, d: 1 })
  const fraction = m && s && Q.add(m, s)
  const total = whole && fraction && Q.add(whole, fraction)
  const turns = total && Q.divide(total, { n: 360, d: 1 })
  return turns ? angleOfTurns(turns) : angleOf(NaN)
}

/** A number of either sort that stands on a plane: used by scenes and readouts. */
export function isPhasor(value: Value): value is NumberValue {
  return value.kind === 'number' && value.complex
}
