import * as fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import type { Conventions } from '../format/conventions'
import { readoutForms } from '../format/readout'
import { reckon } from '../testing'
import { Measure } from '../units/measure'
import { unitScales } from '../scene/unitScales'
import type { Value } from '../values/types'
import { copyText, readout, valueData, valueFields, valueText } from './kinds'

function value(...lines: string[]): Value {
  const last = reckon(lines).at(-1)
  if (!last?.value) throw new Error(`${lines.join('; ')}: ${last?.error?.message}`)
  return last.value
}

const UNITS = ['V', 'mV', 'kohm', 'Ω', 'uF', 'H', 'rad/s', 'Hz', 'm/s^2', 'N*m', 'kg', 'W', 'VA', 'var', 'km/h', 'kWh', 'J/(kg*K)', 's^-1', 'V^2', '%'] as const // prettier-ignore
const number = fc.tuple(fc.integer({ min: -9999, max: 9999 }), fc.integer({ min: -9, max: 9 })).map(([n, e]) => `${n}e${e}`) // prettier-ignore
const entries = fc.oneof(
  fc.tuple(number, fc.constantFrom(...UNITS)).map(([x, unit]) => `(${x})*(1 ${unit})`),
  fc.tuple(number, number, fc.constantFrom(...UNITS)).map(([x, y, unit]) => `(${x} + (${y})*j) ${unit}`),
  fc.tuple(number, number, fc.constantFrom(...UNITS)).map(([x, y, unit]) => `[${x}, ${y}] ${unit}`),
  fc.tuple(number, number, fc.constantFrom('V', 'A')).map(([x, y, unit]) => `[(${x})*(1 ${unit}), (${y})*(1 kg)]`),
)
const conventions: fc.Arbitrary<Conventions> = fc.record({
  angle: fc.constantFrom('deg' as const, 'rad' as const),
  letter: fc.constant('j' as const),
  place: fc.constantFrom('before' as const, 'after' as const),
  digits: fc.integer({ min: 3, max: 15 }),
  style: fc.constantFrom('plain' as const, 'scientific' as const, 'engineering' as const, 'prefix' as const),
  exact: fc.constantFrom('decimal' as const, 'fraction' as const),
  degrees: fc.constant('decimal' as const),
  spaced: fc.constant('unit' as const),
})

function numbers(of: Value | null): readonly number[] {
  const inner = of?.kind === 'quantity' ? of.value : of
  if (inner?.kind === 'number') return [inner.re, inner.im]
  return inner?.kind === 'vector' ? inner.items.flatMap((item) => numbers(item)) : [NaN]
}
const dimensionOf = (of: Value): string =>
  of.kind === 'quantity' && of.measure instanceof Measure ? of.measure.dimension.key : ''

test('what is shown and what is copied can be typed back, with its unit, to the digits on show', () => {
  fc.assert(
    fc.property(entries, conventions, (entry, how) => {
      const one = value(entry)
      const size = Math.max(...numbers(one).map(Math.abs))
      for (const text of [valueText(one, how), copyText(one, 'full', how)!]) {
        const [back] = reckon([text], how)
        expect([text, back!.error?.message]).toEqual([text, undefined])
        expect(dimensionOf(back!.value!)).toBe(dimensionOf(one))
        const off = text === copyText(one, 'full', how) ? 1e-12 : 10 ** (1 - how.digits)
        numbers(back!.value).forEach((x, k) => expect(Math.abs(x - numbers(one)[k]!)).toBeLessThanOrEqual(off * size))
      }
    }),
    { numRuns: 400 },
  )
})

test.each([
  ['0.5 V', '0.5 V'],
  ['0.05 V*1', '50 mV'],
  ['0.1 V*1', '0.1 V'],
  ['1000 V*1', '1 kV'],
  ['999.996 V*1', '1 kV'],
  ['999.994 V*1', '999.99 V'],
  ['12000 mV', '12000 mV'],
  ['2*12000 mV', '24 V'],
  ['5000 s*1', '5000 s'],
  ['0.002 s*1', '2 ms'],
  ['5000 kg*1', '5000 kg'],
  ['0.001 m^2*1', '0.001 m²'],
  ['1500 m/s*2', '3 km/s'],
  ['90 km/h*2', '180 km/h'],
  ['2*3 kWh', '6 kWh'],
  ['0.2e-12 F*1', '200 fF'],
  ['[0.001 V, 5 V]*1', '[0.001, 5] V'],
  ['[0.001 V, 0.002 V]*1', '[1, 2] mV'],
  ['5 ohm*0', '0 Ω'],
])('%s is shown as %s', (line, shown) => expect(valueText(value(line), DEFAULT_CONVENTIONS)).toBe(shown))

