import { request } from 'node:http'
import { connect, createServer } from 'node:net'
import type { AddressInfo } from 'node:net'
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs' // prettier-ignore
import { networkInterfaces, tmpdir } from 'node:os'
import { join } from 'node:path'
import { unzipSync } from 'fflate'
import { expect, test } from '@playwright/test'
import { violations, violationsDayAndNight } from './axe'
import { OwnServer } from './ownServer'

/** How the server starts, to whom it answers, and what it says where it cannot. */

const PASSPHRASE = 'a lamp in the fog'

/** An address of this machine on the network, where it has one. */
const outside = Object.values(networkInterfaces())
  .flatMap((list) => list ?? [])
  .find((i) => i.family === 'IPv4' && !i.internal)?.address

/** The status of a raw request, with whatever headers. */
function status(port: number, path: string, headers: Record<string, string> = {}, method = 'GET'): Promise<number> {
  return new Promise((done, failed) => {
    const call = request({ host: '127.0.0.1', port, path, method, headers }, (response) => {
      response.resume()
      done(response.statusCode ?? 0)
    })
    call.on('error', failed)
    call.end()
  })
}

function signIn(server: OwnServer, passphrase: string, headers: Record<string, string> = {}): Promise<Response> {
  return fetch(`${server.address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...headers },
    body: JSON.stringify({ passphrase }),
  })
}

function reachable(host: string, port: number): Promise<boolean> {
  return new Promise((done) => {
    const socket = connect({ host, port, timeout: 2_000 }, () => {
      socket.destroy()
      done(true)
    })
    socket.on('error', () => done(false))
    socket.on('timeout', () => done(false))
  })
}

test('started without a word about it, the server listens on this machine only', async () => {
  const server = await OwnServer.begin()
  try {
    expect(server.said).toContain(`Ornate Phasor is ready: http://127.0.0.1:${server.port}`)
    expect(await reachable('127.0.0.1', server.port)).toBe(true)
    if (outside) expect(await reachable(outside, server.port)).toBe(false)
    expect(await status(server.port, '/api/folios')).toBe(200)
    expect(await status(server.port, '/api/folios', { host: 'rebound.example' })).toBe(421)
    expect(await status(server.port, '/', { host: 'rebound.example' })).toBe(421)
    expect(await status(server.port, '/api/folios', {}, 'PATCH')).toBe(405)
    expect(await status(server.port, '/api/folios?find=%00')).toBe(200)
    expect(await status(server.port, '/api/folios?find=%00&sort=%27&from=-1')).toBe(200)
  } finally {
    await server.kill()
  }
})

test('HOST=::1 is served and named as it is', async () => {
  const server = await OwnServer.prepare({ HOST: '::1' })
  try {
    const early = await server.start()
    test.skip(early !== null, 'this machine has no ::1')
    expect(server.said).toContain(`http://[::1]:${server.port}`)
    expect(server.said).not.toContain('passphrase')
    const response = await fetch(`http://[::1]:${server.port}/api/folios`)
    expect(response.status).toBe(200)
  } finally {
    await server.kill()
  }
})

