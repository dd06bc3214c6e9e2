import * as fc from 'fast-check'
import { reckon } from '../testing'
import { dimension, NONE } from './dimension'
import { isRadian, PER_SECOND, perSecond } from './marks'
import { measure, OF_PI, PLAIN, RADIAN, summed } from './measure'
import type { Measure } from './measure'

const ANY: readonly Measure[] = [
  PLAIN, RADIAN, OF_PI,
  measure(PER_SECOND), measure(PER_SECOND, { turn: 'rate' }), measure(PER_SECOND, { turn: 'cycles' }),
  measure(dimension({ s: 1 })), measure(dimension({ m: 1 })), measure(dimension({ kg: 1, m: 2, s: -3 }), { power: 'W' }),
  measure(dimension({ kg: 1, m: 2, s: -3, A: -1 }), { electric: true }), measure(dimension({ s: -2 }), { turn: 'rate' }),
] // prettier-ignore
const any = fc.constantFrom(...ANY)

describe('the laws of the marks', () => {
  test('a plain number is neutral, products go in either order, and one is the neutral power', () => {
    fc.assert(
      fc.property(any, any, (a, b) => {
        expect(a.times(b)).toBe(b.times(a))
        if (a.turn !== 'angle') expect(a.times(PLAIN)).toBe(a)
        if (a.turn !== 'angle') expect(a.over(PLAIN)).toBe(a)
        expect(a.to({ n: 1, d: 1 })).toBe(a)
        expect(summed(a, a)).toBe(a)
      }),
    )
  })

  test('what is kept is kept once, and is the same kind of rate', () => {
    fc.assert(
      fc.property(any, any, any, (a, b, c) => {
        const all = a.times(b).over(c)
        expect(all.kept.kept).toBe(all.kept)
        expect(all.kept.dimension).toBe(all.dimension)
        if (all.dimension === PER_SECOND && all.turn !== 'root') expect(perSecond(all.kept)).toBe(perSecond(all))
        if (all.dimension !== NONE) expect(all.kept.pi).toBe(0)
      }),
    )
  })

  test('radians under radians and turns under turns are plain numbers', () => {
    const [rate, cycles] = [measure(PER_SECOND, { turn: 'rate' }), measure(PER_SECOND, { turn: 'cycles' })]
    expect([rate.over(rate), cycles.over(cycles)]).toEqual([PLAIN, PLAIN])
    expect(isRadian(rate.times(measure(dimension({ s: 1 }))))).toBe(true)
  })
})

const ABOVE = [
  'f = 50 Hz', 'w = 2pi*f', 'f0 = 1 kHz', 'w0 = 2*pi*f0', 'n1 = 1500 r/min', 'n = 1440 r/min', 'R = 10 ohm', 'L = 10 mH',
  'C = 4.7 uF', 't = 3 ms', 'mu0 = 4*pi*1e-7 H/m', 'N = 100', 'A = 4 cm^2', 'l = 20 cm', 'rho = 0.0178 mm^2*1 ohm/m',
  'r = 0.5 mm', 'tau = R*C', 'Q = w0*L/R', 'slip = (n1 - n)/n1', 'T = 2pi/w', 'k = 6.28', 'kpi = 2pi',
  'Lm = mu0*N^2*A/l', 'Rm = rho*l/(pi*r^2)',
] // prettier-ignore
const last = (line: string) => reckon([...ABOVE, line]).at(-1)!

