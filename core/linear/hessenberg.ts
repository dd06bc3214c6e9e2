import type { Dense } from './dense'
import { zeros } from './dense'
import { work } from '../numbers/work'

/** Householder reduction to Hessenberg form, in place; gives back Zᵀ. */
export function reduceToHessenberg(h: Dense): Dense {
  const n = h.rows
  const zt = zeros(n, n)
  for (let k = 0; k < n; k += 1) zt.re[k * n + k] = 1
  const { re, im } = h
  const vr = new Float64Array(n)
  const vi = new Float64Array(n)
  const sr = new Float64Array(n)
  const si = new Float64Array(n)
  for (let k = 0; k < n - 2; k += 1) {
    work(16 * n * n)
    let scale = 0
    for (let i = k + 2; i < n; i += 1)
      scale = Math.max(scale, Math.abs(re[i * n + k] as number), Math.abs(im[i * n + k] as number))
    if (scale === 0) continue
    const head = (k + 1) * n + k
    scale = Math.max(scale, Math.abs(re[head] as number), Math.abs(im[head] as number))
    let sum = 0
    for (let i = k + 1; i < n; i += 1) {
      vr[i] = (re[i * n + k] as number) / scale
      vi[i] = (im[i * n + k] as number) / scale
      sum += (vr[i] as number) ** 2 + (vi[i] as number) ** 2
    }
    const length = Math.sqrt(sum)
    const size = Math.hypot(vr[k + 1] as number, vi[k + 1] as number)
    const pr = size === 0 ? 1 : (vr[k + 1] as number) / size
    const pi = size === 0 ? 0 : (vi[k + 1] as number) / size
    vr[k + 1] = (vr[k + 1] as number) + pr * length
    vi[k + 1] = (vi[k + 1] as number) + pi * length
    let norm = 0
    for (let i = k + 1; i < n; i += 1) norm += (vr[i] as number) ** 2 + (vi[i] as number) ** 2
    const unit = 1 / Math.sqrt(norm)
    for (let i = k + 1; i < n; i += 1) {
      vr[i] = (vr[i] as number) * unit
      vi[i] = (vi[i] as number) * unit
    }
    // From the left: H − 2v(vᴴH).
    sr.fill(0)
    si.fill(0)
    for (let i = k + 1; i < n; i += 1) {
      const x = vr[i] as number
      const y = vi[i] as number
      for (let c = k; c < n; c += 1) {
        const p = re[i * n + c] as number
        const q = im[i * n + c] as number
        sr[c] = (sr[c] as number) + (x * p + y * q)
        si[c] = (si[c] as number) + (x * q - y * p)
      }
    }
    for (let i = k + 1; i < n; i += 1) {
      const x = 2 * (vr[i] as number)
      const y = 2 * (vi[i] as number)
      for (let c = k; c < n; c += 1) {
        re[i * n + c] = (re[i * n + c] as number) - (x * (sr[c] as number) - y * (si[c] as number))
        im[i * n + c] = (im[i * n + c] as number) - (x * (si[c] as number) + y * (sr[c] as number))
      }
    }
    // From the right: H − 2(Hv)vᴴ, and the same on Z, whose columns are the rows of zt.
    for (let r = 0; r < n; r += 1) {
      let x = 0
      let y = 0
      for (let c = k + 1; c < n; c += 1) {
        const p = re[r * n + c] as number
        const q = im[r * n + c] as number
        x += p * (vr[c] as number) - q * (vi[c] as number)
        y += p * (vi[c] as number) + q * (vr[c] as number)
      }
      x *= 2
      y *= 2
      for (let c = k + 1; c < n; c += 1) {
        re[r * n + c] = (re[r * n + c] as number) - (x * (vr[c] as number) + y * (vi[c] as number))
        im[r * n + c] = (im[r * n + c] as number) - (y * (vr[c] as number) - x * (vi[c] as number))
      }
    }
    sr.fill(0)
    si.fill(0)
    for (let c = k + 1; c < n; c += 1) {
      const x = vr[c] as number
      const y = vi[c] as number
      for (let r = 0; r < n; r += 1) {
        const p = zt.re[c * n + r] as number
        const q = zt.im[c * n + r] as number
        sr[r] = (sr[r] as number) + (p * x - q * y)
        si[r] = (si[r] as number) + (p * y + q * x)
      }
    }
    for (let c = k + 1; c < n; c += 1) {
      const x = 2 * (vr[c] as number)
      const y = 2 * (vi[c] as number)
      for (let r = 0; r < n; r += 1) {
        zt.re[c * n + r] = (zt.re[c * n + r] as number) - ((sr[r] as number) * x + (si[r] as number) * y)
        zt.im[c * n + r] = (zt.im[c * n + r] as number) - ((si[r] as number) * x - (sr[r] as number) * y)
      }
    }
    for (let i = k + 2; i < n; i += 1) {
      re[i * n + k] = 0
      im[i * n + k] = 0
    }
  }
  return zt
}
