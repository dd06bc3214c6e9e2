import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { FUNCTIONS } from '#core/functions/registry'
import { reckon } from '#core/testing'
import { DEMO_FOLIOS } from '../server/db/demo'
import { SHEETS } from './sheetsForTests'

/** What is right as it stands is not hinted at: what hints there are on right lines was looked at, one by one. */

type Hinted = readonly [line: string, code: string]

function hintsOf(sheets: Iterable<readonly string[]>, angle: 'deg' | 'rad'): { lines: number; hints: Hinted[]; errors: Hinted[] } {
  const told = { lines: 0, hints: [] as Hinted[], errors: [] as Hinted[] }
  for (const sheet of sheets)
    reckon(sheet, { angle, timeLimit: 5_000 }).forEach(({ hints, error }, k) => {
      const line = sheet[k] ?? ''
      told.lines += 1
      for (const { code } of hints) told.hints.push([line, code])
      if (error) told.errors.push([line, error.code])
    })
  return told
} // prettier-ignore

/** They say what came out, not what may be wrong. */
const TELLING = new Set([
  'roots-counted',
  'stable-range',
  'controllable',
  'observable',
  'not-controllable',
  'not-observable',
])

test.each(['deg', 'rad'] as const)('thirty sheets of a textbook have no error and no hint in %s', (angle) => {
  const { lines, hints, errors } = hintsOf(Object.values(SHEETS), angle)
  expect(Object.keys(SHEETS).length).toBeGreaterThanOrEqual(30)
  expect(lines).toBeGreaterThan(210)
  expect(errors).toEqual([])
  expect(hints.filter(([, code]) => !TELLING.has(code))).toEqual([])
})

/** Looked at: the sentence of each is true of its line, and is what the line is there for. */
const IN_DEMO: readonly Hinted[] = [
  ['P_w = transfer(A, B_u, C_w, 0, s) in rad/(V*second)  # the angle is not seen from there', 'modes-hidden'],
]
const IN_HANDBOOK: readonly Hinted[] = [
  ['eigenvalues([[2, 1], [0, 2]])', 'defective'],
  ['eigenpairs([[1, 1e-9], [0, 1]]).values', 'defective'],
  ['(z along x)[1]', 'along-outside'],
  ['(y along x)[2]', 'along-outside'],
  ['(y along x)[2]', 'undefined-result'],
  ['routh(s^4 + s^3 + 3s^2 + 2s + 2)', 'routh-auxiliary'],
  ['transfer([[-1, 0], [0, -2]], [1, 1], [[1, 0]], 0, s)', 'modes-hidden'],
  ['delay_approximation(2, 1, s)', 'delay-approximate'],
  ['delay_approximation(1, 2, s)', 'delay-approximate'],
  ['static_gain(delay_approximation(0.3, 4, s))', 'delay-approximate'],
]

test('the demo folios have the hints that they mean to show, and no other', () => {
  const { hints } = hintsOf(DEMO_FOLIOS.map(({ lines }) => lines.map((line) => (line.note ? '' : line.source))), 'deg') // prettier-ignore
  expect(hints.filter(([, code]) => !TELLING.has(code))).toEqual(IN_DEMO)
})

test('of the examples of the handbook these are hinted at, each for its reason', () => {
  const examples = FUNCTIONS.flatMap(({ examples: all }) => all.filter((e) => !e.enclosed).map((e) => [...(e.before ?? []), e.entry])) // prettier-ignore
  const { lines, hints } = hintsOf(examples, 'deg')
  expect(lines).toBeGreaterThan(500)
  expect(hints.filter(([, code]) => !TELLING.has(code))).toEqual(IN_HANDBOOK)
})

