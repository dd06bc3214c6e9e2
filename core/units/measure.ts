import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { dimension, NONE } from './dimension'
import type { Dimension } from './dimension'
import { remember } from './remembered'
import type { Remembered } from './remembered'

/**
 * What is known of a quantity besides its number: its dimension, and marks that the dimension does not hold. There
 * is one object for each, as there is of dimensions.
 *
 * - `turn`: what of an angle is among the factors. `rate`: radians a second, or a square root that is a time;
 *   `cycles`: hertz, revolutions a minute; `root`: another square root of units; `mixed`: radians to which a bare
 *   number was added, so that it is no angle any more.
 * - `pi`: how often π is among the factors, from −1 to 1: 2π times cycles is a rate, a rate by 2π is cycles.
 * - `power`: of volts times amperes, what they are: VA (where a conjugate was among the factors), W or var; `ratio`:
 *   a plain number that is a quotient of powers.
 * - `electric`, `flux`: J is only written where an operand shows an electrical unit, Wb where one shows Wb or T.
 */
export interface Marks {
  readonly turn: Turn
  readonly pi: -1 | 0 | 1
  readonly power: PowerSort
  readonly electric: boolean
  readonly flux: boolean
}

export type Turn = 'none' | 'root' | 'cycles' | 'rate' | 'mixed'
export type PowerSort = 'none' | 'conj' | 'VA' | 'W' | 'var' | 'ratio'

const NO_MARKS: Marks = { turn: 'none', pi: 0, power: 'none', electric: false, flux: false }

export class Measure implements Marks {
  private readonly products: Remembered<Measure> = new Map()
  private readonly quotients: Remembered<Measure> = new Map()

  constructor(
    readonly dimension: Dimension,
    readonly turn: Turn,
    readonly pi: -1 | 0 | 1,
    readonly power: PowerSort,
    readonly electric: boolean,
    readonly flux: boolean,
  ) {}

  times(other: Measure): Measure {
    return this.products.get(other) ?? remember(this.products, other, joined(this, other, 1))
  }

  over(other: Measure): Measure {
    return this.quotients.get(other) ?? remember(this.quotients, other, joined(this, other, -1))
  }

  /** To a rational power. */
  to(exponent: Rational): Measure {
    if (exponent.n === 1 && exponent.d === 1) return this
    const raised = this.dimension.to(exponent)
    const whole = Q.isInteger(exponent)
    const turn = !whole && raised !== NONE ? rootTurn(raised, this.turn) : this.turn
    const pi = this.pi === 0 ? 0 : Q.sign(exponent) === -1 ? negated(this.pi) : this.pi
    return measure(raised, { ...this, turn, pi, power: 'none' })
  }

  /** The one measure of every entry: itself. Of arrays whose entries differ see `ArrayMeasures`. */
  get uniform(): Measure {
    return this
  }

  /** The same with other marks. */
  with(marks: Partial<Marks>): Measure {
    return measure(this.dimension, { ...this, ...marks })
  }
}

const negated = (pi: -1 | 0 | 1): -1 | 0 | 1 => (pi === 0 ? 0 : pi === 1 ? -1 : 1)

/** The square root of a time squared is a time as ω is one; that of other units may still make radians. */
function rootTurn(of: Dimension, turn: Turn): Turn {
  if (isTime(of)) return turn === 'cycles' ? turn : 'rate'
  return turn === 'none' ? 'root' : turn
}

/** True of powers of the second. */
function isTime({ powers }: Dimension): boolean {
  return powers.every((p, k) => k === 2 || Q.isZero(p))
}

const known = new Map<string, Measure>()

