import { violations, violationsDayAndNight } from './axe'
import { expect, test } from './folio'
import { findTip, plane } from './plane'

/** Equations as the problem gives them, typed, solved, corrected, and seen. */

const MESHES = [
  'R1 = 4 ohm',
  'R2 = 6 ohm',
  'R3 = 12 ohm',
  'V = 12∠0° V',
  'sought I1, I2',
  '(R1 + R2)*I1 - R2*I2 = V',
  '-R2*I1 + (R2 + R3 + 4j ohm)*I2 = 0',
  'determine',
  'P = abs(I2)^2*R3',
]

test('a mesh problem by keyboard alone: typed as it stands, solved at determine, and all of it follows a change', async ({
  folio,
  page,
}) => {
  await folio.open([''])
  await page.keyboard.type('R = 5')
  for (const line of ['sought x, y', 'R*x + y = 12', 'x - y = 3', 'd = x - y', 'determine', 'x*y']) {
    await page.keyboard.press('Enter')
    await page.keyboard.type(line)
  }
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(folio.row(6)).toContainText('2 equations, 2 sought, one solution')
  await expect(folio.row(6).getByRole('group', { name: 'x, found by line 6' })).toContainText('2.5')
  await expect(folio.row(6).getByRole('group', { name: 'y, found by line 6' })).toContainText('−0.5')
  await folio.expectValue(5, '3')
  await folio.expectValue(7, '−1.25')
  // An equation has its number, and says so to those who cannot see the brace.
  await expect(folio.row(3).getByLabel('Equation 1')).toHaveText('(1)')
  await expect(folio.row(4).getByLabel('Equation 2')).toHaveText('(2)')
  await expect(folio.row(3).locator('.opener')).toHaveAccessibleDescription(/equation 1/)
  await expect(folio.row(6).locator('.opener')).toHaveAccessibleDescription(/x 2\.5; y -0\.5/)

  await folio.rewrite(1, 'R = 1')
  await expect(folio.row(6).getByRole('group', { name: 'x, found by line 6' })).toContainText('7.5')
  await folio.expectValue(7, '33.75')
  await folio.saved()
  await page.reload()
  await folio.expectValue(7, '33.75')
})

test('while a group is typed nothing is red: what is sought waits for determine, and mistakes are named', async ({
  folio,
  page,
}) => {
  await folio.open(['sought x', 'y = 2*x', '3*x = 12'])
  await expect(folio.row(2)).toContainText('its value comes with determine')
  await expect(folio.row(2)).not.toHaveClass(/error/)
  await folio.row(3).locator('.opener').focus()
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.type('determine')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await folio.expectValue(2, '8')

  // Asking where an equation was meant: the hint mends it.
  await folio.rewrite(3, '3*x == 12')
  await expect(folio.row(3)).toContainText('it is no equation')
  await expect(folio.row(4)).toContainText('No equation stands between')
  await folio
    .row(3)
    .getByRole('button', { name: /3\*x = 12/ })
    .click()
  await folio.expectValue(2, '8')

  await folio.rewrite(3, '3*x + q = 12')
  await expect(folio.row(4)).toContainText('an equation there is in error')
  await expect(folio.row(4)).not.toHaveClass(/error/)
  await folio.rewrite(3, 'x + 1 = x')
  await expect(folio.row(3)).toContainText('what is left is never true')
})

test('contradictions, free names and several solutions are said, and near picks one', async ({ folio }) => {
  await folio.open(['sought x, y', 'x + y = 3', 'x - y = 1', 'x = 5', 'determine'])
  await expect(folio.row(5)).toContainText('lines 2, 3 and 4 contradict one another')
  await folio.rewrite(4, '2*x = 4')
  await expect(folio.row(5)).toContainText('one equation follows from the others')
  await folio.rewrite(3, '2*x + 2*y = 6')
  await folio.rewrite(4, '# gone')
  await expect(folio.row(5)).toContainText('y stays free')
  await folio.rewrite(3, 'x*y = 2')
  await expect(folio.row(5)).toContainText('two solutions')
  await folio.rewrite(5, 'determine near x = 1.9')
  await expect(folio.row(5).getByRole('group', { name: 'x, found by line 5' }).locator('.single')).toHaveText(/^2/)
})

