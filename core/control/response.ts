import type { Complex } from '../numbers/complex'
import * as C from '../numbers/complex'
import * as D from '../linear/dense'
import type { Dense } from '../linear/dense'
import { expm } from '../linear/expm'
import { work } from '../numbers/work'
import { Sequence } from './sequence'
import { timeFunction, valueAt } from './timeFunction'
import type { TimeFunction } from './timeFunction'
import { quotientNumber } from './transfer'
import type { Transfer } from './transfer'
import * as W from './whole'
import type { Whole } from './whole'

/** Responses of a transfer function to what is put in, from rest. */

const steps = new WeakMap<Transfer, Map<string, TimeFunction | Sequence | null>>()

/** A function of time that is worked out once for a transfer function. */
function once(g: Transfer, of: 'step' | 'impulse'): TimeFunction | Sequence | null {
  const known = steps.get(g) ?? new Map<string, TimeFunction | Sequence | null>()
  steps.set(g, known)
  const before = known.get(of)
  if (before !== undefined) return before
  const found = made(g, of)
  known.set(of, found)
  return found
}

function made({ top, bottom, discrete }: Transfer, of: 'step' | 'impulse'): TimeFunction | Sequence | null {
  if (discrete)
    return of === 'step'
      ? new Sequence(W.multiply(top, [0n, 1n]), W.multiply(bottom, [-1n, 1n]))
      : new Sequence(top, bottom)
  return of === 'step' ? timeFunction(top, W.multiply(bottom, [0n, 1n])) : timeFunction(top, bottom)
}

/** A response as a function of the time; samples are held until the next one. `null` where it could not be worked out. */
export function responseTo(g: Transfer, of: 'step' | 'impulse', period: number): ((t: number) => number) | null {
  const f = once(g, of)
  if (!f) return null
  if (f instanceof Sequence) return (t) => f.at(sampleAt(t, period))
  return (t) => valueAt(f, t)
}

/** The last sample at a time; one that lies but for rounding at it counts. */
function sampleAt(t: number, period: number): number {
  return Math.floor((t / period) * (1 + 1e-12) + 1e-12)
}

/** Most samples that a held response is looked up among. */
export const SAMPLES_MOST = 1_000_000

/** The response to what is known by its own transform. */
export function transformed(g: Transfer, u: Transfer): TimeFunction | null {
  const top = W.multiply(g.top, u.top)
  const bottom = W.multiply(g.bottom, u.bottom)
  const common = W.commonDivisor(top, bottom)
  if (top.length === 0 || W.degreeOf(common) === 0) return timeFunction(top, bottom)
  const [a, b] = [W.division(top, common), W.division(bottom, common)]
  return timeFunction(W.times(a.quotient, b.scale), W.times(b.quotient, a.scale))
}

/** From here on residues cancel too much for what is summed up from them. */
const CANCELLED = 1e6

/**
 * The response to values at given times, with straight lines between them (before the first it is at rest). From the
 * poles, each a chain of its own, or where residues all but cancel from a state form in even scales; both by the matrix
 * exponential of the state with the line put in (C. F. Van Loan, IEEE Trans. AC 23, 1978).
 */
export function responseToLines(g: Transfer, times: Float64Array, u: Float64Array): Float64Array | null {
  const f = once(g, 'impulse')
  if (!f || f instanceof Sequence) return null
  const state = f.cancellation > CANCELLED ? companion(g) : chains(f)
  const n = state.a.rows
  const known = new Map<number, Dense>()
  const y = new Float64Array(times.length)
  let x: Complex[] = Array.from({ length: n }, () => ({ re: 0, im: 0 }))
  y[0] = state.direct * (u[0] ?? 0)
  for (let k = 1; k < times.length; k += 1) {
    const step = (times[k] ?? 0) - (times[k - 1] ?? 0)
    if (!(step > 0)) return null
    work(50 * n * n)
    const key = Number(step.toPrecision(14))
    const over = known.get(key) ?? stepOver(state, key)
    known.set(key, over)
    const [from, to] = [u[k - 1] ?? 0, u[k] ?? 0]
    x = advanced(over, x, from, to - from)
    y[k] =
      x.reduce((sum, z, i) => sum + z.re * (state.c[i]?.re ?? 0) - z.im * (state.c[i]?.im ?? 0), 0) + state.direct * to
  }
  return y
}

