import * as C from '../numbers/complex'
import type { Complex } from '../numbers/complex'
import { timesPowerOfTwo } from '../numbers/scale'
import { work } from '../numbers/work'

/**
 * All roots of a polynomial with rounded coefficients at once, by the iteration
 * of Ehrlich and Aberth from starting points on the circles of the Newton polygon
 * (D. A. Bini, "Numerical computation of polynomial zeros by means of Aberth's
 * method", Numer. Algorithms 13, 1996). Values are worked out in the scale of
 * each root, so that neither large nor small coefficients leave the range of
 * doubles; every root is good to a few units in the last place of the coefficients.
 */

export interface Found {
  readonly z: Complex
  /** How far the root may be off, if each coefficient is known to a unit in its last place. */
  readonly radius: number
}

const ROUNDS_MOST = 500

/** A coefficient as mantissa and power of two, by the power of the unknown it belongs to. */
interface Scaled {
  readonly re: number
  readonly im: number
  readonly size: number
  /** Base-2 logarithm of its magnitude. */
  readonly log: number
}

/** Coefficients from the highest power down, the first and the last of them not zero. */
export function aberth(list: readonly Complex[]): readonly Found[] | null {
  const terms = list.map(scaled).reverse()
  const count = terms.length - 1
  const roots = starts(terms)
  const errors = roots.map(() => Infinity)
  const active = roots.map(() => true)
  for (let round = 0; round < ROUNDS_MOST && active.includes(true); round += 1) {
    for (let k = 0; k < count; k += 1) {
      const z = roots[k]
      if (!z || !active[k]) continue
      work(100 * count)
      const step = newton(terms, z)
      errors[k] = step.radius
      if (step.settled) {
        active[k] = false
        continue
      }
      const next = C.subtract(z, C.divide(step.by, C.subtract(ONE, C.multiply(step.by, repulsion(roots, k)))))
      const moved = C.isFinite(next) ? next : C.multiply(z, NUDGE)
      if (C.abs(C.subtract(moved, z)) <= 2 ** -53 * C.abs(z)) active[k] = false
      roots[k] = moved
    }
  }
  if (!roots.every((z) => C.isFinite(z))) return null
  const found = roots.map((z) => refined(terms, z))
  return list.every((c) => c.im === 0) ? paired(terms, found) : found
}

const ONE: Complex = { re: 1, im: 0 }
const NOTHING: Scaled = { re: 0, im: 0, size: 0, log: -Infinity }
const NUDGE: Complex = { re: 1.0009765625, im: 0.00048828125 }

function scaled({ re, im }: Complex): Scaled {
  const size = Math.max(Math.abs(re), Math.abs(im))
  if (size === 0) return { re: 0, im: 0, size: 0, log: -Infinity }
  const length = Math.hypot(re / size, im / size)
  return { re, im, size: size * length, log: Math.log2(size) + Math.log2(length) }
}

/** Points on the circles whose radii the upper hull of the coefficients' logarithms gives. */
function starts(terms: readonly Scaled[]): Complex[] {
  const hull: number[] = []
  terms.forEach(({ log }, k) => {
    if (log === -Infinity) return
    while (hull.length >= 2) {
      const [a, b] = [hull.at(-2) ?? 0, hull.at(-1) ?? 0]
      const [p, q] = [terms[a]?.log ?? 0, terms[b]?.log ?? 0]
      if ((q - p) * (k - a) > (log - p) * (b - a)) break
      hull.pop()
    }
    hull.push(k)
  })
  const points: Complex[] = []
  hull.slice(1).forEach((to, segment) => {
    const from = hull[segment] ?? 0
    const count = to - from
    const log = ((terms[from]?.log ?? 0) - (terms[to]?.log ?? 0)) / count
    const radius = timesPowerOfTwo(2 ** (log - Math.floor(log)), Math.floor(log))
    for (let m = 0; m < count; m += 1) {
      const turn = (2 * Math.PI * m) / count + 0.7 + segment
      points.push({ re: radius * Math.cos(turn), im: radius * Math.sin(turn) })
    }
  })
  return points
}

/** The sum of 1/(z − w) over all other roots. */
function repulsion(roots: readonly Complex[], k: number): Complex {
  const z = roots[k] ?? ONE
  let [re, im] = [0, 0]
  roots.forEach((w, j) => {
    if (j === k) return
    const d = C.subtract(z, w)
    const inverse = C.abs(d) === 0 ? { re: 0, im: 0 } : C.divide(ONE, d)
    re += inverse.re
    im += inverse.im
  })
  return { re, im }
}

