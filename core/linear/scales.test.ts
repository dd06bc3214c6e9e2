import * as fc from 'fast-check'
import { timesPowerOfTwo } from '../numbers/scale'
import { reckon } from '../testing'
import type { Value } from '../values/types'

/**
 * Multiplied by a power of two, a matrix has the same rank, condition and directions, and its norm, inverse and
 * solution are multiplied alike: at the ends of the range as in its midst.
 */

const entry = fc.integer({ min: -50, max: 50 }).map((n) => n / 7)
const square = fc
  .integer({ min: 2, max: 4 })
  .chain((n) => fc.array(fc.array(entry, { minLength: n, maxLength: n }), { minLength: n, maxLength: n }))
const far = fc.integer({ min: 480, max: 960 }).chain((k) => fc.constantFrom(k, -k))

const text = (rows: readonly (readonly number[])[]): string => `[${rows.map((r) => `[${r.join(', ')}]`).join(', ')}]`

function numbers(value: Value | null): number[] {
  if (value?.kind === 'number') return [value.re, value.im]
  if (value?.kind === 'angle') return [value.radians]
  if (value?.kind === 'vector') return value.items.flatMap(numbers)
  if (value?.kind === 'matrix') return [...value.dense.re, ...value.dense.im]
  throw new Error(`no numbers in ${value?.kind}`)
}

/** The same line of matrices near 1 and of the same times 2^k: both times the square root of one to be rounded. */
function both(line: string, a: string, k: number): { near: number[]; far: number[] } | null {
  const given = [`A = sqrt(1)*1.0*${a}`, `k = exp(0)*2^${k}`]
  const found = reckon([...given, line, line.replaceAll('A', '(k*A)')], { timeLimit: 10_000 })
  if (found[2]?.error?.code === 'singular') return null
  expect(found.map((f) => f.error?.message ?? null)).toEqual([null, null, null, null])
  return { near: numbers(found[2]?.value ?? null), far: numbers(found[3]?.value ?? null) }
}

function agree(found: ReturnType<typeof both>, exponent: number): void {
  if (!found) return
  const size = Math.max(...found.near.map(Math.abs), Number.MIN_VALUE)
  expect(found.far).toHaveLength(found.near.length)
  found.near.forEach((x, k) => {
    const back = timesPowerOfTwo(found.far[k] ?? NaN, -exponent)
    expect(Math.abs(back - x)).toBeLessThanOrEqual(1e-12 * size)
  })
}

test.each(['rank(A)', 'svd(A).left*svd(A).right^H', 'qr(A).orthonormal', 'lu(A).lower', 'lsq(A, A)', 'solve(A, A)'])(
  '%s does not change',
  (line) => {
    fc.assert(
      fc.property(square, far, (a, k) => agree(both(line, text(a), k), 0)),
      { numRuns: 60 },
    )
  },
)

test.each(['norm(A)', 'svd(A).singular', 'qr(A).triangular', 'tr(A)', 'norm(A[all, 1])'])(
  '%s is multiplied alike',
  (line) => {
    fc.assert(
      fc.property(square, far, (a, k) => agree(both(line, text(a), k), k)),
      { numRuns: 60 },
    )
  },
)

test('the condition number does not change', () => {
  fc.assert(
    fc.property(square, far, (a, k) => {
      const found = both('1/cond(A)', text(a), k)
      if (found) expect(Math.abs((found.far[0] ?? NaN) - (found.near[0] ?? NaN))).toBeLessThan(1e-14)
    }),
    { numRuns: 100 },
  )
})

test('a determinant is known though its factors leave the range', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 500, max: 1000 }), { minLength: 1, maxLength: 5 }), (powers) => {
      const all = [...powers, ...powers.map((k) => -k)]
      for (const order of [all, all.toReversed()]) {
        const [found] = reckon([`det(exp(0)*diag([${order.map((k) => `2^${k}`).join(', ')}]))`])
        expect(found?.value).toMatchObject({ kind: 'number', re: 1 })
      }
    }),
    { numRuns: 50 },
  )
})

const vector = fc.array(entry, { minLength: 3, maxLength: 3 }).filter((v) => v.some((x) => x !== 0))

test.each([
  ['angle(p*U, q*V)', 0],
  ['unit(p*U)', 0],
  ['proj(p*U, q*V)/p', 0],
  ['dist(p*U, p*V)/p', 0],
])('%s of vectors near the ends of the range', (line) => {
  fc.assert(
    fc.property(vector, vector, far, far, (u, v, k, m) => {
      const given = [`U = [${u.join(', ')}]`, `V = [${v.join(', ')}]`, `p = exp(0)*2^${k}`, `q = exp(0)*2^${m}`]
      const found = reckon([...given, line, line.replaceAll(/[pq]\*|\/p/g, '')])
      const [there, here] = [numbers(found[4]?.value ?? null), numbers(found[5]?.value ?? null)]
      const size = Math.max(1, ...here.map(Math.abs))
      here.forEach((x, n) => expect(Math.abs((there[n] ?? NaN) - x)).toBeLessThanOrEqual(1e-13 * size))
    }),
    { numRuns: 80 },
  )
})

test('products of far vectors that meet in the midst are known', () => {
  fc.assert(
    fc.property(vector, vector, fc.integer({ min: 500, max: 1000 }), (u, v, k) => {
      const given = [`U = [${u.join(', ')}]`, `V = [${v.join(', ')}]`, `p = exp(0)*2^${k}`]
      for (const line of ['dot(p*U, V/p)', 'cross(V/p, p*U)']) {
        const found = reckon([...given, line, line.replaceAll(/p\*|\/p/g, '')])
        expect(numbers(found[3]?.value ?? null)).toEqual(
          numbers(found[4]?.value ?? null).map((x) => expect.closeTo(x, 8) as number),
        )
      }
    }),
    { numRuns: 60 },
  )
})
