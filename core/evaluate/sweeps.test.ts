import * as fc from 'fast-check'
import { reckon } from '../testing'
import * as C from '../numbers/complex'
import { pointAt, pointsOf } from '../values/sweeps'
import type { SweepValue, Value } from '../values/types'

const last = (...lines: string[]) => reckon(lines, { timeLimit: 20_000 }).at(-1)!
function sweep(...lines: string[]): SweepValue {
  const { value, error } = last(...lines)
  if (value?.kind !== 'sweep') throw new Error(error?.message ?? `not a sweep but ${value?.kind}`)
  return value
}
const reals = (...lines: string[]): number[] => [...sweep(...lines).re]
const code = (...lines: string[]): string | undefined => last(...lines).error?.code
const hints = (...lines: string[]): string[] => last(...lines).hints.map((h) => h.code)

describe('ranges', () => {
  test.each([
    ['0 to 3', [0, 1, 2, 3]],
    ['3 to 0', [3, 2, 1, 0]],
    ['0 to 1 step 0.25', [0, 0.25, 0.5, 0.75, 1]],
    ['1 to 0 step -0.5', [1, 0.5, 0]],
    ['0 to 1 step 0.3', [0, 0.3, 0.6, 0.9]],
    ['-1 to 1 count 5', [-1, -0.5, 0, 0.5, 1]],
    ['1 to 1', [1]],
    ['1 to 1000 per decade 1', [1, 10, 100, 1000]],
    ['1000 to 10 per decade 1', [1000, 100, 10]],
    ['2 + 1 to 2*3', [3, 4, 5, 6]],
  ])('%s', (entry, expected) => expect(reals(entry)).toEqual(expected))
  test('each point of an exact step is rounded once', () => {
    expect(reals('0 to 1 step 0.1')).toEqual([0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1])
    expect(reals('0 to 1 count 11')[3]).toBe(0.3)
  })
  test('per decade: points at equal ratios, whole decades exactly', () => {
    const f = reals('10 to 100k per decade 50')
    expect(f).toHaveLength(201)
    expect(f[50]).toBe(100)
    expect(f.at(-1)).toBe(100_000)
    for (let k = 1; k < f.length; k += 1) expect(f[k]! / f[k - 1]!).toBeCloseTo(10 ** 0.02, 12)
  })
  test('a multiple of π ends at its end', () => {
    const x = reals('0 to 4pi step pi/10')
    expect(x).toHaveLength(41)
    expect(x.at(-1)).toBe(4 * Math.PI)
  })
  test('no point lies beyond the end', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.double({ min: 1e-3, max: 1e6, noNaN: true }),
        fc.double({ min: 0.01, max: 1, noNaN: true }),
        (from, length, share) => {
          const step = length * share
          const x = reals(`(${from}) to (${from + length}) step ${step}`)
          expect(Math.max(...x)).toBeLessThanOrEqual(from + length + 1e-9 * step)
          // The end itself is a rounded sum.
          const rounding = 2 ** -52 * (Math.abs(from) + length)
          expect((x.at(-1) ?? NaN) + rounding).toBeGreaterThan(from + length - step * (1 + 1e-9))
        },
      ),
      { numRuns: 60 },
    )
  })
  test('of angles', () => {
    const angles = sweep('0° to 360° step 90°')
    expect(angles.of).toBe('angle')
    expect(pointsOf(sweep('x = 0° to 360° step 30°', 'sin(x)')).map((v) => v.kind === 'number' && v.re)).toEqual([
      0,
      0.5,
      Math.sqrt(3) / 2,
      1,
      Math.sqrt(3) / 2,
      0.5,
      0,
      -0.5,
      -Math.sqrt(3) / 2,
      -1,
      -Math.sqrt(3) / 2,
      -0.5,
      0,
    ])
  })
  test.each([
    ['0 to 1 step 0', 'step-zero'],
    ['0 to 1 step -1', 'step-direction'],
    ['0 to 1e9', 'too-many-points'],
    ['-1 to 10 per decade 3', 'decade-ends'],
    ['1 to 10 per decade 0', 'decade-count'],
    ['1 to 10 count 2.5', 'count-whole'],
    ['1 to 10 count 1', 'count-whole'],
    ['1j to 3', 'range-end'],
    ['0° to 1', 'range-kinds'],
    ['0 to 10 step 1°', 'step-kind'],
    ['1 to 10 per week 3', 'per-decade'],
    ['[0 to 3]', 'range-in-list'],
    ['0 to', 'unfinished'],
    ['2 step 3', 'range-form'],
  ])('%s: %s', (entry, expected) => expect(code(entry)).toBe(expected))
  test('the words of a range are names elsewhere', () => {
    expect(last('step = 2', 'to = 3', 'step*to').text).toBe('6')
    expect(code('count = 4')).toBe('function-reserved')
    expect(last('per = 4', '2per').text).toBe('8')
  })
})

