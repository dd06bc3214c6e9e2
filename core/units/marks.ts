import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { dimension, NONE } from './dimension'
import type { Dimension } from './dimension'

/**
 * What a unit carries beside its dimension, as one small algebra: marks of products, quotients, powers, sums and of
 * what is kept under a name. `PLAIN` marks are neutral; products go on in any order (`marks.test.ts` has the laws).
 *
 * - `turn`: what of an angle is among the factors. `rate`: radians a second, or a square root that is a time;
 *   `cycles`: hertz, revolutions a minute; `root`: another square root of units; `mixed`: radians to which a bare
 *   number was added, so that it is no angle any more; `angle`: an angle itself, before it is a factor of anything.
 * - `spin`: how many of them there are, from −2 to 2: a torque is a power by one, an energy a moment of inertia by two.
 * - `pi`: how often a π that is written in the product is among the factors, from −1 to 1: 2π times cycles is a rate,
 *   a rate by 2π is cycles. Kept with a unit, a value has none of it any more.
 * - `power`: of volts times amperes, what they are: VA (where a conjugate was among the factors), W or var; `ratio`:
 *   a plain number that is a quotient of powers.
 * - `electric`, `flux`: J is only written where an operand shows an electrical unit, Wb where one shows Wb or T.
 */
export interface Marks {
  readonly turn: Turn
  readonly spin: Spin
  readonly pi: Pi
  readonly power: PowerSort
  readonly electric: boolean
  readonly flux: boolean
}

export type Turn = 'none' | 'root' | 'cycles' | 'rate' | 'mixed' | 'angle'
export type Spin = -2 | -1 | 0 | 1 | 2
export type Pi = -1 | 0 | 1
export type PowerSort = 'none' | 'conj' | 'VA' | 'W' | 'var' | 'ratio'

/** Marks with the dimension that they belong to. */
export interface Marked extends Marks {
  readonly dimension: Dimension
}

export const NO_MARKS: Marks = { turn: 'none', spin: 0, pi: 0, power: 'none', electric: false, flux: false }

/** Angle rates and cycles are both of the dimension of 1/s. */
export const PER_SECOND = dimension({ s: -1 })
export const POWER = dimension({ kg: 1, m: 2, s: -3 })
export const ENERGY = dimension({ kg: 1, m: 2, s: -2 })

/** Marks as they are where nothing is said twice: 2π cycles are a rate, a power is electric, and only powers are VA. */
export function settledMarks(of: Dimension, marks: Marks): Marks {
  const { flux } = marks
  let { turn, pi, power, electric } = marks
  if (turn === 'cycles' && pi === 1) [turn, pi] = ['rate', 0]
  if (turn === 'rate' && pi === -1) [turn, pi] = ['cycles', 0]
  if (of === POWER) electric = true
  else if (power !== 'conj' && !(power === 'ratio' && of === NONE)) power = 'none'
  if (power === 'conj' && of === POWER) power = 'VA'
  // Only what turns has a number of turns; a power is one, whatever turned for it.
  const spin = of !== POWER && (turn === 'rate' || turn === 'cycles' || turn === 'angle') ? marks.spin : 0
  return { turn, spin, pi, power, electric, flux }
}

/** Of a product. A torque by an angle is an energy. */
export function multipliedMarks(a: Marked, b: Marked): Marks {
  const work = (torque: Marked, angle: Marked): boolean =>
    torque.dimension === ENERGY && angle.dimension === NONE && factor(angle.turn) === 'rate'
  const marks = joined(a, b, 1, joinedTurn(a, b))
  return work(a, b) || work(b, a) ? { ...marks, electric: true, spin: 0 } : marks
}

/** Of a quotient. Two of one sort make a plain number: w/w0, f/f0, (n1 - n)/n1. */
export function dividedMarks(of: Dimension, a: Marked, b: Marked): Marks {
  const sort = factor(a.turn)
  const alike = sort === factor(b.turn) && (sort === 'rate' || sort === 'cycles')
  return joined(a, b, -1, alike && of === NONE ? 'none' : joinedTurn(a, b))
}

/** Of a power with a known fraction as its exponent. */
export function raisedMarks(of: Dimension, base: Marked, exponent: Rational): Marks {
  const whole = Q.isInteger(exponent)
  const turn = !whole && of !== NONE ? rootTurn(of, base.turn) : base.turn
  const pi = base.pi === 0 ? 0 : Q.sign(exponent) === -1 ? negated(base.pi) : base.pi
  return { ...base, turn, spin: raisedSpin(of, base, turn, exponent), pi, power: 'none' }
}

/** Of a sum of two of one dimension. */
export function summedMarks(a: Marked, b: Marked): Marks {
  const power = a.power === b.power ? a.power : a.dimension === POWER && (differ(a.power) || differ(b.power)) ? 'VA' : 'none' // prettier-ignore
  const turn = stronger(a.turn, b.turn)
  const pi = a.turn === turn && b.turn === turn ? (a.pi === b.pi ? a.pi : 0) : a.turn === turn ? a.pi : b.pi
  const spin = a.spin === b.spin ? a.spin : 0
  return { turn, spin, pi, power, electric: a.electric || b.electric, flux: a.flux || b.flux }
}

