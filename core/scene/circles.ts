import type { Complex } from '../numbers/complex'

/** A circle about the origin or about a point. */
export interface Circle extends Complex {
  readonly radius: number
}

export const CIRCLES_MOST = 12

/**
 * Circles as a student writes them: radii with semicolons between, each about
 * the origin or `at` a point: `2; 0.5 at -1, 0`. `null` where that is not so.
 */
export function readCircles(text: string): readonly Circle[] | null {
  const parts = text
    .split(';')
    .map((part) => part.trim())
    .filter((part) => part !== '')
  if (parts.length > CIRCLES_MOST) return null
  const circles = parts.map(readCircle)
  return circles.every((c) => c !== null) ? circles : null
}

function readCircle(text: string): Circle | null {
  const [size = '', centre, ...rest] = text.split(/\bat\b/)
  const radius = numberOf(size)
  if (radius === null || radius <= 0 || rest.length > 0) return null
  if (centre === undefined) return { re: 0, im: 0, radius }
  const [re = null, im = null, more] = centre.split(',').map(numberOf)
  return re === null || im === null || more !== undefined ? null : { re, im, radius }
}

function numberOf(text: string): number | null {
  const plain = text.trim().replace('−', '-')
  const value = Number(plain)
  return plain === '' || !Number.isFinite(value) ? null : value
}

export function circlesText(circles: readonly Circle[]): string {
  return circles
    .map(({ re, im, radius }) => (re === 0 && im === 0 ? String(radius) : `${radius} at ${re}, ${im}`))
    .join('; ')
}
