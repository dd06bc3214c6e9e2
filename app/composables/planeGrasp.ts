import type { Ref } from 'vue'
import { rewriteLiteral } from '#core/notation/rewrite'
import type { DraggableLiteral } from '#core/notation/rewrite'
import type { DragWay } from '#core/scene/drag'
import type { PlaneMark } from '#core/scene/scene'
import type { Complex } from '#core/numbers/complex'
import type { Pixel, PlaneView, Size } from '#core/scene/view'

/** What pointer and keys have in common when they move a value of the plane. */

/** What they act on. */
export interface PointerPlane {
  readonly canvas: Ref<HTMLCanvasElement | null>
  readonly view: Ref<PlaneView>
  readonly size: Ref<Size>
  readonly marks: Ref<readonly PlaneMark[]>
  /** How a value moves where no key says otherwise. */
  readonly way: () => DragWay
  /** One step of the grid. */
  readonly step: () => number
  readonly pan: (dx: number, dy: number) => void
  readonly zoom: (factor: number, at: Pixel) => void
  /** The text and the literal of a line whose tip is grasped; `null` where it cannot be dragged. */
  readonly grasp: (line: string) => { readonly source: string; readonly literal: DraggableLiteral | null } | null
  /** The gain of the branch of a locus of roots that is nearest to a place. */
  readonly slide: (line: string, at: Complex) => number | null
  readonly dragged: (line: string, source: string) => void
  readonly dropped: (line: string, source: string) => void
  readonly takenBack: () => void
  /** A mark was clicked or tapped, not dragged. */
  readonly clicked: (mark: PlaneMark, touch: boolean) => void
  /** Somebody tried to drag what is computed. */
  readonly refused: (mark: PlaneMark) => void
}

/** A value that has been grasped. */
export interface Tip {
  readonly line: string
  readonly source: string
  readonly literal: DraggableLiteral | null
  /** The locus of roots whose gain it is that moves. */
  readonly locus: string | null
  /** Where the value was when it was grasped. */
  readonly start: { readonly re: number; readonly im: number }
  /** Plane units for one of the units that the line is written in. */
  readonly scale: number
}

/** Takes hold of the value of a mark; `null` where it cannot be moved. */
export function grasped(plane: PointerPlane, mark: PlaneMark | null): Tip | null {
  const line = mark?.slides ?? mark?.line
  const found = mark?.draggable && line !== undefined ? plane.grasp(line) : null
  if (!mark || !found || line === undefined || (!found.literal && mark.slides === undefined)) return null
  const locus = mark.slides === undefined ? null : mark.line
  return { line, ...found, locus, start: { re: mark.re, im: mark.im }, scale: mark.scale ?? 1 }
}

/** The way that the keys held down ask for, or else the one that is set. */
export function wayOf(plane: PointerPlane, event: PointerEvent | KeyboardEvent): DragWay {
  if (event.shiftKey) return 'ray'
  if (event.altKey) return 'ring'
  if (event.ctrlKey || event.metaKey) return 'steps'
  return plane.way()
}

/** Moves a value: the text that its line then has. */
export function moveTip(plane: PointerPlane, tip: Tip, value: Complex): string {
  const source = tip.locus === null ? movedFreely(plane, tip, value) : movedAlong(plane, tip, tip.locus, value)
  plane.dragged(tip.line, source)
  return source
}

/** A line that keeps a plain number: what stands before it, and the number. A remark may follow. */
export const KEPT_NUMBER = /^([^=#]*=\s*)(-?[\d.]+(?:e[+-]?\d+)?)(?=\s*(?:#|$))/i

/** The line of the gain, with the one at the nearest point of a branch. */
function movedAlong(plane: PointerPlane, { source }: Tip, locus: string, value: Complex): string {
  const gain = plane.slide(locus, value)
  return gain === null
    ? source
    : source.replace(KEPT_NUMBER, (_, before: string) => `${before}${Number(gain.toPrecision(3))}`)
}

function movedFreely(plane: PointerPlane, tip: Tip, value: Complex): string {
  if (!tip.literal) return tip.source
  const inUnit = { re: value.re / tip.scale, im: value.im / tip.scale }
  return rewriteLiteral(tip.source, tip.literal, inUnit, plane.view.value.perPixel / tip.scale)
}
