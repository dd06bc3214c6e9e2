import * as fc from 'fast-check'
import { curveOf } from '../kinds/kinds'
import type { Point, StraightLines } from '../scene/curve'
import { reckon } from '../testing'
import { straightLines } from './straightLines'
import { transferOf } from './transfer'
import type { Transfer } from './transfer'

/** Straight lines against figures worked out by hand, and against the response that they come near to. */

const SLOW = { timeLimit: 20_000 }

function transfer(g: string): Transfer {
  const found = transferOf('margins', reckon(['unknown s, z', g], SLOW).at(-1)!.value!)
  if ('kind' in found) throw new Error(found.code)
  return found
}
function lines(g: string, low = 1e-6, high = 1e6, delay = 0): StraightLines {
  const found = straightLines(transfer(g), low, high, delay)
  if (!found) throw new Error('no lines')
  return found
}

/** A height between the points, straight over the logarithm. */
function heightAt(points: readonly Point[], x: number): number {
  const k = points.findIndex((p) => p.x >= x)
  const [a, b] = [points[Math.max(0, k - 1)]!, points[Math.max(k, 0)]!]
  return a.x === b.x ? b.y : a.y + ((b.y - a.y) * Math.log(x / a.x)) / Math.log(b.x / a.x)
}

const degrees = (radians: number): number => (radians * 180) / Math.PI

describe('corners and slopes', () => {
  test.each([
    // One pole, an integrator, a zero that comes first, equal poles, a pair, a differentiator, poles to the right.
    ['1/(s + 10)', [[10, -20]], 0],
    [
      '2000*(s + 0.5)/(s*(s + 10)*(s + 50))',
      [
        [0.5, 0],
        [10, -20],
        [50, -40],
      ],
      -20,
    ],
    ['1/(s + 2)^3', [[2, -60]], 0],
    ['4/(s^2 + 0.4s + 4)', [[2, -40]], 0],
    ['s/(s + 3)', [[3, 0]], 20],
    [
      '(s - 1)/(s + 4)',
      [
        [1, 20],
        [4, 0],
      ],
      0,
    ],
    ['1/(s^2*(0.1s + 1))', [[10, -60]], -40],
    [
      '(s^2 + 1)/(s + 5)^2',
      [
        [1, 40],
        [5, 0],
      ],
      0,
    ],
    ['7', [], 0],
  ] as const)('of %s', (g, corners, first) => {
    const found = lines(g)
    expect(found.corners.map(({ x, slope }) => [Number(x.toPrecision(10)), slope])).toEqual(corners.map((c) => [...c]))
    const [a, b] = [found.level[0]!, found.level[1]!]
    expect((b.y - a.y) / Math.log10(b.x / a.x)).toBeCloseTo(first, 9)
  })

  test('a zero as far from the origin as a pole takes its corner away', () => {
    const { corners, angle } = lines('(s - 3)/(s + 3)')
    expect(corners).toEqual([])
    // The angle goes over by half a turn all the same.
    expect(degrees(angle.at(-1)!.y - angle[0]!.y)).toBeCloseTo(-180, 9)
  })

  test('levels by hand: 2000(s + 0.5)/(s(s + 10)(s + 50)) is 2/s at first', () => {
    const { level } = lines('2000*(s + 0.5)/(s*(s + 10)*(s + 50))', 0.01, 1000)
    const wanted = [
      [0.01, 20 * Math.log10(200)],
      [0.5, 20 * Math.log10(4)],
      [10, 20 * Math.log10(4)],
      [50, 20 * Math.log10(0.8)],
      [1000, 20 * Math.log10(0.002)],
    ] as const
    expect(level).toHaveLength(wanted.length)
    wanted.forEach(([x, y], k) => {
      expect(level[k]!.x).toBeCloseTo(x, 9)
      expect(level[k]!.y).toBeCloseTo(y, 9)
    })
  })

  test('corners outside of what is shown are left out, their slope is not', () => {
    const { corners, level } = lines('1/((s + 0.001)*(s + 1))', 0.1, 10)
    expect(corners.map(({ x, slope }) => [x, slope])).toEqual([[1, -40]])
    expect(heightAt(level, 0.5) - heightAt(level, 0.2)).toBeCloseTo(-20 * Math.log10(2.5), 9)
  })
})

