import * as C from '../numbers/complex'
import * as A from '../values/arithmetic'
import { complexNumber, exactNumber, integer, valueList, real, vector } from '../values/make'
import { asVector, checked, fromDense, fromExact, identityMatrix, itemAt, product, shapeText } from '../values/matrices'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { MatrixValue, NumberValue, PartsValue, Value } from '../values/types'
import { cholesky } from '../linear/cholesky'
import * as D from '../linear/dense'
import type { Dense } from '../linear/dense'
import { eigen } from '../linear/eigen'
import * as E from '../linear/exact'
import { expm } from '../linear/expm'
import { decomposeLu, determinantLu, inverseLu, solveLu } from '../linear/lu'
import { multiply } from '../linear/multiply'
import { decomposeQr } from '../linear/qr'
import { decomposeSvd } from '../linear/svd'

/** What the functions of the chapter on matrices do: exactly where that can be, on doubles otherwise. */

function notSquare(name: string, m: MatrixValue): Failure {
  return failure('not-square', { name, shape: shapeText(m) })
}

const isSquare = (m: MatrixValue): boolean => m.rows === m.cols

function number(z: C.Complex, complex: boolean): NumberValue {
  return complex ? complexNumber(z) : real(z.re)
}

/** det A. */
export function determinant(m: MatrixValue): Value | Failure {
  if (!isSquare(m)) return notSquare('det', m)
  const exact = m.exact && E.exactDeterminant(m.exact)
  if (exact) return exactNumber(exact, m.complex)
  const value = determinantLu(decomposeLu(m.dense))
  return C.isFinite(value) || !D.isFinite(m.dense) ? number(value, m.complex) : failure('too-large')
}

/** A⁻¹. */
export function inverse(m: MatrixValue): MatrixValue | Failure {
  if (!isSquare(m)) return notSquare('inv', m)
  if (m.exact) {
    const exact = E.exactSolve(m.exact, E.exactIdentity(m.rows))
    if (exact === 'singular') return failure('singular', { what: 'inverse' })
    if (exact) return fromExact(exact, m.complex)
  }
  if (!D.isFinite(m.dense)) return fromDense({ ...m.dense, re: m.dense.re.map(() => NaN) })
  const lu = decomposeLu(m.dense)
  if (lu.singular) return failure('singular', { what: 'inverse' })
  return checked(inverseLu(lu), m.complex, [m])
}

/** The condition number in the 2-norm: the largest over the smallest singular value. */
export function condition(m: MatrixValue): number {
  if (!D.isFinite(m.dense)) return NaN
  const { singular } = decomposeSvd(m.dense)
  const [most, least] = [singular[0] ?? 0, singular.at(-1) ?? 0]
  return least === 0 ? Infinity : most / least
}

/** X with A·X = B. */
export function solve(a: MatrixValue, b: MatrixValue): Value | Failure {
  if (!isSquare(a)) return notSquare('solve', a)
  if (a.rows !== b.rows)
    return failure('shapes-product', { left: shapeText(a), right: shapeText(b), cols: a.rows, rows: b.rows })
  const complex = a.complex || b.complex
  if (a.exact && b.exact) {
    const exact = E.exactSolve(a.exact, b.exact)
    if (exact === 'singular') return failure('singular', { what: 'unique solution' })
    if (exact) return fromExact(exact, complex)
  }
  const lu = decomposeLu(a.dense)
  if (lu.singular) return failure('singular', { what: 'unique solution' })
  return checked(solveLu(lu, b.dense), complex, [a, b])
}

/** Aᵏ for a whole number k, by repeated squaring. */
export function matrixPower(m: MatrixValue, exponent: NumberValue): Value | Failure {
  if (!isSquare(m)) return notSquare('A^n', m)
  const k = exponent.im === 0 ? exponent.re : NaN
  if (!Number.isInteger(k)) return failure('matrix-exponent')
  if (Math.abs(k) > 100_000) return failure('too-large')
  if (k < 0) {
    const inverted = inverse(m)
    return inverted.kind === 'failure' ? inverted : matrixPower(inverted, integer(-k))
  }
  let result: MatrixValue = identityMatrix(m.rows, m.complex)
  let base = m
  for (let e = k; e > 0; e = Math.floor(e / 2)) {
    if (e % 2 === 1) {
      const next = product(result, base)
      if (next.kind === 'failure') return next
      result = next
    }
    if (e > 1) {
      const next = product(base, base)
      if (next.kind === 'failure') return next
      base = next
    }
  }
  return result
}

