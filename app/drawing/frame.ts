import type { Conventions } from '#core/format/conventions'
import { formatReal } from '#core/numbers/decimal'
import type { Ink, PlaneMark } from '#core/scene/scene'
import type { PlaneView, Size } from '#core/scene/view'
import type { PlanePlate } from '#shared/plate'
import type { Theme } from '~/theme/tokens'
import type { ShownSweep } from '#core/scene/curve'
import type { ShownBranches } from './rootLocus'
import type { UnitScale } from '#core/scene/unitScales'

/** What the drawing of a plane needs; read anew for each frame. */
export interface PlaneFrame {
  readonly view: PlaneView
  readonly size: Size
  readonly marks: readonly PlaneMark[]
  /** Complex sweeps on the plane. */
  readonly loci: readonly ShownSweep[]
  /** Root loci on the plane. */
  readonly branches?: readonly ShownBranches[]
  readonly theme: Theme
  /** The mark under the pointer, in focus or being dragged. */
  readonly active: string | null
  /** Marks that are picked to be measured. */
  readonly picked: readonly string[]
  /** How the plate is drawn: its grid, its axes, what is drawn besides. */
  readonly plate: PlanePlate
  readonly conventions: Conventions
  /** Which places the labels took in the picture before; written by the drawing. */
  readonly places: Map<string, number>
  /** Under a moving hand: labels keep their places as far as they can. */
  readonly hurried?: boolean
  /** The units whose values are on the plane, with their scales; the one in front has the grid. */
  readonly scales?: readonly UnitScale[]
  readonly front?: string
  /** A miniature: marks only. */
  readonly mini?: boolean
}

export const SERIF = "'Fraunces Variable', Georgia, serif"
export const SANS = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif"

export function hueColour(theme: Theme, ink: Ink): string {
  return theme.hues[ink.hue] ?? theme.ink
}

/** The scale of the unit in front. */
export function frontScale({ scales, front }: Pick<PlaneFrame, 'scales' | 'front'>): UnitScale | null {
  return scales?.find(({ key }) => key === front) ?? scales?.[0] ?? null
}

/** Plane units for one of the units that the axes are counted in. */
export function perShown(frame: Pick<PlaneFrame, 'scales' | 'front'>): number {
  const front = frontScale(frame)
  return front ? perUnit(front) : 1
}

/** Plane units for one of the units that a scale is shown in. */
export const perUnit = ({ scale, factor }: UnitScale): number => scale * factor

/** The view counted in the unit in front. */
export function viewInFront(frame: Pick<PlaneFrame, 'view' | 'scales' | 'front'>): PlaneView {
  const scale = perShown(frame)
  const { re, im, perPixel } = frame.view
  return scale === 1 ? frame.view : { re: re / scale, im: im / scale, perPixel: perPixel / scale }
}

/** Half a pixel off, so that a line of one pixel is sharp. */
export const sharp = (x: number): number => Math.round(x) + 0.5

export function line(ctx: CanvasRenderingContext2D, x: number, y: number, toX: number, toY: number): void {
  ctx.beginPath()
  ctx.moveTo(x, y)
  ctx.lineTo(toX, toY)
  ctx.stroke()
}

/** A number at an axis, in the style of the conventions. */
export function tickText(value: number, { style }: Pick<Conventions, 'style'>): string {
  return formatReal(value, { digits: 6, style })
    .replace('-', '−')
    .replace(/e(-?)(\d+)/, (_, minus: string, power: string) => `·10${raised(`${minus}${power}`)}`)
}

const RAISED: Readonly<Record<string, string>> = {
  '-': '⁻', 0: '⁰', 1: '¹', 2: '²', 3: '³', 4: '⁴', 5: '⁵', 6: '⁶', 7: '⁷', 8: '⁸', 9: '⁹',
} // prettier-ignore

function raised(digits: string): string {
  return [...digits].map((d) => RAISED[d] ?? d).join('')
}
