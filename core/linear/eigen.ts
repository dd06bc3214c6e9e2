import * as C from '../numbers/complex'
import type { Complex } from '../numbers/complex'
import type { Dense } from './dense'
import { copy, isHermitian, isReal, normF, pickColumns, transpose, zeros } from './dense'
import { multiply } from './multiply'
import { withinRange } from './scaling'
import { refineVectors } from './refineVectors'
import { complexTimesPowerOfTwo } from '../numbers/scale'
import { work } from '../numbers/work'

/** Eigenvalues in ascending order of their real parts, with unit eigenvectors as columns. */
export interface Eigen {
  readonly values: readonly Complex[]
  readonly vectors: Dense
  /** True where the eigenvectors do not span the space, to rounding. */
  readonly defective: boolean
  readonly converged: boolean
}

/** Most steps for one eigenvalue. */
const STEPS_MOST = 60

/**
 * Eigenvalues and eigenvectors of a square complex matrix: balancing (B. N.
 * Parlett and C. Reinsch, 1969), reduction to Hessenberg form by reflections,
 * the shifted QR iteration to Schur form A = Z·T·Zᴴ (J. G. F. Francis, 1961;
 * Wilkinson's shift), and back substitution on T. Of a Hermitian matrix the
 * columns of Z themselves are the eigenvectors. Cost: about 25n³ complex operations.
 */
export function eigen(given: Dense): Eigen {
  const n = given.rows
  // Near the ends of the range squares would leave it: what is scaled by a power of two is scaled back exactly.
  const { matrix: a, exponent } = withinRange(given)
  const hermitian = isHermitian(a)
  const { matrix: h, scales } = hermitian ? { matrix: copy(a), scales: null } : balance(a)
  // Noise is measured by the balanced matrix: what looks small beside the entries as they are given may be all there is.
  const size = normF(h)
  // The rows of zt are the columns of Z: rotations run along memory.
  const zt = reduce(h)
  const converged = iterate(h, zt)
  const diagonal = Array.from({ length: n }, (_, k) => ({
    re: h.re[k * n + k] as number,
    im: h.im[k * n + k] as number,
  }))
  const real = isReal(a)
  const values = cleaned(diagonal, hermitian, real, size)
  const schur = transpose(zt)
  const raw = hermitian ? schur : multiply(schur, triangularVectors(h))
  if (scales) unscale(raw, scales)
  normalize(raw)
  refineVectors(a, values, raw)
  normalize(raw)
  if (real) {
    turnReal(raw, values)
    mirrorPairs(raw, values)
  }
  const order = ordering(values)
  const vectors = pickColumns(raw, order)
  return {
    values: order.map((k) => {
      const { re, im } = values[k] ?? { re: NaN, im: NaN }
      return complexTimesPowerOfTwo({ re, im }, exponent)
    }),
    vectors,
    defective: !hermitian && isDefective(vectors),
    converged,
  }
}

