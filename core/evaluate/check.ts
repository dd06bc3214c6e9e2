import type { Node } from '../notation/tree'
import { asAlgebra, hasUnknowns } from '../algebra/polyMatrix'
import { algebraAgrees, isAlgebraic } from '../algebra/ratio'
import { pointAt } from '../values/sweeps'
import * as C from '../numbers/complex'
import { normalAngle, angleOf } from '../values/make'
import { asMatrix, itemsOf, shapeText } from '../values/matrices'
import type { CheckValue, Failure, NumberValue, Value } from '../values/value'
import { failure } from '../values/value'
import { inTime } from './context'
import type { Context } from './context'
import { commonAxis } from './lift'

/** Checks compare two values: to the written places of a literal, or to a relative 1e-9. */

const RELATIVE = 1e-9
/** The most figures that two doubles can be said to agree to. */
const MOST_FIGURES = 15
/** "Half a unit, inclusive" on doubles: the tie itself must not fail by rounding. */
const SLACK = 1 + 1e-9

interface Places {
  /** Half a unit of the last written place, for each part. */
  readonly re: number
  readonly im: number
  readonly magnitude: number
  readonly angle: number
  readonly form: 'rectangular' | 'polar' | 'angle'
  readonly figures: number
}

export interface Tolerance {
  readonly amount: number
  readonly percent: boolean
}

export function check(
  left: Value,
  right: Value,
  rightNode: Node,
  within: Tolerance | null,
  context: Context,
): CheckValue | Failure {
  if (left.kind === 'angle' && right.kind === 'angle')
    return checkAngles(left.radians, right.radians, left, right, rightNode, within)
  if (left.kind === 'sweep' || right.kind === 'sweep') return checkSweeps(left, right, rightNode, within, context)
  const algebra = checkAlgebra(left, right)
  if (algebra) return algebra
  const arrays = checkArrays(left, right, rightNode, within)
  if (arrays) return arrays
  if (left.kind !== 'number' || right.kind !== 'number') {
    return failure('not-comparable', { left: left.kind, right: right.kind })
  }
  const places = within ? null : writtenPlaces(rightNode)
  const figures = Math.min(agreeing(C.abs(C.subtract(left, right)), C.abs(right)), places?.figures ?? MOST_FIGURES)
  return { kind: 'check', pass: passes(left, right, within, places), figures, left, right }
}

/** Sweeps: every point passes, and they agree to as many figures as the worst one, which is told. */
function checkSweeps(
  left: Value,
  right: Value,
  node: Node,
  within: Tolerance | null,
  context: Context,
): CheckValue | Failure {
  const axis = commonAxis([left, right], node, context)
  if ('kind' in axis) return axis
  let worst: CheckValue | null = null
  let worstAt = 0
  for (let k = 0; k < axis.values.length; k += 1) {
    if (!inTime(context.budget, k)) return failure('too-long')
    const [a, b] = [left, right].map((v) => (v.kind === 'sweep' ? pointAt(v, k) : v))
    const found = a && b ? check(a, b, node, within, context) : failure('wrong-kind')
    if (found.kind === 'failure') return { ...found, data: { ...found.data, point: k + 1 } }
    if (worst && (worst.pass ? 1 : 0) * 100 + worst.figures <= (found.pass ? 1 : 0) * 100 + found.figures) continue
    worst = found
    worstAt = k + 1
  }
  return worst ? { ...worst, point: worstAt } : failure('wrong-kind')
}

/** Polynomials: their coefficients agree to a relative 1e-9. */
function checkAlgebra(left: Value, right: Value): CheckValue | null {
  if (left.kind === 'polynomial' || right.kind === 'polynomial') {
    if (!isAlgebraic(left) || !isAlgebraic(right)) return null
    const pass = algebraAgrees(left, right)
    return { kind: 'check', pass, figures: pass ? MOST_FIGURES : 0, left, right }
  }
  const [a, b] = hasUnknowns(left) || hasUnknowns(right) ? [asAlgebra(left), asAlgebra(right)] : [null, null]
  if (!a || !b || a.rows !== b.rows || a.cols !== b.cols) return null
  const pass = a.items.every((item, k) => algebraAgrees(item, b.items[k] ?? item))
  return { kind: 'check', pass, figures: pass ? MOST_FIGURES : 0, left, right }
}

/** Vectors and matrices: every entry passes, and they agree to as many figures as the worst entry. */
function checkArrays(left: Value, right: Value, node: Node, within: Tolerance | null): CheckValue | Failure | null {
  const isArray = (v: Value): boolean => v.kind === 'vector' || v.kind === 'matrix'
  if (!isArray(left) || !isArray(right)) return null
  const [a, b] = [asMatrix(left), asMatrix(right)]
  if (!a || !b) return failure('not-comparable', { left: left.kind, right: right.kind })
  if (a.rows !== b.rows || a.cols !== b.cols)
    return failure('shapes-differ', { left: shapeText(a), right: shapeText(b), sign: '≈' })
  const nodes = entryNodes(node, a.rows * a.cols)
  const others = itemsOf(b)
  const most = Math.max(0, ...others.map((z) => C.abs(z)))
  let pass = true
  let figures = MOST_FIGURES
  let written = 0
  itemsOf(a).forEach((x, k) => {
    const y = others[k] ?? x
    const places = within ? null : writtenPlaces(nodes[k] ?? node)
    // All entries are measured by the largest one: a 0 among them says nothing of figures.
    const difference = C.abs(C.subtract(x, y))
    pass &&= within || places ? passes(x, y, within, places) : difference <= RELATIVE * most
    figures = Math.min(figures, agreeing(difference, most))
    written = Math.max(written, places?.figures ?? MOST_FIGURES)
  })
  figures = Math.min(figures, written)
  return { kind: 'check', pass, figures, left, right }
}

