import { callFunction } from '../functions/call'
import { conjugate } from '../functions/complex'
import type { FunctionDefinition } from '../functions/definition'
import { findFunction } from '../functions/registry'
import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import type { Apply, Node, Polar } from '../notation/tree'
import * as A from '../values/arithmetic'
import { degrees, inUnit, radians } from '../values/convert'
import { asMatrix, mapMatrix, settled, transposed } from '../values/matrices'
import { euclideanNorm, mapVector } from '../values/vectors'
import { angleOf, angleOfTurns, integer, text, truth, vector } from '../values/make'
import type { Failure, NumberValue, SweepValue, Value } from '../values/value'
import { failure } from '../values/value'
import { algebraDeterminant, algebraMatrix, algebraTranspose } from '../algebra/polyMatrix'
import { isAlgebraic } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import { substitute } from '../algebra/where'
import type { Operate } from '../algebra/where'
import { pointsOf } from '../values/sweeps'
import { entrywise, isArray } from './arrays'
import { atEveryPoint, isSweep, loopBinary, loopFunction, loopNegate, loopReduction, settle } from './lift'
import { evaluateRange } from './range'
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
  const value = unsettled(node, context)
  return value.kind === 'sweep' && value.pending ? at(node, settle(value)) : value
}

/**
 * The same, but a sweep may still have to be worked out: for operators, which make one loop of a whole term.
 * The commonest nodes are dealt with at once.
 */
function unsettled(node: Node, context: Context): Value | Failure {
  switch (node.type) {
    case 'literal':
      return at(node, literalValue(node.value))
    case 'group':
      return unsettled(node.inner, context)
    default:
  }
  if (!spend(context.budget)) return failure('too-long')
  switch (node.type) {
    case 'name':
      return at(node, context.lookup(node.name) ?? failure('unknown-name', { name: node.name, near: '' }))
    case 'product':
      return at(node, operate(node.sign === 'implicit' ? '*' : node.sign, node.left, node.right, context))
    case 'sum':
      return at(node, operate(node.sign, node.left, node.right, context))
    default:
      return at(node, step(node, context))
  }
}

function at(node: Node, value: Value | Failure): Value | Failure {
  return value.kind === 'failure' && value.from === undefined ? { ...value, from: node.from, to: node.to } : value
}

function step(node: Node, context: Context): Value | Failure {
  switch (node.type) {
    case 'constant':
      return node.value
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
      if (value.kind === 'sweep')
        return atEveryPoint([value], node, context, (values, inner) =>
          callFunction(definition, values, [node.operand], inner),
        )
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
    case 'range':
      return evaluateRange(node, context, evaluate)
    case 'where':
      return where(node, context)
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
  if (body.kind === 'sweep')
    return atEveryPoint([body], node, context, ([x]) => (x ? substitute(x, given, operate) : failure('wrong-kind')))
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
        (x?.kind === 'parts' ? x.parts.get(node.name) : undefined) ??
        failure('no-such-part', { name: node.name, known: '' }),
    )
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
  const left = unsettled(leftNode, context)
  if (left.kind === 'failure') return left
  const right = unsettled(rightNode, context)
  if (right.kind === 'failure') return right
  if (left.kind === 'number' && right.kind === 'number') {
    if (sign === '/' && right.re === 0) hintZero(left, right, rightNode, context)
    return onNumbers(sign, left, right)
  }
  return operateOn(sign, left, right, leftNode, rightNode, context)
}

