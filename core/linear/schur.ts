import type { Dense } from './dense'
import { copy, normF, transpose } from './dense'
import { reduceToHessenberg } from './hessenberg'
import { ordinary, workspaceFor } from './kernels'
import type { Workspace } from './kernels'
import { reflectionOf } from './reflection'
import { iterate, plainStep } from './shiftedQr'
import { work } from '../numbers/work'

/** A = Z·T·Zᴴ with triangular T; the rows of `zt` are the columns of Z. */
export interface Schur {
  readonly t: Dense
  readonly zt: Dense
  readonly converged: boolean
}

/**
 * The Schur form of a square matrix: reduction to Hessenberg form by reflections, then the shifted QR iteration
 * (J. G. F. Francis, 1961; Wilkinson's shift).
 */
export function schur(a: Dense): Schur {
  const space = workspaceFor(a.rows, a.re.length)
  const quick = space && ordinary(a) ? inKernels(space, a) : null
  return quick?.converged ? quick : inPlainLoops(a)
}

function inPlainLoops(a: Dense): Schur {
  const t = copy(a)
  const zt = reduceToHessenberg(t)
  const planes = { n: t.rows, stride: t.cols, re: t.re, im: t.im }
  return { t, zt, converged: iterate(planes, normF(t), plainStep(t, zt)) }
}

function inKernels(space: Workspace, a: Dense): Schur {
  const { run } = space
  const n = a.rows
  const h = space.put(a)
  const z = space.identity(n, n)
  const vectors = space.zeros(n, n)
  const [sr, si] = [space.room(n + 2), space.room(n + 2)]
  const [cosines, sinesRe, sinesIm] = [space.room(n), space.room(n), space.room(n)]
  const zt = space.zeros(n, n)
  const stride = h.stride / 8
  const planes = { n, stride, re: space.doubles(h.re, n * stride), im: space.doubles(h.im, n * stride) }
  const taus: { readonly re: number; readonly im: number }[] = []
  for (let k = 0; k < n - 2; k += 1) {
    work(16 * n * (n - k))
    const [vr, vi] = [vectors.re + k * vectors.stride, vectors.im + k * vectors.stride]
    const [re, im] = [space.doubles(vr, n), space.doubles(vi, n)]
    for (let i = k + 1; i < n; i += 1) {
      re[i] = planes.re[i * stride + k] as number
      im[i] = planes.im[i * stride + k] as number
      planes.re[i * stride + k] = 0
      planes.im[i * stride + k] = 0
    }
    const { head, tauRe, tauIm } = reflectionOf(re, im, k + 1)
    planes.re[(k + 1) * stride + k] = head
    taus.push({ re: tauRe, im: tauIm })
    run.reflectLeft(h.re, h.im, h.stride, k + 1, n, k + 1, n, vr, vi, tauRe, -tauIm, sr, si)
    run.reflectRight(h.re, h.im, h.stride, 0, n, k + 1, n, vr, vi, tauRe, tauIm)
  }
  // Z from the reflections, backwards, on the identity.
  for (let k = n - 3; k >= 0; k -= 1) {
    work(8 * n * (n - k))
    const [vr, vi] = [vectors.re + k * vectors.stride, vectors.im + k * vectors.stride]
    const { re, im } = taus[k] ?? { re: 0, im: 0 }
    run.reflectLeft(z.re, z.im, z.stride, k + 1, n, k + 1, n, vr, vi, re, im, sr, si)
  }
  space.fill(zt, transpose(space.take(z)))
  const norm = normF(space.take(h))
  const converged = iterate(planes, norm, (low, high, shift) => {
    run.qrStep(h.re, h.im, zt.re, zt.im, h.stride, n, low, high, shift.re, shift.im, cosines, sinesRe, sinesIm)
  })
  return { t: space.take(h), zt: space.take(zt), converged }
}
