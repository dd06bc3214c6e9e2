import * as fc from 'fast-check'
import { reckon } from '../testing'
import type { Value } from '../values/types'
import type { Conventions } from './conventions'
import { valueText } from '../kinds/kinds'
import { formatPolar } from './number'

/** Whatever is shown can be typed back, and is then the same value to the digits on show. */

const conventions: fc.Arbitrary<Conventions> = fc.record({
  angle: fc.constantFrom('deg' as const, 'rad' as const),
  letter: fc.constantFrom('i' as const, 'j' as const),
  place: fc.constantFrom('before' as const, 'after' as const),
  digits: fc.integer({ min: 2, max: 16 }),
  style: fc.constantFrom('plain' as const, 'scientific' as const, 'engineering' as const, 'prefix' as const),
  exact: fc.constantFrom('decimal' as const, 'fraction' as const, 'mixed' as const),
  degrees: fc.constantFrom('decimal' as const, 'minutes' as const),
  spaced: fc.constant('unit' as const),
})

const whole = fc.integer({ min: -99, max: 99 })
const exact = fc.tuple(whole, fc.integer({ min: 1, max: 60 })).map(([n, d]) => `(${n}/${d})`)
const power = fc.integer({ min: -14, max: 14 })
const decimal = fc.tuple(fc.integer({ min: -99999, max: 99999 }), power).map(([n, p]) => `${n}e${p}`)
const rounded = fc.tuple(fc.integer({ min: 1, max: 999 }), power).map(([n, p]) => `sqrt(${n})*1e${p}`)
const real = fc.oneof(exact, decimal, rounded)
const unit = (c: Conventions): string => c.letter
const entry = fc.oneof(
  real.map((x) => () => x),
  fc.tuple(real, real).map(
    ([x, y]) =>
      (c: Conventions) =>
        `${x} + ${unit(c)}*${y}`,
  ),
  fc.tuple(exact, exact).map(
    ([x, y]) =>
      (c: Conventions) =>
        `${x} + ${unit(c)}*${y}`,
  ),
  real.map((x) => () => `${x}*1°`),
  real.map((x) => () => `${x}*1 rad`),
  exact.map((x) => () => `${x}*pi*1 rad`),
  fc.tuple(real, real).map(
    ([x, y]) =>
      () =>
        `[${x}, ${y}]`,
  ),
  fc.tuple(real, real).map(
    ([x, y]) =>
      (c: Conventions) =>
        `[${x}, ${unit(c)}*${y}]`,
  ),
  fc.tuple(real, real, exact, exact).map((x) => () => `[[${x[0]}, ${x[1]}], [${x[2]}, ${x[3]}]]`),
  fc
    .constantFrom('2^1000*30°', '1e15 + 1j', '0', '1e300', '8.5°', '-8.5°', '2^60*1°')
    .map((x) => (c: Conventions) => x.replace('j', c.letter)),
)

/** The numbers of a value; angles by their degrees. */
function numbers(value: Value | null): readonly (readonly [re: number, im: number])[] {
  if (value?.kind === 'number') return [[value.re, value.im]]
  if (value?.kind === 'angle') return [[value.radians, 0]]
  if (value?.kind === 'vector') return value.items.flatMap(numbers)
  if (value?.kind === 'matrix') return [...value.dense.re].map((re, k) => [re, value.dense.im[k] ?? 0])
  throw new Error(`${value?.kind} is not expected here`)
}

const seconds = (c: Conventions): number => (Math.PI / 180 / 3600) * 0.5 * 10 ** -Math.max(0, Math.min(6, c.digits - 6))

