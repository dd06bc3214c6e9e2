import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, test } from './folio'
import { findTip, plane } from './plane'

/** The sheet of the large plate. */
async function sheetOf(page: Page, number = 1) {
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  const sheet = page.getByRole('region', { name: `Settings of plate ${number}` })
  await expect(sheet).toBeVisible()
  return sheet
}

async function dragBy(page: Page, from: { x: number; y: number }, dx: number, dy: number): Promise<void> {
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x + dx / 2, from.y + dy / 2, { steps: 4 })
  await page.mouse.move(from.x + dx, from.y + dy, { steps: 4 })
  await page.mouse.up()
}

test('Shift moves a value along its ray, Alt along its ring, Ctrl in steps of the grid', async ({ folio, page }) => {
  await folio.open(['V = 10∠30°'])
  await folio.expectValue(1, '8.6603 + 5j | 10 ∠ 30°')
  const tip = await findTip(page, 'V')
  await page.keyboard.down('Shift')
  await dragBy(page, tip, 30, -90)
  await page.keyboard.up('Shift')
  await expect(folio.row(1).locator('.polar .value')).toHaveText(/^1[1-9][.\d]* ∠ (30|29\.99?\d*|30\.0\d*)°$/)
  await page.keyboard.press('Control+z')
  await folio.expectValue(1, '8.6603 + 5j | 10 ∠ 30°')
  const again = await findTip(page, 'V')
  await page.keyboard.down('Alt')
  await dragBy(page, again, -60, -60)
  await page.keyboard.up('Alt')
  await expect(folio.row(1).locator('.polar .value')).toHaveText(/^10 ∠ [4-8]\d[.\d]*°$/)
})

test('a value is moved by arrow keys as one step, and Escape takes a move back', async ({ folio, page }) => {
  await folio.open(['Z = 3 + 4j', 'W = 2*Z'])
  await folio.expectValue(2, '6 + 8j | 10 ∠ 53.13°')
  await plane(page).focus()
  await page.keyboard.press('Tab')
  const stop = page.locator('.stop')
  await expect(stop).toBeFocused()
  await expect(stop).toHaveAccessibleName(/^Z: 3 \+ 4j, 5 ∠ 53\.13°\. Value 1 of 2\. Arrow keys move it\.$/)
  for (let k = 0; k < 3; k += 1) await page.keyboard.press('ArrowRight')
  await expect(folio.row(1).locator('.rectangular .value')).toHaveText(/^3\.\d+ \+ 4j$/)
  await page.keyboard.press('Escape')
  await folio.expectValue(1, '3 + 4j | 5 ∠ 53.13°')
  for (let k = 0; k < 4; k += 1) await page.keyboard.press('ArrowUp')
  await page.keyboard.press('PageDown')
  await expect(stop).toHaveAccessibleName(/^W: .* Value 2 of 2\. Computed\.$/)
  await expect(folio.row(1).locator('.rectangular .value')).toHaveText(/^3 \+ 4\.\d+j$/)
  await page.keyboard.press('ArrowUp')
  await expect(page.locator('.told')).toContainText('W is computed from Z (line 1): move it.')
  await page.keyboard.press('Control+z')
  await folio.expectValue(1, '3 + 4j | 5 ∠ 53.13°')
})

test('what is computed says which lines it comes from when one tries to drag it', async ({ folio, page }) => {
  await folio.open(['V = 6∠0°', 'R = 2', 'Z = R + 1j', 'I = V/Z'])
  await expect(plane(page)).toHaveAccessibleName(/I 2\.6833/)
  await plane(page).focus()
  await page.keyboard.press('Tab')
  await page.keyboard.press('End')
  const stop = page.locator('.stop')
  await expect(stop).toHaveAccessibleName(/^I: /)
  const box = await stop.boundingBox()
  if (!box) throw new Error('the mark of I is in sight')
  await dragBy(page, { x: box.x + box.width / 2, y: box.y + box.height / 2 }, 20, 20)
  await expect(page.locator('.told-note, .refusal').first()).toContainText(
    'I is computed from V (line 1), R (line 2): move these.',
  )
  await folio.expectValue(4, '2.4 − 1.2j | 2.6833 ∠ −26.565°')
})

