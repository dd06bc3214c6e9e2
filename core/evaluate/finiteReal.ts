import { realNumber } from '../kinds/kinds'
import type { Span } from '../notation/tree'
import { failure, failureAt } from '../values/failure'
import type { Failure } from '../values/failure'
import type { NumberValue, Value } from '../values/types'

/** A finite real number, as the ends and steps of rows and ranges are; `code` says what anything else is not. */
export function finiteReal(value: Value, place: Span, code: 'series-bound' | 'range-end'): NumberValue | Failure {
  const real = realNumber(value)
  if (!real) return failureAt(place, failure(code, { kind: value.kind }))
  return Number.isFinite(real.re) ? real : failureAt(place, failure(real.exact ? 'too-large' : 'range-finite'))
}
