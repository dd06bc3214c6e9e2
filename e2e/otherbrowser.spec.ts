import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { launch } from 'puppeteer-core'
import type { Browser, Page } from 'puppeteer-core'
import { PORT } from './setting'

/** The main job in another browser, Debian's Firefox: type, both forms, the plane, the sheet, a reload. */
const { firefox: FIREFOX } = JSON.parse(readFileSync(join(import.meta.dirname, '../scripts/browsers.json'), 'utf8')) as { firefox: string } // prettier-ignore
const HOME = `http://127.0.0.1:${PORT}`

test.skip(!existsSync(FIREFOX), `Firefox is not at ${FIREFOX}: npm run otherbrowser says how it gets there.`)
test.describe.configure({ timeout: 180_000 })

let browser: Browser
let page: Page
let faults: string[] = []
test.beforeAll(async () => {
  browser = await launch({ browser: 'firefox', executablePath: FIREFOX, headless: true })
})
test.afterAll(() => browser?.close())
test.beforeEach(async () => {
  page = await browser.newPage()
  faults = []
  page.on('pageerror', (error) => faults.push(String(error)))
  await page.setViewport({ width: 1280, height: 800 })
})
test.afterEach(async () => {
  await page.close()
  expect(faults).toEqual([])
})

async function open(lines: readonly string[]): Promise<string> {
  const response = await fetch(`${HOME}/api/folios`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ title: 'Another browser', lines: lines.map((source) => ({ source })) }),
  })
  const { id } = (await response.json()) as { id: string }
  await page.goto(`${HOME}/folio/${id}`)
  await page.waitForSelector('[data-line="1"]')
  return id
}

/** The text of the first element that fits, white space as one blank. */
const text = (selector: string): Promise<string> =>
  page.evaluate((s) => document.querySelector(s)?.textContent?.replace(/\s+/g, ' ').trim() ?? '', selector)
const expectText = (selector: string, wanted: string | RegExp): Promise<void> =>
  expect.poll(() => text(selector), { timeout: 20_000 }).toMatch(typeof wanted === 'string' ? new RegExp(`^${wanted.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}$`) : wanted) // prettier-ignore

test('lines are typed, answered in both forms, kept, and there again after a reload', async () => {
  await open([''])
  await page.waitForSelector('.cm-content')
  await page.keyboard.type('V = 230/_30')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Z = 12 + 5j')
  await page.keyboard.press('Enter')
  await page.keyboard.type('I = V/Z')
  await page.keyboard.press('Enter')
  await expectText('[data-line="2"] .rectangular .value', '12 + 5j')
  await expectText('[data-line="2"] .polar .value', '13 ∠ 22.62°')
  await expectText('[data-line="3"] .polar .value', '17.692 ∠ 7.3801°')
  await expectText('.status', /^saved/)
  // An error while it is typed, and its fix by key.
  await page.keyboard.type('2**5')
  await page.keyboard.press('Escape')
  await page.reload()
  await page.waitForSelector('[data-line="3"] .polar')
  await expectText('[data-line="3"] .polar .value', '17.692 ∠ 7.3801°')
  // What depends on a line follows it.
  await page.focus('[data-line="2"] .opener')
  await page.keyboard.press('Enter')
  await page.waitForSelector('[data-line="2"] .cm-content')
  await page.keyboard.down('Control')
  await page.keyboard.press('a')
  await page.keyboard.up('Control')
  await page.keyboard.type('Z = 3 + 4j')
  await page.keyboard.press('Enter')
  await expectText('[data-line="3"] .polar .value', '46 ∠ −23.13°')
  await expectText('.status', /^saved/)
})

test('the unit is switched, and what reads bare numbers says so', async () => {
  await open(['sin(30)', 'a = 2∠45°'])
  await expectText('[data-line="1"] .single > .value', '0.5')
  await page.evaluate(() => {
    const choices = [
      ...document.querySelectorAll<HTMLElement>('.conventions label, .conventions [role="radio"], label'),
    ]
    choices.find((one) => one.textContent?.trim() === 'radians')?.click()
  })
  await expectText('[data-line="1"] .single > .value', '−0.98803')
  await expectText('[data-line="2"] .polar .value', '2 ∠ 0.7854 rad')
})

test('values stand on the plane, and the sheet has every line', async () => {
  await open(['V = 3 + 4j', 'W = 2∠-60°', 'V + W'])
  await expectText('[data-line="3"] .rectangular .value', '4 + 2.2679j')
  await expect
    .poll(() => page.evaluate(() => document.querySelector('.canvas-host canvas')?.getAttribute('aria-label') ?? ''))
    .toContain('V 5 ∠ 53.13°')
  // Something is drawn: not all points of the picture have one colour.
  const colours = (): Promise<number> =>
    page.evaluate(() => {
      const canvas = document.querySelector<HTMLCanvasElement>('.canvas-host canvas')
      const data = canvas?.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height).data
      return new Set(data ? new Uint32Array(data.buffer) : []).size
    })
  await expect.poll(colours).toBeGreaterThan(20)
  await page.keyboard.down('Control')
  await page.keyboard.press('F9')
  await page.keyboard.up('Control')
  await page.waitForSelector('::-p-text(The sheet)')
  await page.click('::-p-text(The sheet)')
  await page.waitForSelector('article')
  await expectText('article', /V.*3 \+ 4/)
})
