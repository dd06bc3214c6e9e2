import type { Complex } from './complex'

/** x·2^k without leaving the range of doubles on the way; the result is ±∞ or 0 where it lies beyond it. */
export function timesPowerOfTwo(x: number, k: number): number {
  // Twice the whole range of exponents: beyond it nothing changes any more.
  let left = Math.max(-4200, Math.min(4200, k))
  let value = x
  while (left > 1000) {
    value *= 2 ** 1000
    left -= 1000
  }
  while (left < -1000) {
    value *= 2 ** -1000
    left += 1000
  }
  return value * 2 ** left
}

/** The same of both parts. */
export function complexTimesPowerOfTwo(z: Complex, k: number): Complex {
  return k === 0 ? z : { re: timesPowerOfTwo(z.re, k), im: timesPowerOfTwo(z.im, k) }
}
