import * as fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { curveOf } from '#core/kinds/kinds'
import type { Corner, Point, ShownSweep } from '#core/scene/curve'
import { inkOf } from '#core/scene/scene'
import { reckon } from '#core/testing'
import { freshCurve } from '#shared/plate'
import { DAY } from '~/theme/tokens'
import { curveConfig } from './curve'
import { annotationsOf } from './curveAnnotations'
import { curvesOf } from './curves'
import type { CurveFrame } from './curves'
import { overlap } from './familyLabels'
import type { Box } from './familyLabels'
import { cornerMarks, grouped, straightDatasets, straightPoints, withinATurn } from './straight'

/** The straight lines of a frequency response on its plate. */

function source(g: string): ShownSweep {
  const data = curveOf(reckon(['unknown s', g], { timeLimit: 20_000 }).at(-1)!.value!)
  if (!data) throw new Error('no curve')
  return { line: 'line-g', name: 'G', ink: inkOf(0), data }
}

const bare = freshCurve('plate-one1', ['dB', 'unwrapped'], [], '')
const plate = { ...bare, straight: true }
function frame(g: string, changes: Partial<CurveFrame> = {}, on: CurveFrame['plate'] = plate): CurveFrame {
  return {
    plate: on,
    curves: curvesOf(on, [source(g)], null, 'deg'),
    theme: DAY,
    conventions: DEFAULT_CONVENTIONS,
    width: 500,
    height: 460,
    cursor: null,
    fixed: null,
    along: null,
    window: null,
    ...changes,
  }
}

test('they are drawn only where they are asked for', () => {
  expect(straightDatasets(frame('1/(s + 1)', {}, bare))).toEqual([])
  expect(Object.keys(cornerMarks(frame('1/(s + 1)').curves[0]!, frame('1/(s + 1)', {}, bare), []))).toEqual([])
  const config = curveConfig(frame('1/(s + 1)'))
  // Behind the curves, so that these keep their places.
  expect(config.data.datasets.map(({ yAxisID, label }) => [yAxisID, label])).toEqual([
    ['dB', '|G| in dB'],
    ['angle', 'arg G'],
    ['dB', ''],
    ['angle', ''],
  ])
})

test('angles begin in the turn of their curve', () => {
  for (const g of ['1/(s^2*(s + 1))', '-1/(s + 1)', '1/(s - 2)', '(s - 1)/(s*(s + 4)^2)']) {
    const [, angle] = frame(g).curves
    const [first] = straightPoints(angle!, plate, 'deg')
    expect(Math.abs(first!.y - angle!.y[0]!)).toBeLessThan(20)
  }
})

test('in radians they are radians', () => {
  const { curves } = frame('1/(s + 1)')
  const points = straightPoints(curves[1]!, plate, 'rad')
  expect(points.at(-1)!.y).toBeCloseTo(-Math.PI / 2, 9)
})

test('a magnitude has them where its heights go by decades, other parts never', () => {
  const on = { ...plate, parts: ['re' as const, 'magnitude' as const] }
  const [re, magnitude] = frame('10/(s + 1)', {}, on).curves
  expect(straightPoints(re!, on, 'deg')).toEqual([])
  expect(straightPoints(magnitude!, on, 'deg')).toEqual([])
  const log = { ...on, number: { ...on.number, log: true } }
  expect(straightPoints(magnitude!, log, 'deg')[0]!.y).toBeCloseTo(10, 9)
})

