import { write } from '../notation/problem'
import type { ProblemFix } from '../notation/problem'
import { dataOf } from '../values/problemData'
import type { Told } from '../values/problemData'

/** Ready corrections of values with and without units that meet. */

/** `3 + 4j ohm`, `3 - j4 ohm`: the unit belongs to both parts. */
const PARTS = /^(\S.*?)\s*([-+−])\s*((?:[ij][\d.]+|[\d.]+[ij]))\s+(\S.*)$/u
const SUM = /^(.+?)(\s*[-+−]\s*)(.+)$/u
const SIMPLE = /^(?:[\d.]+(?:e[-+]?\d+)?|\(.*\)|[\p{L}_][\p{L}\p{Nd}_]*)$/u

export function unitFixes(failed: Told, text: string): readonly ProblemFix[] | null {
  const missing = dataOf(failed, 'unit-missing')
  if (missing) return attached(text, missing)
  if (failed.code === 'radians-mixed') return angleFixes(text)
  if (failed.code === 'per-second-and-cycles') return perSecondFixes(text)
  const whole = dataOf(failed, 'unit-whole')
  if (whole) return [write(text.replace(/\)$/, `, 1 ${whole.unit})`))]
  return null
}

const NO_FIXES: readonly ProblemFix[] = []

/** Ready corrections of hints, from the text that they are about. */
export function hintFixes(told: Told, text: string): readonly ProblemFix[] {
  const { code } = told
  if (code === 'power-by-cycles') return [write(`(2pi*${text.replace(/^\((.*)\)$/, '$1')})`)]
  const pi = dataOf(told, 'near-pi')
  if (pi) return inPi(text, pi.below)
  if (code === 'decibel-of-powers') return [write(text.replace(/^dB\(/, '10*lg('))]
  if (code === 'cycles-for-rate') return [write(`2pi*${/^[\p{L}\d_.*]+$/u.test(text) ? text : `(${text})`}`)]
  if (code === 'equation-asks') return [write(text.replace('==', '='))]
  return NO_FIXES
}

function attached(text: string, { unit, side }: { readonly unit: string; readonly side: 'left' | 'right' }) {
  const both = PARTS.exec(text)
  const fixes: ProblemFix[] = []
  if (both && side === 'left') fixes.push(write(`(${both[1]} ${both[2]} ${both[3]}) ${both[4]}`))
  const parts = SUM.exec(text)
  if (!parts || unit === '') return fixes
  const [, left = '', sign = '', right = ''] = parts
  const one = (term: string): string => (SIMPLE.test(term) && !/^[\p{L}_]/u.test(term) ? `${term} ${unit}` : `${term}*(1 ${unit})`) // prettier-ignore
  fixes.push(write(side === 'left' ? `${one(left)}${sign}${right}` : `${left}${sign}${one(right)}`))
  return fixes
}

/** π where its first digits stand; a name keeps what it stands for. */
function inPi(text: string, below: boolean): readonly ProblemFix[] {
  const exact = text.replace(/6\.28\d*/g, below ? '(2pi)' : '2pi').replace(/3\.14\d*/g, 'pi')
  return exact === text ? NO_FIXES : [write(exact)]
}

/** A value in s⁻¹ as turns: by 2π where it counts radians, else as it is. */
function perSecondFixes(text: string): readonly ProblemFix[] {
  const term = isSum(text) ? `(${text})` : text
  return [write(`${term}/(2pi)`), write(`${term}*(1 Hz*s)`)]
}

/** True where a sign stands outside all brackets. */
function isSum(text: string): boolean {
  let depth = 0
  for (const [k, letter] of [...text].entries()) {
    if ('([{'.includes(letter)) depth += 1
    if (')]}'.includes(letter)) depth -= 1
    if (depth === 0 && k > 0 && '+-−|'.includes(letter)) return true
  }
  return false
}

/** The bare number beside radians gets the unit that it was meant in. */
function angleFixes(text: string): readonly ProblemFix[] {
  const last = /^(.*[-+−]\s*)([\d.]+)$/u.exec(text)
  const first = /^([\d.]+)(\s*[-+−].*)$/u.exec(text)
  if (last) return ['°', ' rad'].map((unit) => write(`${last[1]}${last[2]}${unit}`))
  return first ? ['°', ' rad'].map((unit) => write(`${first[1]}${unit}${first[2]}`)) : []
}
