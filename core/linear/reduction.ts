import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import type { ExactMatrix } from './exact'

/** Reducing a matrix by row operations, one step after another, exactly. Rows count from 0. */
export type RowOperation<Factor = Gaussian> =
  /** R_a ↔ R_b */
  | { readonly type: 'swap'; readonly a: number; readonly b: number }
  /** R_row → factor·R_row, with a factor other than 0 */
  | { readonly type: 'scale'; readonly row: number; readonly factor: Factor }
  /** R_row → R_row + factor·R_from */
  | { readonly type: 'add'; readonly row: number; readonly from: number; readonly factor: Factor }

export function entryOf(m: ExactMatrix, r: number, c: number): Gaussian {
  return m.entries[r * m.cols + c] ?? G.ZERO
}

/** The matrix after an operation; `null` where it makes no sense or a number outgrows its bit budget. */
export function applyRowOperation(m: ExactMatrix, operation: RowOperation): ExactMatrix | null {
  const rows = Array.from({ length: m.rows }, (_, r) => m.entries.slice(r * m.cols, (r + 1) * m.cols))
  const exists = (r: number): boolean => Number.isInteger(r) && r >= 0 && r < m.rows
  switch (operation.type) {
    case 'swap': {
      const [a, b] = [rows[operation.a], rows[operation.b]]
      if (!a || !b || operation.a === operation.b) return null
      rows[operation.a] = b
      rows[operation.b] = a
      break
    }
    case 'scale': {
      if (!exists(operation.row) || G.isZero(operation.factor)) return null
      const scaled = (rows[operation.row] ?? []).map((x) => G.multiply(x, operation.factor))
      if (scaled.some((x) => x === null)) return null
      rows[operation.row] = scaled.flatMap((x) => x ?? [])
      break
    }
    case 'add': {
      if (!exists(operation.row) || !exists(operation.from) || operation.row === operation.from) return null
      const source = rows[operation.from] ?? []
      const sums = (rows[operation.row] ?? []).map((x, k) => {
        const product = G.multiply(source[k] ?? G.ZERO, operation.factor)
        return product && G.add(x, product)
      })
      if (sums.some((x) => x === null)) return null
      rows[operation.row] = sums.flatMap((x) => x ?? [])
      break
    }
  }
  return { rows: m.rows, cols: m.cols, entries: rows.flat() }
}

/** By what an operation multiplies the determinant. */
export function determinantFactor(operation: RowOperation): Gaussian {
  if (operation.type === 'swap') return G.negate(G.ONE)
  return operation.type === 'scale' ? operation.factor : G.ONE
}

/** The operation that takes this one back. */
export function undoing(operation: RowOperation): RowOperation {
  switch (operation.type) {
    case 'swap':
      return operation
    case 'scale':
      return { ...operation, factor: G.divide(G.ONE, operation.factor) ?? G.ONE }
    case 'add':
      return { ...operation, factor: G.negate(operation.factor) }
  }
}

export interface Pivot {
  readonly row: number
  readonly col: number
}

/** The leading entry of each row that has one, in the first `columns` columns. */
export function leading(m: ExactMatrix, columns: number): readonly (Pivot | null)[] {
  return Array.from({ length: m.rows }, (_, row) => {
    for (let col = 0; col < columns; col += 1) if (!G.isZero(entryOf(m, row, col))) return { row, col }
    return null
  })
}

/** True where every leading entry stands right of the ones above it, and rows of zeros come last. */
export function isEchelon(m: ExactMatrix, columns: number): boolean {
  let last = -1
  let ended = false
  for (const pivot of leading(m, columns)) {
    if (pivot === null) ended = true
    else if (ended || pivot.col <= last) return false
    else last = pivot.col
  }
  return true
}

/** Echelon, with leading ones that stand alone in their columns. */
export function isReduced(m: ExactMatrix, columns: number): boolean {
  if (!isEchelon(m, columns)) return false
  return leading(m, columns).every((pivot) => {
    if (!pivot) return true
    for (let r = 0; r < m.rows; r += 1) {
      const wanted = r === pivot.row ? G.ONE : G.ZERO
      if (!G.equals(entryOf(m, r, pivot.col), wanted)) return false
    }
    return true
  })
}

/**
 * What comes next on the way to the echelon form (or the reduced form): by hand
 * one would do it in the same order. `null` where the form is reached.
 */
export function nextOperation(m: ExactMatrix, columns: number, full: boolean): RowOperation | null {
  let r = 0
  for (let c = 0; c < columns && r < m.rows; c += 1) {
    const found = Array.from({ length: m.rows - r }, (_, k) => r + k).filter((k) => !G.isZero(entryOf(m, k, c)))
    if (found.length === 0) continue
    // A row that begins with 1 saves fractions; otherwise the first that will do.
    const one = found.find((k) => G.equals(entryOf(m, k, c), G.ONE))
    const best = G.isZero(entryOf(m, r, c)) ? (one ?? found[0] ?? r) : r
    if (best !== r) return { type: 'swap', a: r, b: best }
    const pivot = entryOf(m, r, c)
    for (const k of found) {
      if (k === r) continue
      const factor = G.divide(G.negate(entryOf(m, k, c)), pivot)
      if (factor) return { type: 'add', row: k, from: r, factor }
    }
    r += 1
  }
  return full ? backward(m, columns) : null
}

/** From the echelon form on: leading ones, and zeros above them, from the last row up. */
function backward(m: ExactMatrix, columns: number): RowOperation | null {
  for (const pivot of leading(m, columns).toReversed()) {
    if (!pivot) continue
    const value = entryOf(m, pivot.row, pivot.col)
    if (!G.equals(value, G.ONE)) {
      const factor = G.divide(G.ONE, value)
      return factor && { type: 'scale', row: pivot.row, factor }
    }
    for (let r = pivot.row - 1; r >= 0; r -= 1) {
      const above = entryOf(m, r, pivot.col)
      if (!G.isZero(above)) return { type: 'add', row: r, from: pivot.row, factor: G.negate(above) }
    }
  }
  return null
}

/** What the present state of an augmented matrix says about the solutions. */
export type Solutions =
  | { readonly kind: 'none'; readonly row: number }
  | { readonly kind: 'one' }
  | { readonly kind: 'many'; readonly free: number }
  | { readonly kind: 'open' }

export function solutions(m: ExactMatrix, columns: number): Solutions {
  const pivots = leading(m, columns)
  for (const [row, pivot] of pivots.entries()) {
    const rest = Array.from({ length: m.cols - columns }, (_, k) => entryOf(m, row, columns + k))
    if (pivot === null && rest.some((x) => !G.isZero(x))) return { kind: 'none', row }
  }
  if (!isEchelon(m, columns)) return { kind: 'open' }
  const rank = pivots.filter((p) => p !== null).length
  return rank === columns ? { kind: 'one' } : { kind: 'many', free: columns - rank }
}
