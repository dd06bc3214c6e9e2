import * as C from '../numbers/complex'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as A from '../values/arithmetic'
import { complexNumber, exactNumber, ofSort, real, vector } from '../values/make'
import { matrixOf, shapeText } from '../values/matrices'
import { euclideanNorm } from '../values/vectors'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { MatrixValue, NumberValue } from '../values/types'
import { rootsOf } from '../algebra/roots'
import { pickColumns } from '../linear/dense'
import type { Dense } from '../linear/dense'
import { eigen, ordering } from '../linear/eigen'
import { refineVectors } from '../linear/refineVectors'
import { decomposeSvd } from '../linear/svd'
import { exactCharpoly, exactNull } from '../linear/exact'
import type { ExactMatrix } from '../linear/exact'

/** Eigenvalues and eigenvectors as values: exact where the eigenvalues are rational and the matrix is small. */

/** How long eigenvectors are: of length 1, or with the largest or the smallest entry other than zero made 1. */
export const SCALINGS = ['unit', 'largest', 'smallest'] as const
export type Scaling = (typeof SCALINGS)[number]

export interface EigenValues {
  readonly values: readonly NumberValue[]
  /** Eigenvectors as columns, in the same order. */
  readonly vectors: MatrixValue
  readonly defective: boolean
  /** True where the matrix is so near to a defective one that the eigenvalues have lost digits. */
  readonly near: boolean
}

/** Largest order for which exact eigenvalues are looked for. */
const EXACT_ORDER = 8

export function eigenOf(m: MatrixValue, name: string, scaling: Scaling): EigenValues | Failure {
  if (m.rows !== m.cols) return failure('not-square', { name, shape: shapeText(m) })
  const numeric = eigen(m.dense)
  if (!numeric.converged) return failure('not-converged')
  const known = m.exact && m.rows <= EXACT_ORDER ? preciseValues(m.exact) : null
  const exact = known && m.exact ? exactPairs(m.exact, known) : null
  if (exact) return { ...exact, vectors: scaledColumns(exact.columns, scaling), near: false }
  const { values, vectors } = known ? matched(numeric.values, numeric.vectors, known) : numeric
  // A vector belongs to its value: where that is known better than the iteration gave it, so is the vector.
  if (known) refineVectors(m.dense, values, vectors)
  const complex = values.some((z) => z.im !== 0)
  const isComplex = vectors.im.some((x) => x !== 0)
  const columns = Array.from({ length: m.rows }, (_, c) =>
    Array.from({ length: m.rows }, (__, r): NumberValue => {
      const z = { re: vectors.re[r * m.rows + c] ?? 0, im: vectors.im[r * m.rows + c] ?? 0 }
      return isComplex ? complexNumber(z) : real(z.re)
    }),
  )
  return {
    values: values.map((z) => ('kind' in z ? ofSort(z, complex) : complex ? complexNumber(z) : real(z.re))),
    vectors: scaledColumns(columns, scaling),
    defective: numeric.defective || (known !== null && hasMultiple(known)),
    near: m.rows <= NEAR_ORDER && !known && spread(vectors) > NEAR,
  }
}

/** Order up to which eigenvectors are looked at for being nearly alike. */
const NEAR_ORDER = 60
/** From here on the eigenvalues themselves may have lost half their digits (J. Bauer and C. Fike, 1960). */
const NEAR = 3e6

/** The condition number of the eigenvectors. */
function spread(vectors: Dense): number {
  const { singular } = decomposeSvd(vectors)
  const [most, least] = [singular[0] ?? 0, singular.at(-1) ?? 0]
  return least === 0 ? Infinity : most / least
}

/**
 * The eigenvalues of a small exact matrix as the roots of its characteristic polynomial: each to all digits
 * of a double, with its multiplicity, and rational ones exactly. `null` where the exact numbers outgrew their budget.
 */
function preciseValues(a: ExactMatrix): readonly NumberValue[] | null {
  const polynomial = exactCharpoly(a)
  const found = polynomial && rootsOf(polynomial.map((c) => exactNumber(c)))
  if (!found || 'kind' in found || found.off > 0) return null
  return ordering(found.values).flatMap((k) => found.values[k] ?? [])
}

