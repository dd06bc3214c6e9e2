import type { Node } from '../notation/tree'
import { NOTHING } from '../values/problemData'
import type { BareCode, Code, ProblemData, Told } from '../values/problemData'
import type { AngleUnit } from '../values/convert'
import type { Value } from '../values/types'
import type { Failure } from '../values/failure'

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

/** What an evaluation leaves behind, besides its value, with the line it belongs to. */
export interface Notes {
  /** How a bare number is read where an angle is needed: asking for it makes the line depend on it. */
  readonly angleUnit: AngleUnit
  /** Told of each term that was read in the unit of the conventions. */
  bare(node: Node, value: Value): void
  told(hint: Told, node: Node): void
  /** What was told of a term within is so no more: the rest of the term has what was missing. */
  untold(code: Code, within: Node): void
  /** A value as the conventions show it: asking for it makes the line depend on all of them. */
  written(value: Value): string
  /** The line that keeps a name, counted from 1. */
  lineOf(name: string): number | null
  /** Measured data that is kept with the folio. */
  enclosure(name: string): Value | Failure
}

/** Where the values of kept names and parameters come from. */
export interface Scope {
  lookup(name: string): Value | null
}

/** Is told of every term that is evaluated, for a working. */
export interface Watch {
  /** Told of a term before those below it; false where that has been done, so that it is evaluated. */
  due(node: Node): boolean
  /** What it came to. */
  saw(node: Node, value: Value | Failure, context: Context): void
}

/**
 * What an evaluation may look at. One class, whose objects are made anew where something is
 * different below a term: each step asks it, and objects that inherit from one another are slow to ask.
 */
export class Context implements Notes, Scope {
  private constructor(
    private readonly notes: Notes,
    private readonly scope: Scope,
    readonly budget: Budget,
    /** Inside the exponent of e, where an angle counts as its radians. */
    readonly exponent: boolean,
    /** Inside each( ): operators and functions work entry by entry. */
    readonly each: boolean,
    /** Evaluated at one point of a sweep after another: nothing dear is done for a hint. */
    readonly pointwise: boolean,
    /** Inside an index: what `last` stands for. */
    readonly last: number | null,
    /** The call that is being made, for hints about it. */
    readonly at: Node | null,
    /** Nobody watches but where a working is asked for. */
    readonly watch: Watch | null,
  ) {}

  static ofLine(notes: Notes, scope: Scope, budget: Budget, watch: Watch | null = null): Context {
    return new Context(notes, scope, budget, false, false, false, null, null, watch)
  }

  get angleUnit(): AngleUnit {
    return this.notes.angleUnit
  }

  bare(node: Node, value: Value): void {
    this.notes.bare(node, value)
  }

  hint<C extends BareCode>(code: C, node: Node): void
  hint<C extends Code>(code: C, node: Node, data: Readonly<ProblemData[C]>): void
  hint(code: Code, node: Node, data: Told['data'] = NOTHING): void {
    this.told({ code, data }, node)
  }

  told(hint: Told, node: Node): void {
    this.notes.told(hint, node)
  }

  untold(code: Code, within: Node): void {
    this.notes.untold(code, within)
  }

  written(value: Value): string {
    return this.notes.written(value)
  }

  lineOf(name: string): number | null {
    return this.notes.lineOf(name)
  }

  enclosure(name: string): Value | Failure {
    return this.notes.enclosure(name)
  }

  lookup(name: string): Value | null {
    return this.scope.lookup(name)
  }

  /** The same with some parts replaced. */
  private with({
    notes = this.notes,
    scope = this.scope,
    exponent = this.exponent,
    each = this.each,
    pointwise = this.pointwise,
    last = this.last,
    at = this.at,
  }: Changes): Context {
    return new Context(notes, scope, this.budget, exponent, each, pointwise, last, at, this.watch)
  }

  inExponent(): Context {
    return this.exponent ? this : this.with({ exponent: true })
  }

  /** Where an angle is asked for inside an exponent it is one again: e^(sin(2*60°)) is e^(sin(120°)). */
  outsideExponent(): Context {
    return this.exponent ? this.with({ exponent: false }) : this
  }

  entryByEntry(): Context {
    return this.with({ each: true })
  }

  pointByPoint(): Context {
    return this.pointwise ? this : this.with({ pointwise: true })
  }

  insideIndex(last: number): Context {
    return this.with({ last })
  }

  about(node: Node): Context {
    return this.with({ at: node })
  }

  withNames(scope: Scope): Context {
    return this.with({ scope })
  }

  /** Inside the body of a function that another line defines: hints about it belong to that line. */
  insideFunction(scope: Scope): Context {
    return this.with({ notes: new Silent(this.notes), scope, exponent: false })
  }
}

/** What can be different below a term. */
interface Changes {
  readonly notes?: Notes
  readonly scope?: Scope
  readonly exponent?: boolean
  readonly each?: boolean
  readonly pointwise?: boolean
  readonly last?: number | null
  readonly at?: Node | null
}

/** Notes of which only the use of the unit goes on to the line that calls. */
class Silent implements Notes {
  constructor(private readonly caller: Notes) {}

  get angleUnit(): AngleUnit {
    return this.caller.angleUnit
  }

  bare(): void {
    void this.caller.angleUnit
  }

  told(): void {
    // Said where the function is defined.
  }

  untold(): void {
    // Nothing was.
  }

  written(value: Value): string {
    return this.caller.written(value)
  }

  lineOf(name: string): number | null {
    return this.caller.lineOf(name)
  }

  enclosure(name: string): Value | Failure {
    return this.caller.enclosure(name)
  }
}

/** Evaluates a term: handed to what has terms below it, since the evaluator knows all of them. */
export type Evaluate = (node: Node, context: Context) => Value | Failure

/**
 * Longest time for one line, in milliseconds. The interface offers to stop a line
 * long before; this is for what nobody watches.
 */
export const TIME_LIMIT = 10_000
/** How many steps go by between two looks at the clock. */
const STEPS_PER_LOOK = 64
/** Most operations one line may take before it is stopped by itself. */
export const STEP_LIMIT = 46_875 * STEPS_PER_LOOK

/** Spends a step; false when the line has to be stopped. */
export function spend(budget: Budget): boolean {
  budget.steps -= 1
  return budget.steps % STEPS_PER_LOOK !== 0 || goesOn(budget)
}

/** The steps a line may take are so many looks: the last one is a look, too. */
function goesOn(budget: Budget): boolean {
  return budget.steps > 0 && beforeDeadline(budget)
}

/** False when a line has used up its time. */
export function beforeDeadline(budget: Budget): boolean {
  const now = Date.now()
  // The clock starts at the first look: most lines end before it.
  if (budget.deadline === 0) budget.deadline = now + budget.timeLimit
  return now < budget.deadline
}

/** False when a line that goes through many points has to be stopped by the clock; they are not counted as steps. */
export function inTime(budget: Budget, point: number): boolean {
  return point % STEPS_PER_LOOK !== 0 || beforeDeadline(budget)
}

/** Deepest nesting of function calls. */
export const DEPTH_LIMIT = 120
