import { NOTHING } from './problemData'
import type { BareCode, Code, ProblemData, Told } from './problemData'

/**
 * A failed evaluation: an error as a value. The span is filled in by the
 * evaluator, which knows the term at fault.
 */
export interface Failure extends Told {
  readonly kind: 'failure'
  readonly from?: number
  readonly to?: number
}

export function failure<C extends BareCode>(code: C): Failure
export function failure<C extends Code>(code: C, data: Readonly<ProblemData[C]>): Failure
export function failure(code: Code, data: Told['data'] = NOTHING): Failure {
  return { kind: 'failure', code, data }
}

/** The failure of the term that stands at a place. */
export function failureAt(place: { readonly from: number; readonly to: number }, failed: Failure): Failure {
  return { ...failed, from: place.from, to: place.to }
}
