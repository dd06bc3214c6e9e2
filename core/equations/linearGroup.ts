import { algebraMatrix, algebraSolve, asAlgebra } from '../algebra/polyMatrix'
import { isAlgebraic, unknownsOf } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import * as C from '../numbers/complex'
import { negate } from '../operators/unary'
import { commonAxis, loopNegate, settle } from '../operators/lift'
import type { Context } from '../operators/context'
import { hintCondition } from '../operators/conditioning'
import { NONE } from '../units/dimension'
import { PLAIN } from '../units/measure'
import type { Measure } from '../units/measure'
import { coherentUnit } from '../units/named'
import { inAngleUnit } from '../values/convert'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { angleOf, angleOfTurns, exactReal, integer, real } from '../values/make'
import { fromDense, itemsOf, asMatrix } from '../values/matrices'
import { unknownsOf as unknownsOfAll } from '../quantities/through'
import { bare, quantity } from '../values/quantity'
import { angleSweep, numberAt, numberSweep, sweepOf } from '../values/sweeps'
import type { Axis, NumberValue, PartsValue, Solved, SolvedSystem, SweepValue, Value } from '../values/types'
import type { LinearForm } from './form'
import type { Equation, Task } from './group'
import { lineList } from '../format/lineList'
import { solveLinear } from './linear'
import { sortsOf } from './measured'
import type { Sorts } from './measured'
import { misfitFailure } from './misfit'
import { equilibrated, residualShare } from './scaled'
import { byElimination } from './solved'
import type { LinearSystem } from './scaled'
import { solveSweeps } from './sweeping'
import type { Coefficient } from './sweeping'

/** Equations that are linear in what is sought. */

/** An equation as plain numbers in coherent units, with what each of its terms measures. */
interface Row {
  readonly line: number
  readonly factors: readonly Scalar[]
  readonly right: Scalar
}

type Scalar = NumberValue | SweepValue | Algebraic

export function determineLinear(task: Task): PartsValue | Failure {
  const { group, looked, context } = task
  const names = group.sought.map(({ name }) => name)
  const sorts = sortsOf(names, group.equations, looked, () => null)
  if ('kind' in sorts) return misfitFailure(sorts)
  const angles = new Angles(group.equations, sorts, context)
  const rows: Row[] = []
  for (const { line, form } of group.equations) {
    if (form.kind !== 'linear') return failure('equation-kind', { line })
    const row = rowOf(form, line, names, angles)
    if (row === null) return failure('equation-kind', { line })
    if ([...row.factors, row.right].some((x) => x.kind === 'number' && !C.isFinite(x))) return failure('equation-infinite', { line }) // prettier-ignore
    rows.push(row)
  }
  const found = solvedRows(rows, names, task)
  if ('kind' in found) return found
  const declared = unknownsOfAll(...group.equations.flatMap(({ form }) => (form.kind === 'linear' ? [...form.factors.values(), ...(form.constant ? [form.constant] : [])] : []))) // prettier-ignore
  const parts = names.map((name, k): [string, Value] => [
    name,
    dressed(found.values[k] ?? integer(0), name, sorts, angles, declared),
  ])
  const system = systemOf(rows, names, sorts)
  return { kind: 'parts', of: 'determine', parts: new Map(parts), solved: { ...found.solved, system } }
}

/** Angles as plain numbers: in turns where all of them are known exactly so, else in radians. */
class Angles {
  readonly turns: boolean

  constructor(
    equations: readonly Equation[],
    private readonly sorts: Sorts,
    private readonly context: Context,
  ) {
    this.turns = equations.every(({ form }) => {
      const inner = form.kind === 'linear' && form.constant ? bare(form.constant) : null
      return inner?.kind !== 'sweep' && (inner?.kind !== 'angle' || inner.turns !== null)
    })
  }

  /** True where the terms of an equation are angles. */
  among({ constant, factors }: LinearForm): boolean {
    if (constant && isAngle(bare(constant))) return true
    return [...factors].some(([name, factor]) => this.sorts.angles.has(name) && !isAngle(bare(factor)))
  }

