import type { Dense } from '../linear/dense'
import type { ExactMatrix } from '../linear/exact'
import type { Complex } from '../numbers/complex'
import type { ArrayMeasures } from '../units/arrayMeasures'
import type { Measure } from '../units/measure'
import type { Unit } from '../units/unit'
import type { Program } from './sweepProgram'
import type { Gaussian } from '../numbers/gaussian'
import type { Rational } from '../numbers/rational'

/**
 * What a line can be worth. Every kind is a member of {@link Value}; what a kind
 * can do (text, LaTeX, JSON) is declared once in `kinds.ts`, and what an
 * operator does with it in `evaluate/operators.ts`.
 */

/** A real or complex number. */
export interface NumberValue extends Complex {
  readonly kind: 'number'
  /** The exact parts, where nothing has been rounded. */
  readonly exact: Gaussian | null
  /**
   * What small exact numbers are reckoned by, without looking at their exact parts. 1: both parts are safe
   * integers. More: the number is real, and equals {@link top}/bottom in lowest terms, both safe integers. 0: neither.
   */
  readonly bottom: number
  /** The numerator of a real fraction; 0 of other numbers. */
  readonly top: number
  /** Set where the value is known to equal this exact number times π. */
  readonly pi: Gaussian | null
  /**
   * True where the value is of the complex sort (a phasor, an impedance) and is
   * shown in both forms even when its imaginary part happens to be zero.
   */
  readonly complex: boolean
}

/** An angle: in radians, and exactly in turns where it is known so. */
export interface AngleValue {
  readonly kind: 'angle'
  readonly radians: number
  readonly turns: Rational | null
  /** The degrees it was made of, where those were rounded already: sines of it are reduced in degrees all the same. */
  readonly degrees?: number
}

export interface TextValue {
  readonly kind: 'text'
  readonly text: string
}

export interface TruthValue {
  readonly kind: 'truth'
  readonly truth: boolean
}

/** A column of values, in order. */
export interface VectorValue {
  readonly kind: 'vector'
  readonly items: readonly Value[]
  /** True of values in a row that are no vector of space: eigenvalues, roots, coefficients. They have no length. */
  readonly list?: boolean
  /** Of the poles of a closed loop: the open loop and the gain, whose locus they are on. */
  readonly locusOf?: LocusOf
}

/** An open loop, known by its coefficients, and the gain at which it is closed. */
export interface LocusOf extends StepOf {
  readonly k: number
}

/** A matrix: doubles row by row, and exact entries beside them while it is small and exact. */
export interface MatrixValue {
  readonly kind: 'matrix'
  readonly rows: number
  readonly cols: number
  readonly dense: Dense
  readonly exact: ExactMatrix | null
  /** True where an entry is of the complex sort. */
  readonly complex: boolean
}

/** Several values under names: what a decomposition comes to. */
export interface PartsValue {
  readonly kind: 'parts'
  readonly of: string
  readonly parts: ReadonlyMap<string, Value>
  /** True where its line shows the values of its parts, not only what they are called. */
  readonly listed?: boolean
  /** Set of what equations were solved for: their line shows each part as an answer. */
  readonly solved?: Solved
}

/** How equations were solved. */
export interface Solved {
  readonly equations: number
  /** How many different solutions there are; of a sweep at each point. */
  readonly solutions: number
  /** How often each of several roots counts; empty where none is said. */
  readonly multiplicities: readonly number[]
  /** Sought names that stay free. */
  readonly free: readonly string[]
  /** How many equations follow from the others. */
  readonly spare: number
  readonly way: 'elimination' | 'roots' | 'search'
  readonly exact: boolean
  /** What may be left over at a solution, as a share of the terms; `null` where nothing is rounded, or nobody asked. */
  readonly residual: number | null
  /** True where other solutions cannot be excluded. */
  readonly more: boolean
  /** The kept names that the equations read. */
  readonly uses: readonly string[]
  /** The coefficients with the right sides as the last column, where the equations are linear. */
  readonly system: SolvedSystem | null
  /** The term that makes an equation nonlinear, and its line; `null` where all are linear. */
  readonly nonlinear: { readonly line: number; readonly term: string } | null
  /** The polynomial in one sought name whose roots the solutions are. */
  readonly roots: { readonly name: string; readonly of: PolynomialValue } | null
}

/** Linear equations as a matrix: what the bench, the working and the details take up. */
export interface SolvedSystem {
  readonly names: readonly string[]
  /** The lines of the equations, counted from 1. */
  readonly lines: readonly number[]
  /** Row by row, each with its right side last; in coherent units. */
  readonly rows: readonly (readonly Value[])[]
  /** What each sought name measures, as the text of a unit; empty of plain numbers. */
  readonly columnUnits: readonly string[]
}

/** The outcome of a check line. */
export interface CheckValue {
  readonly kind: 'check'
  readonly pass: boolean
  /** To how many significant figures the sides agree. */
  readonly figures: number
  /** Of sweeps, the worst point, counted from 1. */
  readonly point?: number
  readonly left: Value
  readonly right: Value
}

/** A function that a line defines. */
export interface FunctionValue {
  readonly kind: 'function'
  readonly name: string
  readonly parameters: readonly string[]
  readonly body: FunctionBody
}

/** What a function comes to; the evaluator, which made it, knows the term that stands in it. */
export interface FunctionBody {
  /** The values that the other names in it had where it was defined. */
  readonly captured: ReadonlyMap<string, Value>
}

