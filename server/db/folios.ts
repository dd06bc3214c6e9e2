import { Op } from 'sequelize'
import type { Transaction } from 'sequelize'
import { z } from '#shared/schema'
import { DEFAULT_CONVENTIONS } from '../../shared/conventions'
import { folioSchema, LINE_MARKS, lineSchema, NO_HEAD } from '../../shared/folio'
import type { Folio, FolioFile, Line } from '../../shared/folio'
import { newId } from '../../shared/id'
import { relinked } from '../../shared/plate'
import { relinkedSet } from '../../shared/runs'
import { applyOperation, stateOf } from '../../shared/operations'
import type { Missed, Save } from '../../shared/operations'
import { Blocks } from './blocks'
import type { Database } from './database'
import { Journal } from './journal'
import { tryJson } from './json'
import type { LineRow } from './models'

/** The folios as the database keeps them. Every change is one transaction. */

export type SaveOutcome =
  | { readonly status: 'saved'; readonly revision: number; readonly changedAt: string }
  | { readonly status: 'missing' }
  /** Someone else saved first: what they did since the revision this save builds on. */
  | { readonly status: 'conflict'; readonly missed: Missed }
  | { readonly status: 'misfit'; readonly index: number }

/** What is kept of a folio cannot be read; the sentence says which part. */
export class DamagedFolio extends Error {
  constructor(readonly reason: string) {
    super(reason)
  }
}

export const orderSchema = z.array(z.string())

export class Folios {
  private readonly journal: Journal

  constructor(
    private readonly database: Database,
    private readonly now: () => string = () => new Date().toISOString(),
  ) {
    this.journal = new Journal(database)
  }

  private get models() {
    return this.database.models
  }

  async count(): Promise<number> {
    return this.models.folios.count()
  }

  async exists(id: string): Promise<boolean> {
    return (await this.models.folios.count({ where: { id } })) > 0
  }

  /** The folio, `null` where there is none. Throws `DamagedFolio` where it cannot be read. */
  async open(id: string, transaction?: Transaction): Promise<Folio | null> {
    const options = transaction ? { transaction } : {}
    const row = await this.models.folios.findByPk(id, options)
    if (!row) return null
    const lines = await this.models.lines.findAll({ where: { folioId: id }, ...options })
    const byId = new Map(lines.map((l) => [l.id, lineOf(l)]))
    const order = readJson('the order of its lines', row.lineOrder, orderSchema)
    const folio = folioSchema.safeParse({
      id: row.id,
      title: row.title,
      revision: row.revision,
      conventions: readJson('its conventions', row.conventions, z.looseObject({})),
      lines: order.flatMap((lineId) => byId.get(lineId) ?? []),
      plates: readJson('its plates', row.plates, z.array(z.unknown())),
      enclosures: readJson('its enclosures', row.enclosures, z.array(z.unknown())),
      head: readJson('the head of its sheet', row.head, z.looseObject({})),
      sets: readJson('the sets of its runs', row.sets, z.array(z.unknown())),
      createdAt: row.createdAt,
      changedAt: row.changedAt,
      binnedAt: row.binnedAt,
    })
    if (folio.success) return folio.data
    const [place] = folio.error.issues[0]?.path ?? []
    throw new DamagedFolio(damageSentence(PARTS[String(place)] ?? 'a part of it'))
  }

