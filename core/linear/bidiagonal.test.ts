import * as fc from 'fast-check'
import { iterateBidiagonal } from './bidiagonal'
import type { Rotations } from './bidiagonal'

const within = (x: number, y: number, by: number): void => expect(Math.abs(x - y)).toBeLessThanOrEqual(by)

/** The singular values, the largest first, and the two turned identities, row by row. */
function decompose(diagonal: readonly number[], beside: readonly number[]) {
  const n = diagonal.length
  const [d, e] = [Float64Array.from(diagonal), Float64Array.from(beside)]
  const unit = () =>
    Array.from({ length: n }, (_, r) => Array.from({ length: n }, (__, c): number => (r === c ? 1 : 0)))
  const [left, right] = [unit(), unit()]
  const turn = (rows: number[][], { first, count, backward, cosines, sines }: Rotations): void => {
    for (let step = 0; step < count; step += 1) {
      const k = backward ? count - 1 - step : step
      const [x, y] = [rows[first + k]!, rows[first + k + 1]!]
      const [c, s] = [cosines[k]!, sines[k]!]
      rows[first + k] = x.map((value, j) => c * value + s * y[j]!)
      rows[first + k + 1] = x.map((value, j) => c * y[j]! - s * value)
    }
  }
  const converged = iterateBidiagonal(d, e, (ofLeft, ofRight) => {
    turn(left, ofLeft)
    turn(right, ofRight)
  })
  expect(converged).toBe(true)
  return { d: [...d], left, right, sorted: [...d].map(Math.abs).sort((x, y) => y - x) }
}

test('ones on and beside the diagonal: the values are 2·cos(kπ/(2n + 1)) (G. D. Smith, Numerical Solution of PDEs)', () => {
  for (const n of [2, 3, 10, 57]) {
    const { sorted } = decompose(Array(n).fill(1), Array(n - 1).fill(1))
    sorted.forEach((value, k) => within(value, 2 * Math.cos(((k + 1) * Math.PI) / (2 * n + 1)), 1e-14))
  }
})

test('a small value beside large entries keeps its digits: its product with the others is the determinant', () => {
  // W. Kahan's example: bidiagonal with a least value far below rounding of the largest.
  const n = 20
  const diagonal = Array.from({ length: n }, (_, k) => 10 ** (-k / 2))
  const beside = Array.from({ length: n - 1 }, (_, k) => 10 ** (-k / 2))
  const { sorted } = decompose(diagonal, beside)
  const sum = (values: readonly number[]): number => values.reduce((s, x) => s + Math.log(x), 0)
  within(sum(sorted), sum(diagonal), 1e-12)
})

const entry = fc.oneof(
  { weight: 6, arbitrary: fc.double({ min: -2, max: 2, noNaN: true, noDefaultInfinity: true }) },
  { weight: 1, arbitrary: fc.constant(0) },
  { weight: 1, arbitrary: fc.constantFrom(1e-18, -1e-9, 3e7) },
)

test('B = U·Σ·Vᵀ with orthonormal U and V, zeros on the diagonal and beside it included', () => {
  fc.assert(
    fc.property(
      fc
        .integer({ min: 1, max: 9 })
        .chain((n) =>
          fc.tuple(
            fc.array(entry, { minLength: n, maxLength: n }),
            fc.array(entry, { minLength: n - 1, maxLength: n - 1 }),
          ),
        ),
      ([diagonal, beside]) => {
        const { d, left, right } = decompose(diagonal, beside)
        const most = Math.max(1, ...diagonal.map(Math.abs), ...beside.map(Math.abs))
        diagonal.forEach((_, r) =>
          diagonal.forEach((__, c) => {
            const given = r === c ? diagonal[r]! : c === r + 1 ? beside[r]! : 0
            const back = d.reduce((s, value, k) => s + left[k]![r]! * value * right[k]![c]!, 0)
            within(back, given, 1e-13 * most)
            for (const rows of [left, right])
              within(
                rows[r]!.reduce((s, x, k) => s + x * rows[c]![k]!, 0),
                r === c ? 1 : 0,
                1e-13,
              )
          }),
        )
      },
    ),
  )
})
