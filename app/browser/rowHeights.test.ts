import * as fc from 'fast-check'
import { rowsBetween, tops } from './rowHeights'

test('rows begin where the ones above them end', () => expect(tops([10, 20, 30])).toEqual([0, 10, 30, 60]))

test.each([
  [0, 5, 0, 1],
  [0, 10, 0, 2],
  [10, 29, 1, 2],
  [35, 100, 2, 3],
  [-50, -10, 0, 1],
  [500, 600, 3, 3],
])('from %i to %i', (top, bottom, from, to) =>
  expect(rowsBetween(tops([10, 20, 30]), top, bottom)).toEqual({ from, to }),
)

test('every row that meets the strip is among them', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 90 })), fc.nat(3000), fc.nat(800), (heights, top, size) => {
      const offsets = tops(heights)
      const { from, to } = rowsBetween(offsets, top, top + size)
      heights.forEach((height, k) => {
        const meets = offsets[k]! < top + size && offsets[k]! + height > top
        if (meets) expect(k >= from && k < to).toBe(true)
      })
      expect(to - from).toBeLessThanOrEqual(
        heights.filter((h, k) => offsets[k]! <= top + size && offsets[k]! + h >= top).length + 1,
      )
    }),
  )
})