test.describe('reachable from the network', () => {
  test('nothing of the folios is given without the passphrase, and it is asked for', async ({ page }) => {
    const server = await OwnServer.begin({ HOST: '0.0.0.0', ORNATE_PHASOR_PASSPHRASE: PASSPHRASE })
    try {
      expect(server.said).toContain('ORNATE_PHASOR_PASSPHRASE')
      expect(server.said).not.toContain(PASSPHRASE)
      for (const path of ['/api/folios', '/api/folios/AAAAAAAA', '/api/folios/AAAAAAAA/journal', '/api/nothing'])
        expect([path, await status(server.port, path)]).toEqual([path, 401])
      expect(await status(server.port, '/api/bin', {}, 'DELETE')).toBe(401)
      expect(await status(server.port, '/api/folios', { host: 'elsewhere.example' })).toBe(421)
      expect(await status(server.port, '/api/folios', { cookie: 'ornate-phasor-session=forged' })).toBe(401)

      await page.goto(server.address)
      await expect(page).toHaveURL(/sign-in/)
      expect(await violationsDayAndNight(page)).toEqual([])
      await page.getByLabel('Passphrase').fill('a guess')
      await page.getByRole('button', { name: 'Sign in' }).click()
      await expect(page.getByText('This is not the passphrase')).toBeVisible()
      await page.getByLabel('Passphrase').fill(PASSPHRASE)
      await page.keyboard.press('Enter')
      await expect(page.getByRole('link', { name: 'Open Lamp circuit' })).toBeVisible()
      const [cookie] = await page.context().cookies()
      expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Strict', secure: false })

      // Another site's page cannot write, with the session or without.
      const forged = await page.request.put(`${server.address}/api/folios/AAAAAAAA/bin`, {
        data: { binned: true },
        headers: { origin: 'http://elsewhere.example' },
      })
      expect(forged.status()).toBe(403)

      // The server is started anew: whoever was signed in still is.
      await page.getByRole('link', { name: 'Open Lamp circuit' }).click()
      await expect(page.locator('.status')).toHaveText(/^saved/)
      await server.kill()
      await server.start()
      await page.locator('[data-line="3"] .opener').focus()
      await page.keyboard.press('Enter')
      await page.keyboard.type(' # noted')
      await page.keyboard.press('Enter')
      await expect(page.locator('.status')).toHaveText(/^saved/, { timeout: 30_000 })

      // Another browser ends this session: the open page says what is to be done, and loses nothing.
      const other = await signIn(server, PASSPHRASE)
      const mine = (other.headers.getSetCookie?.() ?? []).map((one) => one.split(';')[0]).join('; ')
      const told = await (await fetch(`${server.address}/api/session`, { headers: { cookie: mine } })).json()
      expect(told).toMatchObject({ needed: true, signedIn: true, here: [{}], others: [{}] })
      await fetch(`${server.address}/api/session?which=others`, { method: 'DELETE', headers: { cookie: mine } })
      await page.locator('[data-line="2"] .opener').focus()
      await page.keyboard.press('Enter')
      await page.keyboard.type(' # once more')
      await page.keyboard.press('Enter')
      await expect(page.locator('.status')).toContainText('You are not signed in')
      await expect(page.locator('.status')).toContainText('kept in this browser')
      const door = page.waitForEvent('popup')
      await page.getByRole('link', { name: 'Sign in' }).click()
      const popup = await door
      await popup.getByLabel('Passphrase').fill(PASSPHRASE)
      await popup.keyboard.press('Enter')
      await expect(popup.getByRole('link', { name: 'Open Lamp circuit' })).toBeVisible()
      await expect(page.locator('.status')).toHaveText(/^saved/, { timeout: 30_000 })
    } finally {
      await server.kill()
    }
  })

  test('without one that is given, one is made and printed; guessing is slowed down, the right one is let in', async () => {
    const server = await OwnServer.begin({ HOST: '0.0.0.0' })
    try {
      const made = /passphrase (\S+) \(/.exec(server.said)?.[1] ?? ''
      expect(made.length).toBeGreaterThan(10)
      const entered = await signIn(server, made, { 'x-forwarded-proto': 'https' })
      expect(entered.status).toBe(200)
      // Nobody listed a proxy: what it says of itself counts for nothing.
      expect(entered.headers.get('set-cookie')).not.toMatch(/Secure/i)
      const statuses = []
      for (let k = 0; k < 5; k += 1) statuses.push((await signIn(server, `guess ${k}`)).status)
      expect(statuses).toEqual([403, 403, 403, 403, 403])
      const began = Date.now()
      expect((await signIn(server, 'another guess', { 'x-forwarded-for': '203.0.113.7' })).status).toBe(403)
      expect(Date.now() - began).toBeGreaterThan(800)
      expect((await signIn(server, made)).status).toBe(200)
      expect(Date.now() - began).toBeGreaterThan(2_500)
    } finally {
      await server.kill()
    }
  })

  test('three hundred who know it come in at once', async () => {
    const server = await OwnServer.begin({ ORNATE_PHASOR_PASSPHRASE: PASSPHRASE })
    try {
      const all = await Promise.all(Array.from({ length: 300 }, () => signIn(server, PASSPHRASE)))
      expect(all.filter((one) => one.status !== 200)).toEqual([])
    } finally {
      await server.kill()
    }
  })
})

test.describe('behind a proxy, on this machine only', () => {
  test('a passphrase that is given makes the door, documents included; assets are open', async ({ page }) => {
    const server = await OwnServer.begin({ ORNATE_PHASOR_PASSPHRASE: PASSPHRASE })
    try {
      expect(await status(server.port, '/api/folios')).toBe(401)
      for (const path of ['/', '/folio/AAAAAAAA', '/anything', '/sign-inn', '/sign-in/../folio/AAAAAAAA']) {
        const answer = await fetch(`${server.address}${path}`, { redirect: 'manual' })
        expect([path, answer.status, answer.headers.get('cache-control')]).toEqual([path, 302, 'no-store'])
        expect(answer.headers.get('location')).toMatch(/^\/sign-in\?to=%2F/)
      }
      const open = await fetch(`${server.address}/sign-in`)
      expect([open.status, open.headers.get('cache-control')]).toEqual([200, 'no-store'])
      const script = /\/_nuxt\/[^"]+\.js/.exec(await open.text())?.[0] ?? ''
      expect((await fetch(`${server.address}${script}`)).status).toBe(200)
      const cookie = (await signIn(server, PASSPHRASE)).headers.getSetCookie().map((one) => one.split(';')[0]).join('; ') // prettier-ignore
      const inside = await fetch(`${server.address}/`, { headers: { cookie }, redirect: 'manual' })
      expect([inside.status, inside.headers.get('cache-control')]).toEqual([200, 'no-store'])
      const folios = await fetch(`${server.address}/api/folios`, { headers: { cookie } })
      expect([folios.status, folios.headers.get('cache-control')]).toEqual([200, 'no-store'])
      // A page that was asked for is gone to after the door.
      await page.goto(`${server.address}/?from=door`)
      await page.getByLabel('Passphrase').fill(PASSPHRASE)
      await page.keyboard.press('Enter')
      await expect(page).toHaveURL(`${server.address}/?from=door`)
    } finally {
      await server.kill()
    }
  })

  test('one that is listed is believed, and makes the door by itself; what is no address is refused', async () => {
    const server = await OwnServer.begin({ ORNATE_PHASOR_PROXY: '127.0.0.1, 10.0.0.0/8' })
    try {
      const made = /passphrase (\S+) \(/.exec(server.said)?.[1] ?? ''
      expect(await status(server.port, '/api/folios')).toBe(401)
      const from = (address: string) => ({ 'x-forwarded-for': address, 'x-forwarded-proto': 'https' })
      for (let k = 0; k < 6; k += 1) await signIn(server, 'guess', from('203.0.113.1'))
      // Who guesses there holds up nobody elsewhere.
      const began = Date.now()
      const entered = await signIn(server, made, from('203.0.113.2'))
      expect(entered.status).toBe(200)
      expect(Date.now() - began).toBeLessThan(900)
      expect(entered.headers.get('set-cookie')).toMatch(/Secure/i)
      const cookie = entered.headers
        .getSetCookie()
        .map((one) => one.split(';')[0])
        .join('; ')
      const write = (headers: Record<string, string>): Promise<Response> =>
        fetch(`${server.address}/api/folios`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', cookie, ...headers },
          body: JSON.stringify({ title: 'T', conventions: {}, lines: [] }),
        })
      // The page was asked for under the proxy's name.
      const proxied = { origin: 'https://lab.example', 'x-forwarded-host': 'lab.example' }
      expect((await write(proxied)).status).toBe(201)
      expect((await write({ ...proxied, origin: 'https://elsewhere.example' })).status).toBe(403)
    } finally {
      await server.kill()
    }
    const wrong = await OwnServer.prepare({ ORNATE_PHASOR_PROXY: 'lab.example' })
    expect(await wrong.start()).toBe(1)
    expect(wrong.said).toContain('ORNATE_PHASOR_PROXY has lab.example')
    expect(existsSync(join(wrong.data, 'folios.sqlite'))).toBe(false)
  })
})

test('signing out stands in the page, offers what is unsent, and leaves nothing in the browser', async ({ page }) => {
  const server = await OwnServer.begin({ ORNATE_PHASOR_PASSPHRASE: PASSPHRASE })
  try {
    await signIn(server, PASSPHRASE)
    await page.goto(server.address)
    await page.getByLabel('Passphrase').fill(PASSPHRASE)
    await page.keyboard.press('Enter')
    await page.getByRole('link', { name: 'Open Lamp circuit' }).click()
    await expect(page.locator('.status')).toHaveText(/^saved/)
    // Something that does not reach the server.
    await page.route('**/operations', (route) => route.abort())
    await page.locator('[data-line="2"] .opener').focus()
    await page.keyboard.press('Enter')
    await page.keyboard.type(' # never sent')
    await page.keyboard.press('Enter')
    await expect(page.locator('.status')).toContainText('kept in this browser')
    await page.keyboard.press('Escape')
    await page.getByRole('link', { name: 'To the shelf' }).click()
    await page.getByRole('button', { name: 'Sign out…' }).click()
    const dialog = page.getByRole('dialog', { name: 'Sign out' })
    await expect(dialog).toContainText('This browser is signed in since today')
    await expect(dialog).toContainText('1 other browser is, since today')
    await expect(dialog).toContainText(/Not on the server yet: \d+ changes? in 1 folio/)
    expect(await violations(page)).toEqual([])
    const download = page.waitForEvent('download')
    await dialog.getByRole('button', { name: 'Save it as a file' }).click()
    const file = readFileSync(await (await download).path())
    expect(Buffer.from(unzipSync(file)['unsent.txt'] ?? []).toString()).toContain('# never sent')
    await dialog.getByRole('button', { name: 'Sign the others out' }).click()
    await expect(dialog).toContainText('Nobody else is.')
    const [cookie] = await page.context().cookies()
    await dialog.getByRole('button', { name: 'Sign out' }).last().click()
    await expect(page).toHaveURL(/sign-in/)
    const left = await page.evaluate(async () => {
      const found = await indexedDB.databases()
      const keys = await new Promise<IDBValidKey[]>((done) => {
        const opening = indexedDB.open('keyval-store')
        opening.onsuccess = () => {
          const all = opening.result.transaction('keyval').objectStore('keyval').getAllKeys()
          all.onsuccess = () => done(all.result)
        }
      })
      return { stores: found.length, keys, local: Object.keys(localStorage), session: sessionStorage.length }
    })
    expect(left.keys).toEqual([])
    expect(left.local.filter((key) => key !== 'ornate-phasor:preferences')).toEqual([])
    expect(await status(server.port, '/api/folios', { cookie: `${cookie?.name}=${cookie?.value}` })).toBe(401)
  } finally {
    await server.kill()
  }
})

test('told to end, it ends within two seconds, whoever hangs on to it, and the data file alone has all', async () => {
  const server = await OwnServer.begin()
  const { id } = (await (
    await fetch(`${server.address}/api/folios`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ title: 'Last words', conventions: {}, lines: [] }),
    })
  ).json()) as { id: string }
  const hanging = connect(server.port, '127.0.0.1')
  hanging.on('error', () => undefined)
  hanging.write(
    `POST /api/folios HTTP/1.1\r\nhost: 127.0.0.1:${server.port}\r\ncontent-type: application/json\r\ncontent-length: 1000\r\n\r\n{"title": "half`,
  )
  await new Promise((done) => setTimeout(done, 100))
  const began = Date.now()
  await server.kill('SIGTERM')
  expect(Date.now() - began).toBeLessThan(2_300)
  expect(statSync(join(server.data, 'folios.sqlite-wal'), { throwIfNoEntry: false })?.size ?? 0).toBe(0)
  const alone = mkdtempSync(join(tmpdir(), 'ornate-phasor-alone-'))
  copyFileSync(join(server.data, 'folios.sqlite'), join(alone, 'folios.sqlite'))
  const again = await OwnServer.begin({}, alone)
  try {
    expect(await (await fetch(`${again.address}/api/folios/${id}`)).json()).toMatchObject({ title: 'Last words' })
  } finally {
    await again.kill()
  }
})

