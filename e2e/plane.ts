import type { Page } from '@playwright/test'
import { expect } from './folio'

/**
 * The middle of where hovering offers to drag a tip: the plane is asked by the
 * pointer, as a student would ask it, not by its code.
 */
export async function findTip(page: Page, name: string): Promise<{ x: number; y: number }> {
  await expect(plane(page)).toHaveAccessibleName(new RegExp(`\\b${name.replace(/[[\]]/g, '\\$&')} `))
  const found = await page.evaluate(async (wanted) => {
    for (let k = 0; k < 3; k += 1) await new Promise((done) => requestAnimationFrame(done))
    const canvas = document.querySelector('.canvas-host canvas')
    if (!canvas) return null
    const box = canvas.getBoundingClientRect()
    const hits: { x: number; y: number }[] = []
    for (let y = 4; y < box.height; y += 6) {
      for (let x = 4; x < box.width; x += 6) {
        const at = { clientX: box.left + x, clientY: box.top + y, bubbles: true, pointerType: 'mouse' }
        canvas.dispatchEvent(new PointerEvent('pointermove', at))
        await Promise.resolve()
        await Promise.resolve()
        const told = document.querySelector('.told')
        const named = told?.querySelector('strong')?.textContent === wanted
        if (named && getComputedStyle(canvas).cursor === 'grab') hits.push({ x: at.clientX, y: at.clientY })
      }
    }
    canvas.dispatchEvent(new PointerEvent('pointerleave'))
    if (hits.length === 0) return null
    const middle = (values: number[]): number => (Math.min(...values) + Math.max(...values)) / 2
    return { x: middle(hits.map((p) => p.x)), y: middle(hits.map((p) => p.y)) }
  }, name)
  if (!found) throw new Error(`no tip of ${name} can be dragged`)
  return found
}

export const plane = (page: Page) => page.locator('.canvas-host canvas')
