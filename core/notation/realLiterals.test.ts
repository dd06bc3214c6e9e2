import * as fc from 'fast-check'
import { reckon } from '../testing'
import { literalNear, stepOf, withNumber } from './realLiterals'

const numbersIn = (...lines: string[]) => reckon(lines).at(-1)!.view.numbers
const texts = (source: string, ...before: string[]): string[] =>
  numbersIn(...before, source).map(({ digits }) => source.slice(digits.from, digits.to))

test.each([
  ['k = 2', ['2']],
  ['k = 2.50 # gain', ['2.50']],
  ['G = 25/(s^2 + 0.4s + 25)', ['25', '2', '0.4', '25']],
  ['Z = 3 + 4j', ['3']],
  ['R = 4.7k', ['4.7']],
  ['C = 33 nF', ['33']],
  ['x = 1.2e-3', ['1.2e-3']],
  ['x = 4k7', []],
  ['x = .5*y', ['.5']],
  ['v = [1, -2, 3]', ['1', '2', '3']],
  ['t = 0 to 1 step 0.1', ['0', '1', '0.1']],
])('the numbers of %s', (source, found) => expect(texts(source, 'unknown s, y')).toEqual(found))

test('the one at the caret, else the one before it, else the first', () => {
  const all = numbersIn('unknown s', 'G = 25/(s^2 + 0.4s + 9)')
  expect(literalNear(all, 5)?.value).toBe(25)
  expect(literalNear(all, 16)?.value).toBe(0.4)
  expect(literalNear(all, 13)?.value).toBe(2)
  expect(literalNear(all, 0)?.value).toBe(25)
  expect(literalNear([], 0)).toBeNull()
})

test.each([
  ['2', 0.1],
  ['0.08', 0.001],
  ['45', 1],
  ['1.25', 0.01],
  ['0', 0.01],
  ['3.1e-6', 1e-7],
])('a step of %s is %d', (text, step) => expect(stepOf(text)).toBeCloseTo(step, 12))

test.each([
  ['k = 2', 3.14, 0.1, 'k = 3.1'],
  ['k = 2 # gain', 0.25, 0.01, 'k = 0.25 # gain'],
  ['R = 4.7k', 5, 0.1, 'R = 5.0k'],
  ['x = 3 - 2', -1, 1, 'x = -1 - 2'],
  ['x = 4*2', -0.5, 0.1, 'x = -0.5*2'],
  ['k = 2', 0.75, 0.25, 'k = 0.75'],
  ['k = 2', 3e-7, 1e-7, 'k = 0.0000003'],
])('%s with %d in steps of %d is %s', (source, value, step, gives) => {
  const [first] = numbersIn(source)
  expect(withNumber(source, first!, value, step)).toBe(gives)
})

test('whatever is put in the place of a number reads back as that number', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('k = 2', 'y = 3*(2 - x)', 'z = 2/3 + 1', 'v = [1, 2]', 'w = x^2 + 5', 'r = 4.7k'),
      fc.integer({ min: 0, max: 2 }),
      fc.integer({ min: -999, max: 999 }),
      fc.constantFrom(1, 0.1, 0.01),
      (source, place, units, step) => {
        const literal = numbersIn('x = 1.5', source)[place]
        if (!literal) return
        const value = units * step
        const slid = withNumber(source, literal, value, step)
        const { error, view } = reckon(['x = 1.5', slid]).at(-1)!
        expect([slid, error]).toEqual([slid, null])
        expect(view.numbers[place]!.value).toBeCloseTo(Math.abs(value), 9)
      },
    ),
  )
})