export function trace(m: MatrixValue): Value | Failure {
  if (!isSquare(m)) return notSquare('tr', m)
  let sum: NumberValue = integer(0)
  for (let k = 0; k < m.rows; k += 1) {
    const next = A.add(sum, itemAt(m, k * (m.cols + 1)))
    if (next.kind === 'failure') return next
    sum = next
  }
  return sum
}

export function rank(m: MatrixValue): Value {
  const exact = m.exact && E.exactRank(m.exact)
  return integer(exact ?? decomposeQr(m.dense, true).rank)
}

/** A row echelon form; leading entries are 1. */
export function echelon(m: MatrixValue): Value {
  const exact = m.exact && E.exactRef(m.exact)
  return exact ? fromExact(exact, m.complex) : fromDense(eliminate(m.dense, false), m.complex)
}

/** The reduced row echelon form. */
export function reduced(m: MatrixValue): Value {
  const exact = m.exact && E.exactRref(m.exact)
  return exact ? fromExact(exact.matrix, m.complex) : fromDense(eliminate(m.dense, true), m.complex)
}

/** Elimination on doubles with partial pivoting; what is below rounding counts as zero. */
function eliminate(a: Dense, full: boolean): Dense {
  const { rows, cols, re, im } = D.copy(a)
  const floor = D.largest(a) * Math.max(rows, cols) * Number.EPSILON
  let r = 0
  for (let c = 0; c < cols && r < rows; c += 1) {
    let best = r
    for (let k = r; k < rows; k += 1) if (size(re, im, k * cols + c) > size(re, im, best * cols + c)) best = k
    if (size(re, im, best * cols + c) <= floor) {
      for (let k = r; k < rows; k += 1) {
        re[k * cols + c] = 0
        im[k * cols + c] = 0
      }
      continue
    }
    const pivot = { re: re[best * cols + c] ?? 0, im: im[best * cols + c] ?? 0 }
    for (let j = 0; j < cols; j += 1) {
      const [top, low] = [r * cols + j, best * cols + j]
      const moved = { re: re[low] ?? 0, im: im[low] ?? 0 }
      re[low] = re[top] ?? 0
      im[low] = im[top] ?? 0
      const scaled = j < c ? { re: 0, im: 0 } : C.divide(moved, pivot)
      re[top] = scaled.re
      im[top] = scaled.im
    }
    for (let k = full ? 0 : r + 1; k < rows; k += 1) {
      if (k === r) continue
      const lead = { re: re[k * cols + c] ?? 0, im: im[k * cols + c] ?? 0 }
      for (let j = c; j < cols; j += 1) {
        const part = C.multiply(lead, { re: re[r * cols + j] ?? 0, im: im[r * cols + j] ?? 0 })
        re[k * cols + j] = (re[k * cols + j] ?? 0) - part.re
        im[k * cols + j] = (im[k * cols + j] ?? 0) - part.im
      }
      re[k * cols + c] = 0
      im[k * cols + c] = 0
    }
    r += 1
  }
  return { rows, cols, re, im }
}

function size(re: Float64Array, im: Float64Array, k: number): number {
  return Math.hypot(re[k] ?? 0, im[k] ?? 0)
}

/** Columns that span the null space; the zero vector where it is nothing more. */
export function nullSpace(m: MatrixValue): Value {
  const zero = vector(Array.from({ length: m.cols }, () => integer(0)))
  const exact = m.exact && E.exactNull(m.exact)
  if (exact) return exact.cols === 0 ? zero : asVector(fromExact(exact, m.complex))
  // The right singular vectors of the singular values that are zero to rounding; rows are filled up so that all are there.
  const tall = m.rows >= m.cols ? m.dense : padded(m.dense)
  const { singular, right } = decomposeSvd(tall)
  const floor = (singular[0] ?? 0) * Math.max(m.rows, m.cols) * Number.EPSILON
  const free = singular.flatMap((s, k) => (s <= floor ? [k] : []))
  return free.length === 0 ? zero : asVector(fromDense(D.pickColumns(right, free), m.complex))
}

function padded(a: Dense): Dense {
  const result = D.zeros(a.cols, a.cols)
  result.re.set(a.re)
  result.im.set(a.im)
  return result
}

