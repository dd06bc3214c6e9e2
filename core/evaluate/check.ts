import * as N from '../notation/nodes'
import { childrenOf } from '../notation/references'
import type { Node, United } from '../notation/tree'
import { UNITY } from '../units/unit'
import type { Unit } from '../units/unit'
import { factorOf, inUnit } from '../quantities/attach'
import { alike, atSide } from '../quantities/sums'
import { asTurn } from '../quantities/through'
import { bare } from '../values/quantity'
import { asAlgebra, hasUnknowns } from '../algebra/polyMatrix'
import { algebraAgrees, isAlgebraic } from '../algebra/ratio'
import { pointAt } from '../values/sweeps'
import * as C from '../numbers/complex'
import { normalAngle, angleOf } from '../values/make'
import { asMatrix, itemsOf, shapeText } from '../values/matrices'
import { inAngleUnit } from '../values/convert'
import type { AngleUnit } from '../values/convert'
import type { AngleValue, CheckValue, NumberValue, Value } from '../values/types'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import { inTime } from '../operators/context'
import type { Context } from '../operators/context'
import { commonAxis } from '../operators/lift'
import { realNumber } from '../kinds/kinds'

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
  readonly form: 'rectangular' | 'polar'
  readonly figures: number
}

/** What stands behind `within`. */
export interface Tolerance {
  readonly kind: 'tolerance'
  /** A real number or an angle, not negative. */
  readonly value: Value
  readonly node: Node
  readonly percent: boolean
}

/** Where the two sides stand in the line, and what is said of how near they must be. */
export interface Sides {
  readonly leftNode: Node | null
  readonly rightNode: Node | null
  readonly within: Tolerance | null
  readonly context: Context
  /** The unit that both sides are counted in; left out of plain numbers. */
  readonly unit?: Unit
}

/**
 * Compares two values. A literal on the right is compared to the last written place of each of its
 * parts; anything else to a relative 1e-9, or as `within` says. Beside an angle, and as the angle of a
 * literal in polar form, a bare number is read in the unit of the conventions.
 */
export function check(left: Value, right: Value, sides: Sides): CheckValue | Failure {
  if (left.kind === 'quantity' || right.kind === 'quantity') return checkQuantities(left, right, sides)
  if (left.kind === 'sweep' || right.kind === 'sweep') return checkSweeps(left, right, sides)
  const turns = bothAngles(left, right, sides)
  if (turns) return checkAngles(turns.left, turns.right, sides)
  const listed = checkLists(left, right, sides)
  if (listed) return listed
  const { within } = sides
  if (within?.value.kind === 'angle') return failureAt(within.node, failure('tolerance-angle'))
  const algebra = checkAlgebra(left, right)
  if (algebra) return algebra
  const arrays = checkArrays(left, right, sides)
  if (arrays) return arrays
  if (left.kind !== 'number' || right.kind !== 'number') {
    return failure('not-comparable', { left: left.kind, right: right.kind })
  }
  const places = within ? null : placesIn(sides.unit, writtenPlaces(sides.rightNode, sides.context))
  const figures = Math.min(agreeing(C.abs(C.subtract(left, right)), C.abs(right)), places?.figures ?? MOST_FIGURES)
  return { kind: 'check', pass: passes(left, right, within, places), figures, left, right }
}

/** Values with units: of one measure, counted in the unit that the right side is written in. */
function checkQuantities(left: Value, right: Value, sides: Sides): CheckValue | Failure {
  if (left.kind === 'angle' || right.kind === 'angle') {
    const [a, b] = [asTurn(left) ?? left, asTurn(right) ?? right]
    if (a.kind !== 'quantity' && b.kind !== 'quantity') return check(a, b, sides)
  }
  const measures = alike(left, right, 'compared')
  if ('code' in measures) return atSide(measures, sides.leftNode, sides.rightNode)
  const unit = writtenUnit(sides.rightNode) ?? UNITY
  const within = sides.within && toleranceIn(sides.within, right, unit)
  if (within && 'code' in within) return within
  const counted = (value: Value): Value => inUnit(bare(value), unit)
  const found = check(counted(left), counted(right), { ...sides, within, unit })
  return found.kind === 'failure' ? found : { ...found, left, right }
}

