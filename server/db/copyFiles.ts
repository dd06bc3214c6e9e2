import { chmodSync, mkdirSync, readdirSync, renameSync, rmSync, statfsSync, statSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Sequelize } from 'sequelize'
import sqlite3 from 'sqlite3'

/** Copies of the data file beside it: made while it is in use, thinned out, and looked into without changing them. */

export const COPIES = 'backups'

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** How long a daily copy is kept, and how many are from before upgrades. */
export const KEPT_FOR = 14 * DAY
const UPGRADES_KEPT = 5
/** Bytes that all copies take together at most; the newest is kept whatever its size. */
export const SPACE = 1024 ** 3

export interface CopyFile {
  readonly name: string
  readonly path: string
  /** `daily`, or before which migration. */
  readonly kind: 'daily' | 'upgrade'
  /** When it was made, in milliseconds. */
  readonly made: number
  readonly bytes: number
}

const NAME = /^(daily|before-.+)-(\d{4}-\d\d-\d\dT\d\d-\d\d-\d\d-\d{3}Z)\.sqlite$/

function folderOf(file: string): string {
  return join(dirname(file), COPIES)
}

export function copyNames(file: string): string[] {
  try {
    return readdirSync(folderOf(file)).filter((name) => NAME.test(name))
  } catch {
    return []
  }
}

/** All copies of a data file, the newest first. */
export function copyFiles(file: string): CopyFile[] {
  return copyNames(file)
    .flatMap((name): CopyFile[] => {
      const [, kind = '', time = ''] = NAME.exec(name) ?? []
      const path = join(folderOf(file), name)
      const found = statSync(path, { throwIfNoEntry: false })
      const made = Date.parse(time.replace(/T(\d\d)-(\d\d)-(\d\d)-/, 'T$1:$2:$3.'))
      return found ? [{ name, path, kind: kind === 'daily' ? 'daily' : 'upgrade', made, bytes: found.size }] : []
    })
    .sort((a, b) => b.made - a.made)
}

/** There is no room for a copy. */
export class NoRoom extends Error {}

/**
 * Copies the file as it is now, while others go on working with it. The copy has
 * its name only once it is whole: what a kill or a full disk leaves has none.
 */
export async function makeCopy(sequelize: Sequelize, file: string, kind: string, now = Date.now()): Promise<string> {
  const folder = folderOf(file)
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  for (const name of readdirSync(folder)) if (name.endsWith('.part')) rmSync(join(folder, name))
  const copy = join(folder, `${kind}-${new Date(now).toISOString().replace(/[:.]/g, '-')}.sqlite`)
  const part = `${copy}.part`
  const room = statfsSync(folder)
  // A copy is never what fills the disk: half as much again must stay free.
  if (room.bavail * room.bsize < 1.5 * statSync(file).size) throw new NoRoom('There is no room on the disk for a copy.')
  try {
    await sequelize.query('VACUUM INTO ?', { replacements: [part] })
    chmodSync(part, 0o600)
    const fault = await faultIn(part)
    if (fault !== null) throw new Error(`The copy is not whole: ${fault}`)
    renameSync(part, copy)
  } catch (error) {
    rmSync(part, { force: true })
    throw error
  }
  for (const old of superfluous(copyFiles(file), now)) rmSync(old.path, { force: true })
  return copy
}

/** Which copies go: old ones, and where they take too much space, those that have another close by. */
export function superfluous(copies: readonly CopyFile[], now: number, space = SPACE): CopyFile[] {
  const sorted = [...copies].sort((a, b) => b.made - a.made)
  const [newest] = sorted
  const upgrades = new Set(sorted.filter((c) => c.kind === 'upgrade').slice(0, UPGRADES_KEPT))
  // Ages go by the newest copy: a clock that is wrong does not take them all away.
  const reference = Math.min(now, newest?.made ?? now)
  let kept = sorted.filter(
    (c) => c === newest || (c.kind === 'daily' ? reference - c.made <= KEPT_FOR : upgrades.has(c)),
  )
  const bytes = (): number => kept.reduce((sum, c) => sum + c.bytes, 0)
  while (kept.length > 1 && bytes() > space) kept = kept.filter((c) => c !== crowded(kept))
  return sorted.filter((c) => !kept.includes(c))
}

/** The copy whose neighbours are nearest, for its age; never the newest one. */
function crowded(kept: readonly CopyFile[]): CopyFile | undefined {
  const [newest] = kept
  const ageOf = (c: CopyFile | undefined): number => (newest && c ? newest.made - c.made + HOUR : Infinity)
  let [found, least] = [kept.at(-1), Infinity]
  kept.forEach((copy, k) => {
    if (k === 0) return
    const gap = ageOf(kept[k + 1]) / ageOf(kept[k - 1])
    if (gap < least) [found, least] = [copy, gap]
  })
  return found
}

/** A data file that is only looked into: nothing is written into it, and nothing is made beside it. */
export class StillFile {
  private constructor(private readonly reader: sqlite3.Database) {}

  static open(path: string): Promise<StillFile> {
    const href = `${pathToFileURL(path).href}?immutable=1`
    return new Promise((done, failed) => {
      const reader = new sqlite3.Database(href, sqlite3.OPEN_READONLY | sqlite3.OPEN_URI, (error) =>
        error ? failed(error) : done(new StillFile(reader)),
      )
    })
  }

  rows<T>(sql: string, ...values: readonly (string | number)[]): Promise<T[]> {
    return new Promise((done, failed) =>
      this.reader.all<T>(sql, values, (error: Error | null, rows: T[]) => (error ? failed(error) : done(rows))),
    )
  }

  close(): Promise<void> {
    return new Promise((done) => this.reader.close(() => done()))
  }
}

/** Looks into a data file, and closes it again. */
export async function lookInto<T>(path: string, look: (file: StillFile) => Promise<T>): Promise<T> {
  const file = await StillFile.open(path)
  try {
    return await look(file)
  } finally {
    await file.close()
  }
}

/** The first thing that is wrong in a data file that nobody writes; `null` where it is whole. */
export async function faultIn(path: string): Promise<string | null> {
  try {
    const rows = await lookInto(path, (file) => file.rows<{ quick_check: string }>('PRAGMA quick_check(1)'))
    const [first] = rows
    return first?.quick_check === 'ok' ? null : (first?.quick_check ?? 'nothing can be read of it')
  } catch (error) {
    return error instanceof Error ? error.message : String(error)
  }
}

/** The newest copy that is whole, as a path that can be told; `null` where there is none. */
export async function newestWhole(file: string): Promise<string | null> {
  for (const copy of copyFiles(file))
    if ((await faultIn(copy.path)) === null) return join(folderOf(file), basename(copy.path))
  return null
}
