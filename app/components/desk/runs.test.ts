/** @jest-environment jsdom */
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { RunsReckoner } from '#core/views/runs'
import { Mounted } from '../mounted.testing'
import RunsResult from './RunsResult.vue'

/** What a watched line shows under a set. */

let page: Mounted
afterEach(() => page.close())

/** The cells of the last line, under the folio and under one set that gives `a` another value. */
function cellsOf(sources: readonly string[], value: string) {
  const lines = sources.map((source, k) => ({ id: String(k), source }))
  const task = {
    lines,
    varied: ['0'],
    watched: [String(lines.length - 1)],
    sets: [{ id: 'set', values: { 0: value } }],
  }
  return new RunsReckoner().reckon(task, DEFAULT_CONVENTIONS).watched[0]?.cells ?? []
}
const shown = (cell: ReturnType<typeof cellsOf>[number] | null, changes = true): string[] => {
  page = new Mounted(RunsResult, { cell, letter: 'j', changes }, [])
  return page.all('.form').map((form) => (form.textContent ?? '').trim())
}

test('a complex value stands in both forms, and so does its change, where changes are wanted', () => {
  const [own, other] = cellsOf(['a = 3', 'a + 4j'], '0')
  expect(shown(own ?? null)).toEqual(['3 + 4j', '5 ∠ 53.13°'])
  expect(page.text).not.toContain('change')
  expect(shown(other ?? null)).toEqual(['0 + 4j', '4 ∠ 90°', '−3 + 0j', '3 ∠ 180°'])
  expect(page.text).toContain('change')
  expect(shown(other ?? null, false)).toEqual(['0 + 4j', '4 ∠ 90°'])
})

test('vectors and matrices stand as they are typed, real ones in one form', () => {
  expect(shown(cellsOf(['a = 3', '[a, 2a]'], '1')[1] ?? null)).toEqual(['[1, 2]', '[−2, −4]'])
  expect(shown(cellsOf(['a = 1', '[[a*j, 0], [0, 1]]'], '2')[1] ?? null).slice(0, 2)).toEqual([
    '[[0 + 2j, 0], [0, 1]]',
    '[[2 ∠ 90°, 0], [0, 1]]',
  ])
  // Of what is long the rest is said to be left out.
  expect(shown(cellsOf(['a = 1', 'a*identity(40)'], '2')[1] ?? null)[0]).toMatch(/^\[\[2, 0.* … of 40 × 40$/)
  expect(shown(cellsOf(['a = 1', '[a*k for k = 1 to 90]'], '2')[1] ?? null)[0]).toMatch(/^\[2, 4.* … of 90$/)
})

test('an error is its sentence and nothing else; before anything is reckoned there is nothing', () => {
  const [, broken] = cellsOf(['a = 3', '2a'], '3 +')
  expect(shown(broken ?? null)).toEqual([])
  expect(page.one('.problem').textContent).toMatch(/line 1/)
  expect(shown(null)).toEqual([])
  expect(page.text).toBe('')
})
