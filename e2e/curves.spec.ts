import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, test } from './folio'

const RESPONSE = ['R = 10', 'L = 4.7m', 'f = 10 to 100k per decade 20', 'H = R/(R + j*2pi*f*L)']
const picture = (page: Page) => page.locator('.canvas-host canvas')
const strip = (page: Page) => page.getByRole('region', { name: 'Values at the cursor' })

test('a sweep in the ledger: ends, count and a small curve; a table through all of it; copied as CSV', async ({
  folio,
  page,
}) => {
  await folio.open(['n = 1 to 100000', 'n^2'])
  await expect(folio.row(1).locator('.sweep')).toContainText('1…100000')
  await expect(folio.row(1).locator('.sweep')).toContainText('100 000 points')
  await expect(folio.row(1).getByRole('img', { name: 'Small curve of its values' })).toBeVisible()
  await folio.row(2).getByRole('button', { name: 'Table of line 2' }).click()
  const table = page.getByRole('region', { name: 'Table of a sweep' })
  await expect(table.getByRole('row', { name: /^3 / })).toContainText('9')
  const points = table.getByRole('group', { name: /Points/ })
  await points.focus()
  await page.keyboard.press('End')
  await expect(table.getByRole('row', { name: /^100000 / })).toContainText('10000000000')
  await expect(folio.row(2).locator('.at')).toContainText('at point 100000 of n')
  // Only the rows in sight are in the page.
  expect(await table.getByRole('row').count()).toBeLessThan(80)
  await page.getByRole('tab', { name: 'Plates' }).click()
  await folio.rewrite(1, 'n = 1 to 4')
  await folio.row(2).getByRole('button', { name: 'Table of line 2' }).click()
  await table.getByRole('button', { name: 'Copy as CSV' }).click()
  await expect
    .poll(() => page.evaluate(() => navigator.clipboard.readText()))
    .toBe('n,value\r\n1,1\r\n2,4\r\n3,9\r\n4,16')
})

test('one key draws magnitude in dB and angle one above the other, another the locus; both follow the ledger', async ({
  folio,
  page,
}) => {
  await folio.open(RESPONSE)
  await expect(folio.row(4).locator('.sweep')).toContainText('81 points along f')
  await folio.row(4).locator('.opener').focus()
  await page.keyboard.press('Alt+,')
  await expect(page.locator('figcaption .caption')).toContainText('Frequency response H')
  await expect(picture(page)).toHaveAccessibleName(/^Curves over f: \|H\| in dB, 81 points, from -0\.003786 to -49\.4\d*; arg H, 81 points/) // prettier-ignore
  await folio.row(4).locator('.opener').focus()
  await page.keyboard.press('Alt+-')
  await expect(page.locator('figcaption .caption')).toContainText('Locus of H')
  await expect(picture(page)).toHaveAccessibleName(/locus of H, 81 points/)
  await page.getByRole('button', { name: /^Plate 2/ }).click()
  await folio.edit(1)
  await page.keyboard.press('End')
  await page.keyboard.type('0')
  // Still being typed: the curve has followed.
  await expect(picture(page)).toHaveAccessibleName(/from -0\.00003787 to/)
  await page.keyboard.press('Escape')
  await expect(picture(page)).toHaveAccessibleName(/from -0\.003786 to/)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: /^Plate 3/ })).toHaveCount(0)
})

