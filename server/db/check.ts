import { checkSchema } from '../../shared/copies'
import type { Check } from '../../shared/copies'
import { newestWhole } from './copyFiles'
import type { Database } from './database'
import type { Facts } from './facts'
import { titleOf } from './folios'
import type { Folios } from './folios'
import { tryJson } from './json'

const WEEK = 7 * 24 * 3_600_000
/** Titles that are named in one sentence. */
const NAMED = 8
const FACT = 'check'

/** Looks through the data file: is it whole, and if not, what can be read of it? */
export class Checks {
  private running: Promise<Check> | null = null

  constructor(
    private readonly database: Database,
    private readonly folios: Folios,
    private readonly facts: Facts,
    private readonly now: () => number = Date.now,
  ) {}

  /** The last look there was; `null` where there was none. */
  async last(): Promise<Check | null> {
    return tryJson(await this.facts.get(FACT), checkSchema)
  }

  async isDue(): Promise<boolean> {
    const last = await this.last()
    return last === null || last.at > this.now() || this.now() - last.at >= WEEK
  }

  /** One look; whoever asks meanwhile gets the same. */
  run(): Promise<Check> {
    this.running ??= this.look().finally(() => (this.running = null))
    return this.running
  }

  private async look(): Promise<Check> {
    const moved = this.database.moved()
    const faults = await this.faults()
    const unreadable = await this.unreadable()
    const sentences: string[] = []
    if (moved !== null) sentences.push(moved)
    if (faults.length > 0) sentences.push(`The data file is damaged: ${faults[0] ?? ''}`)
    if (unreadable.length > 0) sentences.push(unreadableSentence(unreadable))
    else if (faults.length > 0) sentences.push('All folios can still be read: save them all as a file.')
    if (faults.length + unreadable.length > 0) sentences.push(await this.remedy())
    const check: Check = { at: this.now(), whole: sentences.length === 0, sentences }
    // Where it cannot be kept it is told all the same.
    await this.facts.set(FACT, JSON.stringify(check)).catch(() => undefined)
    return check
  }

  private async faults(): Promise<string[]> {
    try {
      const found = await this.database.rows<{ integrity_check: string }>('PRAGMA integrity_check(5)')
      const strays = await this.database.rows<{ table: string }>('PRAGMA foreign_key_check')
      return [
        ...found.map((row) => row.integrity_check).filter((text) => text !== 'ok'),
        ...strays.slice(0, 1).map((row) => `rows of ${row.table} belong to no folio.`),
      ]
    } catch (error) {
      return [error instanceof Error ? error.message : String(error)]
    }
  }

  private async unreadable(): Promise<string[]> {
    const titles: string[] = []
    const all = await this.database
      .rows<{ id: string; title: string }>('SELECT id, title FROM folios')
      .catch(() => null)
    if (!all) return ['the list of folios']
    for (const { id, title } of all) {
      try {
        await this.folios.open(id)
      } catch {
        titles.push(`“${titleOf(title)}”`)
      }
    }
    return titles
  }

  private async remedy(): Promise<string> {
    const whole = await newestWhole(this.database.file)
    return whole === null
      ? 'There is no whole copy beside it. Save what can be read as a file.'
      : `The newest copy that is whole is ${whole}: its folios can be brought back from Earlier copies.`
  }
}

function unreadableSentence(titles: readonly string[]): string {
  const more = titles.length > NAMED ? ` and ${titles.length - NAMED} more` : ''
  return `What cannot be read as a whole: ${titles.slice(0, NAMED).join(', ')}${more}. The other folios can be read.`
}
