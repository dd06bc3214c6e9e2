import type { Complex } from '../numbers/complex'
import type { Dense } from './dense'

/** Rounding noise taken off: Hermitian matrices have real eigenvalues, real ones conjugate pairs. */
export function cleaned(values: readonly Complex[], hermitian: boolean, real: boolean, norm: number): Complex[] {
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
export function turnReal(vectors: Dense, values: readonly Complex[]): void {
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
export function mirrorPairs({ re, im, rows, cols }: Dense, values: readonly Complex[]): void {
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
