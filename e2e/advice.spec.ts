import { violations } from './axe'
import { expect, test } from './folio'

test.describe('what a student brings along', () => {
  test('is met with the right line, which one key takes over', async ({ folio, page }) => {
    await folio.open(['2**5', 'sin 30', 'w = 10', 'C = 0.5', '1/jwC'])
    const first = folio.row(1).locator('.problem')
    await expect(first).toContainText('A power is written with one ^')
    // The button says what it writes, and shows how that is read.
    await expect(first.getByRole('button', { name: '2^5' }).locator('.katex').first()).toBeVisible()
    await expect(folio.row(2).locator('.problem')).toContainText('The argument of sin stands in brackets.')
    expect(await violations(page)).toEqual([])
    await folio.row(2).getByRole('button', { name: 'sin(30)' }).click()
    await folio.expectValue(2, '0.5')
    await folio.row(1).getByRole('button', { name: '2^5' }).click()
    await folio.expectValue(1, '32')
    // The product stands in brackets where it replaces one factor.
    await folio.row(5).getByRole('button', { name: '(j*w*C)' }).click()
    await folio.expectValue(5, '0 − 0.2j | 0.2 ∠ −90°')
    await page.keyboard.press('Control+z')
    await expect(folio.row(5).locator('.problem')).toContainText('jwC is not known')
  })

  test('letters that nobody keeps are declared in a line above, in one step', async ({ folio, page }) => {
    await folio.open(['9ab - 3ab'])
    await folio
      .row(1)
      .getByRole('button', { name: /unknown a, b/ })
      .click()
    await expect(folio.row(2)).toContainText('6')
    await expect(folio.row(1)).toContainText('unknown')
    await expect(folio.row(2).locator('.problem')).toHaveCount(0)
    await page.keyboard.press('Control+z')
    await expect(folio.row(1).locator('.problem')).toContainText('are not known here')
  })

  test('while it is typed, Alt+Enter writes the line as it is written here', async ({ folio, page }) => {
    await folio.open(['x = 2'])
    await folio.edit(1)
    await page.keyboard.press('Control+A')
    await page.keyboard.type('3,5 + 1')
    await expect(folio.row(1).getByRole('button', { name: '3.5 + 1', exact: true })).toBeVisible()
    await page.keyboard.press('Alt+Enter')
    await expect(folio.editor).toHaveText('3.5 + 1')
    await folio.leave()
    await folio.expectValue(1, '4.5')
  })
})

test('after a switch of the unit each line that changed is listed, and can be kept as it was', async ({
  folio,
  page,
}) => {
  await folio.open(['a = sin(30)', 'b = 2a', 'arcsin(0.5)', 'A = [[30, 60], [90, 120]]', 'cos(A)', '5∠30'])
  const rail = page.getByRole('region', { name: 'Conventions' })
  await expect(rail.getByRole('button', { name: /changed with the unit/ })).toHaveCount(0)
  await rail.getByText('radians').click()
  await rail.getByRole('button', { name: /changed with the unit/ }).click()
  const list = page.getByRole('dialog', { name: 'Lines that changed with the unit' })
  await expect(list.getByRole('listitem')).toHaveCount(4)
  await expect(list.getByRole('listitem').first()).toContainText('0.5')
  await expect(list.getByRole('listitem').first()).toContainText('−0.98803')
  await expect(list.getByRole('listitem').nth(1)).toContainText('follows from another line')
  expect(await violations(page)).toEqual([])
  await list.getByRole('listitem').first().getByRole('button', { name: 'keep as degrees' }).click()
  // What followed from it says again what it said.
  await expect(list.getByRole('listitem')).toHaveCount(2)
  await list.getByRole('button', { name: 'Keep all 2 as degrees' }).click()
  await expect(list.getByRole('listitem')).toHaveCount(1)
  await list.getByRole('button', { name: 'Done' }).click()
  await folio.expectValue(1, '0.5')
  await folio.expectValue(2, '1')
  await expect(folio.row(1)).toContainText('30')
  // The matrix has no unit that could be written into it: the line is named.
  await expect(page.getByText('Line 5 stays as it is')).toBeVisible()
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await folio.expectValue(1, '−0.98803')
})
