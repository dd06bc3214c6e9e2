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
import type { PatientConnection } from './connections'
import { refuseUpgraded } from './database'
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

/** The outcome, and where it was saved now the folio after it. */
type Carried = SaveOutcome & { readonly after?: Folio }

/** What is kept of a folio cannot be read; the sentence says which part. */
export class DamagedFolio extends Error {
  constructor(readonly reason: string) {
    super(reason)
  }
}

export const orderSchema = z.array(z.string())

/** So many folios are remembered as they were saved last. */
const RECENT_MOST = 300

export class Folios {
  private readonly journal: Journal
  /** Folios as they were saved last. */
  private readonly recents = new Map<string, Folio>()
  /** Counts what other programs wrote into the data file, when it was last looked at. */
  private others = -1

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
    await this.database.write(async (transaction, writer) => {
      await this.models.folios.create(
        { ...rowOf(folio), id: folio.id, revision: 0, createdAt: time, changedAt: time, binnedAt: null },
        { transaction },
      )
      await this.models.lines.bulkCreate(
        folio.lines.map((l) => ({ folioId: folio.id, ...l })),
        { transaction },
      )
      await this.journal.checkpoint(folio, 0, time, writer)
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
    const quick = await this.database.writeWatched(async (writer) => {
      const folio = await this.recent(id, save.revision, writer)
      return folio && this.carryOut(folio, save, writer)
    })
    const outcome =
      quick ??
      (await this.database.write(async (transaction, writer): Promise<Carried> => {
        const folio = await this.open(id, transaction)
        if (!folio) return { status: 'missing' }
        const before = save.key === undefined ? null : await this.journal.savedUnder(id, save.key, writer)
        if (before) return { status: 'saved', ...before }
        if (folio.revision === save.revision) return this.carryOut(folio, save, writer)
        return { status: 'conflict', missed: await this.journal.missed(folio, save.revision, transaction) }
      }))
    if (outcome.status !== 'saved') return outcome
    const { after, ...told } = outcome
    // Only what the disk has is remembered.
    if (after) this.remember(after)
    return told
  }

  /** Puts the operations of a save on the folio that it builds on. */
  private async carryOut(folio: Folio, save: Save, writer: PatientConnection): Promise<Carried> {
    let state: Folio = folio
    for (const [index, operation] of save.operations.entries()) {
      const next = applyOperation(state, operation)
      if (!next) return { status: 'misfit', index }
      state = next
    }
    const [revision, changedAt] = [folio.revision + 1, this.now()]
    const after = { ...state, revision, changedAt }
    await writeLines(writer, folio, after)
    await writeFolio(writer, folio, after)
    await takeUp(writer, folio, after)
    await this.journal.note(after, revision, save, changedAt, writer)
    return { status: 'saved', revision, changedAt, after }
  }

  /**
   * The folio as the last save here left it, where nothing else has changed the data file since: it need not be read
   * and checked anew with every few letters. A save that was carried out
   * already has led to a later revision: it is not found here.
   */
  private async recent(id: string, revision: number, writer: PatientConnection): Promise<Folio | null> {
    const row = await writer.row<{ others: number; revision: number | null }>(
      'SELECT data_version AS others, (SELECT revision FROM folios WHERE id = ?) AS revision FROM pragma_data_version',
      id,
    )
    if (row?.others !== this.others) {
      this.recents.clear()
      await refuseUpgraded(writer)
    }
    this.others = row?.others ?? -1
    const folio = this.recents.get(id)
    return folio?.revision === revision && row?.revision === revision ? folio : null
  }

  private remember(folio: Folio): void {
    this.recents.delete(folio.id)
    this.recents.set(folio.id, folio)
    if (this.recents.size > RECENT_MOST) this.recents.delete(this.recents.keys().next().value ?? '')
  }

  /** What was saved since a revision; `null` where there is no such folio. */
  async missed(id: string, revision: number): Promise<Missed | null> {
    const row = await this.models.folios.findByPk(id)
    return row ? this.journal.missed(row, revision) : null
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

/** What the row of a folio has beside its identity and its times, by column. */
const COLUMNS = {
  title: (folio: Folio) => folio.title,
  conventions: (folio: Folio) => JSON.stringify(folio.conventions),
  line_order: (folio: Folio) => JSON.stringify(folio.lines.map((l) => l.id)),
  plates: (folio: Folio) => JSON.stringify(folio.plates),
  enclosures: (folio: Folio) => JSON.stringify(folio.enclosures),
  head: (folio: Folio) => JSON.stringify(folio.head),
  sets: (folio: Folio) => JSON.stringify(folio.sets),
} as const

function rowOf(folio: Folio) {
  const { line_order: lineOrder, ...others } = COLUMNS
  return { ...textsOf(others, folio), lineOrder: lineOrder(folio) }
}

function textsOf<K extends string>(columns: Readonly<Record<K, (folio: Folio) => string>>, folio: Folio) {
  const entries = Object.entries<(folio: Folio) => string>(columns).map(([name, text]) => [name, text(folio)] as const)
  return Object.fromEntries(entries) as Record<K, string>
}

/** Writes what a save has changed of a folio beside its lines. */
async function writeFolio(writer: PatientConnection, before: Folio, after: Folio): Promise<void> {
  const changed = Object.entries(COLUMNS).flatMap(([name, text]): (readonly [string, string])[] => {
    const now = text(after)
    return now === text(before) ? [] : [[name, now]]
  })
  const names = changed.map(([name]) => `${name} = ?, `).join('')
  await writer.change(
    `UPDATE folios SET ${names}revision = ?, changed_at = ? WHERE id = ?`,
    ...changed.map(([, text]) => text),
    after.revision,
    after.changedAt,
    after.id,
  )
}

/** Writes the lines that a save has changed. */
async function writeLines(writer: PatientConnection, before: Folio, after: Folio): Promise<void> {
  const old = new Map(before.lines.map((l) => [l.id, l]))
  const kept = new Set(after.lines.map((l) => l.id))
  for (const { id } of before.lines)
    if (!kept.has(id)) await writer.change('DELETE FROM lines WHERE folio_id = ? AND id = ?', after.id, id)
  const marked = LINE_MARKS.map((mark) => `${mark} = ?`).join(', ')
  const places = LINE_MARKS.map(() => '?').join(', ')
  for (const line of after.lines) {
    const was = old.get(line.id)
    if (was === line) continue
    const marks = LINE_MARKS.map((mark) => (line[mark] ? 1 : 0))
    const values = [line.source, ...marks, line.answer ?? '', after.id, line.id]
    await writer.change(
      was
        ? `UPDATE lines SET source = ?, ${marked}, answer = ? WHERE folio_id = ? AND id = ?`
        : `INSERT INTO lines (source, ${LINE_MARKS.join(', ')}, answer, folio_id, id) VALUES (?, ${places}, ?, ?, ?)`,
      ...values,
    )
  }
}

/** Numbers that a save encloses belong to the folio from now on: they are no longer tidied away. */
async function takeUp(writer: PatientConnection, before: Folio, after: Folio): Promise<void> {
  const had = new Set(before.enclosures.map((e) => e.block))
  for (const { block } of after.enclosures)
    if (!had.has(block))
      await writer.change('UPDATE blocks SET enclosed = 1 WHERE folio_id = ? AND id = ?', after.id, block)
}
