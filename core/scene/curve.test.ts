import * as fc from 'fast-check'
import {
  crossings,
  extremes,
  heightOf,
  heights,
  isCoarse,
  nearestIndex,
  sortOf,
  thinned,
  thinnedPath,
  unwrapped,
} from './curve'
import type { SweepData } from './curve'

const data = (re: readonly number[], im: readonly number[] | null = null): SweepData => ({
  along: 'x',
  x: Float64Array.from(re, (_, k) => k),
  turns: false,
  decades: false,
  of: 'number',
  re: Float64Array.from(re),
  im: im && Float64Array.from(im),
})

describe('what of a value is drawn', () => {
  const z = data([3, 0, -1], [4, 1, 0])
  test.each([
    ['re', 'deg', [3, 0, -1]],
    ['im', 'deg', [4, 1, 0]],
    ['magnitude', 'deg', [5, 1, 1]],
    ['dB', 'deg', [20 * Math.log10(5), 0, 0]],
    ['angle', 'deg', [53.13010235415598, 90, 180]],
    ['angle', 'rad', [Math.atan2(4, 3), Math.PI / 2, Math.PI]],
  ] as const)('%s in %s', (part, unit, expected) =>
    heights(z, part, unit).forEach((y, k) => expect(y).toBeCloseTo(expected[k]!, 12)),
  )
  test('a real value has no imaginary part, and its angle is 0 or a half turn', () => {
    expect([...heights(data([1, -2]), 'im', 'deg')]).toEqual([0, 0])
    expect([...heights(data([1, -2]), 'angle', 'deg')]).toEqual([0, 180])
  })
  test('an angle is shown in the unit, whatever part is asked for', () => {
    const angles: SweepData = { ...data([Math.PI, -Math.PI / 2]), of: 'angle' }
    expect([...heights(angles, 'angle', 'deg')]).toEqual([180, -90])
    expect(sortOf('dB', 'angle')).toBe('angle')
    expect(sortOf('dB', 'number')).toBe('dB')
  })
  test('unwrapped: no step is larger than half a turn, and whole turns are all that is added', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -3.1, max: 3.1, noNaN: true }), { minLength: 2, maxLength: 40 }),
        (list) => {
          const wrapped = Float64Array.from(list)
          const found = unwrapped(wrapped)
          found.forEach((y, k) => {
            expect(Math.abs(Math.sin((y - wrapped[k]!) / 2))).toBeLessThan(1e-9)
            if (k > 0) expect(Math.abs(y - found[k - 1]!)).toBeLessThanOrEqual(Math.PI + 1e-9)
          })
        },
      ),
    )
  })
})

describe('thinning', () => {
  test('keeps the extremes of every column, the first and the last point', () => {
    const n = 100_000
    const x = Float64Array.from({ length: n }, (_, k) => k / n)
    const y = Float64Array.from({ length: n }, (_, k) => Math.sin(k / 50) + (k === 54_321 ? 40 : 0))
    const points = thinned(x, y, (v) => v * 300, 300)
    expect(points.length).toBeLessThanOrEqual(4 * 301)
    expect(points[0]).toEqual({ x: 0, y: 0 })
    expect(points.at(-1)!.x).toBe(x[n - 1])
    expect(Math.max(...points.map((p) => p.y))).toBeCloseTo(40 + Math.sin(54_321 / 50), 12)
    expect(points.every((p, k) => k === 0 || p.x >= points[k - 1]!.x)).toBe(true)
  })
  test('leaves short curves as they are, with gaps where a value is not finite', () => {
    const points = thinned(Float64Array.of(0, 1, 2), Float64Array.of(1, Infinity, 3), (v) => v, 100)
    expect(points).toEqual([
      { x: 0, y: 1 },
      { x: 1, y: NaN },
      { x: 2, y: 3 },
    ])
  })
  test('a gap in a long curve stays a gap', () => {
    const n = 10_000
    const x = Float64Array.from({ length: n }, (_, k) => k)
    const y = x.map((v) => (v === 5000 ? NaN : 1))
    expect(thinned(x, y, (v) => v / 100, 100).some((p) => Number.isNaN(p.y))).toBe(true)
  })
  test('of a path: far fewer points, none of them off the way, the last one kept', () => {
    const n = 100_000
    const re = Float64Array.from({ length: n }, (_, k) => 100 * Math.cos(k / 5000))
    const im = Float64Array.from({ length: n }, (_, k) => 100 * Math.sin(k / 5000))
    const path = thinnedPath(re, im, (v) => v, (v) => -v) // prettier-ignore
    expect(path.length / 2).toBeLessThan(n / 5)
    for (let k = 0; k < path.length; k += 2) expect(Math.hypot(path[k]!, path[k + 1]!)).toBeCloseTo(100, 6)
    expect(path.at(-2)).toBe(re[n - 1])
    expect(path.at(-1)).toBe(-im[n - 1]!)
  })
})

