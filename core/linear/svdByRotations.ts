import type { Svd } from './decompositions'
import type { Dense } from './dense'
import { zeros } from './dense'
import { multiply } from './multiply'
import { completeBasis, decomposeQr } from './qr'
import { work } from '../numbers/work'

const SWEEPS_MOST = 40

/**
 * Singular values of a matrix of m ≥ n by one-sided Jacobi rotations after a QR decomposition with pivoting, which
 * leaves few sweeps to do. J. Demmel and K. Veselić, SIAM J. Matrix Anal. 13 (1992): small singular values come out to
 * full relative accuracy.
 */
export function decomposeByRotations(a: Dense): Svd {
  const { q, r, order } = decomposeQr(a, true)
  const n = a.cols
  // Rotations act on the columns of Rᴴ, which are the conjugated rows of R: stored as rows they run along memory.
  const w: Dense = { rows: n, cols: n, re: r.re.slice(), im: r.im.map((x) => -x) }
  const v = zeros(n, n)
  for (let k = 0; k < n; k += 1) v.re[k * n + k] = 1
  rotate(w, v)
  // The rows of w are now orthogonal columns of Rᴴ·V: Rᴴ = W·Σ·Vᴴ, so R = V·Σ·Wᴴ.
  const sizes = Array.from({ length: n }, (_, k) => rowLength(w, k))
  const ranked = sizes.map((_, k) => k).sort((x, y) => (sizes[y] as number) - (sizes[x] as number))
  const singular = ranked.map((k) => sizes[k] as number)
  const inner = zeros(n, n)
  const right = zeros(n, n)
  const floor = (singular[0] ?? 0) * Number.MIN_VALUE
  ranked.forEach((k, c) => {
    const size = sizes[k] as number
    for (let i = 0; i < n; i += 1) {
      inner.re[i * n + c] = v.re[k * n + i] as number
      inner.im[i * n + c] = v.im[k * n + i] as number
      const to = (order[i] as number) * n + c
      right.re[to] = size > floor ? (w.re[k * n + i] as number) / size : 0
      right.im[to] = size > floor ? (w.im[k * n + i] as number) / size : 0
    }
  })
  fillMissing(right, singular)
  return { left: multiply(q, inner), singular, right }
}

/** Rotates pairs of rows until all are orthogonal; the same rotations act on v. */
function rotate(w: Dense, v: Dense): void {
  const n = w.rows
  const squares = new Float64Array(n)
  for (let sweep = 0; sweep < SWEEPS_MOST; sweep += 1) {
    // Squared lengths are carried along within a sweep, and taken anew for the next.
    for (let k = 0; k < n; k += 1) squares[k] = rowLength(w, k) ** 2
    let rotated = false
    for (let p = 0; p < n - 1; p += 1) {
      work(8 * n * (n - p))
      for (let q = p + 1; q < n; q += 1) if (rotatePair(w, v, p, q, squares)) rotated = true
    }
    if (!rotated) return
  }
}

function rotatePair(w: Dense, v: Dense, p: number, q: number, squares: Float64Array): boolean {
  const n = w.cols
  const { re, im } = w
  const [a, b] = [p * n, q * n]
  const alpha = squares[p] as number
  const beta = squares[q] as number
  let x = 0
  let y = 0
  for (let i = 0; i < n; i += 1) {
    const pr = re[a + i] as number
    const pi = im[a + i] as number
    const qr = re[b + i] as number
    const qi = im[b + i] as number
    x += pr * qr + pi * qi
    y += pr * qi - pi * qr
  }
  const gamma = Math.hypot(x, y)
  if (gamma === 0 || gamma <= 2 * Number.EPSILON * Math.sqrt(alpha) * Math.sqrt(beta)) return false
  const zeta = (beta - alpha) / (2 * gamma)
  const t = Math.sign(zeta || 1) / (Math.abs(zeta) + Math.sqrt(1 + zeta * zeta))
  const c = 1 / Math.sqrt(1 + t * t)
  const s = c * t
  squares[p] = Math.max(0, alpha - t * gamma)
  squares[q] = beta + t * gamma
  // e = conj of the phase of ⟨p, q⟩ makes the pair real.
  const [er, ei] = [x / gamma, -y / gamma]
  turn(w, a, b, c, s, er, ei)
  turn(v, a, b, c, s, er, ei)
  return true
}

/** (p, q) becomes (c·p − s·e·q, s·p + c·e·q). */
function turn({ re, im, cols: n }: Dense, a: number, b: number, c: number, s: number, er: number, ei: number): void {
  for (let i = 0; i < n; i += 1) {
    const pr = re[a + i] as number
    const pi = im[a + i] as number
    const xr = re[b + i] as number
    const xi = im[b + i] as number
    const qr = er * xr - ei * xi
    const qi = er * xi + ei * xr
    re[a + i] = c * pr - s * qr
    im[a + i] = c * pi - s * qi
    re[b + i] = s * pr + c * qr
    im[b + i] = s * pi + c * qi
  }
}

function rowLength({ re, im, cols: n }: Dense, row: number): number {
  let scale = 0
  for (let i = 0; i < n; i += 1)
    scale = Math.max(scale, Math.abs(re[row * n + i] as number), Math.abs(im[row * n + i] as number))
  if (scale === 0) return 0
  let sum = 0
  for (let i = 0; i < n; i += 1)
    sum += ((re[row * n + i] as number) / scale) ** 2 + ((im[row * n + i] as number) / scale) ** 2
  return scale * Math.sqrt(sum)
}

/** Columns that belong to singular values of zero are completed to an orthonormal set. */
function fillMissing(m: Dense, singular: readonly number[]): void {
  const n = m.cols
  const rank = singular.findIndex((s) => s === 0)
  if (rank < 0) return
  const first = zeros(m.rows, rank)
  for (let r = 0; r < m.rows; r += 1) {
    for (let c = 0; c < rank; c += 1) {
      first.re[r * rank + c] = m.re[r * n + c] as number
      first.im[r * rank + c] = m.im[r * n + c] as number
    }
  }
  const q = completeBasis(first)
  for (let r = 0; r < m.rows; r += 1) {
    for (let c = rank; c < n; c += 1) {
      m.re[r * n + c] = q.re[r * q.cols + c] as number
      m.im[r * n + c] = q.im[r * q.cols + c] as number
    }
  }
}
