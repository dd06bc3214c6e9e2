/**
 * What a data file holds: a table of columns, or a matrix. Numbers are doubles; what a file leaves out, or an
 * instrument could not measure, is NaN, as the notation's *undefined*.
 */

/** A quantity of a table: a number, or a square matrix of numbers, in every row. */
export interface Column {
  readonly name: string
  /** As the file writes it; empty where it says none. */
  readonly unit: string
  /** 1 of numbers; n where every row holds an n × n matrix, by rows. */
  readonly order: number
  /** rows · order² real parts. */
  readonly re: Float64Array
  /** `null` where all are real. */
  readonly im: Float64Array | null
}

export interface DataTable {
  readonly kind: 'table'
  readonly rows: number
  readonly columns: readonly Column[]
  /** Which column the others run along; -1 where they are only counted. */
  readonly parameter: number
}

export interface DataMatrix {
  readonly kind: 'matrix'
  readonly rows: number
  readonly cols: number
  /** By rows. */
  readonly re: Float64Array
  readonly im: Float64Array | null
}

export type Data = DataTable | DataMatrix

/** Most rows and columns of a table. */
export const ROWS_MOST = 1_000_000
export const COLUMNS_MOST = 1_000

/** True where two hold the same, bit for bit. */
export function sameData(a: Data, b: Data): boolean {
  if (a.kind === 'matrix') return b.kind === 'matrix' && a.rows === b.rows && a.cols === b.cols && sameParts(a, b)
  return (
    b.kind === 'table' &&
    a.rows === b.rows &&
    a.parameter === b.parameter &&
    a.columns.length === b.columns.length &&
    a.columns.every((column, k) => {
      const other = b.columns[k]
      return (
        other !== undefined &&
        column.name === other.name &&
        column.unit === other.unit &&
        column.order === other.order &&
        sameParts(column, other)
      )
    })
  )
}

interface Parts {
  readonly re: Float64Array
  readonly im: Float64Array | null
}

function sameParts(a: Parts, b: Parts): boolean {
  if ((a.im === null) !== (b.im === null)) return false
  return sameBits(a.re, b.re) && (a.im === null || b.im === null || sameBits(a.im, b.im))
}

function sameBits(a: Float64Array, b: Float64Array): boolean {
  return a.length === b.length && a.every((x, k) => Object.is(x, b[k]))
}
