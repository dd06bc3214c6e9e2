import { expect, test } from './folio'

test('the demo folio is on the shelf, and opens', async ({ folio, page }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Ornate Phasor' })).toBeVisible()
  // Other tests fill the shelf: the card may stand further down.
  await page.getByRole('searchbox', { name: 'Search the folios' }).fill('Lamp circuit')
  await page.getByRole('link', { name: 'Open Lamp circuit' }).first().click()
  await expect(page.getByRole('button', { name: 'Lamp circuit (rename)' })).toBeVisible()
  await expect(folio.rows).toHaveCount(34)
  await folio.expectValue(2, '(12 + j0) | 12 ∠ 0°')
  // 12 V over 2.4 + jπ ohms: 3.0353 A at −52.622° (mpmath).
  await folio.expectValue(7, '(1.8427 − j2.412) | 3.0353 ∠ −52.622°')
  await expect(folio.row(7).locator('.polar')).toContainText('A')
  await expect(folio.row(12)).toContainText('agrees to 3 significant figures')
  await expect(page.locator('.problem')).toHaveCount(0)
})

test('folios are created, renamed, duplicated, binned and restored', async ({ page }) => {
  const title = `Sheet ${Date.now()}`
  await page.goto('/')
  await page.getByRole('button', { name: 'New folio', exact: true }).click()
  await expect(page.locator('.cm-content')).toBeFocused()
  await page.keyboard.type('x = 2')
  await page.getByRole('button', { name: 'New folio (rename)' }).click()
  await page.getByLabel('Title of the folio').fill(`${title} b`)
  await page.keyboard.press('Enter')
  await expect(page.locator('.status')).toHaveText(/^saved/)
  await page.getByRole('link', { name: 'To the shelf' }).click()

  const card = (name: string) =>
    page.locator('.card').filter({ has: page.locator('.title', { hasText: new RegExp(`^${name}$`) }) })
  await expect(card(`${title} b`)).toContainText('1 line')
  await card(`${title} b`)
    .getByRole('button', { name: /^Actions/ })
    .click()
  await page.getByRole('menuitem', { name: 'Rename' }).click()
  await page.getByRole('textbox', { name: 'Title' }).fill(`${title} c`)
  await page.keyboard.press('Enter')
  await card(`${title} c`)
    .getByRole('button', { name: /^Actions/ })
    .click()
  await page.getByRole('menuitem', { name: 'Duplicate' }).click()
  await expect(card(`${title} c \\(copy\\)`)).toBeVisible()
  await card(`${title} c`)
    .getByRole('button', { name: /^Actions/ })
    .click()
  await page.getByRole('menuitem', { name: 'Move to the bin' }).click()
  await expect(card(`${title} c`)).toHaveCount(0)

  await page.reload()
  await page.getByRole('button', { name: /Bin · / }).click()
  const binned = page.locator('.binned li').filter({ hasText: `${title} c` })
  await binned.getByRole('button', { name: 'Restore' }).click()
  await expect(card(`${title} c`)).toBeVisible()
  await card(`${title} c`).getByRole('link').click()
  await expect(page.locator('.row .reading')).toHaveText(/x=2/)
})

test('deleting for good asks first', async ({ page }) => {
  const title = `Wreck ${Date.now()}`
  const response = await page.request.post('/api/folios', { data: { title, lines: [] } })
  const { id } = (await response.json()) as { id: string }
  await page.request.put(`/api/folios/${id}/bin`, { data: { binned: true } })
  await page.goto('/')
  await page.getByRole('button', { name: /Bin · / }).click()
  const entry = page.locator('.binned li').filter({ hasText: title })
  await entry.getByRole('button', { name: 'Delete for good' }).click()
  await page.getByRole('button', { name: 'Cancel' }).click()
  await expect(entry).toHaveCount(1)
  await entry.getByRole('button', { name: 'Delete for good' }).click()
  await page.getByRole('button', { name: 'Delete', exact: true }).click()
  await expect(entry).toHaveCount(0)
  expect((await page.request.get(`/api/folios/${id}`)).status()).toBe(404)
})

test('an address without a folio says so and leads back', async ({ page }) => {
  await page.goto('/folio/AAAAAAAAAAAA')
  await expect(page.getByText('There is no such folio')).toBeVisible()
  await page.getByRole('link', { name: 'To the shelf', exact: true }).last().click()
  await expect(page.getByRole('heading', { name: 'Folios' })).toBeVisible()
})

test('folios are searched by title and by what stands in their lines, sorted, and the bin is emptied', async ({
  page,
}) => {
  const mark = `quay${Date.now()}`
  const make = async (title: string, ...lines: string[]): Promise<string> => {
    const response = await page.request.post('/api/folios', {
      data: { title, conventions: {}, lines: lines.map((source) => ({ source })) },
    })
    return ((await response.json()) as { id: string }).id
  }
  await make(`${mark} B`, 'a = 1')
  await make(`${mark} A`, 'b = 1', 'c = 2', 'd = 3')
  const lost = await make('Another one', `Z_${mark} = 3 + 4j`)
  await page.goto('/')
  await page.getByLabel('Search the folios').fill(mark)
  await expect(page.locator('.card')).toHaveCount(3)
  await expect(page.locator('.card .match')).toHaveText(`Z_${mark} = 3 + 4j`)
  const sortBy = async (order: string): Promise<void> => {
    await page.getByRole('button', { name: /^Sorted by/ }).click()
    await page.getByRole('menuitemradio', { name: order }).click()
  }
  await sortBy('title')
  await expect(page.locator('.card .title')).toHaveText(['Another one', `${mark} A`, `${mark} B`])
  await sortBy('number of lines')
  await expect(page.locator('.card .title').first()).toHaveText(`${mark} A`)
  await page.getByLabel('Search the folios').fill('nothing has these words')
  await expect(page.locator('.content')).toContainText('No folio has')
  await page.getByRole('button', { name: 'Show all' }).click()
  await page.request.put(`/api/folios/${lost}/bin`, { data: { binned: true } })
  await page.reload()
  await page.getByRole('button', { name: /Bin · / }).click()
  await page.getByRole('button', { name: 'Empty the bin…' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click()
  expect((await page.request.get(`/api/folios/${lost}`)).status()).toBe(200)
})
