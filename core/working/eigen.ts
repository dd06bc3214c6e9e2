import { algebraMatrix, algebraDeterminant } from '../algebra/polyMatrix'
import { algebraic, parts, unknownValue } from '../algebra/ratio'
import type { Algebraic } from '../algebra/ratio'
import * as P from '../algebra/polynomial'
import * as C from '../numbers/complex'
import * as A from '../values/arithmetic'
import { integer } from '../values/make'
import { asMatrix } from '../values/matrices'
import { bare } from '../values/quantity'
import type { MatrixValue, NumberValue, Value } from '../values/types'
import { eliminated, entryAt, freeColumns } from './elimination'
import { rowsOf, tellElimination } from './matrices'
import { rationalRoot, rootSteps } from './polynomials'
import { equation, isZero, negated, numberOr, valued, whole } from './terms'
import type { Done, Progress } from './work'
import * as N from '../notation/nodes'
import { formatNumber } from '../format/number'

/** Eigenvalues and eigenvectors as they are found by hand, up to 3 × 3. */

const ORDER_MOST = 3
const LAMBDA = 'lambda'

/** eigenvalues(A). */
export function eigenvalues(p: Progress): Done | null {
  const m = squareIn(p)
  if (!m) return p.done('eigenvalues-are-roots')
  if (m.rows > ORDER_MOST || p.hasUnits) return p.done('numerically', undefined, { says: numericSaid(p, m) })
  characteristic(p, m)
  return p.done('eigenvalues-are-roots')
}

/** eigenvectors(A), eigenpairs(A). */
export function eigenvectors(p: Progress): Done | null {
  const m = squareIn(p)
  if (!m) return p.done('eigenvectors-scaled')
  if (m.rows > ORDER_MOST || p.hasUnits) return p.done('numerically', undefined, { says: numericSaid(p, m) })
  characteristic(p, m)
  for (const value of distinct(valuesOf(p, m))) nullSteps(p, m, value)
  return p.done('eigenvectors-scaled')
}

/** charpoly(A). */
export function characteristicPolynomial(p: Progress): Done | null {
  const m = squareIn(p)
  if (m && m.rows <= ORDER_MOST && !p.hasUnits) {
    const shifted = lambdaMatrix(m)
    if (shifted) p.aside('characteristic-matrix', { kind: 'equation', node: equation(N.bars(valued(shifted), false, 0, 0), whole(0)) }, '⇔') // prettier-ignore
  }
  return p.done('characteristic-polynomial')
}

function squareIn(p: Progress): MatrixValue | null {
  const m = asMatrix(bare(p.operand(0).value))
  return m && m.rows === m.cols && m.rows > 0 ? m : null
}

/** A − λE. */
function lambdaMatrix(m: MatrixValue): Value | null {
  const items: Algebraic[] = []
  for (const [r, row] of rowsOf(m).entries())
    for (const [c, z] of row.entries()) {
      const entry = r === c ? algebraic('-', z, unknownValue(LAMBDA)) : z
      if (entry.kind === 'failure') return null
      items.push(entry)
    }
  const found = algebraMatrix(m.rows, m.cols, items)
  return found.kind === 'failure' ? null : found
}

function characteristic(p: Progress, m: MatrixValue): void {
  const shifted = lambdaMatrix(m)
  if (shifted?.kind !== 'algebra-matrix') return
  const zero = whole(0)
  p.aside(
    'characteristic-matrix',
    { kind: 'equation', node: equation(N.bars(valued(shifted), false, 0, 0), zero) },
    '⇔',
  )
  const found = algebraDeterminant(shifted)
  if (found.kind === 'failure') return
  p.aside('characteristic-polynomial', { kind: 'equation', node: equation(valued(found), zero) }, '⇔')
  const { top } = parts(found)
  const turned = m.rows % 2 === 1 ? P.negate(top) : top
  rootSteps(p, turned, m.rows % 2 === 0)
}

