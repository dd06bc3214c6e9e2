import { asMatrix, asVector, isInner, itemsOf, matrixOf } from '../values/matrices'
import { isZero } from '../values/beyond'
import { integer, valueList, vector } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { AlgebraMatrixValue, Value } from '../values/types'
import { algebraic, isAlgebraic } from './ratio'
import type { Algebraic } from './ratio'

/** Matrices whose entries have unknowns in them: small, and worked on entry by entry. */

/** Largest order whose determinant, inverse and solution are worked out. */
export const ORDER_MOST = 6
/** Most entries of such a matrix. */
const ENTRIES_MOST = 400

export function algebraMatrix(rows: number, cols: number, items: readonly Algebraic[]): Value | Failure {
  const numbers = items.flatMap((item) => (item.kind === 'number' ? [item] : []))
  if (numbers.length === items.length)
    return rows > 1 ? asVector(matrixOf(rows, cols, numbers)) : matrixOf(rows, cols, numbers)
  if (items.length > ENTRIES_MOST) return failure('matrix-too-large', { count: items.length, limit: ENTRIES_MOST })
  return cols === 1 && rows > 1 ? vector(items) : { kind: 'algebra-matrix', rows, cols, items }
}

/** A value as rows of entries that are numbers or polynomials; a vector is a column. */
export function asAlgebra(value: Value): AlgebraMatrixValue | null {
  if (value.kind === 'algebra-matrix') return value
  if (value.kind === 'polynomial' || value.kind === 'number')
    return { kind: 'algebra-matrix', rows: 1, cols: 1, items: [value] }
  if (value.kind === 'vector') {
    const items = value.items.filter(isAlgebraic)
    return items.length === value.items.length ? { kind: 'algebra-matrix', rows: items.length, cols: 1, items } : null
  }
  const matrix = asMatrix(value)
  return matrix && { kind: 'algebra-matrix', rows: matrix.rows, cols: matrix.cols, items: itemsOf(matrix) }
}

/** True where an entry has an unknown in it. */
export function hasUnknowns(value: Value): boolean {
  if (value.kind === 'algebra-matrix') return true
  return value.kind === 'vector' && value.items.some((item) => item.kind === 'polynomial')
}

const shape = (m: AlgebraMatrixValue): string => `${m.rows} × ${m.cols}`

function entries(a: AlgebraMatrixValue, change: (item: Algebraic, k: number) => Algebraic | Failure): Value | Failure {
  const items: Algebraic[] = []
  for (const [k, item] of a.items.entries()) {
    const value = change(item, k)
    if (value.kind === 'failure') return value
    items.push(value)
  }
  return algebraMatrix(a.rows, a.cols, items)
}

/** + − × ÷ of matrices with numbers, polynomials and one another. */
export function algebraMatrices(sign: '+' | '-' | '*' | '/', x: Value, y: Value): Value | Failure {
  const scalar = (v: Value): Algebraic | null => (isAlgebraic(v) ? v : null)
  const [a, b] = [asAlgebra(x), asAlgebra(y)]
  const [left, right] = [scalar(x), scalar(y)]
  if (!a || !b) return failure('entries-are-numbers', { kind: 'text' })
  if (left && !right) {
    if (sign === '*') return entries(b, (item) => algebraic('*', left, item))
    return sign === '/' ? failure('matrix-division') : failure('vector-plus-number', { sign, kind: 'matrix' })
  }
  if (right) {
    if (sign === '*' || sign === '/') return entries(a, (item) => algebraic(sign, item, right))
    return failure('vector-plus-number', { sign, kind: 'matrix' })
  }
  if (sign === '/') return failure('matrix-division')
  if (sign === '*') return product(a, b)
  if (a.rows !== b.rows || a.cols !== b.cols) return failure('shapes-differ', { left: shape(a), right: shape(b), sign })
  return entries(a, (item, k) => algebraic(sign, item, b.items[k] ?? integer(0)))
}

function product(a: AlgebraMatrixValue, b: AlgebraMatrixValue): Value | Failure {
  if (a.cols !== b.rows)
    return failure('shapes-product', { left: shape(a), right: shape(b), cols: a.cols, rows: b.rows })
  const items: Algebraic[] = []
  for (let r = 0; r < a.rows; r += 1) {
    for (let c = 0; c < b.cols; c += 1) {
      let sum: Algebraic | Failure = integer(0)
      for (let k = 0; k < a.cols; k += 1) {
        const term = algebraic('*', a.items[r * a.cols + k] ?? integer(0), b.items[k * b.cols + c] ?? integer(0))
        if (term.kind === 'failure') return term
        sum = algebraic('+', sum, term)
        if (sum.kind === 'failure') return sum
      }
      items.push(sum)
    }
  }
  if (isInner(a, b)) return items[0] ?? integer(0)
  return algebraMatrix(a.rows, b.cols, items)
}

