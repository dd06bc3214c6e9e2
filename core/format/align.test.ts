import * as fc from 'fast-check'
import { alignColumn } from './align'

test.each([
  [
    ['1', '-2.5', '10.25'],
    [' 1   ', '-2.5 ', '10.25'],
  ],
  [
    ['1 + 2j', '-10.5 - 3.25j'],
    ['  1   + 2j   ', '-10.5 - 3.25j'],
  ],
  [
    ['0', '1 + 1j'],
    ['0     ', '1 + 1j'],
  ],
  [
    ['1/3', '2'],
    ['1/3', '  2'],
  ],
  [
    ['5 ∠ 30°', '10 ∠ 0°'],
    ['5 ∠ 30°', '10 ∠ 0°'],
  ],
  [[], []],
])('%j', (texts, expected) => expect(alignColumn(texts)).toEqual(expected))

test('all come out as wide, and nothing but blanks is added', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ noNaN: true, min: -1e6, max: 1e6 }).map((x) => String(Math.round(x * 100) / 100))),
      (texts) => {
        const aligned = alignColumn(texts)
        expect(new Set(aligned.map((t) => t.length)).size).toBeLessThanOrEqual(1)
        expect(aligned.map((t) => t.trim())).toEqual(texts)
        const points = aligned.filter((t) => t.includes('.')).map((t) => t.indexOf('.'))
        expect(new Set(points).size).toBeLessThanOrEqual(1)
      },
    ),
  )
})
