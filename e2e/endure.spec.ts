import sqlite3 from 'sqlite3'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import type { BrowserContext } from '@playwright/test'
import { Chance, seconds, seedOf } from './endure/chance'
import { KillableBrowser } from './endure/killable'
import { Promised, Writer } from './endure/writer'
import { OwnServer } from './ownServer'

// A text that is lost once is lost: no second try.
test.describe.configure({ retries: 0 })

/**
 * Everything that can go wrong at once, by chance that can be repeated: in the
 * end every text that was ever acknowledged, or shown as kept, is found in the
 * folio or its journal. Short here; `npm run endure` goes on for half an hour.
 */

interface FolioBody {
  title: string
  lines: { source: string }[]
}
interface JournalBody {
  entries: { revision: number; operations: unknown[] }[]
  more: boolean
}

/** All that the server has of a folio, its journal with it, as one text. */
async function everything(address: string, id: string): Promise<string> {
  const folio = (await (await fetch(`${address}/api/folios/${id}`)).json()) as FolioBody
  const found: unknown[] = [folio]
  let before = ''
  for (;;) {
    const page = (await (await fetch(`${address}/api/folios/${id}/journal${before}`)).json()) as JournalBody
    found.push(page.entries)
    const last = page.entries.at(-1)
    if (!page.more || !last) return JSON.stringify(found)
    before = `?before=${last.revision}`
  }
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

/** So many texts at least must have been promised for their being kept to mean anything. */
const ENOUGH = 5

test('whatever happens, what was promised is kept', async ({ browser }) => {
  const time = seconds(50) * 1_000
  test.setTimeout(2 * time + 180_000)
  const chance = new Chance(seedOf('storm'))
  const counts: Record<string, number> = {}
  const tell = (what: string): void => void (counts[what] = (counts[what] ?? 0) + 1)
  const promised = new Promised()
  const server = await OwnServer.begin()
  const killable = new KillableBrowser()
  let other: BrowserContext | null = null
  try {
    const id = await makeFolio(server.address)
    const url = `${server.address}/folio/${id}`
    let mine = await killable.start()
    const open = async (context: BrowserContext, name: string): Promise<Writer> => {
      const page = await context.newPage()
      page.on('dialog', (dialog) => void dialog.accept().catch(() => undefined))
      await page.goto(url, { timeout: 15_000 }).catch(() => undefined)
      return new Writer(page, name, promised, chance)
    }
    other = await browser.newContext()
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
    const slow = async (): Promise<void> => {
      const pages = writers.map((w) => w.page)
      for (const page of pages)
        await page
          .route('**/api/**', async (route) => {
            await new Promise((done) => setTimeout(done, 400))
            await route.continue().catch(() => undefined)
          })
          .catch(() => undefined)
      await new Promise((done) => setTimeout(done, chance.between(500, 2_000)))
      for (const page of pages) await page.unrouteAll({ behavior: 'ignoreErrors' }).catch(() => undefined)
    }
    const failing = async (): Promise<void> => {
      const pages = writers.map((w) => w.page)
      for (const page of pages)
        await page.route('**/operations', (route) => route.abort().catch(() => undefined)).catch(() => undefined)
      await new Promise((done) => setTimeout(done, chance.between(500, 2_500)))
      for (const page of pages) await page.unrouteAll({ behavior: 'ignoreErrors' }).catch(() => undefined)
    }

    const diskFull = async (): Promise<void> => {
      await server.kill()
      await server.start(server.size + 8)
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

    const until = Date.now() + time
    let settled = true
    // On a slow machine it goes on until enough has been promised.
    while (Date.now() < until || (promised.size <= ENOUGH && Date.now() < until + time)) {
      const writer = writers[chance.below(writers.length)]
      if (!writer) break
      tell(await writer.act())
      await writer.look()
      if (chance.next() < 0.04) {
        promised.note('browser killed')
        await killBrowser()
        tell('browser killed')
      }
      if (settled && chance.next() < 0.12) {
        const [what, disturb] = chance.pick([
          [4, ['server killed', killServer]],
          [2, ['data file locked', () => hold(server.data, chance.between(300, 4_000))]],
          [2, ['offline', offline]],
          [2, ['slow answers', slow]],
          [2, ['failing answers', failing]],
          [1, ['disk full', diskFull]],
          [1, ['browser storage full', browserFull]],
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
      await page.goto(url)
      await expect(page.locator('.status')).toHaveText(/^saved/, { timeout: 40_000 })
      // What was left in the middle of a line is there again, and is kept now.
      await page.getByRole('link', { name: 'To the shelf' }).focus()
      await expect(page.locator('.cm-content, .plain-entry')).toHaveCount(0)
      await expect(page.locator('.status')).toHaveText(/^saved/, { timeout: 40_000 })
      await page.close()
    }
    const left = await everything(server.address, id)
    process.stdout.write(
      `storm: ${promised.size} texts promised, ${promised.missing(left).length} missing; ${JSON.stringify(counts)}\n`,
    )
    const missing = promised.missing(left)
    if (missing.length > 0) process.stdout.write(`${promised.trail.join('\n')}\n`)
    expect(missing).toEqual([])
    expect(promised.size).toBeGreaterThan(ENOUGH)
  } finally {
    await other?.close()
    await killable.kill()
    await server.kill()
  }
})
