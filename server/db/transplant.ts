import { newId } from '../../shared/id'
import { TITLE_LENGTH_MAX } from '../../shared/limits'
import type { PatientConnection, Value } from './connections'
import type { Database } from './database'
import { titleOf } from './folios'

type Row = Readonly<Record<string, Value>>

/** What belongs to a folio, and by what its rows are told apart; pictures are drawn anew, the search index by itself. */
const PARTS: readonly (readonly [table: string, order: string])[] = [
  ['lines', 'id'],
  ['revisions', 'revision'],
  ['checkpoints', 'revision'],
  ['blocks', 'id'],
]
/** Rows that are taken at a time: few of what may be large. */
const AT_A_TIME: Readonly<Record<string, number>> = { lines: 500, revisions: 200, checkpoints: 20, blocks: 1 }
const LEFT_OUT = new Set(['search_row'])

/**
 * A folio of another data file, with its journal and its numbers, as a new one
 * beside those that are here; as a whole or not at all.
 */
export async function transplant(
  from: Database,
  to: Database,
  id: string,
  remark: string,
  now: string,
): Promise<{ readonly id: string; readonly title: string } | null> {
  const [folio] = await from.rows<Row>('SELECT * FROM folios WHERE id = ?', [id])
  if (!folio) return null
  const fresh = newId()
  const title = `${titleOf(folio.title).slice(0, TITLE_LENGTH_MAX - remark.length - 1)} ${remark}`
  await to.writePlain(async (writer) => {
    await put(writer, 'folios', { ...folio, id: fresh, title, changed_at: now, binned_at: null })
    for (const [table, order] of PARTS) {
      const most = AT_A_TIME[table] ?? 1
      for (let at = 0; ; at += most) {
        const rows = await from.rows<Row>(
          `SELECT * FROM ${table} WHERE folio_id = ? ORDER BY ${order} LIMIT ${most} OFFSET ${at}`,
          [id],
        )
        for (const row of rows) await put(writer, table, { ...row, folio_id: fresh })
        if (rows.length < most) break
      }
    }
  })
  return { id: fresh, title }
}

async function put(writer: PatientConnection, table: string, row: Row): Promise<void> {
  const columns = Object.keys(row).filter((name) => !LEFT_OUT.has(name))
  await writer.change(
    `INSERT INTO ${table} (${columns.join(', ')}) VALUES (${columns.map(() => '?').join(', ')})`,
    ...columns.map((name) => row[name] ?? null),
  )
}