/** A hint with its twin: the first line is hinted at, the second, which differs from it in the point that matters, is not. */
const TWINS: Readonly<Record<string, readonly [above: readonly string[], hinted: string, silent: string, last?: 'rad' | 'determine']>> = {
  'angle-plus-number': [[], '30° + 5', '30° + 5°'],
  'angle-sign': [[], '5<30', '5 < 30'],
  'closed-loop-marginal': [['unknown s'], 'margins(6/(s*(s + 1)*(s + 2)))', 'margins(5/(s*(s + 1)*(s + 2)))'],
  'closed-loop-unstable': [['unknown s'], 'margins(7/(s*(s + 1)*(s + 2)))', 'margins(5/(s*(s + 1)*(s + 2)))'],
  'cycles-for-rate': [['f = 50 Hz', 'L = 10 mH'], 'j*f*L', 'j*2pi*f*L'],
  'power-by-cycles': [['P = 5.5 kW', 'n = 1440 r/min'], 'P/n', 'P/(2pi*n)'],
  'watts-and-vars': [['P = 5 kW', 'Q = 3 kvar'], 'P + Q', 'P + j*Q'],
  'near-pi': [['f = 50 Hz'], '6.28*f', '6.3*f'],
  'decibel-of-powers': [['P = 4 W'], 'dB(P/(2 W))', '10*lg(P/(2 W))'],
  defective: [[], 'eigenvalues([[1, 1], [0, 1]])', 'eigenvalues([[1, 1], [0, 2]])'],
  'degrees-twice': [['phi = 30°'], 'sin(phi*pi/180)', 'sin(phi)'],
  'delay-approximate': [['unknown s'], 'delay_approximation(2, 1, s)', 'e^(-2*s)'],
  'equals-rounded': [[], 'sqrt(2)^2 == 2', 'sqrt(4)^2 == 4'],
  'equation-always': [['sought x'], 'x + 1 = x + 1', 'x + 1 = 2', 'determine'],
  'equation-asks': [['sought x'], '2*x == 6', '2*x = 6', 'determine'],
  'exponent-radians': [[], 'e^(j*30)', 'e^(j*30°)'],
  'ill-conditioned': [[], 'inv(sqrt(2)*[[1, 1], [1, 1.000000000001]])', 'inv(sqrt(2)*[[1, 1], [1, 2]])'],
  'implicit-after-quotient': [['x = 3'], '1/2x', '1/2*x'],
  'infinite-result': [[], '1/0', '1/1e-300'],
  'modes-hidden': [['unknown s'], 'transfer([[-1, 0], [0, -2]], [1, 1], [[1, 0]], 0, s)', 'transfer([[-1, 0], [0, -2]], [1, 1], [[1, 1]], 0, s)'],
  'multiple-of-pi-in-degrees': [[], 'sin(pi/6)', 'sin(30)'],
  'name-without-unit': [['V = 230', 'I = 2 A'], 'V*I', '230*I'],
  'nearly-defective': [[], 'eigenvectors(sqrt(2)*[[1, 1], [2e-15, 1]])', 'eigenvectors(sqrt(2)*[[1, 1], [0.2, 1]])'],
  'negative-power': [[], '-2^2', '(-2)^2'],
  'parallel-quotient': [[], '3/4 || 2', '(3/4) || 2'],
  'pole-cancelled': [['unknown s', 'C = (s + 1)/(s + 3)', 'D = (s + 4)/(s + 3)', 'G = 1/((s + 1)*(s + 2))'], 'C*G', 'D*G'],
  'prefix-power': [[], '2k^2', '(2k)^2'],
  'prefix-shadowed': [['n = 3'], '2n', '2*n'],
  'quotient-imaginary': [[], '1/4j', '1/(4j)'],
  'roots-cluster': [['unknown x'], 'roots(x^2 - 2*sqrt(2)*x + 2)', 'roots(x^2 - 3*sqrt(2)*x + 2)'],
  'roots-counted': [['unknown s'], 'routh(s^3 + 6*s^2 + 11*s + 6)', 'roots(s^3 + 6*s^2 + 11*s + 6)'],
  'roots-off': [['unknown s'], 'roots(sqrt(2)*coefficients(product(s - k for k = 1 to 20)))', 'roots(sqrt(2)*coefficients(product(s - k for k = 1 to 4)))'],
  'round-degrees-in-radians': [[], 'sin(30)', 'sin(0.3)', 'rad'],
  'routh-auxiliary': [['unknown s'], 'routh(s^4 + 3*s^2 + 2)', 'routh(s^3 + 6*s^2 + 11*s + 6)'],
  'routh-small': [['unknown s'], 'routh(s^4 + s^3 + 2*s^2 + 2*s + 3)', 'routh(s^3 + 6*s^2 + 11*s + 6)'],
  'stable-range': [['unknown s, K'], 'routh(s^3 + 3*s^2 + 2*s + K)', 'routh(s^3 + 3*s^2 + 2*s + 1)'],
  'sweeps-unrelated': [['a = 0 to 2', 'b = 5 to 7'], 'a*b', 'a*a'],
  'unit-hides-name': [['m = 3'], '2 m', '2*m'],
  'unit-shadowed': [['i = 3'], '2i', '2*i'],
  'along-outside': [['x = 1 to 3', 'y = x^2', 'a = 0 to 2', 'b = 1 to 2'], 'y along a', 'y along b'],
} // prettier-ignore

test('every hint there is has a twin that is silent', () => {
  const core = join(import.meta.dirname, '../core')
  const files = readdirSync(core, { recursive: true, encoding: 'utf8' }).filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts')) // prettier-ignore
  const codes = files.flatMap((file) => [...readFileSync(join(core, file), 'utf8').matchAll(/\bhint\(\s*'([a-z-]+)'/g)].map(([, code]) => code)) // prettier-ignore
  expect(codes.length).toBeGreaterThan(30)
  expect([...new Set(codes)].filter((code) => code !== undefined && !(code in TWINS))).toEqual([])
})

test.each(Object.entries(TWINS))('%s', (code, [above, hinted, silent, more]) => {
  const codes = (line: string): readonly string[] => {
    const after = more === 'determine' ? ['x = 3', more] : []
    const found = reckon([...above, line, ...after], { angle: more === 'rad' ? 'rad' : 'deg', timeLimit: 5_000 })[
      above.length
    ]!
    return [...(found.error ? [`error ${found.error.code}`] : []), ...found.hints.map((hint) => hint.code)]
  }
  expect([hinted, codes(hinted).includes(code), codes(hinted).find((c) => c.startsWith('error'))]).toEqual([hinted, true, undefined]) // prettier-ignore
  expect([silent, codes(silent).filter((c) => c === code || !TELLING.has(c))]).toEqual([silent, []])
})
