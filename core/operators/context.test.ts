import { FolioEvaluator } from '../evaluate/folio'
import type { Evaluated } from '../evaluate/line'

/** What the last of some lines comes to. */
function last(...sources: string[]): Evaluated {
  const evaluator = new FolioEvaluator()
  evaluator.setLines(sources.map((source, k) => ({ id: `l${k}`, source })))
  evaluator.update()
  const result = evaluator.result(`l${sources.length - 1}`)
  if (!result) throw new Error('a line without a result')
  return result.evaluated
}

const codes = ({ hints }: Evaluated): readonly string[] => hints.map((hint) => hint.code)

describe('what is noted below a term is noted with its line', () => {
  test.each([
    ['sin(30)', true],
    ['[sin(30*k) for k = 1 to 3]', true],
    ['each(sin([30, 60]))', true],
    ['sum(cos(k) for k = 1 to 3)', true],
    ['sin(0 to 90 step 30)', true],
    ['e^(j*sin(30))', true],
    ['exp(sin(30))', true],
    ['[10, 20][sin(90)]', true],
    ['sin(30°)', false],
    ['[3, 4][last]', false],
    ['e^(j*30°)', false],
  ])('%s', (line, depends) => {
    const { angleUnitUsed, problem } = last(line)
    expect(problem).toBeNull()
    expect(angleUnitUsed).toBe(depends)
  })

  test('a function that reads a bare number as an angle makes the line that calls it depend on the unit', () => {
    const called = last('f(x) = sin(x)', 'f(30)')
    expect(called.angleUnitUsed).toBe(true)
    expect(called.bare.size).toBe(0)
    expect(called.value).toMatchObject({ re: 0.5 })
    expect(last('f(x) = sin(x)', 'f(30°)').angleUnitUsed).toBe(false)
  })

  test('hints about the body of a function stay with its line', () => {
    expect(codes(last('f(x) = x/0', 'f(1)'))).toEqual([])
    expect(codes(last('1/0'))).toEqual(['infinite-result'])
  })
})

describe('what is different below a term ends with it', () => {
  test('in the exponent of e an angle is its radians, outside it is an angle', () => {
    expect(last('e^(j*180°)').value).toMatchObject({ re: -1, im: 0 })
    expect(last('e^(j*90°)*30°').problem?.code).toBe('angle-with-complex')
    expect(last('exp(j*90°) + exp(-j*90°)').value).toMatchObject({ re: 0, im: 0 })
  })

  test('each( ) reaches as far as its bracket', () => {
    expect(last('each([1, 2]*[3, 4])').value).toMatchObject({ kind: 'vector' })
    expect(last('each([1, 2]*[3, 4]) + [1, 2]*[3, 4]').problem?.code).toBe('vector-product')
  })

  test('last is of the innermost index', () => {
    expect(last('v = [2, 3, 1]', 'v[v[last]]').value).toMatchObject({ re: 2 })
    expect(last('v = [2, 3, 1]', 'w = [1, 2]', 'v[w[last] + last - 2]').value).toMatchObject({ re: 1 })
    expect(last('v = [2, 3, 1]', 'v[last] + last').problem?.code).toBe('unknown-name')
  })

  test('a counter is a name inside its series only, and the innermost of its name', () => {
    expect(last('k = 100', '[k for k = 1 to 3][2] + k').value).toMatchObject({ re: 102 })
    expect(last('sum(sum(k for k = 1 to 2)*k for k = 1 to 3)').value).toMatchObject({ re: 18 })
    expect(last('k + 1', 'sum(k for k = 1 to 2) + k').problem?.code).toBe('unknown-name')
  })

  test('parameters shadow what is kept, and what is captured stays as it was', () => {
    expect(last('a = 2', 'f(x) = a*x', 'a = 5', 'f(10)').value).toMatchObject({ re: 20 })
    expect(last('x = 7', 'f(x) = x + 1', 'f(1) + x').value).toMatchObject({ re: 9 })
    expect(last('f(x) = x^2', 'g(x) = f(x + 1)', 'x = 3', 'g(1) + x').value).toMatchObject({ re: 7 })
    expect(last('f(x) = sum(x*k for k = 1 to 3)', 'f(2)').value).toMatchObject({ re: 12 })
  })
})
