import type { Migration } from './migration'

/**
 * What keeping needs beside the folios. The seals of the write-ahead log stand in two tables, so that they are on
 * two pages of the file (`log.ts`); blocks of numbers come in parts, and know whether a folio has taken them up;
 * sessions outlive a restart; ports that pages were served at, and what a browser hands over from one to another.
 */
export const keeping: Migration = {
  async up({ run, addColumn }) {
    await run('CREATE TABLE IF NOT EXISTS log_base (one INTEGER PRIMARY KEY CHECK (one = 1), base INTEGER NOT NULL, sealed INTEGER NOT NULL)') // prettier-ignore
    await run('INSERT OR IGNORE INTO log_base VALUES (1, 0, 0)')
    await run('CREATE TABLE IF NOT EXISTS file_seal (one INTEGER PRIMARY KEY CHECK (one = 1), seal INTEGER NOT NULL)')
    await run('INSERT OR IGNORE INTO file_seal VALUES (1, 0)')
    await addColumn('blocks', 'enclosed', 'INTEGER NOT NULL DEFAULT 1')
    await run(`CREATE TABLE IF NOT EXISTS block_parts (
      folio_id TEXT NOT NULL REFERENCES folios(id) ON DELETE CASCADE,
      id TEXT NOT NULL,
      start INTEGER NOT NULL,
      numbers BLOB NOT NULL,
      saved_at TEXT NOT NULL,
      PRIMARY KEY (folio_id, id, start)
    )`)
    await run(`CREATE TABLE IF NOT EXISTS sessions (
      token TEXT PRIMARY KEY,
      browser TEXT NOT NULL,
      since INTEGER NOT NULL,
      seen INTEGER NOT NULL
    ) WITHOUT ROWID`)
    await run('CREATE TABLE IF NOT EXISTS ports (port INTEGER PRIMARY KEY, used INTEGER NOT NULL)')
    await run(`CREATE TABLE IF NOT EXISTS handed_over (
      ticket TEXT NOT NULL,
      place INTEGER NOT NULL,
      record TEXT NOT NULL,
      at INTEGER NOT NULL,
      PRIMARY KEY (ticket, place)
    )`)
    await run('CREATE TABLE IF NOT EXISTS facts (name TEXT PRIMARY KEY, fact TEXT NOT NULL) WITHOUT ROWID')
  },
}
