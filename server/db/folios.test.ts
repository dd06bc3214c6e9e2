import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { QueryTypes } from 'sequelize'
import { newId } from '../../shared/id'
import { freshPlate } from '../../shared/plate'
import type { Operation } from '../../shared/operations'
import { openDatabase } from './database'
import type { Database } from './database'
import { DEMO_FOLIOS, seedShelf } from './demo'
import { Folios } from './folios'
import { Journal } from './journal'
import { Shelf } from './shelf'

// A busy machine is slow, not wrong: some of these tests save more than a hundred times.
jest.setTimeout(60_000)

let folder: string
let database: Database
let folios: Folios
let shelf: Shelf
let journal: Journal
let clock = 0
const file = (): string => join(folder, 'deep', 'folios.sqlite')

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'ornate-phasor-db-'))
  database = await openDatabase(file())
  clock = 0
  folios = new Folios(database, () => new Date(1_700_000_000_000 + 1000 * (clock += 1)).toISOString())
  shelf = new Shelf(database)
  journal = new Journal(database)
})
afterEach(async () => {
  await database.sequelize.close()
  rmSync(folder, { recursive: true })
})

const make = (...sources: string[]) =>
  folios.create({ title: 'Test', conventions: { angle: 'rad' }, lines: sources.map((source) => ({ source })) })

test('what is created is found again, also after the database was closed', async () => {
  const created = await make('a = 1', 'b = 2')
  await database.sequelize.close()
  database = await openDatabase(file())
  folios = new Folios(database)
  const opened = await folios.open(created.id)
  expect(opened).toEqual(created)
  expect(opened!.conventions).toMatchObject({ angle: 'rad', letter: 'j', digits: 5 })
})

test('the file is written ahead and keeps foreign keys', async () => {
  const pragma = (name: string) => database.sequelize.query(`PRAGMA ${name}`, { type: QueryTypes.SELECT })
  expect(await pragma('journal_mode')).toEqual([{ journal_mode: 'wal' }])
  expect(await pragma('foreign_keys')).toEqual([{ foreign_keys: 1 }])
  expect(await pragma('busy_timeout')).toEqual([{ timeout: 1500 }])
})

describe('saving', () => {
  test('operations build one revision after another', async () => {
    const { id, lines } = await make('a = 1', 'b = 2')
    const [a, b] = lines
    const fresh = { id: newId(), source: 'c = 3' }
    const operations: Operation[] = [
      { type: 'edit', id: a!.id, source: 'a = 10', was: 'a = 1' },
      { type: 'insert', at: 1, line: fresh },
      { type: 'move', id: b!.id, to: 0 },
      { type: 'convene', conventions: { digits: 7 } },
      { type: 'rename', title: 'Renamed' },
    ]
    expect(await folios.save(id, { revision: 0, operations })).toMatchObject({ status: 'saved', revision: 1 })
    expect(await folios.save(id, { revision: 1, operations: [{ type: 'remove', id: a!.id }] })).toMatchObject({
      status: 'saved',
      revision: 2,
    })
    const folio = await folios.open(id)
    expect(folio!.lines.map((l) => l.source)).toEqual(['b = 2', 'c = 3'])
    expect(folio).toMatchObject({ title: 'Renamed', revision: 2, conventions: { digits: 7, angle: 'rad' } })
  })
  test('a save on an old revision gets the state and the operations it missed', async () => {
    const { id, lines } = await make('a = 1')
    const edit = (source: string): Operation => ({ type: 'edit', id: lines[0]!.id, source, was: 'a = 1' })
    await folios.save(id, { revision: 0, operations: [edit('a = 2')] })
    const outcome = await folios.save(id, { revision: 0, operations: [edit('a = 3')] })
    expect(outcome).toMatchObject({
      status: 'conflict',
      missed: { revision: 1, saves: [{ revision: 1, key: null, operations: [edit('a = 2')] }] },
    })
    expect((await folios.open(id))!.lines[0]!.source).toBe('a = 2')
  })
  test('an operation that does not fit changes nothing at all', async () => {
    const { id, lines } = await make('a = 1')
    const operations: Operation[] = [
      { type: 'edit', id: lines[0]!.id, source: 'a = 2', was: 'a = 1' },
      { type: 'remove', id: newId() },
    ]
    expect(await folios.save(id, { revision: 0, operations })).toEqual({ status: 'misfit', index: 1 })
    expect(await folios.open(id)).toMatchObject({ revision: 0, lines: [{ source: 'a = 1' }] })
  })
  test('a folio that is not there', async () => {
    expect(await folios.save(newId(), { revision: 0, operations: [{ type: 'rename', title: 'x' }] })).toEqual({
      status: 'missing',
    })
    expect(await folios.open(newId())).toBeNull()
  })
  test('saves at the same time are put one after another', async () => {
    const { id, lines } = await make('a = 1')
    const results = await Promise.all(
      [1, 2, 3].map((k) =>
        folios.save(id, { revision: 0, operations: [{ type: 'edit', id: lines[0]!.id, source: `a = ${k}`, was: '' }] }),
      ),
    )
    expect(results.map((r) => r.status).sort()).toEqual(['conflict', 'conflict', 'saved'])
  })
})

