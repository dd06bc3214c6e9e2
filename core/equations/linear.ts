import { algebraic, unknownValue } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import * as D from '../linear/dense'
import type { Dense } from '../linear/dense'
import { exactRref, exactSolve } from '../linear/exact'
import { decomposeLu, inverseLu, solveLu } from '../linear/lu'
import { decomposeQr } from '../linear/qr'
import * as C from '../numbers/complex'
import * as G from '../numbers/gaussian'
import { exactNumber, ofSort, rough } from '../values/make'
import type { NumberValue } from '../values/types'
import { contradiction } from './contradiction'
import { contradictsItself, equilibrated, isExactSystem, reducedRounded } from './scaled'
import type { LinearSystem, Scaled } from './scaled'

/** Linear equations with numbers as coefficients: exactly while those are exact, on doubles otherwise. */

export type LinearOutcome =
  | {
      readonly kind: 'solved'
      /** In terms of the free names, where some are left. */
      readonly values: readonly Algebraic[]
      readonly free: readonly string[]
      /** How many equations follow from the others. */
      readonly spare: number
      /** An estimate of the condition number, where the equations are rounded and square. */
      readonly condition?: number
    }
  /** The smallest set of equations that contradict one another, counted from 0. */
  | { readonly kind: 'contradiction'; readonly rows: readonly number[] }
  | { readonly kind: 'too-large' }

export function solveLinear(system: LinearSystem): LinearOutcome {
  const complex = [...system.rows.flat(), ...system.right].some((x) => x.complex)
  const exact = isExactSystem(system) ? exactly(system, complex) : null
  return exact ?? onDoubles(system, complex)
}

/** Fraction-free elimination; `null` where the numbers outgrow their budget. */
function exactly(system: LinearSystem, complex: boolean): LinearOutcome | null {
  const { names, rows, right } = system
  const n = names.length
  const entries = rows.flatMap((row, k) => [...row, right[k]].map((x) => x?.exact ?? G.ZERO))
  if (rows.length === n) {
    const whole = exactSolve(
      { rows: n, cols: n, entries: entriesOf(rows.flat()) },
      { rows: n, cols: 1, entries: entriesOf(right) },
    )
    if (whole === null) return null
    if (whole !== 'singular') return { kind: 'solved', values: whole.entries.map((x) => exactNumber(x, complex)), free: [], spare: 0 } // prettier-ignore
  }
  const reduced = exactRref({ rows: rows.length, cols: n + 1, entries }, n)
  if (!reduced) return null
  const { matrix, pivots } = reduced
  const at = (r: number, c: number): G.Gaussian => matrix.entries[r * (n + 1) + c] ?? G.ZERO
  for (let r = pivots.length; r < rows.length; r += 1)
    if (!G.isZero(at(r, n))) return { kind: 'contradiction', rows: contradiction(system) }
  return fromEchelon(system, pivots, (r, c) => exactNumber(at(r, c), complex))
}

const entriesOf = (list: readonly NumberValue[]): readonly G.Gaussian[] => list.map((x) => x.exact ?? G.ZERO)

/** The solution from the reduced row echelon form. */
function fromEchelon(
  { names, rows }: LinearSystem,
  pivots: readonly number[],
  at: (r: number, c: number) => NumberValue,
): LinearOutcome {
  const n = names.length
  const free = names.flatMap((name, c) => (pivots.includes(c) ? [] : [{ name, c }]))
  const values: Algebraic[] = []
  for (const [c, name] of names.entries()) {
    const r = pivots.indexOf(c)
    let value: Algebraic = r < 0 ? unknownValue(name) : at(r, n)
    if (r >= 0)
      for (const other of free) {
        const term = algebraic('*', at(r, other.c), unknownValue(other.name))
        const rest: Algebraic | null = term.kind === 'failure' ? null : sumOf(value, term)
        if (rest === null) return { kind: 'too-large' }
        value = rest
      }
    values.push(value)
  }
  return { kind: 'solved', values, free: free.map(({ name }) => name), spare: rows.length - pivots.length }
}

function sumOf(value: Algebraic, term: Algebraic): Algebraic | null {
  const found = algebraic('-', value, term)
  return found.kind === 'failure' ? null : found
}

function onDoubles(system: LinearSystem, complex: boolean): LinearOutcome {
  const { names, rows } = system
  const n = names.length
  const scaled = equilibrated(system)
  const whole = rows.length === n ? solvedSquare(scaled) : null
  if (whole) {
    const { x, condition } = whole
    if (!x) return { kind: 'too-large' }
    const values = names.map((_, k) => ofSort(rough(x.re[k] ?? NaN, x.im[k] ?? NaN, complex), complex))
    return { kind: 'solved', values, free: [], spare: 0, condition }
  }
  const reduced = reducedRounded(scaled)
  const { pivots, matrix } = reduced
  if (contradictsItself(reduced)) return { kind: 'contradiction', rows: contradiction(system) }
  return fromEchelon(system, pivots, (r, c) => {
    // A column c of the scaled system stands for the name times its scale.
    const by = (c === n ? 1 : 1 / (scaled.cols[c] ?? 1)) * (scaled.cols[pivots[r] ?? 0] ?? 1)
    const k = r * (n + 1) + c
    return rough((matrix.re[k] ?? 0) * by, (matrix.im[k] ?? 0) * by, complex)
  })
}

/**
 * LU with partial pivoting and one refinement (N. J. Higham, Accuracy and Stability, 2nd ed., ch. 12); `null` of
 * equations that are singular but for rounding. The solution is `null` where it is out of range.
 */
function solvedSquare({ a, b, cols }: Scaled): { readonly x: Dense | null; readonly condition: number } | null {
  const lu = decomposeLu(a)
  if (lu.singular) return null
  const condition = D.norm1(a) * D.norm1(inverseLu(lu))
  // Where so little is left of the digits, the rank decides.
  if (!(condition < 1e13) && decomposeQr(a, true).rank < a.cols) return null
  const x = solveLu(lu, b)
  const correction = solveLu(lu, residualOf(a, x, b))
  for (let k = 0; k < cols.length; k += 1) {
    const by = cols[k] ?? 1
    const [re, im] = [(x.re[k] ?? NaN) + (correction.re[k] ?? 0), (x.im[k] ?? NaN) + (correction.im[k] ?? 0)]
    if (!C.isFinite({ re: re * by, im: im * by })) return { x: null, condition }
    x.re[k] = re * by
    x.im[k] = im * by
  }
  return { x, condition }
}

/** b − A·x. */
function residualOf(a: Dense, x: Dense, b: Dense): Dense {
  const rest = D.copy(b)
  for (let r = 0; r < a.rows; r += 1)
    for (let c = 0; c < a.cols; c += 1) {
      const k = r * a.cols + c
      const [p, q, u, v] = [a.re[k] ?? 0, a.im[k] ?? 0, x.re[c] ?? 0, x.im[c] ?? 0]
      rest.re[r] = (rest.re[r] ?? 0) - (p * u - q * v)
      rest.im[r] = (rest.im[r] ?? 0) - (p * v + q * u)
    }
  return rest
}
