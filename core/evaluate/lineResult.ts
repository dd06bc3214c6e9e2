import type { Place } from '../notation/groups'
import type { Parsed } from '../notation/parser'
import type { Problem } from '../notation/problem'
import type { Evaluated } from './line'

/** A line as the evaluator gets it. */
export interface SourceLine {
  readonly id: string
  readonly source: string
}

/** What the evaluator knows of a line. */
export interface LineResult {
  readonly id: string
  readonly parsed: Parsed
  readonly evaluated: Evaluated
  /** A hint that the name is defined above already. */
  readonly redefined: Problem | null
  /** A hint that the name changes how lines below are read (`33n` once `n` is kept). */
  readonly changesReading: Problem | null
  /** What it is in its group of equations; `null` outside of them. */
  readonly place: Place | null
}