/** The first unit that a side is written in. */
function writtenUnit(node: Node | null): Unit | null {
  if (node === null) return null
  if (node.type === 'united') return node.unit.unit
  for (const child of childrenOf(node)) {
    const found = writtenUnit(child)
    if (found) return found
  }
  return null
}

/** A tolerance without a unit is in that of the right side. */
function toleranceIn(within: Tolerance, right: Value, unit: Unit): Tolerance | Failure {
  if (within.percent || within.value.kind !== 'quantity') return within
  const fits = alike(within.value, right, 'compared')
  return 'code' in fits ? failureAt(within.node, fits) : { ...within, value: inUnit(within.value.value, unit) }
}

/** Both sides as angles, where one of them is: a bare real number beside it is read in the unit of the conventions. */
function bothAngles(
  left: Value,
  right: Value,
  { leftNode, rightNode, context }: Sides,
): { readonly left: AngleValue; readonly right: AngleValue } | null {
  if (left.kind !== 'angle' && right.kind !== 'angle') return null
  const l = asAngle(left, leftNode, context)
  const r = asAngle(right, rightNode, context)
  return l && r ? { left: l, right: r } : null
}

function asAngle(value: Value, node: Node | null, context: Context): AngleValue | null {
  if (value.kind === 'angle') return value
  const real = realNumber(value)
  if (!real) return null
  if (node) context.bare(node, real)
  return inAngleUnit(real, context.angleUnit)
}

/** Lists with angles in them: entry by entry. */
function checkLists(left: Value, right: Value, sides: Sides): CheckValue | Failure | null {
  if (left.kind !== 'vector' || right.kind !== 'vector') return null
  if (![...left.items, ...right.items].some((item) => item.kind === 'angle')) return null
  const count = left.items.length
  if (count !== right.items.length)
    return failure('shapes-differ', { left: `${count} × 1`, right: `${right.items.length} × 1`, sign: '≈' })
  const [leftNodes, rightNodes] = [entryNodes(sides.leftNode, count), entryNodes(sides.rightNode, count)]
  let [pass, figures] = [true, MOST_FIGURES]
  for (const [k, item] of left.items.entries()) {
    const found = check(item, right.items[k] ?? item, {
      ...sides,
      leftNode: leftNodes[k] ?? null,
      rightNode: rightNodes[k] ?? null,
    })
    if (found.kind === 'failure') return found
    pass &&= found.pass
    figures = Math.min(figures, found.figures)
  }
  return { kind: 'check', pass, figures, left, right }
}

/** Sweeps: every point passes, and they agree to as many figures as the worst one, which is told. */
function checkSweeps(left: Value, right: Value, sides: Sides): CheckValue | Failure {
  const { rightNode, context } = sides
  const axis = commonAxis([left, right], rightNode ?? N.hole(0, 0), context)
  if ('kind' in axis) return axis
  let worst: CheckValue | null = null
  let worstAt = 0
  for (let k = 0; k < axis.values.length; k += 1) {
    if (!inTime(context.budget, k)) return failure('too-long')
    const at = (v: Value): Value => (v.kind === 'sweep' ? pointAt(v, k) : v)
    const found = check(at(left), at(right), sides)
    if (found.kind === 'failure') return found
    if (worst && (worst.pass ? 1 : 0) * 100 + worst.figures <= (found.pass ? 1 : 0) * 100 + found.figures) continue
    worst = found
    worstAt = k + 1
  }
  if (!worst) throw new Error('a sweep has a point')
  return { ...worst, point: worstAt }
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
function checkArrays(left: Value, right: Value, sides: Sides): CheckValue | Failure | null {
  const { rightNode: node, within, context } = sides
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
    const places = within ? null : placesIn(sides.unit, writtenPlaces(nodes[k] ?? null, context))
    // All entries are measured by the largest one: a 0 among them says nothing of figures.
    const difference = C.abs(C.subtract(x, y))
    pass &&= within || places ? passes(x, y, within, places) : difference <= RELATIVE * most
    figures = Math.min(figures, agreeing(difference, most))
    written = Math.max(written, places?.figures ?? MOST_FIGURES)
  })
  figures = Math.min(figures, written)
  return { kind: 'check', pass, figures, left, right }
}

