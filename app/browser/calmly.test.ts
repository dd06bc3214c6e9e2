/** @jest-environment jsdom */
import { effectScope, ref } from 'vue'
import { drawCalmly } from './calmly'

/** Small pictures follow, but rest in between. */

let frames: FrameRequestCallback[] = []

beforeEach(() => {
  jest.useFakeTimers({ doNotFake: ['requestAnimationFrame'] })
  frames = []
  globalThis.requestAnimationFrame = (run) => frames.push(run)
})
afterEach(() => jest.useRealTimers())

function frame(): void {
  const [...all] = frames
  frames = []
  for (const run of all) run(performance.now())
}

function drawing() {
  const source = ref(1)
  const drawn: number[] = []
  const scope = effectScope()
  scope.run(() => drawCalmly(() => drawn.push(source.value)))
  return { source, drawn, scope }
}

test('it is drawn in the next frame, and only once however much changes before', () => {
  const { source, drawn } = drawing()
  expect(drawn).toEqual([])
  source.value = 2
  source.value = 3
  frame()
  expect(drawn).toEqual([3])
})

test('then it rests, and draws what is so afterwards', () => {
  const { source, drawn } = drawing()
  frame()
  for (let k = 2; k <= 9; k += 1) {
    source.value = k
    frame()
    jest.advanceTimersByTime(17)
    frame()
  }
  expect(drawn).toEqual([1])
  jest.advanceTimersByTime(300)
  frame()
  expect(drawn).toEqual([1, 9])
})

test('what does not change is not drawn again', () => {
  const { drawn } = drawing()
  frame()
  jest.advanceTimersByTime(1000)
  frame()
  expect(drawn).toEqual([1])
})

test('one that is gone draws no more', () => {
  const { source, drawn, scope } = drawing()
  frame()
  scope.stop()
  source.value = 5
  jest.advanceTimersByTime(1000)
  frame()
  expect(drawn).toEqual([1])
})
