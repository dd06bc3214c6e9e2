import * as fc from 'fast-check'
import { onTheClock } from '../numbers/work'
import type { Dense } from './dense'
import { combine, identity, normF, pickColumns, transpose, zeros } from './dense'
import { eigen } from './eigen'
import { ordinary, workspaceFor } from './kernels'
import { decomposeLu, determinantLu, inverseLu, solveLu } from './lu'
import { multiply } from './multiply'
import { decomposeSvd } from './svd'
import { decomposeByBidiagonal } from './svdByBidiagonal'
import { decomposeByRotations } from './svdByRotations'

/**
 * Large matrices go through the compiled loops: what comes out has to fulfil what defines it, and to agree with the
 * plain loops, for orders that are no multiples of anything.
 */

/** Entries spread evenly between −1 and 1. */
function spread(rows: number, cols: number, which: 'real' | 'complex', seed: number): Dense {
  let state = seed
  const next = (): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 2 ** 31 - 1
  }
  const a = zeros(rows, cols)
  for (let k = 0; k < a.re.length; k += 1) {
    a.re[k] = next()
    a.im[k] = which === 'complex' ? next() : 0
  }
  return a
}
const seed = fc.nat()
const kind = fc.constantFrom('real' as const, 'complex' as const)
const order = fc.integer({ min: 32, max: 69 })
const squares = fc.tuple(order, kind, seed).map(([n, which, from]) => spread(n, n, which, from))

const distance = (a: Dense, b: Dense): number => normF(combine(1, a, -1, b))
const close = (a: Dense, b: Dense, by: number): void => expect(distance(a, b)).toBeLessThanOrEqual(by * (1 + normF(b)))
const few = { numRuns: 12 }

/** The product by the definition, entry by entry. */
function byDefinition(a: Dense, b: Dense): Dense {
  const c = zeros(a.rows, b.cols)
  for (let i = 0; i < a.rows; i += 1) {
    for (let j = 0; j < b.cols; j += 1) {
      for (let k = 0; k < a.cols; k += 1) {
        const [p, q] = [i * a.cols + k, k * b.cols + j]
        c.re[i * b.cols + j]! += a.re[p]! * b.re[q]! - a.im[p]! * b.im[q]!
        c.im[i * b.cols + j]! += a.re[p]! * b.im[q]! + a.im[p]! * b.re[q]!
      }
    }
  }
  return c
}

/** The columns of a matrix times real numbers. */
function scaled(a: Dense, by: readonly number[]): Dense {
  const d = zeros(a.cols, by.length)
  by.forEach((x, k) => void (d.re[k * by.length + k] = x))
  return multiply(a, d)
}

test('the compiled loops are there', () => {
  expect(workspaceFor(32, 1024)).not.toBeNull()
  expect(workspaceFor(31, 961)).toBeNull()
  // A matrix that would not fit well is left to the plain loops.
  expect(workspaceFor(3000, 9_000_000)).toBeNull()
})

test('they are given only what squares and quotients of stay within the range', () => {
  const one = (re: number): Dense => ({ rows: 1, cols: 1, re: Float64Array.of(re), im: Float64Array.of(0) })
  expect([0, 1, -1e99, 1e-99].map((x) => ordinary(one(x)))).toEqual([true, true, true, true])
  expect([NaN, Infinity, 1e101, 1e-101].map((x) => ordinary(one(x)))).toEqual([false, false, false, false])
})

test('a product of any shape is that of the definition', () => {
  const [rows, between] = [fc.integer({ min: 20, max: 70 }), fc.integer({ min: 45, max: 130 })]
  fc.assert(
    fc.property(rows, between, order, kind, kind, seed, (m, k, n, left, right, from) => {
      const [a, b] = [spread(m, k, left, from), spread(k, n, right, from + 1)]
      close(multiply(a, b), byDefinition(a, b), 1e-14)
    }),
    few,
  )
})

test('P·A = L·U, the multipliers are at most √2, and the determinant is that of the product', () => {
  fc.assert(
    fc.property(squares, (a) => {
      const n = a.rows
      const { packed, order: rows, sign } = decomposeLu(a)
      const [lower, upper] = [identity(n), zeros(n, n)]
      for (let r = 0; r < n; r += 1) {
        for (let c = 0; c < n; c += 1) {
          const to = c < r ? lower : upper
          to.re[r * n + c] = packed.re[r * n + c]!
          to.im[r * n + c] = packed.im[r * n + c]!
          if (c < r)
            expect(Math.hypot(packed.re[r * n + c]!, packed.im[r * n + c]!)).toBeLessThanOrEqual(Math.SQRT2 + 1e-12)
        }
      }
      const permuted = transpose(pickColumns(transpose(a), rows))
      close(byDefinition(lower, upper), permuted, 1e-13)
      // det A and det Aᵀ take different ways to the same number.
      const other = determinantLu(decomposeLu(transpose(a)))
      const size = Math.hypot(other.re, other.im)
      const { re, im } = determinantLu({ packed, order: rows, sign, singular: false })
      expect(Math.hypot(re - other.re, im - other.im)).toBeLessThanOrEqual(1e-9 * size)
    }),
    few,
  )
})

