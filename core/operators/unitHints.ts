import { childrenOf } from '../notation/references'
import type { Node } from '../notation/tree'
import { NONE } from '../units/dimension'
import { PER_SECOND, POWER } from '../units/marks'
import { Measure } from '../units/measure'
import { quantityWords } from '../units/named'
import { unit } from '../units/unit'
import { measureOf } from '../quantities/shape'
import type { Failure } from '../values/failure'
import { bare, quantity } from '../values/quantity'
import type { NumberValue, Value } from '../values/types'
import type { Context } from './context'
import type { BinarySign } from './rules'

/** Hints at values whose units are right and were perhaps not meant so. */

/** What letters stand for in the trade, with the unit that problem sheets give it in (IEC 60027-1). */
const CUSTOMARY: ReadonlyMap<string, string> = new Map([
  ['R', 'Ω'], ['X', 'Ω'], ['Z', 'Ω'], ['L', 'mH'], ['C', 'µF'], ['V', 'V'], ['U', 'V'], ['I', 'A'], ['f', 'Hz'],
  ['w', 'rad/s'], ['ω', 'rad/s'], ['omega', 'rad/s'],
]) // prettier-ignore

/** A kept name without a unit beside a quantity: said of letters that always have one. */
export function hintNameless(left: Value, right: Value, leftNode: Node, rightNode: Node, context: Context): void {
  nameless(left, right, leftNode, context)
  nameless(right, left, rightNode, context)
}

function nameless(value: Value, other: Value, node: Node, context: Context): void {
  if (value.kind !== 'number' || node.type !== 'name' || context.pointwise) return
  const symbol = CUSTOMARY.get(node.name.replace(/(?:_.*|\d+)$/, ''))
  const measure = measureOf(other)
  if (symbol === undefined || measure.dimension === NONE) return
  context.hint('name-without-unit', node, {
    name: node.name,
    value: context.written(value),
    unit: symbol,
    quantity: quantityWords(measure),
  })
}

const OHM = unit('Ω').measure.dimension
const SIEMENS = unit('S').measure.dimension

/** What is to be said of an operator between values with units. */
export function hintUnits(
  sign: BinarySign,
  found: Value | Failure,
  left: Value,
  right: Value,
  leftNode: Node,
  rightNode: Node,
  context: Context,
): void {
  if (sign === '+' || sign === '-') hintWattsAndVars(left, right, leftNode, context)
  if (sign !== '*' && sign !== '/') return
  hintNearPi(sign, left, right, leftNode, rightNode, context)
  if (sign === '/') hintPowerByCycles(left, right, rightNode, context)
  hintCycles(found, left, right, leftNode, rightNode, context)
}

/** j·f·L, 1 + j·f·R·C: a frequency where the angle rate belongs, in whatever form the rest came; said once a term. */
function hintCycles(
  found: Value | Failure,
  left: Value,
  right: Value,
  leftNode: Node,
  rightNode: Node,
  context: Context,
): void {
  if (found.kind === 'failure') return
  const before = isReactance(left) ? leftNode : isReactance(right) ? rightNode : null
  const now = isReactance(found)
  // j·f·L·2π: the factor that was missing came later.
  if (before && !now && found.kind === 'quantity') context.untold('cycles-for-rate', before)
  if (before || !now) return
  const named = frequencyIn(leftNode, context) ?? frequencyIn(rightNode, context)
  const direct = isFrequency(left) ? { node: leftNode, value: left } : isFrequency(right) ? { node: rightNode, value: right } : null // prettier-ignore
  const about = named ?? direct
  if (about) context.hint('cycles-for-rate', about.node, { text: textOf(about.node, about.value, context) })
}

/** True of what is imaginary, has turns among its factors, and measures what jωL, jωC or jωRC do. */
function isReactance(value: Value): boolean {
  if (value.kind !== 'quantity' || !(value.measure instanceof Measure) || value.measure.turn !== 'cycles') return false
  const { dimension } = value.measure
  return isImaginary(value.value) && (dimension === OHM || dimension === SIEMENS || dimension === NONE)
}

function isImaginary(value: Value): boolean {
  const inner = bare(value)
  return (inner.kind === 'number' && inner.im !== 0) || (inner.kind === 'sweep' && inner.complex)
}

