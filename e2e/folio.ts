import { expect, test as base } from '@playwright/test'
import type { Locator, Page } from '@playwright/test'

/** A folio page as a student handles it. */
export class FolioPage {
  constructor(readonly page: Page) {}

  /** Makes a folio with these lines and opens it. */
  async open(
    lines: readonly (string | { readonly source: string; readonly note: true })[],
    conventions: Record<string, unknown> = {},
    when: 'ready' | 'early' = 'ready',
  ): Promise<string> {
    const response = await this.page.request.post('/api/folios', {
      data: {
        title: 'Test folio',
        conventions,
        lines: lines.map((line) => (typeof line === 'string' ? { source: line } : line)),
      },
    })
    expect(response.status()).toBe(201)
    const { id } = (await response.json()) as { id: string }
    await this.page.goto(`/folio/${id}`)
    await expect(this.page.getByRole('region', { name: 'Ledger' })).toBeVisible()
    // A line that is open has its editor as soon as that has been fetched.
    if (when === 'ready') await expect(this.page.locator('.plain-entry')).toHaveCount(0)
    return id
  }

  row(number: number): Locator {
    return this.page.locator(`[data-line="${number}"]`)
  }

  get rows(): Locator {
    return this.page.locator('.lines > .row')
  }

  /** The value of a line as it is shown, the twin readout with a bar between its forms. */
  async expectValue(number: number, text: string): Promise<void> {
    const [rectangular, polar] = text.split(' | ')
    if (polar === undefined) await expect(this.row(number).locator('.single > .value')).toHaveText(text)
    else {
      await expect(this.row(number).locator('.rectangular .value')).toHaveText(rectangular ?? '')
      await expect(this.row(number).locator('.polar .value')).toHaveText(polar)
    }
  }

  get editor(): Locator {
    return this.page.locator('.cm-content')
  }

  async edit(number: number): Promise<void> {
    await this.row(number).locator('.opener').focus()
    await this.page.keyboard.press('Enter')
    await expect(this.row(number).locator('.cm-content')).toBeFocused()
  }

  /** Replaces the text of a line and keeps it. */
  async rewrite(number: number, text: string): Promise<void> {
    await this.edit(number)
    await this.page.keyboard.press('Control+A')
    await this.page.keyboard.type(text)
    await this.leave()
  }

  /** Keeps the open line by leaving the ledger. */
  async leave(): Promise<void> {
    await this.page.getByRole('link', { name: 'To the shelf' }).focus()
    await expect(this.editor).toHaveCount(0)
  }

  async saved(): Promise<void> {
    await expect(this.page.locator('.status')).toHaveText(/^saved/)
  }
}

export const test = base.extend<{ folio: FolioPage }>({
  folio: async ({ page }, use) => {
    const troubles: string[] = []
    page.on('pageerror', (error) => troubles.push(error.message))
    page.on('console', (message) => {
      if (message.type() === 'error' && !/Failed to load resource/.test(message.text())) troubles.push(message.text())
    })
    await use(new FolioPage(page))
    expect(troubles).toEqual([])
  },
})

export { expect }

/** Takes a choice of a list, by its field. */
export async function pick(field: Locator, option: string): Promise<void> {
  const page = field.page()
  await page.locator('.v-input').filter({ has: field }).first().click()
  await page.getByRole('option', { name: option }).click()
}
