import { folioOf, frames } from './measuring.mjs'

/** A loop of the fifth order under the hand for five seconds, on each sort of picture that control has. */

const LINES = [
  'unknown s, z',
  'k = 1.00',
  'zeta = 0.3',
  'P = 200/(s*(s + 2)*(s + 9)*(s^2 + 2*zeta*s + 25))',
  'L = k*P',
  'T = closed_loop(L)',
  't = 0 to 30 step 0.05',
  'y = step_response(T, t)',
  'r = root_locus(P, k)',
  'L_z = k*sampled(P, 0.1, z)',
  'p_z = poles(closed_loop(L_z))',
  'M = margins(L)',
  'F = step_figures(T)',
]
const [GAIN, LOOP, STEP, SAMPLES] = [2, 5, 8, 11]
const SECONDS = 5

export async function benchControl(page, address, add, report) {
  const id = await folioOf(page, address, 'Fifth order', LINES)
  const open = async () => {
    await page.goto(`${address}/folio/${id}`)
    await page.locator(`[data-line="${SAMPLES}"] .value`).first().waitFor()
    await page.waitForTimeout(800)
  }
  const focus = (line) => page.locator(`[data-line="${line}"] .opener`).focus()
  const settings = () => page.getByRole('button', { name: 'Plate', exact: true }).click()

  await open()
  await focus(STEP)
  await page.keyboard.press('Alt+,')
  await page.waitForTimeout(600)
  await slide(page, 'step response with its figures', add, report)
  await settings()
  await page.getByRole('combobox', { name: 'Family' }).press('ArrowDown')
  await page.getByRole('option', { name: /^zeta/ }).click()
  await settings()
  await page.getByRole('list', { name: 'Members of the family' }).waitFor()
  await slide(page, 'the same as a family of three', add, report)

  await focus(LOOP)
  await page.keyboard.press('Alt+,')
  await page.waitForTimeout(600)
  await settings()
  await page.getByLabel('straight lines and corners').check()
  await settings()
  await slide(page, 'frequency response with margins and straight lines', add, report)

  await focus(LOOP)
  await page.keyboard.press('Alt+-')
  await page.waitForTimeout(600)
  await slide(page, 'locus about −1', add, report)

  await focus(SAMPLES - 1)
  await page.keyboard.press('Alt+,')
  await page.waitForTimeout(600)
  await slide(page, 'frequency response of its samples', add, report)

  // The first plate has the poles of the samples and the root locus.
  await page.getByRole('button', { name: /^Plate 1:/ }).click()
  await page.waitForTimeout(600)
  await slide(page, 'root locus and the poles of the samples', add, report)
  await dragGain(page, add, report)
}

/** Moves the gain along its scale for five seconds, to and fro. */
async function slide(page, name, add, report) {
  await page.locator(`[data-line="${GAIN}"] .opener`).focus()
  await page.keyboard.press('Control+F7')
  const scale = page.getByRole('region', { name: /^Vernier/ })
  const track = await scale.locator('.v-slider-track').boundingBox()
  const thumb = await scale.locator('.v-slider-thumb').boundingBox()
  const y = thumb.y + thumb.height / 2
  await page.mouse.move(thumb.x + thumb.width / 2, y)
  await page.mouse.down()
  const at = (k) => track.x + track.width * (0.45 + 0.35 * Math.sin(k / 40))
  await under(page, `vernier: ${name}`, (k) => page.mouse.move(at(k), y), add, report)
  await page.mouse.up()
  await page.keyboard.press('Escape')
  await page.waitForTimeout(1200)
}

/** Drags a pole along its branch. */
async function dragGain(page, add, report) {
  const canvas = page.locator('.canvas-host canvas')
  await canvas.focus()
  await page.keyboard.press('Tab')
  // On to the pole of the pair near the axis.
  const stop = page.locator('.stop')
  for (let k = 0; k < 20 && !/^r\[4\]/.test((await stop.getAttribute('aria-label')) ?? ''); k += 1)
    await page.keyboard.press('PageDown')
  const tip = await stop.boundingBox()
  const [x, y] = [tip.x + tip.width / 2, tip.y + tip.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await under(page, 'a pole dragged along its branch', (k) => page.mouse.move(x + 30 * Math.sin(k / 40), y + 4 * Math.sin(k / 23)), add, report) // prettier-ignore
  await page.mouse.up()
  await page.waitForTimeout(1200)
}

/** Frames over the five seconds, and how often what depends on the gain came anew meanwhile. */
async function under(page, name, move, add, report) {
  await page.evaluate((line) => {
    const row = document.querySelector(`[data-line="${line}"]`)
    globalThis.benchTold = 0
    globalThis.benchSeen = new MutationObserver(() => (globalThis.benchTold += 1))
    globalThis.benchSeen.observe(row, { subtree: true, childList: true, characterData: true })
  }, GAIN)
  const started = Date.now()
  const measured = await frames(page, async () => {
    for (let k = 0; Date.now() - started < 1000 * SECONDS; k += 1) {
      await move(k)
      await page.waitForTimeout(10)
    }
  })
  const told = await page.evaluate(() => {
    globalThis.benchSeen.disconnect()
    return globalThis.benchTold
  })
  report(`fifth order, ${name}, over ${SECONDS} s (aim: 16.7 ms)`, measured)
  add(`fifth order, ${name}: new values in the ledger`, (1000 * told) / (Date.now() - started), 'a second')
}
