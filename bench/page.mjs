import { launch, serve } from '../scripts/browser.mjs'
import { benchControl } from './control.mjs'
import { folioOf, frames, median } from './measuring.mjs'

/**
 * Speed of the page, measured in Chromium on the built application: how fast a
 * folio of 500 lines opens, and how long its frames are while one scrolls and
 * types.
 */

const LINES = Array.from({ length: 500 }, (_, k) => {
  if (k % 10 === 0) return `V_${k} = ${k + 1}∠${k % 90}°`
  if (k % 10 === 5) return `# remark ${k}`
  return `Z_${k} = ${k} + 1/(1/(47 + ${k}j) + 1/(j*0.0${k + 1}))  # a part`
})

export async function benchPage() {
  const { address, stop } = await serve(4795)
  const browser = await launch()
  const measured = []
  const add = (name, value, unit = 'ms') => measured.push({ name, value, unit, peer: null, ratio: null })
  try {
    await benchFirst(browser, address, add)
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const response = await page.request.post(`${address}/api/folios`, {
      data: { title: 'Long', conventions: {}, lines: LINES.map((source) => ({ source })) },
    })
    const { id } = await response.json()
    const opens = []
    for (let k = 0; k < 6; k += 1) {
      const start = Date.now()
      await page.goto(`${address}/folio/${id}`)
      await page.locator('[data-line="2"] .rectangular .value').waitFor()
      // The first visit also fills the browser's caches.
      if (k > 0) opens.push(Date.now() - start)
    }
    add('open a 500-line folio, from the address to its results (aim: under 1500 ms)', median(opens))
    await page.waitForTimeout(2000)
    const report = (name, { p95, worst, long, count }) => {
      add(`${name}: 95th percentile of ${count} frames`, p95)
      add(`${name}: longest frame, ${long} over 50 ms (aim: none)`, worst)
    }
    await page.mouse.move(400, 400)
    report(
      'scroll through it',
      await frames(page, async () => {
        for (let k = 0; k < 150; k += 1) {
          await page.mouse.wheel(0, 150)
          await page.waitForTimeout(16)
        }
      }),
    )
    await page.evaluate(() => document.querySelector('.ledger-column').scrollTo(0, 0))
    await page.waitForTimeout(500)
    await page.locator('[data-line="3"] .opener').click()
    await page.locator('.cm-content').waitFor()
    await page.keyboard.press('Control+A')
    report(
      'type an entry in it',
      await frames(page, () => page.keyboard.type('Z_2 = 3*(4 + 5j)/sqrt(2) + V_0', { delay: 60 })),
    )
    await benchDrag(page, address, report)
    await benchLocus(page, address, add, report)
    await benchControl(page, address, add, report)
  } finally {
    await browser.close()
    stop()
  }
  return measured
}

/** The first visit of a browser that has nothing yet: what it fetches until it shows something, and when that is. */
async function benchFirst(browser, address, add) {
  const { folios } = await (await fetch(`${address}/api/folios?find=Lamp+circuit`)).json()
  const pages = [
    ['the shelf', '/', '.card', 180],
    ['a folio', `/folio/${folios[0].id}`, '[data-line="2"] .rectangular .value', 350],
  ]
  for (const [name, path, shown, aim] of pages) {
    const visits = []
    for (let k = 0; k < 3; k += 1) {
      const context = await browser.newContext()
      const page = await context.newPage()
      const sizes = []
      page.on('response', async (answer) => {
        // Workers are counted apart: they are not waited for.
        if (!/\.js$/.test(answer.url()) || /worker/.test(answer.url())) return
        sizes.push(Number((await answer.allHeaders())['content-length'] ?? 0))
      })
      const start = Date.now()
      await page.goto(address + path)
      await page.locator(shown).first().waitFor()
      const found = Date.now() - start
      const painted = await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0]?.startTime)
      visits.push({ found, painted, size: sizes.reduce((sum, size) => sum + size, 0) / 1000 })
      await context.close()
    }
    const of = (what) => median(visits.map((visit) => visit[what]))
    add(`scripts of ${name} until it shows something, as sent (aim: under ${aim} kB)`, of('size'), 'kB')
    add(`first paint of ${name}`, of('painted'))
    add(`${name === 'the shelf' ? 'first card' : 'first result'} of ${name}, nothing cached`, of('found'))
  }
}

/** Drags a value that 100 lines depend on, with 60 values on the plane. */
async function benchDrag(page, address, report) {
  const lines = [
    'Z = 3 + 4j',
    ...Array.from({ length: 59 }, (_, k) => `W_${k} = Z*${k + 2}/20 + ${k % 7}j`),
    ...Array.from({ length: 41 }, (_, k) => `|Z + ${k}|`),
  ]
  const id = await folioOf(page, address, 'Drag', lines)
  await page.goto(`${address}/folio/${id}`)
  const canvas = page.locator('.canvas-host canvas')
  await page.getByRole('img', { name: /with 60 values/ }).waitFor()
  await canvas.focus()
  await page.keyboard.press('Tab')
  const tip = await page.locator('.stop').boundingBox()
  const [x, y] = [tip.x + tip.width / 2, tip.y + tip.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + 8, y)
  report(
    'drag a value, 60 values on the plane, 100 lines follow (aim: 95th percentile under 20 ms)',
    await frames(page, async () => {
      for (let k = 0; k < 150; k += 1) {
        await page.mouse.move(x + 60 * Math.sin(k / 12), y + 40 * Math.sin(k / 17))
        await page.waitForTimeout(14)
      }
    }),
  )
  await page.mouse.up()
}

/** Draws a locus of 100 000 points, and pans it. */
async function benchLocus(page, address, add, report) {
  const lines = ['w = 1 to 100000', 'H = 100/(1 + j*w/1000) + 2*e^(j*w/50)*(1 + w/1e5)']
  const id = await folioOf(page, address, 'Locus', lines)
  await page.goto(`${address}/folio/${id}`)
  await page.getByRole('img', { name: /locus of H, 100000 points/ }).waitFor()
  await page.waitForTimeout(1000)
  const canvas = page.locator('.canvas-host canvas')
  await canvas.focus()
  const draws = []
  for (let k = 0; k < 8; k += 1) {
    // A zoom draws it anew: timed from the key to the frame after it.
    draws.push(
      await page.evaluate(
        (key) =>
          new Promise((done) => {
            const start = performance.now()
            document
              .querySelector('.canvas-host canvas')
              .dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
            requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - start)))
          }),
        k % 2 === 0 ? '+' : '-',
      ),
    )
  }
  add('draw a locus of 100 000 points anew, with its frame (aim: under 150 ms)', median(draws))
  const box = await canvas.boundingBox()
  await page.mouse.move(box.x + 60, box.y + 60)
  await page.mouse.down()
  report(
    'pan a locus of 100 000 points',
    await frames(page, async () => {
      for (let k = 0; k < 100; k += 1) {
        await page.mouse.move(box.x + 60 + k, box.y + 60 + k / 2)
        await page.waitForTimeout(14)
      }
    }),
  )
  await page.mouse.up()
}
