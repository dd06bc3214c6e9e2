import { chmodSync, existsSync, mkdirSync, readdirSync, renameSync, rmdirSync, rmSync, statSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { QueryTypes, Transaction } from 'sequelize'
import type { Sequelize } from 'sequelize'
import { connect } from './connections'
import type { Connections, PatientConnection } from './connections'
import { belongTogether, Log, logBytes, sealInFile } from './log'
import type { Seals } from './log'
import { defineModels } from './models'
import type { Models } from './models'
import { COPIES, copyNames, newestWhole } from './copyFiles'
import { migrate, refuseNewer, SCHEMA_VERSION } from './migrate'

/** The data file cannot be used as it is; the message is a sentence for whoever starts the server. */
export class DataFileError extends Error {}

/** Another program holds the data file for too long. */
export class BusyError extends Error {
  constructor() {
    super('SQLITE_BUSY: another program is writing')
  }
}

/** So many writes that wait share one transaction, and with it one sync of the disk. */
const TOGETHER = 32

interface Waiting {
  readonly asked: number
  /** True where it works with models, which want a transaction of Sequelize's. */
  readonly models: boolean
  /** True where it looks by itself whether a newer program has upgraded the file. */
  readonly watches: boolean
  /** Within the transaction; what it gives back settles the write once the transaction is through. */
  readonly run: (writer: PatientConnection, transaction: Transaction | null) => Promise<() => void>
  readonly failed: (error: unknown) => void
}

/** The open data file: its models, and one queue for all writes. */
export class Database {
  readonly models: Models
  readonly sequelize: Sequelize
  /** Called with what happened to the file, where something has: it was moved away, or another stands in its place. */
  onMoved: (sentence: string) => void = () => undefined
  /** When something was written last, in milliseconds. */
  writtenAt = 0
  private readonly log: Log
  private readonly connections: Connections
  private last: Promise<unknown> = Promise.resolve()
  private waiting: Waiting[] = []
  /** When a write last found the file locked by another program. */
  private busyAt = 0
  private readonly places = new Map<string, string>()

  constructor(
    connections: Connections,
    readonly file: string,
    rest?: number,
  ) {
    this.connections = connections
    this.sequelize = connections.sequelize
    this.models = defineModels(this.sequelize)
    this.log = new Log(this, rest)
  }

  /**
   * One write after another. The transaction takes the write lock at once
   * (IMMEDIATE): what it reads cannot change before it writes. Writes that wait
   * are carried out in one transaction, each undone alone where it fails. While
   * another program holds the file, one write waits; those behind it fail with it.
   */
  write<T>(action: (transaction: Transaction, writer: PatientConnection) => Promise<T>): Promise<T> {
    return this.queue({ models: true, watches: false }, (writer, transaction) => {
      if (!transaction) throw new Error('a write with models has its transaction')
      return action(transaction, writer)
    })
  }

  /** The same for what works with statements alone: it costs a quarter of it. */
  writePlain<T>(action: (writer: PatientConnection) => Promise<T>): Promise<T> {
    return this.queue({ models: false, watches: false }, action)
  }

  /** The same for what looks by itself whether another program has written meanwhile (`PRAGMA data_version`). */
  writeWatched<T>(action: (writer: PatientConnection) => Promise<T>): Promise<T> {
    return this.queue({ models: false, watches: true }, action)
  }

  private queue<T>(
    kind: Pick<Waiting, 'models' | 'watches'>,
    action: (writer: PatientConnection, transaction: Transaction | null) => Promise<T>,
  ): Promise<T> {
    return new Promise<T>((done, failed) => {
      const run: Waiting['run'] = async (writer, transaction) => {
        const result = await action(writer, transaction)
        return () => done(result)
      }
      this.waiting.push({ asked: Date.now(), ...kind, run, failed })
      if (this.waiting.length === 1) void this.exclusive(() => this.writeWaiting())
    })
  }

  /** Something that no write may come between. */
  exclusive<T>(action: () => Promise<T>): Promise<T> {
    const result = this.last.then(action, action)
    this.last = result.catch(() => undefined)
    return result
  }

  private async writeWaiting(): Promise<void> {
    const all = this.waiting.splice(0, TOGETHER)
    if (this.waiting.length > 0) void this.exclusive(() => this.writeWaiting())
    const writes = all.filter((write) => {
      if (write.asked >= this.busyAt) return true
      write.failed(new BusyError())
      return false
    })
    if (writes.length === 0) return
    try {
      this.refuseMoved()
      const writer = await this.writer()
      const carryOut = async (transaction: Transaction | null): Promise<(() => void)[]> => {
        if (!writes.every((write) => write.watches)) await refuseUpgraded(writer)
        const results: (() => void)[] = []
        for (const write of writes) results.push(await oneOf(writes.length, write, writer, transaction))
        return results
      }
      const settled = writes.some((write) => write.models)
        ? await this.sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, carryOut)
        : await plainly(writer, () => carryOut(null))
      this.writtenAt = Date.now()
      this.log.touched()
      for (const settle of settled) settle()
    } catch (error) {
      // A commit that failed (a full disk) may leave its transaction open.
      await (await this.writer()).change('ROLLBACK').catch(() => undefined)
      const busy = isBusy(error)
      if (busy) this.busyAt = Date.now()
      for (const write of writes) write.failed(busy ? new BusyError() : error)
    }
  }

  /** The connection on which all writes run: only within `write` or `exclusive`. */
  writer(): Promise<PatientConnection> {
    return this.connections.writer()
  }

  /** Rows of a query of our own. */
  rows<T extends object>(sql: string, replacements: unknown[] = [], transaction?: Transaction): Promise<T[]> {
    return this.sequelize.query<T>(sql, {
      type: QueryTypes.SELECT,
      replacements,
      ...(transaction ? { transaction } : {}),
    })
  }

  async run(sql: string, replacements: unknown[] = [], transaction?: Transaction): Promise<void> {
    await this.sequelize.query(sql, { replacements, ...(transaction ? { transaction } : {}) })
  }

  /** Why the file is not where it was opened; `null` where it is. What is written into a file that was moved is lost with it. */
  moved(): string | null {
    for (const [path, place] of this.places) {
      const now = placeOf(path)
      if (now === place) continue
      return now === null
        ? `${path} was moved away or removed while the server ran. Put it back where it was, or stop the server and put a copy in its place. Until then nothing is saved.`
        : `Another file was put in the place of ${path} while the server ran. Start the server anew to use it. Until then nothing is saved.`
    }
    return null
  }

  private refuseMoved(): void {
    const moved = this.moved()
    if (moved === null) return
    this.onMoved(moved)
    throw new DataFileError(moved)
  }

  /** From now on the file and its log must stay what they are. */
  rememberPlaces(): void {
    if (this.file === ':memory:') return
    for (const path of [this.file, `${this.file}-wal`]) {
      const place = placeOf(path)
      if (place !== null) this.places.set(path, place)
    }
  }

  /** The file alone has the work then, where the disk takes it; else the log keeps it. */
  async close(): Promise<void> {
    await this.log.close().catch(() => undefined)
    await this.sequelize.close()
  }

  /** The log is filled in and begun anew. */
  async fillLog(): Promise<void> {
    await this.log.fillNow()
  }
}

