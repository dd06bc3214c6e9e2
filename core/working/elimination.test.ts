import * as fc from 'fast-check'
import { exactRref } from '../linear/exact'
import * as C from '../numbers/complex'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { exactNumber, integer, real, rough } from '../values/make'
import type { NumberValue } from '../values/types'
import { applied, eliminated, entryAt, leadingColumns } from './elimination'
import type { Entries } from './elimination'

const rowsOf = (rows: readonly (readonly number[])[]): Entries => rows.map((row) => row.map((x) => integer(x)))
const numbers = (rows: Entries): readonly (readonly number[])[] => rows.map((row) => row.map((z) => z.re))
const last = (start: Entries, columns: number, full: boolean): Entries => eliminated(start, columns, full).at(-1)?.rows ?? start // prettier-ignore

test('by hand: below the leading entries first, then above them from the last row up', () => {
  const start = rowsOf([[2, 1, 5], [4, 3, 11]]) // prettier-ignore
  expect(eliminated(start, 2, true).map(({ change }) => change)).toEqual([
    { type: 'add', row: 1, from: 0, factor: integer(-2) },
    { type: 'add', row: 0, from: 1, factor: integer(-1) },
    { type: 'scale', row: 0, factor: expect.objectContaining({ re: 0.5 }) },
  ])
  expect(numbers(last(start, 2, true))).toEqual([[1, 0, 2], [0, 1, 1]]) // prettier-ignore
})

test('a row that begins with 1 comes up where the first begins with 0', () => {
  const [first] = eliminated(rowsOf([[0, 2], [3, 1], [1, 5]]), 2, false) // prettier-ignore
  expect(first?.change).toEqual({ type: 'swap', a: 0, b: 2 })
})

test('of rounded rows the largest entry leads, and what is within rounding of 0 is taken for 0', () => {
  const row = (...x: readonly number[]): NumberValue[] => x.map((v) => real(v))
  const stages = eliminated([row(1e-3, 1), row(1, 1)], 2, false)
  expect(stages[0]?.change).toEqual({ type: 'swap', a: 0, b: 1 })
  const singular = eliminated([row(0.1, 0.2), row(0.3, 0.6000000000000001)], 2, false)
  expect(singular.at(-1)).toMatchObject({ taken: true })
  expect(leadingColumns(singular.at(-1)!.rows, 2)).toEqual([0, null])
})

test('echelon only: entries above the leading ones stay', () =>
  expect(numbers(last(rowsOf([[1, 2], [3, 4]]), 2, false))).toEqual([[1, 2], [0, -2]])) // prettier-ignore

const small = fc.integer({ min: -6, max: 6 })
const gaussian = fc.tuple(small, small).map(([a, b]) => exactNumber(G.gaussian(Q.whole(a), Q.whole(b)), b !== 0))
const matrix = (entry: fc.Arbitrary<NumberValue>): fc.Arbitrary<Entries> =>
  fc.tuple(fc.integer({ min: 1, max: 4 }), fc.integer({ min: 1, max: 5 })).chain(([rows, cols]) => fc.array(fc.array(entry, { minLength: cols, maxLength: cols }), { minLength: rows, maxLength: rows })) // prettier-ignore

test('the reduced form of random exact matrices is that of the exact library', () => {
  fc.assert(
    fc.property(fc.oneof(matrix(small.map((n) => integer(n))), matrix(gaussian)), (rows) => {
      const cols = rows[0]!.length
      const entries = rows.flat().flatMap((z) => (z.exact ? [z.exact] : []))
      const wanted = exactRref({ rows: rows.length, cols, entries })
      if (!wanted) return
      const found = last(rows, cols, true)
      const shape = 'matrix' in wanted ? (wanted as { matrix: { entries: readonly G.Gaussian[] } }).matrix : (wanted as { entries: readonly G.Gaussian[] }) // prettier-ignore
      found.flat().forEach((z, k) => expect(G.equals(z.exact!, shape.entries[k]!)).toBe(true))
    }),
    { numRuns: 300 },
  )
})

test('each stage is the one before it with its operation done, for rounded complex rows too', () => {
  const part = fc.integer({ min: -900, max: 900 }).map((k) => k / 97)
  const rounded = fc.tuple(part, part).map(([re, im]) => rough(re, im, true))
  fc.assert(
    fc.property(matrix(rounded), (rows) => {
      let before = rows
      for (const { rows: after, change } of eliminated(rows, rows[0]!.length, true)) {
        const wanted = applied(before, change)
        after.forEach((row, r) =>
          row.forEach((z, c) => {
            const w = entryAt(wanted, r, c)
            const scale = Math.max(1, C.abs(w))
            expect(C.abs({ re: z.re - w.re, im: z.im - w.im })).toBeLessThanOrEqual(1e-8 * scale * 10)
          }),
        )
        before = after
      }
      const leads = leadingColumns(before, rows[0]!.length).filter((c) => c !== null)
      expect([...leads].sort((a, b) => a - b)).toEqual(leads)
    }),
    { numRuns: 200 },
  )
})
