import type { Data } from '../measured/data'
import type { Context, Evaluate } from '../operators/context'
import type { AlgebraMatrixValue, Value, VectorValue, SweepValue, NumberValue, AngleValue } from '../values/types'
import type { Failure } from '../values/failure'
import type { Loop } from './loops'
import type { MeasureRule } from './measures'
import type { Apply } from '../notation/tree'
import type { Typesetting } from '../notation/typesetting'
import type { AngleUnit } from '../values/convert'

/** The chapters of the handbook. */
export type Group =
  | 'complex'
  | 'powers and logarithms'
  | 'angles'
  | 'numbers'
  | 'electrical'
  | 'vectors'
  | 'matrices'
  | 'building'
  | 'sweeps'
  | 'polynomials'
  | 'control'
  | 'choice'

/**
 * What a parameter takes. `angle`: an angle, a bare real number read in the
 * convention's unit, or a complex number of radians. `real or angle`: a real number
 * or an angle. `scalar`: any number or an angle. `number`: any number, an angle
 * counting as its radians.
 */
export type ParameterKind =
  'number' | 'real' | 'whole' | 'angle' | 'real or angle' | 'scalar' | 'truth' | 'text' | 'any' | 'algebra' | ArrayKind

/** `array`: a vector or a matrix; `matrix`: the same, a vector counting as a column. */
export type ArrayKind = 'vector' | 'matrix' | 'array'

export interface Parameter {
  readonly name: string
  readonly kind: ParameterKind
}

/** An entry that runs, with the readout it gives in degrees, j and five digits. */
export interface Example {
  readonly entry: string
  readonly gives: string
  /** Lines that go before it. */
  readonly before?: readonly string[]
  /** Measured data that it takes up. */
  readonly enclosed?: { readonly name: string; readonly data: Data }
}

/** A function of the notation; handbook, completion, signatures and errors are made from this. */
export interface FunctionDefinition {
  readonly name: string
  readonly group: Group
  readonly parameters: readonly Parameter[]
  /** The last parameter may be repeated; of one vector it takes the entries. */
  readonly repeats?: boolean
  /** What it gives for no values at all, where that has a meaning. */
  readonly ofNothing?: Value
  /** True of a word that stands between its two parameters; elsewhere it is a name, unless it is an operator. */
  readonly infix?: true
  readonly operator?: true
  /** Called with so many arguments it is another function. */
  readonly readAs?: { readonly count: number; readonly name: string }
  /** The function that undoes it, where it is called neither inverse nor power. */
  readonly inverse?: string
  /** How it is typeset where that is not its name with its arguments in brackets. */
  readonly typesetting?: Typesetting
  /** Evaluates its arguments itself, where not all of them are, or not as they stand elsewhere. */
  readonly lazy?: (node: Apply, context: Context, evaluate: Evaluate) => Value | Failure
  /** True where its argument is an exponent of e: an angle in it counts as its radians. */
  readonly exponential?: true
  /** Why it is not called with so many arguments, where more is to be said than the signature. */
  readonly refuses?: (given: number) => Failure | null
  /** What it comes to for an angle, where that is another one. */
  readonly ofAngle?: (angle: AngleValue) => Value | Failure
  /** What it could mean of a whole square matrix: entry by entry it must be asked for. */
  readonly whole?: string
  /** The operator that it puts in a row, for values with unknowns in them. */
  readonly inARow?: '+' | '*'
  /** Over the points of a sweep of numbers, by a loop. */
  readonly loop?: Loop
  /** What a reduction of one sweep of numbers comes to, by a loop; `null` where it has to go point by point. */
  readonly overPoints?: (sweep: SweepValue) => NumberValue | null
  /** What its results are drawn as, where they are no arrows: poles are crosses, zeros rings. */
  readonly marks?: 'cross' | 'ring'
  /** True where it takes a sweep as a whole instead of point by point. */
  readonly sweeps?: boolean
  /** How many of the last parameters may be left out. */
  readonly optional?: number
  /** Common second spellings. */
  readonly spellings?: readonly string[]
  /** One sentence for the handbook and the completion. */
  readonly summary: string
  readonly examples: readonly Example[]
  /** What it comes to for a vector as a whole, where that is not its outcome for every entry. */
  readonly ofVector?: (v: VectorValue) => Value | Failure
  /**
   * What its result measures, of values with units; where this is left out, it takes plain numbers only.
   */
  readonly measures?: MeasureRule
  /** It takes a ratio of amplitudes: one of powers is hinted at. */
  readonly amplitudes?: true
  /** What it does with values with units, where that is not what it does with their numbers; `null` where it is. */
  readonly ofQuantities?: (args: readonly Value[]) => Value | Failure | null
  /** The unit of the conventions in which it leaves a bare number as it is. */
  readonly idleIn?: AngleUnit
  /** What it does with matrices that have unknowns in them. */
  readonly algebra?: (args: readonly AlgebraMatrixValue[], context: Context) => Value | Failure
  readonly apply: (args: readonly Value[], context: Context) => Value | Failure
}

/** `log(x, base)`, `par(a, b, …)`: how the function is called. */
export function signature(definition: FunctionDefinition): string {
  const names = definition.parameters.map((p) => p.name)
  if (definition.infix) return names.join(` ${definition.name} `)
  if (definition.repeats) names.push('…')
  return `${definition.name}(${names.join(', ')})`
}
