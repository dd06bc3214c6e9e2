import { Op, Transaction } from 'sequelize'
import { z } from 'zod'
import { conventionsSchema, DEFAULT_CONVENTIONS } from '../../shared/conventions'
import { folioSchema } from '../../shared/folio'
import type { Folio, FolioCard, FolioFile, Line } from '../../shared/folio'
import { newId } from '../../shared/id'
import { applyOperation, operationSchema } from '../../shared/operations'
import type { Operation, Save } from '../../shared/operations'
import type { Database } from './database'
import type { FolioRow } from './models'

/** The folios as the database keeps them. Every change is one transaction. */

export type SaveOutcome =
  | { readonly status: 'saved'; readonly revision: number; readonly changedAt: string }
  | { readonly status: 'missing' }
  /** Someone else saved first: what they did since the revision this save builds on. */
  | { readonly status: 'conflict'; readonly folio: Folio; readonly operations: readonly Operation[] }
  | { readonly status: 'misfit'; readonly index: number }

const PREVIEW_LINES = 40
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

  async cards(): Promise<FolioCard[]> {
    const rows = await this.models.folios.findAll({ order: [['changedAt', 'DESC']] })
    return Promise.all(rows.map((row) => this.card(row)))
  }

  private async card(row: FolioRow): Promise<FolioCard> {
    const order = orderSchema.parse(JSON.parse(row.lineOrder))
    const first = order.slice(0, PREVIEW_LINES)
    const lines = await this.models.lines.findAll({ where: { folioId: row.id, id: { [Op.in]: first } } })
    const sources = new Map(lines.map((l) => [l.id, l.source]))
    return {
      id: row.id,
      title: row.title,
      lineCount: order.length,
      changedAt: row.changedAt,
      binnedAt: row.binnedAt,
      conventions: conventionsSchema.parse(JSON.parse(row.conventions)),
      preview: first.map((id) => sources.get(id) ?? ''),
    }
  }

  async open(id: string, transaction?: Transaction): Promise<Folio | null> {
    const options = transaction ? { transaction } : {}
    const row = await this.models.folios.findByPk(id, options)
    if (!row) return null
    const lines = await this.models.lines.findAll({ where: { folioId: id }, ...options })
    const sources = new Map(lines.map((l) => [l.id, l.source]))
    const order = orderSchema.parse(JSON.parse(row.lineOrder))
    return folioSchema.parse({
      id: row.id,
      title: row.title,
      revision: row.revision,
      conventions: JSON.parse(row.conventions),
      lines: order.flatMap((lineId) => {
        const source = sources.get(lineId)
        return source === undefined ? [] : [{ id: lineId, source }]
      }),
      createdAt: row.createdAt,
      changedAt: row.changedAt,
      binnedAt: row.binnedAt,
    })
  }

  async create(file: FolioFile): Promise<Folio> {
    const time = this.now()
    const folio: Folio = {
      id: newId(),
      title: file.title,
      revision: 0,
      conventions: { ...DEFAULT_CONVENTIONS, ...file.conventions },
      lines: file.lines.map(({ source }) => ({ id: newId(), source })),
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
        folio.lines.map((l) => ({ id: l.id, folioId: folio.id, source: l.source })),
        { transaction },
      )
    })
    return folio
  }

  async duplicate(id: string): Promise<Folio | null> {
    const original = await this.open(id)
    if (!original) return null
    return this.create({
      title: `${original.title.slice(0, 190)} (copy)`,
      conventions: original.conventions,
      lines: original.lines.map(({ source }) => ({ source })),
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
      return { status: 'saved', revision, changedAt }
    })
  }

  private async writeLines(before: Folio, after: Folio, transaction: Transaction): Promise<void> {
    const old = new Map(before.lines.map((l) => [l.id, l.source]))
    const kept = new Set(after.lines.map((l) => l.id))
    const gone = before.lines.filter((l) => !kept.has(l.id)).map((l) => l.id)
    if (gone.length > 0) await this.models.lines.destroy({ where: { folioId: after.id, id: gone }, transaction })
    const isNew = (l: Line): boolean => !old.has(l.id)
    const fresh = after.lines.filter(isNew)
    if (fresh.length > 0) {
      await this.models.lines.bulkCreate(
        fresh.map((l) => ({ id: l.id, folioId: after.id, source: l.source })),
        { transaction },
      )
    }
    for (const line of after.lines) {
      if (isNew(line) || old.get(line.id) === line.source) continue
      await this.models.lines.update(
        { source: line.source },
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

function rowOf(folio: Pick<Folio, 'title' | 'conventions' | 'lines'>) {
  return {
    title: folio.title,
    conventions: JSON.stringify(folio.conventions),
    lineOrder: JSON.stringify(folio.lines.map((l) => l.id)),
  }
}
