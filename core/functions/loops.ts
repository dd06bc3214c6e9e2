import { complexNumber, real } from '../values/make'
import { numberSweep } from '../values/sweeps'
import type { Numbers } from '../values/sweepProgram'
import type { NumberValue, SweepValue, Value } from '../values/types'
import type { FunctionDefinition, Loop } from '../signatures/definition'

/** Functions over the points of a sweep of numbers, by loops over typed arrays that allocate nothing inside. */

/** A loop that gives real numbers. */
export const realLoop =
  (loop: (value: Numbers) => Float64Array): Loop =>
  (value, sweep) =>
    numberSweep(sweep.axis, loop(value), null)

/** A function at every point of a sweep, by its loop; `null` where it has none. */
export function looped(definition: FunctionDefinition | null, value: Value): Value | null {
  if (value.kind !== 'sweep' || value.of !== 'number') return null
  return definition?.loop?.({ re: value.re, im: value.im }, value) ?? null
}

/** The sum of all points, or that by their count. */
export function total({ re, im, complex }: SweepValue, share = 1): NumberValue {
  const sum = pairwise(re, 0, re.length)
  const height = im ? pairwise(im, 0, im.length) : 0
  return complex ? complexNumber({ re: sum / share, im: height / share }) : real(sum / share)
}

/** The smallest or the largest of real points; `null` of complex ones. */
export function extremePoint({ re, complex }: SweepValue, sign: 1 | -1): NumberValue | null {
  if (complex) return null
  let found = re[0] ?? NaN
  for (let k = 1; k < re.length; k += 1) {
    const x = re[k] as number
    if (sign > 0 ? x > found : x < found) found = x
  }
  return real(found)
}

/** Sums halves of halves, so that the error grows with the logarithm of the count (N. J. Higham, 1993). */
function pairwise(x: Float64Array, from: number, to: number): number {
  if (to - from <= 128) {
    let sum = 0
    for (let k = from; k < to; k += 1) sum += x[k] as number
    return sum
  }
  const middle = (from + to) >> 1
  return pairwise(x, from, middle) + pairwise(x, middle, to)
}
