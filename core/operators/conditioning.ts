import { condition } from '../matrices/linearAlgebra'
import type { Node } from '../notation/tree'
import type { MatrixValue } from '../values/types'
import type { Context } from './context'

/** Orders up to which a condition number is worked out for the sake of a hint. */
const ORDER_MOST = 60
/** From here on so many digits are lost that it is said. */
const TOLD = 1e10

/** Says that a solution or an inverse has lost digits; the line stands all the same. */
export function hintCondition(m: MatrixValue, context: Context, node: Node | null): void {
  if (context.pointwise || m.exact || m.rows !== m.cols || m.rows > ORDER_MOST || !node) return
  const value = condition(m)
  if (value > TOLD)
    context.hint('ill-conditioned', node, { value: value.toExponential(1), digits: Math.round(Math.log10(value)) })
}