interface State {
  readonly a: Dense
  readonly b: readonly Complex[]
  readonly c: readonly Complex[]
  readonly direct: number
}

/** Each pole with its multiplicity as a chain of integrators; of a pair the one above, counting twice. */
function chains({ modes, impulses }: TimeFunction): State {
  const n = modes.reduce((sum, { pole }) => sum + pole.times, 0)
  const a = D.zeros(n, n)
  const b: Complex[] = Array.from({ length: n }, () => ({ re: 0, im: 0 }))
  const c: Complex[] = []
  let at = 0
  for (const { pole, factors, weight } of modes) {
    for (let k = 0; k < pole.times; k += 1) {
      a.re[(at + k) * n + at + k] = pole.z.re
      a.im[(at + k) * n + at + k] = pole.z.im
      if (k > 0) a.re[(at + k) * n + at + k - 1] = 1
      const factor = factors[k] ?? { re: 0, im: 0 }
      c.push({ re: weight * factor.re, im: weight * factor.im })
    }
    b[at] = { re: 1, im: 0 }
    at += pole.times
  }
  return { a, b, c, direct: impulses[0] ?? 0 }
}

/** The state form with the coefficients in its last row, the unknown in units in which they are alike. */
function companion({ top, bottom }: Transfer): State {
  const n = W.degreeOf(bottom)
  const lead = W.leading(bottom)
  const over = (p: Whole, k: number): number => quotientNumber(W.coefficient(p, k), lead)
  const unit = 2 ** Math.round(Math.log2(Math.abs(over(bottom, 0)) || 1) / n)
  const a = D.zeros(n, n)
  for (let k = 0; k + 1 < n; k += 1) a.re[k * n + k + 1] = unit
  for (let k = 0; k < n; k += 1) a.re[(n - 1) * n + k] = -over(bottom, k) / unit ** (n - 1 - k)
  const b = Array.from({ length: n }, (_, k) => ({ re: k === n - 1 ? 1 : 0, im: 0 }))
  const direct = over(top, n)
  const c = Array.from({ length: n }, (_, k) => ({ re: (over(top, k) - direct * over(bottom, k)) / unit ** (n - 1 - k), im: 0 })) // prettier-ignore
  return { a, b, c, direct }
}

/** The state with a level and a slope behind it: how all of it moves over a step. */
function stepOver({ a, b }: State, step: number): Dense {
  const n = a.rows
  const all = D.zeros(n + 2, n + 2)
  for (let r = 0; r < n; r += 1) {
    for (let c = 0; c < n; c += 1) {
      all.re[r * (n + 2) + c] = (a.re[r * n + c] ?? 0) * step
      all.im[r * (n + 2) + c] = (a.im[r * n + c] ?? 0) * step
    }
    all.re[r * (n + 2) + n] = (b[r]?.re ?? 0) * step
    all.im[r * (n + 2) + n] = (b[r]?.im ?? 0) * step
  }
  all.re[n * (n + 2) + n + 1] = 1
  return expm(all)
}

function advanced(over: Dense, x: readonly Complex[], level: number, slope: number): Complex[] {
  const n = x.length
  const entry = (r: number, c: number): Complex => ({ re: over.re[r * (n + 2) + c] ?? 0, im: over.im[r * (n + 2) + c] ?? 0 }) // prettier-ignore
  return x.map((_, r) => {
    let sum: Complex = { re: 0, im: 0 }
    for (const [c, z] of x.entries()) sum = C.add(sum, C.multiply(entry(r, c), z))
    const [l, s] = [entry(r, n), entry(r, n + 1)]
    return { re: sum.re + l.re * level + s.re * slope, im: sum.im + l.im * level + s.im * slope }
  })
}