describe('the shelf', () => {
  test('cards, last changed first, with what a thumbnail needs', async () => {
    const first = await make('z = 3 + 4j')
    const second = await make('1', '2')
    await folios.save(first.id, { revision: 0, operations: [{ type: 'rename', title: 'Later' }] })
    const cards = (await shelf.page()).folios
    expect(cards.map((c) => [c.title, c.lineCount])).toEqual([['Later', 1], ['Test', 2]]) // prettier-ignore
    expect(cards[0]!.preview).toEqual(['z = 3 + 4j'])
    expect(cards[1]!.id).toBe(second.id)
  })
  test('duplicate, bin, restore, remove for good', async () => {
    const { id } = await make('a = 1')
    const copy = await folios.duplicate(id)
    expect(copy).toMatchObject({ title: 'Test (copy)', lines: [{ source: 'a = 1' }] })
    expect(await folios.remove(id)).toBe(false)
    expect(await folios.bin(id, true)).toBe(true)
    expect((await shelf.page({ bin: true })).folios.find((c) => c.id === id)!.binnedAt).not.toBeNull()
    await folios.bin(id, false)
    expect((await shelf.page()).folios.find((c) => c.id === id)!.binnedAt).toBeNull()
    await folios.bin(id, true)
    expect(await folios.remove(id)).toBe(true)
    expect(await folios.open(id)).toBeNull()
    const [[left]] = (await database.sequelize.query(`SELECT COUNT(*) AS n FROM lines WHERE folio_id = '${id}'`)) as [
      { n: number }[],
      unknown,
    ]
    expect(left!.n).toBe(0)
    expect(await folios.bin(newId(), true)).toBe(false)
    expect(await folios.duplicate(newId())).toBeNull()
  })
  test('the demo folios come with a file that is made; a shelf that was emptied stays empty', async () => {
    const other = join(folder, 'other', 'folios.sqlite')
    const seed = (fresh: Database): Promise<void> => seedShelf(new Folios(fresh))
    const first = await openDatabase(other, { seed })
    expect(await new Folios(first).count()).toBe(DEMO_FOLIOS.length)
    await first.run('DELETE FROM folios')
    await first.close()
    const second = await openDatabase(other, { seed })
    expect(await new Folios(second).count()).toBe(0)
    await second.close()
  })
})

describe('marks of a line', () => {
  test('a note, a folded and a hidden line are kept, and taken off again', async () => {
    const created = await folios.create({
      title: 'Notes',
      conventions: {},
      lines: [{ source: '## Given', note: true }, { source: 'a = 1' }],
    })
    const [note, line] = created.lines
    expect(note).toMatchObject({ note: true })
    const marks = (id: string, set: Record<string, boolean>): Operation => ({ type: 'mark', id, marks: set })
    await folios.save(created.id, {
      revision: 0,
      operations: [marks(line!.id, { hidden: true, folded: true }), marks(note!.id, { note: false })],
    })
    const opened = await folios.open(created.id)
    expect(opened!.lines).toEqual([
      { id: note!.id, source: '## Given' },
      { id: line!.id, source: 'a = 1', folded: true, hidden: true },
    ])
    await folios.save(created.id, { revision: 1, operations: [marks(line!.id, { hidden: false })] })
    expect((await folios.open(created.id))!.lines[1]).toEqual({ id: line!.id, source: 'a = 1', folded: true })
  })

  test('a copy of a folio has the notes, too', async () => {
    const created = await folios.create({ title: 'N', conventions: {}, lines: [{ source: 'text', note: true }] })
    const copy = await folios.duplicate(created.id)
    expect(copy!.lines[0]).toMatchObject({ source: 'text', note: true })
    expect(copy!.lines[0]!.id).not.toBe(created.lines[0]!.id)
  })
})

