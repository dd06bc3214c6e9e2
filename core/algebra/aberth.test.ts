import * as fc from 'fast-check'
import * as C from '../numbers/complex'
import type { Complex } from '../numbers/complex'
import { aberth } from './aberth'

const complex = (re: number, im = 0): Complex => ({ re, im })
const byPart = (a: Complex, b: Complex): number => a.re - b.re || a.im - b.im
const rootsOf = (list: readonly number[]): Complex[] =>
  aberth(list.map((c) => complex(c)))!
    .map((f) => f.z)
    .sort(byPart)

/** |p(z)| beside Σ|a|·|z|^k, in logarithms: how far each coefficient would have to be changed. */
function backward(list: readonly Complex[], z: Complex): number {
  const n = list.length - 1
  const log = Math.log2(C.abs(z))
  const terms = list.map((c, k) => ({
    c,
    log: C.abs(c) === 0 ? -Infinity : Math.log2(C.abs(c)) + (n - k) * log,
    power: n - k,
  }))
  const top = Math.max(...terms.map((t) => t.log))
  const turn = C.arg(z)
  let [re, im, sum] = [0, 0, 0]
  for (const { c, log: size, power } of terms) {
    const magnitude = 2 ** (size - top)
    const angle = C.arg(c) + power * turn
    re += magnitude * Math.cos(angle)
    im += magnitude * Math.sin(angle)
    sum += magnitude
  }
  return Math.hypot(re, im) / sum
}

test('Butterworth denominators at any frequency have the poles of the textbook', () => {
  // Poles w·e^(jπ(2k + n − 1)/2n): S. Butterworth, 1930.
  for (const order of [2, 3, 4, 5, 8])
    for (const w of [1, 2 * Math.PI * 100, 1e6, 1e12, 1e-9]) {
      const poles = Array.from({ length: order }, (_, k) => {
        const angle = (Math.PI * (2 * k + order + 1)) / (2 * order)
        return complex(w * Math.cos(angle), w * Math.sin(angle))
      }).sort(byPart)
      let list: Complex[] = [complex(1)]
      for (const p of poles) {
        const next = [...list, complex(0)]
        list.forEach((c, k) => (next[k + 1] = C.subtract(next[k + 1]!, C.multiply(p, c))))
        list = next
      }
      const found = rootsOf(list.map((c) => c.re))
      for (const pole of poles)
        expect(Math.min(...found.map((z) => C.abs(C.subtract(z, pole)))) / w).toBeLessThan(1e-12)
      expect(found.filter((z) => z.im === 0)).toHaveLength(order % 2)
    }
})

test('the denominator whose imaginary parts were lost', () => {
  // 50 digits of mpmath: −382682.4… ± 923878.6…j, −923867.6… ± 382709.9…j for these rounded coefficients.
  const found = rootsOf([1, 2.6131e6, 3.4142e12, 2.6131e18, 1e24])
  expect(found.every((z) => z.im !== 0)).toBe(true)
  expect(found[0]!.re).toBeCloseTo(-923864, -2)
  expect(Math.abs(found[0]!.im)).toBeCloseTo(382722, -2)
})

test('whatever the scale of unknown and coefficients, the coefficient-wise backward error is rounding', () => {
  let worst = 0
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(
          fc.integer({ min: -999, max: 999 }),
          fc.integer({ min: -999, max: 999 }),
          fc.integer({ min: -8, max: 8 }),
        ),
        { minLength: 2, maxLength: 14 },
      ),
      fc.integer({ min: -20, max: 20 }),
      fc.integer({ min: -30, max: 30 }),
      fc.boolean(),
      (parts, scale, all, realOnly) => {
        const list = parts.map(([re, im, decade], k) => {
          const size = 10 ** (decade + all + (parts.length - 1 - k) * -scale)
          return complex(re * size, realOnly ? 0 : im * size)
        })
        if (C.abs(list[0]!) === 0 || C.abs(list.at(-1)!) === 0) return
        const found = aberth(list)!
        expect(found).toHaveLength(list.length - 1)
        for (const { z } of found) worst = Math.max(worst, backward(list, z) / Number.EPSILON)
        if (!realOnly) return
        const up = found
          .filter((f) => f.z.im > 0)
          .map((f) => f.z)
          .sort(byPart)
        const down = found
          .filter((f) => f.z.im < 0)
          .map((f) => complex(f.z.re, -f.z.im))
          .sort(byPart)
        expect(down).toEqual(up)
      },
    ),
    { numRuns: 600 },
  )
  // The check itself rounds: angles of many turns cost it some digits.
  expect(worst).toBeLessThan(1e3)
})

test('roots far apart are all found', () => {
  // (x − 1e−100)(x − 1)(x − 1e100), to rounding.
  const found = rootsOf([1, -1e100, 1e100, -1])
  expect(found.map((z) => [Math.log10(z.re), z.im])).toEqual([
    [expect.closeTo(-100, 6), 0],
    [expect.closeTo(0, 6), 0],
    [expect.closeTo(100, 6), 0],
  ])
})

test('real roots of real coefficients are real, multiple ones as near as rounding lets them be', () => {
  expect(rootsOf([1, -6, 11, -6]).map((z) => z.im)).toEqual([0, 0, 0])
  const triple = rootsOf([1, -3, 3, -1])
  for (const z of triple) expect(C.abs(C.subtract(z, complex(1)))).toBeLessThan(5e-5)
})
