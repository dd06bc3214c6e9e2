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
  readonly grasp: (line: string) => { readonly source: string; readonly literal: DraggableLiteral } | null
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
  readonly literal: DraggableLiteral
  /** Where the value was when it was grasped. */
  readonly start: { readonly re: number; readonly im: number }
  /** Plane units for one of the units that the line is written in. */
  readonly scale: number
}

/** Takes hold of the value of a mark; `null` where it cannot be moved. */
export function grasped(plane: PointerPlane, mark: PlaneMark | null): Tip | null {
  const found = mark?.draggable ? plane.grasp(mark.line) : null
  return mark && found
    ? { line: mark.line, ...found, start: { re: mark.re, im: mark.im }, scale: mark.scale ?? 1 }
    : null
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
  const inUnit = { re: value.re / tip.scale, im: value.im / tip.scale }
  const source = rewriteLiteral(tip.source, tip.literal, inUnit, plane.view.value.perPixel / tip.scale)
  plane.dragged(tip.line, source)
  return source
}
