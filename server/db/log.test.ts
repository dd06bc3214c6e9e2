import { copyFileSync, existsSync, mkdirSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import * as fc from 'fast-check'
import { openDatabase } from './database'
import type { Database } from './database'
import { Folios } from './folios'
import { belongTogether, logBytes, sealInFile } from './log'
import { openBench } from './testing'
import type { Bench } from './testing'

jest.setTimeout(120_000)
/** As long as the keeper of the log rests here, in milliseconds. */
const REST = 150
const pause = (time: number): Promise<void> => new Promise((done) => setTimeout(done, time))

let bench: Bench
beforeEach(async () => (bench = await openBench(undefined, REST)))
afterEach(() => bench.end())

/** Copies the files as a copying program does: one after the other, in whichever order, as slowly as it is. */
async function copied(name: string, between: number, logFirst = false): Promise<string> {
  const folder = join(bench.folder, name)
  mkdirSync(folder)
  const file = join(folder, 'folios.sqlite')
  const ends = logFirst ? ['-wal', ''] : ['', '-wal']
  for (const [k, end] of ends.entries()) {
    if (k > 0) await pause(between)
    if (existsSync(`${bench.file}${end}`)) copyFileSync(`${bench.file}${end}`, `${file}${end}`)
  }
  return file
}

/** Saves again and again; tells how many saves were acknowledged. */
class Typing {
  acknowledged = 0
  private going = true
  private constructor(private readonly id: string) {}

  static async begin(): Promise<Typing> {
    const { id } = await bench.folios.create({ title: '0', conventions: {}, lines: [] })
    return new Typing(id)
  }

  /** With pauses now and then, so that the log has its turns. */
  async go(): Promise<void> {
    while (this.going) {
      const title = String(this.acknowledged + 1)
      await bench.folios.save(this.id, { revision: this.acknowledged, operations: [{ type: 'rename', title }] })
      this.acknowledged += 1
      await pause(this.acknowledged % 40 === 0 ? 3 * REST : this.acknowledged % 10 === 0 ? 20 : 1)
    }
  }

  end(): void {
    this.going = false
  }

  /** How many of them a copy has. */
  async in(file: string): Promise<number> {
    const database = await openDatabase(file)
    try {
      const folio = await new Folios(database).open(this.id)
      expect(await database.rows('PRAGMA integrity_check')).toEqual([{ integrity_check: 'ok' }])
      return Number(folio?.title ?? -1)
    } finally {
      await database.close()
    }
  }
}

test('a copy taken while the server writes has all that was acknowledged before it, in whichever order it was taken', async () => {
  const typing = await Typing.begin()
  const writing = typing.go()
  const found: (readonly [had: number, before: number])[] = []
  for (let k = 0; k < 24; k += 1) {
    await pause(20 + ((k * 37) % 90))
    const before = typing.acknowledged
    const file = await copied(`copy-${k}`, (k * 13) % 60, k % 2 === 1)
    found.push([await typing.in(file), before])
    rmSync(join(bench.folder, `copy-${k}`), { recursive: true })
  }
  typing.end()
  await writing
  expect(found.filter(([had, before]) => had < before)).toEqual([])
})

test('a copy that takes too long is whole, or is known for what it is; never silently less', async () => {
  const typing = await Typing.begin()
  const writing = typing.go()
  let refused = 0
  const lost: unknown[] = []
  // On a busy machine the writing rests now and then: it is tried until some copy was too slow for it.
  for (let k = 0; k < 7 || (refused === 0 && k < 60); k += 1) {
    const before = typing.acknowledged
    const file = await copied(`slow-${k}`, 5 * REST, k % 2 === 1)
    try {
      const had = await typing.in(file)
      if (had < before) lost.push([k, had, before])
    } catch (error) {
      expect(String(error)).toMatch(/not of the same moment|is damaged/)
      refused += 1
    }
  }
  typing.end()
  await writing
  expect(lost).toEqual([])
  expect(refused).toBeGreaterThan(0)
})

test('after a while without a write the data file alone has everything', async () => {
  const typing = await Typing.begin()
  const writing = typing.go()
  await pause(400)
  typing.end()
  await writing
  await pause(8 * REST)
  const folder = join(bench.folder, 'alone')
  mkdirSync(folder)
  copyFileSync(bench.file, join(folder, 'folios.sqlite'))
  expect(await typing.in(join(folder, 'folios.sqlite'))).toBe(typing.acknowledged)
  // And the log has begun anew: a page or two.
  expect(logBytes(bench.file)).toBeLessThan(1024 * 1024 + 1)
  expect(await sealInFile(bench.file)).toBeGreaterThan(0)
})

test('what is closed in an orderly way leaves no log behind', async () => {
  await bench.folios.create({ title: 'T', conventions: {}, lines: [] })
  await bench.database.close()
  expect(logBytes(bench.file)).toBe(0)
  expect(statSync(bench.file).size).toBeGreaterThan(4096)
  // The bench closes once more: what is closed stays closed.
  jest.spyOn(bench.database, 'close').mockResolvedValue()
})

test('seals tell a log from another file’s, whatever the order of what happened', () => {
  expect(belongTogether({ base: 3, sealed: 3, file: 3 })).toBe(true)
  expect(belongTogether({ base: 3, sealed: 4, file: 3 })).toBe(true)
  expect(belongTogether({ base: 3, sealed: 4, file: 4 })).toBe(true)
  expect(belongTogether({ base: 4, sealed: 4, file: 3 })).toBe(false)
  expect(belongTogether({ base: 3, sealed: 3, file: 4 })).toBe(false)
  expect(belongTogether({ base: 0, sealed: 0, file: null })).toBe(true)
  // A run of seals, fills and beginnings; file and log copied at any two moments.
  type State = { base: number; sealed: number; file: number; logs: number }
  const steps = fc.array(fc.constantFrom('seal', 'fill', 'begin'), { maxLength: 30 })
  fc.assert(
    fc.property(steps, fc.nat(30), fc.nat(30), (run, a, b) => {
      const states: State[] = [{ base: 0, sealed: 0, file: 0, logs: 0 }]
      for (const step of run) {
        const s = states.at(-1)!
        if (step === 'seal') states.push({ ...s, sealed: s.sealed + 1 })
        else if (step === 'fill') states.push({ ...s, file: s.sealed })
        else if (s.file === s.sealed) states.push({ ...s, base: s.sealed, logs: s.logs + 1 })
      }
      const file = states[Math.min(a, states.length - 1)]!
      const log = states[Math.min(b, states.length - 1)]!
      // It is whole where the log has every seal that the file has, and builds on no later one.
      const isWhole = log.base <= file.file && file.file <= log.sealed
      expect(belongTogether({ base: log.base, sealed: log.sealed, file: file.file })).toBe(isWhole)
    }),
  )
})

test('a log that grows too long is filled in at once', async () => {
  const other = await openBench(undefined, 20)
  try {
    const { database } = other as { database: Database }
    await other.folios.create({ title: 'T', conventions: {}, lines: [{ source: 'x'.repeat(100_000) }] })
    await database.fillLog()
    expect(await sealInFile(other.file)).toBeGreaterThan(0)
    expect(await database.rows('SELECT base = sealed AS same FROM log_base')).toEqual([{ same: 1 }])
  } finally {
    await other.end()
  }
})
