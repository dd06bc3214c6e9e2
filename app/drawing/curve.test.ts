import type { SweepData, ShownSweep } from '#core/scene/curve'
import { inkOf } from '#core/scene/scene'
import { freshCurve } from '#shared/plate'
import { curveConfig } from './curve'
import { featuresOf } from './curveAnnotations'
import { curvesCsv } from './curveCsv'
import { curvesOf, isLogX, partLabel, sortsOf, usualXName, usualYName } from './curves'
import type { CurveFrame } from './curves'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { DAY } from '~/theme/tokens'

const data = (changes: Partial<SweepData> = {}): SweepData => ({
  along: 'f',
  x: Float64Array.of(1, 10, 100),
  turns: false,
  decades: true,
  of: 'number',
  re: Float64Array.of(1, 0.5, 0),
  im: Float64Array.of(0, -0.5, -0.1),
  ...changes,
})
const source = (name: string, changes: Partial<SweepData> = {}): ShownSweep => ({
  line: `line-${name}`,
  name,
  ink: inkOf(1),
  data: data(changes),
})
const plate = freshCurve('plate-one1', ['dB', 'angle'], [], '')
const frame = (changes: Partial<CurveFrame> = {}): CurveFrame => ({
  plate,
  curves: curvesOf(plate, [source('H')], null, 'deg'),
  theme: DAY,
  conventions: DEFAULT_CONVENTIONS,
  width: 400,
  height: 300,
  cursor: null,
  fixed: null,
  along: null,
  window: null,
  ...changes,
})

test('each part of a complex value is a curve of its own; an angle has one', () => {
  const curves = curvesOf(plate, [source('H'), source('phi', { of: 'angle', im: null })], null, 'deg')
  expect(curves.map((c) => [c.label, c.sort])).toEqual([
    ['|H| in dB', 'dB'],
    ['arg H', 'angle'],
    ['phi', 'angle'],
  ])
  expect(sortsOf(curves)).toEqual(['dB', 'angle'])
})

test.each([0, 1, 2, 3, 4])('parts of one value on one plate differ by their line, whatever its own is (%s)', (slot) => {
  for (const stacked of [false, true]) {
    const all = { ...plate, stacked, parts: ['re', 'im', 'dB', 'unwrapped'] as const }
    const shown = curvesOf({ ...all, parts: [...all.parts] }, [{ ...source('H'), ink: inkOf(slot) }], null, 'deg')
    expect(shown.map(({ ink }) => ink.hue)).toEqual([slot, slot, slot, slot])
    expect(new Set(shown.map(({ ink }) => ink.dash.join())).size).toBe(4)
  }
})

test('names: of a real value its own, of an axis what it runs along, with the unit of angles', () => {
  expect(partLabel('re', 'v', 'number', false)).toBe('v')
  expect(partLabel('re', 'Z', 'number', true)).toBe('re Z')
  const curves = curvesOf(plate, [source('H')], null, 'deg')
  expect(usualXName(plate, curves, null, 'deg')).toBe('f')
  expect(usualXName(plate, curvesOf(plate, [source('H', { turns: true })], null, 'deg'), null, 'deg')).toBe('f / °')
  expect(usualYName('angle', curves, 'rad')).toBe('arg H / rad')
  expect(usualYName('dB', curvesOf(plate, [source('H'), source('G')], null, 'deg'), 'deg')).toBe('magnitude in dB')
})

test('the horizontal axis goes by decades where the range does, unless it is set', () => {
  const curves = curvesOf(plate, [source('H')], null, 'deg')
  expect(isLogX(plate, curves)).toBe(true)
  expect(isLogX({ ...plate, x: { ...plate.x, scale: 'linear' } }, curves)).toBe(false)
  const negative = curvesOf(plate, [source('H', { x: Float64Array.of(-1, 1, 2) })], null, 'deg')
  expect(isLogX({ ...plate, x: { ...plate.x, scale: 'log' } }, negative)).toBe(false)
})

