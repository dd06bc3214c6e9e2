import type { Dense } from './dense'
import { isHermitian, zeros } from './dense'
import { work } from '../numbers/work'

/**
 * The lower triangular L with A = L·Lᴴ; `null` where A is not Hermitian and
 * positive definite. Golub and Van Loan, algorithm 4.2.1.
 */
export function cholesky(a: Dense): Dense | null {
  if (!isHermitian(a)) return null
  const n = a.rows
  const l = zeros(n, n)
  for (let r = 0; r < n; r += 1) {
    work(2 * r * r)
    for (let c = 0; c <= r; c += 1) {
      let x = a.re[r * n + c] as number
      let y = a.im[r * n + c] as number
      for (let k = 0; k < c; k += 1) {
        const pr = l.re[r * n + k] as number
        const pi = l.im[r * n + k] as number
        const qr = l.re[c * n + k] as number
        const qi = l.im[c * n + k] as number
        x -= pr * qr + pi * qi
        y -= pi * qr - pr * qi
      }
      if (r === c) {
        if (!(x > 0)) return null
        l.re[r * n + c] = Math.sqrt(x)
      } else {
        const d = l.re[c * n + c] as number
        l.re[r * n + c] = x / d
        l.im[r * n + c] = y / d
      }
    }
  }
  return l
}
