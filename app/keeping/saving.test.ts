import 'fake-indexeddb/auto'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { newId } from '#shared/id'
import { rebase } from '#shared/merge'
import { applyOperation, stateOf } from '#shared/operations'
import type { FolioState, Operation } from '#shared/operations'
import { readAside, readOutbox } from '~/keeping/outbox'
import { changeStore, recordsUnder } from '~/keeping/browserStore'
import { Saver } from './saving'
import type { SaverHandlers } from './saving'
import { startOf } from './starting'

/** A server in miniature, and a browser store that can refuse. */
interface Save {
  key: string
  revision: number
  operations: Operation[]
}
interface Answer {
  status: number
  body: unknown
}
const id = (k: number): string => `line-${String(k).padStart(4, '0')}`
const START: FolioState = {
  title: 'Test', conventions: DEFAULT_CONVENTIONS, plates: [],
  lines: [{ id: id(1), source: 'a' }, { id: id(2), source: 'b' }],
} // prettier-ignore
const edit = (k: number, source: string, was: string): Operation => ({ type: 'edit', id: id(k), source, was })
const problem = (status: number, more: object = {}): Answer => ({
  status,
  body: { type: 'about:blank', title: 'Refused', status, detail: 'It is so.', ...more },
})

class Server {
  state = START
  readonly saves: (Save & { at: number })[] = []
  /** What is answered instead, once each; a lost answer is carried out all the same. */
  next: ('unreachable' | 'lost' | Answer)[] = []
  readonly asked: Save[] = []

  answer(path: string, body: Save | null): Answer | null {
    if (body === null) return this.read(path)
    this.asked.push(body)
    const said = this.next.shift()
    if (said === 'unreachable') return null
    if (said !== undefined && said !== 'lost') return said
    const done = this.save(body)
    return said === 'lost' ? null : done
  }

  private save(body: Save): Answer {
    const known = this.saves.find((s) => s.key === body.key)
    if (known) return { status: 200, body: { revision: known.at, changedAt: 'then' } }
    if (body.revision !== this.saves.length) return problem(409, { missed: this.missed(body.revision) })
    for (const [index, operation] of body.operations.entries()) {
      const next = applyOperation(this.state, operation)
      if (!next) return problem(422, { index })
      this.state = next
    }
    this.saves.push({ ...body, at: this.saves.length + 1 })
    return { status: 200, body: { revision: this.saves.length, changedAt: 'now' } }
  }

  private missed(since: number) {
    const saves = this.saves.slice(since).map((s) => ({ revision: s.at, key: s.key, operations: s.operations }))
    return { revision: this.saves.length, changedAt: 'now', saves }
  }

  private read(path: string): Answer {
    const since = /missed\?since=(\d+)/.exec(path)
    if (since) return { status: 200, body: this.missed(Number(since[1])) }
    return { status: 200, body: this.folio }
  }

  get folio() {
    return {
      id: 'folio-01',
      revision: this.saves.length,
      createdAt: '',
      changedAt: 'now',
      binnedAt: null,
      ...stateOf(this.state),
    }
  }

  /** Somebody else saves. */
  other(...operations: Operation[]): void {
    this.save({ key: newId(), revision: this.saves.length, operations })
  }
}

let server: Server
let refusing = false
let asides: string[]
const savers: Saver[] = []

beforeEach(async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] })
  refusing = false
  asides = []
  server = new Server()
  await changeStore({ remove: (await recordsUnder('')).map(([key]) => key) })
  const put = IDBObjectStore.prototype.put
  jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(function (this: IDBObjectStore, ...args) {
    if (refusing) throw new DOMException('full', 'QuotaExceededError')
    return put.apply(this, args)
  })
  globalThis.fetch = (async (path: string, init?: { body?: string }) => {
    const answer = server.answer(path, init?.body === undefined ? null : (JSON.parse(init.body) as Save))
    if (answer === null) throw new TypeError('no answer')
    return Response.json(answer.body, { status: answer.status })
  }) as unknown as typeof fetch
})
afterEach(async () => {
  for (const saver of savers.splice(0)) saver.halt()
  await settle(0)
  jest.restoreAllMocks()
  jest.useRealTimers()
})

/** Lets time go by, and what the store does meanwhile. */
async function settle(time: number): Promise<void> {
  for (let passed = 0; passed <= time; passed += 100) {
    await jest.advanceTimersByTimeAsync(Math.min(100, time))
    for (let k = 0; k < 12; k += 1) await new Promise((done) => setImmediate(done))
  }
}

const handlers: SaverHandlers = {
  merge: (theirs, unsent, seen) => rebase(theirs, unsent, newId, seen),
  setAside: (why) => void asides.push(why),
}
function begin(): Saver {
  const saver = new Saver(
    {
      folio: 'folio-01',
      revision: server.saves.length,
      base: server.state,
      head: server.state,
      parts: [],
      changedAt: 'then',
    },
    handlers,
  )
  savers.push(saver)
  return saver
}
const texts = (): string[] => server.state.lines.map((l) => l.source)

