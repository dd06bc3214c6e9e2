import * as fc from 'fast-check'
import * as C from '../numbers/complex'
import { integer } from '../values/make'
import { reckon } from '../testing'
import { rootsOf } from './roots'
import { KNOWN_ROOTS } from './roots.expected'

const byPart = (a: C.Complex, b: C.Complex): number => a.re - b.re || a.im - b.im
const listed = (entry: string): readonly C.Complex[] => {
  const value = reckon(['unknown s', entry], { timeLimit: 10_000 })[1]!.value
  if (value?.kind !== 'vector') throw new Error(`${entry} is no list`)
  return value.items as unknown as C.Complex[]
}
const exactness = (entry: string): boolean[] =>
  listed(entry).map((z) => (z as unknown as { exact: unknown }).exact !== null)

test.each(KNOWN_ROOTS.map((k) => [k.name, k] as const))('%s: every root to 1e-14 of its size', (_, known) => {
  const found = [...listed(`roots([${known.coefficients.join(', ')}])`)].sort(byPart)
  expect(found).toHaveLength(known.roots.length)
  for (const [re, im] of known.roots) {
    const nearest = Math.min(...found.map((z) => C.abs(C.subtract(z, { re, im }))))
    expect(nearest / Math.hypot(re, im)).toBeLessThan(1e-14)
  }
})

test('the polynomial with the roots 1 to 20 has the roots 1 to 20, exactly', () => {
  const entry = 'roots(product(s - k for k = 1 to 20))'
  expect(listed(entry).map((z) => z.re)).toEqual(Array.from({ length: 20 }, (_, k) => k + 1))
  expect(exactness(entry)).toEqual(Array(20).fill(true))
})

test('a root is exact where it is one, never because it is near', () => {
  const close = 'roots((s - 1000)*(s - 1000.00005)*(s - 2))'
  expect(listed(close).map((z) => z.re)).toEqual([2, 1000, 1000.00005])
  expect(exactness(close)).toEqual([true, true, true])
  // 10^18·(x² − 2x + 1) − 3 has the roots 1 ± √3·1e−9: neither is rational.
  const irrational = 'roots([10^18, -2*10^18, 10^18 - 3])'
  expect(exactness(irrational)).toEqual([false, false])
  // mpmath: 0.99999999826794919…, 1.0000000017320508…
  expect(listed(irrational).map((z) => z.re)).toEqual([0.9999999982679492, 1.0000000017320507])
})

test('products of rational factors, real and complex, any multiplicity: all roots exactly', () => {
  const rational = fc.tuple(fc.integer({ min: -40, max: 40 }), fc.integer({ min: 1, max: 9 }))
  fc.assert(
    fc.property(
      fc.array(fc.tuple(rational, fc.integer({ min: 1, max: 3 })), { minLength: 1, maxLength: 5 }),
      (factors) => {
        const entry = `roots(${factors.map(([[n, d], times]) => `(${d}s - (${n}))^${times}`).join('*')})`
        const expected = factors
          .flatMap(([[n, d], times]) => Array(times).fill(n / d) as number[])
          .sort((a, b) => a - b)
        const found = listed(entry)
          .map((z) => z.re)
          .sort((a, b) => a - b)
        expect([entry, found]).toEqual([entry, expected.map((x) => x + 0)])
        expect(exactness(entry).every(Boolean)).toBe(true)
      },
    ),
    { numRuns: 150 },
  )
})

test('integer coefficients: every root makes the value nothing but the rounding of the root itself', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 4, maxLength: 12 }), (numbers) => {
      const list = numbers.map((n) => n)
      if (list[0] === 0 || list.at(-1) === 0) return
      const found = rootsOf(list.map((n) => integer(n)))
      if ('kind' in found) throw new Error(found.code)
      expect(found.values).toHaveLength(list.length - 1)
      expect(found.off).toBe(0)
      // Vieta: the sum of the roots, and conjugate pairs.
      const sum = found.values.reduce((s, z) => s + z.re, 0)
      const size = found.values.reduce((s, z) => s + C.abs(z), 0)
      expect(Math.abs(sum + (list[1] ?? 0) / (list[0] ?? 1))).toBeLessThanOrEqual(1e-14 * size + 1e-300)
      const up = found.values
        .filter((z) => z.im > 0)
        .map((z) => [z.re, z.im])
        .sort()
      const down = found.values
        .filter((z) => z.im < 0)
        .map((z) => [z.re, -z.im])
        .sort()
      expect(down).toEqual(up)
    }),
    { numRuns: 500 },
  )
})

test('of rounded coefficients it is said how far the roots may be off', () => {
  const hints = (entry: string) => reckon(['unknown s', entry], { timeLimit: 10_000 })[1]!.hints.map((h) => h.code)
  expect(hints('roots([1, -sqrt(2)*3, 2*3, -sqrt(8)])')).toEqual(['roots-cluster'])
  expect(hints('roots(sqrt(2)*coefficients(product(s - k for k = 1 to 20)))')).toEqual(['roots-off'])
  expect(hints('roots([1, -sqrt(2), -1])')).toEqual([])
  expect(hints('roots([1, -3, 3, -1])')).toEqual([])
})
