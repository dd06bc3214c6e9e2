import * as fc from 'fast-check'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { exactDeterminant, exactRref } from './exact'
import type { ExactMatrix } from './exact'
import {
  applyRowOperation,
  determinantFactor,
  isEchelon,
  isReduced,
  nextOperation,
  solutions,
  undoing,
} from './reduction'
import type { RowOperation } from './reduction'

const q = (n: number, d = 1) => ({ re: Q.rational(n, d)!, im: Q.ZERO })
const matrix = (...rows: number[][]): ExactMatrix => ({
  rows: rows.length,
  cols: rows[0]!.length,
  entries: rows.flat().map((n) => q(n)),
})
const small = fc.integer({ min: -4, max: 4 })
const any = (rows: number, cols: number): fc.Arbitrary<ExactMatrix> =>
  fc
    .array(
      fc.oneof(
        small.map((n) => q(n)),
        fc.tuple(small, small).map(([a, b]) => ({ re: Q.rational(a)!, im: Q.rational(b)! })),
      ),
      {
        minLength: rows * cols,
        maxLength: rows * cols,
      },
    )
    .map((entries) => ({ rows, cols, entries }))

function toTheEnd(m: ExactMatrix, columns: number, full: boolean): { state: ExactMatrix; steps: RowOperation[] } {
  let state = m
  const steps: RowOperation[] = []
  for (;;) {
    const operation = nextOperation(state, columns, full)
    if (!operation) return { state, steps }
    steps.push(operation)
    state = applyRowOperation(state, operation)!
    expect(steps.length).toBeLessThan(100)
  }
}

test('step by step the reduced form is reached, the same that elimination gives at once', () => {
  fc.assert(
    fc.property(any(3, 4), (m) => {
      const { state } = toTheEnd(m, 4, true)
      expect(isReduced(state, 4)).toBe(true)
      const expected = exactRref(m)!.matrix
      state.entries.forEach((z, k) => expect(G.equals(z, expected.entries[k]!)).toBe(true))
      expect(isEchelon(toTheEnd(m, 4, false).state, 4)).toBe(true)
    }),
  )
})

test('the running factor leads back to the determinant', () => {
  fc.assert(
    fc.property(any(3, 3), (m) => {
      const { state, steps } = toTheEnd(m, 3, true)
      const factor = steps.reduce((f, o) => G.multiply(f, determinantFactor(o))!, G.ONE)
      const after = exactDeterminant(state)!
      expect(G.equals(G.multiply(exactDeterminant(m)!, factor)!, after)).toBe(true)
    }),
  )
})

test('every operation is taken back by another', () => {
  const m = matrix([1, 2], [3, 4])
  const operations: RowOperation[] = [
    { type: 'swap', a: 0, b: 1 },
    { type: 'scale', row: 1, factor: q(2, 3) },
    { type: 'add', row: 0, from: 1, factor: q(-3) },
  ]
  for (const operation of operations) {
    const back = applyRowOperation(applyRowOperation(m, operation)!, undoing(operation))!
    expect(back).toEqual(m)
  }
})

test.each([
  [{ type: 'swap', a: 0, b: 0 }],
  [{ type: 'swap', a: 0, b: 5 }],
  [{ type: 'scale', row: 0, factor: q(0) }],
  [{ type: 'scale', row: -1, factor: q(1) }],
  [{ type: 'add', row: 1, from: 1, factor: q(1) }],
] as const)('%j makes no sense', (operation) => expect(applyRowOperation(matrix([1, 2], [3, 4]), operation)).toBeNull())

test.each([
  [matrix([1, 0, 5], [0, 1, 6]), { kind: 'one' }],
  [matrix([1, 2, 5], [0, 0, 0]), { kind: 'many', free: 1 }],
  [matrix([1, 2, 5], [0, 0, 3]), { kind: 'none', row: 1 }],
  [matrix([1, 2, 5], [3, 4, 6]), { kind: 'open' }],
])('what a state says about the solutions: %#', (m, expected) => expect(solutions(m, 2)).toEqual(expected))
