/** Greatest common divisors, by Euclid. */

const SAFE_BIG = BigInt(Number.MAX_SAFE_INTEGER)

/** Both below 2^31: the remainders of doubles are many times dearer than those of integers. */
function gcdInteger(a: number, b: number): number {
  let x = a | 0
  let y = b | 0
  while (y !== 0) {
    const rest = (x % y) | 0
    x = y
    y = rest
  }
  return x
}

const MOST_INTEGER = 2 ** 31 - 1

/** Of doubles that are whole numbers of at least 0. */
export function gcdSmall(a: number, b: number): number {
  if (a <= MOST_INTEGER && b <= MOST_INTEGER) return gcdInteger(a, b)
  while (b !== 0) {
    const r = a % b
    a = b
    b = r
  }
  return a
}

/** Of any two whole numbers; that of 0 and 0 is 0. */
export function gcdBig(a: bigint, b: bigint): bigint {
  if (a < 0n) a = -a
  if (b < 0n) b = -b
  while (b !== 0n) {
    if (a <= SAFE_BIG && b <= SAFE_BIG) return BigInt(gcdSmall(Number(a), Number(b)))
    const r = a % b
    a = b
    b = r
  }
  return a
}

/** Least common multiple; neither may be 0. */
export const lcmBig = (a: bigint, b: bigint): bigint => (a / gcdBig(a, b)) * b
