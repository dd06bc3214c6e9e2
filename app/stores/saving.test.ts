import type { Folio } from '#shared/folio'
import type { Operation } from '#shared/operations'
import { Saver } from './saving'

/** The browser's store and the server, as the saver meets them. */
const kept = new Map<string, unknown>()
jest.mock('idb-keyval', () => ({
  get: (key: string) => Promise.resolve(kept.get(key)),
  set: (key: string, value: unknown) => Promise.resolve(void kept.set(key, value)),
  del: (key: string) => Promise.resolve(void kept.delete(key)),
}))

const edit = (source: string, was: string, id = 'line-0001'): Operation => ({ type: 'edit', id, source, was })
interface Sent {
  revision: number
  operations: Operation[]
}
let sent: Sent[] = []
let answer: (body: Sent) => { status: number; body: unknown } | 'unreachable'

beforeEach(() => {
  jest.useFakeTimers()
  kept.clear()
  sent = []
  answer = ({ revision }) => ({ status: 200, body: { revision: revision + 1, changedAt: '2026-01-01T00:00:00Z' } })
  globalThis.fetch = ((_url: string, init: { body: string }) => {
    const body = JSON.parse(init.body) as Sent
    sent.push(body)
    const reply = answer(body)
    if (reply === 'unreachable') return Promise.reject(new TypeError('no answer'))
    return Promise.resolve({ ok: reply.status < 400, status: reply.status, json: () => Promise.resolve(reply.body) })
  }) as unknown as typeof fetch
})
afterEach(() => jest.useRealTimers())

const saver = (
  onConflict: (theirs: Folio, unsent: readonly Operation[]) => readonly Operation[] = (_t, unsent) => unsent,
) => new Saver('folio-01', 0, onConflict, '2026-01-01T00:00:00Z')

test('edits of one line in a row are sent as one, after a rest', async () => {
  const s = saver()
  s.add([edit('a', '')])
  s.add([edit('ab', 'a')])
  expect(s.state.value.kind).toBe('waiting')
  await jest.advanceTimersByTimeAsync(600)
  expect(sent).toEqual([{ revision: 0, operations: [edit('ab', '')] }])
  expect(s.state.value.kind).toBe('saved')
  expect(kept.size).toBe(0)
})

test('each save builds on the revision before it', async () => {
  const s = saver()
  s.add([edit('a', '')])
  await jest.advanceTimersByTimeAsync(600)
  s.add([edit('b', 'a')])
  await jest.advanceTimersByTimeAsync(600)
  expect(sent.map((b) => b.revision)).toEqual([0, 1])
})

test('what cannot be sent is kept in the browser, said, and sent again', async () => {
  answer = () => 'unreachable'
  const s = saver()
  s.add([edit('a', '')])
  await jest.advanceTimersByTimeAsync(600)
  expect(s.state.value).toMatchObject({ kind: 'failed', message: expect.stringContaining('kept in this browser') })
  expect(kept.get('outbox:folio-01')).toEqual({ revision: 0, operations: [edit('a', '')] })
  s.add([edit('c', '', 'line-0002')])
  answer = () => ({ status: 200, body: { revision: 1, changedAt: '2026-01-01T00:00:00Z' } })
  await jest.advanceTimersByTimeAsync(5_000)
  expect(sent.at(-1)).toEqual({ revision: 0, operations: [edit('a', ''), edit('c', '', 'line-0002')] })
  expect(s.state.value.kind).toBe('saved')
  expect(kept.size).toBe(0)
})

test('a full disk is said in the server’s words', async () => {
  answer = () => ({
    status: 507,
    body: { type: 'about:blank', title: 'The disk is full', status: 507, detail: 'Nothing was saved.' },
  })
  const s = saver()
  s.add([edit('a', '')])
  await jest.advanceTimersByTimeAsync(600)
  expect(s.state.value).toMatchObject({
    kind: 'failed',
    message: expect.stringContaining('The disk is full. Nothing was saved.'),
  })
  s.close()
})

test('when another window was first, its state is taken and ours is put on top', async () => {
  const theirs: Folio = {
    id: 'folio-01', title: 'T', revision: 7, createdAt: '', changedAt: '', binnedAt: null, plates: [], lines: [],
    conventions: { angle: 'deg', letter: 'j', place: 'after', digits: 5, style: 'plain', exact: 'decimal', degrees: 'decimal' },
  } // prettier-ignore
  answer = ({ revision }) =>
    revision === 0
      ? { status: 409, body: { type: 'about:blank', title: 'changed', status: 409, folio: theirs, operations: [] } }
      : { status: 200, body: { revision: 8, changedAt: '2026-01-01T00:00:00Z' } }
  const met: number[] = []
  const s = saver((folio, unsent) => {
    met.push(folio.revision)
    return [...unsent, { type: 'rename', title: 'merged' }]
  })
  s.add([edit('a', '')])
  await jest.advanceTimersByTimeAsync(1500)
  expect(met).toEqual([7])
  expect(sent.at(-1)).toEqual({ revision: 7, operations: [edit('a', ''), { type: 'rename', title: 'merged' }] })
  expect(s.state.value.kind).toBe('saved')
})
