import { ORIGIN } from './scene'
import type { PlaneMark } from './scene'
import { toPixel } from './view'
import type { Pixel, PlaneView, Size } from './view'

/** The mark whose tip is nearest to a pixel, or else whose arrow passes under it. */
export function markAt(
  marks: readonly PlaneMark[],
  view: PlaneView,
  size: Size,
  at: Pixel,
  reach: number,
): PlaneMark | null {
  return (
    tipAt(marks, view, size, at, reach) ??
    nearest(
      marks.filter((mark) => mark.role === 'arrow'),
      5,
      (mark) => toArrow(mark, view, size, at),
    )
  )
}

/** The mark whose tip is nearest to a pixel. */
export function tipAt(
  marks: readonly PlaneMark[],
  view: PlaneView,
  size: Size,
  at: Pixel,
  reach: number,
): PlaneMark | null {
  return nearest(marks, reach, (mark) => distance(toPixel(view, size, mark), at))
}

/** The draggable mark whose tip is within reach. */
export function gripAt(
  marks: readonly PlaneMark[],
  view: PlaneView,
  size: Size,
  at: Pixel,
  reach: number,
): PlaneMark | null {
  return tipAt(
    marks.filter((m) => m.draggable),
    view,
    size,
    at,
    reach,
  )
}

function nearest(marks: readonly PlaneMark[], reach: number, measure: (mark: PlaneMark) => number): PlaneMark | null {
  let best: PlaneMark | null = null
  let least = reach
  for (const mark of marks) {
    const found = measure(mark)
    if (found <= least) {
      least = found
      best = mark
    }
  }
  return best
}

function distance(a: Pixel, b: Pixel): number {
  return Math.hypot(a.x - b.x, a.y - b.y)
}

/** Distance from a pixel to the arrow of a mark. */
function toArrow(mark: PlaneMark, view: PlaneView, size: Size, at: Pixel): number {
  const from = toPixel(view, size, mark.tail ?? ORIGIN)
  const to = toPixel(view, size, mark)
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const length = dx * dx + dy * dy
  const share = length === 0 ? 0 : Math.max(0, Math.min(1, ((at.x - from.x) * dx + (at.y - from.y) * dy) / length))
  return distance({ x: from.x + share * dx, y: from.y + share * dy }, at)
}
