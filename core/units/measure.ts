import type { Rational } from '../numbers/rational'
import { NONE } from './dimension'
import type { Dimension } from './dimension'
import { dividedMarks, keptMarks, multipliedMarks, NO_MARKS, raisedMarks, settledMarks, summedMarks } from './marks'
import type { Marked, Marks, Pi, PowerSort, Spin, Turn } from './marks'
import { remember } from './remembered'
import type { Remembered } from './remembered'

/**
 * What is known of a quantity besides its number: its dimension, and the marks that the dimension does not hold
 * (`marks.ts`). There is one object for each, as there is of dimensions.
 */
export class Measure implements Marked {
  private readonly products: Remembered<Measure> = new Map()
  private readonly quotients: Remembered<Measure> = new Map()

  constructor(
    readonly dimension: Dimension,
    readonly turn: Turn,
    readonly spin: Spin,
    readonly pi: Pi,
    readonly power: PowerSort,
    readonly electric: boolean,
    readonly flux: boolean,
  ) {}

  times(other: Measure): Measure {
    return this.products.get(other) ?? remember(this.products, other, product(this, other))
  }

  over(other: Measure): Measure {
    return this.quotients.get(other) ?? remember(this.quotients, other, quotient(this, other))
  }

  /** To a rational power. */
  to(exponent: Rational): Measure {
    if (exponent.n === 1 && exponent.d === 1) return this
    const of = this.dimension.to(exponent)
    return measure(of, raisedMarks(of, this, exponent))
  }

  /** That of a value that is kept under a name. */
  get kept(): Measure {
    return this.pi === 0 || this.dimension === NONE ? this : measure(this.dimension, keptMarks(this))
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

const known = new Map<string, Measure>()

/** The measure of a dimension with its marks. */
export function measure(of: Dimension, marks: Partial<Marks> = NO_MARKS): Measure {
  const { turn, spin, pi, power, electric, flux } = settledMarks(of, { ...NO_MARKS, ...marks })
  const key = `${of.key}|${turn}|${spin}|${pi}|${power}|${electric}|${flux}`
  const found = known.get(key)
  if (found) return found
  const made = new Measure(of, turn, spin, pi, power, electric, flux)
  known.set(key, made)
  return made
}

function product(a: Measure, b: Measure): Measure {
  const of = a.dimension.times(b.dimension)
  return measure(of, multipliedMarks(a, b))
}

function quotient(a: Measure, b: Measure): Measure {
  const of = a.dimension.over(b.dimension)
  return measure(of, dividedMarks(of, a, b))
}

/** That of a sum of two of one dimension. */
export function summed(a: Measure, b: Measure): Measure {
  return a === b ? a : measure(a.dimension, summedMarks(a, b))
}

/** A conjugate among the factors makes volts times amperes VA. */
export const conjugated = (m: Measure): Measure => (m.dimension === NONE ? m : m.with({ power: 'conj' }))

/** A plain number that no unit went into. */
export const PLAIN = measure(NONE)
/** An angle. */
export const RADIAN = measure(NONE, { turn: 'angle', spin: 1 })
/** A factor of π. */
export const OF_PI = measure(NONE, { pi: 1 })
