import * as G from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import { isZero } from './beyond'
import { angleOf, angleOfTurns, multipleOfPi, real } from './make'
import type { AngleValue, NumberValue } from './types'

/** Degrees or radians: how a bare number is read where an angle is needed. */
export type AngleUnit = 'deg' | 'rad'

const DEGREE: Q.Rational = { n: 1, d: 360 }
const HALF: Q.Rational = { n: 1, d: 2 }
const TWO: Q.Rational = { n: 2, d: 1 }

/** x degrees as an angle. */
export function degrees(x: NumberValue): AngleValue {
  const turns = x.exact && G.isReal(x.exact) ? Q.multiply(x.exact.re, DEGREE) : null
  return turns ? angleOfTurns(turns) : { ...angleOf((x.re / 180) * Math.PI), degrees: x.re }
}

/** x radians as an angle, exact where x is a known multiple of π. */
export function radians(x: NumberValue): AngleValue {
  if (x.pi && G.isReal(x.pi)) {
    const turns = Q.multiply(x.pi.re, HALF)
    if (turns) return angleOfTurns(turns)
  }
  if (isZero(x)) return angleOfTurns(Q.ZERO)
  return angleOf(x.re)
}

/** A bare real number as an angle in the angleUnit of the conventions. */
export function inAngleUnit(x: NumberValue, angleUnit: AngleUnit): AngleValue {
  return angleUnit === 'deg' ? degrees(x) : radians(x)
}

/** An angle as the number of its radians. */
export function asRadians(a: AngleValue): NumberValue {
  const multiple = a.turns && Q.multiply(a.turns, TWO)
  return multiple ? multipleOfPi({ re: multiple, im: Q.ZERO }) : real(a.radians)
}

/** An angle as a number of degrees. */
export function asDegrees(a: AngleValue): number {
  const exact = a.turns && Q.multiply(a.turns, { n: 360, d: 1 })
  return exact ? Q.toNumber(exact) : (a.radians / Math.PI) * 180
}
