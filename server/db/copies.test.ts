import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, truncateSync, writeFileSync } from 'node:fs' // prettier-ignore
import { dirname, join } from 'node:path'
import * as fc from 'fast-check'
import { Blocks } from './blocks'
import { Checks } from './check'
import { Copies } from './copies'
import { copyFiles, faultIn, KEPT_FOR, newestWhole, superfluous } from './copyFiles'
import type { CopyFile } from './copyFiles'
import { openDatabase } from './database'
import { Facts } from './facts'
import { Folios } from './folios'
import { openBench } from './testing'
import type { Bench } from './testing'

jest.setTimeout(60_000)
const DAY = 24 * 3_600_000
let bench: Bench
let now = Date.parse('2026-12-01T10:00:00Z')
let copies: Copies
beforeEach(async () => {
  bench = await openBench()
  now = Date.parse('2026-12-01T10:00:00Z')
  copies = new Copies(bench.database, () => now)
})
afterEach(() => bench.end())

const make = (title: string, ...sources: string[]) =>
  bench.folios.create({ title, conventions: {}, lines: sources.map((source) => ({ source })) })

/** Damages a data file in the middle, as a disk does. */
function damage(path: string): void {
  const bytes = readFileSync(path)
  bytes.fill(0x5a, 4096 * 2, 4096 * 5)
  writeFileSync(path, bytes)
}

describe('copies by the day', () => {
  test('one a day, only where something has changed, for the owner alone; a wrong clock holds up none', async () => {
    await make('A', 'a = 1')
    const first = await copies.makeDaily()
    expect(first).toContain('daily-2026-12-01T10-00-00-000Z.sqlite')
    expect(statSync(first!).mode & 0o777).toBe(0o600)
    expect(statSync(dirname(first!)).mode & 0o777).toBe(0o700)
    await make('B')
    expect(await copies.makeDaily()).toBeNull()
    now += DAY
    expect(await copies.makeDaily()).not.toBeNull()
    now += DAY
    expect(await copies.makeDaily()).toBeNull()
    await make('C')
    expect(await copies.makeDaily()).not.toBeNull()
    now -= 400 * DAY
    await make('D')
    expect(await copies.makeDaily()).not.toBeNull()
    expect((await copies.list()).map((c) => c.folios)).toEqual([3, 2, 1, 4])
    expect(await Promise.all(copyFiles(bench.file).map((c) => faultIn(c.path)))).toEqual([null, null, null, null])
  })

  test('a copy is made while others write, and has a whole state', async () => {
    const { id } = await make('0')
    const saves = (async () => {
      for (let k = 0; k < 60; k += 1)
        await bench.folios.save(id, { revision: k, operations: [{ type: 'rename', title: String(k + 1) }] })
    })()
    const made = await copies.makeDaily()
    await saves
    expect(await faultIn(made!)).toBeNull()
  })

  test('what a kill left of one is no copy, and goes with the next', async () => {
    await make('A')
    const folder = join(dirname(bench.file), 'backups')
    mkdirSync(folder)
    writeFileSync(join(folder, 'daily-2026-11-30T10-00-00-000Z.sqlite.part'), 'half')
    expect(copyFiles(bench.file)).toEqual([])
    await copies.makeDaily()
    expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([])
  })
})

describe('which copies go', () => {
  const copy = (age: number, kind: CopyFile['kind'] = 'daily', bytes = 100): CopyFile => ({
    name: `${kind}-${age}`, path: '', kind, made: now - age * DAY, bytes,
  }) // prettier-ignore
  test('daily ones after two weeks, all but five of before upgrades, never the newest', () => {
    const all = [0, 5, 13, 14, 15, 40].map((age) => copy(age))
    const upgrades = [20, 30, 50, 60, 70, 80].map((age) => copy(age, 'upgrade'))
    expect(superfluous([...all, ...upgrades], now).map((c) => c.name)).toEqual(['daily-15', 'daily-40', 'upgrade-80'])
    expect(superfluous([copy(90)], now)).toEqual([])
  })
  test('whatever there is and however little room: the newest stays, the rest fits, and is spread', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.nat(200), { minLength: 1, maxLength: 25 }),
        fc.integer({ min: 0, max: 2_000 }),
        (ages, space) => {
          const all = ages.map((age) => copy(age / 4))
          const gone = new Set(superfluous(all, now, space))
          const kept = all.filter((c) => !gone.has(c)).sort((a, b) => b.made - a.made)
          const newest = all.reduce((a, b) => (a.made > b.made ? a : b))
          expect(kept[0]).toBe(newest)
          expect(kept.length === 1 || 100 * kept.length <= space).toBe(true)
          for (const c of kept) expect(newest.made - c.made).toBeLessThanOrEqual(KEPT_FOR)
        },
      ),
    )
    const kept = Array.from({ length: 14 }, (_, k) => copy(k))
    const gone = superfluous(kept, now, 500)
    const ages = kept.filter((c) => !gone.includes(c)).map((c) => (now - c.made) / DAY)
    expect(ages[0]).toBe(0)
    expect(ages.at(-1)).toBeGreaterThanOrEqual(7)
  })
  test('a clock that is wrong by years takes none away', () => {
    const all = [0, 3, 9].map((age) => copy(age))
    expect(superfluous(all, now + 4_000 * DAY)).toEqual([])
    expect(superfluous(all, now - 4_000 * DAY)).toEqual([])
  })
})

