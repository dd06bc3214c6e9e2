import { ArrayMeasures } from '../units/arrayMeasures'
import { NONE } from '../units/dimension'
import type { Measure } from '../units/measure'
import { PLAIN } from '../units/measure'
import { quantityWords } from '../units/named'
import { alongDiagonal, multiplied } from '../quantities/products'
import { compact, isWild, measureOf, measuresOf } from '../quantities/shape'
import * as Q from '../numbers/rational'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { bare, quantity } from '../values/quantity'
import type { Value } from '../values/types'
import { declaredMeasure } from './controlMeasures'
import { matrixExponential } from './matrixMeasures'
import { dressed } from './measures'
import type { Measured, MeasureRule } from '../signatures/definition'

/** What state descriptions measure: row(i)·col(i) of A is one over the time, and the states follow from it. */

const of = (args: readonly Value[], k = 0): ArrayMeasures => (args[k] ? measuresOf(args[k]) : new ArrayMeasures([], [], [], [])) // prettier-ignore

/** One over the time, as the diagonal of A has it. */
function alongOf(a: Value | undefined): Measure | Failure {
  const found = a ? alongDiagonal(a, 'a state description') : null
  if (!found) return PLAIN
  return 'code' in found ? found : found.along
}

const isFailure = (x: Measure | Failure): x is Failure => 'code' in x

/** C·(sI − A)⁻¹·B. */
export const transfer: MeasureRule = (args, _, name) => {
  const along = alongOf(args[0])
  if (isFailure(along)) return along
  const s = declaredMeasure(args[4])
  if (along.dimension !== s.dimension) return failure('unit-alike', { name, one: quantityWords(along), other: quantityWords(s) }) // prettier-ignore
  const state = multiplied(of(args).inverse, of(args, 1))
  if ('code' in state) return state
  const output = args[2] ? rowMeasures(args[2], of(args).cols.length) : of(args, 2)
  const found = multiplied(
    output,
    state instanceof ArrayMeasures ? state : new ArrayMeasures([state], [PLAIN], [0], [0]),
  )
  if ('code' in found) return found
  const [d] = args.slice(3)
  const whole = found instanceof ArrayMeasures ? found.entry(0, 0) : found
  if (d && whole && !isWild(bare(d)) && measureOf(d).dimension !== whole.dimension)
    return failure('unit-alike', { name, one: quantityWords(whole), other: quantityWords(measureOf(d)) })
  return found
}

/** A vector in the place of C is a row. */
function rowMeasures(c: Value, states: number): ArrayMeasures {
  const measures = measuresOf(c)
  return measures.cols.length === 1 && states > 1 && measures.rows.length === states ? measures.transposed : measures
}

/** States of the form with ones below the diagonal: each is the integral of the one before it. */
const formOf =
  (dual: boolean): MeasureRule =>
  (args, result) => {
    if (result.kind !== 'parts') return PLAIN
    const [g] = args
    const [along, gain] = [declaredMeasure(g), g ? measureOf(g) : PLAIN]
    const a = result.parts.get('A')
    const n = a ? measuresOf(a).rows.length : 0
    const power = (k: number): Measure => along.to(Q.whole(k))
    const rows = Array.from({ length: n }, (_, k) => power(-k))
    const cols = Array.from({ length: n }, (_, k) => power(k + 1))
    const one = Array.from({ length: n }, () => 0)
    const square = new ArrayMeasures(rows, cols, one, one)
    const input = new ArrayMeasures(rows, [PLAIN], one, [0])
    const output = new ArrayMeasures([gain], cols, [0], one)
    const measures: Readonly<Record<string, ArrayMeasures>> = dual
      ? { A: square.transposed, B: output.transposed, C: input.transposed }
      : { A: square, B: input, C: output }
    const parts = new Map(result.parts)
    for (const [name, m] of Object.entries(measures)) {
      const part = parts.get(name)
      if (part) parts.set(name, quantity(bare(part), compact(m)))
    }
    const through = parts.get('D')
    if (through) parts.set('D', quantity(bare(through), gain))
    return dressed({ ...result, parts })
  }
export const form = formOf(false)
export const dualForm = formOf(true)

/** [B, A·B, …]. */
export const reach: MeasureRule = (args) => krylov(args[0], of(args, 1), of(args).rows.length)

/** The same of outputs, row below row. */
export const sight: MeasureRule = (args) => {
  const n = of(args).rows.length
  const found = krylov(args[0], args[1] ? rowMeasures(args[1], n).transposed : of(args, 1), n)
  return found instanceof ArrayMeasures ? compact(found.transposed) : found
}

function krylov(a: Value | undefined, b: ArrayMeasures, n: number): Measured {
  const along = alongOf(a)
  if (isFailure(along)) return along
  const cols = Array.from({ length: n }, (_, k) => b.cols.map((m) => m.times(along.to(Q.whole(k))))).flat()
  const groups = Array.from({ length: n }, () => b.colGroups).flat()
  return compact(new ArrayMeasures(b.rows, cols, b.rowGroups, groups))
}

/** K with B·K as A is. */
export const feedback: MeasureRule = (args, _, name) => {
  const [a, b] = [of(args), of(args, 1)]
  const along = alongOf(args[0])
  if (isFailure(along)) return along
  const asked = args[2] ? of(args, 2) : null
  const wrong = asked?.rows.findIndex((__, k) => (asked.entry(k, 0)?.dimension ?? along.dimension) !== along.dimension) ?? -1 // prettier-ignore
  if (asked && wrong >= 0) return failure('unit-alike', { name, one: quantityWords(along), other: quantityWords(asked.entry(wrong, 0) ?? PLAIN) }) // prettier-ignore
  const known = b.rows.findIndex((__, k) => b.entry(k, 0) !== null)
  const first = (a.rows[Math.max(0, known)] ?? PLAIN).over(b.entry(Math.max(0, known), 0) ?? PLAIN)
  return compact(new ArrayMeasures([first], a.cols, [0], a.colGroups))
}

/** e^(A·t). */
export const transition: MeasureRule = (args, result, name) => {
  const [a, t] = args
  if (!a || !t) return PLAIN
  const time = measureOf(t)
  if (time.dimension === NONE) return matrixExponential([a], result, name)
  return matrixExponential([quantity(bare(a), compact(measuresOf(a).scaled((m) => m.times(time))))], result, name)
}
