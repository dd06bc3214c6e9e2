import type { Dense } from './dense'
import { isReal, zeros } from './dense'
import type { Held, Workspace } from './kernels'
import { ordinary, padded, part, workspaceFor } from './kernels'
import { work } from '../numbers/work'

/**
 * A·B. The rows of the result are built as sums of rows of B, four at a time, so
 * that every inner loop runs along memory; real matrices take a quarter of it.
 * Cost: 8·m·n·p floating operations, 2·m·n·p for real ones.
 */
export function multiply(a: Dense, b: Dense): Dense {
  const entries = a.re.length + b.re.length + a.rows * b.cols
  const space = workspaceFor(Math.cbrt(a.rows * a.cols * b.cols), entries)
  if (space && ordinary(a) && ordinary(b)) return multiplyInKernels(space, a, b)
  const result = zeros(a.rows, b.cols)
  if (isReal(a) && isReal(b)) multiplyReal(a, b, result)
  else multiplyComplex(a, b, result)
  return result
}

/** Rows between two looks at the clock. */
const ROWS = 64

function multiplyInKernels(space: Workspace, a: Dense, b: Dense): Dense {
  const [x, y] = [space.put(a), space.put(b)]
  const z = space.zeros(a.rows, b.cols)
  const pack = space.room(8 * a.cols)
  const real = isReal(a) && isReal(b)
  for (let from = 0; from < a.rows; from += ROWS) {
    const m = Math.min(ROWS, a.rows - from)
    work(m * a.cols * b.cols)
    if (real) {
      const [left, out] = [x.re + from * x.stride, z.re + from * z.stride]
      space.run.realProduct(m, a.cols, padded(b.cols), left, x.stride, y.re, y.stride, out, z.stride, pack)
    } else addProduct(space, part(x, from, from + m, 0, x.cols), y, part(z, from, from + m, 0, z.cols), pack, 1)
  }
  return space.take(z)
}

/** C ± A·B in the memory of the kernels; `pack` has room for 8 doubles for each column of A. */
export function addProduct({ run }: Workspace, a: Held, b: Held, c: Held, pack: number, sign: 1 | -1): void {
  const n = padded(b.cols)
  run.product(a.rows, a.cols, n, a.re, a.im, a.stride, b.re, b.im, b.stride, c.re, c.im, c.stride, pack, sign)
}

function multiplyReal(a: Dense, b: Dense, c: Dense): void {
  const { rows: m, cols: n } = a
  const p = b.cols
  const [x, y, z] = [a.re, b.re, c.re]
  for (let i = 0; i < m; i += 1) {
    work(n * p)
    const row = z.subarray(i * p, i * p + p)
    for (let k = 0; k < n; k += 1) {
      const f = x[i * n + k] as number
      if (f === 0) continue
      const other = k * p
      for (let j = 0; j < p; j += 1) row[j] = (row[j] as number) + f * (y[other + j] as number)
    }
  }
}

function multiplyComplex(a: Dense, b: Dense, c: Dense): void {
  const { rows: m, cols: n } = a
  const p = b.cols
  const [ar, ai, br, bi, cr, ci] = [a.re, a.im, b.re, b.im, c.re, c.im]
  for (let i = 0; i < m; i += 1) {
    work(4 * n * p)
    const out = i * p
    let k = 0
    for (; k + 3 < n; k += 4) {
      const at = i * n + k
      const fr = ar[at] as number
      const fi = ai[at] as number
      const gr = ar[at + 1] as number
      const gi = ai[at + 1] as number
      const hr = ar[at + 2] as number
      const hi = ai[at + 2] as number
      const er = ar[at + 3] as number
      const ei = ai[at + 3] as number
      const b0 = k * p
      const b1 = b0 + p
      const b2 = b1 + p
      const b3 = b2 + p
      for (let j = 0; j < p; j += 1) {
        const xr = br[b0 + j] as number
        const xi = bi[b0 + j] as number
        const yr = br[b1 + j] as number
        const yi = bi[b1 + j] as number
        const zr = br[b2 + j] as number
        const zi = bi[b2 + j] as number
        const wr = br[b3 + j] as number
        const wi = bi[b3 + j] as number
        cr[out + j] =
          (cr[out + j] as number) +
          (fr * xr - fi * xi + (gr * yr - gi * yi) + (hr * zr - hi * zi) + (er * wr - ei * wi))
        ci[out + j] =
          (ci[out + j] as number) +
          (fr * xi + fi * xr + (gr * yi + gi * yr) + (hr * zi + hi * zr) + (er * wi + ei * wr))
      }
    }
    for (; k + 1 < n; k += 2) {
      const fr = ar[i * n + k] as number
      const fi = ai[i * n + k] as number
      const gr = ar[i * n + k + 1] as number
      const gi = ai[i * n + k + 1] as number
      const first = k * p
      const second = first + p
      for (let j = 0; j < p; j += 1) {
        const xr = br[first + j] as number
        const xi = bi[first + j] as number
        const yr = br[second + j] as number
        const yi = bi[second + j] as number
        cr[out + j] = (cr[out + j] as number) + (fr * xr - fi * xi + gr * yr - gi * yi)
        ci[out + j] = (ci[out + j] as number) + (fr * xi + fi * xr + gr * yi + gi * yr)
      }
    }
    if (k < n) {
      const fr = ar[i * n + k] as number
      const fi = ai[i * n + k] as number
      const first = k * p
      for (let j = 0; j < p; j += 1) {
        const xr = br[first + j] as number
        const xi = bi[first + j] as number
        cr[out + j] = (cr[out + j] as number) + (fr * xr - fi * xi)
        ci[out + j] = (ci[out + j] as number) + (fr * xi + fi * xr)
      }
    }
  }
}
