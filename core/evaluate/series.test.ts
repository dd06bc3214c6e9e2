import { reckon } from '../testing'

const text = (...lines: string[]): string => reckon(lines).at(-1)!.text
const code = (...lines: string[]): string | undefined => reckon(lines).at(-1)!.error?.code

describe('rows of values', () => {
  test.each([
    ['[1, 2/4, 3j]', '[1, 0.5, 0 + 3j]'],
    ['[k^2 for k = 1 to 4]', '[1, 4, 9, 16]'],
    ['[k for k = 0 to 1 step 1/4]', '[0, 0.25, 0.5, 0.75, 1]'],
    ['[k for k = 3 to 1 step -1]', '[3, 2, 1]'],
    ['[2k for k = 1 to 3]', '[2, 4, 6]'],
    ['sum(k for k = 1 to 100)', '5050'],
    ['sum(1/k for k = 1 to 3)', '1.8333'],
    ['product(k for k = 1 to 5)', '120'],
    ['sum(k for k = 1 to 0)', '0'],
    ['product(k for k = 1 to 0)', '1'],
    ['sum(j^k for k = 0 to 3)', '0 + 0j'],
    ['sum(sum(i*k for k = 1 to 2) for i = 1 to 3)', '18'],
    ['max([3, 9, 2])', '9'],
    ['mean([1, 2, 6])', '3'],
    ['mean(k for k = 1 to 2001)', '1001'],
    ['par([6, 3])', '2'],
    ['[1, 2] + [3, 4]', '[4, 6]'],
    ['2*[1, 2j] - [1, 1]', '[1, -1 + 4j]'],
    ['-[1, 2]/2', '[-0.5, -1]'],
    ['sqrt([4, 9])', '[2, 3]'],
    ['|[3, 4]|', '5'],
    ['||[3, 4j]||', '5'],
    ['[1, 2j]^*', '[1, 0 - 2j]'],
    ['[10, 20, 30][2]', '20'],
    ['"word"[1]', 'w'],
    ['sin([30°, 90°])', '[0.5, 1]'],
  ])('%s is %s', (entry, expected) => expect(text(entry)).toBe(expected))

  test('exact where the entries are', () => {
    const [line] = reckon(['sum(1/k for k = 1 to 10)'], { exact: 'fraction' })
    expect(line!.text).toBe('7381/2520')
  })
  test('the counter is a name in the body only', () => {
    expect(text('k = 7', 'sum(k for k = 1 to 3) + k')).toBe('13')
    expect(code('sum(n for k = 1 to 3)')).toBe('unknown-name')
    expect(code('sum(1 for j = 1 to 3)')).toBe('letter-reserved')
  })
  test('all roots: their powers are the number, the first is the principal one', () => {
    for (const [z, n] of [
      ['-8', 3],
      ['1+2j', 5],
      ['16', 4],
      ['-1', 2],
    ] as const) {
      const lines = reckon([
        `r = everyroot(${z}, ${n})`,
        `sum(r[k]^${n} for k = 1 to ${n})/${n} - (${z})`,
        `r[1] - root(${z}, ${n})`,
        'sum(r)',
      ])
      for (const k of [1, 2, 3]) {
        const { value } = lines[k]!
        if (value?.kind !== 'number') throw new Error('a number is expected')
        expect(Math.hypot(value.re, value.im)).toBeLessThan(1e-14)
      }
    }
  })
  test.each([
    ['[1, 2', 'unclosed'],
    ['[]', 'empty-list'],
    ['[1 -2]', 'comma-missing'],
    ['[1 2]', 'missing-operator'],
    ['[1, [2]]', 'vectors-in-list'],
    ['[1, 2] + 1', 'vector-plus-number'],
    ['[1, 2] * [3, 4]', 'vector-product'],
    ['[1, 2] + [1, 2, 3]', 'lengths-differ'],
    ['[1, 2][3]', 'entry-range'],
    ['[1, 2][0.5]', 'entry-range'],
    ['(5)[1]', 'no-entries'],
    ['[k for k = 1 to 10^9]', 'too-many-entries'],
    ['[k for k = 1 to 5 step 0]', 'step-zero'],
    ['[k for k = 1 to 5 step -1]', 'step-direction'],
    ['[k for k = 1 to 2j]', 'series-bound'],
    ['[k for k]', 'series-form'],
    ['k for k = 1 to 2', 'not-definable'],
    ['max(k for k = 1 to 0)', 'domain'],
  ])('%s: %s', (entry, expected) => expect(code(entry)).toBe(expected))
  test('a long row is stopped by the budget, soon', () => {
    const start = Date.now()
    expect(code('sum(sum(sin(i*k) for k = 1 to 1000) for i = 1 to 100000)')).toBe('too-long')
    expect(Date.now() - start).toBeLessThan(2000)
  })
})

test('huge exact numbers do not get round the clock', () => {
  const start = Date.now()
  const [line] = reckon(['sum(1/(7^900 + k) for k = 1 to 90000)'])
  expect(line!.error?.code ?? 'done').toMatch(/too-long|done/)
  expect(Date.now() - start).toBeLessThan(3000)
})

describe('the headless fields of a vector', () => {
  test('are arrays of parts', async () => {
    const { valueFields } = await import('../kinds/kinds')
    const { DEFAULT_CONVENTIONS } = await import('../format/conventions')
    const [line] = reckon(['[1/2, 2j]'])
    expect(valueFields(line!.value!, DEFAULT_CONVENTIONS)).toEqual({
      kind: 'vector',
      exact: true,
      re: [0.5, 0],
      im: [0, 2],
      fraction: ['1/2', '2j'],
    })
  })
})
