import { lcmBig } from '../numbers/divisors'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { work as spend } from '../numbers/work'

/** Exact matrices of Gaussian rationals, row by row. `null` wherever a number outgrows its bit budget. */
export interface ExactMatrix {
  readonly rows: number
  readonly cols: number
  readonly entries: readonly Gaussian[]
}

/** A Gaussian integer. */
interface Whole {
  readonly re: bigint
  readonly im: bigint
}

const ZERO: Whole = { re: 0n, im: 0n }
const ONE: Whole = { re: 1n, im: 0n }
const isZero = (a: Whole): boolean => a.re === 0n && a.im === 0n
const times = (a: Whole, b: Whole): Whole =>
  // Most matrices are real: that is one product instead of four.
  a.im === 0n && b.im === 0n
    ? { re: a.re * b.re, im: 0n }
    : { re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re }
const minus = (a: Whole, b: Whole): Whole => ({ re: a.re - b.re, im: a.im - b.im })

/** a/b where it is known to come out even. */
function over(a: Whole, b: Whole): Whole {
  if (b.im === 0n) return { re: a.re / b.re, im: a.im === 0n ? 0n : a.im / b.re }
  const size = b.re * b.re + b.im * b.im
  return { re: (a.re * b.re + a.im * b.im) / size, im: (a.im * b.re - a.re * b.im) / size }
}

const LIMIT_BITS = BigInt(Q.MAX_BITS)
const TOO_LARGE = 1n << LIMIT_BITS
const fits = (a: Whole): boolean => a.re < TOO_LARGE && a.re > -TOO_LARGE && a.im < TOO_LARGE && a.im > -TOO_LARGE

/** Each row multiplied by the least common denominator of its parts. */
function wholeRows(a: ExactMatrix): { readonly rows: Whole[][]; readonly factors: bigint[] } {
  const factors: bigint[] = []
  const rows: Whole[][] = []
  for (let r = 0; r < a.rows; r += 1) {
    const row = a.entries.slice(r * a.cols, (r + 1) * a.cols)
    const factor = row.reduce((f, z) => lcmBig(lcmBig(f, BigInt(z.re.d)), BigInt(z.im.d)), 1n)
    const scaled = (q: Rational): bigint => BigInt(q.n) * (factor / BigInt(q.d))
    factors.push(factor)
    rows.push(row.map((z) => ({ re: scaled(z.re), im: scaled(z.im) })))
  }
  return { rows, factors }
}

interface Echelon {
  readonly rows: Whole[][]
  /** The column of each pivot. */
  readonly pivots: readonly number[]
  readonly sign: 1 | -1
}

/**
 * Fraction-free elimination to echelon form: every entry stays a Gaussian
 * integer, since each division comes out even. E. H. Bareiss, Mathematics of
 * Computation 22 (1968). Pivots are looked for in the first `columns` columns.
 */
function bareiss(rows: Whole[][], columns: number): Echelon | null {
  const work = rows.map((row) => [...row])
  const pivots: number[] = []
  let sign: 1 | -1 = 1
  let before = ONE
  let r = 0
  for (let c = 0; c < columns && r < work.length; c += 1) {
    const found = work.findIndex((row, k) => k >= r && !isZero(row[c] ?? ZERO))
    if (found < 0) continue
    if (found !== r) {
      const [one, other] = [work[r], work[found]]
      if (!one || !other) return null
      work[r] = other
      work[found] = one
      sign = sign > 0 ? -1 : 1
    }
    const top = work[r] ?? []
    const pivot = top[c] ?? ONE
    for (let k = r + 1; k < work.length; k += 1) {
      const row = work[k] ?? []
      spend(500 * columns)
      const lead = row[c] ?? ZERO
      const next = row.map((x, j) => (j < c ? ZERO : over(minus(times(pivot, x), times(lead, top[j] ?? ZERO)), before)))
      next[c] = ZERO
      if (!next.every(fits)) return null
      work[k] = next
    }
    pivots.push(c)
    before = pivot
    r += 1
  }
  return { rows: work, pivots, sign }
}

