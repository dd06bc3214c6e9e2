import 'fake-indexeddb/auto'
import { bytesAt, changeStore, clearStore, keysUnder, putBytes, recordAt } from './browserStore'
import { handOver, newTicket, presentAddress, takeHanded } from './handing'
import { unsentFile, unsentWork } from './leaving'
import { ticketIn, withTicket } from './ticket'
import { unzipSync } from 'fflate'

/** What a server keeps under tickets. */
const handed = new Map<string, string[]>()
let refuses = false
const local = new Map<string, string>()
beforeEach(async () => {
  handed.clear()
  local.clear()
  refuses = false
  await clearStore()
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => local.get(key) ?? null,
      setItem: (key: string, value: string) => void local.set(key, value),
      removeItem: (key: string) => void local.delete(key),
    },
  })
  globalThis.fetch = async (path, init = {}) => {
    const [, , , ticket = ''] = String(path).split(/[/?]/)
    if (refuses) throw new TypeError('network')
    const records = handed.get(ticket) ?? []
    if (init.method === 'PUT') {
      const body = JSON.parse(String(init.body)) as { from: number; records: string[] }
      handed.set(ticket, [...records.slice(0, body.from), ...body.records])
      return Response.json({ kept: 1 })
    }
    if (init.method === 'DELETE') {
      handed.delete(ticket)
      return Response.json({ dropped: true })
    }
    const from = Number(/from=(\d+)/.exec(String(path))?.[1] ?? 0)
    return Response.json({ records: records.slice(from, from + 3) })
  }
})

const numbers = Uint8Array.from({ length: 20_003 }, (_, k) => (k * 31) % 256)
async function fill(): Promise<void> {
  await changeStore({
    put: [
      ['outbox-base:folio-01', { revision: 4 }],
      ['outbox:folio-01:00000001:key-0001', { key: 'key-0001', operations: [{ type: 'edit', id: 'line-0001', source: 'a = 2', was: 'a' }] }],
      ['draft:folio-01:line-0002', { text: 'b = 3', was: '', sent: null, at: 5 }],
      ['aside:folio-02:x', { at: '', why: 'w', texts: ['c = 4'], raw: [] }],
    ],
  }) // prettier-ignore
  await putBytes('block:folio-01:block-0001', numbers)
  local.set('ornate-phasor:last-words', '{"text":"d"}')
  local.set('another program', 'stays')
}

test('everything goes over, numbers too, and is taken away at one end only when the other has it', async () => {
  await fill()
  const ticket = newTicket()
  expect(ticket).toMatch(/^[A-Za-z0-9_-]{20,64}$/)
  refuses = true
  await expect(handOver(ticket, () => undefined, 8_000)).rejects.toThrow('does not answer')
  expect(await keysUnder('')).toHaveLength(5)
  refuses = false
  expect(await handOver(ticket, () => undefined, 8_000)).toBe(8)
  expect(await keysUnder('')).toEqual([])
  expect([...local.keys()]).toEqual(['another program'])
  // At the other end something newer stands already: it stays.
  await changeStore({ put: [['draft:folio-01:line-0002', { text: 'newer', was: '', sent: null, at: 9 }]] })
  expect(await takeHanded(ticket)).toBe(true)
  expect(handed.size).toBe(0)
  expect(await recordAt('outbox-base:folio-01')).toEqual({ revision: 4 })
  expect(await recordAt('draft:folio-01:line-0002')).toMatchObject({ text: 'newer' })
  expect(await bytesAt('block:folio-01:block-0001')).toEqual(numbers)
  expect(local.get('ornate-phasor:last-words')).toBe('{"text":"d"}')
})

test('a browser that keeps nothing leaves it with the server', async () => {
  await fill()
  const ticket = newTicket()
  await handOver(ticket, () => undefined, 8_000)
  const put = IDBObjectStore.prototype.put
  IDBObjectStore.prototype.put = () => {
    throw new DOMException('full', 'QuotaExceededError')
  }
  expect(await takeHanded(ticket)).toBe(false)
  expect(handed.get(ticket)!.length).toBe(8)
  IDBObjectStore.prototype.put = put
  expect(await takeHanded(ticket)).toBe(true)
  expect(await bytesAt('block:folio-01:block-0001')).toEqual(numbers)
})

test('the address where one goes on: a page of this server, whatever was asked for', () => {
  const here = { protocol: 'http:', hostname: 'lab.example' } as Location
  const ticket = newTicket()
  expect(presentAddress(here, 80, '/folio/x?y=1', ticket)).toBe(`http://lab.example:80/folio/x?y=1#handed=${ticket}`)
  expect(presentAddress(here, 80, '/a#b', null)).toBe('http://lab.example:80/a')
  for (const bad of ['//elsewhere.example', '/\\elsewhere.example', 'https://elsewhere.example', ''])
    expect(presentAddress(here, 80, bad, null)).toBe('http://lab.example:80/')
  expect(ticketIn(withTicket('', ticket))).toBe(ticket)
  expect([ticketIn(''), ticketIn('#handed='), ticketIn('#handed=../x'), ticketIn('#other')]).toEqual([null, null, null, null]) // prettier-ignore
})

test('what is unsent is told by folio, and goes out as a file', async () => {
  await fill()
  const unsent = await unsentWork()
  expect(unsent).toEqual([
    { folio: 'folio-01', changes: 1, texts: ['a = 2', 'b = 3'], numbers: 1 },
    { folio: 'folio-02', changes: 1, texts: ['c = 4'], numbers: 0 },
  ])
  const files = unzipSync(await unsentFile(unsent))
  const text = (name: string): string => new TextDecoder().decode(files[name])
  expect(text('unsent.txt')).toBe('# folio folio-01\na = 2\nb = 3\n\n# folio folio-02\nc = 4\n')
  expect(JSON.parse(text('unsent.json'))).toHaveProperty('outbox:folio-01:00000001:key-0001')
  expect(files['block-0001.f64']).toEqual(numbers)
  await clearStore()
  expect(await unsentWork()).toEqual([])
})
