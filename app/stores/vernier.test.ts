import 'fake-indexeddb/auto'
import { nextTick } from 'vue'
import { useFolioStore } from './folio'
import { closeServed, openServed } from './pageForTests'
import { isTransferView, usePlatesStore } from './plates'
import { useResultsStore } from './results'
import { useVernierStore } from './vernier'

const SOURCES = [
  'unknown s',
  'zeta = 0.2  # damping',
  'G = 4/(s^2 + 4*zeta*s + 4)',
  't = 0 to 8 step 0.5',
  'y = step_response(G, t)',
  'p = poles(G)',
  'k = -3',
]
const id = (n: number): string => `line-000${n}`

let folio: ReturnType<typeof useFolioStore>
let vernier: ReturnType<typeof useVernierStore>
let results: ReturnType<typeof useResultsStore>
let plates: ReturnType<typeof usePlatesStore>

beforeEach(async () => {
  await openServed(SOURCES)
  folio = useFolioStore()
  vernier = useVernierStore()
  results = useResultsStore()
  plates = usePlatesStore()
})
afterEach(closeServed)

const source = (n: number): string => folio.lineOf(id(n))?.source ?? ''
const settled = async (): Promise<void> => {
  await nextTick()
  await results.watchAlso({})
}

describe('a number in hand', () => {
  test('is read as it is written, with a range and a step that suit it', () => {
    expect(vernier.take(id(2))).toBe(true)
    expect([vernier.value, vernier.low, vernier.high, vernier.step]).toEqual([0.2, 0, 0.4, 0.01])
    expect(vernier.text).toBe(SOURCES[1])
    expect(vernier.text.slice(vernier.span.from, vernier.span.to)).toBe('0.2')
  })

  test('is slid: the results follow before anything is kept, and letting go is one step to undo', async () => {
    vernier.take(id(2))
    vernier.nudge(10)
    vernier.nudge(5)
    await settled()
    expect(vernier.text).toBe('zeta = 0.35  # damping')
    expect(source(2)).toBe(SOURCES[1])
    expect(results.views.get(id(3))?.readout).toMatchObject({ text: '4/(s^2 + 1.4s + 4)' })
    vernier.letGo()
    expect(source(2)).toBe('zeta = 0.35  # damping')
    expect(vernier.held).toBeNull()
    folio.undo()
    expect(source(2)).toBe(SOURCES[1])
  })

  test('goes back to what it was, even after some of it was kept', async () => {
    vernier.take(id(2))
    vernier.slide(0.31)
    vernier.settle()
    expect(source(2)).toBe('zeta = 0.31  # damping')
    vernier.slide(0.4)
    vernier.restore()
    await settled()
    expect(source(2)).toBe(SOURCES[1])
    expect(results.views.get(id(3))?.readout).toMatchObject({ text: '4/(s^2 + 0.8s + 4)' })
  })

  test('the others of a line come one after another', () => {
    vernier.take(id(3), 0)
    expect(vernier.value).toBe(4)
    vernier.another(1)
    expect(vernier.value).toBe(2)
    vernier.another(-1)
    vernier.another(-1)
    expect([vernier.value, vernier.held?.place]).toEqual([4, 3])
  })

  test('of a line without one nothing is taken, and that is said', () => {
    expect(vernier.take(id(1))).toBe(false)
    expect(folio.notice).toContain('no real number')
  })

  test('is let go where its line is edited by hand, or taken away', async () => {
    vernier.take(id(2))
    folio.edit(id(2))
    await nextTick()
    expect(vernier.held).toBeNull()
    folio.keep()
    vernier.take(id(7))
    folio.remove(id(7))
    await nextTick()
    expect(vernier.held).toBeNull()
  })

  test('a range and a step that make no sense are refused', () => {
    vernier.take(id(2))
    expect(vernier.set({ low: 5 })).toBe(false)
    expect(vernier.set({ step: 0 })).toBe(false)
    expect(vernier.set({ high: NaN })).toBe(false)
    expect(vernier.set({ low: -1, high: 1, step: 1e-9 })).toBe(false)
    expect(vernier.set({ low: -1, high: 1, step: 0.25 })).toBe(true)
    vernier.slide(0.6)
    expect(vernier.value).toBe(0.5)
    vernier.slide(-0.5)
    expect(vernier.text).toBe('zeta = -0.50  # damping')
  })
})

describe('families', () => {
  const family = async (values: readonly string[]): Promise<void> => {
    plates.showCurves(id(5))
    plates.change(plates.plate, { family: { line: id(2), values: [...values] } })
    await settled()
    await settled()
  }

  test('show a curve for each value, told apart by dash and name, in one hue', async () => {
    await family(['0.1', '0.7', '1'])
    const shown = plates.sweepsOn(plates.plate)
    expect(shown.map(({ member }) => member)).toEqual(['ζ = 0.2', 'ζ = 0.1', 'ζ = 0.7', 'ζ = 1'])
    expect(new Set(shown.map(({ ink }) => ink.hue)).size).toBe(1)
    expect(new Set(shown.map(({ ink }) => ink.dash.join())).size).toBe(4)
    // Critically damped nothing goes beyond 1.
    expect(Math.max(...shown[3]!.data.re)).toBeLessThan(1)
    expect(Math.max(...shown[1]!.data.re)).toBeGreaterThan(1.6)
    // Only the curve of the folio as it stands has its figures marked.
    expect(shown.map(({ data }) => (data.marks ?? []).length > 0)).toEqual([true, false, false, false])
  })

  test('follow what changes elsewhere, and leave out what has no value', async () => {
    await family(['1', 'oops'])
    const before = plates.sweepsOn(plates.plate)[1]!.data.re[3]
    folio.rewrite(id(3), 'G = 9/(s^2 + 6*zeta*s + 9)', 'test')
    await settled()
    await settled()
    const shown = plates.sweepsOn(plates.plate)
    expect(shown).toHaveLength(2)
    expect(shown[1]!.data.re[3]).not.toBe(before)
  })

  test('of poles stand beside them on a plane', async () => {
    plates.change(plates.plate, { family: { line: id(2), values: ['0.5'] } })
    await settled()
    await settled()
    const [member] = plates.membersOf(plates.plate)
    const drawn = member?.member.drawn.get(id(6))
    expect(member?.label).toBe('ζ = 0.5')
    expect(drawn).toMatchObject({ role: 'cross' })
    expect(drawn!.entries.map(({ re }) => re)).toEqual([-1, -1])
  })
})

describe('a transfer function', () => {
  test('is put on curves and planes as its frequency response', async () => {
    const view = results.views.get(id(3))!
    expect(isTransferView(view)).toBe(true)
    plates.showCurves(id(3))
    await settled()
    expect(plates.plate.caption).toBe('Frequency response G')
    const [shown] = plates.sweepsOn(plates.plate)
    expect(shown?.data).toMatchObject({ axis: 'ω', decades: true })
    expect(shown!.data.re.length).toBeGreaterThan(100)
    plates.showLocus(id(3))
    expect(plates.plate.caption).toBe('Locus of G about −1')
  })

  test('a polynomial is none', () => expect(isTransferView(results.views.get(id(6))!)).toBe(false))
})
