import type { RowOperation } from '../linear/reduction'
import type { Node } from '../notation/tree'
import type { NumberValue } from '../values/types'
import type { Rule } from './rules'

/**
 * How what stands then follows from what stood before: equal; equal within the digits shown; with the same
 * solutions; row-equivalent.
 */
export type Relation = '=' | '≈' | '⇔' | '~'

/** The depth from which on a step is shown by itself. */
export type Depth = 'hand' | 'all'

/** A matrix as it stands in an elimination, with a rule before the last columns. */
export interface Rows {
  readonly kind: 'rows'
  readonly rows: readonly (readonly NumberValue[])[]
  /** How many columns stand left of the rule. */
  readonly left: number
  /** What was done to the rows: `(2) → (2) − 3·(1)`. */
  readonly operation: RowChange | null
}

/** An operation on rows, with exact or rounded numbers; rows count from 0. */
export type RowChange = RowOperation<NumberValue>

/** What stands after a step: the whole line as a term, an equation, or rows. */
export type Standing = { readonly kind: 'term'; readonly node: Node } | { readonly kind: 'equation'; readonly node: Node } | Rows // prettier-ignore

/** How an entry of a result comes about; counted from 1. */
export interface EntryStep {
  readonly row: number
  readonly col: number
  readonly term: Node
  readonly value: NumberValue
}

/** One rule at a time. */
export interface Step {
  readonly rule: Rule
  /** What is to be said besides the rule: the quadrant, the unit, the shapes. */
  readonly says: string | null
  readonly relation: Relation
  readonly depth: Depth
  /** Which operation of the line it belongs to, counted from 0. */
  readonly operation: number
  /** The line as it stood, and the term in it that is dealt with. */
  readonly before: Node
  readonly dealt: Node
  /** What has come in its place, by itself, and the whole then. */
  readonly made: Standing
  readonly then: Standing
  /** Entries of the result, each with how it came about. */
  readonly entries: readonly EntryStep[]
  /** Where the figures shown would lead, if that differs in the last digit. */
  readonly trap: Node | null
}