/** The entries of a literal vector or matrix, row by row; none where it is computed. */
function entryNodes(node: Node, count: number): readonly Node[] {
  const inner = node.type === 'group' ? node.inner : node
  if (inner.type !== 'list') return []
  const entries = inner.entries.flatMap((e) => (e.type === 'list' ? e.entries : [e]))
  return entries.length === count ? entries : []
}

function passes(left: NumberValue, right: NumberValue, within: Tolerance | null, places: Places | null): boolean {
  const difference = C.abs(C.subtract(left, right))
  if (within) return difference <= (within.percent ? (within.amount / 100) * C.abs(right) : within.amount) * SLACK
  if (places?.form === 'rectangular') {
    return Math.abs(left.re - right.re) <= places.re * SLACK && Math.abs(left.im - right.im) <= places.im * SLACK
  }
  if (places?.form === 'polar') {
    const turn = normalAngle(angleOf(C.arg(left) - C.arg(right))).radians
    return Math.abs(C.abs(left) - C.abs(right)) <= places.magnitude * SLACK && Math.abs(turn) <= places.angle * SLACK
  }
  return difference <= RELATIVE * C.abs(right)
}

function checkAngles(
  l: number,
  r: number,
  left: Value,
  right: Value,
  node: Node,
  within: Tolerance | null,
): CheckValue {
  const difference = Math.abs(normalAngle(angleOf(l - r)).radians)
  const places = within ? null : writtenPlaces(node)
  const limit = within
    ? within.percent
      ? (within.amount / 100) * Math.abs(r)
      : within.amount
    : (places?.angle ?? RELATIVE * Math.abs(r))
  const figures = Math.min(agreeing(difference, Math.abs(r)), places?.figures ?? MOST_FIGURES)
  return { kind: 'check', pass: difference <= limit * SLACK, figures, left, right }
}

/** Significant figures to which a value of this size is known with this error. */
function agreeing(error: number, size: number): number {
  if (Number.isNaN(error)) return 0
  if (error === 0) return MOST_FIGURES
  if (size === 0) return 0
  const leading = Math.floor(Math.log10(size))
  const figures = Math.floor(1 + leading + Math.log10(0.5) - Math.log10(error) + 1e-9)
  return Math.max(0, Math.min(MOST_FIGURES, figures))
}

/** The places a literal is written to; `null` where the right side is no literal. */
function writtenPlaces(node: Node): Places | null {
  const none = { re: 0, im: 0, magnitude: 0, angle: 0 }
  const plain = strip(node)
  if (plain.type === 'literal') {
    const half = halfUnit(plain.digits, scaleOf(plain))
    const imaginary = plain.letter !== 'none'
    const parts = imaginary ? { re: 0, im: half } : { re: half, im: 0 }
    return { ...none, ...parts, form: 'rectangular', figures: significant(plain.digits) }
  }
  if (plain.type === 'sum') return sumPlaces(plain.left, plain.right)
  if (plain.type === 'polar') {
    const size = strip(plain.magnitude)
    const angle = anglePlaces(strip(plain.angle))
    if (size.type !== 'literal' || angle === null) return null
    const figures = Math.max(significant(size.digits), angleFigures(strip(plain.angle)))
    return { ...none, magnitude: halfUnit(size.digits, scaleOf(size)), angle, form: 'polar', figures }
  }
  const angle = anglePlaces(plain)
  return angle === null ? null : { ...none, angle, form: 'angle', figures: MOST_FIGURES }
}

function sumPlaces(left: Node, right: Node): Places | null {
  // A number in rectangular form: one real and one imaginary part, not any sum.
  const imaginary = [strip(left), strip(right)].filter((n) => n.type === 'literal' && n.letter !== 'none')
  if (imaginary.length !== 1) return null
  const a = writtenPlaces(left)
  const b = writtenPlaces(right)
  if (a?.form !== 'rectangular' || b?.form !== 'rectangular') return null
  return { ...a, re: a.re + b.re, im: a.im + b.im, figures: Math.max(a.figures, b.figures) }
}

function angleFigures(node: Node): number {
  const inner = node.type === 'postfix' ? strip(node.operand) : node
  return inner.type === 'literal' ? significant(inner.digits) : 0
}

function anglePlaces(node: Node): number | null {
  if (node.type !== 'postfix' || node.sign === '!') return null
  const inner = strip(node.operand)
  if (inner.type !== 'literal') return null
  const half = halfUnit(inner.digits, 1)
  return node.sign === 'deg' ? (half * Math.PI) / 180 : half
}

/** Without brackets and signs. */
function strip(node: Node): Node {
  if (node.type === 'group') return strip(node.inner)
  return node.type === 'sign' ? strip(node.operand) : node
}

/** What a prefix multiplies by: the value over its digits. */
function scaleOf(node: Extract<Node, { type: 'literal' }>): number {
  const value = node.value
  const written = Number(node.digits)
  if (value.kind !== 'number' || written === 0) return 1
  return Math.abs((value.re + value.im) / written)
}

function halfUnit(digits: string, scale: number): number {
  const [mantissa = '', exponent = '0'] = digits.split(/e/i)
  const decimals = mantissa.includes('.') ? mantissa.length - mantissa.indexOf('.') - 1 : 0
  return 0.5 * 10 ** (Number(exponent) - decimals) * scale
}

function significant(digits: string): number {
  const bare = (digits.split(/e/i)[0] ?? '').replace('.', '').replace(/^0+/, '')
  return Math.max(1, bare.length)
}
