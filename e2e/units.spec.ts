import { expect, test } from './folio'
import { findTip, plane } from './plane'

/** Units: typed, checked, shown, drawn. */

test('a problem with units, by keyboard alone: typed, refused, mended, shown, checked, and kept', async ({
  folio,
  page,
}) => {
  await folio.open([''])
  await folio.editor.focus()
  const type = async (line: string): Promise<void> => {
    await page.keyboard.type(line)
    await page.keyboard.press('Enter')
  }
  await type('V = 230/_0 V')
  await type('L = 50mH')
  // The space that is missing is offered, and set with one key.
  const second = folio.row(2)
  await expect(second).toContainText('A unit stands behind a space: 50 mH.')
  await second.getByRole('button', { name: /50 mH/ }).click()
  await expect(second.locator('.outcome')).toContainText('50 mH')
  await folio.row(3).locator('.opener, .cm-content').first().click()
  await type('w = 2pi*50 Hz')
  await type('Z = 12 ohm + j*w*L')
  await type('I = V/Z')
  await type('V + I')
  await type('abs(I) ~~ 11.61 A')
  await expect(folio.row(3).locator('.outcome')).toContainText('314.16 rad/s')
  // By Python: 230/(12 + 1j*100*pi*0.05).
  await expect(folio.row(5).locator('.outcome')).toContainText('(7.0635 − 9.2461j)')
  await expect(folio.row(5).locator('.outcome')).toContainText('11.635 ∠ −52.622°')
  await expect(folio.row(5).locator('.outcome').getByText('ampere')).toBeAttached()
  await expect(folio.row(6)).toContainText('cannot be added: one is a voltage, the other a current.')
  await expect(folio.row(7).locator('.outcome')).toContainText('does not agree')
  await folio.saved()
  await page.reload()
  await expect(folio.row(4).locator('.outcome')).toContainText('Ω')
  await expect(folio.row(1).locator('.outcome')).toContainText('230 ∠ 0°')
})

test('units are completed behind a number, and offered by the key strip', async ({ folio, page }) => {
  await folio.open(['R = 5', 'x = 1'])
  await folio.row(1).locator('.opener').click()
  await page.keyboard.press('End')
  const strip = folio.row(1).getByRole('toolbar', { name: 'Signs' })
  await strip.getByRole('button', { name: 'Unit kiloohm, typed kohm' }).click()
  await expect(folio.row(1).locator('.outcome')).toContainText('5 kΩ')
  await page.keyboard.type(' + 3 k')
  await expect(page.getByRole('listbox').getByRole('option', { name: /^kohm/ })).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('listbox').locator('[aria-selected=true]')).toContainText('k')
})

test('voltage and current stand in one diagram, each with its scale; the chosen value has the grid', async ({
  folio,
  page,
}) => {
  await folio.open(['V = 230∠0° V', 'I = 2∠-60° A', 'U = (100 + 50j) V', 'P = 2*I'])
  const tip = await findTip(page, 'V')
  const other = await findTip(page, 'I')
  const box = await plane(page).boundingBox()
  if (!box) throw new Error('the plane is shown')
  // Both are drawn at a length that can be read, though one is a hundred times the other.
  const size = (at: { x: number; y: number }) => Math.hypot(at.x, at.y)
  expect(size(tip)).toBeGreaterThan(0)
  expect(size(other)).toBeGreaterThan(0)
  await expect(plane(page)).toHaveAttribute('aria-label', /V 230 ∠ 0° V/)
  await expect(plane(page)).toHaveAttribute('aria-label', /I 2 ∠ -60° A/)
  // A dragged value keeps its unit.
  await page.mouse.move(tip.x, tip.y)
  await page.mouse.down()
  await page.mouse.move(tip.x - 60, tip.y - 30, { steps: 6 })
  await page.mouse.up()
  await expect(folio.row(1).locator('.outcome')).not.toContainText('230 ∠ 0°')
  await expect(folio.row(1).locator('.outcome')).toContainText('V')
  await expect(folio.row(1)).not.toHaveClass(/failed/)
})

test('a folio from before units means what it did, and undo takes that back', async ({ folio, page }) => {
  await folio.open(['V = 230', '10 V', 'A = 3'], { spaced: 'product' })
  await expect(folio.row(2).locator('.outcome')).toContainText('2300')
  await expect(page.getByText('Where it was a factor a * is written: line 2.')).toBeVisible()
  await folio.saved()
  await page.reload()
  await expect(folio.row(2).locator('.outcome')).toContainText('2300')
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(folio.row(2).locator('.outcome')).toContainText('10')
  await expect(folio.row(2).locator('.outcome')).not.toContainText('2300')
})

test('axes, tables and heads take the unit by themselves', async ({ folio, page }) => {
  await folio.open(['f = 10 Hz to 10 kHz per decade 20', 'Z = 5 ohm + j*2pi*f*2 mH'])
  await folio.row(2).getByRole('button', { name: 'Table of line 2' }).click()
  const table = page.getByRole('region', { name: 'Table of a sweep' })
  await expect(table.getByRole('columnheader', { name: 'f / Hz' })).toBeVisible()
  await expect(table.getByRole('columnheader', { name: 'Z / Ω' })).toBeVisible()
  await expect(table.getByRole('row').nth(1)).toContainText('10')
})
