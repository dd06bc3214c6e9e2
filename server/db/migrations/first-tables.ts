import type { Migration } from './migration'

/** Folios, their lines, and the operations that led to each revision. */
export const firstTables: Migration = {
  async up({ run }) {
    await run(`CREATE TABLE IF NOT EXISTS folios (
      id TEXT PRIMARY KEY,
      title TEXT NOT NULL,
      conventions TEXT NOT NULL,
      line_order TEXT NOT NULL,
      revision INTEGER NOT NULL DEFAULT 0,
      created_at TEXT NOT NULL,
      changed_at TEXT NOT NULL,
      binned_at TEXT
    ) WITHOUT ROWID`)
    await run(`CREATE TABLE IF NOT EXISTS lines (
      folio_id TEXT NOT NULL REFERENCES folios(id) ON DELETE CASCADE,
      id TEXT NOT NULL,
      source TEXT NOT NULL,
      PRIMARY KEY (folio_id, id)
    ) WITHOUT ROWID`)
    await run(`CREATE TABLE IF NOT EXISTS revisions (
      folio_id TEXT NOT NULL REFERENCES folios(id) ON DELETE CASCADE,
      revision INTEGER NOT NULL,
      operations TEXT NOT NULL,
      saved_at TEXT NOT NULL,
      PRIMARY KEY (folio_id, revision)
    ) WITHOUT ROWID`)
    await run('CREATE INDEX IF NOT EXISTS folios_by_change ON folios (changed_at)')
  },
}
