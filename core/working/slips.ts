import * as N from '../notation/nodes'
import { withChildren } from '../notation/rebuilt'
import { childrenOf } from '../notation/references'
import type { Node } from '../notation/tree'
import { isComplex } from '../format/number'
import { Measure } from '../units/measure'
import { angleOf, complexNumber, real } from '../values/make'
import { asMatrix } from '../values/matrices'
import { bare } from '../values/quantity'

import type { Failure } from '../values/failure'
import type { NumberValue, Value } from '../values/types'
import { unbracketed } from './seen'
import { findFunction } from '../functions/registry'
import type { FunctionHead } from '../signatures/definition'
import { call, difference, grouped, inUnitOf, minus, over, power, sum, times, valued, whole } from './terms'

/**
 * The slips that students make, each as a change of the right term: what it comes to then is what the slip gives. A
 * slip is named where the next line of a working has that value.
 */
const SLIPS = {
  'sign-of-j-squared': 'j·j was taken for +1: it is −1.',
  'conjugate-forgotten': 'The conjugate was forgotten.',
  'degrees-for-radians': 'An angle was read in the other unit: degrees for radians, or radians for degrees.',
  'wrong-quadrant': 'The angle lies in the opposite quadrant: 180° were not added or taken away.',
  'parts-added': 'The parts were added: a magnitude is √(a² + b²).',
  'parallel-as-series': 'What is in parallel was added as though it were in series.',
  'row-for-column': 'Rows and columns were exchanged.',
  'minus-before-bracket': 'The minus before the bracket belongs to every term in it.',
  'square-of-negative': '−2² and (−2)² were taken for one another: the power comes first.',
  prefix: 'A prefix was lost or doubled: the value is off by thousands.',
  'two-pi': 'A factor 2π is missing or too many: ω = 2πf.',
  'root-two': 'A factor √2 is missing or too many: between peak and effective value.',
  'root-three': 'A factor √3 is missing or too many: between phase and line quantities.',
  reciprocal: 'The reciprocal was forgotten, or taken once too often.',
  'rounded-on': 'A rounded figure was carried on: keep all figures until the end.',
} as const

export type Slip = keyof typeof SLIPS
export const ALL_SLIPS: readonly Slip[] = Object.keys(SLIPS) as Slip[]
export const slipWords = (slip: Slip): string => SLIPS[slip]

export interface Variant {
  readonly slip: Slip
  readonly node: Node
}

type Evaluate = (node: Node) => Value | Failure

/** The term with each slip made once, in each place where it can be made. */
export function* variants(node: Node, next: Node, evaluate: Evaluate): Generator<Variant> {
  yield* inPlaces(node, evaluate, (n) => n)
  yield* ofWhole(node, next, evaluate)
}

function* inPlaces(node: Node, evaluate: Evaluate, wrap: (node: Node) => Node): Generator<Variant> {
  for (const { slip, node: changed } of at(node, evaluate)) yield { slip, node: wrap(inUnitOf(changed, plainMeasure(changed, node, evaluate))) } // prettier-ignore
  const children = childrenOf(node)
  for (const [k, child] of children.entries())
    yield* inPlaces(child, evaluate, (inner) => wrap(withChildren(node, children.map((c, n) => (n === k ? inner : c))))) // prettier-ignore
}

/** The unit that a figure has lost which was worked out without it. */
function plainMeasure(changed: Node, node: Node, evaluate: Evaluate): Measure | null {
  if (changed.type !== 'valued' || changed.value.kind === 'quantity') return null
  const value = evaluate(node)
  return value.kind === 'quantity' && value.measure instanceof Measure ? value.measure : null
}

function numberAt(node: Node, evaluate: Evaluate): NumberValue | null {
  const value = evaluate(node)
  if (value.kind === 'failure') return null
  const inner = bare(value)
  return inner.kind === 'number' && Number.isFinite(inner.re) && Number.isFinite(inner.im) ? inner : null
}

/** What may go wrong at a term itself. */
function at(node: Node, evaluate: Evaluate): readonly Variant[] {
  switch (node.type) {
    case 'product':
      return node.sign === '/' ? quotientSlips(node.left, node.right, evaluate) : productSlips(node.left, node.right, evaluate) // prettier-ignore
    case 'power':
      return powerSlips(node.base, node.exponent, evaluate)
    case 'sign':
      return signSlips(node.operand)
    case 'sum':
      return node.sign === '-' ? bracketSlips(node.left, node.right) : []
    case 'parallel':
      return [{ slip: 'parallel-as-series', node: grouped(sum(node.left, node.right)) }]
    case 'mark':
      if (node.sign === '*') return [{ slip: 'conjugate-forgotten', node: node.operand }]
      return [
        { slip: 'row-for-column', node: node.operand },
        ...(node.sign === 'H' ? [{ slip: 'conjugate-forgotten' as const, node: N.mark('T', node.operand, false, 0, 0) }] : []),
      ] // prettier-ignore
    case 'bars':
      return magnitudeSlips(node.inner, evaluate)
    case 'polar':
      return polarSlips(node.magnitude, node.angle, evaluate)
    case 'apply':
      return node.builtIn && !node.raised ? callSlips(node.name, node.args, evaluate) : []
    default:
      return []
  }
}

