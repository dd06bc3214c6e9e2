/** How long a finger rests for a press to be a long one, in milliseconds, and how far it may stray, in pixels. */
const LONG = 450
const STRAY = 10

/**
 * A finger that rests. `pressed` is told once it has rested long enough; the tap that would follow is taken away. While
 * `taken` says so a plain tap counts as well: it is told as `tapped` and goes no further.
 */
export function useLongPress(pressed: () => void, taken: () => boolean, tapped: () => void) {
  let timer: ReturnType<typeof setTimeout> | null = null
  let from: { readonly x: number; readonly y: number } | null = null
  let byTouch = false
  let done = false

  function end(): void {
    if (timer !== null) clearTimeout(timer)
    timer = null
    from = null
  }

  function down(event: PointerEvent): void {
    end()
    done = false
    byTouch = event.pointerType === 'touch'
    if (!byTouch) return
    from = { x: event.clientX, y: event.clientY }
    timer = setTimeout(() => {
      end()
      done = true
      pressed()
    }, LONG)
  }

  function move(event: PointerEvent): void {
    if (from && Math.hypot(event.clientX - from.x, event.clientY - from.y) > STRAY) end()
  }

  function click(event: MouseEvent): void {
    if (!byTouch || !(done || taken())) return
    if (!done) tapped()
    done = false
    event.preventDefault()
    event.stopPropagation()
  }

  /** The browser's own menu, which a long press opens as well, stays away. */
  function menu(event: Event): void {
    if (byTouch) event.preventDefault()
  }

  return { down, move, end, click, menu }
}
