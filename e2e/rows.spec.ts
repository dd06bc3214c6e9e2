import { expect, test } from './folio'

/** How much of a folio is in sight, and that the hand finds its way through a row. */

const box = async (locator: import('@playwright/test').Locator) => {
  const found = await locator.boundingBox()
  if (!found) throw new Error('it is not in sight')
  return found
}

test('a matrix that was written out is shown once; what differs stands beside its reading', async ({ folio }) => {
  await folio.open(['A = [[1, 2], [3, 4]]', 'B = A*A', 'v = [1/3, 2]', 'w = [1, 2]'])
  await expect(folio.row(1).getByRole('table')).toHaveCount(0)
  await expect(folio.row(1)).toContainText('2 × 2')
  const table = folio.row(2).getByRole('table', { name: 'Matrix of 2 rows and 2 columns' })
  await expect(table).toContainText('22')
  const [reading, value] = [await box(folio.row(2).locator('.opener')), await box(table)]
  expect(value.x).toBeGreaterThanOrEqual(reading.x + reading.width - 1)
  expect(value.y).toBeLessThan(reading.y + reading.height)
  await expect(folio.row(3).getByRole('table')).toContainText('0.33333')
  await expect(folio.row(4).getByRole('table')).toHaveCount(0)
  await expect(folio.row(4)).toContainText('length 2.2361')
})

test('numbers of a vector stand under one another at the decimal mark', async ({ folio, page }) => {
  await folio.open(['[12.5, -3, 100.25]*1', '[1 + 2j, -10.5 - 3.25j]*1'])
  // The widest is 100.25: three places before the mark, two behind it.
  await expect(folio.row(1).locator('td').nth(0)).toHaveText(/^ 12\.5 $/)
  await expect(folio.row(1).locator('td').nth(1)).toHaveText(/^ −3 {3}$/)
  const letters = await page
    .locator('[data-line="2"] td:nth-of-type(1)')
    .evaluateAll((cells) => cells.map((cell) => (cell.textContent ?? '').indexOf('j')))
  expect(new Set(letters).size).toBe(1)
})

/** Three meshes of the cable without the equations that the demonstration solves besides. */
const CABLE = {
  note: '## Three meshes of the shore cable\nThe mesh equations $Z*I = V$: on the diagonal the impedance of each mesh, beside it what two meshes share, with the opposite sign. The working (Ctrl+F2) of $rref(M)$ is the elimination, row by row; its button takes it to the bench.',
  lines: [
    'Z_s = (0.6 + 0.8j) ohm  # along the cable, a mesh',
    'Z_p = -40j ohm  # across it, at each joint',
    'Z_lamp = (12 + 3j) ohm',
    'Z = [[Z_s + Z_p, -Z_p, 0], [-Z_p, Z_s + 2Z_p, -Z_p], [0, -Z_p, Z_s + Z_p + Z_lamp]]',
    'V = [230, 0, 0] V',
    'I = solve(Z, V)',
    'Z*I ~~ V  # the check',
    'norm(Z*I - V)  # the residual',
    'U_lamp = Z_lamp*I[3]  # at the lamp',
    'det(Z)',
    'cond(Z)',
    '# The same with whole numbers, reduced row by row',
    'M = [[2, -1, 0, 5], [-1, 3, -1, 0], [0, -1, 2, 1]]',
    'rref(M)',
    'rank(M)',
  ],
}

test('sixteen lines of the cable take two screens; close rows are lower, and stay so', async ({ folio, page }) => {
  const { note, lines } = CABLE
  await folio.open([{ source: note, note: true }, ...lines], { place: 'before' })
  await expect(folio.rows).toHaveCount(16)
  const height = () => page.locator('.lines').evaluate((list) => list.clientHeight)
  // Before it is measured every row is set as it stays: note and remark aside, each has its reading, the last its result.
  await expect.poll(() => page.locator('.lines .opener .katex').count()).toBeGreaterThanOrEqual(14)
  await folio.expectValue(16, '3')
  await page.evaluate(() => document.fonts.ready)
  const roomy = await height()
  await page.getByRole('button', { name: 'close rows' }).click()
  await expect.poll(height).toBeLessThan(0.85 * roomy)
  expect(await height()).toBeLessThanOrEqual(2 * 697)
  expect((await box(folio.row(4))).height).toBeGreaterThanOrEqual(28)
  await page.reload()
  await expect(page.getByRole('button', { name: 'close rows' })).toHaveAttribute('aria-pressed', 'true')
})

