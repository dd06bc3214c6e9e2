import { expect, test } from './folio'
import { findTip, plane } from './plane'

test('every kept complex value is on the plane, in its hue, with both forms on hover and in the table', async ({
  folio,
  page,
}) => {
  await folio.open(['Z = 3 + 4j', 'V = 6∠0°', 'I = V/Z', 'R = 5', 'V*conj(I)'])
  await expect(plane(page)).toHaveAccessibleName(/with 3 values: Z 5 ∠ 53.13°; V 6 ∠ 0°; I 1.2 ∠ -53.13°/)
  await page.getByRole('button', { name: 'Table', exact: true }).click()
  const table = page.getByRole('table', { name: 'Values on plate 1' })
  await expect(table.getByRole('row')).toHaveCount(4)
  await expect(table.getByRole('row', { name: /^I/ })).toContainText('0.72 − 0.96j')
  await page.getByRole('button', { name: 'Table', exact: true }).click()

  const at = await findTip(page, 'Z')
  await page.mouse.move(at.x, at.y)
  await expect(page.locator('.told')).toContainText('3 + 4j')
  await expect(page.locator('.told')).toContainText('5 ∠ 53.13°')
  const stroke = (n: number) =>
    folio
      .row(n)
      .locator('.stroke')
      .evaluate((e) => getComputedStyle(e).backgroundColor)
  expect(await stroke(1)).not.toBe(await stroke(2))
  await expect(folio.row(4).locator('.stroke.hued')).toHaveCount(0)
})

test('a literal is dragged: its line and all that depends on it follow; one undo step', async ({ folio, page }) => {
  await folio.open(['Z = 3 + 4j', 'M = |Z|', 'W = 2*Z'])
  await folio.expectValue(2, '5')
  const tip = await findTip(page, 'Z')
  await page.mouse.move(tip.x, tip.y)
  await page.mouse.down()
  await page.mouse.move(tip.x + 30, tip.y - 10, { steps: 6 })
  await page.mouse.move(tip.x + 60, tip.y - 20, { steps: 6 })
  // Before the button is released everything has followed already.
  await expect(folio.row(2).locator('.single > .value')).not.toHaveText('5')
  await page.mouse.up()
  // Both lines are read at once: the last of the drag may still be on its way between two readings.
  await folio.saved()
  const { re, im, size } = await page.evaluate(() => {
    const text = (line: number, value: string) =>
      document.querySelector(`[data-line="${line}"] ${value}`)?.textContent ?? ''
    const [re = NaN, im = NaN] = (/(\S+) \+ (\S+)j/.exec(text(1, '.rectangular .value')) ?? []).slice(1).map(Number)
    return { re, im, size: Number(text(2, '.single > .value')) }
  })
  expect(re).toBeGreaterThan(3.2)
  expect(im).toBeGreaterThan(4)
  expect(size).toBeCloseTo(Math.hypot(re, im), 2)
  await folio.row(1).locator('.opener').click()
  await expect(folio.editor).toHaveText(/^Z = \d\.\d+ \+ \d\.\d+j$/)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await folio.expectValue(1, '3 + 4j | 5 ∠ 53.13°')
  await folio.expectValue(2, '5')
})

test('a polar literal stays polar; Escape takes a drag back; what is computed does not move', async ({
  folio,
  page,
}) => {
  await folio.open(['V = 10∠60°', 'W = V*1j'])
  const tip = await findTip(page, 'V')
  await page.mouse.move(tip.x, tip.y)
  await page.mouse.down()
  await page.mouse.move(tip.x + 40, tip.y + 30, { steps: 5 })
  await expect(folio.row(1).locator('.polar .value')).not.toHaveText('10 ∠ 60°')
  await page.keyboard.press('Escape')
  await page.mouse.up()
  await folio.expectValue(1, '5 + 8.6603j | 10 ∠ 60°')

  await page.mouse.move(tip.x, tip.y)
  await page.mouse.down()
  await page.mouse.move(tip.x + 20, tip.y + 20, { steps: 5 })
  await page.mouse.up()
  await folio.row(1).locator('.opener').click()
  await expect(folio.editor).toHaveText(/^V = [\d.]+∠[\d.]+°$/)
  await page.keyboard.press('Escape')
  await folio.saved()
})

