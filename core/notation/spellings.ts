import { plainSpelling } from '../units/symbols'

/**
 * Names read before, each in the one place that its letters point to: the same name is the same text each
 * time, so that looking it up in a map needs neither its hash nor its letters again.
 */
const PLACES = 1024
const remembered: string[] = Array.from({ length: PLACES }, () => '')

/** A text as the one that property names are: looking up what is a key somewhere then compares no letters. */
function asKey(text: string): string {
  const [key = text] = Object.keys({ [text]: true })
  return key
}

function stands(text: string, source: string, from: number): boolean {
  for (let k = 0; k < text.length; k += 1) if (text.charCodeAt(k) !== source.charCodeAt(from + k)) return false
  return true
}

/** One character is a text of its own already. */
function letterAt(source: string, at: number): string {
  const letter = source.charAt(at)
  return letter === '∞' ? 'inf' : plainSpelling(letter)
}

/** The text that stands between two places of a line, for names; as standard notation writes it. */
export function nameAt(source: string, from: number, to: number): string {
  const length = to - from
  if (length === 1) return letterAt(source, from)
  const place = (31 * source.charCodeAt(from) + 7 * source.charCodeAt(to - 1) + 131 * length) & (PLACES - 1)
  const before = remembered[place] ?? ''
  if (before.length === length && stands(before, source, from)) return before
  const text = asKey(plainSpelling(source.slice(from, to)))
  remembered[place] = text
  return text
}
