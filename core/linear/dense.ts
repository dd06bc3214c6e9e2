/** A dense complex matrix of doubles, row by row: the form that floating linear algebra works on. */
export interface Dense {
  readonly rows: number
  readonly cols: number
  readonly re: Float64Array
  readonly im: Float64Array
}

export function zeros(rows: number, cols: number): Dense {
  return { rows, cols, re: new Float64Array(rows * cols), im: new Float64Array(rows * cols) }
}

export function identity(n: number): Dense {
  const result = zeros(n, n)
  for (let k = 0; k < n; k += 1) result.re[k * n + k] = 1
  return result
}

export function copy(a: Dense): Dense {
  return { rows: a.rows, cols: a.cols, re: a.re.slice(), im: a.im.slice() }
}

export function isReal(a: Dense): boolean {
  const { im } = a
  for (let k = 0; k < im.length; k += 1) if (im[k] !== 0) return false
  return true
}

export function isFinite(a: Dense): boolean {
  const { re, im } = a
  // x − x is 0 for every finite x and NaN for the others.
  for (let k = 0; k < re.length; k += 1) {
    const x = re[k] as number
    const y = im[k] as number
    if (x - x !== 0 || y - y !== 0) return false
  }
  return true
}

/** Aᵀ, or Aᴴ with `conjugate`. */
export function transpose(a: Dense, conjugate = false): Dense {
  const result = zeros(a.cols, a.rows)
  const sign = conjugate ? -1 : 1
  for (let r = 0; r < a.rows; r += 1) {
    for (let c = 0; c < a.cols; c += 1) {
      const from = r * a.cols + c
      const to = c * a.rows + r
      result.re[to] = a.re[from] ?? 0
      result.im[to] = sign * (a.im[from] ?? 0) + 0
    }
  }
  return result
}

/** True where A = Aᴴ to the last digit. */
export function isHermitian(a: Dense): boolean {
  if (a.rows !== a.cols) return false
  const n = a.rows
  for (let r = 0; r < n; r += 1) {
    for (let c = r; c < n; c += 1) {
      if (a.re[r * n + c] !== a.re[c * n + r] || a.im[r * n + c] !== -(a.im[c * n + r] ?? 0)) return false
    }
  }
  return true
}

/** The largest real or imaginary part. */
export function largestPart({ re, im }: Dense): number {
  let most = 0
  for (let k = 0; k < re.length; k += 1) most = Math.max(most, Math.abs(re[k] as number), Math.abs(im[k] as number))
  return most
}

/** The largest |entry|. */
export function largest(a: Dense): number {
  let most = 0
  for (let k = 0; k < a.re.length; k += 1) most = Math.max(most, Math.hypot(a.re[k] ?? 0, a.im[k] ?? 0))
  return most
}

/** The 1-norm: the largest sum of magnitudes of a column. */
export function norm1(a: Dense): number {
  let most = 0
  for (let c = 0; c < a.cols; c += 1) {
    let sum = 0
    for (let r = 0; r < a.rows; r += 1) sum += Math.hypot(a.re[r * a.cols + c] ?? 0, a.im[r * a.cols + c] ?? 0)
    most = Math.max(most, sum)
  }
  return most
}

/** The Frobenius norm, without overflow in between. */
export function normF(a: Dense): number {
  const scale = largest(a)
  if (scale === 0 || !Number.isFinite(scale)) return scale
  let sum = 0
  for (let k = 0; k < a.re.length; k += 1) sum += ((a.re[k] ?? 0) / scale) ** 2 + ((a.im[k] ?? 0) / scale) ** 2
  return scale * Math.sqrt(sum)
}

/** α·A + β·B for real α and β. */
export function combine(alpha: number, a: Dense, beta: number, b: Dense): Dense {
  const result = zeros(a.rows, a.cols)
  for (let k = 0; k < a.re.length; k += 1) {
    result.re[k] = alpha * (a.re[k] ?? 0) + beta * (b.re[k] ?? 0)
    result.im[k] = alpha * (a.im[k] ?? 0) + beta * (b.im[k] ?? 0)
  }
  return result
}

/** The columns of A in another order. */
export function pickColumns(a: Dense, order: readonly number[]): Dense {
  const result = zeros(a.rows, order.length)
  for (let r = 0; r < a.rows; r += 1) {
    order.forEach((from, to) => {
      result.re[r * order.length + to] = a.re[r * a.cols + from] ?? 0
      result.im[r * order.length + to] = a.im[r * a.cols + from] ?? 0
    })
  }
  return result
}
