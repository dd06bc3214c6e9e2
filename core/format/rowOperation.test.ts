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
  [{ type: 'swap', a: 0, b: 2 }, 'R1 ↔ R3'],
  [{ type: 'scale', row: 1, factor: q(1, 2) }, 'R2 → 1/2·R2'],
  [{ type: 'scale', row: 1, factor: q(-3) }, 'R2 → −3·R2'],
  [{ type: 'add', row: 1, from: 0, factor: q(-3) }, 'R2 → R2 − 3·R1'],
  [{ type: 'add', row: 1, from: 0, factor: q(1) }, 'R2 → R2 + R1'],
  [{ type: 'add', row: 2, from: 1, factor: { re: Q.ONE, im: Q.ONE } }, 'R3 → R3 + (1 + 1j)·R2'],
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
])('%s', (text, expected) => expect(readRowOperation(text, number)).toEqual(expected))

test.each(['', 'R2', 'R2 -> 5', 'R2 -> R1', 'R2 -> R2/0', 'hello', 'R2 -> x R2'])('%s is not understood', (text) =>
  expect(readRowOperation(text, number)).toBeNull(),
)
