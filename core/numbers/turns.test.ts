import * as fc from 'fast-check'
import * as Q from './rational'
import { cosTurns, normalTurns, sinTurns, tanTurns } from './turns'

const degrees = (n: number): Q.Rational => Q.rational(n, 360)!

describe('quarter and twelfth turns are exact', () => {
  test.each([
    [0, 0, 1],
    [30, 0.5, null],
    [60, null, 0.5],
    [90, 1, 0],
    [120, null, -0.5],
    [150, 0.5, null],
    [180, 0, -1],
    [210, -0.5, null],
    [270, -1, 0],
    [300, null, 0.5],
    [330, -0.5, null],
    [-30, -0.5, null],
    [720, 0, 1],
  ])('%d°', (angle, sine, cosine) => {
    const s = sinTurns(degrees(angle))
    const c = cosTurns(degrees(angle))
    expect(s.exact && Q.toNumber(s.exact)).toBe(sine)
    expect(c.exact && Q.toNumber(c.exact)).toBe(cosine)
  })
  test('tangents of eighths', () => {
    expect(tanTurns(degrees(45)).exact).toEqual({ n: 1, d: 1 })
    expect(tanTurns(degrees(135)).exact).toEqual({ n: -1, d: 1 })
    expect(tanTurns(degrees(90)).value).toBe(Infinity)
    expect(tanTurns(degrees(180)).exact).toEqual({ n: 0, d: 1 })
  })
})

test('arguments are reduced before they are rounded', () => {
  // sin(10^15 + 30 degrees): 10^15 mod 360 = 280, so this is sin 310° (mpmath: −0.766044443118978).
  const angle = Q.fromBig(10n ** 15n + 30n, 360n)!
  expect(sinTurns(angle).value).toBeCloseTo(-0.766044443118978, 14)
})

test('agreement with the plain functions, and the identity sin² + cos² = 1', () => {
  fc.assert(
    fc.property(fc.integer({ min: -100_000, max: 100_000 }), fc.integer({ min: 1, max: 5000 }), (n, d) => {
      const t = Q.rational(n, d)!
      const s = sinTurns(t).value
      const c = cosTurns(t).value
      expect(s * s + c * c).toBeCloseTo(1, 14)
      const r = Q.toNumber(normalTurns(t)) * 2 * Math.PI
      expect(s).toBeCloseTo(Math.sin(r), 13)
      expect(c).toBeCloseTo(Math.cos(r), 13)
    }),
  )
})

test('normal turns lie in (−½, ½]', () => {
  expect(normalTurns(degrees(180))).toEqual({ n: 1, d: 2 })
  expect(normalTurns(degrees(-180))).toEqual({ n: 1, d: 2 })
  expect(normalTurns(degrees(270))).toEqual({ n: -1, d: 4 })
})
