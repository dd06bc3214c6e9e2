import { parts as sidesOf, unknownValue } from '../algebra/ratio'
import * as P from '../algebra/polynomial'
import type { Node } from '../notation/tree'
import * as C from '../numbers/complex'
import { hintRoots } from '../functions/polynomials'
import { operateOn, operatingAt } from '../operators/operate'
import { NONE } from '../units/dimension'
import { PLAIN } from '../units/measure'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import { angleOf, integer, ofSort } from '../values/make'
import { bare, quantity } from '../values/quantity'
import { sweepOf } from '../values/sweeps'
import type { Axis, NumberValue, PartsValue, Polynomial, Solved, Value } from '../values/types'
import type { Equation, Task } from './group'
import { sortsOf } from './measured'
import type { Sorts } from './measured'
import { misfitFailure } from './misfit'
import { plainOf, Sought } from './numbers'
import { solvePolynomials } from './polynomials'
import type { PolynomialEquation, PolynomialSolution } from './polynomials'
import { searched } from './searched'
import { byElimination } from './solved'
import { atEveryPointOf } from './points'

/** Equations that are not all linear: polynomials by their roots, all others by a search. */

/** What was found: for each solution a number for each name, in their order. */
export interface Solutions {
  readonly kind: 'solutions'
  readonly list: readonly PolynomialSolution[]
  readonly spare: number
  readonly way: 'roots' | 'search'
  readonly residual: number | null
  readonly more: boolean
  readonly roots: Solved['roots']
}

export function determineNonlinear(task: Task): PartsValue | Failure {
  const swept = atEveryPointOf(task, determineNonlinear)
  if (swept) return swept
  const { group, looked, context } = task
  const names = group.sought.map(({ name }) => name)
  const valueOf = (node: Node): Value | null => {
    const value = task.evaluate(node, context)
    return value.kind === 'failure' ? null : value
  }
  const sorts = sortsOf(names, group.equations, looked, valueOf)
  if ('kind' in sorts) return misfitFailure(sorts)
  const roots = ofPolynomials(task, names, sorts)
  const found = roots.kind === 'open' ? searched(task, names, sorts, valueOf, roots.most) : roots
  if (found.kind === 'failure') return found
  const chosen = nearest(found, names, task)
  return answered(chosen, names, sorts, task)
}

/** Neither polynomials nor roots: how many solutions there are at most (É. Bézout, 1779), where that is known. */
interface Open {
  readonly kind: 'open'
  readonly most: number
}
const OPEN: Open = { kind: 'open', most: Infinity }

/** The equations as polynomials in what is sought. */
function ofPolynomials(task: Task, names: readonly string[], sorts: Sorts): Solutions | Failure | Open {
  const { group, looked } = task
  if (sorts.angles.size > 0 || looked.between.size > 0) return OPEN
  const scope = new Sought(new Map(names.map((name) => [name, asUnknown(name, sorts)])))
  const context = task.context.withNames(scope).pointByPoint()
  const equations: PolynomialEquation[] = []
  const bottoms: PolynomialEquation[] = []
  for (const { line, left, right } of group.equations) {
    const sides = [left, right].map((side) => task.evaluate(side, context))
    const [a, b] = sides
    if (!a || !b || a.kind === 'failure' || b.kind === 'failure') return OPEN
    const value = operateOn('-', a, b, left, right, context)
    const inner = value.kind === 'failure' ? value : bare(value)
    if (inner.kind !== 'number' && inner.kind !== 'polynomial') return OPEN
    const { top, bottom } = sidesOf(inner)
    if (top.unknowns.some((name) => !names.includes(name))) return failure('equation-unknowns', { line })
    equations.push({ line, top })
    if (P.degree(bottom) > 0) bottoms.push({ line, top: bottom })
  }
  const found = solvePolynomials(equations, names, operatingAt(task.at, context))
  switch (found.kind) {
    case 'failure':
      return found
    case 'open':
      return { kind: 'open', most: equations.reduce((count, { top }) => count * P.degree(top), 1) }
    case 'few':
      return failure('equations-few', {
        equations: equations.length,
        sought: names.length,
        free: found.free.join(', '),
      })
    case 'never':
      return equations.length === 1 ? failure('equation-never', found) : failure('equations-none', { line: found.line })
    case 'solved': {
      const list = found.solutions.filter(({ values }) => bottoms.every(({ top }) => !isRootOf(top, names, values)))
      if (list.length === 0) return failure('no-solution')
      if (found.roots) hintRoots(found.roots, task.at, task.context)
      return {
        kind: 'solutions',
        list,
        spare: found.spare,
        way: 'roots',
        residual: null,
        more: false,
        roots: onlyOne(equations),
      }
    }
  }
}

