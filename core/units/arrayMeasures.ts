import { PLAIN } from './measure'
import type { Measure } from './measure'

/**
 * What the entries of a vector or matrix measure: a factor for each row and one for each column, entry (i, k) being
 * their product (G. W. Hart, Multidimensional Analysis, 1995). Rows and columns that no entry but zeros joins are
 * in groups of their own: what a group measures is free by one factor, the rows times it and the columns by it,
 * until something joins it to another. A vector is one column.
 */
export class ArrayMeasures {
  constructor(
    readonly rows: readonly Measure[],
    readonly cols: readonly Measure[],
    /** The group of each row, and that of each column. */
    readonly rowGroups: readonly number[],
    readonly colGroups: readonly number[],
  ) {}

  /** What an entry measures; `null` of a zero that fits anywhere. */
  entry(row: number, col: number): Measure | null {
    const [r, c] = [this.rows[row], this.cols[col]]
    return r && c && this.rowGroups[row] === this.colGroups[col] ? r.times(c) : null
  }

  get transposed(): ArrayMeasures {
    return new ArrayMeasures(this.cols, this.rows, this.colGroups, this.rowGroups)
  }

  /** Those of the inverse, and of whatever is shaped as it is. */
  get inverse(): ArrayMeasures {
    const under = (of: readonly Measure[]): readonly Measure[] => of.map((m) => PLAIN.over(m))
    return new ArrayMeasures(under(this.cols), under(this.rows), this.colGroups, this.rowGroups)
  }

  /** Every entry times a factor. */
  scaled(by: (m: Measure) => Measure): ArrayMeasures {
    return new ArrayMeasures(this.rows.map(by), this.cols, this.rowGroups, this.colGroups)
  }

  /** Those of an array that is kept under a name. */
  get kept(): ArrayMeasures {
    const of = (list: readonly Measure[]): readonly Measure[] => list.map((m) => m.kept)
    if (![...this.rows, ...this.cols].some((m) => m.kept !== m)) return this
    return new ArrayMeasures(of(this.rows), of(this.cols), this.rowGroups, this.colGroups)
  }

  /** Chosen rows and columns. */
  picked(rows: readonly number[], cols: readonly number[]): ArrayMeasures {
    const take = <T>(from: readonly T[], at: readonly number[]): T[] => at.flatMap((k) => from[k] ?? [])
    return new ArrayMeasures(
      take(this.rows, rows),
      take(this.cols, cols),
      take(this.rowGroups, rows),
      take(this.colGroups, cols),
    )
  }

  /** The one measure of all entries that have one; `null` where they differ, or where there are none. */
  get uniform(): Measure | null {
    let found: Measure | null = null
    for (let i = 0; i < this.rows.length; i += 1)
      for (let k = 0; k < this.cols.length; k += 1) {
        const here = this.entry(i, k)
        if (here === null) continue
        if (found !== null && found.dimension !== here.dimension) return null
        found ??= here
      }
    return found
  }

  /** True where every entry is joined to every other. */
  get whole(): boolean {
    const [first] = this.rowGroups
    return this.rowGroups.every((g) => g === first) && this.colGroups.every((g) => g === first)
  }
}

/** An entry that does not fit the others, counted from 0. */
export interface Misfit {
  readonly row: number
  readonly col: number
}

/** All entries of one measure. */
export function allOf(m: Measure, rows: number, cols: number): ArrayMeasures {
  const zeros = (n: number): number[] => Array.from({ length: n }, () => 0)
  return new ArrayMeasures(
    Array.from({ length: rows }, () => m),
    Array.from({ length: cols }, () => PLAIN),
    zeros(rows),
    zeros(cols),
  )
}

/** The measures of rows and columns from those of the entries, `null` where an entry fits anywhere. */
export function fromEntries(
  rows: number,
  cols: number,
  entry: (row: number, col: number) => Measure | null,
): ArrayMeasures | Misfit {
  // prettier-ignore
  const fit = new Fitting(rows + cols)
  for (let row = 0; row < rows; row += 1)
    for (let col = 0; col < cols; col += 1) {
      const here = entry(row, col)
      if (here !== null && !fit.join(row, rows + col, here)) return { row, col }
    }
  return fit.measures(0, rows, rows, cols)
}

/** Those of a sum: where both have a measure it must be the same. */
export function sumOf(a: ArrayMeasures, b: ArrayMeasures): ArrayMeasures | Misfit {
  const [rows, cols] = [a.rows.length, a.cols.length]
  const fit = new Fitting(rows + cols)
  embed(fit, a, 0, rows)
  return embed(fit, b, 0, rows) ? fit.measures(0, rows, rows, cols) : (misfit(a, b) ?? { row: 0, col: 0 })
}

function misfit(a: ArrayMeasures, b: ArrayMeasures): Misfit | null {
  for (let row = 0; row < a.rows.length; row += 1)
    for (let col = 0; col < a.cols.length; col += 1) {
      const [x, y] = [a.entry(row, col), b.entry(row, col)]
      if (x && y && x.dimension !== y.dimension) return { row, col }
    }
  return null
}

