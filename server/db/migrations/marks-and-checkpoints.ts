import type { Migration } from './migration'

interface OldFolio {
  readonly id: string
  readonly title: string
  readonly conventions: string
  readonly line_order: string
  readonly revision: number
  readonly changed_at: string
}

/** Notes, folded and hidden lines; and states of a folio to which the journal can go back. */
export const marksAndCheckpoints: Migration = {
  async up({ run, rows, addColumn }) {
    for (const mark of ['note', 'folded', 'hidden']) await addColumn('lines', mark, 'INTEGER NOT NULL DEFAULT 0')
    await run(`CREATE TABLE IF NOT EXISTS checkpoints (
      folio_id TEXT NOT NULL REFERENCES folios(id) ON DELETE CASCADE,
      revision INTEGER NOT NULL,
      state TEXT NOT NULL,
      saved_at TEXT NOT NULL,
      PRIMARY KEY (folio_id, revision)
    ) WITHOUT ROWID`)
    // Folios from before have no state at their beginning: the present one is the earliest to go back to.
    for (const folio of await rows<OldFolio>('SELECT * FROM folios')) {
      const lines = await rows<{ id: string; source: string }>('SELECT id, source FROM lines WHERE folio_id = ?', [
        folio.id,
      ])
      const byId = new Map(lines.map((l) => [l.id, l]))
      const order = jsonOf(folio.line_order)
      const conventions = jsonOf(folio.conventions)
      // A damaged folio is left for its card to say so.
      if (conventions === null) continue
      const ordered = Array.isArray(order) ? order.flatMap((id) => byId.get(String(id)) ?? []) : lines
      const state = JSON.stringify({ title: folio.title, conventions, lines: ordered })
      await run('INSERT OR IGNORE INTO checkpoints (folio_id, revision, state, saved_at) VALUES (?, ?, ?, ?)', [
        folio.id,
        folio.revision,
        state,
        folio.changed_at,
      ])
    }
  },
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
