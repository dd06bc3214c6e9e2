import { dampingGrid, sampledGrid } from './dampingGrid'

const view = { re: -5, im: 0, perPixel: 0.04 }
const size = { width: 500, height: 400 }

test('rays of equal damping: the cosine of their angle to the negative axis', () => {
  const rays = dampingGrid(view, size, 60).filter(({ points }) => points.length === 2)
  expect(rays).toHaveLength(18)
  for (const { points, label } of rays) {
    const [, { re, im }] = points as readonly [unknown, { re: number; im: number }]
    const ratio = -re / Math.hypot(re, im)
    expect(Math.abs(ratio * 10 - Math.round(ratio * 10))).toBeLessThan(1e-9)
    if (label !== '') expect(ratio).toBeCloseTo(Number(label), 9)
  }
})

test('half circles of equal natural frequency, each where its label says', () => {
  const rings = dampingGrid(view, size, 60).filter(({ points }) => points.length > 2)
  expect(rings.length).toBeGreaterThan(1)
  for (const { points, label } of rings)
    for (const { re, im } of points) {
      expect(Math.hypot(re, im)).toBeCloseTo(Number(label), 9)
      expect(re).toBeLessThan(1e-9)
    }
})

test('labels stand in the picture', () => {
  for (const { label, at } of dampingGrid(view, size, 60).filter((line) => line.label !== '' && line.at.im !== 0)) {
    expect([label, at.re >= -15 && at.re <= 5, at.im >= -8 && at.im <= 8]).toEqual([label, true, true])
  }
})

test('of samples the lines are those of s by z = e^s', () => {
  for (const { points, label } of sampledGrid()) {
    for (const { re, im } of points) {
      expect(Math.hypot(re, im)).toBeLessThanOrEqual(1 + 1e-12)
      const s = { re: Math.log(Math.hypot(re, im)), im: Math.atan2(im, re) }
      const size = Math.hypot(s.re, s.im)
      if (/π$/.test(label)) expect(size).toBeCloseTo((label === 'π' ? 1 : Number(label.slice(0, -1))) * Math.PI, 9)
      else if (label !== '' && size > 1e-9) expect(-s.re / size).toBeCloseTo(Number(label), 9)
    }
  }
})
