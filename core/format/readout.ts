import * as C from '../numbers/complex'
import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { magnitude } from '../values/arithmetic'
import { asDegrees } from '../values/convert'
import { argumentOf } from '../values/make'
import type { AngleValue, NumberValue, Value } from '../values/value'
import type { Conventions } from './conventions'
import { formatReal } from './decimal'

/** A part below this share of the magnitude is noise and is shown as 0. */
export const NOISE = 5e-15

/**
 * What a line shows: one text, or a twin readout of a complex value. All texts
 * are plain characters that read back in; the interface dresses them.
 */
export type Readout =
  | { readonly shape: 'twin'; readonly rectangular: string; readonly polar: string }
  | { readonly shape: 'single'; readonly text: string }
  | { readonly shape: 'words'; readonly text: string }
  | { readonly shape: 'none' }

/** A value's parts with noise taken out; the stored value is untouched. */
export function quiet(z: C.Complex): C.Complex {
  const size = C.abs(z)
  if (!Number.isFinite(size)) return z
  const floor = NOISE * size
  return { re: Math.abs(z.re) < floor ? 0 : z.re, im: Math.abs(z.im) < floor ? 0 : z.im }
}

/** A real part: exact as a fraction where the conventions ask for it. */
function formatPart(x: number, exact: Rational | null, conventions: Conventions): string {
  if (exact && conventions.exact === 'fraction' && !Q.isInteger(exact)) return Q.toText(exact)
  return formatReal(x, conventions)
}

/** `3 + 4j`, `3 - j4`: always both parts. */
export function formatRectangular(z: NumberValue, conventions: Conventions): string {
  if (Number.isNaN(z.re) || Number.isNaN(z.im)) return 'undefined'
  if (C.isInfinite(z)) return '∞ (no direction)'
  const { re, im } = quiet(z)
  const real = formatPart(re, z.exact?.re ?? null, conventions)
  const negative = im < 0
  const size = z.exact ? (negative ? Q.negate(z.exact.im) : z.exact.im) : null
  const imaginary = formatPart(Math.abs(im), size, conventions)
  return `${real} ${negative ? '-' : '+'} ${withLetter(imaginary, conventions)}`
}

function withLetter(text: string, { letter, place }: Conventions): string {
  if (text.includes('/')) {
    const [top = '', bottom = ''] = text.split('/')
    return place === 'before' ? `${letter}${top}/${bottom}` : `${top}${letter}/${bottom}`
  }
  return place === 'before' ? `${letter}${text}` : `${text}${letter}`
}

/** `5 ∠ 53.13°`: magnitude and argument in the unit of the conventions. */
export function formatPolar(z: NumberValue, conventions: Conventions): string {
  if (Number.isNaN(z.re) || Number.isNaN(z.im)) return 'undefined'
  if (C.isInfinite(z)) return '∞ (no direction)'
  const size = magnitude(z)
  const exactSize = size.kind === 'number' ? (size.exact?.re ?? null) : null
  const shown = formatPart(C.abs(z), exactSize, conventions)
  if (z.re === 0 && z.im === 0) return `${shown} ∠ ${zeroAngle(conventions)}`
  return `${shown} ∠ ${formatAngle(argumentOf({ ...z, ...quiet(z) }), conventions)}`
}

function zeroAngle(conventions: Conventions): string {
  return conventions.angle === 'deg' ? '0°' : '0 rad'
}

/** `53.13°` or `0.9273 rad`, never without its unit. */
export function formatAngle(angle: AngleValue, conventions: Conventions): string {
  if (Number.isNaN(angle.radians)) return 'undefined'
  if (conventions.angle === 'deg') {
    const exact = angle.turns && Q.multiply(angle.turns, { n: 360, d: 1 })
    return `${formatPart(asDegrees(angle), exact, conventions)}°`
  }
  if (conventions.exact === 'fraction' && angle.turns) return piText(angle.turns)
  return `${formatReal(angle.radians, conventions)} rad`
}

/** An exact fraction of a turn as a multiple of π: `3pi/4 rad`. */
function piText(turns: Rational): string {
  const multiple = Q.multiply(turns, { n: 2, d: 1 })
  return multiple ? `${multipleText(multiple)} rad` : '0 rad'
}

function multipleText(multiple: Rational): string {
  if (Q.isZero(multiple)) return '0'
  const top = multiple.n === 1 ? 'pi' : multiple.n === -1 ? '-pi' : `${multiple.n}pi`
  return Q.isInteger(multiple) ? top : `${top}/${multiple.d}`
}

/** A real number, angle, text or truth as one text. */
export function formatSingle(value: Value, conventions: Conventions): string {
  switch (value.kind) {
    case 'number': {
      if (value.im !== 0 || value.complex) return formatRectangular(value, conventions)
      if (value.pi && conventions.exact === 'fraction') return multipleText(value.pi.re)
      return formatPart(value.re, value.exact?.re ?? null, conventions)
    }
    case 'angle':
      return formatAngle(value, conventions)
    case 'text':
      return value.text
    case 'truth':
      return value.truth ? 'true' : 'false'
    case 'check':
      return checkText(value.pass, value.figures)
    case 'function':
      return `${value.name}(${value.parameters.join(', ')})`
  }
}

function checkText(pass: boolean, figures: number): string {
  const agreed =
    figures === 0 ? 'no figure agrees' : `agrees to ${figures} significant ${figures === 1 ? 'figure' : 'figures'}`
  return pass ? agreed : `does not agree: ${figures === 0 ? 'not even the first figure' : agreed}`
}

export function readout(value: Value, conventions: Conventions): Readout {
  if (value.kind === 'function') return { shape: 'none' }
  if (value.kind === 'number' && (value.complex || value.im !== 0)) {
    if (!C.isFinite(value)) return { shape: 'words', text: formatRectangular(value, conventions) }
    return { shape: 'twin', rectangular: formatRectangular(value, conventions), polar: formatPolar(value, conventions) }
  }
  if (value.kind === 'number' && Number.isNaN(value.re)) return { shape: 'words', text: 'undefined' }
  if (value.kind === 'text' || value.kind === 'truth' || value.kind === 'check') {
    return { shape: 'words', text: formatSingle(value, conventions) }
  }
  return { shape: 'single', text: formatSingle(value, conventions) }
}

/** True where every digit of an exact value is on show. */
export function showsAll(value: Value, conventions: Conventions): boolean {
  if (value.kind !== 'number' || !value.exact) return false
  const whole = (x: number, q: Rational): boolean => {
    if (conventions.exact === 'fraction') return true
    const back = Q.fromDecimal(formatReal(x, conventions))
    return back !== null && Q.equals(back, q)
  }
  return whole(value.re, value.exact.re) && whole(value.im, value.exact.im)
}