/** The measure of a dimension with its marks. */
export function measure(of: Dimension, marks: Partial<Marks> = NO_MARKS): Measure {
  const { flux } = { ...NO_MARKS, ...marks }
  let { turn, pi, power, electric } = { ...NO_MARKS, ...marks }
  if (turn === 'cycles' && pi === 1) [turn, pi] = ['rate', 0]
  if (turn === 'rate' && pi === -1) [turn, pi] = ['cycles', 0]
  if (of === POWER) electric = true
  else if (power !== 'conj' && !(power === 'ratio' && of === NONE)) power = 'none'
  if (power === 'conj' && of === POWER) power = 'VA'
  const key = `${of.key}|${turn}|${pi}|${power}|${electric}|${flux}`
  const found = known.get(key)
  if (found) return found
  const made = new Measure(of, turn, pi, power, electric, flux)
  known.set(key, made)
  return made
}

const TURNS: readonly Turn[] = ['none', 'root', 'cycles', 'rate', 'mixed']

/** The stronger of two. */
const stronger = (a: Turn, b: Turn): Turn => (TURNS.indexOf(a) >= TURNS.indexOf(b) ? a : b)

function clamped(pi: number): -1 | 0 | 1 {
  return pi > 0 ? 1 : pi < 0 ? -1 : 0
}

function joined(a: Measure, b: Measure, sign: 1 | -1): Measure {
  const of = sign === 1 ? a.dimension.times(b.dimension) : a.dimension.over(b.dimension)
  // π belongs to one side as a rule; where a rate is divided by one that was made with π, both have gone.
  const pi = clamped(a.pi + sign * b.pi)
  return measure(of, {
    turn: stronger(a.turn, b.turn),
    pi,
    power: powerOf(a, b, sign),
    electric: a.electric || b.electric,
    flux: a.flux || b.flux,
  })
}

/** Plain factors leave VA, W and var as they are; a conjugate goes on until it meets what makes a power of it. */
function powerOf(a: Measure, b: Measure, sign: 1 | -1): PowerSort {
  if (sign === -1 && a.dimension === POWER && b.dimension === POWER) return 'ratio'
  if (b.dimension === NONE && b.power === 'none') return a.power
  if (sign === 1 && a.dimension === NONE && a.power === 'none') return b.power
  return a.power === 'conj' || b.power === 'conj' ? 'conj' : 'none'
}

/** That of a sum of two of one dimension. */
export function summed(a: Measure, b: Measure): Measure {
  if (a === b) return a
  const power = a.power === b.power ? a.power : a.dimension === POWER && (differ(a.power) || differ(b.power)) ? 'VA' : 'none' // prettier-ignore
  const turn = stronger(a.turn, b.turn)
  const pi = a.turn === turn && b.turn === turn ? (a.pi === b.pi ? a.pi : 0) : a.turn === turn ? a.pi : b.pi
  return measure(a.dimension, { turn, pi, power, electric: a.electric || b.electric, flux: a.flux || b.flux })
}

/** VA and var make VA of whatever they are added to. */
const differ = (power: PowerSort): boolean => power === 'VA' || power === 'var'

/** A conjugate among the factors makes volts times amperes VA. */
export const conjugated = (m: Measure): Measure => (m.dimension === NONE ? m : m.with({ power: 'conj' }))

/** Angle rates and cycles are both of the dimension of 1/s. */
export const PER_SECOND = dimension({ s: -1 })
export const POWER = dimension({ kg: 1, m: 2, s: -3 })

/** What of an angle a quantity of dimension 1/s is: radians or cycles a second, or neither is known. */
export function perSecond({ turn, pi }: Measure): 'rate' | 'cycles' | 'none' {
  if (turn === 'rate' || turn === 'cycles') return turn
  if (turn === 'root') return 'none'
  return pi === 1 ? 'rate' : pi === -1 ? 'cycles' : 'none'
}

/** True of a plain number that is one of radians. */
export function isRadian({ dimension: of, turn, pi }: Measure): boolean {
  return of === NONE && (turn === 'rate' || turn === 'root' || (turn === 'none' && pi === 1))
}

/** A plain number that no unit went into. */
export const PLAIN = measure(NONE)
export const RADIAN = measure(NONE, { turn: 'rate' })
/** A factor of π. */
export const OF_PI = measure(NONE, { pi: 1 })
