import { createPinia, setActivePinia } from 'pinia'
import type { Folio } from '#shared/folio'
import { useFolioStore } from './folio'

/** The store on its own: no worker, no server; what is sent to either is not its business here. */
jest.mock('./results', () => ({
  useResultsStore: () => ({
    views: new Map(), unitDependent: ['line-0002'],
    load: async () => undefined, apply: async () => undefined, type: async () => undefined,
    settle: async () => undefined, close: () => undefined,
  }),
})) // prettier-ignore
jest.mock('idb-keyval', () => ({ get: async () => undefined, set: async () => undefined, del: async () => undefined }))

const served: Folio = {
  id: 'folio-01', title: 'Test', revision: 0, createdAt: '', changedAt: '2026-01-01T00:00:00Z', binnedAt: null, plates: [],
  conventions: { angle: 'deg', letter: 'j', place: 'after', digits: 5, style: 'plain', exact: 'decimal', degrees: 'decimal' },
  lines: [{ id: 'line-0001', source: 'a = 1' }, { id: 'line-0002', source: 'b = 2' }, { id: 'line-0003', source: 'a + b' }],
} // prettier-ignore

let folio: ReturnType<typeof useFolioStore>
const stored = new Map<string, string>()
const sources = (): string[] => folio.lines.map((l) => l.source)

beforeEach(async () => {
  jest.useFakeTimers()
  stored.clear()
  Object.assign(globalThis, {
    localStorage: {
      getItem: (k: string) => stored.get(k) ?? null,
      setItem: (k: string, v: string) => void stored.set(k, v),
      removeItem: (k: string) => void stored.delete(k),
    },
    fetch: async () => ({ ok: true, status: 200, json: async () => structuredClone(served) }),
  })
  setActivePinia(createPinia())
  folio = useFolioStore()
  await folio.open('folio-01')
})
afterEach(() => jest.useRealTimers())

test('an entry is kept as one step, restored without one', () => {
  folio.edit('line-0001')
  folio.type('a = 5')
  folio.type('a = 50')
  folio.keep()
  expect(sources()[0]).toBe('a = 50')
  folio.edit('line-0002')
  folio.type('b = 9')
  folio.restore()
  expect(sources()[1]).toBe('b = 2')
  folio.undo()
  expect(sources()[0]).toBe('a = 1')
  expect(folio.canUndo).toBe(false)
})

test('going to another line keeps the one that was open', () => {
  folio.edit('line-0001')
  folio.type('a = 7')
  folio.edit('line-0003')
  expect(sources()[0]).toBe('a = 7')
  expect(folio.text).toBe('a + b')
})

test('Enter goes to the next line, and makes one after the last', () => {
  folio.edit('line-0002')
  folio.keepAndGoOn()
  expect(folio.editing?.id).toBe('line-0003')
  folio.keepAndGoOn()
  expect(sources()).toEqual(['a = 1', 'b = 2', 'a + b', ''])
  folio.keepAndGoOn()
  expect(sources()).toHaveLength(4)
})

test('everything undoes and redoes, in order, at least 500 steps', () => {
  for (let k = 0; k < 520; k += 1) folio.rewrite('line-0001', `a = ${k + 100}`, 'edit')
  folio.moveTo('line-0001', 2)
  folio.convene({ angle: 'rad' })
  folio.rename('Other')
  folio.remove('line-0002')
  expect(sources()).toEqual(['a + b', 'a = 619'])
  for (let k = 0; k < 524; k += 1) folio.undo()
  expect(sources()).toEqual(['a = 1', 'b = 2', 'a + b'])
  expect(folio.conventions.angle).toBe('deg')
  expect(folio.title).toBe('Test')
  expect(folio.canUndo).toBe(false)
  for (let k = 0; k < 524; k += 1) folio.redo()
  expect(sources()).toEqual(['a + b', 'a = 619'])
  expect(folio.conventions.angle).toBe('rad')
  expect(folio.title).toBe('Other')
  expect(folio.canRedo).toBe(false)
})

test('a new change forgets what could be redone', () => {
  folio.rewrite('line-0001', 'a = 2', 'edit')
  folio.undo()
  folio.rewrite('line-0001', 'a = 3', 'edit')
  expect(folio.canRedo).toBe(false)
})

test('pasted lines are one step', () => {
  folio.edit('line-0002')
  folio.paste('x = 1', ['y = 2', 'z = 3'])
  expect(sources()).toEqual(['a = 1', 'x = 1', 'y = 2', 'z = 3', 'a + b'])
  expect(folio.text).toBe('z = 3')
  folio.undo()
  expect(sources()).toEqual(['a = 1', 'b = 2', 'a + b'])
})

test('the last line cannot be taken away: an empty one stays', () => {
  for (const id of ['line-0001', 'line-0002', 'line-0003']) folio.remove(id)
  expect(sources()).toEqual([''])
  folio.undo()
  expect(sources()).toEqual(['a + b'])
})

test('moving stops at the ends', () => {
  folio.moveTo('line-0001', -5)
  expect(folio.canUndo).toBe(false)
  folio.moveTo('line-0001', 99)
  expect(sources()).toEqual(['b = 2', 'a + b', 'a = 1'])
})

