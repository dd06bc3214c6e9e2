import * as fc from 'fast-check'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import type { Gaussian } from '../numbers/gaussian'
import type { RowOperation } from '../linear/reduction'
import { readRowOperation, rowOperationText } from './rowOperation'
import { reckon } from '../testing'

const q = (n: number, d = 1): Gaussian => ({ re: Q.rational(n, d)!, im: Q.ZERO })
const number = (text: string): Gaussian | null => {
  const value = reckon([text])[0]!.value
  return value?.kind === 'number' ? value.exact : null
}

const CASES: readonly (readonly [RowOperation, string])[] = [
  [{ type: 'swap', a: 0, b: 2 }, '(1) ↔ (3)'],
  [{ type: 'scale', row: 1, factor: q(1, 2) }, '(2) → 1/2·(2)'],
  [{ type: 'scale', row: 1, factor: q(-3) }, '(2) → −3·(2)'],
  [{ type: 'add', row: 1, from: 0, factor: q(-3) }, '(2) → (2) − 3·(1)'],
  [{ type: 'add', row: 1, from: 0, factor: q(1) }, '(2) → (2) + (1)'],
  [{ type: 'add', row: 2, from: 1, factor: { re: Q.ONE, im: Q.ONE } }, '(3) → (3) + (1 + 1j)·(2)'],
]

test.each(CASES)('%j is written %s and read again', (operation, text) => {
  expect(rowOperationText(operation, 'j')).toBe(text)
  expect(readRowOperation(text, number)).toEqual(operation)
})

test.each([
  ['r2 -> r2 - 3r1', { type: 'add', row: 1, from: 0, factor: q(-3) }],
  ['R2=R2/4', { type: 'scale', row: 1, factor: q(1, 4) }],
  ['R1 <-> R2', { type: 'swap', a: 0, b: 1 }],
  ['R1 -> -R1', { type: 'scale', row: 0, factor: G.negate(G.ONE) }],
  ['R2 -> R2 + 2/3 R1', { type: 'add', row: 1, from: 0, factor: q(2, 3) }],
  ['(2) -> (2) - (3)(1)', { type: 'add', row: 1, from: 0, factor: q(-3) }],
  ['(2) → (2)/(4)', { type: 'scale', row: 1, factor: q(1, 4) }],
  ['r2 -> (2) + r3', { type: 'add', row: 1, from: 2, factor: q(1) }],
  ['(12) <-> (3)', { type: 'swap', a: 11, b: 2 }],
  ['(1) -> (3)(1)', { type: 'scale', row: 0, factor: q(3) }],
])('%s', (text, expected) => expect(readRowOperation(text, number)).toEqual(expected))

test.each([
  '',
  'R2',
  'R2 -> 5',
  'R2 -> R1',
  'R2 -> R2/0',
  'hello',
  'R2 -> x R2',
  '(2) -> (1)',
  '2 -> 2 - 1',
  '(2) -> (2) - 3',
])('%s is not understood', (text) => expect(readRowOperation(text, number)).toBeNull())

const factor = fc.oneof(
  fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: 1, max: 9 })).map(([n, d]) => q(n, d)),
  fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: 1, max: 9 })).map(([n, d]): Gaussian => ({ re: Q.rational(n, 1)!, im: Q.rational(1, d)! })),
).filter((z) => !G.isZero(z)) // prettier-ignore
const index = fc.nat(11)
test('every operation that is written is read as itself, typed with letters too', () => {
  const operation = fc.oneof(
    fc.record({ type: fc.constant('swap' as const), a: index, b: index }),
    fc.record({ type: fc.constant('scale' as const), row: index, factor }),
    fc.record({ type: fc.constant('add' as const), row: index, from: index, factor }),
  )
  fc.assert(
    fc.property(operation, (one) => {
      const text = rowOperationText(one, 'j')
      expect(readRowOperation(text, number)).toEqual(one)
      expect(readRowOperation(text.replace(/\((\d+)\)/g, 'r$1'), number)).toEqual(one)
    }),
    { numRuns: 200 },
  )
})
