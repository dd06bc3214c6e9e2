import * as P from '../algebra/polynomial'
import { algebraic, polynomialValue, unknownValue } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import { isZero } from '../values/beyond'
import { exactReal, integer } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, Polynomial, Value } from '../values/types'
import { realFraction } from './transfer'

/** The arrays of Routh and of Jury, with numbers or with a parameter in them; always without rounding. */

/** Coefficients in one unknown, from the highest power down, each a number or a polynomial in a parameter. */
export interface Coefficients {
  readonly list: readonly Algebraic[]
  readonly unknown: string
  readonly parameter: string | null
  /** True where no coefficient is rounded. */
  readonly exact: boolean
}

/** The unknown of a polynomial is s or z where it has several, the other being the parameter. */
export function coefficientsOf(name: string, value: Value): Coefficients | Failure {
  if (value.kind !== 'polynomial' || value.bottom)
    return value.kind === 'polynomial' ? failure('ratio-given', { name }) : failure('argument-kind', { signature: `${name}(p)`, name: 'p', needs: 'algebra', kind: value.kind }) // prettier-ignore
  const { top } = value
  const unknown = top.unknowns.length === 1 ? top.unknowns[0] : top.unknowns.find((u) => /^[sz]/.test(u))
  if (unknown === undefined || top.unknowns.length > 2)
    return failure('one-unknown-and-parameter', { name, names: top.unknowns.join(', ') })
  if (top.terms.some(({ factor }) => factor.im !== 0)) return failure('transfer-complex', { name })
  const parameter = top.unknowns.find((u) => u !== unknown) ?? null
  const exact = P.isExact(top)
  const list = byPower(top, unknown, parameter)
  return list ? { list, unknown, parameter, exact } : failure('transfer-not-finite', { name })
}

function byPower(p: Polynomial, unknown: string, parameter: string | null): readonly Algebraic[] | null {
  const place = p.unknowns.indexOf(unknown)
  const other = parameter === null ? -1 : p.unknowns.indexOf(parameter)
  const most = Math.max(...p.terms.map(({ powers }) => powers[place] ?? 0))
  const found: Polynomial[] = Array.from({ length: most + 1 }, () => P.constant(integer(0)))
  for (const { powers, factor } of p.terms) {
    const exact = exactly(factor)
    if (!exact) return null
    const term: Polynomial =
      parameter === null || other < 0
        ? P.constant(exact)
        : { unknowns: [parameter], terms: [{ powers: [powers[other] ?? 0], factor: exact }] }
    const at = most - (powers[place] ?? 0)
    const sum = P.add(found[at] ?? P.constant(integer(0)), term)
    if (P.isFailed(sum)) return null
    found[at] = sum
  }
  return found.map(polynomialValue)
}

/** A rounded number as the fraction that its double is. */
function exactly(z: NumberValue): NumberValue | null {
  if (z.exact) return z
  const q = realFraction(z)
  return q && exactReal(q)
}

export interface RouthArray {
  readonly rows: readonly (readonly Algebraic[])[]
  /** The rows, counted from 1, whose first entry was 0 and has ε in its place. */
  readonly small: readonly number[]
  /** The rows that were 0 throughout, and were replaced by the derivative of the row above as a polynomial. */
  readonly auxiliary: readonly number[]
}

export const EPSILON = 'ε'

/**
 * E. J. Routh's array (1877; G. F. Franklin, J. D. Powell and A. Emami-Naeini, "Feedback Control of Dynamic Systems",
 * chapter 3). A first entry that is 0 becomes a small ε > 0, and a row of zeros the derivative of the one above it.
 */
export function routhArray({ list }: Coefficients): RouthArray | Failure {
  const width = Math.ceil(list.length / 2)
  const row = (from: number): Algebraic[] => Array.from({ length: width }, (_, k) => list[from + 2 * k] ?? integer(0))
  const rows: Algebraic[][] = []
  const small: number[] = []
  const auxiliary: number[] = []
  for (let r = 0; r < list.length; r += 1) {
    let next: Algebraic[] | Failure = r < 2 ? row(r) : below(rows[r - 2] ?? [], rows[r - 1] ?? [], width)
    if (!Array.isArray(next)) return next
    // What stands in row r belongs to this power of the unknown.
    const power = list.length - 1 - r
    if (next.every(isNothing) && r > 0) {
      auxiliary.push(r + 1)
      next = slopes(rows[r - 1] ?? [], power + 1)
      if (!Array.isArray(next)) return next
    } else if (isNothing(next[0])) {
      small.push(r + 1)
      next = [unknownValue(EPSILON), ...next.slice(1)]
    }
    rows.push(next)
  }
  return { rows, small, auxiliary }
}

const isNothing = (x: Algebraic | undefined): boolean => x?.kind === 'number' && isZero(x)

/** (b₀·a₁ − a₀·b₁)/b₀ and so on. */
function below(above: readonly Algebraic[], last: readonly Algebraic[], width: number): Algebraic[] | Failure {
  const found: Algebraic[] = []
  const [a0 = integer(0)] = above
  const [b0 = integer(0)] = last
  for (let k = 0; k < width; k += 1) {
    const entry = crossed(b0, above[k + 1] ?? integer(0), a0, last[k + 1] ?? integer(0))
    if (entry.kind === 'failure') return entry
    const divided = algebraic('/', entry, b0)
    if (divided.kind === 'failure') return divided
    found.push(divided)
  }
  return found
}

/** a·b − c·d. */
function crossed(a: Algebraic, b: Algebraic, c: Algebraic, d: Algebraic): Algebraic | Failure {
  const left = algebraic('*', a, b)
  if (left.kind === 'failure') return left
  const right = algebraic('*', c, d)
  return right.kind === 'failure' ? right : algebraic('-', left, right)
}

/** The derivative of a row that stands for a polynomial in every second power. */
function slopes(row: readonly Algebraic[], power: number): Algebraic[] | Failure {
  const found: Algebraic[] = []
  for (const [k, entry] of row.entries()) {
    const value = algebraic('*', entry, integer(Math.max(0, power - 2 * k)))
    if (value.kind === 'failure') return value
    found.push(value)
  }
  return found
}

/**
 * E. I. Jury's array: the coefficients and the same backwards, then row after row of a₀·aₖ − aₙ·aₙ₋ₖ, until three are
 * left; written from the lowest power up.
 */
export function juryArray({ list }: Coefficients): readonly (readonly Algebraic[])[] | Failure {
  let row: Algebraic[] = [...list].reverse()
  const rows: Algebraic[][] = []
  for (;;) {
    rows.push(row)
    if (row.length <= 3) return rows
    rows.push([...row].reverse())
    const next: Algebraic[] = []
    const n = row.length - 1
    const [first = integer(0), last = integer(0)] = [row[0], row[n]]
    for (let k = 0; k < n; k += 1) {
      const entry = crossed(first, row[k] ?? integer(0), last, row[n - k] ?? integer(0))
      if (entry.kind === 'failure') return entry
      next.push(entry)
    }
    row = next
  }
}