test('on a phone a short result stands at the right of its reading, and ten lines fit', async ({ folio, page }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await folio.open(['R = 6', 'L = 15m', 'V = 12∠0°', 'w = 2pi*50', 'X = w*L', 'Z = R + j*X', 'I = V/Z', '|I|', 'arg(I)', 'R*|I|^2']) // prettier-ignore
  await folio.expectValue(1, '6')
  const [reading, value] = [await box(folio.row(1).locator('.opener')), await box(folio.row(1).locator('.single'))]
  expect(value.x).toBeGreaterThan(reading.x)
  expect(value.y).toBeLessThan(reading.y + reading.height)
  await expect(folio.row(10).locator('.single .value')).toBeVisible()
  const last = await box(folio.row(10))
  expect(last.y + last.height).toBeLessThanOrEqual(844)
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
})

test('a row is one stop of the Tab key; the arrows go through what is in it', async ({ folio, page }) => {
  await folio.open(['## Part 1', 'A = [[1, 2j], [3, 4]]*1', 'sin(30)', '2 3'])
  await expect(folio.row(2).getByRole('button', { name: 'polar' })).toBeVisible()
  await folio.row(2).locator('.opener').focus()
  const focused = () => page.evaluate(() => document.activeElement?.textContent?.trim() ?? '')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect.poll(focused).toBe('polar')
  await page.keyboard.press('Enter')
  await expect(folio.row(2).locator('td').nth(1)).toContainText('∠')
  await page.keyboard.press('Escape')
  await expect(folio.row(2).locator('.opener')).toBeFocused()
  await page.keyboard.press('ArrowDown')
  await expect(folio.row(3).locator('.opener')).toBeFocused()
  await page.keyboard.press('ArrowRight')
  await expect(folio.row(3).locator('.badge').first()).toBeFocused()
  // From a line to the plane it takes a few presses, whatever the row holds.
  const canvas = page.locator('.canvas-host canvas').first()
  let presses = 0
  while (!(await canvas.evaluate((element) => element === document.activeElement)) && presses < 12) {
    await page.keyboard.press('Tab')
    presses += 1
  }
  expect(presses).toBeLessThan(8)
})

test('a row that is moved by key keeps the focus, however often, up and down', async ({ folio, page }) => {
  await folio.open(['a = 1', 'b = 2', 'c = 3', 'd = 4'])
  await folio.expectValue(4, '4')
  await folio.row(4).locator('.opener').focus()
  const places = []
  for (const key of ['ArrowUp', 'ArrowUp', 'ArrowUp', 'ArrowDown', 'ArrowDown']) {
    await page.keyboard.press(`Alt+${key}`)
    places.push(key === 'ArrowUp' ? -1 : 1)
    const at = 4 + places.reduce((sum, by) => sum + by, 0)
    await expect(folio.row(at).locator('.opener')).toBeFocused()
    await expect(folio.row(at).locator('.opener')).toHaveAttribute('aria-label', `Line ${at}: d = 4. Edit`)
  }
  await page.keyboard.press('ArrowUp')
  await expect(folio.row(2).locator('.opener')).toBeFocused()
})

test('who listens hears entry and both forms, the result once after Enter, an error once the line is left', async ({
  folio,
  page,
}) => {
  // prettier-ignore
  await folio.open(['Z = 3 + 4j', 'A + 1', ''])
  await expect(folio.row(1).locator('.opener')).toHaveAccessibleName('Line 1: Z = 3 + 4j. Edit')
  await expect(folio.row(1).locator('.opener')).toHaveAttribute('aria-description', '3 + 4j, 5 angle 53.13°')
  await expect(folio.row(2).locator('.opener')).toHaveAttribute('aria-description', /^error: A is not known here/)
  const said = page.getByRole('region', { name: 'Ledger' }).locator('.visually-hidden[role="status"]')
  await folio.edit(3)
  await page.keyboard.type('2*')
  await page.keyboard.type('Q')
  // Longer than it takes until the error is shown.
  await expect(folio.row(3).locator('.problem')).toBeVisible()
  await expect(said).toHaveText('')
  await page.keyboard.press('Backspace')
  await page.keyboard.type('Z')
  await page.keyboard.press('Enter')
  await expect(said).toHaveText('Line 3: 6 + 8j, 10 angle 53.13°')
  await page.keyboard.type('Q')
  await page.keyboard.press('ArrowUp')
  await expect(said).toHaveText(/^Line 4: error: Q is not known here/)
})