describe('angles', () => {
  test.each([
    // A real pole turns over two decades, straight through −45° at its corner.
    [
      '1/(s + 1)',
      [
        [0.1, 0],
        [1, -45],
        [10, -90],
      ],
    ],
    [
      '1/(s - 1)',
      [
        [0.1, -180],
        [1, -135],
        [10, -90],
      ],
    ],
    [
      '(s - 1)/(s + 1)',
      [
        [0.1, 180],
        [1, 90],
        [10, 0],
      ],
    ],
    [
      '-1/(s + 1)',
      [
        [0.1, 180],
        [1, 135],
        [10, 90],
      ],
    ],
    [
      '1/s^2',
      [
        [0.1, -180],
        [10, -180],
      ],
    ],
    // A pair with ζ = 0.5: from ωn·10^−0.5 to ωn·10^0.5.
    [
      '1/(s^2 + s + 1)',
      [
        [0.31, 0],
        [1, -90],
        [3.17, -180],
      ],
    ],
  ] as const)('of %s', (g, wanted) => {
    const { angle } = lines(g)
    for (const [x, y] of wanted) {
      const away = degrees(heightAt(angle, x)) - y
      expect(away - 360 * Math.round(away / 360)).toBeCloseTo(0, 6)
    }
  })

  test('without damping they jump at once', () => {
    const { angle } = lines('1/(s^2 + 9)', 0.1, 100)
    expect(angle.map(({ x, y }) => [Number(x.toPrecision(9)), Number(degrees(y).toFixed(6))])).toEqual([
      [0.1, 0],
      [3, 0],
      [3, -180],
      [100, -180],
    ])
  })

  test('are left out where there is a delay', () => {
    expect(lines('1/(s + 1)', 0.01, 100, 0.5).angle).toEqual([])
    expect(lines('1/(s + 1)', 0.01, 100, 0.5).level).toHaveLength(3)
  })
})

test('samples have none', () => expect(straightLines(transfer('1/(z - 0.5)'), 0.01, 3)).toBeNull())

test('a gain that outgrows a double has none', () => {
  expect(straightLines(transfer('1e300*10^300/(s + 1)'), 0.1, 10)).toBeNull()
})

const root = fc.tuple(fc.integer({ min: -40, max: 40 }), fc.integer({ min: 0, max: 30 })).map(([re, im]) => {
  const [a, b] = [re / 4, im / 4]
  // Half of them real, half of them pairs; none at the origin or without damping.
  if (im % 2 === 0) return a === 0 ? '(s + 2)' : `(s - (${a}))`
  return `(s^2 + ${2 * Math.abs(a) + 0.5}*s + ${a * a + b * b + 1})`
})
const product = (least: number, most: number): fc.Arbitrary<string> =>
  fc.array(root, { minLength: least, maxLength: most }).map((all) => (all.length === 0 ? '1' : all.join('*')))
const system = fc
  .tuple(fc.constantFrom('1', '-3', '0.02', '450'), product(0, 3), product(1, 4), fc.integer({ min: 0, max: 2 }))
  .map(([k, top, bottom, n]) => `${k}*${top}/(s^${n}*${bottom})`)

test('well below and well above all corners they are the response, for any system', () => {
  fc.assert(
    fc.property(system, (g) => {
      const [low, high] = [1e-5, 1e6]
      const { level, angle } = lines(g, low, high)
      const values = reckon(['unknown s', `G = ${g}`, `G where s = ${low}j`, `G where s = ${high}j`], SLOW).slice(2)
      values.forEach(({ value }, k) => {
        if (value?.kind !== 'number') throw new Error('a number')
        const end = k === 0 ? 0 : -1
        expect(level.at(end)!.y).toBeCloseTo(20 * Math.log10(Math.hypot(value.re, value.im)), 1)
        const away = degrees(angle.at(end)!.y) - degrees(Math.atan2(value.im, value.re))
        expect(Math.abs(away - 360 * Math.round(away / 360))).toBeLessThan(0.2)
      })
    }),
    { numRuns: 60 },
  )
})

test('at a corner that is far from all others the response is 3.01 dB beside it for each pole or zero', () => {
  const { corners } = lines('(s + 0.001)/((s + 1)*(s + 1000)^2)')
  const values = corners.map(({ x, level, bend }) => {
    const { value } = reckon(['unknown s', `(s + 0.001)/((s + 1)*(s + 1000)^2) where s = ${x}j`]).at(-1)!
    if (value?.kind !== 'number') throw new Error('a number')
    return (20 * Math.log10(Math.hypot(value.re, value.im)) - level) / (bend / 20)
  })
  for (const beside of values) expect(beside).toBeCloseTo(10 * Math.log10(2), 4)
})

describe('with the curve', () => {
  const drawn = (entry: string) => {
    const data = curveOf(reckon(['unknown s, z', entry], SLOW).at(-1)!.value!)
    if (!data) throw new Error('no curve')
    return data
  }

  test('they run over its whole range', () => {
    const { x, straight } = drawn('6/(s*(s + 1)*(s + 5))')
    expect([straight?.level[0]?.x, straight?.level.at(-1)?.x]).toEqual([x[0], x.at(-1)])
    expect(straight?.corners.map((c) => c.x)).toEqual([1, 5])
  })
  test('of a delay they are the level only', () => {
    expect(drawn('e^(-0.2s)*6/(s + 1)').straight).toMatchObject({ angle: [], corners: [{ x: 1, slope: -20 }] })
  })
  test('of samples there are none', () => expect(drawn('0.5/(z - 0.5)').straight ?? null).toBeNull())
})
