import type { Conventions } from '../format/conventions'

/** Under which conventions, and for how long, a folio is reckoned. */
export interface EvaluationSettings
  extends Partial<Omit<Conventions, 'angle' | 'letter'>>, Pick<Conventions, 'angle' | 'letter'> {
  /** Longest time for one line, in milliseconds; see `context.ts` for the usual one. */
  readonly timeLimit?: number
  /**
   * Time for a line before the others have had theirs, in milliseconds: one that takes longer is
   * postponed until it is given its turn. Without it every line has its whole time at once.
   */
  readonly firstTurn?: number
  /** Told which line is reckoned, where several are. */
  readonly onLine?: (id: string) => void
  /** Told now and then how far a long line has come. */
  readonly report?: (done: number, total: number) => void
}