/** A transaction by statements alone. */
async function plainly<T>(writer: PatientConnection, action: () => Promise<T>): Promise<T> {
  await writer.change('BEGIN IMMEDIATE')
  const result = await action()
  await writer.change('COMMIT')
  return result
}

/** One of several writes in a transaction; where it fails, it alone is undone. */
async function oneOf(
  count: number,
  { run, failed }: Waiting,
  writer: PatientConnection,
  transaction: Transaction | null,
): Promise<() => void> {
  if (count === 1) return run(writer, transaction)
  await writer.change('SAVEPOINT one')
  try {
    const settle = await run(writer, transaction)
    await writer.change('RELEASE one')
    return settle
  } catch (error) {
    // A full disk undoes the whole transaction: then there is nothing left to go back to, and all fail.
    await writer.change('ROLLBACK TO one')
    await writer.change('RELEASE one')
    return () => failed(error)
  }
}

/** A newer program may upgrade the file while this one runs: from then on this one only reads. */
export async function refuseUpgraded(writer: PatientConnection): Promise<void> {
  const row = await writer.row<{ user_version: number }>('PRAGMA user_version')
  if ((row?.user_version ?? 0) > SCHEMA_VERSION) throw new DataFileError(NEWER)
}

function placeOf(path: string): string | null {
  const found = statSync(path, { throwIfNoEntry: false })
  return found ? `${found.dev}:${found.ino}` : null
}

