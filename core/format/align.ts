/** Texts of one column put under one another with their decimal points aligned, padded with blanks. */

const REAL = /^([-−]?\d+)(\.\d+)?((?:e-?\d+)?[a-zµ°]*)$/i
const COMPLEX = /^(.*?\S) ([+-]) (.*)$/

export function alignColumn(texts: readonly string[]): readonly string[] {
  if (texts.every((t) => REAL.test(t))) return alignPoints(texts)
  const parts = texts.map((t) => COMPLEX.exec(t))
  if (parts.some((p) => p !== null) && texts.every((t, k) => parts[k] !== null || REAL.test(t))) {
    const left = alignPoints(parts.map((p, k) => p?.[1] ?? texts[k] ?? ''))
    const right = padded(
      parts.map((p) => p?.[3] ?? ''),
      'right',
    )
    return texts.map((_, k) => {
      const p = parts[k]
      return p ? `${left[k]} ${p[2]} ${right[k]}` : `${left[k]}${' '.repeat(3 + (right[k]?.length ?? 0))}`
    })
  }
  return padded(texts, 'left')
}

function alignPoints(texts: readonly string[]): readonly string[] {
  const split = texts.map((t) => {
    const match = REAL.exec(t)
    return match ? { whole: match[1] ?? '', part: `${match[2] ?? ''}${match[3] ?? ''}` } : { whole: t, part: '' }
  })
  const wholes = padded(
    split.map((s) => s.whole),
    'left',
  )
  const partsOf = padded(
    split.map((s) => s.part),
    'right',
  )
  return texts.map((_, k) => `${wholes[k]}${partsOf[k]}`)
}

function padded(texts: readonly string[], side: 'left' | 'right'): readonly string[] {
  const width = Math.max(0, ...texts.map((t) => t.length))
  return texts.map((t) => (side === 'left' ? t.padStart(width) : t.padEnd(width)))
}
