import { pointIn } from '../quantities/through'
import type { Node } from '../notation/tree'
import { integer, vector } from '../values/make'
import { matrixOf } from '../values/matrices'
import { bare } from '../values/quantity'
import { numberThere } from '../values/sweeps'
import type { NumberValue, Solved, Value } from '../values/types'
import type { Rule } from './rules'
import { call, column, equation, named, times, valued, whole } from './terms'

/** Equations as the term that solves them: an elimination, or the roots of a polynomial. */
export interface SolvingTerm {
  /** The names that are sought. */
  readonly names: Node
  readonly term: Node
  /** The equations as they stand once their terms are sorted. */
  readonly stands: Node
  readonly rule: Rule
  /** The point of a sweep that is worked, counted from 0; `null` of others. */
  readonly point: number | null
}

/** `null` of what is solved in no way that could be written down. */
export function solvingTerm(solved: Solved, wanted: number): SolvingTerm | null {
  const { system, roots } = solved
  if (roots)
    return {
      names: named(roots.name),
      term: call('roots', valued(roots.of)),
      stands: equation(valued(roots.of), whole(0)),
      rule: 'equation-to-zero',
      point: null,
    }
  if (!system) return null
  const swept = system.rows.flat().find((value) => value.kind === 'sweep')
  const point = swept?.kind === 'sweep' ? Math.min(Math.max(wanted, 0), swept.count - 1) : null
  const rows: NumberValue[][] = []
  for (const row of system.rows) {
    const numbers = row.flatMap((value) => numberThere(value, point) ?? [])
    if (numbers.length < row.length) return null
    rows.push(numbers)
  }
  const n = system.names.length
  const names = column(system.names.map(named))
  const a = matrixOf(rows.length, n, rows.flatMap((row) => row.slice(0, n))) // prettier-ignore
  const b = vector(rows.map((row) => row[n] ?? integer(0)))
  const stands = equation(times(valued(a), names), valued(b))
  const square = rows.length === n && solved.free.length === 0
  const term = square
    ? call('solve', valued(a), valued(b))
    : call('rref', valued(matrixOf(rows.length, n + 1, rows.flat())))
  return { names, term, stands, rule: 'equations-as-matrix', point }
}

/** The answers in their order, of sweeps those at a point. */
export function answersAt(value: Value, point: number | null): readonly Value[] {
  const inner = bare(value)
  const parts = inner.kind === 'parts' ? [...inner.parts.values()] : []
  return parts.map((part) => (point === null ? part : (pointIn(part, point) ?? part)))
}
