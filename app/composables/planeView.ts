import { ref, shallowRef } from 'vue'
import type { Complex } from '#core/numbers/complex'
import { extentOf, fitRange, fitView, panBy, toPixel, zoomAt } from '#core/scene/view'
import type { Bounds, Pixel, PlaneView, Size } from '#core/scene/view'
import type { PlanePlate } from '#shared/plate'

/** Which part of the plane is in sight, in a picture of some size: fitted, until the student zooms or moves it. */
export function usePlaneView(plate: () => PlanePlate, tips: () => readonly Complex[], per: () => number = () => 1) {
  const size = shallowRef<Size>({ width: 400, height: 400 })
  const view = shallowRef<PlaneView>({ re: 0, im: 0, perPixel: 0.01 })
  /** True once the student has zoomed or moved the picture: it then stays as it was set. */
  const held = ref(false)

  /** The range that the student has set, or else all values. */
  function fit(): void {
    const { range, conjugates } = plate()
    const shown = tips()
    const all = conjugates ? [...shown, ...shown.map((m) => ({ re: m.re, im: -m.im }))] : shown
    view.value = range ? fitRange(scaledRange(range, per()), size.value) : fitView(all, size.value)
    held.value = false
  }

  /** After a value was moved the view stays, unless one was left outside of it. */
  function fitIfOut(values: readonly Complex[]): void {
    const out = values.some((value) => {
      const { x, y } = toPixel(view.value, size.value, value)
      return x < 0 || y < 0 || x > size.value.width || y > size.value.height
    })
    if (out) fit()
  }

  function zoom(factor: number, at: Pixel = { x: size.value.width / 2, y: size.value.height / 2 }): void {
    view.value = zoomAt(view.value, size.value, at, factor, extentOf(tips()))
    held.value = true
  }

  function pan(dx: number, dy: number): void {
    view.value = panBy(view.value, dx, dy)
    held.value = true
  }

  /** The arrow keys, plus, minus and 0 on the picture. True where the key was one of them. */
  function key({ key, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean {
    const step = ctrlKey || metaKey || altKey ? undefined : STEPS[key]
    step?.()
    return step !== undefined
  }
  const STEPS: Readonly<Record<string, () => void>> = {
    ArrowLeft: () => pan(40, 0),
    ArrowRight: () => pan(-40, 0),
    ArrowUp: () => pan(0, 40),
    ArrowDown: () => pan(0, -40),
    '+': () => zoom(1.25),
    '=': () => zoom(1.25),
    '-': () => zoom(0.8),
    '0': fit,
  }

  return { size, view, held, fit, fitIfOut, zoom, pan, key }
}

/** A range as it is typed, in the unit of the axes, on the plane. */
export function scaledRange({ left, right, bottom, top }: Bounds, per: number): Bounds {
  return { left: left * per, right: right * per, bottom: bottom * per, top: top * per }
}

/** Where a card stands beside a place of the picture, and inside of it. */
export function besides(pixel: Pixel, size: Size): Readonly<Record<string, string>> {
  const right = pixel.x > size.width * 0.55
  const low = pixel.y > size.height * 0.7
  return {
    left: right ? 'auto' : `${Math.max(4, pixel.x + 18)}px`,
    right: right ? `${Math.max(4, size.width - pixel.x + 18)}px` : 'auto',
    top: low ? 'auto' : `${Math.max(4, pixel.y + 14)}px`,
    bottom: low ? `${Math.max(4, size.height - pixel.y + 14)}px` : 'auto',
  }
}