describe('the journal', () => {
  const edit = (id: string, source: string, was: string): Operation => ({ type: 'edit', id, source, was })

  test('every earlier state can be opened, over checkpoints too', async () => {
    const created = await make('a = 0')
    const id = created.lines[0]!.id
    for (let k = 1; k <= 120; k += 1)
      await folios.save(created.id, { revision: k - 1, operations: [edit(id, `a = ${k}`, `a = ${k - 1}`)] })
    expect(await database.models.checkpoints.count()).toBe(3)
    for (const revision of [0, 1, 49, 50, 51, 119, 120]) {
      const state = await journal.stateAt(created.id, revision)
      expect(state!.lines[0]!.source).toBe(`a = ${revision}`)
    }
    expect(await journal.stateAt(created.id, 121)).toBeNull()
    expect(await journal.stateAt(created.id, -1)).toBeNull()
  })

  test('entries come newest first, a page at a time', async () => {
    const created = await make('a = 0')
    const id = created.lines[0]!.id
    await database.models.revisions.bulkCreate(
      Array.from({ length: 310 }, (_, k) => ({
        folioId: created.id,
        revision: k + 1,
        operations: JSON.stringify([edit(id, `a = ${k + 1}`, `a = ${k}`)]),
        savedAt: new Date(k).toISOString(),
      })),
    )
    const newest = await journal.page(created.id)
    expect(newest.entries.map((e) => e.revision).slice(0, 3)).toEqual([310, 309, 308])
    expect(newest.entries).toHaveLength(300)
    expect(newest.more).toBe(true)
    const rest = await journal.page(created.id, newest.entries.at(-1)!.revision)
    expect(rest!.entries.map((e) => e.revision)).toEqual([10, 9, 8, 7, 6, 5, 4, 3, 2, 1])
    expect(rest!.more).toBe(false)
    expect(rest!.entries[0]!.operations).toEqual([edit(id, 'a = 10', 'a = 9')])
    expect(await folios.exists('no-such-folio')).toBe(false)
  })
})

describe('looking for a folio', () => {
  test('titles and lines are searched, and a line that has the text comes with the card', async () => {
    await folios.create({ title: 'Mast stays', conventions: {}, lines: [{ source: 'F = 22∠45°' }] })
    await folios.create({ title: 'Lamp', conventions: {}, lines: [{ source: 'Z = 3 + 4j' }, { source: '100%_of' }] })
    const titles = async (text: string) => (await shelf.page({ find: text })).folios.map((c) => [c.title, c.match])
    expect(await titles('mast')).toEqual([['Mast stays', null]])
    expect(await titles('z = 3')).toEqual([['Lamp', 'Z = 3 + 4j']])
    expect(await titles('%_')).toEqual([['Lamp', '100%_of']])
    expect(await titles("'; DROP TABLE lines; --")).toEqual([])
    expect((await shelf.page()).folios).toHaveLength(2)
  })

  test('the bin is emptied, and only the bin', async () => {
    const a = await make('a')
    const b = await make('b')
    await make('c')
    await folios.bin(a.id, true)
    await folios.bin(b.id, true)
    expect(await folios.emptyBin()).toBe(2)
    expect(await folios.emptyBin()).toBe(0)
    expect(await folios.count()).toBe(1)
  })
})

test('plates are kept with the folio, and in its earlier states', async () => {
  const created = await make('z = 1j')
  const plate = { ...freshPlate(newId()), caption: 'Currents', grid: 'polar' as const, off: [created.lines[0]!.id] }
  await folios.save(created.id, { revision: 0, operations: [{ type: 'plate', plate }] })
  expect((await folios.open(created.id))!.plates).toEqual([plate])
  await folios.save(created.id, { revision: 1, operations: [{ type: 'unplate', id: plate.id }] })
  expect((await folios.open(created.id))!.plates).toEqual([])
  expect((await journal.stateAt(created.id, 1))!.plates).toEqual([plate])
})
