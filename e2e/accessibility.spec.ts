import { violations } from './axe'
import { expect, test } from './folio'

for (const theme of ['day', 'night'] as const) {
  test.describe(`in the ${theme} theme`, () => {
    test.beforeEach(async ({ page }) => {
      await page.addInitScript((name) => {
        localStorage.setItem('ornate-phasor:preferences', JSON.stringify({ theme: name }))
      }, theme)
    })

    test('the shelf', async ({ folio, page }) => {
      const id = await folio.open(['z = 1 + 2j'])
      await page.request.put(`/api/folios/${id}/bin`, { data: { binned: true } })
      await page.goto('/')
      await page.getByRole('button', { name: /Bin · / }).click()
      await expect(page.locator('html')).toHaveAttribute('data-theme', theme)
      await expect(page.locator('.card').first()).toBeVisible()
      expect(await violations(page)).toEqual([])
      await page
        .locator('.card')
        .first()
        .getByRole('button', { name: /^Actions/ })
        .click()
      await page.getByRole('menuitem', { name: 'Rename' }).click()
      await expect(page.getByRole('textbox', { name: 'Title' })).toBeVisible()
      expect(await violations(page)).toEqual([])
    })

    test('a folio that begins, and the tour', async ({ page }) => {
      await page.goto('/')
      await page.getByRole('button', { name: 'New folio', exact: true }).click()
      await page.getByRole('button', { name: 'Five minutes with the ledger' }).click()
      await expect(page.getByRole('button', { name: 'Run step 1 of the tour' })).toBeVisible()
      expect(await violations(page)).toEqual([])
    })

    test('the folio page, with errors, hints and an open editor', async ({ folio, page }) => {
      await folio.open(['# A remark', 'z = 1 + 2j', 'sin(30)', '2 3', '-2^2', 'x = 1/3', 'x ~~ 0.33', 'x ~~ 0.4', ''])
      await expect(folio.row(4).locator('.problem')).toBeVisible()
      await page.getByRole('button', { name: 'Table', exact: true }).click()
      expect(await violations(page)).toEqual([])
      await folio.edit(9)
      await page.keyboard.type('foo +')
      await expect(folio.row(9).locator('.waiting')).toBeVisible()
      expect(await violations(page)).toEqual([])
      await page.keyboard.press('Escape')
      await folio.row(2).hover()
      await folio.row(2).getByRole('button', { name: 'Actions for line 2' }).click()
      await expect(page.getByRole('menuitem', { name: 'Delete line' })).toBeVisible()
      expect(await violations(page)).toEqual([])
      await page.keyboard.press('Escape')
    })

    test('exchange, a file before it is taken in, an answer, the sheet', async ({ folio, page }) => {
      await folio.open(['z = 1 + 2j', '# a remark', 'A = [[1, 2], [3, 4]]', '1 +'])
      await page.keyboard.press('Control+F9')
      await expect(page.getByRole('heading', { name: 'Hand in' })).toBeVisible()
      expect(await violations(page)).toEqual([])
      const [chooser] = await Promise.all([
        page.waitForEvent('filechooser'),
        page.getByRole('button', { name: 'Open a file' }).click(),
      ])
      const buffer = Buffer.from('f / Hz;|H| / dB;arg H / °\n1;-20;90\n2;0;x\n3;20;0\n')
      await chooser.setFiles({ name: 'run.csv', mimeType: 'text/csv', buffer })
      await expect(page.getByText('3 rows: f in Hz, H')).toBeVisible()
      expect(await violations(page)).toEqual([])
      await folio.row(1).hover()
      await folio.row(1).getByRole('button', { name: 'Actions for line 1' }).click()
      await page.getByRole('menuitem', { name: 'Mark as an answer' }).click()
      const dialog = page.getByRole('dialog', { name: 'Mark as an answer' })
      await expect(dialog).toBeVisible()
      expect(await violations(page)).toEqual([])
      await dialog.getByRole('button', { name: 'Mark', exact: true }).click()
      await page.getByRole('button', { name: 'Exchange', exact: true }).first().click()
      await page.getByRole('button', { name: 'The sheet' }).click()
      await expect(page.getByRole('article', { name: 'Page 1 of 1' })).toContainText('Answers')
      expect(await violations(page)).toEqual([])
    })

    test('curves, loci, sheets of the plates, measuring, the table of a sweep', async ({ folio, page }) => {
      await folio.open([
        'f = 1 to 100 per decade 20',
        'H = 1/(1 + j*f/10)',
        'A = 3 + 4j',
        'B = 1j',
        'unknown s',
        's^2/(s + 1)',
      ])
      await expect(folio.row(6).locator('.algebra')).toBeVisible()
      await page.getByRole('button', { name: 'Measure' }).click()
      await page.locator('.canvas-host canvas').focus()
      await page.keyboard.press('Tab')
      await page.keyboard.press('Enter')
      await page.keyboard.press('PageDown')
      await page.keyboard.press('Enter')
      await expect(page.getByRole('region', { name: 'Two values measured' })).toContainText('distance')
      expect(await violations(page)).toEqual([])
      await page.getByRole('button', { name: 'Plate', exact: true }).click()
      await page.getByRole('button', { name: 'Dress of A' }).click()
      await expect(page.getByRole('region', { name: 'Settings of plate 1' })).toBeVisible()
      expect(await violations(page)).toEqual([])
      await folio.row(2).locator('.opener').focus()
      await page.keyboard.press('Alt+,')
      await page.locator('.canvas-host canvas').focus()
      await page.keyboard.press('End')
      await page.keyboard.press(' ')
      await page.keyboard.press('Home')
      await page.keyboard.press('Enter')
      await expect(folio.row(2).locator('.at')).toBeVisible()
      expect(await violations(page)).toEqual([])
      await expect(page.getByRole('region', { name: 'Settings of plate 2' })).toBeVisible()
      expect(await violations(page)).toEqual([])
      await folio.row(2).getByRole('button', { name: 'Table of line 2' }).click()
      await expect(page.getByRole('row', { name: /^1 / })).toBeVisible()
      expect(await violations(page)).toEqual([])
    })

    test('what opens beside the ledger', async ({ folio, page }) => {
      await folio.open(['# Given', 'z = 1 + 2j', 'z = 2z', 'z*q', ''])
      await folio.row(1).locator('.opener').focus()
      await page.keyboard.press('F9')
      await page.keyboard.press('Enter')
      await page.keyboard.type('## With a [link](https://example.org) and $a/b$')
      expect(await violations(page)).toEqual([])
      await page.keyboard.press('Control+Enter')
      await folio.leave()
      await folio.saved()
      await page.keyboard.press('Shift+F8')
      await expect(page.locator('.names > li').first()).toBeVisible()
      expect(await violations(page)).toEqual([])
      await page.keyboard.press('Shift+F8')
      await page.keyboard.press('Shift+F9')
      await page.locator('.journal .entry').first().click()
      await expect(page.locator('.state-lines')).toBeVisible()
      expect(await violations(page)).toEqual([])
      const runs = page.getByRole('region', { name: 'Runs' })
      await page.keyboard.press('Control+F8')
      await expect(runs.getByText('side by side')).toBeVisible()
      expect(await violations(page)).toEqual([])
      await runs.getByRole('button', { name: 'Vary a line' }).click()
      await page.getByRole('menuitem', { name: /z = 1 \+ 2j/ }).click()
      await runs.getByRole('button', { name: 'Watch a line' }).click()
      await page
        .getByRole('menu', { name: 'Watch a line' })
        .getByRole('menuitem', { name: /z = 2z/ })
        .click()
      await runs.getByRole('button', { name: 'Add a set' }).click()
      await runs.getByLabel('z, Set A').fill('3 +')
      await page.keyboard.press('Enter')
      await expect(runs.getByRole('row').last().locator('.problem')).toBeVisible()
      expect(await violations(page)).toEqual([])
    })

    test('the handbook', async ({ folio, page }) => {
      await folio.open(['z = 1 + 2j'])
      await folio.expectValue(1, '1 + 2j | 2.2361 ∠ 63.435°')
      await page.keyboard.press('F1')
      await expect(page.locator('.handbook article').first()).toBeVisible()
      expect(await violations(page)).toEqual([])
    })

    test('a selection of lines, and the stroll', async ({ folio, page }) => {
      await folio.open(['# Given', 'z = 1 + 2j', 'z = 2z', 'z*q', ''])
      await folio.row(2).locator('.number').click()
      await folio
        .row(3)
        .locator('.number')
        .click({ modifiers: ['Shift'] })
      await expect(page.locator('.selection')).toBeVisible()
      expect(await violations(page)).toEqual([])
      await page.keyboard.press('Shift+F2')
      await expect(page.locator('.stroll')).toBeVisible()
      expect(await violations(page)).toEqual([])
    })

    test('what opens over the folio', async ({ folio, page }) => {
      await folio.open(['z = 1 + 2j', 'z*q'])
      await folio.expectValue(1, '1 + 2j | 2.2361 ∠ 63.435°')
      for (const key of ['F8', 'Shift+F1']) {
        await page.keyboard.press(key)
        await expect(page.getByRole('dialog')).toBeVisible()
        expect(await violations(page)).toEqual([])
        await page.keyboard.press('Escape')
        await expect(page.getByRole('dialog')).toBeHidden()
      }
      await page.getByRole('button', { name: 'Conventions, with examples' }).click()
      await expect(page.locator('.v-overlay--active').last()).toBeVisible()
      expect(await violations(page)).toEqual([])
      await page.keyboard.press('Escape')
      await expect(page.getByRole('dialog')).toBeHidden()
      await page.getByRole('button', { name: 'Plate', exact: true }).click()
      await expect(page.getByRole('region', { name: 'Settings of plate 1' })).toBeVisible()
      expect(await violations(page)).toEqual([])
    })

    test('the narrow folio page', async ({ folio, page }) => {
      await page.setViewportSize({ width: 390, height: 844 })
      await folio.open(['z = 1 + 2j', 'sin(30)'])
      await folio.expectValue(1, '1 + 2j | 2.2361 ∠ 63.435°')
      expect(await violations(page)).toEqual([])
      await page.getByRole('button', { name: /degrees · j/ }).click()
      await expect(page.locator('.v-overlay--active').last()).toBeVisible()
      expect(await violations(page)).toEqual([])
      await page.getByRole('button', { name: 'Done' }).click()
      await page.getByRole('tab', { name: 'Plates' }).click()
      await expect(page.locator('canvas')).toBeVisible()
      expect(await violations(page)).toEqual([])
      await page.getByRole('tab', { name: 'Leaf' }).click()
      await expect(page.getByRole('region', { name: 'Leaves' })).toBeVisible()
      expect(await violations(page)).toEqual([])
      await page.getByRole('tab', { name: 'Index' }).click()
      await expect(page.locator('.index-sheet')).toBeVisible()
      expect(await violations(page)).toEqual([])
      const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
      expect(overflow).toBeLessThanOrEqual(0)
    })
  })
}
