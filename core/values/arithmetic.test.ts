import * as fc from 'fast-check'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import * as A from './arithmetic'
import { complexNumber, exactNumber, exactReal, integer, ofSort, real, shownAs } from './make'
import type { Failure, NumberValue } from './value'

/** Whole numbers, fractions, Gaussian numbers and doubles, of both sorts. */
const whole = fc.oneof(fc.integer({ min: -1200, max: 1200 }), fc.maxSafeInteger())
const plain = whole.map((n) => integer(n))
const fraction = fc.tuple(whole, fc.integer({ min: 1, max: 999 })).map(([n, d]) => exactReal(Q.rational(n, d)!))
const gaussian = fc.tuple(fraction, fraction).map(([a, b]) => exactNumber(G.gaussian(a.exact!.re, b.exact!.re), true))
const double = fc.double({ min: -1e100, max: 1e100, noNaN: true })
const rounded = double.map(real)
const phasor = fc.tuple(double, double).map(([re, im]) => complexNumber({ re, im }))
const any = fc.oneof(
  plain,
  fraction,
  gaussian,
  rounded,
  phasor,
  plain.map((z) => ofSort(z, true)),
)

/** The exact way, for which whole numbers have a short cut. */
function general(a: NumberValue, b: NumberValue, sign: '+' | '-' | '*' | '/'): G.Gaussian | null {
  if (!a.exact || !b.exact) return null
  const rules = { '+': G.add, '-': G.subtract, '*': G.multiply, '/': G.divide }
  return rules[sign](a.exact, b.exact)
}

const RULES = { '+': A.add, '-': A.subtract, '*': A.multiply, '/': A.divide } as const

test('whole numbers take a short cut to the same values', () => {
  fc.assert(
    fc.property(any, any, fc.constantFrom('+', '-', '*', '/'), (a, b, sign) => {
      const value = RULES[sign](a, b)
      if (sign === '/' && b.re === 0 && b.im === 0) return
      if (value.kind === 'failure') expect(value.code).toBe('too-large')
      else {
        const exact = general(a, b, sign)
        if (exact) expect(value.exact).toEqual(exact)
        expect(value.complex).toBe(a.complex || b.complex)
      }
    }),
    { numRuns: 3000 },
  )
})

test('a value and its exact parts never differ by more than their rounding', () => {
  fc.assert(
    fc.property(any, any, fc.constantFrom('+', '-', '*', '/'), (a, b, sign) => {
      const value: NumberValue | Failure = RULES[sign](a, b)
      if (value.kind === 'failure' || !value.exact) return
      expect(value.re).toBe(Q.toNumber(value.exact.re))
      expect(value.im).toBe(Q.toNumber(value.exact.im))
      expect(Object.is(value.re, -0) || Object.is(value.im, -0)).toBe(false)
    }),
    { numRuns: 2000 },
  )
})

test('a whole number is one of the plain sort that a double holds exactly', () => {
  expect(integer(2 ** 53 - 1).bottom).toBe(1)
  expect(exactReal({ n: 2n ** 53n, d: 1 }).bottom).toBe(0)
  expect(exactReal({ n: -1, d: 2 })).toMatchObject({ top: -1, bottom: 2 })
  expect(real(3).bottom).toBe(0)
  expect(ofSort(integer(3), true)).toMatchObject({ bottom: 1, complex: true })
  expect(shownAs(integer(3), 3.5, 0).bottom).toBe(0)
  // Beyond them integers go on exactly.
  expect(A.add(integer(2 ** 53 - 1), integer(1))).toMatchObject({ exact: { re: { n: 2n ** 53n, d: 1 } } })
  expect(A.multiply(integer(2 ** 40), integer(2 ** 40))).toMatchObject({ exact: { re: { n: 2n ** 80n, d: 1 } } })
})

test('what leaves the range of doubles is too large; what has no value is undefined', () => {
  expect(A.multiply(real(1e200), real(1e200))).toMatchObject({ code: 'too-large' })
  expect(A.add(real(1.7e308), real(1.7e308))).toMatchObject({ code: 'too-large' })
  expect(A.divide(real(1e300), real(1e-300))).toMatchObject({ code: 'too-large' })
  expect(A.subtract(real(Infinity), real(Infinity))).toMatchObject({ kind: 'number', re: NaN })
  expect(A.multiply(real(0), real(Infinity))).toMatchObject({ kind: 'number', re: NaN })
  expect(A.add(real(Infinity), real(1))).toMatchObject({ re: Infinity })
})
