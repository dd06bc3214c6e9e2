import type { Migration } from './migration'

/** The lowest bits of a row of the search count the lines of a folio, the others are the folio's number. */
export const SEARCH_SHIFT = 24

/**
 * Keys of saves, so that one whose answer was lost is carried out once; names of
 * states; revisions that build on another than the one before (where older ones
 * are thinned out); pictures of the shelf; and an index of all texts, three
 * letters at a time (SQLite's FTS5), kept by triggers.
 */
export const keysNamesAndSearch: Migration = {
  async up({ run, addColumn }) {
    await addColumn('revisions', 'save_key', 'TEXT')
    await addColumn('revisions', 'name', 'TEXT')
    await addColumn('revisions', 'builds_on', 'INTEGER')
    await run(
      'CREATE INDEX IF NOT EXISTS revisions_by_key ON revisions (folio_id, save_key) WHERE save_key IS NOT NULL',
    )
    await run('CREATE INDEX IF NOT EXISTS revisions_by_time ON revisions (saved_at)')
    await run('DROP INDEX IF EXISTS folios_by_change')
    await run(
      'CREATE INDEX IF NOT EXISTS folios_on_shelf ON folios (changed_at DESC, id, title, binned_at, created_at)',
    )
    await run(`CREATE TABLE IF NOT EXISTS thumbnails (
      folio_id TEXT PRIMARY KEY REFERENCES folios(id) ON DELETE CASCADE,
      revision INTEGER NOT NULL,
      picture TEXT NOT NULL
    ) WITHOUT ROWID`)
    await run(`CREATE TABLE IF NOT EXISTS folio_numbers (
      number INTEGER PRIMARY KEY AUTOINCREMENT,
      folio_id TEXT NOT NULL UNIQUE,
      lines INTEGER NOT NULL DEFAULT 0
    )`)
    await addColumn('lines', 'search_row', 'INTEGER')
    await run(
      "CREATE VIRTUAL TABLE IF NOT EXISTS search USING fts5(source, content='', contentless_delete=1, tokenize='trigram')",
    )
    const indexed = `
      UPDATE folio_numbers SET lines = lines + 1 WHERE folio_id = new.folio_id;
      UPDATE lines SET search_row = (SELECT (number << ${SEARCH_SHIFT}) + lines FROM folio_numbers WHERE folio_id = new.folio_id)
        WHERE folio_id = new.folio_id AND id = new.id;
      INSERT INTO search (rowid, source)
        SELECT search_row, source FROM lines WHERE folio_id = new.folio_id AND id = new.id;`
    await run(`CREATE TRIGGER IF NOT EXISTS lines_come AFTER INSERT ON lines BEGIN
      INSERT OR IGNORE INTO folio_numbers (folio_id) VALUES (new.folio_id);${indexed}
    END`)
    await run(`CREATE TRIGGER IF NOT EXISTS lines_change AFTER UPDATE OF source ON lines
      WHEN old.source IS NOT new.source BEGIN
      DELETE FROM search WHERE rowid = old.search_row;
      INSERT INTO search (rowid, source) VALUES (new.search_row, new.source);
    END`)
    await run(`CREATE TRIGGER IF NOT EXISTS lines_go AFTER DELETE ON lines BEGIN
      DELETE FROM search WHERE rowid = old.search_row;
    END`)
    await run(`CREATE TRIGGER IF NOT EXISTS folios_go AFTER DELETE ON folios BEGIN
      DELETE FROM folio_numbers WHERE folio_id = old.id;
    END`)
    // What is there already; lines that a first try has numbered have their row.
    await run('INSERT OR IGNORE INTO folio_numbers (folio_id) SELECT id FROM folios')
    await run(`UPDATE lines SET search_row = numbered.row FROM (
      SELECT l.folio_id, l.id,
        (n.number << ${SEARCH_SHIFT}) + n.lines + row_number() OVER (PARTITION BY l.folio_id ORDER BY l.id) AS row
      FROM lines l JOIN folio_numbers n ON n.folio_id = l.folio_id
      WHERE l.search_row IS NULL
    ) AS numbered WHERE lines.folio_id = numbered.folio_id AND lines.id = numbered.id`)
    await run(`UPDATE folio_numbers SET lines = (
      SELECT coalesce(max(search_row) & ((1 << ${SEARCH_SHIFT}) - 1), 0) FROM lines WHERE lines.folio_id = folio_numbers.folio_id
    )`)
    await run('INSERT INTO search (rowid, source) SELECT search_row, source FROM lines')
  },
}
