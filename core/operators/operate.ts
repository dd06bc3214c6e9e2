import type { Operate } from '../algebra/where'
import type { Node } from '../notation/tree'
import type { NumberValue, Value } from '../values/types'
import type { Failure } from '../values/failure'
import { entrywise, isArray } from './arrays'
import type { Context } from './context'
import { atEveryPoint, loopBinary, settle } from './lift'
import { hintCancelled } from './loopHints'
import { asReckoned } from '../quantities/shape'
import { atSide } from '../quantities/sums'
import { hintNameless, hintUnits, reactive } from './unitHints'
import { operateOnQuantities, quickly } from './quantities'
import { binary, onNumbers, Plainly } from './rules'
import type { BinarySign, OperatorContext } from './rules'
import type { AngleUnit } from '../values/convert'

/** Operators on values that are known, with the hints that belong to the terms they come from. */

/** An operator on two values, with the terms that they come from. */
export function operateOn(
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
  if ((left.kind === 'quantity' || right.kind === 'quantity') && left.kind !== 'text' && right.kind !== 'text') {
    hintNameless(left, right, leftNode, rightNode, context)
    const value =
      quickly(sign, left, right) ??
      operateOnQuantities(sign, asReckoned(left, leftNode), asReckoned(right, rightNode), context, (a, b) =>
        operateOn(sign, a, b, leftNode, rightNode, context),
      )
    if (value.kind === 'failure') return atSide(value, leftNode, rightNode)
    hintUnits(sign, value, left, right, leftNode, rightNode, context)
    return sign === '*' ? reactive(value, leftNode, rightNode) : value
  }
  if (left.kind === 'sweep' || right.kind === 'sweep') {
    const loop = loopBinary(sign, left, right, leftNode, context)
    if (loop) return loop
    const [a, b] = [settle(left), settle(right)]
    if (a.kind === 'failure') return a
    if (b.kind === 'failure') return b
    return atEveryPoint([a, b], leftNode, context, ([a, b], inner) => operateOn(sign, a, b, leftNode, rightNode, inner))
  }
  if (context.each && (isArray(left) || isArray(right)))
    return entrywise(left, right, sign, (x, y) => binary(sign, x, y, new Plainly(context)))
  if (sign === '*' && left.kind === 'polynomial') hintCancelled(left, right, leftNode, rightNode, context)
  if (sign === '*' || sign === '/') hintConversion(sign, left, right, leftNode, rightNode, context)
  return binary(sign, left, right, new Told(context, left, right, leftNode, rightNode))
}

/** Operators on what takes the place of unknowns, all of one term. */
export function operatingAt(at: Node, context: Context): Operate {
  return (sign, a, b) => operateOn(sign, a, b, at, at, context)
}

/** An operator on terms of the line, where a bare number is told of. */
class Told implements OperatorContext {
  constructor(
    private readonly context: Context,
    private readonly left: Value,
    private readonly right: Value,
    private readonly leftNode: Node,
    private readonly rightNode: Node,
  ) {}

  /** Asked for only where it matters: reading it makes the line depend on the unit. */
  get angleUnit(): AngleUnit {
    return this.context.angleUnit
  }

  written(value: Value): string {
    return this.context.written(value)
  }

  get exponent(): boolean {
    return this.context.exponent
  }

  bareSide(side: 'left' | 'right'): void {
    const node = side === 'left' ? this.leftNode : this.rightNode
    this.context.bare(node, side === 'left' ? this.left : this.right)
    this.context.hint('angle-plus-number', node)
  }
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
  // `arctan(1)*180/pi`: the factor in two steps.
  const first = factorIn(leftNode)
  const whole = first === null ? NaN : first * perRadian
  if (
    near(perRadian, 180 / Math.PI) ||
    near(perRadian, Math.PI / 180) ||
    near(whole, 180 / Math.PI) ||
    near(whole, Math.PI / 180)
  ) {
    context.hint('degrees-twice', left.kind === 'angle' ? rightNode : leftNode)
  }
}

/** What a product or quotient multiplies by, where that is 180 or π; `null` for others. */
function factorIn(node: Node): number | null {
  if (node.type === 'group') return factorIn(node.inner)
  if (node.type !== 'product') return null
  const right = halfTurn(node.right)
  if (node.sign === '/') return right && 1 / right
  return right ?? halfTurn(node.left)
}

function halfTurn(node: Node): number | null {
  if (node.type === 'constant' && node.name === 'pi') return Math.PI
  return node.type === 'literal' && node.value.kind === 'number' && node.value.re === 180 ? 180 : null
}

/** 7/0 is ∞: said, since it rarely was meant. */
function hintZero(left: NumberValue, right: NumberValue, rightNode: Node, context: Context): void {
  if (right.re !== 0 || right.im !== 0) return
  if (left.re !== 0 || left.im !== 0) context.hint('infinite-result', rightNode)
}

/** A power of two values that are known already. */
export function raiseValues(base: Value, exponent: Value, context: Context): Value | Failure {
  if (base.kind === 'number' && exponent.kind === 'number') return onNumbers('^', base, exponent)
  if (base.kind === 'quantity' || exponent.kind === 'quantity')
    return operateOnQuantities('^', base, exponent, context, (a, b) => raiseValues(a, b, context))
  return binary('^', base, exponent, new Plainly(context))
}

/** `e^(j*30)` is 30 radians: said, since degrees were probably meant. */
export function hintBareExponent(exponent: Value, node: Node, context: Context): void {
  if (exponent.kind !== 'number' || exponent.pi || exponent.re !== 0) return
  const size = Math.abs(exponent.im)
  if (exponent.exact && size >= 10 && size % 5 === 0) context.hint('exponent-radians', node, { value: exponent.im })
}
