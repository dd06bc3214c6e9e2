import type { Locator, Page } from '@playwright/test'
import { violations } from './axe'
import { expect, test } from './folio'
import type { FolioPage } from './folio'
import { findTip, plane } from './plane'

/** A control loop typed by keyboard, seen on the plates, and moved by hand. */

const LOOP = [
  'unknown s',
  'k = 1',
  'zeta = 0.2',
  'G = 4/(s^2 + 4*zeta*s + 4)',
  'L = 6/(s*(s + 1)*(s + 5))',
  'T = closed_loop(L)',
  't = 0 to 12 step 0.05',
  'y = step_response(G, t)',
  'r = root_locus(L, k)',
]

test('from a plant to its closed loop by keyboard alone, the pole that cancels named', async ({ folio, page }) => {
  await folio.open([''])
  await page.keyboard.type('unknown s')
  for (const line of [
    'P = 1/(s - 1)',
    'C = (s - 1)/(s + 2)',
    'L = C*P',
    'T = closed_loop(L)',
    'modes(T).time_constant',
    'margins(T).gain',
    'partial_fractions(1/(s*(s + 1)))',
    'e^(-2s)*T',
  ]) {
    await page.keyboard.press('Enter')
    await page.keyboard.type(line)
  }
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(folio.row(4)).toContainText('The pole at 1 cancels against a zero of another line, and is still there inside: not internally stable.') // prettier-ignore
  await expect(folio.row(6)).toContainText('0.33333')
  await expect(folio.row(7)).toContainText('none')
  await expect(folio.row(8).locator('.katex-mathml').last()).toContainText('s')
  await folio.rewrite(2, 'P = 2/(s + 4)')
  await expect(folio.row(4)).not.toContainText('not internally stable')
})

test('one key draws the frequency response of a transfer function with its margins, another its locus about −1', async ({
  folio,
  page,
}) => {
  await folio.open(LOOP)
  await folio.expectValue(2, '1')
  await folio.row(5).locator('.opener').focus()
  await page.keyboard.press('Alt+,')
  const curves = page.getByRole('application', { name: /Curves over ω/ }).or(page.getByLabel(/^Curves over ω/))
  await expect(curves.first()).toBeVisible()
  await expect(page.getByText('Frequency response L')).toBeVisible()
  await folio.row(5).locator('.opener').focus()
  await page.keyboard.press('Alt+-')
  await expect(page.getByText('Locus of L about −1')).toBeVisible()
  await expect(folio.row(5)).not.toHaveClass(/error/)
})

test('the gain of a root locus moves with its pole, and the ledger with the gain', async ({ folio, page }) => {
  await folio.open(LOOP)
  await expect(plane(page)).toBeVisible()
  const from = await findTip(page, 'r[1]')
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  for (let k = 1; k <= 8; k += 1) await page.mouse.move(from.x - 5 * k, from.y + 2)
  // While it moves the ledger follows.
  await expect(folio.row(2).locator('.value').first()).not.toHaveText('1')
  await page.mouse.up()
  const gain = Number(await folio.row(2).locator('.value').first().textContent())
  expect(gain).toBeGreaterThan(1)
  await page.keyboard.press('Control+z')
  await folio.expectValue(2, '1')
})

test('the vernier: taken in hand by key, slid by keys, kept as one step, and given back by Escape', async ({
  folio,
  page,
}) => {
  await folio.open(LOOP)
  await folio.expectValue(3, '0.2')
  await folio.row(3).locator('.opener').focus()
  await page.keyboard.press('Control+F7')
  const scale = page.getByRole('region', { name: 'Vernier: a number of line 3 in hand' })
  await expect(scale).toContainText('zeta = 0.2')
  await expect(scale.getByRole('slider')).toBeFocused()
  await expect(folio.row(3).locator('.in-hand')).toHaveText('0.2')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  await folio.expectValue(3, '0.31')
  await expect(folio.row(4)).toContainText('1.24')
  await page.keyboard.press('Enter')
  await expect(scale).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await folio.expectValue(3, '0.2')

  await folio.row(3).locator('.opener').focus()
  await page.keyboard.press('Control+F7')
  await page.keyboard.press('Shift+ArrowRight')
  await folio.expectValue(3, '0.3')
  await page.keyboard.press('Escape')
  await folio.expectValue(3, '0.2')

  // By mouse: a click on the scale.
  await folio.row(3).locator('.opener').focus()
  await page.keyboard.press('Control+F7')
  const box = await scale.locator('.v-slider').boundingBox()
  await page.mouse.click(box!.x + box!.width * 0.75, box!.y + box!.height / 2)
  await expect(folio.row(3).locator('.value').first()).not.toHaveText('0.2')
  await scale.getByRole('button', { name: 'Let go' }).click()
  await folio.saved()
  await page.reload()
  await expect(folio.row(3).locator('.value').first()).not.toHaveText('0.2')
})

