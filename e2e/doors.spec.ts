import { request } from 'node:http'
import { connect, createServer } from 'node:net'
import type { AddressInfo } from 'node:net'
import { mkdirSync, mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { networkInterfaces, tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { violations } from './axe'
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
      for (const theme of ['day', 'night'] as const) {
        await expect(page.locator('html')).toHaveAttribute('data-theme', theme)
        expect(await violations(page)).toEqual([])
        await page.getByRole('button', { name: /Change to the/ }).click()
      }
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

      // The server is started anew: the open page says what is to be done, and loses nothing.
      await page.getByRole('link', { name: 'Open Lamp circuit' }).click()
      await expect(page.locator('.status')).toHaveText(/^saved/)
      await server.kill()
      await server.start()
      await page.locator('[data-line="3"] .opener').focus()
      await page.keyboard.press('Enter')
      await page.keyboard.type(' # noted')
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

  test('without one that is given, one is made and printed; guessing is slowed down', async () => {
    const server = await OwnServer.begin({ HOST: '0.0.0.0' })
    try {
      const made = /passphrase (\S+) \(/.exec(server.said)?.[1] ?? ''
      expect(made.length).toBeGreaterThan(10)
      const signIn = (passphrase: string, headers: Record<string, string> = {}): Promise<Response> =>
        fetch(`${server.address}/api/session`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', ...headers },
          body: JSON.stringify({ passphrase }),
        })
      const entered = await signIn(made, { 'x-forwarded-proto': 'https' })
      expect(entered.status).toBe(200)
      expect(entered.headers.get('set-cookie')).toMatch(
        /HttpOnly.*Secure.*SameSite=Strict|HttpOnly.*SameSite=Strict.*Secure|Secure.*HttpOnly.*SameSite=Strict/i,
      )
      const statuses = []
      for (let k = 0; k < 6; k += 1) statuses.push((await signIn(`guess ${k}`)).status)
      expect(statuses).toEqual([403, 403, 403, 403, 403, 429])
      const late = await signIn(made)
      expect(late.status).toBe(429)
      expect(Number(late.headers.get('retry-after'))).toBeGreaterThan(0)
    } finally {
      await server.kill()
    }
  })
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
  test('a port that is no number, and an address that this machine has not', async () => {
    expect(await refused({ PORT: 'abc', NITRO_PORT: 'abc' })).toContain('must be a number from 0 to 65535')
    expect(await refused({ HOST: '192.0.2.1' })).toContain('This machine has no address 192.0.2.1')
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