test('two values are measured, and what they say becomes a line', async ({ folio, page }) => {
  await folio.open(['A = 3 + 4j', 'B = -4 + 3j'])
  await folio.expectValue(2, '−4 + 3j | 5 ∠ 143.13°')
  await page.getByRole('button', { name: 'Measure' }).click()
  for (const name of ['A', 'B']) {
    const tip = await findTip(page, name)
    await page.mouse.click(tip.x, tip.y)
  }
  const strip = page.getByRole('region', { name: 'Two values measured' })
  await expect(strip).toContainText('A and B')
  await expect(strip).toContainText('7.0711')
  await expect(strip).toContainText('90°')
  await expect(strip).toContainText('−7 − 1j')
  await strip.getByRole('button', { name: 'Keep from A to B as a line' }).click()
  await folio.expectValue(3, '90°')
  await strip.getByRole('button', { name: 'Swap' }).click()
  await expect(strip).toContainText('−90°')
  await folio.saved()
})

test('several plates, each with its own values: by name, by menu, by dragging a name; a sum tip to tail', async ({
  folio,
  page,
}) => {
  await folio.open(['I_1 = 3∠20°', 'I_2 = 2∠110°', 'R = 5', 'I = I_1 + I_2'])
  await expect(plane(page)).toHaveAccessibleName(/with 3 values/)
  await page.getByRole('button', { name: 'New plate' }).click()
  await page.getByRole('menuitem', { name: 'Plane' }).click()
  await expect(page.locator('figcaption .caption')).toContainText('Plate 2')
  await expect(page.locator('.nothing')).toContainText('Nothing is on this plate yet')
  // By name, a real number too.
  const sheet = await sheetOf(page, 2)
  await sheet.getByLabel('Put on by name').fill('R')
  await page.keyboard.press('Enter')
  await expect(plane(page)).toHaveAccessibleName(/with 1 values: R 5 ∠ 0°/)
  await sheet.getByLabel('Put on by name').fill('Q')
  await page.keyboard.press('Enter')
  await expect(sheet.getByRole('alert')).toHaveText('No kept value is called Q.')
  await page.keyboard.press('Escape')
  // By the line's menu.
  await folio
    .row(4)
    .getByRole('button', { name: /Actions/ })
    .click()
  await page.getByRole('menuitem', { name: /Put on plate 2/ }).click()
  await expect(plane(page)).toHaveAccessibleName(/with 2 values/)
  await folio
    .row(4)
    .getByRole('button', { name: /Actions/ })
    .click()
  await page.getByRole('menuitem', { name: 'Lay its sum tip to tail' }).click()
  // By dragging a name out of the index.
  await page.keyboard.press('Shift+F8')
  await page.locator('.name-row', { hasText: 'I_1' }).dragTo(plane(page))
  await expect(plane(page)).toHaveAccessibleName(/with 3 values: R.*|with 3 values: I_1/)
  await page.keyboard.press('Escape')
  // The second term begins where the first ends: hovering its tip tells the term itself.
  await folio.row(1).locator('.opener').focus()
  await page.getByRole('button', { name: 'Plate 1: Kept complex values' }).click()
  await expect(plane(page)).toHaveAccessibleName(/with 3 values: I_1 3 ∠ 20°; I_2/)
  await folio.saved()
  await page.reload()
  await page.getByRole('button', { name: /^Plate 2/ }).click()
  await expect(plane(page)).toHaveAccessibleName(/with 3 values/)
  const again = await sheetOf(page, 2)
  await expect(again.getByRole('group').or(again).getByLabel('I', { exact: true }).first()).toBeChecked()
  await again.getByRole('button', { name: 'Remove plate 2' }).click()
  await expect(page.getByRole('button', { name: /^Plate 2/ })).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: /^Plate 2/ })).toHaveCount(1)
})

