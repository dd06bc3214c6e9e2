import type { LineResult } from '../evaluate/lineResult'
import type { ExactMatrix } from '../linear/exact'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { numberInUnit } from '../quantities/shown'
import { asMatrix } from '../values/matrices'
import { numberThere } from '../values/sweeps'
import type { NumberValue, Solved } from '../values/types'

/** What is put on the reduction bench: a matrix of exact numbers, and what stands over its columns. */
export interface BenchStart {
  readonly matrix: ExactMatrix
  /** How many of the last columns are right sides; `null` where the shape decides. */
  readonly right: number | null
  /** The sought names, each with its unit; none of a matrix. */
  readonly heads: readonly { readonly name: string; readonly unit: string }[]
  /** Entries that were rounded before they came here: row and column. */
  readonly rounded: readonly (readonly [number, number])[]
  /** Of a sweep the point, counted from 1. */
  readonly point: number | null
}

const TOO_MUCH =
  'The bench works exactly: it takes matrices of whole numbers, fractions and decimals, up to 400 entries, and linear equations.'

/** The matrix of a line, or the equations that it solved; a sentence where the bench can take neither. */
export function benchOf({ evaluated }: LineResult, along: number): BenchStart | string {
  const { value, problem } = evaluated
  if (problem || !value) return TOO_MUCH
  if (value.kind === 'parts' && value.solved) return ofEquations(value.solved, along)
  // A matrix with a unit is reduced by its numbers in that unit.
  const matrix = asMatrix(numberInUnit(value).number)?.exact
  return matrix ? { matrix, right: null, heads: [], rounded: [], point: null } : TOO_MUCH
}

function ofEquations({ system, nonlinear }: Solved, along: number): BenchStart | string {
  if (nonlinear)
    return `The equation in line ${nonlinear.line} is not linear: the term ${nonlinear.term} makes it so. The bench reduces linear equations.`
  if (!system) return TOO_MUCH
  const swept = system.rows.flat().find((value) => value.kind === 'sweep')
  const point = swept?.kind === 'sweep' ? Math.min(Math.max(along, 0), swept.count - 1) : null
  const entries: Gaussian[] = []
  const rounded: (readonly [number, number])[] = []
  for (const [r, row] of system.rows.entries())
    for (const [c, value] of row.entries()) {
      const number = numberThere(value, point)
      const exact = number && (number.exact ?? decimal(number))
      if (!number || !exact) return TOO_MUCH
      if (!number.exact) rounded.push([r, c])
      entries.push(exact)
    }
  const { names, columnUnits } = system
  const heads = names.map((name, k) => ({ name, unit: columnUnits[k] ?? '' }))
  const matrix = { rows: system.rows.length, cols: names.length + 1, entries }
  return { matrix, right: 1, heads, rounded, point: point === null ? null : point + 1 }
}

/** A rounded number as the decimal that is nearest to it. */
function decimal({ re, im }: NumberValue): Gaussian | null {
  const [a, b] = [Q.fromDecimal(String(re)), Q.fromDecimal(String(im))]
  return a && b ? G.gaussian(a, b) : null
}
