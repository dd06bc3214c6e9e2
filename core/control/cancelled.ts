import { factorsOf, isMultiple } from '../algebra/factors'
import * as P from '../algebra/polynomial'
import { rootsOf } from '../algebra/roots'
import * as C from '../numbers/complex'
import type { NumberValue, Polynomial, PolynomialValue } from '../values/types'

/** Poles that a product of two transfer functions has no more, since zeros of the other stand on them. */
export interface Cancelled {
  readonly poles: readonly NumberValue[]
  /** True where one of them lies to the right or on the axis, of samples outside the unit circle or on it. */
  readonly unstable: boolean
}

export function cancelledBetween(a: PolynomialValue, b: PolynomialValue): Cancelled | null {
  const [x, y] = [factorsOf(a), factorsOf(b)]
  const common = [...shared(x.top, y.bottom), ...shared(y.top, x.bottom)]
  if (common.length === 0) return null
  const poles = common.flatMap((p) => {
    const list = P.coefficients(p)
    const roots = list && rootsOf(list)
    return roots && !('kind' in roots) ? roots.values : []
  })
  if (poles.length === 0) return null
  const discrete = (a.bottom ?? a.top).unknowns[0]?.startsWith('z') ?? false
  const unstable = poles.some((z) => (discrete ? C.abs(z) >= 1 - 1e-12 : z.re >= 0))
  return { poles, unstable }
}

function shared(above: readonly Polynomial[], below: readonly Polynomial[]): readonly Polynomial[] {
  const open = [...above]
  const found: Polynomial[] = []
  for (const bottom of below) {
    for (const [k, top] of open.entries()) {
      if (P.degree(top) === 0 || P.degree(bottom) === 0) continue
      const common = commonOf(top, bottom)
      if (!common) continue
      found.push(common)
      open.splice(k, 1)
      break
    }
  }
  return found
}

function commonOf(a: Polynomial, b: Polynomial): Polynomial | null {
  if (P.joinedUnknowns(a, b).length > 1) return null
  if (isMultiple(a, b)) return a
  if (!P.isExact(a) || !P.isExact(b)) return null
  const common = P.commonDivisor(a, b)
  return common && P.degree(common) > 0 ? common : null
}
