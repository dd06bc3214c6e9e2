import type { Value } from '../values/types'
import type { Problem } from './problem'
import type { Node } from './tree'

/** What a line above keeps under a name; no value where that line is in error. */
export interface Kept {
  /** The line, counted from 0. */
  readonly line: number
  readonly kind: 'value' | 'function'
  readonly value: Value | null
  /** Set where the value comes only once the equations of a group are solved. */
  readonly open?: OpenName
}

/** A name that is sought, or that stands for a term with sought names in it. */
export type OpenName =
  | { readonly kind: 'sought' }
  | { readonly kind: 'term'; readonly term: Node }
  | { readonly kind: 'function'; readonly parameters: readonly string[]; readonly term: Node }
  /** Something that no equation can use: a check, a choice of lines. */
  | { readonly kind: 'later' }
  /** Nothing below solves the equations. */
  | { readonly kind: 'never' }

/** What binding has to know about the names round a line. */
export interface Names {
  /** The imaginary letter of the conventions. */
  readonly letter: 'i' | 'j'
  /** What the name is at this line, from the lines above it. */
  above(name: string): Kept | null
  /** The number of the next line below that defines the name. */
  below(name: string): number | null
  /** True where any line of the folio keeps the name. */
  anywhere(name: string): boolean
  /** The standard spelling of a function of the registry; `null` if there is none. */
  builtIn(name: string, args?: number): string | null
  /** The function that undoes one of the registry; `null` where none is declared. */
  inverseOf(name: string): string | null
  /** Names that could have been meant, nearest first; with `only`, those of functions. */
  near(name: string, only: 'function' | null): readonly string[]
}

export interface Bound {
  readonly body: Node | null
  /** The right side of a check. */
  readonly right: Node | null
  /** The tolerance of a check. */
  readonly within: Node | null
  readonly problem: Problem | null
  readonly hints: readonly Problem[]
  /** The kept names that the line reads, from the last to the first. */
  readonly used: Used | null
}

/** A kept name that a line reads, with what it is (`null` where it is nothing yet), and the one read before it. */
export interface Used {
  readonly name: string
  readonly kept: Kept | null
  readonly before: Used | null
}

export class BoundLine implements Bound {
  constructor(
    readonly body: Node | null,
    readonly right: Node | null,
    readonly within: Node | null,
    readonly problem: Problem | null,
    readonly hints: readonly Problem[],
    readonly used: Used | null,
  ) {}
}

export class UsedName implements Used {
  constructor(
    readonly name: string,
    readonly kept: Kept | null,
    readonly before: Used | null,
  ) {}
}

/** The kept names that a line reads, in the order of the text. */
export function usedNames(bound: Bound): readonly string[] {
  const names: string[] = []
  for (let used = bound.used; used !== null; used = used.before) names.push(used.name)
  return names.reverse()
}
