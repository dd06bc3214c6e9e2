/** Pieces of a value's text, told apart for their dress. */
export interface Piece {
  readonly kind: 'plain' | 'angle' | 'letter' | 'power'
  readonly text: string
}

/** `-1.2e-7j` → −1.2·10⁻⁷j: the text of a value as print shows it. */
export function dressValue(text: string, letter: 'i' | 'j'): Piece[] {
  const pieces: Piece[] = []
  const add = (kind: Piece['kind'], part: string): void => {
    const last = pieces.at(-1)
    if (last && last.kind === kind && kind === 'plain') pieces[pieces.length - 1] = { kind, text: last.text + part }
    else if (part !== '') pieces.push({ kind, text: part })
  }
  const pattern = /(∠)|e(-?\d+)|(\d|^|[\s(])([ij])(?![a-z])|(pi)|(-)/g
  let at = 0
  for (const match of text.matchAll(pattern)) {
    const [whole, angle, power, before, unit, pi, minus] = match
    add('plain', text.slice(at, match.index))
    at = match.index + whole.length
    if (angle) add('angle', angle)
    else if (power) {
      add('plain', '·10')
      add('power', power.replace('-', '−'))
    } else if (unit) {
      add('plain', before ?? '')
      add(unit === letter ? 'letter' : 'plain', unit)
    } else if (pi) add('plain', 'π')
    else if (minus) add('plain', '−')
  }
  add('plain', text.slice(at))
  return pieces
}

/** A count with its digits in threes, a thin space between them. */
export function countText(count: number): string {
  return count.toLocaleString('en-GB').replaceAll(',', '\u202f')
}
