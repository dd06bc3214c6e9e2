import { nudged } from '#core/scene/drag'
import type { PlaneMark } from '#core/scene/scene'
import { grasped, moveTip, wayOf } from './planeGrasp'
import type { PointerPlane, Tip } from './planeGrasp'

/** After so long without a key a move has ended, in milliseconds. */
const RESTING = 900
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

/** Arrow keys move the value in focus; a rest, Enter or leaving it ends the move as one step. */
export function usePlaneNudge(plane: PointerPlane) {
  let resting: ReturnType<typeof setTimeout> | null = null
  let tip: Tip | null = null
  let source: string | null = null
  /** Where the keys have taken the value; what the worker tells lags behind. */
  let at = { re: 0, im: 0 }

  /** True where the key moved the value. */
  function nudge(event: KeyboardEvent, mark: PlaneMark): boolean {
    const arrow = ARROWS[event.key]
    if (!arrow) return false
    if (!mark.draggable) {
      plane.refused(mark)
      return true
    }
    if (tip?.line !== (mark.slides ?? mark.line)) settleKeys()
    if (!tip) {
      tip = grasped(plane, mark)
      at = { re: mark.re, im: mark.im }
    }
    if (!tip) return true
    const way = wayOf(plane, event)
    const step = way === 'steps' ? plane.step() : plane.step() / 20
    at = nudged(at, ...arrow, way === 'steps' ? 'free' : way, step)
    source = moveTip(plane, tip, at)
    if (resting !== null) clearTimeout(resting)
    resting = setTimeout(settleKeys, RESTING)
    return true
  }

  function end(): { readonly tip: Tip | null; readonly source: string | null } {
    if (resting !== null) clearTimeout(resting)
    const done = { tip, source }
    resting = null
    tip = null
    source = null
    return done
  }

  function settleKeys(): void {
    const done = end()
    if (done.tip && done.source !== null) plane.dropped(done.tip.line, done.source)
  }

  function takeKeysBack(): boolean {
    const moved = end().tip !== null
    if (moved) plane.takenBack()
    return moved
  }

  return { nudge, settleKeys, takeKeysBack }
}
