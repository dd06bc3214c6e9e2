import { NONE } from '../units/dimension'
import type { Measure } from '../units/measure'
import { POWER } from '../units/marks'
import { conjugated, PLAIN } from '../units/measure'
import { quantityWords } from '../units/named'
import { fitted, measureOf, measuresOf } from '../quantities/shape'
import { alike } from '../quantities/sums'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { exactReal } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare, quantity } from '../values/quantity'
import type { Value } from '../values/types'
import { marked, raised, uniform } from './measures'
import type { Measured, MeasureRule } from '../signatures/definition'

/** Rules of single functions. */

/** Of VA, and of |I|²·Z, the real part is in W and the imaginary part in var. */
const part = (sort: 'W' | 'var'): MeasureRule =>
  marked((m) => (m.dimension === POWER && m.power !== 'W' && m.power !== 'var' ? m.with({ power: sort }) : m))
export const realPart = part('W')
export const imaginaryPart = part('var')
export const conjugate: MeasureRule = marked(conjugated)

export const anyRoot: MeasureRule = (args, result, name) => {
  const [, n] = args
  if (n?.kind !== 'number' || !(n.re >= 1)) return PLAIN
  return raised({ n: 1, d: n.re })(args, result, name)
}

/** A product of several values, or of the entries of one vector. */
export const productOfAll: MeasureRule = (args) => {
  const [only] = args
  if (only && args.length === 1) {
    const entries = measuresOf(only)
    const points = bare(only)
    if (points.kind === 'sweep') return measureOf(only).to(Q.whole(points.count))
    return entries.rows.reduce((total, _, r) => entries.cols.reduce((sum, __, c) => sum.times(entries.entry(r, c) ?? PLAIN), total), PLAIN) // prettier-ignore
  }
  return args.reduce((total, arg) => total.times(measureOf(arg)), PLAIN)
}

export const crossProduct: MeasureRule = (args, _, name) => {
  const [u, v] = args
  if (!u || !v) return PLAIN
  const [a, b] = [uniform(u, name), uniform(v, name)]
  return 'code' in a ? a : 'code' in b ? b : a.times(b)
}

/** |V|·cos(ωt + arg V) measures what V does; ω·t is a plain number. */
export const waveMeasure: MeasureRule = ([v, w, t], _, name) => {
  if (!v || !w || !t) return PLAIN
  const turn = measureOf(w).times(measureOf(t))
  if (turn.dimension !== NONE) return failure('unit-angle', { name: `${name}: ω·t`, quantity: quantityWords(turn) })
  return measureOf(v)
}

/** Each of several arrays of one measure; the result is a plain number. */
export const eachUniform: MeasureRule = (args, _, name) => {
  for (const arg of args) {
    const found = uniform(arg, name)
    if ('code' in found) return found
  }
  return PLAIN
}

/** The projection on another vector measures what the vector does. */
export const firstUniform: MeasureRule = (args, result, name) => {
  const other = eachUniform(args, result, name)
  if ('code' in other) return other
  return args[0] ? uniform(args[0], name) : PLAIN
}

/** round(V, 0.1 kV) is the nearest multiple; `null` where no step with a unit is given. */
export function roundedTo(args: readonly Value[]): Value | Failure | null {
  const [x, step] = args
  if (!x || step?.kind !== 'quantity') return null
  const measures = alike(x, step, 'compared')
  if ('code' in measures) return measures
  const [value, size] = [bare(x), step.value]
  if (value.kind !== 'number' || size.kind !== 'number' || value.im !== 0 || size.im !== 0) return failure('argument-kind', { signature: 'round(x, step)', name: 'x', needs: 'real', kind: value.kind }) // prettier-ignore
  const times = A.divide(value, size)
  if (times.kind === 'failure') return times
  const whole = wholeOf(times.exact?.re ?? Q.fromDecimal(times.re.toPrecision(15)))
  const found = whole ? A.multiply(whole, size) : value
  return found.kind === 'failure' ? found : quantity(found, measures, { unit: step.unit, asWritten: step.asWritten })
}

/** Halves go away from zero. */
function wholeOf(q: Q.Rational | null) {
  if (!q) return null
  const up = Q.add(Q.sign(q) < 0 ? Q.negate(q) : q, { n: 1, d: 2 })
  const size = up && Q.floor(up)
  return size && exactReal(Q.sign(q) < 0 ? Q.negate(size) : size)
}

/** What the one unknown of a polynomial measures: roots, poles, zeros do as well. */
export const ofUnknown: MeasureRule = ([value]) => {
  if (!value) return PLAIN
  if (bare(value).kind === 'vector') return ratioOfNeighbours(value)
  return unknownMeasure(value)
}

function unknownMeasure(value: Value): Measure {
  if (value.kind !== 'quantity' || !value.unknowns) return PLAIN
  const [first] = [...value.unknowns.values()]
  return first ?? PLAIN
}

/** Coefficients from the highest power down: each measures the root times what the one before it does. */
function ratioOfNeighbours(value: Value): Measured {
  const entries = measuresOf(value)
  const all = entries.rows.map((_, k) => entries.entry(k, 0))
  const known = all.flatMap((m, k) => (m ? [{ m, k }] : []))
  const [a, b] = known
  if (!a || !b) return PLAIN
  const root = b.m.over(a.m).to({ n: 1, d: b.k - a.k })
  const odd = known.find(({ m, k }) => m.dimension !== a.m.dimension.times(root.dimension.to(Q.whole(k - a.k))))
  return odd ? failure('unit-fit', { row: odd.k + 1, col: 1 }) : root
}

/** The coefficients of a polynomial, from the highest power down: that of sᵏ measures the whole by sᵏ. */
export const coefficientMeasures: MeasureRule = ([value], result) => {
  if (value?.kind !== 'quantity' || result.kind !== 'vector') return PLAIN
  const [whole, of] = [measureOf(value), unknownMeasure(value)]
  const degree = result.items.length - 1
  return fitted(result.items.length, 1, (k) => whole.over(of.to(Q.whole(degree - k))))
}
