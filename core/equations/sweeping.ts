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
  const sources = rows.flatMap((row, r) => [...row, right[r] ?? ZERO].map(asSource))
  const complex = sources.some(({ complex: sort }) => sort)
  const re = rows.map(() => new Float64Array(count))
  const im = rows.map(() => new Float64Array(count))
  // Some points at a time, side by side: each coefficient is then read in a row, not each point in a hundred places.
  const block = new Block(sources)
  for (let from = 0; from < count; from += BLOCK) {
    const points = Math.min(BLOCK, count - from)
    block.fill(from, points)
    for (let k = 0; k < points; k += 1) {
      work(2 * n * n * n)
      system.put(block, k)
      system.solve()
      for (let c = 0; c < n; c += 1) {
        ;(re[c] as Float64Array)[from + k] = system.x.re[c] as number
        ;(im[c] as Float64Array)[from + k] = system.x.im[c] as number
      }
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

/** How many points are looked at side by side. */
const BLOCK = 16

/** The coefficients of some points, each at all points one after another; each right side behind its row. */
class Block {
  readonly re: Float64Array
  readonly im: Float64Array

  constructor(private readonly sources: readonly Source[]) {
    this.re = new Float64Array(BLOCK * sources.length)
    this.im = new Float64Array(BLOCK * sources.length)
    for (const [e, source] of sources.entries()) if (source.still) this.spread(e, source)
  }

  private spread(e: number, { re, im }: Source): void {
    for (let k = 0; k < BLOCK; k += 1) {
      this.re[e * BLOCK + k] = re[0] as number
      this.im[e * BLOCK + k] = im === null ? 0 : (im[0] as number)
    }
  }

  fill(from: number, points: number): void {
    const { sources } = this
    for (let e = 0; e < sources.length; e += 1) {
      const to = e * BLOCK
      const { still, re, im } = sources[e] as Source
      if (still) continue
      for (let k = 0; k < points; k += 1) this.re[to + k] = re[from + k] as number
      if (im !== null) for (let k = 0; k < points; k += 1) this.im[to + k] = im[from + k] as number
    }
  }
}

/** Numbers of a column. */
interface Column {
  readonly re: Float64Array
  readonly im: Float64Array
}

const column = (n: number): Column => ({ re: new Float64Array(n), im: new Float64Array(n) })

/** The equations at one point. */
class PointSystem {
  private readonly aRe: Float64Array
  private readonly aIm: Float64Array
  private readonly luRe: Float64Array
  private readonly luIm: Float64Array
  private readonly order: Int32Array
  private readonly scale: Float64Array
  private readonly columns: Float64Array
  private readonly right: Column
  private readonly rest: Column
  private readonly made: Column
  /** The smallest pivot, as a share of its row. */
  private least = 0
  readonly x: Column

  constructor(private readonly n: number) {
    const entries = n * n
    this.aRe = new Float64Array(entries)
    this.aIm = new Float64Array(entries)
    this.luRe = new Float64Array(entries)
    this.luIm = new Float64Array(entries)
    this.order = new Int32Array(n)
    this.scale = new Float64Array(n)
    this.columns = new Float64Array(n)
    this.right = column(n)
    this.rest = column(n)
    this.made = column(n)
    this.x = column(n)
  }

  /** Takes over a point of a block. */
  put(block: Block, point: number): void {
    const { n, aRe, aIm, right } = this
    const { re, im } = block
    let from = point
    for (let r = 0; r < n; r += 1) {
      for (let c = 0; c < n; c += 1) {
        aRe[r * n + c] = re[from] as number
        aIm[r * n + c] = im[from] as number
        from += BLOCK
      }
      right.re[r] = re[from] as number
      right.im[r] = im[from] as number
      from += BLOCK
    }
  }

  solve(): void {
    const { n, x, rest, right } = this
    if (!this.decompose()) {
      x.re.fill(NaN)
      x.im.fill(NaN)
      return
    }
    x.re.set(right.re)
    x.im.set(right.im)
    this.substitute(x)
    // Where every pivot was a fair share of its row, the refinement changes last digits only: it is for small systems, where it costs nothing.
    if (n > 8 && this.least > REFINED) return
    this.findRest()
    this.substitute(rest)
    for (let r = 0; r < n; r += 1) {
      x.re[r] = (x.re[r] as number) + (rest.re[r] as number)
      x.im[r] = (x.im[r] as number) + (rest.im[r] as number)
    }
  }

  /** Columns are brought to one size, pivots chosen by their share of their row; false where the equations are singular. */
  private decompose(): boolean {
    const { n, luRe, luIm, order, scale, columns, aRe, aIm } = this
    columns.fill(0)
    this.least = Infinity
    for (let r = 0; r < n; r += 1)
      for (let c = 0; c < n; c += 1) {
        const size = Math.abs(aRe[r * n + c] as number) + Math.abs(aIm[r * n + c] as number)
        if (!(size <= (columns[c] as number))) columns[c] = size
      }
    for (let c = 0; c < n; c += 1) columns[c] = 1 / (columns[c] as number)
    for (let r = 0; r < n; r += 1) {
      let most = 0
      for (let c = 0; c < n; c += 1) {
        const by = columns[c] as number
        const k = r * n + c
        const re = (aRe[k] as number) * by
        const im = (aIm[k] as number) * by
        luRe[k] = re
        luIm[k] = im
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
      if (most < this.least) this.least = most
      if (best !== k) this.exchange(k, best)
      eliminate(luRe, luIm, n, k)
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

  /** Forward and back substitution in place. */
  private substitute(of: Column): void {
    const { n, luRe, luIm, order, columns } = this
    const { re, im } = this.made
    for (let r = 0; r < n; r += 1) {
      const from = order[r] as number
      let x = of.re[from] as number
      let y = of.im[from] as number
      const row = r * n
      for (let c = 0; c < r; c += 1) {
        const f = luRe[row + c] as number
        const g = luIm[row + c] as number
        const u = re[c] as number
        const v = im[c] as number
        x -= f * u - g * v
        y -= f * v + g * u
      }
      re[r] = x
      im[r] = y
    }
    for (let r = n - 1; r >= 0; r -= 1) {
      let x = re[r] as number
      let y = im[r] as number
      const row = r * n
      for (let c = r + 1; c < n; c += 1) {
        const f = luRe[row + c] as number
        const g = luIm[row + c] as number
        const u = re[c] as number
        const v = im[c] as number
        x -= f * u - g * v
        y -= f * v + g * u
      }
      const p = luRe[row + r] as number
      const q = luIm[row + r] as number
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
    const { n, x, rest, right, aRe, aIm } = this
    for (let r = 0; r < n; r += 1) {
      const row = r * n
      let u = right.re[r] as number
      let v = right.im[r] as number
      for (let c = 0; c < n; c += 1) {
        const p = aRe[row + c] as number
        const q = aIm[row + c] as number
        const s = x.re[c] as number
        const t = x.im[c] as number
        u -= p * s - q * t
        v -= p * t + q * s
      }
      rest.re[r] = u
      rest.im[r] = v
    }
  }
}

/** Below this share a pivot has cost digits. */
const REFINED = 1e-3

/** A pivot below this share of its row, for each row, is rounding. */
const SINGULAR = 2 * Number.EPSILON

/** Subtracts the row of a pivot from those below it. */
function eliminate(luRe: Float64Array, luIm: Float64Array, n: number, k: number): void {
  const p = luRe[k * n + k] as number
  const q = luIm[k * n + k] as number
  // 1/pivot, by the larger part first so that no square leaves the range (R. L. Smith, CACM 5, 1962).
  const wide = Math.abs(p) >= Math.abs(q)
  const ratio = wide ? q / p : p / q
  const size = wide ? p + q * ratio : p * ratio + q
  const inverseRe = wide ? 1 / size : ratio / size
  const inverseIm = wide ? -ratio / size : -1 / size
  for (let r = k + 1; r < n; r += 1) {
    const row = r * n
    const a = luRe[row + k] as number
    const b = luIm[row + k] as number
    if (a === 0 && b === 0) continue
    const f = a * inverseRe - b * inverseIm
    const g = a * inverseIm + b * inverseRe
    luRe[row + k] = f
    luIm[row + k] = g
    const top = k * n
    for (let c = k + 1; c < n; c += 1) {
      const u = luRe[top + c] as number
      const v = luIm[top + c] as number
      luRe[row + c] = (luRe[row + c] as number) - (f * u - g * v)
      luIm[row + c] = (luIm[row + c] as number) - (f * v + g * u)
    }
  }
}
