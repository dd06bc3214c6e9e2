import type { Complex } from '../numbers/complex'
import * as C from '../numbers/complex'
import type { Dense } from './dense'
import { copy, normF, zeros } from './dense'
import { decomposeLu, solveLu } from './lu'
import { multiply } from './multiply'
import { decomposeSvd } from './svd'

/** Up to this order the vector of an eigenvalue is the singular vector of A − λ that belongs to the least value. */
const BY_SVD = 12
const STEPS = 3

/** A − λ. */
function shifted(a: Dense, { re, im }: Complex): Dense {
  const result = copy(a)
  for (let k = 0; k < a.rows; k += 1) {
    const at = k * (a.cols + 1)
    result.re[at] = (result.re[at] as number) - re
    result.im[at] = (result.im[at] as number) - im
  }
  return result
}

/** ‖A·v − λ·v‖ of every column, beside ‖v‖ = 1, in one product of matrices. */
export function residuals(a: Dense, values: readonly Complex[], vectors: Dense): Float64Array {
  const { rows: n, cols, re, im } = vectors
  const product = multiply(a, vectors)
  const squares = new Float64Array(cols)
  for (let r = 0; r < n; r += 1) {
    for (let c = 0; c < cols; c += 1) {
      const at = r * cols + c
      const value = values[c]
      if (!value) continue
      const x = (product.re[at] as number) - (value.re * (re[at] as number) - value.im * (im[at] as number))
      const y = (product.im[at] as number) - (value.re * (im[at] as number) + value.im * (re[at] as number))
      squares[c] = (squares[c] as number) + x * x + y * y
    }
  }
  return squares.map(Math.sqrt)
}

/**
 * Vectors that do not fit their eigenvalue to rounding are found anew, in place: eigenvalues of defective matrices
 * are moved by far more than rounding when they are paired or known better, and a vector belongs to its value.
 * Inverse iteration (I. C. F. Ipsen, SIAM Review 39, 1997); of small matrices by the singular values of A − λ,
 * which tell several vectors of one value apart.
 */
export function refineVectors(a: Dense, values: readonly Complex[], vectors: Dense): void {
  const bound = 100 * Number.EPSILON * a.rows * normF(a)
  const done = new Map<string, number>()
  const misfit = residuals(a, values, vectors)
  values.forEach((value, c) => {
    if (!C.isFinite(value) || (misfit[c] as number) <= bound) return
    const key = `${value.re} ${value.im}`
    const before = done.get(key) ?? 0
    done.set(key, before + 1)
    const found = a.rows <= BY_SVD ? leastSingular(a, value, before, bound) : inverseIteration(a, value)
    if (found && (residuals(a, [value], found)[0] as number) < (misfit[c] as number)) put(vectors, c, found)
  })
}

/** The right singular vector of A − λ with the least singular value, or the one after it while that is nothing, too. */
function leastSingular(a: Dense, value: Complex, which: number, bound: number): Dense | null {
  const { singular, right } = decomposeSvd(shifted(a, value))
  const n = a.rows
  const nothing = singular.filter((s) => s <= bound).length
  const place = n - 1 - Math.min(which, Math.max(0, nothing - 1))
  const column = zeros(n, 1)
  for (let r = 0; r < n; r += 1) {
    column.re[r] = right.re[r * n + place] as number
    column.im[r] = right.im[r * n + place] as number
  }
  return column
}

function inverseIteration(a: Dense, value: Complex): Dense | null {
  const n = a.rows
  const size = normF(a)
  const lu = decomposeLu(shifted(a, { re: value.re + size * Number.EPSILON, im: value.im }))
  if (lu.singular) return null
  let x = zeros(n, 1)
  for (let k = 0; k < n; k += 1) x.re[k] = 1 + (k % 7) / 10
  for (let step = 0; step < STEPS; step += 1) {
    const next = solveLu(lu, x)
    const length = normF(next)
    if (!(length > 0) || !Number.isFinite(length)) return step === 0 ? null : x
    x = { ...next, re: next.re.map((v) => v / length), im: next.im.map((v) => v / length) }
  }
  return x
}

function put(vectors: Dense, c: number, column: Dense): void {
  for (let r = 0; r < vectors.rows; r += 1) {
    vectors.re[r * vectors.cols + c] = column.re[r] as number
    vectors.im[r * vectors.cols + c] = column.im[r] as number
  }
}
