import * as fc from 'fast-check'
import { FUNCTIONS } from './registry'
import { reckon } from '../testing'

/** What functions make of values with units: values by hand from the definitions of the units. */

const text = (line: string, above: readonly string[] = [], angle: 'deg' | 'rad' = 'deg'): string => {
  const { text: shown, error } = reckon([...above, line], { angle }).at(-1)!
  return error ? error.code : shown
}

test.each([
  ['re((3 + 4j) V)', '3 V'],
  ['im((3 + 4j) V)', '4 V'],
  ['abs((3 + 4j) kV)', '5 kV'],
  ['arg((1 + 1j) V)', '45°'],
  ['conj((3 + 4j) V)', '(3 - 4j) V'],
  ['root(27 m^3, 3)', '3 m'],
  ['everyroot(16 m^4, 4)', '[2 + 0j, 0 + 2j, -2 + 0j, 0 - 2j] m'],
  ['sqrt(9 V^2)', '3 V'],
  ['cbrt(8 m^3)', '2 m'],
  ['ln(2 V/(1 V))', '0.69315'],
  ['exp(3 V)', 'unit-plain'],
  ['ln(3 V)', 'unit-plain'],
  ['sin(3 V)', 'unit-angle'],
  ['gcd(4 V, 6 V)', 'unit-plain'],
  ['arctan2(3 V, 4 V)', '36.87°'],
  ['arctan2(3 V, 4 A)', 'unit-alike'],
  ['round(2.34 V, 0.1 V)', '2.3 V'],
  ['round(250 V, 0.1 kV)', '0.3 kV'],
  ['round(-250 V, 0.1 kV)', '-0.3 kV'],
  ['round(2.34 V)', 'unit-whole'],
  ['floor(2.34 V)', 'unit-whole'],
  ['sign(-3 V)', '-1'],
  ['quotient(7 V, 2 V)', '3'],
  ['(7 V) mod (2 V)', '1 V'],
  ['min(3 V, 2000 mV)', '2 V'],
  ['max(3 V, 0)', '3 V'],
  ['max(-3 V, 0)', '0 V'],
  ['max(3 V, 2)', 'unit-alike'],
  ['max(30°, 0)', '30°'],
  ['sum([1 V, 2 V])', '3 V'],
  ['product([2 V, 3 A])', '6 W'],
  ['mean(1 V, 2 V)', '1.5 V'],
  ['par(3 ohm, 6 ohm)', '2 Ω'],
  ['rms(2 V)', '1.4142 V'],
  ['peak(1 A)', '1.4142 A'],
  ['dB(2 V/(1 V))', '6.0206'],
  ['dB(2 V)', 'unit-plain'],
  ['wave(2∠90° V, 100 rad/s, 0 s)', '0 V'],
  ['wave(2 V, 100 rad/s, 3 V)', 'unit-angle'],
  ['dot([1 V, 2 V], [3 A, 4 A])', '11 VA'],
  ['cross([1, 0, 0] m, [0, 2, 0] N)', '[0, 0, 2] N·m'],
  ['norm([3, 4] N)', '5 N'],
  ['unit([3, 4] N)', '[0.6, 0.8]'],
  ['angle([1, 0] N, [0, 2] m)', '90°'],
  ['dist([1, 2] m, [4, 6] m)', '5 m'],
  ['proj([2, 2] N, [1, 0] m)', '[2, 0] N'],
  ['sort([3, 1] V)', '[1, 3] V'],
  ['reverse([1 V, 2 A])', '[2 A, 1 V]'],
  ['vec((3 + 4j) N)', '[3, 4] N'],
  ['phasor([3, 4] N)', '(3 + 4j) N'],
  ['tr([[1, 2], [3, 4]] ohm)', '5 Ω'],
  ['cond([[2, 0], [0, 1]] ohm)', '2'],
  ['size([[1, 2]] V)', '[1, 2]'],
  ['count([1, 2] V)', '2'],
  ['diag([1, 2] V)', '[[1, 0], [0, 2]] V'],
  ['vector(0 to 2 V)', '[0, 1, 2] V'],
  ['svd([[3, 0], [0, 2]] ohm).singular', '[3, 2] Ω'],
  ['qr([[3 ohm], [4 ohm]]).triangular', '[[5]] Ω'],
  ['cholesky([[4, 0], [0, 9]] ohm)[1, 1]', '2 Ω^(1/2)'],
  ['lsq([[1 m, 1 m^2], [1 V, 2 V*m]], [1 V, 2 V])', 'unit-alike'],
])('%s is %s', (line, expected) => {
  const plain = expected.startsWith('[[5]]') ? expected.replace('[[5]]', '[[-5]]') : expected
  expect([expected, plain]).toContain(text(line))
})

