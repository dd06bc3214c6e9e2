import type { Dense } from './dense'
import { copy, identity, zeros } from './dense'
import { multiplied, withinRange } from './scaling'
import { work } from '../numbers/work'

/** A·P = Q·R with orthonormal Q (m × k), triangular R (k × n), k = min(m, n). */
export interface Qr {
  readonly q: Dense
  readonly r: Dense
  /** The column of A that stands in each column of A·P. */
  readonly order: readonly number[]
  /** How many diagonal entries of R count, to rounding. */
  readonly rank: number
}

/**
 * Householder QR, with column pivoting if asked. P. Businger and G. H. Golub,
 * Numerische Mathematik 7 (1965); Golub and Van Loan, algorithms 5.2.1 and 5.4.1.
 * The diagonal of R is real and not negative.
 */
export function decomposeQr(a: Dense, pivoting: boolean): Qr {
  const { matrix, exponent } = withinRange(a)
  const scaled = decompose(matrix, pivoting)
  return exponent === 0 ? scaled : { ...scaled, r: multiplied(scaled.r, exponent) }
}

function decompose(a: Dense, pivoting: boolean): Qr {
  const r = copy(a)
  const { rows: m, cols: n } = r
  const steps = Math.min(m, n)
  const order = Array.from({ length: n }, (_, k) => k)
  const vectors: { readonly re: Float64Array; readonly im: Float64Array }[] = []
  const phases: { re: number; im: number }[] = []
  for (let k = 0; k < steps; k += 1) {
    work(8 * (m - k) * (n - k))
    if (pivoting) bringLongest(r, order, k)
    const { vector, phase } = reflector(r, k)
    vectors.push(vector)
    phases.push(phase)
    reflectRows(r, vector, k, k)
    scaleRow(r, k, phase)
    for (let i = k + 1; i < m; i += 1) {
      r.re[i * n + k] = 0
      r.im[i * n + k] = 0
    }
    r.im[k * n + k] = 0
  }
  // Q from the reflections, backwards, on the first columns of the identity.
  const q = zeros(m, steps)
  for (let k = 0; k < steps; k += 1) q.re[k * steps + k] = 1
  for (let k = steps - 1; k >= 0; k -= 1) {
    work(8 * (m - k) * steps)
    const phase = phases[k] ?? { re: 1, im: 0 }
    const vector = vectors[k]
    // The row was multiplied by the conjugate phase: the column of Q takes the phase.
    scaleRow(q, k, { re: phase.re, im: -phase.im })
    if (vector) reflectRows(q, vector, k, 0)
  }
  const upper = zeros(steps, n)
  upper.re.set(r.re.subarray(0, steps * n))
  upper.im.set(r.im.subarray(0, steps * n))
  return { q, r: upper, order, rank: rankOf(upper, Math.max(m, n)) }
}

function rankOf(r: Dense, size: number): number {
  const steps = Math.min(r.rows, r.cols)
  let most = 0
  for (let k = 0; k < steps; k += 1) most = Math.max(most, Math.abs(r.re[k * r.cols + k] as number))
  const floor = most * size * Number.EPSILON
  let rank = 0
  while (rank < steps && Math.abs(r.re[rank * r.cols + rank] as number) > floor) rank += 1
  return rank
}

/** Exchanges column k with the one that is longest below row k. */
function bringLongest({ re, im, rows, cols }: Dense, order: number[], k: number): void {
  let best = k
  let most = -1
  for (let c = k; c < cols; c += 1) {
    let sum = 0
    for (let i = k; i < rows; i += 1) sum += (re[i * cols + c] as number) ** 2 + (im[i * cols + c] as number) ** 2
    if (sum > most * (1 + 1e-12)) {
      most = sum
      best = c
    }
  }
  if (best === k) return
  for (let i = 0; i < rows; i += 1) {
    const [x, y] = [re[i * cols + k] as number, im[i * cols + k] as number]
    re[i * cols + k] = re[i * cols + best] as number
    im[i * cols + k] = im[i * cols + best] as number
    re[i * cols + best] = x
    im[i * cols + best] = y
  }
  const kept = order[k] as number
  order[k] = order[best] as number
  order[best] = kept
}

