import type { Scope } from '../operators/context'
import { asRadians } from '../values/convert'
import { real, rough } from '../values/make'
import { bare } from '../values/quantity'
import type { NumberValue, Value } from '../values/types'

/** Sought values as the plain numbers that a search reckons with. */

/** A value in coherent units, an angle in radians; `null` of other kinds. */
export function plainOf(value: Value): NumberValue | null {
  const inner = bare(value)
  if (inner.kind === 'angle') return asRadians(inner)
  return inner.kind === 'number' ? inner : null
}

export function numberFrom(re: number, im: number | null): NumberValue {
  return im === null ? real(re) : rough(re, im, true)
}

/** The names that are sought, each with a value. */
export class Sought implements Scope {
  constructor(private readonly values: ReadonlyMap<string, Value>) {}

  lookup(name: string): Value | null {
    return this.values.get(name) ?? null
  }
}