test('cursors read the curves and their difference; a point is read along in the ledger and on the plane', async ({
  folio,
  page,
}) => {
  await folio.open(RESPONSE)
  await expect(folio.row(4).locator('.sweep')).toBeVisible()
  await folio.row(4).locator('.opener').focus()
  await page.keyboard.press('Alt+,')
  await expect(picture(page)).toHaveAccessibleName(/81 points/)
  await picture(page).focus()
  await page.keyboard.press('Home')
  await expect(strip(page)).toContainText('10')
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  // Twenty points are a decade.
  await expect(strip(page).getByRole('row').first()).toContainText('100')
  await page.keyboard.press(' ')
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('Shift+ArrowRight')
  await expect(strip(page).getByRole('row').first()).toContainText('Δ 900, × 10')
  await expect(strip(page).getByRole('row', { name: /dB/ })).toContainText('−9.877 dB')
  await expect(strip(page).getByRole('row', { name: /dB/ })).toContainText('Δ −9.5139 dB')
  await page.keyboard.press('Enter')
  await expect(folio.row(4).locator('.at')).toContainText('at point 41 of f')
  await expect(folio.row(4).locator('.at')).toContainText('0.10287 − 0.30379j')
  await expect(folio.row(4).locator('.at')).toContainText('0.32074 ∠ −71.292°')
  await expect(folio.row(3).locator('.at')).toContainText('1000')
  // On the plane of whatever is kept the same point stands as an arrow.
  await page.getByRole('button', { name: 'Plate 1: Kept complex values' }).click()
  await expect(picture(page)).toHaveAccessibleName(/with 1 values: H 0\.32074 ∠ -71\.292°; locus of H, 81 points/)
  await page.getByRole('button', { name: /^Plate 2/ }).click()
  await page.getByRole('button', { name: 'End reading along' }).click()
  await expect(folio.row(4).locator('.at')).toHaveCount(0)
  // The mouse reads, too.
  const box = await picture(page).boundingBox()
  if (!box) throw new Error('the picture is in sight')
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 3)
  await expect(folio.row(4).locator('.at')).toContainText(/at point \d+ of f/)
})

test('a typed value is read along exactly, between the points, on curves and loci', async ({ folio, page }) => {
  await folio.open(RESPONSE)
  await expect(folio.row(4).locator('.sweep')).toBeVisible()
  await folio.row(4).locator('.opener').focus()
  await page.keyboard.press('Alt+,')
  const field = strip(page).getByRole('textbox', { name: 'read at f =' })
  await field.fill('333')
  await page.keyboard.press('Enter')
  await expect(folio.row(3).locator('.at')).toContainText('at f = 333')
  // By Python: 20 log10 |10/(10 + 2j*pi*333*4.7e-3)|.
  await expect(strip(page).getByRole('row', { name: /dB/ })).toContainText('−2.9381 dB')
  await field.fill('333 +')
  await page.keyboard.press('Enter')
  await expect(strip(page)).toContainText('missing')
  await expect(folio.row(4).locator('.at')).toHaveCount(0)
  await field.fill('')
  await page.keyboard.press('Enter')
  await folio.row(4).locator('.opener').focus()
  await page.keyboard.press('Alt+-')
  const locus = page.locator('.plate-column').getByRole('textbox', { name: 'read at f =' })
  await locus.fill('1k')
  await page.keyboard.press('Enter')
  await expect(folio.row(4).locator('.at')).toContainText('0.10287 − 0.30379j')
})

test('a curve too coarse says so and takes a finer step; what is set on the plate is kept and undone', async ({
  folio,
  page,
}) => {
  await folio.open(['t = 0 to 2pi count 6', 'y = sin(t rad)'])
  await expect(folio.row(2).locator('.sweep')).toContainText('6 points')
  await folio.row(2).locator('.opener').focus()
  await page.keyboard.press('Alt+,')
  const note = page.getByRole('status').filter({ hasText: 'too far apart' })
  await expect(note).toBeVisible()
  await note.getByRole('button', { name: 'Take a finer step' }).click()
  await expect(folio.row(1).locator('.sweep')).toContainText('21 points')
  await expect(note).toHaveCount(0)
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  const sheet = page.getByRole('region', { name: 'Settings of plate 2' })
  await sheet.getByLabel('Caption', { exact: true }).fill('A full turn')
  await sheet.getByText('mark extremes').click()
  await sheet.getByText('line and points').click()
  await sheet.getByLabel('Horizontal axis', { exact: true }).fill('t / s')
  await sheet.getByLabel('Height whose crossings are marked').fill('0.5')
  await sheet.getByRole('button', { name: 'mark', exact: true }).click()
  await sheet.getByLabel('Horizontal axis from').fill('3')
  await sheet.getByLabel('Horizontal axis to', { exact: true }).fill('1')
  await sheet.getByLabel('Horizontal axis to', { exact: true }).blur()
  await expect(sheet.getByRole('alert')).toHaveText('A range goes from the smaller number to the larger one.')
  await page.keyboard.press('Escape')
  await folio.saved()
  await page.reload()
  await page.getByRole('button', { name: 'Plate 2: A full turn' }).click()
  await expect(picture(page)).toHaveAccessibleName(/^Curves over t \/ s: y, 21 points/)
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  await expect(sheet.getByLabel('mark extremes')).toBeChecked()
  await expect(sheet.getByText('0.5: no longer')).toBeVisible()
  await expect(sheet.getByLabel('Horizontal axis from')).toHaveValue('3')
  await page.keyboard.press('Escape')
  for (let k = 0; k < 6; k += 1) await page.getByRole('button', { name: 'Undo' }).click()
  await expect(picture(page)).toHaveAccessibleName(/^Curves over t: y, 21 points/)
})

