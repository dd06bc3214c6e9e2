import type { Compiled } from './dual'

/**
 * Systems of real equations by Newton's method: each step solves the linear equations of the exact derivatives, in the
 * least-squares sense where there are more equations than variables, and is damped as J. J. Moré has it ("The
 * Levenberg–Marquardt algorithm: implementation and theory", Lecture Notes in Mathematics 630, 1978): less while it
 * helps, more while it does not.
 */
export interface RealSystem {
  /** Complex equations, of which the real parts and, where they have any, the imaginary parts must be 0. */
  readonly equations: readonly Compiled[]
  readonly count: number
}

export interface Reached {
  readonly x: Float64Array
  /** The largest of what is left over, each as a share of the size of its terms. */
  readonly residual: number
}

/** The equations at a point: what is left over, the sizes of its terms, and the derivatives row by row. */
interface At {
  readonly rest: Float64Array
  readonly size: Float64Array
  readonly slopes: Float64Array
  /** Σ (rest/weight)². */
  readonly sum: number
}

const STEPS_MOST = 200

/** Follows the steps from a start; what was reached, whether it solves the equations or not. */
export function follow(system: RealSystem, start: Float64Array, typical: Float64Array): Reached {
  const { count: n } = system
  let x = Float64Array.from(start)
  let here = evaluated(system, x, null)
  // What is left over is weighed by the size of the terms where the steps begin, so that no equation outweighs another.
  let weights = here.size
  here = weighed(here, weights)
  let damping = 1e-3
  let still = 0
  for (let step = 0; step < STEPS_MOST && Number.isFinite(here.sum) && here.sum > 0; step += 1) {
    const scale = Float64Array.from(x, (value, k) => Math.max(Math.abs(value), (typical[k] as number) * 1e-3))
    const move = stepFrom(here, weights, scale, n, damping)
    if (!move) {
      damping = Math.max(damping, 1e-9) * 10
      if (damping > 1e12) break
      continue
    }
    const next = Float64Array.from(x, (value, k) => value + (move[k] as number))
    const there = evaluated(system, next, weights)
    if (there.sum < here.sum) {
      const small = move.every((d, k) => Math.abs(d) <= 4 * Number.EPSILON * Math.abs(next[k] as number))
      still = there.sum > here.sum * (1 - 1e-6) ? still + 1 : 0
      x = next
      here = there
      damping = damping < 1e-14 ? 0 : damping / 10
      if (small || still > 8) break
      if (step % 8 === 7) {
        weights = here.size
        here = weighed(here, weights)
      }
    } else {
      if (move.every((d, k) => Math.abs(d) <= 2 * Number.EPSILON * Math.abs(x[k] as number))) break
      damping = Math.max(damping, 1e-9) * 10
      if (damping > 1e12) break
    }
  }
  return polished(system, x, typical)
}

/** Undamped steps as long as they lessen what is left over. */
function polished(system: RealSystem, from: Float64Array, typical: Float64Array): Reached {
  let x = from
  let here = evaluated(system, x, null)
  for (let k = 0; k < 6; k += 1) {
    const scale = Float64Array.from(x, (value, j) => Math.max(Math.abs(value), (typical[j] as number) * 1e-3))
    const move = stepFrom(here, here.size, scale, system.count, 0)
    if (!move) break
    const next = Float64Array.from(x, (value, j) => value + (move[j] as number))
    const there = evaluated(system, next, null)
    if (!(worst(there) < worst(here))) break
    x = next
    here = there
  }
  return { x, residual: worst(here) }
}

function worst({ rest, size }: At): number {
  let most = 0
  for (let k = 0; k < rest.length; k += 1) {
    const [r, s] = [Math.abs(rest[k] as number), size[k] as number]
    const share = r === 0 ? 0 : r / s
    if (!(share <= most)) most = share
  }
  return Number.isNaN(most) ? Infinity : most
}

