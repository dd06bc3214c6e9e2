import { spawn } from 'node:child_process'
import {
  copyFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Sequelize } from 'sequelize'
import sqlite3 from 'sqlite3'
import { DEFAULT_CONVENTIONS } from '../../shared/conventions'
import { openDatabase } from './database'
import type { Database } from './database'
import { Folios } from './folios'
import { Journal } from './journal'
import { MIGRATIONS, SCHEMA_VERSION } from './migrate'
import { Shelf } from './shelf'

jest.setTimeout(120_000)

let folder: string
let open: Database[] = []
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'ornate-phasor-upgrade-'))))
afterEach(async () => {
  for (const database of open) await database.close()
  open = []
  rmSync(folder, { recursive: true })
})
const file = (): string => join(folder, 'folios.sqlite')
async function opened(log: (line: string) => void = () => undefined): Promise<Database> {
  const database = await openDatabase(file(), { log })
  open.push(database)
  return database
}

/** A file as the first version left it, with as many folios as asked for. */
async function firstVersion(count: number, at = file()): Promise<void> {
  const sequelize = new Sequelize({ dialect: 'sqlite', dialectModule: sqlite3, storage: at, logging: false })
  const run = (sql: string, replacements: unknown[] = []) => sequelize.query(sql, { replacements })
  await run(`CREATE TABLE folios (id TEXT PRIMARY KEY, title TEXT NOT NULL, conventions TEXT NOT NULL, line_order TEXT NOT NULL,
    revision INTEGER NOT NULL DEFAULT 0, created_at TEXT NOT NULL, changed_at TEXT NOT NULL, binned_at TEXT) WITHOUT ROWID`)
  await run(`CREATE TABLE lines (folio_id TEXT NOT NULL REFERENCES folios(id) ON DELETE CASCADE, id TEXT NOT NULL,
    source TEXT NOT NULL, PRIMARY KEY (folio_id, id)) WITHOUT ROWID`)
  await run(`CREATE TABLE revisions (folio_id TEXT NOT NULL REFERENCES folios(id) ON DELETE CASCADE, revision INTEGER NOT NULL,
    operations TEXT NOT NULL, saved_at TEXT NOT NULL, PRIMARY KEY (folio_id, revision)) WITHOUT ROWID`)
  await run('CREATE INDEX folios_by_change ON folios (changed_at)')
  await run('CREATE TABLE migrations (name VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)')
  await run("INSERT INTO migrations VALUES ('0001-first-tables')")
  await run('BEGIN')
  for (let k = 0; k < count; k += 1) {
    const id = `folio-${String(k).padStart(6, '0')}`
    const conventions = JSON.stringify({ ...DEFAULT_CONVENTIONS, degrees: undefined })
    await run('INSERT INTO folios VALUES (?, ?, ?, ?, 3, ?, ?, NULL)', [
      id, `Sheet ${k}`, conventions, JSON.stringify(['line-b001', 'line-a001']), '2026-01-01T00:00:00Z', `2026-01-02T00:00:${String(k % 60).padStart(2, '0')}Z`,
    ]) // prettier-ignore
    await run('INSERT INTO lines VALUES (?, ?, ?), (?, ?, ?)', [
      id, 'line-a001', `a = ${k}`, id, 'line-b001', `Z_mast = ${k} + 3j`,
    ]) // prettier-ignore
  }
  await run('COMMIT')
  await sequelize.close()
}

async function expectWhole(database: Database, count: number): Promise<void> {
  const folios = new Folios(database)
  expect(await folios.count()).toBe(count)
  for (const k of [0, count - 1]) {
    const folio = await folios.open(`folio-${String(k).padStart(6, '0')}`)
    expect(folio!.lines.map((l) => l.source)).toEqual([`Z_mast = ${k} + 3j`, `a = ${k}`])
    expect((await new Journal(database).stateAt(folio!.id, 3))!.lines).toEqual(folio!.lines)
  }
  expect((await new Shelf(database).page({ find: 'mast = ' })).count).toBe(count)
}

test('a file of the first version is upgraded, and as it was is kept beside it', async () => {
  await firstVersion(20)
  const before = statSync(file()).size
  const said: string[] = []
  const database = await opened((line) => said.push(line))
  await expectWhole(database, 20)
  const [copy, ...others] = readdirSync(join(folder, 'backups'))
  expect(others).toEqual([])
  expect(copy).toMatch(/^before-0002-marks-and-checkpoints-\d{4}-.*\.sqlite$/)
  expect(said).toEqual([expect.stringContaining(copy!)])
  expect(statSync(join(folder, 'backups', copy!)).size).toBeGreaterThan(before / 2)
  // The copy is a whole data file: put in its place it is upgraded in its turn.
  await database.close()
  open = []
  for (const end of ['', '-wal', '-shm']) rmSync(`${file()}${end}`, { force: true })
  copyFileSync(join(folder, 'backups', copy!), file())
  await expectWhole(await opened(), 20)
})

test('a second start changes nothing and makes no copy', async () => {
  await firstVersion(2)
  await (await opened()).close()
  open = []
  const said: string[] = []
  await opened((line) => said.push(line))
  expect(said).toEqual([])
  expect(readdirSync(join(folder, 'backups'))).toHaveLength(1)
})

