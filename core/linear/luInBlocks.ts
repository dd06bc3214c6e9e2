import { divide } from '../numbers/complex'
import type { Dense } from './dense'
import { pickColumns, zeros } from './dense'
import type { Lu } from './decompositions'
import type { Held, Workspace } from './kernels'
import { LARGE, ordinary, padded, part, workspaceFor } from './kernels'
import { addProduct } from './multiply'
import { work } from '../numbers/work'

/**
 * Elimination and substitution in blocks of columns, so that nearly all of the work is products of matrices.
 * G. H. Golub and C. F. Van Loan, Matrix Computations, 4th ed., algorithm 3.4.2 and section 3.1.
 */

/** Columns in a block: a multiple of four, which the kernels' products ask for. */
const BLOCK = 16

/** P·A = L·U as of `decomposeLu`; nothing where the plain loops are to do it. */
export function decomposeInBlocks(a: Dense): Lu | null {
  const space = a.rows === a.cols ? workspaceFor(a.rows, a.re.length) : null
  if (!space || !ordinary(a)) return null
  const n = a.rows
  const { run } = space
  const held = space.put(a)
  const pivots = space.room(Math.ceil(n / 2))
  const pack = space.room(8 * BLOCK)
  let singular = false
  for (let start = 0; start < n; start += BLOCK) {
    const stop = Math.min(start + BLOCK, n)
    work(2 * BLOCK * (n - start) * (n - start))
    if (run.factorPanel(held.re, held.im, held.stride, n, n, start, stop, pivots) > 0) singular = true
    if (stop === n) break
    const { re, im, stride } = held
    run.solveLower(re, im, stride, re, im, stride, start, stop, stop, n)
    const [left, top] = [part(held, stop, n, start, stop), part(held, start, stop, stop, n)]
    addProduct(space, left, top, part(held, stop, n, stop, n), pack, -1)
  }
  const order = Array.from({ length: n }, (_, k) => k)
  let sign: 1 | -1 = 1
  space.whole(pivots, n).forEach((pivot, k) => {
    if (pivot === k) return
    const kept = order[k] as number
    order[k] = order[pivot] as number
    order[pivot] = kept
    sign = sign > 0 ? -1 : 1
  })
  return { packed: space.take(held), order, sign, singular }
}

/** X with A·X = B; nothing where the plain loops are to do it. */
export function solveInBlocks({ packed, order }: Lu, b: Dense): Dense | null {
  if (packed.rows < LARGE) return null
  if (b.cols === 1) return substitute(packed, rowsInOrder(b, order))
  const space = spaceFor(packed, b.re.length)
  if (!space || !ordinary(b)) return null
  const lu = space.put(packed)
  const x = space.put(rowsInOrder(b, order))
  forward(space, lu, x, () => x.cols)
  backward(space, lu, x)
  return space.take(x)
}

/** A⁻¹ = U⁻¹·L⁻¹·P; nothing where the plain loops are to do it. */
export function invertInBlocks({ packed, order }: Lu): Dense | null {
  const space = spaceFor(packed, packed.re.length)
  if (!space) return null
  const lu = space.put(packed)
  const x = space.identity(packed.rows, packed.rows)
  // L⁻¹ is triangular, too.
  forward(space, lu, x, (stop) => stop)
  backward(space, lu, x)
  return pickColumns(space.take(x), inverted(order))
}

/** U⁻¹·L⁻¹·x for one column, in place: there is less to do than to bring the matrix to the kernels. */
function substitute(packed: Dense, x: Dense): Dense {
  const n = packed.rows
  work(4 * n * n)
  for (let r = 1; r < n; r += 1) subtractDot(packed, x, r, 0, r)
  for (let r = n - 1; r >= 0; r -= 1) {
    subtractDot(packed, x, r, r + 1, n)
    const [at, pivotRe, pivotIm] = [r * (n + 1), packed.re, packed.im]
    const pivot = { re: pivotRe[at] as number, im: pivotIm[at] as number }
    const quotient = divide({ re: x.re[r] as number, im: x.im[r] as number }, pivot)
    x.re[r] = quotient.re
    x.im[r] = quotient.im
  }
  return x
}

/** Entry r of x less the sum of its row's entries, from one to another, times theirs. */
function subtractDot({ re, im, cols: n }: Dense, x: Dense, r: number, from: number, to: number): void {
  const [xr, xi] = [x.re, x.im]
  let sumRe = 0
  let sumIm = 0
  for (let k = from; k < to; k += 1) {
    const pr = re[r * n + k] as number
    const pi = im[r * n + k] as number
    const qr = xr[k] as number
    const qi = xi[k] as number
    sumRe += pr * qr - pi * qi
    sumIm += pr * qi + pi * qr
  }
  xr[r] = (xr[r] as number) - sumRe
  xi[r] = (xi[r] as number) - sumIm
}

function spaceFor(packed: Dense, others: number): Workspace | null {
  const entries = packed.re.length + others
  return ordinary(packed) && pivotsAreOrdinary(packed) ? workspaceFor(packed.rows, entries) : null
}

function rowsInOrder(b: Dense, order: readonly number[]): Dense {
  const n = b.cols
  const result = zeros(order.length, n)
  order.forEach((from, to) => {
    result.re.set(b.re.subarray(from * n, from * n + n), to * n)
    result.im.set(b.im.subarray(from * n, from * n + n), to * n)
  })
  return result
}

function inverted(order: readonly number[]): number[] {
  const result = order.map(() => 0)
  order.forEach((from, to) => {
    result[from] = to
  })
  return result
}

/** X becomes L⁻¹·X, where the rows up to one have so many columns that are not zero. */
function forward(space: Workspace, lu: Held, x: Held, filled: (rows: number) => number): void {
  const n = lu.rows
  const pack = space.room(8 * BLOCK)
  for (let start = 0; start < n; start += BLOCK) {
    const stop = Math.min(start + BLOCK, n)
    const columns = filled(stop)
    work(BLOCK * (n - start) * columns)
    space.run.solveLower(lu.re, lu.im, lu.stride, x.re, x.im, x.stride, start, stop, 0, columns)
    if (stop === n) break
    const [left, done] = [part(lu, stop, n, start, stop), part(x, start, stop, 0, columns)]
    addProduct(space, left, done, part(x, stop, n, 0, columns), pack, -1)
  }
}

/** X becomes U⁻¹·X. */
function backward(space: Workspace, lu: Held, x: Held): void {
  const n = lu.rows
  const pack = space.room(8 * BLOCK)
  for (let start = Math.floor((n - 1) / BLOCK) * BLOCK; start >= 0; start -= BLOCK) {
    const stop = Math.min(start + BLOCK, n)
    work(BLOCK * stop * x.cols)
    space.run.solveUpper(lu.re, lu.im, lu.stride, x.re, x.im, x.stride, start, stop, padded(x.cols))
    if (start === 0) break
    const [above, done] = [part(lu, 0, start, start, stop), part(x, start, stop, 0, x.cols)]
    addProduct(space, above, done, part(x, 0, start, 0, x.cols), pack, -1)
  }
}

/** The reciprocal of every pivot is within the range, too. */
function pivotsAreOrdinary({ re, im, rows }: Dense): boolean {
  for (let k = 0; k < rows; k += 1) {
    const at = k * (rows + 1)
    if (!(Math.abs(re[at] as number) + Math.abs(im[at] as number) >= 1e-200)) return false
  }
  return true
}
