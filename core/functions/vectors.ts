import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { isZero } from '../values/beyond'
import { binary, Plainly } from '../operators/rules'
import type { Context } from '../operators/context'
import {
  angleOf, angleOfTurns, complexNumber, exactReal, fromComponents, integer, real, vector,
} from '../values/make' // prettier-ignore
import { asMatrix, itemsOf } from '../values/matrices'
import { exponentFor } from '../linear/scaling'
import { spectralNorm } from '../matrices/linearAlgebra'
import { complexTimesPowerOfTwo } from '../numbers/scale'
import { euclideanNorm, mapVector } from '../values/vectors'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, Value, VectorValue } from '../values/types'
import { keep, moved, ratio, scalarProduct } from './measures'
import { crossProduct, eachUniform, firstUniform } from './otherMeasures'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'
import { conjugate } from '../values/arithmetic'

/** The chapter on vectors. */

function numbersOf(v: VectorValue): NumberValue[] | Failure {
  const matrix = asMatrix(v)
  return matrix ? itemsOf(matrix) : failure('entries-are-numbers', { kind: v.items[0]?.kind ?? 'text' })
}

function pair([first, second]: readonly [VectorValue, VectorValue]): [NumberValue[], NumberValue[]] | Failure {
  const u = numbersOf(first)
  if (!Array.isArray(u)) return u
  const v = numbersOf(second)
  if (!Array.isArray(v)) return v
  return u.length === v.length ? [u, v] : failure('lengths-differ', { left: u.length, right: v.length })
}

/** Σ ū·v; rounded numbers near the ends of the range are scaled first, so that only the sum counts. */
function dotOf(u: readonly NumberValue[], v: readonly NumberValue[]): NumberValue | Failure {
  const [p, q] = [exponentOf(u), exponentOf(v)]
  if (p === 0 && q === 0) return plainDot(u, v)
  const sum = plainDot(scaledBy(u, -p), scaledBy(v, -q))
  return sum.kind === 'failure' ? sum : A.rounded(complexTimesPowerOfTwo(sum, p + q), sum.complex, sum)
}

/** The power of two to be taken out of rounded numbers; exact ones are multiplied without limit. */
function exponentOf(numbers: readonly NumberValue[]): number {
  if (numbers.every((z) => z.exact)) return 0
  return exponentFor(Math.max(...numbers.flatMap((z) => [Math.abs(z.re), Math.abs(z.im)])))
}

function scaledBy(numbers: readonly NumberValue[], exponent: number): readonly NumberValue[] {
  if (exponent === 0) return numbers
  return numbers.map((z) =>
    z.complex ? complexNumber(complexTimesPowerOfTwo(z, exponent)) : real(complexTimesPowerOfTwo(z, exponent).re),
  )
}

function plainDot(u: readonly NumberValue[], v: readonly NumberValue[]): NumberValue | Failure {
  let sum: NumberValue = integer(0)
  for (const [k, x] of u.entries()) {
    const y = v[k]
    if (!y) continue
    const term = A.multiply(conjugateNumber(x), y)
    if (term.kind === 'failure') return term
    const next = A.add(sum, term)
    if (next.kind === 'failure') return next
    sum = next
  }
  return sum
}

function conjugateNumber(z: NumberValue): NumberValue {
  const value = conjugate(z)
  return value.kind === 'number' ? value : z
}

function cross([u, v]: [NumberValue[], NumberValue[]]): Value | Failure {
  if (u.length !== 3) return failure('domain', { name: 'cross', needs: 'vectors of three entries' })
  const [ofU, ofV] = [exponentOf(u), exponentOf(v)]
  const [a, b] = [scaledBy(u, -ofU), scaledBy(v, -ofV)]
  const items: Value[] = []
  for (const [i, j] of [
    [1, 2],
    [2, 0],
    [0, 1],
  ] as const) {
    const [p, q, r, s] = [a[i], b[j], a[j], b[i]]
    if (!p || !q || !r || !s) throw new Error('vectors of three entries')
    const left = A.multiply(p, q)
    const right = A.multiply(r, s)
    if (left.kind === 'failure') return left
    if (right.kind === 'failure') return right
    const value = A.subtract(left, right)
    if (value.kind === 'failure') return value
    const back =
      ofU === 0 && ofV === 0 ? value : A.rounded(complexTimesPowerOfTwo(value, ofU + ofV), value.complex, value)
    if (back.kind === 'failure') return back
    items.push(back)
  }
  return vector(items)
}

function scaled(v: VectorValue, sign: '*' | '/', by: NumberValue, context: Context): Value | Failure {
  return mapVector(v, (item) => binary(sign, item, by, new Plainly(context)))
}

/** True where the real part is 0, and not only too small for a double. */
function isRealZero(z: NumberValue): boolean {
  return z.exact ? Q.isZero(z.exact.re) : z.re === 0
}

