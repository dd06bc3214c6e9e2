import { edgePoint, polarGrid } from './polarGrid'

const size = { width: 400, height: 300 }

test('rings at nice radii as far as the corners, rays every 30°', () => {
  const grid = polarGrid({ re: 0, im: 0, perPixel: 0.01 }, size, 'deg', 62)
  expect(grid.centre).toEqual({ x: 200, y: 150 })
  expect(grid.rings.map((r) => r.radius)).toEqual([1, 2])
  expect(grid.rings[0]!.pixels).toBeCloseTo(100, 10)
  expect(grid.rays.map((r) => r.label)).toEqual([
    '0°', '30°', '60°', '90°', '120°', '150°', '180°', '−150°', '−120°', '−90°', '−60°', '−30°',
  ]) // prettier-ignore
})

test('in radians rays are multiples of π', () => {
  const labels = polarGrid({ re: 0, im: 0, perPixel: 0.01 }, size, 'rad', 62).rays.map((r) => r.label)
  expect(labels.slice(0, 4)).toEqual(['0', 'π/6', 'π/3', 'π/2'])
  expect(labels[6]).toBe('π')
})

test('far from the origin only the rings in sight are made', () => {
  const { rings } = polarGrid({ re: 100, im: 0, perPixel: 0.01 }, size, 'deg', 62)
  expect(rings[0]!.radius).toBeGreaterThanOrEqual(98)
  expect(rings.at(-1)!.radius).toBeLessThanOrEqual(102.1)
  expect(rings.length).toBeLessThan(10)
})

test.each([
  [
    { x: 200, y: 150 },
    { x: 1000, y: 150 },
    { x: 390, y: 150 },
  ],
  [
    { x: 200, y: 150 },
    { x: 200, y: -900 },
    { x: 200, y: 10 },
  ],
  [{ x: -50, y: 150 }, { x: -900, y: 150 }, null],
])('a ray from %j to %j meets the edge at %j', (centre, to, expected) =>
  expect(edgePoint(centre, to, size, 10)).toEqual(expected),
)
