import * as fc from 'fast-check'
import { FolioEvaluator } from '../evaluate/folio'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { copyText } from '../kinds/kinds'
import { checkChain, sidesOf } from './chain'
import type { Chain } from './chain'
import { ALL_SLIPS } from './slips'
import type { Slip } from './slips'

const ABOVE = ['unknown x', 'R = 12', 'V = 230', 'Z = 30 + 40j', 'I = 4.6∠-53.13°', 'A = [[1, 2], [3, 5]]']

function check(lines: readonly string[], above: readonly string[] = ABOVE): Chain {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings({ ...DEFAULT_CONVENTIONS, timeLimit: 2000 })
  evaluator.setLines([...above, '0'].map((source, k) => ({ id: String(k), source })))
  evaluator.update()
  return checkChain(evaluator, String(above.length), lines, DEFAULT_CONVENTIONS)
}
const states = (...lines: readonly string[]): readonly string[] => check(lines).links.map((l) => l.state)
const slips = (...lines: readonly string[]): readonly Slip[] => check(lines).links.flatMap((l) => l.slips.map((s) => s.slip)) // prettier-ignore

// Each with three sets of figures or more; what the wrong figure is, was worked out by hand.
const SLIPPED: readonly (readonly [Slip, string])[] = [
  ['sign-of-j-squared', '(3 + 4j)*(1 - 2j) = -5 - 2j'],
  ['sign-of-j-squared', '(2 + 1j)*(5 + 3j) = 13 + 11j'],
  ['sign-of-j-squared', '(1 + 2j)^2 = 5 + 4j'],
  ['sign-of-j-squared', 'j*6*(2 - 5j) = 30 + 12j + 0 - 60'],
  ['conjugate-forgotten', '(3 + 4j)/(1 - 2j) = 11/5 - 2j/5'],
  ['conjugate-forgotten', '10/(3 + 4j) = 1.2 + 1.6j'],
  ['conjugate-forgotten', '(2 + 2j)*conj(1 + 3j) = -4 + 8j'],
  ['conjugate-forgotten', 'V*I^* = 230*4.6∠-53.13°'],
  ['degrees-for-radians', 'sin(30°) = -0.98803'],
  ['degrees-for-radians', '10∠60° = 10∠(60 rad)'],
  ['degrees-for-radians', 'cos(1.2 rad) = 0.99978'],
  ['degrees-for-radians', 'tan(45°) = 1.6198'],
  ['wrong-quadrant', 'arg(-3 - 4j) = 53.13°'],
  ['wrong-quadrant', 'arg(-1 + 1j) = -45°'],
  ['wrong-quadrant', '-3 - 4j = 5∠53.13°'],
  ['wrong-quadrant', '-5 + 12j = 13∠-67.38°'],
  ['parts-added', 'abs(3 + 4j) = 7'],
  ['parts-added', '|5 - 12j| = 17'],
  ['parts-added', 'norm([1, 2, 2]) = 5'],
  ['parallel-as-series', '100 || 220 = 320'],
  ['parallel-as-series', 'par(6, 3, 2) = 11'],
  ['parallel-as-series', '(R || 24) + 8 = 44'],
  ['row-for-column', 'A*[1, 1] = [4, 7]'],
  ['row-for-column', '[[2, 0], [1, 3]]*[4, 5] = [13, 15]'],
  ['row-for-column', 'inv(A) = [[-5, 3], [2, -1]]'],
  ['minus-before-bracket', '10 - (3 + 2) = 9'],
  ['minus-before-bracket', 'R - (4 - 1) = 12 - 4 - 1'],
  ['minus-before-bracket', '-(2 + 3j) = -2 + 3j'],
  ['square-of-negative', '(-2)^2 = -4'],
  ['square-of-negative', '-3^2 = 9'],
  ['square-of-negative', '5 + (-4)^2 = -11'],
  ['prefix', '2*3.3k = 6.6'],
  ['prefix', '0.05/10 = 5'],
  ['prefix', 'R*4m = 48'],
  ['two-pi', '2*pi*50 = 50'],
  ['two-pi', '100*0.02 = 12.566'],
  ['two-pi', '1/(2pi*0.01) = 100'],
  ['root-two', 'V*sqrt(2) = 230'],
  ['root-two', 'rms(10) = 10'],
  ['root-two', '5*4 = 28.284'],
  ['root-three', 'V*sqrt(3) = 230'],
  ['root-three', '400/sqrt(3) = 400'],
  ['root-three', '10*2 = 34.641'],
  ['reciprocal', '1/(1/3 + 1/6) = 0.5'],
  ['reciprocal', '1/R + 1/4 = 3'],
  ['reciprocal', '(3 + 4j)/5 = 0.6 - 0.8j'],
  ['rounded-on', '(2/7)*350*31 = 3146.5'],
  ['rounded-on', 'V/R*13.7 = 263.04'],
  ['rounded-on', 'sqrt(2)*250 = 352.5'],
]

