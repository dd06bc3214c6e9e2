import type { Conventions } from '../format/conventions'
import { numeral } from '../format/json'
import type { Json } from '../format/json'
import { formatNumber, NOISE, twin, quietBelow } from '../format/number'
import type { SweepReadout, Twin } from '../format/readout'
import type { Column, Data } from '../measured/data'
import * as C from '../numbers/complex'
import { stepMarked } from '../control/responseMarks'
import { sweepData } from '../scene/sweepData'
import { real, vector } from '../values/make'
import { angleSweep, pickPoints, pointAt, pointsOf, sameAxis, sameNumbers } from '../values/sweeps'
import type { SweepValue, Value } from '../values/types'
import { factorNumber } from '../units/unit'
import { angleHead, csvNumber, csvText, PLAIN } from './kind'
import type { Copies, Fields, KindOf, Writing } from './kind'
import { doublesOfAll } from './weight'

/** Most points of a sweep that are copied as an entry. */
const COPIED_MOST = 2_000

/** Quantities with many values. */
export const sweep: KindOf<SweepValue> = {
  ...PLAIN,
  words: 'a sweep',
  text(value, to) {
    const floor = noiseFloor(value)
    const side = (k: number): string => to.text(quieted(pointAt(value, k), floor))
    return `${value.count} points, ${side(0)} … ${side(value.count - 1)}`
  },
  readout: (value, to, name) => shortly(value, to, name),
  fields(value, to): Fields {
    const { of, count, re, im } = value
    const list = (x: Float64Array): Json[] => Array.from(x, numeral)
    if (of === 'angle') return { kind: 'sweep', count, radians: list(re) }
    if (of === 'number')
      return { kind: 'sweep', count, re: list(re), im: im ? list(im) : Array.from({ length: count }, () => 0) }
    return { kind: 'sweep', count, items: pointsOf(value).map((item) => to.fields(item)) }
  },
  copies: {
    shown: (value, to) => asEntry(value, (points) => to.text(points)),
    full: (value, to) => asEntry(value, (points) => to.full(points)),
    polar: (value, to) => asEntry(value, (points) => to.polar(points)),
    latex: () => null,
    csv: table,
    record: (value, to) => csvText(to.text(value)),
  } satisfies Copies<SweepValue>,
  equals: () => null,
  identical(x, y) {
    if (x.of !== y.of || x.count !== y.count || x.complex !== y.complex || !sameAxis(x.axis, y.axis)) return false
    if (x.of === 'other') return false
    return sameNumbers(x.re, y.re) && (x.im && y.im ? sameNumbers(x.im, y.im) : x.im === y.im)
  },
  entries: {
    range: 'point-range',
    sides: ({ count }) => [count, null],
    take(value, { at, single }) {
      const [only] = at
      return single && only !== undefined ? pointAt(value, only) : pickPoints(value, at)
    },
  },
  atPoints: false,
  doubles({ axis, re, im, items }, of) {
    const own = re === axis.values ? 0 : re.length
    return axis.values.length + own + (im?.length ?? 0) + doublesOfAll(items ?? [], of)
  },
  drawn: ({ of, complex }) => (of === 'number' ? { role: 'arrow', usual: complex, entries: [], locus: true } : null),
  curve: (value) => stepMarked(sweepData(value), value),
  data: tableOf,
}

/** Pairs of low and high that a small curve has at most. */
const BUCKETS = 48

function shortly(value: SweepValue, to: Writing, name: string | null): SweepReadout {
  const { axis, of, complex, count } = value
  const floor = noiseFloor(value)
  return {
    shape: 'sweep',
    count,
    of,
    complex,
    first: pointText(value, 0, to, floor),
    last: pointText(value, count - 1, to, floor),
    along: axis.name !== null && axis.name !== name ? axis.name : null,
    curve: of === 'other' ? [] : smallCurve(value),
    shows: of === 'other' ? null : of === 'angle' ? 'angle' : complex ? 'magnitude' : 'value',
  }
}

/** The value at a point, counted from 0, as it is shown. */
function pointText(value: SweepValue, k: number, to: Writing, floor: number): string | Twin {
  const at = quieted(pointAt(value, k), floor)
  return at.kind === 'number' && value.complex ? twin(at, to.conventions) : to.text(at)
}

/** Below this a part is rounding noise beside the largest value of the sweep. */
function noiseFloor({ of, re, im, axis }: SweepValue): number {
  // The quantity itself has none, and what runs over decades is meant to be small at one end.
  if (of !== 'number' || axis.decades || axis.values === re) return 0
  let largest = 0
  for (const part of im ? [re, im] : [re]) {
    for (let k = 0; k < part.length; k += 1) {
      const x = Math.abs(part[k] as number)
      if (x > largest && x < Infinity) largest = x
    }
  }
  return NOISE * largest
}

function quieted(value: Value, floor: number): Value {
  return value.kind === 'number' ? quietBelow(value, floor) : value
}

