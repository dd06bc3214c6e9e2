import { cpSync, mkdtempSync } from 'node:fs'
import sqlite3 from 'sqlite3'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect } from '@playwright/test'
import type { Browser, BrowserContext, Page, Route } from '@playwright/test'
import type { Chance } from './chance'
import { KillableBrowser } from './killable'
import { Promised } from './promised'
import type { Found } from './promised'
import { digestOf, Writer } from './writer'
import { OwnServer } from '../ownServer'

/** Everything that can go wrong at once: three writers in two browsers, one server, and what disturbs them. */

export interface Storm {
  /** What was promised and is not there, or stands elsewhere. */
  readonly missing: readonly string[]
  readonly promised: Promised
  readonly counts: Readonly<Record<string, number>>
  /** Of copies that were taken while the server ran: how many, and what was missing in them. */
  readonly copies: number
  readonly missingInCopies: readonly string[]
}

interface FolioBody {
  readonly lines: readonly Found[]
  readonly enclosures: readonly { readonly name: string; readonly block: string }[]
}

/** What the server has of a folio: its lines, and the numbers of its enclosures by name. */
async function has(address: string, id: string): Promise<readonly [readonly Found[], ReadonlyMap<string, string>]> {
  const folio = (await (await fetch(`${address}/api/folios/${id}`)).json()) as FolioBody
  const numbers = new Map<string, string>()
  for (const { name, block } of folio.enclosures) {
    const response = await fetch(`${address}/api/folios/${id}/blocks/${block}`)
    if (response.ok) numbers.set(name, digestOf(new Uint8Array(await response.arrayBuffer())))
  }
  return [folio.lines, numbers]
}

async function makeFolio(address: string): Promise<string> {
  const response = await fetch(`${address}/api/folios`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      title: 'Storm',
      lines: ['a0 = 1', 'b0 = 2', 'c0 = 3', 'd0 = 4'].map((source) => ({ source })),
    }),
  })
  return ((await response.json()) as { id: string }).id
}

/** Another program that holds the data file for a while. */
async function hold(data: string, time: number): Promise<void> {
  const other = new sqlite3.Database(join(data, 'folios.sqlite'))
  const exec = (sql: string): Promise<void> => new Promise((done) => other.exec(sql, () => done()))
  await exec('BEGIN IMMEDIATE')
  await new Promise((done) => setTimeout(done, time))
  await exec('ROLLBACK')
  await new Promise<void>((done) => other.close(() => done()))
}

export interface StormOptions {
  readonly browser: Browser
  readonly chance: Chance
  /** How long it goes on, in milliseconds; and how much must have been promised, and killed, for it to mean anything. */
  readonly time: number
  readonly enough: number
  readonly kills: number
  /** Makes a page wrong on purpose: the storm must find it out. */
  readonly mutant?: (page: Page) => Promise<void>
}

