import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import { magnitude } from '../values/arithmetic'
import { argumentOf, shownAs } from '../values/make'
import type { NumberValue } from '../values/types'
import type { Conventions } from './conventions'
import { formatAngle, formatPart, isCompound, multipleOfPiText, showsWhole } from './parts'
import type { Twin } from './readout'

/** Numbers as text, in rectangular and in polar form. */

/** A part below this share of the magnitude is noise and is shown as 0. */
export const NOISE = 5e-15

/** A value's parts with noise taken out; the stored value is untouched. */
export function quiet(z: C.Complex): C.Complex {
  const size = C.abs(z)
  if (!Number.isFinite(size)) return z
  const floor = NOISE * size
  return { re: Math.abs(z.re) < floor ? 0 : z.re, im: Math.abs(z.im) < floor ? 0 : z.im }
}

function quieted(z: NumberValue): NumberValue {
  if (z.exact) return z
  const { re, im } = quiet(z)
  return shownAs(z, re, im)
}

/** A rounded number with the parts below a floor taken out; of an exact one every part is meant. */
export function quietBelow(z: NumberValue, floor: number): NumberValue {
  if (z.exact || floor === 0) return z
  const part = (x: number): number => (Math.abs(x) < floor ? 0 : x)
  return shownAs(z, part(z.re), part(z.im))
}

const NO_DIRECTION = '∞ (no direction)'

/** `3 + 4j`, `3 - j4`: always both parts. */
export function formatRectangular(z: NumberValue, conventions: Conventions): string {
  if (Number.isNaN(z.re) || Number.isNaN(z.im)) return 'undefined'
  if (C.isInfinite(z)) return NO_DIRECTION
  // Of an exact value every part is meant.
  const { re, im } = z.exact ? z : quiet(z)
  const real = formatPart(re, z.exact?.re ?? null, conventions)
  const negative = im < 0
  const size = z.exact ? (negative ? Q.negate(z.exact.im) : z.exact.im) : null
  const imaginary = formatPart(Math.abs(im), size, conventions)
  return `${real} ${negative ? '-' : '+'} ${withLetter(imaginary, conventions)}`
}

function withLetter(text: string, { letter, place }: Conventions): string {
  if (isCompound(text)) return place === 'before' ? `${letter}(${text})` : `(${text})*${letter}`
  if (text.includes('/')) {
    const [top = '', bottom = ''] = text.split('/')
    return place === 'before' ? `${letter}${top}/${bottom}` : `${top}${letter}/${bottom}`
  }
  if (place === 'before') return `${letter}${text}`
  // A letter behind a prefix must not make a word with it: 3p and i would be 3π.
  if (letter === 'i' && text.endsWith('p')) return `${text.slice(0, -1)}e-12${letter}`
  return `${text}${letter}`
}

/** `5 ∠ 53.13°`: magnitude and argument in the unit of the conventions. */
export function formatPolar(z: NumberValue, conventions: Conventions): string {
  if (Number.isNaN(z.re) || Number.isNaN(z.im)) return 'undefined'
  if (C.isInfinite(z)) return NO_DIRECTION
  const size = magnitude(z)
  const exactSize = size.kind === 'number' ? (size.exact?.re ?? null) : null
  const part = formatPart(C.abs(z), exactSize, conventions)
  const shown = isCompound(part) || part.includes('/') ? `(${part})` : part
  const zero = z.re === 0 && z.im === 0
  return `${shown} ∠ ${formatAngle(argumentOf(zero ? z : quieted(z)), conventions)}`
}

/** A number as one text: a complex one in rectangular form. */
export function formatNumber(value: NumberValue, conventions: Conventions): string {
  if (isComplex(value)) return formatRectangular(value, conventions)
  if (value.pi && conventions.exact !== 'decimal') return multipleOfPiText(value.pi.re)
  return formatPart(value.re, value.exact?.re ?? null, conventions)
}

/** True of a number that is shown in both forms. */
export function isComplex(value: NumberValue): boolean {
  return value.im !== 0 || value.complex
}

export function twin(value: NumberValue, conventions: Conventions): Twin {
  return { rectangular: formatRectangular(value, conventions), polar: formatPolar(value, conventions) }
}

/** Values at the edge, in words. */
export function edgeWords(value: NumberValue): string {
  if (Number.isNaN(value.re) || Number.isNaN(value.im)) return 'undefined: it has no value'
  if (value.im !== 0 || value.complex) return 'infinite (∞), without a direction'
  return value.re > 0 ? 'infinite (∞)' : 'minus infinite (−∞)'
}

/** True where every digit of an exact number is on show. */
export function showsAll({ re, im, exact }: NumberValue, conventions: Conventions): boolean {
  return exact !== null && showsWhole(re, exact.re, conventions) && showsWhole(im, exact.im, conventions)
}
