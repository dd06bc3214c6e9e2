import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openDatabase } from './database'
import type { Database } from './database'
import { STRAY_BYTES_MOST } from '../../shared/enclosure'
import { Blocks } from './blocks'
import { Folios } from './folios'

let folder = ''
let database: Database
let folios: Folios
let blocks: Blocks
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'ornate-phasor-blocks-'))
  database = await openDatabase(join(folder, 'folios.sqlite'))
  folios = new Folios(database)
  blocks = new Blocks(database)
})
afterEach(async () => {
  await database.close()
  rmSync(folder, { recursive: true })
})

const enclosure = { kind: 'matrix' as const, name: 'a.mtx', block: 'block-0001', rows: 1, cols: 2, complex: false }
const numbers = new Uint8Array(new Float64Array([1.5, -2]).buffer)

const whole = (bytes: Uint8Array) => ({ numbers: bytes, start: 0, of: bytes.length })

test('a block is kept once and never changes', async () => {
  const { id } = await folios.create({ title: 'T', conventions: {}, lines: [] })
  expect(await blocks.open(id, 'block-0001')).toBeNull()
  expect(await blocks.keep(id, 'block-0001', whole(numbers))).toEqual({ status: 'kept' })
  expect(await blocks.keep(id, 'block-0001', whole(new Uint8Array(16)))).toEqual({ status: 'kept' })
  expect(new Uint8Array((await blocks.open(id, 'block-0001'))!)).toEqual(numbers)
  expect(await blocks.keep('no-such-folio', 'block-0001', whole(numbers))).toEqual({ status: 'missing' })
})

test('pieces come one after the other, go on where they were, and are a block once all are there', async () => {
  const { id } = await folios.create({ title: 'T', conventions: {}, lines: [] })
  const of = numbers.length
  const piece = (start: number, end: number) => ({ numbers: numbers.slice(start, end), start, of })
  const keep = (start: number, end: number) => blocks.keep(id, 'block-0001', piece(start, end))
  expect(await keep(0, 5)).toEqual({ status: 'part', received: 5 })
  // A piece whose answer was lost, and one that comes too early: both are told how far it is.
  expect(await keep(0, 5)).toEqual({ status: 'part', received: 5 })
  expect(await keep(9, of)).toEqual({ status: 'part', received: 5 })
  expect(await blocks.received(id, 'block-0001')).toEqual({ received: 5, whole: false })
  expect(await blocks.open(id, 'block-0001')).toBeNull()
  expect(await keep(5, of)).toEqual({ status: 'kept' })
  expect(new Uint8Array((await blocks.open(id, 'block-0001'))!)).toEqual(numbers)
  expect(await blocks.received(id, 'block-0001')).toEqual({ received: of, whole: true })
  expect(await database.rows('SELECT * FROM block_parts')).toEqual([])
})

test('what no enclosure refers to is limited, whole or in pieces; what one takes up is the folio’s', async () => {
  const { id, lines } = await folios.create({ title: 'T', conventions: {}, lines: [{ source: '' }] })
  await database.run("INSERT INTO blocks (folio_id, id, numbers, saved_at, enclosed) VALUES (?, 'stray-0001', zeroblob(?), '', 0)", [id, STRAY_BYTES_MOST - 8]) // prettier-ignore
  expect(await blocks.keep(id, 'block-0001', whole(numbers))).toEqual({ status: 'full' })
  expect(await blocks.keep(id, 'block-0001', { numbers: numbers.slice(0, 8), start: 0, of: 16 })).toMatchObject({ received: 8 }) // prettier-ignore
  expect(await blocks.keep(id, 'block-0001', { numbers: numbers.slice(8), start: 8, of: 16 })).toEqual({ status: 'full' }) // prettier-ignore
  // An enclosure that names the large one frees its room; one that was saved before its numbers came knows them, too.
  const take = (name: string, block: string) => ({ type: 'enclose' as const, enclosure: { ...enclosure, name, block } })
  await folios.save(id, { revision: 0, operations: [take('a.mtx', 'stray-0001'), take('b.mtx', 'block-0001')] })
  expect(await blocks.keep(id, 'block-0001', { numbers: numbers.slice(8), start: 8, of: 16 })).toEqual({ status: 'kept' }) // prettier-ignore
  expect(await database.rows('SELECT id, enclosed FROM blocks ORDER BY id')).toEqual([
    { id: 'block-0001', enclosed: 1 },
    { id: 'stray-0001', enclosed: 1 },
  ])
  expect(lines).toHaveLength(1)
})

