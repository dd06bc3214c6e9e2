import { expect, test as base } from '@playwright/test'
import type { Browser, BrowserContext, BrowserContextOptions, Locator, Page } from '@playwright/test'

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
      // A connection that has rested is closed by the server, perhaps just now: a browser asks again, too.
      maxRetries: 1,
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

/** A context that asks to save data: nothing is fetched ahead that a test does not open. */
async function savingContext(browser: Browser, use: BrowserContextOptions): Promise<BrowserContext> {
  const context = await browser.newContext(use)
  await context.addInitScript(() =>
    Object.defineProperty(Object.getPrototypeOf((navigator as Navigator & { connection: object }).connection), 'saveData', {
      get: () => true,
    }),
  )
  return context
} // prettier-ignore

/** Everything that a page may have kept for the next one, save what it was sent. */
const KEPT = 'cookies,local_storage,indexeddb,cache_storage,service_workers'

interface Fixtures {
  readonly folio: FolioPage
  /** Whether a test may have the browser of the test before, emptied: scripts are compiled already. Not where keeping is tried. */
  readonly sharing: boolean
}

export const test = base.extend<Fixtures, { readonly shared: BrowserContext }>({
  sharing: [true, { option: true }],
  shared: [
    async ({ browser }, use, { project }) => {
      const { baseURL, viewport, locale, colorScheme, permissions } = project.use
      const context = await savingContext(browser, { baseURL, viewport, locale, colorScheme, permissions })
      await use(context)
      await context.close()
    },
    { scope: 'worker' },
  ],
  context: async ({ browser, shared, sharing, viewport, hasTouch, isMobile, colorScheme }, use, { project }) => {
    const usual =
      JSON.stringify(viewport) === JSON.stringify(project.use.viewport) &&
      !hasTouch &&
      !isMobile &&
      colorScheme === project.use.colorScheme
    if (sharing && usual) return use(shared)
    const own = await browser.newContext()
    await use(own)
    await own.close()
  },
  page: async ({ context, baseURL }, use) => {
    const page = await context.newPage()
    const session = await context.newCDPSession(page)
    await session.send('Storage.clearDataForOrigin', { origin: baseURL ?? '', storageTypes: KEPT })
    await session.detach()
    await use(page)
    for (const left of context.pages()) {
      // What is still on its way is nobody's any more.
      await left.unrouteAll({ behavior: 'ignoreErrors' })
      await left.close()
    }
  },
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