/**
 * Of a value that is kept under a name: what is 1/s by then is known to be radians or turns; a π that went into
 * another unit is part of the number (μ₀ = 4π·10⁻⁷ H/m, ρ·l/(π·r²)), and turns nothing into a rate later.
 */
export function keptMarks(of: Marked): Marks {
  if (of.dimension === NONE || of.pi === 0) return of
  const sort = of.dimension === PER_SECOND ? perSecond(of) : 'none'
  return { ...of, pi: 0, ...(sort === 'none' ? {} : { turn: sort, spin: 1 }) }
}

/** What of an angle a quantity of dimension 1/s is: radians or cycles a second, or neither is known. */
export function perSecond({ turn, pi }: Marks): 'rate' | 'cycles' | 'none' {
  if (turn === 'angle') return 'rate'
  if (turn === 'rate' || turn === 'cycles') return turn
  if (turn === 'root') return 'none'
  return pi === 1 ? 'rate' : pi === -1 ? 'cycles' : 'none'
}

/** True of a plain number that is one of radians. */
export function isRadian({ dimension: of, turn, pi }: Marked): boolean {
  return of === NONE && (factor(turn) === 'rate' || turn === 'root' || (turn === 'none' && pi === 1))
}

const negated = (pi: Pi): Pi => (pi === 0 ? 0 : pi === 1 ? -1 : 1)

const SPINS: readonly Spin[] = [-2, -1, 0, 1, 2]
const spun = (n: number): Spin => SPINS[Math.max(-2, Math.min(2, Math.trunc(n))) + 2] ?? 0

/** A square root that is a rate has one turn, or one under it. */
function raisedSpin(of: Dimension, base: Marked, turn: Turn, exponent: Rational): Spin {
  if (base.turn === turn || base.spin !== 0) return spun(base.spin * Q.toNumber(exponent))
  return turn === 'rate' ? spun(-Q.toNumber(of.powers[2] ?? Q.ZERO)) : 0
}

const clamped = (pi: number): Pi => (pi > 0 ? 1 : pi < 0 ? -1 : 0)

/** The square root of a time squared is a time as ω is one; that of other units may still make radians. */
function rootTurn(of: Dimension, turn: Turn): Turn {
  if (isTime(of)) return turn === 'cycles' ? turn : 'rate'
  return turn === 'none' ? 'root' : turn
}

/** True of powers of the second. */
function isTime({ powers }: Dimension): boolean {
  return powers.every((p, k) => k === 2 || Q.isZero(p))
}

const TURNS = ['none', 'root', 'cycles', 'rate', 'mixed'] as const

/** What a turn is as a factor or a summand: an angle is its radians. */
const factor = (turn: Turn): (typeof TURNS)[number] => (turn === 'angle' ? 'rate' : turn)

/** The stronger of two. */
function stronger(a: Turn, b: Turn): Turn {
  const [x, y] = [factor(a), factor(b)]
  return TURNS.indexOf(x) >= TURNS.indexOf(y) ? x : y
}

/**
 * A number that radians went into leaves turns what they are: f0/Q is in hertz, and so is a slip times a frequency.
 * An angle itself is one for each turn: 360°*f is a rate.
 */
function joinedTurn(a: Marked, b: Marked): Turn {
  const isNumber = (of: Marked): boolean => of.dimension === NONE && of.turn !== 'cycles' && of.turn !== 'angle'
  if ((a.turn === 'cycles' && isNumber(b)) || (b.turn === 'cycles' && isNumber(a))) return 'cycles'
  return stronger(a.turn, b.turn)
}

function joined(a: Marked, b: Marked, sign: 1 | -1, turn: Turn): Marks {
  return {
    turn,
    spin: spun(a.spin + sign * b.spin),
    // π belongs to one side as a rule; where a rate is divided by one that was made with π, both have gone.
    pi: clamped(a.pi + sign * b.pi),
    power: powerOf(a, b, sign),
    electric: a.electric || b.electric,
    flux: a.flux || b.flux,
  }
}

/** Plain factors leave VA, W and var as they are; a conjugate goes on until it meets what makes a power of it. */
function powerOf(a: Marked, b: Marked, sign: 1 | -1): PowerSort {
  if (sign === -1 && a.dimension === POWER && b.dimension === POWER) return 'ratio'
  if (b.dimension === NONE && b.power === 'none') return a.power
  if (sign === 1 && a.dimension === NONE && a.power === 'none') return b.power
  return a.power === 'conj' || b.power === 'conj' ? 'conj' : 'none'
}

/** VA and var make VA of whatever they are added to. */
const differ = (power: PowerSort): boolean => power === 'VA' || power === 'var'
