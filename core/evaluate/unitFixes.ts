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
  const whole = dataOf(failed, 'unit-whole')
  if (whole) return [write(text.replace(/\)$/, `, 1 ${whole.unit})`))]
  return null
}

const NO_FIXES: readonly ProblemFix[] = []

/** Ready corrections of hints, from the text that they are about. */
export function hintFixes({ code }: Told, text: string): readonly ProblemFix[] {
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

/** The bare number beside radians gets the unit that it was meant in. */
function angleFixes(text: string): readonly ProblemFix[] {
  const last = /^(.*[-+−]\s*)([\d.]+)$/u.exec(text)
  const first = /^([\d.]+)(\s*[-+−].*)$/u.exec(text)
  if (last) return ['°', ' rad'].map((unit) => write(`${last[1]}${last[2]}${unit}`))
  return first ? ['°', ' rad'].map((unit) => write(`${first[1]}${unit}${first[2]}`)) : []
}
