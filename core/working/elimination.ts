import { isComplex } from '../format/number'
import * as C from '../numbers/complex'
import * as A from '../values/arithmetic'
import { integer, ofSort } from '../values/make'
import type { NumberValue } from '../values/types'
import type { RowChange } from './step'
import { isZero, numberOr } from './terms'

/**
 * Elimination by hand, one operation on rows after another, with exact and with rounded numbers. Source: the usual
 * Gauss–Jordan scheme, below the leading entries first, then above them from the last row up, as the reduction bench goes.
 */

export type Entries = readonly (readonly NumberValue[])[]

export interface Stage {
  readonly rows: Entries
  readonly change: RowChange
  /** An entry was within rounding of 0 and was taken for 0. */
  readonly taken: boolean
}

/** A share of the largest entry below which a rounded entry is taken for 0. */
const TOLERANCE = 1e-10
const ZERO = integer(0)
const ONE = integer(1)

export const entryAt = (rows: Entries, r: number, c: number): NumberValue => rows[r]?.[c] ?? ZERO

/** The stages on the way to the echelon form of the first columns, or the reduced one. */
export function eliminated(start: Entries, columns: number, full: boolean, tolerance = TOLERANCE): readonly Stage[] {
  const stages: Stage[] = []
  const floor = tolerance * Math.max(0, ...start.flat().map((z) => C.abs(z)))
  let rows = start
  const exact = start.flat().every((z) => z.exact !== null)
  const make = (change: RowChange): void => {
    // Beyond the range of doubles nothing is shown that would not hold.
    if (change.type !== 'swap' && !C.isFinite(change.factor)) return
    const changed = applied(rows, change)
    let taken = false
    rows = changed.map((row) => row.map((z) => (!z.exact && !isZero(z) && C.abs(z) <= floor ? ((taken = true), ofSort(ZERO, isComplex(z))) : z))) // prettier-ignore
    stages.push({ rows, change, taken })
  }
  const pivots: { readonly row: number; readonly col: number }[] = []
  for (let c = 0; c < columns && pivots.length < rows.length; c += 1) {
    const r = pivots.length
    const best = pivotRow(rows, r, c, exact)
    if (best === null) continue
    if (best !== r) make({ type: 'swap', a: r, b: best })
    for (let k = r + 1; k < rows.length; k += 1) clear(rows, k, r, c, make)
    pivots.push({ row: r, col: c })
  }
  if (!full) return stages
  for (const { row, col } of pivots.toReversed()) {
    const pivot = entryAt(rows, row, col)
    if (!A.equal(pivot, ONE)) make({ type: 'scale', row, factor: numberOr(A.divide(ONE, pivot)) })
    for (let k = row - 1; k >= 0; k -= 1) clear(rows, k, row, col, make)
  }
  return stages
}

/** The row whose entry leads: of exact ones the first, one with a 1 before others; of rounded ones the largest. */
function pivotRow(rows: Entries, from: number, c: number, exact: boolean): number | null {
  const found = rows.flatMap((_, k) => (k >= from && !isZero(entryAt(rows, k, c)) ? [k] : []))
  if (found.length === 0) return null
  if (!exact) return found.reduce((best, k) => (C.abs(entryAt(rows, k, c)) > C.abs(entryAt(rows, best, c)) ? k : best))
  if (found[0] === from) return from
  return found.find((k) => A.equal(entryAt(rows, k, c), ONE)) ?? found[0] ?? null
}

function clear(rows: Entries, k: number, from: number, c: number, make: (change: RowChange) => void): void {
  const entry = entryAt(rows, k, c)
  if (isZero(entry)) return
  const factor = A.negate(numberOr(A.divide(entry, entryAt(rows, from, c))))
  make({ type: 'add', row: k, from, factor })
}

/** Rows after an operation. */
export function applied(rows: Entries, change: RowChange): Entries {
  switch (change.type) {
    case 'swap':
      return rows.map((row, k) => (k === change.a ? rows[change.b] : k === change.b ? rows[change.a] : row) ?? row)
    case 'scale':
      return rows.map((row, k) => (k === change.row ? row.map((z) => numberOr(A.multiply(z, change.factor))) : row))
    case 'add': {
      const source = rows[change.from] ?? []
      // What is cleared is 0, not what rounding leaves of it.
      const lead = source.findIndex((z) => !isZero(z))
      return rows.map((row, k) =>
        k !== change.row
          ? row
          : row.map((z, c) => {
              const next = numberOr(A.add(z, numberOr(A.multiply(change.factor, source[c] ?? ZERO))))
              return c === lead && !next.exact && C.abs(next) <= 1e-9 * C.abs(z) ? ofSort(ZERO, isComplex(z)) : next
            }),
      )
    }
  }
}

/** The columns in which rows lead, in the first columns. */
export function leadingColumns(rows: Entries, columns: number): readonly (number | null)[] {
  return rows.map((row) => {
    const at = row.slice(0, columns).findIndex((z) => !isZero(z))
    return at < 0 ? null : at
  })
}

/** The columns, counted from 1, in which no row leads: the unknowns that are free. */
export function freeColumns(rows: Entries, columns: number): readonly number[] {
  const leads = leadingColumns(rows, columns)
  return Array.from({ length: columns }, (_, c) => c + 1).filter((c) => !leads.includes(c - 1))
}
