import * as C from '../numbers/complex'

/** What two values on a plane say of each other. */
export interface Measure {
  /** The second less the first. */
  readonly difference: C.Complex
  readonly distance: number
  /** The second over the first; `null` where the first is zero. */
  readonly ratio: C.Complex | null
  /** From the first to the second, in radians in (−π, π]; `null` where one of them is zero. */
  readonly angle: number | null
}

export function measure(from: C.Complex, to: C.Complex): Measure {
  const difference = { re: to.re - from.re, im: to.im - from.im }
  const zero = (z: C.Complex): boolean => z.re === 0 && z.im === 0
  const ratio = zero(from) ? null : C.divide(to, from)
  return {
    difference,
    distance: C.abs(difference),
    ratio,
    angle: ratio && !zero(to) ? C.arg(ratio) : null,
  }
}
