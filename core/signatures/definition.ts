import type { Data } from '../measured/data'
import type { Context, Evaluate } from '../operators/context'
import type { Measures } from '../quantities/shape'
import type { Numbers } from '../values/sweepProgram'
import type {
  AlgebraMatrixValue, AngleValue, Bare, NumberValue, SweepValue, Value, VectorValue,
} from '../values/types' // prettier-ignore
import type { Failure } from '../values/failure'
import type { Apply } from '../notation/tree'
import type { Typesetting } from '../notation/typesetting'
import type { AngleUnit } from '../values/convert'
import type { ArgumentsOf, Parameter } from './parameter'

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

/** An entry that runs, with the readout it gives in degrees, j and five digits. */
export interface Example {
  readonly entry: string
  readonly gives: string
  /** Lines that go before it. */
  readonly before?: readonly string[]
  /** Measured data that it takes up. */
  readonly enclosed?: { readonly name: string; readonly data: Data }
}

/** A rule over all points of a sweep of numbers at once. */
export type Loop = (value: Numbers, sweep: SweepValue) => SweepValue

/** What a result measures; a result that is not one value with one measure is given whole. */
export type Measured = Measures | Failure | { readonly dressed: Value | Failure }
export type MeasureRule = (args: readonly Value[], result: Bare, name: string) => Measured

/** What a page knows of a function before it is called: enough for handbook, completion, signatures and readings. */
export interface FunctionHead {
  readonly name: string
  readonly group: Group
  readonly parameters: readonly Parameter[]
  /** One sentence for the handbook and the completion. */
  readonly summary: string
  readonly examples: readonly Example[]
  /** Common second spellings. */
  readonly spellings?: readonly string[]
  /** The last parameter may be repeated; of one vector it takes the entries. */
  readonly repeats?: boolean
  /** True of a word that stands between its two parameters; elsewhere it is a name, unless it is an operator. */
  readonly infix?: true
  readonly operator?: true
  /** Called with so many arguments it is another function. */
  readonly readAs?: { readonly count: number; readonly name: string }
  /** The function that undoes it, where it is called neither inverse nor power. */
  readonly inverse?: string
  /** How it is typeset where that is not its name with its arguments in brackets. */
  readonly typesetting?: Typesetting
  /** What its results are drawn as, where they are no arrows: poles are crosses, zeros rings. */
  readonly marks?: 'cross' | 'ring'
  /** True where a real result is an angle. */
  readonly givesAngle?: true
  /** True where a working takes it as it stands: its terms are not worked out one by one. */
  readonly opaque?: true
  /** True where it takes a sweep as a whole instead of point by point. */
  readonly sweeps?: boolean
  /** True where its argument is an exponent of e: an angle in it counts as its radians. */
  readonly exponential?: true
  /** The unit of the conventions in which it leaves a bare number as it is. */
  readonly idleIn?: AngleUnit
  /** What it could mean of a whole square matrix: entry by entry it must be asked for. */
  readonly whole?: string
  /** It takes a ratio of amplitudes: one of powers is hinted at. */
  readonly amplitudes?: true
}

/** What it does: what is fetched when it is called. */
export interface FunctionBody {
  /** What it gives for no values at all, where that has a meaning. */
  readonly ofNothing?: Value
  /** Evaluates its arguments itself, where not all of them are, or not as they stand elsewhere. */
  readonly lazy?: (node: Apply, context: Context, evaluate: Evaluate) => Value | Failure
  /** Why it is not called with so many arguments, where more is to be said than the signature. */
  readonly refuses?: (given: number) => Failure | null
  /** What it comes to for an angle, where that is another one. */
  readonly ofAngle?: (angle: AngleValue) => Value | Failure
  /** The operator that it puts in a row, for values with unknowns in them. */
  readonly inARow?: '+' | '*'
  /** Over the points of a sweep of numbers, by a loop. */
  readonly loop?: Loop
  /** What a reduction of one sweep of numbers comes to, by a loop; `null` where it has to go point by point. */
  readonly overPoints?: (sweep: SweepValue) => NumberValue | null
  /** What it comes to for a vector as a whole, where that is not its outcome for every entry. */
  readonly ofVector?: (v: VectorValue) => Value | Failure
  /** What its result measures, of values with units; where this is left out, it takes plain numbers only. */
  readonly measures?: MeasureRule
  /** What it does with values with units, where that is not what it does with their numbers; `null` where it is. */
  readonly ofQuantities?: (args: readonly Value[]) => Value | Failure | null
  /** What it does with matrices that have unknowns in them; one that stands alone is both. */
  readonly algebra?: (m: AlgebraMatrixValue, right: AlgebraMatrixValue, context: Context) => Value | Failure
  readonly apply: (args: readonly Value[], context: Context) => Value | Failure
}

/** A function of the notation; handbook, completion, signatures and errors are made from this. */
export interface FunctionDefinition extends FunctionHead, FunctionBody {
  /** How many of the last parameters may be left out. */
  readonly optional: number
}

/** A definition as it is written: its rule takes what its parameters give. */
export type Declared<P extends readonly Parameter[], R extends boolean> = FunctionHead &
  Omit<FunctionBody, 'apply'> & {
    readonly parameters: P
    readonly repeats?: R
    readonly apply: (args: ArgumentsOf<P, R>, context: Context) => Value | Failure
  }

/**
 * A function from its declaration. `call.ts` reads every argument by its parameter before it applies the rule, so that
 * the rule gets what the parameters give: that is asserted here, and nowhere else.
 */
export function define<const P extends readonly Parameter[], R extends boolean = false>(
  declared: Declared<P, R>,
): FunctionDefinition {
  const optional = declared.parameters.filter((parameter) => parameter.optional).length
  return { ...declared, optional, apply: declared.apply as FunctionBody['apply'] }
}

/** The parameter that an argument is for: where the last one repeats, it is that of all that follow. */
export function parameterAt({ parameters }: FunctionHead, k: number): Parameter | undefined {
  return parameters[Math.min(k, parameters.length - 1)]
}

/** `log(x, base)`, `par(a, b, …)`: how the function is called. */
export function signature(definition: FunctionHead): string {
  const names = definition.parameters.map((p) => p.name)
  if (definition.infix) return names.join(` ${definition.name} `)
  if (definition.repeats) names.push('…')
  return `${definition.name}(${names.join(', ')})`
}
