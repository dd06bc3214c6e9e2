/** @jest-environment jsdom */
import { fetchLeavesAhead } from './leavesAhead'

/** What is opened later is fetched when there is time, and not where data is to be saved. */

const setSaving = (saveData: boolean | undefined): void =>
  void Object.defineProperty(navigator, 'connection', { value: saveData === undefined ? undefined : { saveData }, configurable: true }) // prettier-ignore

beforeEach(() => jest.useFakeTimers())
afterEach(() => jest.useRealTimers())

test.each([
  [undefined, 2],
  [false, 2],
  [true, 0],
])('where the browser says %s to saving data, %d leaves are fetched ahead', (saves, expected) => {
  setSaving(saves)
  let fetched = 0
  const leaf = (): Promise<void> => {
    fetched += 1
    return fetched === 1 ? Promise.reject(new Error('offline')) : Promise.resolve()
  }
  fetchLeavesAhead([leaf, leaf])
  expect(fetched).toBe(0)
  jest.advanceTimersByTime(5_000)
  expect(fetched).toBe(expected)
})
