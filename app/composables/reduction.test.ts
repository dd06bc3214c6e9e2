import * as fc from 'fast-check'
import { entryOf, isReduced } from '#core/linear/reduction'
import type { RowOperation } from '#core/linear/reduction'
import * as G from '#core/numbers/gaussian'
import * as Q from '#core/numbers/rational'
import type { ExactMatrix } from '#core/linear/exact'
import { useReduction } from './reduction'

function matrix(rows: readonly (readonly number[])[]): ExactMatrix {
  const entries = rows.flat().map((n) => G.fromRational(Q.whole(n)))
  return { rows: rows.length, cols: rows[0]?.length ?? 0, entries }
}
const numbers = (m: ExactMatrix | null): number[][] =>
  m ? Array.from({ length: m.rows }, (_, r) => Array.from({ length: m.cols }, (__, c) => Q.toNumber(entryOf(m, r, c).re))) : [] // prettier-ignore

test('goes on from the state that is shown, and back and on without loss', () => {
  const bench = useReduction()
  bench.begin(matrix([[2, 1, 5], [1, 3, 10]])) // prettier-ignore
  expect(bench.right.value).toBe(1)
  expect(bench.columns.value).toBe(2)
  const swap: RowOperation = { type: 'swap', a: 0, b: 1 }
  expect(bench.perform(swap)).toBe(true)
  expect(numbers(bench.state.value)).toEqual([[1, 3, 10], [2, 1, 5]]) // prettier-ignore
  bench.toTheEnd(true)
  expect(numbers(bench.state.value)).toEqual([[1, 0, 1], [0, 1, 3]]) // prettier-ignore
  expect(bench.form.value).toBe('This is the reduced row echelon form.')
  expect(bench.about.value).toBe('There is exactly one solution.')
  const all = bench.steps.value.length
  bench.at.value = 1
  expect(numbers(bench.state.value)).toEqual([[1, 3, 10], [2, 1, 5]]) // prettier-ignore
  expect(bench.steps.value).toHaveLength(all)
  // Another operation in the middle: what came after it is gone.
  expect(bench.perform(swap)).toBe(true)
  expect(bench.steps.value).toEqual([swap, swap])
  expect(bench.at.value).toBe(2)
})

test('refuses rows that are not there, and changes nothing', () => {
  const bench = useReduction()
  expect(bench.perform({ type: 'swap', a: 0, b: 1 })).toBe(false)
  bench.begin(matrix([[1, 2], [3, 4]])) // prettier-ignore
  expect(bench.perform({ type: 'swap', a: 0, b: 2 })).toBe(false)
  expect(bench.steps.value).toEqual([])
})

test('says what the solutions are', () => {
  const bench = useReduction()
  const about = (rows: readonly (readonly number[])[]): string => {
    bench.begin(matrix(rows))
    bench.toTheEnd(true)
    return bench.about.value
  }
  expect(about([[1, 2, 3], [2, 4, 7]])).toBe('There is no solution: row 2 says that 0 is something else.') // prettier-ignore
  expect(about([[1, 2, 3], [2, 4, 6]])).toBe('There are infinitely many solutions: one unknown is free.') // prettier-ignore
  expect(about([[0, 0, 0], [0, 0, 0]])).toBe('There are infinitely many solutions: 2 unknowns are free.') // prettier-ignore
})

/** By minors along the first row: slow and surely right. */
function determinant(rows: readonly (readonly number[])[]): number {
  const [first = [], ...rest] = rows
  if (rest.length === 0) return first[0] ?? 1
  return first.reduce((sum, x, c) => sum + (c % 2 === 0 ? x : -x) * determinant(rest.map((row) => row.filter((_, k) => k !== c))), 0) // prettier-ignore
}

test('the determinant of what is shown is the first one by the factor it tells, at every step', () => {
  const entries = fc.array(fc.array(fc.integer({ min: -4, max: 4 }), { minLength: 3, maxLength: 3 }), { minLength: 3, maxLength: 3 }) // prettier-ignore
  fc.assert(
    fc.property(entries, (rows) => {
      const bench = useReduction()
      bench.begin(matrix(rows))
      expect(bench.square.value).toBe(true)
      bench.toTheEnd(true)
      for (let k = 0; k <= bench.steps.value.length; k += 1) {
        bench.at.value = k
        const shown = determinant(numbers(bench.state.value))
        expect(shown).toBeCloseTo(determinant(rows) * Q.toNumber(bench.factor.value.re), 8)
      }
      const last = bench.state.value
      expect(last !== null && isReduced(last, 3)).toBe(true)
      expect(bench.canGoOn.value).toBe(false)
    }),
    { numRuns: 150 },
  )
})