test('what is being typed is kept for a reload, and forgotten when the line is kept', () => {
  folio.edit('line-0001')
  folio.type('a = 12')
  expect(JSON.parse(stored.get('ornate-phasor:draft') ?? '{}')).toEqual({
    folio: 'folio-01',
    line: 'line-0001',
    text: 'a = 12',
  })
  folio.keep()
  expect(stored.has('ornate-phasor:draft')).toBe(false)
})

test('a folio that cannot be fetched says why', async () => {
  Object.assign(globalThis, { fetch: async () => Promise.reject(new TypeError('refused')) })
  await folio.open('folio-02')
  expect(folio.status).toBe('failed')
  expect(folio.message).toBe('The server does not answer.')
})

describe('several lines', () => {
  test('are selected with Shift from where one stands, and toggled one by one', () => {
    folio.current = 'line-0001'
    folio.selectTo('line-0003')
    expect([...folio.selected]).toEqual(['line-0001', 'line-0002', 'line-0003'])
    folio.selectTo('line-0002')
    expect([...folio.selected]).toEqual(['line-0001', 'line-0002'])
    folio.toggleSelected('line-0003')
    folio.toggleSelected('line-0001')
    expect([...folio.selected]).toEqual(['line-0002', 'line-0003'])
    folio.clearSelection()
    expect(folio.selected.size).toBe(0)
  })

  test('are moved, duplicated, hidden and removed in one step each', () => {
    folio.current = 'line-0001'
    folio.selectTo('line-0002')
    folio.moveBy('line-0001', 1)
    expect(sources()).toEqual(['a + b', 'a = 1', 'b = 2'])
    folio.toggle('line-0002', 'hidden')
    expect(folio.lines.map((l) => l.hidden ?? false)).toEqual([false, true, true])
    folio.undo()
    folio.undo()
    expect(sources()).toEqual(['a = 1', 'b = 2', 'a + b'])
    folio.current = 'line-0001'
    folio.selectTo('line-0002')
    folio.duplicate('line-0002')
    expect(sources()).toEqual(['a = 1', 'b = 2', 'a = 1', 'b = 2', 'a + b'])
    folio.undo()
    folio.current = 'line-0001'
    folio.selectTo('line-0003')
    folio.remove('line-0002')
    expect(sources()).toEqual([''])
    folio.undo()
    expect(sources()).toEqual(['a = 1', 'b = 2', 'a + b'])
  })
})

describe('headings', () => {
  const fold = (): void => {
    folio.rewrite('line-0001', '# Given', 'edit')
    folio.toggle('line-0001', 'folded')
  }

  test('a folded one hides its lines, arrows pass over them, and going to one unfolds', () => {
    fold()
    expect(folio.shownLines.map((l) => l.source)).toEqual(['# Given'])
    folio.current = 'line-0001'
    expect(folio.step(1)).toBe(false)
    folio.reveal('line-0003')
    expect(folio.shownLines).toHaveLength(3)
    expect(folio.current).toBe('line-0003')
  })

  test('a folded one moves and is copied with its lines, and is removed without them', () => {
    fold()
    folio.duplicate('line-0001')
    expect(sources()).toEqual(['# Given', 'b = 2', 'a + b', '# Given', 'b = 2', 'a + b'])
    folio.undo()
    folio.remove('line-0001')
    expect(sources()).toEqual(['b = 2', 'a + b'])
  })

  test('a note is turned into an entry and back, without its text for the evaluator', () => {
    folio.turn('line-0001')
    expect(folio.lineOf('line-0001')).toMatchObject({ note: true, source: 'a = 1' })
    folio.turn('line-0001')
    expect(folio.lineOf('line-0001')!.note).toBeUndefined()
  })
})

describe('names', () => {
  test('are spelled anew everywhere in one step, or not at all', () => {
    expect(folio.renameName('a', 'alpha')).toBeNull()
    expect(sources()).toEqual(['alpha = 1', 'b = 2', 'alpha + b'])
    expect(folio.renameName('alpha', 'b')).toBe('b is kept already, in line 2.')
    expect(folio.renameName('alpha', 'sin')).toContain('is a function')
    folio.undo()
    expect(sources()).toEqual(['a = 1', 'b = 2', 'a + b'])
    expect(folio.canUndo).toBe(false)
  })
})

test('an earlier state is restored as one step', () => {
  const before = folio.state
  folio.rewrite('line-0001', 'a = 9', 'edit')
  folio.remove('line-0002')
  folio.convene({ angle: 'rad' })
  folio.goBackTo(before)
  expect(folio.state).toEqual(before)
  folio.undo()
  expect(sources()).toEqual(['a = 9', 'a + b'])
})

test('undo leaves a line alone that was changed elsewhere meanwhile', () => {
  folio.rewrite('line-0001', 'a = 9', 'edit')
  const mine = folio.state
  // Another browser's text has come in.
  folio.$patch(
    (s) => void (s.state = { ...mine, lines: mine.lines.map((l) => ({ ...l, source: `${l.source} # theirs` })) }),
  )
  folio.undo()
  expect(sources()[0]).toBe('a = 9 # theirs')
  expect(folio.notice).toContain('no longer fits')
})

test('what was entered is remembered for recall', () => {
  folio.rewrite('line-0001', 'a = 9', 'edit')
  folio.insertBelow(['c = 1', 'd = 2'])
  expect(folio.entered).toEqual(['a = 9', 'c = 1', 'd = 2'])
})