export function evaluated({ equations, count: n }: RealSystem, x: Float64Array, weights: Float64Array | null): At {
  const rest: number[] = []
  const size: number[] = []
  const slopes: number[] = []
  for (const equation of equations) {
    const value = equation(x)
    rest.push(value.re, value.im)
    size.push(value.size, value.size)
    for (let k = 0; k < n; k += 1) slopes.push(value.dRe[k] as number)
    for (let k = 0; k < n; k += 1) slopes.push(value.dIm[k] as number)
  }
  const at: At = {
    rest: Float64Array.from(rest),
    size: Float64Array.from(size),
    slopes: Float64Array.from(slopes),
    sum: 0,
  }
  return weighed(at, weights ?? at.size)
}

function weighed(at: At, weights: Float64Array): At {
  let sum = 0
  for (let k = 0; k < at.rest.length; k += 1) {
    const r = at.rest[k] as number
    if (r !== 0) sum += (r / (weights[k] as number)) ** 2
  }
  return { ...at, sum: Number.isNaN(sum) ? Infinity : sum }
}

/**
 * The step of a point: least squares of the weighed equations and the damping, by Householder reflections, in variables
 * of one scale; `null` where the derivatives are not finite or do not tell.
 */
function stepFrom(at: At, weights: Float64Array, scale: Float64Array, n: number, damping: number): Float64Array | null {
  const m = at.rest.length
  const rows = m + (damping > 0 ? n : 0)
  const a = new Float64Array(rows * n)
  const b = new Float64Array(rows)
  for (let r = 0; r < m; r += 1) {
    const w = weights[r] as number
    const by = w > 0 && Number.isFinite(w) ? 1 / w : 1
    for (let c = 0; c < n; c += 1) a[r * n + c] = (at.slopes[r * n + c] as number) * by * (scale[c] as number)
    b[r] = -(at.rest[r] as number) * by
  }
  if (damping > 0) {
    const root = Math.sqrt(damping)
    for (let c = 0; c < n; c += 1) {
      let length = 0
      for (let r = 0; r < m; r += 1) length = Math.hypot(length, a[r * n + c] as number)
      a[(m + c) * n + c] = root * Math.max(length, 1e-300)
    }
  }
  if (!a.every(Number.isFinite) || !b.every(Number.isFinite)) return null
  const y = leastSquares(a, b, rows, n)
  return y && Float64Array.from(y, (value, c) => value * (scale[c] as number))
}

/** Householder QR (Golub and Van Loan, 4th ed., algorithm 5.2.1); `null` where a column depends on the others. */
function leastSquares(a: Float64Array, b: Float64Array, m: number, n: number): Float64Array | null {
  if (m < n) return null
  for (let k = 0; k < n; k += 1) {
    let norm = 0
    for (let r = k; r < m; r += 1) norm = Math.hypot(norm, a[r * n + k] as number)
    if (norm === 0) return null
    const head = a[k * n + k] as number
    const alpha = head > 0 ? -norm : norm
    const v = new Float64Array(m - k)
    for (let r = k; r < m; r += 1) v[r - k] = a[r * n + k] as number
    v[0] = head - alpha
    let square = 0
    for (const x of v) square += x * x
    if (square === 0) return null
    for (let c = k; c < n; c += 1) {
      let dot = 0
      for (let r = k; r < m; r += 1) dot += (v[r - k] as number) * (a[r * n + c] as number)
      const f = (2 * dot) / square
      for (let r = k; r < m; r += 1) a[r * n + c] = (a[r * n + c] as number) - f * (v[r - k] as number)
    }
    let dot = 0
    for (let r = k; r < m; r += 1) dot += (v[r - k] as number) * (b[r] as number)
    const f = (2 * dot) / square
    for (let r = k; r < m; r += 1) b[r] = (b[r] as number) - f * (v[r - k] as number)
  }
  const y = new Float64Array(n)
  for (let r = n - 1; r >= 0; r -= 1) {
    let value = b[r] as number
    for (let c = r + 1; c < n; c += 1) value -= (a[r * n + c] as number) * (y[c] as number)
    const pivot = a[r * n + r] as number
    const x = value / pivot
    if (!Number.isFinite(x)) return null
    y[r] = x
  }
  return y
}