/** Those of a matrix product: the columns of the first go with the rows of the second, up to one factor. */
export function productOf(a: ArrayMeasures, b: ArrayMeasures): ArrayMeasures | Misfit {
  const [rows, inner, cols] = [a.rows.length, a.cols.length, b.cols.length]
  // The unknowns: rows of a, what both sides of the product have between them, columns of b.
  const fit = new Fitting(rows + inner + cols)
  embed(fit, a, 0, rows)
  const fits = embed(fit, b, rows, rows + inner)
  if (!fits) return { row: 0, col: productMisfit(a, b) }
  return fit.measures(0, rows, rows + inner, cols)
}

/** The place along which two factors do not go together. */
function productMisfit(a: ArrayMeasures, b: ArrayMeasures): number {
  const fit = new Fitting(a.rows.length + a.cols.length + b.cols.length)
  embed(fit, a, 0, a.rows.length)
  for (let k = 0; k < b.rows.length; k += 1)
    for (let c = 0; c < b.cols.length; c += 1) {
      const here = b.entry(k, c)
      if (here && !fit.join(a.rows.length + k, a.rows.length + a.cols.length + c, here)) return k
    }
  return 0
}

/** What row(i)·col(i) is along the diagonal; `null` where it is not one measure throughout. */
export function diagonalOf(a: ArrayMeasures): { readonly along: Measure; readonly measures: ArrayMeasures } | null {
  const n = a.rows.length
  let along: Measure | null = null
  for (let i = 0; i < n; i += 1) along ??= a.entry(i, i)
  // No entry on the diagonal has one: the powers of the matrix decide, and one that is all zeros is plain.
  along ??= alongCycles(a) ?? PLAIN
  const fit = new Fitting(2 * n)
  if (!embed(fit, a, 0, n)) return null
  for (let i = 0; i < n; i += 1) if (!fit.join(i, n + i, along)) return null
  return { along, measures: fit.measures(0, n, n, n) }
}

/** The measure that a matrix without a diagonal has by its cycles: of [[0, a], [b, 0]] the root of a·b. */
function alongCycles(a: ArrayMeasures): Measure | null {
  for (let i = 0; i < a.rows.length; i += 1)
    for (let k = 0; k < a.rows.length; k += 1) {
      const [there, back] = [a.entry(i, k), a.entry(k, i)]
      if (there && back) return there.times(back).to({ n: 1, d: 2 })
    }
  return null
}

/** Puts an array's measures among those of an equation; false where they do not fit. */
function embed(fit: Fitting, a: ArrayMeasures, rowsAt: number, colsAt: number): boolean {
  const places = new Map<number, { readonly node: number; readonly weight: Measure }>()
  const join = (node: number, group: number, weight: Measure): boolean => {
    const first = places.get(group)
    if (!first) {
      places.set(group, { node, weight })
      return true
    }
    return fit.join(node, first.node, weight.over(first.weight))
  }
  return (
    a.rows.every((m, i) => join(rowsAt + i, a.rowGroups[i] ?? -1, m)) &&
    // A column stands for one by what it measures.
    a.cols.every((m, k) => join(colsAt + k, a.colGroups[k] ?? -1, PLAIN.over(m)))
  )
}

/** Measures that are known up to a factor for each group: a forest of which every node is its weight times its root. */
class Fitting {
  private readonly parents: number[]
  private readonly weights: Measure[]

  constructor(nodes: number) {
    this.parents = Array.from({ length: nodes }, (_, k) => k)
    this.weights = Array.from({ length: nodes }, () => PLAIN)
  }

  private find(node: number): { readonly root: number; readonly weight: Measure } {
    const parent = this.parents[node] ?? node
    const weight = this.weights[node] ?? PLAIN
    if (parent === node) return { root: node, weight: PLAIN }
    const above = this.find(parent)
    const whole = above.weight === PLAIN ? weight : weight.times(above.weight)
    this.parents[node] = above.root
    this.weights[node] = whole
    return { root: above.root, weight: whole }
  }

  /** Says that one node is `ratio` times another; false where that contradicts what was said before. */
  join(node: number, other: number, ratio: Measure): boolean {
    const [a, b] = [this.find(node), this.find(other)]
    if (a.root === b.root) return a.weight.dimension.over(b.weight.dimension) === ratio.dimension
    // a.weight·A = ratio·b.weight·B
    this.parents[a.root] = b.root
    this.weights[a.root] = ratio.times(b.weight).over(a.weight)
    return true
  }

  /** The measures of some nodes as rows and of others as columns, the root of each group being plain. */
  measures(rowsAt: number, rows: number, colsAt: number, cols: number): ArrayMeasures {
    const found = (from: number, count: number) => Array.from({ length: count }, (_, k) => this.find(from + k))
    const [r, c] = [found(rowsAt, rows), found(colsAt, cols)]
    return new ArrayMeasures(
      r.map(({ weight }) => weight),
      c.map(({ weight }) => PLAIN.over(weight)),
      r.map(({ root }) => root),
      c.map(({ root }) => root),
    )
  }
}
