import { timesPowerOfTwo } from '../numbers/scale'
import { largestPart } from './dense'
import type { Dense } from './dense'

/**
 * Squares of entries leave the range of doubles long before the entries do. Where they are near its ends a
 * matrix is first multiplied by a power of two, which rounds nothing, and the outcome is multiplied back:
 * as LAPACK's drivers do (E. Anderson et al., LAPACK Users' Guide, 1999, xLASCL).
 */

/** A = matrix·2^exponent. */
export interface Scaled {
  readonly matrix: Dense
  readonly exponent: number
}

/** Within 2^±200 sums of many squares stay in the range, and small entries keep their digits. */
const SAFE = 200

/** The matrix with its largest entry near 1 where it was near the ends of the range; otherwise as it is. */
export function withinRange(a: Dense): Scaled {
  const exponent = exponentFor(largestPart(a))
  return { matrix: exponent === 0 ? a : multiplied(a, -exponent), exponent }
}

/** The power of two to be taken out of values of which this is the largest; 0 where none need be. */
export function exponentFor(most: number): number {
  if (most === 0 || !Number.isFinite(most)) return 0
  const exponent = Math.floor(Math.log2(most))
  return Math.abs(exponent) > SAFE ? exponent : 0
}

/** A·2^exponent. */
export function multiplied(a: Dense, exponent: number): Dense {
  if (exponent === 0) return a
  const times = (x: number): number => timesPowerOfTwo(x, exponent)
  return { rows: a.rows, cols: a.cols, re: a.re.map(times), im: a.im.map(times) }
}
