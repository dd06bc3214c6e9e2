import { launch, serve } from '../scripts/browser.mjs'

/**
 * Speed of the page, measured in Chromium on the built application: how fast a
 * folio of 500 lines opens, and how long its frames are while one scrolls and
 * types. Frames are times between two animation frames, in milliseconds.
 */

const LINES = Array.from({ length: 500 }, (_, k) => {
  if (k % 10 === 0) return `V_${k} = ${k + 1}∠${k % 90}°`
  if (k % 10 === 5) return `# remark ${k}`
  return `Z_${k} = ${k} + 1/(1/(47 + ${k}j) + 1/(j*0.0${k + 1}))  # a part`
})

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN
const share = (values, part) => [...values].sort((a, b) => a - b)[Math.floor(values.length * part)] ?? NaN

/** Records the frames while something is done. */
async function frames(page, action) {
  await page.evaluate(() => {
    globalThis.benchFrames = []
    let last = performance.now()
    const id = (globalThis.benchRun = (globalThis.benchRun ?? 0) + 1)
    const tick = (time) => {
      if (globalThis.benchRun !== id) return
      globalThis.benchFrames.push(time - last)
      last = time
      requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
  })
  await action()
  const found = await page.evaluate(() => {
    globalThis.benchRun += 1
    return globalThis.benchFrames.slice(2)
  })
  return {
    p95: share(found, 0.95),
    worst: Math.max(...found),
    long: found.filter((f) => f > 50).length,
    count: found.length,
  }
}

export async function benchPage() {
  const { address, stop } = await serve(4795)
  const browser = await launch()
  const measured = []
  const add = (name, value) => measured.push({ name, value, unit: 'ms', peer: null, ratio: null })
  try {
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
  } finally {
    await browser.close()
    stop()
  }
  return measured
}
