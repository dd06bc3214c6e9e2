import * as fc from 'fast-check'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { cholesky } from './cholesky'
import type { Dense } from './dense'
import { combine, identity, isHermitian, norm1, normF, pickColumns, transpose, zeros } from './dense'
import { eigen } from './eigen'
import {
  exactCharpoly, exactDeterminant, exactIdentity, exactMultiply, exactNull, exactRank, exactRref, exactSolve,
} from './exact' // prettier-ignore
import type { ExactMatrix } from './exact'
import { expm } from './expm'
import { decomposeLu, determinantLu, inverseLu, solveLu } from './lu'
import { multiply } from './multiply'
import { completeBasis, decomposeQr } from './qr'
import { decomposeSvd } from './svd'

/** A generator that gives the same numbers in every run. */
function generator(seed: number): () => number {
  let state = seed
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 31 - 1
  }
}

function random(rows: number, cols: number, seed: number, complex = true): Dense {
  const next = generator(seed)
  const a = zeros(rows, cols)
  for (let k = 0; k < a.re.length; k += 1) {
    a.re[k] = next()
    a.im[k] = complex ? next() : 0
  }
  return a
}

function fromRows(rows: readonly (readonly number[])[]): Dense {
  const a = zeros(rows.length, rows[0]!.length)
  rows.forEach((row, r) => row.forEach((x, c) => void (a.re[r * a.cols + c] = x)))
  return a
}

const distance = (a: Dense, b: Dense): number => normF(combine(1, a, -1, b))
const diagonal = (values: readonly { re: number; im: number }[]): Dense => {
  const n = values.length
  const d = zeros(n, n)
  values.forEach((z, k) => {
    d.re[k * n + k] = z.re
    d.im[k * n + k] = z.im
  })
  return d
}
const hilbert = (n: number): Dense =>
  fromRows(Array.from({ length: n }, (_, r) => Array.from({ length: n }, (__, c) => 1 / (r + c + 1))))
const vandermonde = (n: number): Dense =>
  fromRows(Array.from({ length: n }, (_, r) => Array.from({ length: n }, (__, c) => (1 + r / 4) ** c)))
const jordan = (n: number, value: number): Dense =>
  fromRows(
    Array.from({ length: n }, (_, r) => Array.from({ length: n }, (__, c) => (r === c ? value : c === r + 1 ? 1 : 0))),
  )
const hermitian = (n: number, seed: number): Dense => {
  const a = random(n, n, seed)
  return combine(0.5, a, 0.5, transpose(a, true))
}
const badlyScaled = (n: number): Dense => {
  const a = random(n, n, 5)
  for (let r = 0; r < n; r += 1)
    for (let c = 0; c < n; c += 1) {
      a.re[r * n + c]! *= 10 ** (3 * (r - c))
      a.im[r * n + c]! *= 10 ** (3 * (r - c))
    }
  return a
}

const SQUARES: readonly (readonly [string, Dense])[] = [
  ['1 × 1', random(1, 1, 1)],
  ['2 × 2', random(2, 2, 2)],
  ['random real', random(9, 9, 3, false)],
  ['random complex', random(24, 24, 4)],
  ['Hermitian', hermitian(12, 6)],
  ['Hilbert', hilbert(8)],
  ['Vandermonde', vandermonde(7)],
  ['badly scaled', badlyScaled(6)],
  ['triangular', fromRows([[1, 2, 3], [0, 4, 5], [0, 0, 6]])],
  ['a turn', fromRows([[0, -1], [1, 0]])],
] // prettier-ignore

describe.each(SQUARES)('%s', (_, a) => {
  const n = a.rows
  const tiny = 1e-14 * n * normF(a)

  test('LU: the solution has a small residual, also with a badly conditioned matrix', () => {
    const b = random(n, 3, 77)
    const x = solveLu(decomposeLu(a), b)
    expect(distance(multiply(a, x), b)).toBeLessThan(1e-14 * n * (normF(a) * normF(x) + normF(b)))
  })

  test('QR: Q is unitary, Q·R is A', () => {
    for (const pivoting of [false, true]) {
      const { q, r, order } = decomposeQr(a, pivoting)
      expect(distance(multiply(transpose(q, true), q), identity(n))).toBeLessThan(1e-14 * n)
      expect(distance(multiply(q, r), pickColumns(a, order))).toBeLessThan(tiny)
      for (let k = 0; k < n; k += 1) {
        expect(r.re[k * n + k]).toBeGreaterThanOrEqual(0)
        expect(r.im[k * n + k]).toBe(0)
      }
    }
  })

  test('eigenvalues and eigenvectors: A·V is V·Λ', () => {
    const { values, vectors, converged } = eigen(a)
    expect(converged).toBe(true)
    expect(distance(multiply(a, vectors), multiply(vectors, diagonal(values)))).toBeLessThan(10 * tiny)
    // The trace is the sum of the eigenvalues.
    let trace = 0
    for (let k = 0; k < n; k += 1) trace += a.re[k * n + k]!
    expect(Math.abs(values.reduce((s, z) => s + z.re, 0) - trace)).toBeLessThan(10 * tiny)
    if (isHermitian(a)) {
      expect(values.every((z) => z.im === 0)).toBe(true)
      expect(distance(multiply(transpose(vectors, true), vectors), identity(n))).toBeLessThan(1e-13 * n)
    }
  })

  test('SVD: both sides orthonormal, the product is A', () => {
    const { left, singular, right } = decomposeSvd(a)
    expect(distance(multiply(transpose(left, true), left), identity(n))).toBeLessThan(1e-13 * n)
    expect(distance(multiply(transpose(right, true), right), identity(n))).toBeLessThan(1e-13 * n)
    const middle = diagonal(singular.map((s) => ({ re: s, im: 0 })))
    expect(distance(multiply(multiply(left, middle), transpose(right, true)), a)).toBeLessThan(10 * tiny)
    for (let k = 1; k < n; k += 1) expect(singular[k]!).toBeLessThanOrEqual(singular[k - 1]!)
    expect(Math.hypot(...singular)).toBeCloseTo(normF(a), 8 - Math.ceil(Math.log10(normF(a) + 1)))
  })
})

