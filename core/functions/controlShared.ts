import { transferOf } from '../control/transfer'
import type { Transfer } from '../control/transfer'
import { unknownsOf } from '../algebra/ratio'
import { real, text } from '../values/make'
import type { Failure } from '../values/failure'
import type { PartsValue, PolynomialValue, Value } from '../values/types'
import * as take from '../signatures/take'

/** What the functions of control engineering have in common. */

/** A transfer function, or a loop. */
export const G = take.transfer('G')
export const L = take.transfer('L')

/** What is worked out for one transfer function. */
export function withTransfer(name: string, value: Value, apply: (g: Transfer) => Value | Failure): Value | Failure {
  const g = transferOf(name, value)
  return 'kind' in g ? g : apply(g)
}

/** The name of an unknown that was given as such. */
export function nameOf(unknown: PolynomialValue): string {
  const [only] = unknownsOf(unknown)
  if (only === undefined) throw new Error('its parameter takes an unknown only')
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
