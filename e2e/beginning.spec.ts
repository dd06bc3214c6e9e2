import { expect, test } from './folio'

/** The first minute: nothing asks, nothing that is typed is lost, and there is something to try. */

test('a new folio takes what is typed from the click on, whatever has to be fetched first', async ({ folio, page }) => {
  // What the folio's page and its editor are made of comes late.
  await page.route(/_nuxt\/.*\.js$/, async (route) => {
    await new Promise((done) => setTimeout(done, 60))
    await route.continue()
  })
  await page.goto('/')
  await page.getByRole('button', { name: 'New folio', exact: true }).click()
  await page.keyboard.type('# Two numbers', { delay: 20 })
  await page.keyboard.press('Enter')
  await page.keyboard.type('z = 3 + 4j', { delay: 20 })
  await page.keyboard.press('Enter')
  await expect(folio.editor).toBeFocused()
  await page.keyboard.type('|z|')
  await folio.leave()
  await expect(folio.row(1)).toContainText('Two numbers')
  await folio.expectValue(2, '3 + 4j | 5 ∠ 53.13°')
  await folio.expectValue(3, '5')
  // Until it is given a title it has that of its first line; so it stands on the shelf.
  await expect(page.getByRole('button', { name: 'Two numbers (rename)' })).toBeVisible()
  await expect(page.locator('.status')).toHaveText(/^saved/)
  await page.getByRole('link', { name: 'To the shelf' }).click()
  // Beside it stand those of the tests that run at the same time.
  await expect(page.locator('.card .title').filter({ hasText: 'Two numbers' }).first()).toBeVisible()
})

test('every example of an empty folio runs with a click, and the hand stays in the line', async ({ folio, page }) => {
  await folio.open([''])
  await expect(folio.editor).toBeFocused()
  const offers = page.getByRole('region', { name: 'To begin with' })
  for (const what of ['a phasor', 'Ohm’s law', 'a matrix', 'a sweep', 'a note']) {
    await offers.getByRole('button', { name: `Put in ${what}` }).click()
    await expect(folio.editor).toBeFocused()
  }
  await folio.expectValue(1, '199.19 + 115j | 230 ∠ 30°')
  // 230/(12 + 5j): mpmath.
  await folio.expectValue(2, '16.331 − 6.8047j | 17.692 ∠ −22.62°')
  await expect(folio.row(7).getByRole('heading', { name: 'What is sought' })).toBeVisible()
  await expect(page.locator('.problem')).toHaveCount(0)
  await page.keyboard.type('arg(V)')
  await expect(offers).toHaveCount(0)
  await folio.leave()
  await folio.expectValue(8, '30°')
})

test('the tour of the handbook runs in the folio, step by step', async ({ folio, page }) => {
  await folio.open([''])
  await page.getByRole('button', { name: 'Five minutes with the ledger' }).click()
  const steps = page.getByRole('button', { name: /^Run step \d of the tour/ })
  await expect(steps).toHaveCount(7)
  for (let k = 0; k < 7; k += 1) await steps.nth(k).click()
  await expect(folio.rows).toHaveCount(10)
  await expect(folio.row(6)).toContainText('agrees to 4 significant figures')
  await expect(page.locator('.problem')).toHaveCount(0)
})

test('letters typed while the find palette or a question comes in are in its field', async ({ folio, page }) => {
  await folio.open(['Z = 12 + 5j', ''], {}, 'early')
  await page.keyboard.press('Escape')
  await page.keyboard.press('F8')
  await page.keyboard.type('reduction')
  await expect(page.getByRole('combobox', { name: /Find/ })).toHaveValue('reduction')
  await page.keyboard.press('Escape')
  await page.goto('/')
  const card = page.locator('.card').first()
  await card.getByRole('button', { name: /^Actions/ }).click()
  await page.getByRole('menuitem', { name: 'Rename' }).click()
  await page.keyboard.type('Two numbers')
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Two numbers')
})
