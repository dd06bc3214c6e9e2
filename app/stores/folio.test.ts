import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { NO_HEAD } from '#shared/folio'
import type { Folio } from '#shared/folio'
import type { Operation } from '#shared/operations'
import { changeStore, recordsUnder } from '~/keeping/browserStore'
import { readDrafts } from '~/keeping/drafts'
import { useFolioStore } from './folio'

/** The store on its own: no worker, no server; what is sent to either is not its business here. */
jest.mock('./results', () => ({
  useResultsStore: () => ({
    views: new Map(), unitDependent: ['line-0002'],
    load: async () => undefined, apply: async () => undefined, type: async () => undefined,
    settle: async () => undefined, close: () => undefined,
  }),
})) // prettier-ignore

const served: Folio = {
  id: 'folio-01', title: 'Test', revision: 0, createdAt: '', changedAt: '2026-01-01T00:00:00Z', binnedAt: null, plates: [], enclosures: [], head: NO_HEAD, sets: [],
  conventions: { angle: 'deg', letter: 'j', place: 'after', digits: 5, style: 'plain', exact: 'decimal', degrees: 'decimal', spaced: 'unit' },
  lines: [{ id: 'line-0001', source: 'a = 1' }, { id: 'line-0002', source: 'b = 2' }, { id: 'line-0003', source: 'a + b' }],
} // prettier-ignore

let folio: ReturnType<typeof useFolioStore>
const stored = new Map<string, string>()
const sources = (): string[] => folio.lines.map((l) => l.source)

/** What was sent to the server, in order. */
let sent: { revision: number; operations: Operation[] }[] = []
/** Lets time go by, and what the browser's store does meanwhile. */
async function pass(time: number): Promise<void> {
  for (let k = 0; k <= time; k += 100) {
    await jest.advanceTimersByTimeAsync(Math.min(100, time))
    for (let n = 0; n < 12; n += 1) await new Promise((done) => setImmediate(done))
  }
}
const answers = (folioNow: () => Folio) => async (path: string, init?: { body?: string }) => {
  const body = init?.body === undefined ? null : (JSON.parse(init.body) as (typeof sent)[number])
  if (body && path.endsWith('/operations')) sent.push(body)
  const answer = body ? { revision: body.revision + 1, changedAt: '2026-01-01T00:00:01Z' } : structuredClone(folioNow())
  return Response.json(answer)
}