test('A·A⁻¹ = 1 and A·X = B, for one column and for many', () => {
  fc.assert(
    fc.property(squares, fc.constantFrom(1, 3, 40), fc.boolean(), (a, columns, turned) => {
      const n = a.rows
      // Away from singular ones: the test is of the loops, not of the condition.
      for (let k = 0; k < n; k += 1) a.re[k * n + k]! += 2 * Math.sqrt(n) * (turned ? -1 : 1)
      const lu = decomposeLu(a)
      close(byDefinition(a, inverseLu(lu)), identity(n), 1e-12)
      const b = zeros(n, columns)
      for (let k = 0; k < b.re.length; k += 1) b.re[k] = Math.cos(k)
      close(byDefinition(a, solveLu(lu, b)), b, 1e-12)
    }),
    few,
  )
})

test('a column of zeros and equal rows are found to be singular; a permutation is inverted exactly', () => {
  const n = 40
  const a = zeros(n, n)
  for (let k = 0; k < n * n; k += 1) a.re[k] = k % n === 7 ? 0 : Math.sin(k * k + 1)
  expect(decomposeLu(a).singular).toBe(true)
  expect(decomposeLu(zeros(n, n)).singular).toBe(true)
  const turned = pickColumns(
    identity(n),
    Array.from({ length: n }, (_, k) => (k * 7 + 3) % n),
  )
  const lu = decomposeLu(turned)
  expect(distance(inverseLu(lu), transpose(turned))).toBe(0)
  expect(Math.abs(determinantLu(lu).re)).toBe(1)
})

test('entries at the ends of the range, and pivots whose reciprocals are beyond it, take the plain loops', () => {
  const n = 36
  for (const size of [1e-290, 1e290, 1]) {
    const a = identity(n)
    for (let k = 0; k < n; k += 1) a.re[k * n + k] = size
    if (size === 1) a.re[n * n - 1] = 1e-308
    const lu = decomposeLu(a)
    const x = solveLu(lu, a)
    expect(distance(x, identity(n))).toBeLessThanOrEqual(1e-15)
  }
})

test('eigenvalues and vectors fit the matrix; of a Hermitian one they are real and orthonormal', () => {
  fc.assert(
    fc.property(squares, fc.boolean(), (given, hermitian) => {
      const n = given.rows
      const a = hermitian ? combine(0.5, given, 0.5, transpose(given, true)) : given
      const { values, vectors, converged } = eigen(a)
      expect(converged).toBe(true)
      const lambda = zeros(n, n)
      values.forEach(({ re, im }, k) => {
        lambda.re[k * n + k] = re
        lambda.im[k * n + k] = im
      })
      close(byDefinition(a, vectors), byDefinition(vectors, lambda), 1e-12)
      const trace = values.reduce((s, z) => s + z.re, 0)
      let diagonal = 0
      for (let k = 0; k < n; k += 1) diagonal += a.re[k * n + k]!
      expect(Math.abs(trace - diagonal)).toBeLessThanOrEqual(1e-12 * n)
      if (hermitian) close(byDefinition(transpose(vectors, true), vectors), identity(n), 1e-12)
    }),
    few,
  )
})

test('the companion of xⁿ − 1 has the roots of unity', () => {
  const n = 48
  const a = zeros(n, n)
  for (let k = 0; k < n; k += 1) a.re[((k + 1) % n) * n + k] = 1
  for (const { re, im } of eigen(a).values) {
    expect(Math.abs(Math.hypot(re, im) - 1)).toBeLessThanOrEqual(1e-13)
    const turns = (Math.atan2(im, re) / (2 * Math.PI)) * n
    expect(Math.abs(turns - Math.round(turns))).toBeLessThanOrEqual(1e-11)
  }
})