describe('bringing folios back', () => {
  test('each comes as a new one beside what is there: lines, numbers, journal and all', async () => {
    const numbers = new Uint8Array(new Float64Array([1.5, -2]).buffer)
    const enclosure = { kind: 'matrix' as const, name: 'a.mtx', block: 'block-0001', rows: 1, cols: 2, complex: false }
    const { id, lines } = await bench.folios.create(
      { title: 'Mast', conventions: {}, lines: [{ source: 'F = 1' }], enclosures: [enclosure] },
      new Map([['block-0001', numbers]]),
    )
    const edit = (source: string, was: string) => ({ type: 'edit' as const, id: lines[0]!.id, source, was })
    await bench.folios.save(id, { revision: 0, key: 'save-key-1', operations: [edit('F = 2', 'F = 1')] })
    await make('Other')
    await copies.makeDaily()
    await bench.folios.save(id, { revision: 1, operations: [edit('F = 3', 'F = 2')] })
    await bench.folios.bin(id, true)
    await bench.folios.remove(id)
    const [{ name } = { name: '' }] = await copies.list()
    const inside = await copies.look(name)
    expect(inside!.map((f) => [f.title, f.lines, f.here])).toEqual([['Other', 0, 'same'], ['Mast', 1, 'gone']]) // prettier-ignore
    const brought = await copies.bringBack(name, [id])
    expect(brought).toMatchObject({ left: [], folios: [{ title: 'Mast (copy of 2026-12-01)' }] })
    const back = await bench.folios.open(brought!.folios[0]!.id)
    expect(back).toMatchObject({ revision: 1, lines: [{ source: 'F = 2' }], enclosures: [enclosure], binnedAt: null })
    expect(new Uint8Array((await new Blocks(bench.database).open(back!.id, 'block-0001'))!)).toEqual(numbers)
    expect((await bench.journal.stateAt(back!.id, 0))!.lines[0]).toMatchObject({ source: 'F = 1' })
    // It goes on like any other, and is found.
    expect(await bench.folios.save(back!.id, { revision: 1, operations: [edit('F = 9', 'F = 2')] })).toMatchObject({ status: 'saved' }) // prettier-ignore
    expect((await bench.shelf.page({ find: 'F = 9' })).count).toBe(1)
    const all = await copies.bringBack(name, null)
    expect(all!.folios).toHaveLength(2)
    expect((await bench.shelf.page()).count).toBe(4)
    expect(readdirSync(join(dirname(bench.file), 'backups'))).toEqual([name])
    expect(await copies.bringBack('daily-2020-01-01T00-00-00-000Z.sqlite', null)).toBeNull()
    expect(await copies.look('daily-2020-01-01T00-00-00-000Z.sqlite')).toBeNull()
  })

  test('a copy of an older program is upgraded on the way, and itself stays as it was', async () => {
    await make('Old', 'a = 1')
    await copies.makeDaily()
    const [copy] = copyFiles(bench.file)
    const older = await openDatabase(copy!.path, { copies: false })
    await older.run("DELETE FROM migrations WHERE name = '0007-keeping'")
    for (const table of ['block_parts', 'sessions', 'ports', 'handed_over', 'facts', 'log_base', 'file_seal'])
      await older.run(`DROP TABLE ${table}`)
    await older.run('ALTER TABLE blocks DROP COLUMN enclosed')
    await older.run('PRAGMA user_version = 6')
    // Closed as it is: there is nothing left of what it seals.
    await older.sequelize.close()
    const before = readFileSync(copy!.path)
    expect((await copies.bringBack(copy!.name, null))!.folios).toHaveLength(1)
    expect(readFileSync(copy!.path).equals(before)).toBe(true)
  })

  test('of a copy that is damaged what can be read is taken, or it is said', async () => {
    for (let k = 0; k < 30; k += 1) await make(`Folio ${k}`, 'x'.repeat(3_000))
    const made = await copies.makeDaily()
    damage(made!)
    expect(await faultIn(made!)).not.toBeNull()
    const [copy] = await copies.list()
    try {
      const brought = await copies.bringBack(copy!.name, null)
      expect(brought!.folios.length + brought!.left.length).toBeGreaterThan(0)
    } catch (error) {
      expect(String(error)).toMatch(/damaged|CORRUPT/)
    }
  })
})

