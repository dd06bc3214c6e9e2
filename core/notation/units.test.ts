import { reckon } from '../testing'

/**
 * How lines with units are read, as tables: the line, what it comes to, or the code of its refusal with the first
 * correction. Values by hand from the definitions of the units (SI Brochure, 9th edition, tables 4, 7 and 8).
 */

const reading = (line: string, above: readonly string[] = []): string => {
  const { text, error, view } = reckon([...above, line]).at(-1)!
  if (!error) return view.kind === 'check' ? String(view.pass) : text
  const [fix] = error.fixes
  const mended = fix ? ` → ${line.slice(0, error.from)}${fix.replacement}${line.slice(error.to)}` : ''
  return `${error.code}${mended}`
}
const table = (rows: readonly (readonly [string, string])[], above: readonly string[] = []): void => {
  test.each(rows)('%s', (line, expected) => expect(reading(line, above)).toBe(expected))
}

describe('1: a numeral, a space, a unit; and what else can carry one', () => {
  table([
    ['12 V', '12 V'],
    ['4.7 kohm', '4.7 kΩ'],
    ['4.7 kΩ', '4.7 kΩ'],
    ['33 nF', '33 nF'],
    ['50 Hz', '50 Hz'],
    ['314 rad/s', '314 rad/s'],
    ['9.81 m/s^2', '9.81 m/s²'],
    ['(3 + 4j) ohm', '(3 + 4j) Ω'],
    ['[22, 16] N', '[22, 16] N'],
    ['[[1, 2], [3, 4]] ohm', '[[1, 2], [3, 4]] Ω'],
    ['sqrt(2) V', '1.4142 V'],
    ['√2 V', '1.4142 V'],
    ['|3 - 4j| A', '5 A'],
    ['230/_30 V', '(199.19 + 115j) V'],
    ['230 V/_30', '(199.19 + 115j) V'],
    ['230∠30° V', '(199.19 + 115j) V'],
    ['230∠0.5 rad V', '(201.84 + 110.27j) V'],
    ['j4 ohm', '(0 + 4j) Ω'],
    ['4j ohm', '(0 + 4j) Ω'],
    ['-12 V', '-12 V'],
    ['1e-3 A', '0.001 A'],
    ['.5 V', '0.5 V'],
    ['2pi rad/s', '6.2832 rad/s'],
    ['3 + 4j ohm', 'unit-missing → (3 + 4j) ohm'],
    ['3 - j4 ohm', 'unit-missing → (3 - j4) ohm'],
    ['90°/s', '90 °/s'],
    ['90 deg/s', '90 °/s'],
    ['3 V A', '3 V·A'],
    ['230/_30 V + 1 V', '(200.19 + 115j) V'],
  ])
})

describe('2: a unit, or a product with a name', () => {
  const above = ['V = 5', 'R = 2 ohm', 'unknown s']
  table(
    [
      ['10 V', '10 V'],
      ['10*V', '50'],
      ['2V', '10'],
      ['3 R', '6 Ω'],
      ['2 s', '2s'],
      ['2 s + 1', '2s + 1'],
      ['5 second', '5 s'],
      ['12A', 'unit-needs-space → 12 A'],
      ['10kohm', 'unit-needs-space → 10 kohm'],
      ['50mH', 'unit-needs-space → 50 mH'],
      ['40uF', 'unit-needs-space → 40 uF'],
      ['40µF', 'unit-needs-space → 40 µF'],
      ['22N', 'unit-needs-space → 22 N'],
      ['4johm', 'unit-needs-space → 4j ohm'],
      ['5m', '0.005'],
      ['33n', '3.3e-8'],
      ['4.7k', '4700'],
    ],
    above,
  )
  test('a parameter and a counter are products; a name of its own binds no unit', () => {
    expect(reading('f(2)', ['f(m) = 3 m'])).toBe('6')
    expect(reading('[2 m for m = 1 to 3]')).toBe('[2, 4, 6]')
    expect(reading('V = 12 V')).toBe('12 V')
    expect(reading('A*2', ['A = 3 A'])).toBe('6 A')
  })
  test('a unit that hides a kept name is hinted once for each name, with the product as its correction', () => {
    const lines = reckon(['V = 5', 'A = 2', '10 V', '3 V + 1 V', '4 A', '2 R'])
    const hints = lines.map(({ hints }) => hints.filter((h) => h.code === 'unit-hides-name').map((h) => h.fixes[0]?.replacement)) // prettier-ignore
    expect(hints).toEqual([[], [], ['10*V'], [], ['4*A'], []])
  })
})

