import { decomposeQr } from '../linear/qr'
import { decomposeSvd } from '../linear/svd'
import * as D from '../linear/dense'
import type { Dense } from '../linear/dense'
import { multiply as timesDense } from '../linear/multiply'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { work } from '../numbers/work'
import { lcmBig } from '../numbers/divisors'
import { toDyadic } from '../numbers/dyadic'
import type { MatrixValue } from '../values/types'
import * as W from './whole'
import type { Whole } from './whole'

/**
 * State descriptions x′ = A·x + B·u, y = C·x + D·u, worked out with whole numbers over one denominator: rounded entries
 * count as the doubles that they are, and nothing of what follows is rounded until it is shown.
 */
export interface WholeMatrix {
  readonly rows: number
  readonly cols: number
  readonly entries: readonly bigint[]
  /** What the entries are divided by. */
  readonly over: bigint
}

/** A real matrix of finite numbers; `null` of others. */
export function wholeMatrix({ rows, cols, dense, exact }: MatrixValue): WholeMatrix | null {
  const fractions: Rational[] = []
  for (let k = 0; k < rows * cols; k += 1) {
    const z = exact?.entries[k]
    if (z ? !Q.isZero(z.im) : dense.im[k] !== 0) return null
    const q = z ? z.re : toDyadic(dense.re[k] ?? NaN)
    if (!q) return null
    fractions.push(q)
  }
  const { whole, denominator } = W.overOne(fractions)
  return { rows, cols, entries: whole, over: denominator }
}

const at = (m: WholeMatrix, r: number, c: number): bigint => m.entries[r * m.cols + c] ?? 0n

export function product(a: WholeMatrix, b: WholeMatrix): WholeMatrix {
  work(40 * a.rows * a.cols * b.cols)
  const entries: bigint[] = []
  for (let r = 0; r < a.rows; r += 1)
    for (let c = 0; c < b.cols; c += 1) {
      let sum = 0n
      for (let k = 0; k < a.cols; k += 1) sum += at(a, r, k) * at(b, k, c)
      entries.push(sum)
    }
  return { rows: a.rows, cols: b.cols, entries, over: a.over * b.over }
}

export function transposed(m: WholeMatrix): WholeMatrix {
  const entries = Array.from({ length: m.entries.length }, (_, k) => at(m, k % m.rows, Math.floor(k / m.rows)))
  return { rows: m.cols, cols: m.rows, entries, over: m.over }
}

/** The entry as a fraction; `null` where it outgrew their budget. */
export const fraction = (m: WholeMatrix, r: number, c: number): Rational | null => Q.fromBig(at(m, r, c), m.over)

/**
 * det(sI − A) and the numerators of C·adj(sI − A)·B + D·det(sI − A), all over one denominator (D. K. Faddeev's and
 * U. J. J. Le Verrier's method; F. Gantmacher, "The Theory of Matrices", vol. 1, chapter IV).
 */
export function transferOfState(
  a: WholeMatrix,
  b: WholeMatrix,
  c: WholeMatrix,
  d: WholeMatrix,
): { readonly bottom: Whole; readonly tops: readonly (readonly Whole[])[]; readonly over: bigint } {
  const n = a.rows
  // With A = A₁/q the characteristic polynomial in σ = q·s is that of whole numbers.
  const q = a.over
  const whole: WholeMatrix = { ...a, over: 1n }
  let power: WholeMatrix = identity(n)
  const charpoly: bigint[] = [1n]
  // The coefficient of σ^(n − 1 − k) of C·adj·B.
  const numerators: WholeMatrix[] = []
  for (let k = 1; k <= n; k += 1) {
    numerators.push(product(product({ ...c, over: 1n }, power), { ...b, over: 1n }))
    const next = product(whole, power)
    let trace = 0n
    for (let i = 0; i < n; i += 1) trace += at(next, i, i)
    const coefficient = -trace / BigInt(k)
    charpoly.push(coefficient)
    power = { ...next, entries: next.entries.map((x, i) => (i % (n + 1) === 0 ? x + coefficient : x)) }
  }
  // σ = q·s; the adjugate of sI − A is that of σI − A₁ over q^(n − 1), the determinant over qⁿ.
  const inS = (list: readonly bigint[], degree: number): Whole =>
    list.map((x, k) => x * q ** BigInt(degree - k)).reverse()
  const bottom = inS(charpoly, n)
  const join = c.over * b.over
  const tops = Array.from({ length: c.rows }, (_, r) =>
    Array.from({ length: b.cols }, (__, i) => {
      const list = numerators.map((m) => at(m, r, i))
      // Over qⁿ as the determinant is: one more q.
      const dynamic = W.times(W.trimmed(inS(list, n - 1)), q * d.over)
      const direct = W.times(bottom, at(d, r, i) * join)
      return W.add(dynamic, direct)
    }),
  )
  return { bottom: W.times(bottom, join * d.over), tops, over: 1n }
}