test('edits of one line in a row are sent as one, after a rest', async () => {
  const saver = begin()
  saver.add([edit(1, 'aa', 'a')])
  saver.add([edit(1, 'aaa', 'aa')])
  expect(saver.state.value.kind).toBe('waiting')
  await settle(600)
  expect(server.asked.map((s) => s.operations)).toEqual([[edit(1, 'aaa', 'a')]])
  expect(saver.state.value).toEqual({ kind: 'saved', at: 'now' })
  expect((await readOutbox('folio-01')).parts).toEqual([])
})

test('what goes on without a pause is sent every three seconds at the latest', async () => {
  const saver = begin()
  for (let k = 0; k < 100; k += 1) {
    saver.add([edit(1, `a${k}`, '')])
    await settle(100)
  }
  expect(server.saves.length).toBeGreaterThanOrEqual(3)
  await settle(600)
  expect(texts()[0]).toBe('a99')
})

test('a text that the server has already is not sent again', async () => {
  const saver = begin()
  saver.add([edit(1, 'a', 'whatever')])
  await settle(1_000)
  expect(server.asked).toEqual([])
  expect(saver.state.value.kind).toBe('saved')
})

test('many operations go in parts, each on top of the one before', async () => {
  const saver = begin()
  const inserts = Array.from({ length: 2_600 }, (_, k): Operation => ({
    type: 'insert',
    at: 2 + k,
    line: { id: newId(), source: `x${k}` },
  }))
  saver.add(inserts)
  expect(saver.waiting.value).toBe(2_600)
  await settle(4_000)
  expect(server.saves.map((s) => s.operations.length)).toEqual([500, 500, 500, 500, 500, 100])
  expect(texts()).toEqual(['a', 'b', ...inserts.map((_, k) => `x${k}`)])
  expect(saver.state.value.kind).toBe('saved')
})

test('what cannot be sent is kept in the browser, said, and sent again', async () => {
  server.next = ['unreachable']
  const saver = begin()
  saver.add([edit(1, 'A', 'a')])
  await settle(600)
  expect(saver.state.value).toMatchObject({
    kind: 'failed',
    remedy: null,
    message: 'The server does not answer. Your work is kept in this browser and sent again.',
  })
  expect((await readOutbox('folio-01')).parts.map((p) => p.operations)).toEqual([[edit(1, 'A', 'a')]])
  saver.add([edit(2, 'B', 'b')])
  await settle(5_000)
  expect(texts()).toEqual(['A', 'B'])
  expect(saver.state.value.kind).toBe('saved')
  expect((await readOutbox('folio-01')).parts).toEqual([])
})

test('a save whose answer is lost is carried out once', async () => {
  server.next = ['lost']
  const saver = begin()
  saver.add([{ type: 'insert', at: 2, line: { id: id(3), source: 'c' } }, edit(3, 'c, better', 'c')])
  await settle(600)
  expect(saver.state.value.kind).toBe('failed')
  saver.add([edit(3, 'c, best', 'c, better')])
  await settle(5_000)
  expect(texts()).toEqual(['a', 'b', 'c, best'])
  expect(server.saves).toHaveLength(2)
})

test('a save whose answer is lost, with another window in between, makes no doubles', async () => {
  server.next = ['lost']
  const saver = begin()
  saver.add([edit(1, 'A', 'a')])
  await settle(600)
  server.other(edit(1, 'A, theirs', 'A'))
  saver.add([edit(2, 'B', 'b')])
  await settle(5_000)
  expect(texts()).toEqual(['A, theirs', 'B'])
})

test('when another window was first, what it did is taken in and ours is put on top', async () => {
  const saver = begin()
  server.other(edit(1, 'theirs', 'a'), { type: 'insert', at: 0, line: { id: id(9), source: 'new' } })
  saver.add([edit(1, 'mine', 'a'), edit(2, 'B', 'b')])
  await settle(1_500)
  expect(texts()).toEqual(['new', 'theirs', 'mine', 'B'])
  expect(saver.state.value.kind).toBe('saved')
})

test('a text that was shown as kept reaches the server, even where another has taken its place', async () => {
  server.next = ['unreachable', 'unreachable']
  const saver = begin()
  saver.add([edit(1, 'first', 'a')])
  await settle(600)
  expect(saver.state.value.kind).toBe('failed')
  saver.add([edit(1, 'second', 'first')])
  saver.add([edit(1, 'third', 'second')])
  await settle(10_000)
  expect(server.saves.flatMap((s) => s.operations)).toMatchObject([
    { source: 'first' },
    { source: 'second' },
    { source: 'third' },
  ])
})

test('where the browser refuses, nothing is promised, and a file is offered', async () => {
  refusing = true
  server.next = ['unreachable']
  const saver = begin()
  saver.add([edit(1, 'A', 'a')])
  await settle(600)
  expect(saver.kept.value).toBe(false)
  expect(saver.state.value).toMatchObject({
    kind: 'failed',
    remedy: 'file',
    message: expect.stringContaining('This browser does not keep it either'),
  })
  refusing = false
  saver.add([edit(2, 'B', 'b')])
  await settle(100)
  expect(saver.kept.value).toBe(true)
})

