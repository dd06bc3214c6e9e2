import { isUnitPlace, unitCompletions, unitsFor, unitSign } from './unitChoices'

test.each([
  ['L = 50', ['mH', 'uH', 'H']],
  ['R_1 = 4.7 ', ['ohm', 'kohm', 'Mohm']],
  ['w = 314', ['rad/s', 'r/min', '°/s']],
  ['12', ['V', 'A', 'ohm', 'Hz', 's', 'W']],
  ['x = (3 + 4j)', ['V', 'A', 'ohm', 'Hz', 's', 'W']],
  ['12 V + 3', ['V', 'mV', 'kV']],
  ['3 mA + 2 ', ['mA', 'A', 'kA']],
  ['x', []],
  ['2*x', []],
  ['x2', []],
  ['5 # remark 3', []],
  ['sin(', []],
] as const)('behind %j these units are offered', (text, units) => expect(unitsFor(text)).toEqual(units))

test('a unit is completed behind a number and a blank, and nowhere else', () => {
  expect(['5 ', 'R = 4.7k ', '(3 + 4j) ', '3j '].map(isUnitPlace)).toEqual([true, true, true, true])
  expect(['5', 'x ', '', 'sin '].map(isUnitPlace)).toEqual([false, false, false, false])
  expect(unitCompletions.find((c) => c.label === 'kohm')).toMatchObject({ detail: 'kΩ kiloohm' })
  expect(unitSign('kohm')).toBe('kΩ')
})
