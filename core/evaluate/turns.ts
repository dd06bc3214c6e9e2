import { problem } from '../notation/problem'
import { TIME_LIMIT } from '../operators/context'
import type { Evaluated } from './line'
import type { EvaluationSettings } from './settings'

/** First turns of one update, all together, in milliseconds: once they are spent, later lines have short ones. */
const FIRST_TURNS = 800
const SHORTEST_TURN = 8

export const NOBODY: ReadonlySet<string> = new Set()

/** In what order lines have their time: each a first turn, and those that need more wait for a second one. */
export class Turns {
  /** Lines that took longer than their first turn, in the order in which they wait. */
  private readonly waiting = new Set<string>()
  /** Lines that have their whole time in this update. */
  private granted = NOBODY
  /** What is left of the first turns of this update, in milliseconds. */
  private left = 0

  begin(granted: ReadonlySet<string>): void {
    this.granted = granted
    this.left = FIRST_TURNS
  }

  /** Lines that wait for their turn. */
  get postponed(): readonly string[] {
    return [...this.waiting]
  }

  isGranted(id: string): boolean {
    return this.granted.has(id)
  }

  forget(id: string): void {
    this.waiting.delete(id)
  }

  /** Reckons a line within its turn, as many milliseconds as it is given; one that takes longer is postponed. */
  give(id: string, settings: EvaluationSettings, reckon: (limit: number | null) => Evaluated): Evaluated {
    const { firstTurn, timeLimit = TIME_LIMIT } = settings
    this.waiting.delete(id)
    if (firstTurn === undefined || this.granted.has(id)) return reckon(null)
    const turn = Math.min(timeLimit, Math.max(SHORTEST_TURN, Math.min(firstTurn, this.left)))
    const began = Date.now()
    const evaluated = reckon(turn)
    const took = Date.now() - began
    if (took > SHORTEST_TURN) this.left -= took
    if (evaluated.problem?.code !== 'too-long' || turn >= timeLimit || took < turn) return evaluated
    this.waiting.add(id)
    return { ...evaluated, problem: problem('postponed', evaluated.problem) }
  }
}