function isFrequency(value: Value): boolean {
  const measure = measureOf(value)
  return measure.dimension === PER_SECOND && measure.turn === 'cycles'
}

/** The name, or the numeral, of a frequency among the factors of a term. */
function frequencyIn(node: Node, context: Context): { readonly node: Node; readonly value: Value } | null {
  if (node.type === 'group') return frequencyIn(node.inner, context)
  if (node.type === 'product') return frequencyIn(node.left, context) ?? frequencyIn(node.right, context)
  const value = node.type === 'name' ? context.lookup(node.name) : null
  return value && isFrequency(value) ? { node, value } : null
}

function textOf(node: Node, value: Value, context: Context): string {
  return node.type === 'name' ? node.name : context.written(value)
}

/** f·t in an argument: turns, where radians belong. */
export function hintTurns(value: Value, node: Node, context: Context): void {
  if (value.kind !== 'quantity' || !(value.measure instanceof Measure) || context.pointwise) return
  const { dimension, turn } = value.measure
  if (dimension !== NONE || turn !== 'cycles') return
  const about = frequencyIn(node, context)
  if (about) context.hint('cycles-for-rate', about.node, { text: textOf(about.node, about.value, context) })
}

/** 3.14 or 6.28 where π would turn hertz into an angle rate, or an angle rate into hertz: as a number it does neither. */
function hintNearPi(
  sign: '*' | '/',
  left: Value,
  right: Value,
  leftNode: Node,
  rightNode: Node,
  context: Context,
): void {
  if (context.pointwise) return
  const [node, number, other] = left.kind === 'number' ? [leftNode, left, right] : [rightNode, right, left]
  if (number.kind !== 'number' || number.pi !== null) return
  const turns = nearPi(number)
  const below = sign === '/' && number === right
  if (turns === null || !turnsWith(sign, below, measureOf(other))) return
  context.hint('near-pi', node, { text: textOf(node, number, context), turns, below })
}

/** Which multiple of π a number that is none was perhaps meant for. */
function nearPi({ re, im }: NumberValue): 'pi' | '2pi' | null {
  const size = im === 0 ? Math.abs(re) : re === 0 ? Math.abs(im) : 0
  const near = (to: number): boolean => Math.abs(size / to - 1) < 6e-4
  return near(Math.PI) ? 'pi' : near(2 * Math.PI) ? '2pi' : null
}

/** True where π in its place would have made a rate of cycles, or cycles of a rate. */
function turnsWith(sign: '*' | '/', below: boolean, { dimension, turn }: Measure): boolean {
  if (dimension === NONE) return turn === 'cycles'
  return sign === '*' ? turn === 'cycles' : below && turn === 'rate'
}

/** Power by turns is the energy of a turn; rarely was that asked for. */
function hintPowerByCycles(left: Value, right: Value, rightNode: Node, context: Context): void {
  if (context.pointwise || measureOf(left).dimension !== POWER || !isFrequency(right)) return
  context.hint('power-by-cycles', rightNode, { text: textOf(inner(rightNode), right, context) })
}

const inner = (node: Node): Node => (node.type === 'group' ? inner(node.inner) : node)

/** P + Q of real numbers. */
function hintWattsAndVars(left: Value, right: Value, node: Node, context: Context): void {
  const sorts = [left, right].map((value) => measureOf(value))
  if (context.pointwise || sorts.some(({ dimension }) => dimension !== POWER)) return
  const [a, b] = sorts.map(({ power }) => power)
  const mixed = (a === 'W' && b === 'var') || (a === 'var' && b === 'W')
  if (mixed && !isImaginary(left) && !isImaginary(right)) context.hint('watts-and-vars', node)
}

/** P·tan φ is reactive power. */
export function reactive(found: Value | Failure, leftNode: Node, rightNode: Node): Value | Failure {
  if (found.kind !== 'quantity' || !(found.measure instanceof Measure) || found.measure.power !== 'W') return found
  if (!hasTangent(leftNode) && !hasTangent(rightNode)) return found
  const { unit, unknowns } = found
  const measure = found.measure.with({ power: 'var' })
  return quantity(found.value, measure, { unit: unit?.measure.power === 'W' ? null : unit, unknowns })
}

function hasTangent(node: Node): boolean {
  return (node.type === 'apply' && node.builtIn && node.name === 'tan') || childrenOf(node).some(hasTangent)
}
