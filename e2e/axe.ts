import AxeBuilder from '@axe-core/playwright'
import { expect } from '@playwright/test'
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

/** The pages have no frames: without looking for some it takes half the time. */
const look = (page: Page): AxeBuilder => new AxeBuilder({ page }).setLegacyMode()

async function against(axe: AxeBuilder): Promise<string[]> {
  const { violations: found } = await axe.analyze()
  return found.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 4)
        .join(' · ')}`,
  )
}

/** What the page has against WCAG 2.2 AA as it is now. */
export async function violations(page: Page): Promise<string[]> {
  await atRest(page)
  return against(
    look(page)
      // Not of WCAG, and wanted all the same: whatever is on the page is in a landmark.
      .options({ rules: { region: { enabled: true } } })
      .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']),
  )
}

async function setTheme(page: Page, name: 'day' | 'night'): Promise<void> {
  await page.evaluate((theme) => {
    interface Mounted extends Element {
      readonly __vue_app__?: {
        readonly config: { readonly globalProperties: { readonly $pinia: { readonly _s: Map<string, { theme: string }> } } }
      }
    }
    const mounted: Mounted | null = document.querySelector('#__nuxt')
    const preferences = mounted?.__vue_app__?.config.globalProperties.$pinia._s.get('preferences')
    if (preferences) preferences.theme = theme
  }, name) // prettier-ignore
  await expect(page.locator('html')).toHaveAttribute('data-theme', name)
}

/** The same by day, and at night what differs then: the colours. */
export async function violationsDayAndNight(page: Page): Promise<string[]> {
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'day')
  const byDay = await violations(page)
  await setTheme(page, 'night')
  await atRest(page)
  const atNight = await against(look(page).withRules(['color-contrast', 'link-in-text-block']))
  await setTheme(page, 'day')
  await atRest(page)
  return [...byDay, ...atNight.map((fault) => `at night ${fault}`)]
}
