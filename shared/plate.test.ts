import { freshCurve, freshPlate, isOn, plateSchema, relinked, withValue } from './plate'

const A = 'line-aaaa'
const B = 'line-bbbb'

describe('what is on a plate', () => {
  test('a plate of all has every usual value but those taken off, and others that are put on', () => {
    const all = freshPlate('plate-one1')
    expect(isOn(all, A, true)).toBe(true)
    expect(isOn(all, A, false)).toBe(false)
    const less = withValue(all, A, true, false)
    expect(isOn(less, A, true)).toBe(false)
    expect(isOn(withValue(less, A, true, true), A, true)).toBe(true)
    expect(isOn(withValue(all, B, false, true), B, false)).toBe(true)
  })
  test('any other has what is put on it', () => {
    const some = withValue(freshPlate('plate-two2', false), A, true, true)
    expect([isOn(some, A, true), isOn(some, B, true)]).toEqual([true, false])
    expect(withValue(some, A, true, true).on).toEqual([A])
    expect(withValue(some, A, true, false).on).toEqual([])
  })
})

test('a plate that was kept before plates had all of this is read with what it lacks', () => {
  const old = {
    id: 'plate-old1',
    kind: 'plane',
    caption: 'Old',
    re: 'Re',
    im: 'Im',
    grid: 'polar',
    unitCircle: true,
    conjugates: false,
    labels: true,
    off: [A],
  }
  const read = plateSchema.parse(old)
  expect(read).toMatchObject({ ...old, all: true, on: [], dress: {}, chains: [], circles: [], range: null })
})

test('plates of both kinds are valid as they begin', () => {
  for (const plate of [freshPlate('plate-one1'), freshCurve('plate-two2', ['dB', 'angle'], [A], 'Response')])
    expect(plateSchema.parse(plate)).toEqual(plate)
  expect(freshCurve('plate-two2', ['dB', 'angle'], [A], '').stacked).toBe(true)
})

test.each([
  { kind: 'curve', parts: [] },
  { kind: 'curve', parts: ['volume'] },
  { kind: 'pie' },
  { kind: 'plane', circles: [{ re: 0, im: 0, radius: -1 }] },
  { kind: 'plane', range: { left: NaN, right: 1, bottom: 0, top: 1 } },
  { kind: 'plane', dress: { [A]: { hue: 9 } } },
  { kind: 'plane', dress: { [A]: { colour: 'red' } } },
  { kind: 'plane', caption: 'x'.repeat(201) },
])('%o is refused', (change) => {
  const base = change.kind === 'curve' ? freshCurve('plate-one1', ['re'], [], '') : freshPlate('plate-one1')
  expect(plateSchema.safeParse({ ...base, ...change }).success).toBe(false)
})

test('lines under other identifiers: what is not there is left out', () => {
  const ids = new Map([[A, 'line-cccc']])
  const plate = {
    ...freshPlate('plate-one1', false),
    on: [A, B],
    chains: [A],
    dress: { [A]: { hue: 2 }, [B]: { hue: 3 } },
  }
  expect(relinked(plate, ids)).toMatchObject({
    on: ['line-cccc'],
    chains: ['line-cccc'],
    dress: { 'line-cccc': { hue: 2 } },
  })
  const curve = { ...freshCurve('plate-two2', ['re'], [A], ''), over: B }
  expect(relinked(curve, ids)).toMatchObject({ on: ['line-cccc'], over: null })
})

test('the answers of a line go with it under its new identifier', () => {
  const ids = new Map([[A, 'line-cccc']])
  const plate = {
    ...freshPlate('plate-one1', false),
    on: [`${A}-1`, `${A}-2`, `${B}-1`],
    dress: { [`${A}-2`]: { hue: 4 } },
  }
  expect(relinked(plate, ids)).toMatchObject({
    on: ['line-cccc-1', 'line-cccc-2'],
    dress: { 'line-cccc-2': { hue: 4 } },
  })
})
