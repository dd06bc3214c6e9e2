import 'fake-indexeddb/auto'
import { PIECE_MOST } from '#shared/enclosure'
import type { Data } from '#core/measured/data'
import { encloseNumbers, goOnSending, onTheirWay, openNumbers, putBlock, sendAgain, stopSending } from './blocks'
import { changeStore, keysUnder, putBytes, recordsUnder } from './browserStore'

/** Bytes that come, and then nothing more. */
function breaksOff(bytes: Uint8Array): ReadableStream {
  let came = false
  return new ReadableStream({
    pull(controller) {
      if (came) controller.error(new TypeError('network'))
      else if (bytes.length > 0) controller.enqueue(bytes)
      came = true
    },
  })
}

/** A server that takes pieces, over a line that can break, be slow, or be refused. */
class Line {
  bytes = new Uint8Array(0)
  whole = false
  pieces: number[] = []
  /** From where on the numbers were asked for. */
  asked: number[] = []
  /** What happens to the next pieces, once each. */
  next: ('lost' | 'broken' | 'hangs' | number)[] = []

  async answer(path: string, init: RequestInit): Promise<Response> {
    if (path.endsWith('/received')) return Response.json({ received: this.bytes.length, whole: this.whole })
    const what = this.next.shift()
    if (init.method !== 'PUT') {
      const from = Number(new URLSearchParams(path.split('?')[1]).get('from'))
      this.asked.push(from)
      return new Response(what === 'broken' ? breaksOff(this.bytes.slice(from, from + 50_000)) : this.bytes.slice(from))
    }
    const signal = init.signal as AbortSignal
    if (what === 'hangs') await new Promise((_, refuse) => signal.addEventListener('abort', () => refuse(new Error())))
    if (what === 'broken') throw new TypeError('network')
    if (typeof what === 'number')
      return Response.json({ type: 'about:blank', title: 'Refused', status: what }, { status: what })
    const query = new URLSearchParams(path.split('?')[1])
    const [start, of] = [Number(query.get('start')), Number(query.get('of'))]
    const piece = new Uint8Array(init.body as ArrayBuffer)
    expect(piece.length).toBeLessThanOrEqual(PIECE_MOST)
    if (!this.whole && start === this.bytes.length) {
      this.bytes = new Uint8Array(Buffer.concat([this.bytes, piece]))
      this.pieces.push(piece.length)
      this.whole = this.bytes.length === of
    }
    if (what === 'lost') throw new TypeError('network')
    return Response.json({ kept: this.whole, received: this.bytes.length })
  }
}

const FOLIO = 'folio-0001'
const data: Data = { kind: 'matrix', rows: 100, cols: 100, re: Float64Array.from({ length: 10_000 }, (_, k) => k / 7), im: null } // prettier-ignore
let line: Line
/** Whoever asks before the page closes. */
let asks: (event: Event) => void = () => undefined
const until = async (done: () => boolean): Promise<void> => {
  for (let k = 0; k < 400 && !done(); k += 1) await new Promise((go) => setTimeout(go, 10))
  expect(done()).toBe(true)
}
beforeEach(async () => {
  line = new Line()
  globalThis.fetch = (path, init = {}) => line.answer(String(path), init)
  onTheirWay.value = []
  Object.assign(globalThis, { addEventListener: (_: string, ask: (event: Event) => void) => (asks = ask) })
  await changeStore({ remove: (await recordsUnder('')).map(([key]) => key) })
})
const enclosure = { kind: 'matrix' as const, name: 'a.mtx', block: 'block-0001', rows: 200, cols: 200, complex: false }
const numbers = Uint8Array.from({ length: 120_000 }, (_, k) => k % 251)

test('a block goes in pieces, through losses and breaks, and arrives as it was', async () => {
  line.next = ['lost', 'lost']
  const sent: number[] = []
  for (let k = 0; k < 5 && !line.whole; k += 1)
    await putBlock(
      FOLIO,
      'block-0001',
      numbers,
      new AbortController().signal,
      (s) => sent.push(s),
      line.bytes.length,
    ).catch((error: unknown) => expect(String(error)).toContain('does not answer'))
  expect(line.bytes).toEqual(numbers)
  expect(line.pieces.length).toBeGreaterThan(2)
  expect(sent.at(-1)).toBe(numbers.length)
})

