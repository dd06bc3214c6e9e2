import type { Complex } from '../numbers/complex'
import { niceStep } from './ticks'
import { boundsOf } from './view'
import type { PlaneView, Size } from './view'

/** Lines of equal damping and of equal natural frequency, for poles of s and of z. */
export interface GridLine {
  readonly points: readonly Complex[]
  readonly label: string
  /** Where its label stands. */
  readonly at: Complex
}

/** Damping ratios that have a line. */
const RATIOS = [0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9] as const
const POINTS = 48
const RINGS_MOST = 40

/** Rays from the origin into the left half, ζ = cos of their angle to the negative axis, and half circles of equal |s|. */
export function dampingGrid(view: PlaneView, size: Size, least: number): readonly GridLine[] {
  const { left, right, bottom, top } = boundsOf(view, size)
  const reach = Math.max(...[left, right].flatMap((x) => [bottom, top].map((y) => Math.hypot(x, y))))
  const rays = RATIOS.flatMap((ratio) => {
    const angle = Math.PI - Math.acos(ratio)
    const edge = insideEdge(angle, left, top)
    return [1, -1].map((side): GridLine => ({
      points: [
        { re: 0, im: 0 },
        { re: reach * Math.cos(angle), im: side * reach * Math.sin(angle) },
      ],
      // The steepest one would meet the name of the axis.
      label: side > 0 && edge > 0 && ratio > 0.1 ? String(ratio) : '',
      at: { re: edge * Math.cos(angle), im: edge * Math.sin(angle) },
    }))
  })
  const step = niceStep(least * view.perPixel)
  const rings: GridLine[] = []
  for (let k = 1; k * step <= Math.min(reach, Math.max(-left, top, -bottom)) && rings.length < RINGS_MOST; k += 1) {
    const radius = Number((k * step).toPrecision(12))
    rings.push({
      points: Array.from({ length: POINTS + 1 }, (_, n) => turned(radius, Math.PI / 2 + (n * Math.PI) / POINTS)),
      label: String(radius),
      at: { re: -radius, im: 0 },
    })
  }
  return [...rays, ...rings]
}

/** How far along a ray its label still stands in sight. */
function insideEdge(angle: number, left: number, top: number): number {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  return 0.88 * Math.min(c < 0 ? left / c : Infinity, s > 0 ? top / s : Infinity)
}

const turned = (radius: number, angle: number): Complex => ({
  re: radius * Math.cos(angle),
  im: radius * Math.sin(angle),
})

/** The same for z = e^(sT): spirals of equal damping inside the unit circle, and lines of equal ω·T in tenths of π. */
export function sampledGrid(): readonly GridLine[] {
  const at = (ratio: number, turn: number, side: number): Complex => {
    const root = Math.sqrt(1 - ratio * ratio)
    const radius = Math.exp((-ratio * turn) / root)
    return { re: radius * Math.cos(turn), im: side * radius * Math.sin(turn) }
  }
  const spirals = RATIOS.flatMap((ratio) =>
    [1, -1].map((side): GridLine => ({
      points: Array.from({ length: POINTS + 1 }, (_, n) => at(ratio, (n * Math.PI) / POINTS, side)),
      label: side > 0 ? String(ratio) : '',
      at: at(ratio, 0.6, 1),
    })),
  )
  const spokes = Array.from({ length: 10 }, (_, n) => ((n + 1) * Math.PI) / 10).flatMap((speed, n) =>
    [1, -1].map((side): GridLine => ({
      points: Array.from({ length: POINTS + 1 }, (_, k) => {
        const ratio = Math.min(1, k / POINTS)
        const [decay, turn] = [-ratio * speed, speed * Math.sqrt(1 - ratio * ratio)]
        return { re: Math.exp(decay) * Math.cos(turn), im: side * Math.exp(decay) * Math.sin(turn) }
      }),
      label: side > 0 ? (n === 9 ? 'π' : `${(n + 1) / 10}π`) : '',
      at: { re: 1.06 * Math.cos(speed), im: 1.06 * Math.sin(speed) },
    })),
  )
  return [...spirals, ...spokes]
}