test.describe('where it cannot start, a sentence says why, and the exit status is 1', () => {
  const folder = (): string => mkdtempSync(join(tmpdir(), 'ornate-phasor-start-'))
  const file = (name: string, content: string): string => {
    const data = folder()
    writeFileSync(join(data, name), content)
    return data
  }
  async function refused(env: Record<string, string>, data?: string): Promise<string> {
    const server = await OwnServer.prepare(env, data)
    try {
      expect(await server.start()).toBe(1)
      expect(server.said).not.toMatch(/\n\s+at |node:internal/)
      return server.said
    } finally {
      await server.kill()
    }
  }

  test('a port that another program uses', async () => {
    const other = createServer((socket) => socket.end('HTTP/1.1 200 OK\r\n\r\nhello'))
    await new Promise<void>((done) => other.listen(0, '127.0.0.1', done))
    const { port } = other.address() as AddressInfo
    expect(await refused({ PORT: String(port), NITRO_PORT: String(port) })).toContain(
      `Port ${port} is taken. Another program uses it.`,
    )
    other.close()
  })
  test('a port where it runs already', async () => {
    const first = await OwnServer.begin()
    try {
      const port = String(first.port)
      expect(await refused({ PORT: port, NITRO_PORT: port })).toMatch(
        /Ornate Phasor \d+\.\d+\.\d+ is running there already: open http/,
      )
    } finally {
      await first.kill()
    }
  })
  test('a port that is no number, and an address that this machine has not: before anything is made', async () => {
    const data = join(folder(), 'made', 'later')
    for (const port of ['abc', '', ' ', '4747.5', '1e3', '0x10', '-1', '65536', '99999999'])
      expect(await refused({ PORT: port, NITRO_PORT: port }, data)).toContain('must be a number from 0 to 65535')
    expect(await refused({ HOST: '192.0.2.1' }, data)).toContain('This machine has no address 192.0.2.1')
    expect(existsSync(join(data, '..'))).toBe(false)
  })
  test('a disk that is full at the first start leaves nothing, and the next start begins anew', async () => {
    const data = join(folder(), 'made', 'later')
    const server = await OwnServer.prepare({}, data)
    expect(await server.start(40)).toBe(1)
    expect(server.said).toContain('The disk takes no data file')
    expect(server.said).not.toMatch(/\n\s+at |node:internal/)
    expect(existsSync(join(data, '..'))).toBe(false)
    expect(await server.start()).toBeNull()
    expect(((await (await fetch(`${server.address}/api/folios`)).json()) as { count: number }).count).toBeGreaterThan(5)
    expect(statSync(data).mode & 0o777).toBe(0o700)
    for (const name of readdirSync(data)) expect([name, statSync(join(data, name)).mode & 0o777]).toEqual([name, 0o600])
    await server.kill()
  })
  test('a damaged and an empty data file, which stay as they are', async () => {
    const damaged = file('folios.sqlite', 'no data file '.repeat(200))
    expect(await refused({}, damaged)).toContain('is damaged or is no data file')
    expect(readFileSync(join(damaged, 'folios.sqlite'), 'utf8')).toContain('no data file')
    const empty = file('folios.sqlite', '')
    expect(await refused({}, empty)).toContain('is empty')
    expect(statSync(join(empty, 'folios.sqlite')).size).toBe(0)
  })
  test('a data folder that cannot be made', async () => {
    const data = join(file('a-file', ''), 'a-file', 'data')
    expect(await refused({}, data)).toContain('cannot be made')
    mkdirSync(join(data, '..', '..', 'fine'))
  })
})

test('a body that does not arrive is dropped', async () => {
  test.setTimeout(90_000)
  const server = await OwnServer.begin()
  try {
    const began = Date.now()
    const answer = await new Promise<string>((done) => {
      const socket = connect(server.port, '127.0.0.1')
      let text = ''
      socket.on('data', (chunk) => (text += String(chunk)))
      socket.on('close', () => done(text))
      socket.write(
        `POST /api/folios HTTP/1.1\r\nhost: 127.0.0.1:${server.port}\r\ncontent-type: application/json\r\ncontent-length: 1000\r\n\r\n{"title": "half`,
      )
    })
    expect(Date.now() - began).toBeLessThan(45_000)
    expect(answer === '' || answer.includes('408')).toBe(true)
    expect(await status(server.port, '/api/folios')).toBe(200)
  } finally {
    await server.kill()
  }
})