/** Diagonal scaling by powers of two that makes rows and columns alike in size. */
function balance(a: Dense): { matrix: Dense; scales: Float64Array } {
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

function unscale(vectors: Dense, scales: Float64Array): void {
  const n = vectors.rows
  for (let r = 0; r < n; r += 1) {
    const f = scales[r] as number
    for (let c = 0; c < n; c += 1) {
      vectors.re[r * n + c] = (vectors.re[r * n + c] as number) * f
      vectors.im[r * n + c] = (vectors.im[r * n + c] as number) * f
    }
  }
}

/** Householder reduction to Hessenberg form, in place; gives back Zᵀ. */
function reduce(h: Dense): Dense {
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

/** The eigenvalue of the last 2 × 2 block that is nearer to its last entry. */
function wilkinson(h: Dense, hi: number): Complex {
  const n = h.rows
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

/** The shifted QR iteration, in place, to an upper triangular matrix. */
function iterate(h: Dense, zt: Dense): boolean {
  const { re, im, rows: n } = h
  const size = (k: number): number => Math.abs(re[k] as number) + Math.abs(im[k] as number)
  const norm = normF(h)
  const cos = new Float64Array(n)
  const sinRe = new Float64Array(n)
  const sinIm = new Float64Array(n)
  let hi = n - 1
  let step = 0
  while (hi > 0) {
    let lo = hi
    while (lo > 0) {
      const neighbours = size((lo - 1) * n + lo - 1) + size(lo * n + lo)
      if (size(lo * n + lo - 1) <= Number.EPSILON * (neighbours === 0 ? norm : neighbours)) {
        re[lo * n + lo - 1] = 0
        im[lo * n + lo - 1] = 0
        break
      }
      lo -= 1
    }
    if (lo === hi) {
      hi -= 1
      step = 0
      continue
    }
    if (step >= STEPS_MOST) return false
    work(16 * n * (hi - lo + 1))
    step += 1
    const shift =
      step % 12 === 0
        ? { re: (re[hi * n + hi] as number) + size(hi * n + hi - 1), im: im[hi * n + hi] as number }
        : wilkinson(h, hi)
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
  return true
}

/** Eigenvectors of an upper triangular matrix as columns, by back substitution. */
function triangularVectors(t: Dense): Dense {
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

function normalize(vectors: Dense): void {
  const { re, im, rows, cols } = vectors
  for (let c = 0; c < cols; c += 1) {
    let scale = 0
    for (let r = 0; r < rows; r += 1)
      scale = Math.max(scale, Math.abs(re[r * cols + c] as number), Math.abs(im[r * cols + c] as number))
    if (scale === 0) continue
    let sum = 0
    for (let r = 0; r < rows; r += 1)
      sum += ((re[r * cols + c] as number) / scale) ** 2 + ((im[r * cols + c] as number) / scale) ** 2
    const f = 1 / (scale * Math.sqrt(sum))
    // The largest entry is turned onto the positive real axis: the same matrix always has the same vectors.
    let best = 0
    let most = -1
    for (let r = 0; r < rows; r += 1) {
      const size = Math.hypot(re[r * cols + c] as number, im[r * cols + c] as number)
      if (size > most * (1 + 1e-9)) {
        most = size
        best = r
      }
    }
    const [hr, hi] = [(re[best * cols + c] as number) / most, (im[best * cols + c] as number) / most]
    for (let r = 0; r < rows; r += 1) {
      const x = (re[r * cols + c] as number) * f
      const y = (im[r * cols + c] as number) * f
      re[r * cols + c] = x * hr + y * hi
      im[r * cols + c] = y * hr - x * hi
    }
  }
}

/** Rounding noise taken off: Hermitian matrices have real eigenvalues, real ones conjugate pairs. */
function cleaned(values: readonly Complex[], hermitian: boolean, real: boolean, norm: number): Complex[] {
  if (hermitian) return values.map((z) => ({ re: z.re, im: 0 }))
  if (!real) return [...values]
  const floor = norm * values.length * Number.EPSILON * 4
  const result = values.map((z) => (Math.abs(z.im) <= floor ? { re: z.re, im: 0 } : z))
  const above = result.flatMap((z, k) => (z.im > 0 ? [k] : []))
  const below = result.flatMap((z, k) => (z.im < 0 ? [k] : []))
  const apart = (k: number, j: number): number => {
    const [z, w] = [result[k] as Complex, result[j] as Complex]
    return Math.hypot(z.re - w.re, z.im + w.im)
  }
  const pairs = above.flatMap((k) => below.map((j) => ({ k, j, distance: apart(k, j) })))
  const used = new Set<number>()
  for (const { k, j, distance } of pairs.sort((p, q) => p.distance - q.distance)) {
    if (used.has(k) || used.has(j)) continue
    const [z, w] = [result[k] as Complex, result[j] as Complex]
    // Values of one cluster are no farther apart than it is high; others have nothing to do with one another.
    if (distance > 4 * (z.im - w.im)) continue
    used.add(k)
    used.add(j)
    const mean = { re: (z.re + w.re) / 2, im: (z.im - w.im) / 2 }
    result[k] = mean
    result[j] = { re: mean.re, im: -mean.im }
  }
  // What is left over belongs to a cluster about the real axis: a real matrix has no lone complex eigenvalue.
  return result.map((z, k) => (z.im === 0 || used.has(k) ? z : { re: z.re, im: 0 }))
}

/** The vector of a real eigenvalue of a real matrix is real: what is left of an imaginary part is noise. */
function turnReal(vectors: Dense, values: readonly Complex[]): void {
  const { im, rows, cols } = vectors
  values.forEach((value, c) => {
    if (value.im !== 0) return
    let most = 0
    for (let r = 0; r < rows; r += 1) most = Math.max(most, Math.abs(im[r * cols + c] as number))
    if (most > 1e-8) return
    for (let r = 0; r < rows; r += 1) im[r * cols + c] = 0
  })
}

/** Of a real matrix the vectors of conjugate eigenvalues are conjugate, too. */
function mirrorPairs({ re, im, rows, cols }: Dense, values: readonly Complex[]): void {
  const used = new Set<number>()
  values.forEach((z, k) => {
    if (z.im <= 0) return
    const partner = values.findIndex((w, j) => !used.has(j) && w.re === z.re && w.im === -z.im)
    if (partner < 0) return
    used.add(partner)
    for (let r = 0; r < rows; r += 1) {
      re[r * cols + partner] = re[r * cols + k] as number
      im[r * cols + partner] = -(im[r * cols + k] as number)
    }
  })
}

/** Ascending by real part; of a pair the one with the positive imaginary part first. */
export function ordering(values: readonly Complex[]): number[] {
  const order = values.map((_, k) => k)
  return order.sort((a, b) => {
    const [x, y] = [values[a] ?? { re: 0, im: 0 }, values[b] ?? { re: 0, im: 0 }]
    const close = Math.abs(x.re - y.re) <= 1e-12 * Math.max(C.abs(x), C.abs(y))
    return close ? y.im - x.im : x.re - y.re
  })
}

/** True where some two eigenvectors are the same to about half the digits. */
function isDefective(vectors: Dense): boolean {
  const { re, im, rows, cols } = vectors
  for (let a = 0; a < cols; a += 1) {
    for (let b = a + 1; b < cols; b += 1) {
      let x = 0
      let y = 0
      for (let r = 0; r < rows; r += 1) {
        const [pr, pi] = [re[r * cols + a] as number, im[r * cols + a] as number]
        const [qr, qi] = [re[r * cols + b] as number, im[r * cols + b] as number]
        x += pr * qr + pi * qi
        y += pr * qi - pi * qr
      }
      if (1 - Math.hypot(x, y) < 1e-15) return true
    }
  }
  return false
}
