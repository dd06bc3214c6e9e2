import * as fc from 'fast-check'
import * as W from './whole'
import type { Whole } from './whole'

/** Polynomials with whole coefficients, exactly: identities at whole numbers, and what was put in comes out. */

const small = fc.bigInt({ min: -30n, max: 30n })
const any: fc.Arbitrary<Whole> = fc.array(small, { maxLength: 6 }).map(W.trimmed)
const nonzero = any.filter((p) => p.length > 0)
const proper = any.filter((p) => p.length > 1)

function at(p: Whole, x: bigint): bigint {
  let value = 0n
  for (const [k, c] of p.entries()) value += c * x ** BigInt(k)
  return value
}
const POINTS = [-7n, -1n, 0n, 1n, 2n, 11n]

test('sums, products and slopes are those of the values', () => {
  fc.assert(
    fc.property(any, any, (p, q) => {
      for (const x of POINTS) {
        expect(at(W.add(p, q), x)).toBe(at(p, x) + at(q, x))
        expect(at(W.subtract(p, q), x)).toBe(at(p, x) - at(q, x))
        expect(at(W.multiply(p, q), x)).toBe(at(p, x) * at(q, x))
        expect(at(W.mirrored(p), x)).toBe(at(p, -x))
      }
      // (p·q)′ = p′·q + p·q′
      const slope = W.add(W.multiply(W.derivative(p), q), W.multiply(p, W.derivative(q)))
      expect(W.derivative(W.multiply(p, q))).toEqual(slope)
    }),
  )
})

test('no leading zero is left, and nothing is of degree −1', () => {
  fc.assert(
    fc.property(any, any, (p, q) => {
      for (const r of [W.add(p, q), W.subtract(p, p), W.multiply(p, q)]) expect(r.at(-1)).not.toBe(0n)
    }),
  )
  expect(W.degreeOf([])).toBe(-1)
  expect(W.leading([])).toBe(0n)
})

test('division: scale·a = quotient·b + rest, the rest of lower degree', () => {
  fc.assert(
    fc.property(any, nonzero, (a, b) => {
      const { quotient, rest, scale } = W.division(a, b)
      expect(scale > 0n).toBe(true)
      expect(W.add(W.multiply(quotient, b), rest)).toEqual(W.times(a, scale))
      expect(W.degreeOf(rest)).toBeLessThan(Math.max(1, W.degreeOf(b)))
    }),
  )
})

test('each remainder of a chain is the negated one of the two before it, but for a positive number', () => {
  fc.assert(
    fc.property(proper, proper, (p, q) => {
      const [a, b] = p.length < q.length ? [q, p] : [p, q]
      const chain = W.remainders(a, b)
      expect(chain.slice(0, 2)).toEqual([a, b])
      chain.slice(2).forEach((found, k) => {
        const wanted = W.times(W.division(chain[k]!, chain[k + 1]!).rest, -1n)
        expect(W.multiply(found, [W.leading(wanted)])).toEqual(W.multiply(wanted, [W.leading(found)]))
        expect(W.leading(found) > 0n).toBe(W.leading(wanted) > 0n)
      })
      // Behind the last there is nothing more.
      const [x, y] = chain.slice(-2)
      expect(W.degreeOf(y!) === 0 || W.division(x!, y!).rest.length === 0).toBe(true)
    }),
  )
})

test('the numbers of a chain stay about as long as they must be', () => {
  // Squared and square-free beside each other, with numbers of forty digits.
  const big = fc.bigInt({ min: 10n ** 39n, max: 10n ** 40n })
  fc.assert(
    fc.property(fc.array(big, { minLength: 7, maxLength: 7 }), (p) => {
      const longest = Math.max(...W.remainders(p, W.derivative(p)).flatMap((q) => q.map((c) => c.toString().length)))
      // Determinants of up to eleven rows of them.
      expect(longest).toBeLessThan(11 * 42 + 12)
    }),
    { numRuns: 20 },
  )
})

test('the common divisor divides both, and holds every factor that was put into both', () => {
  fc.assert(
    fc.property(nonzero, nonzero, nonzero, (a, b, common) => {
      const found = W.commonDivisor(W.multiply(a, common), W.multiply(b, common))
      expect(W.leading(found) > 0n).toBe(true)
      for (const p of [a, b]) expect(W.division(W.multiply(p, common), found).rest).toEqual([])
      expect(W.division(found, common).rest).toEqual([])
    }),
  )
})

test('factors of each multiplicity: their product is the polynomial, and none has a multiple root', () => {
  fc.assert(
    fc.property(proper, proper, (p, q) => {
      const whole = W.multiply(p, W.multiply(q, q))
      const parts = W.squareFree(whole)
      let product: Whole = W.ONE
      for (const { factor, times } of parts) {
        for (let k = 0; k < times; k += 1) product = W.multiply(product, factor)
        expect(W.degreeOf(W.commonDivisor(factor, W.derivative(factor)))).toBe(0)
      }
      const same = W.primitive(whole)
      expect(product).toEqual(W.leading(same) < 0n ? W.times(same, -1n) : same)
      // No two of them share a root.
      for (const [k, { factor }] of parts.entries())
        for (const other of parts.slice(k + 1)) expect(W.degreeOf(W.commonDivisor(factor, other.factor))).toBe(0)
    }),
  )
})

test('the sign at a fraction is that of the value', () => {
  fc.assert(
    fc.property(any, fc.integer({ min: -500, max: 500 }), fc.nat(8), (p, n, shift) => {
      const x = n / 2 ** shift
      // These values are exact in doubles.
      const value = [...p].reverse().reduce((sum, c) => sum * x + Number(c), 0)
      expect(W.signAt(p, BigInt(n), shift)).toBe(Math.sign(value) + 0)
    }),
  )
})

test('fractions over the least number that makes them whole', () => {
  const list = [{ n: 1, d: 6 }, { n: -3, d: 4 }, { n: 5, d: 1 }] as const // prettier-ignore
  expect(W.overOne(list)).toEqual({ whole: [2n, -9n, 60n], denominator: 12n })
})