  /** A value as a number; a bare one among angles is read in the unit of the conventions; `null` of other kinds. */
  number(value: Value, angle: boolean): Scalar | null {
    const inner = bare(value)
    switch (inner.kind) {
      case 'angle':
        if (this.turns && inner.turns) return exactReal(inner.turns)
        return real(this.turns ? inner.radians / (2 * Math.PI) : inner.radians)
      case 'number':
        return angle && inner.im === 0 && inner.re !== 0 ? this.number(inAngleUnit(inner, this.context.angleUnit), false) : inner // prettier-ignore
      case 'sweep':
        if (inner.of === 'other') return null
        return inner.of === 'angle' ? numberSweep(inner.axis, inner.re, null) : inner
      default:
        return isAlgebraic(inner) ? inner : null
    }
  }

  /** A number back as an angle. */
  back(value: Value): Value {
    if (value.kind === 'sweep' && value.im === null) return angleSweep(value.axis, value.re)
    if (value.kind !== 'number' || value.im !== 0) return value
    if (!this.turns) return angleOf(value.re)
    return value.exact ? angleOfTurns(value.exact.re) : angleOf(value.re * 2 * Math.PI)
  }
}

const isAngle = (value: Value): boolean => value.kind === 'angle' || (value.kind === 'sweep' && value.of === 'angle')

function rowOf(form: LinearForm, line: number, names: readonly string[], angles: Angles): Row | null {
  const right = form.constant ? angles.number(form.constant, angles.among(form)) : integer(0)
  const factors = names.map((name) => {
    const factor = form.factors.get(name)
    return factor ? angles.number(factor, false) : integer(0)
  })
  const all = factors.flatMap((x) => (x ? [x] : []))
  const negative = right && opposite(right)
  return negative === null || all.length < factors.length ? null : { line, factors: all, right: negative }
}

/** −x; `null` of what has no opposite. */
function opposite(x: Scalar): Scalar | null {
  const found = x.kind === 'sweep' ? loopNegate(x) : negate(x)
  const settled = found && settle(found)
  return settled?.kind === 'number' || settled?.kind === 'sweep' || settled?.kind === 'polynomial' ? settled : null
}

type Solution = { readonly values: readonly Value[]; readonly solved: Solved }

const isCoefficient = (x: Scalar): x is Coefficient => x.kind === 'number' || x.kind === 'sweep'
const isNumber = (x: Scalar): x is NumberValue => x.kind === 'number'

function solvedRows(rows: readonly Row[], names: readonly string[], task: Task): Solution | Failure {
  const all = rows.flatMap(({ factors, right }) => [...factors, right])
  if (all.every(isNumber)) return ofNumbers(systemIn(rows, names, null), rows, task)
  if (all.every(isCoefficient)) return ofSweeps(rows, names, all, task)
  return all.some(({ kind }) => kind === 'sweep') ? failure('equations-sweep-unknown') : ofAlgebra(rows)
}

/** The system of numbers, of sweeps that at a point. */
function systemIn(rows: readonly Row[], names: readonly string[], point: number | null): LinearSystem {
  const at = (x: Scalar): NumberValue => {
    if (x.kind === 'number') return x
    return x.kind === 'sweep' && point !== null ? numberAt(x, point) : integer(0)
  }
  return { names, rows: rows.map(({ factors }) => factors.map(at)), right: rows.map(({ right }) => at(right)) }
}

function ofNumbers(system: LinearSystem, rows: readonly Row[], { context, at }: Task): Solution | Failure {
  const found = solveLinear(system)
  if (found.kind === 'too-large') return failure('too-large')
  if (found.kind === 'contradiction') return contradicting(found.rows.map((k) => rows[k]?.line ?? 0))
  const { values, free, spare } = found
  const exact = values.every(isExact)
  // What the hint says is dear to find out.
  if ((found.condition ?? 0) > 1e9) hintCondition(fromDense(equilibrated(system).a), context, at)
  const residual = exact || free.length > 0 ? null : residualShare(system, values.filter(isNumber))
  return { values, solved: { ...byElimination(rows.length), free, spare, exact, residual } }
}

const isExact = (x: Algebraic): boolean =>
  x.kind === 'number' ? x.exact !== null : x.top.terms.every(({ factor }) => factor.exact !== null)

function contradicting(lines: readonly number[]): Failure {
  const [only] = lines
  if (lines.length === 1 && only !== undefined) return failure('equation-never', { line: only })
  return failure('equations-contradict', { lines: lineList(lines) })
}