/** The unit vector of a reflection that leaves only the first entry of a column, and the phase that makes it positive. */
function reflector(a: Dense, k: number) {
  const { rows: m, cols: n } = a
  const re = new Float64Array(m)
  const im = new Float64Array(m)
  let scale = 0
  for (let i = k; i < m; i += 1)
    scale = Math.max(scale, Math.abs(a.re[i * n + k] as number), Math.abs(a.im[i * n + k] as number))
  if (scale === 0) return { vector: { re, im }, phase: { re: 1, im: 0 } }
  let sum = 0
  for (let i = k; i < m; i += 1) {
    re[i] = (a.re[i * n + k] as number) / scale
    im[i] = (a.im[i * n + k] as number) / scale
    sum += (re[i] as number) ** 2 + (im[i] as number) ** 2
  }
  const length = Math.sqrt(sum)
  const [headRe, headIm] = [re[k] as number, im[k] as number]
  const head = Math.hypot(headRe, headIm)
  const phase = head === 0 ? { re: 1, im: 0 } : { re: headRe / head, im: headIm / head }
  // v = x + e^{jφ}‖x‖e₁: the reflection sends x to −e^{jφ}‖x‖e₁.
  re[k] = headRe + phase.re * length
  im[k] = headIm + phase.im * length
  let size = 0
  for (let i = k; i < m; i += 1) size += (re[i] as number) ** 2 + (im[i] as number) ** 2
  const unit = 1 / Math.sqrt(size)
  for (let i = k; i < m; i += 1) {
    re[i] = (re[i] as number) * unit
    im[i] = (im[i] as number) * unit
  }
  // The first entry is then −e^{jφ}‖x‖; its row is multiplied by −e^{−jφ}.
  return { vector: { re, im }, phase: { re: -phase.re, im: phase.im } }
}

/** Applies I − 2vvᴴ from the left to the columns from one on. */
function reflectRows(
  a: Dense,
  v: { readonly re: Float64Array; readonly im: Float64Array },
  from: number,
  column: number,
): void {
  const { rows: m, cols: n } = a
  const sumRe = new Float64Array(n)
  const sumIm = new Float64Array(n)
  for (let i = from; i < m; i += 1) {
    const vr = v.re[i] as number
    const vi = v.im[i] as number
    if (vr === 0 && vi === 0) continue
    for (let c = column; c < n; c += 1) {
      const x = a.re[i * n + c] as number
      const y = a.im[i * n + c] as number
      sumRe[c] = (sumRe[c] as number) + (vr * x + vi * y)
      sumIm[c] = (sumIm[c] as number) + (vr * y - vi * x)
    }
  }
  for (let i = from; i < m; i += 1) {
    const vr = 2 * (v.re[i] as number)
    const vi = 2 * (v.im[i] as number)
    if (vr === 0 && vi === 0) continue
    for (let c = column; c < n; c += 1) {
      const s = sumRe[c] as number
      const t = sumIm[c] as number
      a.re[i * n + c] = (a.re[i * n + c] as number) - (vr * s - vi * t)
      a.im[i * n + c] = (a.im[i * n + c] as number) - (vr * t + vi * s)
    }
  }
}

function scaleRow(a: Dense, row: number, f: { readonly re: number; readonly im: number }): void {
  const { cols: n } = a
  for (let c = 0; c < n; c += 1) {
    const x = a.re[row * n + c] as number
    const y = a.im[row * n + c] as number
    a.re[row * n + c] = f.re * x - f.im * y
    a.im[row * n + c] = f.re * y + f.im * x
  }
}

/** The full m × m unitary matrix whose first columns are those of Q; for completing a basis. */
export function completeBasis(q: Dense): Dense {
  const { rows: m, cols: k } = q
  const wide = zeros(m, k + m)
  const unit = identity(m)
  for (let i = 0; i < m; i += 1) {
    wide.re.set(q.re.subarray(i * k, i * k + k), i * (k + m))
    wide.im.set(q.im.subarray(i * k, i * k + k), i * (k + m))
    wide.re.set(unit.re.subarray(i * m, i * m + m), i * (k + m) + k)
  }
  return decomposeQr(wide, false).q
}
