import type { Dense } from './dense'
import { copy } from './dense'

/** Diagonal scaling by powers of two that makes rows and columns alike in size. */
export function balance(a: Dense): { matrix: Dense; scales: Float64Array } {
  const matrix = copy(a)
  const { re, im, rows: n } = matrix
  const scales = new Float64Array(n).fill(1)
  for (let again = true, round = 0; again && round < 30; round += 1) {
    again = false
    for (let k = 0; k < n; k += 1) {
      let row = 0
      let column = 0
      for (let j = 0; j < n; j += 1) {
        if (j === k) continue
        row += Math.abs(re[k * n + j] as number) + Math.abs(im[k * n + j] as number)
        column += Math.abs(re[j * n + k] as number) + Math.abs(im[j * n + k] as number)
      }
      if (row === 0 || column === 0 || !Number.isFinite(row + column)) continue
      let f = 1
      const sum = row + column
      while (column < row / 2) {
        f *= 2
        column *= 2
        row /= 2
      }
      while (column >= row * 2) {
        f /= 2
        column /= 2
        row *= 2
      }
      if (row + column >= 0.95 * sum || f === 1) continue
      again = true
      scales[k] = (scales[k] as number) * f
      for (let j = 0; j < n; j += 1) {
        re[k * n + j] = (re[k * n + j] as number) / f
        im[k * n + j] = (im[k * n + j] as number) / f
        re[j * n + k] = (re[j * n + k] as number) * f
        im[j * n + k] = (im[j * n + k] as number) * f
      }
    }
  }
  return { matrix, scales }
}

/** Rows of the vectors of a balanced matrix become those of the matrix as it was. */
export function unscale(vectors: Dense, scales: Float64Array): void {
  const n = vectors.rows
  for (let r = 0; r < n; r += 1) {
    const f = scales[r] as number
    for (let c = 0; c < n; c += 1) {
      vectors.re[r * n + c] = (vectors.re[r * n + c] as number) * f
      vectors.im[r * n + c] = (vectors.im[r * n + c] as number) * f
    }
  }
}
