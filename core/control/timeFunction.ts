import type { Complex } from '../numbers/complex'
import { work } from '../numbers/work'
import { quotientNumber, rootsOfWhole } from './transfer'
import type { Pole } from './poles'
import * as W from './whole'
import type { Whole } from './whole'
import * as Z from './wide'
import type { Wide } from './wide'

/**
 * The function of time whose Laplace transform is a ratio of polynomials, by poles and residues: a sum of
 * c·tᵏ/k!·e^(pt) for t ≥ 0 (lower limit 0−), and impulses at 0 where the ratio is improper. Poles and residues are
 * worked out to about a hundred digits, multiple poles being split off exactly before, so that residues of poles that
 * lie near one another are still right where they all but cancel.
 */
export interface TimeFunction {
  /** The factors of δ(t), of its derivative, and so on. */
  readonly impulses: readonly number[]
  readonly modes: readonly Mode[]
  /** By how much the terms are larger than their sum, at the worst; how many digits a sum of doubles would lose. */
  readonly cancellation: number
}

/** What belongs to one pole; of a pair of poles the one above the axis, counting twice. */
export interface Mode {
  readonly pole: Pole
  /** The factor of tᵏ/k!·e^(pt) at place k. */
  readonly factors: readonly Complex[]
  readonly wide: readonly Wide[]
  readonly weight: 1 | 2
}

/** Of top/bottom; `null` where the poles could not be worked out. */
export function timeFunction(top: Whole, bottom: Whole): TimeFunction | null {
  const poles = rootsOfWhole(bottom)
  if (!poles) return null
  const { quotient, rest, scale } = W.division(top, bottom)
  const modes = poles.filter(({ z }) => z.im >= 0).map((pole) => modeOf(pole, poles, rest, bottom, scale))
  const found = { impulses: quotient.map((c) => quotientNumber(c, scale)), modes }
  return { ...found, cancellation: cancellationOf(found) }
}

/** The coefficients of 1/(s − p), 1/(s − p)² …: those of the series of (s − p)^m·N/D at p. */
function modeOf(pole: Pole, poles: readonly Pole[], rest: Whole, bottom: Whole, scale: bigint): Mode {
  const count = pole.times
  let below: Wide[] = [Z.multiply(Z.fromWhole(W.leading(bottom)), Z.fromWhole(scale))]
  for (const other of poles) {
    if (other === pole) continue
    const factor = [Z.subtract(pole.wide, other.wide), Z.ONE]
    for (let k = 0; k < other.times; k += 1) below = Z.timesSeries(below, factor, count)
  }
  const series = Z.overSeries(Z.shifted(rest, pole.wide, count), below, count).reverse()
  // A real pole of a real ratio has real residues.
  const wide = pole.z.im === 0 ? series.map((z) => ({ ...z, im: 0n })) : series
  return { pole, wide, factors: wide.map(Z.toComplex), weight: pole.z.im === 0 ? 1 : 2 }
}

/** From here on a sum of doubles is no good. */
const CANCELLED = 1e5
/** Turns beyond this many radians are not known well enough to doubles. */
const PHASE_MOST = 1e5
const DEAD = -50

/** The value at t; of t < 0 it is 0. Impulses are not in it. */
export function valueAt(f: TimeFunction, t: number): number {
  if (!(t >= 0)) return Number.isNaN(t) ? NaN : 0
  // What has died away by then needs no care.
  const fast = f.modes.some(({ pole: { z } }) => Math.abs(z.im) * t > PHASE_MOST && z.re * t > DEAD)
  const careful = f.cancellation > CANCELLED || fast
  return careful ? Z.toComplex(wideAt(f, Z.fromNumber(t))).re : doubleAt(f, t).sum
}

function doubleAt({ modes }: Pick<TimeFunction, 'modes'>, t: number): { readonly sum: number; readonly size: number } {
  let [sum, size] = [0, 0]
  for (const { pole, factors, weight } of modes) {
    const { re, im } = pole.z
    const grown = Math.exp(re * t)
    let [x, y, term] = [0, 0, 1]
    for (const [k, c] of factors.entries()) {
      if (k > 0) term *= t / k
      x += c.re * term
      y += c.im * term
    }
    if (grown === 0 || (x === 0 && y === 0)) continue
    const value = im === 0 ? x * grown : grown * (x * Math.cos(im * t) - y * Math.sin(im * t))
    sum += weight * value
    size += weight * Math.hypot(x, y) * grown
  }
  return { sum, size }
}

/** The same with many digits. */
export function wideAt({ modes }: Pick<TimeFunction, 'modes'>, time: Wide): Wide {
  let sum = Z.ZERO
  for (const { pole, wide, weight } of modes) {
    work(20_000)
    let [inner, term] = [Z.ZERO, Z.ONE]
    for (const [k, c] of wide.entries()) {
      if (k > 0) term = Z.divide(Z.multiply(term, time), Z.fromWhole(BigInt(k)))
      inner = Z.add(inner, Z.multiply(c, term))
    }
    const value = Z.multiply(inner, Z.exponential(Z.multiply(pole.wide, time)))
    sum = Z.add(sum, weight === 2 ? { re: 2n * value.re, im: 0n, exp: value.exp } : value)
  }
  return sum
}

/** Looked at over all times that a pole tells of. */
function cancellationOf(f: Pick<TimeFunction, 'modes'>): number {
  const speeds = f.modes.map(({ pole: { z } }) => Math.hypot(z.re, z.im)).filter((w) => w > 0)
  if (speeds.length === 0) return 1
  const [least, most] = [Math.min(...speeds), Math.max(...speeds)]
  let [sum, size] = [0, 0]
  // What grows is looked at only while doubles hold it.
  const growth = Math.max(0, ...f.modes.map(({ pole: { z } }) => z.re))
  const end = Math.min(20 / least, growth > 0 ? Math.max(30 / growth, 0.02 / most) : Infinity)
  for (let t = 0.01 / most; t < end; t *= 1.3) {
    const at = doubleAt(f, t)
    sum = Math.max(sum, Math.abs(at.sum))
    size = Math.max(size, at.size)
  }
  return !Number.isFinite(size) || sum === 0 ? Infinity : size / sum
}
