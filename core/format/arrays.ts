import { pmatrixOfRows } from '../notation/latex'

/** Vectors and matrices put together of the texts of their entries, row by row. */

/** `[[1, 2], [3, 4]]`. */
export function rowsText(rows: number, cols: number, entries: readonly string[]): string {
  return `[${inRows(rows, cols, entries)
    .map((row) => `[${row.join(', ')}]`)
    .join(', ')}]`
}

/** A column or a matrix in round brackets, as LaTeX. */
export function pmatrix(rows: number, cols: number, entries: readonly string[]): string {
  return pmatrixOfRows(inRows(rows, cols, entries).map((row) => row.join(' & ')))
}

/** A list of entries cut into rows. */
export function inRows<T>(rows: number, cols: number, entries: readonly T[]): T[][] {
  return Array.from({ length: rows }, (_, r) => entries.slice(r * cols, (r + 1) * cols))
}
