import { Op } from 'sequelize'
import type { Transaction } from 'sequelize'
import { difference } from '../../shared/operations'
import type { FolioState } from '../../shared/operations'
import type { Database } from './database'
import { CHECKPOINT_EVERY, Journal, previousOf, replay } from './journal'
import type { RevisionRow } from './models'

/**
 * Everything of the last thirty days is kept; older states one an hour, still
 * older ones one a day. How old a state is goes by the states after it, not by
 * the clock of the day: one that is wrong by years would take them all away.
 */
const HOUR = 3_600_000
const DAY = 24 * HOUR
export const KEPT_WHOLE = 30 * DAY
export const KEPT_BY_HOUR = 90 * DAY
/** Revisions looked at in one step, so that no save waits long. */
const STEP = 400

/** What a step did. */
export interface Tidied {
  readonly removed: number
  /** True where there may be more to do. */
  readonly more: boolean
}

/** A longer time in which nothing was saved counts as so long: a holiday, or a clock that jumped. */
const GAP_MOST = 7 * DAY

/** How old states are, by the days on which anything was saved. */
export class Ages {
  private readonly ages = new Map<string, number>()
  /** States of days before this one may be thinned out; empty where none may. */
  readonly cutoff: string

  /** Days as `2026-11-26`, in any order. */
  constructor(days: readonly string[]) {
    const sorted = [...new Set(days)].filter((day) => !Number.isNaN(Date.parse(day))).sort()
    let [age, next, cutoff] = [0, sorted.at(-1) ?? '', '']
    for (const day of sorted.toReversed()) {
      age += Math.min(Date.parse(next) - Date.parse(day), GAP_MOST)
      this.ages.set(day, age)
      if (age > KEPT_WHOLE && cutoff === '') cutoff = next
      next = day
    }
    this.cutoff = cutoff
  }

  of(savedAt: string): number {
    return this.ages.get(savedAt.slice(0, 10)) ?? 0
  }
}

/** Where a state of some age belongs among those of which one is kept; `null` where all are. */
export function bucketOf(savedAt: string, age: number): string | null {
  const time = Date.parse(savedAt)
  if (Number.isNaN(time) || age <= KEPT_WHOLE) return null
  return age <= KEPT_BY_HOUR ? `hour ${Math.floor(time / HOUR)}` : `day ${Math.floor(time / DAY)}`
}

/** A folio whose journal has an old part, and its last revision in it. */
interface Candidate {
  readonly id: string
  readonly top: number
}

/** Thins out the old part of the journal, in small steps. */
export class Tidy {
  private readonly journal: Journal
  /** The folios that are left in this round, looked up once; `null` between rounds. */
  private left: Candidate[] | null = null
  /** How far the first of them has been gone through. */
  private reached = -1

  private ages = new Ages([])

  constructor(private readonly database: Database) {
    this.journal = new Journal(database)
  }

  private async candidates(): Promise<Candidate[]> {
    const days = await this.database.rows<{ day: string }>('SELECT DISTINCT substr(saved_at, 1, 10) AS day FROM revisions') // prettier-ignore
    this.ages = new Ages(days.map((row) => String(row.day)))
    return this.database.rows<Candidate>(
      `SELECT folio_id AS id, max(revision) AS top FROM revisions
        WHERE saved_at < ? GROUP BY folio_id HAVING count(*) > 1`,
      [this.ages.cutoff],
    )
  }

  /** One step: one folio, some revisions. */
  async step(): Promise<Tidied> {
    this.left ??= await this.candidates()
    const [next] = this.left
    if (!next) {
      this.left = null
      return { removed: 0, more: false }
    }
    const removed = await this.database.write((transaction) => this.thin(next.id, next.top, transaction))
    if (this.reached >= next.top) {
      this.left.shift()
      this.reached = -1
    }
    return { removed, more: true }
  }

  /** All steps there are; between two of them others have their turn. */
  async run(pause: () => Promise<void> = async () => undefined): Promise<number> {
    let removed = 0
    for (let step = await this.step(); step.more; step = await this.step()) {
      removed += step.removed
      await pause()
    }
    return removed
  }

  private async thin(folioId: string, top: number, transaction: Transaction): Promise<number> {
    const { models } = this.database
    const newest = await models.revisions.max<number, RevisionRow>('revision', { where: { folioId }, transaction })
    const rows = await models.revisions.findAll({
      where: { folioId, revision: { [Op.gt]: this.reached, [Op.lte]: top } },
      order: [['revision', 'ASC']],
      limit: STEP,
      transaction,
    })
    const whole = rows.length < STEP
    const groups = this.groups(rows, newest)
    // The last group of a step may go on in the next one.
    const last = groups.at(-1)
    const now = whole || groups.length < 2 || !last ? groups : groups.slice(0, -1)
    this.reached = whole ? top : (now.at(-1)?.at(-1)?.revision ?? top)
    if (now.every((group) => group.length === 1)) return 0
    return this.merge(folioId, now, transaction)
  }

