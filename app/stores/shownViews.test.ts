import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { EvaluatorService } from '~/workers/evaluator'
import { endWorkers, workersOf } from '~/workers/workerForTests'
import { useResultsStore } from './results'

/**
 * Whatever comes in whatever order, and however late the frames are: in the end every line shows what its
 * text comes to, as an evaluator that has seen nothing else tells it.
 */

let frames: FrameRequestCallback[] = []
let results: ReturnType<typeof useResultsStore>

beforeEach(() => {
  frames = []
  Object.assign(globalThis, { document: { visibilityState: 'visible' } })
})
afterEach(() => {
  endWorkers()
  Reflect.deleteProperty(globalThis, 'requestAnimationFrame')
  Reflect.deleteProperty(globalThis, 'document')
})

function begin(): void {
  setActivePinia(createPinia())
  workersOf((post) => new EvaluatorService(undefined, (line) => post({ line })))
  results = useResultsStore()
}

async function frame(before = 0): Promise<void> {
  const all = frames
  frames = []
  for (const run of all) run(performance.now() - before)
  for (let k = 0; k < 20; k += 1) await Promise.resolve()
}

const IDS = ['l1', 'l2', 'l3', 'l4', 'l5', 'l6']
/** Texts that read one another's names, sweep, fail, and take long enough to be postponed. */
const TEXTS = ['', 'a = 2', 'f = 1 to 6', 'b = a + 1j', 'a = 3', 'f = 1 to 11', 'a + 4', 'f*a', '5', '2 + 3j', 'a +', 'a b', '1 to 7', '[[a, 1], [1, 2]]', 'sin(30)', 'sum(f)'] // prettier-ignore

type Step =
  | { readonly type: 'type' | 'keep' | 'enter'; readonly line: number; readonly text: number }
  | { readonly type: 'place' | 'take away' | 'watch' | 'turn' | 'along'; readonly line: number }
  | { readonly type: 'settle' | 'frame' | 'full frame' | 'answers' | 'switch' | 'stop' }

const line = fc.nat({ max: IDS.length - 1 })
const text = fc.nat({ max: TEXTS.length - 1 })
const sort = <T extends Step['type']>(...types: readonly T[]) => fc.constantFrom(...types)
const steps = fc.array(
  fc.oneof(
    { weight: 8, arbitrary: fc.record({ type: sort('type', 'enter', 'enter'), line, text }) },
    { weight: 3, arbitrary: fc.record({ type: sort('keep'), line, text }) },
    { weight: 4, arbitrary: fc.record({ type: sort('place', 'take away', 'watch', 'along'), line }) },
    { weight: 6, arbitrary: fc.record({ type: sort('answers', 'answers', 'frame', 'full frame', 'settle') }) },
    // Both tell everything anew.
    { weight: 1, arbitrary: fc.record({ type: sort('switch', 'stop') }) },
  ),
  { minLength: 4, maxLength: 24 },
)

/** The page as it is used, on the folio as it should be. */
class Page {
  order: string[] = ['l1', 'l2', 'l3']
  readonly texts = new Map(IDS.map((id, k) => [id, k < 3 ? (TEXTS[k + 1] ?? '') : '']))
  typed: { id: string; text: string } | null = null
  sweeps: string[] = []
  along: string | null = null
  angle: 'deg' | 'rad' = 'deg'

  sources(): { id: string; source: string }[] {
    return this.order.map((id) => ({ id, source: this.texts.get(id) ?? '' }))
  }
  get conventions() {
    return { ...DEFAULT_CONVENTIONS, angle: this.angle }
  }

  /** What is typed is kept when the hand goes elsewhere. */
  keep(): void {
    const { typed } = this
    this.typed = null
    if (!typed) return
    if (this.texts.get(typed.id) !== typed.text) {
      this.texts.set(typed.id, typed.text)
      void results.apply({ sources: [{ id: typed.id, source: typed.text }] })
    }
    void results.settle()
  }

