import { mkdirSync } from 'node:fs'
import { dirname } from 'node:path'
import { Sequelize } from 'sequelize'
import sqlite3 from 'sqlite3'
import { defineModels } from './models'
import type { Models } from './models'
import { migrate } from './migrate'

export interface Database {
  readonly sequelize: Sequelize
  readonly models: Models
}

/** How long a write waits for another program, in milliseconds. */
const BUSY_TIMEOUT = 5_000

/** Sequelize opens a connection for each transaction: every one of them waits for a busy file. */
class PatientConnection extends sqlite3.Database {
  constructor(file: string, mode: number, done: (error: Error | null) => void) {
    super(file, mode, done)
    this.configure('busyTimeout', BUSY_TIMEOUT)
  }
}

/**
 * Opens (and where needed creates) the database file: write-ahead log, foreign
 * keys on, patient when another process writes, every migration run.
 */
export async function openDatabase(file: string): Promise<Database> {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true })
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: { ...sqlite3, Database: PatientConnection },
    storage: file,
    logging: false,
  })
  await sequelize.query('PRAGMA journal_mode = WAL')
  await migrate(sequelize)
  return { sequelize, models: defineModels(sequelize) }
}
