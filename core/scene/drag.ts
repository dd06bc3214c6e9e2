import type { Complex } from '../numbers/complex'

/** How a value moves under the hand. */
export const DRAG_WAYS = ['free', 'ray', 'ring', 'steps'] as const
export type DragWay = (typeof DRAG_WAYS)[number]

/**
 * Where a dragged value goes: anywhere; along its ray, so that its angle stays;
 * along its ring, so that its magnitude stays; or on the crossings of the grid.
 */
export function constrained(to: Complex, start: Complex, way: DragWay, step: number): Complex {
  const size = Math.hypot(start.re, start.im)
  switch (way) {
    case 'free':
      return to
    case 'ray': {
      if (size === 0) return to
      const along = (to.re * start.re + to.im * start.im) / size
      return { re: (along * start.re) / size, im: (along * start.im) / size }
    }
    case 'ring': {
      const distance = Math.hypot(to.re, to.im)
      if (size === 0 || distance === 0) return start
      return { re: (size * to.re) / distance, im: (size * to.im) / distance }
    }
    case 'steps':
      return { re: Math.round(to.re / step) * step, im: Math.round(to.im / step) * step }
  }
}

/** An arrow key moves a value by a step; along its ray by a step outwards, along its ring by a degree. */
export function nudged(from: Complex, dx: number, dy: number, way: DragWay, step: number): Complex {
  const size = Math.hypot(from.re, from.im)
  if (way === 'ray' && size > 0) {
    const factor = Math.max(0, size + (dx + dy) * step) / size
    return { re: from.re * factor, im: from.im * factor }
  }
  if (way === 'ring' && size > 0) {
    const angle = Math.atan2(from.im, from.re) + ((dy - dx) * Math.PI) / 180
    return { re: size * Math.cos(angle), im: size * Math.sin(angle) }
  }
  return { re: from.re + dx * step, im: from.im + dy * step }
}
