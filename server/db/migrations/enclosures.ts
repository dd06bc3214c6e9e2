import type { Migration } from './migration'

/**
 * Measured data: what is said of it stands with the folio, its numbers in blocks of their own, which never change
 * and go with their folio. Also the head of the sheet, and the part of it that a line answers.
 */
export const enclosures: Migration = {
  async up({ run, addColumn }) {
    await addColumn('folios', 'enclosures', "TEXT NOT NULL DEFAULT '[]'")
    await addColumn('folios', 'head', "TEXT NOT NULL DEFAULT '{}'")
    await addColumn('lines', 'answer', "TEXT NOT NULL DEFAULT ''")
    await run(`CREATE TABLE IF NOT EXISTS blocks (
      folio_id TEXT NOT NULL REFERENCES folios(id) ON DELETE CASCADE,
      id TEXT NOT NULL,
      numbers BLOB NOT NULL,
      saved_at TEXT NOT NULL,
      PRIMARY KEY (folio_id, id)
    )`)
  },
}