function identity(n: number): WholeMatrix {
  const entries = Array.from({ length: n * n }, (_, k) => (k % (n + 1) === 0 ? 1n : 0n))
  return { rows: n, cols: n, entries, over: 1n }
}

/** [B, AB, A²B, …]. */
export function krylov(a: WholeMatrix, b: WholeMatrix): WholeMatrix {
  const blocks: WholeMatrix[] = [b]
  for (let k = 1; k < a.rows; k += 1) blocks.push(product(a, blocks[k - 1] ?? b))
  const over = blocks.reduce((so, block) => lcmBig(so, block.over), 1n)
  const entries: bigint[] = []
  for (let r = 0; r < a.rows; r += 1)
    for (const block of blocks) for (let c = 0; c < b.cols; c += 1) entries.push(at(block, r, c) * (over / block.over))
  return { rows: a.rows, cols: a.rows * b.cols, entries, over }
}

/** The rank, exactly, by elimination without fractions. */
export function rankOf(m: WholeMatrix): number {
  let rows = Array.from({ length: m.rows }, (_, r) => [...W.primitive(m.entries.slice(r * m.cols, (r + 1) * m.cols))])
  let rank = 0
  for (let c = 0; c < m.cols && rank < rows.length; c += 1) {
    const pivot = rows.findIndex((row, r) => r >= rank && row[c] !== 0n)
    if (pivot < 0) continue
    const lead = rows[pivot] ?? []
    rows = [...rows.slice(0, rank), lead, ...rows.slice(rank).filter((row) => row !== lead)]
    const top = lead[c] ?? 1n
    rows = rows.map((row, r) => {
      const factor = row[c] ?? 0n
      if (r <= rank || factor === 0n) return row
      work(20 * m.cols)
      return [...W.primitive(row.map((x, i) => x * top - factor * (lead[i] ?? 0n)))]
    })
    rank += 1
  }
  return rank
}

/**
 * The rank of [B, AB, …] of rounded matrices, without its powers: the stairs of orthogonal changes of the state, each
 * judged after the scales of the states are evened out (C. C. Paige, IEEE Trans. AC 26, 1981).
 */
export function staircaseRank(a: Dense, b: Dense): number {
  const [scaledA, scaledB] = evened(a, b)
  let [state, input] = [scaledA, scaledB]
  const size = Math.max(D.normF(scaledA), D.normF(scaledB))
  // How far the blocks that are left may be off: a direction that is known from little is known less well.
  let off = size * a.rows * 4 * Number.EPSILON
  let reached = 0
  for (let left = a.rows; left > 0;) {
    const { left: u, singular } = columnsOf(input)
    const kept = singular.filter((s) => s > off)
    const rank = kept.length
    if (rank === 0) return reached
    off *= 1 + size / Math.min(...kept)
    reached += rank
    if (rank >= left) return a.rows
    const basis = filledUp(u, rank, left)
    const turned = timesDense(timesDense(D.transpose(basis, true), state), basis)
    left -= rank
    state = block(turned, rank, rank, left, left)
    input = block(turned, rank, 0, left, rank)
  }
  return reached
}

/** The directions that the columns span, and how far each reaches. */
function columnsOf(m: Dense): { readonly left: Dense; readonly singular: readonly number[] } {
  if (m.rows >= m.cols) return decomposeSvd(m)
  const { right, singular } = decomposeSvd(D.transpose(m, true))
  return { left: right, singular }
}

/** An orthonormal basis whose first columns span those of U. */
function filledUp(u: Dense, rank: number, n: number): Dense {
  const first = D.pickColumns(
    u,
    Array.from({ length: rank }, (_, k) => k),
  )
  const wide = D.zeros(n, rank + n)
  for (let r = 0; r < n; r += 1) {
    for (let c = 0; c < rank; c += 1) {
      wide.re[r * (rank + n) + c] = first.re[r * rank + c] ?? 0
      wide.im[r * (rank + n) + c] = first.im[r * rank + c] ?? 0
    }
    wide.re[r * (rank + n) + rank + r] = 1
  }
  const { q } = decomposeQr(wide, false)
  return D.pickColumns(
    q,
    Array.from({ length: n }, (_, k) => k),
  )
}

function block(m: Dense, r0: number, c0: number, rows: number, cols: number): Dense {
  const part = D.zeros(rows, cols)
  for (let r = 0; r < rows; r += 1)
    for (let c = 0; c < cols; c += 1) {
      part.re[r * cols + c] = m.re[(r0 + r) * m.cols + c0 + c] ?? 0
      part.im[r * cols + c] = m.im[(r0 + r) * m.cols + c0 + c] ?? 0
    }
  return part
}

