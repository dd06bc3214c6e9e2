import type { Line } from '#shared/folio'
import { leadingHeading } from '#shared/headings'

/** Headings and what is tucked away below them. */

/** Below every heading of a note. */
const REMARK_LEVEL = 7

/** How deep a heading the line is: 1 to 6 for a note, 7 for a line that is only a remark; `null` for others. */
export function headingLevel(line: Line): number | null {
  if (line.note) return leadingHeading(line.source)?.level ?? null
  return line.source.trimStart().startsWith('#') ? REMARK_LEVEL : null
}

/** The lines that belong to a heading: down to the next one of its level or above. */
export function sectionOf(lines: readonly Line[], index: number): readonly Line[] {
  const heading = lines[index]
  const level = heading ? headingLevel(heading) : null
  if (level === null) return []
  const rest = lines.slice(index + 1)
  const end = rest.findIndex((line) => (headingLevel(line) ?? Infinity) <= level)
  return end < 0 ? rest : rest.slice(0, end)
}

/** The ids of the lines that a folded heading hides. */
export function tuckedAway(lines: readonly Line[]): ReadonlySet<string> {
  const hidden = new Set<string>()
  lines.forEach((line, index) => {
    if (line.folded) for (const below of sectionOf(lines, index)) hidden.add(below.id)
  })
  return hidden
}
