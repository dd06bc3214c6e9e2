import 'fake-indexeddb/auto'
import * as fc from 'fast-check'
import { changeStore, recordsUnder } from './browserStore'
import { DraftKeeper, readDrafts } from './drafts'
import { dropAside, keepParts, readAside, readOutbox } from './outbox'
import type { WaitingPart } from './outbox'

/** What waits in the browser, whatever became of it: drafts of lines, and parts that are not on the server yet. */

const local = new Map<string, string>()
let localRefuses = false
beforeEach(async () => {
  local.clear()
  localRefuses = false
  await changeStore({ remove: (await recordsUnder('')).map(([key]) => key) })
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => local.get(key) ?? null,
      setItem: (key: string, value: string) => {
        if (localRefuses) throw new Error('full')
        local.set(key, value)
      },
      removeItem: (key: string) => void local.delete(key),
    },
  })
})

const FOLIO = 'folio-01'
const edit = (source: string, was = ''): WaitingPart['operations'][number] => ({ type: 'edit', id: 'line-0001', source, was }) // prettier-ignore
const part = (place: number, ...sources: string[]): WaitingPart => ({
  key: `part-key-${place}`,
  place,
  operations: sources.map((s) => edit(s)),
})
const texts = (parts: readonly WaitingPart[]): string[] =>
  parts.flatMap((p) => p.operations.flatMap((o) => (o.type === 'edit' ? [o.source] : [])))

describe('drafts', () => {
  test('each line has its newest text, soon after a key, and none once it is kept', async () => {
    const told: boolean[] = []
    const keeper = new DraftKeeper(FOLIO, (kept) => told.push(kept))
    keeper.keep({ line: 'line-0001', text: 'a =', was: '', sent: null })
    keeper.keep({ line: 'line-0001', text: 'a = 2', was: '', sent: null })
    expect(await readDrafts(FOLIO)).toEqual([])
    await keeper.flush()
    keeper.keep({ line: 'line-0002', text: 'b', was: 'b = 1', sent: 'b' })
    await keeper.flush()
    expect((await readDrafts(FOLIO)).map((d) => [d.line, d.text, d.was, d.sent])).toEqual([
      ['line-0001', 'a = 2', '', null],
      ['line-0002', 'b', 'b = 1', 'b'],
    ])
    await keeper.forget('line-0001')
    expect((await readDrafts(FOLIO)).map((d) => d.line)).toEqual(['line-0002'])
    expect(await readDrafts('folio-02')).toEqual([])
    expect(new Set(told)).toEqual(new Set([true]))
  })

  test('a draft that is forgotten before it was written is not written', async () => {
    const keeper = new DraftKeeper(FOLIO)
    keeper.keep({ line: 'line-0001', text: 'gone', was: null, sent: null })
    await keeper.forget('line-0001')
    await keeper.flush()
    expect(await readDrafts(FOLIO)).toEqual([])
  })

  test('the last words of a page that goes count once, in their folio, where they are newer than the store', async () => {
    const keeper = new DraftKeeper(FOLIO)
    keeper.keep({ line: 'line-0001', text: 'kept', was: '', sent: null })
    await keeper.flush()
    await new Promise((done) => setTimeout(done, 5))
    keeper.keep({ line: 'line-0001', text: 'kept and more', was: '', sent: null })
    keeper.lastWords()
    expect((await readDrafts('folio-02')).length).toBe(0)
    expect((await readDrafts(FOLIO)).map((d) => d.text)).toEqual(['kept and more'])
    // They were taken: the store is all there is now.
    expect((await readDrafts(FOLIO)).map((d) => d.text)).toEqual(['kept'])
    await keeper.flush()
  })

  test('what is on its way into the store when the page goes is among the last words; what has arrived is not', async () => {
    const keeper = new DraftKeeper(FOLIO)
    keeper.keep({ line: 'line-0001', text: 'on its way', was: '', sent: null })
    const writing = keeper.flush()
    keeper.lastWords()
    expect(JSON.parse(local.get('ornate-phasor:last-words') ?? '{}')).toMatchObject({ text: 'on its way' })
    local.clear()
    await writing
    keeper.lastWords()
    expect(local.size).toBe(0)
    keeper.keep({ line: 'line-0001', text: 'kept as a line', was: '', sent: null })
    await keeper.forget('line-0001')
    keeper.lastWords()
    expect(local.size).toBe(0)
  })

  test('last words that are older than the store give way, and a store that is full is no failure', async () => {
    local.set('ornate-phasor:last-words', JSON.stringify({ folio: FOLIO, line: 'line-0001', text: 'old', at: 1 }))
    const keeper = new DraftKeeper(FOLIO)
    keeper.keep({ line: 'line-0001', text: 'new', was: null, sent: null })
    await keeper.flush()
    expect((await readDrafts(FOLIO)).map((d) => d.text)).toEqual(['new'])
    localRefuses = true
    keeper.keep({ line: 'line-0001', text: 'newer', was: null, sent: null })
    expect(() => keeper.lastWords()).not.toThrow()
    await keeper.flush()
    expect((await readDrafts(FOLIO)).map((d) => d.text)).toEqual(['newer'])
  })

  test.each(['{', 'null', '[]', '{"folio":"folio-01"}', '{"folio":"folio-01","line":7,"text":"x"}'])(
    'what cannot be read is no draft: %s',
    async (kept) => {
      local.set('ornate-phasor:last-words', kept)
      local.set('ornate-phasor:draft', kept)
      await changeStore({ put: [[`draft:${FOLIO}:line-0001`, { text: 5 }], [`draft:${FOLIO}:line-0002`, null]] }) // prettier-ignore
      expect(await readDrafts(FOLIO)).toEqual([])
    },
  )

  test('the one draft of old is taken over', async () => {
    local.set('ornate-phasor:draft', JSON.stringify({ folio: FOLIO, line: 'line-0009', text: 'from before' }))
    expect(await readDrafts(FOLIO)).toEqual([{ line: 'line-0009', text: 'from before', was: null, sent: null, at: 0 }])
    expect(await readDrafts(FOLIO)).toEqual([])
  })
})

