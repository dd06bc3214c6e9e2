import * as fc from 'fast-check'
import { placeLabels } from './labels'
import type { Box } from './labels'
import { gripAt, markAt } from './hit'
import { assignSlots, dashOf, hueOf, inkOf } from './scene'
import type { PlaneMark } from './scene'
import { niceStep, ticksBetween } from './ticks'
import { polarGrid } from './polarGrid'
import { boundsOf, extentOf, fitRange, fitView, panBy, toPixel, toPlane, zoomAt } from './view'
import { drawnName } from './name'

const size = { width: 480, height: 600 }
const coordinate = fc.double({ min: -1e6, max: 1e6, noNaN: true })
const point = fc.record({ re: coordinate, im: coordinate })

describe('the view of a plane', () => {
  test('pixels and points undo each other', () => {
    fc.assert(
      fc.property(point, point, (centre, z) => {
        const view = { ...centre, perPixel: 0.7 }
        const back = toPlane(view, size, toPixel(view, size, z))
        expect(back.re).toBeCloseTo(z.re, 4)
        expect(back.im).toBeCloseTo(z.im, 4)
      }),
    )
  })
  test('fitting shows the origin and every point, with one scale for both axes', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 12 }), (points) => {
        const view = fitView(points, size)
        for (const z of [...points, { re: 0, im: 0 }]) {
          const { x, y } = toPixel(view, size, z)
          expect(x).toBeGreaterThan(0)
          expect(x).toBeLessThan(size.width)
          expect(y).toBeGreaterThan(0)
          expect(y).toBeLessThan(size.height)
        }
        const { left, right, bottom, top } = boundsOf(view, size)
        expect((right - left) / size.width / ((top - bottom) / size.height)).toBeCloseTo(1, 9)
      }),
    )
  })
  test('with nothing to show there still is a view', () => {
    expect(fitView([], size).perPixel).toBeGreaterThan(0)
    expect(fitView([{ re: Infinity, im: NaN }], size).perPixel).toBeGreaterThan(0)
  })
  test('zooming leaves the point under the pointer where it is', () => {
    fc.assert(
      fc.property(point, fc.double({ min: 0.1, max: 10, noNaN: true }), (centre, factor) => {
        const view = { ...centre, perPixel: 0.3 }
        const pixel = { x: 77, y: 410 }
        const before = toPlane(view, size, pixel)
        const after = toPlane(zoomAt(view, size, pixel, factor, 1), size, pixel)
        expect(Math.abs(after.re - before.re)).toBeLessThan(1e-8)
        expect(Math.abs(after.im - before.im)).toBeLessThan(1e-8)
      }),
    )
  })
  test('panning moves the picture with the hand', () => {
    const view = { re: 0, im: 0, perPixel: 0.5 }
    const moved = panBy(view, 10, -20)
    expect(toPixel(moved, size, { re: 0, im: 0 })).toEqual({ x: 250, y: 280 })
  })
})

describe('ticks', () => {
  test.each([
    [0.7, 1],
    [1, 1],
    [1.2, 2],
    [3, 5],
    [7, 10],
    [0.0012, 0.002],
    [3e7, 5e7],
    [0, 1],
  ])('the step at or above %d is %d', (least, step) => expect(niceStep(least)).toBe(step))
  test('ticks are multiples of the step, without rounding creep', () => {
    expect(ticksBetween(-0.35, 0.41, 0.1)).toEqual([-0.3, -0.2, -0.1, 0, 0.1, 0.2, 0.3, 0.4].map((t) => t + 0))
    expect(ticksBetween(0, 1e9, 1)).toEqual([])
  })
})

describe('labels', () => {
  test('stand clear of one another, of arrows and of the edge', () => {
    const origin = { x: 240, y: 300 }
    const tips = Array.from({ length: 12 }, (_, k) => {
      const angle = (k * Math.PI) / 6
      return { x: 240 + 180 * Math.cos(angle), y: 300 + 180 * Math.sin(angle) }
    })
    const requests = tips.map((anchor, k) => ({
      id: String(k),
      anchor,
      width: 40,
      height: 20,
      away: { x: anchor.x - origin.x, y: anchor.y - origin.y },
    }))
    const arrows = tips.map((to) => ({ from: origin, to }))
    const placed = placeLabels(requests, arrows, tips, size)
    expect(placed).toHaveLength(12)
    const boxes = placed.map(({ x, y }) => ({ left: x, top: y, right: x + 40, bottom: y + 20 }))
    boxes.forEach((a, i) => {
      expect(a.left).toBeGreaterThanOrEqual(0)
      expect(a.right).toBeLessThanOrEqual(size.width)
      for (const arrow of arrows) expect(crosses(a, arrow)).toBe(false)
      boxes.slice(i + 1).forEach((b) => {
        expect(a.right <= b.left || b.right <= a.left || a.bottom <= b.top || b.bottom <= a.top).toBe(true)
      })
    })
  })
  test('keep off boxes that are taken', () => {
    const request = { id: 'a', anchor: { x: 100, y: 100 }, width: 30, height: 20, away: { x: 1, y: 0 } }
    const taken = { left: 105, right: 160, top: 80, bottom: 120 }
    const [label] = placeLabels([request], [], [], size, [taken])
    expect(label!.x + 30 <= 105 || label!.y + 20 <= 80 || label!.y >= 120).toBe(true)
  })
})

interface Segment {
  readonly from: { readonly x: number; readonly y: number }
  readonly to: { readonly x: number; readonly y: number }
}