function angleBetween(pair: [NumberValue[], NumberValue[]]): Value | Failure {
  const near = (x: readonly NumberValue[]) => scaledBy(x, -exponentOf(x))
  const [u, v] = [near(pair[0]), near(pair[1])]
  const product = dotOf(u, v)
  if (product.kind === 'failure') return product
  const [p, q] = [euclideanNorm(vector(u)), euclideanNorm(vector(v))]
  if (p.kind === 'failure') return p
  if (q.kind === 'failure') return q
  if (isZero(p) || isZero(q)) return failure('domain', { name: 'angle', needs: 'two vectors other than zero' })
  if (isRealZero(product)) return angleOfTurns({ n: 1, d: 4 })
  // Kahan's formula: exact for nearly parallel vectors, where the arc cosine loses half the digits.
  const [s, t] = [u.map((z) => C.divide(z, p)), v.map((z) => C.divide(z, q))]
  const minus = Math.hypot(...s.map((z, k) => C.abs(C.subtract(z, t[k] ?? z))))
  const plus = Math.hypot(...s.map((z, k) => C.abs(C.add(z, t[k] ?? z))))
  return angleOf(2 * Math.atan2(minus, plus))
}

function sorted(v: VectorValue): Value | Failure {
  const keyed = v.items.map((item) => ({ item, key: keyOf(item) }))
  if (keyed.some((k) => k.key === null)) return failure('no-order', { sign: 'sort' })
  // Where one has no place, nobody's place is known.
  if (keyed.some((k) => Number.isNaN(k.key))) return vector(keyed.map(() => real(NaN)))
  const items = keyed
    .sort((a, b) => ((a.key ?? 0) < (b.key ?? 0) ? -1 : (a.key ?? 0) > (b.key ?? 0) ? 1 : 0))
    .map((k) => k.item)
  return { ...v, items }
}

function keyOf(item: Value): number | string | null {
  if (item.kind === 'angle') return item.radians
  if (item.kind === 'text') return item.text
  return item.kind === 'number' && item.im === 0 ? item.re : null
}

const two = [take.vector('u'), take.vector('v')] as const
const one = [take.vector('v')] as const

