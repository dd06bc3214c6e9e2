import { expect, test, FolioPage } from './folio'
import { OwnServer } from './ownServer'

// Nothing is shared with the tests before: what a fresh browser keeps, and is sent, is what is tried.
test.use({ sharing: false })

test('after a reload everything is there', async ({ folio, page }) => {
  await folio.open(['a = 1'])
  await folio.edit(1)
  await page.keyboard.press('Enter')
  await page.keyboard.type('b = a + 3j')
  await page.keyboard.press('Enter')
  await page.getByRole('region', { name: 'Conventions' }).getByRole('button', { name: 'More digits' }).click()
  await folio.saved()
  await page.reload()
  await folio.expectValue(2, '1 + 3j | 3.16228 ∠ 71.5651°')
})

test('a reload in the middle of a line finds the line as it was being typed', async ({ folio, page }) => {
  await folio.open(['a = 1', 'a + 1'])
  await folio.edit(2)
  await page.keyboard.type(' + 40')
  await folio.expectValue(2, '42')
  await page.reload()
  await expect(folio.editor).toHaveText('a + 1 + 40')
  await expect(folio.editor).toBeFocused()
  await page.keyboard.press('Enter')
  await folio.expectValue(2, '42')
})

test('the server is killed while one types, and started again: not one line is lost', async ({ page }) => {
  const server = await OwnServer.begin()
  try {
    const response = await page.request.post(`${server.address}/api/folios`, {
      data: { title: 'Storm', lines: [{ source: 'a = 1' }] },
    })
    const { id } = (await response.json()) as { id: string }
    await page.goto(`${server.address}/folio/${id}`)
    const folio = new FolioPage(page)
    await folio.edit(1)
    await page.keyboard.press('Enter')
    await page.keyboard.type('b = 2')
    await page.keyboard.press('Enter')
    await folio.saved()
    await server.kill()
    await page.keyboard.type('c = a + b')
    await page.keyboard.press('Enter')
    await page.keyboard.type('d = c^2')
    await folio.leave()
    await folio.expectValue(4, '9')
    await expect(page.locator('.status')).toContainText('not saved')
    await expect(page.locator('.status')).toContainText('kept in this browser')
    await server.start()
    await expect(page.locator('.status')).toHaveText(/^saved/, { timeout: 25_000 })
    await page.reload()
    await folio.expectValue(4, '9')
    await expect(folio.rows).toHaveCount(4)
  } finally {
    await server.kill()
  }
})

test('what could not be sent is sent when the page is opened again', async ({ page }) => {
  const server = await OwnServer.begin()
  try {
    const response = await page.request.post(`${server.address}/api/folios`, {
      data: { title: 'Tide', lines: [{ source: 'a = 1' }] },
    })
    const { id } = (await response.json()) as { id: string }
    await page.goto(`${server.address}/folio/${id}`)
    const folio = new FolioPage(page)
    await folio.expectValue(1, '1')
    await server.kill()
    await folio.rewrite(1, 'a = 77')
    await expect(page.locator('.status')).toContainText('not saved')
    await page.goto('about:blank')
    await server.start()
    await page.goto(`${server.address}/folio/${id}`)
    await folio.expectValue(1, '77')
    await folio.saved()
    const kept = await page.request.get(`${server.address}/api/folios/${id}`)
    expect(((await kept.json()) as { lines: { source: string }[] }).lines[0]?.source).toBe('a = 77')
  } finally {
    await server.kill()
  }
})

test('two browsers on one folio: different lines are merged, two texts of one line are both kept', async ({
  folio,
  page,
  browser,
}) => {
  const id = await folio.open(['a = 1', 'b = 2'])
  await folio.expectValue(2, '2')
  const context = await browser.newContext()
  const other = new FolioPage(await context.newPage())
  await other.page.goto(`/folio/${id}`)
  await other.expectValue(2, '2')

  await folio.rewrite(1, 'a = 10')
  await folio.saved()
  await other.rewrite(2, 'b = 20')
  await other.saved()
  await other.expectValue(1, '10')
  await other.expectValue(2, '20')

  await folio.rewrite(2, 'b = 99')
  await folio.saved()
  await expect(folio.rows).toHaveCount(3)
  await folio.expectValue(2, '20')
  await folio.expectValue(3, '99')
  await expect(page.locator('.notice')).toContainText('both texts are kept')
  await context.close()
})