export function isBusy(error: unknown): boolean {
  return String(error).includes('SQLITE_BUSY')
}

const NEWER =
  'The data file has been upgraded by a newer version of Ornate Phasor; this one leaves it alone. Start the newer version.'

export interface Opening {
  readonly log?: (line: string) => void
  /** What a shelf that is made now begins with. */
  readonly seed?: (database: Database) => Promise<void>
  /** How long the keeper of the log rests between its steps, in milliseconds. */
  readonly rest?: number
  /** False where no copy is made before an upgrade: of what is a copy itself. */
  readonly copies?: boolean
}

/**
 * Opens (and where needed creates) the data file: write-ahead log, foreign
 * keys on, every migration run. A file that is no database, is damaged or is of
 * a newer version is refused with a sentence, and left as it is.
 */
export async function openDatabase(file: string, opening: Opening = {}): Promise<Database> {
  const inMemory = file === ':memory:'
  if (inMemory) return openFile(file, opening)
  if (!existsSync(file)) await makeFresh(file, opening)
  if (statSync(file).size === 0 && logBytes(file) === 0)
    throw new DataFileError(`The data file ${file} is empty: something has emptied it. It is left as it is. ${await remedy(file)}`) // prettier-ignore
  ownersOnly(file)
  return openFile(file, opening)
}

async function openFile(file: string, { log = () => undefined, rest, copies = true }: Opening): Promise<Database> {
  const connections = connect(file)
  const { sequelize } = connections
  const inMemory = file === ':memory:'
  const unclean = !inMemory && logBytes(file) > 0
  try {
    await refuseDamaged(sequelize, file)
    await refuseNewer(sequelize, () => new DataFileError(NEWER))
    if (unclean) await refuseTorn(sequelize, file)
    await sequelize.query('PRAGMA journal_mode = WAL')
    await migrate(sequelize, inMemory || !copies ? null : file, log)
    const database = new Database(connections, file, rest)
    if (inMemory) return database
    // On a full disk folios can still be read: the log stays as it is until there is room.
    await database.fillLog().catch(() => undefined)
    database.rememberPlaces()
    return database
  } catch (error) {
    await sequelize.close()
    throw error
  }
}

/**
 * A new data file comes to be under another name, with everything that it begins
 * with, and only then has its own: one that bears it is never half made. Where
 * that fails (a full disk) nothing of it is left.
 */
async function makeFresh(file: string, opening: Opening): Promise<void> {
  const folder = dirname(file)
  const made = makeFolder(folder)
  await refuseFormer(file)
  const fresh = `${file}.new`
  const clear = (): void => {
    for (const end of ['', '-wal', '-shm', '-journal']) rmSync(`${fresh}${end}`, { force: true })
  }
  clear()
  try {
    const database = await openFile(fresh, opening)
    try {
      await opening.seed?.(database)
    } finally {
      await database.close()
    }
    if (logBytes(fresh) > 0) throw new DataFileError(`The data file ${file} could not be made.`)
    renameSync(fresh, file)
    clear()
  } catch (error) {
    clear()
    if (made !== undefined) removeEmpty(folder, made)
    if (!/SQLITE_(FULL|IOERR)|ENOSPC/.test(String(error))) throw error
    const why = `The disk takes no data file at ${file} (it is full, perhaps). Nothing of it is left: make room and start again.`
    throw new DataFileError(why, { cause: error })
  }
}

/** Makes a folder; gives back the first one that was not there. */
function makeFolder(folder: string): string | undefined {
  try {
    return mkdirSync(folder, { recursive: true, mode: 0o700 })
  } catch (error) {
    const why = error instanceof Error && 'code' in error ? ` (${String(error.code)})` : ''
    throw new DataFileError(
      `The data folder ${folder} cannot be made${why}. Choose another with ORNATE_PHASOR_DATA=….`,
      { cause: error },
    )
  }
}