test.each(SLIPPED)('%s is recognised in %s', (slip, line) => {
  expect(states(line)).toEqual(['breaks'])
  expect(slips(line)).toContain(slip)
})

test('every slip has three examples at least', () => {
  for (const slip of ALL_SLIPS) expect([slip, SLIPPED.filter(([s]) => s === slip).length >= 3]).toEqual([slip, true])
})

test.each([
  [
    ['Z_1 = (3 + 4j)*(1 - 2j)', '= 3 - 6j + 4j + 8', '= 11 - 2j'],
    ['exact', 'exact'],
  ],
  [['(3 + 4j)/(1 - 2j) = -1 + 2j = 2.24∠116.6°'], ['exact', 'rounded']],
  [['V/R = 19.17 = 19.2'], ['rounded', 'rounded']],
  [['1/3 = 0.333 = 0.3333'], ['rounded', 'rounded']],
  [['100 || 220 = 100*220/320 = 68.75'], ['exact', 'exact']],
  [['1000/7 ≈ 143'], ['rounded']],
  [['1000/7 = 143'], ['breaks']],
  [['12 V / 4 ohm = 3 A'], ['exact']],
  [['12 V / 4 ohm = 3 V'], ['breaks']],
  [['[1, 2] + [3, 4] = [4, 6]'], ['exact']],
  [['A*A = [[7, 12], [18, 31]]'], ['exact']],
  [['arg(-1) = -180°'], ['exact']],
  [['4.7*2 = 9.5'], ['loose']],
  [['(x + 1)^2 = x^2 + 2x + 1'], ['exact']],
  [['(x + 1)^2 = x^2 + 1'], ['breaks']],
  [['2 + = 3'], ['unread']],
])('%j: %j', (lines, wanted) => expect(states(...lines)).toEqual(wanted))

test('equations are compared by their solutions', () => {
  expect(states('2x + 4 = 10', '2x = 6', 'x = 3')).toEqual(['equivalent', 'equivalent'])
  expect(states('x^2 = 2', 'x^2 - 2 = 0')).toEqual(['equivalent'])
  expect(check(['x^2 = 9', 'x = 3']).links[0]).toMatchObject({ state: 'breaks', says: 'This loses -3.' })
  expect(check(['x = 3', 'x^2 = 9']).links[0]).toMatchObject({ state: 'breaks', says: 'This adds -3.' })
  expect(states('3x = 7', 'x = 2.33')).toEqual(['equivalent'])
  expect(states('3x = 7', 'x = 2.34')).toEqual(['breaks'])
})

test('the first link that breaks is the one that is marked', () => {
  expect(check(['2*3 = 6 = 7 = 8']).broken).toBe(1)
  expect(check(['2*3 = 6']).broken).toBeNull()
  expect(check(['']).sides).toEqual([])
})

