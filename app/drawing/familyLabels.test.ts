import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { ShownSweep } from '#core/scene/curve'
import { inkOf } from '#core/scene/scene'
import { freshCurve } from '#shared/plate'
import { DAY } from '~/theme/tokens'
import { curveConfig } from './curve'
import { curvesOf, usualYName } from './curves'
import type { CurveFrame } from './curves'
import { familyLabels, overlap, placeOnPicture } from './familyLabels'
import type { Box } from './familyLabels'

/** The values of a family at its curves. */

const COUNT = 200
const x = Float64Array.from({ length: COUNT }, (_, k) => k / 10)
const plate = freshCurve('plate-one1', ['re'], [], '')

/** A member that swings about 1 with its own damping. */
function member(zeta: number, beside: boolean): ShownSweep {
  const re = x.map((t) => 1 - Math.exp(-zeta * t) * Math.cos(t))
  const data = { along: 't', x, turns: false, decades: false, of: 'number' as const, re, im: null }
  return { line: 'line-y', name: 'y', ink: inkOf(0), data, member: `ζ = ${zeta}`, ...(beside ? { beside } : {}) }
}

function frame(zetas: readonly number[], changes: Partial<CurveFrame> = {}): CurveFrame {
  const curves = curvesOf(plate, zetas.map((zeta, k) => member(zeta, k > 0)), null, 'deg') // prettier-ignore
  return { plate, curves, theme: DAY, conventions: DEFAULT_CONVENTIONS, width: 500, height: 420, cursor: null, fixed: null, along: null, window: null, ...changes } // prettier-ignore
}

function boxesOf(shown: CurveFrame, taken: readonly Box[] = []): readonly (Box & { readonly text: string })[] {
  return Object.entries(familyLabels(shown, taken)).map(([id, mark]) => {
    if (mark.type !== 'label') throw new Error('a label')
    const curve = shown.curves.find((c) => `${c.id} member` === id)!
    const at = placeOnPicture(curve, shown)(Number(mark.xValue), Number(mark.yValue))
    const text = String(mark.content)
    return { ...at, width: 7 * text.length + 6, height: 16, text }
  })
}

test('each member has its value, without the name', () => {
  expect(boxesOf(frame([0.2, 0.05, 0.5, 1])).map(({ text }) => text)).toEqual(['0.2', '0.05', '0.5', '1'])
})

test('a plate without a family has none', () => {
  const shown = frame([0.2])
  expect(familyLabels({ ...shown, curves: shown.curves.map((c) => ({ ...c, member: '' })) }, [])).toEqual({})
})

test.each([[[0.1, 0.2]], [[0.05, 0.1, 0.2, 0.4, 0.8]], [[0.02, 0.3, 0.31, 2]]])('of %j: clear of one another and inside', (zetas) => {
  const boxes = boxesOf(frame(zetas))
  for (const [k, box] of boxes.entries()) {
    expect(box.x).toBeGreaterThan(0)
    expect(box.x).toBeLessThan(500)
    for (const other of boxes.slice(k + 1)) expect(overlap(box, other)).toBe(false)
  }
}) // prettier-ignore

test('clear of what is written there already', () => {
  const shown = frame([0.1, 0.5])
  const [first] = boxesOf(shown)
  const taken = [{ x: first!.x, y: first!.y, width: 90, height: 22 }]
  for (const box of boxesOf(shown, taken)) expect(overlap(box, taken[0]!)).toBe(false)
})

test('in a part of the picture they are in that part', () => {
  const shown = frame([0.1, 0.5], { window: { low: 3, high: 6 } })
  for (const mark of Object.values(familyLabels(shown, []))) {
    if (mark.type !== 'label') throw new Error('a label')
    expect(Number(mark.xValue)).toBeGreaterThanOrEqual(3)
    expect(Number(mark.xValue)).toBeLessThanOrEqual(6)
  }
})

test('places go with the axes: over the logarithm by decades, with a second axis less wide', () => {
  const [curve] = frame([0.1]).curves
  const at = placeOnPicture(curve!, frame([0.1]))
  expect(at(x[0]!, 0).x).toBeLessThan(at(10, 0).x)
  // The middle of the range stands in the middle of the picture between its axes.
  expect(at(x.at(-1)! / 2, 0).x).toBeCloseTo((at(x[0]!, 0).x + at(x.at(-1)!, 0).x) / 2, 6)
  expect(at(0, 2).y).toBeLessThan(at(0, 0.5).y)
})

describe('the legend', () => {
  const legend = (shown: CurveFrame) => {
    const { plugins } = curveConfig(shown).options ?? {}
    const labels = plugins?.legend?.labels
    const items = labels?.generateLabels?.call(undefined as never, undefined as never) ?? []
    return { display: plugins?.legend?.display, texts: items.map(({ text }) => text) }
  }

  test('of the page has no members, which stand in the caption', () => {
    expect(legend(frame([0.2, 0.1, 0.5]))).toEqual({ display: false, texts: ['y'] })
  })
  test('of a file has them all', () => {
    expect(legend(frame([0.2, 0.1], { paper: true }))).toEqual({ display: true, texts: ['y, ζ = 0.2', 'y, ζ = 0.1'] })
  })
  test('the axis is that of the value', () => {
    expect(usualYName('number', frame([0.2, 0.1]).curves, 'deg')).toBe('y')
  })
})
