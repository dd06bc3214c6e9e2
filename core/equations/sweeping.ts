import { work } from '../numbers/work'
import { numberSweep } from '../values/sweeps'
import type { Axis, NumberValue, SweepValue } from '../values/types'

/** Square linear equations whose coefficients run along a sweep: solved at every point. */

export type Coefficient = NumberValue | SweepValue

/**
 * One sweep for each sought name; at a point where the equations are singular its values are undefined. Elimination
 * with partial pivoting and one refinement at each point, in arrays that are filled anew (Golub and Van Loan, Matrix
 * Computations, 4th ed., algorithm 3.4.1).
 */
export function solveSweeps(
  rows: readonly (readonly Coefficient[])[],
  right: readonly Coefficient[],
  axis: Axis,
): readonly SweepValue[] {
  const n = rows.length
  const count = axis.values.length
  const system = new PointSystem(n)
  const coefficients = rows.map((row, r) => [...row, right[r] ?? ZERO].map(asSource))
  const complex = coefficients.flat().some(({ complex: sort }) => sort)
  const re = rows.map(() => new Float64Array(count))
  const im = rows.map(() => new Float64Array(count))
  for (let k = 0; k < count; k += 1) {
    work(2 * n * n * n)
    for (let r = 0; r < n; r += 1) {
      const row = coefficients[r] as Source[]
      for (let c = 0; c <= n; c += 1) {
        const source = row[c] as Source
        const at = source.still ? 0 : k
        system.put(r, c, source.re[at] as number, source.im === null ? 0 : (source.im[at] as number))
      }
    }
    system.solve()
    for (let c = 0; c < n; c += 1) {
      const [x, y] = [re[c] as Float64Array, im[c] as Float64Array]
      x[k] = system.x.re[c] as number
      y[k] = system.x.im[c] as number
    }
  }
  return rows.map((_, c) => numberSweep(axis, re[c] ?? EMPTY, complex ? (im[c] ?? EMPTY) : null, complex))
}

const EMPTY = new Float64Array(0)
const ZERO: Source = { re: Float64Array.of(0), im: null, still: true, complex: false }

interface Source {
  readonly re: Float64Array
  readonly im: Float64Array | null
  /** The same at every point. */
  readonly still: boolean
  readonly complex: boolean
}

function asSource(of: Coefficient | Source): Source {
  if (!('kind' in of)) return of
  if (of.kind === 'sweep') return { re: of.re, im: of.im, still: false, complex: of.complex }
  return {
    re: Float64Array.of(of.re),
    im: of.im === 0 ? null : Float64Array.of(of.im),
    still: true,
    complex: of.complex,
  }
}

/** The equations at one point. */
class PointSystem {
  private readonly re: Float64Array
  private readonly im: Float64Array
  private readonly luRe: Float64Array
  private readonly luIm: Float64Array
  private readonly order: Int32Array
  private readonly scale: Float64Array
  private readonly columns: Float64Array
  private readonly rest: { readonly re: Float64Array; readonly im: Float64Array }
  readonly x: { readonly re: Float64Array; readonly im: Float64Array }

  constructor(private readonly n: number) {
    const entries = n * (n + 1)
    this.re = new Float64Array(entries)
    this.im = new Float64Array(entries)
    this.luRe = new Float64Array(n * n)
    this.luIm = new Float64Array(n * n)
    this.order = new Int32Array(n)
    this.scale = new Float64Array(n)
    this.columns = new Float64Array(n)
    this.rest = { re: new Float64Array(n), im: new Float64Array(n) }
    this.x = { re: new Float64Array(n), im: new Float64Array(n) }
  }

  put(r: number, c: number, re: number, im: number): void {
    const k = r * (this.n + 1) + c
    this.re[k] = re
    this.im[k] = im
  }

  solve(): void {
    const { n, x, rest } = this
    if (!this.decompose()) {
      x.re.fill(NaN)
      x.im.fill(NaN)
      return
    }
    for (let r = 0; r < n; r += 1) {
      const k = r * (n + 1) + n
      x.re[r] = this.re[k] as number
      x.im[r] = this.im[k] as number
    }
    this.substitute(x)
    this.findRest()
    this.substitute(rest)
    for (let r = 0; r < n; r += 1) {
      x.re[r] = (x.re[r] as number) + (rest.re[r] as number)
      x.im[r] = (x.im[r] as number) + (rest.im[r] as number)
    }
  }