export const vectorFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'dot',
    measures: scalarProduct,
    group: 'vectors',
    parameters: two,
    summary: 'Scalar product Σ ū·v; the entries of u are conjugated.',
    examples: [
      { entry: 'dot([1, 2, 3], [4, 5, 6])', gives: '32' },
      { entry: 'dot([1j], [2])', gives: '0 - 2j' },
      { entry: 'dot([1e200, 1], [1e-200, 1])', gives: '2' },
    ],
    apply: (args) => {
      const both = pair(args)
      return Array.isArray(both) ? dotOf(...both) : both
    },
  }),
  define({
    name: 'cross',
    measures: crossProduct,
    group: 'vectors',
    parameters: two,
    summary: 'Vector product of two vectors of three entries.',
    examples: [
      { entry: 'cross([1, 0, 0], [0, 1, 0])', gives: '[0, 0, 1]' },
      { entry: 'cross([1, 2, 3], [4, 5, 6])', gives: '[-3, 6, -3]' },
      { entry: 'cross([0.1, 0.2, 0.3], [0.2, 0.4, 0.6])', gives: '[0, 0, 0]' },
    ],
    apply: (args) => {
      const both = pair(args)
      return Array.isArray(both) ? cross(both) : both
    },
  }),
  define({
    name: 'norm',
    measures: keep,
    group: 'vectors',
    parameters: [take.array('v')],
    summary: 'Length √Σ|x|² of a vector, also ||v||; of a matrix its largest singular value.',
    examples: [
      { entry: 'norm([3, 4])', gives: '5' },
      { entry: 'norm([1, 1, 1])', gives: '1.7321' },
      { entry: 'norm([3e200, 4e200])', gives: '5e200' },
    ],
    apply: ([value]) => (value.kind === 'vector' ? euclideanNorm(value) : spectralNorm(value)),
  }),
  define({
    name: 'unit',
    measures: ratio,
    group: 'vectors',
    parameters: one,
    summary: 'The vector of length 1 in the direction of v.',
    examples: [
      { entry: 'unit([3, 4])', gives: '[0.6, 0.8]' },
      { entry: 'unit([0, -2])', gives: '[0, -1]' },
      { entry: 'unit([3e-200, 4e-200])', gives: '[0.6, 0.8]' },
    ],
    apply: ([v], context) => {
      const length = euclideanNorm(v)
      if (length.kind !== 'number') return length
      return isZero(length)
        ? failure('domain', { name: 'unit', needs: 'a vector other than zero' })
        : scaled(v, '/', length, context)
    },
  }),
  define({
    name: 'angle',
    givesAngle: true,
    measures: eachUniform,
    group: 'vectors',
    readAs: { count: 1, name: 'arg' },
    parameters: two,
    summary: 'The angle between two vectors, 0 to 180°. Of one number it is read as arg.',
    examples: [
      { entry: 'angle([1, 0], [1, 1])', gives: '45°' },
      { entry: 'angle([1, 0], [0, 1])', gives: '90°' },
      { entry: 'angle([1, 0], [1, 1e-9])', gives: '5.7296e-8°' },
    ],
    apply: (args) => {
      const both = pair(args)
      return Array.isArray(both) ? angleBetween(both) : both
    },
  }),
  define({
    name: 'dist',
    measures: keep,
    group: 'vectors',
    parameters: two,
    summary: 'Distance ||u − v|| of two points.',
    examples: [
      { entry: 'dist([1, 1], [4, 5])', gives: '5' },
      { entry: 'dist([1, 2, 3], [1, 2, 5])', gives: '2' },
      { entry: 'dist([0, 0], [3e200, 4e200])', gives: '5e200' },
    ],
    apply: (args) => {
      const both = pair(args)
      if (!Array.isArray(both)) return both
      const items: Value[] = []
      for (const [k, x] of both[0].entries()) {
        const difference = A.subtract(x, both[1][k] ?? x)
        if (difference.kind === 'failure') return difference
        items.push(difference)
      }
      return euclideanNorm(vector(items))
    },
  }),
  define({
    name: 'proj',
    measures: firstUniform,
    group: 'vectors',
    parameters: two,
    summary: 'Projection of u onto v.',
    examples: [
      { entry: 'proj([2, 3], [4, 0])', gives: '[2, 0]' },
      { entry: 'proj([3, 4], [1, 1])', gives: '[3.5, 3.5]' },
      { entry: 'proj([1, 2], [3e200, 0])', gives: '[1, 0]' },
    ],
    apply: (args, context) => {
      const both = pair(args)
      if (!Array.isArray(both)) return both
      const [u, given] = both
      const v = scaledBy(given, -exponentOf(given))
      const top = dotOf(v, u)
      const bottom = dotOf(v, v)
      if (top.kind === 'failure') return top
      if (bottom.kind === 'failure') return bottom
      if (isZero(bottom)) return failure('domain', { name: 'proj', needs: 'a vector v other than zero' })
      const factor = A.divide(top, bottom)
      return factor.kind === 'failure' ? factor : scaled(vector(v), '*', factor, context)
    },
  }),
  define({
    name: 'sort',
    measures: keep,
    group: 'vectors',
    parameters: one,
    summary: 'The entries in ascending order; they must be real numbers, angles or texts.',
    examples: [
      { entry: 'sort([3, 1, 2])', gives: '[1, 2, 3]' },
      { entry: 'sort([40°, 10°])', gives: '[10°, 40°]' },
      { entry: 'sort([10^-400, 0, -1])', gives: '[-1, 0, 0]' },
    ],
    apply: ([v]) => sorted(v),
  }),
  define({
    name: 'reverse',
    measures: moved((m) =>
      m.picked(
        m.rows.map((_, k) => m.rows.length - 1 - k),
        [0],
      ),
    ),
    group: 'vectors',
    parameters: one,
    summary: 'The entries from the last to the first.',
    examples: [
      { entry: 'reverse([1, 2, 3])', gives: '[3, 2, 1]' },
      { entry: 'reverse([30°, 60°])', gives: '[60°, 30°]' },
      { entry: 'reverse(sort([3, 1, 2]))', gives: '[3, 2, 1]' },
    ],
    apply: ([v]) => ({ ...v, items: v.items.toReversed() }),
  }),
  define({
    name: 'vec',
    measures: keep,
    group: 'complex',
    parameters: [take.number('z')],
    summary: 'The vector [re, im] of a complex number; a force 22∠45° by its components.',
    examples: [
      { entry: 'vec(3 + 4j)', gives: '[3, 4]' },
      { entry: 'vec(-2)', gives: '[-2, 0]' },
      { entry: 'vec(5∠90°)', gives: '[0, 5]' },
    ],
    apply: ([z]) => {
      const part = (re: number, k: 're' | 'im'): NumberValue => (z.exact ? exactReal(z.exact[k]) : real(re))
      return vector([part(z.re, 're'), part(z.im, 'im')])
    },
  }),
  define({
    name: 'phasor',
    measures: keep,
    group: 'complex',
    parameters: [take.vector('v')],
    summary: 'The complex number of a vector of two real entries: magnitude and direction of a force.',
    examples: [
      { entry: 'phasor([3, 4])', gives: '3 + 4j' },
      { entry: 'phasor([0, -2])', gives: '0 - 2j' },
      { entry: 'abs(phasor([3e200, 4e200]))', gives: '5e200' },
    ],
    apply: ([v]) => {
      const entries = numbersOf(v)
      if (!Array.isArray(entries)) return entries
      const [x, y] = entries
      if (!x || !y || entries.length !== 2 || x.im !== 0 || y.im !== 0)
        return failure('domain', { name: 'phasor', needs: 'a vector of two real entries' })
      return fromComponents(x, y)
    },
  }),
]
