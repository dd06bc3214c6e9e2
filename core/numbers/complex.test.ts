import * as fc from 'fast-check'
import * as C from './complex'
import { COMPLEX_VALUES } from './complex.expected'

type Elementary = (z: C.Complex) => C.Complex
const FUNCTIONS: Readonly<Record<string, Elementary>> = {
  exp: C.exp, log: C.log, sqrt: C.sqrt, sinh: C.sinh, cosh: C.cosh, tanh: C.tanh, sin: C.sin, cos: C.cos, tan: C.tan,
  arcsin: C.arcsin, arccos: C.arccos, arctan: C.arctan, arsinh: C.arsinh, arcosh: C.arcosh, artanh: C.artanh,
} // prettier-ignore

/** Relative distance of two complex numbers. */
function error(a: C.Complex, b: C.Complex): number {
  const size = C.abs(b)
  return size === 0 ? C.abs(a) : C.abs(C.subtract(a, b)) / size
}

describe('elementary functions against mpmath', () => {
  test.each(COMPLEX_VALUES)('%s(%d + %dj)', (name, re, im, fre, fim) => {
    const f = FUNCTIONS[name]!
    expect(error(f({ re, im }), { re: fre, im: fim })).toBeLessThan(2e-14)
  })
})

describe('branch cuts follow C99 Annex G on the side of +0', () => {
  // casin(±2+0i), cacos(±2+0i), catanh(±2+0i), cacosh(−2+0i), catan(0±2i), casinh(0±2i): C99 G.6 with +0.
  const lnPart = 1.3169578969248166
  const half = 0.5493061443340548
  const cases: [string, C.Complex, C.Complex][] = [
    ['arcsin', { re: 2, im: 0 }, { re: Math.PI / 2, im: lnPart }],
    ['arcsin', { re: -2, im: 0 }, { re: -Math.PI / 2, im: lnPart }],
    ['arccos', { re: 2, im: 0 }, { re: 0, im: -lnPart }],
    ['arccos', { re: -2, im: 0 }, { re: Math.PI, im: -lnPart }],
    ['artanh', { re: 2, im: 0 }, { re: half, im: Math.PI / 2 }],
    ['artanh', { re: -2, im: 0 }, { re: -half, im: Math.PI / 2 }],
    ['arcosh', { re: -2, im: 0 }, { re: lnPart, im: Math.PI }],
    ['arcosh', { re: 0.5, im: 0 }, { re: 0, im: Math.PI / 3 }],
    ['arctan', { re: 0, im: 2 }, { re: Math.PI / 2, im: half }],
    ['arctan', { re: 0, im: -2 }, { re: Math.PI / 2, im: -half }],
    ['arsinh', { re: 0, im: 2 }, { re: lnPart, im: Math.PI / 2 }],
    ['sqrt', { re: -4, im: 0 }, { re: 0, im: 2 }],
    ['log', { re: -1, im: 0 }, { re: 0, im: Math.PI }],
  ]
  test.each(cases)('%s(%o)', (name, z, expected) => {
    expect(error(FUNCTIONS[name]!(z), expected)).toBeLessThan(1e-14)
  })
  test('−0 is not told from +0', () => {
    expect(C.arg({ re: -1, im: -0 })).toBe(Math.PI)
    expect(C.sqrt({ re: -4, im: -0 })).toEqual({ re: 0, im: 2 })
  })
})

describe('no overflow or underflow in between', () => {
  test('magnitude of large and small numbers', () => {
    expect(C.abs({ re: 3e200, im: 4e200 })).toBeCloseTo(5e200, -186)
    expect(C.abs({ re: 3e-200, im: 4e-200 }) / 5e-200).toBeCloseTo(1, 14)
    expect(C.abs({ re: 3e-320, im: 0 })).toBe(3e-320)
  })
  test('quotients at the ends of the range (Baudin and Smith 2012, table 1)', () => {
    const at = (a: C.Complex, b: C.Complex, c: C.Complex): void => {
      expect(error(C.divide(a, b), c)).toBeLessThan(1e-14)
    }
    at({ re: 1, im: 1 }, { re: 1, im: 2 ** 1023 }, { re: 2 ** -1023, im: -(2 ** -1023) })
    at({ re: 1, im: 1 }, { re: 2 ** -1023, im: 2 ** -1023 }, { re: 2 ** 1023, im: 0 })
    at({ re: 2 ** 1023, im: 2 ** -1023 }, { re: 2 ** 677, im: 2 ** -677 }, { re: 2 ** 346, im: -(2 ** -1008) })
    at({ re: 2 ** 1023, im: 2 ** 1023 }, { re: 1, im: 1 }, { re: 2 ** 1023, im: 0 })
  })
  test('tanh far out is ±1', () => {
    expect(C.tanh({ re: 400, im: 1 }).re).toBe(1)
    expect(C.tanh({ re: -400, im: 1 }).re).toBe(-1)
    expect(Math.abs(C.tanh({ re: 400, im: 1 }).im)).toBeLessThan(1e-300)
  })
  test('exp of a number whose real part alone would overflow', () => {
    // e^710 · cos of the double nearest to π/2 − 1e-5, by mpmath at 40 digits.
    expect(C.exp({ re: 710, im: Math.PI / 2 - 1e-5 }).re / 2.233994766152792e303).toBeCloseTo(1, 10)
  })
})

describe('arithmetic as properties', () => {
  const part = fc.double({ min: -1e6, max: 1e6, noNaN: true })
  const number = fc.record({ re: part, im: part })
  test('a quotient times its divisor is the dividend', () => {
    fc.assert(
      fc.property(number, number, (a, b) => {
        fc.pre(C.abs(b) > 1e-6)
        expect(C.abs(C.subtract(C.multiply(C.divide(a, b), b), a))).toBeLessThanOrEqual(1e-14 * (C.abs(a) + 1e-300))
      }),
    )
  })
  test('a square root squared is the number, with real part not negative', () => {
    fc.assert(
      fc.property(number, (z) => {
        const root = C.sqrt(z)
        expect(root.re).toBeGreaterThanOrEqual(0)
        expect(C.abs(C.subtract(C.multiply(root, root), z))).toBeLessThanOrEqual(1e-14 * C.abs(z) + 1e-300)
      }),
    )
  })
  test('the functions undo their inverses', () => {
    const small = fc.record({
      re: fc.double({ min: -3, max: 3, noNaN: true }),
      im: fc.double({ min: -3, max: 3, noNaN: true }),
    })
    const pairs: [Elementary, Elementary][] = [
      [C.sin, C.arcsin],
      [C.cos, C.arccos],
      [C.sinh, C.arsinh],
      [C.cosh, C.arcosh],
      [C.exp, C.log],
    ]
    fc.assert(
      fc.property(small, (z) => {
        fc.pre(C.abs(z) > 1e-3)
        for (const [f, inverse] of pairs) expect(error(f(inverse(z)), z)).toBeLessThan(1e-12)
      }),
    )
  })
})

test('infinities', () => {
  expect(C.divide({ re: 1, im: 1 }, { re: Infinity, im: 0 })).toEqual({ re: 0, im: 0 })
  expect(C.divide({ re: 1, im: 0 }, { re: 0, im: 0 }).re).toBe(Infinity)
  expect(C.divide({ re: 0, im: 0 }, { re: 0, im: 0 }).re).toBeNaN()
  expect(C.multiply({ re: Infinity, im: 0 }, { re: 2, im: 0 })).toEqual({ re: Infinity, im: 0 })
})