/** The least-squares solution of A·x = b, by QR with pivoting; dependent columns get 0. */
export function leastSquares(a: MatrixValue, b: MatrixValue): Value | Failure {
  if (a.rows !== b.rows)
    return failure('shapes-product', { left: shapeText(a), right: shapeText(b), cols: a.rows, rows: b.rows })
  const { q, r, order, rank: known } = decomposeQr(a.dense, true)
  const right = multiply(D.transpose(q, true), b.dense)
  const x = D.zeros(a.cols, b.cols)
  for (let c = 0; c < b.cols; c += 1) {
    const y: C.Complex[] = Array.from({ length: known }, () => ({ re: 0, im: 0 }))
    for (let i = known - 1; i >= 0; i -= 1) {
      let sum: C.Complex = { re: right.re[i * b.cols + c] ?? 0, im: right.im[i * b.cols + c] ?? 0 }
      for (let j = i + 1; j < known; j += 1) {
        const entry = { re: r.re[i * r.cols + j] ?? 0, im: r.im[i * r.cols + j] ?? 0 }
        sum = C.subtract(sum, C.multiply(entry, y[j] ?? { re: 0, im: 0 }))
      }
      const pivot = { re: r.re[i * (r.cols + 1)] ?? 0, im: 0 }
      y[i] = C.divide(sum, pivot)
    }
    y.forEach((value, k) => {
      const to = (order[k] ?? 0) * b.cols + c
      x.re[to] = value.re
      x.im[to] = value.im
    })
  }
  return checked(x, a.complex || b.complex, [a, b])
}

function parts(of: string, entries: readonly (readonly [string, Value])[]): PartsValue {
  return { kind: 'parts', of, parts: new Map(entries) }
}

export function luParts(m: MatrixValue): Value | Failure {
  if (!isSquare(m)) return notSquare('lu', m)
  const { packed, order } = decomposeLu(m.dense)
  const n = m.rows
  const lower = D.identity(n)
  const upper = D.zeros(n, n)
  const permutation = D.zeros(n, n)
  for (let r = 0; r < n; r += 1) {
    permutation.re[r * n + (order[r] ?? 0)] = 1
    for (let c = 0; c < n; c += 1) {
      const target = c < r ? lower : upper
      target.re[r * n + c] = packed.re[r * n + c] ?? 0
      target.im[r * n + c] = packed.im[r * n + c] ?? 0
    }
  }
  return parts('lu', [
    ['lower', fromDense(lower, m.complex)],
    ['upper', fromDense(upper, m.complex)],
    ['permutation', fromDense(permutation, false)],
  ])
}

export function qrParts(m: MatrixValue): Value {
  const { q, r } = decomposeQr(m.dense, false)
  return parts('qr', [
    ['orthonormal', fromDense(q, m.complex)],
    ['triangular', fromDense(r, m.complex)],
  ])
}

export function svdParts(m: MatrixValue): Value {
  const { left, singular, right } = decomposeSvd(m.dense)
  return parts('svd', [
    ['left', fromDense(left, m.complex)],
    ['singular', valueList(singular.map(real))],
    ['right', fromDense(right, m.complex)],
  ])
}

export function choleskyOf(m: MatrixValue): Value | Failure {
  if (!isSquare(m)) return notSquare('cholesky', m)
  const lower = cholesky(m.dense)
  return lower ? fromDense(lower, m.complex) : failure('not-positive')
}

/** Coefficients of det(λI − A), from the highest power down. */
export function charpoly(m: MatrixValue): Value | Failure {
  if (!isSquare(m)) return notSquare('charpoly', m)
  const exact = m.exact && E.exactCharpoly(m.exact)
  if (exact) return valueList(exact.map((z) => exactNumber(z, m.complex)))
  const { values, converged } = eigen(m.dense)
  if (!converged) return failure('not-converged')
  let coefficients: C.Complex[] = [{ re: 1, im: 0 }]
  for (const value of values) {
    const next = [...coefficients, { re: 0, im: 0 }]
    coefficients.forEach((c, k) => {
      next[k + 1] = C.subtract(next[k + 1] ?? { re: 0, im: 0 }, C.multiply(value, c))
    })
    coefficients = next
  }
  const isComplex = m.complex && !D.isReal(m.dense)
  if (!coefficients.every(C.isFinite)) return failure('too-large')
  return valueList(coefficients.map((z) => number(z, isComplex)))
}

export function exponential(m: MatrixValue): Value | Failure {
  if (!isSquare(m)) return notSquare('expm', m)
  return checked(expm(m.dense), m.complex, [m])
}

/** The 2-norm of a matrix: its largest singular value. */
export function spectralNorm(m: MatrixValue): Value | Failure {
  if (!D.isFinite(m.dense)) return real(notFinite(m, Infinity))
  const norm = decomposeSvd(m.dense).singular[0] ?? 0
  return Number.isFinite(norm) ? real(norm) : failure('too-large')
}

/** What a matrix that is not finite comes to: nothing is known of it where an entry is undefined. */
function notFinite({ dense }: MatrixValue, otherwise: number): number {
  return [dense.re, dense.im].some((part) => part.some(Number.isNaN)) ? NaN : otherwise
}
