import * as fc from 'fast-check'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { ShownSweep } from '#core/scene/curve'
import { inkOf } from '#core/scene/scene'
import type { PlaneMark } from '#core/scene/scene'
import { toPixel } from '#core/scene/view'
import type { PlaneView } from '#core/scene/view'
import { freshPlate } from '#shared/plate'
import type { PlanePlate } from '#shared/plate'
import { DAY } from '~/theme/tokens'
import type { PlaneFrame } from './frame'
import { drawGround, GRID_LEAST, gridStep } from './ground'
import { drawLabels } from './labels'
import { boxOf, drawLoci, isCoarseLocus, locusAt } from './locus'
import { CROWD, drawMarks } from './marks'
import { LETTER, recording } from './recording.testing'
import type { Stroke } from './recording.testing'

const size = { width: 400, height: 400 }
/** Ten pixels to the unit, the origin in the middle. */
const view: PlaneView = { re: 0, im: 0, perPixel: 0.1 }

function frame(more: Partial<PlaneFrame> = {}, plate: Partial<PlanePlate> = {}): PlaneFrame {
  return {
    view, size, marks: [], loci: [], theme: DAY, active: null, picked: [], conventions: DEFAULT_CONVENTIONS,
    places: new Map(), plate: { ...freshPlate('plate-01'), ...plate }, ...more,
  } // prettier-ignore
}

function mark(id: string, re: number, im: number, more: Partial<PlaneMark> = {}): PlaneMark {
  return {
    id, line: id, label: id, role: 'arrow', ink: inkOf(0), labelled: true, draggable: false, rectangular: '', polar: '',
    re, im, ...more,
  } // prettier-ignore
}

function drawn(draw: (ctx: CanvasRenderingContext2D, frame: PlaneFrame) => void, of: PlaneFrame) {
  const { ctx, strokes, texts } = recording()
  draw(ctx, of)
  return { strokes, texts }
}

const reaches = (stroke: Stroke, re: number, im: number, slack = 1): boolean => {
  const { x, y } = toPixel(view, size, { re, im })
  return stroke.points.some(([a, b]) => Math.hypot(a - x, b - y) <= slack)
}

test('an arrow goes from the origin to its value, in its hue', () => {
  const { strokes } = drawn(drawMarks, frame({ marks: [mark('V', 8, 5, { ink: inkOf(2) })] }))
  const shaft = strokes.find((s) => s.what === 'stroke' && reaches(s, 0, 0))
  expect(shaft?.colour).toBe(DAY.hues[2])
  expect(strokes.some((s) => s.what === 'fill' && reaches(s, 8, 5))).toBe(true)
})

test('an arrow of a chain begins where the one before it ends', () => {
  const { strokes } = drawn(drawMarks, frame({ marks: [mark('b', 8, 5, { tail: { re: 3, im: 4 } })] }))
  expect(strokes.some((s) => s.what === 'stroke' && reaches(s, 3, 4))).toBe(true)
  expect(strokes.some((s) => s.what === 'stroke' && reaches(s, 0, 0))).toBe(false)
})

test('every value is drawn where it is, wherever that lies', () => {
  const place = fc.record({ re: fc.integer({ min: -18, max: 18 }), im: fc.integer({ min: -18, max: 18 }) })
  fc.assert(
    fc.property(place, ({ re, im }) => {
      fc.pre(Math.hypot(re, im) > 1)
      const { strokes } = drawn(drawMarks, frame({ marks: [mark('V', re, im)] }))
      expect(strokes.some((s) => reaches(s, re, im))).toBe(true)
    }),
    { numRuns: 60 },
  )
})

test('a pole is a cross and a zero a ring, so that colour is never the only code', () => {
  const pole = drawn(drawMarks, frame({ marks: [mark('p', 5, 5, { role: 'cross' })] }))
  const zero = drawn(drawMarks, frame({ marks: [mark('z', 5, 5, { role: 'ring' })] }))
  const at = toPixel(view, size, { re: 5, im: 5 })
  expect(zero.strokes.some((s) => s.arcs.some((a) => a.x === at.x && a.y === at.y))).toBe(true)
  expect(pole.strokes.every((s) => s.arcs.length === 0)).toBe(true)
  expect(pole.strokes.flatMap((s) => s.points).length).toBeGreaterThanOrEqual(4)
})

test('conjugates stand mirrored at the real axis where the plate asks for them', () => {
  const marks = [mark('V', 6, 9)]
  const mirrored = (of: PlaneFrame): boolean => drawn(drawMarks, of).strokes.some((s) => reaches(s, 6, -9, 8))
  expect(mirrored(frame({ marks }))).toBe(false)
  expect(mirrored(frame({ marks }, { conjugates: true }))).toBe(true)
})

test('components are drawn for the value in focus', () => {
  const lines = (of: PlaneFrame): number =>
    drawn(drawMarks, of).strokes.filter((s) => reaches(s, 6, 0, 2) || reaches(s, 0, 9, 2)).length
  const marks = [mark('V', 6, 9)]
  expect(lines(frame({ marks }))).toBe(0)
  expect(lines(frame({ marks, active: 'V' }))).toBeGreaterThan(0)
  expect(lines(frame({ marks }, { components: true }))).toBeGreaterThan(0)
})