test.each(['marks', 'checkpoints', 'plates', 'everything but the note'])(
  'a file that an older program left half upgraded (%s) is upgraded all the same',
  async (half) => {
    await firstVersion(5)
    const sequelize = new Sequelize({ dialect: 'sqlite', dialectModule: sqlite3, storage: file(), logging: false })
    const statements: Record<string, string[]> = {
      marks: ['ALTER TABLE lines ADD COLUMN note INTEGER NOT NULL DEFAULT 0'],
      checkpoints: [
        'CREATE TABLE checkpoints (folio_id TEXT NOT NULL REFERENCES folios(id) ON DELETE CASCADE, revision INTEGER NOT NULL, state TEXT NOT NULL, saved_at TEXT NOT NULL, PRIMARY KEY (folio_id, revision)) WITHOUT ROWID',
        `INSERT INTO checkpoints SELECT id, revision, json_object('title', title, 'conventions', json(conventions), 'lines', json('[{"id":"line-b001","source":"Z_mast = 0 + 3j"},{"id":"line-a001","source":"a = 0"}]')), changed_at FROM folios LIMIT 1`,
      ],
      plates: ["ALTER TABLE folios ADD COLUMN plates TEXT NOT NULL DEFAULT '[]'"],
    }
    for (const sql of half in statements ? statements[half]! : Object.values(statements).flat())
      await sequelize.query(sql)
    await sequelize.close()
    await expectWhole(await opened(), 5)
  },
)

test('a file of a newer program is refused with a sentence, and nothing is written into it', async () => {
  const database = await opened()
  await database.run("INSERT INTO migrations (name) VALUES ('0099-from-tomorrow')")
  await database.close()
  open = []
  const before = readFileSync(file())
  await expect(openDatabase(file())).rejects.toThrow(/upgraded by a newer version/)
  expect(readFileSync(file()).equals(before)).toBe(true)
})

test('a file that is upgraded while this program runs is only read from then on', async () => {
  const database = await opened()
  const folios = new Folios(database)
  const { id } = await folios.create({ title: 'Before', conventions: {}, lines: [] })
  await database.run(`PRAGMA user_version = ${SCHEMA_VERSION + 1}`)
  await expect(folios.create({ title: 'After', conventions: {}, lines: [] })).rejects.toThrow(/newer version/)
  expect((await folios.open(id))!.title).toBe('Before')
  expect(await folios.count()).toBe(1)
})

test('a file that is no database, is damaged, or has been emptied is refused and left as it is', async () => {
  writeFileSync(file(), 'This is no data file at all, though it is long enough to be read as one.'.repeat(40))
  await expect(openDatabase(file())).rejects.toThrow(/is damaged or is no data file/)
  expect(readFileSync(file(), 'utf8')).toContain('This is no data file')
  writeFileSync(file(), '')
  await expect(openDatabase(file())).rejects.toThrow(/is empty/)
  expect(statSync(file()).size).toBe(0)
})

test('a folder that cannot be made is said', async () => {
  writeFileSync(join(folder, 'a-file'), '')
  await expect(openDatabase(join(folder, 'a-file', 'deep', 'folios.sqlite'))).rejects.toThrow(/cannot be made/)
})

/**
 * Kills a process at a random moment while it upgrades; the file must then open,
 * with everything in it. Longer by `ORNATE_PHASOR_KILLS`.
 */
const kills = Number(process.env.ORNATE_PHASOR_KILLS ?? 6)
test(
  'a kill in the middle of an upgrade loses nothing',
  async () => {
    const original = join(folder, 'original.sqlite')
    await firstVersion(600, original)
    let interrupted = 0
    for (let k = 0; k < kills; k += 1) {
      const data = join(folder, `try-${k}`)
      mkdirSync(data)
      copyFileSync(original, join(data, 'folios.sqlite'))
      const child = spawn(
        process.execPath,
        ['--import', 'tsx', 'server/db/migrateOnce.ts', join(data, 'folios.sqlite')],
        {
          stdio: ['ignore', 'pipe', 'inherit'],
        },
      )
      const ended = new Promise<number | null>((done) => child.once('exit', (code) => done(code)))
      // The process says when it begins; from then on it is killed after a random time.
      await new Promise((begun) => child.stdout.once('data', begun))
      await new Promise((done) => setTimeout(done, Math.random() * 400))
      child.kill('SIGKILL')
      if ((await ended) !== 0) interrupted += 1
      const database = await openDatabase(join(data, 'folios.sqlite'))
      await expectWhole(database, 600)
      await database.close()
      rmSync(data, { recursive: true })
    }
    process.stdout.write(`upgrades: ${kills} tried, ${interrupted} killed on their way, all whole\n`)
    expect(interrupted).toBeGreaterThan(0)
  },
  60_000 + kills * 8_000,
)

test('migrations are known by their names, which are in order', () => {
  const names = MIGRATIONS.map((m) => m.name)
  expect(names).toEqual([...names].sort())
  expect(new Set(names).size).toBe(names.length)
})
