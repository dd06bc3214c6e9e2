import { resolve } from 'node:path'
import { openDatabase } from '../db/database'
import type { Database } from '../db/database'
import { seedEmptyShelf } from '../db/demo'
import { Folios } from '../db/folios'

let opened: Promise<{ database: Database; folios: Folios }> | null = null

/** Where the data is kept: `ORNATE_PHASOR_DATA`, by default `data/` in the project. */
export function dataFile(): string {
  const folder = process.env.ORNATE_PHASOR_DATA ?? 'data'
  return resolve(folder, 'folios.sqlite')
}

async function open(): Promise<{ database: Database; folios: Folios }> {
  const database = await openDatabase(dataFile())
  const folios = new Folios(database)
  await seedEmptyShelf(folios)
  return { database, folios }
}

/** The folios of this server; opened once, and again after a failure. */
export async function useFolios(): Promise<Folios> {
  opened ??= open()
  try {
    return (await opened).folios
  } catch (error) {
    opened = null
    throw error
  }
}

export async function closeFolios(): Promise<void> {
  const current = opened
  opened = null
  if (current) await (await current).database.sequelize.close()
}
