import { parseLine } from './parser'
import type { Parsed } from './parser'
import { definedName } from './references'
import type { Span } from './tree'

/**
 * The value that a line gives: of a line that keeps a name what stands behind its equals sign, of any other its whole
 * entry. Without the remark, and without the blanks around it. Total: a line that cannot be read has one, too.
 */
export function valuePart(source: string): Span {
  const parsed = parseLine(source)
  const { statement } = parsed
  const keeps = statement.type === 'define' || statement.type === 'function'
  const head = keeps ? source.indexOf('=', statement.name.to) + 1 : 0
  const entry = source.slice(0, remarkStart(parsed))
  const blanks = entry.length - entry.slice(head).trimStart().length
  return { from: blanks, to: Math.max(blanks, entry.trimEnd().length) }
}

/** Where the remark begins, with its sign; the end of the line without one. */
function remarkStart({ source, remark }: Parsed): number {
  if (remark === null) return source.length
  let at = source.indexOf('#')
  // A number sign may stand in a text before it; what follows the one that is sought is the remark alone.
  while (at >= 0 && source.slice(at + 1).trim() !== remark) at = source.indexOf('#', at + 1)
  return at < 0 ? source.length : at
}

export function valueText(source: string): string {
  const { from, to } = valuePart(source)
  return source.slice(from, to)
}

/** What a line is called where there is little room: by the name that it keeps, or else by its entry. */
export function headText(parsed: Parsed): string {
  return definedName(parsed) ?? valueText(parsed.source)
}

/** The line with another value under the same name, its remark kept; of a value that is typed with a name only the value counts. */
export function withValue(source: string, value: string): string {
  const { from, to } = valuePart(source)
  return source.slice(0, from) + valueText(value) + source.slice(to)
}
