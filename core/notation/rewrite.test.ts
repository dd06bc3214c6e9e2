import { reckon } from '../testing'
import { rewriteLiteral } from './rewrite'

/** The line after its value has been dragged to a point, on a plane with so many units a pixel. */
function dragged(entry: string, re: number, im: number, perPixel: number, angle: 'deg' | 'rad' = 'deg'): string | null {
  const { literal } = reckon([entry], { angle })[0]!.view
  return literal ? rewriteLiteral(entry, literal, { re, im }, perPixel) : null
}

test.each([
  ['Z = 3 + 4j', 1.2345, -2.3456, 0.01, 'Z = 1.23 - 2.35j'],
  ['Z = 3+j4  # choke', 1, 2, 0.01, 'Z = 1+j2  # choke'],
  ['Z = 3 - 4i', 1, 2, 0.1, 'Z = 1 + 2i'],
  ['4j', 1, 2, 0.1, '1 + 2j'],
  ['V = 230∠0°', 0, 100, 1, 'V = 100∠90°'],
  ['V = 230/_0', 100, 100, 1, 'V = 141∠45'],
  ['V = 2∠-30 deg', 0, -3, 0.01, 'V = 3∠-90 deg'],
  ['V = 2∠0.5 rad', 0, 3, 0.001, 'V = 3∠1.5708 rad'],
  ['V = (3 + 4j)', 30000, -40000, 100, 'V = 30000 - 40000j'],
  ['V = 1k∠0°', 0, 0, 1, 'V = 0∠0°'],
])('%s dragged to %d + %dj', (entry, re, im, perPixel, expected) => {
  expect(dragged(entry, re, im, perPixel)).toBe(expected)
})

test('a bare angle is written back in the unit of the conventions', () => {
  expect(dragged('V = 2∠1', 0, 2, 0.001, 'rad')).toBe('V = 2∠1.5708')
})

test('what is computed cannot be dragged', () => {
  for (const entry of ['Z = 2*(3+4j)', 'Z = conj(3+4j)', 'Z = 3 + 4j + 1', 'Z = 5', 'f(x) = 3+4j', '2∠(10°+20°)']) {
    expect(reckon([entry])[0]!.view.literal).toBeNull()
  }
})

test('the rewritten line is read as the point it was dragged to, within a pixel', () => {
  for (const entry of ['Z = 3 + 4j', 'Z = 3∠20°', 'Z = 3∠0.1 rad', 'Z = j4']) {
    for (const [re, im] of [
      [12.3456, -7.891],
      [-0.01, 0.02],
      [-55, 3],
    ] as const) {
      const { value } = reckon([dragged(entry, re, im, 0.05)!])[0]!
      expect(value).toMatchObject({ kind: 'number' })
      const z = value as { re: number; im: number }
      expect(Math.hypot(z.re - re, z.im - im)).toBeLessThan(0.08)
    }
  }
})
