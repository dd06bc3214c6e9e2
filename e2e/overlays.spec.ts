import type { Page } from '@playwright/test'
import { violations } from './axe'
import { expect, test } from './folio'

/** What opens over the page takes the focus and gives it back; and what is seen where the system forces its colours. */

const active = (page: Page) => page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent?.trim() ?? '') // prettier-ignore

test('a menu takes the focus, arrows and letters go through it, and Escape gives the focus back', async ({
  folio,
  page,
}) => {
  await folio.open(['z = 1 + 2j', 'y = 2z'])
  await folio.expectValue(2, '2 + 4j | 4.4721 ∠ 63.435°')
  await folio.row(1).locator('.opener').focus()
  const button = folio.row(1).getByRole('button', { name: 'Actions for line 1' })
  await button.focus()
  await page.keyboard.press('Enter')
  const item = (name: string | RegExp) => page.getByRole('menuitem', { name })
  await expect(item('Line above')).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await expect(item('Line below')).toBeFocused()
  await page.keyboard.press('End')
  await expect(item('Delete line')).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await expect(item('Line above')).toBeFocused()
  await page.keyboard.press('m')
  await expect(item('Move up')).toBeFocused()
  await page.keyboard.press('m')
  await expect(item('Move down')).toBeFocused()
  expect(await violations(page)).toEqual([])
  await page.keyboard.press('Escape')
  await expect(page.getByRole('menu')).toBeHidden()
  await expect(button).toBeFocused()

  // What an action opens has the focus; what it leaves as it is has it back.
  await page.keyboard.press('Enter')
  await page.keyboard.press('End')
  await page.keyboard.press('Home')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(folio.row(2).locator('.cm-content')).toBeFocused()
})

test('dialogs, sheets and the palette give the focus back to where it came from', async ({ folio, page }) => {
  await folio.open(['z = 1 + 2j', 'y = 2z'])
  await folio.expectValue(1, '1 + 2j | 2.2361 ∠ 63.435°')
  for (const key of ['F8', 'Shift+F1']) {
    const find = page.getByRole('button', { name: 'Find', exact: true })
    await find.focus()
    await page.keyboard.press(key)
    await expect(page.getByRole('dialog')).toBeVisible()
    await expect.poll(() => page.evaluate(() => document.activeElement?.closest('[role="dialog"]') !== null)).toBe(true)
    await page.keyboard.press('Escape')
    await expect(page.getByRole('dialog')).toBeHidden()
    await expect(find).toBeFocused()
  }
  const examples = page.getByRole('button', { name: 'Conventions, with examples' })
  await examples.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(examples).toBeFocused()
  // The index, and the sheet that is handed in.
  await folio.row(2).locator('.opener').focus()
  await page.keyboard.press('Shift+F8')
  await expect(page.locator('.index-sheet').getByRole('searchbox')).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(folio.row(2).locator('.opener')).toBeFocused()
  await page.keyboard.press('F8')
  await page.keyboard.type('hand in')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('region', { name: 'The sheet' })).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('region', { name: 'The sheet' })).toHaveCount(0)
  await expect(folio.row(2).locator('.opener')).toBeFocused()
  await page.goto('/')
  const card = page.getByRole('button', { name: /^Actions for/ }).first()
  await card.focus()
  await page.keyboard.press('Enter')
  await expect.poll(() => active(page)).toBe('Rename')
  await page.keyboard.press('Escape')
  await expect(card).toBeFocused()
})

test('choices are radio groups: arrows go through them', async ({ folio, page }) => {
  await folio.open(['z = 1 + 2j'])
  await folio.expectValue(1, '1 + 2j | 2.2361 ∠ 63.435°')
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  await page.getByRole('button', { name: 'Dress of z' }).click()
  const sheet = page.getByRole('region', { name: 'Settings of plate 1' })
  const hues = sheet.getByRole('radiogroup', { name: 'hue' }).getByRole('radio')
  await hues.first().check({ force: true })
  await hues.first().focus()
  await page.keyboard.press('ArrowRight')
  await expect(hues.nth(1)).toBeChecked()
  await expect(hues.nth(1)).toBeFocused()
  await sheet.getByRole('radio', { name: 'dotted' }).check({ force: true })
  await page.keyboard.press('Control+Z')
  await expect(sheet.getByRole('radio', { name: 'dotted' })).not.toBeChecked()
})

test('where the system forces its colours, selection, hues and errors are seen', async ({ folio, page }) => {
  await page.emulateMedia({ forcedColors: 'active' })
  await folio.open(['z = 1 + 2j', 'y = 2z', '3 +* 4'])
  await folio.expectValue(2, '2 + 4j | 4.4721 ∠ 63.435°')
  const styleOf = (selector: string, property: string) => page.locator(selector).first().evaluate((e, p) => getComputedStyle(e).getPropertyValue(p), property) // prettier-ignore
  const strokes = await page.locator('.row .stroke.hued').evaluateAll((all) => all.map((e) => getComputedStyle(e).backgroundColor)) // prettier-ignore
  expect(new Set(strokes).size).toBe(2)
  expect(await styleOf('.row.error .number', 'outline-style')).toBe('dashed')
  expect(await styleOf('.row.error mark', 'text-decoration-style')).toBe('wavy')
  await folio.row(1).locator('.number').click()
  await folio
    .row(2)
    .locator('.number')
    .click({ modifiers: ['Shift'] })
  expect(await styleOf('.row.chosen', 'outline-style')).toBe('solid')
  const [on, off] = await page.locator('.rail .v-radio').evaluateAll((all) => [true, false].map((is) => getComputedStyle(all.find((e) => e.classList.contains('v-selection-control--dirty') === is)!).backgroundColor)) // prettier-ignore
  expect(on).not.toBe(off)
})

test('an earlier result is legible while the line is typed anew', async ({ folio, page }) => {
  await folio.open(['z = 1 + 2j'])
  await folio.expectValue(1, '1 + 2j | 2.2361 ∠ 63.435°')
  await folio.edit(1)
  await page.keyboard.press('End')
  await page.keyboard.type(' + foo(')
  await expect(page.getByText('result from before this edit')).toBeVisible()
  expect(await violations(page)).toEqual([])
})