test('of two tabs one writes, the other follows it live and can take over', async ({ folio, page, context }) => {
  const id = await folio.open(['a = 1', 'b = 2a'])
  await folio.expectValue(2, '2')
  const other = new FolioPage(await context.newPage())
  await other.page.goto(`/folio/${id}`)
  await expect(other.page.locator('.following')).toContainText('Another tab writes this folio')
  await other.expectValue(2, '2')

  // While the first types, the second sees the results; once it keeps, the line.
  await folio.edit(1)
  await page.keyboard.press('Control+A')
  await page.keyboard.type('a = 21')
  await other.expectValue(2, '42')
  await folio.leave()
  await expect(other.row(1).locator('.reading')).toContainText('a=21')
  // A follower opens no editor.
  await other.row(1).locator('.opener').click()
  await expect(other.editor).toHaveCount(0)

  // Taking over keeps what the first was typing.
  await folio.edit(2)
  await page.keyboard.press('Control+A')
  await page.keyboard.type('b = 3a')
  await other.page.getByRole('button', { name: 'Write here instead' }).click()
  await expect(other.page.locator('.notice')).toContainText('This tab writes the folio now')
  await other.expectValue(2, '63')
  await expect(page.locator('.following')).toBeVisible()
  await other.rewrite(1, 'a = 100')
  await folio.expectValue(2, '300')

  // When the writing tab is closed, the one that follows writes.
  await other.saved()
  await other.page.close()
  await expect(page.locator('.following')).toHaveCount(0)
  await folio.rewrite(1, 'a = 5')
  await folio.expectValue(2, '15')
  await folio.saved()
})

test('undo and redo survive a reload', async ({ folio, page }) => {
  await folio.open(['a = 1', 'b = 2'])
  await folio.rewrite(1, 'a = 10')
  await folio.rewrite(2, 'b = 20')
  await page.getByRole('button', { name: 'Undo' }).click()
  await folio.expectValue(2, '2')
  await folio.saved()
  await page.reload()
  await folio.expectValue(1, '10')
  await page.getByRole('button', { name: 'Redo' }).click()
  await folio.expectValue(2, '20')
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await folio.expectValue(1, '1')
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
})

test('two hundred pasted lines become two hundred lines of the ledger', async ({ folio, page }) => {
  await folio.open([''])
  await expect(folio.editor).toBeFocused()
  const lines = Array.from({ length: 200 }, (_, k) => (k === 0 ? 'x0 = 1' : `x${k} = x${k - 1} + 1`))
  await page.evaluate((text) => navigator.clipboard.writeText(text), lines.join('\n'))
  await page.keyboard.press('Control+v')
  // The last of them has the editor.
  await folio.expectValue(200, '200')
  await folio.saved()
  await page.reload()
  await folio.expectValue(1, '1')
  await page.keyboard.press('F8')
  await expect(page.getByRole('combobox', { name: 'Find an action' })).toBeFocused()
  await page.keyboard.type('x199')
  await page.keyboard.press('Enter')
  await folio.expectValue(200, '200')
  await expect(folio.row(200).locator('.opener')).toBeFocused()
})

test('without the network the work goes on, and is sent when it is back', async ({ folio, page, context }) => {
  const id = await folio.open(['a = 1', 'a^2'])
  await folio.expectValue(2, '1')
  await context.setOffline(true)
  await folio.rewrite(1, 'a = 7')
  await folio.expectValue(2, '49')
  await expect(page.locator('.status')).toContainText('not saved')
  await expect(page.locator('.status')).toContainText('kept in this browser')
  await context.setOffline(false)
  await folio.saved()
  const kept = await page.request.get(`/api/folios/${id}`)
  expect(((await kept.json()) as { lines: { source: string }[] }).lines[0]?.source).toBe('a = 7')
})