describe('values known from elsewhere', () => {
  test('eigenvalues of a state matrix', () => {
    const a = fromRows([
      [0, 1, 0],
      [0, -0.5, 1.2],
      [0, -2, -20],
    ])
    const { values } = eigen(a)
    // λ·(λ² + 20.5λ + 12.4): the roots by the formula for quadratics.
    const root = Math.sqrt(20.5 ** 2 - 4 * 12.4)
    const expected = [(-20.5 - root) / 2, (-20.5 + root) / 2, 0]
    values.forEach((z, k) => {
      expect(z.im).toBe(0)
      expect(z.re).toBeCloseTo(expected[k]!, 12)
    })
  })

  test('singular values of the Hilbert matrix of order 4', () => {
    // Published: Golub and Van Loan's classical example; condition number 1.5514e4.
    const { singular } = decomposeSvd(hilbert(4))
    expect(singular[0]! / singular[3]!).toBeCloseTo(15513.738738929, 4)
    expect(singular[0]).toBeCloseTo(1.50021428005924, 13)
    expect(singular[3]).toBeCloseTo(9.67023040226e-5, 15)
  })

  test('the exponential of a turn is a rotation', () => {
    const t = 2.5
    const e = expm(
      fromRows([
        [0, -t],
        [t, 0],
      ]),
    )
    const expected = fromRows([
      [Math.cos(t), -Math.sin(t)],
      [Math.sin(t), Math.cos(t)],
    ])
    expect(distance(e, expected)).toBeLessThan(1e-14)
  })

  test('the exponential of a Jordan block', () => {
    const e = expm(jordan(3, 2))
    const f = Math.exp(2)
    expect(
      distance(
        e,
        fromRows([
          [f, f, f / 2],
          [0, f, f],
          [0, 0, f],
        ]),
      ),
    ).toBeLessThan(1e-13)
  })

  test('the exponential of a large and of a zero matrix', () => {
    expect(distance(expm(zeros(3, 3)), identity(3))).toBeLessThan(1e-15)
    const a = random(5, 5, 8)
    const big = combine(20, a, 0, a)
    // e^A·e^−A is the identity.
    const product = multiply(expm(big), expm(combine(-1, big, 0, big)))
    expect(distance(product, identity(5)) / (norm1(expm(big)) * norm1(expm(combine(-1, big, 0, big))))).toBeLessThan(
      1e-13,
    )
  })
})