describe('parts that wait', () => {
  test('come back in their order, whatever order they were kept in', async () => {
    await fc.assert(
      fc.asyncProperty(fc.uniqueArray(fc.nat(20_000), { minLength: 1, maxLength: 12 }), async (places) => {
        await changeStore({ remove: (await recordsUnder('')).map(([key]) => key) })
        for (const place of places) expect(await keepParts(FOLIO, 4, [part(place, `a = ${place}`)])).toBe(true)
        const { revision, parts } = await readOutbox(FOLIO)
        const sorted = [...places].sort((x, y) => x - y)
        expect([revision, parts.map((p) => p.place), texts(parts)]).toEqual([4, sorted, sorted.map((n) => `a = ${n}`)])
      }),
      { numRuns: 25 },
    )
  })

  test('what is sent goes, what is new comes, as one change', async () => {
    await keepParts(FOLIO, 4, [part(1, 'a'), part(2, 'b')])
    await keepParts(FOLIO, 5, [part(3, 'c')], [part(1)])
    const { revision, parts } = await readOutbox(FOLIO)
    expect([revision, texts(parts)]).toEqual([5, ['b', 'c']])
    expect(await readOutbox('folio-02')).toEqual({ revision: null, parts: [] })
  })

  test('of a part that is damaged what can be read goes on, and the rest is set aside with its texts', async () => {
    const damaged = { key: 'part-key-1', operations: [edit('good'), { type: 'edit', source: 'lost text' }, { type: 'insert', line: { source: 'and this' } }, 7] } // prettier-ignore
    await changeStore({ put: [[`outbox:${FOLIO}:00000001:part-key-1`, damaged], [`outbox-base:${FOLIO}`, { revision: 3 }]] }) // prettier-ignore
    expect(texts((await readOutbox(FOLIO)).parts)).toEqual(['good'])
    const aside = await readAside(FOLIO)
    expect(aside.map((a) => [a.why, a.texts])).toEqual([['It could not be read any more.', ['lost text', 'and this']]])
    // It is mended: read again, it is the same, and nothing is set aside twice.
    expect(texts((await readOutbox(FOLIO)).parts)).toEqual(['good'])
    expect(await readAside(FOLIO)).toHaveLength(1)
    await dropAside(aside.map((a) => a.key))
    expect(await readAside(FOLIO)).toEqual([])
  })

  test('whatever stands in a record, nothing of it is dropped unseen', async () => {
    await fc.assert(
      fc.asyncProperty(fc.jsonValue(), async (record) => {
        await changeStore({ remove: (await recordsUnder('')).map(([key]) => key) })
        await changeStore({ put: [[`outbox:${FOLIO}:00000001:part-key-1`, record]] })
        const { parts } = await readOutbox(FOLIO)
        const aside = await readAside(FOLIO)
        const empty = typeof record === 'object' && record !== null && 'operations' in record && Array.isArray(record.operations) && record.operations.length === 0 // prettier-ignore
        expect(parts.length + aside.length > 0 || empty).toBe(true)
      }),
      { numRuns: 40 },
    )
  })

  test('the outbox of old, one record, is taken over part by part', async () => {
    await changeStore({ put: [[`outbox:${FOLIO}`, { revision: 7, operations: [edit('a'), edit('b'), { type: 'nonsense' }] }]] }) // prettier-ignore
    const { revision, parts } = await readOutbox(FOLIO)
    expect([revision, texts(parts)]).toEqual([7, ['a', 'b']])
    expect(await readAside(FOLIO)).toHaveLength(1)
    expect(await readOutbox(FOLIO)).toEqual({ revision, parts })
  })
})
