import sqlite3 from 'sqlite3'
import { BusyError } from './database'
import { openBench } from './testing'
import type { Bench } from './testing'

jest.setTimeout(60_000)
let bench: Bench
let other: sqlite3.Database
const exec = (sql: string): Promise<void> =>
  new Promise((done, failed) => other.exec(sql, (e) => (e ? failed(e) : done())))
beforeEach(async () => {
  bench = await openBench()
  other = new sqlite3.Database(bench.file)
  await exec('PRAGMA journal_mode')
})
afterEach(async () => {
  await new Promise<void>((done) => other.close(() => done()))
  await bench.end()
})

const make = () => bench.folios.create({ title: 'T', conventions: {}, lines: [] })

test('a file that another program holds is waited for shortly, and the next saves do not queue behind', async () => {
  const { id } = await make()
  await exec('BEGIN IMMEDIATE')
  const began = Date.now()
  const saves = await Promise.allSettled(
    [1, 2, 3, 4, 5].map(() => bench.folios.save(id, { revision: 0, operations: [{ type: 'rename', title: 'x' }] })),
  )
  expect(saves.map((s) => s.status)).toEqual(Array(5).fill('rejected'))
  for (const save of saves) expect((save as PromiseRejectedResult).reason).toBeInstanceOf(BusyError)
  // One busy time for all five, not one after another (and certainly not 26 s).
  expect(Date.now() - began).toBeLessThan(4_500)
  // What is read is not held up.
  expect((await bench.folios.open(id))!.title).toBe('T')
  await exec('COMMIT')
  expect(await bench.folios.save(id, { revision: 0, operations: [{ type: 'rename', title: 'x' }] })).toMatchObject({
    status: 'saved',
  })
})

test('a lock that is let go in time is no trouble', async () => {
  const { id } = await make()
  await exec('BEGIN IMMEDIATE')
  const save = bench.folios.save(id, { revision: 0, operations: [{ type: 'rename', title: 'x' }] })
  await new Promise((done) => setTimeout(done, 400))
  await exec('COMMIT')
  expect(await save).toMatchObject({ status: 'saved' })
})

test('a save that is sent again under its key is carried out once, whatever came between', async () => {
  const { id } = await make()
  const save = {
    revision: 0,
    key: 'the-same-key',
    operations: [{ type: 'insert' as const, at: 0, line: { id: 'line-0001', source: 'a' } }],
  }
  const first = await bench.folios.save(id, save)
  await bench.folios.save(id, { revision: 1, operations: [{ type: 'rename', title: 'Other' }] })
  expect(await bench.folios.save(id, save)).toEqual(first)
  expect((await bench.folios.open(id))!).toMatchObject({ revision: 2, lines: [{ source: 'a' }] })
})

test('what was missed is told save by save, up to a bound', async () => {
  const { id } = await make()
  const source = 'x'.repeat(150_000)
  for (let k = 0; k < 4; k += 1) {
    await bench.folios.save(id, {
      revision: k,
      operations: [{ type: 'insert', at: 0, line: { id: `line-000${k}`, source } }],
    })
  }
  expect((await bench.folios.missed(id, 3))!.saves).toHaveLength(1)
  expect(await bench.folios.missed(id, 0)).toMatchObject({ revision: 4, saves: null })
  expect(await bench.folios.missed(id, 4)).toMatchObject({ saves: [] })
  expect((await bench.folios.missed(id, 9))!.saves).toBeNull()
  expect(await bench.folios.missed('no-such-folio', 0)).toBeNull()
})