test('enclosures, answers and the head of the sheet are saved, reopened, duplicated and restored', async () => {
  const created = await folios.create(
    { title: 'T', conventions: {}, lines: [{ source: 'a = 1', answer: '1 a' }], enclosures: [enclosure], head: { course: 'C', sheet: '2', date: '' } },
    new Map([['block-0001', numbers]]),
  ) // prettier-ignore
  const { id } = created
  const [line] = created.lines
  const saved = await folios.save(id, {
    revision: 0,
    operations: [
      { type: 'unenclose', name: 'a.mtx' },
      { type: 'head', head: { sheet: '3' } },
      { type: 'mark', id: line!.id, marks: { answer: '' } },
    ],
  })
  expect(saved).toMatchObject({ status: 'saved', revision: 1 })
  expect(await folios.open(id)).toMatchObject({ enclosures: [], head: { course: 'C', sheet: '3' }, lines: [{ source: 'a = 1' }] }) // prettier-ignore
  const back = await folios.save(id, { revision: 1, operations: [{ type: 'enclose', enclosure }] })
  expect(back.status).toBe('saved')
  const copy = await folios.duplicate(id)
  expect(copy).toMatchObject({ enclosures: [enclosure], head: { sheet: '3' } })
  expect(new Uint8Array((await blocks.open(copy!.id, 'block-0001'))!)).toEqual(numbers)
})

test('runs are saved, reopened, duplicated under lines of their own, restored and rescued', async () => {
  const set = (name: string, line: string) => ({ id: `set-${name}-1`, name, values: { [line]: '15' } })
  const lines = [{ id: 'line-from-file', source: 'R = 12', varied: true as const }, { source: 'I = 230/R' }]
  const created = await folios.create({ title: 'T', conventions: {}, lines, sets: [set('dry', 'line-from-file')] })
  const { id } = created
  const [varied, watched] = created.lines.map((l) => l.id)
  expect(created.sets).toEqual([set('dry', varied!)])
  await folios.save(id, {
    revision: 0,
    operations: [
      { type: 'mark', id: watched!, marks: { watched: true } },
      { type: 'set', set: set('wet', varied!) },
    ],
  })
  expect(await folios.open(id)).toMatchObject({
    lines: [
      { source: 'R = 12', varied: true },
      { source: 'I = 230/R', watched: true },
    ],
    sets: [set('dry', varied!), set('wet', varied!)],
  })
  const copy = await folios.duplicate(id)
  expect(copy!.sets.map((s) => s.values)).toEqual([{ [copy!.lines[0]!.id]: '15' }, { [copy!.lines[0]!.id]: '15' }])
  await folios.save(id, { revision: 1, operations: [{ type: 'unset', id: 'set-dry-1' }, { type: 'mark', id: varied!, marks: { varied: false } }] }) // prettier-ignore
  const now = await folios.open(id)
  expect(now).toMatchObject({ lines: [{ source: 'R = 12' }, { watched: true }], sets: [{ name: 'wet' }] })
  expect(now!.lines[0]).not.toHaveProperty('varied')
  await database.run(`UPDATE folios SET sets = '[{}]' WHERE id = ?`, [id])
  await expect(folios.open(id)).rejects.toThrow('sets of its runs')
  expect(await folios.rescue(id)).toMatchObject({ lines: [{ source: 'R = 12' }, { watched: true }], sets: [] })
})

test('the numbers go with their folio', async () => {
  const { id } = await folios.create({ title: 'T', conventions: {}, lines: [] }, new Map([['block-0001', numbers]]))
  await folios.bin(id, true)
  await folios.remove(id)
  expect(await blocks.open(id, 'block-0001')).toBeNull()
})

test('a damaged list of enclosures is said to be one; the rest can be rescued', async () => {
  const { id } = await folios.create({ title: 'T', conventions: {}, lines: [{ source: 'a = 1' }] })
  await database.run("UPDATE folios SET enclosures = '[{]' WHERE id = ?", [id])
  await expect(folios.open(id)).rejects.toThrow('its enclosures')
  expect(await folios.rescue(id)).toMatchObject({ lines: [{ source: 'a = 1' }], enclosures: [] })
})