/** The same on values that are known already. */
function operateOn(
  sign: BinarySign,
  left: Value,
  right: Value,
  leftNode: Node,
  rightNode: Node,
  context: Context,
): Value | Failure {
  if (left.kind === 'number' && right.kind === 'number') {
    if (sign === '/') hintZero(left, right, rightNode, context)
    return onNumbers(sign, left, right)
  }
  if (left.kind === 'sweep' || right.kind === 'sweep') {
    const loop = loopBinary(sign, left, right, leftNode, context)
    if (loop) return loop
    const [a, b] = [settle(left), settle(right)]
    if (a.kind === 'failure') return a
    if (b.kind === 'failure') return b
    return atEveryPoint([a, b], leftNode, context, ([a, b], inner) =>
      a && b ? operateOn(sign, a, b, leftNode, rightNode, inner) : failure('wrong-kind'),
    )
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

function powerOf(baseNode: Node, exponentNode: Node, context: Context): Value | Failure {
  const base = unsettled(baseNode, context)
  if (base.kind === 'failure') return base
  const natural = base.kind === 'number' && base.re === Math.E && base.im === 0
  const inner = natural && !context.exponent ? derive(context, { exponent: true }) : context
  const exponent = evaluate(exponentNode, inner)
  if (exponent.kind === 'failure') return exponent
  if (natural) hintBareExponent(exponent, exponentNode, context)
  if (base.kind === 'number' && exponent.kind === 'number') return onNumbers('^', base, exponent)
  if (base.kind === 'sweep' || exponent.kind === 'sweep') {
    const loop = loopBinary('^', base, exponent, baseNode, context)
    if (loop) return loop
    const ready = settle(base)
    if (ready.kind === 'failure') return ready
    return atEveryPoint([ready, exponent], baseNode, inner, ([a, b], point) =>
      a && b ? raiseValues(a, b, point) : failure('wrong-kind'),
    )
  }
  if (context.each && (isArray(base) || isArray(exponent)))
    return entrywise(base, exponent, '^', (x, y) => binary('^', x, y, plainly(context)))
  if (natural && exponent.kind === 'matrix') return failure('matrix-function', { name: 'exp', whole: 'expm(A)' })
  return binary('^', base, exponent, plainly(context))
}

/** A power of two values that are known already. */
function raiseValues(base: Value, exponent: Value, context: Context): Value | Failure {
  if (base.kind === 'number' && exponent.kind === 'number') return onNumbers('^', base, exponent)
  return binary('^', base, exponent, plainly(context))
}

/** `e^(j*30)` is 30 radians: said, since degrees were probably meant. */
function hintBareExponent(exponent: Value, node: Node, context: Context): void {
  if (exponent.kind !== 'number' || exponent.pi || exponent.re !== 0) return
  const size = Math.abs(exponent.im)
  if (exponent.exact && size >= 10 && size % 5 === 0) context.hint('exponent-radians', node, { value: exponent.im })
}

function signed(sign: '+' | '-', operand: Node, context: Context): Value | Failure {
  const value = unsettled(operand, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'sweep' && sign === '-')
    return (
      loopNegate(value) ?? atEveryPoint([value], operand, context, ([x]) => (x ? negate(x) : failure('wrong-kind')))
    )
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
    return atEveryPoint([size, turned], node, context, ([a, b], inner) =>
      a && b ? polarOf(node, a, b, inner) : failure('wrong-kind'),
    )
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
  if (angle.turns) return A.multiply(size, A.onUnitCircle(angle.turns))
  return A.rounded(C.polar(size.re, angle.radians), true, size)
}

function postfix(sign: '!' | 'deg' | 'rad', operand: Node, context: Context): Value | Failure {
  const value = evaluate(operand, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'sweep')
    return atEveryPoint([value], operand, context, ([x], inner) =>
      x ? postfixOf(sign, x, operand, inner) : failure('wrong-kind'),
    )
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
  if (value.kind !== 'number' || value.im !== 0) return failure('angle-real', { kind: value.kind })
  return sign === 'deg' ? degrees(value) : radians(value)
}

function marked({ sign, operand, kept }: Extract<Node, { type: 'mark' }>, context: Context): Value | Failure {
  const value = evaluate(operand, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'sweep') {
    const loop = sign === '*' ? loopFunction('conj', value) : null
    return (
      loop ??
      atEveryPoint([value], operand, context, ([x]) =>
        x ? markedValue(sign, x, kept ?? false) : failure('wrong-kind'),
      )
    )
  }
  return markedValue(sign, value, kept ?? false)
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
  if (array) return settled(transposed(array, sign === 'H'))
  return failure('wrong-kind', { what: `^${sign}`, kind: value.kind })
}

function magnitude(inner: Node, double: boolean, context: Context): Value | Failure {
  const value = evaluate(inner, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'sweep') {
    const loop = loopFunction('abs', value)
    return (
      loop ??
      atEveryPoint([value], inner, context, ([x], at) =>
        x ? magnitudeOf(x, inner, double, at) : failure('wrong-kind'),
      )
    )
  }
  return magnitudeOf(value, inner, double, context)
}

function magnitudeOf(value: Value, inner: Node, double: boolean, context: Context): Value | Failure {
  if (value.kind === 'vector') return euclideanNorm(value)
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

function apply(node: Apply, context: Context): Value | Failure {
  if (node.name === 'if' && node.builtIn) return choose(node, context)
  if (node.name === 'each' && node.builtIn) {
    const [only] = node.args
    if (!only || node.args.length !== 1)
      return failure('argument-count', { signature: 'each(…)', given: node.args.length })
    return evaluate(only, derive(context, { each: true }))
  }
  const inner = node.builtIn && node.name === 'exp' ? derive(context, { exponent: true }) : context
  const args = allOf(node.args, inner)
  if ('kind' in args) return args
  if (node.builtIn && node.name === 'exp') {
    const [only] = args
    const [onlyNode] = node.args
    if (only && onlyNode) hintBareExponent(only, onlyNode, context)
  }
  const value = node.builtIn ? builtIn(node, args, context) : userDefined(node, args, context)
  if (value.kind === 'failure' || node.raised === null) return value
  const exponent = evaluate(node.raised, context)
  if (exponent.kind === 'failure') return exponent
  if (value.kind === 'sweep')
    return loopBinary('^', value, exponent, node, context) ?? failure('wrong-kind', { what: '^', kind: 'sweep' })
  return binary('^', value, exponent, plainly(context))
}

/** The values of a row of terms, or the first failure. */
function allOf(nodes: readonly Node[], context: Context): readonly Value[] | Failure {
  const [first] = nodes
  if (first === undefined) return []
  const value = evaluate(first, context)
  if (value.kind === 'failure') return value
  const values = [value]
  for (let k = 1; k < nodes.length; k += 1) {
    const next = evaluate(nodes[k] ?? first, context)
    if (next.kind === 'failure') return next
    values.push(next)
  }
  return values
}

function builtIn(node: Apply, args: readonly Value[], context: Context): Value | Failure {
  const definition = findFunction(node.name)
  if (definition === null) return failure('unknown-name', { name: node.name, near: '' })
  return (
    (args.length === 1 ? overRow(definition, args, node, context) : null) ??
    (!definition.sweeps && hasSweep(args) ? overSweeps(definition, args, node, context) : null) ??
    callFunction(definition, args, node.args, context)
  )
}

function hasSweep(values: readonly Value[]): boolean {
  for (const { kind } of values) if (kind === 'sweep') return true
  return false
}

/** A row of sweeps, as in sum(k*t for k = 1 to 3), is as many arguments. */
function overRow(
  definition: FunctionDefinition,
  [row]: readonly Value[],
  node: Apply,
  context: Context,
): Value | Failure | null {
  const [rowNode] = node.args
  if (row?.kind !== 'vector' || !definition.repeats || !rowNode || !row.items.some(isSweep)) return null
  const nodes = row.items.map(() => rowNode)
  return atEveryPoint(row.items, node, context, (values, inner) => callFunction(definition, values, nodes, inner))
}

function overSweeps(
  definition: FunctionDefinition,
  args: readonly Value[],
  node: Apply,
  context: Context,
): Value | Failure {
  const [only] = args
  const single = args.length === 1 && only?.kind === 'sweep' ? only : null
  const loop = single && loopFunction(definition.name, single)
  if (loop) return loop
  // A reduction of one sweep runs over its points.
  if (single && definition.repeats && single.of !== 'other') {
    const found = loopReduction(definition.name, single)
    if (found) return found
    if (single.count > REDUCED_MOST) return failure('too-many-points', { count: single.count, limit: REDUCED_MOST })
    return callFunction(definition, [vector(pointsOf(single))], node.args, context)
  }
  return atEveryPoint(args, node, context, (values, inner) => callFunction(definition, values, node.args, inner))
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

/** Most points that a reduction without a loop of its own runs over. */
const REDUCED_MOST = 100_000

/** if(condition, a, b): only the chosen side is evaluated. */
function choose(node: Apply, context: Context): Value | Failure {
  const [condition, yes, no] = node.args
  if (!condition || !yes || !no || node.args.length !== 3) {
    return failure('argument-count', { signature: 'if(condition, a, b)', given: node.args.length })
  }
  const value = evaluate(condition, context)
  if (value.kind === 'failure') return value
  if (value.kind === 'sweep') return chooseAtPoints(value, { condition, yes, no }, context)
  if (value.kind !== 'truth')
    return { ...failure('truth-needed', { kind: value.kind }), from: condition.from, to: condition.to }
  return evaluate(value.truth ? yes : no, context)
}

/** Over a sweep a side is evaluated where it is chosen at some point. */
function chooseAtPoints(
  value: SweepValue,
  { condition, yes, no }: { readonly condition: Node; readonly yes: Node; readonly no: Node },
  context: Context,
): Value | Failure {
  const truths = (value.items ?? []).flatMap((item) => (item.kind === 'truth' ? [item.truth] : []))
  if (truths.length < value.count)
    return { ...failure('truth-needed', { kind: 'sweep' }), from: condition.from, to: condition.to }
  const a = truths.includes(true) ? evaluate(yes, context) : value
  if (a.kind === 'failure') return a
  const b = truths.includes(false) ? evaluate(no, context) : value
  if (b.kind === 'failure') return b
  return atEveryPoint(
    [value, a, b],
    condition,
    context,
    ([is, x, y]) => (is?.kind === 'truth' && is.truth ? x : y) ?? failure('wrong-kind'),
  )
}

function comparison(node: Extract<Node, { type: 'compare' }>, context: Context): Value | Failure {
  const nodes = [node.first, ...node.rest.map((r) => r.node)]
  const values: Value[] = []
  for (const side of nodes) {
    const value = evaluate(side, context)
    if (value.kind === 'failure') return value
    values.push(value)
  }
  if (values.some(isSweep)) return atEveryPoint(values, node, context, (at, inner) => comparedValues(node, at, inner))
  return comparedValues(node, values, context)
}

function comparedValues(
  node: Extract<Node, { type: 'compare' }>,
  values: readonly Value[],
  context: Context,
): Value | Failure {
  let [left] = values
  if (!left) return failure('wrong-kind')
  for (const [k, { sign, node: rightNode }] of node.rest.entries()) {
    const right = values[k + 1]
    if (!right) return failure('wrong-kind')
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
  for (const [k, operand] of node.operands.entries()) {
    const value = evaluate(operand, context)
    if (value.kind === 'failure') return value
    if (value.kind === 'sweep') return logicAtPoints(node, k, value, context)
    if (value.kind !== 'truth')
      return { ...failure('truth-needed', { kind: value.kind }), from: operand.from, to: operand.to }
    if (node.sign === 'not') return truth(!value.truth)
    if (value.truth === (node.sign === 'or')) return value
  }
  return truth(node.sign === 'and')
}

/** From an operand that is a sweep on, all of them are evaluated and joined at every point. */
function logicAtPoints(
  node: Extract<Node, { type: 'logic' }>,
  from: number,
  first: SweepValue,
  context: Context,
): Value | Failure {
  const nodes = node.operands.slice(from)
  const values: Value[] = [first]
  for (const operand of nodes.slice(1)) {
    const value = evaluate(operand, context)
    if (value.kind === 'failure') return value
    values.push(value)
  }
  return atEveryPoint(values, node, context, (at) => {
    const truths = at.flatMap((x) => (x.kind === 'truth' ? [x.truth] : []))
    if (truths.length < at.length) return failure('truth-needed', { kind: 'sweep' })
    if (node.sign === 'not') return truth(!truths[0])
    return truth(node.sign === 'and' ? truths.every((t) => t) : truths.some((t) => t))
  })
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
