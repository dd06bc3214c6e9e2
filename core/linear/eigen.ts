import * as C from '../numbers/complex'
import type { Complex } from '../numbers/complex'
import type { Dense } from './dense'
import { copy, isHermitian, isReal, normF, pickColumns, transpose } from './dense'
import { multiply } from './multiply'
import { balance, unscale } from './balance'
import { cleaned, mirrorPairs, turnReal } from './eigenNoise'
import { refineVectors } from './refineVectors'
import { withinRange } from './scaling'
import { schur } from './schur'
import { triangularVectors } from './triangularVectors'
import { complexTimesPowerOfTwo } from '../numbers/scale'

/** Eigenvalues in ascending order of their real parts, with unit eigenvectors as columns. */
export interface Eigen {
  readonly values: readonly Complex[]
  readonly vectors: Dense
  /** True where the eigenvectors do not span the space, to rounding. */
  readonly defective: boolean
  readonly converged: boolean
}

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
  const { t, zt, converged } = schur(h)
  const diagonal = Array.from({ length: n }, (_, k) => ({
    re: t.re[k * n + k] as number,
    im: t.im[k * n + k] as number,
  }))
  const real = isReal(a)
  const values = cleaned(diagonal, hermitian, real, size)
  const z = transpose(zt)
  const raw = hermitian ? z : multiply(z, triangularVectors(t))
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
  const { re, im, cols } = multiply(transpose(vectors, true), vectors)
  for (let a = 0; a < cols; a += 1) {
    for (let b = a + 1; b < cols; b += 1) {
      if (1 - Math.hypot(re[a * cols + b] as number, im[a * cols + b] as number) < 1e-15) return true
    }
  }
  return false
}