test('the number under the caret is the one that is taken, another is one button away, and what has none says so', async ({
  folio,
  page,
}) => {
  await folio.open(LOOP)
  await folio.edit(5)
  await page.keyboard.press('Home')
  for (let k = 0; k < 14; k += 1) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Control+F7')
  const scale = page.getByRole('region', { name: /^Vernier/ })
  await expect(scale.locator('u')).toHaveText('1')
  await scale.getByRole('button', { name: 'The next number' }).click()
  await expect(scale.locator('u')).toHaveText('5')
  await scale.getByLabel('to', { exact: true }).fill('50')
  await scale.getByLabel('to', { exact: true }).press('Enter')
  await expect(scale.getByRole('slider')).toHaveAttribute('aria-valuemax', '50')
  await scale.getByLabel('to', { exact: true }).press('Escape')
  await expect(scale).toHaveCount(0)
  await folio.row(1).locator('.opener').focus()
  await page.keyboard.press('Control+F7')
  await expect(page.getByText('There is no real number in this line that could be taken in hand.')).toBeVisible()
})

/** The step response on a plate of its own, as a family of ζ; gives back the settings of the plate. */
async function familyOfSteps(folio: FolioPage, page: Page): Promise<Locator> {
  await folio.open(LOOP)
  await folio.expectValue(2, '1')
  await folio.row(8).locator('.opener').focus()
  await page.keyboard.press('Alt+,')
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  const settings = page.getByRole('region', { name: /^Settings of plate/ })
  await settings.getByRole('combobox', { name: 'Family' }).press('ArrowDown')
  await page.getByRole('option', { name: 'zeta (line 3)' }).click()
  return settings
}

test('a family of curves: for each of its values one, kept with the plate, and all follow', async ({ folio, page }) => {
  const settings = await familyOfSteps(folio, page)
  await settings.getByLabel('for its values').fill('0.1; 0.7; 1')
  await settings.getByLabel('for its values').press('Enter')
  const picture = page.getByLabel(/^Curves over t/)
  await expect(picture).toHaveAccessibleName(/y, ζ = 0.1.*y, ζ = 0.7.*y, ζ = 1/)
  await folio.saved()
  await page.reload()
  await page.getByRole('button', { name: /^Plate 2/ }).click()
  await expect(page.getByLabel(/^Curves over t/)).toHaveAccessibleName(/y, ζ = 0.7/)
})

test('straight lines and corners come on request and stay with the plate', async ({ folio, page }) => {
  await folio.open(LOOP)
  await folio.expectValue(2, '1')
  await folio.row(5).locator('.opener').focus()
  await page.keyboard.press('Alt+,')
  const picture = page.getByLabel(/^Curves over ω/)
  await expect(picture).toBeVisible()
  const bare = await picture.screenshot()
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  const ask = page.getByRole('region', { name: /^Settings of plate/ }).getByLabel('straight lines and corners')
  await ask.check()
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  await expect.poll(async () => (await picture.screenshot()).equals(bare)).toBe(false)
  await folio.saved()
  await page.reload()
  await page.getByRole('button', { name: /^Plate 2/ }).click()
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  await expect(ask).toBeChecked()
  // Where nothing has any, that is said.
  const none = page.getByText('samples have no such lines')
  await expect(none).toHaveCount(0)
  await folio.rewrite(1, 'unknown s, z')
  await folio.rewrite(5, 'L = 0.5/(z - 0.5)')
  await expect(none).toBeVisible()
})

test('the caption says which dash of a family is for which value', async ({ folio, page }) => {
  await familyOfSteps(folio, page)
  const members = page.getByRole('list', { name: 'Members of the family' }).getByRole('listitem')
  // To begin with half of it, and twice as much.
  await expect(members).toHaveText(['ζ = 0.2', 'ζ = 0.1', 'ζ = 0.4'])
  const dashes = await members.locator('line').evaluateAll((all) => all.map((one) => one.getAttribute('stroke-dasharray'))) // prettier-ignore
  expect(new Set(dashes).size).toBe(3)
  // What stands in the line is told as it is written.
  await folio.rewrite(3, 'zeta = 0.25')
  await expect(members.first()).toHaveText('ζ = 0.25')
  expect(await violations(page)).toEqual([])
})

test('the pages of a control folio have nothing that axe objects to, in both themes', async ({ folio, page }) => {
  await folio.open(LOOP)
  await folio.expectValue(3, '0.2')
  await folio.row(3).locator('.opener').focus()
  await page.keyboard.press('Control+F7')
  await expect(page.getByRole('slider')).toBeVisible()
  expect(await violations(page)).toEqual([])
  await page.getByRole('button', { name: 'Night' }).click()
  expect(await violations(page)).toEqual([])
  await page.setViewportSize({ width: 390, height: 844 })
  expect(await violations(page)).toEqual([])
})
