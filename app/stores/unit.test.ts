import { createPinia, setActivePinia } from 'pinia'
import { nextTick, reactive, shallowReactive } from 'vue'
import { FolioEvaluator } from '#core/evaluate/folio'
import type { AngleUnit } from '#core/values/convert'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { Conventions } from '#core/format/conventions'
import { lineView } from '#core/views/lineView'
import type { LineView } from '#core/views/lineView'
import { EvaluatorService } from '~/workers/evaluator'
import { useUnitStore } from './unit'

/** A folio and its results as the stores have them, reckoned by the real core. */
const mockFolio = reactive({
  id: 'folio-1',
  conventions: { ...DEFAULT_CONVENTIONS },
  lines: [] as { id: string; source: string; note?: boolean }[],
  editing: null as null | { id: string },
  notice: '',
  tell(sentence: string) {
    this.notice = sentence
  },
  keep: (): void => undefined,
  lineOf: (id: string) => mockFolio.lines.find((l) => l.id === id) ?? null,
  indexOf: (id: string) => mockFolio.lines.findIndex((l) => l.id === id),
  perform: (_label: string, operations: readonly { id: string; source: string }[]) => {
    for (const { id, source } of operations)
      mockFolio.lines = mockFolio.lines.map((l) => (l.id === id ? { ...l, source } : l))
  },
})
const mockEvaluator = new FolioEvaluator()
const mockResults = {
  views: shallowReactive(new Map<string, LineView>()),
  get unitDependent(): string[] {
    return mockFolio.lines.map((l) => l.id).filter((id) => mockResults.views.get(id)?.unitDependent)
  },
  viewsUnder: (angle: AngleUnit, ids: readonly string[]) => {
    const other = new EvaluatorService()
    other.load([...mockFolio.lines], { ...mockFolio.conventions })
    return Promise.resolve(other.viewsUnder(angle, ids))
  },
  stamped: (units: ReadonlyMap<string, AngleUnit>) => Promise.resolve(mockEvaluator.stamped(units)),
}
jest.mock('./folio', () => ({ useFolioStore: () => mockFolio }))
jest.mock('./results', () => ({ useResultsStore: () => mockResults }))

function reckon(): void {
  const conventions: Conventions = { ...mockFolio.conventions }
  mockEvaluator.setSettings(conventions)
  mockEvaluator.setLines(mockFolio.lines.map(({ id, source }) => ({ id, source })))
  mockEvaluator.update()
  for (const { id } of mockFolio.lines) {
    const result = mockEvaluator.result(id)
    if (result) mockResults.views.set(id, lineView(result, conventions))
  }
}

async function switchTo(angle: AngleUnit): Promise<void> {
  mockFolio.conventions = { ...mockFolio.conventions, angle }
  await nextTick()
  reckon()
}

beforeEach(() => {
  setActivePinia(createPinia())
  mockFolio.conventions = { ...DEFAULT_CONVENTIONS }
  mockFolio.notice = ''
  mockFolio.lines = [
    'a = sin(30)',
    'b = 2a',
    'arcsin(0.5)',
    'A = [[30, 60], [90, 120]]',
    'cos(A)',
    '30° + 5',
    '2 + 2',
  ].map((source, k) => ({ id: `line-${k + 1}`, source }))
  mockResults.views.clear()
  reckon()
})

test('lists what a switch changed: what reads bare numbers, and what follows from it; nothing that only looks different', async () => {
  const unit = useUnitStore()
  expect(unit.changed).toEqual([])
  await switchTo('rad')
  expect(unit.changed.map((l) => [l.number, l.before, l.after, l.reads])).toEqual([
    [1, '0.5', '-0.98803', true],
    [2, '1', '-1.9761', false],
    [5, expect.stringContaining('0.86603'), expect.stringContaining('0.15425'), true],
    [6, '35°', '5.5236 rad', true],
  ])
})

