import { drawnOf } from '#core/kinds/kinds'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import { readout } from '#core/kinds/kinds'
import { reckon } from '#core/testing'
import { nearestGain, placesOf } from './rootLocus'
import type { ShownBranches } from './rootLocus'

/** A machine that does other work meanwhile must not decide what comes out. */
const SLOW = { timeLimit: 20_000 }

function picture(l: string, ...more: string[]) {
  const value = reckon(['unknown s', ...more, `root_locus(${l}, 1)`], SLOW).at(-1)!.value!
  const drawn = drawnOf(value, 'cross', DEFAULT_CONVENTIONS, readout(value, DEFAULT_CONVENTIONS))
  if (!drawn?.branches) throw new Error('a locus')
  return drawn.branches
}
const shown = (l: string): ShownBranches => ({ line: 'a', ink: { hue: 0, dash: [], width: 2 }, scale: 1, picture: picture(l) }) // prettier-ignore

test.each([
  // Textbook loci: centroid, angles of the asymptotes, where branches meet and cross.
  ['1/(s*(s + 1)*(s + 2))', -1, [-60, 60, 180], [[-0.42265, 0.3849]], [[1.41421, 6]]],
  [
    '(s + 3)/(s*(s + 2))',
    1,
    [180],
    [
      [-4.73205, 7.4641],
      [-1.26795, 0.5359],
    ],
    [],
  ],
  ['1/(s^2*(s + 4))', -1.33333, [-60, 60, 180], [], []],
  ['1/((s + 1)*(s^2 + 2s + 5))', -1, [-60, 60, 180], [], [[2.64575, 16]]],
] as const)('what is known of %s', (l, centroid, angles, meet, cross) => {
  const found = picture(l)
  expect(found.centroid).toBeCloseTo(centroid, 4)
  expect(found.asymptotes.map((a) => Math.round((a * 180) / Math.PI))).toEqual([...angles])
  expect(found.breakaways.filter(({ at }) => Math.abs(at.im) < 1e-9).map(({ at, k }) => [Number(at.re.toFixed(5)), Number(k.toFixed(4))])).toEqual(meet.map((pair) => [...pair])) // prettier-ignore
  expect(found.crossings.filter(({ at }) => at.im > 0).map(({ at, k }) => [Number(at.im.toFixed(5)), Number(k.toFixed(4))])).toEqual(cross.map((pair) => [...pair])) // prettier-ignore
})

test('branches leave a complex pole at the angle that the rule gives', () => {
  // 180° − (90° from the conjugate) − (angle from 0) for 1/(s(s² + 2s + 2)).
  const { departures } = picture('1/(s*(s^2 + 2s + 2))')
  const up = departures.find(({ at }) => at.im > 0)!
  expect((up.angle * 180) / Math.PI).toBeCloseTo(-45, 6)
})

test('a gain below 0, or a ratio with a negative leading coefficient, follows the other angle rule', () => {
  expect(picture('-1/(s*(s + 1))').asymptotes.map((a) => Math.round((a * 180) / Math.PI))).toEqual([0, 180])
})

test('each point of a branch satisfies 1 + k·L = 0', () => {
  const { branches, k } = picture('(s + 3)/(s*(s + 1)*(s + 2)*(s + 4))')
  for (const { re, im } of branches)
    for (let n = 1; n < k.length; n += 13) {
      const s = { re: re[n]!, im: im[n]! }
      const times = (a: typeof s, b: typeof s) => ({ re: a.re * b.re - a.im * b.im, im: a.re * b.im + a.im * b.re })
      const plus = (x: number) => ({ re: s.re + x, im: s.im })
      const d = times(times(s, plus(1)), times(plus(2), plus(4)))
      const total = Math.hypot(d.re + k[n]! * plus(3).re, d.im + k[n]! * s.im)
      expect(total / (Math.hypot(d.re, d.im) + k[n]! * Math.hypot(plus(3).re, s.im))).toBeLessThan(1e-6)
    }
})

test('the gain of the nearest point is found between the points that were reckoned', () => {
  const found = picture('1/(s*(s + 2))')
  expect(nearestGain(found, { re: -1.01, im: 2 }, false)).toBeCloseTo(5, 1)
  expect(nearestGain(found, { re: -1.5, im: 0.02 }, false)).toBeCloseTo(0.75, 1)
  // On the real axis to the right only gains below 0 have roots.
  expect(nearestGain(found, { re: 1, im: 0 }, false)).toBeGreaterThanOrEqual(0)
  expect(nearestGain(found, { re: 1, im: 0 }, true)).toBeCloseTo(-3, 1)
})

test('what is to be in sight are its poles, zeros, meetings and crossings', () => {
  const places = placesOf(shown('(s + 6)/(s*(s + 1)*(s + 2))'))
  for (const re of [0, -1, -2, -6]) expect(places.some((z) => Math.abs(z.re - re) < 1e-9)).toBe(true)
  expect(placesOf({ ...shown('1/(s + 4)'), scale: 10 })).toEqual([{ re: -40, im: 0 }])
})
