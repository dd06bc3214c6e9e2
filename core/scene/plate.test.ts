import * as fc from 'fast-check'
import { FolioEvaluator } from '../evaluate/folio'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { lineView } from '../views/lineView'
import { linksOf, termsOf } from './chain'
import { circlesText, readCircles } from './circles'
import { constrained, nudged } from './drag'
import type { Drawn } from './drawn'
import { placeLabels } from './labels'
import { chainMarks, marksOf } from './marks'
import { measure } from './measure'
import { inkOf } from './scene'
import { fitRange, boundsOf } from './view'
import { NO_UNIT } from './unitScales'
import { drawnName } from './name'

const finite = fc.double({ min: -1e6, max: 1e6, noNaN: true })
const point = fc.record({ re: finite, im: finite })

function evaluated(...sources: string[]) {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(DEFAULT_CONVENTIONS)
  evaluator.setLines(sources.map((source, k) => ({ id: String(k), source })))
  evaluator.update()
  return evaluator
}
function drawn(...sources: string[]): Drawn | null {
  const result = evaluated(...sources).result(String(sources.length - 1))
  return result ? lineView(result, DEFAULT_CONVENTIONS).drawn : null
}

describe('what of a value stands on a plane', () => {
  test('a complex number, with both forms', () => {
    expect(drawn('Z = 3 + 4j')).toEqual({
      role: 'arrow',
      usual: true,
      entries: [{ re: 3, im: 4, index: null, rectangular: '3 + 4j', polar: '5 ∠ 53.13°' }],
    })
  })
  test('a real number only where it is put there by hand', () => {
    expect(drawn('R = 5')).toMatchObject({ usual: false, entries: [{ re: 5, im: 0, rectangular: '5' }] })
  })
  test('two components as one arrow', () => {
    const force = drawn('F = [3, 4]')!
    expect(force.entries).toHaveLength(1)
    expect(force).toMatchObject({
      usual: true,
      entries: [{ re: 3, im: 4, rectangular: '[3, 4]', polar: '5 ∠ 53.13°' }],
    })
  })
  test('every entry of a complex vector', () => {
    expect(drawn('I = [1j, 2, 3∠180°]')!.entries.map((e) => [e.index, e.re, e.im])).toEqual([
      [1, 0, 1],
      [2, 2, 0],
      [3, -3, 0],
    ])
  })
  test('eigenvalues as crosses, real ones, too', () => {
    expect(drawn('p = eigenvalues([[2, 0], [0, 3]])')).toMatchObject({ role: 'cross', usual: true })
  })
  test('what has no place there', () => {
    for (const source of ['[[1, 2], [3, 4]]', 'x = "word"', 't = 30°', 'u = 1/0', 'f(x) = x^2'])
      expect(drawn(source)).toBeNull()
  })
})

describe('a sum tip to tail', () => {
  const terms = (source: string) => {
    const { parsed, evaluated: found } = evaluated('a = 1', 'b = 2j', 'c = 3', source).result('3')!
    return termsOf(parsed.source, found.bound.body)
  }
  test('its terms with their signs, brackets opened', () => {
    expect(terms('d = a - (b - 2c)')).toEqual([
      { source: 'a', negative: false },
      { source: 'b', negative: true },
      { source: '2c', negative: false },
    ])
  })
  test('a product is no sum', () => expect(terms('d = a*b')).toEqual([]))
  test('each begins where the one before ends, and the last ends at the sum', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 1, maxLength: 6 }), (points) => {
        const links = linksOf(points.map((value, k) => ({ label: `t${k}`, value })))
        links.slice(1).forEach((link, k) => expect(link.tail).toEqual(links[k]!.tip))
        expect(links.at(-1)!.tip.re).toBeCloseTo(
          points.reduce((sum, p) => sum + p.re, 0),
          6,
        )
      }),
    )
  })
  test('a first term that is on the plate is not drawn twice', () => {
    const links = linksOf(['a', 'b'].map((label) => ({ label, value: { re: 1, im: 1 } })))
    const texts = () => ({ rectangular: '', polar: '' })
    expect(chainMarks('d', links, inkOf(0), (n) => (n === 'a' ? inkOf(3) : undefined), texts)).toHaveLength(1)
    expect(chainMarks('d', links, inkOf(0), () => undefined, texts)).toHaveLength(2)
  })
})

describe('a value under the hand', () => {
  test('along its ray the angle stays, along its ring the magnitude', () => {
    fc.assert(
      fc.property(point, point, (start, to) => {
        fc.pre(Math.hypot(start.re, start.im) > 1e-3 && Math.hypot(to.re, to.im) > 1e-3)
        const ray = constrained(to, start, 'ray', 1)
        expect(Math.abs(ray.re * start.im - ray.im * start.re)).toBeLessThan(
          1e-9 * (1 + Math.hypot(ray.re, ray.im) * Math.hypot(start.re, start.im)),
        )
        const ring = constrained(to, start, 'ring', 1)
        expect(Math.hypot(ring.re, ring.im)).toBeCloseTo(Math.hypot(start.re, start.im), 5)
        expect(Math.atan2(ring.im, ring.re)).toBeCloseTo(Math.atan2(to.im, to.re), 9)
      }),
    )
  })
  test('in steps it stands on the crossings of the grid', () =>
    expect(constrained({ re: 1.3, im: -0.8 }, { re: 0, im: 0 }, 'steps', 0.5)).toEqual({ re: 1.5, im: -1 }))
  test('arrow keys: a step, a step outwards, a degree', () => {
    expect(nudged({ re: 3, im: 4 }, 1, 0, 'free', 0.1)).toEqual({ re: 3.1, im: 4 })
    const out = nudged({ re: 3, im: 4 }, 0, 1, 'ray', 1)
    expect([out.re, out.im].map((x) => Number(x.toFixed(12)))).toEqual([3.6, 4.8])
    const turned = nudged({ re: 1, im: 0 }, 0, 1, 'ring', 1)
    expect((Math.atan2(turned.im, turned.re) * 180) / Math.PI).toBeCloseTo(1, 12)
  })
})