/** One equation in one name: its polynomial. */
function onlyOne(equations: readonly PolynomialEquation[]): Solved['roots'] {
  const [only] = equations
  const [name] = only?.top.unknowns ?? []
  if (!only || equations.length > 1 || name === undefined || only.top.unknowns.length > 1) return null
  return { name, of: { kind: 'polynomial', top: only.top, bottom: null } }
}

/** True where a denominator is 0. */
function isRootOf({ unknowns, terms }: Polynomial, names: readonly string[], values: readonly NumberValue[]): boolean {
  let sum: C.Complex = { re: 0, im: 0 }
  let size = 0
  for (const { powers, factor } of terms) {
    let term: C.Complex = factor
    for (const [k, name] of unknowns.entries())
      term = C.multiply(term, C.powerInteger(values[names.indexOf(name)] ?? integer(0), powers[k] ?? 0))
    sum = C.add(sum, term)
    size += C.abs(term)
  }
  return C.abs(sum) <= 1e-12 * size
}

function asUnknown(name: string, { measures }: Sorts): Value {
  const of = measures.get(name) ?? PLAIN
  return of.dimension === NONE ? unknownValue(name) : quantity(unknownValue(name), of, { unknowns: new Map([[name, of]]) }) // prettier-ignore
}

/** Of several solutions the one that lies nearest to what was asked for. */
function nearest(found: Solutions, names: readonly string[], { looked }: Task): Solutions {
  if (looked.near.size === 0 || found.list.length < 2) return found
  const distance = ({ values }: PolynomialSolution): number => {
    let sum = 0
    for (const [name, value] of looked.near) {
      const [at, wanted] = [values[names.indexOf(name)], plainOf(value)]
      if (!at || !wanted) continue
      const scale = Math.max(C.abs(at), C.abs(wanted), Number.MIN_VALUE)
      sum += (C.abs(C.subtract(at, wanted)) / scale) ** 2
    }
    return sum
  }
  // Among real ones, unless a start is complex.
  const complex = [...looked.near.values()].some((value) => plainOf(value)?.complex)
  const real = complex ? [] : found.list.filter(({ values }) => values.every((x) => x.im === 0))
  const [best] = [...(real.length > 0 ? real : found.list)].sort((a, b) => distance(a) - distance(b))
  return best ? { ...found, list: [best], more: false } : found
}

function answered(found: Solutions, names: readonly string[], sorts: Sorts, { group }: Task): PartsValue {
  const list = [...found.list].sort(byParts)
  const [only] = list
  const single = list.length === 1 && only
  const axis: Axis = {
    values: Float64Array.from(list, (_, k) => k + 1),
    name: 'solution',
    angle: false,
    decades: false,
  }
  const parts = names.map((name, k): [string, Value] => {
    const of = (solution: PolynomialSolution): Value => {
      const value = solution.values[k] ?? integer(0)
      return sorts.angles.has(name) && value.im === 0 ? angleOf(value.re) : value
    }
    const complex = list.some(({ values }) => (values[k]?.im ?? 0) !== 0)
    const items = list
      .map(of)
      .map((value) => (value.kind === 'number' ? ofSort(value, value.complex || complex) : value))
    const value = single ? items[0] : sweepOf(axis, items)
    const measure = sorts.measures.get(name) ?? PLAIN
    return [name, value && !sorts.angles.has(name) ? quantity(bare(value), measure) : (value ?? integer(0))]
  })
  const times = list.map((solution) => solution.times)
  const solved: Solved = {
    ...byElimination(group.equations.length),
    solutions: list.length,
    multiplicities: times.some((n) => n > 1) ? times : [],
    spare: found.spare,
    way: found.way,
    exact: list.every(({ values }) => values.every((x) => x.exact !== null)),
    residual: found.residual,
    more: found.more,
    nonlinear: nonlinearTerm(group.equations),
    roots: found.roots,
  }
  return { kind: 'parts', of: 'determine', parts: new Map(parts), solved }
}

function nonlinearTerm(equations: readonly Equation[]): Solved['nonlinear'] {
  for (const { form, line, source } of equations)
    if (form.kind === 'nonlinear') return { line, term: source.slice(form.term.from, form.term.to) }
  return null
}

/** By real part, then by imaginary part, of the first name that tells two solutions apart. */
function byParts(a: PolynomialSolution, b: PolynomialSolution): number {
  for (const [k, x] of a.values.entries()) {
    const y = b.values[k]
    if (!y) continue
    const slack = 1e-9 * Math.max(C.abs(x), C.abs(y))
    if (Math.abs(x.re - y.re) > slack) return x.re - y.re
    if (Math.abs(x.im - y.im) > slack) return x.im - y.im
  }
  return 0
}
