import type { Page } from '@playwright/test'
import { expect, test } from './folio'

/** An evening sheet on a phone: by touch alone, everything in reach of the thumb. */

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })

const tab = (page: Page, name: string) => page.getByRole('navigation', { name: 'Part of the folio' }).getByRole('tab', { name }) // prettier-ignore

/** A finger that rests on something, or only taps it. */
async function touch(page: Page, what: ReturnType<Page['locator']>, time: number): Promise<void> {
  const box = await what.boundingBox()
  if (!box) throw new Error('it is in sight')
  const client = await page.context().newCDPSession(page)
  const point = { x: box.x + Math.min(40, box.width / 2), y: box.y + box.height / 2 }
  await client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [point] })
  await page.evaluate((ms) => new Promise((done) => setTimeout(done, ms)), time)
  await client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
}

test('a sheet by touch: lines, plate, leaf, index and undo from the foot of the page', async ({ folio, page }) => {
  await folio.open([''])
  await page.locator('.cm-content').tap()
  await page.keyboard.type('V = 12/_0')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Z = 3+4j')
  await page.keyboard.press('Enter')
  await page.keyboard.type('I = V/Z')
  await page.keyboard.press('Enter')
  await folio.expectValue(3, '1.44 − 1.92j | 2.4 ∠ −53.13°')
  await expect(tab(page, 'Ledger')).toHaveAttribute('aria-selected', 'true')

  await tab(page, 'Plates').tap()
  await expect(page.locator('.canvas-host canvas').first()).toBeVisible()
  await expect(folio.row(1)).toBeHidden()
  await tab(page, 'Leaf').tap()
  await page.getByRole('region', { name: 'Leaves' }).getByText('Handbook').tap()
  await expect(page.getByRole('searchbox', { name: 'Search the handbook' })).toBeVisible()
  await expect(tab(page, 'Handbook')).toHaveAttribute('aria-selected', 'true')
  // What is tried is seen where it goes.
  await page.getByRole('region', { name: 'Handbook' }).locator('.try').first().tap()
  await expect(tab(page, 'Ledger')).toHaveAttribute('aria-selected', 'true')
  await expect(folio.row(4).locator('.opener')).not.toHaveAccessibleName(/empty/)

  const undo = page.getByRole('navigation', { name: 'Part of the folio' }).getByRole('button', { name: 'Undo' })
  await undo.tap()
  await expect(folio.row(4).locator('.opener')).toHaveAccessibleName(/empty/)
  // The leaf is still there, and a second tap gives the choice of all.
  await tab(page, 'Handbook').tap()
  await tab(page, 'Handbook').tap()
  await page.getByRole('region', { name: 'Leaves' }).getByText('Journal').tap()
  await expect(page.getByRole('region', { name: 'Journal' })).toBeVisible()
  // The working of the current line is one of them; on a phone it is one list.
  await tab(page, 'Journal').tap()
  await page.getByRole('region', { name: 'Leaves' }).getByText('Working').tap()
  await expect(page.getByRole('region', { name: 'Working' })).toBeVisible()
  await tab(page, 'Index').tap()
  await page.locator('.names').getByRole('button', { name: /^Z/ }).first().tap()
  await expect(tab(page, 'Ledger')).toHaveAttribute('aria-selected', 'true')
})

test('a finger that rests selects a line, then taps select more; a tap alone opens the line', async ({
  folio,
  page,
}) => {
  await folio.open(['a = 1', 'b = 2', 'c = 3'])
  await folio.expectValue(3, '3')
  await touch(page, folio.row(2).locator('.opener'), 650)
  const bar = page.getByRole('toolbar', { name: 'Selected lines' })
  await expect(bar).toContainText('1 line selected')
  await expect(page.locator('.cm-content')).toHaveCount(0)
  await touch(page, folio.row(3).locator('.opener'), 30)
  await expect(bar).toContainText('2 lines selected')
  await bar.getByRole('button', { name: 'Delete 2 lines' }).tap()
  await expect(folio.rows).toHaveCount(1)
  await touch(page, folio.row(1).locator('.opener'), 30)
  await expect(folio.row(1).locator('.cm-content')).toBeVisible()
})

test('the vernier under a finger: above the foot bar with its line, in the ledger and beside the plate', async ({
  folio,
  page,
}) => {
  await folio.open(['zeta = 0.2', 'T = 1/zeta', 'z = 3 + 4j*zeta'])
  await folio.expectValue(2, '5')
  await folio.row(1).getByRole('button', { name: 'Actions for line 1' }).tap()
  await page.getByRole('menuitem', { name: /Take a number in hand/ }).tap()
  const vernier = page.getByRole('region', { name: /^Vernier/ })
  await expect(vernier).toContainText('zeta = 0.2')
  const thumb = vernier.getByRole('slider')
  const at = async () => {
    const box = (await thumb.boundingBox())!
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  }
  for (const part of ['Plates', 'Ledger']) {
    await tab(page, part).tap()
    const [box, foot] = [await vernier.boundingBox(), await page.locator('.foot-bar').boundingBox()]
    expect(Math.abs(box!.y + box!.height - foot!.y)).toBeLessThan(3)
    // The line stands above the scale.
    expect((await vernier.locator('.entry').boundingBox())!.y).toBeLessThan((await at()).y - 10)
  }
  // A finger draws it to the right: the ledger follows while it is down.
  const client = await page.context().newCDPSession(page)
  const start = await at()
  await client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [start] })
  for (let k = 1; k <= 10; k += 1)
    await client.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [{ x: start.x + 8 * k, y: start.y }] }) // prettier-ignore
  await expect(folio.row(2).locator('.value').first()).not.toHaveText('5')
  await client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  await client.detach()
  const moved = Number(await folio.row(1).locator('.value').first().textContent())
  expect(moved).toBeGreaterThan(0.25)
  expect(moved).toBeLessThan(0.4)
  await vernier.getByRole('button', { name: 'Let go' }).tap()
  await expect(vernier).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).tap()
  await folio.expectValue(1, '0.2')
})

test('nothing scrolls sideways down to 320 points, and header, rail and foot bar keep their heights', async ({
  folio,
  page,
}) => {
  await folio.open([
    'Z_lamp = 2.4 + 3.1416j',
    'sin(30)',
    'A = [[1, 2, 3], [4, 5, 6], [7, 8, 10]]',
    'inverse(A)',
    '12 +',
  ])
  await expect(folio.row(5).locator('.problem')).toBeVisible()
  for (const width of [390, 360, 320]) {
    await page.setViewportSize({ width, height: 640 })
    for (const part of ['Plates', 'Leaf', 'Index', 'Ledger']) {
      await tab(page, part).tap()
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
      expect([width, part, over]).toEqual([width, part, 0])
    }
  }
  await page.setViewportSize({ width: 390, height: 844 })
  const heightOf = async (selector: string) => (await page.locator(selector).boundingBox())?.height ?? 0
  expect(await heightOf('.header')).toBeLessThanOrEqual(52)
  expect(await heightOf('.rail')).toBeLessThanOrEqual(36)
  expect(await heightOf('.foot-bar')).toBeLessThanOrEqual(58)
})
