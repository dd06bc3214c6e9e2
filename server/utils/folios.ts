import { resolve } from 'node:path'
import { Blocks } from '../db/blocks'
import { openDatabase } from '../db/database'
import type { Database } from '../db/database'
import { seedEmptyShelf } from '../db/demo'
import { Folios } from '../db/folios'
import { Journal } from '../db/journal'
import { Shelf } from '../db/shelf'
import { Tidy } from '../db/tidy'

/** What the routes work with. */
export interface Store {
  readonly database: Database
  readonly folios: Folios
  readonly journal: Journal
  readonly shelf: Shelf
  readonly blocks: Blocks
}

let opened: Promise<Store> | null = null

/** Where the data is kept: `ORNATE_PHASOR_DATA`, by default `data/` in the project. */
export function dataFile(): string {
  const folder = process.env.ORNATE_PHASOR_DATA ?? 'data'
  return resolve(folder, 'folios.sqlite')
}

async function open(): Promise<Store> {
  const database = await openDatabase(dataFile(), (line) => process.stdout.write(`${line}\n`))
  const folios = new Folios(database)
  await seedEmptyShelf(folios)
  tidyNowAndThen(database)
  return { database, folios, journal: new Journal(database), shelf: new Shelf(database), blocks: new Blocks(database) }
}

/** The store of this server; opened once, and again after a failure. */
export async function useStore(): Promise<Store> {
  opened ??= open()
  try {
    return await opened
  } catch (error) {
    opened = null
    throw error
  }
}

export async function useFolios(): Promise<Folios> {
  return (await useStore()).folios
}

export async function closeFolios(): Promise<void> {
  const current = opened
  opened = null
  clearTimeout(tidying)
  if (current) await (await current).database.close()
}

/** Old states are thinned out soon after the start, then once a day, while nobody writes. */
const TIDY_FIRST = 60_000
const TIDY_EVERY = 24 * 3_600_000
const TIDY_PAUSE = 200
const QUIET = 10_000
let tidying: ReturnType<typeof setTimeout> | undefined

function tidyNowAndThen(database: Database, delay = TIDY_FIRST): void {
  tidying = setTimeout(() => void tidy(database), delay)
  tidying.unref()
}

async function tidy(database: Database): Promise<void> {
  const rest = (time: number): Promise<void> => new Promise((done) => setTimeout(done, time).unref())
  try {
    const work = new Tidy(database)
    const removed = await work.run(async () => {
      await rest(TIDY_PAUSE)
      while (Date.now() - database.writtenAt < TIDY_PAUSE) await rest(TIDY_PAUSE)
    })
    while (Date.now() - database.writtenAt < QUIET) await rest(QUIET)
    const vacuumed = await work.vacuumWhereItPays()
    if (removed > 0 || vacuumed)
      process.stdout.write(`The journal was tidied: ${removed} old states${vacuumed ? ', space given back' : ''}.\n`)
  } catch (error) {
    process.stderr.write(`The journal could not be tidied: ${error instanceof Error ? error.message : String(error)}\n`)
  }
  if (opened) tidyNowAndThen(database, TIDY_EVERY)
}
