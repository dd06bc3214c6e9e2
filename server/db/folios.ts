import { Op, QueryTypes, Transaction } from 'sequelize'
import { z } from 'zod'
import { conventionsSchema, DEFAULT_CONVENTIONS } from '../../shared/conventions'
import { folioSchema } from '../../shared/folio'
import type { Folio, FolioCard, FolioFile, Line } from '../../shared/folio'
import { newId } from '../../shared/id'
import { relinked } from '../../shared/plate'
import { applyOperation, folioStateSchema, operationSchema } from '../../shared/operations'
import type { FolioState, Journal, Operation, Save } from '../../shared/operations'
import type { Database } from './database'
import type { FolioRow, LineRow } from './models'

/** The folios as the database keeps them. Every change is one transaction. */

export type SaveOutcome =
  | { readonly status: 'saved'; readonly revision: number; readonly changedAt: string }
  | { readonly status: 'missing' }
  /** Someone else saved first: what they did since the revision this save builds on. */
  | { readonly status: 'conflict'; readonly folio: Folio; readonly operations: readonly Operation[] }
  | { readonly status: 'misfit'; readonly index: number }

const PREVIEW_LINES = 40
/** A checkpoint is written every so many revisions. */
const CHECKPOINT_EVERY = 50
/** Journal entries in one answer. */
const JOURNAL_PAGE = 300
const orderSchema = z.array(z.string())

export class Folios {
  constructor(
    private readonly database: Database,
    private readonly now: () => string = () => new Date().toISOString(),
  ) {}

  private get models() {
    return this.database.models
  }

  private lastWrite: Promise<unknown> = Promise.resolve()

