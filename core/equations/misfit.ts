import { quantityWords } from '../units/named'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { Misfit } from './measured'

/** Says which equation does not go with the others, and why. */
export function misfitFailure({ line, one, other }: Misfit): Failure {
  return failure('equation-units', { line, one: quantityWords(one), other: quantityWords(other) })
}
