import { copyFileSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { BroughtBack, CopiedFolio, EarlierCopy } from '../../shared/copies'
import { copyFiles, lookInto, makeCopy } from './copyFiles'
import type { CopyFile, StillFile } from './copyFiles'
import { openDatabase } from './database'
import type { Database } from './database'
import { titleOf } from './folios'
import { transplant } from './transplant'

const DAY = 24 * 3_600_000

/** By this two data files are told apart without reading all of them. */
const SIGNATURE = `SELECT count(*) || ' ' || coalesce(sum(revision), 0) || ' ' || coalesce(max(changed_at), '')
  || ' ' || count(binned_at) AS signature FROM folios`

interface FolioThere {
  readonly id: string
  readonly title: string
  readonly changed_at: string
  readonly binned_at: string | null
  readonly lines: number
  readonly revision: number
}

/** The copies of the data file: made by the day, listed, looked into, and their folios brought back. */
export class Copies {
  /** How many folios are in a copy: it never changes. */
  private readonly counts = new Map<string, number | null>()

  constructor(
    private readonly database: Database,
    private readonly now: () => number = Date.now,
  ) {}

  private get files(): CopyFile[] {
    return copyFiles(this.database.file)
  }

  async list(): Promise<EarlierCopy[]> {
    return Promise.all(
      this.files.map(async (copy) => {
        const { name, kind, made, bytes } = copy
        if (!this.counts.has(name)) this.counts.set(name, await countIn(copy))
        return { name, kind, made, bytes, folios: this.counts.get(name) ?? null }
      }),
    )
  }

  /** What is in a copy, as the shelf would show it; `null` where there is no such copy. Throws where it cannot be read. */
  async look(name: string): Promise<CopiedFolio[] | null> {
    const copy = this.files.find((c) => c.name === name)
    if (!copy) return null
    const there = await lookInto(copy.path, foliosIn)
    const here = await this.database.rows<{ id: string; changed_at: string }>('SELECT id, changed_at FROM folios')
    const times = new Map(here.map((row) => [row.id, row.changed_at]))
    return there.map((row) => {
      const time = times.get(row.id)
      return {
        id: row.id,
        title: titleOf(row.title),
        changedAt: String(row.changed_at),
        lines: row.lines,
        binned: row.binned_at !== null,
        here: time === undefined ? 'gone' : time === row.changed_at ? 'same' : 'other',
      }
    })
  }

  /** Brings folios of a copy back, each as a new one beside what is there; all of them where none is named. */
  async bringBack(name: string, ids: readonly string[] | null): Promise<BroughtBack | null> {
    const copy = this.files.find((c) => c.name === name)
    if (!copy) return null
    // An older copy is upgraded first: not itself, but another one of it.
    const folder = mkdtempSync(join(tmpdir(), 'ornate-phasor-opened-'))
    try {
      const file = join(folder, 'folios.sqlite')
      copyFileSync(copy.path, file)
      const source = await openDatabase(file, { copies: false })
      try {
        return await this.takeFrom(source, copy, ids)
      } finally {
        await source.close()
      }
    } finally {
      rmSync(folder, { recursive: true, force: true })
    }
  }

  private async takeFrom(source: Database, copy: CopyFile, ids: readonly string[] | null): Promise<BroughtBack> {
    const all = await source.rows<{ id: string; title: string }>('SELECT id, title FROM folios ORDER BY changed_at')
    const wanted = ids === null ? all : all.filter((folio) => ids.includes(folio.id))
    const folios: { id: string; title: string }[] = []
    const left: string[] = []
    const remark = `(copy of ${new Date(copy.made).toISOString().slice(0, 10)})`
    for (const { id, title } of wanted) {
      try {
        const now = new Date(this.now()).toISOString()
        const brought = await transplant(source, this.database, id, remark, now)
        if (brought) folios.push(brought)
      } catch (error) {
        // What cannot be read there is told; a full disk here stops it all.
        if (!/SQLITE_(CORRUPT|NOTADB|ERROR|CONSTRAINT|MISMATCH)/.test(String(error))) throw error
        left.push(titleOf(title))
      }
    }
    return { folios, left }
  }

  /** Makes the copy of the day where it is due and something has changed; gives back its path. */
  async makeDaily(): Promise<string | null> {
    const [newest] = this.files
    const now = this.now()
    // A copy from the future is one of a clock that was wrong: it does not hold up the next one.
    if (newest && newest.made <= now && now - newest.made < DAY) return null
    const [here] = await this.database.rows<{ signature: string }>(SIGNATURE)
    if (newest && (await signatureOf(newest)) === here?.signature) return null
    return makeCopy(this.database.sequelize, this.database.file, 'daily', now)
  }
}

async function signatureOf(copy: CopyFile): Promise<string | null> {
  try {
    const [row] = await lookInto(copy.path, (file) => file.rows<{ signature: string }>(SIGNATURE))
    return row?.signature ?? null
  } catch {
    return null
  }
}

async function countIn(copy: CopyFile): Promise<number | null> {
  try {
    const [row] = await lookInto(copy.path, (file) =>
      file.rows<{ folios: number }>('SELECT count(*) AS folios FROM folios'),
    )
    return row?.folios ?? null
  } catch {
    return null
  }
}

function foliosIn(file: StillFile): Promise<FolioThere[]> {
  return file.rows<FolioThere>(
    `SELECT id, title, changed_at, binned_at, revision,
      CASE WHEN json_valid(line_order) THEN json_array_length(line_order) ELSE 0 END AS lines
      FROM folios ORDER BY changed_at DESC`,
  )
}
