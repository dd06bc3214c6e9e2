import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { expect } from '@playwright/test'
import type { Page } from '@playwright/test'
import type * as AxeCore from 'axe-core'
import type { RunOptions } from 'axe-core'
import { storeOf } from './storeOf'

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

/** Read once: a page gets it when it is first looked at. */
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** What is not looked at here, since it is in another view. */
export interface Besides {
  readonly exclude?: readonly string[]
}

/** The pages have no frames. What is right is counted, not described: to say where each of it stands takes most of the time. */
async function against(page: Page, options: RunOptions, { exclude = [] }: Besides): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AXE)
  return page.evaluate(
    async ({ options: asked, exclude: left }) => {
      const { axe } = window as unknown as { readonly axe: typeof AxeCore }
      const { violations: found } = await axe.run({ include: [['html']], exclude: left.map((one) => [one]) }, asked)
      return found.map(({ id, nodes }) => `${id}: ${nodes.slice(0, 4).map(({ target }) => target.join(' ')).join(' · ')}`) // prettier-ignore
    },
    { options: { ...options, iframes: false, resultTypes: ['violations'] } satisfies RunOptions, exclude },
  )
}

/** What the page has against WCAG 2.2 AA as it is now. */
export async function violations(page: Page, besides: Besides = {}): Promise<string[]> {
  await atRest(page)
  const runOnly: RunOptions['runOnly'] = { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }
  // Not of WCAG, and wanted all the same: whatever is on the page is in a landmark.
  return against(page, { runOnly, rules: { region: { enabled: true } } }, besides)
} // prettier-ignore

async function setTheme(page: Page, name: 'day' | 'night'): Promise<void> {
  const preferences = await storeOf<{ theme: string }>(page, 'preferences')
  await preferences.evaluate((store, theme) => void (store && (store.theme = theme)), name)
  await expect(page.locator('html')).toHaveAttribute('data-theme', name)
}

/** The same by day, and at night what differs then: the colours. */
export async function violationsDayAndNight(page: Page, besides: Besides = {}): Promise<string[]> {
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'day')
  const byDay = await violations(page, besides)
  await setTheme(page, 'night')
  await atRest(page)
  const atNight = await against(
    page,
    { runOnly: { type: 'rule', values: ['color-contrast', 'link-in-text-block'] } },
    besides,
  )
  await setTheme(page, 'day')
  await atRest(page)
  return [...byDay, ...atNight.map((fault) => `at night ${fault}`)]
}