test('two values measured', () => {
  const found = measure({ re: 3, im: 4 }, { re: -4, im: 3 })
  expect(found.difference).toEqual({ re: -7, im: -1 })
  expect(found.distance).toBeCloseTo(Math.SQRT2 * 5, 14)
  expect(found.ratio!.re).toBeCloseTo(0, 15)
  expect(found.ratio!.im).toBeCloseTo(1, 15)
  expect(found.angle).toBeCloseTo(Math.PI / 2, 15)
  expect(measure({ re: 0, im: 0 }, { re: 1, im: 0 })).toMatchObject({ ratio: null, angle: null })
})

describe('circles as they are written', () => {
  test('radii, and circles about a point', () => {
    expect(readCircles('2; 0.5 at -1, 0')).toEqual([
      { re: 0, im: 0, radius: 2 },
      { re: -1, im: 0, radius: 0.5 },
    ])
    expect(readCircles('')).toEqual([])
    expect(circlesText(readCircles('2; 0.5 at -1, 0')!)).toBe('2; 0.5 at -1, 0')
  })
  test.each(['-1', '0', '2 at 3', '2 at 1, 2, 3', 'x', '1 at 2, y', '1;'.repeat(20)])('%s is refused', (text) =>
    expect(readCircles(text)).toBeNull(),
  )
})

test('a range by number is shown whole, with equal scales', () => {
  fc.assert(
    fc.property(finite, finite, fc.double({ min: 0.1, max: 1e5, noNaN: true }), (left, bottom, wide) => {
      const size = { width: 480, height: 300 }
      const range = { left, right: left + wide, bottom, top: bottom + wide / 2 }
      const shown = boundsOf(fitRange(range, size), size)
      const slack = 1e-6 * wide + 1e-9 * (Math.abs(left) + Math.abs(bottom))
      expect(shown.left).toBeLessThanOrEqual(left + slack)
      expect(shown.right).toBeGreaterThanOrEqual(range.right - slack)
      expect(shown.bottom).toBeLessThanOrEqual(bottom + slack)
      expect(shown.top).toBeGreaterThanOrEqual(range.top - slack)
    }),
  )
})

describe('labels', () => {
  const size = { width: 640, height: 640 }
  const requests = Array.from({ length: 40 }, (_, k) => {
    // Forty tips on a spiral of golden turns.
    const [angle, radius] = [k * 2.399963, 40 + 6.2 * k]
    const anchor = { x: 320 + radius * Math.cos(angle), y: 320 + radius * Math.sin(angle) }
    return { id: String(k), anchor, width: 34, height: 20, away: { x: Math.cos(angle), y: Math.sin(angle) } }
  })
  const arrows = requests.map(({ anchor }) => ({ from: { x: 320, y: 320 }, to: anchor }))
  const tips = requests.map((r) => r.anchor)
  test('of forty values stand clear of one another and inside the picture; those moved far have a leader', () => {
    const placed = placeLabels(requests, arrows, tips, size)
    expect(placed).toHaveLength(40)
    placed.forEach((a, i) => {
      expect(a.x).toBeGreaterThanOrEqual(0)
      expect(a.x + 34).toBeLessThanOrEqual(640)
      for (const b of placed.slice(i + 1))
        expect(a.x + 34 <= b.x || b.x + 34 <= a.x || a.y + 20 <= b.y || b.y + 20 <= a.y).toBe(true)
      const anchor = requests[i]!.anchor
      const far = Math.hypot(a.x + 17 - anchor.x, a.y + 10 - anchor.y)
      if (far > 75) expect(a.leader).not.toBeNull()
    })
  })
  test('keep the place of the picture before while it is about as good', () => {
    const first = placeLabels(requests, arrows, tips, size)
    const moved = requests.map((r, k) => ({
      ...r,
      anchor: { x: r.anchor.x + (k % 3) - 1, y: r.anchor.y + (k % 2) },
      before: first[k]!.place,
    }))
    const anchors = moved.map((r) => r.anchor)
    const again = placeLabels(
      moved,
      anchors.map((to) => ({ from: { x: 320, y: 320 }, to })),
      anchors,
      size,
    )
    const changed = again.filter((label, k) => label.place !== first[k]!.place)
    expect(changed.length).toBeLessThanOrEqual(2)
  })
})

test('an entry has its number below its name', () => {
  expect(drawnName('p[2]')).toEqual({ base: 'p', below: '2' })
  expect(drawnName('I_m[3]')).toEqual({ base: 'I', below: 'm,3' })
})

test('marks of a vector have its dress and each its own name', () => {
  const marks = marksOf([
    {
      line: 'l',
      name: 'p',
      drawn: drawn('p = eigenvalues([[0, 1], [-2, -2]])')!,
      ink: inkOf(4),
      role: undefined,
      labelled: true,
      draggable: true,
      unit: NO_UNIT,
      scale: 1,
    },
  ])
  expect(marks.map((m) => [m.id, m.label, m.role, m.ink.hue, m.draggable])).toEqual([
    ['l.1', 'p[1]', 'cross', 4, false],
    ['l.2', 'p[2]', 'cross', 4, false],
  ])
})
