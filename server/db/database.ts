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

/**
 * Opens (and where needed creates) the database file: write-ahead log, foreign
 * keys on, patient when another process writes, every migration run.
 */
export async function openDatabase(file: string): Promise<Database> {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true })
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    dialectModule: sqlite3,
    storage: file,
    logging: false,
    // One connection: SQLite has one writer, and the pragmas belong to the connection.
    pool: { max: 1, min: 1, idle: 2 ** 30 },
  })
  await sequelize.query('PRAGMA journal_mode = WAL')
  await sequelize.query('PRAGMA foreign_keys = ON')
  await sequelize.query('PRAGMA busy_timeout = 5000')
  await sequelize.query('PRAGMA synchronous = NORMAL')
  await migrate(sequelize)
  return { sequelize, models: defineModels(sequelize) }
}
