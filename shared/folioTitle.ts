import type { Line } from './folio'
import { firstHeading } from './headings'

/** What a folio is called that has neither a title nor a line. */
export const UNNAMED = 'New folio'
/** A title that is taken from a line is cut to so many characters. */
const TAKEN_MOST = 60

/**
 * The title that a folio has by itself: its first heading, else its first line
 * that says anything. While the title is the one it would have by itself, it follows.
 */
export function ownTitle(lines: readonly Line[]): string {
  let first = ''
  for (const line of lines) {
    if (line.note) {
      const heading = firstHeading(line.source)
      if (heading) return cut(plain(heading.text))
    }
    if (first === '') first = plain(line.source.split('\n').find((part) => plain(part) !== '') ?? '')
  }
  return first === '' ? UNNAMED : cut(first)
}

/** Without the marks of headings, lists, emphasis and remarks. */
function plain(text: string): string {
  return text
    .replace(/^\s*(?:#+|[-+*>]|\d+\.)\s+/, '')
    .replace(/\*\*|__|`/g, '')
    .replace(/\s+/g, ' ')
    .trim()
}

function cut(text: string): string {
  const signs = [...text]
  return signs.length <= TAKEN_MOST
    ? text
    : `${signs
        .slice(0, TAKEN_MOST - 1)
        .join('')
        .trimEnd()}…`
}
