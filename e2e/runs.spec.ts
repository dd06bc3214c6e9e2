import { expect, test } from './folio'

/** Runs: the folio with other values, side by side. */

const LINES = ['V = 230∠0°', 'R = 12', 'L = 16m', 'Z = R + j*2*pi*50*L', 'I = V/Z']

test('values are tried in sets, compared in both forms, and made the folio’s own, by keyboard', async ({
  folio,
  page,
}) => {
  await folio.open(LINES)
  const runs = page.getByRole('region', { name: 'Runs' })
  await folio.row(1).locator('.opener').focus()
  await page.keyboard.press('Control+F8')
  await expect(runs.getByText('side by side')).toBeVisible()

  const take = async (button: string, line: string): Promise<void> => {
    await runs.getByRole('button', { name: button }).focus()
    await page.keyboard.press('Enter')
    await page.getByRole('menu', { name: button }).getByRole('menuitem', { name: line }).focus()
    await page.keyboard.press('Enter')
  }
  await take('Vary a line', '2 R = 12')
  await take('Vary a line', '3 L = 16m')
  await take('Watch a line', '5 I = V/Z')
  await expect(folio.row(2).getByRole('note', { name: /^Varied/ })).toBeVisible()
  const own = runs.getByRole('row', { name: /^I / })
  // By Python's complex numbers: 230/(12 + 2j*pi*50*0.016) and, with 10 ohms, the next.
  await expect(own).toContainText('16.306 − 6.8301j')

  await runs.getByRole('button', { name: 'Add a set' }).focus()
  await page.keyboard.press('Enter')
  await runs.getByLabel('R, Set A').focus()
  await page.keyboard.type('10')
  await page.keyboard.press('Enter')
  await expect(runs.getByLabel('L, Set A')).toBeFocused()
  await expect(own).toContainText('18.361 − 9.2292j')
  await expect(own).toContainText('20.55 ∠ −26.687°')
  await expect(own).toContainText('2.0552 − 2.3991j')

  // An error stays in its column.
  await page.keyboard.type('16m +')
  await page.keyboard.press('Enter')
  await expect(runs.getByLabel('L, Set A')).toHaveAttribute('aria-invalid', 'true')
  await expect(own).toContainText('16.306 − 6.8301j')
  await expect(own).not.toContainText('18.361')
  await folio.row(5).locator('.opener').focus()
  await page.keyboard.press('Control+Z')
  await expect(own).toContainText('18.361 − 9.2292j')

  await runs.getByRole('textbox', { name: 'Name of the set' }).fill('Cold')
  await page.keyboard.press('Tab')
  await expect(runs.getByLabel('R, Cold')).toHaveValue('10')
  await folio.saved()
  await page.reload()
  await folio.expectValue(2, '12')
  await page.keyboard.press('Control+F8')
  await expect(runs.getByLabel('R, Cold')).toHaveValue('10')
  await runs.getByRole('button', { name: 'Actions for Cold' }).click()
  await page.getByRole('menuitem', { name: 'Make these the folio’s values' }).click()
  await folio.expectValue(2, '10')
  await folio.expectValue(5, '18.361 − 9.2292j | 20.55 ∠ −26.687°')
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await folio.expectValue(2, '12')
})

test('a block from a spreadsheet fills the sets; the account goes out as CSV and onto the sheet', async ({
  folio,
  page,
}) => {
  await folio.open(LINES)
  for (const [row, action] of [
    [2, 'Vary in runs'],
    [3, 'Vary in runs'],
    [5, 'Watch in runs'],
  ] as const) {
    await folio.row(row).hover()
    await folio
      .row(row)
      .getByRole('button', { name: `Actions for line ${row}` })
      .click()
    await page
      .getByRole('menu', { name: `Actions for line ${row}` })
      .getByRole('menuitem', { name: action })
      .click()
  }
  const runs = page.getByRole('region', { name: 'Runs' })
  for (let k = 0; k < 4; k += 1) await runs.getByRole('button', { name: 'Add a set' }).click()
  await page.evaluate(() => navigator.clipboard.writeText('10\t11\n8m\t4m'))
  await runs.getByLabel('R, Set A').focus()
  await page.keyboard.press('Control+V')
  await expect(runs.getByLabel('L, Set B')).toHaveValue('4m')
  await expect(runs.getByLabel('R, Set B')).toHaveValue('11')
  await runs.getByRole('button', { name: 'Copy as CSV' }).click()
  await expect(runs.getByText('Copied as CSV.')).toBeVisible()
  const csv = await page.evaluate(() => navigator.clipboard.readText())
  expect(csv.split(/\r?\n/).slice(0, 3)).toEqual([
    ',Folio,Set A,Set B,Set C,Set D',
    'R,12,10,11,12,12',
    'L,16m,8m,4m,16m,16m',
  ])
  expect(csv).toContain('arg(I) / °')

  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+F9')
  await page.getByRole('button', { name: 'The sheet' }).click()
  const sheet = page.getByRole('group', { name: 'Pages' })
  await expect(sheet.getByRole('heading', { name: 'Runs' })).toBeVisible()
  // Four columns side by side, the fifth below.
  await expect(sheet.locator('article .run-row.names')).toHaveText(['FolioSet ASet BSet C', 'Set D'])
  await page.getByRole('checkbox', { name: 'Runs' }).uncheck()
  await expect(sheet.getByRole('heading', { name: 'Runs' })).toHaveCount(0)
})

test('on a phone two sets stand side by side, names fixed at the left', async ({ folio, page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await folio.open(LINES)
  const id = page.url().split('/').at(-1)
  const response = await page.request.get(`/api/folios/${id}`)
  const { lines } = (await response.json()) as { lines: { id: string }[] }
  const set = (k: number) => ({
    type: 'set',
    set: { id: `set-000${k}`, name: '', values: { [lines[1]!.id]: `1${k}` } },
  })
  const operations = [
    { type: 'mark', id: lines[1]!.id, marks: { varied: true } },
    { type: 'mark', id: lines[4]!.id, marks: { watched: true } },
    ...[0, 1, 2].map(set),
  ]
  const saved = await page.request.post(`/api/folios/${id}/operations`, { data: { revision: 0, operations } })
  expect(saved.ok()).toBe(true)
  await page.reload()
  await folio.expectValue(2, '12')
  await page.keyboard.press('Control+F8')
  const runs = page.getByRole('region', { name: 'Runs' })
  await expect(runs.getByRole('row', { name: /^I / })).toContainText('16.306')
  const inSight = () =>
    runs.locator('thead th').evaluateAll((heads) => {
      const book = heads[0]!.closest('.book')!.getBoundingClientRect()
      return heads.filter((head) => {
        const { left, right } = head.getBoundingClientRect()
        return left >= book.left - 1 && right <= book.right + 1
      }).length
    })
  // The column of names and two sets.
  expect(await inSight()).toBe(3)
  await runs.locator('.book').evaluate((book) => book.scrollBy({ left: 170 }))
  await expect.poll(inSight).toBe(3)
  expect((await runs.getByRole('rowheader').first().boundingBox())?.x).toBeLessThan(30)
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})