test('numbers that break off on their way here go on where they were', async () => {
  Object.assign(line, { bytes: numbers, whole: true, next: ['broken', 'broken'] })
  expect(await openNumbers(FOLIO, 'block-0001')).toEqual(numbers)
  expect(line.asked).toEqual([0, 50_000, 100_000])
  // Where nothing comes at all it is not asked again and again.
  Object.assign(line, { bytes: new Uint8Array(0), next: ['broken'] })
  await expect(openNumbers(FOLIO, 'block-0001')).rejects.toThrow('does not answer')
})

test('numbers that are enclosed are kept in the browser until the server has all of them, and told meanwhile', async () => {
  line.next = ['hangs']
  const { block } = await encloseNumbers(FOLIO, 'big.mtx', data)
  expect(onTheirWay.value).toMatchObject([{ name: 'big.mtx', block, state: 'sending', kept: true }])
  expect(await keysUnder(`block:${FOLIO}:`)).toEqual([`block:${FOLIO}:${block}`])
  await until(() => line.next.length === 0)
  stopSending(onTheirWay.value[0]!)
  expect(onTheirWay.value).toMatchObject([{ state: 'stopped' }])
  expect((await openNumbers(FOLIO, block))!.length).toBe(80_000)
  sendAgain(onTheirWay.value[0]!)
  await until(() => onTheirWay.value.length === 0)
  expect(line.whole).toBe(true)
  expect(await keysUnder('block:')).toEqual([])
})

test('a browser that does not give back what it took is said not to keep it', async () => {
  const put = IDBObjectStore.prototype.put
  line.next = ['hangs']
  IDBObjectStore.prototype.put = function (value: unknown, key?: IDBValidKey) {
    return put.call(this, value instanceof Uint8Array ? value.slice(0, 100) : value, key)
  }
  await encloseNumbers(FOLIO, 'lost.mtx', data)
  IDBObjectStore.prototype.put = put
  expect(onTheirWay.value).toMatchObject([{ kept: false }])
  const asked = new Event('beforeunload', { cancelable: true })
  asks(asked)
  expect(asked.defaultPrevented).toBe(true)
  IDBObjectStore.prototype.put = () => {
    throw new DOMException('full', 'QuotaExceededError')
  }
  expect(await putBytes('block:x:y', numbers)).toBe(false)
  IDBObjectStore.prototype.put = put
  expect(await putBytes('block:x:y', numbers)).toBe(true)
  stopSending(onTheirWay.value[0]!)
})

test('a page that comes later goes on where an earlier one stopped; only with what an enclosure names', async () => {
  await putBytes(`block:${FOLIO}:block-0001`, numbers)
  await putBytes(`block:${FOLIO}:block-0002`, numbers)
  line.bytes = numbers.slice(0, 50_000)
  await goOnSending(FOLIO, [enclosure, { ...enclosure, name: 'there.mtx', block: 'block-0009' }])
  expect(onTheirWay.value.map((one) => one.block)).toEqual(['block-0001'])
  await until(() => onTheirWay.value.length === 0)
  expect(line.bytes).toEqual(numbers)
  expect(line.pieces.reduce((a, b) => a + b, 0)).toBe(numbers.length - 50_000)
  expect(await keysUnder('block:')).toEqual([`block:${FOLIO}:block-0002`])
})

test('what the server refuses for good waits to be asked for; a server that is gone is tried again', async () => {
  line.next = [413]
  await putBytes(`block:${FOLIO}:block-0001`, numbers)
  await goOnSending(FOLIO, [enclosure])
  await until(() => onTheirWay.value[0]?.state === 'failed')
  expect(onTheirWay.value[0]).toMatchObject({ message: 'Refused.', kept: true })
  line.next = ['broken']
  sendAgain(onTheirWay.value[0]!)
  await until(() => onTheirWay.value[0]?.message === 'The server does not answer.')
  await until(() => onTheirWay.value.length === 0)
  expect(line.bytes).toEqual(numbers)
}, 20_000)
