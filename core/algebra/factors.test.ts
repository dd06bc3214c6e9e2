import * as fc from 'fast-check'
import * as C from '../numbers/complex'
import type { Complex } from '../numbers/complex'
import { integer, real } from '../values/make'
import type { NumberValue, Polynomial } from '../values/types'
import { cancelled, isMultiple, leastCommon } from './factors'
import * as P from './polynomial'

/**
 * Factors are taken away only where they stand on both sides. Whatever is taken away, the value at any point stays, which is
 * reckoned here by itself; coefficients come from a handful, so that factors often agree in some of what they are made of.
 */

const few: fc.Arbitrary<NumberValue> = fc.constantFrom(
  integer(1),
  integer(2),
  integer(-1),
  real(Math.SQRT2),
  real(-Math.SQRT2),
  real(2 * Math.SQRT2),
  real(Math.PI),
)

/** A few terms of powers that need not be neighbours. */
const sparse: fc.Arbitrary<Polynomial> = fc
  .uniqueArray(fc.tuple(fc.nat(3), few), { minLength: 1, maxLength: 3, selector: ([n]) => n })
  .map((terms) => made(terms))

function made(terms: readonly (readonly [number, NumberValue])[]): Polynomial {
  const ordered = [...terms].sort(([n], [m]) => m - n).map(([n, factor]) => ({ powers: [n], factor }))
  const constant = ordered.every(({ powers }) => powers[0] === 0)
  return constant
    ? { unknowns: [], terms: ordered.map(({ factor }) => ({ powers: [], factor })) }
    : { unknowns: ['s'], terms: ordered }
}

const sparseList = fc.array(sparse, { minLength: 1, maxLength: 3 })

const NOTHING: Complex = { re: 0, im: 0 }

function valueAt(p: Polynomial, s: Complex): Complex {
  return p.terms.reduce((sum, { powers, factor }) => {
    let so: Complex = { re: factor.re, im: factor.im }
    for (let k = 0; k < (powers[0] ?? 0); k += 1) so = C.multiply(so, s)
    return C.add(sum, so)
  }, NOTHING)
}
const productAt = (list: readonly Polynomial[], s: Complex): Complex =>
  list.reduce<Complex>((so, p) => C.multiply(so, valueAt(p, s)), { re: 1, im: 0 })

/** Away from the roots that such polynomials have. */
const POINTS: readonly Complex[] = [
  { re: 0.37, im: 1.9 },
  { re: -2.71, im: 0.43 },
  { re: 3.3, im: -0.9 },
]

function expectClose(a: Complex, b: Complex): void {
  const size = Math.max(C.abs(a), C.abs(b), 1e-12)
  expect(C.abs(C.subtract(a, b)) / size).toBeLessThan(1e-9)
}

const RUNS = { numRuns: 600 }

test('what is cancelled leaves the value', () => {
  fc.assert(
    fc.property(sparseList, sparseList, (top, bottom) => {
      const left = cancelled({ top, bottom })
      for (const s of POINTS) {
        const [a, b] = [C.multiply(productAt(top, s), productAt(left.bottom, s)), C.multiply(productAt(left.top, s), productAt(bottom, s))] // prettier-ignore
        expectClose(a, b)
      }
    }),
    RUNS,
  )
})

test('what stands on both sides goes, all of it', () => {
  fc.assert(
    fc.property(sparseList, sparseList, (own, shared) => {
      const common = shared.filter((p) => P.degree(p) > 0)
      const left = cancelled({ top: [...own, ...common], bottom: common })
      expect(left.bottom.every((p) => P.degree(p) === 0)).toBe(true)
    }),
    RUNS,
  )
})

test('a power of the unknown that stands on both sides goes, whatever it is multiplied out with', () => {
  fc.assert(
    fc.property(sparse, sparse, (p, q) => {
      const s = P.unknown('s')
      const [above, below] = [P.multiply(p, s), P.multiply(q, s)]
      if ('kind' in above || 'kind' in below) return
      const left = cancelled({ top: [above], bottom: [below] })
      const least = (list: readonly Polynomial[]): number =>
        list.reduce((sum, one) => sum + Math.min(...one.terms.map(({ powers }) => powers[0] ?? 0)), 0)
      expect(Math.min(least(left.top), least(left.bottom))).toBe(0)
    }),
    RUNS,
  )
})

test('a factor and a number times it are one below', () => {
  fc.assert(
    fc.property(sparse, few, (p, factor) => {
      const scaled = P.scale(p, factor)
      if ('kind' in scaled || P.degree(p) === 0 || !isMultiple(p, scaled)) return
      const { all } = leastCommon([p], [scaled])
      expect(all.reduce((sum, one) => sum + P.degree(one), 0)).toBe(P.degree(p))
    }),
    RUNS,
  )
})

test('the least common product is a multiple of both, and what each lacks is what is said', () => {
  fc.assert(
    fc.property(sparseList, sparseList, (a, b) => {
      const { all, ofA, ofB } = leastCommon(a, b)
      for (const s of POINTS) {
        expectClose(C.multiply(productAt(a, s), productAt(ofA, s)), productAt(all, s))
        expectClose(C.multiply(productAt(b, s), productAt(ofB, s)), productAt(all, s))
      }
    }),
    RUNS,
  )
})

test('one is called a multiple of another only where it is one number times it everywhere', () => {
  fc.assert(
    fc.property(sparse, sparse, (p, q) => {
      if (!isMultiple(p, q)) return
      const quotients = POINTS.map((s) => C.divide(valueAt(p, s), valueAt(q, s)))
      for (const one of quotients.slice(1)) expectClose(one, quotients[0]!)
    }),
    RUNS,
  )
})

test.each([1, 2, -3, 0.5, 1024])('%s times a polynomial is a multiple of it, both ways', (times) => {
  fc.assert(
    fc.property(sparse, (p) => {
      const scaled = P.scale(p, times === Math.round(times) ? integer(times) : real(times))
      if ('kind' in scaled) return
      // Powers of two are exact in doubles; of the others only exact coefficients are sure to be the same.
      if (!P.isExact(p) && Math.log2(Math.abs(times)) % 1 !== 0) return
      expect(isMultiple(p, scaled)).toBe(true)
      expect(isMultiple(scaled, p)).toBe(true)
    }),
    RUNS,
  )
})

test.each([
  [
    [
      [2, integer(2)],
      [0, real(Math.SQRT2)],
    ],
    [
      [1, integer(2)],
      [0, real(Math.SQRT2)],
    ],
  ],
  [
    [
      [3, real(Math.PI)],
      [1, integer(1)],
    ],
    [
      [3, real(Math.PI)],
      [2, integer(1)],
    ],
  ],
  [[[3, integer(1)]], [[2, integer(1)]]],
] as const)('the same coefficients before other powers are another polynomial (%#)', (p, q) => {
  const [a, b] = [made(p), made(q)]
  expect(isMultiple(a, b)).toBe(false)
  const left = cancelled({ top: [a], bottom: [b] })
  for (const at of POINTS)
    expectClose(C.multiply(productAt(left.top, at), valueAt(b, at)), C.multiply(productAt(left.bottom, at), valueAt(a, at))) // prettier-ignore
})