describe('3: unit terms', () => {
  table([
    ['5 N*m', '5 N·m'],
    ['5 N m', '5 N·m'],
    ['5 N·m', '5 N·m'],
    ['9.81 m s⁻²', '9.81 m/s²'],
    ['9.81 m*s^-2', '9.81 m/s²'],
    ['385 J/(kg*K)', '385 J/(kg·K)'],
    ['2 mm^2', '2 mm²'],
    ['2 mm²', '2 mm²'],
    ['90 km/h', '90 km/h'],
    ['1500 r/min', '1500 r/min'],
    ['5 kW*h', '5 kW·h'],
    ['9.81 m/s/s', 'unit-brackets → 9.81 m/(s*s)'],
    ['5 J/kg*K', 'unit-brackets → 5 J/(kg*K)'],
    ['5 s⁻¹', '5 s⁻¹'],
  ])
  table(
    [
      ['10 V/s', 'unit-or-product → (10 V)/s'],
      ['2 m*g', 'unit-or-product → (2 m)*g'],
      ['3 V*m', '3 V·m'],
      ['2 N*m', '2 N·m'],
      ['2 V*x', '6 V'],
      ['2 V/(s + 1)', '(2/(s + 1)) V'],
    ],
    ['unknown s', 'g = 9.81', 'x = 3'],
  )
  test('what is customary stays a unit beside a kept letter', () => {
    expect(reading('3 N*m', ['m = 2 kg'])).toBe('3 N·m')
    expect(reading('9.81 m/s^2', ['s = 4', 'm = 3'])).toBe('9.81 m/s²')
    expect(reading('2 m*g', ['g = 4'])).toBe('unit-or-product → (2 m)*g')
  })
})

describe('4: a numeral with its unit is one operand', () => {
  table([
    ['10 V/2 A', '5 Ω'],
    ['10 V/2 A*3', '15 Ω'],
    ['5*10^3 V', '5 kV'],
    ['10^3 V', '1000 V'],
    ['10^-3 V', '0.001 V'],
    ['1/2 s', 'unit-bracketing → (1/2) s'],
    ['230/sqrt(3) V', 'unit-bracketing → (230/sqrt(3)) V'],
    ['1/(2 s)', '0.5 s⁻¹'],
    ['2 m^pi', 'unit-bracketing'],
    ['(2 m)^2', '4 m²'],
    ['2 m^2*3', '6 m²'],
    ['1 V/2 mA', '500 Ω'],
  ])
})

describe('5: named errors, with what is meant', () => {
  table([
    ['5 volts', 'unit-slip → 5 V'],
    ['3 KHZ', 'unit-slip → 3 kHz'],
    ['3 Amps', 'unit-slip → 3 A'],
    ['1500 rpm', 'unit-slip → 1500 r/min'],
    ['5 sec', 'unit-slip → 5 s'],
    ['3 dB', 'unit-slip'],
    ['5 L', 'unit-slip → 5 l'],
    ['5 v', 'unit-slip → 5 V'],
    ['20 °C', 'unit-celsius → 293.15 K'],
    ['230 V rms', 'unit-effective → 230 V'],
    ['5 A DC', 'unit-effective → 5 A'],
    ['4.7k ohm', '4.7 kΩ'],
    ['4k7 ohm', '4.7 kΩ'],
    ['33n F', '33 nF'],
    ['50 %', '50 %'],
    ['230 V*5 %', '11.5 V'],
    ['1 + 5 %', '1.05'],
    ['7 % 3', 'odd-character → 7 mod 3'],
  ])
})

describe('6: signs that look alike', () => {
  table([
    ['40 \u00b5F', '40 µF'],
    ['40 \u03bcF', '40 µF'],
    ['5 k\u2126', '5 kΩ'],
    ['5 k\u03a9', '5 kΩ'],
    ['300 \u212a', '300 K'],
    ['5\u00a0V', '5 V'],
    ['5\u2009V', '5 V'],
    ['5\u202fV', '5 V'],
    ['30º', '30°'],
    ['5 m\u00b2', '5 m²'],
  ])
  test('names are one in either spelling', () => expect(reading('\u03bc + 1', ['\u00b5 = 2'])).toBe('3'))
})

describe('7: in, ranges and checks', () => {
  const above = ['P = 3 kW', 'I = 1.9496 A', 'T = 5 N*m', 'R = 2 ohm', 'C = 3 F', 'f0 = 50 Hz', 'w0 = 314 rad/s']
  table(
    [
      ['P in W', '3000 W'],
      ['Q = 2*P in kW', '6 kW'],
      ['P in MW', '0.003 MW'],
      ['P in V', 'unit-asked'],
      ['T in J', '5 J'],
      ['1/(R*C) in Hz', 'unit-per-second'],
      ['1/(R*C) in rad/s', '0.16667 rad/s'],
      ['f0 in r/min', '3000 r/min'],
      ['w0 in r/min', 'unit-asked'],
      ['w0/(2pi) in r/min', '2998.5 r/min'],
      ['2pi*1500 r/min', '157.08 rad/s'],
      ['5/4 in %', '125 %'],
      ['10 to 100 kHz per decade 50', '51 points, 10 … 100 kHz'],
      ['10 Hz to 100 kHz per decade 1', '5 points, 10 … 100000 Hz'],
      ['0 to 10 ms step 2', '6 points, 0 … 10 ms'],
      ['0 to 1 s step 100 ms', '11 points, 0 … 1 s'],
      ['0 to 10 ms', '11 points, 0 … 10 ms'],
      ['10 V to 20 A', 'unit-range'],
      ['I ~~ 1.95 A', 'true'],
      ['I ~~ 1.94 A', 'false'],
      ['I ~~ 1950 mA', 'true'],
      ['I ~~ 1949 mA', 'false'],
      ['I ~~ 1.94 A within 0.01 A', 'true'],
      ['I ~~ 1.94 A within 10 mA', 'true'],
      ['I ~~ 1.94 A within 1%', 'true'],
      ['I ~~ 1.95', 'unit-missing'],
      ['I ~~ 2 V', 'units-differ'],
    ],
    above,
  )
})