  /** A new folio; the numbers of its enclosures come with it, or from another folio, or later. */
  async create(file: FolioFile, numbers: ReadonlyMap<string, Uint8Array> | string = new Map()): Promise<Folio> {
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
      enclosures: file.enclosures ?? [],
      head: { ...NO_HEAD, ...file.head },
      sets: (file.sets ?? []).map((set) => relinkedSet(set, ids)),
      createdAt: time,
      changedAt: time,
      binnedAt: null,
    }
    await this.database.write(async (transaction) => {
      await this.models.folios.create(
        { ...rowOf(folio), id: folio.id, revision: 0, createdAt: time, changedAt: time, binnedAt: null },
        { transaction },
      )
      await this.models.lines.bulkCreate(
        folio.lines.map((l) => ({ folioId: folio.id, ...l })),
        { transaction },
      )
      await this.journal.checkpoint(folio, 0, time, transaction)
      const blocks = new Blocks(this.database, this.now)
      if (typeof numbers === 'string') await blocks.copy(numbers, folio.id, transaction)
      else for (const [block, bytes] of numbers) await blocks.write(folio.id, block, bytes, transaction)
    })
    return folio
  }

  async duplicate(id: string): Promise<Folio | null> {
    const original = await this.open(id)
    if (!original) return null
    return this.create({ ...stateOf(original), title: `${original.title.slice(0, 190)} (copy)` }, id)
  }

  /** Puts a folio in the bin, or takes it out again. */
  async bin(id: string, binned: boolean): Promise<boolean> {
    return this.database.write(async (transaction) => {
      const [changed] = await this.models.folios.update(
        { binnedAt: binned ? this.now() : null },
        { where: { id }, transaction },
      )
      return changed > 0
    })
  }

  /** Removes a folio for good; only one that is in the bin. */
  async remove(id: string): Promise<boolean> {
    return this.database.write(async (transaction) => {
      const removed = await this.models.folios.destroy({ where: { id, binnedAt: { [Op.ne]: null } }, transaction })
      return removed > 0
    })
  }

  /** Removes every folio that is in the bin; gives back how many there were. */
  async emptyBin(): Promise<number> {
    return this.database.write((transaction) =>
      this.models.folios.destroy({ where: { binnedAt: { [Op.ne]: null } }, transaction }),
    )
  }

  async save(id: string, save: Save): Promise<SaveOutcome> {
    return this.database.write(async (transaction): Promise<SaveOutcome> => {
      const folio = await this.open(id, transaction)
      if (!folio) return { status: 'missing' }
      const before = save.key === undefined ? null : await this.journal.savedUnder(id, save.key, transaction)
      if (before) return { status: 'saved', ...before }
      if (folio.revision !== save.revision) {
        return { status: 'conflict', missed: await this.journal.missed(folio, save.revision, transaction) }
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
      await this.journal.note(state, revision, save, changedAt, transaction)
      return { status: 'saved', revision, changedAt }
    })
  }

  /** What was saved since a revision; `null` where there is no such folio. */
  async missed(id: string, revision: number): Promise<Missed | null> {
    const row = await this.models.folios.findByPk(id)
    return row ? this.journal.missed(row, revision) : null
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
      const { source, answer = '' } = line
      const marks = Object.fromEntries(LINE_MARKS.map((mark) => [mark, line[mark] === true]))
      await this.models.lines.update(
        { source, ...marks, answer },
        { where: { folioId: after.id, id: line.id }, transaction },
      )
    }
  }

  /**
   * As much of a folio as can be read, as a file of its own: what is whole is
   * taken, what is damaged is left out. `null` where there is no such folio.
   */
  async rescue(id: string): Promise<FolioFile | null> {
    const row = await this.models.folios.findByPk(id)
    if (!row) return null
    const rows = await this.models.lines.findAll({ where: { folioId: id } })
    const lines = rows.flatMap((l) => {
      const line = lineSchema.safeParse({ ...lineOf(l), source: String(l.source) })
      return line.success ? [line.data] : []
    })
    const order = new Map((tryJson(row.lineOrder, orderSchema) ?? []).map((lineId, k) => [lineId, k]))
    const place = (line: Line): number => order.get(line.id) ?? order.size
    const plates = tryJson(row.plates, z.array(z.unknown())) ?? []
    const parsedPlates = plates.map((plate) => folioSchema.shape.plates.safeParse([plate]))
    const enclosures = (tryJson(row.enclosures, z.array(z.unknown())) ?? []).map((e) =>
      folioSchema.shape.enclosures.safeParse([e]),
    )
    const sets = (tryJson(row.sets, z.array(z.unknown())) ?? []).map((s) => folioSchema.shape.sets.safeParse([s]))
    const conventions = folioSchema.shape.conventions.safeParse(tryJson(row.conventions, z.looseObject({})))
    return {
      title: titleOf(row.title),
      conventions: conventions.success ? conventions.data : {},
      lines: lines.sort((a, b) => place(a) - place(b)),
      plates: parsedPlates.flatMap((p) => (p.success ? p.data : [])),
      enclosures: enclosures.flatMap((p) => (p.success ? p.data : [])),
      sets: sets.flatMap((p) => (p.success ? p.data : [])),
    }
  }
}

const PARTS: Readonly<Record<string, string>> = {
  title: 'its title',
  conventions: 'its conventions',
  lines: 'one of its lines',
  plates: 'one of its plates',
  enclosures: 'one of its enclosures',
  head: 'the head of its sheet',
  sets: 'one of the sets of its runs',
  revision: 'its revision',
}

function damageSentence(part: string): string {
  return `What the data file has of ${part} cannot be read.`
}

/** A title that can be shown, whatever is kept. */
export function titleOf(title: unknown): string {
  const parsed = folioSchema.shape.title.safeParse(title)
  return parsed.success ? parsed.data : 'Untitled folio'
}

/** JSON of the database; throws `DamagedFolio` where it cannot be read. */
export function readJson<T>(part: string, text: unknown, schema: z.ZodMiniType<T>): T {
  const value = tryJson(text, schema)
  if (value === null) throw new DamagedFolio(damageSentence(part))
  return value
}

function lineOf(row: LineRow): Line {
  const { id, source, answer } = row
  const marks = LINE_MARKS.flatMap((mark) => (row[mark] ? [[mark, true] as const] : []))
  return { id, source, ...Object.fromEntries(marks), ...(answer ? { answer } : {}) }
}

function rowOf(folio: Folio) {
  return {
    title: folio.title,
    conventions: JSON.stringify(folio.conventions),
    lineOrder: JSON.stringify(folio.lines.map((l) => l.id)),
    plates: JSON.stringify(folio.plates),
    enclosures: JSON.stringify(folio.enclosures),
    head: JSON.stringify(folio.head),
    sets: JSON.stringify(folio.sets),
  }
}