export async function storm({ browser, chance, time, enough, kills, mutant }: StormOptions): Promise<Storm> {
  const counts: Record<string, number> = {}
  const tell = (what: string): void => void (counts[what] = (counts[what] ?? 0) + 1)
  const killed = (): number => (counts['server killed'] ?? 0) + (counts['browser killed'] ?? 0)
  const promised = new Promised()
  const server = await OwnServer.begin()
  const killable = new KillableBrowser()
  const copies: (readonly [data: string, promised: Promised])[] = []
  let other: BrowserContext | null = null
  try {
    const id = await makeFolio(server.address)
    const url = `${server.address}/folio/${id}`
    let mine = await killable.start()
    const open = async (context: BrowserContext, name: string): Promise<Writer> => {
      const page = await context.newPage()
      await mutant?.(page)
      page.on('dialog', (dialog) => void dialog.accept().catch(() => undefined))
      await page.goto(url, { timeout: 15_000 }).catch(() => undefined)
      return new Writer(page, name, promised, chance)
    }
    other = await browser.newContext({ permissions: ['clipboard-read', 'clipboard-write'] })
    let writers = [await open(mine, 'ka'), await open(mine, 'kb'), await open(other, 'pa')]
    let disturbed: Promise<unknown> = Promise.resolve()

    const killBrowser = async (): Promise<void> => {
      for (const writer of writers) if (writer.name !== 'pa') await writer.look()
      for (const writer of writers) if (writer.name !== 'pa') writer.crashes()
      await killable.kill()
      mine = await killable.start()
      writers = [await open(mine, 'ka'), await open(mine, 'kb'), ...writers.filter((w) => w.name === 'pa')]
    }
    const killServer = async (): Promise<void> => {
      await server.kill()
      await new Promise((done) => setTimeout(done, chance.between(50, 1_500)))
      await server.start()
    }
    const offline = async (): Promise<void> => {
      await other?.setOffline(true)
      await new Promise((done) => setTimeout(done, chance.between(300, 3_000)))
      await other?.setOffline(false)
    }
    /** What a route does meanwhile; routes of others stay. */
    const meanwhile = async (pattern: string, does: (route: Route) => Promise<void>, most: number): Promise<void> => {
      const pages = writers.map((w) => w.page)
      const handler = (route: Route): Promise<void> => does(route).catch(() => undefined)
      for (const page of pages) await page.route(pattern, handler).catch(() => undefined)
      await new Promise((done) => setTimeout(done, chance.between(500, most)))
      for (const page of pages) await page.unroute(pattern, handler).catch(() => undefined)
    }
    const late = async (route: Route): Promise<void> => {
      await new Promise((done) => setTimeout(done, 400))
      await route.fallback()
    }
    const slow = (): Promise<void> => meanwhile('**/api/**', late, 2_000)
    const failing = (): Promise<void> => meanwhile('**/operations', (route) => route.abort(), 2_500)

    const diskFull = async (): Promise<void> => {
      await server.kill()
      await server.start(40 + chance.below(400))
      await new Promise((done) => setTimeout(done, chance.between(500, 3_000)))
      await server.kill()
      await server.start()
    }
    const browserFull = async (): Promise<void> => {
      const set = (full: boolean): Promise<unknown> =>
        Promise.all(
          writers.map((w) =>
            w.page
              .evaluate((on) => {
                const own = window as unknown as { put?: IDBObjectStore['put'] }
                own.put ??= IDBObjectStore.prototype.put
                const put = own.put
                IDBObjectStore.prototype.put = function (...args) {
                  if (on) throw new DOMException('full', 'QuotaExceededError')
                  return put.apply(this, args)
                }
              }, full)
              .catch(() => undefined),
          ),
        )
      await set(true)
      await new Promise((done) => setTimeout(done, chance.between(500, 2_500)))
      await set(false)
    }

    /** The folder is copied as it is, while everything goes on: it must have what the server had acknowledged. */
    const copied = async (): Promise<void> => {
      for (const writer of writers) await writer.look()
      const known = promised.snapshot((why) => why.endsWith('saved'))
      const data = mkdtempSync(join(tmpdir(), 'ornate-phasor-copied-'))
      cpSync(server.data, data, { recursive: true })
      copies.push([data, known])
    }

    const until = Date.now() + time
    let settled = true
    // On a slow machine it goes on until enough has been promised, and enough has gone wrong.
    const goesOn = (): boolean =>
      Date.now() < until || ((promised.size <= enough || killed() < kills) && Date.now() < until + time)
    while (goesOn()) {
      const writer = writers[chance.below(writers.length)]
      if (!writer) break
      tell(await writer.act())
      await writer.look()
      if (chance.next() < 0.04) {
        promised.note('browser killed')
        await killBrowser()
        tell('browser killed')
      }
      if (settled && chance.next() < 0.14) {
        const [what, disturb] = chance.pick([
          [4, ['server killed', killServer]],
          [2, ['data file locked', () => hold(server.data, chance.between(300, 4_000))]],
          [2, ['offline', offline]],
          [2, ['slow answers', slow]],
          [2, ['failing answers', failing]],
          [1, ['disk full', diskFull]],
          [1, ['browser storage full', browserFull]],
          [1, ['copied', copied]],
        ] as const)
        tell(what)
        promised.note(what)
        settled = false
        disturbed = disturb().finally(() => (settled = true))
      }
    }
    await disturbed

    // The storm is over: whoever is there says what is kept, closes, and comes back one after the other.
    for (const writer of writers) {
      await writer.look()
      await writer.page.keyboard.press('Escape').catch(() => undefined)
    }
    for (const writer of writers) await writer.page.close()
    for (const context of [mine, other]) {
      const page = await context.newPage()
      // A program that is wrong is so to the end: a right one would send what the wrong one left behind.
      await mutant?.(page)
      await page.goto(url)
      await expect(page.locator('.status')).toHaveText(/^saved/, { timeout: 40_000 })
      // What was left in the middle of a line is there again, and is kept now.
      await page.getByRole('link', { name: 'To the shelf' }).focus()
      await expect(page.locator('.cm-content, .plain-entry')).toHaveCount(0)
      await expect(page.locator('.status')).toHaveText(/^saved/, { timeout: 40_000 })
      await expect(page.locator('.numbers')).toHaveCount(0, { timeout: 40_000 })
      await page.close()
    }
    const missing = promised.missing(...(await has(server.address, id)))
    const missingInCopies: string[] = []
    for (const [data, known] of copies) {
      const restored = await OwnServer.begin({}, data)
      missingInCopies.push(...known.missing(...(await has(restored.address, id))))
      await restored.kill()
    }
    return { missing, promised, counts, copies: copies.length, missingInCopies }
  } finally {
    await other?.close()
    await killable.kill()
    await server.kill()
  }
}