function toGaussian(a: Whole, by: bigint = 1n): Gaussian | null {
  const re = Q.fromBig(a.re, by)
  const im = Q.fromBig(a.im, by)
  return re && im ? { re, im } : null
}

/** det A by Bareiss's elimination. */
export function exactDeterminant(a: ExactMatrix): Gaussian | null {
  const { rows, factors } = wholeRows(a)
  const echelon = bareiss(rows, a.cols)
  if (!echelon) return null
  if (echelon.pivots.length < a.rows) return G.ZERO
  const last = echelon.rows[a.rows - 1]?.[a.cols - 1] ?? ONE
  const signed: Whole = echelon.sign > 0 ? last : { re: -last.re, im: -last.im }
  return toGaussian(
    signed,
    factors.reduce((f, x) => f * x, 1n),
  )
}

export function exactRank(a: ExactMatrix): number | null {
  return bareiss(wholeRows(a).rows, a.cols)?.pivots.length ?? null
}

/** A row echelon form: leading entries are 1 with `leading`, rows stay as the elimination leaves them without. */
export function exactRef(a: ExactMatrix): ExactMatrix | null {
  const echelon = bareiss(wholeRows(a).rows, a.cols)
  if (!echelon) return null
  const entries: Gaussian[] = []
  for (const [r, row] of echelon.rows.entries()) {
    const column = echelon.pivots[r]
    const pivot = column === undefined ? null : toGaussian(row[column] ?? ONE)
    for (const entry of row) {
      const value = toGaussian(entry)
      const scaled = value && pivot ? G.divide(value, pivot) : value
      if (!scaled) return null
      entries.push(scaled)
    }
  }
  return { rows: a.rows, cols: a.cols, entries }
}

/** The reduced row echelon form with its pivot columns; pivots are looked for in the first `columns` columns. */
export function exactRref(
  a: ExactMatrix,
  columns = a.cols,
): { readonly matrix: ExactMatrix; readonly pivots: readonly number[] } | null {
  const echelon = bareiss(wholeRows(a).rows, columns)
  if (!echelon) return null
  const rows: Gaussian[][] = []
  for (const row of echelon.rows) {
    const converted = row.map((x) => toGaussian(x))
    if (converted.some((x) => x === null)) return null
    rows.push(converted.flatMap((x) => (x ? [x] : [])))
  }
  for (let r = echelon.pivots.length - 1; r >= 0; r -= 1) {
    const column = echelon.pivots[r] ?? 0
    const row = rows[r] ?? []
    const scaled = row.map((x) => G.divide(x, row[column] ?? G.ONE))
    if (scaled.some((x) => x === null)) return null
    const unit = scaled.flatMap((x) => (x ? [x] : []))
    rows[r] = unit
    for (let k = 0; k < r; k += 1) {
      const upper = rows[k] ?? []
      const lead = upper[column] ?? G.ZERO
      if (G.isZero(lead)) continue
      const next: Gaussian[] = []
      for (const [j, x] of upper.entries()) {
        const product = G.multiply(lead, unit[j] ?? G.ZERO)
        const value = product && G.subtract(x, product)
        if (!value) return null
        next.push(value)
      }
      rows[k] = next
    }
  }
  return { matrix: { rows: a.rows, cols: a.cols, entries: rows.flat() }, pivots: echelon.pivots }
}

function augmented(a: ExactMatrix, b: ExactMatrix): ExactMatrix {
  const entries: Gaussian[] = []
  for (let r = 0; r < a.rows; r += 1) {
    entries.push(...a.entries.slice(r * a.cols, (r + 1) * a.cols), ...b.entries.slice(r * b.cols, (r + 1) * b.cols))
  }
  return { rows: a.rows, cols: a.cols + b.cols, entries }
}

/** X with A·X = B for square A; `'singular'` where there is none or more than one. */
export function exactSolve(a: ExactMatrix, b: ExactMatrix): ExactMatrix | 'singular' | null {
  const echelon = bareiss(wholeRows(augmented(a, b)).rows, a.cols)
  if (!echelon) return null
  if (echelon.pivots.length < a.rows) return 'singular'
  return backSubstituted(echelon.rows, a.rows, b.cols)
}

