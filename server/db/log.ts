import { statSync } from 'node:fs'
import sqlite3 from 'sqlite3'
import { PatientConnection } from './connections'
import { lookInto } from './copyFiles'
import type { Database } from './database'

/**
 * When the content of the write-ahead log goes into the data file. SQLite does
 * that whenever the log is long enough, and then begins it anew: a copy of the
 * folder that is taken at that moment has the file from before and the log from
 * after, and what stood between them is in neither. Here each step rests before
 * the next one, so that a copy that takes no longer than such a rest is whole,
 * whichever of the two files it took first:
 *
 * 1. *seal*: the log says that it is complete up to here; what comes later stays
 *    behind a reader that is held;
 * 2. after a rest, *fill*: what stands before the seal goes into the file, and
 *    stays in the log;
 * 3. after another rest, if nothing was written since, the log *begins anew*,
 *    and its first page says on which seal of the file it builds.
 *
 * A slower copy can be known for what it is: `base ≤ seal of the file ≤ sealed`
 * holds of every file with its own log, and of no others (`belongTogether`).
 */

/** How long each step rests, in milliseconds. */
const REST = 10_000
/** Writes that come one soon after another are one piece of work. */
const SETTLES = 2_000
/** A log of so many bytes is not kept for a copy any longer: it is filled in and begun anew at once. */
const LONGEST = 256 * 1024 * 1024

export interface Seals {
  /** The seal of the file on which the log builds. */
  readonly base: number
  /** The last seal up to which the log is complete. */
  readonly sealed: number
  /** The seal in the file itself, whatever the log says; `null` in a file from before there were any. */
  readonly file: number | null
}

/** False where a log stands beside a file that is not its own: what is between them is lost. */
export function belongTogether({ base, sealed, file }: Seals): boolean {
  return file === null || (base <= file && file <= sealed)
}

type Step = 'seal' | 'fill' | 'begin anew'

export class Log {
  private timer: ReturnType<typeof setTimeout> | null = null
  private next: Step = 'seal'
  private holder: PatientConnection | null = null
  /** True where something was written since the last seal. */
  private touchedSince = false
  private sealed = 0
  private closed = false
  private stepping = false
  private working: Promise<void> = Promise.resolve()

  constructor(
    private readonly database: Database,
    private readonly rest = REST,
    private readonly longest = LONGEST,
  ) {}

  /** Something was written. */
  touched(): void {
    this.touchedSince = true
    if (this.timer === null && !this.stepping) this.wait(Math.min(SETTLES, this.rest))
  }

  private wait(time: number): void {
    if (this.closed) return
    this.timer = setTimeout(() => {
      this.timer = null
      this.working = this.step()
    }, time)
    this.timer.unref()
  }

  /** One step, and the rest after it: there is never a second one on its way. */
  private async step(): Promise<void> {
    this.stepping = true
    try {
      if (logBytes(this.database.file) > this.longest) await this.fillNow()
      else if (this.next === 'seal') await this.seal()
      else if (this.next === 'fill') await this.fill()
      else await this.beginAnew()
    } catch {
      // A full disk, another program that writes: tried again after a rest.
      this.touchedSince = true
    }
    this.stepping = false
    if (this.next !== 'seal') this.wait(this.rest)
    else if (this.touchedSince) this.wait(Math.min(SETTLES, this.rest))
  }

  private seal(): Promise<void> {
    return this.database.exclusive(async () => {
      await this.letGo()
      await this.sealLog()
      this.holder = await opened(this.database.file)
      await this.holder.change('BEGIN')
      await this.holder.row('SELECT base FROM log_base')
      this.touchedSince = false
      this.next = 'fill'
    })
  }

  private async fill(): Promise<void> {
    await this.database.rows('PRAGMA wal_checkpoint(PASSIVE)')
    // An answer that is being read may have kept a part of it back: then again after a rest.
    if ((await sealInFile(this.database.file)) === this.sealed) this.next = 'begin anew'
  }

  private beginAnew(): Promise<void> {
    return this.database.exclusive(async () => {
      await this.letGo()
      this.next = 'seal'
      if (!this.touchedSince) await this.sayBase()
    })
  }

  /** All at once: at the start, before the end, and where the log has grown too long. */
  fillNow(): Promise<void> {
    return this.database.exclusive(async () => {
      await this.letGo()
      await this.sealLog()
      const [told] = await this.database.rows<{ busy: number }>('PRAGMA wal_checkpoint(RESTART)')
      this.touchedSince = told?.busy !== 0
      this.next = 'seal'
      if (!this.touchedSince) await this.sayBase()
    })
  }

  private async sealLog(): Promise<void> {
    const writer = await this.database.writer()
    await writer.change('BEGIN IMMEDIATE')
    try {
      await writer.change('UPDATE log_base SET sealed = max(sealed, (SELECT seal FROM file_seal)) + 1')
      await writer.change('UPDATE file_seal SET seal = (SELECT sealed FROM log_base)')
      await writer.change('COMMIT')
    } catch (error) {
      await writer.change('ROLLBACK').catch(() => undefined)
      throw error
    }
    this.sealed = (await writer.row<{ sealed: number }>('SELECT sealed FROM log_base'))?.sealed ?? 0
  }

  private async sayBase(): Promise<void> {
    await (await this.database.writer()).change('UPDATE log_base SET base = ?', this.sealed)
  }

  private async letGo(): Promise<void> {
    const { holder } = this
    this.holder = null
    if (holder) await new Promise<void>((done) => holder.close(() => done()))
  }

  /** Before the data file is closed: it alone has the work then, where the disk takes it. */
  async close(): Promise<void> {
    this.closed = true
    if (this.timer !== null) clearTimeout(this.timer)
    await this.working
    await this.database.exclusive(async () => {
      await this.letGo()
      await this.sealLog()
      await this.database.rows('PRAGMA wal_checkpoint(TRUNCATE)')
    })
  }
}

/** Bytes of the log beside a data file; 0 where there is none. */
export function logBytes(file: string): number {
  return statSync(`${file}-wal`, { throwIfNoEntry: false })?.size ?? 0
}

function opened(file: string): Promise<PatientConnection> {
  return new Promise((done, failed) => {
    const connection = new PatientConnection(file, sqlite3.OPEN_READWRITE, (error) =>
      error ? failed(error) : done(connection),
    )
  })
}

/** The seal in the data file alone, without its log; `null` where it has none yet. */
export async function sealInFile(file: string): Promise<number | null> {
  try {
    const [row] = await lookInto(file, (still) => still.rows<{ seal: number }>('SELECT seal FROM file_seal'))
    return row?.seal ?? null
  } catch {
    return null
  }
}
