import type { Twin } from './readout'

/**
 * Texts of one column put under one another, padded with blanks: the decimal
 * marks of real and imaginary parts, magnitudes and angles, the signs between
 * them and the imaginary letters all stand in a line.
 */

const NUMBER = /^([-−]?\d[\d ]*)(\.\d+)?((?:e-?\d+)?[a-zµ°]*)$/i
const COMPLEX = /^(.*?\S) ([+-]) (.*)$/
const POLAR = /^(.*?\S) (∠) (.*)$/
/** An imaginary part: its letter in front of the digits, or behind them. */
const IMAGINARY = /^([ij]?)(.*?)([ij]?)$/

export function alignColumn(texts: readonly string[]): readonly string[] {
  if (texts.every((t) => NUMBER.test(t))) return alignPoints(texts)
  for (const form of [COMPLEX, POLAR]) {
    const parts = texts.map((t) => form.exec(t))
    if (!parts.some((p) => p !== null) || !texts.every((t, k) => parts[k] || NUMBER.test(t))) continue
    const left = alignPoints(parts.map((p, k) => p?.[1] ?? texts[k] ?? ''))
    const right = alignImaginary(parts.map((p) => p?.[3] ?? ''))
    return texts.map((_, k) => `${left[k]} ${parts[k]?.[2] ?? ' '} ${right[k]}`)
  }
  return padded(texts, 'left')
}

/** Values of one or of both forms as two columns: the first form of each, and the polar form of those that have it. */
export function alignTwins(values: readonly (string | Twin)[]): {
  readonly first: readonly string[]
  readonly polar: readonly string[]
} {
  const first = alignColumn(values.map((value) => (typeof value === 'string' ? value : value.rectangular)))
  const twins = values.flatMap((value) => (typeof value === 'string' ? [] : [value.polar]))
  const aligned = alignColumn(twins).values()
  return { first, polar: values.map((value) => (typeof value === 'string' ? '' : (aligned.next().value ?? ''))) }
}

function alignImaginary(texts: readonly string[]): readonly string[] {
  const parts = texts.map((t) => IMAGINARY.exec(t))
  const points = alignPoints(parts.map((p, k) => p?.[2] ?? texts[k] ?? ''))
  const before = padded(parts.map((p) => p?.[1] ?? ''), 'right') // prettier-ignore
  const behind = padded(parts.map((p) => p?.[3] ?? ''), 'right') // prettier-ignore
  return texts.map((_, k) => `${before[k]}${points[k]}${behind[k]}`)
}

function alignPoints(texts: readonly string[]): readonly string[] {
  const split = texts.map((t) => {
    const match = NUMBER.exec(t)
    return match ? { whole: match[1] ?? '', part: `${match[2] ?? ''}${match[3] ?? ''}` } : { whole: t, part: '' }
  })
  const wholes = padded(split.map((s) => s.whole), 'left') // prettier-ignore
  const parts = padded(split.map((s) => s.part), 'right') // prettier-ignore
  return texts.map((_, k) => `${wholes[k]}${parts[k]}`)
}

function padded(texts: readonly string[], side: 'left' | 'right'): readonly string[] {
  const width = Math.max(0, ...texts.map((t) => t.length))
  return texts.map((t) => (side === 'left' ? t.padStart(width) : t.padEnd(width)))
}
