import { transferOf } from '../control/transfer'
import type { Transfer } from '../control/transfer'
import { isUnknown, unknownsOf } from '../algebra/ratio'
import { real, text } from '../values/make'
import { failure } from '../values/failure'
import type { Failure } from '../values/failure'
import type { PartsValue, Value } from '../values/types'
import type { Parameter } from './definition'

/** What the functions of control engineering have in common. */

/** A transfer function, or a loop. */
export const G: Parameter = { name: 'G', kind: 'algebra' }
export const L: Parameter = { name: 'L', kind: 'algebra' }

/** What is worked out for one transfer function. */
export function withTransfer(name: string, value: Value, apply: (g: Transfer) => Value | Failure): Value | Failure {
  const g = transferOf(name, value)
  return 'kind' in g ? g : apply(g)
}

/** The name of an unknown that is given as such. */
export function unknownName(name: string, parameter: string, value: Value): string | Failure {
  const [only] = value.kind === 'polynomial' ? unknownsOf(value) : []
  if (only === undefined || !isUnknown(value, only)) return failure('unknown-needed', { name, parameter })
  return only
}

/** Values under names, shown in their line. */
export function listed(of: string, entries: readonly (readonly [string, Value])[]): PartsValue {
  return { kind: 'parts', of, parts: new Map(entries), listed: true }
}

/** A number, or the word for there being none. */
export const orNone = (x: number | null): Value => (x === null ? text('none') : real(x))

/** The time between two samples: what it is known to be, else one. */
export const periodOf = ({ period }: Transfer): number => period?.value.re ?? 1
