import { createServer } from 'node:net'
import { expect, test } from '@playwright/test'
import { violations } from './axe'
import { OwnServer } from './ownServer'

/** The server comes back at another port: what a browser kept for the old one is handed over. */

async function kept(server: OwnServer, id: string): Promise<string[]> {
  const folio = (await (await fetch(`${server.address}/api/folios/${id}`)).json()) as { lines: { source: string }[] }
  return folio.lines.map((line) => line.source)
}

async function make(server: OwnServer): Promise<string> {
  const response = await fetch(`${server.address}/api/folios`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ title: 'Harbour', conventions: {}, lines: [{ source: 'a = 1' }, { source: 'b = 2' }] }),
  })
  return ((await response.json()) as { id: string }).id
}

test('what could not be sent at the old port arrives at the new one: changes, and a text in the middle of being typed', async ({
  page,
  context,
}) => {
  const first = await OwnServer.begin()
  const id = await make(first)
  await page.goto(`${first.address}/folio/${id}`)
  await expect(page.locator('.status')).toHaveText(/^saved/)
  await first.kill()
  // Two kept changes and a draft, with nobody to send them to.
  await page.locator('[data-line="1"] .opener').focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type('0 # kept')
  await page.getByRole('link', { name: 'To the shelf' }).focus()
  await expect(page.locator('.status')).toContainText('kept in this browser')
  await page.locator('[data-line="2"] .opener').focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type('0 # typed')
  await page.waitForTimeout(1_200)
  await page.close()

  const second = await OwnServer.begin({}, first.data)
  try {
    expect(second.port).not.toBe(first.port)
    const old = `http://127.0.0.1:${first.port}`
    // At the old port nothing else is served.
    expect((await fetch(`${old}/api/folios`)).status).toBe(421)
    expect((await fetch(`${old}/`, { redirect: 'manual' })).headers.get('location')).toBe('/hand-over?to=%2F')
    expect(await (await fetch(`${old}/api/version`)).json()).toMatchObject({ program: 'ornate-phasor', port: second.port }) // prettier-ignore
    // The page that one had in mind is gone to, with everything.
    const again = await context.newPage()
    await again.goto(`${old}/folio/${id}`)
    await expect(again).toHaveURL(`${second.address}/folio/${id}`)
    await expect(again.locator('.cm-content')).toHaveText('b = 20 # typed')
    await again.getByRole('link', { name: 'To the shelf' }).focus()
    await expect(again.locator('.status')).toHaveText(/^saved/, { timeout: 30_000 })
    expect((await kept(second, id)).filter((source) => source !== '')).toEqual(['a = 10 # kept', 'b = 20 # typed'])
    // Nothing is left behind there, and a second visit only goes on.
    await again.goto(`${old}/`)
    await expect(again).toHaveURL(`${second.address}/`)
  } finally {
    await second.kill()
  }
})

test('a page that stood open at the old port says where the server is, and keeps what it has', async ({ page }) => {
  const first = await OwnServer.begin()
  const id = await make(first)
  await page.goto(`${first.address}/folio/${id}`)
  await expect(page.locator('.status')).toHaveText(/^saved/)
  await first.kill()
  const second = await OwnServer.begin({}, first.data)
  try {
    await page.locator('[data-line="1"] .opener').focus()
    await page.keyboard.press('Enter')
    await page.keyboard.type('7')
    await page.getByRole('link', { name: 'To the shelf' }).focus()
    await expect(page.locator('.status')).toContainText(`The server is at port ${second.port} now`)
    await expect(page.locator('.status')).toContainText('kept in this browser')
    await page.reload()
    await expect(page).toHaveURL(`${second.address}/folio/${id}`)
    await expect(page.locator('.status')).toHaveText(/^saved/, { timeout: 30_000 })
    expect((await kept(second, id))[0]).toBe('a = 17')
  } finally {
    await second.kill()
  }
})

test('behind a door one signs in at the old port, too; and what could not be handed over stays', async ({ page }) => {
  const first = await OwnServer.begin({ ORNATE_PHASOR_PASSPHRASE: 'a lamp in the fog' })
  await first.kill()
  const second = await OwnServer.begin({ ORNATE_PHASOR_PASSPHRASE: 'a lamp in the fog' }, first.data)
  try {
    await page.goto(`http://127.0.0.1:${first.port}/folio/AAAAAAAA`)
    await expect(page).toHaveURL(/sign-in\?to=/)
    await page.evaluate(
      () =>
        new Promise<void>((done) => {
          const opening = indexedDB.open('keyval-store')
          opening.onupgradeneeded = () => opening.result.createObjectStore('keyval')
          opening.onsuccess = () => {
            const change = opening.result.transaction('keyval', 'readwrite')
            change.objectStore('keyval').put({ text: 'c = 3', was: '', sent: null, at: 1 }, 'draft:AAAAAAAA:line-0001')
            change.oncomplete = () => {
              opening.result.close()
              done()
            }
          }
        }),
    )
    await page.route('**/api/handed/**', (route) => route.abort())
    await page.getByLabel('Passphrase').fill('a lamp in the fog')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('alert')).toContainText('Nothing is lost: it is kept in this browser.')
    expect(await violations(page)).toEqual([])
    await page.unrouteAll()
    await page.getByRole('button', { name: 'Try again' }).click()
    await expect(page).toHaveURL(`${second.address}/folio/AAAAAAAA`)
    // Taken away there, and found here.
    const found = await page.evaluate(
      () =>
        new Promise((done) => {
          const opening = indexedDB.open('keyval-store')
          opening.onsuccess = () => {
            const all = opening.result.transaction('keyval').objectStore('keyval').getAllKeys()
            all.onsuccess = () => done(all.result)
          }
        }),
    )
    expect(found).toContain('draft:AAAAAAAA:line-0001')
  } finally {
    await second.kill()
  }
})

test('where the old port is taken the one to start with is named', async () => {
  const first = await OwnServer.begin()
  await first.kill()
  const other = createServer()
  await new Promise<void>((done) => other.listen(first.port, '127.0.0.1', done))
  const second = await OwnServer.prepare({}, first.data)
  try {
    await second.start()
    await expect.poll(() => second.said).toContain(`start with PORT=${first.port}`)
  } finally {
    await second.kill()
    other.close()
  }
})