test('zoom, pan and fit by wheel, keys and buttons, with equal scales', async ({ folio, page }) => {
  await folio.open(['Z = 3 + 4j'])
  const first = await findTip(page, 'Z')
  const box = await plane(page).boundingBox()
  if (!box) throw new Error('the plane is in sight')
  await page.mouse.move(box.x + 8, box.y + 8)
  await page.mouse.wheel(0, 600)
  const zoomedOut = await findTip(page, 'Z')
  expect(Math.hypot(zoomedOut.x - first.x, zoomedOut.y - first.y)).toBeGreaterThan(15)
  await page.getByRole('button', { name: 'Fit' }).click()
  const again = await findTip(page, 'Z')
  expect(Math.abs(again.x - first.x)).toBeLessThanOrEqual(9)
  expect(Math.abs(again.y - first.y)).toBeLessThanOrEqual(9)

  await plane(page).focus()
  await page.keyboard.press('ArrowLeft')
  const panned = await findTip(page, 'Z')
  expect(panned.x - again.x).toBeGreaterThan(25)
  expect(Math.abs(panned.y - again.y)).toBeLessThanOrEqual(6)
  await page.keyboard.press('0')
  await page.mouse.move(box.x + 30, box.y + box.height - 130)
  await page.mouse.down()
  await page.mouse.move(box.x + 60, box.y + box.height - 70, { steps: 5 })
  await page.mouse.up()
  const dragged = await findTip(page, 'Z')
  expect(Math.abs(dragged.x - again.x - 30)).toBeLessThanOrEqual(6)
  expect(Math.abs(dragged.y - again.y - 60)).toBeLessThanOrEqual(6)

  // Equal scales: after a zoom to twice the size the tip is twice as far from the origin, in both directions.
  await page.keyboard.press('0')
  await page.keyboard.press('-')
  await page.keyboard.press('-')
  const small = await findTip(page, 'Z')
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  const factor = 0.8 ** 2
  expect(Math.abs(small.x - middle.x - factor * (again.x - middle.x))).toBeLessThanOrEqual(6)
  expect(Math.abs(small.y - middle.y - factor * (again.y - middle.y))).toBeLessThanOrEqual(6)
})

test('the plate keeps its caption, axes, grid and choice of values in the folio; all of it undoes', async ({
  folio,
  page,
}) => {
  await folio.open(['Z = 3 + 4j', 'Y = 1 - 2j'])
  await folio.expectValue(2, '1 − 2j | 2.2361 ∠ −63.435°')
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  const sheet = page.getByRole('region', { name: 'Settings of plate 1' })
  await sheet.getByLabel('Caption', { exact: true }).fill('Impedances of the lamp')
  await sheet.getByLabel('Real axis', { exact: true }).fill('R in Ω')
  await sheet.getByText('rings and rays').click()
  await sheet.getByText('unit circle').click()
  await sheet.getByRole('checkbox', { name: /^Y/ }).click()
  await expect(sheet).toContainText('Values, 1 of 2')
  await page.keyboard.press('Escape')
  await expect(page.locator('figcaption .caption')).toContainText('Impedances of the lamp')
  await expect(plane(page)).toHaveAttribute('aria-label', /1 values: Z/)
  await folio.saved()
  await page.reload()
  await expect(page.locator('figcaption .caption')).toContainText('Impedances of the lamp')
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  await expect(sheet.getByLabel('Real axis', { exact: true })).toHaveValue('R in Ω')
  await expect(sheet.getByLabel('rings and rays')).toBeChecked()
  await expect(sheet.getByLabel('unit circle')).toBeChecked()
  await expect(sheet).toContainText('Values, 1 of 2')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(plane(page)).toHaveAttribute('aria-label', /2 values/)
})

test('the plate fills the window and gives it back, and is saved as a picture on a light ground', async ({
  folio,
  page,
}) => {
  await folio.open(['Z = 3 + 4j'])
  await folio.expectValue(1, '3 + 4j | 5 ∠ 53.13°')
  const before = await plane(page).boundingBox()
  await page.getByRole('button', { name: 'Fill the window' }).click()
  await expect(folio.row(1)).toBeHidden()
  await expect.poll(async () => (await plane(page).boundingBox())?.width).toBeGreaterThan(1100)
  await page.keyboard.press('Escape')
  await expect(folio.row(1)).toBeVisible()
  await expect.poll(async () => (await plane(page).boundingBox())?.width).toBe(before?.width)
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  const waiting = page.waitForEvent('download')
  await page.getByRole('button', { name: '2×' }).click()
  const download = await waiting
  expect(download.suggestedFilename()).toBe('Test-folio-plate-1.png')
  const { readFileSync } = await import('node:fs')
  const bytes = readFileSync((await download.path()) ?? '')
  // The signature of a PNG, then its width and height in the header.
  expect(bytes.subarray(1, 4).toString()).toBe('PNG')
  expect(bytes.readUInt32BE(16)).toBe(Math.round((before?.width ?? 0) * 2))
})
