import { reckon } from '#core/testing'
import { spokenResult } from './spoken'

const said = (...lines: readonly string[]): string => spokenResult(reckon(lines).at(-1)!.view)

test.each([
  [['3 + 4j'], '3 + 4j, 5 angle 53.13°'],
  [['2*3'], '6'],
  [['abs(3 + 4j) ~~ 5'], 'agrees to all places'],
  [['[1, 2j]'], 'vector of 2: 1; 0 + 2j, 2 angle 90°'],
  [['vector(1 to 9)'], 'vector of 9: 1; 2; 3; 4; 5; 6; and 3 more'],
  [['[[1, 2], [3, 4]]'], '2 by 2 matrix, row 1: 1, 2; row 2: 3, 4'],
  [['identity(5)'], '5 by 5 matrix, its corner, row 1: 1, 0, 0; row 2: 0, 1, 0; row 3: 0, 0, 1'],
  [['1 to 4'], '4 points, from 1 to 4'],
  [['unknown s', 's^2 + 1'], 's^2 + 1'],
  [['# a remark'], ''],
])('%j', (lines, text) => {
  if (lines[0]?.includes('~~')) expect(said(...lines)).toMatch(/^agrees/)
  else expect(said(...lines)).toBe(text)
})

test('an error is said as the sentence it has', () => {
  expect(said('a = 5', 'A + 1')).toMatch(/^error: A is not known here/)
})
