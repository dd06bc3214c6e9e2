import { resolve } from 'node:path'
import { Blocks } from '../db/blocks'
import { Checks } from '../db/check'
import { Copies } from '../db/copies'
import { openDatabase } from '../db/database'
import type { Database } from '../db/database'
import { seedShelf } from '../db/demo'
import { Facts } from '../db/facts'
import { Folios } from '../db/folios'
import { HandOver } from '../db/handOver'
import { Journal } from '../db/journal'
import { Sessions } from '../db/sessions'
import { Shelf } from '../db/shelf'
import { useDoor } from './access'
import { Housekeeping } from './housekeeping'

/** What the routes work with. */
export interface Store {
  readonly database: Database
  readonly folios: Folios
  readonly journal: Journal
  readonly shelf: Shelf
  readonly blocks: Blocks
  readonly copies: Copies
  readonly checks: Checks
  readonly handOver: HandOver
  readonly housekeeping: Housekeeping
  /** `null` where there is no door. */
  readonly sessions: Sessions | null
}

let opened: Promise<Store> | null = null

/** Where the data is kept: `ORNATE_PHASOR_DATA`, by default `data/` in the project. */
export function dataFile(): string {
  const folder = process.env.ORNATE_PHASOR_DATA ?? 'data'
  return resolve(folder, 'folios.sqlite')
}

async function open(): Promise<Store> {
  const database = await openDatabase(dataFile(), {
    log: (line) => process.stdout.write(`${line}\n`),
    seed: (fresh) => seedShelf(new Folios(fresh)),
  })
  database.onMoved = (sentence) => process.stderr.write(`${sentence}\n`)
  const facts = new Facts(database)
  const folios = new Folios(database)
  const copies = new Copies(database)
  const checks = new Checks(database, folios, facts)
  const door = useDoor()
  return {
    database,
    folios,
    journal: new Journal(database),
    shelf: new Shelf(database),
    blocks: new Blocks(database),
    copies,
    checks,
    handOver: new HandOver(database),
    housekeeping: new Housekeeping(database, copies, checks),
    sessions: door && new Sessions(database, facts, door.passphrase),
  }
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

/** Who is signed in; `null` where there is no door. */
export async function useSessions(): Promise<Sessions | null> {
  return useDoor() && (await useStore()).sessions
}

export async function closeFolios(): Promise<void> {
  const current = opened
  opened = null
  if (!current) return
  const { database, housekeeping } = await current
  housekeeping.end()
  await database.close()
}
