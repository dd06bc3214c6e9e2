import * as fc from 'fast-check'
import * as G from './gaussian'
import * as Q from './rational'

const integer = fc.integer({ min: -10_000, max: 10_000 })
const fraction = fc
  .tuple(
    integer,
    integer.filter((d) => d !== 0),
  )
  .map(([n, d]) => Q.rational(n, d)!)
const number = fc.record({ re: fraction, im: fraction })
const real = fraction.map((re) => G.fromRational(re))
const any = fc.oneof(number, real)

const of = (re: number, im: number): G.Gaussian => ({ re: Q.rational(re)!, im: Q.rational(im)! })

describe('the field of Gaussian rationals', () => {
  test('sums and products undo differences and quotients', () => {
    fc.assert(
      fc.property(any, any, (a, b) => {
        expect(G.subtract(G.add(a, b)!, b)).toEqual(a)
        if (!G.isZero(b)) expect(G.divide(G.multiply(a, b)!, b)).toEqual(a)
      }),
    )
  })
  test('multiplication commutes, associates and distributes', () => {
    fc.assert(
      fc.property(any, any, any, (a, b, c) => {
        expect(G.multiply(a, b)).toEqual(G.multiply(b, a))
        expect(G.multiply(G.multiply(a, b)!, c)).toEqual(G.multiply(a, G.multiply(b, c)!))
        expect(G.multiply(a, G.add(b, c)!)).toEqual(G.add(G.multiply(a, b)!, G.multiply(a, c)!))
      }),
    )
  })
  test('z times its conjugate is its squared magnitude; magnitudes multiply', () => {
    fc.assert(
      fc.property(any, any, (a, b) => {
        expect(G.multiply(a, G.conjugate(a))).toEqual({ re: G.squaredMagnitude(a), im: Q.ZERO })
        const product = G.multiply(a, b)!
        expect(G.squaredMagnitude(product)).toEqual(Q.multiply(G.squaredMagnitude(a)!, G.squaredMagnitude(b)!))
      }),
    )
  })
  test('powers add their exponents', () => {
    fc.assert(
      fc.property(any, fc.integer({ min: -6, max: 6 }), fc.integer({ min: -6, max: 6 }), (a, m, n) => {
        fc.pre(!G.isZero(a))
        expect(G.multiply(G.power(a, m)!, G.power(a, n)!)).toEqual(G.power(a, m + n))
      }),
    )
  })
})

test('known powers of the unit and of 1 + j', () => {
  expect(G.power(G.UNIT, 2)).toEqual(of(-1, 0))
  expect(G.power(G.UNIT, 4)).toEqual(G.ONE)
  expect(G.power(of(1, 1), 8)).toEqual(of(16, 0))
  expect(G.power(of(2, 1), -1)).toEqual({ re: { n: 2, d: 5 }, im: { n: -1, d: 5 } })
})

test('what has no value, or is too large to keep exactly', () => {
  expect(G.divide(G.ONE, G.ZERO)).toBeNull()
  expect(G.divide(of(1, 1), G.ZERO)).toBeNull()
  expect(G.power(G.ZERO, -1)).toBeNull()
  expect(G.power(of(3, 1), 5000)).toBeNull()
  expect(G.power(of(1, 1), 0.5)).toBeNull()
})
