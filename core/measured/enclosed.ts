import { EXACT_MOST, fromDense, matrixOf } from '../values/matrices'
import { angleSweep, madeSweep, numberSweep } from '../values/sweeps'
import { wholeNumber } from '../values/make'
import { factorNumber, parsed } from '../units/unit'
import type { Unit } from '../units/unit'
import { bare, quantity } from '../values/quantity'
import type { Axis, PartsValue, Value } from '../values/types'
import { partNames } from './partNames'
import type { Column, Data, DataMatrix, DataTable } from './data'

/** Data as values of the notation: a matrix, or sweeps under the names of the columns. */

/** What `enclosure("…")` is worth. */
export function enclosedValue(name: string, data: Data): Value {
  return data.kind === 'matrix' ? matrixValue(data) : tableValue(name, data)
}

export function matrixValue({ rows, cols, re, im }: DataMatrix): Value {
  const whole = im === null && re.length <= EXACT_MOST && re.every(Number.isSafeInteger)
  if (whole) return matrixOf(rows, cols, Array.from(re, wholeNumber))
  return fromDense({ rows, cols, re, im: im ?? new Float64Array(re.length) }, im !== null)
}

function tableValue(of: string, { columns, rows, parameter }: DataTable): PartsValue {
  const names = partNames(columns)
  const own = columns[parameter]
  const along = own && own.order === 1 && own.im === null ? own : null
  const unit = along && unitIn(along)
  const values = along ? coherent(along, unit) : Float64Array.from({ length: rows }, (_, k) => k + 1)
  const axis: Axis = {
    values,
    name: along ? (names[parameter] ?? null) : null,
    angle: along !== null && isAngle(along),
    decades: goesByDecades(values),
    ...(unit ? { unit } : {}),
  }
  const parts = new Map<string, Value>()
  columns.forEach((column, k) => parts.set(names[k] ?? '', columnValue(column, column === along ? values : null, axis)))
  return { kind: 'parts', of, parts }
}

const isAngle = ({ unit, im }: Column): boolean => im === null && (unit === '°' || unit === 'rad')

function inRadians(column: Column): Float64Array {
  return isAngle(column) && column.unit === '°' ? column.re.map((x) => (x / 180) * Math.PI) : column.re
}

/** The unit of a column, where it is one of ours; angles are a kind of their own. */
function unitIn(column: Column): Unit | null {
  return column.unit === '' || isAngle(column) ? null : parsed(column.unit)
}

/** The numbers of a column in coherent units; angles in radians. */
function coherent(column: Column, unit: Unit | null): Float64Array {
  const factor = factorNumber(unit)
  return factor === 1 ? inRadians(column) : column.re.map((x) => x * factor)
}

function columnValue(column: Column, values: Float64Array | null, axis: Axis): Value {
  const unit = unitIn(column)
  if (!unit) return plainColumn(column, values, axis)
  const factor = factorNumber(unit)
  const scaled = factor === 1 ? column : { ...column, re: coherent(column, unit), im: column.im && column.im.map((x) => x * factor) } // prettier-ignore
  return quantity(bare(plainColumn(scaled, values, axis)), unit.measure, { unit, asWritten: true })
}

function plainColumn(column: Column, values: Float64Array | null, axis: Axis): Value {
  const { re, im, order } = column
  if (order === 1) {
    if (isAngle(column)) return angleSweep(axis, values ?? inRadians(column))
    return numberSweep(axis, values ?? re, im)
  }
  const size = order * order
  return madeSweep(axis, (k) => {
    const part = (all: Float64Array | null): Float64Array =>
      all?.slice(k * size, (k + 1) * size) ?? new Float64Array(size)
    return fromDense({ rows: order, cols: order, re: part(re), im: part(im) }, im !== null)
  })
}

/** True where the values rise by decades, about evenly. */
function goesByDecades(values: Float64Array): boolean {
  const [first, last] = [values[0] ?? NaN, values.at(-1) ?? NaN]
  if (!(first > 0) || !(last >= 10 * first) || values.length < 3) return false
  const even = (last / first) ** (1 / (values.length - 1))
  // Steps of 1, 2, 5 count as even.
  return values.every((x, k) => k === 0 || (x > (values[k - 1] ?? NaN) && x / (values[k - 1] ?? NaN) < even ** 2 + 0.5))
}
