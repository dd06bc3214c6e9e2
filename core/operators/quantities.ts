import { NONE } from '../units/dimension'
import { Measure, PLAIN } from '../units/measure'
import type { Unit } from '../units/unit'
import { alike } from '../quantities/sums'
import { powerMeasures, productMeasures, quotientMeasures } from '../quantities/products'
import { fitted, isWild, measureOf, measuresOf, plainMeasure, shapeOf } from '../quantities/shape'
import type { Measures } from '../quantities/shape'
import { asRadians } from '../values/convert'
import { asTurn, unknownsOf } from '../quantities/through'
import type { Failure } from '../values/failure'
import { asMatrix, itemAt } from '../values/matrices'
import { bare, quantity, writtenUnit } from '../values/quantity'
import { numberSweep, pointAt } from '../values/sweeps'
import type { Bare, Value } from '../values/types'
import type { Context } from './context'
import { onNumbers } from './rules'
import type { BinarySign } from './rules'

/** Operators where a side has a unit: the numbers go as ever, and what the result measures is worked out beside them. */

/** What the numbers alone come to. */
type Reckon = (a: Bare, b: Bare) => Value | Failure

export function operateOnQuantities(
  sign: BinarySign,
  left: Value,
  right: Value,
  context: Context,
  reckon: Reckon,
): Value | Failure {
  const turned = besideAngle(sign, left, right)
  if (turned) return reckon(turned[0], turned[1])
  const [a, b] = [asNumbers(left), asNumbers(right)]
  const value = reckon(bare(a), bare(b))
  if (value.kind === 'failure') return value
  const arrays = context.each && (shapeOf(bare(a)) !== null || shapeOf(bare(b)) !== null)
  const measures = arrays ? entrywiseMeasures(sign, left, right) : measuresFor(sign, left, right)
  if ('code' in measures) return withTexts(measures, left, right, context)
  const unit = unitAfter(sign, left, right, measures)
  return quantity(bare(value), measures, { unit, unknowns: unknownsOf(left, right) })
}

/** Most operators are between numbers whose units are worked out without more ado; `null` of all others. */
export function quickly(sign: BinarySign, left: Value, right: Value): Value | Failure | null {
  const [a, b] = [bare(left), bare(right)]
  if (a.kind !== 'number' || b.kind !== 'number' || (b.re === 0 && b.im === 0)) return null
  const [x, y] = [numberMeasure(left), numberMeasure(right)]
  if (x === null || y === null) return null
  const sum = sign === '+' || sign === '-'
  const [unit, other] = [writtenUnit(left), writtenUnit(right)]
  // The unit of a side goes on where the other is a plain factor; what is between is worked out with more care.
  const kept = sum ? (unit ?? other) : y === PLAIN ? unit : x === PLAIN && sign === '*' ? other : null
  const plain = x.dimension === NONE || y.dimension === NONE
  if ((unit ?? other) !== null && kept === null && plain) return null
  if (sum && x.dimension === NONE && kept !== null) return null
  const measure = sign === '*' ? x.times(y) : sign === '/' ? x.over(y) : sum && x === y ? x : null
  if (measure === null) return null
  const value = onNumbers(sign, a, b)
  if (value.kind === 'failure') return value
  return kept === null ? quantity(value, measure) : quantity(value, measure, { unit: kept })
}

/** What a number measures; `null` of arrays, and where unknowns go on as well. */
function numberMeasure(value: Value): Measure | null {
  if (value.kind === 'number') return plainMeasure(value)
  if (value.kind !== 'quantity' || value.unknowns !== null) return null
  return value.measure instanceof Measure ? value.measure : null
}

function measuresFor(sign: BinarySign, a: Value, b: Value): Measures | Failure {
  switch (sign) {
    case '+':
      return alike(a, b, 'added')
    case '-':
      return alike(a, b, 'subtracted')
    case '||':
      return alike(a, b, 'put in parallel')
    case 'mod':
      return alike(a, b, 'divided with a rest')
    case '*':
      return productMeasures(a, b)
    case '/':
      return quotientMeasures(a, b)
    case '^':
      return powerMeasures(a, b)
  }
}

