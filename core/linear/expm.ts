import type { Dense } from './dense'
import { combine, identity, norm1 } from './dense'
import { decomposeLu, solveLu } from './lu'
import { multiply } from './multiply'

const PADE = [
  64764752532480000, 32382376266240000, 7771770303897600, 1187353796428800, 129060195264000, 10559470521600,
  670442572800, 33522128640, 1323241920, 40840800, 960960, 16380, 182, 1,
] as const // prettier-ignore
/** Up to this 1-norm the approximation is exact to rounding. */
const THETA = 5.371920351148152

/**
 * The matrix exponential by scaling and squaring with the [13/13] Padé
 * approximation. N. J. Higham, SIAM J. Matrix Anal. 26 (2005), algorithm 2.3.
 */
export function expm(a: Dense): Dense {
  const norm = norm1(a)
  // No power of what is not finite is known; and its squarings would not come to an end.
  if (!Number.isFinite(norm)) return { ...a, re: a.re.map(() => NaN), im: a.im.map(() => 0) }
  const squarings = norm > THETA ? Math.max(0, Math.ceil(Math.log2(norm / THETA))) : 0
  const scaled = combine(2 ** -squarings, a, 0, a)
  const unit = identity(a.rows)
  const a2 = multiply(scaled, scaled)
  const a4 = multiply(a2, a2)
  const a6 = multiply(a4, a2)
  const sum = (b6: number, b4: number, b2: number, b0: number): Dense =>
    combine(1, combine(b6, a6, b4, a4), 1, combine(b2, a2, b0, unit))
  const odd = multiply(
    scaled,
    combine(1, multiply(a6, sum(PADE[13], PADE[11], PADE[9], 0)), 1, sum(PADE[7], PADE[5], PADE[3], PADE[1])),
  )
  const even = combine(1, multiply(a6, sum(PADE[12], PADE[10], PADE[8], 0)), 1, sum(PADE[6], PADE[4], PADE[2], PADE[0]))
  let result = solveLu(decomposeLu(combine(1, even, -1, odd)), combine(1, even, 1, odd))
  for (let k = 0; k < squarings; k += 1) result = multiply(result, result)
  return result
}
