/** @jest-environment jsdom */
import { OverFrames } from './overFrames'

/** Changes shown over several frames; the frames, and the time that they take, are the test's own. */

let frames: FrameRequestCallback[] = []
let now = 0
let began = 0

beforeEach(() => {
  frames = []
  now = 1000
  jest.spyOn(performance, 'now').mockImplementation(() => now)
  globalThis.requestAnimationFrame = (run) => frames.push(run)
})
afterEach(() => jest.restoreAllMocks())

/** The next frame; `before` milliseconds of it are gone already. */
async function frame(before = 0): Promise<void> {
  const [...all] = frames
  frames = []
  began = now
  now += before
  for (const run of all) run(began)
  for (let k = 0; k < 40; k += 1) await Promise.resolve()
  now = Math.max(now, began + 17)
}

/** Each change takes so long to show. */
function shower(took: number) {
  const shown: string[] = []
  const change = (key: string, value = key) => [key, () => {
    now += took
    shown.push(value)
  }] as const // prettier-ignore
  return { shown, change }
}

test('many quick changes go into one frame', async () => {
  const over = new OverFrames<string>()
  const { shown, change } = shower(0.5)
  over.put(['a', 'b', 'c', 'd'].map((key) => change(key)))
  expect(shown).toEqual([])
  await frame()
  expect(shown).toEqual(['a', 'b', 'c', 'd'])
  expect(frames).toHaveLength(0)
})

test('slow ones are spread, at least one a frame, in their order', async () => {
  const over = new OverFrames<string>()
  const { shown, change } = shower(9)
  over.put(['a', 'b', 'c'].map((key) => change(key)))
  await frame()
  expect(shown).toEqual(['a'])
  await frame()
  await frame()
  expect(shown).toEqual(['a', 'b', 'c'])
})

test('of one thing only the newest change is shown, and in the place of the one before', async () => {
  const over = new OverFrames<string>()
  const { shown, change } = shower(9)
  over.put([change('a', 'a1'), change('b', 'b1'), change('c', 'c1')])
  await frame()
  over.put([change('a', 'a2'), change('b', 'b2'), change('c', 'c2')])
  await frame()
  await frame()
  await frame()
  // Each has its turn: what was shown last waits for the others.
  expect(shown).toEqual(['a1', 'b2', 'c2', 'a2'])
})

test('a frame that others have filled is left to them, but not for ever', async () => {
  const over = new OverFrames<string>()
  const { shown, change } = shower(1)
  over.put([change('a')])
  await frame(12)
  await frame(12)
  expect(shown).toEqual([])
  await frame(12)
  expect(shown).toEqual(['a'])
})

test('all at once where that is asked for; what is dropped never comes', async () => {
  const over = new OverFrames<string>()
  const { shown, change } = shower(1)
  over.put([change('a'), change('b')])
  over.flush()
  expect(shown).toEqual(['a', 'b'])
  over.put([change('c')])
  over.drop()
  await frame()
  await frame()
  expect(shown).toEqual(['a', 'b'])
})

test('done is told when everything is shown, flushed or dropped', async () => {
  const over = new OverFrames<string>()
  const { change } = shower(9)
  const told: string[] = []
  const wait = (name: string) => void over.done.then(() => told.push(name))
  wait('nothing waits')
  await Promise.resolve()
  expect(told).toEqual(['nothing waits'])
  over.put([change('a'), change('b')])
  wait('shown')
  await frame()
  expect(told).toHaveLength(1)
  await frame()
  expect(told).toEqual(['nothing waits', 'shown'])
  over.put([change('a')])
  wait('flushed')
  over.flush()
  await Promise.resolve()
  over.put([change('a')])
  wait('dropped')
  over.drop()
  await Promise.resolve()
  expect(told.slice(2)).toEqual(['flushed', 'dropped'])
})

test('a page that nobody sees has no frames: there it is shown at once', () => {
  const over = new OverFrames<string>()
  const { shown, change } = shower(1)
  jest.spyOn(document, 'visibilityState', 'get').mockReturnValue('hidden')
  over.put([change('a'), change('b')])
  expect(shown).toEqual(['a', 'b'])
  expect(frames).toHaveLength(0)
})