  /**
   * One write after another. The transaction takes the write lock at once
   * (IMMEDIATE): what it reads cannot change before it writes.
   */
  private write<T>(action: (transaction: Transaction) => Promise<T>): Promise<T> {
    const run = (): Promise<T> => this.database.sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, action)
    const result = this.lastWrite.then(run, run)
    this.lastWrite = result.catch(() => undefined)
    return result
  }

  async count(): Promise<number> {
    return this.models.folios.count()
  }

  /** Every folio, last changed first; with a text, those whose title or lines have it. */
  async cards(text = ''): Promise<FolioCard[]> {
    const rows = await this.models.folios.findAll({ order: [['changedAt', 'DESC']] })
    if (text === '') return Promise.all(rows.map((row) => this.card(row, null)))
    const matches = await this.matches(text)
    const lower = text.toLowerCase()
    const found = rows.filter((row) => matches.has(row.id) || row.title.toLowerCase().includes(lower))
    return Promise.all(found.map((row) => this.card(row, matches.get(row.id) ?? null)))
  }

  /** For each folio one line that has the text. */
  private async matches(text: string): Promise<Map<string, string>> {
    const rows = await this.database.sequelize.query<{ folio_id: string; source: string }>(
      'SELECT folio_id, source FROM lines WHERE instr(lower(source), lower(?)) > 0',
      { type: QueryTypes.SELECT, replacements: [text] },
    )
    const found = new Map<string, string>()
    for (const row of rows) if (!found.has(row.folio_id)) found.set(row.folio_id, row.source)
    return found
  }

  private async card(row: FolioRow, match: string | null): Promise<FolioCard> {
    const order = orderSchema.parse(JSON.parse(row.lineOrder))
    const first = order.slice(0, PREVIEW_LINES)
    const lines = await this.models.lines.findAll({ where: { folioId: row.id, id: { [Op.in]: first } } })
    const sources = new Map(lines.map((l) => [l.id, l.note ? '' : l.source]))
    return {
      id: row.id,
      title: row.title,
      lineCount: order.length,
      changedAt: row.changedAt,
      binnedAt: row.binnedAt,
      conventions: conventionsSchema.parse(JSON.parse(row.conventions)),
      preview: first.map((id) => sources.get(id) ?? ''),
      createdAt: row.createdAt,
      match,
    }
  }

  async open(id: string, transaction?: Transaction): Promise<Folio | null> {
    const options = transaction ? { transaction } : {}
    const row = await this.models.folios.findByPk(id, options)
    if (!row) return null
    const lines = await this.models.lines.findAll({ where: { folioId: id }, ...options })
    const byId = new Map(lines.map((l) => [l.id, lineOf(l)]))
    const order = orderSchema.parse(JSON.parse(row.lineOrder))
    return folioSchema.parse({
      id: row.id,
      title: row.title,
      revision: row.revision,
      conventions: JSON.parse(row.conventions),
      lines: order.flatMap((lineId) => byId.get(lineId) ?? []),
      plates: JSON.parse(row.plates),
      createdAt: row.createdAt,
      changedAt: row.changedAt,
      binnedAt: row.binnedAt,
    })
  }

  async create(file: FolioFile): Promise<Folio> {
    const time = this.now()
    const lines = file.lines.map((line) => ({ ...line, id: newId() }))
    const ids = new Map(file.lines.flatMap((line, k) => (line.id && lines[k] ? [[line.id, lines[k].id] as const] : [])))
    const folio: Folio = {
      id: newId(),
      title: file.title,
      revision: 0,
      conventions: { ...DEFAULT_CONVENTIONS, ...file.conventions },
      lines,
      plates: (file.plates ?? []).map((plate) => relinked(plate, ids)),
      createdAt: time,
      changedAt: time,
      binnedAt: null,
    }
    await this.write(async (transaction) => {
      await this.models.folios.create(
        { ...rowOf(folio), id: folio.id, revision: 0, createdAt: time, changedAt: time, binnedAt: null },
        { transaction },
      )
      await this.models.lines.bulkCreate(
        folio.lines.map((l) => ({ folioId: folio.id, ...l })),
        { transaction },
      )
      await this.checkpoint(folio, 0, time, transaction)
    })
    return folio
  }

  async duplicate(id: string): Promise<Folio | null> {
    const original = await this.open(id)
    if (!original) return null
    return this.create({
      title: `${original.title.slice(0, 190)} (copy)`,
      conventions: original.conventions,
      lines: original.lines,
      plates: original.plates,
    })
  }

  /** Puts a folio in the bin, or takes it out again. */
  async bin(id: string, binned: boolean): Promise<boolean> {
    const [changed] = await this.models.folios.update({ binnedAt: binned ? this.now() : null }, { where: { id } })
    return changed > 0
  }

  /** Removes a folio for good; only one that is in the bin. */
  async remove(id: string): Promise<boolean> {
    const removed = await this.models.folios.destroy({ where: { id, binnedAt: { [Op.ne]: null } } })
    return removed > 0
  }

  /** Removes every folio that is in the bin; gives back how many there were. */
  async emptyBin(): Promise<number> {
    return this.models.folios.destroy({ where: { binnedAt: { [Op.ne]: null } } })
  }

  async save(id: string, save: Save): Promise<SaveOutcome> {
    return this.write(async (transaction): Promise<SaveOutcome> => {
      const folio = await this.open(id, transaction)
      if (!folio) return { status: 'missing' }
      if (folio.revision !== save.revision) {
        return { status: 'conflict', folio, operations: await this.since(id, save.revision, transaction) }
      }
      let state: Folio = folio
      for (const [index, operation] of save.operations.entries()) {
        const next = applyOperation(state, operation)
        if (!next) return { status: 'misfit', index }
        state = next
      }
      const revision = folio.revision + 1
      const changedAt = this.now()
      await this.writeLines(folio, state, transaction)
      await this.models.folios.update({ ...rowOf(state), revision, changedAt }, { where: { id }, transaction })
      await this.models.revisions.create(
        { folioId: id, revision, operations: JSON.stringify(save.operations), savedAt: changedAt },
        { transaction },
      )
      if (revision % CHECKPOINT_EVERY === 0) await this.checkpoint(state, revision, changedAt, transaction)
      return { status: 'saved', revision, changedAt }
    })
  }

  private async checkpoint(folio: Folio, revision: number, savedAt: string, transaction: Transaction): Promise<void> {
    const { id, title, conventions, lines, plates } = folio
    const state = JSON.stringify({ title, conventions, lines, plates })
    await this.models.checkpoints.create({ folioId: id, revision, state, savedAt }, { transaction })
  }

  /** What was done to a folio, newest first; `before` asks for what came before a revision. */
  async journal(id: string, before = Number.MAX_SAFE_INTEGER): Promise<Journal | null> {
    if ((await this.models.folios.count({ where: { id } })) === 0) return null
    const rows = await this.models.revisions.findAll({
      where: { folioId: id, revision: { [Op.lt]: before } },
      order: [['revision', 'DESC']],
      limit: JOURNAL_PAGE + 1,
    })
    const entries = rows.slice(0, JOURNAL_PAGE).map((row) => ({
      revision: row.revision,
      savedAt: row.savedAt,
      operations: z.array(operationSchema).parse(JSON.parse(row.operations)),
    }))
    return { entries, more: rows.length > JOURNAL_PAGE }
  }

  /** The folio as it stood after a revision; `null` where that is not known. */
  async stateAt(id: string, revision: number): Promise<FolioState | null> {
    const start = await this.models.checkpoints.findOne({
      where: { folioId: id, revision: { [Op.lte]: revision } },
      order: [['revision', 'DESC']],
    })
    if (!start) return null
    const rows = await this.models.revisions.findAll({
      where: { folioId: id, revision: { [Op.gt]: start.revision, [Op.lte]: revision } },
      order: [['revision', 'ASC']],
    })
    if (rows.length !== revision - start.revision) return null
    let state: FolioState = folioStateSchema.parse(JSON.parse(start.state))
    for (const row of rows) {
      for (const operation of z.array(operationSchema).parse(JSON.parse(row.operations)))
        state = applyOperation(state, operation) ?? state
    }
    return state
  }

  private async writeLines(before: Folio, after: Folio, transaction: Transaction): Promise<void> {
    const old = new Map(before.lines.map((l) => [l.id, l]))
    const kept = new Set(after.lines.map((l) => l.id))
    const gone = before.lines.filter((l) => !kept.has(l.id)).map((l) => l.id)
    if (gone.length > 0) await this.models.lines.destroy({ where: { folioId: after.id, id: gone }, transaction })
    const isNew = (l: Line): boolean => !old.has(l.id)
    const fresh = after.lines.filter(isNew)
    if (fresh.length > 0) {
      await this.models.lines.bulkCreate(
        fresh.map((l) => ({ folioId: after.id, ...l })),
        { transaction },
      )
    }
    for (const line of after.lines) {
      if (isNew(line) || old.get(line.id) === line) continue
      const { source, note = false, folded = false, hidden = false } = line
      await this.models.lines.update(
        { source, note, folded, hidden },
        { where: { folioId: after.id, id: line.id }, transaction },
      )
    }
  }

  private async since(id: string, revision: number, transaction: Transaction): Promise<Operation[]> {
    const rows = await this.models.revisions.findAll({
      where: { folioId: id, revision: { [Op.gt]: revision } },
      order: [['revision', 'ASC']],
      transaction,
    })
    return rows.flatMap((row) => z.array(operationSchema).parse(JSON.parse(row.operations)))
  }
}

function lineOf(row: LineRow): Line {
  const { id, source, note, folded, hidden } = row
  return {
    id,
    source,
    ...(note ? { note: true as const } : {}),
    ...(folded ? { folded: true as const } : {}),
    ...(hidden ? { hidden: true as const } : {}),
  }
}

function rowOf(folio: Pick<Folio, 'title' | 'conventions' | 'lines' | 'plates'>) {
  return {
    title: folio.title,
    conventions: JSON.stringify(folio.conventions),
    lineOrder: JSON.stringify(folio.lines.map((l) => l.id)),
    plates: JSON.stringify(folio.plates),
  }
}
