import * as C from '../numbers/complex'
import type { Numbers } from './sweepProgram'

/** The commonest functions on whole arrays of numbers: plain loops that make no object per point. */

/** Between these the square of a magnitude neither overflows nor loses digits. */
const SMALL = 1e-140
const LARGE = 1e140

export function negated(x: Float64Array): Float64Array {
  return x.map((y) => 0 - y)
}

export function conjugated({ re, im }: Numbers): Numbers {
  return { re, im: im && im.map((x) => 0 - x) }
}

/** |z| by `Math.hypot`'s rule where a square could leave the range. */
export function magnitudes({ re, im }: Numbers): Float64Array {
  if (im === null) return re.map(Math.abs)
  const out = new Float64Array(re.length)
  for (let k = 0; k < re.length; k += 1) {
    const x = re[k] as number
    const y = im[k] as number
    const size = Math.abs(x) + Math.abs(y)
    out[k] = size > SMALL && size < LARGE ? Math.sqrt(x * x + y * y) : C.abs({ re: x, im: y })
  }
  return out
}

/** Arguments in (−π, π]. */
export function anglesOf({ re, im }: Numbers): Float64Array {
  const out = new Float64Array(re.length)
  for (let k = 0; k < re.length; k += 1) out[k] = Math.atan2((im?.[k] ?? 0) + 0, (re[k] as number) + 0)
  return out
}

/** 20·lg of magnitudes. */
export function decibels(sizes: Float64Array): Float64Array {
  return sizes.map((x) => 20 * Math.log10(x))
}
