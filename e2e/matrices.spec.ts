import type { Page } from '@playwright/test'
import { violations } from './axe'
import { expect, test } from './folio'

/** Vectors and matrices: their readouts, the grid, the reduction bench, and lines that show what is right. */

async function menu(page: Page, line: number, item: string): Promise<void> {
  await page.locator(`[data-line="${line}"]`).hover()
  await page.getByRole('button', { name: `Actions for line ${line}`, exact: true }).click()
  await page.getByRole('menuitem', { name: item }).click()
}

const cells = (page: Page, line: number) => page.locator(`[data-line="${line}"] .matrix td .value`)

test('a matrix is read, aligned by its decimal points, and folded to its corner when it is large', async ({
  folio,
  page,
}) => {
  await folio.open(['A = [[1, -2.5], [10.25, 3]]*1', 'B = [[1j, 2], [3, 4]]', 'identity(6)', '[3, 4]', 'A*[1, 2, 3]'])
  await expect(cells(page, 1)).toHaveText([' 1   ', '−2.5', '10.25', ' 3  '].map((t) => t.trim()))
  expect(
    await cells(page, 1)
      .first()
      .evaluate((e) => e.textContent),
  ).toBe(' 1   ')
  await page.locator('[data-line="2"]').getByRole('button', { name: 'polar' }).click()
  await expect(cells(page, 2).first()).toHaveText('1 ∠ 90°')
  await expect(cells(page, 3)).toHaveCount(16)
  await expect(page.locator('[data-line="3"] .shape')).toHaveText('6 × 6')
  await page.locator('[data-line="3"]').getByRole('button', { name: 'show it' }).click()
  await expect(cells(page, 3)).toHaveCount(36)
  await expect(page.locator('[data-line="4"] .size')).toContainText('length 5')
  await expect(page.locator('[data-line="4"] .size')).toContainText('direction 53.13°')
  await expect(folio.row(5)).toContainText('2 × 2 times 3 × 1 does not fit')
})

test('a grid is filled by the keyboard, shows the error of a cell, and is read from its line', async ({
  folio,
  page,
}) => {
  await folio.open(['k = 3', ''])
  await folio.row(2).locator('.opener').focus()
  await page.keyboard.press('Shift+F7')
  const grid = page.getByRole('region', { name: 'Grid' })
  const cell = (r: number, c: number) => grid.getByLabel(`Row ${r}, column ${c}`)
  await expect(cell(1, 1)).toBeFocused()
  await page.keyboard.type('1')
  await page.keyboard.press('Tab')
  await page.keyboard.type('3+4j')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.type('k')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.type('1/2')
  await page.keyboard.press('Enter')
  await expect(folio.row(2).locator('.shape')).toHaveText('2 × 2')
  await expect(cells(page, 2)).toHaveText(['1', '3 + 4j', '0.5', '3'])
  // An error is shown at its cell.
  await cell(2, 2).fill('q')
  await expect(cell(2, 2)).toHaveAttribute('aria-invalid', 'true')
  await expect(cell(1, 1)).toHaveAttribute('aria-invalid', 'false')
  await expect(grid.locator('.problem')).toContainText('q is not known here')
  await cell(2, 2).fill('5∠90°')
  await cell(1, 1).focus()
  await expect(cells(page, 2).last()).toHaveText('0 + 5j')
  // Size, fills, and back from the line.
  await grid.getByRole('spinbutton', { name: 'columns' }).fill('3')
  await page.keyboard.press('Tab')
  await expect(folio.row(2).locator('.shape')).toHaveText('2 × 3')
  await grid.getByRole('button', { name: 'Transpose' }).click()
  await expect(folio.row(2).locator('.shape')).toHaveText('3 × 2')
  expect(await violations(page)).toEqual([])
  await folio.rewrite(2, 'C = [[7, 8], [9, 1]]')
  await expect(cell(1, 2)).toHaveValue('8')
  await grid.getByRole('button', { name: 'Identity' }).click()
  await expect(folio.row(2).locator('.opener')).toHaveAccessibleName(/\[\[1, 0\], \[0, 1\]\]/)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(cell(2, 1)).toHaveValue('9')
})

