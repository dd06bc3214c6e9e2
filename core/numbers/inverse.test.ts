import * as C from './complex'

/** Values of mpmath (30 digits) for the doubles given: atan(y·j) = π/2 + atanh(1/y)·j for y above 1. */
test.each([
  [1.000001, 7.25432911930318],
  [1.5, 0.80471895621705],
  [-1.25, -1.09861228866811],
  [1.0000000000000002, 18.3684002848386],
  [1.9999, 0.549339479889771],
  [1e10, 1e-10],
  [1e300, 1e-300],
])('arctan(%d·j) on its cut', (y, im) => {
  const z = C.arctan({ re: 0, im: y })
  expect(z.re).toBe(Math.PI / 2)
  expect(Math.abs(z.im / im - 1)).toBeLessThan(4e-15)
})

test('artanh beside its pole', () => {
  // mpmath: atanh(1 + 1e−171·j) = 197.217599041270878…, 0.785398163397448…
  const z = C.artanh({ re: 1, im: 1e-171 })
  expect(z.re).toBeCloseTo(197.2175990412709, 12)
  expect(z.im).toBeCloseTo(Math.PI / 4, 14)
})

test('arcsin and arsinh of tiny numbers are those numbers', () => {
  for (const size of [1e-12, 1e-100, 1e-163, 1e-300])
    for (const z of [
      { re: 0, im: size },
      { re: size, im: size / 3 },
      { re: -size, im: size },
    ]) {
      for (const f of [C.arcsin, C.arsinh]) {
        const w = f(z)
        expect(Math.abs(w.re - z.re) + Math.abs(w.im - z.im)).toBeLessThanOrEqual(4e-16 * size)
      }
    }
})