describe('looking through the data file', () => {
  const checks = () => new Checks(bench.database, bench.folios, new Facts(bench.database), () => now)
  test('what is whole is said to be, and when; again in a week', async () => {
    await make('A', 'a = 1')
    expect(await checks().isDue()).toBe(true)
    expect(await checks().run()).toEqual({ at: now, whole: true, sentences: [] })
    expect(await checks().last()).toEqual({ at: now, whole: true, sentences: [] })
    expect(await checks().isDue()).toBe(false)
    now += 7 * DAY
    expect(await checks().isDue()).toBe(true)
    now -= 400 * DAY
    expect(await checks().isDue()).toBe(true)
  })
  test('a folio that cannot be read is named, with the copy that has it', async () => {
    const { id } = await make('Lamp', 'a = 1')
    await make('Mast', 'b = 1')
    const copy = await copies.makeDaily()
    await bench.database.run("UPDATE folios SET plates = '[{' WHERE id = ?", [id])
    const { whole, sentences } = await checks().run()
    expect(whole).toBe(false)
    expect(sentences.join(' ')).toContain('cannot be read as a whole: “Lamp”. The other folios can be read.')
    expect(sentences.join(' ')).toContain(copy)
  })
  test('damage in the file itself is said', async () => {
    for (let k = 0; k < 40; k += 1) await make(`Folio ${k}`, 'x'.repeat(3_000))
    await bench.database.close()
    damage(bench.file)
    const database = await openDatabase(bench.file).catch(() => null)
    if (database) {
      const { whole, sentences } = await new Checks(database, new Folios(database), new Facts(database)).run()
      expect(whole).toBe(false)
      expect(sentences.join(' ')).toMatch(/damaged|cannot be read/)
      expect(sentences.join(' ')).toContain('There is no whole copy')
      await database.close()
    }
    jest.spyOn(bench.database, 'close').mockResolvedValue()
  })
})

describe('a file that goes away while the server runs', () => {
  test('is said, nothing is promised, and it goes on once it is back', async () => {
    const { id } = await make('A')
    const said: string[] = []
    bench.database.onMoved = (sentence) => said.push(sentence)
    const save = (revision: number) => bench.folios.save(id, { revision, operations: [{ type: 'rename', title: 'B' }] })
    renameSync(bench.file, `${bench.file}.away`)
    await expect(save(0)).rejects.toThrow('was moved away')
    expect(said[0]).toContain('Until then nothing is saved')
    expect(existsSync(bench.file)).toBe(false)
    writeFileSync(bench.file, 'another')
    await expect(save(0)).rejects.toThrow('Another file was put in the place')
    rmSync(bench.file)
    renameSync(`${bench.file}.away`, bench.file)
    expect(await save(0)).toMatchObject({ status: 'saved' })
    renameSync(`${bench.file}-wal`, `${bench.file}-wal.away`)
    await expect(save(1)).rejects.toThrow('-wal was moved away')
    renameSync(`${bench.file}-wal.away`, `${bench.file}-wal`)
    expect(await save(1)).toMatchObject({ status: 'saved' })
  })
})

describe('a folder that had folios', () => {
  test('never opens as a fresh shelf: without its file, with an empty one, or with one whose log is gone', async () => {
    await make('A')
    const copy = await copies.makeDaily()
    await bench.database.close()
    jest.spyOn(bench.database, 'close').mockResolvedValue()
    const whole = readFileSync(bench.file)
    rmSync(bench.file)
    await expect(openDatabase(bench.file)).rejects.toThrow(/this folder had folios.*the newest whole one is/)
    await expect(openDatabase(bench.file)).rejects.toThrow(copy!)
    writeFileSync(bench.file, '')
    await expect(openDatabase(bench.file)).rejects.toThrow('is empty')
    // As a kill of an older program left it: its first page alone, all else in a log that was not copied.
    writeFileSync(bench.file, whole.subarray(0, 100))
    await expect(openDatabase(bench.file)).rejects.toThrow(/damaged|holds nothing/)
    rmSync(copy!)
    rmSync(bench.file)
    writeFileSync(`${bench.file}-wal`, 'what was written last')
    await expect(openDatabase(bench.file)).rejects.toThrow('folios.sqlite-wal beside it')
    expect(readFileSync(`${bench.file}-wal`, 'utf8')).toBe('what was written last')
  })
  test('an empty database that was never filled is known for what it is', async () => {
    await bench.database.close()
    jest.spyOn(bench.database, 'close').mockResolvedValue()
    truncateSync(bench.file, 0)
    const folder = join(bench.folder, 'first')
    const file = join(folder, 'folios.sqlite')
    const failing = (): Promise<void> => Promise.reject(new Error('SQLITE_FULL: no room'))
    await expect(openDatabase(file, { seed: failing })).rejects.toThrow('The disk takes no data file')
    // Nothing is left of it, and the next try begins as the first one did.
    expect(existsSync(folder)).toBe(false)
    mkdirSync(folder)
    writeFileSync(`${file}.new`, 'what a kill left')
    const database = await openDatabase(file, { seed: async (fresh) => void (await new Folios(fresh).create({ title: 'T', conventions: {}, lines: [] })) }) // prettier-ignore
    expect(readdirSync(folder).filter((name) => name.includes('.new'))).toEqual([])
    expect(await new Folios(database).count()).toBe(1)
    expect(statSync(file).mode & 0o777).toBe(0o600)
    expect(statSync(folder).mode & 0o777).toBe(0o700)
    await database.close()
    expect(await newestWhole(file)).toBeNull()
  })
})
