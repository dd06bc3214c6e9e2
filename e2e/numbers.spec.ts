import type { CDPSession, Page } from '@playwright/test'
import { zipSync } from 'fflate'
import { violations } from './axe'
import { seconds } from './endure/chance'
import { expect, test } from './folio'
import { watchFrames } from './frames'

// Nothing is shared with the tests before: what a fresh browser keeps, and is sent, is what is tried.
test.use({ sharing: false })

/** Measured numbers on slow lines, in browsers that do not keep them, and archives that mean harm. */

async function choose(page: Page, name: string, content: string): Promise<void> {
  await page.keyboard.press('Control+F9')
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Open a file' }).click(),
  ])
  await chooser.setFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(content) })
}

/** A table of so many rows: 8 bytes a number, once they are numbers. */
function table(rows: number, voltages = 1): string {
  const names = Array.from({ length: voltages }, (_, k) => `u${k || ''} in V`)
  const row = (k: number): string => `${k}${`,${(k * 7) % 13}`.repeat(voltages)}`
  return `t in s,${names.join()}\n${Array.from({ length: rows }, (_, k) => row(k)).join('\n')}\n`
}

/** So many bytes a second go up and come down. */
async function slow(page: Page, speed: number): Promise<CDPSession> {
  const session = await page.context().newCDPSession(page)
  await session.send('Network.enable')
  await session.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 20,
    uploadThroughput: speed,
    downloadThroughput: speed,
  })
  return session
}

const keep = (page: Page): Promise<void> => page.getByRole('button', { name: 'Keep with the folio' }).click()

test('on a slow line numbers go beside the lines, show how far they are, are stopped, and go on after a reload', async ({
  folio,
  page,
}) => {
  const id = await folio.open(['a = 1'])
  await choose(page, 'long.csv', table(120_000))
  await expect(page.getByRole('region', { name: 'A file for this folio' })).toContainText('rows: t in s, u in V')
  await slow(page, 150_000)
  await keep(page)
  const told = page.locator('.numbers')
  await expect(told).toContainText(/The numbers of “long.csv” are being sent: \d+ %/)
  await expect(told.getByRole('progressbar')).toBeVisible()
  // What is typed meanwhile is on the server long before them.
  await folio.rewrite(1, 'a = 2')
  await folio.saved()
  const lines = async (): Promise<{ source: string }[]> =>
    ((await (await page.request.get(`/api/folios/${id}`)).json()) as { lines: { source: string }[] }).lines
  expect((await lines())[0]?.source).toBe('a = 2')
  await told.getByRole('button', { name: 'Stop' }).click()
  await expect(told).toContainText('are not on the server; sending was stopped. They are kept in this browser.')
  expect(await violations(page)).toEqual([])
  const { enclosures } = (await (await page.request.get(`/api/folios/${id}`)).json()) as { enclosures: { block: string }[] } // prettier-ignore
  const at = `/api/folios/${id}/blocks/${enclosures[0]?.block}`
  const before = (await (await page.request.get(`${at}/received`)).json()) as { received: number; whole: boolean }
  expect(before.whole).toBe(false)
  expect(before.received).toBeGreaterThan(0)
  await page.reload()
  await expect(told).toContainText(/are being sent: [1-9]\d* %/)
  await expect(told).toHaveCount(0, { timeout: 60_000 })
  expect(await (await page.request.get(`${at}/received`)).json()).toEqual({ received: 120_000 * 16, whole: true })
  expect((await (await page.request.get(at)).body()).length).toBe(120_000 * 16)
})

test('numbers that the browser takes and does not keep are said to be lost with the page, which asks, and go out as a file', async ({
  folio,
  page,
}) => {
  await page.addInitScript(() => {
    const put = IDBObjectStore.prototype.put
    IDBObjectStore.prototype.put = function (value: unknown, key?: IDBValidKey) {
      return put.call(this, value instanceof Uint8Array ? value.slice(0, 8) : value, key)
    }
  })
  await folio.open(['a = 1'])
  await page.route('**/blocks/**', (route) => route.abort())
  await choose(page, 'short.csv', table(50))
  await keep(page)
  const told = page.locator('.numbers')
  await expect(told).toContainText('This browser does not keep them')
  await expect(told).toContainText('The server does not answer.')
  const asked = page.waitForEvent('dialog')
  void page.close({ runBeforeUnload: true })
  const dialog = await asked
  expect(dialog.type()).toBe('beforeunload')
  await dialog.dismiss()
  const download = page.waitForEvent('download')
  await told.getByRole('button', { name: 'Save the folio as a file' }).click()
  expect((await download).suggestedFilename()).toBe('Test folio.folio.zip')
  await page.unrouteAll()
  await told.getByRole('button', { name: 'Send' }).click()
  await expect(told).toHaveCount(0)
})

test('an archive that unpacks to far more than it says, and archives in archives, are refused while the page lives', async ({
  page,
}) => {
  await page.goto('/')
  await expect(page.locator('.card').first()).toBeVisible()
  const worst = await watchFrames(page)
  const zeros = new Uint8Array(60 * 1024 * 1024)
  const inner = zipSync({ 'a.folio.json': zeros }, { level: 9 })
  const bombs: [string, Uint8Array][] = [
    ['in one.zip', zipSync(Object.fromEntries(Array.from({ length: 5 }, (_, k) => [`${k}.folio.json`, zeros])), { level: 9 })],
    ['in others.zip', zipSync(Object.fromEntries(Array.from({ length: 40 }, (_, k) => [`${k}.zip`, inner])), { level: 0 })],
  ] // prettier-ignore
  for (const [name, bytes] of bombs) {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: 'Bring in files' }).click(),
    ])
    await chooser.setFiles({ name, mimeType: 'application/zip', buffer: Buffer.from(bytes) })
    await expect(page.getByRole('alert').filter({ hasText: name })).toBeVisible({ timeout: 60_000 })
  }
  // This machine is slow and busy: unpacking on the page took many seconds.
  expect(await worst()).toBeLessThan(1_500)
})

/** 64 MB over 100 kB/s take eleven minutes: only where there is time for it. */
test('the largest numbers there are arrive over a slow line', async ({ folio, page }) => {
  test.skip(seconds(0) === 0, 'npm run endure')
  test.setTimeout(30 * 60_000)
  const id = await folio.open(['a = 1'])
  await choose(page, 'largest.csv', table(999_000, 7))
  await expect(page.getByRole('region', { name: 'A file for this folio' })).toContainText('rows', { timeout: 120_000 })
  await slow(page, 100_000)
  const began = Date.now()
  await keep(page)
  const told = page.locator('.numbers')
  await expect(told).toContainText('are being sent')
  await expect(told).toHaveCount(0, { timeout: 20 * 60_000 })
  process.stdout.write(`largest: 64 MB arrived in ${Math.round((Date.now() - began) / 1000)} s\n`)
  const { enclosures } = (await (await page.request.get(`/api/folios/${id}`)).json()) as { enclosures: { block: string }[] } // prettier-ignore
  const received = await page.request.get(`/api/folios/${id}/blocks/${enclosures[0]?.block}/received`)
  expect(await received.json()).toMatchObject({ whole: true })
})
