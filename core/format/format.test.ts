import * as fc from 'fast-check'
import { reckon } from '../testing'
import { DEFAULT_CONVENTIONS } from './conventions'
import type { Conventions } from './conventions'
import { formatReal } from '../numbers/decimal'

const show = (entry: string, conventions: Partial<Conventions> = {}): string => {
  const { readout } = reckon([entry], conventions)[0]!.view
  return readout.shape === 'twin' ? `${readout.rectangular} | ${readout.polar}` : 'text' in readout ? readout.text : ''
}

describe('real numbers', () => {
  test.each([
    [1 / 3, 5, '0.33333'],
    [2 / 3, 2, '0.67'],
    [12345678, 5, '12345678'],
    [0.00012345678, 4, '0.0001235'],
    [1.5e-7, 5, '1.5e-7'],
    [1e15, 5, '1e15'],
    [-0.5, 5, '-0.5'],
    [-1e-300, 3, '-1e-300'],
    [999999.5, 3, '1000000'],
    [0.99999999, 5, '1'],
    [100, 2, '100'],
  ])('%d in %d digits, plain: %s', (x, digits, text) => expect(formatReal(x, { digits, style: 'plain' })).toBe(text))
  test.each([
    [14860, 'scientific', '1.486e4'],
    [14860, 'engineering', '14.86e3'],
    [0.000033, 'engineering', '33e-6'],
    [0.00047, 'engineering', '470e-6'],
    [999.999, 'engineering', '999.999'],
    [5, 'scientific', '5'],
    [0.12, 'scientific', '1.2e-1'],
  ] as const)('%d, %s: %s', (x, style, text) => expect(formatReal(x, { digits: 6, style })).toBe(text))
  test('every text reads back to the value within its digits', () => {
    const styles = ['plain', 'scientific', 'engineering'] as const
    const number = fc.double({ min: 1e-200, max: 1e200, noNaN: true })
    fc.assert(
      fc.property(number, fc.integer({ min: 2, max: 16 }), fc.constantFrom(...styles), (x, digits, style) => {
        const back = Number(formatReal(x, { digits, style }))
        expect(Math.abs(back - x) / x).toBeLessThanOrEqual(0.5000001 * 10 ** (1 - digits))
      }),
    )
  })
})

describe('the twin readout', () => {
  test.each([
    ['3 + 4j', {}, '3 + 4j | 5 ∠ 53.13°'],
    ['3 - 4j', { place: 'before' }, '3 - j4 | 5 ∠ -53.13°'],
    ['3 - 4j', { letter: 'i' }, '3 - 4i | 5 ∠ -53.13°'],
    ['230∠0°', {}, '230 + 0j | 230 ∠ 0°'],
    ['-4 + 0j', {}, '-4 + 0j | 4 ∠ 180°'],
    ['0j', {}, '0 + 0j | 0 ∠ 0°'],
    ['1j/3', { exact: 'fraction' }, '0 + 1j/3 | (1/3) ∠ 90°'],
    ['1 + 1j', { angle: 'rad', exact: 'fraction' }, '1 + 1j | 1.4142 ∠ pi/4 rad'],
    ['3 + 4j', { digits: 3, style: 'engineering' }, '3 + 4j | 5 ∠ 53.1°'],
  ] as [string, Partial<Conventions>, string][])('%s with %o', (entry, conventions, text) =>
    expect(show(entry, conventions)).toBe(text),
  )
  test('noise is not shown, and the stored value is untouched', () => {
    const [line] = reckon(['sqrt(3)*(1 + 1e-16j)'])
    expect(line!.view.readout).toMatchObject({ rectangular: '1.7321 + 0j', polar: '1.7321 ∠ 0°' })
    expect((line!.value as { im: number }).im).toBeCloseTo(1.732050807568877e-16, 30)
  })
  test('a real number that came from phasors keeps both forms; a magnitude does not', () => {
    expect(show('(1+2j)*(1-2j)')).toBe('5 + 0j | 5 ∠ 0°')
    expect(show('|1+2j|^2')).toBe('5')
  })
})

describe('exact and rounded', () => {
  const mark = (entry: string, conventions: Partial<Conventions> = {}) => {
    const { exactness, fraction } = reckon([entry], conventions)[0]!.view
    return [exactness, fraction]
  }
  test('the readout knows whether every digit is on show', () => {
    expect(mark('1/2')).toEqual(['exact', null])
    expect(mark('1/3')).toEqual(['exact-rounded', '1/3'])
    expect(mark('1/3', { exact: 'fraction' })).toEqual(['exact', null])
    expect(mark('sqrt(2)')).toEqual(['rounded', null])
    expect(mark('123456.789')).toEqual(['exact-rounded', '123456789/1000'])
    expect(mark('30°')).toEqual([null, null])
  })
})

test('the conventions that a new folio starts with', () => {
  expect(DEFAULT_CONVENTIONS).toEqual({
    angle: 'deg',
    letter: 'j',
    place: 'after',
    digits: 5,
    style: 'plain',
    exact: 'decimal',
    degrees: 'decimal',
    spaced: 'unit',
  })
})