describe('at the edge', () => {
  test('a defective matrix says so, a matrix with a double eigenvalue and full vectors does not', () => {
    expect(eigen(jordan(3, 2)).defective).toBe(true)
    expect(eigen(identity(3)).defective).toBe(false)
    expect(
      eigen(
        fromRows([
          [2, 0, 0],
          [0, 2, 0],
          [0, 0, 3],
        ]),
      ).defective,
    ).toBe(false)
  })

  test('zero matrices', () => {
    expect(eigen(zeros(3, 3)).values).toEqual([0, 1, 2].map(() => ({ re: 0, im: 0 })))
    const { left, singular, right } = decomposeSvd(zeros(3, 2))
    expect(singular).toEqual([0, 0])
    expect(distance(multiply(transpose(left, true), left), identity(2))).toBeLessThan(1e-14)
    expect(distance(multiply(transpose(right, true), right), identity(2))).toBeLessThan(1e-14)
    expect(decomposeLu(zeros(2, 2)).singular).toBe(true)
    expect(decomposeQr(zeros(3, 2), true).rank).toBe(0)
  })

  test.each([
    [5, 3],
    [3, 5],
  ])('a matrix of %i × %i', (m, n) => {
    const a = random(m, n, 21)
    const { left, singular, right } = decomposeSvd(a)
    const k = Math.min(m, n)
    expect([left.rows, left.cols, right.rows, right.cols, singular.length]).toEqual([m, k, n, k, k])
    const middle = diagonal(singular.map((s) => ({ re: s, im: 0 })))
    expect(distance(multiply(multiply(left, middle), transpose(right, true)), a)).toBeLessThan(1e-13)
    const { q, r, order } = decomposeQr(a, true)
    expect(distance(multiply(q, r), pickColumns(a, order))).toBeLessThan(1e-13)
  })

  test('a rank that is not full is found', () => {
    const a = multiply(random(6, 2, 31), random(2, 5, 32))
    expect(decomposeQr(a, true).rank).toBe(2)
  })

  test('Cholesky: L·Lᴴ is A, and only positive definite matrices have one', () => {
    const x = random(6, 6, 41)
    const product = multiply(x, transpose(x, true))
    // Rounding leaves the two halves a digit apart.
    const a = combine(0.5, product, 0.5, transpose(product, true))
    const l = cholesky(a)!
    expect(distance(multiply(l, transpose(l, true)), a)).toBeLessThan(1e-13 * normF(a))
    expect(
      cholesky(
        fromRows([
          [1, 2],
          [2, 1],
        ]),
      ),
    ).toBeNull()
    expect(
      cholesky(
        fromRows([
          [1, 2],
          [0, 1],
        ]),
      ),
    ).toBeNull()
  })

  test('a basis is completed', () => {
    const { q } = decomposeQr(random(5, 2, 51), false)
    const full = completeBasis(q)
    expect(distance(multiply(transpose(full, true), full), identity(5))).toBeLessThan(1e-14)
    expect(distance(pickColumns(full, [0, 1]), q)).toBeLessThan(1e-14)
  })

  test('determinant and inverse', () => {
    const a = fromRows([
      [2, 1, 0],
      [1, 3, 1],
      [0, 1, 4],
    ])
    expect(determinantLu(decomposeLu(a)).re).toBeCloseTo(18, 12)
    expect(distance(multiply(a, inverseLu(decomposeLu(a))), identity(3))).toBeLessThan(1e-14)
  })
})

describe('exact', () => {
  const whole = fc.integer({ min: -6, max: 6 })
  const rational = fc.tuple(whole, fc.integer({ min: 1, max: 5 })).map(([n, d]) => Q.rational(n, d)!)
  const gaussian = fc.oneof(
    rational.map((re) => ({ re, im: Q.ZERO })),
    fc.tuple(rational, rational).map(([re, im]) => ({ re, im })),
  )
  const matrix = (rows: number, cols: number): fc.Arbitrary<ExactMatrix> =>
    fc.array(gaussian, { minLength: rows * cols, maxLength: rows * cols }).map((entries) => ({ rows, cols, entries }))
  const same = (a: ExactMatrix, b: ExactMatrix): boolean => a.entries.every((z, k) => G.equals(z, b.entries[k]!))

  test('A·X is B exactly, or A is singular and its determinant 0', () => {
    fc.assert(
      fc.property(matrix(4, 4), matrix(4, 2), (a, b) => {
        const x = exactSolve(a, b)
        const det = exactDeterminant(a)!
        if (x === 'singular') expect(G.isZero(det)).toBe(true)
        else {
          expect(G.isZero(det)).toBe(false)
          expect(same(exactMultiply(a, x!)!, b)).toBe(true)
        }
      }),
    )
  })

  test('the determinant of a product is the product of the determinants', () => {
    fc.assert(
      fc.property(matrix(3, 3), matrix(3, 3), (a, b) => {
        const product = G.multiply(exactDeterminant(a)!, exactDeterminant(b)!)!
        expect(G.equals(exactDeterminant(exactMultiply(a, b)!)!, product)).toBe(true)
      }),
    )
  })

  test('the null space is sent to zero and has the right size', () => {
    fc.assert(
      fc.property(matrix(3, 5), (a) => {
        const kernel = exactNull(a)!
        expect(kernel.cols).toBe(5 - exactRank(a)!)
        expect(exactMultiply(a, kernel)!.entries.every(G.isZero)).toBe(true)
      }),
    )
  })

  test('the reduced form is a fixed point, with ones in its pivot columns', () => {
    fc.assert(
      fc.property(matrix(3, 4), (a) => {
        const { matrix: reduced, pivots } = exactRref(a)!
        expect(same(exactRref(reduced)!.matrix, reduced)).toBe(true)
        pivots.forEach((c, r) => {
          for (let k = 0; k < 3; k += 1)
            expect(G.equals(reduced.entries[k * 4 + c]!, k === r ? G.ONE : G.ZERO)).toBe(true)
        })
      }),
    )
  })

  test('a matrix satisfies its characteristic equation (Cayley and Hamilton)', () => {
    fc.assert(
      fc.property(matrix(3, 3), (a) => {
        const coefficients = exactCharpoly(a)!
        let sum: ExactMatrix = { rows: 3, cols: 3, entries: Array.from({ length: 9 }, () => G.ZERO) }
        for (const c of coefficients) {
          const product = exactMultiply(sum, a)!
          const unit = exactIdentity(3)
          sum = { ...sum, entries: product.entries.map((z, k) => G.add(z, G.multiply(c, unit.entries[k]!)!)!) }
        }
        expect(sum.entries.every(G.isZero)).toBe(true)
      }),
    )
  })
})
