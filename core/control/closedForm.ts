import * as A from '../values/arithmetic'
import {
  angleOf,
  angleOfTurns,
  argumentOf,
  complexNumber,
  exactNumber,
  integer,
  normalAngle,
  real,
} from '../values/make'
import type { AngleValue, NumberValue, TimeFunctionValue, TimeTerm } from '../values/types'
import { numberOr, partialFractions } from './fractions'
import type { Fraction } from './fractions'
import { timeFunction } from './timeFunction'
import type { Mode } from './timeFunction'
import type { Transfer } from './transfer'

/** The inverse Laplace transform in closed form: exponentials, and damped sines by amplitude and phase. */
export function closedForm(g: Transfer, time: string): Pick<TimeFunctionValue, 'time' | 'impulses' | 'terms'> | null {
  const found = partialFractions(g)
  const f = timeFunction(g.top, g.bottom)
  if (!found || !f) return null
  const terms = found.fractions.flatMap((fraction) => {
    const mode = f.modes.find(({ pole }) => pole === fraction.factor.pole)
    return mode ? termsOf(fraction, mode) : []
  })
  return { time, impulses: found.whole, terms }
}

function termsOf({ factor, numerators }: Fraction, mode: Mode): readonly TimeTerm[] {
  const [c0 = integer(0), c1 = integer(0)] = factor.list
  if (factor.list.length === 2) {
    const rate = A.negate(c0)
    return numerators.flatMap(([c = integer(0)], k) => (c.re === 0 ? [] : [{ factor: numberOr(A.divide(c, factorial(k))), power: k, rate, frequency: integer(0), phase: angleOf(0) }])) // prettier-ignore
  }
  // s² + 2·a·s + a² + ω²
  const rate = exactOr(A.divide(A.negate(c1), integer(2)), mode.pole.z.re)
  const square = A.subtract(c0, numberOr(A.multiply(rate, rate)))
  const frequency = exactOr(square.kind === 'number' && square.exact ? A.squareRoot(square) : square, mode.pole.z.im)
  const [only] = numerators
  // (B·s + C)/…: B·cos ωt + (C + B·rate)/ω·sin ωt.
  const exact = numerators.length === 1 && only?.every((c) => c.exact) ? exactSine(only, rate, frequency) : null
  if (exact) return [{ ...exact, power: 0, rate, frequency }]
  return mode.factors.flatMap((c, k) => {
    const size = 2 * Math.hypot(c.re, c.im)
    if (size === 0) return []
    // cos(ωt + φ) = sin(ωt + φ + 90°)
    const phase = normalAngle(angleOf(Math.atan2(c.im, c.re) + Math.PI / 2))
    return [{ factor: numberOr(A.divide(real(size), factorial(k))), power: k, rate, frequency, phase }]
  })
}

/** Amplitude and phase of a sine, where both parts of it are exact. */
function exactSine(
  [c = integer(0), b = integer(0)]: readonly NumberValue[],
  rate: NumberValue,
  frequency: NumberValue,
): { readonly factor: NumberValue; readonly phase: AngleValue } | null {
  const shifted = A.multiply(b, rate)
  const sum = shifted.kind === 'number' ? A.add(c, shifted) : shifted
  const sine = sum.kind === 'number' ? A.divide(sum, frequency) : sum
  if (sine.kind !== 'number') return null
  const both = sine.exact && b.exact ? exactNumber({ re: sine.exact.re, im: b.exact.re }, true) : complexNumber({ re: sine.re, im: b.re }) // prettier-ignore
  const size = A.magnitude(both)
  if (size.kind !== 'number' || size.re === 0) return null
  const phase = argumentOf(both)
  return { factor: size, phase: phase.turns ? angleOfTurns(phase.turns) : phase }
}

/** The exact number, else the double that is known better. */
const exactOr = (x: ReturnType<typeof A.multiply>, double: number): NumberValue =>
  x.kind === 'number' && x.exact ? x : real(double)

function factorial(k: number): NumberValue {
  let n = 1
  for (let i = 2; i <= k; i += 1) n *= i
  return integer(n)
}
