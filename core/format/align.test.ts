import * as fc from 'fast-check'
import { alignColumn, alignTwins } from './align'

test.each([
  [
    ['1', '-2.5', '10.25'],
    [' 1   ', '-2.5 ', '10.25'],
  ],
  [
    ['1 + 2j', '-10.5 - 3.25j'],
    ['  1   + 2   j', '-10.5 - 3.25j'],
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
    ['5 ∠ 30°', '10.5 ∠ -120.25°', '3'],
    [' 5   ∠   30°   ', '10.5 ∠ -120.25°', ' 3             '],
  ],
  [
    ['1 + j2', '10 - j3.25'],
    [' 1 + j2   ', '10 - j3.25'],
  ],
  [[], []],
])('%j', (texts, expected) => expect(alignColumn(texts)).toEqual(expected))

test('of complex numbers in either place of the letter, the signs, marks and letters stand in a line', () => {
  const part = fc.integer({ min: 1, max: 99_999 }).map((n) => String(n / 100))
  const sign = fc.constantFrom('+', '-')
  fc.assert(
    fc.property(fc.boolean(), fc.array(fc.tuple(part, sign, part), { minLength: 1 }), (before, parts) => {
      const texts = parts.map(([re, s, im]) => (before ? `${re} ${s} j${im}` : `${re} ${s} ${im}j`))
      const aligned = alignColumn(texts)
      expect(aligned.map((t) => t.replaceAll(' ', ''))).toEqual(texts.map((t) => t.replaceAll(' ', '')))
      for (const place of [/[+-]/, /j/, /$/]) expect(new Set(aligned.map((t) => t.search(place))).size).toBe(1)
      const marks = aligned.flatMap((t) => [...t.matchAll(/\./g)].map((m) => [m.index < t.search(/[+-]/), m.index]))
      for (const left of [true, false])
        expect(new Set(marks.filter(([side]) => side === left).map(([, at]) => at)).size).toBeLessThanOrEqual(1)
    }),
  )
})

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

test('of values in one form or both, each column is aligned by itself', () => {
  const twin = (rectangular: string, polar: string) => ({ rectangular, polar })
  expect(alignTwins([twin('0 + 2j', '2 ∠ 90°'), '1', twin('3 + 4.5j', '5.4083 ∠ 56.31°')])).toEqual({
    first: ['0 + 2  j', '1       ', '3 + 4.5j'],
    polar: ['2      ∠ 90°   ', '', '5.4083 ∠ 56.31°'],
  })
})
