import type { Node } from '../notation/tree'
import type { Context, Evaluate } from '../operators/context'
import type { Value } from '../values/types'
import type { LinearForm, Nonlinear } from './form'

/** The equations between `sought` and `determine`, as `determine` gets them. */

export interface Equation {
  /** Counted from 1. */
  readonly line: number
  readonly source: string
  /** Closed terms: the only names in them are sought. */
  readonly left: Node
  readonly right: Node
  /** left − right, where that is linear. */
  readonly form: LinearForm | Nonlinear
  /** The sought names in it, and the kept names that it reads. */
  readonly names: readonly string[]
  readonly uses: readonly string[]
}

export interface EquationGroup {
  /** Each with the line that declares it, counted from 1. */
  readonly sought: readonly { readonly name: string; readonly line: number }[]
  readonly equations: readonly Equation[]
  /** The lines of equations in error. */
  readonly broken: readonly number[]
}

/** Where a solution is looked for. */
export interface LookedFor {
  readonly near: ReadonlyMap<string, Value>
  readonly between: ReadonlyMap<string, readonly [Value, Value]>
}

/** What `determine` has to do. */
export interface Task {
  readonly group: EquationGroup
  readonly looked: LookedFor
  readonly context: Context
  readonly evaluate: Evaluate
  /** The word itself: what hints about the whole are about. */
  readonly at: Node
}