/** Every low and high, so that no peak is lost however many points there are. */
function smallCurve({ re, im, count }: SweepValue): number[] {
  const at = (k: number): number => (im ? Math.hypot(re[k] ?? NaN, im[k] ?? 0) : (re[k] ?? NaN))
  if (count <= 2 * BUCKETS) return Array.from({ length: count }, (_, k) => at(k))
  const found: number[] = []
  for (let bucket = 0; bucket < BUCKETS; bucket += 1) {
    const from = Math.floor((bucket * count) / BUCKETS)
    const to = Math.floor(((bucket + 1) * count) / BUCKETS)
    let [low, high, lowAt, highAt] = [Infinity, -Infinity, from, from]
    for (let k = from; k < to; k += 1) {
      const y = at(k)
      if (y < low) [low, lowAt] = [y, k]
      if (y > high) [high, highAt] = [y, k]
    }
    found.push(...(lowAt <= highAt ? [low, high] : [high, low]))
  }
  return found
}

/** A sweep as an entry that reads back, `sweep([…])`; `null` of long ones. */
function asEntry(value: SweepValue, write: (points: Value) => string | null): string | null {
  const text = value.count > COPIED_MOST ? null : write(vector(pointsOf(value)))
  return text && `sweep(${text})`
}

const inUnit = (radians: number, { angle }: Conventions): number =>
  angle === 'deg' ? (radians / Math.PI) * 180 : radians

/** The parameter and the value at every point; of a complex one both parts, magnitude and angle. */
function table(value: SweepValue, to: Writing): string {
  const { conventions } = to
  const { axis, re, im, count } = value
  const own = axis.values === re
  const parameter = own ? [] : [`${axis.name ?? 'parameter'}${axis.unit ? ` / ${axis.unit.text}` : ''}`]
  const factor = factorNumber(axis.unit)
  const heads = value.of === 'angle' ? [angleHead(conventions)] : value.complex ? ['re', 'im', 'magnitude', angleHead(conventions)] : ['value'] // prettier-ignore
  const rows = [[...parameter, ...heads].join(',')]
  for (let k = 0; k < count; k += 1) {
    const x = (axis.values[k] ?? NaN) / factor
    const cells = own ? [] : [csvNumber(axis.angle ? inUnit(x, conventions) : x)]
    const [a, b] = [re[k] ?? NaN, im?.[k] ?? 0]
    if (value.of === 'other') cells.push(to.record(pointAt(value, k), false))
    else if (value.of === 'angle') cells.push(csvNumber(inUnit(a, conventions)))
    else if (value.complex)
      cells.push(...[a, b, C.abs({ re: a, im: b }), inUnit(C.arg({ re: a, im: b }), conventions)].map(csvNumber))
    else cells.push(csvNumber(a))
    rows.push(cells.join(','))
  }
  return rows.join('\r\n')
}

/** Rows of the table of a sweep. */
export interface SweepRows {
  readonly count: number
  readonly along: string | null
  /** The units of the parameter and of the values; left out of plain numbers. */
  readonly alongUnit?: string
  readonly unit?: string
  readonly complex: boolean
  readonly from: number
  readonly rows: readonly { readonly parameter: string | null; readonly value: string | Twin }[]
}

export function sweepRows(value: SweepValue, from: number, wanted: number, to: Writing): SweepRows {
  const { axis, count, complex } = value
  const floor = noiseFloor(value)
  const own = axis.values === value.re
  const factor = factorNumber(axis.unit)
  const angles = axis.angle ? angleSweep(axis, axis.values) : null
  const parameter = (k: number): string | null => {
    if (own) return null
    return angles ? to.text(pointAt(angles, k)) : formatNumber(real((axis.values[k] ?? NaN) / factor), to.conventions)
  }
  const rows = Array.from({ length: Math.max(0, Math.min(wanted, count - from)) }, (_, k) => ({
    parameter: parameter(from + k),
    value: pointText(value, from + k, to, floor),
  }))
  const unit = axis.unit && !own ? { alongUnit: axis.unit.text } : {}
  return { count, along: own ? null : axis.name, ...unit, complex, from, rows }
}

/** A table of the parameter and the values. */
function tableOf(value: SweepValue, name: string): Data | null {
  const column = columnOf(value, name)
  if (!column) return null
  const { axis, count } = value
  const own = axis.values === value.re
  const unit = axis.angle ? 'rad' : (axis.unit?.text ?? '')
  const factor = factorNumber(axis.unit)
  const re = factor === 1 ? axis.values : axis.values.map((x) => x / factor)
  const parameter: Column = { name: axis.name ?? 'parameter', unit, order: 1, re, im: null }
  return { kind: 'table', rows: count, columns: own ? [column] : [parameter, column], parameter: own ? -1 : 0 }
}

/** The values as a column; of matrices where all are square and of one size. */
function columnOf(value: SweepValue, name: string): Column | null {
  if (value.of === 'angle') return { name, unit: 'rad', order: 1, re: value.re, im: null }
  if (value.of === 'number') return { name, unit: '', order: 1, re: value.re, im: value.im }
  const first = pointAt(value, 0)
  if (first.kind !== 'matrix' || first.rows !== first.cols) return null
  const size = first.rows * first.rows
  const re = new Float64Array(size * value.count)
  const im = new Float64Array(size * value.count)
  for (let k = 0; k < value.count; k += 1) {
    const m = pointAt(value, k)
    if (m.kind !== 'matrix' || m.rows !== first.rows || m.cols !== first.rows) return null
    re.set(m.dense.re, k * size)
    im.set(m.dense.im, k * size)
  }
  return { name, unit: '', order: first.rows, re, im }
}
