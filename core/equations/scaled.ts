import * as D from '../linear/dense'
import type { Dense } from '../linear/dense'
import * as C from '../numbers/complex'
import type { NumberValue } from '../values/types'

/** Linear equations as they are, and with rows and columns brought to one size. */

export interface LinearSystem {
  readonly names: readonly string[]
  /** The coefficients of each equation, in the order of the names. */
  readonly rows: readonly (readonly NumberValue[])[]
  readonly right: readonly NumberValue[]
}

/** Most coefficients, right sides included, that are reckoned exactly. */
const EXACT_MOST = 1_000

export const isExactSystem = ({ rows, right }: LinearSystem): boolean =>
  rows.length * ((rows[0]?.length ?? 0) + 1) <= EXACT_MOST &&
  rows.every((row) => row.every((x) => x.exact !== null)) &&
  right.every((x) => x.exact !== null)

export interface Scaled {
  readonly a: Dense
  readonly b: Dense
  /** What each solution of the scaled equations is to be multiplied by. */
  readonly cols: readonly number[]
}

/** Rows and columns brought to about 1 by powers of two, so that units of whatever size do no harm. */
export function equilibrated({ rows, right, names }: LinearSystem): Scaled {
  const [m, n] = [rows.length, names.length]
  const a = D.zeros(m, n)
  const b = D.zeros(m, 1)
  const cols = names.map((_, c) => powerOfTwo(Math.max(...rows.map((row) => size(row[c])))))
  rows.forEach((row, r) => {
    const by = powerOfTwo(Math.max(...row.map((x, c) => size(x) * (cols[c] ?? 1))))
    row.forEach((x, c) => {
      const factor = by * (cols[c] ?? 1)
      a.re[r * n + c] = x.re * factor
      a.im[r * n + c] = x.im * factor
    })
    b.re[r] = (right[r]?.re ?? 0) * by
    b.im[r] = (right[r]?.im ?? 0) * by
  })
  return { a, b, cols }
}

const size = (x: NumberValue | undefined): number => (x ? Math.max(Math.abs(x.re), Math.abs(x.im)) : 0)

/** The power of two that brings a size to between 1 and 2; 1 of nothing. */
export function powerOfTwo(size: number): number {
  if (size === 0 || !Number.isFinite(size)) return 1
  return 2 ** -Math.max(-1000, Math.min(1000, Math.floor(Math.log2(size))))
}

/** A reduced row echelon form of [A | b], with the columns of its pivots. */
export interface Reduced {
  readonly matrix: Dense
  readonly pivots: readonly number[]
}

/** Gauss–Jordan elimination of [A | b] with partial pivoting; what is below rounding counts as zero. */
export function reducedRounded({ a, b }: Scaled): Reduced {
  const [m, n] = [a.rows, a.cols]
  const matrix = D.zeros(m, n + 1)
  const { re, im } = matrix
  const w = n + 1
  for (let r = 0; r < m; r += 1) {
    for (let c = 0; c < n; c += 1) {
      re[r * w + c] = a.re[r * n + c] ?? 0
      im[r * w + c] = a.im[r * n + c] ?? 0
    }
    re[r * w + n] = b.re[r] ?? 0
    im[r * w + n] = b.im[r] ?? 0
  }
  const floor = 16 * Math.max(m, n) * Number.EPSILON
  const pivots: number[] = []
  const at = (r: number, c: number): number => Math.hypot(re[r * w + c] ?? 0, im[r * w + c] ?? 0)
  for (let c = 0; c < n && pivots.length < m; c += 1) {
    const r = pivots.length
    let best = r
    for (let k = r + 1; k < m; k += 1) if (at(k, c) > at(best, c)) best = k
    if (at(best, c) <= floor) continue
    const pivot = { re: re[best * w + c] ?? 0, im: im[best * w + c] ?? 0 }
    for (let j = 0; j < w; j += 1) {
      const moved = C.divide({ re: re[best * w + j] ?? 0, im: im[best * w + j] ?? 0 }, pivot)
      re[best * w + j] = re[r * w + j] ?? 0
      im[best * w + j] = im[r * w + j] ?? 0
      re[r * w + j] = moved.re
      im[r * w + j] = moved.im
    }
    for (let k = 0; k < m; k += 1) {
      if (k === r) continue
      const [p, q] = [re[k * w + c] ?? 0, im[k * w + c] ?? 0]
      if (p === 0 && q === 0) continue
      for (let j = 0; j < w; j += 1) {
        const [u, v] = [re[r * w + j] ?? 0, im[r * w + j] ?? 0]
        re[k * w + j] = (re[k * w + j] ?? 0) - (p * u - q * v)
        im[k * w + j] = (im[k * w + j] ?? 0) - (p * v + q * u)
      }
      re[k * w + c] = 0
      im[k * w + c] = 0
    }
    pivots.push(c)
  }
  return { matrix, pivots }
}

/** What may be left over of equations that follow from others, of rows whose largest coefficient is about 1. */
const CONSISTENT = 1e-10

/** True where a right side below the last pivot is not 0 beside the largest of all. */
export function contradictsItself({ matrix: { re, im, cols }, pivots }: Reduced): boolean {
  let most = 0
  let rest = 0
  for (let k = cols - 1; k < re.length; k += cols) {
    const value = Math.hypot(re[k] ?? 0, im[k] ?? 0)
    most = Math.max(most, value)
    if (k >= pivots.length * cols) rest = Math.max(rest, value)
  }
  return rest > CONSISTENT * most
}

/** What is left over of equations, the largest share of the terms of one. */
export function residualShare({ rows, right }: LinearSystem, values: readonly NumberValue[]): number {
  let most = 0
  for (const [r, row] of rows.entries()) {
    const b = right[r]
    let [re, im] = [b?.re ?? 0, b?.im ?? 0]
    let terms = Math.hypot(re, im)
    for (const [c, x] of row.entries()) {
      const value = values[c]
      if (!value) continue
      const product = C.multiply(x, value)
      re -= product.re
      im -= product.im
      terms += C.abs(product)
    }
    if (terms > 0) most = Math.max(most, Math.hypot(re, im) / terms)
  }
  return most
}