function hasMultiple(values: readonly NumberValue[]): boolean {
  return values.some((a, k) => values.slice(k + 1).some((b) => a.re === b.re && a.im === b.im))
}

/** The precise values in the place of the rounded ones they are nearest to, in their own order, the vectors with them. */
function matched(
  rounded: readonly C.Complex[],
  vectors: Dense,
  known: readonly NumberValue[],
): { readonly values: readonly NumberValue[]; readonly vectors: Dense } {
  const left = new Set(rounded.keys())
  const order = known.map((value) => {
    let [best, least] = [-1, Infinity]
    for (const k of left) {
      const distance = C.abs(C.subtract(rounded[k] ?? value, value))
      if (distance < least) [best, least] = [k, distance]
    }
    left.delete(best)
    return best
  })
  return { values: known, vectors: pickColumns(vectors, order) }
}

function kernelOf(a: ExactMatrix, value: Gaussian): ExactMatrix | null {
  const entries: Gaussian[] = []
  for (const [k, x] of a.entries.entries()) {
    const entry = k % (a.cols + 1) === 0 ? G.subtract(x, value) : x
    if (!entry) return null
    entries.push(entry)
  }
  return exactNull({ ...a, entries })
}

/**
 * All eigenvalues with their vectors, exactly; `null` where some eigenvalue is no rational. Of a defective matrix
 * vectors are missing: the last one of the value stands in their place.
 */
function exactPairs(
  a: ExactMatrix,
  known: readonly NumberValue[],
): { readonly values: NumberValue[]; readonly columns: NumberValue[][]; readonly defective: boolean } | null {
  const values: Gaussian[] = []
  const columns: Gaussian[][] = []
  let defective = false
  for (const { exact: value } of known) {
    if (!value) return null
    if (values.some((v) => G.equals(v, value))) continue
    const kernel = kernelOf(a, value)
    if (!kernel) return null
    const times = known.filter((k) => k.exact && G.equals(k.exact, value)).length
    defective ||= kernel.cols < times
    for (let n = 0; n < times; n += 1) {
      const c = Math.min(n, kernel.cols - 1)
      values.push(value)
      columns.push(Array.from({ length: a.rows }, (_, r) => kernel.entries[r * kernel.cols + c] ?? G.ZERO))
    }
  }
  if (values.length !== a.rows) return null
  const complex = values.some((v) => !G.isReal(v))
  const complexVectors = columns.some((column) => column.some((x) => !G.isReal(x)))
  return {
    values: values.map((v) => exactNumber(v, complex)),
    columns: columns.map((column) => column.map((x) => exactNumber(x, complexVectors))),
    defective,
  }
}

function scaledColumns(columns: readonly (readonly NumberValue[])[], scaling: Scaling): MatrixValue {
  const scaled = columns.map((column) => {
    const by = divisor(column, scaling)
    if (!by) return column
    const quotients = column.map((x) => A.divide(x, by))
    return quotients.flatMap((x) => (x.kind === 'number' ? [x] : []))
  })
  const n = columns[0]?.length ?? 0
  const items = Array.from({ length: n }, (_, r) => scaled.flatMap((column) => column[r] ?? [])).flat()
  return matrixOf(n, columns.length, items)
}

function divisor(column: readonly NumberValue[], scaling: Scaling): NumberValue | null {
  if (scaling === 'unit') {
    const length = euclideanNorm(vector(column))
    return length.kind === 'number' && length.re > 0 ? length : null
  }
  const sizes = column.map((x) => C.abs(x))
  const most = Math.max(...sizes)
  // What is only rounding noise beside the largest entry counts as zero.
  const usable = sizes.flatMap((size, k) => (size > 1e-12 * most ? [k] : []))
  const best = usable.reduce<number | null>((found, k) => {
    if (found === null) return k
    const better =
      scaling === 'largest'
        ? (sizes[k] ?? 0) > (sizes[found] ?? 0) * (1 + 1e-12)
        : (sizes[k] ?? 0) < (sizes[found] ?? 0) * (1 - 1e-12)
    return better ? k : found
  }, null)
  return best === null ? null : (column[best] ?? null)
}
