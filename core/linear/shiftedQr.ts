import type { Complex } from '../numbers/complex'
import * as C from '../numbers/complex'
import type { Dense } from './dense'
import { work } from '../numbers/work'

/** Most steps for one eigenvalue. */
const STEPS_MOST = 60

/** A matrix of order n in two planes of doubles whose rows are `stride` apart. */
export interface Planes {
  readonly n: number
  readonly stride: number
  readonly re: Float64Array
  readonly im: Float64Array
}

/** One step on the rows from `low` to `high`: H − σ = Q·R becomes R·Q + σ. */
export type Step = (low: number, high: number, shift: Complex) => void

/**
 * The shifted QR iteration on a Hessenberg matrix, in place, to an upper triangular one; false where that does not
 * come to an end. `norm` is what is small beside nothing.
 */
export function iterate(h: Planes, norm: number, step: Step): boolean {
  const { re, im, n, stride } = h
  const size = (k: number): number => Math.abs(re[k] as number) + Math.abs(im[k] as number)
  let high = n - 1
  let steps = 0
  while (high > 0) {
    let low = high
    while (low > 0) {
      const neighbours = size((low - 1) * stride + low - 1) + size(low * stride + low)
      const at = low * stride + low - 1
      if (size(at) <= Number.EPSILON * (neighbours === 0 ? norm : neighbours)) {
        re[at] = 0
        im[at] = 0
        break
      }
      low -= 1
    }
    if (low === high) {
      high -= 1
      steps = 0
      continue
    }
    if (steps >= STEPS_MOST) return false
    work(16 * n * (high - low + 1))
    steps += 1
    const last = high * stride + high
    const shift =
      steps % 12 === 0 ? { re: (re[last] as number) + size(last - 1), im: im[last] as number } : wilkinson(h, high)
    step(low, high, shift)
  }
  return true
}

/** The eigenvalue of the last 2 × 2 block that is nearer to its last entry. */
function wilkinson(h: Planes, hi: number): Complex {
  const n = h.stride
  const at = (r: number, c: number): Complex => ({ re: h.re[r * n + c] as number, im: h.im[r * n + c] as number })
  const [a, b, c, d] = [at(hi - 1, hi - 1), at(hi - 1, hi), at(hi, hi - 1), at(hi, hi)]
  const half = C.multiply(C.subtract(a, d), { re: 0.5, im: 0 })
  const root = C.sqrt(C.add(C.multiply(half, half), C.multiply(b, c)))
  const plus = C.add(half, root)
  const minus = C.subtract(half, root)
  // The root of larger magnitude divides: no cancellation.
  const larger = C.abs(plus) > C.abs(minus) ? plus : minus
  return C.abs(larger) === 0 ? d : C.subtract(d, C.divide(C.multiply(b, c), larger))
}

/** The steps in plain loops; the rows of zt, which are the columns of Z, are turned along. */
export function plainStep(h: Dense, zt: Dense): Step {
  const { re, im, rows: n } = h
  const cos = new Float64Array(n)
  const sinRe = new Float64Array(n)
  const sinIm = new Float64Array(n)
  return (lo, hi, shift) => {
    for (let k = lo; k <= hi; k += 1) {
      re[k * n + k] = (re[k * n + k] as number) - shift.re
      im[k * n + k] = (im[k * n + k] as number) - shift.im
    }
    for (let k = lo; k < hi; k += 1) {
      const x = k * n
      const y = x + n
      const [ar, ai] = [re[x + k] as number, im[x + k] as number]
      const [br, bi] = [re[y + k] as number, im[y + k] as number]
      const top = Math.hypot(ar, ai)
      const length = Math.hypot(top, br, bi)
      if (length === 0) {
        cos[k] = 1
        sinRe[k] = 0
        sinIm[k] = 0
        continue
      }
      // c real, s = conj(e^{jφ})·b / length: [c, s̄; −s, c] sends (a, b) to (e^{jφ}·length, 0).
      const [er, ei] = top === 0 ? [1, 0] : [ar / top, ai / top]
      const c = top / length
      const s1 = (er * br + ei * bi) / length
      const s2 = (er * bi - ei * br) / length
      cos[k] = c
      sinRe[k] = s1
      sinIm[k] = s2
      re[x + k] = er * length
      im[x + k] = ei * length
      re[y + k] = 0
      im[y + k] = 0
      for (let j = k + 1; j < n; j += 1) {
        const pr = re[x + j] as number
        const pi = im[x + j] as number
        const qr = re[y + j] as number
        const qi = im[y + j] as number
        re[x + j] = c * pr + s1 * qr + s2 * qi
        im[x + j] = c * pi + s1 * qi - s2 * qr
        re[y + j] = c * qr - (s1 * pr - s2 * pi)
        im[y + j] = c * qi - (s1 * pi + s2 * pr)
      }
    }
    for (let k = lo; k < hi; k += 1) {
      const c = cos[k] as number
      const s1 = sinRe[k] as number
      const s2 = sinIm[k] as number
      const last = Math.min(k + 1, hi)
      for (let r = 0; r <= last; r += 1) {
        const at = r * n + k
        const pr = re[at] as number
        const pi = im[at] as number
        const qr = re[at + 1] as number
        const qi = im[at + 1] as number
        re[at] = c * pr + (s1 * qr - s2 * qi)
        im[at] = c * pi + (s1 * qi + s2 * qr)
        re[at + 1] = c * qr - (s1 * pr + s2 * pi)
        im[at + 1] = c * qi - (s1 * pi - s2 * pr)
      }
      const x = k * n
      const y = x + n
      for (let r = 0; r < n; r += 1) {
        const pr = zt.re[x + r] as number
        const pi = zt.im[x + r] as number
        const qr = zt.re[y + r] as number
        const qi = zt.im[y + r] as number
        zt.re[x + r] = c * pr + (s1 * qr - s2 * qi)
        zt.im[x + r] = c * pi + (s1 * qi + s2 * qr)
        zt.re[y + r] = c * qr - (s1 * pr + s2 * pi)
        zt.im[y + r] = c * qi - (s1 * pi - s2 * pr)
      }
    }
    for (let k = lo; k <= hi; k += 1) {
      re[k * n + k] = (re[k * n + k] as number) + shift.re
      im[k * n + k] = (im[k * n + k] as number) + shift.im
    }
  }
}
