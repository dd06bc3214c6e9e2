import { work } from '../numbers/work'
import * as W from './whole'
import type { Whole } from './whole'
import * as Z from './wide'
import type { Wide } from './wide'

/**
 * The samples whose z-transform is a ratio of polynomials, by long division in powers of 1/z, with so many digits that
 * no rounding adds up. One object for a ratio: samples that were asked for once are kept.
 */
export class Sequence {
  private readonly found: Wide[] = []
  private readonly numbers: number[] = []
  private readonly above: readonly Wide[]
  private readonly below: readonly Wide[]
  private readonly order: number

  /** The degree above is not beyond that below: nothing answers before it is asked. */
  constructor(top: Whole, bottom: Whole) {
    this.order = W.degreeOf(bottom)
    const lead = Z.fromWhole(W.leading(bottom))
    const at = (p: Whole, k: number): Wide => Z.divide(Z.fromWhole(W.coefficient(p, this.order - k)), lead)
    this.above = Array.from({ length: this.order + 1 }, (_, k) => at(top, k))
    this.below = Array.from({ length: this.order + 1 }, (_, k) => at(bottom, k))
  }

  /** The sample at a whole number k; 0 before 0. */
  at(k: number): number {
    if (k < 0) return 0
    for (let n = this.found.length; n <= k; n += 1) {
      work(2_000 * (this.order + 1))
      let value = this.above[n] ?? Z.ZERO
      for (let i = 1; i <= Math.min(n, this.order); i += 1)
        value = Z.subtract(value, Z.multiply(this.below[i] ?? Z.ZERO, this.found[n - i] ?? Z.ZERO))
      this.found.push(value)
      this.numbers.push(Z.toComplex(value).re)
    }
    return this.numbers[k] ?? 0
  }
}