  /** Runs of revisions of which only the last is kept. */
  private groups(rows: readonly RevisionRow[], newest: number): RevisionRow[][] {
    const groups: RevisionRow[][] = []
    let open: string | null = null
    for (const row of rows) {
      const bucket = row.revision === newest ? null : bucketOf(row.savedAt, this.ages.of(row.savedAt))
      const group = groups.at(-1)
      if (group && bucket !== null && bucket === open) group.push(row)
      else groups.push([row])
      // A named state is kept, whatever comes after it in the same hour.
      open = row.name === null || row.name === undefined ? bucket : null
    }
    return groups
  }

  private async merge(
    folioId: string,
    groups: readonly (readonly RevisionRow[])[],
    transaction: Transaction,
  ): Promise<number> {
    const { models } = this.database
    const first = groups[0]?.[0]
    if (!first) return 0
    let state = await this.journal.stateAt(folioId, previousOf(first), transaction)
    // What cannot be read as a whole is left as it is.
    if (!state) return 0
    let [removed, sinceCheckpoint] = [0, 0]
    for (const group of groups) {
      const [head, kept] = [group[0], group.at(-1)]
      const before: FolioState = state
      const after = head && replay(before, previousOf(head), group)
      if (!head || !kept || !after) return removed
      state = after.state
      sinceCheckpoint += 1
      if (group.length > 1) {
        const between = { [Op.gte]: head.revision, [Op.lt]: kept.revision }
        await models.revisions.destroy({ where: { folioId, revision: between }, transaction })
        await models.checkpoints.destroy({ where: { folioId, revision: between }, transaction })
        await models.revisions.update(
          {
            operations: JSON.stringify(difference(before, state)),
            buildsOn: previousOf(head),
            // Made of several saves: none of their keys stands for it.
            saveKey: null,
          },
          { where: { folioId, revision: kept.revision }, transaction },
        )
        removed += group.length - 1
      }
      const checkpoint = { folioId, revision: kept.revision }
      if (await models.checkpoints.count({ where: checkpoint, transaction })) sinceCheckpoint = 0
      else if (sinceCheckpoint >= CHECKPOINT_EVERY) {
        sinceCheckpoint = 0
        await models.checkpoints.create(
          { ...checkpoint, state: JSON.stringify(state), savedAt: kept.savedAt },
          { transaction },
        )
      }
    }
    return removed
  }

  /**
   * Removes numbers that no folio has taken up within a week, whole blocks and
   * parts of some; gives back how many bytes they were.
   */
  async strayNumbers(now = Date.now()): Promise<number> {
    const before = new Date(now - STRAY_FOR).toISOString()
    const [found] = await this.database.rows<{ bytes: number | null }>(
      `SELECT (SELECT coalesce(sum(length(numbers)), 0) FROM blocks WHERE enclosed = 0 AND saved_at < ?)
        + (SELECT coalesce(sum(length(numbers)), 0) FROM block_parts WHERE saved_at < ?) AS bytes`,
      [before, before],
    )
    const bytes = found?.bytes ?? 0
    if (bytes > 0)
      await this.database.writePlain(async (writer) => {
        await writer.change('DELETE FROM blocks WHERE enclosed = 0 AND saved_at < ?', before)
        await writer.change('DELETE FROM block_parts WHERE saved_at < ?', before)
      })
    return bytes
  }

  /** Gives space back to the disk where a good part of the file is free. */
  async vacuumWhereItPays(): Promise<boolean> {
    const [free] = await this.database.rows<{ freelist_count: number }>('PRAGMA freelist_count')
    const [all] = await this.database.rows<{ page_count: number }>('PRAGMA page_count')
    const [size] = await this.database.rows<{ page_size: number }>('PRAGMA page_size')
    const pages = free?.freelist_count ?? 0
    if (pages * (size?.page_size ?? 4096) < VACUUM_FROM || pages < VACUUM_SHARE * (all?.page_count ?? 0)) return false
    await this.database.run('VACUUM')
    return true
  }
}

/** How long numbers wait for the operation that encloses them. */
const STRAY_FOR = 7 * DAY

/** Bytes, and the share of the file, that must be free. */
const VACUUM_FROM = 8 * 1024 * 1024
const VACUUM_SHARE = 0.25