  /** Columns are brought to one size, pivots chosen by their share of their row; false where the equations are singular. */
  private decompose(): boolean {
    const { n, luRe, luIm, order, scale, columns } = this
    columns.fill(0)
    for (let r = 0; r < n; r += 1)
      for (let c = 0; c < n; c += 1) {
        const k = r * (n + 1) + c
        const size = Math.abs(this.re[k] as number) + Math.abs(this.im[k] as number)
        if (!(size <= (columns[c] as number))) columns[c] = size
      }
    for (let c = 0; c < n; c += 1) columns[c] = 1 / (columns[c] as number)
    for (let r = 0; r < n; r += 1) {
      let most = 0
      for (let c = 0; c < n; c += 1) {
        const by = columns[c] as number
        const k = r * (n + 1) + c
        const [re, im] = [(this.re[k] as number) * by, (this.im[k] as number) * by]
        luRe[r * n + c] = re
        luIm[r * n + c] = im
        const size = Math.abs(re) + Math.abs(im)
        if (!(size <= most)) most = size
      }
      if (!(most > 0 && most < Infinity)) return false
      scale[r] = 1 / most
      order[r] = r
    }
    for (let k = 0; k < n; k += 1) {
      let best = k
      let most = -1
      for (let r = k; r < n; r += 1) {
        const size = (Math.abs(luRe[r * n + k] as number) + Math.abs(luIm[r * n + k] as number)) * (scale[r] as number)
        if (size > most) {
          most = size
          best = r
        }
      }
      if (!(most > SINGULAR * n)) return false
      if (best !== k) this.exchange(k, best)
      this.eliminate(k)
    }
    return true
  }

  private exchange(k: number, best: number): void {
    const { n, luRe, luIm, order, scale } = this
    for (let c = 0; c < n; c += 1) {
      const [re, im] = [luRe[k * n + c] as number, luIm[k * n + c] as number]
      luRe[k * n + c] = luRe[best * n + c] as number
      luIm[k * n + c] = luIm[best * n + c] as number
      luRe[best * n + c] = re
      luIm[best * n + c] = im
    }
    const [place, by] = [order[k] as number, scale[k] as number]
    order[k] = order[best] as number
    scale[k] = scale[best] as number
    order[best] = place
    scale[best] = by
  }

  private eliminate(k: number): void {
    const { n, luRe, luIm } = this
    const [p, q] = [luRe[k * n + k] as number, luIm[k * n + k] as number]
    // 1/pivot, by the larger part first so that no square leaves the range (R. L. Smith, CACM 5, 1962).
    const wide = Math.abs(p) >= Math.abs(q)
    const ratio = wide ? q / p : p / q
    const size = wide ? p + q * ratio : p * ratio + q
    const inverseRe = wide ? 1 / size : ratio / size
    const inverseIm = wide ? -ratio / size : -1 / size
    for (let r = k + 1; r < n; r += 1) {
      const row = r * n
      const [a, b] = [luRe[row + k] as number, luIm[row + k] as number]
      if (a === 0 && b === 0) continue
      const f = a * inverseRe - b * inverseIm
      const g = a * inverseIm + b * inverseRe
      luRe[row + k] = f
      luIm[row + k] = g
      const top = k * n
      for (let c = k + 1; c < n; c += 1) {
        const [u, v] = [luRe[top + c] as number, luIm[top + c] as number]
        luRe[row + c] = (luRe[row + c] as number) - (f * u - g * v)
        luIm[row + c] = (luIm[row + c] as number) - (f * v + g * u)
      }
    }
  }

  /** Forward and back substitution in place. */
  private substitute(of: { readonly re: Float64Array; readonly im: Float64Array }): void {
    const { n, luRe, luIm, order, columns } = this
    const re = Float64Array.from(order, (r) => of.re[r] as number)
    const im = Float64Array.from(order, (r) => of.im[r] as number)
    for (let r = 0; r < n; r += 1) {
      let [x, y] = [re[r] as number, im[r] as number]
      for (let c = 0; c < r; c += 1) {
        const [f, g, u, v] = [luRe[r * n + c] as number, luIm[r * n + c] as number, re[c] as number, im[c] as number]
        x -= f * u - g * v
        y -= f * v + g * u
      }
      re[r] = x
      im[r] = y
    }
    for (let r = n - 1; r >= 0; r -= 1) {
      let [x, y] = [re[r] as number, im[r] as number]
      for (let c = r + 1; c < n; c += 1) {
        const [f, g, u, v] = [luRe[r * n + c] as number, luIm[r * n + c] as number, re[c] as number, im[c] as number]
        x -= f * u - g * v
        y -= f * v + g * u
      }
      const [p, q] = [luRe[r * n + r] as number, luIm[r * n + r] as number]
      const wide = Math.abs(p) >= Math.abs(q)
      const ratio = wide ? q / p : p / q
      const size = wide ? p + q * ratio : p * ratio + q
      re[r] = (wide ? x + y * ratio : x * ratio + y) / size
      im[r] = (wide ? y - x * ratio : y * ratio - x) / size
    }
    for (let c = 0; c < n; c += 1) {
      of.re[c] = (re[c] as number) * (columns[c] as number)
      of.im[c] = (im[c] as number) * (columns[c] as number)
    }
  }

  /** b − A·x. */
  private findRest(): void {
    const { n, x, rest } = this
    for (let r = 0; r < n; r += 1) {
      const row = r * (n + 1)
      let [u, v] = [this.re[row + n] as number, this.im[row + n] as number]
      for (let c = 0; c < n; c += 1) {
        const [p, q, s, t] = [
          this.re[row + c] as number,
          this.im[row + c] as number,
          x.re[c] as number,
          x.im[c] as number,
        ]
        u -= p * s - q * t
        v -= p * t + q * s
      }
      rest.re[r] = u
      rest.im[r] = v
    }
  }
}

/** A pivot below this share of its row, for each row, is rounding. */
const SINGULAR = 2 * Number.EPSILON
