import type { Rotations } from './bidiagonal'
import { iterateBidiagonal } from './bidiagonal'
import type { Svd } from './decompositions'
import type { Dense } from './dense'
import { isReal, pickColumns, transpose } from './dense'
import type { Held, Workspace } from './kernels'
import { ordinary, workspaceFor } from './kernels'
import { reflectionOf } from './reflection'
import { work } from '../numbers/work'

/**
 * The singular value decomposition of a large matrix of m ≥ n: reflections from both sides to a real bidiagonal
 * matrix (G. H. Golub and W. Kahan, SIAM J. Numer. Anal. 2, 1965), then the iteration on that, whose rotations turn
 * the rows of Qᵀ and Pᵀ. A = Q·B·Pᴴ. The values are exact to rounding beside the largest one. Cost: about 8n³ complex
 * operations. Nothing where the rotations of whole columns are to do it.
 */
export function decomposeByBidiagonal(a: Dense): Svd | null {
  const space = workspaceFor(a.cols, a.re.length)
  if (!space || !ordinary(a) || isGraded(a)) return null
  const { diagonal, beside, left, right } = bidiagonalize(space, a)
  const real = isReal(a)
  const n = a.cols
  const cosines = space.room(n)
  const sines = space.room(n)
  const turn = (held: Held, { first, count, backward, ...by }: Rotations): void => {
    space.doubles(cosines, count).set(by.cosines.subarray(0, count))
    space.doubles(sines, count).set(by.sines.subarray(0, count))
    for (const plane of real ? [held.re] : [held.re, held.im]) {
      space.run.rotateRows(plane, held.stride, held.cols, first, count, cosines, sines, backward)
    }
  }
  const converged = iterateBidiagonal(diagonal, beside, (ofLeft, ofRight) => {
    work(12 * ofLeft.count * (left.cols + right.cols))
    turn(left, ofLeft)
    turn(right, ofRight)
  })
  return converged ? inOrder(diagonal, transpose(space.take(left)), transpose(space.take(right))) : null
}

/** Rows or columns whose sizes are this far apart keep more digits of small values in the other method. */
const GRADED = 1e6

function isGraded({ re, im, rows, cols }: Dense): boolean {
  const ofRow = new Float64Array(rows)
  const ofColumn = new Float64Array(cols)
  for (let r = 0; r < rows; r += 1) {
    for (let c = 0; c < cols; c += 1) {
      const size = Math.abs(re[r * cols + c] as number) + Math.abs(im[r * cols + c] as number)
      if (size > (ofRow[r] as number)) ofRow[r] = size
      if (size > (ofColumn[c] as number)) ofColumn[c] = size
    }
  }
  return [ofRow, ofColumn].some((sizes) => {
    const least = sizes.reduce((x, y) => (y > 0 && y < x ? y : x), Infinity)
    return sizes.reduce((x, y) => Math.max(x, y), 0) > GRADED * least
  })
}

interface Bidiagonal {
  readonly diagonal: Float64Array
  readonly beside: Float64Array
  /** The rows are the columns of Q, and of P. */
  readonly left: Held
  readonly right: Held
}

function bidiagonalize(space: Workspace, given: Dense): Bidiagonal {
  const { run } = space
  const { rows: m, cols: n } = given
  const a = space.put(given)
  // A vector of a reflection is a row, by number of row or column of A.
  const [columns, rows] = [space.zeros(n, m), space.zeros(n, n)]
  const [q, p] = [space.identity(m, n), space.identity(n, n)]
  const [sr, si] = [space.room(n + 2), space.room(n + 2)]
  const [tauLeft, tauRight] = [reflections(n), reflections(n)]
  const diagonal = new Float64Array(n)
  const beside = new Float64Array(Math.max(0, n - 1))
  const [re, im] = [space.doubles(a.re, (m * a.stride) / 8), space.doubles(a.im, (m * a.stride) / 8)]
  for (let k = 0; k < n; k += 1) {
    work(16 * (m - k) * (n - k))
    const column = vectorIn(space, columns, k)
    for (let i = k; i < m; i += 1) {
      column.re[i] = at(re, (i * a.stride) / 8 + k)
      column.im[i] = at(im, (i * a.stride) / 8 + k)
    }
    const left = reflectionOf(column.re, column.im, k)
    diagonal[k] = left.head
    tauLeft.re[k] = left.tauRe
    tauLeft.im[k] = left.tauIm
    const [vr, vi] = [rowOf(columns, columns.re, k), rowOf(columns, columns.im, k)]
    run.reflectLeft(a.re, a.im, a.stride, k, m, k + 1, n, vr, vi, left.tauRe, -left.tauIm, sr, si)
    if (k + 1 >= n) continue
    const row = vectorIn(space, rows, k)
    row.re.set(space.row(a.re, a, k).subarray(k + 1), k + 1)
    row.im.set(
      space
        .row(a.im, a, k)
        .subarray(k + 1)
        .map((x) => -x),
      k + 1,
    )
    const right = reflectionOf(row.re, row.im, k + 1)
    beside[k] = right.head
    tauRight.re[k] = right.tauRe
    tauRight.im[k] = right.tauIm
    const [wr, wi] = [rowOf(rows, rows.re, k), rowOf(rows, rows.im, k)]
    run.reflectRight(a.re, a.im, a.stride, k + 1, m, k + 1, n, wr, wi, right.tauRe, right.tauIm)
  }
  // Q and P from the reflections, backwards, on the first columns of the identity.
  for (let k = n - 1; k >= 0; k -= 1) {
    work(16 * (m - k) * (n - k))
    const [vr, vi] = [rowOf(columns, columns.re, k), rowOf(columns, columns.im, k)]
    run.reflectLeft(q.re, q.im, q.stride, k, m, k, n, vr, vi, at(tauLeft.re, k), at(tauLeft.im, k), sr, si)
    if (k + 1 >= n) continue
    const [wr, wi] = [rowOf(rows, rows.re, k), rowOf(rows, rows.im, k)]
    run.reflectLeft(p.re, p.im, p.stride, k + 1, n, k + 1, n, wr, wi, at(tauRight.re, k), at(tauRight.im, k), sr, si)
  }
  const [left, right] = [space.put(transpose(space.take(q))), space.put(transpose(space.take(p)))]
  return { diagonal, beside, left, right }
}

const at = (list: Float64Array, k: number): number => list[k] as number

function reflections(n: number) {
  return { re: new Float64Array(n), im: new Float64Array(n) }
}

function rowOf(held: Held, plane: number, row: number): number {
  return plane + row * held.stride
}

function vectorIn(space: Workspace, held: Held, row: number) {
  return { re: space.row(held.re, held, row), im: space.row(held.im, held, row) }
}

/** The values as they are to be, not negative, the largest first, with their vectors. */
function inOrder(values: Float64Array, left: Dense, right: Dense): Svd {
  const n = values.length
  const order = Array.from({ length: n }, (_, k) => k)
  order.sort((x, y) => Math.abs(at(values, y)) - Math.abs(at(values, x)))
  values.forEach((value, c) => {
    if (!(value < 0)) return
    for (let r = 0; r < n; r += 1) {
      right.re[r * n + c] = -at(right.re, r * n + c)
      right.im[r * n + c] = -at(right.im, r * n + c)
    }
  })
  return {
    left: pickColumns(left, order),
    singular: order.map((k) => Math.abs(at(values, k))),
    right: pickColumns(right, order),
  }
}
