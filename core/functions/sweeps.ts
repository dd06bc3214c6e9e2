import { integer, vector } from '../values/make'
import { pointsOf, POINTS_MOST, sweepOf } from '../values/sweeps'
import { failure } from '../values/failure'
import { first, free, keep } from './measures'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'

/** The chapter on sweeps: to and from vectors. */

/** Most points that become the entries of a vector. */
const ENTRIES_MOST = 1_000_000

export const sweepFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'vector',
    measures: first,
    group: 'sweeps',
    parameters: [take.pointsOf('s')],
    sweeps: true,
    summary: 'The points of a sweep, or of a range, as a vector.',
    examples: [
      { entry: 'vector(0 to 3)', gives: '[0, 1, 2, 3]' },
      { entry: 'vector(1 to 0 step -0.25)', gives: '[1, 0.75, 0.5, 0.25, 0]' },
      { entry: 'count(vector(0 to 1 step 0.1))', gives: '11' },
    ],
    apply: ([value]) => {
      if (value.kind === 'vector') return value
      if (value.count > ENTRIES_MOST) return failure('too-many-entries', { count: value.count, limit: ENTRIES_MOST })
      return vector(pointsOf(value))
    },
  }),
  define({
    name: 'sweep',
    measures: keep,
    group: 'sweeps',
    parameters: [take.entriesOf('v')],
    sweeps: true,
    summary: 'A sweep that takes the entries of a vector, one after another.',
    examples: [
      { entry: 'count(sweep([5, 7, 9]))', gives: '3' },
      { entry: 'sweep([1, 2, 3])^2', gives: '3 points, 1 … 9' },
      { entry: 'sweep([1, 4])[2]', gives: '4' },
    ],
    apply: ([value]) => {
      if (value.kind === 'sweep') return value
      const { items } = value
      if (items.length > POINTS_MOST) return failure('too-many-points', { count: items.length, limit: POINTS_MOST })
      const found = sweepOf({ values: new Float64Array(0), name: null, angle: false, decades: false }, items)
      // Of real numbers the sweep is its own quantity; of anything else its points are counted.
      const own = found.of === 'number' && found.im === null
      const values = own ? found.re : Float64Array.from(items, (_, k) => k + 1)
      return { ...found, axis: { values, name: null, angle: false, decades: false } }
    },
  }),
  define({
    name: 'count',
    measures: free,
    group: 'sweeps',
    parameters: [take.counted('x')],
    sweeps: true,
    summary: 'How many entries a vector or matrix has, or how many points a sweep.',
    examples: [
      { entry: 'count([4, 5, 6])', gives: '3' },
      { entry: 'count(0 to 1 step 0.1)', gives: '11' },
      { entry: 'count(10 to 1000 per decade 10)', gives: '21' },
    ],
    apply: ([of]) => {
      if (of.kind === 'sweep') return integer(of.count)
      return integer(of.kind === 'vector' ? of.items.length : of.rows * of.cols)
    },
  }),
]
