import * as fc from 'fast-check'
import type { Conventions } from '../format/conventions'
import { reckon } from '../testing'

const repeats = (line: string, conventions: Partial<Conventions> = {}, before: readonly string[] = []): boolean =>
  reckon([...before, line], conventions).at(-1)!.view.repeats

test.each([
  '[1, 2, 3]',
  'v = [230, 0, 0]',
  '[[0.6, -1], [-1, 12.25]]',
  'A = [[8 + 2j, -4], [-4, 9 - j]]',
  '[[40j, 1], [0, -40j]]',
  '[[1j, 2*j], [0, 1 - 1j]]',
])('%s says its value', (line) => expect(repeats(line)).toBe(true))

test.each([
  ['a name', '[a, 2]'],
  ['a sum', '[1 + 2, 2]'],
  ['a fraction that is shown as a decimal', '[1/3, 2]'],
  ['a prefix', '[4.7k, 2]'],
  ['zeros behind the mark', '[2.50, 1]'],
  ['more digits than are shown', '[3.14159265, 1]'],
  ['polar form', '[[5∠30°, 1], [0, 1]]'],
  ['complex entries of a vector: their polar form is new', '[3 + 4j, 1]'],
  ['a block', '[[a, b], [1, 2]]'],
  ['no list', 'a*[1, 2]'],
])('%s: the value is shown', (_, line) => expect(repeats(line, {}, ['a = 5', 'b = 7'])).toBe(false))

test('what is shown differently in other conventions is shown', () => {
  expect(repeats('[1.5, 2]', { exact: 'fraction' })).toBe(false)
  expect(repeats('[14860, 1]', { style: 'scientific' })).toBe(false)
  expect(repeats('[[3 + 4j, 1], [1, 1]]', { place: 'before' })).toBe(false)
  expect(repeats('[[3 + j4, 1], [1, 1]]', { place: 'before' })).toBe(true)
})

test('of decimals, it says its value just where all their digits are shown (whole numbers always are)', () => {
  const real = fc.tuple(fc.integer({ min: -200_000, max: 200_000 }), fc.integer({ min: 0, max: 3 }))
  const text = real.map(([n, d]) => String((n || 7) / 10 ** d))
  const part = fc.tuple(text, fc.option(text))
  const written = ([re, im]: readonly [string, string | null]): string =>
    im === null ? re : `${re} + ${im}j`.replace('+ -', '- ')
  const shown = (x: string | null): boolean =>
    x === null || Number.isInteger(Number(x)) || Number(Number(x).toPrecision(5)) === Number(x)
  fc.assert(
    fc.property(fc.array(fc.tuple(part, part), { minLength: 2, maxLength: 3 }), (rows) => {
      const line = `[${rows.map((row) => `[${row.map(written).join(', ')}]`).join(', ')}]`
      expect(repeats(line)).toBe(rows.flat(2).every(shown))
    }),
    { numRuns: 200 },
  )
})
