import type { Node } from '../notation/tree'
import type { Failure, Value } from '../values/value'

/** Degrees or radians: how a bare number is read where an angle is needed. */
export type AngleUnit = 'deg' | 'rad'

/** What is left of the steps one line may take. */
export interface Budget {
  steps: number
  depth: number
  /** When the line is stopped, in milliseconds since 1970 (0: not set yet): a few steps on huge numbers can take long, too. */
  deadline: number
  readonly timeLimit: number
  /** Told now and then how far a long calculation has come. */
  readonly report?: ((done: number, total: number) => void) | undefined
}

/** What an evaluation may look at and what it leaves behind, besides its value. */
export interface Context {
  readonly unit: AngleUnit
  readonly budget: Budget
  /** Values of kept names and parameters. */
  readonly lookup: (name: string) => Value | null
  /** Told of each term that was read in the unit of the conventions. */
  readonly bare: (node: Node, value: Value) => void
  readonly hint: (code: string, node: Node, data?: Readonly<Record<string, string | number>>) => void
  /** Inside the exponent of e, where an angle counts as its radians. */
  readonly exponent: boolean
  /** Inside each( ): operators and functions work entry by entry. */
  readonly each?: boolean
  /** Inside an index: what `last` stands for. */
  readonly last?: number
  /** Evaluated at one point of a sweep after another: nothing dear is done for a hint. */
  readonly pointwise?: boolean
  /** The line that keeps a name, counted from 1. */
  readonly lineOf?: (name: string) => number | null
  /** The call that is being made, for hints about it. */
  readonly at?: Node
}

/** Evaluates a term: handed to what has terms below it, since the evaluator knows all of them. */
export type Evaluate = (node: Node, context: Context) => Value | Failure

/** Most operations one line may take before it is stopped by itself. */
export const STEP_LIMIT = 3_000_000
/**
 * Longest time for one line, in milliseconds. The interface offers to stop a line
 * long before; this is for what nobody watches.
 */
export const TIME_LIMIT = 10_000
/** How many steps go by between two looks at the clock. */
const STEPS_PER_LOOK = 64

/** Spends a step; false when the line has to be stopped. */
export function spend(budget: Budget): boolean {
  budget.steps -= 1
  if (budget.steps < 0) return false
  if (budget.steps % STEPS_PER_LOOK !== 0) return true
  const now = Date.now()
  // The clock starts at the first look: most lines end before it.
  if (budget.deadline === 0) budget.deadline = now + budget.timeLimit
  return now < budget.deadline
}

/** False when a line that goes through many points has to be stopped by the clock; they are not counted as steps. */
export function inTime(budget: Budget, point: number): boolean {
  if (point % STEPS_PER_LOOK !== 0) return true
  const now = Date.now()
  if (budget.deadline === 0) budget.deadline = now + budget.timeLimit
  return now < budget.deadline
}

/** Deepest nesting of function calls. */
export const DEPTH_LIMIT = 120

export function freshBudget(timeLimit: number = TIME_LIMIT, report?: Budget['report']): Budget {
  return { steps: STEP_LIMIT, depth: DEPTH_LIMIT, deadline: 0, timeLimit, report }
}

/**
 * The same context with some parts replaced. The rest is inherited, not copied:
 * reading `unit` is noted by the line it belongs to.
 */
export function derive(context: Context, changes: Partial<Context>): Context {
  return Object.assign(Object.create(context) as Context, changes)
}
