import { findFunction } from '../functions/registry'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { dimension } from '../units/dimension'
import { Measure, measure } from '../units/measure'
import { integer } from '../values/make'
import { quantity } from '../values/quantity'
import type { Value } from '../values/types'
import { holomorphic } from './derivatives'

/** What a function of the registry does with units, found by asking its own rule about a length. */
export interface Rule {
  /** What its arguments are: plain numbers, angles, or all of one measure. */
  readonly needs: 'plain' | 'angle' | 'alike'
  /** The power of their measure that the result has; `null` of a plain number, or of an angle. */
  readonly power: Rational | null
  readonly angle: boolean
}

const known = new Map<string, Rule | null>()

/** `null` where nothing simple can be said. */
export function probed(name: string, count: number): Rule | null {
  const key = `${name} ${count}`
  const before = known.get(key)
  if (before !== undefined) return before
  const found = probe(name, count)
  known.set(key, found)
  return found
}

function probe(name: string, count: number): Rule | null {
  const definition = findFunction(name)
  if (!definition || definition.lazy || count === 0) return null
  const angle = definition.givesAngle === true
  const turn = holomorphic(name)?.angle === 'in' || definition.parameters[0]?.needs === 'angle'
  if (turn) return count === 1 ? { needs: 'angle', power: null, angle: false } : null
  const rule = definition.measures
  if (!rule) return { needs: 'plain', power: null, angle }
  const length = (power: number): Value => quantity(integer(3), measure(dimension({ m: power })))
  const found = rule(Array.from({ length: count }, () => length(6)), integer(3), name) // prettier-ignore
  if ('code' in found) return { needs: 'plain', power: null, angle }
  if ('dressed' in found || !(found instanceof Measure)) return null
  const metres = found.dimension.powers[1] ?? Q.ZERO
  const sixth = Q.divide(metres, Q.whole(6))
  if (!sixth) return null
  // Of several arguments only what keeps their one measure is understood.
  if (count > 1 && !(Q.isZero(sixth) || Q.equals(sixth, Q.ONE))) return null
  return { needs: 'alike', power: Q.isZero(sixth) ? null : sixth, angle }
}
