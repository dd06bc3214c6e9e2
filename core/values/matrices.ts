import type { Dense } from '../linear/dense'
import * as D from '../linear/dense'
import { exactIdentity, exactMultiply } from '../linear/exact'
import type { ExactMatrix } from '../linear/exact'
import { multiply } from '../linear/multiply'
import * as G from '../numbers/gaussian'
import { asRadians } from './convert'
import { complexNumber, exactNumber, real, vector } from './make'
import { failure } from './failure'
import type { Failure } from './failure'
import type { MatrixValue, NumberValue, Value } from './types'

/** Matrices as values: exact while they are small and every entry is, doubles beside that. */

/** Most entries of a matrix that is kept exactly. */
export const EXACT_MOST = 400
/** Most entries of any matrix. */
export const ENTRIES_MOST = 4_000_000

/** A matrix from its entries, row by row. */
export function matrixOf(rows: number, cols: number, items: readonly NumberValue[]): MatrixValue {
  const dense = D.zeros(rows, cols)
  let complex = false
  let exact = items.length <= EXACT_MOST
  items.forEach((z, k) => {
    dense.re[k] = z.re
    dense.im[k] = z.im
    complex ||= z.complex
    exact &&= z.exact !== null
  })
  const entries = exact ? items.flatMap((z) => (z.exact ? [z.exact] : [])) : null
  return { kind: 'matrix', rows, cols, dense, exact: entries && { rows, cols, entries }, complex }
}

export function fromExact(exact: ExactMatrix, complex = false): MatrixValue {
  const items = exact.entries.map((z) => exactNumber(z, complex))
  return matrixOf(exact.rows, exact.cols, items)
}

export function fromDense(dense: Dense, complex = !D.isReal(dense)): MatrixValue {
  return { kind: 'matrix', rows: dense.rows, cols: dense.cols, dense, exact: null, complex }
}

export function identityMatrix(n: number, complex = false): MatrixValue {
  if (n * n <= EXACT_MOST) return fromExact(exactIdentity(n), complex)
  return fromDense(D.identity(n), complex)
}

/** The entry at a place counted row by row from 0. */
export function itemAt(m: MatrixValue, k: number): NumberValue {
  const exact = m.exact?.entries[k]
  if (exact) return exactNumber(exact, m.complex)
  const z = { re: m.dense.re[k] ?? NaN, im: m.dense.im[k] ?? 0 }
  return m.complex ? complexNumber(z) : real(z.re)
}

export function itemsOf(m: MatrixValue): NumberValue[] {
  return Array.from({ length: m.rows * m.cols }, (_, k) => itemAt(m, k))
}

/** A vector as the column it is, a matrix as itself; `null` for anything else, or entries that are no numbers. */
export function asMatrix(value: Value): MatrixValue | null {
  if (value.kind === 'matrix') return value
  if (value.kind !== 'vector') return null
  const numbers = value.items.flatMap((item) =>
    item.kind === 'number' ? [item] : item.kind === 'angle' ? [asRadians(item)] : [],
  )
  return numbers.length === value.items.length ? matrixOf(numbers.length, 1, numbers) : null
}

/** A column as a vector; only where a vector led to it, since a matrix written as one stays one. */
export function asVector(m: MatrixValue): Value {
  return m.cols === 1 ? vector(itemsOf(m)) : m
}

/** What came of operands: a column is a vector where one of them was. */
export function likeOperands(value: Value | Failure, ...operands: readonly Value[]): Value | Failure {
  return value.kind === 'matrix' && operands.some((x) => x.kind === 'vector') ? asVector(value) : value
}

/** The outcome of floating work, or the error that it has left the range of numbers. */
export function checked(dense: Dense, complex: boolean, inputs: readonly MatrixValue[]): MatrixValue | Failure {
  // What is known exactly is not infinite: it only is larger than a double.
  const finite = D.isFinite(dense)
  if (!finite && inputs.every((m) => m.exact !== null || D.isFinite(m.dense))) return failure('too-large')
  return fromDense(dense, complex)
}

export function shapeText(value: Value): string {
  if (value.kind === 'matrix') return `${value.rows} × ${value.cols}`
  return value.kind === 'vector' ? `${value.items.length} × 1` : '1 × 1'
}

/** Entry by entry; the outcome of each must be a number or an angle. */
export function mapMatrix(m: MatrixValue, change: (item: NumberValue) => Value | Failure): Value | Failure {
  const items: NumberValue[] = []
  for (const item of itemsOf(m)) {
    const value = change(item)
    if (value.kind === 'failure') return value
    if (value.kind === 'angle') items.push(asRadians(value))
    else if (value.kind === 'number') items.push(value)
    else return failure('wrong-kind', { what: 'a matrix', kind: value.kind })
  }
  return matrixOf(m.rows, m.cols, items)
}

/** Two matrices of one shape, entry by entry. */
export function zipMatrices(
  a: MatrixValue,
  b: MatrixValue,
  sign: string,
  join: (x: NumberValue, y: NumberValue) => Value | Failure,
): Value | Failure {
  if (a.rows !== b.rows || a.cols !== b.cols)
    return failure('shapes-differ', { left: shapeText(a), right: shapeText(b), sign })
  let k = 0
  const others = itemsOf(b)
  return mapMatrix(a, (x) => {
    const y = others[k]
    k += 1
    return y ? join(x, y) : failure('shapes-differ', { left: shapeText(a), right: shapeText(b), sign })
  })
}

/** Aᵀ or Aᴴ as a value: of a row it is a vector. */
export function turned(m: MatrixValue, conjugate: boolean): Value {
  const flipped = transposed(m, conjugate)
  return m.cols > 1 ? asVector(flipped) : flipped
}

export function transposed(m: MatrixValue, conjugate: boolean): MatrixValue {
  if (!m.exact) return fromDense(D.transpose(m.dense, conjugate), m.complex)
  const { entries } = m.exact
  const flipped = Array.from({ length: entries.length }, (_, k) => {
    const z = entries[(k % m.rows) * m.cols + Math.floor(k / m.rows)] ?? G.ZERO
    return conjugate ? G.conjugate(z) : z
  })
  return fromExact({ rows: m.cols, cols: m.rows, entries: flipped }, m.complex)
}

/** A row times a column is a number; of 1 × 1 matrices the product is one, too. */
export function isInner(a: Sides, b: Sides): boolean {
  return a.rows === 1 && b.cols === 1 && a.cols > 1
}

interface Sides {
  readonly rows: number
  readonly cols: number
}

/** A·B; the number of columns on the left must be the number of rows on the right. */
export function product(a: MatrixValue, b: MatrixValue): MatrixValue | Failure {
  if (a.cols !== b.rows)
    return failure('shapes-product', { left: shapeText(a), right: shapeText(b), cols: a.cols, rows: b.rows })
  const complex = a.complex || b.complex
  const exact = a.exact && b.exact && exactMultiply(a.exact, b.exact)
  if (exact && exact.entries.length <= EXACT_MOST) return fromExact(exact, complex)
  return checked(multiply(a.dense, b.dense), complex, [a, b])
}
