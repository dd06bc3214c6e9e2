import { QueryTypes } from 'sequelize'
import type { QueryInterface } from 'sequelize'

interface OldFolio {
  readonly id: string
  readonly title: string
  readonly conventions: string
  readonly line_order: string
  readonly revision: number
  readonly changed_at: string
}

/** Notes, folded and hidden lines; and states of a folio to which the journal can go back. */
export const marksAndCheckpoints = {
  async up(context: QueryInterface): Promise<void> {
    const { sequelize } = context
    for (const mark of ['note', 'folded', 'hidden']) {
      await sequelize.query(`ALTER TABLE lines ADD COLUMN ${mark} INTEGER NOT NULL DEFAULT 0`)
    }
    await sequelize.query(`CREATE TABLE checkpoints (
      folio_id TEXT NOT NULL REFERENCES folios(id) ON DELETE CASCADE,
      revision INTEGER NOT NULL,
      state TEXT NOT NULL,
      saved_at TEXT NOT NULL,
      PRIMARY KEY (folio_id, revision)
    ) WITHOUT ROWID`)
    // Folios from before have no state at their beginning: the present one is the earliest to go back to.
    const folios = await sequelize.query<OldFolio>('SELECT * FROM folios', { type: QueryTypes.SELECT })
    for (const folio of folios) {
      const lines = await sequelize.query<{ id: string; source: string }>(
        'SELECT id, source FROM lines WHERE folio_id = ?',
        { type: QueryTypes.SELECT, replacements: [folio.id] },
      )
      const byId = new Map(lines.map((l) => [l.id, l]))
      const order: unknown = JSON.parse(folio.line_order)
      const ordered = Array.isArray(order) ? order.flatMap((id) => byId.get(String(id)) ?? []) : lines
      const conventions: unknown = JSON.parse(folio.conventions)
      await sequelize.query('INSERT INTO checkpoints (folio_id, revision, state, saved_at) VALUES (?, ?, ?, ?)', {
        replacements: [
          folio.id,
          folio.revision,
          JSON.stringify({ title: folio.title, conventions, lines: ordered }),
          folio.changed_at,
        ],
      })
    }
  },
  async down(context: QueryInterface): Promise<void> {
    await context.dropTable('checkpoints')
    for (const mark of ['note', 'folded', 'hidden']) {
      await context.sequelize.query(`ALTER TABLE lines DROP COLUMN ${mark}`)
    }
  },
}
