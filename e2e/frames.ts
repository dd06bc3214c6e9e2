import type { Page } from '@playwright/test'

/** Watches the frames of a page from now on; the longest wait for one so far, in milliseconds. */
export async function watchFrames(page: Page): Promise<() => Promise<number>> {
  const watching = await page.evaluateHandle(() => {
    const seen = { worst: 0 }
    let last = 0
    const watch = (now: number): void => {
      if (last > 0) seen.worst = Math.max(seen.worst, now - last)
      last = now
      requestAnimationFrame(watch)
    }
    requestAnimationFrame(watch)
    return seen
  })
  return () => watching.evaluate((seen) => seen.worst)
}
