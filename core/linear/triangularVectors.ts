import type { Complex } from '../numbers/complex'
import * as C from '../numbers/complex'
import type { Dense } from './dense'
import { normF, transpose, zeros } from './dense'
import { work } from '../numbers/work'

/** Eigenvectors of an upper triangular matrix as columns, by back substitution. */
export function triangularVectors(t: Dense): Dense {
  const n = t.rows
  const x = zeros(n, n)
  const floor = Math.max(normF(t), Number.MIN_VALUE) * Number.EPSILON
  // One vector after another, in a row of its own; transposed at the end.
  for (let k = 0; k < n; k += 1) {
    const row = k * n
    x.re[row + k] = 1
    work(2 * k * k)
    const lr = t.re[k * n + k] as number
    const li = t.im[k * n + k] as number
    for (let i = k - 1; i >= 0; i -= 1) {
      let sr = 0
      let si = 0
      for (let j = i + 1; j <= k; j += 1) {
        const pr = t.re[i * n + j] as number
        const pi = t.im[i * n + j] as number
        const qr = x.re[row + j] as number
        const qi = x.im[row + j] as number
        sr += pr * qr - pi * qi
        si += pr * qi + pi * qr
      }
      let d: Complex = { re: lr - (t.re[i * n + i] as number), im: li - (t.im[i * n + i] as number) }
      if (Math.abs(d.re) + Math.abs(d.im) < floor) d = { re: floor, im: 0 }
      const q = C.divide({ re: sr, im: si }, d)
      x.re[row + i] = q.re
      x.im[row + i] = q.im
      const size = Math.abs(q.re) + Math.abs(q.im)
      if (size > 1e100) {
        for (let j = i; j <= k; j += 1) {
          x.re[row + j] = (x.re[row + j] as number) / size
          x.im[row + j] = (x.im[row + j] as number) / size
        }
      }
    }
  }
  return transpose(x)
}