function readsBack(text: string, value: Value, c: Conventions, polar: boolean): void {
  const back = reckon([text], c)[0]!
  expect([text, back.error?.message ?? null]).toEqual([text, null])
  const [shown, given] = [numbers(back.value), numbers(value)]
  expect(shown).toHaveLength(given.length)
  // Of a matrix what is nothing beside its largest entry is shown as 0.
  const most = Math.max(...given.map(([re, im]) => Math.hypot(re, im)))
  given.forEach(([re, im], k) => {
    const [x, y] = shown[k] ?? [NaN, NaN]
    const share = 0.51 * 10 ** (1 - c.digits)
    const minutes = value.kind === 'angle' && c.angle === 'deg' && c.degrees === 'minutes' ? seconds(c) * 1.01 : 0
    const size = Math.hypot(re, im)
    if (polar) {
      // The angle is rounded in its own unit, of which the first figure can be 1: up to a tenth of it a place.
      const turn = 0.51 * 10 ** (1 - c.digits) * Math.PI + seconds(c) * 1.01
      expect(Math.hypot(x - re, y - im)).toBeLessThanOrEqual(size * (share + turn) + 1e-15 * size)
      return
    }
    const floor = 6e-15 * (value.kind === 'matrix' ? most : size)
    expect(Math.abs(x - re)).toBeLessThanOrEqual(
      Math.max(share * Math.abs(re) * 1.0001, floor, minutes) + 1e-15 * Math.abs(re),
    )
    expect(Math.abs(y - im)).toBeLessThanOrEqual(Math.max(share * Math.abs(im) * 1.0001, floor) + 1e-15 * Math.abs(im))
  })
}

test('over all conventions', () => {
  fc.assert(
    fc.property(entry, conventions, (make, c) => {
      const line = make(c)
      const { value, error } = reckon([line], c)[0]!
      if (error?.code === 'too-large') return
      expect([line, error]).toEqual([line, null])
      if (!value) throw new Error(line)
      readsBack(valueText(value, c), value, c, false)
      if (value.kind === 'number') readsBack(formatPolar(value, c), value, c, true)
    }),
    { numRuns: 4000 },
  )
})

test('an exact value in fractions reads back as itself', () => {
  fc.assert(
    fc.property(fc.tuple(exact, exact), conventions, ([x, y], c) => {
      const fractions: Conventions = { ...c, exact: c.exact === 'decimal' ? 'fraction' : c.exact }
      for (const line of [x, `${x} + ${c.letter}*${y}`, `[${x}, ${y}]`, `${x}*1°`]) {
        const { value } = reckon([line], fractions)[0]!
        if (value?.kind === 'angle' && (c.angle === 'rad' || c.degrees === 'minutes')) continue
        const text = value ? valueText(value, fractions) : ''
        const back = reckon([`(${line}) == (${text})`], fractions)[0]!
        expect([line, text, back.text, back.error?.message]).toEqual([line, text, 'true', undefined])
      }
    }),
    { numRuns: 500 },
  )
})

describe('sixteen digits are those of the exact value', () => {
  test.each([
    ['0.07', '0.07'],
    ['0.1 + 0.2', '0.3'],
    ['1.1*1.1', '1.21'],
    ['1/3', '0.3333333333333333'],
    ['2/3', '0.6666666666666667'],
    ['0.57', '0.57'],
    ['123456789.12345678', '123456789.1234568'],
    ['1e15 + 0.5', '1.000000000000001e15'],
  ])('%s', (line, expected) => expect(reckon([line], { digits: 16 })[0]!.text).toBe(expected))
  test('no part of an exact value is taken for noise', () => {
    expect(reckon(['1e15 + 1j'])[0]!.text).toBe('1e15 + 1j')
    expect(reckon(['1 + 1e-20j'], { letter: 'j' })[0]!.text).toBe('1 + 1e-20j')
  })
  test('nor of a sweep over decades', () => {
    expect(reckon(['f = 1e-10 to 1e10 per decade 1', '2f'])[1]!.text).toBe('21 points, 2e-10 … 20000000000')
  })
  test('rounding goes by the exact value, not by its double', () => {
    // The double of both is 0.125.
    expect(reckon(['0.125 - 1e-20'], { digits: 2 })[0]!.text).toBe('0.12')
    expect(reckon(['0.125'], { digits: 2 })[0]!.text).toBe('0.13')
  })
})