/** Places in the unit that both sides are counted in. */
function placesIn(unit: Unit | undefined, places: Places | null): Places | null {
  if (!unit || !places) return places
  const factor = factorOf(unit).re
  return scaledPlaces(places, (x) => x / factor)
}

function scaledPlaces(places: Places, by: (x: number) => number): Places {
  return { ...places, re: by(places.re), im: by(places.im), magnitude: by(places.magnitude) }
}

/** The entries of a literal vector or matrix, row by row; none where it is computed. */
function entryNodes(node: Node | null, count: number): readonly Node[] {
  if (node === null) return []
  const inner = node.type === 'group' ? node.inner : node
  if (inner.type === 'united') return entryNodes(inner.operand, count).map((entry) => N.united(entry, inner.unit, entry.from, entry.to)) // prettier-ignore
  if (inner.type !== 'list') return []
  const entries = inner.entries.flatMap((e) => (e.type === 'list' ? e.entries : [e]))
  return entries.length === count ? entries : []
}

function passes(left: NumberValue, right: NumberValue, within: Tolerance | null, places: Places | null): boolean {
  const size = C.abs(right)
  const difference = C.abs(C.subtract(left, right))
  if (within) return difference <= allowed(within, size) * SLACK
  if (places?.form === 'rectangular') {
    // A part that is not written is 0 to a relative 1e-9 of the whole.
    const [re, im] = [places.re || RELATIVE * size, places.im || RELATIVE * size]
    return Math.abs(left.re - right.re) <= re * SLACK && Math.abs(left.im - right.im) <= im * SLACK
  }
  if (places?.form === 'polar') {
    const turn = normalAngle(angleOf(C.arg(left) - C.arg(right))).radians
    return Math.abs(C.abs(left) - size) <= places.magnitude * SLACK && Math.abs(turn) <= places.angle * SLACK
  }
  return difference <= RELATIVE * size
}

function allowed({ value, percent }: Tolerance, size: number): number {
  const amount = value.kind === 'number' ? value.re : NaN
  return percent ? (amount / 100) * size : amount
}

function checkAngles(left: AngleValue, right: AngleValue, { leftNode, rightNode, within, context }: Sides): CheckValue {
  const difference = Math.abs(normalAngle(angleOf(left.radians - right.radians)).radians)
  const size = Math.abs(right.radians)
  const places = within ? null : writtenAngle(rightNode, context)
  const limit = within ? allowedTurn(within, size, context) : (places?.angle ?? RELATIVE * size)
  // Figures are those of the number that is written: 20.04° and 20.0° agree to three.
  const bareRight = rightNode !== null && strip(rightNode).type === 'literal'
  const unit = bareRight ? context.angleUnit : (writtenAngleUnit(rightNode) ?? writtenAngleUnit(leftNode))
  const counted = unit === 'deg' ? 180 / Math.PI : 1
  const figures = Math.min(agreeing(difference * counted, size * counted), places?.figures ?? MOST_FIGURES)
  return { kind: 'check', pass: difference <= limit * SLACK, figures, left, right }
}

/** The first unit of an angle that a side is written in. */
function writtenAngleUnit(node: Node | null): AngleUnit | null {
  if (node === null) return null
  if (node.type === 'dms') return 'deg'
  if (node.type === 'postfix' && node.sign !== '!') return node.sign
  for (const child of childrenOf(node)) {
    const found = writtenAngleUnit(child)
    if (found) return found
  }
  return null
}