/** (a + jb)(c + jd) with j² = +1. */
function productSlips(left: Node, right: Node, evaluate: Evaluate): readonly Variant[] {
  const [x, y] = [numberAt(left, evaluate), numberAt(right, evaluate)]
  if (x && y)
    return x.im !== 0 && y.im !== 0
      ? [{ slip: 'sign-of-j-squared', node: valued(complexNumber({ re: x.re * y.re + x.im * y.im, im: x.re * y.im + x.im * y.re })) }] // prettier-ignore
      : []
  const [a, b] = [evaluate(left), evaluate(right)]
  if (a.kind === 'failure' || b.kind === 'failure' || bare(a).kind !== 'matrix' || !asMatrix(bare(b))) return []
  const exchanged: Variant[] = [{ slip: 'row-for-column', node: times(N.mark('T', left, false, 0, 0), right) }]
  if (bare(b).kind === 'matrix') exchanged.push({ slip: 'row-for-column', node: times(left, N.mark('T', right, false, 0, 0)) }) // prettier-ignore
  return exchanged
}

/** Not the conjugate of the divisor, but the divisor itself; j² = +1 in either product. */
function quotientSlips(left: Node, right: Node, evaluate: Evaluate): readonly Variant[] {
  const [x, y] = [numberAt(left, evaluate), numberAt(right, evaluate)]
  if (!x || !y || y.im === 0) return []
  const square = y.re * y.re + y.im * y.im
  const share = (re: number, im: number, by: number): Node => valued(complexNumber({ re: re / by, im: im / by }))
  const found: Variant[] = [
    { slip: 'conjugate-forgotten', node: share(x.re * y.re - x.im * y.im, x.re * y.im + x.im * y.re, square) },
  ]
  const [re, im] = [x.re * y.re - x.im * y.im, x.im * y.re - x.re * y.im]
  if (x.im !== 0) found.push({ slip: 'sign-of-j-squared', node: share(re, im, square) })
  const less = y.re * y.re - y.im * y.im
  if (less !== 0) found.push({ slip: 'sign-of-j-squared', node: share(x.re * y.re + x.im * y.im, im, less) })
  return found
} // prettier-ignore

/** (−2)² as −2², and a square with j² = +1. */
function powerSlips(base: Node, exponent: Node, evaluate: Evaluate): readonly Variant[] {
  const inner = unbracketed(base)
  const n = numberAt(exponent, evaluate)
  const found: Variant[] = []
  if (inner.type === 'sign' && inner.sign === '-' && base.type === 'group') found.push({ slip: 'square-of-negative', node: minus(power(inner.operand, exponent)) }) // prettier-ignore
  const z = numberAt(base, evaluate)
  if (n?.re === 2 && n.im === 0 && z && z.im !== 0) found.push({ slip: 'sign-of-j-squared', node: valued(complexNumber({ re: z.re * z.re + z.im * z.im, im: 2 * z.re * z.im })) }) // prettier-ignore
  return found
}

/** −2² as (−2)², and −(a + b) as −a + b. */
function signSlips(operand: Node): readonly Variant[] {
  const inner = unbracketed(operand)
  if (inner.type === 'power') return [{ slip: 'square-of-negative', node: power(grouped(minus(inner.base)), inner.exponent) }] // prettier-ignore
  if (inner.type === 'sum') return [{ slip: 'minus-before-bracket', node: sum(minus(inner.left), inner.right, inner.sign) }] // prettier-ignore
  return []
}

/** a − (b + c) as a − b + c. */
function bracketSlips(left: Node, right: Node): readonly Variant[] {
  const inner = unbracketed(right)
  if (right.type !== 'group' || inner.type !== 'sum') return []
  return [{ slip: 'minus-before-bracket', node: sum(difference(left, inner.left), inner.right, inner.sign) }]
}

function magnitudeSlips(inner: Node, evaluate: Evaluate): readonly Variant[] {
  const value = evaluate(inner)
  if (value.kind === 'failure') return []
  const of = bare(value)
  const parts = of.kind === 'number' && isComplex(of) ? [of.re, of.im] : of.kind === 'vector' ? of.items.flatMap((z) => (z.kind === 'number' && z.im === 0 ? [z.re] : [])) : [] // prettier-ignore
  if (parts.length < 2 || (of.kind === 'vector' && parts.length !== of.items.length)) return []
  const plain = parts.reduce((a, b) => a + b, 0)
  const sizes = parts.reduce((a, b) => a + Math.abs(b), 0)
  return [plain, sizes].map((total) => ({ slip: 'parts-added' as const, node: valued(real(total)) }))
}

/** An angle in the other unit: its number of degrees as radians, its radians as degrees. */
function otherUnits(angle: Node, evaluate: Evaluate): readonly Node[] {
  const value = evaluate(call('radians', angle))
  if (value.kind !== 'number') return []
  const degrees = (value.re * 180) / Math.PI
  return [valued(angleOf(degrees)), valued(angleOf((value.re * Math.PI) / 180))]
}

