import { existsSync, mkdirSync, statSync } from 'node:fs'
import { dirname } from 'node:path'
import { QueryTypes, Sequelize, Transaction } from 'sequelize'
import sqlite3 from 'sqlite3'
import { defineModels } from './models'
import type { Models } from './models'
import { migrate, refuseNewer, SCHEMA_VERSION } from './migrate'

/** How long a write waits for another program, in milliseconds. */
export const BUSY_TIMEOUT = 1_500

/** The data file cannot be used as it is; the message is a sentence for whoever starts the server. */
export class DataFileError extends Error {}

/** Another program holds the data file for too long. */
export class BusyError extends Error {
  constructor() {
    super('SQLITE_BUSY: another program is writing')
  }
}

/** Sequelize opens a connection for each transaction: every one of them waits for a busy file. */
class PatientConnection extends sqlite3.Database {
  constructor(file: string, mode: number, done: (error: Error | null) => void) {
    super(file, mode, done)
    this.configure('busyTimeout', BUSY_TIMEOUT)
  }
}

/** The open data file: its models, and one queue for all writes. */
export class Database {
  readonly models: Models
  private last: Promise<unknown> = Promise.resolve()
  /** When a write last found the file locked by another program. */
  private busyAt = 0
  /** When something was written last, in milliseconds. */
  writtenAt = 0

  constructor(
    readonly sequelize: Sequelize,
    readonly file: string,
  ) {
    this.models = defineModels(sequelize)
  }

  /**
   * One write after another. The transaction takes the write lock at once
   * (IMMEDIATE): what it reads cannot change before it writes. While another
   * program holds the file, one write waits; those behind it fail with it.
   */
  write<T>(action: (transaction: Transaction) => Promise<T>): Promise<T> {
    const asked = Date.now()
    const run = async (): Promise<T> => {
      if (asked < this.busyAt) throw new BusyError()
      try {
        const done = await this.sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, async (transaction) => {
          await this.refuseUpgraded(transaction)
          return action(transaction)
        })
        this.writtenAt = Date.now()
        return done
      } catch (error) {
        if (!isBusy(error)) throw error
        this.busyAt = Date.now()
        throw new BusyError()
      }
    }
    const result = this.last.then(run, run)
    this.last = result.catch(() => undefined)
    return result
  }

  /** A newer program may upgrade the file while this one runs: from then on this one only reads. */
  private async refuseUpgraded(transaction: Transaction): Promise<void> {
    const [row] = await this.rows<{ user_version: number }>('PRAGMA user_version', [], transaction)
    if ((row?.user_version ?? 0) > SCHEMA_VERSION) throw new DataFileError(NEWER)
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

  close(): Promise<void> {
    return this.sequelize.close()
  }
}

export function isBusy(error: unknown): boolean {
  return error instanceof BusyError || (error instanceof Error && error.message.includes('SQLITE_BUSY'))
}

const NEWER =
  'The data file has been upgraded by a newer version of Ornate Phasor; this one leaves it alone. Start the newer version.'

/**
 * Opens (and where needed creates) the data file: write-ahead log, foreign
 * keys on, every migration run. A file that is no database, is damaged or is of
 * a newer version is refused with a sentence, and left as it is.
 */
export async function openDatabase(file: string, log: (line: string) => void = () => undefined): Promise<Database> {
  const inMemory = file === ':memory:'
  if (!inMemory) prepare(file)
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: { ...sqlite3, Database: PatientConnection },
    storage: file,
    logging: false,
    // The busy time is waited for once, not once for each of several tries.
    retry: { max: 1 },
  })
  try {
    await refuseDamaged(sequelize, file)
    await refuseNewer(sequelize, () => new DataFileError(NEWER))
    await sequelize.query('PRAGMA journal_mode = WAL')
    await migrate(sequelize, inMemory ? null : file, log)
  } catch (error) {
    await sequelize.close()
    throw error
  }
  return new Database(sequelize, file)
}

function prepare(file: string): void {
  try {
    mkdirSync(dirname(file), { recursive: true })
  } catch (error) {
    const why = error instanceof Error && 'code' in error ? ` (${String(error.code)})` : ''
    throw new DataFileError(
      `The data folder ${dirname(file)} cannot be made${why}. Choose another with ORNATE_PHASOR_DATA=….`,
      { cause: error },
    )
  }
  // An empty file is what a full disk or a broken copy leaves: a demo shelf in its place would hide that.
  if (existsSync(file) && statSync(file).size === 0 && !existsSync(`${file}-wal`)) {
    throw new DataFileError(
      `The data file ${file} is empty: something has emptied it. It is left as it is. Put a copy in its place (see backups/ beside it), or move it away to begin anew.`,
    )
  }
}

async function refuseDamaged(sequelize: Sequelize, file: string): Promise<void> {
  try {
    await sequelize.query('SELECT COUNT(*) FROM sqlite_master')
  } catch (error) {
    const text = error instanceof Error ? error.message : String(error)
    if (text.includes('SQLITE_NOTADB') || text.includes('SQLITE_CORRUPT'))
      throw new DataFileError(
        `The data file ${file} is damaged or is no data file of Ornate Phasor. It is left as it is. Put a copy in its place (see backups/ beside it), or move it away to begin anew.`,
        { cause: error },
      )
    if (text.includes('SQLITE_CANTOPEN') || text.includes('SQLITE_READONLY') || text.includes('SQLITE_PERM'))
      throw new DataFileError(`The data file ${file} cannot be opened. Check the permissions of its folder.`, {
        cause: error,
      })
    throw error
  }
}
