import { reckon } from '#core/testing'
import type { LineView } from '#core/views/lineView'
import { initialOf, nameIndex } from './nameIndex'

function index(...sources: string[]) {
  const lines = sources.map((source, k) => ({ id: String(k), source }))
  const views = new Map<string, LineView>(reckon(sources).map((r, k) => [String(k), r.view]))
  return nameIndex(lines, views)
}

test('names are in the order of the alphabet, with kind, value and line', () => {
  const entries = index('Z = 3 + 4j', 'a = 1/4', 'phi = 30°', 'f(x) = a*x', 'v = [1, 2, 3]', 'Y = 1/(', 'B = 1 < 2')
  expect(entries.map((e) => [e.name, e.kind, e.value, e.number])).toEqual([
    ['a', 'real', '0.25', 2],
    ['B', 'true or false', 'true', 7],
    ['f', 'function', '', 4],
    ['phi', 'angle', '30°', 3],
    ['v', 'vector of 3', '[1, 2, 3]', 5],
    ['Y', 'in error', '', 6],
    ['Z', 'complex', '3 + 4j', 1],
  ])
})

test('a name defined twice shows both, each with the lines that use it', () => {
  const entries = index('R = 1', '2R', 'R = R + 1', 'R*3', 'Z10 = 1', 'Z2 = R')
  expect(entries.map((e) => [e.name, e.number, e.twice, e.usedIn])).toEqual([
    ['R', 1, true, [2, 3]],
    ['R', 3, true, [4, 6]],
    ['Z2', 6, false, []],
    ['Z10', 5, false, []],
  ])
})

test.each([
  ['Z_lamp', 'Z'],
  ['ω', 'Ω'],
  ['omega', 'O'],
  ['x', 'X'],
])('%s is found under %s', (name, initial) => expect(initialOf(name)).toBe(initial))
