import { GroupReader, readAmong, readInOrder, readLike } from './groups'
import { parseEquation, parseLine } from './parser'
import { references } from './references'

/** What each line is to its group: the number of an equation, the role of any other, nothing outside. */
function roles(lines: readonly string[]): readonly (string | number | null)[] {
  return readInOrder(lines.map(parseLine)).map(({ place }) => {
    if (place === null) return null
    return place.role === 'equation' ? place.number : place.role
  })
}

describe('sought and determine are read', () => {
  test.each([
    ['sought x', ['x']],
    ['sought I1, I2', ['I1', 'I2']],
    ['sought I1,I2 , U_3', ['I1', 'I2', 'U_3']],
    ['sought φ, ω', ['φ', 'ω']],
    ['sought x  # the current', ['x']],
  ])('%s', (source, names) => {
    const { statement, problem } = parseLine(source)
    expect(problem).toBeNull()
    expect(statement.type === 'sought' && statement.names.map(({ name }) => name)).toEqual(names)
  })

  test.each([
    ['determine', [], []],
    ['determine  # here', [], []],
    ['determine near x = 2', ['x'], []],
    ['determine near x = 2 A, y = 3∠30°', ['x', 'y'], []],
    ['determine from t = 0 to 5 ms', [], ['t']],
    ['determine from t = 0 to 5 ms, u = -1 to 1', [], ['t', 'u']],
  ])('%s', (source, near, between) => {
    const { statement, problem } = parseLine(source)
    expect(problem).toBeNull()
    if (statement.type !== 'determine') throw new Error('determine')
    expect(statement.near.map(({ name }) => name.name)).toEqual(near)
    expect(statement.between.map(({ name }) => name.name)).toEqual(between)
  })

  test.each([
    ['sought x,', 'unfinished'],
    ['sought x y', 'names-comma'],
    ['sought x, y z', 'names-comma'],
    ['unknown to s', 'odd-character'],
    ['unknown s in 1/s t', 'names-comma'],
    ['determine near', 'determine-form'],
    ['determine near x', 'determine-form'],
    ['determine near x + 1', 'determine-form'],
    ['determine from x = 3', 'determine-form'],
    ['determine from x = 0 to 5 count 3', 'determine-form'],
  ])('%s is not finished, or not one', (source, code) => {
    expect(parseLine(source).problem?.code).toBe(code)
  })
})

describe('equations are read from both sides', () => {
  test.each([
    'x = 3',
    '3 = x',
    'R*(x + y) - 2x = 12 V',
    'x^2 + y^2 = 25',
    'abs(x) = 5',
    'f(x) = 0',
    '[x, y] = [1, 2]',
    '|x| = |y|',
    'e^(-t/T) = 0.1',
  ])('%s', (source) => {
    const { statement, problem } = parseEquation(source)
    expect([source, problem, statement.type]).toEqual([source, null, 'equation'])
    if (statement.type !== 'equation') return
    const at = source.indexOf('=')
    expect(source.slice(statement.left.from, statement.left.to)).toBe(source.slice(0, at).trim())
    expect(source.slice(statement.right.from, statement.right.to)).toBe(source.slice(at + 1).trim())
  })

  test.each([
    ['x = ', 'unfinished'],
    ['x + = 3', 'operand-expected'],
    ['x = 3 = y', 'second-equals'],
    ['(x = 3', 'second-equals'],
  ])('%s is refused', (source, code) => {
    expect(parseEquation(source).problem?.code).toBe(code)
  })

  test('their names are found on both sides, also behind digits, not in units', () => {
    const names = references(parseEquation('2x + R*I = 12 V')).map(({ name, role }) => [name, role])
    expect(names).toEqual([
      ['x', 'use'],
      ['R', 'use'],
      ['I', 'use'],
    ])
  })
})

describe('what a line is to its group', () => {
  test('follows from what is sought above it', () => {
    expect(roles(['R = 4', 'sought x, y', 'R = 5', 'x = 2', '3*y = R', '# a note', 'determine', 'x = 3'])).toEqual([
      null,
      'sought',
      'member',
      1,
      2,
      'member',
      'determine',
      null,
    ])
  })

  test('names that follow from sought ones make equations, until they are defined otherwise', () => {
    expect(roles(['sought x', 'd = 2*x', 'abs(d) = 4', 'd = 5', 'abs(d) = 5', 'determine'])).toEqual([
      'sought',
      'member',
      1,
      'member',
      'member',
      'determine',
    ])
  })

  test('numbers begin anew with each group, and go on where a second sought adds to one', () => {
    expect(roles(['sought x', 'x = 1', 'sought y', 'y = 2', 'determine', 'sought z', 'z = 3', 'determine'])).toEqual([
      'sought',
      1,
      'sought',
      2,
      'determine',
      'sought',
      1,
      'determine',
    ])
  })

  test('a function of one’s own is defined, a kept one of a sought name is an equation', () => {
    expect(roles(['sought x', 'f(t) = t*x', 'g(x) = 4', 'determine'])).toEqual(['sought', 'member', 1, 'determine'])
  })

  test('determine alone belongs to no group', () => {
    expect(roles(['determine', 'x = 3'])).toEqual([null, null])
  })
})

test('a text is read among equations as it would be in their place', () => {
  const among = (source: string): string => readAmong(parseLine(source), new Set(['x']), new Set(['d'])).statement.type
  expect([among('x = 3'), among('y = 3'), among('2*d = 6'), among('x == 3')]).toEqual([
    'equation',
    'define',
    'equation',
    'expression',
  ])
  expect(readAmong(parseLine('x = 3'), null, new Set()).statement.type).toBe('define')
  expect(readLike(parseEquation('x = 3'), 'y = 3').statement.type).toBe('equation')
  expect(readLike(parseLine('x = 3'), 'y = 3').statement.type).toBe('define')
})

test('an equation in which nothing is sought says so, with what is', () => {
  const reader = new GroupReader()
  reader.read(parseLine('sought a, b'))
  const { parsed, place } = reader.read(parseLine('2*3 = 6'))
  expect([parsed.problem?.code, place?.role]).toEqual(['nothing-sought', 'member'])
})