/**
 * The solutions of a square triangle of Bareiss's: each times the last pivot, which is the determinant, is a Gaussian
 * integer (Cramer), so that every division comes out even and fractions are made only at the end.
 */
function backSubstituted(rows: readonly (readonly Whole[])[], n: number, cols: number): ExactMatrix | null {
  const last = rows[n - 1]?.[n - 1] ?? ONE
  const found: Whole[][] = Array.from({ length: n }, () => [])
  for (let r = n - 1; r >= 0; r -= 1) {
    const row = rows[r] ?? []
    spend(200 * (n - r) * cols)
    for (let c = 0; c < cols; c += 1) {
      let sum = times(last, row[n + c] ?? ZERO)
      for (let k = r + 1; k < n; k += 1) sum = minus(sum, times(row[k] ?? ZERO, found[k]?.[c] ?? ZERO))
      const value = over(sum, row[r] ?? ONE)
      if (!fits(value)) return null
      found[r]?.push(value)
    }
  }
  const size = last.re * last.re + last.im * last.im
  const entries: Gaussian[] = []
  for (const value of found.flat()) {
    const real = last.im === 0n
    const z = toGaussian(real ? value : times(value, { re: last.re, im: -last.im }), real ? last.re : size)
    if (!z) return null
    entries.push(z)
  }
  return { rows: n, cols, entries }
}

export function exactIdentity(n: number): ExactMatrix {
  const entries = Array.from({ length: n * n }, (_, k) => (k % (n + 1) === 0 ? G.ONE : G.ZERO))
  return { rows: n, cols: n, entries }
}

export function exactMultiply(a: ExactMatrix, b: ExactMatrix): ExactMatrix | null {
  const entries: Gaussian[] = []
  for (let r = 0; r < a.rows; r += 1) {
    for (let c = 0; c < b.cols; c += 1) {
      spend(20 * a.cols)
      let sum: Gaussian | null = G.ZERO
      for (let k = 0; k < a.cols && sum; k += 1) {
        const product = G.multiply(a.entries[r * a.cols + k] ?? G.ZERO, b.entries[k * b.cols + c] ?? G.ZERO)
        sum = product && G.add(sum, product)
      }
      if (!sum) return null
      entries.push(sum)
    }
  }
  return { rows: a.rows, cols: b.cols, entries }
}

/** Columns that span the null space, from the free columns of the reduced form; none where it is only zero. */
export function exactNull(a: ExactMatrix): ExactMatrix | null {
  const reduced = exactRref(a)
  if (!reduced) return null
  const { matrix, pivots } = reduced
  const free = Array.from({ length: a.cols }, (_, c) => c).filter((c) => !pivots.includes(c))
  const entries: Gaussian[] = []
  for (let row = 0; row < a.cols; row += 1) {
    for (const column of free) {
      const pivot = pivots.indexOf(row)
      if (pivot >= 0) entries.push(G.negate(matrix.entries[pivot * a.cols + column] ?? G.ZERO))
      else entries.push(row === column ? G.ONE : G.ZERO)
    }
  }
  return { rows: a.cols, cols: free.length, entries }
}

/** Coefficients of det(λI − A) from the highest power down, by the Faddeev–LeVerrier recursion. */
export function exactCharpoly(a: ExactMatrix): readonly Gaussian[] | null {
  const n = a.rows
  const coefficients: Gaussian[] = [G.ONE]
  let m: ExactMatrix = exactIdentity(n)
  for (let k = 1; k <= n; k += 1) {
    const product = exactMultiply(a, m)
    if (!product) return null
    let trace: Gaussian | null = G.ZERO
    for (let i = 0; i < n && trace; i += 1) trace = G.add(trace, product.entries[i * (n + 1)] ?? G.ZERO)
    const c = trace && G.divide(G.negate(trace), { re: { n: k, d: 1 }, im: Q.ZERO })
    if (!c) return null
    coefficients.push(c)
    const entries: Gaussian[] = []
    for (const [at, x] of product.entries.entries()) {
      const value = at % (n + 1) === 0 ? G.add(x, c) : x
      if (!value) return null
      entries.push(value)
    }
    m = { rows: n, cols: n, entries }
  }
  return coefficients
}
