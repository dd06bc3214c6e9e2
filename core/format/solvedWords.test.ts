import { integer, real } from '../values/make'
import { numberSweep } from '../values/sweeps'
import type { Solved, Value } from '../values/types'
import { lineList } from './lineList'
import { solvedWords } from './solvedWords'

const PLAIN: Solved = {
  equations: 2,
  solutions: 1,
  multiplicities: [],
  free: [],
  spare: 0,
  way: 'elimination',
  exact: true,
  residual: null,
  more: false,
  uses: [],
  system: null,
  nonlinear: null,
  roots: null,
}
const TWO = new Map<string, Value>([
  ['x', integer(1)],
  ['y', real(2)],
])

test.each([
  [{}, '2 equations, 2 sought, one solution'],
  [{ equations: 1, free: ['y'] }, '1 equation, 2 sought, y stays free'],
  [{ equations: 1, free: ['x', 'y'] }, '1 equation, 2 sought, x and y stay free'],
  [{ equations: 3, spare: 1 }, '3 equations, 2 sought, one solution; one equation follows from the others'],
  [{ equations: 4, spare: 2 }, '4 equations, 2 sought, one solution; two equations follow from the others'],
  [{ solutions: 2, way: 'roots' as const }, '2 equations, 2 sought, two solutions'],
  [
    { solutions: 2, multiplicities: [1, 3], way: 'roots' as const },
    '2 equations, 2 sought, two solutions; number 2 is threefold',
  ],
  [{ multiplicities: [2], way: 'roots' as const }, '2 equations, 2 sought, one solution; it is double'],
  [
    { solutions: 12, way: 'search' as const, more: true },
    '2 equations, 2 sought, 12 solutions found; there may be more',
  ],
])('%o is told as %s', (change, text) => {
  expect(solvedWords({ ...PLAIN, ...change }, TWO)).toBe(text)
})

test('along a sweep there is a solution at each point', () => {
  const axis = { values: Float64Array.of(1, 2), name: 'w', angle: false, decades: false }
  const swept = new Map<string, Value>([['x', numberSweep(axis, Float64Array.of(1, 2), null)]])
  expect(solvedWords({ ...PLAIN, equations: 1 }, swept)).toBe('1 equation, 1 sought, one solution at each point')
})

test('lines are listed as they are read', () => {
  expect([lineList([3]), lineList([3, 5]), lineList([3, 5, 8])]).toEqual([
    'line 3',
    'lines 3 and 5',
    'lines 3, 5 and 8',
  ])
})
