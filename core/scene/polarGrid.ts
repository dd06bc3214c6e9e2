import type { AngleUnit } from '../values/convert'
import { niceStep } from './ticks'
import { boundsOf, toPixel } from './view'
import type { Pixel, PlaneView, Size } from './view'

/** Rings and rays of a polar grid, as far as they are in sight. */
export interface Ring {
  /** Radius in plane units and in pixels. */
  readonly radius: number
  readonly pixels: number
}
export interface Ray {
  /** Where it leaves the picture. */
  readonly to: Pixel
  /** As the convention's unit writes it: `30°`, `π/6`. */
  readonly label: string
}
export interface PolarGrid {
  readonly centre: Pixel
  readonly rings: readonly Ring[]
  readonly rays: readonly Ray[]
}

/** Rays stand every 30°, or every π/6. */
const RAYS = 12
const RINGS_MOST = 60

export function polarGrid(view: PlaneView, size: Size, angleUnit: AngleUnit, least: number): PolarGrid {
  const centre = toPixel(view, size, { re: 0, im: 0 })
  const { left, right, bottom, top } = boundsOf(view, size)
  const step = niceStep(least * view.perPixel)
  // The nearest and the farthest point of the picture from the origin.
  const nearX = Math.max(left, Math.min(0, right))
  const nearY = Math.max(bottom, Math.min(0, top))
  const nearest = Math.hypot(nearX, nearY)
  const farthest = Math.max(...[left, right].flatMap((x) => [bottom, top].map((y) => Math.hypot(x, y))))
  const rings: Ring[] = []
  const first = Math.max(1, Math.ceil(nearest / step))
  for (let k = first; k < 2 ** 53 && k * step <= farthest && rings.length < RINGS_MOST; k += 1) {
    const radius = Number((k * step).toPrecision(12))
    rings.push({ radius, pixels: radius / view.perPixel })
  }
  const reach = farthest / view.perPixel
  const rays = Array.from({ length: RAYS }, (_, k): Ray => {
    const angle = (k * 2 * Math.PI) / RAYS
    return {
      to: { x: centre.x + reach * Math.cos(angle), y: centre.y - reach * Math.sin(angle) },
      label: rayLabel(k, angleUnit),
    }
  })
  return { centre, rings, rays }
}

const PI_LABELS = ['0', 'π/6', 'π/3', 'π/2', '2π/3', '5π/6', 'π', '−5π/6', '−2π/3', '−π/2', '−π/3', '−π/6'] as const

/** Angles are shown in (−180°, 180°]. */
function rayLabel(k: number, angleUnit: AngleUnit): string {
  if (angleUnit === 'rad') return PI_LABELS[k] ?? ''
  const degrees = k * 30 > 180 ? k * 30 - 360 : k * 30
  return `${degrees < 0 ? '−' : ''}${Math.abs(degrees)}°`
}

/** Where a ray from the centre meets the edge of a box with a margin; `null` where it does not. */
export function edgePoint(centre: Pixel, to: Pixel, size: Size, margin: number): Pixel | null {
  const [dx, dy] = [to.x - centre.x, to.y - centre.y]
  let [enter, leave] = [0, 1]
  const clip = (p: number, q: number): boolean => {
    if (p === 0) return q >= 0
    const t = q / p
    if (p < 0) enter = Math.max(enter, t)
    else leave = Math.min(leave, t)
    return enter <= leave
  }
  const inside =
    clip(-dx, centre.x - margin) &&
    clip(dx, size.width - margin - centre.x) &&
    clip(-dy, centre.y - margin) &&
    clip(dy, size.height - margin - centre.y)
  return inside ? { x: centre.x + leave * dx, y: centre.y + leave * dy } : null
}
