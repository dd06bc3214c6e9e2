import * as fc from 'fast-check'
import * as Q from './rational'

const integer = fc.integer({ min: -(10 ** 9), max: 10 ** 9 })
const fraction = fc
  .tuple(
    integer,
    integer.filter((d) => d !== 0),
  )
  .map(([n, d]) => Q.rational(n, d)!)
/** Parts far beyond doubles. */
const huge = fc
  .tuple(fc.bigInt({ min: -(10n ** 60n), max: 10n ** 60n }), fc.bigInt({ min: 1n, max: 10n ** 60n }))
  .map(([n, d]) => Q.fromBig(n, d)!)
const any = fc.oneof(fraction, huge)

describe('the field of rationals', () => {
  test('addition and multiplication undo subtraction and division', () => {
    fc.assert(
      fc.property(any, any, (a, b) => {
        expect(Q.subtract(Q.add(a, b)!, b)).toEqual(a)
        if (!Q.isZero(b)) expect(Q.divide(Q.multiply(a, b)!, b)).toEqual(a)
      }),
    )
  })
  test('powers are products, whatever their size', () => {
    fc.assert(
      fc.property(any, fc.integer({ min: 0, max: 20 }), (a, exponent) => {
        const product = Array.from({ length: exponent }, () => a).reduce<Q.Rational | null>(
          (total, factor) => total && Q.multiply(total, factor),
          Q.ONE,
        )
        expect(Q.power(a, exponent)).toEqual(product)
        if (!Q.isZero(a) && product) expect(Q.power(a, -exponent)).toEqual(Q.divide(Q.ONE, product))
      }),
    )
  })
  test('multiplication distributes over addition', () => {
    fc.assert(
      fc.property(any, any, any, (a, b, c) => {
        expect(Q.multiply(a, Q.add(b, c)!)).toEqual(Q.add(Q.multiply(a, b)!, Q.multiply(a, c)!))
      }),
    )
  })
  test('results are in lowest terms with a positive denominator, small parts as numbers', () => {
    fc.assert(
      fc.property(any, any, (a, b) => {
        const sum = Q.add(a, b)!
        expect(sum.d > 0).toBe(true)
        expect(typeof sum.d === 'number').toBe(BigInt(sum.d) <= BigInt(Number.MAX_SAFE_INTEGER))
        expect(Q.fromBig(BigInt(sum.n) * 6n, BigInt(sum.d) * 6n)).toEqual(sum)
      }),
    )
  })
})

test('decimals are exact', () => {
  expect(Q.add(Q.fromDecimal('0.1')!, Q.fromDecimal('0.2')!)).toEqual({ n: 3, d: 10 })
  expect(Q.fromDecimal('1.2e-3')).toEqual({ n: 3, d: 2500 })
  expect(Q.fromDecimal('.5')).toEqual({ n: 1, d: 2 })
  expect(Q.fromDecimal('1e400')!.n).toBe(10n ** 400n)
  expect(Q.fromDecimal('1e5000')).toBeNull()
  expect(Q.fromDecimal('abc')).toBeNull()
})

test('the nearest double, also where the parts are beyond doubles', () => {
  expect(Q.toNumber({ n: 1, d: 3 })).toBe(1 / 3)
  expect(Q.toNumber({ n: 10n ** 400n, d: 3n * 10n ** 399n })).toBe(10 / 3)
  expect(Q.toNumber({ n: -(10n ** 400n), d: 1 })).toBe(-Infinity)
  // 2^53 + 1 lies between two doubles: ties go to even.
  expect(Q.toNumber({ n: 2n ** 53n + 1n, d: 1 })).toBe(2 ** 53)
  expect(Q.toNumber({ n: 2n ** 53n + 3n, d: 1 })).toBe(2 ** 53 + 4)
})

test('floor and modulo follow floored division', () => {
  expect(Q.floor(Q.rational(-7, 3)!)).toEqual({ n: -3, d: 1 })
  expect(Q.modulo(Q.rational(-7)!, Q.rational(3)!)).toEqual({ n: 2, d: 1 })
  expect(Q.modulo(Q.rational(7)!, Q.rational(-3)!)).toEqual({ n: -2, d: 1 })
})

test('powers, and the end of exactness', () => {
  expect(Q.power(Q.rational(2, 3)!, -3)).toEqual({ n: 27, d: 8 })
  expect(Q.power(Q.ZERO, -1)).toBeNull()
  expect(Q.power(Q.rational(3)!, 10_000)).toBeNull()
  expect(Q.power(Q.rational(10)!, 300)!.n).toBe(10n ** 300n)
})

test('order', () => {
  fc.assert(
    fc.property(any, any, (a, b) => {
      expect(Q.compare(a, b)).toBe(-Q.compare(b, a) + 0)
      expect(Q.compare(a, b)).toBe(Q.sign(Q.subtract(a, b)!))
    }),
  )
})

test('what division by zero gives', () => {
  expect(Q.rational(1, 0)).toBeNull()
  expect(Q.divide(Q.ONE, Q.ZERO)).toBeNull()
})