interface Step {
  /** p/p′ at the point. */
  readonly by: Complex
  /** |p| beside Σ|a|·|z|^k: the coefficient-wise backward error of the root. */
  readonly backward: number
  readonly radius: number
  /** True where the value is nothing but rounding. */
  readonly settled: boolean
}

/** Newton's step at a point, in the scale of the point. */
function newton(terms: readonly Scaled[], z: Complex): Step {
  const size = C.abs(z)
  const t = size === 0 ? -1074 : Math.floor(Math.log2(size))
  let top = -Infinity
  for (let k = 0; k < terms.length; k += 1) top = Math.max(top, (terms[k]?.log ?? 0) + k * t)
  const whole = Math.floor(top)
  const y = { re: timesPowerOfTwo(z.re, -t), im: timesPowerOfTwo(z.im, -t) }
  const length = Math.hypot(y.re, y.im)
  let [vr, vi, sr, si, sum] = [0, 0, 0, 0, 0]
  for (let k = terms.length - 1; k >= 0; k -= 1) {
    const term = terms[k] ?? NOTHING
    const by = k * t - whole
    const [slopeRe, valueRe] = [sr * y.re - si * y.im + vr, vr * y.re - vi * y.im + timesPowerOfTwo(term.re, by)]
    si = sr * y.im + si * y.re + vi
    vi = vr * y.im + vi * y.re + timesPowerOfTwo(term.im, by)
    sr = slopeRe
    vr = valueRe
    sum = sum * length + timesPowerOfTwo(term.size, by)
  }
  const [value, slope] = [
    { re: vr, im: vi },
    { re: sr, im: si },
  ]
  const backward = C.abs(value) / sum
  const scale = (w: Complex): Complex => ({ re: timesPowerOfTwo(w.re, t), im: timesPowerOfTwo(w.im, t) })
  const flat = C.abs(slope) === 0
  const by = flat ? scale({ re: length, im: 0 }) : scale(C.divide(value, slope))
  const radius = flat ? Infinity : timesPowerOfTwo((sum * terms.length * Number.EPSILON) / C.abs(slope), t)
  return { by, backward, radius, settled: backward <= 2 * terms.length * Number.EPSILON }
}

/** Newton's iteration from a root that is nearly good, as long as it makes the value smaller. */
function refined(terms: readonly Scaled[], start: Complex): Found {
  let z = start
  let step = newton(terms, z)
  for (let k = 0; k < 8 && step.backward > 0; k += 1) {
    const next = C.subtract(z, step.by)
    if (!C.isFinite(next)) break
    const after = newton(terms, next)
    if (after.backward >= step.backward) break
    z = next
    step = after
  }
  return { z, radius: step.radius }
}

/**
 * Of real coefficients roots are real or conjugate pairs. A root counts as real
 * where the real point beside it is as good a root; the others are paired.
 */
function paired(terms: readonly Scaled[], found: readonly Found[]): Found[] {
  const left = [...found].sort((a, b) => Math.abs(a.z.im) / C.abs(a.z) - Math.abs(b.z.im) / C.abs(b.z))
  const done: Found[] = []
  const rest: Found[] = []
  for (const root of left) {
    const point = { re: root.z.re, im: 0 }
    const isReal =
      root.z.im === 0 || (Math.abs(root.z.im) <= 16 * root.radius && newton(terms, point).backward <= NOISE)
    if (isReal) done.push(refinedReal(terms, point))
    else rest.push(root)
  }
  while (rest.length > 0) {
    const root = rest.shift()
    if (!root) break
    let [best, least] = [-1, Infinity]
    rest.forEach((other, k) => {
      if (other.z.im * root.z.im > 0) return
      const distance = C.abs(C.subtract(other.z, { re: root.z.re, im: -root.z.im }))
      if (distance < least) [best, least] = [k, distance]
    })
    if (best < 0) {
      done.push(refinedReal(terms, { re: root.z.re, im: 0 }))
      continue
    }
    const [partner] = rest.splice(best, 1)
    const better = partner && newton(terms, partner.z).backward < newton(terms, root.z).backward ? partner : root
    const z = { re: better.z.re, im: Math.abs(better.z.im) }
    done.push({ z, radius: better.radius }, { z: { re: z.re, im: -z.im }, radius: better.radius })
  }
  return done
}

/** Coefficient-wise backward error that is no more than rounding. */
const NOISE = 64 * Number.EPSILON

function refinedReal(terms: readonly Scaled[], start: Complex): Found {
  const { z, radius } = refined(terms, start)
  return { z: { re: z.re, im: 0 }, radius }
}
