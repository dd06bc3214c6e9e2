import { RunsReckoner } from '#core/views/runs'
import type { RunsAccount, RunsTask } from '#core/views/runs'
import type { Conventions } from '#core/format/conventions'
import type { Enclosed } from './evaluator'

/** Longest time for one line under one set, in milliseconds: nobody stops a line of a set by hand. */
const LINE_LIMIT = 4_000

/** The runs as their own worker holds them: the ledger never waits for them. */
export class RunsService {
  private readonly reckoner = new RunsReckoner()
  private names: readonly string[] = []

  /** All measured data of the folio. */
  enclose(enclosed: readonly (readonly [string, Enclosed])[]): void {
    const present = enclosed.map(([name]) => name)
    for (const name of this.names) if (!present.includes(name)) this.reckoner.unenclose(name)
    for (const [name, { block, data, lost }] of enclosed) this.reckoner.enclose(name, block, data, lost)
    this.names = present
  }

  reckon(task: RunsTask, conventions: Conventions): RunsAccount {
    return this.reckoner.reckon(task, { ...conventions, timeLimit: LINE_LIMIT })
  }
}
