import * as fc from 'fast-check'
import { reckon } from '../testing'
import type { Value } from '../values/types'

/**
 * Matrices whose rows and columns measure something each (G. W. Hart, Multidimensional Analysis, 1995): what fits is
 * reckoned as plain numbers are, and one entry of another unit is refused.
 */

const UNITS = ['V', 'A', 'ohm', 's', 'kg', 'm', 'N', 'F'] as const
const unit = fc.constantFrom(...UNITS)
const number = fc.integer({ min: 1, max: 9 })

interface Made {
  readonly rows: readonly string[]
  readonly cols: readonly string[]
  readonly numbers: readonly (readonly number[])[]
}
const matrices = fc
  .integer({ min: 2, max: 4 })
  .chain((n) =>
    fc.record({
      rows: fc.array(unit, { minLength: n, maxLength: n }),
      cols: fc.array(unit, { minLength: n, maxLength: n }),
      // Larger on the diagonal: never singular.
      numbers: fc.array(fc.array(number, { minLength: n, maxLength: n }), { minLength: n, maxLength: n }).map((rows) => rows.map((row, r) => row.map((x, c) => (r === c ? x + 40 : x)))), // prettier-ignore
    }),
  ) // prettier-ignore

const written = ({ rows, cols, numbers }: Made): string =>
  `[${numbers.map((row, r) => `[${row.map((x, c) => `${x}*(1 ${rows[r]})*(1 ${cols[c]})`).join(', ')}]`).join(', ')}]`
const plain = ({ numbers }: Made): string => `[${numbers.map((row) => `[${row.join(', ')}]`).join(', ')}]`

const bare = (value: Value | null): Value | null => (value?.kind === 'quantity' ? value.value : value)
function numbers(value: Value | null): readonly number[] {
  const inner = bare(value)
  if (inner?.kind === 'number') return [inner.re]
  if (inner?.kind === 'matrix') return [...inner.dense.re]
  return inner?.kind === 'vector' ? inner.items.flatMap((item) => numbers(item)) : [NaN]
}
const last = (...lines: string[]) => reckon(lines).at(-1)!

test.each([
  'A',
  'A^-1',
  'det(A)',
  'A^T',
  'A*A^-1',
  'A^-1*A',
  'lu(A).upper',
  'rref(A)',
  'rank(A)',
  'solve(A, b)',
  'A*x',
  'inv(A)*b',
  'A + A',
  '2*A - A',
  'A[1, all]',
  'beneath(A, A[1, all])',
])('%s is what it is with plain numbers, whatever rows and columns measure', (line) => {
  fc.assert(
    fc.property(matrices, fc.array(number, { minLength: 4, maxLength: 4 }), (made, side) => {
      const b = `[${made.rows.map((of, k) => `${side[k]}*(1 ${of})`).join(', ')}]`
      const x = `[${made.cols.map((of, k) => `${side[k]}/(1 ${of})`).join(', ')}]`
      const sides = `[${made.rows.map((_, k) => side[k]).join(', ')}]`
      const found = last(`A = ${written(made)}`, `b = ${b}`, `x = ${x}`, line)
      const expected = last(`A = ${plain(made)}`, `b = ${sides}`, `x = ${sides}`, line)
      expect([found.error?.message, expected.error?.message]).toEqual([undefined, undefined])
      const [p, q] = [numbers(found.value), numbers(expected.value)]
      expect(p.length).toBe(q.length)
      p.forEach((value, k) => expect(Math.abs(value - q[k]!)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(q[k]!))))
    }),
    { numRuns: 25 },
  )
})

test('one entry of another unit is refused, wherever it stands', () => {
  fc.assert(
    fc.property(matrices, fc.nat(3), fc.nat(3), (made, r, c) => {
      const [row, col] = [r % made.rows.length, c % made.cols.length]
      const texts = made.numbers.map((line, i) => line.map((x, k) => `${x}*(1 ${made.rows[i]})*(1 ${made.cols[k]})`))
      texts[row]![col] += '*(1 K)'
      expect(last(`[${texts.map((line) => `[${line.join(', ')}]`).join(', ')}]`).error?.code).toBe('unit-fit')
    }),
    { numRuns: 100 },
  )
})

test('a right side or a sum of another unit is refused', () => {
  const A = 'A = [[2 ohm, 1], [3, 4 S]]'
  expect(last(A, 'A*[1 A, 2 V]').text).toBe('[4 V, 11 A]')
  expect(last(A, 'A*[1 A, 2 A]').error?.code).toBe('unit-product')
  expect(last(A, 'A + [[1, 1], [1, 1]] V').error?.code).toBe('unit-entry')
  expect(last(A, 'solve(A, [1 V, 2 V])').error?.code).toBe('unit-product')
  expect(last('identity(2) + [[1 ohm, 0], [0, 1 ohm]]').error?.code).toBe('unit-entry')
})

test('zeros that are written or made fit any unit; groups that they part are joined by the first use', () => {
  const B = ['k = 8 N/m', 'm_1 = 2 kg', 'd = 4 N*s/m', 'B = [[0, 1], [-k/m_1, -d/m_1]]']
  expect(last(...B, 'B*[1 m, 2 m/s]').text).toBe('[2 m/s, -8 m/s²]')
  expect(last(...B, 'eigenvalues(B)').text).toBe('[-1 + 1.7321j, -1 - 1.7321j] s⁻¹')
  expect(last(...B, 'unknown s in 1/s', 'det(s*identity(2) - B)').text).toBe('(s^2 + 2s + 4) s⁻²')
  expect(last(...B, 'unknown s in 1/s', 'roots(det(s*identity(2) - B))[1]').text).toBe('(-1 - 1.7321j) s⁻¹')
  expect(last(...B, 'charpoly(B)').text).toBe('[1, 2 s⁻¹, 4 s⁻²]')
  expect(last(...B, 'expm(B)').error?.code).toBe('unit-plain')
  expect(last(...B, 'expm(B*0 s) ~~ identity(2)').value).toMatchObject({ kind: 'check', pass: true })
  expect(last(...B, 'W = eigenvectors(B)', 'B*W ~~ W*diag(eigenvalues(B))').value).toMatchObject({ pass: true })
  expect(last('u = [5 V, 2 A]', 'u^H*[1 A, 3 V]').text).toBe('11 VA')
  expect(last('diag([2 ohm, 3 S])*[1 A, 2 V]').text).toBe('[2 V, 6 A]')
  expect(last('A = [[1 ohm, 0], [0, 1 ohm]]', 'A*[1 A, 2 V]').text).toBe(
    '[1 V, 2 Ω·V]'.replace('Ω·V', 'kg²·m⁴/(s⁶·A³)'),
  )
})
