import * as fc from 'fast-check'
import { reckon } from '../testing'

const text = (entry: string, angle: 'deg' | 'rad' = 'deg'): string => reckon([entry], { angle })[0]!.text
const hints = (entry: string, angle: 'deg' | 'rad'): string[] => reckon([entry], { angle })[0]!.hints.map((h) => h.code)

describe('an angle means the same in every convention', () => {
  test.each([
    ['sin(arg(1+2j))', '0.89443'],
    ['sin(30°)', '0.5'],
    ['cos(arcsin(0.5))', '0.86603'],
    ['tan(pi/4 rad)', '1'],
    ['degrees(arg(1j))', '90'],
    ['|2∠45°|', '2'],
  ])('%s is %s in both', (entry, expected) => {
    expect(text(entry, 'deg')).toBe(expected)
    expect(text(entry, 'rad')).toBe(expected)
    expect(reckon([entry])[0]!.view.unitDependent).toBe(false)
  })
  test('it is shown in the unit of the conventions, never without it', () => {
    expect(text('arg(1+1j)', 'deg')).toBe('45°')
    expect(text('arg(1+1j)', 'rad')).toBe('0.7854 rad')
    expect(text('36°52\'12"', 'deg')).toBe('36.87°')
    expect(reckon(['3+4j'], { angle: 'rad' })[0]!.polar).toBe('5 ∠ 0.9273 rad')
  })
})

describe('bare numbers are read in the unit of the conventions, and it shows', () => {
  test('sin(30) and 5∠30', () => {
    expect(text('sin(30)', 'deg')).toBe('0.5')
    expect(text('sin(30)', 'rad')).toBe('-0.98803')
    expect(text('5∠30', 'deg')).toBe('4.3301 + 2.5j')
    const [line] = reckon(['sin(30)'])
    expect(line!.view.unitDependent).toBe(true)
    expect(line!.view.reading).toContain('read-unit')
    expect(line!.view.reading).toContain('\\circ')
    expect(reckon(['sin(30)'], { angle: 'rad' })[0]!.view.reading).toContain('\\mathrm{rad}')
  })
  test.each([
    ['sin(30)', 'sin(30°)'],
    ['5∠30', '5∠30°'],
    ['5∠-30', '5∠-30°'],
    ['sin(2*15) + cos(60)', 'sin((2*15)°) + cos(60°)'],
    ['30° + 5', '30° + 5°'],
    ['x = tan(45)  # slope', 'x = tan(45°)  # slope'],
  ])('%s is stamped as %s', (entry, stamped) => {
    const [before] = reckon([entry])
    expect(before!.view.stamped).toBe(stamped)
    const [after] = reckon([stamped])
    expect(after!.text).toBe(before!.text)
    expect(after!.view.unitDependent).toBe(false)
  })
  test('lines that use no angle do not depend on the unit', () => {
    for (const entry of ['2+3', 'sqrt(2)', '3+4j', '(1+2j)/(3j)', '1 < 2', 'gcd(4, 6)', 'sum(1, 2)']) {
      expect(reckon([entry])[0]!.view.unitDependent).toBe(false)
    }
  })
  test('a function whose body reads a bare number makes its call depend on the unit', () => {
    const lines = reckon(['f(x) = sin(x)', 'f(30)'])
    expect(lines[1]!.text).toBe('0.5')
    expect(lines[1]!.view.unitDependent).toBe(true)
  })
})

describe('arithmetic of angles', () => {
  test.each([
    ['30° + 45°', '75°'],
    ['2 * 30°', '60°'],
    ['90° / 4', '22.5°'],
    ['90° / 30°', '3'],
    ['-30°', '-30°'],
    ['abs(-30°)', '30°'],
    ['max(10°, 20°)', '20°'],
    ['mean(10°, 30°)', '20°'],
    ['400° mod 360°', '40°'],
    ['sign(-30°)', '-1'],
    ['round(36.6°)', '37°'],
    ['370°', '370°'],
    ['30° < 45°', 'true'],
    ['arg(1∠270°)', '-90°'],
    ['arg(-1)', '180°'],
    ['radians(180°)', '3.1416'],
    ['sqrt(30°)', '0.7236'],
  ])('%s is %s', (entry, expected) => expect(text(entry)).toBe(expected))
  test('an angle beside a bare number is hinted', () => expect(hints('30° + 5', 'deg')).toEqual(['angle-plus-number']))
})

