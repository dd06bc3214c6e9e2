import * as fc from 'fast-check'
import type { Complex } from '../numbers/complex'
import { reckon } from '../testing'
import { FUNCTIONS } from './registry'

/**
 * Relations that hold between functions whatever they are worked out by: both sides are lines, at random
 * complex numbers, and none of the right sides uses the function on the left.
 */

/** A number as it is typed. */
const typed = ({ re, im }: Complex): string => `(${re} + (${im})*j)`

function value(line: string, given: Readonly<Record<string, string>>): Complex {
  const result = reckon([...Object.entries(given).map(([name, text]) => `${name} = ${text}`), line]).at(-1)
  if (result?.value?.kind === 'angle') return { re: result.value.radians, im: 0 }
  if (result?.value?.kind !== 'number') throw new Error(`${line}: ${result?.error?.message ?? 'no number'}`)
  return result.value
}

function expectClose(a: Complex, b: Complex, tolerance: number): void {
  const size = Math.max(1, Math.hypot(a.re, a.im), Math.hypot(b.re, b.im))
  expect(Math.hypot(a.re - b.re, a.im - b.im)).toBeLessThanOrEqual(tolerance * size)
}

const part = fc.double({ min: -4, max: 4, noNaN: true }).map((x) => Math.round(x * 1e6) / 1e6)
const complex = fc.record({ re: part, im: part }).filter(({ re, im }) => Math.hypot(re, im) > 0.05)
const size = fc.double({ min: 0.05, max: 40, noNaN: true }).map((x) => Math.round(x * 1e6) / 1e6)

const COMPLEX: readonly (readonly [left: string, right: string])[] = [
  ['exp(z)*exp(w)', 'exp(z + w)'],
  ['exp(ln(z))', 'z'],
  ['exp(conj(z))', 'conj(exp(z))'],
  ['ln(z)', 'ln(abs(z)) + j*radians(arg(z))'],
  ['sqrt(z)^2', 'z'],
  ['root(z, 5)^5', 'z'],
  ['cbrt(abs(z))^3', 'abs(z)'],
  ['z^w', 'exp(w*ln(z))'],
  ['sin(z)', '(exp(j*z) - exp(-j*z))/(2j)'],
  ['cos(z)', '(exp(j*z) + exp(-j*z))/2'],
  ['sinh(z)', '(exp(z) - exp(-z))/2'],
  ['cosh(z)', '(exp(z) + exp(-z))/2'],
  ['sinh(z)/cosh(z)', 'tanh(z)'],
  ['sin(z + 2j)^2 + cos(z + 2j)^2', '1'],
  ['sin(arcsin(z + 1j))', 'z + 1j'],
  ['cos(arccos(z + 1j))', 'z + 1j'],
  ['sinh(arsinh(z + 1j))', 'z + 1j'],
  ['cosh(arcosh(z + 1j))', 'z + 1j'],
  ['abs(z*w)', 'abs(z)*abs(w)'],
  ['z*conj(z)', 'abs(z)^2'],
  ['re(z) + j*im(z)', 'z'],
  ['par(z, w)*(z + w)', 'z*w'],
  ['z || w', '1/(1/z + 1/w)'],
  ['abs(z)∠arg(z)', 'z'],
  ['10^lg(z)', 'z'],
  ['2^lb(z)', 'z'],
  ['log(z, 7)', 'ln(z)/ln(7)'],
  ['20*lg(abs(z))', 'dB(z)'],
]

/** Both sides of every pair agree, whatever the names in them are given. */
function agree(pairs: typeof COMPLEX, names: fc.Arbitrary<Readonly<Record<string, string>>>): void {
  test.each(pairs)('%s = %s', (left, right) => {
    fc.assert(
      fc.property(names, (given) => expectClose(value(left, given), value(right, given), 2e-11)),
      { numRuns: 40 },
    )
  })
}

describe('at random complex numbers', () => {
  const pair = fc
    .tuple(complex, complex)
    // On the imaginary axis a sum with 1j can be real: then an angle is asked for in degrees.
    .filter(([z]) => Math.abs(z.im) > 0.01 && Math.abs(z.im + 1) > 0.01 && Math.abs(z.im + 2) > 0.01)
    // Nearly opposite impedances are nearly open in parallel: no figure of that is sure.
    .filter(([z, w]) => Math.hypot(z.re + w.re, z.im + w.im) > 0.1)
  agree(
    COMPLEX,
    pair.map(([z, w]) => ({ z: typed(z), w: typed(w) })),
  )
})

const REAL: readonly (readonly [left: string, right: string])[] = [
  ['sin(2*t)', '2*sin(t)*cos(t)'],
  ['tan(t)*cos(t)', 'sin(t)'],
  ['cot(t)*sin(t)', 'cos(t)'],
  ['sec(t)*cos(t)', '1'],
  ['csc(t)*sin(t)', '1'],
  ['sin(t)^2 + cos(t)^2', '1'],
  ['tan(arctan(x))', 'x'],
  ['arctan2(x, 2)', 'arctan(x/2)'],
  ['artanh(x/41)', 'ln((1 + x/41)/(1 - x/41))/2'],
  ['arcosh(1 + x)', 'ln(1 + x + sqrt((1 + x)^2 - 1))'],
  ['floor(x) + (x mod 1)', 'x'],
  ['-ceil(-x)', 'floor(x)'],
  ['quotient(x, 3)*3 + (x mod 3)', 'x'],
  ['rms(peak(x))', 'x'],
  ['max(x, 3) + min(x, 3)', 'x + 3'],
]

describe('at random real numbers and angles', () => {
  const tenths = fc.integer({ min: 1, max: 1799 }).filter((n) => n % 900 !== 0)
  agree(
    REAL,
    fc.tuple(size, tenths).map(([x, n]) => ({ x: String(x), t: `${n / 10}°` })),
  )
})

describe('a function of one number gives the same alone and as an entry of a vector', () => {
  const single = FUNCTIONS.filter((f) => f.parameters.length === 1 && f.parameters[0]?.needs === 'number' && !f.repeats)
  test.each(single.map((f) => f.name))('%s', (name) => {
    for (const z of ['2', '0.25', '3/7', '1.5 + 0.5j', '2.5∠40°']) {
      const alone = reckon([`${name}(${z})`])[0]
      const among = reckon([`v = ${name}([1, ${z}])`, 'v[2]'])[1]
      if (alone?.value?.kind !== 'number' || among?.value?.kind !== 'number') continue
      expect(among.value).toMatchObject({ re: alone.value.re, im: alone.value.im })
    }
    expect(reckon([`${name}(0.25)`])[0]?.error ?? null).toBeNull()
  })
})