  async act(step: Step): Promise<void> {
    switch (step.type) {
      case 'type': {
        const id = this.order[step.line]
        if (id === undefined) return
        if (this.typed?.id !== id) this.keep()
        this.typed = { id, text: TEXTS[step.text] ?? '' }
        return void results.type(id, this.typed.text)
      }
      case 'keep': {
        const id = this.order[step.line]
        if (id === undefined || this.typed?.id === id) return
        this.texts.set(id, TEXTS[step.text] ?? '')
        return void results.apply({ sources: [{ id, source: this.texts.get(id) ?? '' }] })
      }
      case 'enter':
      case 'place': {
        const id = IDS.find((other) => !this.order.includes(other))
        if (id === undefined) return
        this.keep()
        this.order.splice(step.line, 0, id)
        this.texts.set(id, '')
        void results.apply({ order: [...this.order], sources: [{ id, source: '' }] })
        return step.type === 'enter'
          ? this.act({ type: 'type', line: this.order.indexOf(id), text: step.text })
          : undefined
      }
      case 'take away': {
        const id = this.order[step.line]
        if (id === undefined || this.order.length < 2) return
        this.keep()
        this.order = this.order.filter((other) => other !== id)
        return void results.apply({ order: [...this.order] })
      }
      case 'watch': {
        const id = IDS[step.line] ?? ''
        this.sweeps = this.sweeps.includes(id) ? this.sweeps.filter((other) => other !== id) : [...this.sweeps, id]
        return void results.watchAlso({ sweeps: this.sweeps })
      }
      case 'along':
        this.along = this.along === null ? 'f' : null
        return void results.watchAlso({ along: this.along === null ? null : { name: 'f', index: step.line, entry: null } }) // prettier-ignore
      case 'settle':
        return this.keep()
      case 'switch':
        this.angle = this.angle === 'deg' ? 'rad' : 'deg'
        return void results.apply({ conventions: this.conventions })
      case 'stop':
        return results.stop()
      case 'frame':
        return frame(9)
      case 'full frame':
        return frame()
      case 'answers':
        return new Promise((done) => setTimeout(done, 12))
    }
  }
}

/** What a fresh evaluator tells of the same folio. */
function fresh(page: Page) {
  const evaluator = new EvaluatorService()
  const { views } = evaluator.load(page.sources(), page.conventions, [...results.held], {
    chains: [],
    sweeps: page.sweeps,
    along: null,
    families: [],
  })
  return new Map(views.map((view) => [view.id, view]))
}

async function expectTrue(page: Page): Promise<void> {
  for (let k = 0; k < 40; k += 1) await frame()
  await results.apply({})
  await new Promise((done) => setTimeout(done, 5))
  for (let k = 0; k < 10; k += 1) await frame()
  for (const [id, view] of fresh(page)) {
    const shown = results.views.get(id)
    expect([id, shown?.source]).toEqual([id, page.texts.get(id)])
    expect({ ...shown, at: null }).toEqual({ ...view, at: null })
  }
  expect([...results.views.keys()].filter((id) => IDS.includes(id)).sort()).toEqual([...page.order].sort())
}

test('every line ends with the view of its text, whatever was typed, kept, placed, watched and shown late', async () => {
  await fc.assert(
    fc.asyncProperty(steps, fc.boolean(), async (list, hasFrames) => {
      frames = []
      // Without frames what is shown comes by itself after a while.
      Object.assign(globalThis, { requestAnimationFrame: (run: FrameRequestCallback) => (hasFrames ? frames.push(run) : 0) }) // prettier-ignore
      begin()
      const page = new Page()
      void results.load(page.sources(), page.conventions)
      for (const step of list) await page.act(step)
      page.keep()
      await expectTrue(page)
      results.close()
      endWorkers()
    }),
    { numRuns: 60 },
  )
}, 60_000)

test('a page that has no frames shows what is typed all the same, and goes on', async () => {
  Object.assign(globalThis, { requestAnimationFrame: () => 0 })
  begin()
  const page = new Page()
  await results.load(page.sources(), page.conventions)
  await results.type('l1', 'a = 5')
  await results.type('l1', 'a = 7')
  expect(results.views.get('l3')?.readout).toMatchObject({ rectangular: '7 + 1j' })
  results.close()
})

test('a line that the worker does not tell, or tells of another text, is asked for again: once', async () => {
  Object.assign(globalThis, { requestAnimationFrame: (run: FrameRequestCallback) => frames.push(run) })
  let asked = 0
  /** Forgets what it should tell of the second line. */
  class Forgetful extends EvaluatorService {
    override apply(...given: Parameters<EvaluatorService['apply']>) {
      const update = super.apply(...given)
      return { ...update, views: update.views.filter(({ id }) => id !== 'l2') }
    }
    override again(...given: Parameters<EvaluatorService['again']>) {
      asked += 1
      const update = super.again(...given)
      return given[0].some(({ source }) => source === '5') ? { ...update, views: [] } : update
    }
  }
  setActivePinia(createPinia())
  workersOf(() => new Forgetful())
  results = useResultsStore()
  const page = new Page()
  await results.load(page.sources(), page.conventions)
  void results.apply({ sources: [{ id: 'l2', source: 'f = 1 to 11' }] })
  expect(results.isOfItsText('l2')).toBe(false)
  await new Promise((done) => setTimeout(done, 60))
  expect([results.views.get('l2')?.source, asked]).toEqual(['f = 1 to 11', 1])
  void results.apply({ sources: [{ id: 'l2', source: '5' }] })
  await new Promise((done) => setTimeout(done, 120))
  expect([results.isOfItsText('l2'), asked]).toEqual([false, 2])
  results.close()
})
