import type { Complex } from '../numbers/complex'
import * as C from '../numbers/complex'
import { complexTimesPowerOfTwo } from '../numbers/scale'
import type { Dense } from './dense'
import { copy, identity, zeros } from './dense'
import type { Lu } from './decompositions'
import { decomposeInBlocks, invertInBlocks, solveInBlocks } from './luInBlocks'
import { exponentFor } from './scaling'
import { work } from '../numbers/work'

/**
 * LU decomposition with partial pivoting by |re| + |im|, row by row.
 * G. H. Golub and C. F. Van Loan, Matrix Computations, 4th ed., algorithm 3.4.1.
 * Cost: 8n³/3 floating operations.
 */
export function decomposeLu(a: Dense): Lu {
  return decomposeInBlocks(a) ?? decomposeByRows(a)
}

function decomposeByRows(a: Dense): Lu {
  const packed = copy(a)
  const { re, im, rows: n, cols } = packed
  const order = Array.from({ length: n }, (_, k) => k)
  let sign: 1 | -1 = 1
  let singular = n !== cols
  const steps = Math.min(n, cols)
  for (let k = 0; k < steps; k += 1) {
    work(2 * (n - k) * (cols - k))
    let pivot = k
    let most = -1
    for (let r = k; r < n; r += 1) {
      const size = Math.abs(re[r * cols + k] as number) + Math.abs(im[r * cols + k] as number)
      if (size > most) {
        most = size
        pivot = r
      }
    }
    if (most === 0) {
      singular = true
      continue
    }
    if (pivot !== k) {
      swapRows(packed, k, pivot)
      const kept = order[k] as number
      order[k] = order[pivot] as number
      order[pivot] = kept
      sign = sign > 0 ? -1 : 1
    }
    const top: Complex = { re: re[k * cols + k] as number, im: im[k * cols + k] as number }
    for (let r = k + 1; r < n; r += 1) {
      const at = r * cols + k
      if (re[at] === 0 && im[at] === 0) continue
      const f = C.divide({ re: re[at] as number, im: im[at] as number }, top)
      re[at] = f.re
      im[at] = f.im
      subtractRow(packed, r, k, f.re, f.im, k + 1)
    }
  }
  return { packed, order, sign, singular }
}

function swapRows({ re, im, cols }: Dense, a: number, b: number): void {
  for (let j = 0; j < cols; j += 1) {
    const [x, y] = [re[a * cols + j] as number, im[a * cols + j] as number]
    re[a * cols + j] = re[b * cols + j] as number
    im[a * cols + j] = im[b * cols + j] as number
    re[b * cols + j] = x
    im[b * cols + j] = y
  }
}

/** Row r less f times row k, from a column on. */
function subtractRow({ re, im, cols }: Dense, r: number, k: number, fr: number, fi: number, from: number): void {
  const to = r * cols
  const other = k * cols
  if (fi === 0) {
    for (let j = from; j < cols; j += 1) {
      re[to + j] = (re[to + j] as number) - fr * (re[other + j] as number)
      im[to + j] = (im[to + j] as number) - fr * (im[other + j] as number)
    }
    return
  }
  for (let j = from; j < cols; j += 1) {
    const xr = re[other + j] as number
    const xi = im[other + j] as number
    re[to + j] = (re[to + j] as number) - (fr * xr - fi * xi)
    im[to + j] = (im[to + j] as number) - (fr * xi + fi * xr)
  }
}

/** Row r less f times row k and g times row k + 1, in the columns from one to another. */
function subtractTwoRows(
  { re, im, cols }: Dense,
  r: number,
  k: number,
  fr: number,
  fi: number,
  gr: number,
  gi: number,
  from: number,
  end: number,
): void {
  const to = r * cols
  const first = k * cols
  const second = first + cols
  for (let j = from; j < end; j += 1) {
    const xr = re[first + j] as number
    const xi = im[first + j] as number
    const yr = re[second + j] as number
    const yi = im[second + j] as number
    re[to + j] = (re[to + j] as number) - (fr * xr - fi * xi + gr * yr - gi * yi)
    im[to + j] = (im[to + j] as number) - (fr * xi + fi * xr + gr * yi + gi * yr)
  }
}

