import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { launch, serve } from './browser.mjs'
import { ensureBuild, ensureChromium, ensurePackages, ROOT, say } from './lib.mjs'

/** One current picture of each main view, from the demo data, into docs/screenshots/. */
ensurePackages()
ensureChromium()
ensureBuild()

const PORT = 4792
const ADDRESS = `http://127.0.0.1:${PORT}`
const target = join(ROOT, 'docs/screenshots')
mkdirSync(target, { recursive: true })
await serve(PORT)
const browser = await launch()

async function page(theme, size = { width: 1280, height: 800 }) {
  const context = await browser.newContext({ viewport: size, locale: 'en-GB', reducedMotion: 'reduce' })
  await context.addInitScript(
    (name) => localStorage.setItem('ornate-phasor:preferences', JSON.stringify({ theme: name })),
    theme,
  )
  return context.newPage()
}

async function openDemo(view, title = 'Lamp circuit') {
  await view.goto(ADDRESS)
  await view.getByRole('link', { name: `Open ${title}` }).click()
  await view.locator('.row .katex').first().waitFor()
  await view.waitForTimeout(700)
}

async function shot(view, name) {
  await view.waitForTimeout(300)
  await view.screenshot({ path: join(target, `${name}.png`) })
  say(`docs/screenshots/${name}.png`)
}

const day = await page('day')
await day.goto(ADDRESS)
await day.locator('.card').first().waitFor()
await shot(day, 'shelf')
await openDemo(day)
await day.mouse.move(640, 20)
await shot(day, 'folio-day')
await day.locator('[data-line="6"] .opener').click()
await day.keyboard.press('End')
await day.keyboard.type(' + 1/2k')
await shot(day, 'line-being-edited')
await day.keyboard.press('Escape')
await day.locator('[data-line="27"] .opener').scrollIntoViewIfNeeded()
await day.getByRole('button', { name: '( ) grouping' }).click()
await day.locator('[data-line="25"] .badge').first().hover()
await shot(day, 'how-lines-are-read')

const night = await page('night')
await openDemo(night)
await night.mouse.move(640, 20)
await shot(night, 'folio-night')

const narrow = await page('day', { width: 390, height: 844 })
await openDemo(narrow)
await shot(narrow, 'folio-narrow')
await narrow.getByRole('button', { name: 'Plates' }).click()
await shot(narrow, 'plane-narrow')

await browser.close()
process.exit(0)