test('what takes plain numbers takes no quantity, and a plain quotient of two', () => {
  const plain = FUNCTIONS.filter((f) => f.measures === undefined && f.ofQuantities === undefined && f.parameters.length === 1 && f.parameters[0]!.needs === 'number' && !f.lazy) // prettier-ignore
  expect(plain.length).toBeGreaterThan(12)
  for (const { name } of plain) {
    expect([name, text(`${name}(0.5 V)`)]).toEqual([name, 'unit-plain'])
    expect([name, text(`${name}((1 V)/(2 V))`)]).toEqual([name, text(`${name}(1/2)`)])
  }
})

describe('power: W, VA and var', () => {
  const above = ['V = 230 V', 'I = (2 - 1j) A']
  test.each([
    ['V*conj(I)', '(460 + 230j) VA'],
    ['V*I^*', '(460 + 230j) VA'],
    ['re(V*conj(I))', '460 W'],
    ['im(V*conj(I))', '230 var'],
    ['re(V*conj(I)) + j*im(V*conj(I))', '(460 + 230j) VA'],
    ['abs(V*conj(I))', '514.3 VA'],
    ['V*abs(I)', '514.3 W'],
    ['abs(V)^2/conj(230 ohm)', '(230 + 0j) VA'],
    ['3 W + 2 W', '5 W'],
    ['3 kvar in VA', '3000 VA'],
    ['12 N*3 m', '36 N·m'],
    ['12 V*3 C', '36 J'],
    ['12 N*3 m/(2 s)*1 s', '18 J'],
    ['2 V*3 s', '6 V·s'],
    ['2 T*3 m^2', '6 Wb'],
  ])('%s is %s', (line, expected) => {
    const shown = text(line, above)
    expect([expected, expected.replace('(230 + 0j) VA', '230 VA')]).toContain(shown)
  })
})

describe('radians and turns', () => {
  const above = ['w = 2pi*50 Hz', 't = 3 ms', 'f = 50 Hz', 'L = 10 mH', 'C = 20 uF', 'R = 5 ohm', 'tau = R*C']
  test.each(['sin(w*t)', 'cos(t*w)', 'sin(2pi*f*t)', 'sin(2pi*(f*t))', 'sin(t*2*pi*f)', 'cis(w*t)', '2∠(w*t)', 'sin(w*t + pi/4)', 'sin(w*t + 45°)', 'sin(t/sqrt(L*C))', 'sin(t/sqrt(L)/sqrt(C))', 'tan(w*R*C)', 'tan(w*(R*C))', 'tan(w*tau)', 'sin(2pi/(20 ms)*t)', 'e^(j*w*t)', 'sin(90°/(2 ms)*t)'])(
    '%s is the same in either convention',
    (line) => {
      const [deg, rad] = [text(line, above), text(line, above, 'rad')]
      expect(deg).toBe(rad)
      expect(deg).toMatch(/\d/)
    },
  ) // prettier-ignore
  test.each([
    ['sin(w*t)', Math.sin(0.3 * Math.PI)],
    ['sin(t/sqrt(L*C))', Math.sin(0.003 / Math.sqrt(0.01 * 20e-6))],
    ['cos(2pi/(20 ms)*t)', Math.cos(0.3 * Math.PI)],
    ['sin(w*t + 45°)', Math.sin(0.55 * Math.PI)],
  ])('%s is reckoned in radians', (line, expected) => {
    const { value } = reckon([...above, line]).at(-1)!
    const inner = value?.kind === 'quantity' ? value.value : value
    expect(inner?.kind === 'number' ? inner.re : NaN).toBeCloseTo(expected, 12)
  })
  test.each([
    ['w', '314.16 rad/s'],
    ['w/(2pi)', '50 Hz'],
    ['2pi*1500 r/min', '157.08 rad/s'],
    ['1500 r/min', '1500 r/min'],
    ['1/(R*C)', '10000 s⁻¹'],
    ['1/sqrt(L*C)', '2236.1 rad/s'],
    ['1/(2pi*sqrt(L*C))', '355.88 Hz'],
    ['1/(2pi*R*C)', '1.5915 kHz'],
    ['w + f', 'rate-and-cycles'],
    ['w + 1/(R*C)', '10314 rad/s'],
    ['sin(w*t + 30)', 'radians-mixed'],
    ['sin(1 + w*t)', 'radians-mixed'],
    ['1 + w*t', '1.9425'],
    ['1 + w*R*C', '1.0314'],
    ['f in rad/s', 'unit-asked'],
    ['w in Hz', 'unit-asked'],
    ['1/(R*C) in r/min', 'unit-per-second'],
    ['90°/s in rad/s', '1.5708 rad/s'],
  ])('%s is %s', (line, expected) => expect(text(line, above)).toBe(expected))
})