test('only what can be dragged has a grip at its tip', () => {
  const rings = (draggable: boolean): number =>
    drawn(drawMarks, frame({ marks: [mark('V', 6, 9, { draggable })] })).strokes.filter((s) => s.arcs.length > 0).length
  expect(rings(true)).toBeGreaterThan(rings(false))
})

test('a crowd is drawn, every value of it, and quickly', () => {
  const marks = Array.from({ length: CROWD + 30 }, (_, k) => mark(`v${k}`, 15 * Math.cos(k), 15 * Math.sin(k)))
  const { strokes } = drawn(drawMarks, frame({ marks }))
  for (const one of marks) expect(strokes.some((s) => reaches(s, one.re, one.im))).toBe(true)
})

test('a step of the grid is 1, 2 or 5 times a power of ten, and wide enough at every zoom', () => {
  fc.assert(
    fc.property(fc.double({ min: -250, max: 250, noNaN: true }), (power) => {
      const perPixel = 10 ** power
      const step = gridStep({ ...view, perPixel })
      expect([1, 2, 5]).toContain(Number(step.toExponential(10).split('e')[0]))
      expect(step / perPixel).toBeGreaterThanOrEqual(GRID_LEAST * (1 - 1e-12))
      expect(step / perPixel).toBeLessThanOrEqual(2.5 * GRID_LEAST * (1 + 1e-12))
    }),
    { numRuns: 300 },
  )
})

test('the axes carry their names, and no two numbers lie on one another', () => {
  const place = fc.record({
    re: fc.double({ min: -100, max: 100, noNaN: true }),
    im: fc.double({ min: -100, max: 100, noNaN: true }),
    power: fc.double({ min: -3, max: 3, noNaN: true }),
  })
  fc.assert(
    fc.property(place, fc.constantFrom('rectangular' as const, 'polar' as const), ({ re, im, power }, grid) => {
      const { texts } = drawn(drawGround, frame({ view: { re, im, perPixel: 10 ** power } }, { grid }))
      expect(texts.map((t) => t.text)).toEqual(expect.arrayContaining(['Re', 'Im']))
      const boxes = texts.map(({ text, x, y, align }) => {
        const width = [...text].length * LETTER
        const left = align === 'center' ? x - width / 2 : align === 'right' || align === 'end' ? x - width : x
        return { text, left, right: left + width, y }
      })
      for (const [k, a] of boxes.entries())
        for (const b of boxes.slice(k + 1))
          expect([a.text, b.text, Math.abs(a.y - b.y) < 6 && a.left < b.right - 2 && b.left < a.right - 2]).toEqual([
            a.text,
            b.text,
            false,
          ])
    }),
    { numRuns: 80 },
  )
})

test('no number and no name of an axis stands on the tip of a value, whatever the axes are called', () => {
  const spread = fc.double({ min: -21, max: 21, noNaN: true })
  const values = fc.array(fc.tuple(spread, spread), { minLength: 1, maxLength: 4 })
  // On the axes themselves it is most likely.
  const onAxes = fc.array(fc.tuple(spread, fc.constant(0)), { minLength: 1, maxLength: 2 })
  const name = fc.constantFrom('Re', 'Re / A', 'real part of the current, in A')
  fc.assert(
    fc.property(fc.oneof(values, onAxes), name, (points, re) => {
      const marks = points.map(([x, y], k) => mark(`v${k}`, x, y))
      const { texts } = drawn(drawGround, frame({ marks }, { re }))
      const tips = marks.map((m) => toPixel(view, size, m))
      for (const { text, x, y, align } of texts.filter((t) => t.text !== re && t.text !== 'Im')) {
        // A number at the real axis hangs from its place, one at the imaginary axis is centred beside it.
        const width = [...text].length * 7
        const [left, top] = align === 'center' ? [x - width / 2, y] : [x - width, y - 7]
        for (const tip of tips)
          expect(tip.x > left && tip.x < left + width && tip.y > top && tip.y < top + 14).toBe(false)
      }
      const [named] = texts.filter((t) => t.text === re)
      const row = texts.filter((t) => t.text !== re && t.align === 'center' && Math.abs(t.y - (named?.y ?? 0)) < 14)
      for (const number of row)
        expect(number.x + 7 * ([...number.text].length / 2)).toBeLessThanOrEqual((named?.x ?? 0) - re.length * 9)
    }),
    { numRuns: 300 },
  )
})