/** At every point; where there are as many equations as names by one loop. */
function ofSweeps(
  rows: readonly Row[],
  names: readonly string[],
  all: readonly Coefficient[],
  task: Task,
): Solution | Failure {
  const axis = commonAxis(all, task.at, task.context)
  if ('kind' in axis) return axis
  if (rows.length === names.length) {
    const factors = rows.map((row) => row.factors.filter(isCoefficient))
    const right = rows.map((row) => row.right).filter(isCoefficient)
    const values = solveSweeps(factors, right, axis)
    const [first] = values
    const somewhere = first && [...first.re].some((x) => !Number.isNaN(x))
    if (somewhere) return { values, solved: byElimination(rows.length) }
  }
  return pointByPoint(rows, names, axis, task)
}

function pointByPoint(rows: readonly Row[], names: readonly string[], axis: Axis, task: Task): Solution | Failure {
  const points: Value[][] = names.map(() => [])
  let solved = byElimination(rows.length)
  const inner: Task = { ...task, context: task.context.pointByPoint() }
  for (let k = 0; k < axis.values.length; k += 1) {
    const found = ofNumbers(systemIn(rows, names, k), rows, inner)
    if ('kind' in found) return found
    found.values.forEach((value, j) => points[j]?.push(value))
    solved = { ...found.solved, exact: false, residual: null }
  }
  return { values: points.map((items) => sweepOf(axis, items)), solved }
}

/** Coefficients with unknowns in them. */
function ofAlgebra(rows: readonly Row[]): Solution | Failure {
  const items = rows.flatMap(({ factors }) => factors).filter(isAlgebraic)
  const [n, m] = [rows[0]?.factors.length ?? 0, rows.length]
  if (n !== m) return failure('equations-count', { equations: m, sought: n })
  const a = algebraMatrix(m, n, items)
  const b = algebraMatrix(m, 1, rows.map(({ right }) => right).filter(isAlgebraic))
  const [left, right] = [a.kind === 'failure' ? null : asAlgebra(a), b.kind === 'failure' ? null : asAlgebra(b)]
  if (!left || !right) return a.kind === 'failure' ? a : failure('equation-kind', { line: rows[0]?.line ?? 0 })
  const found = algebraSolve(left, right)
  if (found.kind === 'failure') return found
  const values = entriesOf(found)
  return { values, solved: { ...byElimination(rows.length), exact: values.every((x) => isAlgebraic(x) && isExact(x)) } }
}

function entriesOf(found: Value): readonly Value[] {
  if (found.kind === 'vector') return found.items
  if (found.kind === 'algebra-matrix') return found.items
  const matrix = asMatrix(found)
  return matrix ? itemsOf(matrix) : [found]
}

/** A solution with what it measures, or as the angle that it is; `declared` are unknowns with units of their own. */
function dressed(
  value: Value,
  name: string,
  { measures, angles: turned }: Sorts,
  angles: Angles,
  declared: ReadonlyMap<string, Measure> | null,
): Value {
  if (turned.has(name)) return angles.back(value)
  const inner = bare(value)
  const unknowns = inner.kind === 'polynomial' ? unknownsIn(inner, measures, declared) : null
  return quantity(inner, measures.get(name) ?? PLAIN, { unknowns })
}

function unknownsIn(
  value: Extract<Value, { kind: 'polynomial' }>,
  measures: Sorts['measures'],
  declared: ReadonlyMap<string, Measure> | null,
) {
  const found = [...unknownsOf(value)].flatMap((name): [string, Measure][] => {
    const of = measures.get(name) ?? declared?.get(name)
    return of && of.dimension !== NONE ? [[name, of]] : []
  })
  return found.length > 0 ? new Map(found) : null
}

/** The equations as a matrix, for whatever takes them up. */
function systemOf(rows: readonly Row[], names: readonly string[], { measures }: Sorts): SolvedSystem {
  return {
    names,
    lines: rows.map(({ line }) => line),
    rows: rows.map(({ factors, right }) => [...factors, right]),
    columnUnits: names.map((name) => unitText(measures.get(name) ?? PLAIN)),
  }
}

const unitText = (of: Measure): string => (of.dimension === NONE ? '' : coherentUnit(of).text)
