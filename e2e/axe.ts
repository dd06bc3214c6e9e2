import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'

/** What the page has against WCAG 2.2 AA as it is now. */
export async function violations(page: Page): Promise<string[]> {
  const { violations: found } = await new AxeBuilder({ page })
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