test('answers are kept names: in the index, renamed everywhere, on the plate, and they follow a dragged source', async ({
  folio,
  page,
}) => {
  await folio.open(MESHES)
  await expect(folio.row(8).getByRole('group', { name: 'I1, found by line 8' })).toContainText('A')
  await page.keyboard.press('Shift+F8')
  const index = page.getByRole('navigation', { name: 'Index of kept names' })
  await expect(index.locator('.names > li').first()).toContainText('I1')
  await index.getByRole('button', { name: 'Actions for I2, line 8' }).click()
  await page.getByRole('menuitem', { name: 'Rename I2 everywhere' }).click()
  const dialog = page.getByRole('dialog', { name: /^Rename \S+ everywhere$/ })
  await dialog.getByLabel('New name').fill('I_b')
  await page.keyboard.press('Enter')
  await expect(dialog).toBeHidden()
  await expect(folio.row(5).locator('.opener')).toHaveAccessibleName(/sought I1, I_b/)
  await expect(folio.row(7).locator('.opener')).toHaveAccessibleName(/-R2\*I1 \+ .*\*I_b = 0/)
  await expect(folio.row(8).getByRole('group', { name: 'I_b, found by line 8' })).toBeVisible()
  await page.keyboard.press('Escape')

  await expect(plane(page)).toHaveAccessibleName(/\bI1 /)
  const before = await folio.row(8).getByRole('group', { name: 'I1, found by line 8' }).innerText()
  const tip = await findTip(page, 'V')
  await page.mouse.move(tip.x, tip.y)
  await page.mouse.down()
  await page.mouse.move(tip.x - 10, tip.y - 80, { steps: 6 })
  await page.mouse.up()
  await expect(folio.row(4).locator('.opener')).not.toHaveAccessibleName(/12∠0° V/)
  await expect(folio.row(8).getByRole('group', { name: 'I1, found by line 8' })).not.toHaveText(before)
})

test('the equations go to the bench with the sought names over the columns, and their working is the elimination', async ({
  folio,
  page,
}) => {
  await folio.open(['sought a, b', '2*a + b = 5', 'a + 3*b = 10', 'determine', 'sought x', 'x^2 = 4', 'determine'])
  await folio.row(4).hover()
  await folio.row(4).getByRole('button', { name: 'Actions for line 4' }).click()
  await page.getByRole('menuitem', { name: 'Open on the bench' }).click()
  const bench = page.getByRole('region', { name: 'Reduction bench' })
  await expect(bench.getByRole('columnheader')).toHaveCount(3)
  await bench.getByRole('button', { name: 'To reduced form' }).click()
  await expect(bench).toContainText('There is exactly one solution.')
  await expect(bench.getByRole('row').nth(1)).toContainText('1')
  await folio.row(4).locator('.opener').focus()
  await page.keyboard.press('Control+F2')
  await expect(page.getByRole('region', { name: 'Working' })).toContainText('The coefficients of the equations')
  await folio.row(4).getByRole('button', { name: 'How it was solved' }).click()
  await expect(folio.row(4)).toContainText('Determinant')
  await expect(folio.row(4)).toContainText('the solution is exact')

  await folio.row(7).hover()
  await folio.row(7).getByRole('button', { name: 'Actions for line 7' }).click()
  await page.getByRole('menuitem', { name: 'Open on the bench' }).click()
  await expect(bench).toContainText('line 6 is not linear: the term x^2 makes it so')
})

test('over a sweep the answers are curves', async ({ folio, page }) => {
  await folio.open([
    'w = 10 to 1000 per decade 20', 'sought I1, I2', '(50 + j*w*0.1)*I1 - j*w*0.1*I2 = 10',
    '-j*w*0.1*I1 + (j*w*0.1 + 20)*I2 = 0', 'determine',
  ]) // prettier-ignore
  await expect(folio.row(5)).toContainText('one solution at each point')
  const answer = folio.row(5).getByRole('group', { name: 'I2, found by line 5' })
  await expect(answer).toContainText('41 points')
  await folio.row(5).hover()
  await folio.row(5).getByRole('button', { name: 'Actions for I2' }).click()
  await page.getByRole('menuitem', { name: 'Magnitude in dB and angle' }).click()
  await expect(page.getByText('Frequency response I2')).toBeVisible()
  await folio.saved()
  await page.reload()
  await page.getByRole('button', { name: 'Plate 2: Frequency response I2' }).click()
  await expect(page.getByText('Frequency response I2')).toBeVisible()
})

test('equations and their answers can be read by everyone, by day and at night', async ({ folio, page }) => {
  await folio.open(MESHES)
  await folio.row(8).locator('.opener').focus()
  await folio.row(8).getByRole('button', { name: 'How it was solved' }).click()
  await expect(folio.row(8)).toContainText('Condition number')
  expect(await violationsDayAndNight(page)).toEqual([])
})

test.describe('in a narrow window', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('a group has its brace, and its answers stand below one another', async ({ folio, page }) => {
    await folio.open(MESHES)
    const answer = folio.row(8).getByRole('group', { name: 'I2, found by line 8' })
    await answer.scrollIntoViewIfNeeded()
    await expect(answer).toBeInViewport()
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true)
    expect(await violations(page)).toEqual([])
  })
})
