import * as fc from 'fast-check'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import * as A from './arithmetic'
import { complexNumber, exactNumber, exactReal, fromComponents, integer, ofSort, real, shownAs } from './make'
import type { NumberValue } from './types'
import type { Failure } from './failure'

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

describe('small fractions, reckoned by two numbers, against integers without limit', () => {
  /** n/d in lowest terms, d > 0. */
  const lowest = (n: bigint, d: bigint): readonly [bigint, bigint] => {
    let [a, b] = [n < 0n ? -n : n, d < 0n ? -d : d]
    while (b !== 0n) [a, b] = [b, a % b]
    const g = d < 0n ? -a : a
    return [n / g, d / g]
  }
  const of = (value: NumberValue | Failure): readonly [bigint, bigint] => {
    if (value.kind === 'failure' || !value.exact) throw new Error('an exact number')
    expect(value.exact.im.n).toBe(0)
    return [BigInt(value.exact.re.n), BigInt(value.exact.re.d)]
  }
  const part = fc.oneof(fc.integer({ min: -40, max: 40 }), fc.maxSafeInteger())
  const bottom = fc.oneof(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 2 ** 31 }))
  const small = fc.tuple(part, bottom)
  const make = ([n, d]: readonly [number, number]): NumberValue => {
    const value = A.divide(integer(n), integer(d))
    if (value.kind === 'failure') throw new Error('a quotient')
    return value
  }

  test('sums, products and quotients', () => {
    fc.assert(
      fc.property(small, small, (a, b) => {
        const [n, d] = [BigInt(a[0]), BigInt(a[1])]
        const [p, q] = [BigInt(b[0]), BigInt(b[1])]
        const [x, y] = [make(a), make(b)]
        expect(of(x)).toEqual(lowest(n, d))
        expect(of(A.add(x, y))).toEqual(lowest(n * q + p * d, d * q))
        expect(of(A.subtract(x, y))).toEqual(lowest(n * q - p * d, d * q))
        expect(of(A.multiply(x, y))).toEqual(lowest(n * p, d * q))
        if (p !== 0n) expect(of(A.divide(x, y))).toEqual(lowest(n * q, d * p))
        expect(of(A.negate(x))).toEqual(lowest(-n, d))
      }),
      { numRuns: 3000 },
    )
  })

  test('powers, roots of squares, magnitudes', () => {
    fc.assert(
      fc.property(small, fc.integer({ min: -9, max: 70 }), (a, exponent) => {
        const x = make(a)
        const [n, d] = of(x)
        const size = BigInt(Math.abs(exponent))
        const power = exponent >= 0 ? [n ** size, d ** size] : [d ** size, n ** size]
        if (n !== 0n || exponent > 0)
          expect(of(A.power(x, integer(exponent)))).toEqual(lowest(power[0] ?? 0n, power[1] ?? 1n))
        expect(of(A.magnitude(x))).toEqual([n < 0n ? -n : n, d])
        const square = A.multiply(x, x)
        if (square.kind === 'failure') throw new Error('a square')
        expect(of(A.squareRoot(square))).toEqual([n < 0n ? -n : n, d])
      }),
      { numRuns: 1500 },
    )
  })

  test('the value is the nearest double, and never −0', () => {
    fc.assert(
      fc.property(small, small, fc.constantFrom('+', '-', '*', '/'), (a, b, sign) => {
        const value = RULES[sign](make(a), make(b))
        if (value.kind === 'failure' || !value.exact) return
        expect(value.re).toBe(Q.toNumber(value.exact.re))
        expect(Object.is(value.re, -0)).toBe(false)
        if (value.bottom > 1) expect([value.top, value.bottom]).toEqual([value.exact.re.n, value.exact.re.d])
      }),
      { numRuns: 2000 },
    )
  })
})

test('roots and magnitudes of whole numbers are exact where they are rational', () => {
  expect(A.squareRoot(integer(-9))).toMatchObject({ re: 0, im: 3, complex: true })
  expect(A.squareRoot(integer(2)).kind === 'number' && A.squareRoot(integer(2))).toMatchObject({ exact: null })
  expect(A.magnitude(exactNumber(G.gaussian(Q.whole(-3), Q.whole(4)), true))).toMatchObject({ re: 5, complex: false })
  // Beyond what fits in a double the squares go the long way, and are exact all the same.
  const far = 2 ** 40
  const long = exactNumber(G.gaussian(Q.whole(3 * far), Q.whole(-4 * far)), true)
  expect(A.magnitude(long)).toMatchObject({ exact: { re: { n: 5 * far, d: 1 } } })
  expect(A.squareRoot(exactReal({ n: 2n ** 90n, d: 9 }))).toMatchObject({ exact: { re: { n: 2 ** 45, d: 3 } } })
})

test('the parts of a point are exact where both of its components are', () => {
  expect(fromComponents(exactReal({ n: 1, d: 3 }), integer(2)).exact).toMatchObject({
    re: { n: 1, d: 3 },
    im: { n: 2 },
  })
  expect(fromComponents(real(1.5), integer(2))).toMatchObject({ re: 1.5, im: 2, exact: null, complex: true })
})

test('what leaves the range of doubles is too large; what has no value is undefined', () => {
  expect(A.multiply(real(1e200), real(1e200))).toMatchObject({ code: 'too-large' })
  expect(A.add(real(1.7e308), real(1.7e308))).toMatchObject({ code: 'too-large' })
  expect(A.divide(real(1e300), real(1e-300))).toMatchObject({ code: 'too-large' })
  expect(A.subtract(real(Infinity), real(Infinity))).toMatchObject({ kind: 'number', re: NaN })
  expect(A.multiply(real(0), real(Infinity))).toMatchObject({ kind: 'number', re: NaN })
  expect(A.add(real(Infinity), real(1))).toMatchObject({ re: Infinity })
})
