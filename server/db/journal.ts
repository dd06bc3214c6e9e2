import { Op } from 'sequelize'
import type { Transaction } from 'sequelize'
import { z } from '#shared/schema'
import type { Folio } from '../../shared/folio'
import { applyOperation, folioStateSchema, operationSchema, stateOf } from '../../shared/operations'
import type { FolioState, Journal as JournalPage, Missed, MissedSave, Operation, Save } from '../../shared/operations'
import type { PatientConnection } from './connections'
import type { Database } from './database'
import { tryJson } from './json'
import type { RevisionRow } from './models'

/** A checkpoint is written every so many revisions. */
export const CHECKPOINT_EVERY = 50
/** Journal entries in one answer. */
const JOURNAL_PAGE = 300
/** What was missed is told operation by operation up to these bounds. */
const MISSED_SAVES = 200
const MISSED_LENGTH = 400_000

const operationsSchema = z.array(operationSchema)

/** The operations of a revision; `null` where they can no longer be read. */
function operationsOf(row: Pick<RevisionRow, 'operations'>): Operation[] | null {
  return tryJson(row.operations, operationsSchema)
}

/** The revision that one builds on. */
export function previousOf(row: Pick<RevisionRow, 'buildsOn' | 'revision'>): number {
  return row.buildsOn ?? row.revision - 1
}

/** A state with what was done after its revision; `null` where a step is missing or cannot be read. */
export function replay(
  from: FolioState,
  start: number,
  rows: readonly RevisionRow[],
): { readonly state: FolioState; readonly revision: number } | null {
  let [state, revision] = [from, start]
  for (const row of rows) {
    const operations = operationsOf(row)
    if (!operations || previousOf(row) !== revision) return null
    for (const operation of operations) state = applyOperation(state, operation) ?? state
    revision = row.revision
  }
  return { state, revision }
}

/** What was done to the folios, and their earlier states. */
export class Journal {
  constructor(private readonly database: Database) {}

  private get models() {
    return this.database.models
  }

  /** Notes a save; every so often the whole state with it. */
  async note(state: Folio, revision: number, save: Save, savedAt: string, writer: PatientConnection): Promise<void> {
    await writer.change(
      'INSERT INTO revisions (folio_id, revision, operations, saved_at, save_key) VALUES (?, ?, ?, ?, ?)',
      state.id,
      revision,
      JSON.stringify(save.operations),
      savedAt,
      save.key ?? null,
    )
    if (revision % CHECKPOINT_EVERY === 0) await this.checkpoint(state, revision, savedAt, writer)
  }

  async checkpoint(folio: Folio, revision: number, savedAt: string, writer: PatientConnection): Promise<void> {
    await writer.change(
      'INSERT INTO checkpoints (folio_id, revision, state, saved_at) VALUES (?, ?, ?, ?)',
      folio.id,
      revision,
      JSON.stringify(stateOf(folio)),
      savedAt,
    )
  }

  /** The revision that a save with this key led to, where it has been carried out already. */
  async savedUnder(
    folioId: string,
    key: string,
    writer: PatientConnection,
  ): Promise<{ readonly revision: number; readonly changedAt: string } | null> {
    return writer.row<{ revision: number; changedAt: string }>(
      'SELECT revision, saved_at AS changedAt FROM revisions WHERE folio_id = ? AND save_key = ?',
      folioId,
      key,
    )
  }

  /** What was saved since a revision: each save, or `null` where that is too much or not known in detail. */
  async missed(
    folio: { readonly id: string; readonly revision: number; readonly changedAt: string },
    revision: number,
    transaction?: Transaction,
  ): Promise<Missed> {
    const told = { revision: folio.revision, changedAt: folio.changedAt }
    const rows = await this.models.revisions.findAll({
      where: { folioId: folio.id, revision: { [Op.gt]: revision } },
      order: [['revision', 'ASC']],
      limit: MISSED_SAVES + 1,
      ...(transaction ? { transaction } : {}),
    })
    const saves: MissedSave[] = []
    let length = 0
    let last = revision
    for (const row of rows) {
      length += row.operations.length
      const operations = operationsOf(row)
      if (!operations || previousOf(row) !== last || length > MISSED_LENGTH) return { ...told, saves: null }
      saves.push({ revision: row.revision, key: row.saveKey ?? null, operations })
      last = row.revision
    }
    return { ...told, saves: last === folio.revision ? saves : null }
  }

  /** What was done to a folio, newest first; `before` asks for what came before a revision. */
  async page(folioId: string, before = Number.MAX_SAFE_INTEGER): Promise<JournalPage> {
    const rows = await this.models.revisions.findAll({
      where: { folioId, revision: { [Op.lt]: before } },
      order: [['revision', 'DESC']],
      limit: JOURNAL_PAGE + 1,
    })
    const entries = rows.slice(0, JOURNAL_PAGE).map((row) => {
      const operations = operationsOf(row)
      return {
        revision: row.revision,
        savedAt: row.savedAt,
        operations: operations ?? [],
        name: row.name ?? null,
        damaged: operations === null,
      }
    })
    return { entries, more: rows.length > JOURNAL_PAGE }
  }

  /**
   * The folio as it stood after a revision: the nearest checkpoint before it,
   * and what was done since. `null` where that is not known, or cannot be read.
   */
  async stateAt(folioId: string, revision: number, transaction?: Transaction): Promise<FolioState | null> {
    const within = transaction ? { transaction } : {}
    const starts = await this.models.checkpoints.findAll({
      where: { folioId, revision: { [Op.lte]: revision } },
      order: [['revision', 'DESC']],
      limit: 3,
      ...within,
    })
    for (const start of starts) {
      // A damaged checkpoint is passed over for the one before it.
      const state = tryJson(start.state, folioStateSchema)
      if (!state) continue
      const rows = await this.models.revisions.findAll({
        where: { folioId, revision: { [Op.gt]: start.revision, [Op.lte]: revision } },
        order: [['revision', 'ASC']],
        ...within,
      })
      const reached = replay(state, start.revision, rows)
      if (reached?.revision === revision) return reached.state
    }
    return null
  }

  /** Gives the state after a revision a name, by which it is kept for good; an empty one takes it off. */
  async nameState(folioId: string, revision: number, name: string | null): Promise<boolean> {
    return this.database.write(async (transaction) => {
      const [changed] = await this.models.revisions.update(
        { name: name === '' ? null : name },
        { where: { folioId, revision }, transaction },
      )
      return changed > 0
    })
  }
}