describe('hertz and radians a second, worked by hand', () => {
  test.each([
    // A ratio of rates is a plain number, and a number that radians went into leaves hertz.
    ['slip*f', '2 Hz'], ['w/w0*f', '2.5 Hz'], ['f0/Q in Hz', '159.15 Hz'], ['Q*f', '314.16 Hz'],
    ['f0 - f0/(2*Q)', '920.42 Hz'], ['w0/Q', '1000 rad/s'], ['(1 + w*t)*f', '97.124 Hz'],
    // π in a kept value with a unit is part of its number.
    ['f*Lm', '1.2566 mΩ'], ['Lm', '25.133 µH'], ['f*mu0*l', '12.566 µΩ'], ['Rm*f/R', '22.664 mHz'],
    ['w0/Rm*R', '13861804 rad/s'],
    // Written in the line, or kept as a number, it turns the one into the other.
    ['kpi*f', '314.16 rad/s'], ['w/kpi', '50 Hz'], ['1/(2pi*R*C)', '3.3863 kHz'], ['1/(2pi*sqrt(L*C))', '734.13 Hz'],
    ['360°*f', '314.16 rad/s'], ['2pi*1500 r/min', '157.08 rad/s'], ['w*t/(2pi)*f', '7.5 Hz'],
    // No number is guessed for π.
    ['3.14*f', '157 Hz'], ['k*f', '314 Hz'], ['2*3.14*f', '314 Hz'], ['w/6.28', '50.025 rad/s'],
    // Angles stay angles however they were come by.
    ['sin(w*T/4)', '1'], ['sin(2pi*f*t)', '0.80902'], ['sin(2pi*t/T)', '0.80902'], ['cos(w0*t)', '1'],
  ])('%s is %s', (line, expected) => expect(last(line).text).toBe(expected)) // prettier-ignore

  test.each([
    ['1/(1 kohm*1 uF) ~~ 1000 Hz', 'per-second-and-cycles'],
    ['1/tau == f', 'per-second-and-cycles'],
    ['1/tau + 0 Hz', 'per-second-and-cycles'],
    ['f - 1/tau', 'per-second-and-cycles'],
    ['max(1/tau, f)', 'unit-alike'],
    ['w + f', 'rate-and-cycles'],
  ])('%s is refused: %s', (line, code) => expect(last(line).view.problem?.code).toBe(code))

  test.each([['1/tau + w'], ['1/tau ~~ 21276.6 rad/s'], ['1/tau > 3 s^-1'], ['1/tau/(2pi) ~~ 3.3863 kHz']])(
    '%s goes',
    (line) => expect(last(line).view.problem).toBeNull(),
  )

  test.each([
    ['1/tau + f', ['1/tau/(2pi) + f', '1/tau*(1 Hz*s) + f']],
    ['f ~~ 1/R/C', ['f ~~ 1/R/C/(2pi)', 'f ~~ 1/R/C*(1 Hz*s)']],
    ['(1/tau + 1 s^-1) < f', ['(1/tau + 1 s^-1)/(2pi) < f', '(1/tau + 1 s^-1)*(1 Hz*s) < f']],
  ])('the fixes of %s lead to lines that go', (line, expected) => {
    const { problem } = last(line).view
    const fixed = problem!.fixes.map(({ replacement }) => line.slice(0, problem!.from) + replacement + line.slice(problem!.to)) // prettier-ignore
    expect(fixed).toEqual(expected)
    for (const text of fixed) expect(last(text).view.problem).toBeNull()
  })

  test.each([
    ['3.14*f', 'pi*f'], ['f*6.28', 'f*2pi'], ['2*3.1416*f', '2*pi*f'], ['w/6.2832', 'w/(2pi)'], ['k*f', null],
  ])('%s is told that it has no π in it, once', (line, fixed) => {
    const hints = last(line).hints.filter((hint) => hint.code === 'near-pi')
    expect(hints).toHaveLength(1)
    const [fix] = hints[0]!.fixes
    expect(fix ? line.slice(0, hints[0]!.from) + fix.replacement + line.slice(hints[0]!.to) : null).toBe(fixed)
  }) // prettier-ignore
  test.each([['3.14*R'], ['3.15*f'], ['pi*f'], ['2pi*f'], ['6.28*w'], ['3.14*t'], ['R/6.28']])('%s is not', (line) =>
    expect(last(line).hints.map(({ code }) => code)).not.toContain('near-pi'),
  )

  const cycles = (line: string): number => last(line).hints.filter(({ code }) => code === 'cycles-for-rate').length
  test.each([
    'j*f*L', 'L*j*f', 'j*(f*L)', '1/(j*f*C)', 'j*f*Lm', 'j*f*(2 V*s)/(1 A)', 'R + j*f*L', '1/(1 + j*f*R*C)', '1 + j*f*tau',
    'j*f*L/R', 'R||j*f*L', 'e^(j*f*t)', 'j*f*(0.5 V*s/(2 A))',
  ])('%s: cycles stand where radians belong', (line) => expect(cycles(line)).toBe(1)) // prettier-ignore
  test.each([
    'j*2pi*f*L', 'j*f*L*2pi', 'j*f*t*2*pi', '2*j*f*C*pi', '1/(j*2pi*f*C)', 'j*w*L', 'j*f/f0', '1/(1 + j*f/f0)', 'f*L',
    '1/(f*C)', 'j*f', 'e^(2pi*j*f*t)', 'e^(j*f*t*2pi)', '1 + j*Q*(f/f0 - f0/f)', 'j*slip*R',
  ])('%s: nothing is said of it', (line) => expect(cycles(line)).toBe(0)) // prettier-ignore
})

