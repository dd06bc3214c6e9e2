import type { Column, DataTable } from '../measured/data'
import { fromDense } from '../values/matrices'
import { angleSweep, madeSweep, numberSweep, pointAt } from '../values/sweeps'
import { failure } from '../values/failure'
import type { Axis, SweepValue, Value } from '../values/types'
import type { Context } from '../operators/context'
import { measureOf } from '../quantities/shape'
import { measuresAlike } from '../quantities/sums'
import { PLAIN } from '../units/measure'
import { quantityWords } from '../units/named'
import { inUnit } from '../quantities/attach'
import { factorNumber } from '../units/unit'
import { bare } from '../values/quantity'
import { define } from '../signatures/definition'
import type { FunctionDefinition } from '../signatures/definition'
import * as take from '../signatures/take'
import type { Measured } from '../signatures/definition'

/** The chapter on measured data: taking it up, and putting a sweep on the points of another. */

const column = (name: string, values: readonly number[], unit: string): Column => ({ name, unit, order: 1, re: Float64Array.from(values), im: null }) // prettier-ignore

/** Two points of a lamp, for the examples. */
const BULB = {
  name: 'bulb.csv',
  data: {
    kind: 'table',
    rows: 2,
    columns: [column('V', [2, 6], 'V'), column('I', [0.2, 0.4], 'A')],
    parameter: 0,
  } satisfies DataTable,
}

export const enclosureFunctions: readonly FunctionDefinition[] = [
  define({
    name: 'enclosure',
    opaque: true,
    group: 'sweeps',
    parameters: [take.text('name'), take.optional(take.text('as'))],
    summary:
      'Measured data that is kept with the folio: a matrix, or its columns as parts that are sweeps, with the units of the file; with "numbers" behind it without them.',
    examples: [
      { entry: 'enclosure("bulb.csv").I[2]', gives: '0.4 A', enclosed: BULB },
      {
        entry: 'bulb.V/bulb.I',
        gives: '2 points, 10 … 15 Ω',
        before: ['bulb = enclosure("bulb.csv")'],
        enclosed: BULB,
      },
      { entry: 'enclosure("bulb.csv").V[1]', gives: '2 V', enclosed: BULB },
      { entry: 'enclosure("bulb.csv", "numbers").V[1]', gives: '2', enclosed: BULB },
    ],
    apply: ([name, as], context) => {
      const value = context.enclosure(name.text)
      if (as === undefined || value.kind === 'failure') return value
      return as.text === 'numbers'
        ? withoutUnits(value)
        : failure('domain', { name: 'enclosure', needs: '"numbers" or nothing as its second argument' })
    },
  }),
  define({
    name: 'along',
    measures: alongMeasures,
    infix: true,
    typesetting: { as: 'word between', word: 'along' },
    group: 'sweeps',
    parameters: [take.sweep('Z'), take.realSweep('f')],
    sweeps: true,
    summary: 'Z along f: a sweep at the points of another, between its own by straight lines, undefined outside.',
    examples: [
      {
        entry: 'y along x',
        gives: '3 points, 5 … 25',
        before: ['a = 0 to 3', 'y = 10*a', 'x = 0.5 to 2.5'],
      },
      {
        entry: '(z along x)[1]',
        gives: '0.5 + 0.5j',
        before: ['a = 0 to 1 count 2', 'z = if(a < 0.5, 1, j)', 'x = 0.5 to 1.5'],
      },
      { entry: '(y along x)[2]', gives: 'undefined', before: ['a = 0 to 1', 'y = 2a', 'x = 1 to 2'] },
    ],
    apply: ([z, f], context) => along(z, f, context),
  }),
]

/** Z keeps what it measures; f measures what Z runs along. */
function alongMeasures([z, f]: readonly Value[]): Measured {
  if (!z || !f) return PLAIN
  const inner = bare(z)
  const along = (inner.kind === 'sweep' ? inner.axis.unit?.measure : undefined) ?? PLAIN
  const fits = measuresAlike(along, measureOf(f), 'put together')
  if ('code' in fits) return failure('unit-alike', { name: 'along', one: quantityWords(along), other: quantityWords(measureOf(f)) }) // prettier-ignore
  return z.kind === 'quantity' ? z.measure : PLAIN
}

