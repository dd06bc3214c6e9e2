import * as C from '../numbers/complex'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import * as A from '../values/arithmetic'
import { complexNumber, exactNumber, real, vector } from '../values/make'
import { matrixOf, shapeText } from '../values/matrices'
import { euclideanNorm } from '../values/vectors'
import { failure } from '../values/value'
import type { Failure, MatrixValue, NumberValue } from '../values/value'
import { eigen } from './eigen'
import { exactNull } from './exact'
import type { ExactMatrix } from './exact'

/** Eigenvalues and eigenvectors as values: exact where the eigenvalues are rational and the matrix is small. */

/** How long eigenvectors are: of length 1, or with the largest or the smallest entry other than zero made 1. */
export const SCALINGS = ['unit', 'largest', 'smallest'] as const
export type Scaling = (typeof SCALINGS)[number]

export interface EigenValues {
  readonly values: readonly NumberValue[]
  /** Eigenvectors as columns, in the same order. */
  readonly vectors: MatrixValue
  readonly defective: boolean
}

/** Largest order for which exact eigenvalues are looked for. */
const EXACT_ORDER = 8
/** Largest denominator of an eigenvalue that is looked for. */
const DENOMINATOR_MOST = 1_000

export function eigenOf(m: MatrixValue, name: string, scaling: Scaling): EigenValues | Failure {
  if (m.rows !== m.cols) return failure('not-square', { name, shape: shapeText(m) })
  const { values, vectors, defective, converged } = eigen(m.dense)
  if (!converged) return failure('not-converged')
  const exact = m.exact && m.rows <= EXACT_ORDER ? exactPairs(m.exact, values) : null
  if (exact) return { values: exact.values, vectors: scaledColumns(exact.columns, scaling), defective: false }
  const complex = values.some((z) => z.im !== 0)
  const known = m.exact && m.rows <= EXACT_ORDER ? values.map((z) => rationalEigenvalue(m.exact as ExactMatrix, z)) : []
  const rounded = values.map((z, k) => {
    const found = known[k]
    return found ? exactNumber(found, complex) : complex ? complexNumber(z) : real(z.re)
  })
  const isComplex = vectors.im.some((x) => x !== 0)
  const columns = Array.from({ length: m.rows }, (_, c) =>
    Array.from({ length: m.rows }, (__, r): NumberValue => {
      const z = { re: vectors.re[r * m.rows + c] ?? 0, im: vectors.im[r * m.rows + c] ?? 0 }
      return isComplex ? complexNumber(z) : real(z.re)
    }),
  )
  return { values: rounded, vectors: scaledColumns(columns, scaling), defective }
}

/** The rational near a rounded value with a small denominator, by continued fractions. */
export function nearRational(x: number): Q.Rational | null {
  let [p0, q0, p1, q1] = [1, 0, Math.floor(x), 1]
  let rest = x - p1
  for (let k = 0; k < 20; k += 1) {
    if (Math.abs(x - p1 / q1) <= 1e-7 * Math.max(1, Math.abs(x))) return Q.rational(p1, q1)
    if (rest === 0) return null
    const inverse = 1 / rest
    const whole = Math.floor(inverse)
    ;[p0, q0, p1, q1] = [p1, q1, whole * p1 + p0, whole * q1 + q0]
    if (q1 > DENOMINATOR_MOST || !Number.isSafeInteger(p1)) return null
    rest = inverse - whole
  }
  return null
}

/** The exact eigenvalue near a rounded one, proved by a vector that A − λ sends to zero. */
function rationalEigenvalue(a: ExactMatrix, z: C.Complex): Gaussian | null {
  const [re, im] = [nearRational(z.re), nearRational(z.im)]
  if (!re || !im) return null
  const value = { re, im }
  const kernel = kernelOf(a, value)
  return kernel && kernel.cols > 0 ? value : null
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

/** All eigenvalues with a full set of vectors, exactly; `null` where some eigenvalue is no rational, or vectors are missing. */
function exactPairs(
  a: ExactMatrix,
  rounded: readonly C.Complex[],
): { readonly values: NumberValue[]; readonly columns: NumberValue[][] } | null {
  const values: Gaussian[] = []
  const columns: Gaussian[][] = []
  for (const z of rounded) {
    const value = rationalEigenvalue(a, z)
    if (!value) return null
    if (values.some((v) => G.equals(v, value))) continue
    const kernel = kernelOf(a, value)
    if (!kernel) return null
    for (let c = 0; c < kernel.cols; c += 1) {
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
