import { expect, test } from './folio'

test('marks say exact, rounded and unit-dependent, and explain themselves on hover and focus', async ({
  folio,
  page,
}) => {
  await folio.open(['1/2', '1/3', 'sqrt(2)', 'sin(30)', '-2^2', '2 +'])
  const badge = (row: number, tone: string) => folio.row(row).locator(`.badge.tone-${tone}`)
  await expect(badge(1, 'exact')).toHaveText('=')
  await expect(badge(1, 'exact')).toHaveAttribute('aria-label', /Exact, and every digit is on show/)
  await expect(badge(2, 'exact')).toHaveText('≈')
  await expect(folio.row(2).locator('.fraction')).toHaveText('= 1/3')
  await expect(badge(3, 'rounded')).toHaveAttribute(
    'aria-label',
    /Rounded: reckoned to about 16 digits, 5 of them shown/,
  )
  await expect(badge(4, 'unit')).toHaveText('°')
  await expect(badge(5, 'hint')).toHaveText('i')
  await expect(badge(6, 'problem')).toHaveText('!')
  const tip = () => badge(3, 'rounded').evaluate((e) => getComputedStyle(e, '::after').content)
  expect(await tip()).toBe('none')
  await badge(3, 'rounded').hover()
  expect(await tip()).toContain('Rounded')
  await page.mouse.move(640, 20)
  // By keyboard: the arrows go through what is in the row.
  await folio.row(3).locator('.opener').focus()
  await page.keyboard.press('ArrowRight')
  await expect(badge(3, 'rounded')).toBeFocused()
  expect(await tip()).toContain('Rounded')
})

test('on request every bracket that the reading supplied is shown', async ({ folio, page }) => {
  await folio.open(['x = 3', '1/2x', '-2^2'])
  await expect(page.locator('.supplied')).toHaveCount(0)
  await page.getByRole('button', { name: '( ) grouping' }).click()
  await expect(folio.row(2).locator('.katex-html .supplied').first()).toBeVisible()
  await expect(folio.row(3).locator('.katex-html .supplied').first()).toBeVisible()
  await page.reload()
  await expect(folio.row(2).locator('.katex-html .supplied').first()).toBeVisible()
  await page.getByRole('button', { name: '( ) grouping' }).click()
  await expect(page.locator('.supplied')).toHaveCount(0)
})

test('a hint offers its fixes, falls silent when understood, and shrinks after three times', async ({
  folio,
  page,
}) => {
  await folio.open(['x = 3', '1/2x', '1/3x', '1/4x', '1/5x', '-2^2'])
  const hint = (row: number) => folio.row(row).locator('.message.hint')
  await expect(hint(2)).toContainText('(1/2)·x')
  for (const row of [2, 3, 4]) {
    await hint(row).getByRole('button', { name: 'Understood' }).click()
    await expect(hint(row)).toHaveCount(0)
  }
  await expect(hint(5).getByRole('button', { name: 'Understood' })).toHaveCount(0)
  await hint(5).getByRole('button', { name: 'hint' }).click()
  await expect(hint(5)).toContainText('(1/5)·x')
  await expect(hint(6)).toContainText('negative of the power')
  await page.reload()
  await expect(hint(6)).toContainText('negative of the power')
  await expect(hint(2)).toHaveCount(0)
  await hint(6).getByRole('button', { name: '(-2)^2' }).click()
  await folio.expectValue(6, '4')
  await page.keyboard.press('Control+z')
  await folio.row(6).locator('.opener').focus()
  await page.keyboard.press('Alt+Enter')
  await folio.expectValue(6, '4')
})

test('angles in minutes and seconds, multiples of π, mixed numbers, prefixes', async ({ folio, page }) => {
  await folio.open(['arg(4 + 3j)', 'arg(1 + 1j)', '7/3', '0.0047', 'z = 7/3 + 1j/2'])
  const rail = page.getByRole('region', { name: 'Conventions' })
  const choose = (name: RegExp) => rail.getByRole('radio', { name }).check({ force: true })
  await choose(/minutes and seconds/)
  await folio.expectValue(1, '36°52\'12"')
  await choose(/mixed numbers/)
  await folio.expectValue(3, '2+1/3')
  await choose(/radians/)
  await folio.expectValue(2, 'π/4 rad')
  await choose(/with prefixes/)
  await choose(/as decimals/)
  await folio.expectValue(4, '4.7m')
  await folio.expectValue(5, '2.3333 + 500mj | 2.3863 ∠ 0.21109 rad')
})

test('a vector shows its entries in both forms, folded when long', async ({ folio, page }) => {
  await folio.open(['everyroot(16, 4)', '[k^2 for k = 1 to 40]'])
  const table = page.getByRole('table', { name: 'Vector of 4 entries' })
  await expect(table.getByRole('row')).toHaveCount(4)
  await expect(table.getByRole('row').nth(1)).toContainText('0 + 2j')
  await expect(table.getByRole('row').nth(1)).toContainText('2 ∠ 90°')
  const long = page.getByRole('table', { name: 'Vector of 40 entries' })
  await expect(long.getByRole('row')).toHaveCount(6)
  await folio.row(2).getByRole('button', { name: '40 entries: show all' }).click()
  await expect(long.getByRole('row')).toHaveCount(40)
  await expect(long.getByRole('row').last()).toContainText('1600')
})

test('a name that changes how other lines are read says so, on both sides', async ({ folio }) => {
  await folio.open(['', '33n', '4n'])
  await folio.expectValue(2, '3.3·10−8')
  await folio.rewrite(1, 'n = 2')
  await folio.expectValue(2, '66')
  await expect(folio.row(1).locator('.hint')).toContainText('lines 2 and 3 read it as a factor')
  await expect(folio.row(2).locator('.hint')).toContainText('33 times n')
  await folio.row(2).getByRole('button', { name: '33e-9' }).click()
  await folio.expectValue(2, '3.3·10−8')
  await expect(folio.row(1).locator('.hint')).toContainText('line 3 reads it as a factor')
})

test('a line that takes long can be stopped, is held back, and can be run again; the rest stays alive', async ({
  folio,
  page,
}) => {
  const slow = 'sum(sum((1/7^700 + n*k)^2 for k = 1 to 90000) for n = 1 to 9)'
  await folio.open(['a = 1', '', 'a + 1'])
  await folio.edit(2)
  await page.evaluate((text) => navigator.clipboard.writeText(text), slow)
  await page.keyboard.press('Control+v')
  await page.getByRole('button', { name: 'Stop it' }).click()
  await folio.leave()
  await expect(folio.row(2).locator('.message.problem')).toContainText('This line was stopped')
  await folio.rewrite(1, 'a = 41')
  await folio.expectValue(3, '42')

  await folio.row(2).getByRole('button', { name: 'run it again' }).click()
  await page.getByRole('button', { name: 'Stop it' }).click()
  await expect(folio.row(2).locator('.message.problem')).toContainText('This line was stopped')
  await folio.rewrite(2, 'b = 2')
  await folio.expectValue(2, '2')
})
