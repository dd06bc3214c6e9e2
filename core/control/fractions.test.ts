import * as fc from 'fast-check'
import { FolioEvaluator } from '../evaluate/folio'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { workingOf } from '../working/working'
import { reckon } from '../testing'
import type { Reckoned } from '../testing'

/** A machine that does other work meanwhile must not decide what comes out. */
const SLOW = { timeLimit: 20_000 }

const last = (...lines: string[]): Reckoned => reckon(['unknown s, t', ...lines], SLOW).at(-1)!
const text = (...lines: string[]): string => last(...lines).text

const root = fc.constantFrom('0', '1', '2', '1/2', '3', '0.1', '-1')
const factor = fc.oneof(
  { weight: 3, arbitrary: root.map((r) => `(s + ${r})`) },
  fc.constantFrom('(s^2 + 2s + 5)', '(s^2 + 9)', '(s^2 + s + 1)', '(s^2 - 3)', '(s + sqrt(2))', '(s^3 + s + 1)'),
)
const system = fc
  .tuple(
    fc.integer({ min: 1, max: 9 }),
    fc.array(factor, { maxLength: 2 }),
    fc.array(factor, { minLength: 1, maxLength: 4 }),
  )
  .map(([gain, above, below]) => `${[gain, ...above].join('*')}/(${below.join('*')})`)

describe('partial fractions', () => {
  test.each([
    ['(s + 3)/((s + 1)*(s + 2)^3)', '2/(s + 1) - 2/(s + 2) - 2/(s + 2)^2 - 1/(s + 2)^3'],
    ['(s^3 + 4)/(s + 1)', 's^2 - s + 1 + 3/(s + 1)'],
    ['10/(s^2*(s + 5))', '-0.4/s + 2/s^2 + 0.4/(s + 5)'],
    ['1/(s^2 + s + 1)^2', '1/(s^2 + s + 1)^2'],
    ['s^3/(s^2 + 4)^2', 's/(s^2 + 4) - 4s/(s^2 + 4)^2'],
    ['2/(s^2 - 3)', '0.57735/(s - 1.7321) - 0.57735/(s + 1.7321)'],
    ['7', '7'],
  ])('of %s', (g, gives) => expect(text(`partial_fractions(${g})`)).toBe(gives))

  test('add up to what they were made of, as they are written', () => {
    fc.assert(
      fc.property(system, (g) => {
        const found = last(`partial_fractions(${g})`)
        expect(found.error).toBeNull()
        // In all digits, so that what is rounded reads back.
        const digits = reckon(['unknown s', `partial_fractions(${g})`], { digits: 15, ...SLOW }).at(-1)!.text
        for (const at of ['0.37', '2 + 1j', '-0.7 + 3j']) {
          const [a, b] = [last(`${g} where s = ${at}`), last(`${digits} where s = ${at}`)].map(({ value }) => (value?.kind === 'number' ? value : null)) // prettier-ignore
          expect(Math.hypot(a!.re - b!.re, a!.im - b!.im)).toBeLessThan(1e-9 * Math.max(1, Math.hypot(a!.re, a!.im)))
        }
      }),
      { numRuns: 120 },
    )
  })

  test('are the same ratio', () => {
    fc.assert(
      fc.property(system, (g) => expect(text(`partial_fractions(${g}) == ${g}`)).toBe('true')),
      { numRuns: 60 },
    )
  })
})

describe('by time constants', () => {
  test('is the same ratio, and reads back', () => {
    fc.assert(
      fc.property(system, (g) => {
        expect(text(`time_constant_form(${g}) == ${g}`)).toBe('true')
        const written = reckon(['unknown s', `time_constant_form(${g})`], { digits: 15, ...SLOW }).at(-1)!.text
        const [a, b] = [last(`${g} where s = 0.4 + 2j`), last(`${written} where s = 0.4 + 2j`)].map(({ value }) => (value?.kind === 'number' ? value : null)) // prettier-ignore
        expect(Math.hypot(a!.re - b!.re, a!.im - b!.im)).toBeLessThan(1e-9 * Math.hypot(a!.re, a!.im))
      }),
      { numRuns: 100 },
    )
  })
})

describe('the inverse Laplace transform', () => {
  test.each([
    ['1/s', '1'],
    ['1/s^3', '0.5*t^2'],
    ['2', '2*δ(t)'],
    ['s', "δ'(t)"],
    ['(s^2 + 3s + 3)/(s + 1)', "e^(-t) + 2*δ(t) + δ'(t)"],
    ['3/(s^2 + 9)', 'sin(3*t rad)'],
    ['s/(s^2 + 9)', 'sin(3*t rad + 90°)'],
    ['(s + 1)/(s^2 + 1)', '1.4142*sin(t rad + 45°)'],
    ['1/((s + 1)*(s + 3)^2)', '0.25*e^(-t) - 0.25*e^(-3*t) - 0.5*t*e^(-3*t)'],
    ['0', '0'],
  ])('of %s', (g, gives) => expect(text(`inverse_laplace(${g}, t)`)).toBe(gives))

  test('at a time it is what its formula gives there', () => {
    fc.assert(
      fc.property(system, fc.constantFrom('0.2', '1.3', '4'), (g, at) => {
        const written = reckon(['unknown s, t', `inverse_laplace(${g}, t)`], { digits: 15, ...SLOW }).at(-1)!.text
        const formula = written.replace(/ [+-] [\d.e*-]*δ'*(\^\(\d+\))?\(t\)/g, '').replace(/^-?[\d.e*-]*δ'*\(t\)$/, '0').replace(/\bt rad/g, `${at} rad`).replace(/\bt\b/g, `(${at})`) // prettier-ignore
        const [a, b] = [last(`inverse_laplace(${g}, ${at})`), last(formula)].map(({ value }) => (value?.kind === 'number' ? value.re : NaN)) // prettier-ignore
        expect(Math.abs(a! - b!)).toBeLessThan(1e-7 * Math.max(1, Math.abs(a!)))
      }),
      { numRuns: 100 },
    )
  })
})

describe('on paper', () => {
  test.each([
    ['partial_fractions(6/((s + 1)*(s^2 + 9)))', ['factored-below', 'covered-up', 'covered-up', 'fractions-sum']],
    ['routh(s^3 + 6s^2 + 11s + 6)', ['routh-entry', 'routh-entry', 'routh-array']],
    [
      'margins(10/(s*(s^2 + 6s + 5)))',
      ['gain-crossover', 'phase-margin', 'phase-crossover', 'gain-margin', 'margins-read'],
    ],
    ['sensitivity(3/(s + 1))', ['loop-sensitivity']],
    ['closed_loop(3/(s + 1))', ['loop-by-feedback']],
  ])('%s', (line, rules) => {
    const evaluator = new FolioEvaluator()
    evaluator.setSettings({ ...DEFAULT_CONVENTIONS, timeLimit: 5000 })
    evaluator.setLines(['unknown s', line].map((source, k) => ({ id: String(k), source })))
    evaluator.update()
    const working = workingOf(evaluator, '1', { conventions: DEFAULT_CONVENTIONS, ways: new Map(), point: 0 })
    if (typeof working === 'string') throw new Error(working)
    const told = working.steps.map(({ rule }) => rule)
    for (const rule of rules) expect(told).toContain(rule)
  })
})