export function algebraTranspose(m: AlgebraMatrixValue): Value | Failure {
  const items = Array.from(
    { length: m.items.length },
    (_, k) => m.items[(k % m.rows) * m.cols + Math.floor(k / m.rows)] ?? integer(0),
  )
  return algebraMatrix(m.cols, m.rows, items)
}

function squareOrder(m: AlgebraMatrixValue, name: string): Failure | null {
  if (m.rows !== m.cols) return failure('not-square', { name, shape: shape(m) })
  return m.rows > ORDER_MOST ? failure('algebra-order', { name, limit: ORDER_MOST }) : null
}

/** The determinant by expansion along the first row: no quotient comes up on the way. */
export function algebraDeterminant(m: AlgebraMatrixValue): Algebraic | Failure {
  const wrong = squareOrder(m, 'det')
  return wrong ?? minor(m, allOf(m.rows), allOf(m.cols))
}

const allOf = (n: number): readonly number[] => Array.from({ length: n }, (_, k) => k)

function minor(m: AlgebraMatrixValue, rows: readonly number[], cols: readonly number[]): Algebraic | Failure {
  const [row, ...others] = rows
  if (row === undefined) return integer(1)
  let sum: Algebraic | Failure = integer(0)
  for (const [k, col] of cols.entries()) {
    const entry = m.items[row * m.cols + col] ?? integer(0)
    if (entry.kind === 'number' && isZero(entry)) continue
    const inner = minor(m, others, cols.filter((c) => c !== col)) // prettier-ignore
    if (inner.kind === 'failure') return inner
    const term = algebraic('*', entry, inner)
    if (term.kind === 'failure') return term
    sum = algebraic(k % 2 === 0 ? '+' : '-', sum, term)
    if (sum.kind === 'failure') return sum
  }
  return sum
}

/** The inverse as the adjugate over the determinant. */
export function algebraInverse(m: AlgebraMatrixValue): Value | Failure {
  const determinant = squareOrder(m, 'inv') ?? algebraDeterminant(m)
  if (determinant.kind === 'failure') return determinant
  if (determinant.kind === 'number' && isZero(determinant)) return failure('singular', { what: 'inverse' })
  const n = m.rows
  const items: Algebraic[] = []
  for (let r = 0; r < n; r += 1) {
    for (let c = 0; c < n; c += 1) {
      const cofactor = minor(
        m,
        allOf(n).filter((k) => k !== c),
        allOf(n).filter((k) => k !== r),
      )
      if (cofactor.kind === 'failure') return cofactor
      const signed = (r + c) % 2 === 0 ? cofactor : algebraic('-', integer(0), cofactor)
      if (signed.kind === 'failure') return signed
      const entry = algebraic('/', signed, determinant)
      if (entry.kind === 'failure') return entry
      items.push(entry)
    }
  }
  return algebraMatrix(n, n, items)
}

/** The x with A·x = b, by the inverse. */
export function algebraSolve(a: AlgebraMatrixValue, b: AlgebraMatrixValue): Value | Failure {
  if (a.cols !== b.rows)
    return failure('shapes-product', { left: shape(a), right: shape(b), cols: a.cols, rows: b.rows })
  const inverse = algebraInverse(a)
  if (inverse.kind === 'failure')
    return inverse.code === 'singular' ? failure('singular', { what: 'single solution' }) : inverse
  const left = asAlgebra(inverse)
  return left ? product(left, b) : failure('entries-are-numbers', { kind: inverse.kind })
}

export function algebraTrace(m: AlgebraMatrixValue): Algebraic | Failure {
  if (m.rows !== m.cols) return failure('not-square', { name: 'tr', shape: shape(m) })
  let sum: Algebraic | Failure = integer(0)
  for (let k = 0; k < m.rows; k += 1) {
    sum = algebraic('+', sum, m.items[k * (m.cols + 1)] ?? integer(0))
    if (sum.kind === 'failure') return sum
  }
  return sum
}

/** Coefficients of det(λI − A), from the highest power down, after D. K. Faddeev and U. J. J. Le Verrier. */
export function algebraCharpoly(m: AlgebraMatrixValue): Value | Failure {
  const wrong = squareOrder(m, 'charpoly')
  if (wrong) return wrong
  const n = m.rows
  const found: Algebraic[] = [integer(1)]
  let power: Value = m
  for (let k = 1; k <= n; k += 1) {
    const now = asAlgebra(power)
    if (!now) return failure('entries-are-numbers', { kind: power.kind })
    const trace = algebraTrace(now)
    if (trace.kind === 'failure') return trace
    const next = algebraic('/', trace, integer(-k))
    if (next.kind === 'failure') return next
    found.push(next)
    if (k === n) break
    // A·(M + c·I)
    const shifted = entries(now, (item, at) => (at % (n + 1) === 0 ? algebraic('+', item, next) : item))
    if (shifted.kind === 'failure') return shifted
    const raised = algebraMatrices('*', m, shifted)
    if (raised.kind === 'failure') return raised
    power = raised
  }
  return valueList(found)
}
