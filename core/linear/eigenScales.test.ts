import * as fc from 'fast-check'
import * as C from '../numbers/complex'
import { reckon } from '../testing'
import { eigen } from './eigen'
import type { Dense } from './dense'

const listed = (entry: string): readonly (C.Complex & { exact: unknown })[] => {
  const value = reckon([entry], { timeLimit: 10_000 })[0]!.value
  if (value?.kind !== 'vector') throw new Error(`${entry} is no list`)
  return value.items as unknown as (C.Complex & { exact: unknown })[]
}
const pairs = (entry: string): number[][] => listed(entry).map((z) => [z.re, z.im])

test.each([
  // ±√2·j: the matrix is similar to [[0, √2], [−√2, 0]].
  [
    'eigenvalues([[0, 1e16], [-2e-16, 0]])',
    [
      [0, Math.SQRT2],
      [0, -Math.SQRT2],
    ],
    [false, false],
  ],
  [
    'eigenvalues([[5, 0], [0, 5.0000001]])',
    [
      [5, 0],
      [5.0000001, 0],
    ],
    [true, true],
  ],
  [
    'eigenvalues([[0, 1, 0], [0, 0, 1], [1, -3, 3]])',
    [
      [1, 0],
      [1, 0],
      [1, 0],
    ],
    [true, true, true],
  ],
  [
    'eigenvalues([[2, 1], [0, 2]])',
    [
      [2, 0],
      [2, 0],
    ],
    [true, true],
  ],
  [
    'eigenvalues([[0, -4], [1, 0]])',
    [
      [0, 2],
      [0, -2],
    ],
    [true, true],
  ],
] as const)('%s', (entry, expected, exact) => {
  expect(pairs(entry)).toEqual(expected.map((z) => [...z]))
  expect(listed(entry).map((z) => z.exact !== null)).toEqual([...exact])
})

test('at the ends of the range of doubles, too', () => {
  for (const scale of ['1e155', '1e300', '1e-155', '1e-300']) {
    const factor = Number(scale)
    const [a, b] = listed(`eigenvalues(${scale}*[[2, 1], [1, 2]]*(sqrt(2)/sqrt(2)))`)
    expect(a!.re / factor).toBeCloseTo(1, 12)
    expect(b!.re / factor).toBeCloseTo(3, 12)
  }
})

const dense = (rows: number[][]): Dense => ({
  rows: rows.length, cols: rows.length, re: Float64Array.from(rows.flat()), im: new Float64Array(rows.length ** 2),
}) // prettier-ignore

test('a change of units changes no eigenvalue: D·A·D⁻¹ has those of A', () => {
  let worst = 0
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 6 }).chain((n) =>
        fc.tuple(
          fc.array(fc.array(fc.integer({ min: -9, max: 9 }), { minLength: n, maxLength: n }), {
            minLength: n,
            maxLength: n,
          }),
          fc.array(fc.integer({ min: -40, max: 40 }), { minLength: n, maxLength: n }),
        ),
      ),
      ([a, powers]) => {
        const one = eigen(dense(a))
        const other = eigen(dense(a.map((row, r) => row.map((x, c) => x * 2 ** ((powers[r] ?? 0) - (powers[c] ?? 0))))))
        // Multiple eigenvalues move by the root of the rounding; those are another test's.
        const apart = Math.min(
          ...one.values.flatMap((x, k) => one.values.slice(k + 1).map((y) => C.abs(C.subtract(x, y)))),
        )
        if (apart < 0.05) return
        for (const value of one.values)
          worst = Math.max(worst, Math.min(...other.values.map((w) => C.abs(C.subtract(w, value)))))
        const up = other.values
          .filter((z) => z.im > 0)
          .map((z) => `${z.re} ${z.im}`)
          .sort()
        expect(
          other.values
            .filter((z) => z.im < 0)
            .map((z) => `${z.re} ${-z.im}`)
            .sort(),
        ).toEqual(up)
      },
    ),
    { numRuns: 1_500 },
  )
  expect(worst).toBeLessThan(1e-10)
})

test('of small exact matrices every eigenvalue is right to its last digits, multiple ones as well', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -4, max: 4 }), { minLength: 2, maxLength: 4 }),
      fc.array(fc.integer({ min: -3, max: 3 }), { minLength: 16, maxLength: 16 }),
      (diagonal, other) => {
        // A triangular matrix turned by one with determinant 1: its eigenvalues are the diagonal, repeated or not.
        const n = diagonal.length
        const at = (k: number): number => other[k % other.length] ?? 0
        const upper = diagonal.map((d, r) => diagonal.map((_, c) => (c === r ? d : c > r ? at(r * n + c) : 0)))
        const turn = diagonal.map((_, r) => diagonal.map((__, c) => (c === r ? 1 : c < r ? at(7 * r + c) : 0)))
        const text = (m: number[][]): string => `[${m.map((row) => `[${row.join(', ')}]`).join(', ')}]`
        const entry = `eigenvalues(${text(turn)}*${text(upper)}*inv(${text(turn)}))`
        const expected = [...diagonal].sort((a, b) => a - b).map((x) => [x + 0, 0])
        expect([entry, pairs(entry)]).toEqual([entry, expected])
        expect(listed(entry).every((z) => z.exact !== null)).toBe(true)
      },
    ),
    { numRuns: 200 },
  )
})