/** Linear interpolation of real and imaginary part over what Z runs along. */
function along(z: SweepValue, f: SweepValue, context: Context): Value {
  const knots = knotsOf(z.axis)
  const places = placesOf(f.re, z.axis.values, knots)
  const outside = places.filter(({ share }) => Number.isNaN(share)).length
  if (outside > 0 && context.at) context.hint('along-outside', context.at, { points: outside })
  return interpolated(z, places, f.axis)
}

/** The numbers as the file has them. */
function withoutUnits(value: Value): Value {
  if (value.kind !== 'parts') return value
  return { ...value, parts: new Map([...value.parts].map(([name, part]) => [name, columnAsWritten(part)])) }
}

function columnAsWritten(part: Value): Value {
  const inner = part.kind === 'quantity' ? (part.unit ? inUnit(part.value, part.unit) : part.value) : part
  if (inner.kind !== 'sweep') return inner
  const { unit, ...axis } = inner.axis
  if (!unit) return inner
  // What is the parameter itself was counted in its unit with its numbers.
  const own = inner.re === inner.axis.values
  const factor = own ? 1 : factorNumber(unit)
  return { ...inner, axis: { ...axis, values: factor === 1 ? axis.values : axis.values.map((x) => x / factor) } }
}

/** The points in the order of the parameter; those without one are left out. */
function knotsOf({ values }: Axis): Uint32Array {
  let rising = true
  for (let k = 1; k < values.length; k += 1) if (!((values[k] as number) > (values[k - 1] as number))) rising = false
  const all = Uint32Array.from(values, (_, k) => k)
  if (rising && !Number.isNaN(values[0] ?? NaN)) return all
  return all.filter((k) => !Number.isNaN(values[k] ?? NaN)).sort((a, b) => (values[a] ?? 0) - (values[b] ?? 0) || a - b)
}

/** Between which points a place lies, and how far from the first to the second; NaN outside. */
interface Between {
  readonly low: number
  readonly high: number
  readonly share: number
}

function placesOf(targets: Float64Array, values: Float64Array, knots: Uint32Array): Between[] {
  const at = (k: number): number => values[knots[k] ?? 0] ?? NaN
  const last = knots.length - 1
  return Array.from(targets, (x): Between => {
    if (!(x >= at(0) && x <= at(last))) return { low: 0, high: 0, share: NaN }
    let [low, high] = [0, last]
    while (high - low > 1) {
      const middle = (low + high) >> 1
      if (at(middle) <= x) low = middle
      else high = middle
    }
    // At a point itself it is that point, to the last bit; of several there the last.
    if (at(high) === x) low = high
    const [a, b] = [at(low), at(high)]
    return { low: knots[low] ?? 0, high: knots[high] ?? 0, share: a === x ? 0 : (x - a) / (b - a) }
  })
}

function interpolated(z: SweepValue, places: readonly Between[], axis: Axis): Value {
  const part = (values: Float64Array): Float64Array =>
    Float64Array.from(places, ({ low, high, share }) => mix(values[low] ?? NaN, values[high] ?? NaN, share))
  if (z.of === 'angle') return angleSweep(axis, part(z.re))
  if (z.of === 'number') return numberSweep(axis, part(z.re), z.im && part(z.im), z.complex)
  return madeSweep(axis, (k) => {
    const { low, high, share } = places[k] ?? { low: 0, high: 0, share: NaN }
    const [a, b] = [pointAt(z, low), pointAt(z, high)]
    if (share === 0) return a
    if (a.kind !== 'matrix' || b.kind !== 'matrix' || a.rows !== b.rows || a.cols !== b.cols) return a
    const between = (x: Float64Array, y: Float64Array): Float64Array => x.map((v, n) => mix(v, y[n] ?? NaN, share))
    const [re, im] = [between(a.dense.re, b.dense.re), between(a.dense.im, b.dense.im)]
    return fromDense({ rows: a.rows, cols: a.cols, re, im }, a.complex || b.complex)
  })
}

function mix(a: number, b: number, share: number): number {
  return share === 0 ? a : a + (b - a) * share
}
