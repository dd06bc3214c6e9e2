import 'fake-indexeddb/auto'
import { effectScope, nextTick, watch } from 'vue'
import { usePlateSweeps } from '~/composables/plateSweeps'
import { useFolioStore } from './folio'
import { closeServed, openServed } from './pageForTests'
import { usePlatesStore } from './plates'
import { useResultsStore } from './results'
import { useVernierStore } from './vernier'

/** While a number is under the hand: what is shown when, and what is left alone. */

const SOURCES = ['unknown s', 'k = 1.00', 'T = 1/(s + k)', 't = 0 to 4 step 0.5', 'y = step_response(T, t)', 'a = k + 1', 'b = k + 2', 'c = 7', 'p = poles(T)'] // prettier-ignore
const id = (n: number): string => `line-000${n}`

let folio: ReturnType<typeof useFolioStore>
let results: ReturnType<typeof useResultsStore>
let plates: ReturnType<typeof usePlatesStore>
let vernier: ReturnType<typeof useVernierStore>
let frames: FrameRequestCallback[] = []

beforeEach(async () => {
  await openServed(SOURCES)
  folio = useFolioStore()
  results = useResultsStore()
  plates = usePlatesStore()
  vernier = useVernierStore()
  plates.showCurves(id(5))
  await nextTick()
  await results.watchAlso({})
})
afterEach(async () => {
  Reflect.deleteProperty(globalThis, 'requestAnimationFrame')
  Reflect.deleteProperty(globalThis, 'document')
  await closeServed()
})

/** From here on the page has frames, which come when the test says so. */
function withFrames(): void {
  frames = []
  Object.assign(globalThis, {
    requestAnimationFrame: (run: FrameRequestCallback) => frames.push(run),
    document: { visibilityState: 'visible' },
  })
}

/** A frame that others have used for so long. */
async function frame(before = 0): Promise<void> {
  const [...all] = frames
  frames = []
  for (const run of all) run(performance.now() - before)
  for (let k = 0; k < 60; k += 1) await Promise.resolve()
}
const answered = (): Promise<void> => new Promise((done) => setTimeout(done, 60))
const text = (n: number): string => {
  const shown = results.views.get(id(n))?.readout
  return shown && 'text' in shown ? shown.text : ''
}
const end = (n: number): number => results.views.get(id(n))?.sweep?.re.at(-1) ?? NaN

test('nothing is shown before a frame; then the line in hand together with the curves, then the rest', async () => {
  withFrames()
  const before = end(5)
  vernier.take(id(2))
  vernier.slide(2)
  await answered()
  expect([text(2), text(6), end(5)]).toEqual(['1', '2', before])
  // Nearly no time is left in this one.
  await frame(9)
  await frame(9)
  await frame(9)
  expect(text(2)).toBe('2')
  expect(end(5)).toBeCloseTo((1 - Math.exp(-8)) / 2, 9)
  expect(text(6)).toBe('2')
  await frame()
  await frame()
  expect([text(6), text(7)]).toEqual(['3', '4'])
})

test('what is not shown yet is not overtaken: the newest number is reckoned when it is', async () => {
  withFrames()
  vernier.take(id(2))
  vernier.slide(2)
  await answered()
  for (const k of [3, 4, 5]) vernier.slide(k)
  await answered()
  for (let k = 0; k < 12; k += 1) await frame()
  expect(text(6)).toBe('3')
  await answered()
  for (let k = 0; k < 12; k += 1) await frame()
  expect(text(6)).toBe('6')
})

test('let go, all is shown at once, without any frame', async () => {
  withFrames()
  vernier.take(id(2))
  vernier.slide(2)
  await answered()
  vernier.letGo()
  await answered()
  expect([text(2), text(6), text(7)]).toEqual(['2', '3', '4'])
  expect(folio.lineOf(id(2))?.source).toBe('k = 2.00')
})

test('given back, nothing of it comes later', async () => {
  withFrames()
  vernier.take(id(2))
  vernier.slide(2)
  await answered()
  vernier.restore()
  await answered()
  for (let k = 0; k < 12; k += 1) await frame()
  expect([text(2), text(6), text(7)]).toEqual(['1', '2', '3'])
})

describe('plates', () => {
  test('keep what is on them as it was while other lines change', async () => {
    const scope = effectScope()
    let drawn = 0
    const sweeps = scope.run(() => {
      const found = usePlateSweeps(() => plates.plate)
      watch(found, () => (drawn += 1), { flush: 'sync' })
      return found
    })!
    const [before, inks] = [sweeps.value, plates.inks]
    folio.rewrite(id(8), 'c = 8', 'test')
    await nextTick()
    await results.watchAlso({})
    expect(text(8)).toBe('8')
    expect(sweeps.value).toBe(before)
    expect(plates.inks).toBe(inks)
    expect(drawn).toBe(0)
    folio.rewrite(id(2), 'k = 3', 'test')
    await nextTick()
    await results.watchAlso({})
    expect(sweeps.value).not.toBe(before)
    expect(sweeps.value[0]!.data.re.at(-1)).toBeCloseTo((1 - Math.exp(-12)) / 3, 9)
    scope.stop()
  })

  test('follow another dress, another name and what is put on them', async () => {
    const scope = effectScope()
    const sweeps = scope.run(() => usePlateSweeps(() => plates.plate))!
    const before = sweeps.value
    plates.dressUp(id(5), { hue: 6 })
    await nextTick()
    expect(sweeps.value).not.toBe(before)
    expect(sweeps.value[0]!.ink.hue).toBe(6)
    plates.put(plates.plate, id(3), true)
    await nextTick()
    await results.watchAlso({})
    expect(sweeps.value.map(({ name }) => name)).toEqual(['T', 'y'])
    folio.rewrite(id(5), 'v = step_response(T, t)', 'test')
    await nextTick()
    await results.watchAlso({})
    expect(sweeps.value.map(({ name }) => name)).toEqual(['T', 'v'])
    scope.stop()
  })
})
