/** What an empty folio offers to try: a word, and the lines that a click puts in. */
export interface FirstLines {
  readonly what: string
  readonly lines: readonly { readonly source: string; readonly note?: true }[]
}

export const FIRST_LINES: readonly FirstLines[] = [
  { what: 'a phasor', lines: [{ source: 'V = 230∠30°' }] },
  { what: 'Ohm’s law', lines: [{ source: 'I = 230∠0° / (12 + 5j)' }] },
  { what: 'a matrix', lines: [{ source: 'A = [[8 + 2j, -4], [-4, 9 - 1j]]' }, { source: 'A^-1' }] },
  { what: 'a sweep', lines: [{ source: 'f = 10 to 10k per decade 20' }, { source: 'H = 1/(1 + j*f/500)' }] },
  { what: 'a note', lines: [{ source: '## What is sought\n\nThe current $I = V/Z$ through the choke.', note: true }] },
]

const OFFERED: ReadonlySet<string> = new Set(FIRST_LINES.flatMap((one) => one.lines.map((line) => line.source)))

/** True while a folio holds nothing but what was offered: the rest is offered still. */
export function onlyOffered(sources: readonly string[]): boolean {
  return sources.length <= OFFERED.size + 1 && sources.every((source) => source === '' || OFFERED.has(source))
}
