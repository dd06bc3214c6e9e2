import { FolioEvaluator } from '../evaluate/folio'
import { DEFAULT_CONVENTIONS } from '../format/conventions'
import { applyRowOperation, entryOf, nextOperation } from '../linear/reduction'
import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { bare } from '../values/quantity'
import { answerId, answerPlace } from './answerIds'
import { answersOf } from './answers'
import { benchOf } from './bench'
import { solvedDetails } from './solvedDetails'

function last(lines: readonly string[]) {
  const evaluator = new FolioEvaluator()
  evaluator.setSettings(DEFAULT_CONVENTIONS)
  evaluator.setLines(lines.map((source, k) => ({ id: String(k), source })))
  evaluator.update()
  return evaluator.result(String(lines.length - 1))!
}

/** The right side once the bench has reduced the equations. */
function reducedOn(lines: readonly string[], point = 0) {
  const result = last(lines)
  const start = benchOf(result, point)
  if (typeof start === 'string') throw new Error(start)
  let { matrix } = start
  for (let k = 0; k < 500; k += 1) {
    const operation = nextOperation(matrix, matrix.cols - 1, true)
    if (!operation) break
    matrix = applyRowOperation(matrix, operation) ?? matrix
  }
  const found = Array.from({ length: matrix.rows }, (_, r) => entryOf(matrix, r, matrix.cols - 1))
  return { start, found, result }
}

test('finished on the bench, equations come to what determine says', () => {
  for (const lines of [
    ['sought a, b', '2*a + b = 5', 'a + 3*b = 10', 'determine'],
    ['sought a, b, c', 'a/3 + b = 1', 'b - 0.7*c = 2j', '(1 + 2j)*a + c = 4', 'determine'],
    ['R = 4 ohm', 'sought I, U', 'R*I + U = 12 V', 'U - 2 ohm*I = 1 V', 'determine'],
    ['w = 2pi*50', 'sought I, J', '(3 + j*w*0.01)*I - J = 10', '-I + (2 - 4j)*J = 0', 'determine'],
  ]) {
    const { found, result } = reducedOn(lines)
    const answers = answersOf(result).map(({ evaluated }) => bare(evaluated.value!))
    found.forEach((z, k) => {
      const value = answers[k]!
      if (value.kind !== 'number') throw new Error('a number')
      if (value.exact) expect(G.equals(z, value.exact)).toBe(true)
      else {
        expect(Q.toNumber(z.re)).toBeCloseTo(value.re, 11)
        expect(Q.toNumber(z.im)).toBeCloseTo(value.im, 11)
      }
    })
  }
})

test('the sought names stand over the columns with their units, rounded entries are marked, of a sweep it is one point', () => {
  const { start } = reducedOn([
    'w = 2pi*50 Hz',
    'sought I, U',
    '2 ohm*I + U = 12 V',
    'U - j*w*10 mH*I = 0',
    'determine',
  ])
  expect(start.heads).toEqual([{ name: 'I', unit: 'A' }, { name: 'U', unit: 'V' }]) // prettier-ignore
  expect([start.right, start.rounded]).toEqual([1, [[1, 0]]])
  const swept = ['k = 1 to 3', 'sought x, y', 'k*x + y = 6', 'x - y = 0', 'determine']
  expect(reducedOn(swept, 1).start.point).toBe(2)
  expect(reducedOn(swept, 1).found.map((z) => Q.toNumber(z.re))).toEqual([2, 2])
})

test('what the bench cannot take is refused by a sentence that names the term', () => {
  expect(benchOf(last(['sought x', 'x^2 + 3*x = 4', 'determine']), 0)).toContain('line 2 is not linear: the term x^2')
  expect(benchOf(last(['sqrt(2)']), 0)).toContain('The bench works exactly')
  expect(typeof benchOf(last(['[[1, 2], [3, 4]]']), 0)).toBe('object')
})

test('how equations were solved is told: determinant, condition, residual', () => {
  const told = (lines: readonly string[], point = 0) =>
    Object.fromEntries(solvedDetails(last(lines), DEFAULT_CONVENTIONS, point).map(({ label, text }) => [label, text]))
  expect(told(['sought a, b', '2*a + b = 5', 'a + 3*b = 10', 'determine'])).toMatchObject({ Determinant: '5', Residual: '0: the solution is exact' }) // prettier-ignore
  const rounded = told(['sought a, b', 'pi*a + b = 5', 'a + 3*b = 10', 'determine'])
  expect(rounded.Determinant).toBe('8.4248')
  expect(Number(rounded.Residual?.split(' ')[0])).toBeLessThan(1e-15)
  expect(Number(rounded['Condition number']?.split(',')[0])).toBeGreaterThan(1)
  expect(told(['sought x', 'e^x = 3', 'determine'])['Found by']).toContain('Newton')
  expect(told(['2*3'])).toEqual({})
})

test('answers go under identifiers of their own, and lead back to their line', () => {
  expect(answerId('line-abc', 2)).toBe('line-abc-3')
  expect(answerPlace('line-abc-3')).toEqual({ line: 'line-abc', k: 2 })
  expect(answerPlace('line')).toBeNull()
})