/** A bare tolerance of angles is in the unit of the conventions, as bare angles are. */
function allowedTurn(within: Tolerance, size: number, context: Context): number {
  if (within.percent) return allowed(within, size)
  return asAngle(within.value, within.node, context)?.radians ?? NaN
}

/** The places of an angle: written with its unit, or bare in the unit of the conventions. */
function writtenAngle(node: Node | null, context: Context): Pick<Places, 'angle' | 'figures'> | null {
  if (node === null) return null
  const plain = strip(node)
  const angle = anglePlaces(plain, context)
  return angle === null ? null : { angle, figures: angleFigures(plain) || MOST_FIGURES }
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
function writtenPlaces(node: Node | null, context: Context): Places | null {
  if (node === null) return null
  const none = { re: 0, im: 0, magnitude: 0, angle: 0 }
  const plain = strip(node)
  if (plain.type === 'united') return placesWithUnit(plain, context)
  if (plain.type === 'literal') {
    const half = halfUnit(plain.digits, scaleOf(plain))
    const imaginary = plain.letter !== 'none'
    const parts = imaginary ? { re: 0, im: half } : { re: half, im: 0 }
    return { ...none, ...parts, form: 'rectangular', figures: significant(plain.digits) }
  }
  if (plain.type === 'sum') return sumPlaces(plain.left, plain.right, context)
  if (plain.type !== 'polar') return null
  const size = strip(plain.magnitude)
  const angle = anglePlaces(strip(plain.angle), context)
  if (size.type !== 'literal' || angle === null) return null
  const figures = Math.max(significant(size.digits), angleFigures(strip(plain.angle)))
  return { ...none, magnitude: halfUnit(size.digits, scaleOf(size)), angle, form: 'polar', figures }
}

/** The places of a literal with a unit, in coherent units. */
function placesWithUnit({ operand, unit }: United, context: Context): Places | null {
  const places = writtenPlaces(operand, context)
  const factor = factorOf(unit.unit).re
  return places && scaledPlaces(places, (x) => x * factor)
}

function sumPlaces(left: Node, right: Node, context: Context): Places | null {
  // A number in rectangular form: one real and one imaginary part, not any sum.
  const imaginary = [strip(left), strip(right)].filter((n) => n.type === 'literal' && n.letter !== 'none')
  if (imaginary.length !== 1) return null
  const a = writtenPlaces(left, context)
  const b = writtenPlaces(right, context)
  if (a?.form !== 'rectangular' || b?.form !== 'rectangular') return null
  return { ...a, re: a.re + b.re, im: a.im + b.im, figures: Math.max(a.figures, b.figures) }
}

function angleFigures(node: Node): number {
  const inner = node.type === 'postfix' ? strip(node.operand) : node
  return inner.type === 'literal' ? significant(inner.digits) : 0
}

/** Half a unit of the last written place of an angle, in radians; `null` where it is computed. */
function anglePlaces(node: Node, context: Context): number | null {
  if (node.type === 'dms') {
    // The last place is the last one that was written: of the seconds, or of the minutes.
    const [digits, parts] = node.seconds === '' ? [node.minutes, 60] : [node.seconds, 3600]
    return (halfUnit(digits, 1) * Math.PI) / 180 / parts
  }
  if (node.type === 'literal' && node.letter === 'none') return unitOf(context) * halfUnit(node.digits, scaleOf(node))
  if (node.type !== 'postfix' || node.sign === '!') return null
  const inner = strip(node.operand)
  if (inner.type !== 'literal') return null
  const half = halfUnit(inner.digits, scaleOf(inner))
  return node.sign === 'deg' ? (half * Math.PI) / 180 : half
}

function unitOf(context: Context): number {
  return context.angleUnit === 'deg' ? Math.PI / 180 : 1
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
