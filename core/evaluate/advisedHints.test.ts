import { reckon } from '../testing'
import type { Value } from '../values/types'

const hints = (lines: readonly string[], angle: 'deg' | 'rad' = 'deg'): string[] =>
  reckon(lines, { angle })
    .at(-1)!
    .hints.map((h) => h.code)

describe('a multiple of π that is read in degrees is pointed out', () => {
  const X = 'x = 0 to 4pi step pi/10'
  const T = 't = 0 to 0.04 step 0.001'
  test.each([
    [[X, 'cos(x)']],
    [[X, 'sin(2x)']],
    [[X, 'sin(x/2 + pi)']],
    [[X, 'y = -x', 'tan(y)']],
    [['sin(0 to 2pi count 9)']],
    [[T, '325*sin(2*pi*50*t)']],
    [[T, 'f = 50', 'w = 2pi*f', 'sin(w*t)']],
    [[T, 'w = 2pi*50', 'u = w*t', 'cos(u + pi/2)'].filter((l) => !l.includes('+ pi'))],
  ])('%j', (lines) => {
    const last = lines.at(-1) ?? ''
    const told = last.startsWith('u =') ? hints([...lines, 'cos(u)']) : hints(lines)
    expect(told).toContain('multiple-of-pi-in-degrees')
  })
  test.each([
    [[X, 'cos(x rad)']],
    [[X, 'x/pi']],
    [[X, 'sin(x/pi)']],
    [['x = 0 to 360 step 30', 'cos(x)']],
    [['a = 0° to 90° step 15°', 'cos(a)']],
    [[T, 'sin(360*50*t)']],
    [[X, 'exp(x)']],
  ])('and nothing else is: %j', (lines) => expect(hints(lines)).not.toContain('multiple-of-pi-in-degrees'))
  test('in radians whole turns of degrees are', () => {
    expect(hints(['x = 0 to 360 step 30', 'cos(x)'], 'rad')).toContain('round-degrees-in-radians')
    expect(hints([X, 'cos(x)'], 'rad')).toEqual([])
  })
})

test('a sweep of multiples of π has the sines that its points have', () => {
  const value = (v: Value | null, k: number): number => (v?.kind === 'sweep' ? (v.re[k] ?? NaN) : NaN)
  for (const line of ['sin(x)', 'cos(x)', 'sin(3x)', 'cos(x - pi)', 'sin(-x)', 'sin(x/2)']) {
    const [, swept] = reckon(['x = 0 to 4pi step pi/12', line], { angle: 'rad' })
    for (let k = 0; k <= 48; k += 1) {
      const [, point] = reckon([`x = ${k}*pi/12`, line], { angle: 'rad' })
      expect([line, k, value(swept!.value, k)]).toEqual([line, k, (point!.value as { re: number }).re])
    }
  }
})

describe('an angle times 180/π', () => {
  test.each([
    'arctan(1)*180/pi',
    '180*arctan(1)/pi',
    'arctan(1)*(180/pi)',
    '180/pi*arctan(1)',
    'arcsin(0.5)/pi*180',
    '(arcsin(0.5)*180)/pi',
    'arctan(1)*pi/180',
    'arg(1 + j)*180/pi',
  ])('%s', (line) => expect(hints([line])).toContain('degrees-twice'))
  test.each(['arctan(1)*180', 'arctan(1)/pi', '30*180/pi', '2*arctan(1)'])('not %s', (line) =>
    expect(hints([line])).not.toContain('degrees-twice'),
  )
})

test('what gives a bare number back as it is says so', () => {
  expect(hints(['degrees(2)'])).toEqual(['degrees-of-degrees'])
  expect(hints(['radians(2)'], 'rad')).toEqual(['radians-of-radians'])
  for (const line of ['degrees(2 rad)', 'degrees(2°)', 'radians(30°)', 'radians(30)']) expect(hints([line])).toEqual([])
  for (const line of ['degrees(2)', 'radians(30°)']) expect(hints([line], 'rad')).toEqual([])
})

test('an inverse that has lost its digits says so, as a solution does', () => {
  const A = 'A = sqrt(2)*[[1, 1], [1, 1.000000000001]]'
  for (const line of ['inv(A)', 'A^-1', 'solve(A, [1, 2])']) expect(hints([A, line])).toContain('ill-conditioned')
  for (const line of ['inv(A)', 'A^-1']) expect(hints(['A = sqrt(2)*[[2, 1], [1, 1]]', line])).toEqual([])
})

describe('one reading, one value', () => {
  const text = (...lines: string[]): string => reckon(lines).at(-1)!.error?.code ?? reckon(lines).at(-1)!.text
  test.each([
    ['abs([3, 4])', '5'],
    ['|[3, 4]|', '5'],
    ['magnitude([3 + 4j, 12])', '13'],
    ['each(abs([3 + 4j, -12]))', '[5, 12]'],
    ['abs(roots([1, 3, 2]))', '[2, 1]'],
    ['|roots([1, 3, 2])|', '[2, 1]'],
    ['norm(roots([1, 0, 0]))', '0'],
    ['arg([3, 4])', 'vector-argument'],
    ['angle([3, 4])', 'vector-argument'],
    ['each(arg([1, j]))', '[0°, 90°]'],
  ])('%s: %s', (line, expected) => expect(text(line)).toBe(expected))
  test('the fixes of an argument of a vector', () => {
    const { error } = reckon(['R = [3, 4]', 'angle(R)'])[1]!
    expect(error?.fixes.map((f) => f.replacement)).toEqual(['angle(R, [1, 0])', 'arg(phasor(R))', 'each(arg(R))'])
  })
  test.each([
    'eigenvalues([[1, 2], [3, 4]])',
    'roots([1, 3, 2])',
    'coefficients(s^2 + 3s + 2)',
    'everyroot(8, 2)',
    'diag([[1, 2], [3, 4]])',
    '2*roots([1, 3, 2])',
  ])('%s has no length and no direction', (line) => {
    const { readout } = reckon(['unknown s', line])[1]!.view
    expect(readout).toMatchObject({ shape: 'list', size: null })
  })
  test('a vector of space has both', () => {
    expect(reckon(['[3, 4]'])[0]!.view.readout).toMatchObject({ size: { magnitude: '5', direction: '53.13°' } })
  })
})
