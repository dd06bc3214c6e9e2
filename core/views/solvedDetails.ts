import type { Conventions } from '../format/conventions'
import type { LineResult } from '../evaluate/lineResult'
import { valueText } from '../kinds/kinds'
import { condition, determinant } from '../matrices/linearAlgebra'
import { equilibrated } from '../equations/scaled'
import { fromDense, matrixOf } from '../values/matrices'
import { integer } from '../values/make'
import { numberThere } from '../values/sweeps'

/** What is to be known of how equations were solved, in words: worked out only where it is asked for. */
export interface SolvedDetail {
  readonly label: string
  readonly text: string
}

/** Highest order of which a condition number is worked out. */
const ORDER_MOST = 60

/** The details of a line that solved equations, of a sweep at a point, counted from 0; none of other lines. */
export function solvedDetails(
  { evaluated }: LineResult,
  conventions: Conventions,
  along: number,
): readonly SolvedDetail[] {
  const { value } = evaluated
  const solved = value?.kind === 'parts' ? value.solved : undefined
  if (!solved) return []
  const { way, exact, residual, system } = solved
  const list: SolvedDetail[] = [{ label: 'Found by', text: WAYS[way] }]
  const rows = system?.rows.map((row) => row.map((x) => numberThere(x, along)))
  const n = system?.names.length ?? 0
  const all = rows?.flat().flatMap((x) => x ?? []) ?? []
  if (system && rows && rows.length === n && all.length === n * (n + 1)) {
    const a = matrixOf(n, n, rows.flatMap((row) => row.slice(0, n).map((x) => x ?? integer(0)))) // prettier-ignore
    const det = determinant(a)
    if (det.kind !== 'failure') list.push({ label: 'Determinant', text: valueText(det, conventions) })
    if (n <= ORDER_MOST) {
      const even = equilibrated({ names: system.names, rows: rows.map((row) => row.slice(0, n).map((x) => x ?? integer(0))), right: rows.map((row) => row[n] ?? integer(0)) }) // prettier-ignore
      list.push({ label: 'Condition number', text: `${Number(condition(fromDense(even.a)).toPrecision(3))}, with rows and columns brought to one size` }) // prettier-ignore
    }
  }
  if (exact) list.push({ label: 'Residual', text: '0: the solution is exact' })
  else if (residual !== null) list.push({ label: 'Residual', text: `${residual.toExponential(1)} of the terms` })
  return list
}

const WAYS = {
  elimination: 'elimination',
  roots: 'the roots of a polynomial',
  search: 'a search with Newton’s method; each solution was put into both sides',
} as const
