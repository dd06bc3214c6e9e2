import { told } from '../values/problemData'
import type { Told } from '../values/problemData'
import type { Value } from '../values/types'
import type { AngleUnit } from '../values/convert'

/** Angles that people mean in degrees when they write them bare. */
const ROUND_DEGREES: ReadonlySet<number> = new Set([
  15, 30, 45, 60, 75, 90, 120, 135, 150, 180, 210, 225, 240, 270, 300, 315, 330, 360,
])

/** A bare argument that was probably meant in the other unit; `null` where nothing is odd. */
export function suspiciousArgument(value: Value, angleUnit: AngleUnit): Told | null {
  if (value.kind !== 'number') return null
  if (angleUnit === 'deg') return value.pi ? told('multiple-of-pi-in-degrees') : null
  return value.exact && ROUND_DEGREES.has(Math.abs(value.re))
    ? told('round-degrees-in-radians', { value: value.re })
    : null
}