describe('hints for arguments meant in the other unit', () => {
  test('a multiple of π in degrees, through names too', () => {
    expect(hints('sin(pi/4)', 'deg')).toEqual(['multiple-of-pi-in-degrees'])
    const lines = reckon(['x = pi/6', 'cos(x)'])
    expect(lines[1]!.hints.map((h) => h.code)).toEqual(['multiple-of-pi-in-degrees'])
    expect(hints('sin(pi/4)', 'rad')).toEqual([])
  })
  test('round degrees in radians', () => {
    expect(hints('sin(30)', 'rad')).toEqual(['round-degrees-in-radians'])
    expect(hints('5∠-90', 'rad')).toEqual(['round-degrees-in-radians'])
    expect(hints('sin(30)', 'deg')).toEqual([])
  })
  test('e^(j*30) is radians', () => {
    expect(hints('e^(j*30)', 'deg')).toEqual(['exponent-radians'])
    expect(text('e^(j*30°)')).toBe('0.86603 + 0.5j')
    expect(hints('e^(j*30°)', 'deg')).toEqual([])
  })
})

describe('in an exponent an angle that is asked for is one', () => {
  const angle = fc.integer({ min: -24, max: 24 }).map((k) => `${15 * k}°`)
  const bare = fc.integer({ min: -400, max: 400 }).map((k) => String(k / 8))
  // Terms that come to an angle, or to a number that is read as one.
  const { term } = fc.letrec<{ term: string }>((tie) => ({
    term: fc.oneof(
      { depthSize: 'small', withCrossShrink: true },
      angle,
      bare,
      fc.tuple(tie('term'), fc.constantFrom(' + ', ' - '), tie('term')).map(([a, sign, b]) => `(${a}${sign}${b})`),
      fc.tuple(fc.integer({ min: -5, max: 5 }), angle).map(([n, a]) => `(${n}*${a})`),
      fc.tuple(angle, fc.integer({ min: 1, max: 7 })).map(([a, n]) => `(${a}/${n})`),
      fc.tuple(tie('term'), angle).map(([a, b]) => `max(${a}°, ${b})`.replace(/°°/g, '°')),
    ),
  }))
  const around = fc.constantFrom(
    (t: string) => `sin(${t})`,
    (t: string) => `cos(${t})*2`,
    (t: string) => `(1 - tan(${t})/3)`,
    (t: string) => `0.5∠(${t})`,
    (t: string) => `conj(cis(${t}))`,
    (t: string) => `if(${t} > 90°, 1, 2)`,
    (t: string) => `g(${t})`,
    (t: string) => `sum(sin(${t}), 1)`,
    (t: string) => `(abs(3∠(${t})) + sign(${t}))`,
  )
  test.each([['e^(%)'], ['exp(%)'], ['e^(2 - %)']])(
    '%s of what was kept before is that of the term itself',
    (power) => {
      fc.assert(
        fc.property(term, around, fc.constantFrom('deg' as const, 'rad' as const), (t, put, unit) => {
          const inner = put(t)
          const lines = ['g(x) = cos(x)', `k = ${inner}`, power.replace('%', 'k'), power.replace('%', inner)]
          const [, , kept, direct] = reckon(lines, { angle: unit })
          expect(direct!.text).toBe(kept!.text)
        }),
        { numRuns: 3000 },
      )
    },
  )

  test.each([
    ['e^(sin(30 + 60°))', '2.7183'],
    ['e^(cos(2*60°))', '0.60653'],
    ['e^(j*30°)', '0.86603 + 0.5j'],
    ['e^(conj(j*60°))', '0.5 - 0.86603j'],
    ['e^(sum(j*30°, j*60°))', '0 + 1j'],
  ])('%s is %s', (entry, expected) => expect(text(entry)).toBe(expected))
})