describe('torque and energy, active and reactive power', () => {
  const above = [
    'P = 5.5 kW', 'n = 1440 r/min', 'w = 2pi*n', 'J1 = 0.2 kg*m^2', 'M = 36 N*m', 'phi = 30°', 'Q = 3 kvar', 'U = 230 V',
    'C = 100 uF', 'L = 10 mH', 'I = 4 A', 't = 3 s', 'alpha = w/t', 'Z = (3 + 4j) ohm',
  ] // prettier-ignore
  const here = (line: string) => reckon([...above, line]).at(-1)!
  test.each([
    ['P/w', '36.473 N·m'], ['J1*w^2/2', '2.274 kJ'], ['1/2*J1*w^2', '2.274 kJ'], ['J1*w*w', '4.5479 kJ'],
    ['C*U^2/2', '2.645 J'], ['L*I^2/2', '80 mJ'], ['P*t', '16.5 kJ'], ['M*w', '5.4287 kW'], ['M*w*t', '16.286 kJ'],
    ['M*phi', '18.85 J'], ['J1*alpha', '10.053 N·m'], ['(P/w)*phi', '19.097 J'], ['20 N*3 m', '60 N·m'], ['P/n', '229.17 J'],
    ['M*w/w', '36 N·m'], ['J1*w/t', '10.053 N·m'],
    ['im(abs(I)^2*Z)', '64 var'], ['re(abs(I)^2*Z)', '48 W'], ['P*tan(phi)', '3.1754 kvar'], ['P*tan(phi) - Q', '175.43 var'],
    ['P + j*Q', '5.5 + 3j kVA'],
  ])('%s is %s', (line, expected) => expect(here(line).text.replace(/[()]/g, '')).toBe(expected)) // prettier-ignore

  test.each([
    ['P/n', 'power-by-cycles', 'P/(2pi*n)'], ['5.5 kW/(1440 r/min)', 'power-by-cycles', '5.5 kW/(2pi*1440 r/min)'],
    ['P + Q', 'watts-and-vars', null], ['P*0.5 - Q', 'watts-and-vars', null],
  ])('%s is hinted: %s', (line, code, fixed) => {
    const hint = here(line).hints.find((one) => one.code === code)
    const [fix] = hint?.fixes ?? []
    expect(hint && (fix ? line.slice(0, hint.from) + fix.replacement + line.slice(hint.to) : null)).toBe(fixed)
  }) // prettier-ignore
  test.each(['P/w', 'P/(2pi*n)', 'P/t', 'P + j*Q', 'P*tan(phi) - Q', 'sqrt(P^2 + Q^2)', 'P + Q in var', 'P + 2 W'])(
    'nothing is said of %s',
    (line) => expect(here(line).hints.map(({ code }) => code)).toEqual([]),
  )
})
