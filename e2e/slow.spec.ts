import type { Page } from '@playwright/test'
import { expect, test } from './folio'

// Nothing is shared with the tests before: what a fresh browser keeps, and is sent, is what is tried.
test.use({ sharing: false })

/** Has what brings the editor of lines wait, or fail: the page itself comes as always. */
async function withoutEditor(page: Page, until: Promise<'go on' | 'fail'>): Promise<void> {
  await page.route('**/_nuxt/*.js', async (route) => {
    const response = await route.fetch()
    const code = await response.text()
    if (code.includes('cm-scroller') && (await until) === 'fail') return route.abort()
    return route.fulfill({ response })
  })
}

test('what is typed before the editor has come is in the line when it comes, and goes on at its end', async ({
  folio,
  page,
}) => {
  let goOn: (what: 'go on') => void = () => undefined
  await withoutEditor(page, new Promise((done) => (goOn = done)))
  await folio.open(['a = 2'], {}, 'early')
  await folio.row(1).locator('.opener').click()
  const field = page.getByRole('textbox', { name: 'Line 1, entry' })
  await expect(field).toBeFocused()
  await page.keyboard.press('End')
  await page.keyboard.type(' + 3')
  await page.getByRole('button', { name: /^Power/ }).click()
  goOn('go on')
  await expect(folio.editor).toHaveText('a = 2 + 3^')
  await page.keyboard.type('2')
  await page.keyboard.press('Enter')
  await folio.expectValue(1, '11')
})

test('where the editor cannot be fetched, lines are typed and kept all the same', async ({ folio, page }) => {
  await withoutEditor(page, Promise.resolve('fail'))
  await folio.open([''], {}, 'early')
  const field = page.getByRole('textbox', { name: 'Line 1, entry' })
  await field.fill('V = 230/_0')
  await field.press('Enter')
  await folio.expectValue(1, '230 + 0j | 230 ∠ 0°')
  await page.getByRole('textbox', { name: 'Line 2, entry' }).fill('V/2')
  await folio.expectValue(2, '115 + 0j | 115 ∠ 0°')
  await page.keyboard.press('Escape')
  await expect(folio.row(2)).not.toContainText('115')
})

test('the word beside a control is there for the pointer and for the keyboard, and goes', async ({ folio, page }) => {
  await folio.open(['a = 2'])
  const word = page.getByRole('tooltip')
  const find = page.getByRole('button', { name: 'Find', exact: true })
  await find.hover()
  await expect(word).toHaveText('Find anything (F8)')
  await expect(find).toHaveAccessibleDescription('Find anything (F8)')
  await page.keyboard.press('Escape')
  await expect(word).toBeHidden()
  await page.mouse.move(400, 700)
  await find.focus()
  await page.keyboard.press('Tab')
  await expect(word).toHaveText('Go through the folio line by line (Shift+F2)')
  await page.getByRole('radio', { name: 'Imaginary unit j' }).hover({ force: true })
  await expect(word).toHaveText('Imaginary unit j')
})