describe('everything is lifted over a sweep', () => {
  const T = 't = 0 to 1 step 0.25'
  test.each([
    ['t^2', [0, 0.0625, 0.25, 0.5625, 1]],
    ['-t', [0, -0.25, -0.5, -0.75, -1]],
    ['2t + 1', [1, 1.5, 2, 2.5, 3]],
    ['1 - t', [1, 0.75, 0.5, 0.25, 0]],
    ['t/(1 + t)', [0, 0.2, 1 / 3, 3 / 7, 0.5]],
    ['|t - 0.5|', [0.5, 0.25, 0, 0.25, 0.5]],
    ['sqrt(t)', [0, 0.5, Math.SQRT1_2, Math.sqrt(0.75), 1]],
    ['if(t > 0.5, 1, t)', [0, 0.25, 0.5, 1, 1]],
    ['if(t > 0.1 and not t > 0.6, 1, 0)', [0, 1, 1, 0, 0]],
    ['max(t, 0.5)', [0.5, 0.5, 0.5, 0.75, 1]],
    ['t || t', [0, 0.125, 0.25, 0.375, 0.5]],
    ['t mod 0.5', [0, 0.25, 0, 0.25, 0]],
    ['2^t', [0, 0.25, 0.5, 0.75, 1].map((x) => 2 ** x)],
    ['t^-1', [Infinity, 4, 2, 4 / 3, 1]],
    ['sum([t, 2t, 3])', [3, 3.75, 4.5, 5.25, 6]],
    ['det([[1, t], [t, 2]])', [2, 1.9375, 1.75, 1.4375, 1]],
    ['sum(t*k for k = 1 to 3)', [0, 1.5, 3, 4.5, 6]],
    ['dot([t, 1], [t, 2])', [2, 2.0625, 2.25, 2.5625, 3]],
    ['[t, 5][2] + t', [5, 5.25, 5.5, 5.75, 6]],
    ['lu([[1, t], [1, 2]]).upper[1, 2]', [0, 0.25, 0.5, 0.75, 1]],
  ])('%s', (entry, expected) => {
    const found = reals(T, entry)
    expect(found).toHaveLength(5)
    found.forEach((x, k) => (Number.isFinite(expected[k]!) ? expect(x).toBeCloseTo(expected[k]!, 14) : expect(x).toBe(expected[k]))) // prettier-ignore
  })
  test('a loop and the evaluation of single points agree, for every operator', () => {
    const parts = ['z', 'w', '(z + w)', '(z*w - 2)', '(z - w)/(3 + w)', 'z^3', 'z^-2', '-(w/z)', '(z || w)', '3z/w']
    const grown = fc.tuple(fc.constantFrom(...parts), fc.constantFrom('+', '-', '*', '/', '||'), fc.constantFrom(...parts)) // prettier-ignore
    const number = fc.record({
      re: fc.integer({ min: -20, max: 20 }),
      im: fc.integer({ min: 1, max: 20 }),
      other: fc.integer({ min: 1, max: 30 }),
    })
    fc.assert(
      fc.property(grown, fc.array(number, { minLength: 2, maxLength: 4 }), ([a, sign, b], points) => {
        const entry = `${a} ${sign} ${b}`
        const text = (p: { re: number; im: number }): string => `${p.re} + (${p.im})*1j`
        const swept = last(
          `z = sweep([${points.map(text).join(', ')}])`,
          `w = sweep([${points.map((p) => p.other).join(', ')}])`,
          entry,
        ).value
        points.forEach((p, k) => {
          const single = last(`z = ${text(p)}`, `w = ${p.other}`, entry).value
          if (swept?.kind !== 'sweep' || single?.kind !== 'number') throw new Error('both are numbers')
          const point = pointAt(swept, k)
          if (point.kind !== 'number') throw new Error('a point is a number')
          expect(C.abs(C.subtract(point, single))).toBeLessThanOrEqual(1e-12 * Math.max(1e-6, C.abs(single)))
        })
      }),
      { numRuns: 80 },
    )
  })
  // Worked out with numpy 1.24; see docs/expected-values.md.
  test('a frequency response, as numpy has it', () => {
    const lines = ['R = 10', 'L = 4.7m', 'f = 10 to 1000 per decade 1', 'H = R/(R + j*2pi*f*L)']
    const H = sweep(...lines)
    const expected = [
      [0.9991286816129294, -0.029505240065772723],
      [0.9197873465185071, -0.2716221340446148],
      [0.10287237732834809, -0.3037921185797322],
    ]
    expected.forEach(([re, im], k) => {
      expect(H.re[k]).toBeCloseTo(re!, 14)
      expect(H.im![k]).toBeCloseTo(im!, 14)
    })
    const dB = reals(...lines, 'dB(H)')
    ;[-3.78573721e-3, -0.363125693, -9.87701224].forEach((x, k) => expect(dB[k]).toBeCloseTo(x, 8))
    const angle = sweep(...lines, 'arg(H)')
    expect(angle.of).toBe('angle')
    ;[-1.69150841, -16.45238226, -71.29248409].forEach((x, k) =>
      expect((angle.re[k]! * 180) / Math.PI).toBeCloseTo(x, 7),
    )
  })
  test('a system solved at every point, as numpy has it', () => {
    const lines = [
      'w = 100 to 1000 per decade 1',
      'Z = [[10 + j*w*0.01, -j*w*0.002], [-j*w*0.002, 5 - j/(w*1e-4)]]',
      'I = solve(Z, [12, 0])',
    ]
    const first = sweep(...lines, 'I[1]')
    const second = sweep(...lines, 'I[2]')
    ;[1.1881071, 0.58132438].forEach((x, k) => expect(first.re[k]).toBeCloseTo(x, 7))
    ;[-0.11885788, -0.5904791].forEach((x, k) => expect(first.im![k]).toBeCloseTo(x, 7))
    ;[-0.00235843, -0.04577357].forEach((x, k) => expect(second.re[k]).toBeCloseTo(x, 7))
  })
  test('functions of the folio, and calls in calls', () => {
    expect(reals('g(u) = u^2 + 1', 'x = 0 to 2', 'g(g(x))')).toEqual([2, 5, 26])
    expect(reals('Z(w) = 2 + w', 'x = 0 to 2', 'Z(x)*Z(1)')).toEqual([6, 9, 12])
  })
  test('text and truth values', () => {
    const t = sweep('x = 0 to 2', 'x > 1')
    expect(t.items?.map((v) => v.kind === 'truth' && v.truth)).toEqual([false, false, true])
  })
})