beforeEach(async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] })
  sent = []
  await changeStore({ remove: (await recordsUnder('')).map(([key]) => key) })
  stored.clear()
  Object.assign(globalThis, {
    localStorage: {
      getItem: (k: string) => stored.get(k) ?? null,
      setItem: (k: string, v: string) => void stored.set(k, v),
      removeItem: (k: string) => void stored.delete(k),
    },
    fetch: answers(() => served),
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

describe('what is being typed', () => {
  test('is kept for a reload within a second, under its folio and line, and forgotten when the line is kept', async () => {
    folio.edit('line-0001')
    folio.type('a = 1')
    folio.type('a = 12')
    await pass(300)
    expect(await readDrafts('folio-01')).toMatchObject([
      { line: 'line-0001', text: 'a = 12', was: 'a = 1', sent: null },
    ])
    expect(await readDrafts('folio-02')).toEqual([])
    folio.keep()
    await pass(100)
    expect(await readDrafts('folio-01')).toEqual([])
  })

  test('is taken up again when the folio is opened, and can still be left as it was', async () => {
    folio.edit('line-0002')
    folio.type('b = 2222')
    await pass(300)
    // The browser is killed: nothing is closed properly.
    setActivePinia(createPinia())
    folio = useFolioStore()
    await folio.open('folio-01')
    expect(folio.editing?.id).toBe('line-0002')
    expect(folio.text).toBe('b = 2222')
    folio.restore()
    expect(sources()[1]).toBe('b = 2')
  })

  test('of another folio is not touched by what is kept here', async () => {
    await changeStore({ put: [['draft:folio-02:line-0001', { text: 'theirs', was: '', sent: null, at: 1 }]] })
    folio.edit('line-0001')
    folio.type('a = 3')
    folio.keep()
    await pass(300)
    expect(await readDrafts('folio-02')).toMatchObject([{ text: 'theirs' }])
  })

  test('without a pause is given to the server every few seconds, and is no step of its own', async () => {
    folio.edit('line-0001')
    for (let k = 0; k < 100; k += 1) {
      folio.type(`a = ${k}`)
      await pass(100)
    }
    const given = sent.flatMap((s) => s.operations).filter((o) => o.type === 'edit')
    expect(given.length).toBeGreaterThanOrEqual(2)
    expect(given.length).toBeLessThan(10)
    expect(sources()[0]).toBe('a = 1')
    expect(folio.canUndo).toBe(false)
    // Left as it was, it is so on the server, too.
    folio.restore()
    await pass(1_000)
    expect(sent.at(-1)!.operations).toMatchObject([{ type: 'edit', source: 'a = 1' }])
  })

  test('and was given to the server is a draft still when the page comes again', async () => {
    folio.edit('line-0001')
    folio.type('a = 1 + half')
    await pass(3_600)
    folio.type('a = 1 + half a thought')
    await pass(300)
    const meanwhile = {
      ...served,
      revision: 1,
      lines: served.lines.map((l, k) => (k === 0 ? { ...l, source: 'a = 1 + half' } : l)),
    }
    Object.assign(globalThis, { fetch: answers(() => meanwhile) })
    setActivePinia(createPinia())
    folio = useFolioStore()
    await folio.open('folio-01')
    expect(folio.text).toBe('a = 1 + half a thought')
    folio.restore()
    expect(sources()[0]).toBe('a = 1')
    await pass(1_000)
    expect(sent.at(-1)!.operations).toMatchObject([{ type: 'edit', source: 'a = 1' }])
  })

  test('in a line that was deleted elsewhere is a line again', async () => {
    folio.edit('line-0002')
    folio.type('b = my text')
    await pass(300)
    Object.assign(globalThis, { fetch: answers(() => ({ ...served, revision: 1, lines: served.lines.slice(0, 1) })) })
    setActivePinia(createPinia())
    folio = useFolioStore()
    await folio.open('folio-01')
    expect(sources()).toEqual(['a = 1', 'b = my text'])
    expect(folio.notice).toContain('deleted elsewhere')
  })

  test('that is taken up again in a line that was changed elsewhere stands below it once it is kept', async () => {
    folio.edit('line-0001')
    folio.type('a = mine')
    await pass(300)
    const lines = served.lines.map((l, k) => (k === 0 ? { ...l, source: 'a = theirs' } : l))
    Object.assign(globalThis, { fetch: answers(() => ({ ...served, revision: 1, lines })) })
    setActivePinia(createPinia())
    folio = useFolioStore()
    await folio.open('folio-01')
    expect(folio.text).toBe('a = mine')
    folio.keep()
    expect(sources()).toEqual(['a = theirs', 'a = mine', 'b = 2', 'a + b'])
  })

  test('is not given to the server over a text of another that came meanwhile: both are kept', async () => {
    // Another saves first: it is told with the next save of this page.
    const theirs: Operation = { type: 'edit', id: 'line-0001', source: 'a = theirs', was: 'a = 1' }
    let revision = 0
    Object.assign(globalThis, {
      fetch: async (path: string, init?: { body?: string }) => {
        if (init?.body === undefined) return Response.json(structuredClone(served))
        const body = JSON.parse(init.body) as (typeof sent)[number]
        if (!path.endsWith('/operations')) return Response.json({})
        if (revision === 0) {
          revision = 1
          const missed = { revision: 1, changedAt: '', saves: [{ revision: 1, key: null, operations: [theirs] }] }
          return Response.json({ type: 'about:blank', title: 'x', status: 409, missed }, { status: 409 })
        }
        sent.push(body)
        revision += 1
        return Response.json({ revision, changedAt: '2026-01-01T00:00:01Z' })
      },
    })
    folio.edit('line-0002')
    folio.type('b = 3')
    folio.keep()
    folio.edit('line-0001')
    folio.type('a = mine')
    await pass(4_000)
    folio.type('a = mine, too')
    await pass(4_000)
    const edits = sent.flatMap((s) => s.operations).filter((o) => o.type === 'edit' && o.id === 'line-0001')
    expect(edits).toEqual([])
    folio.keep()
    expect(sources()).toEqual(['a = theirs', 'a = mine, too', 'b = 3', 'a + b'])
    expect(folio.notice).toContain('changed elsewhere while you typed')
  })

  test('and was changed elsewhere meanwhile stands below the other text', () => {
    folio.edit('line-0001')
    folio.type('a = mine')
    const now = folio.state
    folio.$patch(
      (s) =>
        void (s.state = { ...now, lines: now.lines.map((l, k) => (k === 0 ? { ...l, source: 'a = theirs' } : l)) }),
    )
    folio.keep()
    expect(sources().slice(0, 2)).toEqual(['a = theirs', 'a = mine'])
  })
})

describe('what is too long or too much', () => {
  test('an entry or a note beyond its length is refused with a sentence, and a note is offered where it fits', () => {
    folio.edit('line-0001')
    expect(folio.refuses('x'.repeat(10_000), false)).toBe(false)
    expect(folio.refuses('x'.repeat(10_001), false)).toBe(true)
    expect(folio.notice.replaceAll('\u202f', ' ')).toBe(
      'An entry has at most 10 000 characters; this would have 10 001 and was not taken in. A note has room for it.',
    )
    folio.takeOverlong()
    expect(folio.lines[1]).toMatchObject({ note: true, source: 'x'.repeat(10_001) })
    expect(folio.refuses('x'.repeat(200_001), true)).toBe(true)
    expect(folio.overlong).toBe('')
  })

  test('of very many pasted lines those that fit are taken, in parts, and the rest is told', async () => {
    folio.edit('line-0003')
    folio.paste(
      'x = 0',
      Array.from({ length: 19_999 }, (_, k) => `x${k + 1}`),
    )
    expect(folio.lines.length).toBeLessThan(300)
    await pass(3_000)
    expect(folio.lines).toHaveLength(5_000)
    expect(folio.notice.replaceAll('\u202f', ' ')).toContain('15 002 lines were left out, from “x4998” on')
    await pass(10_000)
    expect(sent.flatMap((s) => s.operations)).toHaveLength(4_998)
    expect(Math.max(...sent.map((s) => s.operations.length))).toBeLessThanOrEqual(500)
    folio.undo()
    expect(sources()).toEqual(['a = 1', 'b = 2', 'a + b'])
    folio.redo()
    expect(folio.lines).toHaveLength(5_000)
    // Five thousand lines take their time on a machine that does other things besides.
  }, 30_000)
})

test('a folio that cannot be fetched says why', async () => {
  Object.assign(globalThis, { fetch: async () => Promise.reject(new TypeError('refused')) })
  await folio.open('folio-02')
  expect(folio.status).toBe('failed')
  expect(folio.message).toBe('The server does not answer.')
})

describe('several lines', () => {
  test('are selected with Shift from where one stands, and toggled one by one', () => {
    folio.makeCurrent('line-0001')
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
    folio.makeCurrent('line-0001')
    folio.selectTo('line-0002')
    folio.moveBy('line-0001', 1)
    expect(sources()).toEqual(['a + b', 'a = 1', 'b = 2'])
    folio.toggle('line-0002', 'hidden')
    expect(folio.lines.map((l) => l.hidden ?? false)).toEqual([false, true, true])
    folio.undo()
    folio.undo()
    expect(sources()).toEqual(['a = 1', 'b = 2', 'a + b'])
    folio.makeCurrent('line-0001')
    folio.selectTo('line-0002')
    folio.duplicate('line-0002')
    expect(sources()).toEqual(['a = 1', 'b = 2', 'a = 1', 'b = 2', 'a + b'])
    folio.undo()
    folio.makeCurrent('line-0001')
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
    folio.makeCurrent('line-0001')
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
    expect(folio.renameName('a', 'alpha', (name) => name === 'sin')).toBeNull()
    expect(sources()).toEqual(['alpha = 1', 'b = 2', 'alpha + b'])
    expect(folio.renameName('alpha', 'b', (name) => name === 'sin')).toBe('b is kept already, in line 2.')
    expect(folio.renameName('alpha', 'sin', (name) => name === 'sin')).toContain('is a function')
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

describe('undo after somebody else was here', () => {
  const theirs = (change: (state: Folio) => Partial<Folio>): void => {
    const now = folio.state
    folio.$patch((s) => void (s.state = { ...now, ...change(now as Folio) }))
  }
  test('a line that was put in here and written on there stays', () => {
    folio.insertAt(3, 'c = 3')
    folio.keep()
    theirs((s) => ({ lines: s.lines.map((l) => (l.source === 'c = 3' ? { ...l, source: 'c = 4' } : l)) }))
    folio.undo()
    expect(sources()).toContain('c = 4')
  })
  test('their title and conventions stay, too', () => {
    folio.rename('Mine')
    folio.convene({ digits: 9 })
    theirs((s) => ({ title: 'Theirs', conventions: { ...s.conventions, digits: 3 } }))
    folio.undo()
    folio.undo()
    expect([folio.title, folio.conventions.digits]).toEqual(['Theirs', 3])
  })
})

describe('the title', () => {
  test('is that of the first heading or line until one is given, and undo takes it back with its line', () => {
    folio.rename('a = 1')
    folio.rewrite('line-0001', 'alpha = 1', 'edit')
    expect(folio.title).toBe('alpha = 1')
    folio.undo()
    expect([folio.title, sources()[0]]).toEqual(['a = 1', 'a = 1'])
    folio.insertNoteBelow('line-0003', '# Two numbers')
    folio.keep()
    expect(folio.title).toBe('Two numbers')
    folio.rename('Sheet 4')
    folio.rewrite('line-0001', 'beta = 1', 'edit')
    expect(folio.title).toBe('Sheet 4')
  })
})

test('what was typed before a line was open goes on at its end, and each line of it is kept', () => {
  folio.edit('line-0003')
  folio.typeOn(' + 1\nc = 3\nc*')
  expect(sources().slice(2)).toEqual(['a + b + 1', 'c = 3', ''])
  expect(folio.text).toBe('c*')
  folio.typeOn('2')
  folio.keep()
  expect(sources().at(-1)).toBe('c*2')
})

test('all lines are deleted in one step, an empty one is left, and undo brings them back', () => {
  folio.selectAll()
  expect(folio.selected.size).toBe(3)
  folio.removeAll(folio.selected)
  expect(sources()).toEqual([''])
  expect(folio.notice).toContain('3 lines are deleted')
  expect(folio.selected.size).toBe(0)
  folio.undo()
  expect(sources()).toEqual(['a = 1', 'b = 2', 'a + b'])
  folio.removeAll(new Set(['line-0002']))
  expect(sources()).toEqual(['a = 1', 'a + b'])
  folio.undo()
  expect(sources()).toHaveLength(3)
})
