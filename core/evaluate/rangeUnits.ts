import type { Node, Range } from '../notation/tree'
import type { Measure } from '../units/measure'
import { coherentUnit, quantityWords } from '../units/named'
import type { Unit } from '../units/unit'
import { withUnit } from '../quantities/attach'
import { isWild, measureOf } from '../quantities/shape'
import { measuresAlike } from '../quantities/sums'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import { integer } from '../values/make'
import { bare, writtenUnit } from '../values/quantity'
import type { Bare, Value } from '../values/types'

/** Ranges between values with units: the last unit holds for the numerals that have none, the step included. */

export interface RangeParts {
  readonly first: Bare
  readonly last: Bare
  readonly amount: Bare | null
  readonly measure: Measure
  readonly unit: Unit
}

export function rangeParts(node: Range, from: Value, to: Value, amount: Value | null): RangeParts | Failure {
  // Over decades the smaller unit of the beginning suits both ends: 10 Hz to 100 kHz.
  const [near, far] = [writtenUnit(from), writtenUnit(to)]
  const unit = (node.by === 'decade' ? (near ?? far) : (far ?? near)) ?? coherentUnit(measureOf(to))
  const first = lent(node.first, from, unit)
  if (first.kind === 'failure') return first
  const measure = between(first, to, node.last)
  if ('code' in measure) return measure
  if (node.by === 'count' || node.by === 'decade') return { first: bare(first), last: bare(to), amount: amount && bare(amount), measure, unit } // prettier-ignore
  const step = amount && node.amount ? lent(node.amount, amount, unit) : withUnit(integer(1), unit)
  if (step.kind === 'failure') return step
  const along = between(step, to, node.amount ?? node)
  if ('code' in along) return along
  // A range that falls needs no sign where no step is given.
  const [a, b, one] = [bare(first), bare(to), bare(step)]
  const falls = amount === null && a.kind === 'number' && b.kind === 'number' && b.re < a.re
  const given = falls && one.kind === 'number' ? withUnit(integer(-1), unit) : one
  return given.kind === 'failure' ? given : { first: a, last: b, amount: bare(given), measure, unit }
}

/** A numeral without a unit takes the one of the range. */
function lent(node: Node, value: Value, unit: Unit): Value | Failure {
  return value.kind !== 'quantity' && isNumeral(node) ? withUnit(value, unit) : value
}

function isNumeral(node: Node): boolean {
  if (node.type === 'group') return isNumeral(node.inner)
  if (node.type === 'sign') return isNumeral(node.operand)
  if (node.type === 'power') return isNumeral(node.base) && isNumeral(node.exponent)
  return node.type === 'literal' || (node.type === 'product' && isNumeral(node.left) && isNumeral(node.right))
}

function between(a: Value, b: Value, place: Node): Measure | Failure {
  const [x, y] = [measureOf(a), measureOf(b)]
  if (isWild(a)) return y
  const found = measuresAlike(x, y, 'put together')
  if (!('code' in found)) return found
  return failureAt(place, failure('unit-range', { one: quantityWords(x), other: quantityWords(y) }))
}
