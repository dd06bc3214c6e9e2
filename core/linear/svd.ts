import { timesPowerOfTwo } from '../numbers/scale'
import type { Svd } from './decompositions'
import type { Dense } from './dense'
import { transpose } from './dense'
import { withinRange } from './scaling'
import { decomposeByBidiagonal } from './svdByBidiagonal'
import { decomposeByRotations } from './svdByRotations'

/** The singular value decomposition: by rotations of whole columns, and of large matrices by way of a bidiagonal one. */
export function decomposeSvd(a: Dense): Svd {
  const { matrix, exponent } = withinRange(a)
  const scaled = decompose(matrix)
  if (exponent === 0) return scaled
  return { ...scaled, singular: scaled.singular.map((s) => timesPowerOfTwo(s, exponent)) }
}

function decompose(a: Dense): Svd {
  if (a.rows < a.cols) {
    const { left, singular, right } = decompose(transpose(a, true))
    return { left: right, singular, right: left }
  }
  return decomposeByBidiagonal(a) ?? decomposeByRotations(a)
}
