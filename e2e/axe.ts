import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'

/** Waits until what moves on the page has come to rest: colours in between are nobody's choice. */
async function atRest(page: Page): Promise<void> {
  await page.evaluate(async () => {
    const frame = (): Promise<number> => new Promise((done) => requestAnimationFrame(done))
    await frame()
    await frame()
    const moving = document.getAnimations().filter((a) => Number.isFinite(a.effect?.getComputedTiming().endTime))
    await Promise.all(moving.map((animation) => animation.finished.catch(() => null)))
    await frame()
  })
}

/** What the page has against WCAG 2.2 AA as it is now. */
export async function violations(page: Page): Promise<string[]> {
  await atRest(page)
  const { violations: found } = await new AxeBuilder({ page })
    // The pages have no frames: without looking for some it takes half the time.
    .setLegacyMode()
    // Not of WCAG, and wanted all the same: whatever is on the page is in a landmark.
    .options({ rules: { region: { enabled: true } } })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze()
  return found.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 4)
        .join(' · ')}`,
  )
}