function removeEmpty(folder: string, top: string): void {
  for (let at = folder; ; at = dirname(at)) {
    try {
      rmdirSync(at)
    } catch {
      return
    }
    if (at === top) return
  }
}

/** A folder that once had folios never opens as a fresh shelf. */
async function refuseFormer(file: string): Promise<void> {
  const former = [
    ...(logBytes(file) > 0 ? [`${basename(file)}-wal`] : []),
    ...(copyNames(file).length > 0 ? [COPIES] : []),
  ]
  if (former.length === 0) return
  throw new DataFileError(
    `The data file ${file} is not there, but ${former.join(' and ')} beside it ${former.length > 1 ? 'are' : 'is'}: this folder had folios. ${await remedy(file)}`,
  )
}

/** The files of a data folder: nobody but their owner reads them. A folder with other things in it stays as it is. */
function ownersOnly(file: string): void {
  const folder = dirname(file)
  const ours = (name: string): boolean => name === COPIES || name.startsWith(basename(file))
  try {
    const names = readdirSync(folder)
    for (const name of names.filter((n) => n !== COPIES && ours(n))) chmodSync(join(folder, name), 0o600)
    const copies = join(folder, COPIES)
    if (names.includes(COPIES)) {
      chmodSync(copies, 0o700)
      for (const name of copyNames(file)) chmodSync(join(copies, name), 0o600)
    }
    if (names.every(ours)) chmodSync(folder, 0o700)
  } catch {
    // Of somebody else, or on a disk that knows no owners.
  }
}

/** What can be done where the data file cannot be used: the newest copy that is whole is named. */
async function remedy(file: string): Promise<string> {
  const whole = await newestWhole(file)
  const anew = 'or choose another folder with ORNATE_PHASOR_DATA=… to begin anew.'
  return whole === null
    ? `Put a copy of yours in its place (there is no whole one in ${COPIES}/ beside it), ${anew}`
    : `Put a copy in its place (the newest whole one is ${whole}), ${anew}`
}

async function refuseDamaged(sequelize: Sequelize, file: string): Promise<void> {
  try {
    const [count] = await sequelize.query<{ tables: number }>('SELECT COUNT(*) AS tables FROM sqlite_master', {
      type: QueryTypes.SELECT,
    })
    if (count?.tables === 0 && !file.endsWith('.new') && file !== ':memory:')
      throw new DataFileError(
        `The data file ${file} holds nothing: what was in it stood in ${basename(file)}-wal, which is not beside it. It is left as it is. Put both in their place if you have them. ${await remedy(file)}`,
      )
  } catch (error) {
    if (error instanceof DataFileError) throw error
    const text = error instanceof Error ? error.message : String(error)
    if (text.includes('SQLITE_NOTADB') || text.includes('SQLITE_CORRUPT'))
      throw new DataFileError(
        `The data file ${file} is damaged or is no data file of Ornate Phasor. It is left as it is. ${await remedy(file)}`,
        { cause: error },
      )
    if (text.includes('SQLITE_CANTOPEN') || text.includes('SQLITE_READONLY') || text.includes('SQLITE_PERM'))
      throw new DataFileError(`The data file ${file} cannot be opened. Check the permissions of its folder.`, {
        cause: error,
      })
    throw error
  }
}

/** What a kill, a power cut or a copy of a running server left: the log must be that of the file, and both whole. */
async function refuseTorn(sequelize: Sequelize, file: string): Promise<void> {
  const rows = async <T extends object>(sql: string): Promise<T[]> =>
    sequelize.query<T>(sql, { type: QueryTypes.SELECT })
  const seals = await rows<Omit<Seals, 'file'>>('SELECT base, sealed FROM log_base').catch(() => [])
  const [logged] = seals
  if (logged && !belongTogether({ ...logged, file: await sealInFile(file) }))
    throw new DataFileError(
      `The data file ${file} and the log beside it (${basename(file)}-wal) are not of the same moment: this copy was taken too slowly while the server wrote. Both are left as they are. ${await remedy(file)}`,
    )
  const faults = await rows<{ quick_check: string }>('PRAGMA quick_check(1)')
  if (faults.some((fault) => fault.quick_check !== 'ok'))
    throw new DataFileError(`The data file ${file} is damaged. It is left as it is. ${await remedy(file)}`)
}
