import * as fc from 'fast-check'
import { reckon } from '../testing'
import { Measure } from '../units/measure'
import type { Value } from '../values/types'

/**
 * The classical test of dimensional homogeneity, with a checker of dimensions of its own that shares nothing with the
 * product: exponents of metre, kilogram, second and ampere as they stand in the SI Brochure, 9th edition, table 4.
 */

type Powers = readonly [m: number, kg: number, s: number, A: number]
const PLAIN: Powers = [0, 0, 0, 0]
const UNITS: Readonly<Record<string, { readonly of: Powers; readonly factor: number }>> = {
  m: { of: [1, 0, 0, 0], factor: 1 },
  kg: { of: [0, 1, 0, 0], factor: 1 },
  s: { of: [0, 0, 1, 0], factor: 1 },
  A: { of: [0, 0, 0, 1], factor: 1 },
  V: { of: [2, 1, -3, -1], factor: 1 },
  mV: { of: [2, 1, -3, -1], factor: 1e-3 },
  kohm: { of: [2, 1, -3, -2], factor: 1e3 },
  Ω: { of: [2, 1, -3, -2], factor: 1 },
  uF: { of: [-2, -1, 4, 2], factor: 1e-6 },
  mH: { of: [2, 1, -2, -2], factor: 1e-3 },
  W: { of: [2, 1, -3, 0], factor: 1 },
  Wh: { of: [2, 1, -2, 0], factor: 3600 },
  N: { of: [1, 1, -2, 0], factor: 1 },
  'm/s': { of: [1, 0, -1, 0], factor: 1 },
  'km/h': { of: [1, 0, -1, 0], factor: 1 / 3.6 },
  'N*m': { of: [2, 1, -2, 0], factor: 1 },
  'kg*m^2': { of: [2, 1, 0, 0], factor: 1 },
}
type UnitName = keyof typeof UNITS

/** A term as a tree, so that it can be written, reckoned and checked apart from the product. */
type Term =
  | { readonly is: 'leaf'; readonly size: number; readonly unit: UnitName | null; readonly imaginary: boolean }
  | { readonly is: '+' | '-' | '*' | '/' | '||' | 'max'; readonly a: Term; readonly b: Term }
  | { readonly is: 'abs' | 're' | 'conj' | 'sqrt' | 'square' | 'minus' | 'ln' | 'third'; readonly a: Term }

const leaf = fc.record({
  is: fc.constant('leaf' as const),
  size: fc.integer({ min: 1, max: 40 }),
  unit: fc.option(fc.constantFrom(...Object.keys(UNITS)), { freq: 6, nil: null }),
  imaginary: fc.boolean(),
})
const terms = fc.letrec<{ term: Term; join: Term; twice: Term; one: Term }>((tie) => ({
  term: fc.oneof({ maxDepth: 4, depthSize: 'small' }, leaf, tie('join'), tie('twice'), tie('one')),
  join: fc.record({
    is: fc.constantFrom('+' as const, '-' as const, '*' as const, '*' as const, '/' as const, '/' as const, '||' as const), // prettier-ignore
    a: tie('term'),
    b: tie('term'),
  }),
  // Sums of what surely fits, so that not nearly all of them are refused.
  twice: fc
    .tuple(fc.constantFrom('+' as const, '-' as const, '||' as const), tie('term'), fc.integer({ min: 2, max: 5 }))
    .map(([is, a, n]) => ({ is, a, b: { is: '*' as const, a: { is: 'leaf' as const, size: n, unit: null, imaginary: false }, b: a } })), // prettier-ignore
  one: fc.record({
    is: fc.constantFrom('abs' as const, 're' as const, 'conj' as const, 'sqrt' as const, 'square' as const, 'minus' as const, 'ln' as const, 'third' as const), // prettier-ignore
    a: tie('term'),
  }),
})).term

/** The dimension, or `null` where the term must be refused. */
function powersOf(term: Term): Powers | null {
  if (term.is === 'leaf') return term.unit === null ? PLAIN : UNITS[term.unit]!.of
  const a = powersOf(term.a)
  if (!a) return null
  const each = (change: (x: number, k: number) => number): Powers => a.map(change) as unknown as Powers
  switch (term.is) {
    case 'abs':
    case 're':
    case 'conj':
    case 'minus':
      return a
    case 'square':
      return each((x) => 2 * x)
    case 'sqrt':
      return each((x) => x / 2)
    case 'third':
      return each((x) => x / 3)
    case 'ln':
      return a.every((x) => x === 0) ? PLAIN : null
  }
  const b = powersOf(term.b)
  if (!b) return null
  switch (term.is) {
    case '*':
      return each((x, k) => x + b[k]!)
    case '/':
      return each((x, k) => x - b[k]!)
    default:
      return a.every((x, k) => Math.abs(x - b[k]!) < 1e-9) ? a : null
  }
}

