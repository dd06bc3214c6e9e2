import type { Node } from '../notation/tree'
import type { Value } from '../values/value'

/** Degrees or radians: how a bare number is read where an angle is needed. */
export type AngleUnit = 'deg' | 'rad'

/** What is left of the steps one line may take. */
export interface Budget {
  steps: number
  depth: number
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
}

/** Most operations one line may take before it is stopped. */
export const STEP_LIMIT = 200_000
/** Deepest nesting of function calls. */
export const DEPTH_LIMIT = 120

export function freshBudget(): Budget {
  return { steps: STEP_LIMIT, depth: DEPTH_LIMIT }
}

/**
 * The same context with some parts replaced. The rest is inherited, not copied:
 * reading `unit` is noted by the line it belongs to.
 */
export function derive(context: Context, changes: Partial<Context>): Context {
  return Object.assign(Object.create(context) as Context, changes)
}