/** What a sweep runs along: the values of the quantity that its range was written for. */
export interface Axis {
  readonly values: Float64Array
  /** The kept name of the quantity; `null` while it has none. */
  readonly name: string | null
  /** True where the values are radians of an angle. */
  readonly angle: boolean
  /** True where they go by decades. */
  readonly decades: boolean
  /** The unit that the values are shown in; they are held in coherent SI units. */
  readonly unit?: Unit
}

/** One quantity with many values, one for each point of its axis. */
export interface SweepValue {
  readonly kind: 'sweep'
  /** Numbers and angles stand in typed arrays, other kinds in `items`. */
  readonly of: 'number' | 'angle' | 'other'
  readonly axis: Axis
  readonly count: number
  /** Real parts, or radians. */
  readonly re: Float64Array
  /** `null` where all are real. */
  readonly im: Float64Array | null
  readonly complex: boolean
  readonly items: readonly Value[] | null
  /** Or what makes the value of a point when it is asked for: arrays of sweeps are not kept a million times. */
  readonly make?: (k: number) => Value
  /** Of real numbers that are known to be multiples of π: by how much π is multiplied at each point. */
  readonly pi?: () => Float64Array
  /** Of a step response: the transfer function whose it is, so that its figures can be marked on the curve. */
  readonly stepOf?: StepOf
  /** Set while the numbers are still to be worked out; no line and no function sees such a sweep. */
  readonly pending?: Program
}

/** A transfer function, known by its coefficients: whole numbers, that of the k-th power at place k. */
export interface StepOf {
  readonly top: readonly bigint[]
  readonly bottom: readonly bigint[]
  readonly discrete: boolean
  readonly period: Period | null
}

/**
 * Polynomials in any number of unknowns, with exact or rounded complex
 * coefficients: like terms collected, none with a zero coefficient, the highest
 * degree first and terms of one degree in the order of the unknowns.
 */
export interface Polynomial {
  /** In alphabetical order. */
  readonly unknowns: readonly string[]
  readonly terms: readonly Term[]
}

export interface Term {
  /** The power of each unknown. */
  readonly powers: readonly number[]
  readonly factor: NumberValue
}

/** A polynomial in unknowns, or the ratio of two. */
export interface PolynomialValue {
  readonly kind: 'polynomial'
  readonly top: Polynomial
  readonly bottom: Polynomial | null
  /** Of what has rounded coefficients: the factors that both sides were made of, so that the same ones cancel. */
  readonly factors?: Factors
  /** How it is shown where that is not as the ratio that it is: as the sum of its partial fractions, or by time constants. */
  readonly form?: RatioForm
  /** Of what was sampled: the time between two samples. */
  readonly period?: Period
}

export interface Period {
  readonly value: NumberValue
  /** True where it was given in seconds. */
  readonly measured: boolean
}

export interface Factors {
  readonly top: readonly Polynomial[]
  readonly bottom: readonly Polynomial[]
}

/** A ratio as it is written: a sum of terms, each a factor before a quotient of products of powers. */
export type RatioForm = readonly RatioTerm[]

export interface RatioTerm {
  readonly factor: NumberValue
  readonly top: readonly PolynomialPower[]
  readonly bottom: readonly PolynomialPower[]
}

export interface PolynomialPower {
  readonly base: Polynomial
  readonly exponent: number
}

/** A ratio behind a delay: the ratio times e^(−unknown·delay), with a delay above 0. */
export interface DelayedValue {
  readonly kind: 'delayed'
  readonly ratio: NumberValue | PolynomialValue
  readonly unknown: string
  readonly delay: NumberValue
}

/** A function of time in closed form, for t ≥ 0. */
export interface TimeFunctionValue {
  readonly kind: 'time-function'
  /** The unknown that stands for the time. */
  readonly time: string
  /** Its Laplace transform. */
  readonly of: NumberValue | PolynomialValue
  /** The factors of δ(t), of its derivative and so on. */
  readonly impulses: readonly NumberValue[]
  readonly terms: readonly TimeTerm[]
}

/** factor·tᵖ·e^(rate·t)·sin(frequency·t + phase); without the sine where the frequency is 0. */
export interface TimeTerm {
  readonly factor: NumberValue
  readonly power: number
  readonly rate: NumberValue
  readonly frequency: NumberValue
  readonly phase: AngleValue
}

/** A matrix with unknowns in its entries. */
export interface AlgebraMatrixValue {
  readonly kind: 'algebra-matrix'
  readonly rows: number
  readonly cols: number
  readonly items: readonly (NumberValue | PolynomialValue)[]
}

/**
 * A value with what it measures beside it. Its numbers are held in coherent SI units and reckoned with as any others;
 * the measure is worked out beside them. Of an array it is one for all entries, or one for each row and column.
 */
export interface QuantityValue {
  readonly kind: 'quantity'
  readonly value: Bare
  readonly measure: Measure | ArrayMeasures
  /** The unit that it was written in, or is asked for in. */
  readonly unit: Unit | null
  /** True where that unit is kept with its prefix: of what was written, and what `in` asks for. */
  readonly asWritten: boolean
  /** What the unknowns in it measure, where any was declared with a unit. */
  readonly unknowns: ReadonlyMap<string, Measure> | null
}

/** A value without a unit. */
export type Bare = Exclude<Value, QuantityValue>

export type Value =
  | QuantityValue
  | SweepValue
  | PolynomialValue
  | DelayedValue
  | TimeFunctionValue
  | AlgebraMatrixValue
  | NumberValue
  | AngleValue
  | TextValue
  | TruthValue
  | VectorValue
  | MatrixValue
  | PartsValue
  | CheckValue
  | FunctionValue
export type Kind = Value['kind']
