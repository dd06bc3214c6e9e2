import 'fake-indexeddb/auto'
import { nextTick } from 'vue'
import { DASHES } from '#core/scene/scene'
import { isOn } from '#shared/plate'
import type { Plate } from '#shared/plate'
import { useDeskStore } from './desk'
import { useFolioStore } from './folio'
import { closeServed, openServed } from './pageForTests'
import { usePlatesStore } from './plates'
import { useResultsStore } from './results'

const SOURCES = ['V = 230∠0°', 'Z = 12 + 5j', 'I = V/Z', 'R = 47', 'f = 10 to 1000 per decade 4', 'H = 1/(1 + 0.01j*f)', 'p = [1, 2]', 'θ = 30°'] // prettier-ignore
const id = (n: number): string => `line-000${n}`

let folio: ReturnType<typeof useFolioStore>
let plates: ReturnType<typeof usePlatesStore>

beforeEach(async () => {
  await openServed(SOURCES)
  folio = useFolioStore()
  plates = usePlatesStore()
})
afterEach(closeServed)

const namesOn = (plate: Plate): string[] => plates.valuesOn(plate).map((c) => c.name)
const last = (): Plate => plates.all.at(-1) ?? plates.plate

test('without a plate there is one, on which every kept complex value stands', () => {
  expect(plates.all).toHaveLength(1)
  expect(plates.number).toBe(1)
  expect(namesOn(plates.plate)).toEqual(['V', 'Z', 'I', 'H', 'p'])
})

test('only what is drawn can be put on a plane, and only sweeps on curves', () => {
  expect(plates.candidatesFor(plates.plate).map((c) => c.name)).toEqual(['V', 'Z', 'I', 'R', 'f', 'H', 'p'])
  plates.addCurve()
  expect(plates.candidatesFor(last()).map((c) => c.name)).toEqual(['f', 'H'])
})

test('a value is taken off and put on as steps that undo', () => {
  plates.put(plates.plate, id(2), false)
  expect(namesOn(plates.plate)).toEqual(['V', 'I', 'H', 'p'])
  plates.put(plates.plate, id(4), true)
  expect(namesOn(plates.plate)).toEqual(['V', 'I', 'R', 'H', 'p'])
  folio.undo()
  folio.undo()
  expect(namesOn(plates.plate)).toEqual(['V', 'Z', 'I', 'H', 'p'])
})

test('each value has a dress of its own, which stays when others leave', () => {
  const dressOf = (n: number): string => JSON.stringify(plates.inkOfLine(id(n)))
  expect(new Set([1, 2, 3, 6, 7].map(dressOf)).size).toBe(5)
  const before = dressOf(3)
  plates.put(plates.plate, id(1), false)
  expect(dressOf(3)).toBe(before)
})

test('a dress that is set holds on every plate, and undoes as one step', () => {
  plates.addPlane()
  plates.dressUp(id(1), { hue: 5 })
  expect(plates.inkOfLine(id(1)).hue).toBe(5)
  plates.choose(plates.all[0]?.id ?? '')
  plates.dressUp(id(1), { dash: 'dotted' })
  expect(plates.inkOfLine(id(1))).toMatchObject({ hue: 5, dash: DASHES.dotted })
  // It is kept in one place only.
  expect(plates.all.filter((p) => id(1) in p.dress)).toHaveLength(1)
  folio.undo()
  folio.undo()
  expect(plates.inkOfLine(id(1)).hue).not.toBe(5)
})

test('a new plate keeps the first one with it and is shown; the last one cannot be removed', () => {
  plates.addPlane()
  expect(plates.all).toHaveLength(2)
  expect([plates.number, namesOn(plates.plate)]).toEqual([2, []])
  plates.remove(plates.plate)
  expect([plates.all.length, plates.number]).toEqual([1, 1])
  plates.remove(plates.plate)
  expect(plates.all).toHaveLength(1)
})

test('the large plate follows the line whose value another plate shows, unless it is pinned', async () => {
  plates.addPlane()
  plates.put(last(), id(4), true)
  plates.choose(plates.all[0]?.id ?? '')
  folio.makeCurrent(id(4))
  await nextTick()
  expect(plates.number).toBe(2)
  plates.choose(plates.all[0]?.id ?? '')
  plates.pinned = true
  folio.makeCurrent(id(3))
  await nextTick()
  folio.makeCurrent(id(4))
  await nextTick()
  expect(plates.number).toBe(1)
})

test('a locus and the curves of a frequency response are plates named after their sweep', () => {
  plates.showLocus(id(6))
  expect([last().kind, last().caption, namesOn(last())]).toEqual(['plane', 'Locus of H', ['H']])
  plates.showCurves(id(6))
  expect(last()).toMatchObject({ kind: 'curve', caption: 'Frequency response H', parts: ['dB', 'unwrapped'] })
  plates.showCurves(id(5))
  expect(last()).toMatchObject({ kind: 'curve', caption: 'f', parts: ['re'] })
})

test('the points of a sweep come once a plate shows it', async () => {
  plates.showCurves(id(6))
  await nextTick()
  await useResultsStore().apply({})
  const [sweep] = plates.sweepsOn(last())
  expect(sweep?.data.re).toHaveLength(9)
  expect(sweep?.data.re[0]).toBeCloseTo(1 / 1.01, 12)
})

test('reading along tells the value of every sweep at one point', async () => {
  plates.readAlong('f', 4)
  await useResultsStore().apply({})
  expect(plates.along).toEqual({ name: 'f', index: 4, entry: null })
  expect(useResultsStore().views.get(id(6))?.at).toMatchObject({ re: 0.5, im: -0.5 })
  plates.endReading()
  await useResultsStore().apply({})
  expect(useResultsStore().views.get(id(6))?.at).toBeNull()
})

test('reading along at a value that is typed is exact between the points, follows the folio, and says why where it cannot', async () => {
  const results = useResultsStore()
  plates.readAt('f', '50')
  await results.apply({})
  // 1/(1 + 0.5j) is 0.8 - 0.4j, and 50 is no point of the range.
  expect(results.views.get(id(6))?.at).toMatchObject({
    re: expect.closeTo(0.8, 14),
    im: expect.closeTo(-0.4, 14),
    exact: true,
  })
  expect(results.placed).toMatchObject({ problem: null, x: 50 })
  folio.rewrite(id(6), 'H = 1/(1 + f/50)', 'edit')
  await results.apply({})
  expect(results.views.get(id(6))?.at).toMatchObject({ re: 0.5, exact: true })
  folio.rewrite(id(6), 'H = f/max(f)', 'edit')
  await results.apply({})
  expect(results.views.get(id(6))?.at).toMatchObject({ exact: false })
  plates.readAt('f', '5 +')
  await results.apply({})
  expect(results.placed?.problem).toMatch(/missing/)
  expect(results.views.get(id(6))?.at).toBeNull()
  plates.readAt('f', ' ')
  await results.apply({})
  expect(plates.along).toBeNull()
  expect(results.placed).toBeNull()
})

test('in a stroll only what stands above has been drawn yet', () => {
  useDeskStore().stroll = 1
  expect(plates.candidates.map((c) => c.name)).toEqual(['V', 'Z'])
})

test('a value that is removed leaves the plate, and its dress is free', () => {
  const plate = plates.plate
  folio.remove(id(2))
  expect(isOn(plate, id(2), true)).toBe(true)
  expect(namesOn(plates.plate)).not.toContain('Z')
})
