import * as C from '../numbers/complex'
import * as G from '../numbers/gaussian'
import type { Gaussian } from '../numbers/gaussian'
import * as Q from '../numbers/rational'
import type { NumberValue } from '../values/types'
import type { Conventions } from './conventions'

/** Everything that is known of a number, as text that reads back. */

/** `1/3`, `1/2 + 3/4j`: an exact value as text. */
export function fractionText(exact: Gaussian, letter: string): string {
  const re = Q.toText(exact.re)
  if (G.isReal(exact)) return re
  const negative = Q.sign(exact.im) < 0
  const size = negative ? Q.negate(exact.im) : exact.im
  const im = Q.isInteger(size) ? `${Q.toText(size)}${letter}` : `${size.n}${letter}/${size.d}`
  if (Q.isZero(exact.re)) return negative ? `-${im}` : im
  return `${re} ${negative ? '-' : '+'} ${im}`
}

/** The shortest decimal that reads back as the same double. */
export function decimal(x: number): string {
  if (x === Infinity) return 'inf'
  if (x === -Infinity) return '-inf'
  if (Number.isNaN(x)) return '0/0'
  return String(x).replace('e+', 'e')
}

/** Longest exact fraction that is worth writing out. */
const LONGEST_EXACT = 400

export function fullNumber(z: NumberValue, { letter }: Conventions): string {
  if (z.exact) {
    const text = fractionText(z.exact, letter)
    if (text.length <= LONGEST_EXACT) return text
  }
  if (z.im === 0) return decimal(z.re)
  const size = `${decimal(Math.abs(z.im))}${letter}`
  if (!C.isFinite(z)) return 'inf'
  return z.re === 0 ? `${z.im < 0 ? '-' : ''}${size}` : `${decimal(z.re)} ${z.im < 0 ? '-' : '+'} ${size}`
}