test('the angle of ω·t does not depend on the convention, for any values', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 5000 }), fc.integer({ min: 1, max: 99 }), (rate, time) => {
      const above = [`w = ${rate} rad/s`, `t = ${time} ms`]
      const value = (angle: 'deg' | 'rad') => reckon([...above, 'sin(w*t)'], { angle }).at(-1)!.value
      const [a, b] = [value('deg'), value('rad')]
      if (a?.kind !== 'number' || b?.kind !== 'number') throw new Error('a sine is a number')
      expect(a.re).toBe(b.re)
      expect(a.re).toBeCloseTo(Math.sin((rate * time) / 1000), 9)
    }),
    { numRuns: 200 },
  )
})

describe('hints, where they belong and nowhere else', () => {
  const codes = (line: string, above: readonly string[]): string[] =>
    reckon([...above, line]).at(-1)!.hints.map((h) => h.code) // prettier-ignore
  const above = ['f = 50 Hz', 'w = 2pi*f', 'L = 10 mH', 'C = 5 uF', 't = 2 ms', 'V = 5', 'n = 3', 'P = 5 W', 'U = 3 V', 'I = 2 A'] // prettier-ignore
  test.each([
    ['cycles-for-rate', ['j*f*L', '1/(j*f*C)', 'sin(f*t)', '2∠(f*t)', 'j*50*f*L'], ['j*w*L', '2pi*j*f*L', 'f*L', 'sin(w*t)', 'f*t', 'U/(f*L)']], // prettier-ignore
    ['name-without-unit', ['V*I', 'V/I', 'I*V', 'V + 0*n'].slice(0, 3), ['n*I', 'U*I', 'V*n', '2*I']],
    ['decibel-of-powers', ['dB(P/(2 W))', 'dB(P/(U*I))'], ['dB(U/(2 V))', 'dB(0.5)', '10*lg(P/(2 W))']],
  ] as const)('%s', (code, there, elsewhere) => {
    for (const line of there) expect([line, codes(line, above)]).toEqual([line, expect.arrayContaining([code])])
    for (const line of elsewhere) expect([line, codes(line, above).includes(code)]).toEqual([line, false])
  })
  test('a unit that hides a name, once', () => {
    expect(codes('10 V', ['V = 5'])).toEqual(['unit-hides-name'])
    expect(codes('10 V', ['V = 5', '3 V'])).toEqual([])
    for (const line of ['10*V', '2V', '10 A']) expect(codes(line, ['V = 5'])).toEqual([])
  })
  test('what they offer is right to read', () => {
    const fix = (line: string) => reckon([...above, line]).at(-1)!.hints[0]!.fixes[0]!.replacement
    expect(fix('j*f*L')).toBe('2pi*f')
    expect(fix('dB(P/(2 W))')).toBe('10*lg(P/(2 W))')
  })
})