test('singular values of every shape and rank: A = U·Σ·Vᴴ, orthonormal, and those of the rotations', () => {
  const shape = { order, more: fc.nat(20), kind, rank: fc.integer({ min: 3, max: 80 }), seed }
  fc.assert(
    fc.property(fc.record(shape), ({ order: n, more, kind: which, rank, seed: from }) => {
      const a = multiply(spread(n + more, rank, which, from), spread(rank, n, which, from + 1))
      const found = decomposeByBidiagonal(a)
      if (!found) throw new Error('the bidiagonal way was not taken')
      const most = found.singular[0]!
      const back = byDefinition(scaled(found.left, found.singular), transpose(found.right, true))
      expect(distance(back, a)).toBeLessThanOrEqual(1e-13 * most * Math.sqrt(n))
      for (const side of [found.left, found.right]) close(byDefinition(transpose(side, true), side), identity(n), 1e-13)
      const other = decomposeByRotations(a).singular
      found.singular.forEach((value, k) => {
        expect(value).toBeGreaterThanOrEqual(0)
        expect(Math.abs(value - other[k]!)).toBeLessThanOrEqual(1e-14 * n * most)
      })
    }),
    few,
  )
})

test('a matrix of many rows and few columns takes no square of its rows', () => {
  const [m, n] = [125_000, 32]
  const a = spread(m, n, 'real', 5)
  const found = decomposeByBidiagonal(a)
  if (!found) throw new Error('the bidiagonal way was not taken')
  expect([found.left.rows, found.left.cols, found.right.rows]).toEqual([m, n, n])
  // The squares of the singular values add up to those of the entries.
  const sum = found.singular.reduce((s, value) => s + value * value, 0)
  expect(Math.abs(Math.sqrt(sum) / normF(a) - 1)).toBeLessThanOrEqual(1e-12)
  close(byDefinition(transpose(found.right, true), found.right), identity(n), 1e-13)
})

test('rows of very different size keep the method that knows small singular values to all digits', () => {
  const n = 40
  const a = identity(n)
  for (let k = 0; k < n; k += 1) a.re[k * n + k] = 10 ** (-k / 4)
  for (let k = 1; k < n; k += 1) a.re[k * n + k - 1] = 10 ** (-k / 4) / 2
  expect(decomposeByBidiagonal(a)).toBeNull()
  const product = decomposeSvd(a).singular.reduce((sum, s) => sum + Math.log10(s), 0)
  expect(Math.abs(product + (n * (n - 1)) / 8)).toBeLessThanOrEqual(1e-11)
})

test('a calculation whose time is up is left in the midst of the loops, and the next one is right', () => {
  const n = 120
  const a = zeros(n, n)
  for (let k = 0; k < n * n; k += 1) a.re[k] = Math.sin(k * k + 1)
  const over = { goesOn: () => false }
  for (const run of [() => multiply(a, a), () => decomposeLu(a), () => eigen(a), () => decomposeSvd(a)]) {
    let outcome: object | 'late' | null = null
    for (let tries = 0; tries < 40 && outcome !== 'late'; tries += 1) outcome = onTheClock<object>(over, run)
    expect(outcome).toBe('late')
  }
  close(multiply(a, inverseLu(decomposeLu(a))), identity(n), 1e-10)
})

test('an engine without them reckons the same in the plain loops', () => {
  const there = globalThis.WebAssembly
  const n = 50
  const a = zeros(n, n)
  for (let k = 0; k < n * n; k += 1) {
    a.re[k] = Math.sin(k * k + 1)
    a.im[k] = Math.cos(k * k * k)
  }
  try {
    Reflect.deleteProperty(globalThis, 'WebAssembly')
    jest.isolateModules(() => {
      /* eslint-disable @typescript-eslint/no-require-imports -- a fresh copy of the modules */
      const fresh = {
        ...(require('./kernels') as typeof import('./kernels')),
        ...(require('./multiply') as typeof import('./multiply')),
        ...(require('./lu') as typeof import('./lu')),
        ...(require('./svd') as typeof import('./svd')),
        ...(require('./eigen') as typeof import('./eigen')),
      }
      /* eslint-enable @typescript-eslint/no-require-imports */
      expect(fresh.workspaceFor(n, n * n)).toBeNull()
      close(fresh.multiply(a, a), multiply(a, a), 1e-14)
      close(fresh.inverseLu(fresh.decomposeLu(a)), inverseLu(decomposeLu(a)), 1e-12)
      const [one, other] = [fresh.decomposeSvd(a).singular, decomposeSvd(a).singular]
      one.forEach((value, k) => expect(Math.abs(value - other[k]!)).toBeLessThanOrEqual(1e-12))
      const [some, same] = [fresh.eigen(a).values, eigen(a).values]
      some.forEach((z, k) => expect(Math.hypot(z.re - same[k]!.re, z.im - same[k]!.im)).toBeLessThanOrEqual(1e-11))
    })
  } finally {
    globalThis.WebAssembly = there
  }
})