test('a line is kept as it was written, and what follows from it is as it was, too', async () => {
  const unit = useUnitStore()
  await switchTo('rad')
  await unit.write(['line-1'])
  reckon()
  expect(mockFolio.lines[0]?.source).toBe('a = sin(30°)')
  expect(unit.changed.map((l) => l.number)).toEqual([5, 6])
  expect(mockFolio.notice).toBe('')
})

test('lines into which the unit cannot be written are named, and left alone', async () => {
  const unit = useUnitStore()
  await switchTo('rad')
  await unit.writeAll()
  reckon()
  expect(mockFolio.lines.map((l) => l.source)).toEqual([
    'a = sin(30°)', 'b = 2a', 'arcsin(0.5)', 'A = [[30, 60], [90, 120]]', 'cos(A)', '30° + 5°', '2 + 2',
  ]) // prettier-ignore
  expect(mockFolio.notice).toBe('Line 5 stays as it is: with the unit written in, it would not say the same.')
})

test('a line written after the switch is read in the unit of now', async () => {
  const unit = useUnitStore()
  await switchTo('rad')
  mockFolio.lines = mockFolio.lines.map((l) => (l.id === 'line-1' ? { ...l, source: 'a = sin(2)' } : l))
  reckon()
  expect(unit.writtenUnder('line-1')).toBe('rad')
  expect(unit.writtenUnder('line-6')).toBe('deg')
  await unit.write(['line-1'])
  expect(mockFolio.lines[0]?.source).toBe('a = sin(2 rad)')
})

test('switched before anything was reckoned, the list says what would have been shown, and names no line that says the same', async () => {
  const unit = useUnitStore()
  mockResults.views.clear()
  mockFolio.conventions = { ...mockFolio.conventions, angle: 'rad' }
  expect([unit.changed, unit.comparing]).toEqual([[], true])
  await nextTick()
  expect([unit.changed, unit.comparing]).toEqual([[], true])
  reckon()
  await nextTick()
  expect(unit.changed.map((l) => [l.number, l.before, l.after])).toEqual([
    [1, '0.5', '-0.98803'],
    [2, '1', '-1.9761'],
    [5, expect.stringContaining('0.86603'), expect.stringContaining('0.15425')],
    [6, '35°', '5.5236 rad'],
  ])
  expect(unit.comparing).toBe(false)
})

test('what is still shown of another text or unit is not what a line said', async () => {
  const unit = useUnitStore()
  // Typed just now, and switched before it was reckoned.
  mockFolio.lines = mockFolio.lines.map((l) => (l.id === 'line-1' ? { ...l, source: 'a = cos(60)' } : l))
  await switchTo('rad')
  await nextTick()
  expect(unit.changed[0]).toMatchObject({ number: 1, before: '0.5', after: '-0.95241' })
  // Switched and back, and on, while the views are still those of before.
  unit.dismiss()
  mockFolio.conventions = { ...mockFolio.conventions, angle: 'deg' }
  mockFolio.conventions = { ...mockFolio.conventions, angle: 'rad' }
  unit.dismiss()
  mockFolio.conventions = { ...mockFolio.conventions, angle: 'deg' }
  await nextTick()
  expect(unit.changed).toEqual([])
  reckon()
  await nextTick()
  expect(unit.changed.map((l) => [l.number, l.before, l.after])[0]).toEqual([1, '-0.95241', '0.5'])
})

test('switching back, another folio, and having seen it end the list', async () => {
  const unit = useUnitStore()
  await switchTo('rad')
  await switchTo('deg')
  expect(unit.switched).toBeNull()
  await switchTo('rad')
  unit.dismiss()
  expect(unit.changed).toEqual([])
  await switchTo('deg')
  expect(unit.changed.length).toBeGreaterThan(0)
  mockFolio.id = 'folio-2'
  await nextTick()
  expect(unit.switched).toBeNull()
})
