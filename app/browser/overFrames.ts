import { nextTick } from 'vue'

/** How long a frame may have lasted when the last of it begins, in milliseconds: the browser needs the rest to lay it out and to paint. */
const SHARE = 8

/** So many frames in a row it makes way for what else is drawn. */
const LEFT_MOST = 2

/** A page that nobody sees has no frames: what is to be shown does not wait longer for one, in milliseconds. */
const LONGEST = 500

/**
 * Changes that are shown piece by piece, as many in a frame as there is time for: while something is under the hand
 * no frame is lost to them. Of one thing only the newest change counts, in the place of the one before, so that each has
 * its turn however fast they come.
 */
export class OverFrames<K> {
  private readonly waiting = new Map<K, () => void>()
  private readonly waiters: (() => void)[] = []
  private planned = false
  private timer: ReturnType<typeof setTimeout> | undefined
  /** Frames in a row that were left to others. */
  private left = 0

  put(changes: Iterable<readonly [K, () => void]>): void {
    for (const [key, show] of changes) this.waiting.set(key, show)
    if (typeof requestAnimationFrame === 'undefined' || document.visibilityState === 'hidden') this.flush()
    else this.plan()
  }

  /** Resolves once everything is shown: what would only be overtaken need not be worked out before. */
  get done(): Promise<void> {
    return this.waiting.size === 0 ? Promise.resolve() : new Promise((resolve) => this.waiters.push(resolve))
  }

  /** All at once, now. */
  flush(): void {
    const all = [...this.waiting.values()]
    this.drop()
    for (const show of all) show()
  }

  drop(): void {
    this.waiting.clear()
    this.resolve()
  }

  private resolve(): void {
    for (const resolve of this.waiters.splice(0)) resolve()
  }

  private plan(): void {
    if (this.planned || this.waiting.size === 0) return
    this.planned = true
    let came = false
    const step = (began: number): void => {
      if (came) return
      came = true
      clearTimeout(this.timer)
      void this.step(began)
    }
    requestAnimationFrame(step)
    this.timer = setTimeout(() => step(performance.now()), LONGEST)
  }

  private async step(began: number): Promise<void> {
    // A frame that has drawn a plate already has no more room; but it goes on before long.
    if (performance.now() - began > SHARE && this.left < LEFT_MOST) {
      this.left += 1
      this.planned = false
      return this.plan()
    }
    this.left = 0
    do {
      const [next] = this.waiting
      if (!next) break
      const [key, show] = next
      this.waiting.delete(key)
      show()
      // What depends on it is shown before the time is looked at.
      await nextTick()
    } while (performance.now() - began < SHARE)
    this.planned = false
    if (this.waiting.size === 0) this.resolve()
    this.plan()
  }
}