describe('two sweeps', () => {
  test('meet point by point', () => {
    expect(reals('a = 0 to 2', 'b = a + 1', 'a*b')).toEqual([0, 2, 6])
    expect(hints('a = 0 to 2', 'b = a + 1', 'a*b')).toEqual([])
  })
  test('of equal length along different ranges: pointed out', () => {
    expect(hints('a = 0 to 2', 'b = 5 to 7', 'a*b')).toContain('sweeps-unrelated')
    expect(hints('a = 0 to 2', 'b = 5 to 7', 'each([a, b])')).toContain('sweeps-unrelated')
  })
  test('of unequal length: refused with both lengths and lines', () => {
    const { error } = last('a = 0 to 2', 'b = 0 to 3', 'a + b')
    expect(error?.code).toBe('sweeps-differ')
    expect(error?.message).toContain('3 points along a (line 1), 4 along b (line 2)')
  })
  test('in a check: the same', () => {
    const { error } = last('a = 0 to 2', 'b = 0 to 3', 'a ~~ b')
    expect(error?.code).toBe('sweeps-differ')
    expect(error?.message).toContain('3 points along a (line 1), 4 along b (line 2)')
    expect(hints('a = 0 to 2', 'b = 0 to 4 step 2', 'a ~~ b')).toContain('sweeps-unrelated')
    expect(hints('a = 0 to 2', 'a ~~ 2a/2')).toEqual([])
  })
})

