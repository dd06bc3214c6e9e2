import { ArrayMeasures } from '../units/arrayMeasures'
import { NONE } from '../units/dimension'
import type { Measure } from '../units/measure'
import { PLAIN } from '../units/measure'
import { quantityWords } from '../units/named'
import { alongDiagonal, multiplied } from '../quantities/products'
import { compact, fitted, measuresOf } from '../quantities/shape'
import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { itemAt, matrixOf } from '../values/matrices'
import { bare, quantity } from '../values/quantity'
import type { Bare, MatrixValue, Value } from '../values/types'
import { dressed, uniform, whyNotAlike } from './measures'
import type { Measured, MeasureRule } from '../signatures/definition'

/** What functions of matrices measure: entry (i, k) of a matrix has row(i)·col(k). */

const HALF = { n: 1, d: 2 }
const of = (args: readonly Value[], k = 0): ArrayMeasures => (args[k] ? measuresOf(args[k]) : new ArrayMeasures([], [], [], [])) // prettier-ignore

/** Each row goes with a column: their products. */
export const determinant: MeasureRule = (args) => {
  const a = of(args)
  return a.rows.reduce((total, row, k) => total.times(row).times(a.cols[k] ?? PLAIN), PLAIN)
}

export const inverse: MeasureRule = (args) => compact(of(args).inverse)
export const transposed: MeasureRule = (args) => compact(of(args).transposed)
export const solution: MeasureRule = (args) => multiplied(of(args).inverse, of(args, 1))

/** Least squares weigh one row against another: all of them measure the same. */
export const leastSquares: MeasureRule = (args, _, name) => {
  const a = of(args)
  return whyNotAlike(a.rows, name) ?? multiplied(a.inverse, of(args, 1))
}

/** Rows that begin with a 1: each entry measures what its column does beside the column of that 1. */
export const echelon: MeasureRule = (args, result) => {
  const a = of(args)
  if (result.kind !== 'matrix') return PLAIN
  const pivots = a.rows.map((_, r) => leading(result, r))
  const rows = pivots.map((c) => (c < 0 ? PLAIN : PLAIN.over(a.cols[c] ?? PLAIN)))
  const groups = pivots.map((c, r) => (c < 0 ? -1 - r : (a.colGroups[c] ?? -1 - r)))
  return compact(new ArrayMeasures(rows, a.cols, groups, a.colGroups))
}

function leading(m: MatrixValue, row: number): number {
  for (let c = 0; c < m.cols; c += 1)
    if (m.dense.re[row * m.cols + c] !== 0 || m.dense.im[row * m.cols + c] !== 0) return c
  return -1
}

/** The x with A·x = 0: of several units only where each has a component that is 1. */
export const nullSpace: MeasureRule = (args, _, name) => whyNotAlike(of(args).cols, name) ?? PLAIN

/** permutation·A = lower·upper, with ones on the diagonal of the lower one. */
export const luMeasures: MeasureRule = (args, result) => {
  const a = of(args)
  if (result.kind !== 'parts') return PLAIN
  const permutation = result.parts.get('permutation')
  const order = permutation?.kind === 'matrix' ? a.rows.map((_, r) => leading(permutation, r)) : a.rows.map((_, r) => r)
  const moved = a.picked(order, a.cols.map((_, k) => k)) // prettier-ignore
  const lower = new ArrayMeasures(moved.rows, moved.rows.map((m) => PLAIN.over(m)), moved.rowGroups, moved.rowGroups) // prettier-ignore
  return parts(result, { lower, upper: moved })
}

export const qrMeasures: MeasureRule = (args, result, name) => {
  const a = of(args)
  const why = whyNotAlike(a.rows, name)
  if (why) return why
  const [first] = a.rows
  const size = Math.min(a.rows.length, a.cols.length)
  const rows = Array.from({ length: size }, () => first ?? PLAIN)
  return parts(result, { triangular: new ArrayMeasures(rows, a.cols, rows.map(() => a.colGroups[0] ?? 0), a.colGroups.map(() => a.colGroups[0] ?? 0)) }) // prettier-ignore
}

export const svdMeasures: MeasureRule = (args, result, name) => {
  const found = args[0] ? uniform(args[0], name) : PLAIN
  return 'code' in found ? found : parts(result, { singular: found })
}

/** A = L·Lᴴ: the rows of L measure the root of the diagonal. */
export const choleskyMeasures: MeasureRule = (args, result, name) => {
  const a = of(args)
  const rows = a.rows.map((row, k) => row.times(a.cols[k] ?? PLAIN).to(HALF))
  const fits = a.rows.every((_, r) => a.cols.every((__, c) => {
    const here = a.entry(r, c)
    return here === null || here.dimension === rows[r]?.dimension.times(rows[c]?.dimension ?? NONE)
  })) // prettier-ignore
  if (!fits) return failure('unit-square', { what: name })
  return result.kind === 'matrix' ? compact(new ArrayMeasures(rows, rows.map(() => PLAIN), rows.map(() => 0), rows.map(() => 0))) : PLAIN // prettier-ignore
}

/** row(i)·col(i), which is one throughout. */
export const alongOf =
  (what: string): MeasureRule =>
  ([value]) => {
    if (!value) return PLAIN
    const found = alongDiagonal(value, what)
    return 'code' in found ? found : found.along
  }