test('one sweep over another', () => {
  const over = { name: 'i', data: data({ re: Float64Array.of(5, 6, 7), im: null }) }
  const [curve] = curvesOf({ ...plate, parts: ['re'] }, [source('v', { im: null })], over, 'deg')
  expect([...curve!.x]).toEqual([5, 6, 7])
  const other = { name: 'i', data: data({ x: Float64Array.of(1, 2), re: Float64Array.of(5, 6), im: null }) }
  const [unlike] = curvesOf({ ...plate, parts: ['re'] }, [source('v', { im: null })], other, 'deg')
  expect([...unlike!.x]).toEqual([1, 10, 100])
})

test('the chart: two quantities stand one above the other, or on two axes', () => {
  const stacked = curveConfig(frame()).options!.scales!
  expect(Object.keys(stacked)).toEqual(['x', 'dB', 'angle'])
  expect(stacked.dB).toMatchObject({ stack: 'all', position: 'left' })
  expect(stacked.x).toMatchObject({ type: 'logarithmic', min: 1, max: 100 })
  const flat = { ...plate, stacked: false }
  const beside = curveConfig(frame({ plate: flat })).options!.scales!
  expect(beside.dB).toMatchObject({ position: 'left' })
  expect(beside.angle).toMatchObject({ position: 'right' })
})

test('cursors, the point read along, levels and extremes are annotations', () => {
  const marked = { ...plate, extremes: true, levels: [{ sort: 'dB' as const, height: -3 }] }
  const curves = curvesOf(marked, [source('H')], null, 'deg')
  const { annotations } = curveConfig(frame({ plate: marked, curves, cursor: 10, fixed: 1, along: 100 })).options!
    .plugins!.annotation as { annotations: Record<string, { value?: number; content?: string }> }
  expect([annotations.cursor!.value, annotations.fixed!.value, annotations.along!.value]).toEqual([10, 1, 100])
  expect(annotations['level 0']!.value).toBe(-3)
  expect(Object.values(annotations).some((a) => a.content?.includes(' at '))).toBe(true)
  // −3.01 dB at 10: the crossing of −3 lies just before it.
  const [crossing] = featuresOf(marked, curves[0]!, true).filter((f) => f.kind === 'crossing')
  expect(crossing!.x).toBeGreaterThan(9)
  expect(crossing!.x).toBeLessThan(10)
})

test('zoomed: only what the window shows, and a point on either side', () => {
  const n = 1000
  const long = source('y', {
    x: Float64Array.from({ length: n }, (_, k) => k + 1),
    re: Float64Array.from({ length: n }, (_, k) => k),
    im: null,
    decades: false,
  })
  const only = { ...plate, parts: ['re' as const] }
  const curves = curvesOf(only, [long], null, 'deg')
  const { data: shown } = curveConfig(frame({ plate: only, curves, window: { low: 100, high: 110 } }))
  expect(shown.datasets[0]!.data.map((p) => p.x)).toEqual(Array.from({ length: 13 }, (_, k) => 99 + k))
})

test('as a table for a spreadsheet', () => {
  const only = { ...plate, parts: ['re' as const] }
  const same = curvesOf(only, [source('a', { im: null }), source('b, c', { im: null, re: Float64Array.of(7, NaN, 9) })], null, 'deg') // prettier-ignore
  expect(curvesCsv(same, 'f')).toBe('f,a,"b, c"\r\n1,1,7\r\n10,0.5,\r\n100,0,9')
  const other = source('d', { x: Float64Array.of(2, 3), re: Float64Array.of(4, 5), im: null })
  expect(curvesCsv(curvesOf(only, [source('a', { im: null }), other], null, 'deg'), '')).toBe(
    'parameter,a,parameter,d\r\n1,1,2,4\r\n10,0.5,3,5\r\n100,0,,',
  )
  expect(curvesCsv([], 'f')).toBe('')
})