describe('features', () => {
  const x = Float64Array.from({ length: 361 }, (_, k) => k)
  const y = x.map((v) => Math.sin((v * Math.PI) / 180))
  test('the highest, the lowest, and the peaks inside', () => {
    const found = extremes(x, y)
    expect(found.map((f) => [f.kind, f.x])).toEqual([
      ['high', 90],
      ['low', 270],
    ])
    const two = extremes(x, x.map((v) => Math.sin((v * Math.PI) / 90) - v / 1000)) // prettier-ignore
    expect(two.filter((f) => f.kind === 'high')).toHaveLength(2)
  })
  test('crossings of a height, between two points by a straight line', () => {
    const found = crossings(x, y, 0.5, false)
    expect(found.map((f) => Number(f.x.toFixed(4)))).toEqual([30, 150])
    expect(crossings(x, y, 2, false)).toEqual([])
  })
  test('along a log axis the crossing lies at the share of the logarithm', () => {
    const [only] = crossings(Float64Array.of(10, 1000), Float64Array.of(1, -1), 0, true)
    expect(only!.x).toBeCloseTo(100, 10)
  })
  test('the nearest point of an axis that rises or falls', () => {
    expect(nearestIndex(Float64Array.of(1, 2, 4, 8), 3.2)).toBe(2)
    expect(nearestIndex(Float64Array.of(8, 4, 2, 1), 7)).toBe(0)
    expect(nearestIndex(Float64Array.of(1, 10, 100), 40, true)).toBe(2)
    expect(nearestIndex(Float64Array.of(1, 10, 100), 4000)).toBe(2)
  })
})

describe('a curve too coarse', () => {
  const wave = (points: number) =>
    Array.from({ length: points }, (_, k) => ({
      x: (400 * k) / (points - 1),
      y: 100 * Math.sin((2 * Math.PI * 3 * k) / (points - 1)),
    }))
  test('is made of long strokes with sharp turns', () => expect(isCoarse(wave(12))).toBe(true))
  test('a fine one is not, nor a straight one of two points', () => {
    expect(isCoarse(wave(400))).toBe(false)
    expect(isCoarse(wave(2))).toBe(false)
  })
  test('a jump of a whole turn is no corner', () => {
    const jump = [
      { x: 0, y: 0 },
      { x: 20, y: 20 },
      { x: 40, y: -180 },
      { x: 60, y: -160 },
    ]
    expect(isCoarse(jump, 150)).toBe(false)
    expect(isCoarse(jump)).toBe(true)
  })
})

test('the height at a value of its own is that of the curve; an unwrapped angle stays in the turn of its neighbours', () => {
  const z = { re: -1, im: -1 }
  expect(heightOf(z, 'number', 'dB', 'deg', 0)).toBeCloseTo(10 * Math.log10(2), 12)
  expect(heightOf(z, 'number', 'angle', 'deg', 500)).toBeCloseTo(-135, 12)
  expect(heightOf(z, 'number', 'unwrapped', 'deg', 210)).toBeCloseTo(225, 12)
  expect(heightOf(z, 'number', 'unwrapped', 'rad', -8)).toBeCloseTo(-2.75 * Math.PI, 12)
  expect(heightOf({ re: Math.PI / 3, im: 0 }, 'angle', 'angle', 'deg', 0)).toBeCloseTo(60, 12)
})
