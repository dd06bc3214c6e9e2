import { violations, violationsDayAndNight } from './axe'
import { expect, test } from './folio'

/** Working: how a result comes about, and whether one's own holds. */

const LINES = ['V = 230∠0°', 'R = 12', 'Z = (R + 5j)/(1 - 2j)', 'A = [[2, 1, 0], [1, 3, 1], [0, 1, 4]]', 'inv(A)']

test('a quotient by hand, by keyboard: three depths, the other form, one step at a time, and the line changes', async ({
  folio,
  page,
}) => {
  await folio.open(LINES)
  const working = page.getByRole('region', { name: 'Working' })
  const steps = working.getByRole('list', { name: 'Steps' })
  await folio.row(3).locator('.opener').focus()
  await page.keyboard.press('Control+F2')
  await expect(working.getByRole('heading', { name: 'Z line 3' })).toBeFocused()
  await expect(steps.getByRole('listitem').first()).toContainText('The values are put in the places of the names.')
  await expect(steps).toContainText('multiplied by the conjugate of the divisor')
  // Mathematics has words for those who cannot see it.
  await expect(steps.getByText('12 plus 5 j all over 1 minus 2 j end of fraction').first()).toBeAttached()
  await expect(working).toContainText('Figures are shown to 5 digits and used in full.')

  await working.getByRole('radio', { name: 'polar' }).press('Space')
  await expect(steps).toContainText('Magnitudes are divided, arguments subtracted.')
  await working.getByRole('radio', { name: /^Short/ }).press('Space')
  await expect(working.locator('.short .math-line').last()).toContainText('5.8138')
  await working.getByRole('radio', { name: /^By hand/ }).press('Space')
  await working.getByRole('checkbox', { name: 'One at a time' }).check()
  await expect(steps.getByRole('listitem')).toHaveCount(1)
  await working.getByRole('button', { name: /^Next step/ }).click()
  await expect(steps.getByRole('listitem')).toHaveCount(2)
  await working.getByRole('checkbox', { name: 'One at a time' }).uncheck()

  // The working follows its line.
  await folio.edit(2)
  await page.keyboard.type('0')
  await page.keyboard.press('Enter')
  await expect(steps.getByText('120 plus 5 j', { exact: false }).first()).toBeAttached()
  // The same key closes it over its own line, which is being typed now.
  await page.keyboard.press('Control+F2')
  await expect(working).toBeHidden()
})

test('an elimination goes to the bench, and the working into the folio and out as LaTeX', async ({ folio, page }) => {
  await folio.open(LINES)
  await folio.row(5).hover()
  await folio.row(5).getByRole('button', { name: 'Actions for line 5' }).click()
  await page.getByRole('menuitem', { name: 'Show the working' }).click()
  const working = page.getByRole('region', { name: 'Working' })
  await expect(working.getByRole('list', { name: 'Steps' })).toContainText('The unit matrix is written beside it')
  await working.getByRole('button', { name: 'Copy as LaTeX' }).click()
  await expect(page.getByText('Copied the working as LaTeX.')).toBeVisible()
  const copied = await page.evaluate(() => navigator.clipboard.readText())
  expect(copied).toContain('\\begin{aligned}')
  expect(copied).toContain('(2) → (2) − 1/2·(1)')
  await working.getByRole('button', { name: 'Put into the folio' }).click()
  await expect(folio.row(6)).toContainText('Working:')
  await expect(folio.row(6).locator('ol > li').first()).toContainText('The values are put in')
  await working.getByRole('button', { name: 'Reduce it on the bench' }).click()
  await expect(page.getByRole('table', { name: 'Matrix of 3 rows and 6 columns' })).toBeVisible()
})

