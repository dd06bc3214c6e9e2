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
await day.mouse.move(480, 20)
await shot(day, 'folio-day')
await day.locator('[data-line="6"] .opener').click()
await day.keyboard.press('End')
await day.keyboard.type(' || 5 kohm')
await shot(day, 'line-being-edited')
await day.keyboard.press('Escape')
await day.locator('[data-line="34"] .opener').scrollIntoViewIfNeeded()
await day.getByRole('button', { name: '( ) grouping' }).click()
await day.locator('[data-line="32"] .badge').first().hover()
await shot(day, 'how-lines-are-read')

await day.getByRole('button', { name: '( ) grouping' }).click()
await openDemo(day)
await day.locator('[data-line="14"] .opener').click()
await day.keyboard.press('End')
await day.keyboard.type('  # at the pier')
await day.keyboard.press('Enter')
await day.keyboard.press('Escape')
await day.waitForTimeout(1200)
await day.keyboard.press('Shift+F8')
await day.locator('.names > li').first().waitFor()
await day.keyboard.press('Shift+F9')
await day.locator('.journal').waitFor()
await shot(day, 'index-and-journal')
await day.keyboard.press('Shift+F8')
await day.getByRole('button', { name: 'Close the journal' }).click()
await openDemo(day)
await day.locator('[data-line="7"] .opener').focus()
await day.keyboard.press('Control+F2')
await day.getByRole('list', { name: 'Steps' }).waitFor()
await day.mouse.move(480, 20)
await shot(day, 'working-quotient')
await day.getByText('check mine', { exact: true }).click()
await day
  .getByLabel('My working, line by line')
  .fill('X = |2.4 + 3.1416j|  # ohms, the lamp with its choke\n= 2.4 + 3.1416\n= 5.5416')
await day.getByText('√(a² + b²)').waitFor()
await shot(day, 'working-checked')
await openDemo(day, 'Cable meshes')
await day.locator('[data-line="23"] .opener').scrollIntoViewIfNeeded()
await day.locator('[data-line="14"] .opener').scrollIntoViewIfNeeded()
await day.locator('[data-line="18"] .opener').focus()
await day.getByRole('button', { name: 'How it was solved' }).click()
await day.getByText('Condition number').waitFor()
await day.mouse.move(480, 20)
await shot(day, 'equations')
await openDemo(day, 'Cable meshes')
await day.locator('[data-line="5"] .opener').focus()
await day.keyboard.press('Shift+F7')
await shot(day, 'grid')
await day.locator('[data-line="21"] .opener').scrollIntoViewIfNeeded()
await day.locator('[data-line="21"]').hover()
await day.getByRole('button', { name: 'Actions for line 21' }).click()
await day.getByRole('menuitem', { name: 'Reduce row by row' }).click()
for (let k = 0; k < 3; k += 1) await day.getByRole('button', { name: 'Next step' }).click()
await shot(day, 'reduction-bench')

await openDemo(day, 'Bell buoy')
await day.getByRole('button', { name: /^Plate 1/ }).click()
await day.locator('[data-line="5"] .opener').focus()
await day.keyboard.press('Control+F7')
await day.mouse.move(480, 20)
await shot(day, 'vernier')
await day.keyboard.press('Escape')

await openDemo(day)
await day.keyboard.press('Control+F8')
await day.getByRole('region', { name: 'Runs' }).getByText('1.9097').first().waitFor()
await day.mouse.move(480, 20)
await shot(day, 'runs')
await openDemo(day, 'Fog horn')
await day.locator('.canvas-host canvas').focus()
await day.keyboard.press('Home')
for (let k = 0; k < 20; k += 1) await day.keyboard.press('Shift+ArrowRight')
await day.keyboard.press('Enter')
await day.locator('[data-line="11"] .opener').focus()
await day.mouse.move(480, 20)
await shot(day, 'curves')
await openDemo(day, 'Beacon drive')
await day.getByText('The speed control').scrollIntoViewIfNeeded()
await day.getByRole('button', { name: 'Pin the plate' }).click()
await day.getByRole('button', { name: /^Plate 6/ }).click()
await day.mouse.move(480, 20)
await shot(day, 'root-locus')

await openDemo(day, 'Shore cable measured')
await day.keyboard.press('Control+F9')
const [chooser] = await Promise.all([
  day.waitForEvent('filechooser'),
  day.getByRole('button', { name: 'Open a file' }).click(),
])
await chooser.setFiles(join(ROOT, 'public/samples/shore-cable.csv'))
await day.getByText('49 rows').waitFor()
await shot(day, 'import')
await day.getByRole('button', { name: 'Cancel' }).click()
await day.getByRole('button', { name: 'Exchange', exact: true }).first().click()
await day.getByRole('button', { name: 'The sheet' }).click()
await day.getByText('page 1 of').waitFor()
await shot(day, 'sheet')
await day.getByRole('button', { name: 'Back to the folio' }).click()

const night = await page('night')
await openDemo(night)
await night.mouse.move(480, 20)
await shot(night, 'folio-night')

const narrow = await page('day', { width: 390, height: 844 })
await openDemo(narrow)
await shot(narrow, 'folio-narrow')
await narrow.getByRole('tab', { name: 'Plates' }).click()
await shot(narrow, 'plane-narrow')

await browser.close()
process.exit(0)