/** Angles count as their radians beside quantities. */
function asNumbers(value: Value): Value {
  if (value.kind === 'angle') return asRadians(value)
  if (value.kind === 'sweep' && value.of === 'angle') return numberSweep(value.axis, value.re, null)
  return value
}

/** An angle plus radians that came out of units: both are angles. */
function besideAngle(sign: BinarySign, left: Value, right: Value): readonly [Bare, Bare] | null {
  if (sign !== '+' && sign !== '-') return null
  const [a, b] = [isTurn(left) ? left : asTurn(left), isTurn(right) ? right : asTurn(right)]
  if (!isTurn(left) && !isTurn(right)) return null
  return a && b ? [a, b] : null
}

function isTurn(value: Value): value is Bare {
  return value.kind === 'angle' || (value.kind === 'sweep' && value.of === 'angle')
}

/** The failure with the two values written out, where they are short. */
function withTexts(failed: Failure, left: Value, right: Value, context: Context): Failure {
  const long = (value: Value): boolean => shapeOf(bare(value)) !== null || bare(value).kind === 'sweep'
  if (failed.code !== 'units-differ' || long(left) || long(right)) return failed
  return { ...failed, data: { ...failed.data, left: context.written(left), right: context.written(right) } }
}

/** Entry by entry, as inside each( ): a scalar goes with every entry. */
function entrywiseMeasures(sign: BinarySign, left: Value, right: Value): Measures | Failure {
  const [rows, cols] = shapeOf(bare(left)) ?? shapeOf(bare(right)) ?? [1, 1]
  const found: (Measure | null)[] = []
  for (let k = 0; k < rows * cols; k += 1) {
    const [a, b] = [entryAt(left, k, cols), entryAt(right, k, cols)]
    const here = measuresFor(sign, a, b)
    if ('code' in here) return here
    // A zero without a unit stays one that fits anywhere.
    const zero = isWild(a) || (isWild(b) && sign === '*')
    found.push(here instanceof Measure && !zero ? here : null)
  }
  return fitted(rows, cols, (r, c) => found[r * cols + c] ?? null)
}

/** An entry with what it measures, counted row by row; of a scalar itself. */
function entryAt(value: Value, k: number, cols: number): Value {
  const inner = bare(value)
  if (!shapeOf(inner)) return value
  const item = plainEntry(inner, k)
  if (value.kind !== 'quantity') return item
  const measure = measuresOf(value).entry(Math.floor(k / cols), k % cols)
  return measure ? quantity(bare(item), measure) : item
}

function plainEntry(value: Bare, k: number): Value {
  if (value.kind === 'sweep') return plainEntry(bare(pointAt(value, 0)), k)
  if (value.kind === 'vector') return value.items[k] ?? value
  if (value.kind === 'algebra-matrix') return value.items[k] ?? value
  const matrix = asMatrix(value)
  return matrix ? itemAt(matrix, k) : value
}

/** The unit that a result goes on in: that of the side whose measure it keeps. */
function unitAfter(sign: BinarySign, left: Value, right: Value, measures: Measures): Unit | null {
  if (sign === '^' || !(measures instanceof Measure)) return null
  const fits = (value: Value): Unit | null => {
    const unit = writtenUnit(value)
    return unit && fitsUnit(measures, unit) ? unit : null
  }
  // Percent are left where a number that has none is added.
  const bareSide = left.kind !== 'quantity' || right.kind !== 'quantity'
  if (measures.dimension === NONE && bareSide && sign !== '*' && sign !== '/') return null
  if (sign === '/') return measureOf(right).dimension === NONE ? fits(left) : null
  return fits(left) ?? fits(right)
}

/** True where a unit says of a measure what it is, radians, cycles, VA and var among it. */
function fitsUnit(of: Measure, { measure }: Unit): boolean {
  return measure.dimension === of.dimension && (of.dimension === NONE || (measure.turn === of.turn && measure.power === of.power)) // prettier-ignore
}
