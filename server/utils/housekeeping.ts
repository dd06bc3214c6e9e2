import type { Checks } from '../db/check'
import type { Copies } from '../db/copies'
import { NoRoom } from '../db/copyFiles'
import type { Database } from '../db/database'
import { Tidy } from '../db/tidy'

/** What is done by itself, soon after the start and then by the hour: copies, checks, old states. */

const FIRST = 60_000
const EVERY = 3_600_000
const TIDY_EVERY = 24 * 3_600_000
/** It goes on while nobody has written for so long, and rests between its steps. */
const PAUSE = 200
const QUIET = 10_000

export class Housekeeping {
  /** What keeps it from being done; empty where nothing does. */
  trouble: string | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private ended = false
  private tidiedAt = 0

  constructor(
    private readonly database: Database,
    private readonly copies: Copies,
    private readonly checks: Checks,
    first = FIRST,
    private readonly still = QUIET,
  ) {
    this.wait(first)
  }

  private wait(time: number): void {
    this.timer = setTimeout(() => void this.round(), time)
    this.timer.unref()
  }

  end(): void {
    this.ended = true
    clearTimeout(this.timer)
  }

  /** Everything that is due; what fails is told and tried again in an hour. */
  async round(): Promise<void> {
    await this.quiet(this.still, EVERY)
    await this.attempt('No copy could be made', () => this.copy())
    await this.attempt('The data file could not be checked', () => this.check())
    await this.attempt('The journal could not be tidied', () => this.tidy())
    clearTimeout(this.timer)
    if (!this.ended) this.wait(EVERY)
  }

  private async attempt(what: string, action: () => Promise<void>): Promise<void> {
    if (this.ended) return
    try {
      await action()
    } catch (error) {
      say(process.stderr, `${what}: ${error instanceof Error ? error.message : String(error)}`)
    }
  }

  private async copy(): Promise<void> {
    try {
      const made = await this.copies.makeDaily()
      this.trouble = null
      if (made !== null) say(process.stdout, `A copy of the data file was made: ${made}`)
    } catch (error) {
      this.trouble =
        error instanceof NoRoom
          ? 'There is no room on the disk for the copy of the day: earlier copies are kept as they are.'
          : 'The copy of the day could not be made; the cause stands in the server’s log.'
      throw error
    }
  }

  private async check(): Promise<void> {
    if (!(await this.checks.isDue())) return
    const { whole, sentences } = await this.checks.run()
    if (!whole) say(process.stderr, sentences.join('\n'))
  }

  private async tidy(): Promise<void> {
    if (Date.now() - this.tidiedAt < TIDY_EVERY) return
    this.tidiedAt = Date.now()
    const work = new Tidy(this.database)
    const removed = await work.run(() => this.quiet(PAUSE, EVERY))
    const numbers = await work.strayNumbers()
    await this.quiet(this.still, EVERY)
    const vacuumed = this.ended ? false : await work.vacuumWhereItPays()
    if (removed + numbers > 0 || vacuumed)
      say(
        process.stdout,
        `Tidied: ${removed} old states, ${numbers} bytes of numbers that nothing refers to${vacuumed ? ', space given back' : ''}.`,
      )
  }

  /** Waits until nobody has written for a while, but not for ever. */
  private async quiet(time: number, most: number): Promise<void> {
    const began = Date.now()
    await rest(Math.min(time, PAUSE))
    while (!this.ended && Date.now() - this.database.writtenAt < time && Date.now() - began < most) await rest(time)
  }
}

function rest(time: number): Promise<void> {
  return new Promise((done) => setTimeout(done, time).unref())
}

function say(stream: NodeJS.WriteStream, line: string): void {
  stream.write(`${line}\n`)
}
