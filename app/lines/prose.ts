/** Words that stand in entries, too. */
const OF_THE_NOTATION: ReadonlySet<string> = new Set('to step count per decade octave where mod and or not for if unknown within'.split(' ')) // prettier-ignore

const WORD = /^["“(]?\p{L}[\p{L}'’-]*["”)]?[.,;:!?]?$/u
const NUMBER = /^\d+[.,;:!?]?$/

/** True where a line reads like a sentence: three words or more, and no sign of reckoning. */
export function isProse(source: string): boolean {
  // A text in quotes is an entry.
  if (/^\s*"[^"]*"\s*$/.test(source)) return false
  const pieces = source.trim().split(/\s+/)
  if (!pieces.every((piece) => WORD.test(piece) || NUMBER.test(piece))) return false
  const words = pieces.map((piece) => piece.replace(/[^\p{L}]/gu, '').toLowerCase())
  return words.filter((word) => word.length > 1 && !OF_THE_NOTATION.has(word)).length >= 3
}
