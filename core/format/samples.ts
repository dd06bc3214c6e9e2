import * as Q from '../numbers/rational'
import { complexNumber, exactReal, real } from '../values/make'
import type { NumberValue } from '../values/types'

/** Values on which the conventions show what they do. */
export function sampleValues(): Readonly<Record<'phasor' | 'long' | 'third' | 'root', NumberValue>> {
  return {
    phasor: complexNumber({ re: 199.1858, im: 115 }),
    long: real(14860.25),
    third: exactReal(Q.rational(7, 3) ?? Q.ONE),
    root: real(Math.SQRT2 * 100),
  }
}