describe('within a turn', () => {
  const point = (x: number, y: number): Point => ({ x, y })

  test('a line that leaves half a turn goes on at the other edge', () => {
    const found = withinATurn([point(1, -90), point(100, -270)], 180)
    expect(found.map(({ y }) => y)).toEqual([-90, -180, NaN, 180, 90])
    // Half of the way over the logarithm.
    expect(found[1]!.x).toBeCloseTo(10, 9)
    expect(found[3]!.x).toBeCloseTo(10, 9)
  })

  test('any lines: all heights are within half a turn, and the same angle', () => {
    const heights = fc.array(fc.integer({ min: -900, max: 900 }), { minLength: 2, maxLength: 6 })
    fc.assert(
      fc.property(heights, (ys) => {
        const points = ys.map((y, k) => point(10 ** k, y + 0.5))
        const found = withinATurn(points, 180)
        for (const { y } of found) if (!Number.isNaN(y)) expect(Math.abs(y)).toBeLessThanOrEqual(180 + 1e-9)
        // Each of the points given is there, whole turns apart.
        for (const p of points) {
          const same = found.filter(({ x, y }) => x === p.x && !Number.isNaN(y))
          expect(same.some(({ y }) => Math.abs((y - p.y) / 360 - Math.round((y - p.y) / 360)) < 1e-9)).toBe(true)
        }
      }),
    )
  })
})

describe('corners', () => {
  const corner = (x: number): Corner => ({ x, level: 0, bend: -20, slope: -20 })

  test('that stand close are written out together', () => {
    const all = { level: [], angle: [], corners: [1, 1.5, 100, 1000, 1200].map(corner) }
    expect(grouped(all, 0.01, 1e5).map((group) => group.map(({ x }) => x))).toEqual([[1, 1.5], [100], [1000, 1200]])
    expect(grouped(all, 10, 1e5).map((group) => group.map(({ x }) => x))).toEqual([[100], [1000, 1200]])
  })

  const texts = (g: string, width = 500): readonly string[][] => {
    const marks = annotationsOf(frame(g, { width }))
    return Object.entries(marks).flatMap(([id, mark]) => (/corner \d+ text$/.test(id) && 'content' in mark ? [mark.content as string[]] : [])) // prettier-ignore
  }

  test.each([
    ['1/(s + 10)', [['corner 10', 'then −20 dB/decade']]],
    [
      '(s + 1)/(s*(s + 200))',
      [
        ['corner 1', 'then 0 dB/decade'],
        ['corner 200', 'then −20 dB/decade'],
      ],
    ],
    ['1/((s + 1)*(s + 1.2))', [['corners 1, 1.2', 'then −40 dB/decade']]],
    ['1/((s + 1)*(s + 1.1)*(s + 1.2)*(s + 1.3))', [['corners 1 to 1.3', 'then −80 dB/decade']]],
  ] as const)('of %s say where they are and how steep it goes on', (g, wanted) => {
    expect(texts(g)).toEqual(wanted.map((rows) => [...rows]))
  })

  test('their texts are clear of one another where there is room, and never over the edge', () => {
    const one = fc.integer({ min: -2, max: 5 }).map((k) => `(s + ${10 ** k})`)
    fc.assert(
      fc.property(fc.uniqueArray(one, { minLength: 1, maxLength: 4 }), (factors) => {
        const shown = frame(`1/(${factors.join('*')})`, { width: 900, height: 700 })
        const boxes: Box[] = []
        cornerMarks(shown.curves[0]!, shown, boxes)
        for (const [k, box] of boxes.entries()) {
          expect(box.x - box.width / 2).toBeGreaterThanOrEqual(0)
          expect(box.x + box.width / 2).toBeLessThanOrEqual(900)
          for (const other of boxes.slice(k + 1)) expect(overlap(box, other)).toBe(false)
        }
      }),
      { numRuns: 25 },
    )
  })

  test('with a unit the frequency has it', () => {
    const data = { ...source('1/(s + 10)').data, xUnit: 'rad/s' }
    const curves = curvesOf(plate, [{ ...source('1/(s + 10)'), data }], null, 'deg')
    const marks = cornerMarks(curves[0]!, frame('1/(s + 10)', { curves }), [])
    const [, text] = Object.values(marks)
    expect(text && 'content' in text ? text.content : null).toEqual(['corner 10 rad/s', 'then −20 dB/decade'])
  })
})
