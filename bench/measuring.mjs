/** What measurements of the page share: frames, and folios to measure. Frames are times between two animation frames, in milliseconds. */

export const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? NaN
export const share = (values, part) => [...values].sort((a, b) => a - b)[Math.floor(values.length * part)] ?? NaN

/** Records the frames while something is done. */
export async function frames(page, action) {
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

export async function folioOf(page, address, title, lines) {
  const response = await page.request.post(`${address}/api/folios`, {
    data: { title, conventions: {}, lines: lines.map((source) => ({ source })) },
  })
  return (await response.json()).id
}