test('a table is pasted into the grid and copied out of it; the corner is dragged to another size', async ({
  folio,
  page,
}) => {
  await folio.open(['A = [[1, 2], [3, 4]]'])
  await folio.row(1).getByRole('button', { name: 'grid' }).click()
  const grid = page.getByRole('region', { name: 'Grid' })
  await expect(grid.getByLabel('Row 1, column 1')).toBeFocused()
  await page.evaluate(() => navigator.clipboard.writeText('1\t2\t3\n4\t5\t6\n7\t8\t9'))
  await page.keyboard.press('Control+v')
  await expect(folio.row(1).locator('.shape')).toHaveText('3 × 3')
  await grid.getByRole('button', { name: 'Symmetric' }).click()
  await grid.getByRole('button', { name: 'Copy for a spreadsheet' }).click()
  await expect(grid).toContainText('Copied for a spreadsheet.')
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('1\t2\t3\n2\t5\t6\n3\t6\t9')
  const corner = await grid.locator('.corner').boundingBox()
  if (!corner) throw new Error('the corner is in sight')
  await page.mouse.move(corner.x + 8, corner.y + 8)
  await page.mouse.down()
  await page.mouse.move(corner.x + 8 - 112, corner.y + 8 + 38, { steps: 4 })
  await page.mouse.up()
  await expect(folio.row(1).locator('.shape')).toHaveText('4 × 2')
})

test('a matrix is reduced by hand and by itself, and the steps are put into the folio', async ({ folio, page }) => {
  await folio.open(['M = [[0, 2, 4], [1, 1, 3]]'])
  await menu(page, 1, 'Reduce row by row')
  const bench = page.getByRole('region', { name: 'Reduction bench' })
  await expect(bench).toContainText('What the solutions are shows in the echelon form.')
  const operation = bench.getByLabel('Row operation')
  await operation.fill('r2 -> r2 - 3r7')
  await page.keyboard.press('Enter')
  await expect(bench.getByRole('alert')).toContainText('There is no such row')
  await operation.fill('r1 <-> r2')
  await page.keyboard.press('Enter')
  await expect(bench.locator('.steps li')).toHaveCount(2)
  await expect(bench).toContainText('This is a row echelon form.')
  await expect(bench).toContainText('There is exactly one solution.')
  await expect(bench).toContainText('multiplied by −1')
  await bench.getByRole('button', { name: 'Next step' }).click()
  await expect(bench.locator('.steps li').last()).toContainText('(2) → 1/2·(2)')
  await bench.getByRole('button', { name: 'To reduced form' }).click()
  await expect(bench).toContainText('This is the reduced row echelon form.')
  await expect(bench.locator('td .value')).toHaveText(['1', '0', '1', '0', '1', '2'])
  expect(await violations(page)).toEqual([])
  await bench.getByRole('button', { name: 'Step back' }).click()
  await expect(bench.locator('td .value')).toHaveText(['1', '1', '3', '0', '1', '2'])
  await bench.getByRole('button', { name: 'Step on' }).click()
  await bench.getByRole('button', { name: 'Put the steps into the folio' }).click()
  await expect(folio.row(2).getByRole('heading', { name: 'Reducing M' })).toBeVisible()
  await expect(folio.row(2)).toContainText('(1) ↔ (2)')
  await bench.getByRole('button', { name: 'Keep this matrix under a name' }).click()
  await expect(folio.row(2).locator('.opener')).toHaveAccessibleName(/\[\[1, 0, 1\], \[0, 1, 2\]\]/)
  // Dragging a row onto another exchanges them.
  await bench.locator('.steps button').first().click()
  await bench.locator('th').first().dragTo(bench.locator('th').nth(1))
  await expect(bench.locator('td .value').first()).toHaveText('1')
})

test('from the menu: inverse with check, solution with residual, eigenpairs side by side', async ({ folio, page }) => {
  await folio.open(['A = [[2, 1], [1, 3]]'])
  await menu(page, 1, 'Inverse, with check')
  await expect(cells(page, 2)).toHaveText(['0.6', '−0.2', '−0.2', '0.4'])
  await expect(folio.row(3)).toContainText('agrees to')
  await expect(folio.row(3).locator('.pass')).toBeVisible()
  await menu(page, 1, 'Solve, with residual')
  await expect(folio.row(4)).toContainText('residual')
  await folio.expectValue(4, '0')
  await menu(page, 1, 'Eigenpairs, side by side')
  await expect(folio.row(4).locator('.matrix')).toBeVisible()
  const left = await cells(page, 4).allTextContents()
  expect(await cells(page, 5).allTextContents()).toEqual(left)
})
