import type { FolioFile, Line } from '#shared/folio'

/** A line that two states of a folio have differently. */
export interface Apart {
  readonly key: string
  /** Its place in the folio that is open, counted from 1; of a line that is not in it, where it would come to stand. */
  readonly number: number
  readonly id: string | null
  /** `null` where the folio that is open has no such line. */
  readonly mine: string | null
  /** `null` where the file has none. */
  readonly theirs: string | null
  readonly note: boolean
}

type FileLine = FolioFile['lines'][number]

/** What differs between the lines of a folio and those of a file that was made from it. */
export function linesApart(mine: readonly Line[], theirs: readonly FileLine[]): readonly Apart[] {
  const own = new Map(mine.map((line, k) => [line.id, k]))
  const there = new Map(theirs.flatMap((line) => (line.id === undefined ? [] : [[line.id, line] as const])))
  const changed = mine.flatMap((line, k): Apart[] => {
    const other = there.get(line.id)
    const same = other !== undefined && other.source === line.source && (other.note ?? false) === (line.note ?? false)
    return same ? [] : [{ key: line.id, number: k + 1, id: line.id, mine: line.source, theirs: other?.source ?? null, note: other?.note ?? line.note ?? false }] // prettier-ignore
  })
  /** A new line comes to stand below the nearest line before it that both have. */
  let at = 0
  const fresh = theirs.flatMap((line, k): Apart[] => {
    const place = line.id === undefined ? undefined : own.get(line.id)
    if (place !== undefined) {
      at = place + 1
      return []
    }
    return [{ key: `new ${k}`, number: at, id: null, mine: null, theirs: line.source, note: line.note ?? false }]
  })
  return [...changed, ...fresh]
}
