import { onPlane } from './frequency'
import { realRoots } from './realRoots'
import { rootsOfWhole } from './transfer'
import * as W from './whole'
import type { Whole } from './whole'

/** How many roots lie to the right of the imaginary axis, and how many on it: exactly, whatever they are near to. */
export interface Sides {
  readonly right: number
  readonly axis: number
}

/**
 * Roots that lie opposite one another, among them all on the axis, are those of the common divisor of p(s) and p(−s),
 * an even polynomial; of the others none is on the axis. `null` where the roots could not be told apart.
 */
export function sidesOf(p: Whole): Sides | null {
  const atZero = p.findIndex((c) => c !== 0n)
  if (atZero < 0) return null
  const core = p.slice(atZero)
  const opposite = W.commonDivisor(core, W.mirrored(core))
  const degree = W.degreeOf(opposite)
  const onAxis = degree === 0 ? 0 : 2 * inSquares(opposite).reduce((sum, { times }) => sum + times, 0)
  const rest = W.divided(core, opposite)
  const roots = W.degreeOf(rest) > 0 ? rootsOfWhole(rest) : []
  if (!roots) return null
  const right = roots.reduce((sum, { z, times }) => sum + (z.re > 0 ? times : 0), 0)
  return { right: right + (degree - onAxis) / 2, axis: onAxis + atZero }
}

/** The roots x > 0 of an even polynomial at s² = −x. */
function inSquares(even: Whole): readonly { readonly x: number; readonly times: number }[] {
  const halved = W.trimmed(even.filter((_, k) => k % 2 === 0).map((c, k) => (k % 2 === 0 ? c : -c)))
  return realRoots(halved).filter(({ x }) => x > 0)
}

/** The same about the unit circle: how many roots lie outside, and how many on it. */
export function circleSides(p: Whole): Sides | null {
  const degree = W.degreeOf(p)
  const moved = onPlane(p, degree)
  // A root at −1 goes to infinity: it lies on the circle.
  const atInfinity = degree - W.degreeOf(moved)
  const found = moved.length > 0 ? sidesOf(moved) : null
  return found && { right: found.right, axis: found.axis + atInfinity }
}

export const sidesIn = (p: Whole, discrete: boolean): Sides | null => (discrete ? circleSides(p) : sidesOf(p))
