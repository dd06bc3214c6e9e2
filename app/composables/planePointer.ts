import { computed, ref, shallowRef } from 'vue'
import type { Ref } from 'vue'
import { rewriteLiteral } from '#core/notation/rewrite'
import type { DraggableLiteral } from '#core/notation/rewrite'
import { gripAt, markAt } from '#core/scene/hit'
import type { PlaneMark } from '#core/scene/scene'
import { toPixel, toPlane } from '#core/scene/view'
import type { Pixel, PlaneView, Size } from '#core/scene/view'

/** What the pointer acts on. */
export interface PointerPlane {
  readonly canvas: Ref<HTMLCanvasElement | null>
  readonly view: Ref<PlaneView>
  readonly size: Ref<Size>
  readonly marks: Ref<readonly PlaneMark[]>
  readonly pan: (dx: number, dy: number) => void
  readonly zoom: (factor: number, at: Pixel) => void
  /** The text and the literal of a line whose tip is grasped; `null` where it cannot be dragged. */
  readonly grasp: (id: string) => { readonly source: string; readonly literal: DraggableLiteral } | null
  readonly dragged: (id: string, source: string) => void
  readonly dropped: (id: string, source: string) => void
  readonly takenBack: () => void
}

interface Drag {
  /** The line whose tip is dragged; `null` while the picture is moved. */
  readonly tip: { readonly id: string; readonly source: string; readonly literal: DraggableLiteral } | null
  /** From the tip to where it was grasped. */
  readonly offset: Pixel
  last: Pixel
  /** The line as it reads now. */
  source: string | null
}

/** How near a pointer must be to a tip, in pixels. */
const REACH = 14
const TOUCH_REACH = 28

/** Hovering, dragging tips, moving and zooming the picture, by mouse, pen and touch. */
export function usePlanePointer(plane: PointerPlane) {
  const drag = shallowRef<Drag | null>(null)
  const hovered = ref<string | null>(null)
  const overGrip = ref(false)
  const touches = new Map<number, Pixel>()

  const active = computed(() => (drag.value ? (drag.value.tip?.id ?? null) : hovered.value))
  const cursor = computed(() => (drag.value ? 'grabbing' : overGrip.value ? 'grab' : 'default'))

  function at(event: { clientX: number; clientY: number }): Pixel {
    const box = plane.canvas.value?.getBoundingClientRect()
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  }

  const grip = (pixel: Pixel, reach: number): PlaneMark | null =>
    gripAt(plane.marks.value, plane.view.value, plane.size.value, pixel, reach)

  function down(event: PointerEvent): void {
    if (event.button !== 0) return
    const pixel = at(event)
    const touch = event.pointerType === 'touch'
    if (touch) touches.set(event.pointerId, pixel)
    const mark = grip(pixel, touch ? TOUCH_REACH : REACH)
    const grasped = mark ? plane.grasp(mark.id) : null
    if (!grasped && touch) return
    plane.canvas.value?.setPointerCapture(event.pointerId)
    if (mark && grasped) {
      const tip = toPixel(plane.view.value, plane.size.value, mark)
      const offset = { x: tip.x - pixel.x, y: tip.y - pixel.y }
      drag.value = { tip: { id: mark.id, ...grasped }, offset, last: pixel, source: null }
    } else drag.value = { tip: null, offset: { x: 0, y: 0 }, last: pixel, source: null }
    plane.canvas.value?.focus({ preventScroll: true })
  }

  function move(event: PointerEvent): void {
    const pixel = at(event)
    if (event.pointerType === 'touch' && touches.size === 2) {
      pinch(event.pointerId, pixel)
      return
    }
    const current = drag.value
    if (!current) {
      overGrip.value = grip(pixel, REACH) !== null
      hovered.value = markAt(plane.marks.value, plane.view.value, plane.size.value, pixel, REACH)?.id ?? null
    } else if (current.tip) {
      const moved = { x: pixel.x + current.offset.x, y: pixel.y + current.offset.y }
      const value = toPlane(plane.view.value, plane.size.value, moved)
      current.source = rewriteLiteral(current.tip.source, current.tip.literal, value, plane.view.value.perPixel)
      plane.dragged(current.tip.id, current.source)
    } else {
      plane.pan(pixel.x - current.last.x, pixel.y - current.last.y)
      current.last = pixel
    }
  }

  function up(event: PointerEvent): void {
    touches.delete(event.pointerId)
    const current = drag.value
    drag.value = null
    if (current?.tip && current.source !== null) plane.dropped(current.tip.id, current.source)
  }

  function cancel(): void {
    if (drag.value?.tip) plane.takenBack()
    drag.value = null
    touches.clear()
  }

  /** Two fingers zoom about their middle and move the picture. */
  function pinch(id: number, pixel: Pixel): void {
    const before = touches.get(id)
    const other = [...touches].find(([key]) => key !== id)?.[1]
    if (!before || !other) return
    const old = Math.hypot(before.x - other.x, before.y - other.y)
    const now = Math.hypot(pixel.x - other.x, pixel.y - other.y)
    if (old > 0 && now > 0) plane.zoom(now / old, { x: (pixel.x + other.x) / 2, y: (pixel.y + other.y) / 2 })
    plane.pan((pixel.x - before.x) / 2, (pixel.y - before.y) / 2)
    touches.set(id, pixel)
  }

  /** One finger scrolls the page unless it has a tip under it; two zoom. */
  function touchStart(event: TouchEvent): void {
    const [touch] = event.touches
    if (touch && (event.touches.length > 1 || grip(at(touch), TOUCH_REACH))) event.preventDefault()
  }

  function wheel(event: WheelEvent): void {
    event.preventDefault()
    plane.zoom(Math.exp(-Math.max(-240, Math.min(240, event.deltaY)) * 0.0016), at(event))
  }

  function leave(): void {
    hovered.value = null
    overGrip.value = false
  }

  return { drag, active, cursor, down, move, up, cancel, touchStart, wheel, leave }
}
