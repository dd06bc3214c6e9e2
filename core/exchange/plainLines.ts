/**
 * A folio as plain text: one line an entry, remarks behind `#`, notes as remarks. What `reckon` reads.
 */

export interface PlainLine {
  readonly source: string
  readonly note?: true | undefined
}

/** A note keeps its line breaks as remarks of their own; a mark before the number sign tells them from remarks. */
export function writePlain(lines: readonly PlainLine[]): string {
  const written = lines.map(({ source, note }) => (note ? noteText(source) : source.replace(/\r\n|\r|\n/g, ' ')))
  return written.map((line) => `${line}\n`).join('')
}

const NOTE = '#| '

function noteText(source: string): string {
  return source
    .split(/\r\n|\r|\n/)
    .map((line) => `${NOTE}${line}`)
    .join('\n')
}

/** Lines of a text; remarks that were notes are notes again. */
export function readPlain(text: string): readonly PlainLine[] {
  const rows = text.split(/\r\n|\r|\n/)
  if (rows.at(-1) === '') rows.pop()
  const lines: PlainLine[] = []
  let note: string[] | null = null
  for (const row of rows) {
    const isNote = row.startsWith(NOTE) || row === NOTE.trimEnd()
    if (isNote) {
      note = [...(note ?? []), row.slice(NOTE.length)]
      continue
    }
    if (note) lines.push({ source: note.join('\n'), note: true })
    note = null
    lines.push({ source: row })
  }
  if (note) lines.push({ source: note.join('\n'), note: true })
  return lines
}
