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
/** Whole parts on both sides of where plain arithmetic ends. */
const whole = fc
  .oneof(integer, fc.integer({ min: 2 ** 25 - 40, max: 2 ** 25 + 40 }), fc.maxSafeInteger())
  .map((n) => Q.rational(n)!)
const number = fc.oneof(fc.record({ re: fraction, im: fraction }), fc.record({ re: whole, im: whole }))
const real = fraction.map((re) => G.fromRational(re))
const any = fc.oneof(number, real)

type Big = readonly [re: bigint, im: bigint, d: bigint]

/** The same number over one denominator, in integers without limit. */
const big = ({ re, im }: G.Gaussian): Big => [
  BigInt(re.n) * BigInt(im.d),
  BigInt(im.n) * BigInt(re.d),
  BigInt(re.d) * BigInt(im.d),
]
const small = ([re, im, d]: Big): G.Gaussian => ({ re: Q.fromBig(re, d)!, im: Q.fromBig(im, d)! })

const of = (re: number, im: number): G.Gaussian => ({ re: Q.rational(re)!, im: Q.rational(im)! })

describe('the field of Gaussian rationals', () => {
  test('is reckoned as with integers without limit', () => {
    fc.assert(
      fc.property(any, any, (a, b) => {
        const [ar, ai, ad] = big(a)
        const [br, bi, bd] = big(b)
        expect(G.add(a, b)).toEqual(small([ar * bd + br * ad, ai * bd + bi * ad, ad * bd]))
        expect(G.subtract(a, b)).toEqual(small([ar * bd - br * ad, ai * bd - bi * ad, ad * bd]))
        expect(G.multiply(a, b)).toEqual(small([ar * br - ai * bi, ar * bi + ai * br, ad * bd]))
        const size = ad * (br * br + bi * bi)
        if (size !== 0n)
          expect(G.divide(a, b)).toEqual(small([(ar * br + ai * bi) * bd, (ai * br - ar * bi) * bd, size]))
      }),
      { numRuns: 1000 },
    )
  })
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
  expect(G.power(G.I, 2)).toEqual(of(-1, 0))
  expect(G.power(G.I, 4)).toEqual(G.ONE)
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
