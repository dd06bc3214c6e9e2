import { computed, ref, shallowRef } from 'vue'
import { constrained } from '#core/scene/drag'
import { gripAt, markAt, tipAt } from '#core/scene/hit'
import type { PlaneMark } from '#core/scene/scene'
import { toPixel, toPlane } from '#core/scene/view'
import type { Pixel } from '#core/scene/view'
import { grasped, moveTip, wayOf } from './planeGrasp'
import type { PointerPlane, Tip } from './planeGrasp'
import { usePlaneNudge } from './planeNudge'

interface Drag {
  /** The value that is dragged; `null` while the picture is moved. */
  readonly tip: Tip | null
  /** The mark under the pointer at the start. */
  readonly mark: PlaneMark | null
  /** From the tip to where it was grasped. */
  readonly offset: Pixel
  readonly from: Pixel
  last: Pixel
  moved: boolean
  /** The line as it reads now. */
  source: string | null
}

/** How near a pointer must be to a tip, in pixels. */
const REACH = 14
const TOUCH_REACH = 28
/** Below this a press is a click. */
const SLACK = 4

/** Hovering, clicking, dragging tips, moving and zooming the picture, by mouse, pen and touch. */
export function usePlanePointer(plane: PointerPlane) {
  const drag = shallowRef<Drag | null>(null)
  const hovered = ref<string | null>(null)
  const overGrip = ref(false)
  const touches = new Map<number, Pixel>()
  const keys = usePlaneNudge(plane)

  const active = computed(() => (drag.value?.tip ? (drag.value.mark?.id ?? null) : hovered.value))
  const cursor = computed(() => (drag.value ? 'grabbing' : overGrip.value ? 'grab' : 'default'))

  function at(event: { clientX: number; clientY: number }): Pixel {
    const box = plane.canvas.value?.getBoundingClientRect()
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  }

  const markUnder = (pixel: Pixel, reach: number): PlaneMark | null =>
    markAt(plane.marks.value, plane.view.value, plane.size.value, pixel, reach)

  /** A tip that can be moved goes before one that only lies on it. */
  function tipUnder(pixel: Pixel, reach: number): PlaneMark | null {
    const at = [plane.marks.value, plane.view.value, plane.size.value, pixel, reach] as const
    return gripAt(...at) ?? tipAt(...at)
  }

  function begin(mark: PlaneMark | null, pixel: Pixel, tip: Tip | null): void {
    const stands = mark ? toPixel(plane.view.value, plane.size.value, mark) : pixel
    const offset = tip ? { x: stands.x - pixel.x, y: stands.y - pixel.y } : { x: 0, y: 0 }
    drag.value = { tip, mark, offset, from: pixel, last: pixel, moved: false, source: null }
  }

  function down(event: PointerEvent): void {
    if (event.button !== 0) return
    const pixel = at(event)
    if (event.pointerType === 'touch') {
      touches.set(event.pointerId, pixel)
      return
    }
    const mark = tipUnder(pixel, REACH)
    plane.canvas.value?.setPointerCapture(event.pointerId)
    begin(mark ?? markUnder(pixel, REACH), pixel, grasped(plane, mark))
    if (mark && !mark.draggable) pressedTip = mark
    plane.canvas.value?.focus({ preventScroll: true })
  }
  /** A computed tip that was pressed: to move it is refused, once. */
  let pressedTip: PlaneMark | null = null

  /** The handle beside a value that was tapped. */
  function handleDown(event: PointerEvent, mark: PlaneMark): void {
    if (event.currentTarget instanceof HTMLElement) event.currentTarget.setPointerCapture(event.pointerId)
    begin(mark, at(event), grasped(plane, mark))
  }

  function move(event: PointerEvent): void {
    const pixel = at(event)
    if (event.pointerType === 'touch' && touches.size === 2) {
      pinch(event.pointerId, pixel)
      return
    }
    const current = drag.value
    if (!current) {
      const tip = tipUnder(pixel, REACH)
      overGrip.value = tip?.draggable ?? false
      hovered.value = (tip ?? markUnder(pixel, REACH))?.id ?? null
      return
    }
    current.moved ||= Math.hypot(pixel.x - current.from.x, pixel.y - current.from.y) > SLACK
    if (!current.moved) return
    if (current.tip) {
      const moved = { x: pixel.x + current.offset.x, y: pixel.y + current.offset.y }
      const to = toPlane(plane.view.value, plane.size.value, moved)
      current.source = moveTip(
        plane,
        current.tip,
        constrained(to, current.tip.start, wayOf(plane, event), plane.step()),
      )
      return
    }
    if (pressedTip) {
      plane.refused(pressedTip)
      pressedTip = null
    }
    plane.pan(pixel.x - current.last.x, pixel.y - current.last.y)
    current.last = pixel
  }

  function up(event: PointerEvent): void {
    const touched = touches.get(event.pointerId)
    touches.delete(event.pointerId)
    pressedTip = null
    const current = drag.value
    drag.value = null
    if (current?.tip && current.source !== null) plane.dropped(current.tip.line, current.source)
    else if (current?.mark && !current.moved) plane.clicked(current.mark, false)
    else if (!current && touched) tap(touched, at(event))
  }

  function tap(from: Pixel, pixel: Pixel): void {
    if (Math.hypot(pixel.x - from.x, pixel.y - from.y) > 2 * SLACK) return
    const mark = tipUnder(pixel, TOUCH_REACH) ?? markUnder(pixel, TOUCH_REACH)
    if (mark) plane.clicked(mark, true)
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

  /** One finger scrolls the page; two zoom. */
  function touchStart(event: TouchEvent): void {
    if (event.touches.length > 1) event.preventDefault()
  }

  function wheel(event: WheelEvent): void {
    event.preventDefault()
    plane.zoom(Math.exp(-Math.max(-240, Math.min(240, event.deltaY)) * 0.0016), at(event))
  }

  function leave(): void {
    hovered.value = null
    overGrip.value = false
  }

  return {
    drag, active, cursor, down, handleDown, move, up, cancel, touchStart, wheel, leave, ...keys,
  } // prettier-ignore
}
