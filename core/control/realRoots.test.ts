import * as fc from 'fast-check'
import { positiveRoots, realRoots } from './realRoots'
import { circleSides, sidesOf } from './stability'
import * as W from './whole'
import type { Whole } from './whole'

/** Real roots and sides of the axis, counted and placed: polynomials are made of roots that are known. */

/** d·x − n. */
const linear = (n: number, d: number): Whole => [BigInt(-n), BigInt(d)]
/** Of roots a ± bj, over a common denominator: d²x² − 2adx + a² + b². */
const pair = (a: number, b: number, d = 1): Whole => [BigInt(a * a + b * b), BigInt(-2 * a * d), BigInt(d * d)]
const product = (list: readonly Whole[]): Whole => list.reduce((so, p) => W.multiply(so, p), W.ONE)

const fraction = fc.tuple(fc.integer({ min: -400, max: 400 }), fc.constantFrom(1, 3, 7, 64, 1000))
const conjugates = fc.tuple(fc.integer({ min: -20, max: 20 }), fc.integer({ min: 1, max: 20 }))

test('each root that was put in is found, as often as it was, to the last place', () => {
  fc.assert(
    fc.property(fc.array(fraction, { minLength: 1, maxLength: 5 }), fc.array(conjugates, { maxLength: 2 }), (all, pairs) => {
      const p = product([...all.map(([n, d]) => linear(n, d)), ...pairs.map(([a, b]) => pair(a, b))])
      const wanted = new Map<number, number>()
      for (const [n, d] of all) wanted.set(n / d, (wanted.get(n / d) ?? 0) + 1)
      const found = realRoots(p)
      expect(found.map(({ times }) => times)).toEqual([...wanted].sort(([x], [y]) => x - y).map(([, times]) => times))
      const places = [...wanted.keys()].sort((x, y) => x - y)
      expect(found.map(({ x }) => x)).toEqual(places)
    }),
  ) // prettier-ignore
})

test('roots a thousandth of a billionth apart are two', () => {
  const d = 10 ** 12
  const p = product([linear(d, d), linear(d + 1, d)])
  expect(realRoots(p).map(({ x }) => x)).toEqual([1, 1 + 1e-12])
})

test('roots of very different sizes', () => {
  const p = product([linear(1, 10 ** 15), linear(10 ** 15, 1), linear(-3, 1)])
  expect(positiveRoots(p).map(({ x }) => x)).toEqual([1e-15, 1e15])
  expect(realRoots(p).map(({ x }) => x)).toEqual([-3, 1e-15, 1e15])
})

// Square roots, the golden mean: to the last place as a double has them.
test.each([
  [[-2n, 0n, 1n], [-Math.SQRT2, Math.SQRT2]],
  [[-1n, -1n, 1n], [(1 - Math.sqrt(5)) / 2, (1 + Math.sqrt(5)) / 2]],
  [[1n, 0n, 1n], []],
  [[7n], []],
  [[0n, 0n, -3n, 1n], [0, 3]],
] as const)('%j', (p, wanted) => {
  const found = realRoots(p).map(({ x }) => x)
  expect(found).toHaveLength(wanted.length)
  wanted.forEach((x, k) => expect(Math.abs(found[k]! - x)).toBeLessThanOrEqual(2.3e-16 * Math.abs(x)))
}) // prettier-ignore

test('how many roots lie to the right, and how many on the axis', () => {
  const onAxis = fc.integer({ min: 1, max: 9 })
  fc.assert(
    fc.property(
      fc.array(fraction, { maxLength: 4 }),
      fc.array(conjugates, { maxLength: 2 }),
      fc.array(onAxis, { maxLength: 2 }),
      (all, pairs, axis) => {
        const p = product([...all.map(([n, d]) => linear(n, d)), ...pairs.map(([a, b]) => pair(a, b)), ...axis.map((b) => pair(0, b))]) // prettier-ignore
        const right = all.filter(([n]) => n > 0).length + 2 * pairs.filter(([a]) => a > 0).length
        const still = all.filter(([n]) => n === 0).length + 2 * pairs.filter(([a]) => a === 0).length + 2 * axis.length
        expect(sidesOf(p)).toEqual({ right, axis: still })
      },
    ),
  )
})

test('a root is on its side however near the axis it is', () => {
  const d = 10 ** 15
  expect(sidesOf(product([linear(1, d), linear(-1, d)]))).toEqual({ right: 1, axis: 0 })
  expect(sidesOf(product([pair(1, d, d), pair(-1, d, d)]))).toEqual({ right: 2, axis: 0 })
})

test('how many lie outside the unit circle, and how many on it', () => {
  fc.assert(
    fc.property(fc.array(fraction, { minLength: 1, maxLength: 5 }), (all) => {
      const p = product(all.map(([n, d]) => linear(n, d)))
      const right = all.filter(([n, d]) => Math.abs(n) > d).length
      const axis = all.filter(([n, d]) => Math.abs(n) === d).length
      expect(circleSides(p)).toEqual({ right, axis })
    }),
  )
  // A pair of modulus 1: 3/5 ± 4/5 j.
  expect(circleSides(pair(3, 4, 5))).toEqual({ right: 0, axis: 2 })
})