/** Row r of x less the rows from one to another times their factors in the packed decomposition. */
function subtractRows(
  packed: Dense,
  x: Dense,
  r: number,
  start: number,
  stop: number,
  from: number,
  end: number,
): void {
  const n = packed.cols
  const { re, im } = packed
  let k = start
  for (; k + 1 < stop; k += 2) {
    const at = r * n + k
    subtractTwoRows(x, r, k, re[at] as number, im[at] as number, re[at + 1] as number, im[at + 1] as number, from, end)
  }
  if (k < stop) subtractRow(x, r, k, re[r * n + k] as number, im[r * n + k] as number, from)
}

/** X with A·X = B, by forward and back substitution on whole rows of B. */
export function solveLu(lu: Lu, b: Dense): Dense {
  return solveInBlocks(lu, b) ?? solveByRows(lu, b)
}

function solveByRows({ packed, order }: Lu, b: Dense): Dense {
  const n = packed.rows
  const x = zeros(n, b.cols)
  order.forEach((from, to) => {
    for (let j = 0; j < b.cols; j += 1) {
      x.re[to * b.cols + j] = b.re[from * b.cols + j] as number
      x.im[to * b.cols + j] = b.im[from * b.cols + j] as number
    }
  })
  for (let r = 1; r < n; r += 1) {
    work(2 * r * b.cols)
    subtractRows(packed, x, r, 0, r, 0, b.cols)
  }
  backSubstitute(packed, x)
  return x
}

/** Solves U·X = X in place. */
function backSubstitute(packed: Dense, x: Dense): void {
  const n = packed.rows
  for (let r = n - 1; r >= 0; r -= 1) {
    work(2 * (n - r) * x.cols)
    subtractRows(packed, x, r, r + 1, n, 0, x.cols)
    const pivot: Complex = { re: packed.re[r * n + r] as number, im: packed.im[r * n + r] as number }
    const inverse = C.divide({ re: 1, im: 0 }, pivot)
    const usable = C.isFinite(inverse) && (inverse.re !== 0 || inverse.im !== 0)
    for (let j = 0; j < x.cols; j += 1) {
      const at = r * x.cols + j
      const entry = { re: x.re[at] as number, im: x.im[at] as number }
      const quotient = usable ? C.multiply(entry, inverse) : C.divide(entry, pivot)
      x.re[at] = quotient.re
      x.im[at] = quotient.im
    }
  }
}

export function determinantLu({ packed, sign }: Lu): Complex {
  // Near the ends of the range a power of two is put aside: only the whole product counts.
  let value: Complex = { re: sign, im: 0 }
  let exponent = 0
  for (let k = 0; k < packed.rows; k += 1) {
    const at = k * packed.cols + k
    const entry = { re: packed.re[at] as number, im: packed.im[at] as number }
    const [ofValue, ofEntry] = [putAside(value), putAside(entry)]
    exponent += ofValue + ofEntry
    value = C.multiply(complexTimesPowerOfTwo(value, -ofValue), complexTimesPowerOfTwo(entry, -ofEntry))
  }
  return complexTimesPowerOfTwo(value, exponent)
}

function putAside(z: Complex): number {
  return exponentFor(Math.max(Math.abs(z.re), Math.abs(z.im)))
}

/** A⁻¹ = U⁻¹·L⁻¹·P. */
export function inverseLu(lu: Lu): Dense {
  return invertInBlocks(lu) ?? inverseByRows(lu)
}

/** L⁻¹ is triangular, too, which saves a third of the work. */
function inverseByRows({ packed, order }: Lu): Dense {
  const n = packed.rows
  const x = identity(n)
  for (let r = 1; r < n; r += 1) {
    work(2 * r * r)
    for (let k = 0; k + 1 < r; k += 2) {
      const at = r * n + k
      const [fr, fi] = [packed.re[at] as number, packed.im[at] as number]
      subtractTwoRows(x, r, k, fr, fi, packed.re[at + 1] as number, packed.im[at + 1] as number, 0, k + 2)
    }
    if (r % 2 === 1) subtractRow(x, r, r - 1, packed.re[r * n + r - 1] as number, packed.im[r * n + r - 1] as number, 0)
  }
  backSubstitute(packed, x)
  const result = zeros(n, n)
  order.forEach((to, from) => {
    for (let r = 0; r < n; r += 1) {
      result.re[r * n + to] = x.re[r * n + from] as number
      result.im[r * n + to] = x.im[r * n + from] as number
    }
  })
  return result
}