test('the label of a value stands on no angle of a ray and on no number, wherever the values are', () => {
  const spread = fc.double({ min: -19, max: 19, noNaN: true })
  fc.assert(
    fc.property(fc.array(fc.tuple(spread, spread), { minLength: 1, maxLength: 3 }), (points) => {
      const of = frame({ marks: points.map(([x, y], k) => mark(`turn${k}`, x, y)) }, { grid: 'polar' })
      const ground = drawn(drawGround, of).texts.filter((t) => t.text !== 'Re' && t.text !== 'Im')
      expect(ground.some((t) => t.text === '60°' || t.text === '−120°' || t.text === '150°')).toBe(true)
      for (const label of drawn(drawLabels, of).texts)
        for (const { text, x, y, align } of ground) {
          const width = [...text].length * 7
          // Numbers at the real axis hang, those at the imaginary one and the angles are centred.
          const [left, top] = align === 'right' ? [x - width, y - 7] : [x - width / 2, text.endsWith('°') ? y - 7 : y]
          const [right, bottom] = [left + width, top + 14]
          const over = label.x < right && label.x + [...label.text].length * LETTER > left && label.y - 13 < bottom && label.y > top // prettier-ignore
          expect([label.text, text, over]).toEqual([label.text, text, false])
        }
    }),
    { numRuns: 300 },
  )
})

test('the name of the real axis makes way for an arrow that ends below it', () => {
  const nameOf = (marks: readonly PlaneMark[]) =>
    drawn(drawGround, frame({ marks }, { re: 'Re / A' })).texts.find((t) => t.text === 'Re / A')
  const usual = nameOf([])
  const moved = nameOf([mark('V', 18, 0)])
  expect(moved?.x).toBe(usual?.x)
  expect(Math.abs((moved?.y ?? 0) - (usual?.y ?? 0))).toBeGreaterThan(15)
})

test('without axes there are no numbers; the unit circle is a circle of one unit', () => {
  expect(drawn(drawGround, frame({}, { axes: false })).texts).toEqual([])
  const { strokes } = drawn(drawGround, frame({}, { unitCircle: true }))
  expect(strokes.flatMap((s) => s.arcs)).toContainEqual({ x: 200, y: 200, radius: 10 })
})

test('a polar grid has rings about the origin and rays with their angle', () => {
  const { strokes, texts } = drawn(drawGround, frame({}, { grid: 'polar' }))
  const radii = strokes.flatMap((s) => s.arcs.map((a) => a.radius))
  expect(radii.length).toBeGreaterThan(1)
  expect(texts.map((t) => t.text)).toEqual(expect.arrayContaining(['30°', '150°', '−60°']))
  const radians = drawn(drawGround, frame({ conventions: { ...DEFAULT_CONVENTIONS, angle: 'rad' } }, { grid: 'polar' }))
  expect(radians.texts.map((t) => t.text)).toEqual(expect.arrayContaining(['π/6']))
})

/** A half circle of this many points, from 10 over 10j to −10. */
function halfCircle(count: number): ShownSweep {
  const at = Float64Array.from({ length: count }, (_, k) => (Math.PI * k) / (count - 1))
  const data = { along: 'f', turns: false, decades: false, of: 'number' as const, x: at, re: at.map((t) => 10 * Math.cos(t)), im: at.map((t) => 10 * Math.sin(t)) } // prettier-ignore
  return { line: 'H', name: 'H', ink: inkOf(1), data }
}

test('a locus goes through its points in order, in its hue', () => {
  const { strokes } = drawn(drawLoci, frame({ loci: [halfCircle(101)] }))
  const way = strokes.find((s) => s.what === 'stroke' && s.points.length > 20)
  expect(way?.colour).toBe(DAY.hues[1])
  const [first, last] = [way?.points[0], way?.points.at(-1)]
  expect([first?.[0], first?.[1]]).toEqual([300, 200])
  expect(last?.[0]).toBeCloseTo(100, 6)
})

test('the point of a locus under the pointer is the nearest one, and none beside it', () => {
  const locus = halfCircle(181)
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 180 }), (k) => {
      const at = toPixel(view, size, { re: locus.data.re[k] ?? 0, im: locus.data.im?.[k] ?? 0 })
      expect(locusAt([locus], view, size, at, 8)?.index).toBe(k)
    }),
  )
  expect(locusAt([locus], view, size, { x: 200, y: 200 }, 8)).toBeNull()
  // Between two points that lie far apart the stroke counts.
  const two = halfCircle(3)
  expect(locusAt([two], view, size, { x: 252, y: 148 }, 8)?.index).toBe(1)
})

test('a locus of few long strokes is called coarse, and its box holds every finite point', () => {
  expect(isCoarseLocus(halfCircle(4), view, size)).toBe(true)
  expect(isCoarseLocus(halfCircle(400), view, size)).toBe(false)
  const locus = halfCircle(3)
  const broken = { ...locus, data: { ...locus.data, re: Float64Array.of(1, NaN, -2), im: Float64Array.of(3, 4, -5) } }
  const corners = boxOf(broken)
  expect(Math.min(...corners.map((c) => c.re))).toBe(-2)
  expect(Math.max(...corners.map((c) => c.im))).toBe(3)
  expect(boxOf({ ...locus, data: { ...locus.data, re: Float64Array.of(NaN), im: Float64Array.of(0) } })).toEqual([])
})