test('one’s own working is checked, from a selection and as it is typed, and the slip is named', async ({
  folio,
  page,
}) => {
  await folio.open(['a = (3 + 4j)*(1 - 2j)', '3 - 6j + 4j + 8', '11 - 2j'])
  await folio.row(1).locator('.number').click()
  await folio
    .row(3)
    .locator('.number')
    .click({ modifiers: ['Shift'] })
  await page
    .getByRole('toolbar', { name: 'Selected lines' })
    .getByRole('button', { name: 'Check as a working' })
    .click()
  const working = page.getByRole('region', { name: 'Working' })
  await expect(working.getByRole('status')).toHaveText('Every link holds.')
  const own = working.getByLabel('My working, line by line')
  await expect(own).toHaveValue('a = (3 + 4j)*(1 - 2j)\n3 - 6j + 4j + 8\n11 - 2j')
  await own.fill('(3 + 4j)*(1 - 2j)\n= 3 - 6j + 4j - 8\n= -5 - 2j')
  await expect(working.getByRole('status')).toHaveText('Link 1 breaks.')
  await expect(working.getByRole('list', { name: 'Slips that give this figure' })).toHaveText('j·j was taken for +1: it is −1.') // prettier-ignore
  expect(await violations(page)).toEqual([])
})

test('an example of the handbook has its working one click away, and the stroll shows that of each line', async ({
  folio,
  page,
}) => {
  await folio.open(['z = (1 + 2j)*3', 'abs(z)'])
  await page.keyboard.press('F1')
  await page.getByRole('searchbox', { name: 'Search the handbook' }).fill('gcd')
  await page
    .getByRole('button', { name: /^Show the working of/ })
    .first()
    .click()
  const working = page.getByRole('region', { name: 'Working' })
  await expect(working.getByRole('heading', { name: 'Example' })).toBeVisible()
  await working.getByRole('button', { name: 'Handbook' }).click()
  await expect(page.getByRole('searchbox', { name: 'Search the handbook' })).toBeVisible()

  await page.keyboard.press('Shift+F2')
  await page.getByRole('checkbox', { name: 'With the working' }).check()
  await expect(working.getByRole('heading', { name: 'z line 1' })).toBeVisible()
  await page.getByRole('button', { name: 'Next', exact: true }).click()
  await expect(working.getByRole('heading', { name: 'Line 2' })).toBeVisible()
  await expect(working).toContainText('The magnitude by Pythagoras.')
})

test('a working of hundreds of steps is at hand at once: only what is in sight is drawn', async ({ folio, page }) => {
  const calls = Array.from({ length: 60 }, (_, k) => `f(${k + 1})`)
  await folio.open(['f(t) = 2t^2 + 3t - 1', `[${calls.join(', ')}]`])
  await folio.row(2).locator('.opener').focus()
  await page.keyboard.press('Control+F2')
  const steps = page.getByRole('region', { name: 'Working' }).getByRole('list', { name: 'Steps' })
  await expect(steps.getByRole('listitem').first()).toBeVisible()
  expect(await steps.getByRole('listitem').count()).toBeLessThan(40)
  // The first steps are in sight before the others are there.
  await expect(steps.getByRole('listitem').first()).toHaveAttribute('aria-setsize', /^[3-6]\d\d$/)
  await steps.focus()
  // Heights are measured as steps come into sight: the end may move on once.
  await expect(async () => {
    await page.keyboard.press('End')
    await expect(steps.getByRole('listitem').last()).toHaveAttribute('aria-posinset', /^[3-6]\d\d$/, { timeout: 1500 })
  }).toPass({ timeout: 20_000 })
})

test('the working can be read by everyone, by day and at night', async ({ folio, page }) => {
  await folio.open(LINES)
  await folio.row(3).locator('.opener').focus()
  await page.keyboard.press('Control+F2')
  await expect(page.getByRole('list', { name: 'Steps' }).getByRole('listitem').first()).toBeVisible()
  expect(await violationsDayAndNight(page)).toEqual([])
  await page.getByRole('radio', { name: /^Short/ }).press('Space')
  expect(await violationsDayAndNight(page)).toEqual([])
})
