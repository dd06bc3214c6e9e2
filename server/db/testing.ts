import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openDatabase } from './database'
import type { Database } from './database'
import { Folios } from './folios'
import { Journal } from './journal'
import { Shelf } from './shelf'

/** A store in a folder of its own, for tests, with a clock that goes on by a second at each look. */
export interface Bench {
  readonly folder: string
  readonly file: string
  readonly database: Database
  readonly folios: Folios
  readonly journal: Journal
  readonly shelf: Shelf
  readonly end: () => Promise<void>
}

export async function openBench(now?: () => string, rest?: number): Promise<Bench> {
  const folder = mkdtempSync(join(tmpdir(), 'ornate-phasor-db-'))
  const file = join(folder, 'deep', 'folios.sqlite')
  const database = await openDatabase(file, rest === undefined ? {} : { rest })
  let clock = 0
  const folios = new Folios(database, now ?? (() => new Date(1_700_000_000_000 + 1000 * (clock += 1)).toISOString()))
  return {
    folder,
    file,
    database,
    folios,
    journal: new Journal(database),
    shelf: new Shelf(database),
    async end() {
      await database.close()
      rmSync(folder, { recursive: true })
    },
  }
}
