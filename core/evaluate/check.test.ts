import { reckon } from '../testing'

const check = (entry: string) => {
  const { value, error } = reckon([entry])[0]!
  if (value?.kind !== 'check') throw new Error(error?.message ?? 'no check')
  return { pass: value.pass, figures: value.figures }
}

describe('against a literal: half a unit of the last written place, inclusive', () => {
  test.each([
    ['abs(3+4j) ~~ 5.00', true, 3],
    ['5.005 ~~ 5.01', true, 3],
    ['5.0049 ~~ 5.01', false, 2],
    ['99.6 ~~ 100', true, 3],
    ['99.4 ~~ 100', false, 2],
    ['0.004 ~~ 0.00', true, 0],
    ['0.006 ~~ 0.00', false, 0],
    ['4.71k ~~ 4.7k', true, 2],
    ['1.2345 ~~ 1.2e0', true, 2],
    ['3.01+3.99j ~~ 3.0 + 4.0j', true, 2],
    ['3.01+3.9j ~~ 3.0 + 4.0j', false, 1],
    ['5∠53.13° ~~ 5.00∠53.1°', true, 3],
    ['5∠53.2° ~~ 5.00∠53.1°', false, 2],
    ['1∠-179.99° ~~ 1.0∠180.0°', true, 4],
    ['3+4j ~~ 5∠53.13°', true, 4],
    ['arg(1+1j) ~~ 45.0°', true, 15],
    ['-2.4999 ~~ -2.5', true, 2],
  ])('%s', (entry, pass, figures) => expect(check(entry)).toEqual({ pass, figures }))
})

describe('otherwise to a relative 1e-9, or within what is said', () => {
  test.each([
    ['sqrt(2)^2 ~~ 1+1', true],
    ['1/3 ~~ 0.3333+0', false],
    ['10.05 ~~ 10 within 1%', true],
    ['10.2 ~~ 10 within 1%', false],
    ['10.005 ~~ 10 within 0.01', true],
    ['10.02 ~~ 10 within 0.01', false],
  ])('%s', (entry, pass) => expect(check(entry).pass).toBe(pass))
  test('sides of different kinds cannot be compared', () => {
    expect(reckon(['2 ~~ "two"'])[0]!.error!.code).toBe('not-comparable')
  })
})

describe('vectors and matrices', () => {
  const outcome = (line: string) => {
    const [result] = reckon([line])
    return result!.error?.code ?? (result!.value as { pass: boolean; figures: number })
  }
  test.each([
    ['[1/3, 2/3] ~~ [0.333, 0.667]', true, 3],
    ['[1/3, 2/3] ~~ [0.333, 0.66]', false, 1],
    ['[[1, 2], [3, 4]]^-1*[[1, 2], [3, 4]] ~~ identity(2)', true, 15],
    ['[[sqrt(2), 0], [0, 1]] ~~ [[1.414, 0], [0, 1]]', true, 4],
    ['[1, 2] ~~ [1, 2.1] within 0.2', true, 1],
  ])('%s', (line, pass, figures) => expect(outcome(line)).toMatchObject({ pass, figures }))
  test('shapes must be the same', () => expect(outcome('[1, 2] ~~ [1, 2, 3]')).toBe('shapes-differ'))
})