test('a line is cut at its signs of equality only', () => {
  const cut = (line: string) => sidesOf(line).map((s) => s.text)
  expect(cut('Z = a + b = 3 # remark')).toEqual(['Z', 'a + b', '3'])
  expect(cut('sum(k for k = 1 to 3) = 6')).toEqual(['sum(k for k = 1 to 3)', '6'])
  expect(cut('x^2 where x = 3 = 9')).toEqual(['x^2 where x = 3', '9'])
  expect(cut('⇔ x = 3')).toEqual(['x', '3'])
  expect(sidesOf('a ≈ 3').map((s) => s.about)).toEqual([false, true])
})

// Terms as they stand in hand calculations, with random figures.
const n = fc.integer({ min: 2, max: 97 })
const d = fc.tuple(fc.integer({ min: 11, max: 999 }), fc.integer({ min: 1, max: 2 })).map(([k, p]) => (k / 10 ** p).toFixed(p)) // prettier-ignore
const z = fc.tuple(n, n).map(([a, b]) => `(${a} + ${b}j)`)
const term = fc.oneof(
  fc.tuple(z, z).map(([a, b]) => `${a}*${b}`),
  fc.tuple(z, z).map(([a, b]) => `${a}/${b}`),
  fc.tuple(z, z).map(([a, b]) => `abs(${a} - ${b}*3)`),
  fc.tuple(n, n, n).map(([a, b, c]) => `${a} || ${b} || ${c}`),
  fc.tuple(d, n, n).map(([a, b, c]) => `${a}*sin(${b}°) + ${c}`),
  fc.tuple(n, n, d).map(([a, b, c]) => `${a}/${b}*${c} - (${b} + 3)`),
  fc.tuple(n, n).map(([a, b]) => `sqrt(${a}^2 + ${b})*R`),
  fc.tuple(z, n).map(([a, b]) => `${a}^2 + ${b}`),
  fc.tuple(n, n, n, n).map(([a, b, c, e]) => `[[${a}, ${b}], [${c}, ${e}]]*[${b}, ${c}]`),
)

/** The value of a term to some digits. */
function shown(text: string, digits: number, factor = '1'): string {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(DEFAULT_CONVENTIONS)
  evaluator.setLines(['R = 12', text, `(${text})*${factor}`].map((source, k) => ({ id: String(k), source })))
  evaluator.update()
  const value = evaluator.result('2')?.evaluated.value
  const written = value ? (copyText(value, 'shown', { ...DEFAULT_CONVENTIONS, digits }) ?? '') : ''
  // A rounded figure is one with a point; whole numbers stand for themselves.
  return written
}

test('200 correct chains hold, and no slip is claimed of any', () => {
  fc.assert(
    fc.property(term, fc.integer({ min: 4, max: 8 }), (text, digits) => {
      const found = check([text, `≈ ${shown(text, 12)}`, `≈ ${shown(text, digits)}`])
      expect(found.links.map((l) => l.state)).not.toContain('breaks')
      expect(found.links.flatMap((l) => l.slips)).toEqual([])
      expect(found.broken).toBeNull()
    }),
    { numRuns: 200 },
  )
})

test('200 chains with errors of other kinds break, and no slip is claimed of any', () => {
  // A share that none of the slips gives: no power of ten, no root, no π.
  const share = fc.integer({ min: 111, max: 887 }).map((k) => (1 + k / 911).toFixed(4))
  fc.assert(
    fc.property(term, share, (text, factor) => {
      const wrong = shown(text, 7, factor)
      fc.pre(wrong !== '0')
      const { links } = check([text, `= ${wrong}`])
      // Where the figures that were given could hide it, that is said.
      expect(['breaks', 'loose']).toContain(links[0]?.state)
      expect(links.flatMap((l) => l.slips)).toEqual([])
    }),
    { numRuns: 200 },
  )
})
