import { expect, test } from './folio'

// Nothing is shared with the tests before: what a fresh browser keeps, and is sent, is what is tried.
test.use({ sharing: false })

/** One loose leaf beside the plates, and where the focus goes; finding what stands in the folio. */

test('a leaf that is opened has the focus, takes the place of the one before, and gives the focus back', async ({
  folio,
  page,
}) => {
  // prettier-ignore
  await folio.open(['V = 230∠30°', 'A = [[1, 2], [3, 4]]'])
  await folio.row(1).locator('.opener').focus()
  await page.keyboard.press('F1')
  await expect(page.getByRole('searchbox', { name: 'Search the handbook' })).toBeFocused()
  const tabs = page.getByRole('navigation', { name: 'Beside the ledger' }).getByRole('tab')
  await expect(tabs).toHaveText(['Plates', 'Handbook'])
  await page.keyboard.press('Escape')
  await expect(folio.row(1).locator('.opener')).toBeFocused()
  await page.keyboard.press('Shift+F9')
  await expect(tabs).toHaveText(['Plates', 'Journal'])
  await expect.poll(() => page.evaluate(() => document.activeElement?.closest('section')?.getAttribute('aria-label'))).toBe('Journal') // prettier-ignore
  await page.keyboard.press('Shift+F9')
  await expect(tabs).toHaveCount(0)
  await expect(folio.row(1).locator('.opener')).toBeFocused()
  await folio.row(2).locator('.opener').focus()
  await page.keyboard.press('Shift+F7')
  await expect(page.getByLabel('Row 1, column 1')).toBeFocused()
})

test('one key goes from the line to the plate, to the leaf, and back', async ({ folio, page }) => {
  await folio.open(['V = 230∠30°'])
  await page.keyboard.press('F1')
  await folio.row(1).locator('.opener').focus()
  await page.keyboard.press('Control+F6')
  await expect(page.locator('.canvas-host canvas').first()).toBeFocused()
  await page.keyboard.press('Control+F6')
  await expect(page.getByRole('searchbox', { name: 'Search the handbook' })).toBeFocused()
  await page.keyboard.press('Control+F6')
  await expect(folio.row(1).locator('.opener')).toBeFocused()
})

test('a grid that is begun with a name fills that line', async ({ folio, page }) => {
  await folio.open(['A = '])
  await folio.row(1).locator('.opener').focus()
  await page.keyboard.press('Shift+F7')
  await expect(page.getByLabel('Row 1, column 1')).toBeFocused()
  for (const cell of ['1', '2', '3', '4']) {
    await page.keyboard.type(cell)
    await page.keyboard.press('Tab')
  }
  await page.keyboard.press('Escape')
  await expect(folio.rows).toHaveCount(1)
  await expect(folio.row(1).locator('.opener')).toHaveAccessibleName(/A = \[\[1, 2\], \[3, 4\]\]/)
})

test('finding: lines, headings, and what people call things', async ({ folio, page }) => {
  await folio.open(['# Mesh currents', 'I_shore = 3 + 4j', 'abs(I_shore)*2'])
  await page.keyboard.press('Escape')
  const field = page.getByRole('combobox', { name: /Find/ })
  const first = page.getByRole('option').first()
  for (const [asked, found] of [
    ['print', 'The sheet: hand in'],
    ['bold', 'New note below'],
    ['precision', 'Conventions, with examples'],
    ['constant', 'Handbook'],
    ['clear', 'Delete all lines'],
    ['title', 'Title of the folio'],
    ['save', 'Exchange: files in and out'],
    ['abs(I', 'abs(I_shore)*2'],
    ['mesh cur', '# Mesh currents'],
  ] as const) {
    await page.keyboard.press('F8')
    await field.fill(asked)
    await expect(page.getByRole('option').filter({ hasText: found }).first()).toBeVisible()
    if (asked !== 'abs(I') await page.keyboard.press('Escape')
    else {
      await expect(first).toContainText(found)
      await page.keyboard.press('Enter')
      await expect(folio.row(3).locator('.opener')).toBeFocused()
    }
  }
})

test('prose is offered to be a note; all lines are selected and deleted with one step each, and undone', async ({
  folio,
  page,
}) => {
  // prettier-ignore
  await folio.open(['the current through the choke', 'I = 3', '2*I'])
  await folio.row(1).getByRole('button', { name: 'make it a note' }).click()
  await expect(folio.row(1).locator('.problem')).toHaveCount(0)
  await expect(folio.row(1)).toContainText('the current through the choke')
  await folio.row(2).locator('.opener').focus()
  await page.keyboard.press('Control+A')
  await expect(page.locator('.row.chosen')).toHaveCount(3)
  await page.keyboard.press('Escape')
  await page.keyboard.press('F8')
  await page.getByRole('combobox', { name: /Find/ }).fill('delete all lines')
  await page.keyboard.press('Enter')
  await expect(folio.rows).toHaveCount(1)
  await expect(page.getByText('3 lines are deleted.')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(folio.rows).toHaveCount(3)
})