/** λ² + a·λ + b: the coefficients measure the powers of the eigenvalues. */
export const characteristic: MeasureRule = ([value], result) => {
  const found = value ? alongDiagonal(value, 'the characteristic polynomial') : null
  if (!found || 'code' in found) return found ?? PLAIN
  const count = result.kind === 'vector' ? result.items.length : 1
  return fitted(count, 1, (k) => found.along.to(Q.whole(k)))
}

export const matrixExponential: MeasureRule = ([value]) => {
  const found = value ? alongDiagonal(value, 'the exponential') : null
  if (!found || 'code' in found) return found ?? PLAIN
  if (found.along.dimension !== NONE) return failure('unit-plain', { name: 'expm', quantity: `the matrix with ${quantityWords(found.along)} on its diagonal` }) // prettier-ignore
  return compact(found.measures)
}

/** Eigenvectors of several units have their largest component 1: a length has no meaning there. */
export const eigenvectorMeasures: MeasureRule = ([value], result) => {
  const found = value ? alongDiagonal(value, 'the eigenvectors') : null
  if (!found || 'code' in found) return found ?? PLAIN
  return dressed(withLargestOne(result, found.measures))
}

function withLargestOne(result: Bare, measures: ArrayMeasures): Value | Failure {
  const [first] = measures.rows
  if (result.kind !== 'matrix' || measures.rows.every((row) => row.dimension === first?.dimension)) return result
  const { rows, cols } = result
  const largest = Array.from({ length: cols }, (_, c) => {
    let best = 0
    for (let r = 1; r < rows; r += 1)
      if (C.abs(itemAt(result, r * cols + c)) > C.abs(itemAt(result, best * cols + c))) best = r
    return best
  })
  const items = Array.from({ length: rows * cols }, (_, k) => {
    const one = itemAt(result, (largest[k % cols] ?? 0) * cols + (k % cols))
    const found = A.divide(itemAt(result, k), one)
    return found.kind === 'failure' ? itemAt(result, k) : found
  })
  const across = largest.map((r) => PLAIN.over(measures.rows[r] ?? PLAIN))
  const group = measures.rows.map(() => 0)
  return quantity(matrixOf(rows, cols, items), compact(new ArrayMeasures(measures.rows, across, group, across.map(() => 0)))) // prettier-ignore
}

export const eigenpairMeasures: MeasureRule = ([value], result) => {
  const found = value ? alongDiagonal(value, 'the eigenvalues') : null
  if (!found || 'code' in found || result.kind !== 'parts') return found && 'code' in found ? found : PLAIN
  const vectors = result.parts.get('vectors')
  const dressedVectors = vectors ? withLargestOne(bare(vectors), found.measures) : null
  if (dressedVectors?.kind === 'failure') return dressedVectors
  const values = result.parts.get('values')
  const all = new Map(result.parts)
  if (values) all.set('values', quantity(bare(values), found.along))
  if (dressedVectors) all.set('vectors', dressedVectors)
  return dressed({ ...result, parts: all })
}

/** A diagonal matrix of a vector, or the diagonal of a matrix. */
export const diagonal: MeasureRule = (args, result) => {
  const a = of(args)
  if (result.kind === 'matrix') {
    const rows = a.rows.map((row) => row.times(a.cols[0] ?? PLAIN))
    const free = rows.map((_, k) => (a.entry(k, 0) ? k : -1 - k))
    return compact(new ArrayMeasures(rows, rows.map(() => PLAIN), free, rows.map((_, k) => (a.entry(k, 0) ? k : -100 - rows.length - k)))) // prettier-ignore
  }
  return fitted(Math.min(a.rows.length, a.cols.length), 1, (k) => a.entry(k, k))
}

/** Blocks put together along rows or columns. */
export const joinedBlocks =
  (along: 'rows' | 'cols'): MeasureRule =>
  (args) => {
    const blocks = args.map((_, k) => of(args, k))
    const cells: (readonly [ArrayMeasures, number])[] = blocks.flatMap((block) =>
      (along === 'rows' ? block.rows : block.cols).map((_, k) => [block, k] as const),
    )
    const [first] = blocks
    if (!first) return PLAIN
    const entry = (r: number, c: number): Measure | null => {
      const [block, k] = cells[along === 'rows' ? r : c] ?? [first, 0]
      return along === 'rows' ? block.entry(k, c) : block.entry(r, k)
    }
    return along === 'rows'
      ? fitted(cells.length, first.cols.length, entry)
      : fitted(first.rows.length, cells.length, entry)
  }

/** One row or column of a matrix. */
export const line =
  (of_: 'row' | 'col'): MeasureRule =>
  (args) => {
    const a = of(args)
    const k = args[1]?.kind === 'number' ? args[1].re - 1 : 0
    return of_ === 'row'
      ? compact(a.picked([k], a.cols.map((_, c) => c))) // prettier-ignore
      : compact(a.picked(a.rows.map((_, r) => r), [k])) // prettier-ignore
  }

function parts(result: Bare, measures: Readonly<Record<string, Measure | ArrayMeasures>>): Measured {
  if (result.kind !== 'parts') return PLAIN
  const all = new Map(result.parts)
  for (const [name, of_] of Object.entries(measures)) {
    const part = all.get(name)
    if (part) all.set(name, quantity(bare(part), of_ instanceof ArrayMeasures ? compact(of_) : of_))
  }
  return dressed({ ...result, parts: all })
}
