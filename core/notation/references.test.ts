import * as fc from 'fast-check'
import { standardName } from '../functions/registry'
import { reckon } from '../testing'
import { parseLine } from './parser'
import { ownNames, references } from './references'
import { freeName, renameEverywhere, whyNotKept } from './rename'

const isFunction = (name: string): boolean => standardName(name) !== null
const rename = (lines: readonly string[], from: string, to: string) =>
  renameEverywhere(lines, from, to, 'j', isFunction)
const after = (lines: readonly string[], from: string, to: string): string[] => {
  const { problem, changes } = rename(lines, from, to)
  expect(problem).toBeNull()
  return lines.map((line, k) => changes.find((c) => c.index === k)?.source ?? line)
}
const named = (source: string): string[] => references(parseLine(source)).map((r) => `${r.role} ${r.name}`)

describe('where names stand', () => {
  test.each([
    ['Z = R + j*w*L', ['definition Z', 'use R', 'use j', 'use w', 'use L']],
    ['f(x) = a*x + 2b', ['definition f', 'use a', 'use b']],
    ['sum(k*R for k = 1 to n)', ['use sum', 'use k', 'use R', 'use n'].filter((n) => n !== 'use k')],
    ['|Z|^2 + [a, b][c] ~~ 3 within d  # R', ['use Z', 'use a', 'use b', 'use c', 'use d']],
    ['if(x > 1, y, -z)', ['use if', 'use x', 'use y', 'use z']],
    ['5∠phi || √w', ['use phi', 'use w']],
    ['"R" == t', ['use t']],
    ['', []],
  ])('%s', (source, expected) => expect(named(source)).toEqual(expected))

  test('a line that cannot be read is searched word by word', () =>
    expect(named('Z = (R + 2x')).toEqual(['definition Z', 'use R', 'use x']))

  test('own names', () => {
    expect([...ownNames(parseLine('f(x, y) = x*sum(k for k = 1 to y)'))]).toEqual(['x', 'y', 'k'])
    expect([...ownNames(parseLine('x + 1'))]).toEqual([])
  })
})

describe('renaming', () => {
  test('every definition and use, and nothing else', () =>
    expect(
      after(['R = 47  # R in ohms', 'Z = R + 2R*j', 'f(R) = R^2', 'T = "R"', 'R = 1', 'R2 = R'], 'R', 'R_lamp'),
    ).toEqual([
      'R_lamp = 47  # R in ohms',
      'Z = R_lamp + 2R_lamp*j',
      'f(R) = R^2',
      'T = "R"',
      'R_lamp = 1',
      'R2 = R_lamp',
    ]))

  test('digits before a name that would make one number get a sign', () =>
    expect(after(['x = 4', '2x'], 'x', 'e3')).toEqual(['e3 = 4', '2*e3']))

  test('a function with its calls', () =>
    expect(after(['g(x) = x^2', 'g(3) + 2g(1)'], 'g', 'square')).toEqual(['square(x) = x^2', 'square(3) + 2square(1)']))

  test.each([
    ['b', 'name-taken'],
    ['pi', 'constant-reserved'],
    ['mod', 'reserved-word'],
    ['sin', 'function-reserved'],
    ['j', 'letter-reserved'],
    ['2x', 'not-a-name'],
    ['', 'not-a-name'],
    ['x y', 'not-a-name'],
    ['k', 'name-caught'],
    ['i', 'name-read-otherwise'],
    ['j4', 'name-read-otherwise'],
    ['n', 'name-read-otherwise'],
  ])('to %s is refused', (to, code) => {
    const lines = ['a = 1', 'b = 2', 'sum(a*k for k = 1 to 3)', '3i + j4', '33n']
    expect(rename(lines, 'a', to).problem?.code).toBe(code)
    expect(rename(lines, 'a', to).changes).toEqual([])
  })

  test('to itself changes nothing', () => expect(rename(['a = 1'], 'a', 'a')).toEqual({ problem: null, changes: [] }))

  test('what lines are worth stays, whatever the new name', () => {
    const lines = ['q = 3 + 4j', 'r = 2q + 1/2q', 's = |q|^q', 'q', 't(x) = x*q', 't(2) + r*q']
    const values = reckon(lines).map((r) => r.text)
    fc.assert(
      fc.property(fc.stringMatching(/^[a-zA-Z_][a-z0-9_]{0,3}$/), (to) => {
        const { problem, changes } = rename(lines, 'q', to)
        if (problem) return
        const renamed = lines.map((line, k) => changes.find((c) => c.index === k)?.source ?? line)
        expect(reckon(renamed).map((r) => r.text)).toEqual(values)
      }),
      { numRuns: 150 },
    )
  })
})

test('what can be kept', () => {
  expect(whyNotKept('θ', 'j', isFunction)).toBeNull()
  expect(whyNotKept('Z_1', 'j', isFunction)).toBeNull()
  expect(whyNotKept('i', 'j', isFunction)).toBeNull()
})

test('the next free name', () => {
  expect(freeName(new Set())).toBe('x1')
  expect(freeName(new Set(['x1', 'x2', 'x4']))).toBe('x3')
})
