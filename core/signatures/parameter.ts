import type { Node } from '../notation/tree'
import type { Context } from '../operators/context'
import type { AngleUnit } from '../values/convert'
import type { Failure } from '../values/failure'
import type { Needed } from '../values/problemData'
import type { Value } from '../values/types'

/** Where an argument is read: the function that asks, its term, and what an evaluation may look at. */
export interface Reading {
  readonly name: string
  /** The unit of the conventions in which the function leaves a bare number as it is. */
  readonly idleIn?: AngleUnit
}

/**
 * What a function takes at one place: `T` is what its rule is given. The constructors stand in `take.ts`; a definition
 * that is made by `define` gets the types of its arguments from them.
 */
export interface Parameter<T extends Value = Value> {
  readonly name: string
  /** What it asks for, in the words of sentences, handbook and completion. */
  readonly needs: Needed
  /** True where a vector or a matrix comes to it whole; else the function runs over the entries. */
  readonly whole: boolean
  /** True where it takes values with unknowns in them. */
  readonly unknowns: boolean
  /** True where it may be left out. */
  readonly optional: boolean
  /** The argument as the rule takes it; `null` where it is no such value, or the refusal that says more. */
  readonly read: (value: Value, node: Node, context: Context, of: Reading) => T | Failure | null
}

/** What a parameter gives the rule. */
export type Taken<P> = P extends { readonly optional: true; readonly read: (...of: never) => infer R }
  ? Exclude<R, Failure | null> | undefined
  : P extends { readonly read: (...of: never) => infer R }
    ? Exclude<R, Failure | null>
    : never

/** What the parameters of a function give its rule: one for each, or, where they repeat, any number of the last. */
export type ArgumentsOf<P extends readonly Parameter[], Repeats> = Repeats extends true
  ? readonly Taken<P[number]>[]
  : { readonly [K in keyof P]: Taken<P[K]> }
