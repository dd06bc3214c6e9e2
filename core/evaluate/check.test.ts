import * as fc from 'fast-check'
import { reckon } from '../testing'
import { FolioEvaluator } from './folio'

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
    ['arg(1+1j) ~~ 45.0°', true, 3],
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

describe('angles beside bare numbers, written to any place', () => {
  const outcome = (line: string, angle: 'deg' | 'rad' = 'deg') => {
    const [result] = reckon([line], { angle })
    return result!.error?.code ?? (result!.value as { pass: boolean }).pass
  }
  test.each([
    ['3+4j ~~ 5∠53.13', 'deg', true],
    ['3+4j ~~ 5∠53.13', 'rad', false],
    ['3+4j ~~ 5∠0.927', 'rad', true],
    ['3+4j ~~ 5∠0.927', 'deg', false],
    ['3+4j ~~ 5∠53.2', 'deg', false],
    ['3-4j ~~ 5∠-53.13', 'deg', true],
    ['3+4j ~~ 5.0∠(53.1)', 'deg', true],
    ['arccos(0.8) ~~ 36°52\'12"', 'deg', true],
    ['arccos(0.8) ~~ 36°52\'11"', 'deg', false],
    ["arccos(0.8) ~~ 36°52'", 'deg', true],
    ["arccos(0.8) ~~ 36°53'", 'deg', false],
    ['arccos(0.8) ~~ 36°52\'11.6"', 'deg', true],
    ['arccos(0.8) ~~ 36°52\'12.0"', 'deg', false],
    ['arccos(0.8) ~~ 36°52\'12"', 'rad', true],
    ["5∠36.87 ~~ 5.0∠36°52'", 'deg', true],
    ['30° ~~ 80° within 1', 'deg', false],
    ['30° ~~ 31° within 1', 'deg', true],
    ['30° ~~ 31.1° within 1', 'deg', false],
    ['30° ~~ 80° within 1', 'rad', true],
    ['30° ~~ 31° within 1°', 'deg', true],
    ['30° ~~ 31° within 1°', 'rad', true],
    ['30° ~~ 32° within 1°', 'rad', false],
    ['30° ~~ 30.5° within 0.01 rad', 'deg', true],
    ['30° ~~ 33° within 10%', 'deg', true],
    ['30° ~~ 33.5° within 10%', 'deg', false],
    ['359.9° ~~ -0.05° within 0.1', 'deg', true],
    ['arctan(1) ~~ 45', 'deg', true],
    ['arctan(1) ~~ 45.0', 'rad', false],
    ['arctan(1) ~~ 0.7854', 'rad', true],
    ['arctan(1) ~~ 46', 'deg', false],
    ['45 ~~ arctan(1)', 'deg', true],
    ['arctan(1) ~~ pi/4', 'rad', true],
    ['arctan(1) ~~ 405', 'deg', true],
    ['[arctan(1), arcsin(0.5)] ~~ [45, 30.0]', 'deg', true],
    ['[arctan(1), arcsin(0.5)] ~~ [45, 31]', 'deg', false],
    ['[arctan(1), arcsin(0.5)] ~~ [45°, 30°]', 'rad', true],
    ['[30°, 40°] ~~ [30.5°, 40°] within 1', 'deg', true],
    ['[30°, 40°] ~~ [31.5°, 40°] within 1', 'deg', false],
    ['[30°] ~~ [30°, 40°]', 'deg', 'shapes-differ'],
    ['5 ~~ 5.5 within 1°', 'deg', 'tolerance-angle'],
    ['3+4j ~~ 5∠53° within 1°', 'deg', 'tolerance-angle'],
    ['arctan(1) ~~ 45 + 1j', 'deg', 'not-comparable'],
    ['5 ~~ 5 within -1', 'deg', 'tolerance'],
    ['5 ~~ 5 within 1j', 'deg', 'tolerance'],
    ['30° ~~ 31° within 5°%', 'deg', 'tolerance'],
    ['3+1e-12j ~~ 3', 'deg', true],
    ['3+0.4j ~~ 3', 'deg', false],
    ['3+0.4j ~~ 3 + 0j', 'deg', true],
  ] as const)('%s in %s: %s', (line, angle, expected) => expect(outcome(line, angle)).toBe(expected))

  test('what was read in the unit of the conventions is marked, and can be written in', () => {
    const marked = (line: string) => {
      const evaluator = new FolioEvaluator()
      evaluator.setLines([{ id: 'a', source: line }])
      evaluator.update()
      return [...evaluator.result('a')!.evaluated.bare].map((n) => line.slice(n.from, n.to))
    }
    expect(marked('arctan(1) ~~ 45')).toEqual(['45'])
    expect(marked('30° ~~ 31° within 1')).toEqual(['1'])
    expect(marked('[arctan(1)] ~~ [45]')).toEqual(['45'])
    expect(marked('3+4j ~~ 5∠53.13')).toEqual(['53.13'])
    expect(marked('30° ~~ 31° within 1°')).toEqual([])
    expect(marked('3 ~~ 3.0 within 1')).toEqual([])
  })

  /** Half a unit inclusive: what is written is rounded from exact hundredths of its last place. */
  const share = fc.integer({ min: -149, max: 149 }).filter((k) => Math.abs(k) !== 50)
  const decimals = fc.integer({ min: 0, max: 4 })
  const written = (units: number, places: number): string => (units / 10 ** places).toFixed(places)
  test('an angle passes within half a unit of its last written place, in every way of writing it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -17_000, max: 17_000 }),
        decimals,
        share,
        fc.constantFrom('deg' as const, 'rad' as const),
        fc.constantFrom('bare', 'degrees', 'radians', 'polar', 'polar degrees'),
        (units, places, hundredths, convention, way) => {
          const radians = way === 'radians' || ((way === 'bare' || way === 'polar') && convention === 'rad')
          // Half a turn away nothing is the same angle any more.
          if (radians && places === 0) return
          const text = written(units % (radians ? 3 * 10 ** places : 170 * 10 ** places), places)
          const sign = radians ? ' rad' : '°'
          const exact = `${text}${sign} + (${hundredths}/100*10^-${places})${sign}`
          const line =
            way === 'bare'
              ? `${exact} ~~ ${text}`
              : way === 'degrees' || way === 'radians'
                ? `${exact} ~~ ${text}${sign}`
                : `7∠(${exact}) ~~ 7.0∠${way === 'polar' ? text : `${text}°`}`
          expect([line, outcome(line, convention)]).toEqual([line, Math.abs(hundredths) <= 50])
        },
      ),
      { numRuns: 2_000 },
    )
  })
  test('so do degrees, minutes and seconds', () => {
    fc.assert(
      fc.property(
        fc.nat(170),
        fc.nat(59),
        fc.nat(59),
        fc.nat(2),
        share,
        fc.boolean(),
        (d, m, s, places, hundredths, seconds) => {
          const text = seconds ? `${d}°${m}'${s}${places > 0 ? `.${'0'.repeat(places)}` : ''}"` : `${d}°${m}'`
          const last = seconds ? 3600 * 10 ** places : 60
          const line = `${d}° + (${m}/60 + ${seconds ? s : 0}/3600 + ${hundredths}/100/${last})° ~~ ${text}`
          expect([line, outcome(line)]).toEqual([line, Math.abs(hundredths) <= 50])
        },
      ),
      { numRuns: 1_000 },
    )
  })
  test('a tolerance of angles is read in the unit they are', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -360, max: 360 }),
        fc.integer({ min: -1000, max: 1000 }),
        fc.integer({ min: 1, max: 900 }),
        fc.constantFrom('deg' as const, 'rad' as const),
        fc.constantFrom('°', ' rad', ''),
        (start, apart, tenths, convention, sign) => {
          const radians = sign === ' rad' || (sign === '' && convention === 'rad')
          const allowed = radians ? (tenths / 10) * (180 / Math.PI) : tenths / 10
          const difference = Math.abs(((((apart / 10 + 180) % 360) + 360) % 360) - 180)
          if (Math.abs(difference - allowed) < 1e-6) return
          const line = `${start}° ~~ ${start}° + (${apart}/10)° within ${tenths / 10}${sign}`
          expect([line, outcome(line, convention)]).toEqual([line, difference < allowed])
        },
      ),
      { numRuns: 2_000 },
    )
  })
})

test('figures of angles are those of the numbers that are written: as many as plain numbers of the same digits', () => {
  const places = fc.integer({ min: 0, max: 4 })
  const written = fc.tuple(fc.integer({ min: 1, max: 16_999 }), places).map(([n, d]) => (n / 100).toFixed(d))
  fc.assert(
    fc.property(written, written, fc.constantFrom('°', ' rad'), fc.boolean(), (a, b, unit, near) => {
      // Within half a turn of one another an angle differs from another as the numbers do.
      const right = near ? (Number(a) * 1.002).toFixed(2) : b
      const turn = unit === '°' ? 180 : Math.PI
      fc.pre(Number(right) > 0 && Math.abs(Number(a) - Number(right)) < 0.99 * turn)
      const plain = check(`${a} ~~ ${right}`)
      const turned = check(`${a}${unit} ~~ ${right}${unit}`)
      expect([a, right, turned.figures, turned.pass]).toEqual([a, right, plain.figures, plain.pass])
    }),
    { numRuns: 3000 },
  )
})
