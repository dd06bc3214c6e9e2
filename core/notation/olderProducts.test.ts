import { reckon } from '../testing'
import { olderProducts } from './olderProducts'
import { renameEverywhere } from './rename'

/** What the lines of a folio from before units are worth, and what they are once its products are written out. */
test.each([
  [['V = 230', '10 V'], ['V = 230', '10*V'], 2300],
  [['V = 230', '4k V/2'], ['V = 230', '4k*V/2'], 460000],
  [['m = 3', 'g = 9.81', '2 m*g'], ['m = 3', 'g = 9.81', '2*m*g'], 58.86],
  [['A = 4', '3 A^2'], ['A = 4', '3*A^2'], 48],
  [['s = 2', '1 + 2 s/4'], ['s = 2', '1 + 2*s/4'], 2],
  [['h = 5', 'f(x) = 2 h + x', 'f(1)'], ['h = 5', 'f(x) = 2*h + x', 'f(1)'], 11],
] as const)('%j', (lines, written, last) => {
  const texts = olderProducts(lines)
  expect(lines.map((line, k) => texts[k] ?? line)).toEqual(written)
  const value = reckon(written).at(-1)!.value
  expect(value).toMatchObject({ kind: 'number', re: expect.closeTo(last, 9) })
  // Once they are written out nothing is left to write.
  expect(olderProducts(written).every((text) => text === null)).toBe(true)
})

test.each([
  ['an angle over a kept name', ['s = 4', '2 rad/s'], ['s = 4', '(2 rad)/s']],
  ['an unknown and a parameter were products and are', ['unknown s', '2 s + 1', 'g(m) = 3 m'], ['unknown s', '2 s + 1', 'g(m) = 3 m']], // prettier-ignore
  ['a name that stands below', ['10 V', 'V = 3'], ['10 V', 'V = 3']],
  ['nothing with a unit', ['x = 2', '2 x + 1'], ['x = 2', '2 x + 1']],
  ['two products in one line', ['V = 1', 'A = 2', '2 V + 3 A'], ['V = 1', 'A = 2', '2*V + 3*A']],
] as const)('%s', (_, lines, written) => {
  const texts = olderProducts(lines)
  expect(lines.map((line, k) => texts[k] ?? line)).toEqual(written)
})

describe('a name that is spelled as a unit from now on', () => {
  const renamed = (lines: readonly string[], from: string, to: string) => {
    const { changes, problem } = renameEverywhere(lines, from, to, 'j', () => false)
    return problem?.code ?? lines.map((line, k) => changes.find((c) => c.index === k)?.source ?? line)
  }
  test('its products with a blank get their sign', () => {
    expect(renamed(['x = 5', '10 x + 2x', '3*x'], 'x', 'V')).toEqual(['V = 5', '10*V + 2V', '3*V'])
    expect(renamed(['x = 5', '4k x'], 'x', 'A')).toEqual(['A = 5', '4k*A'])
  })
  test('an unknown goes on to be a factor behind a blank', () =>
    expect(renamed(['unknown p', '2 p + 1'], 'p', 's')).toEqual(['unknown s', '2 s + 1']))
  test('units of the same letter are no uses of the name', () =>
    expect(renamed(['V = 5', '10 V', '2*V'], 'V', 'U')).toEqual(['U = 5', '10 V', '2*U']))
  test('where a unit would swallow the name it is refused', () =>
    expect(renamed(['x = 5', '3 N*x'], 'x', 'm')).toBe('name-read-otherwise'))
})
