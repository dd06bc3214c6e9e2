import { onScopeDispose, ReactiveEffect } from 'vue'

/** Small pictures are drawn at most so often, in milliseconds between: what is under the hand goes before them. */
const REST = 250

/** Draws whenever something that it read has changed, but not without a rest between; nothing is worked out before. */
export function drawCalmly(draw: () => void): void {
  let [last, asked] = [-Infinity, false]
  const drawing = new ReactiveEffect(draw)
  drawing.scheduler = plan
  function plan(): void {
    if (asked) return
    asked = true
    const rest = last + REST - performance.now()
    if (rest > 0) setTimeout(() => requestAnimationFrame(now), rest)
    else requestAnimationFrame(now)
  }
  function now(): void {
    asked = false
    last = performance.now()
    drawing.run()
  }
  onScopeDispose(() => drawing.stop())
  plan()
}