describe('from a sweep back to single values', () => {
  const X = 'x = 1 to 5'
  test.each([
    ['x[3]', '3'],
    ['x[last]', '5'],
    ['count(x)', '5'],
    ['sum(x)', '15'],
    ['mean(x)', '3'],
    ['max(x)', '5'],
    ['min(-x)', '-5'],
    ['product(x)', '120'],
    ['vector(x)', '[1, 2, 3, 4, 5]'],
    ['vector(0 to 3)', '[0, 1, 2, 3]'],
    ['count(sweep([5, 7, 9]))', '3'],
    ['x ~~ x', 'agrees to 15 significant figures, worst at point 1'],
    ['x^2 ~~ 25', 'does not agree: not even the first figure, worst at point 1'],
  ])('%s is %s', (entry, expected) => expect(last(X, entry).text).toBe(expected))
  test('several points stay a sweep with their parameter', () => {
    const some = sweep(X, 'y = x^2', 'y[2 to 4]')
    expect([...some.re]).toEqual([4, 9, 16])
    expect([...some.axis.values]).toEqual([2, 3, 4])
  })
  test('points are counted from 1', () => expect(code(X, 'x[6]')).toBe('point-range'))
  test('the axis has the name of the range', () => {
    expect(sweep('f = 1 to 3', 'f^2').axis.name).toBe('f')
    expect(sweep('(1 to 3)^2').axis.name).toBeNull()
  })
})

describe('at the edge', () => {
  test('zero times an infinite point is undefined there', () =>
    expect(reals('x = -1 to 1', '0*(1/x)')).toEqual([0, NaN, 0]))
  test('a quotient by zero is infinite there, and only there', () => {
    expect(reals('x = -1 to 1', '1/x')).toEqual([-1, Infinity, 1])
  })
  test('what leaves the range of doubles is an error, also inside a quotient', () => {
    expect(code('x = 1 to 3', 'x*1e200*1e200')).toBe('too-large')
    expect(code('x = 1 to 3', '1/(x*1e200*1e200)')).toBe('too-large')
    expect(code('x = 1 to 3', '1e200*x^300')).toBe('too-large')
  })
  test('magnitudes and quotients near the ends of the range', () => {
    reals('x = 1 to 2', '|x*(3e200 + 4e200j)|').forEach((x, k) => expect(x / 5e200).toBeCloseTo(k + 1, 14))
    const small = sweep('x = 1 to 2', '(x*1e-200*(1 + 1j))/(x*1e-200*(1 - 1j))')
    expect(small.re[1]).toBeCloseTo(0, 14)
    expect(small.im![1]).toBeCloseTo(1, 14)
  })
  test('a failure at a point says which', () => expect(last('x = -2 to 2', 'factorial(x)').error?.code).toBe('domain'))
  test('long sweeps are quick and right', () => {
    const H = sweep('w = 1 to 1000000', '1/(1 + j*w*10*3u)')
    expect(H.count).toBe(1_000_000)
    const k = 123_455
    const exact = C.divide({ re: 1, im: 0 }, { re: 1, im: (k + 1) * 30e-6 })
    expect(H.re[k]).toBeCloseTo(exact.re, 15)
    expect(H.im![k]).toBeCloseTo(exact.im, 15)
  })
})

test('a sweep in JSON has its parts as arrays', async () => {
  const { valueFields } = await import('../kinds/kinds')
  const { DEFAULT_CONVENTIONS } = await import('../format/conventions')
  const fields = (value: Value | null) => valueFields(value!, DEFAULT_CONVENTIONS)
  expect(fields(last('0 to 2').value)).toEqual({ kind: 'sweep', count: 3, re: [0, 1, 2], im: [0, 0, 0] })
  expect(fields(last('x = 0 to 1', 'arg(1 + x*1j)').value)).toEqual({
    kind: 'sweep',
    count: 2,
    radians: [0, Math.PI / 4],
  })
  expect(fields(last('x = 0 to 1', 'x > 0').value)).toMatchObject({ kind: 'sweep', count: 2 })
})