test('a curve plate is saved as PNG, SVG and CSV', async ({ folio, page }) => {
  await folio.open(['t = 0 to 1 step 0.5', 'y = t^2', 'z = 1 - t'])
  await expect(folio.row(3).locator('.sweep')).toBeVisible()
  await folio.row(2).locator('.opener').focus()
  await page.keyboard.press('Alt+,')
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  const sheet = page.getByRole('region', { name: 'Settings of plate 2' })
  await sheet.getByRole('checkbox', { name: /^z/ }).check()
  await expect(picture(page)).toHaveAccessibleName(/y, 3 points.*z, 3 points/)
  const save = async (button: string): Promise<Buffer> => {
    const waiting = page.waitForEvent('download')
    await sheet.getByRole('button', { name: button, exact: true }).click()
    return readFileSync((await (await waiting).path()) ?? '')
  }
  expect((await save('CSV')).toString()).toBe('t,y,z\r\n0,0,1\r\n0.5,0.25,0.5\r\n1,1,0')
  const svg = (await save('SVG')).toString()
  expect(svg).toMatch(/<text[^>]*>t<\/text>/)
  // Two curves of three points each.
  expect(svg.match(/<path[^>]* d="\s*M[^L"]*L[^L"]*L[^L"]*"/g)?.length).toBeGreaterThanOrEqual(2)
  const png = await save('1×')
  expect(png.subarray(1, 4).toString()).toBe('PNG')
  const box = await picture(page).boundingBox()
  expect(png.readUInt32BE(16)).toBe(Math.round(box?.width ?? 0))
  expect(png.length).toBeGreaterThan(4_000)
})

test('polynomials are typeset; unknowns, where and poles work in the ledger', async ({ folio, page }) => {
  await folio.open(['unknown s', 'H = (s + 2)/(s^2 + 2s + 5)', 'p = poles(H)', 'H where s = 2j', 's = 3'])
  await expect(folio.row(2).locator('.algebra .katex').first()).toBeVisible()
  await folio.expectValue(4, '0.58824 − 0.35294j | 0.68599 ∠ −30.964°')
  await expect(folio.row(5)).toContainText('was an unknown from line 1 on')
  await expect(picture(page)).toHaveAccessibleName(/p\[1\]/)
})

test('a long sweep can be stopped, and the rest of the folio stays alive', async ({ folio, page }) => {
  test.setTimeout(90_000)
  await folio.open(['R = 5', 'x = 1 to 400000', 'y = gamma_of(x)', 'R*2'])
  await folio.expectValue(4, '10')
  await folio.rewrite(3, 'y = solve([[x, 1], [1, x + 2]], [1, 2])')
  const notice = page.getByRole('status').filter({ hasText: 'takes long to reckon' })
  await expect(notice).toBeVisible({ timeout: 20_000 })
  await expect(notice).toContainText(/\d+ %/)
  await notice.getByRole('button', { name: 'Stop it' }).click()
  await expect(folio.row(3)).toContainText('stopped', { timeout: 20_000 })
  await folio.rewrite(1, 'R = 6')
  await folio.expectValue(4, '12')
})