/** Rows and columns of the states brought to one size, by powers of 2; the inputs too. */
function evened(a: Dense, b: Dense): readonly [Dense, Dense] {
  const n = a.rows
  const [x, y] = [D.copy(a), D.copy(b)]
  for (let round = 0; round < 20; round += 1) {
    let done = true
    for (let k = 0; k < n; k += 1) {
      let [row, col] = [0, 0]
      for (let i = 0; i < n; i += 1) {
        if (i === k) continue
        row += Math.abs(x.re[k * n + i] ?? 0)
        col += Math.abs(x.re[i * n + k] ?? 0)
      }
      for (let i = 0; i < b.cols; i += 1) row += Math.abs(y.re[k * b.cols + i] ?? 0)
      if (row === 0 || col === 0) continue
      const factor = 2 ** Math.round(Math.log2(col / row) / 2)
      if (factor === 1) continue
      done = false
      for (let i = 0; i < n; i += 1) {
        x.re[k * n + i] = (x.re[k * n + i] ?? 0) * factor
        x.re[i * n + k] = (x.re[i * n + k] ?? 0) / factor
      }
      for (let i = 0; i < b.cols; i += 1) y.re[k * b.cols + i] = (y.re[k * b.cols + i] ?? 0) * factor
    }
    if (done) break
  }
  const [sizeA, sizeB] = [D.normF(x), D.normF(y)]
  const even = sizeA > 0 && sizeB > 0 ? 2 ** Math.round(Math.log2(sizeA / sizeB)) : 1
  return [x, { ...y, re: y.re.map((v) => v * even) }]
}

/**
 * The row K with det(sI − A + B·K) = p, by J. Ackermann's formula K = eₙᵀ·[B, AB, …]⁻¹·p(A) (1972), which is poor in
 * doubles and exact here; `null` where the system is not controllable.
 */
export function placement(a: WholeMatrix, b: WholeMatrix, p: Whole, over: bigint): readonly Rational[] | null {
  const n = a.rows
  const matrix = krylov(a, b)
  const row = lastRowOfInverse(matrix, n)
  if (!row) return null
  // eₙᵀ·C⁻¹·p(A), by Horner's rule on the row: the coefficients of p are over one number.
  let sum: WholeMatrix = { rows: 1, cols: n, entries: Array.from({ length: n }, () => 0n), over: 1n }
  const last: WholeMatrix = { rows: 1, cols: n, entries: row.entries, over: row.over }
  for (let k = n; k >= 0; k -= 1) {
    const moved = product(sum, a)
    const c = W.coefficient(p, k)
    const common = lcmBig(moved.over, last.over * over)
    sum = {
      ...last,
      entries: moved.entries.map(
        (x, i) => x * (common / moved.over) + c * (last.entries[i] ?? 0n) * (common / (last.over * over)),
      ),
      over: common,
    }
  }
  const found = Array.from({ length: n }, (_, k) => rounded(sum.entries[k] ?? 0n, sum.over))
  return found
}

/** A quotient of whole numbers of any size, as near as a fraction that is kept can be. */
function rounded(n: bigint, d: bigint): Rational {
  const exact = Q.fromBig(n, d)
  if (exact) return exact
  const shift = BigInt(Math.max(0, Q.bitLength(d) - Q.bitLength(n < 0n ? -n : n) + 200))
  return Q.fromBig((n << shift) / d, 1n << shift) ?? Q.ZERO
}

/** x with x·M = (0, …, 0, 1), by elimination without fractions on Mᵀ·xᵀ = eₙ. */
function lastRowOfInverse(
  m: WholeMatrix,
  n: number,
): { readonly entries: readonly bigint[]; readonly over: bigint } | null {
  let rows = Array.from({ length: n }, (_, r) => [
    ...Array.from({ length: n }, (__, c) => at(m, c, r)),
    r === n - 1 ? m.over : 0n,
  ])
  let before = 1n
  for (let k = 0; k < n; k += 1) {
    const pivot = rows.findIndex((row, r) => r >= k && row[k] !== 0n)
    if (pivot < 0) return null
    const lead = rows[pivot] ?? []
    rows = [...rows.slice(0, k), lead, ...rows.slice(k).filter((row) => row !== lead)]
    const top = lead[k] ?? 1n
    const step = before
    rows = rows.map((row, r) => {
      if (r === k) return row
      work(40 * n)
      return row.map((x, i) => (x * top - (row[k] ?? 0n) * (lead[i] ?? 0n)) / step)
    })
    before = top
  }
  // Every row is (…, pivot, …, right): all pivots are the determinant by now.
  const entries = rows.map((row, r) => ((row[n] ?? 0n) * before) / (row[r] ?? 1n))
  return { entries, over: before }
}
