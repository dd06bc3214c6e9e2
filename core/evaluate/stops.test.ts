import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { reckon } from '../testing'
import { FolioEvaluator } from './folio'

/** Whatever takes too long is stopped by the clock, in the midst of it; what would be too large is said to be. */

const NOISE = 'A = [[sin(r*c*1 rad) for c = 1 to 300] for r = 1 to 300]'
const HILBERT = '[[1/(r + 2c) for c = 1 to 20] for r = 1 to 20]'

const outcome = (timeLimit: number, ...lines: string[]): string => {
  const found = reckon(lines, { timeLimit }).at(-1)
  return found?.error?.code ?? found?.value?.kind ?? 'nothing'
}

test('of a large matrix', () => {
  const evaluator = new FolioEvaluator()
  const matrix = { id: 'matrix', source: NOISE }
  evaluator.setSettings({ ...DEFAULT_CONVENTIONS, timeLimit: 20_000 })
  evaluator.setLines([matrix])
  evaluator.update()
  expect(evaluator.result('matrix')?.evaluated.value?.kind).toBe('matrix')
  evaluator.setSettings({ ...DEFAULT_CONVENTIONS, timeLimit: 40 })
  const lines = [
    'eigenvalues(A)',
    'svd(A)',
    'A^50000',
    'qr(A)',
    'cond(A)',
    'nullspace(A)',
    'expm(1e6*A)',
    'charpoly(A)',
  ]
  evaluator.setLines([matrix, ...lines.map((source) => ({ id: source, source }))])
  evaluator.update()
  for (const line of lines) {
    const { problem } = evaluator.result(line)?.evaluated ?? {}
    expect([line, problem?.code]).toEqual([line, 'too-long'])
  }
})

test.each([
  ['unknown a, b, c', '(a + b + c)^50*(a - b - c)^50'],
  ['unknown s', '(s + 1/3)^2000'],
  ['unknown s', '((s^50 + 1)/(s^49 + s + 1))^20'],
  ['unknown s', 'roots(product(s - k/7 for k = 1 to 150))'],
  ['f(n) = sum(k^2 for k = 1 to n)', 'g(n) = sum(f(k) for k = 1 to n)', 'sum(g(k) for k = 1 to 10000)'],
  [`charpoly(${HILBERT})`],
  ['sum(1/k for k = 1 to 100000)'],
  ['x = 0 to 1 count 400000', 'x^x + arcsin(x)'],
])('%s', (...lines) => expect(outcome(120, ...lines.filter((l) => typeof l === 'string'))).toBe('too-long'))

test.each([
  ['10^(10^10)', 'too-large'],
  ['factorial(10^9)', 'too-large'],
  ['binom(10^15, 10^14)', 'too-large'],
  ['product(k for k = 1 to 100000)', 'too-large'],
  ['identity(10^6)', 'matrix-too-large'],
  ['0 to 1e300', 'too-many-points'],
  ['expm(inf)', 'matrix'],
  ['expm(ln(0))', 'matrix'],
  ['expm(1e300*[[1, 2], [3, 4]])', 'too-large'],
  [`det(${HILBERT})`, 'number'],
])('%s ends by itself', (line, expected) => expect(outcome(2_000, line)).toBe(expected))

test('a text that is doubled again and again ends in a sentence', () => {
  const lines = ['a0 = "0123456789"', ...Array.from({ length: 40 }, (_, k) => `a${k + 1} = a${k} + a${k}`)]
  const found = reckon(lines)
  const first = found.findIndex((f) => f.error)
  expect(found[first]?.error?.message).toBe('This text would have more than 1000000 characters.')
  expect(found.slice(first + 1).every((f) => f.error?.code === 'waits-for')).toBe(true)
})

test('a line that was stopped leaves the others as they are', () => {
  const found = reckon(['unknown s', '(s + 1/3)^2000', '2 + 2', '[[1, 2], [3, 4]]^-1'], { timeLimit: 120 })
  expect(found[2]?.text).toBe('4')
  expect(found[3]?.text).toBe('[[-2, 1], [1.5, -0.5]]')
})
