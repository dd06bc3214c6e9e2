import * as Q from '../numbers/rational'
import type { Rational } from '../numbers/rational'
import { asDegrees } from '../values/convert'
import type { AngleValue } from '../values/types'
import type { Conventions } from './conventions'
import { formatReal } from '../numbers/decimal'

/** The texts of real parts and angles, from which every readout is put together. */

/** Fractions longer than this are shown as decimals: nobody reads a line of digits. */
const LONGEST_FRACTION = 25

/** A real part: an exact one as a fraction where the conventions ask for it. */
export function formatPart(x: number, exact: Rational | null, conventions: Conventions): string {
  return (exact && fractionPart(exact, conventions)) ?? formatReal(x, conventions, exact)
}

/** An exact part as the fraction that the conventions show; `null` where they show a decimal. */
function fractionPart(exact: Rational, conventions: Conventions): string | null {
  if (Q.isInteger(exact) || conventions.exact === 'decimal') return null
  const text = conventions.exact === 'mixed' ? mixed(exact) : Q.toText(exact)
  return text.length <= LONGEST_FRACTION ? text : null
}

/** True where the text of an exact part is the whole of it. */
export function showsWhole(x: number, exact: Rational, conventions: Conventions): boolean {
  if (fractionPart(exact, conventions) !== null) return true
  const style = conventions.style === 'prefix' ? 'engineering' : conventions.style
  const back = Q.fromDecimal(formatReal(x, { digits: conventions.digits, style }, exact))
  return back !== null && Q.equals(back, exact)
}

/** `7/3` as a mixed number, written so that it reads back: `2+1/3`, `-(2+1/3)`. */
function mixed(q: Rational): string {
  const negative = Q.sign(q) < 0
  const size = negative ? Q.negate(q) : q
  const whole = Q.floor(size)
  const rest = Q.subtract(size, whole)
  if (Q.isZero(whole) || rest === null) return Q.toText(q)
  const text = `${whole.n}+${Q.toText(rest)}`
  return negative ? `-(${text})` : text
}

/** True where a part is put together of several terms and needs brackets beside others. */
export function isCompound(part: string): boolean {
  return part.includes('+') || part.startsWith('-(')
}

/** `53.13°`, `36°52'12"` or `0.9273 rad`, never without its unit. */
export function formatAngle(angle: AngleValue, conventions: Conventions): string {
  if (Number.isNaN(angle.radians)) return 'undefined'
  if (conventions.angle === 'rad') {
    if (conventions.exact !== 'decimal' && angle.turns) return piText(angle.turns)
    return `${formatReal(angle.radians, { ...conventions, style: 'plain' })} rad`
  }
  const exact = angle.turns && Q.multiply(angle.turns, { n: 360, d: 1 })
  const degrees = asDegrees(angle)
  if (!Number.isFinite(degrees)) return 'undefined'
  // Seconds of an angle beyond this are not known to a double.
  if (conventions.degrees === 'minutes' && Math.abs(degrees) < SECONDS_KNOWN)
    return minutesText(degrees, exact, conventions)
  const text = formatPart(degrees, exact, { ...conventions, style: 'plain' })
  // Behind a fraction the sign would belong to its last number only.
  return isCompound(text) || text.includes('/') ? `(${text})°` : `${text}°`
}

/** Degrees of which a double tells the seconds, six decimals included. */
const SECONDS_KNOWN = 1e6

/** Digits left for the seconds once degrees and minutes are written, at most. */
const SECOND_PLACES = 6

/** Degrees, minutes and seconds: `36°52'12"`; seconds have as many decimals as the digits allow. */
function minutesText(degrees: number, exact: Rational | null, { digits }: Conventions): string {
  const places = Math.max(0, Math.min(SECOND_PLACES, digits - 6))
  const unit = 10 ** places
  const scaled = exact && Q.multiply(exact, { n: 3600 * unit, d: 1 })
  const total = Math.round(Math.abs(scaled ? Q.toNumber(scaled) : degrees * 3600 * unit))
  const seconds = (total % (60 * unit)) / unit
  const minutes = Math.floor(total / (60 * unit)) % 60
  const whole = Math.floor(total / (3600 * unit))
  const sign = degrees < 0 && total > 0 ? '-' : ''
  return `${sign}${whole}°${minutes}'${Number(seconds.toFixed(places))}"`
}

/** An exact fraction of a turn as a multiple of π: `3pi/4 rad`. */
function piText(turns: Rational): string {
  const multiple = Q.multiply(turns, { n: 2, d: 1 })
  return multiple ? `${multipleOfPiText(multiple)} rad` : '0 rad'
}

export function multipleOfPiText(multiple: Rational): string {
  if (Q.isZero(multiple)) return '0'
  const top = multiple.n === 1 ? 'pi' : multiple.n === -1 ? '-pi' : `${multiple.n}pi`
  return Q.isInteger(multiple) ? top : `${top}/${multiple.d}`
}
