import * as fc from 'fast-check'
import { real } from '../values/make'
import { nearFraction } from './nearFraction'
import * as Z from './wide'
import type { Wide } from './wide'

/** Numbers of many digits: against mpmath with 80 digits, and by their laws. */

/** A part as text with so many decimals, rounded towards zero. */
function decimals(x: bigint, exp: number, places: number): string {
  const scaled = (x < 0n ? -x : x) * 10n ** BigInt(places)
  const whole = exp >= 0 ? scaled << BigInt(exp) : scaled >> BigInt(-exp)
  const digits = whole.toString().padStart(places + 1, '0')
  return `${x < 0n ? '-' : ''}${digits.slice(0, -places)}.${digits.slice(-places)}`
}

// mpmath 1.3, mp.dps = 80: exp(mpc(re, im)); the first fifty digits or so.
const EXPONENTIALS = [
  [1, 0, '2.71828182845904523536028747135266249775724709369995', '0.00000000000000000000'],
  [0, 1, '0.54030230586813971740093660744297660373231042061792', '0.84147098480789650665250232163029899962256306079837'],
  [2, 3, '-7.31511009490110251748653615105078932186987944894463', '1.04274365623590441410150394046255219391833006044223'],
  [0.0009765625, -0.75, '0.73240375779487219308338341613409997887815866423884', '-0.68230474801143880162209232642737053505707770494848'],
  [-20.5, 100, '0.00000000107803040992983151437069857456465728883020', '-0.00000000063303445767312555570488575500923110223890'],
  [55.5, -12.25, '1205693310524752561909275.36760783982387708863615712', '394703316324274944711847.23083755998313973718473460'],
] as const // prettier-ignore

test.each(EXPONENTIALS)('e^(%d + %dj) to fifty digits', (re, im, first, second) => {
  const z = Z.exponential(Z.fromComplex({ re, im }))
  expect(decimals(z.re, z.exp, first.split('.')[1]!.length)).toBe(first)
  expect(decimals(z.im, z.exp, second.split('.')[1]!.length)).toBe(second)
})

test('far below the smallest double there is still a number, and far beyond that it is 0', () => {
  const far = Z.exponential(Z.fromNumber(-2000))
  expect(Z.isZero(far)).toBe(false)
  expect(Z.sizeOf(far)).toBeCloseTo(-2000 / Math.LN2, 0)
  expect(Z.toComplex(far)).toEqual({ re: 0, im: 0 })
  expect(Z.isZero(Z.exponential(Z.fromNumber(-1e7)))).toBe(true)
})

const number = fc.double({ min: -1e6, max: 1e6, noNaN: true })
const wide: fc.Arbitrary<Wide> = fc.tuple(number, number).map(([re, im]) => Z.fromComplex({ re, im }))
const nonzero = wide.filter((z) => Z.sizeOf(z) > -40)

/** How far two are from one another, in bits below the larger. */
const bitsApart = (a: Wide, b: Wide): number => {
  const off = Z.subtract(a, b)
  return Z.isZero(off) ? Infinity : Math.max(Z.sizeOf(a), Z.sizeOf(b)) - Z.sizeOf(off)
}

test('doubles come back as they were', () => {
  fc.assert(
    fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (x) => {
      expect(Z.toComplex(Z.fromNumber(x)).re).toBe(x + 0)
    }),
  )
  fc.assert(
    fc.property(number, number, (re, im) => {
      // Beside a part that is 10^60 times as large nothing is kept of the other.
      if (Math.min(Math.abs(re), Math.abs(im)) < 1e-50) return
      expect(Z.toComplex(Z.fromComplex({ re, im }))).toEqual({ re, im })
    }),
  )
})

test('a quotient times its divisor is what was divided', () => {
  fc.assert(
    fc.property(wide, nonzero, (a, b) => {
      expect(bitsApart(Z.multiply(Z.divide(a, b), b), a)).toBeGreaterThan(230)
    }),
  )
})

test('e^(a + b) = e^a·e^b', () => {
  const near = fc.tuple(fc.double({ min: -30, max: 30, noNaN: true }), fc.double({ min: -200, max: 200, noNaN: true }))
  fc.assert(
    fc.property(near, near, (p, q) => {
      const [a, b] = [Z.fromComplex({ re: p[0], im: p[1] }), Z.fromComplex({ re: q[0], im: q[1] })]
      expect(bitsApart(Z.exponential(Z.add(a, b)), Z.multiply(Z.exponential(a), Z.exponential(b)))).toBeGreaterThan(225)
    }),
    { numRuns: 60 },
  )
})

test('products go through sums; conjugates through both', () => {
  fc.assert(
    fc.property(wide, wide, wide, (a, b, c) => {
      const [left, right] = [Z.multiply(a, Z.add(b, c)), Z.add(Z.multiply(a, b), Z.multiply(a, c))]
      expect(Z.isZero(left) || bitsApart(left, right) > 150).toBe(true)
      const [p, q] = [Z.conjugate(Z.multiply(a, b)), Z.multiply(Z.conjugate(a), Z.conjugate(b))]
      expect(Z.isZero(p) || bitsApart(p, q) > 250).toBe(true)
    }),
  )
})

test('a polynomial about a point: its coefficients there are its derivatives by the factorials', () => {
  // p(1 + x) of p = x³ − 2x + 5 is 4 + x + 3x² + x³.
  const found = Z.shifted([5n, -2n, 0n, 1n], Z.ONE, 5).map((z) => Z.toComplex(z).re)
  expect(found).toEqual([4, 1, 3, 1, 0])
  expect(Z.toComplex(Z.valueAt([5n, -2n, 0n, 1n], Z.fromComplex({ re: 0, im: 2 })))).toEqual({ re: 5, im: -12 })
})

test('series: (1 + x)/(1 − x) is 1 + 2x + 2x² + …, and back', () => {
  const [top, bottom] = [[Z.ONE, Z.ONE], [Z.ONE, Z.negate(Z.ONE)]] // prettier-ignore
  const quotient = Z.overSeries(top, bottom, 6)
  expect(quotient.map((z) => Z.toComplex(z).re)).toEqual([1, 2, 2, 2, 2, 2])
  expect(Z.timesSeries(quotient, bottom, 6).map((z) => Z.toComplex(z).re)).toEqual([1, 1, 0, 0, 0, 0])
})

describe('the fraction that a number of many digits is', () => {
  test('is found where there is one', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1e6, max: 1e6 }), fc.integer({ min: 1, max: 1e6 }), (n, d) => {
        const found = nearFraction(Z.divide(Z.fromWhole(BigInt(n)), Z.fromWhole(BigInt(d))))
        expect(found && BigInt(found.n) * BigInt(d)).toBe(BigInt(n) * BigInt(found?.d ?? 0))
      }),
    )
  })
  test('what is only near one has none', () => {
    const third = Z.divide(Z.ONE, Z.fromWhole(3n))
    const off = Z.add(third, { re: 1n, im: 0n, exp: -120 })
    expect(nearFraction(off)).toBeNull()
    expect(nearFraction(Z.exponential(Z.ONE))).toBeNull()
    expect(nearFraction(Z.ZERO)).toMatchObject(real(0).exact?.re ?? { n: 0, d: 1 })
  })
})