test('the dress of a value is the same in ledger and plate, kept and undone; range and circles by number', async ({
  folio,
  page,
}) => {
  await folio.open(['Z = 3 + 4j'])
  const stroke = () =>
    folio
      .row(1)
      .locator('.stroke')
      .evaluate((e) => getComputedStyle(e).backgroundColor)
  await expect(plane(page)).toHaveAccessibleName(/with 1 values/)
  const before = await stroke()
  const sheet = await sheetOf(page)
  await sheet.getByRole('button', { name: 'Dress of Z' }).click()
  await sheet.locator('.swatch').nth(2).click()
  await expect(sheet.getByRole('radio', { name: 'violet' })).toBeChecked()
  await sheet.getByRole('radio', { name: 'dotted' }).check({ force: true })
  await expect(sheet.getByRole('radio', { name: 'dotted' })).toBeChecked()
  expect(await stroke()).not.toBe(before)
  await sheet.getByLabel('Real axis from').fill('-10')
  await sheet.getByLabel('Real axis to', { exact: true }).fill('10')
  await sheet.getByLabel('Real axis to', { exact: true }).blur()
  await expect(sheet).toContainText('This range is kept.')
  await sheet.getByLabel('Real axis to', { exact: true }).fill('-20')
  await sheet.getByLabel('Real axis to', { exact: true }).blur()
  await expect(sheet.getByRole('alert')).toHaveText('A range goes from the smaller number to the larger one.')
  await sheet.getByLabel('Other circles').fill('5; 1 at 3, 4')
  await sheet.getByLabel('Other circles').blur()
  await page.keyboard.press('Escape')
  await folio.saved()
  await page.reload()
  await expect(plane(page)).toHaveAccessibleName(/with 1 values/)
  const after = await sheetOf(page)
  await expect(after.getByLabel('Other circles')).toHaveValue('5; 1 at 3, 4')
  await expect(after.getByLabel('Real axis from')).toHaveValue('-10')
  await after.getByRole('button', { name: 'Dress of Z' }).click()
  await expect(after.getByRole('radio', { name: 'violet' })).toBeChecked()
  await page.keyboard.press('Escape')
  for (let k = 0; k < 5; k += 1) await page.getByRole('button', { name: 'Undo' }).click()
  expect(await stroke()).toBe(before)
})

test('a plate is saved as SVG with text as text, and copied to the clipboard', async ({ folio, page }) => {
  await folio.open(['Z_lamp = 3 + 4j', 'p = eigenvalues([[0, 1], [-2, -2]])'])
  await expect(plane(page)).toHaveAccessibleName(/with 3 values: Z_lamp 5 ∠ 53\.13°; p\[1\]/)
  const sheet = await sheetOf(page)
  const waiting = page.waitForEvent('download')
  await sheet.getByRole('button', { name: 'SVG' }).click()
  const download = await waiting
  expect(download.suggestedFilename()).toBe('Test-folio-plate-1.svg')
  const svg = readFileSync((await download.path()) ?? '', 'utf8')
  expect(svg).toMatch(/^<\?xml/)
  expect(svg).toContain('<title>Kept complex values</title>')
  expect(svg).toMatch(/<text[^>]*>lamp<\/text>/)
  expect(svg).toMatch(/<path/)
  expect(svg).not.toMatch(/<image/)
  await sheet.getByRole('button', { name: 'copy' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'on the clipboard' })).toBeVisible()
  const types = await page.evaluate(async () => (await navigator.clipboard.read()).flatMap((item) => item.types))
  expect(types).toContain('image/png')
})

test.describe('by touch', () => {
  test.use({ hasTouch: true })
  test('a tap selects a value and gives it a handle that drags it', async ({ folio, page }) => {
    await folio.open(['Z = 3 + 4j'])
    const tip = await findTip(page, 'Z')
    await page.touchscreen.tap(tip.x, tip.y)
    const handle = page.getByRole('button', { name: 'Drag Z' })
    await expect(handle).toBeVisible()
    const box = await handle.boundingBox()
    if (!box) throw new Error('the handle is in sight')
    expect(box.width).toBeGreaterThanOrEqual(44)
    expect(box.height).toBeGreaterThanOrEqual(44)
    await dragBy(page, { x: box.x + 22, y: box.y + 22 }, -40, 30)
    await expect(folio.row(1).locator('.rectangular .value')).not.toHaveText('3 + 4j')
    await expect(folio.row(1).locator('.rectangular .value')).toHaveText(/^[12]\.\d+ \+ [23]\.\d+j$/)
    await page.getByRole('button', { name: 'Undo' }).click()
    await folio.expectValue(1, '3 + 4j | 5 ∠ 53.13°')
  })
})