test('in sci and eng powers of ten stand instead of prefixes; with prefixes the unit has them', () => {
  const one = value('0.0047 A*1')
  const as = (style: Conventions['style']): string => valueText(one, { ...DEFAULT_CONVENTIONS, style })
  expect([as('plain'), as('scientific'), as('engineering'), as('prefix')]).toEqual(['4.7 mA', '4.7e-3 A', '4.7e-3 A', '4.7 mA']) // prettier-ignore
})

test('the headless contract has the unit beside numbers that are in it, several units in their shape', () => {
  const fields = (line: string) => valueFields(value(line), DEFAULT_CONVENTIONS)
  expect(fields('(3 + 4j) kohm')).toMatchObject({ kind: 'number', re: 3, im: 4, unit: 'kΩ', rectangular: '3 + 4j' })
  expect(fields('[1, 2] mA')).toMatchObject({ kind: 'vector', re: [1, 2], unit: 'mA' })
  expect(fields('[[1 ohm, 2], [3, 4 S*1 ohm*1 S]]'.replace('4 S*1 ohm*1 S', '6 S'))).toMatchObject({ units: [['Ω', ''], ['', 'S']] }) // prettier-ignore
  expect(fields('[1 V, 2 A]')).toMatchObject({ units: ['V', 'A'], re: [1, 2] })
  expect(fields('0 to 10 ms step 5')).toMatchObject({ kind: 'sweep', re: [0, 5, 10], unit: 'ms' })
  expect(fields('3')).not.toHaveProperty('unit')
  expect(fields('6 V/(2 V)')).not.toHaveProperty('unit')
})

test('readouts have the unit once for both forms; copies and tables have it, too', () => {
  const one = value('(3 + 4j) V')
  expect(readout(one, DEFAULT_CONVENTIONS)).toEqual({ shape: 'twin', rectangular: '(3 + 4j)', polar: '5 ∠ 53.13°', unit: 'V' }) // prettier-ignore
  expect(readoutForms(readout(one, DEFAULT_CONVENTIONS))).toEqual(['(3 + 4j) V', '5 ∠ 53.13° V'])
  expect(copyText(one, 'latex', DEFAULT_CONVENTIONS)).toBe('\\left( 3 + 4\\mathrm{j} \\right)\\,\\mathrm{V}')
  expect(copyText(value('[1, 2] V'), 'csv', DEFAULT_CONVENTIONS)).toBe('value / V\r\n1\r\n2')
  expect(copyText(value('f = 1 kHz to 2 kHz count 2', '3*f'), 'csv', DEFAULT_CONVENTIONS)).toBe('f / kHz,value / kHz\r\n1,3\r\n2,6') // prettier-ignore
  expect(valueData(value('f = 1 kHz to 2 kHz count 2', '3 V*f/(1 kHz)'), 'U')).toMatchObject({ columns: [{ name: 'f', unit: 'kHz' }, { name: 'U', unit: 'V' }] }) // prettier-ignore
})

describe('several units on one plane', () => {
  const volt = { key: 'v', text: 'V', factor: 1 }
  const ampere = { key: 'a', text: 'A', factor: 1 }
  test('the first counts; the longest of each other is shorter than its longest, by one share', () => {
    const found = unitScales([{ unit: volt, at: { re: 230, im: 0 } }, { unit: ampere, at: { re: 0, im: 2 } }, { unit: ampere, at: { re: 1, im: 0 } }], new Map()) // prettier-ignore
    expect(found.map(({ text }) => text)).toEqual(['V', 'A'])
    expect(found[0]!.scale).toBe(1)
    expect(found[1]!.scale * 2).toBeCloseTo(0.72 * 230, 9)
  })
  test('under the hand a scale stays; zeros and infinities leave it as it is', () => {
    const at = (re: number) => [
      { unit: volt, at: { re: 10, im: 0 } },
      { unit: ampere, at: { re, im: 0 } },
    ]
    expect(unitScales(at(3), new Map([['a', 7]]))[1]!.scale).toBe(7)
    expect(unitScales(at(0), new Map())[1]!.scale).toBe(1)
    expect(unitScales(at(Infinity), new Map())[1]!.scale).toBe(1)
    expect(unitScales([], new Map())).toEqual([])
  })
})