/** The term as it is entered, with units, or with the plain numbers in coherent units, each times what its unit is scaled by. */
function written(term: Term, style: 'units' | 'numbers', scale: (of: Powers) => number = () => 1): string {
  if (term.is === 'leaf') {
    const letter = term.imaginary ? 'j' : ''
    const { of, factor } = term.unit === null ? { of: PLAIN, factor: 1 } : UNITS[term.unit]!
    if (style === 'units')
      return term.unit === null ? `(${term.size}${letter})` : `(${term.size}${letter} ${term.unit})`
    return `(${term.size}${letter}*(${factor * scale(of)}))`
  }
  const a = written(term.a, style, scale)
  switch (term.is) {
    case 'abs':
    case 're':
    case 'conj':
    case 'sqrt':
    case 'ln':
      return `${term.is}(${a})`
    case 'square':
      return `(${a}^2)`
    case 'third':
      return `(${a}^(1/3))`
    case 'minus':
      return `(-${a})`
    default:
      return `(${a} ${term.is} ${written(term.b, style, scale)})`
  }
}

function numbers(value: Value | null): { re: number; im: number } | null {
  const inner = value?.kind === 'quantity' ? value.value : value
  return inner?.kind === 'number' ? { re: inner.re, im: inner.im } : null
}

function powersFound(value: Value): readonly number[] {
  if (value.kind !== 'quantity' || !(value.measure instanceof Measure)) return PLAIN
  const [kg, m, s, A] = value.measure.dimension.powers.map((p) => Number(p.n) / Number(p.d))
  return [m!, kg!, s!, A!]
}

const near = (x: number, y: number, size: number): boolean =>
  x === y || Math.abs(x - y) <= 1e-7 * size || (Number.isNaN(x) && Number.isNaN(y))

const last = (line: string) => reckon([line])[0]!

test('a term is refused exactly where its dimensions do not fit; elsewhere value and dimension are those of plain numbers', () => {
  let [drawn, fits, refused] = [0, 0, 0]
  fc.assert(
    fc.property(terms, (term) => {
      drawn += 1
      const powers = powersOf(term)
      const found = last(written(term, 'units'))
      const plain = last(written(term, 'numbers'))
      if (powers === null) {
        refused += 1
        // What has no value without units, either, may be refused for that.
        expect(found.error).not.toBeNull()
        return
      }
      if (plain.error !== null) return
      fits += 1
      expect([written(term, 'units'), found.error?.message]).toEqual([written(term, 'units'), undefined])
      const [x, y] = [numbers(found.value), numbers(plain.value)]
      const size = Math.hypot(y!.re, y!.im)
      expect([near(x!.re, y!.re, size), near(x!.im, y!.im, size)]).toEqual([true, true])
      powersFound(found.value!).forEach((p, k) => expect(p).toBeCloseTo(powers[k]!, 9))
    }),
    { numRuns: 4000 },
  )
  expect(fits).toBeGreaterThan(0.2 * drawn)
  expect(refused).toBeGreaterThan(0.05 * drawn)
})

test('other base units change no meaning: values scale by the powers of their dimensions', () => {
  fc.assert(
    fc.property(terms, fc.tuple(fc.constantFrom(2, 3, 5, 7), fc.constantFrom(2, 3, 5), fc.constantFrom(2, 3, 7), fc.constantFrom(2, 5)), (term, bases) => {
      const powers = powersOf(term)
      const found = last(written(term, 'units'))
      if (powers === null || found.error) return
      const scaleOf = (of: Powers): number => of.reduce((all, p, k) => all * bases[k]! ** p, 1)
      const scaled = numbers(last(written(term, 'numbers', scaleOf)).value)
      const value = numbers(found.value)
      if (!scaled || !value) return
      const factor = scaleOf(powers)
      const size = Math.hypot(scaled.re, scaled.im)
      if (!Number.isFinite(size)) return
      expect([near(value.re * factor, scaled.re, size), near(value.im * factor, scaled.im, size)]).toEqual([true, true])
    }),
    { numRuns: 1500 },
  )
}) // prettier-ignore
