import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { remember } from './remembered'
import type { Remembered } from './remembered'

/**
 * Dimensions of quantities: a product of powers of the seven base quantities of the SI (SI Brochure, 9th edition,
 * 2.3.3), with rational exponents. There is one object for each dimension, so that two are the same dimension where
 * they are the same object; products are remembered, since the same few are met over and over.
 */
export class Dimension {
  private readonly products: Remembered<Dimension> = new Map()
  private readonly quotients: Remembered<Dimension> = new Map()

  constructor(
    readonly key: string,
    /** The exponents, in the order of {@link BASE}. */
    readonly powers: readonly Rational[],
  ) {}

  times(other: Dimension): Dimension {
    return this.products.get(other) ?? remember(this.products, other, joined(this, other, Q.add))
  }

  over(other: Dimension): Dimension {
    return this.quotients.get(other) ?? remember(this.quotients, other, joined(this, other, Q.subtract))
  }

  /** To a rational power. */
  to(exponent: Rational): Dimension {
    return dimensionOf(this.powers.map((p) => Q.multiply(p, exponent) ?? Q.ZERO))
  }
}

/** The units of the base quantities, in the order in which products of them are written. */
export const BASE = ['kg', 'm', 's', 'A', 'K', 'mol', 'cd'] as const
export type Base = (typeof BASE)[number]

const known = new Map<string, Dimension>()

function dimensionOf(powers: readonly Rational[]): Dimension {
  const key = powers.map(Q.toText).join(' ')
  const found = known.get(key)
  if (found) return found
  const made = new Dimension(key, powers)
  known.set(key, made)
  return made
}

function joined(a: Dimension, b: Dimension, join: (x: Rational, y: Rational) => Rational | null): Dimension {
  return dimensionOf(a.powers.map((p, k) => join(p, b.powers[k] ?? Q.ZERO) ?? Q.ZERO))
}

/** A dimension by its exponents: `dimension({ m: 1, s: -2 })` is that of an acceleration. */
export function dimension(powers: Readonly<Partial<Record<Base, number>>>): Dimension {
  return dimensionOf(BASE.map((base) => Q.whole(powers[base] ?? 0)))
}

/** That of plain numbers. */
export const NONE = dimension({})