/** What is left of a segment within a box (Y.-D. Liang and B. A. Barsky, 1984): another way than the labels go. */
function crosses(box: Box, { from, to }: Segment): boolean {
  let [first, last] = [0, 1]
  const edges = [
    [from.x - to.x, from.x - box.left],
    [to.x - from.x, box.right - from.x],
    [from.y - to.y, from.y - box.top],
    [to.y - from.y, box.bottom - from.y],
  ] as const
  for (const [towards, room] of edges) {
    if (towards === 0 && room < 0) return false
    if (towards < 0) first = Math.max(first, room / towards)
    if (towards > 0) last = Math.min(last, room / towards)
  }
  return first <= last
}

test('a segment meets a box or not', () => {
  const box = { left: 0, top: 0, right: 10, bottom: 10 }
  expect(crosses(box, { from: { x: -5, y: 5 }, to: { x: 15, y: 5 } })).toBe(true)
  expect(crosses(box, { from: { x: -5, y: -5 }, to: { x: -1, y: 20 } })).toBe(false)
  expect(crosses(box, { from: { x: 4, y: 4 }, to: { x: 5, y: 5 } })).toBe(true)
  expect(crosses(box, { from: { x: 20, y: 0 }, to: { x: 0, y: 30 } })).toBe(false)
})

describe('slots', () => {
  test('stay while a value stays, and are freed when it leaves', () => {
    const first = assignSlots(['a', 'b', 'c'], new Map())
    expect([...first]).toEqual([['a', 0], ['b', 1], ['c', 2]]) // prettier-ignore
    const second = assignSlots(['c', 'd', 'a'], first)
    expect(second.get('a')).toBe(0)
    expect(second.get('c')).toBe(2)
    expect(second.get('d')).toBe(1)
  })
  test('beyond eight values a hue comes again with another line style', () => {
    expect(hueOf(8)).toBe(hueOf(0))
    expect(dashOf(8)).not.toEqual(dashOf(0))
  })
})

describe('what is under the pointer', () => {
  const view = { re: 0, im: 0, perPixel: 0.1 }
  const mark = (id: string, re: number, im: number, draggable: boolean): PlaneMark => ({
    id,
    label: id,
    line: id,
    role: 'arrow',
    ink: inkOf(0),
    labelled: true,
    draggable,
    re,
    im,
    rectangular: '',
    polar: '',
  })
  const marks = [mark('a', 10, 0, false), mark('b', 10.5, 0, true)]
  test('the nearest tip, then an arrow', () => {
    expect(markAt(marks, view, size, toPixel(view, size, { re: 10, im: 0.2 }), 14)!.id).toBe('a')
    expect(markAt(marks, view, size, toPixel(view, size, { re: 4, im: 0.2 }), 14)).not.toBeNull()
    expect(markAt(marks, view, size, toPixel(view, size, { re: 4, im: 5 }), 14)).toBeNull()
  })
  test('only a tip that can be dragged is gripped', () => {
    expect(gripAt(marks, view, size, toPixel(view, size, { re: 10, im: 0 }), 14)!.id).toBe('b')
    expect(gripAt(marks.slice(0, 1), view, size, toPixel(view, size, { re: 10, im: 0 }), 14)).toBeNull()
  })
})

test('a drawn name is a base with what stands below it', () => {
  expect(drawnName('I_lamp')).toEqual({ base: 'I', below: 'lamp' })
  expect(drawnName('Z1')).toEqual({ base: 'Z', below: '1' })
  expect(drawnName('omega_0')).toEqual({ base: 'ω', below: '0' })
  expect(drawnName('V')).toEqual({ base: 'V', below: '' })
})

describe('however far one zooms', () => {
  const canvas = { width: 520, height: 480 }
  const extent = fc.double({ min: -300, max: 300, noNaN: true }).map((p) => 10 ** p)
  test('the picture ends where there is nothing more to see, and its grid stays small', () => {
    fc.assert(
      fc.property(extent, fc.constantFrom(1.25, 0.8), fc.nat(520), fc.nat(480), (size, factor, x, y) => {
        const values = [{ re: size, im: -size / 3 }]
        let view = fitView(values, canvas)
        for (let k = 0; k < 250; k += 1) view = zoomAt(view, canvas, { x, y }, factor, extentOf(values))
        for (let k = 0; k < 40; k += 1) view = panBy(view, 100, -70)
        const { left, right, bottom, top } = boundsOf(view, canvas)
        for (const edge of [left, right, bottom, top, view.perPixel]) expect(Number.isFinite(edge)).toBe(true)
        // Neighbouring pixels are different points of the plane.
        expect(view.re + view.perPixel).toBeGreaterThan(view.re)
        expect(view.im + view.perPixel).toBeGreaterThan(view.im)
        const step = niceStep(60 * view.perPixel)
        expect(ticksBetween(left, right, step).length).toBeLessThan(20)
        expect(polarGrid(view, canvas, 'deg', 60).rings.length).toBeLessThanOrEqual(60)
      }),
    )
  })
  test('ranges set by number, however narrow or far away, are shown within what doubles can tell apart', () => {
    const anywhere = fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e300, max: 1e300 })
    fc.assert(
      fc.property(anywhere, anywhere, fc.constantFrom(0, 1e-320, 1e-12, 1, 1e12), (re, im, width) => {
        const view = fitRange({ left: re, right: re + width, bottom: im, top: im + width }, canvas)
        expect(view.re + 2 * view.perPixel).toBeGreaterThan(view.re)
        expect(view.im + 2 * view.perPixel).toBeGreaterThan(view.im)
        const { left, right } = boundsOf(view, canvas)
        expect(ticksBetween(left, right, niceStep(60 * view.perPixel)).length).toBeLessThan(20)
      }),
    )
  })
  test('ticks beyond the whole numbers of doubles are none, not endless', () => {
    expect(ticksBetween(1e17, 1e17 + 64, 1)).toEqual([])
    expect(ticksBetween(-1e300, 1e300, 1)).toEqual([])
  })
})
