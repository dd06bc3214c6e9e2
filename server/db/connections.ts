import { Sequelize } from 'sequelize'
import sqlite3 from 'sqlite3'

/** How long a write waits for another program, in milliseconds. */
export const BUSY_TIMEOUT = 1_500

/** Bytes that the write-ahead log keeps of its file when it begins anew. */
const LOG_KEPT = 1024 * 1024

export type Value = string | number | null | Buffer

/**
 * Every connection waits for a busy file, syncs each commit, and leaves it to
 * the keeper of the log (`log.ts`) when its content goes into the data file.
 * Statements that are used again and again are prepared once.
 */
export class PatientConnection extends sqlite3.Database {
  private readonly prepared = new Map<string, Promise<sqlite3.Statement>>()

  constructor(file: string, mode: number, done: (error: Error | null) => void) {
    super(file, mode, done)
    this.configure('busyTimeout', BUSY_TIMEOUT)
    // What is no data file is found out by whoever asks it something.
    this.exec(
      `PRAGMA synchronous = FULL; PRAGMA wal_autocheckpoint = 0; PRAGMA journal_size_limit = ${LOG_KEPT}`,
      () => undefined,
    )
  }

  private statement(sql: string): Promise<sqlite3.Statement> {
    const known = this.prepared.get(sql)
    if (known) return known
    const fresh = new Promise<sqlite3.Statement>((done, failed) => {
      const statement = this.prepare(sql, (error: Error | null) => (error ? failed(error) : done(statement)))
    })
    this.prepared.set(sql, fresh)
    // What cannot be prepared now (a file that is held) may be another time.
    fresh.catch(() => this.prepared.delete(sql))
    return fresh
  }

  /** The first row of a query; `null` where there is none. */
  async row<T>(sql: string, ...values: readonly Value[]): Promise<T | null> {
    const statement = await this.statement(sql)
    return new Promise((done, failed) => {
      statement.get<T>(values, (error: Error | null, row?: T) => {
        // A statement that stands on its row would hold what it reads.
        statement.reset()
        if (error) failed(error)
        else done(row ?? null)
      })
    })
  }

  /** Carries out a statement; gives back how many rows it changed. */
  async change(sql: string, ...values: readonly Value[]): Promise<number> {
    const statement = await this.statement(sql)
    return new Promise((done, failed) => {
      statement.run(values, function (error: Error | null) {
        if (error) failed(error)
        else done(this.changes)
      })
    })
  }

  override close(done?: (error: Error | null) => void): void {
    const statements = [...this.prepared.values()]
    this.prepared.clear()
    void Promise.allSettled(statements).then((settled) => {
      for (const one of settled) if (one.status === 'fulfilled') one.value.finalize()
      super.close(done)
    })
  }
}

/** What a transaction asks for beside what its type says: a name of its own. */
interface Asked {
  readonly uuid?: string
}

export interface Connections {
  readonly sequelize: Sequelize
  /** The connection on which all transactions run. */
  readonly writer: () => Promise<PatientConnection>
}

/**
 * Sequelize opens and closes a connection for each transaction, which costs more than a save does: here all of them
 * use one that stays open. Writes come one after another (`Database.write`), so that two never meet on it.
 */
export function connect(file: string): Connections {
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: { ...sqlite3, Database: PatientConnection },
    storage: file,
    logging: false,
    // The busy time is waited for once, not once for each of several tries.
    retry: { max: 1 },
  })
  const { connectionManager: manager } = sequelize
  const open = manager.getConnection.bind(manager)
  const getConnection = (asked: Parameters<typeof open>[0] & Asked) =>
    open(asked?.uuid === undefined ? asked : Object.assign({}, asked, { uuid: 'writer' }))
  manager.getConnection = getConnection
  manager.releaseConnection = () => undefined
  // A commit that failed is taken back (`Database.write`); the connection stays.
  manager.destroyConnection = async () => undefined
  return {
    sequelize,
    async writer() {
      const connection = await getConnection({ type: 'write', uuid: 'writer' })
      if (connection instanceof PatientConnection) return connection
      throw new Error('the connection is not ours')
    },
  }
}