test('a full disk is said in the server’s words', async () => {
  server.next = [
    {
      status: 507,
      body: { type: 'about:blank', title: 'The disk is full', status: 507, detail: 'Nothing was saved.' },
    },
  ]
  const saver = begin()
  saver.add([edit(1, 'A', 'a')])
  await settle(600)
  expect(saver.state.value).toMatchObject({ message: expect.stringContaining('The disk is full. Nothing was saved.') })
})

test('signed out: what is to be done is said, and the work goes on waiting', async () => {
  server.next = [problem(401)]
  const saver = begin()
  saver.add([edit(1, 'A', 'a')])
  await settle(600)
  expect(saver.state.value).toMatchObject({ kind: 'failed', remedy: 'sign in' })
  await settle(5_000)
  expect(texts()[0]).toBe('A')
})

test('what the server refuses for good is found among the rest, set aside and said; the rest goes on', async () => {
  const saver = begin()
  const bad = 'refused text'
  const real = server.answer.bind(server)
  server.answer = (path, body) =>
    body?.operations.some((o) => o.type === 'edit' && o.source === bad) ? problem(422) : real(path, body)
  saver.add([
    { type: 'rename', title: 'T' },
    edit(1, 'A', 'a'),
    edit(2, bad, 'b'),
    { type: 'insert', at: 2, line: { id: id(3), source: 'c' } },
  ])
  await settle(3_000)
  expect(server.state).toMatchObject({ title: 'T', lines: [{ source: 'A' }, { source: 'b' }, { source: 'c' }] })
  expect(saver.state.value.kind).toBe('saved')
  expect(asides).toEqual(['Refused. It is so.'])
  expect(await readAside('folio-01')).toMatchObject([{ texts: [bad], why: 'Refused. It is so.' }])
})

test('a folio that is gone keeps its work in the browser, and offers it as a file', async () => {
  server.next = [problem(404)]
  const saver = begin()
  saver.add([edit(1, 'A', 'a')])
  await settle(600)
  expect(saver.state.value).toMatchObject({ kind: 'failed', remedy: 'file' })
  expect((await readOutbox('folio-01')).parts).toHaveLength(1)
})

describe('a page that is opened again', () => {
  const open = async () =>
    startOf('folio-01', { folio: server.folio, outbox: await readOutbox('folio-01'), handed: null, followed: null })

  test('has what could not be sent on top of what the server has', async () => {
    server.next = ['unreachable']
    begin().add([edit(1, 'A', 'a')])
    await settle(600)
    savers.at(-1)!.halt()
    const start = await open()
    expect(start.saver.head.lines.map((l) => l.source)).toEqual(['A', 'b'])
    savers.push(new Saver(start.saver, handlers))
    await settle(200)
    expect(texts()).toEqual(['A', 'b'])
  })

  test('knows what had arrived though its answer was lost, whatever others did since', async () => {
    server.next = ['lost', 'unreachable']
    const saver = begin()
    saver.add([edit(1, 'A', 'a'), { type: 'insert', at: 2, line: { id: id(3), source: 'c' } }])
    await settle(600)
    saver.add([edit(2, 'B', 'b')])
    await settle(300)
    saver.halt()
    server.other(edit(1, 'theirs on A', 'A'))
    const start = await open()
    expect(start.saver.head.lines.map((l) => l.source)).toEqual(['theirs on A', 'B', 'c'])
    expect(start.said).toBeNull()
  })

  test('sets aside what it cannot read, and goes on with the rest', async () => {
    await changeStore({
      put: [
        [
          'outbox:folio-01',
          {
            revision: 0,
            operations: [
              edit(1, 'A', 'a'),
              { type: 'edit', id: id(2), source: 42 },
              { type: 'insert', at: 0, line: { id: 'short', source: 'kept text' } },
            ],
          },
        ],
      ],
    })
    const start = await open()
    expect(start.saver.head.lines.map((l) => l.source)).toEqual(['A', 'b'])
    expect(await readAside('folio-01')).toMatchObject([
      { texts: ['kept text'], raw: [{ source: 42 }, { type: 'insert' }] },
    ])
    expect((await readOutbox('folio-01')).parts).toHaveLength(1)
    expect(await recordsUnder('outbox:folio-01:')).toHaveLength(1)
  })
})

test('a tab that hands over sends nothing more; the next one sends what it was given', async () => {
  server.next = ['unreachable']
  const first = begin()
  first.add([edit(1, 'A', 'a')])
  await settle(600)
  const baggage = first.halt()
  await settle(5_000)
  expect(texts()[0]).toBe('a')
  const { saver } = await startOf('folio-01', {
    folio: null,
    outbox: { revision: null, parts: [] },
    handed: {
      state: stateOf(START),
      baggage: { ...baggage, base: null, parts: baggage.parts.map((p) => ({ ...p, operations: [...p.operations] })) },
    },
    followed: null,
  })
  savers.push(new Saver(saver, handlers))
  await settle(300)
  expect(texts()[0]).toBe('A')
})
