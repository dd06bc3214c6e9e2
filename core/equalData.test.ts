import * as fc from 'fast-check'
import { equalData } from './equalData'

/** The same data with the keys of every object in another order. */
function shuffled(data: unknown): unknown {
  if (Array.isArray(data)) return data.map(shuffled)
  if (typeof data !== 'object' || data === null) return data
  return Object.fromEntries(Object.entries(data).map(([key, value]) => [key, shuffled(value)] as const).reverse()) // prettier-ignore
}
const data = fc.jsonValue({ maxDepth: 4 }) as fc.Arbitrary<unknown>

test('the order of keys says nothing, and what has gone through JSON is the same', () => {
  fc.assert(
    fc.property(data, (a) => {
      expect(equalData(a, shuffled(a))).toBe(true)
      expect(equalData(a, JSON.parse(JSON.stringify(a)))).toBe(true)
    }),
    { numRuns: 300, examples: [[{ a: 1, b: [{ c: 2, d: 3 }] }]] },
  )
})

test('for data in one order it says what their JSON says', () => {
  fc.assert(
    fc.property(data, data, (a, b) => {
      expect(equalData(a, b)).toBe(equalData(b, a))
      if (JSON.stringify(a) === JSON.stringify(b))
        expect(equalData(JSON.parse(JSON.stringify(a)), JSON.parse(JSON.stringify(b)))).toBe(true) // prettier-ignore
      else expect(equalData(a, b) && JSON.stringify(shuffled(a)) === JSON.stringify(shuffled(b))).toBe(false)
    }),
    { numRuns: 300 },
  )
})

test.each([
  [{ a: 1 }, { a: 1, b: undefined }, true],
  [{ a: 1 }, { a: 1, b: null }, false],
  [[], {}, false],
  [[1, 2], [2, 1], false],
  [{ 0: 1 }, [1], false],
  [null, undefined, false],
  ['', 0, false],
  [NaN, NaN, true],
])('%j and %j: %s', (a, b, expected) => expect([equalData(a, b), equalData(b, a)]).toEqual([expected, expected]))