/** The eigenvalues of the result, exact where the matrix is and they are rational. */
function valuesOf(p: Progress, m: MatrixValue): readonly NumberValue[] {
  const { value } = p.work.tools.see(N.apply('eigenvalues', true, null, [valued(bare(p.operand(0).value))], 0, 0))
  const items = value.kind === 'vector' ? value.items.flatMap((z) => (z.kind === 'number' ? [z] : [])) : []
  const exact = rationalEigenvalues(m)
  return items.map((z) => exact.find((q) => C.abs({ re: q.re - z.re, im: z.im }) <= 1e-6 * Math.max(1, C.abs(z))) ?? z)
}

function rationalEigenvalues(m: MatrixValue): readonly NumberValue[] {
  const shifted = lambdaMatrix(m)
  const found = shifted?.kind === 'algebra-matrix' ? algebraDeterminant(shifted) : null
  let rest = found && found.kind !== 'failure' ? parts(found).top : null
  const roots: NumberValue[] = []
  while (rest && P.degree(rest) > 0) {
    const list = P.coefficients(rest)
    const root = list && (isZero(list.at(-1) ?? integer(1)) ? integer(0) : rationalRoot(list))
    if (!root) break
    roots.push(root)
    const next = P.divide(rest, P.fromCoefficients(LAMBDA, [integer(1), negated(root)]))
    rest = 'kind' in next ? null : next.quotient
  }
  return roots
}

function distinct(values: readonly NumberValue[]): readonly NumberValue[] {
  const found: NumberValue[] = []
  for (const z of values)
    if (!found.some((w) => C.abs({ re: w.re - z.re, im: w.im - z.im }) <= 1e-6 * Math.max(C.abs(z), C.abs(w)))) found.push(z) // prettier-ignore
  return found
}

/** (A − λE)·v = 0, reduced. */
function nullSteps(p: Progress, m: MatrixValue, value: NumberValue): void {
  const rows = rowsOf(m).map((row, r) => row.map((z, c) => (r === c ? numberOr(A.subtract(z, value)) : z)))
  const says = `λ = ${formatNumber(value, p.conventions)}`
  p.rows('eigenvector-of', rows, m.cols, null, says)
  const now = tellElimination(p, rows, eliminated(rows, m.cols, true, SINGULAR), m.cols)
  p.rows('nullspace', now, m.cols, null, `Free: component ${freeColumns(now, m.cols).join(', ')}.`)
}

/** A rounded A − λE is singular within this share of its largest entry. */
const SINGULAR = 1e-7

/** Above 3 × 3: what was done, and the residual. */
function numericSaid(p: Progress, m: MatrixValue): string {
  const pairs = p.work.tools.see(N.apply('eigenpairs', true, null, [valued(m)], 0, 0)).value
  const values = pairs.kind === 'parts' ? pairs.parts.get('values') : undefined
  const vectors = pairs.kind === 'parts' ? pairs.parts.get('vectors') : undefined
  const method = 'By the shifted QR iteration on the Hessenberg form.'
  const all = vectors && asMatrix(vectors)
  if (!all || values?.kind !== 'vector') return method
  const rows = rowsOf(m)
  const columns = rowsOf(all)
  let worst = 0
  for (let k = 0; k < all.cols; k += 1) {
    const item = values.items[k]
    if (item?.kind !== 'number') return method
    for (const row of rows) {
      const image = row.reduce((total, z, c) => C.add(total, C.multiply(z, entryAt(columns, c, k))), z0)
      const r = rows.indexOf(row)
      const wanted = C.multiply(item, entryAt(columns, r, k))
      worst = Math.max(worst, C.abs({ re: image.re - wanted.re, im: image.im - wanted.im }))
    }
  }
  return `${method} ‖A·v − λ·v‖ is at most ${worst.toExponential(1)}.`
} // prettier-ignore

const z0 = { re: 0, im: 0 }