function polarSlips(magnitude: Node, angle: Node, evaluate: Evaluate): readonly Variant[] {
  return otherUnits(angle, evaluate).map((node) => ({ slip: 'degrees-for-radians' as const, node: N.polar(magnitude, node, 0, 0) })) // prettier-ignore
}

/** True of functions of an angle; what only writes it in another unit has none to be mistaken. */
const takesAngle = (of: FunctionHead | null): boolean => of?.parameters[0]?.needs === 'angle' && of.idleIn === undefined

function callSlips(name: string, args: readonly Node[], evaluate: Evaluate): readonly Variant[] {
  const [first] = args
  if (!first) return []
  const again = (node: Node): Node => call(name, node, ...args.slice(1))
  const definition = findFunction(name)
  if (takesAngle(definition)) return otherUnits(first, evaluate).map((node) => ({ slip: 'degrees-for-radians', node: again(node) })) // prettier-ignore
  if (definition?.givesAngle) return givenAngleSlips(call(name, ...args), name, evaluate)
  switch (name) {
    case 'conj':
      return [{ slip: 'conjugate-forgotten', node: first }]
    case 'abs':
    case 'norm':
      return magnitudeSlips(first, evaluate)
    case 'par':
      return [{ slip: 'parallel-as-series', node: args.slice(1).reduce((left, right) => sum(left, right), first) }]
    case 'transpose':
      return [{ slip: 'row-for-column', node: first }]
    default:
      return []
  }
}

/** An angle that is half a turn off, or taken in the other unit. */
function givenAngleSlips(node: Node, name: string, evaluate: Evaluate): readonly Variant[] {
  const value = evaluate(node)
  if (value.kind !== 'angle') return []
  const found: Variant[] = []
  if (name === 'arg' || name === 'arctan2')
    for (const by of [Math.PI, -Math.PI]) found.push({ slip: 'wrong-quadrant', node: valued(angleOf(value.radians + by)) })
  const degrees = (value.radians * 180) / Math.PI
  for (const radians of [degrees, (value.radians * Math.PI) / 180]) found.push({ slip: 'degrees-for-radians', node: valued(angleOf(radians)) }) // prettier-ignore
  return found
} // prettier-ignore

/** What may have happened to the result as a whole. */
function* ofWhole(node: Node, next: Node, evaluate: Evaluate): Generator<Variant> {
  const value = evaluate(node)
  if (value.kind === 'failure') return
  const inner = bare(value)
  if (inner.kind === 'matrix' && inner.rows === inner.cols) yield { slip: 'row-for-column', node: N.mark('T', valued(value), false, 0, 0) } // prettier-ignore
  if (inner.kind !== 'number' || (inner.re === 0 && inner.im === 0)) return
  const result = valued(value)
  const scaled = function* (slip: Slip, factor: number): Generator<Variant> {
    yield { slip, node: times(result, valued(real(factor))) }
    yield { slip, node: over(result, valued(real(factor))) }
  }
  // Turned by half a turn: an angle by the arc tangent alone.
  if (inner.im !== 0 && unbracketed(next).type === 'polar') yield { slip: 'wrong-quadrant', node: minus(result) }
  for (const k of [1e3, 1e6, 1e9, 1e12]) yield* scaled('prefix', k)
  yield* scaled('two-pi', 2 * Math.PI)
  yield* scaled('root-two', Math.SQRT2)
  yield* scaled('root-three', Math.sqrt(3))
  if (value.kind === 'number') yield { slip: 'reciprocal', node: over(whole(1), result) }
}

/** Significant figures to which a student may have rounded on the way. */
const ROUNDED_TO = [2, 3, 4]

/** The term with one of the values on its way rounded. */
export function* roundedVariants(node: Node, evaluate: Evaluate): Generator<Variant> {
  yield* roundedIn(node, evaluate, (n) => n, true)
}

function* roundedIn(node: Node, evaluate: Evaluate, wrap: (node: Node) => Node, isWhole: boolean): Generator<Variant> {
  const children = childrenOf(node)
  const operation = children.length > 0 && node.type !== 'group' && node.type !== 'list'
  if (operation && !isWhole) {
    const z = numberAt(node, evaluate)
    if (z)
      for (const digits of ROUNDED_TO) {
        const cut = (x: number): number => Number(x.toPrecision(digits))
        if (cut(z.re) === z.re && cut(z.im) === z.im) continue
        yield { slip: 'rounded-on', node: wrap(valued(isComplex(z) ? complexNumber({ re: cut(z.re), im: cut(z.im) }) : real(cut(z.re)))) } // prettier-ignore
      }
  }
  for (const [k, child] of children.entries())
    yield* roundedIn(child, evaluate, (inner) => wrap(withChildren(node, children.map((c, n) => (n === k ? inner : c)))), isWhole && node.type === 'group') // prettier-ignore
}
