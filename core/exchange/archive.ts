import { unzipSync, zipSync } from 'fflate'
import { ARCHIVE_BYTES_MOST, ENTRIES_MOST, ENTRY_BYTES_MOST } from './limits'
import { fault } from './told'
import type { Fault } from './told'

/** Archives of files (ZIP), with limits on what they may unpack to. */

export interface ArchiveEntry {
  readonly name: string
  readonly bytes: Uint8Array
}

export interface Archive {
  readonly kind: 'archive'
  readonly entries: readonly ArchiveEntry[]
}

export function isArchive(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5)
}

/** What an archive and all archives inside it may unpack to; it is used up. */
export interface Budget {
  bytes: number
  entries: number
}

export function freshBudget(): Budget {
  return { bytes: ARCHIVE_BYTES_MOST, entries: ENTRIES_MOST }
}

/** The files of an archive. Names are only names: where a file would go is nobody's business here. */
export function unpack(bytes: Uint8Array, budget = freshBudget()): Archive | Fault {
  const refused: Fault[] = []
  try {
    const files = unzipSync(bytes, {
      // What an entry says of its own size is what is set aside for it: nothing is unpacked beyond that.
      filter: ({ name, originalSize }) => {
        budget.entries -= 1
        budget.bytes -= originalSize
        if (originalSize > ENTRY_BYTES_MOST)
          refused.push(fault('archive-too-big', { name: shortName(name), most: ENTRY_BYTES_MOST })) // prettier-ignore
        else if (budget.bytes < 0) refused.push(fault('archive-whole-too-big', { most: ARCHIVE_BYTES_MOST }))
        if (budget.entries < 0) refused.push(fault('archive-too-many', { count: ENTRIES_MOST - budget.entries, most: ENTRIES_MOST })) // prettier-ignore
        return refused.length === 0 && !name.endsWith('/')
      },
    })
    const [first] = refused
    if (first) return first
    const entries = Object.entries(files).map(([name, content]) => ({ name: plainName(name), bytes: content }))
    return entries.length === 0 ? fault('archive-empty', {}) : { kind: 'archive', entries }
  } catch {
    return refused[0] ?? fault('archive-damaged', {})
  }
}

/** The last part of a path, without anything that leads elsewhere. */
export function plainName(path: string): string {
  const last = path.split(/[/\\]/).findLast((part) => part !== '' && part !== '.' && part !== '..') ?? ''
  // eslint-disable-next-line no-control-regex -- these are what is taken out
  return last.replace(/[\u0000-\u001f\u007f]/g, '').slice(0, 120)
}

const shortName = (name: string): string => plainName(name) || 'A file'

/** Files as one archive; of two with one name the second is numbered. */
export function pack(entries: readonly ArchiveEntry[]): Uint8Array {
  const files: Record<string, Uint8Array> = {}
  for (const { name, bytes } of entries) files[freeName(name, (other) => other in files)] = bytes
  // The same content makes the same archive, whenever it is made.
  return zipSync(files, { level: 6, mtime: new Date(1980, 0, 2) })
}

export function freeName(name: string, taken: (name: string) => boolean): string {
  const dot = name.indexOf('.', 1)
  const [stem, end] = dot < 0 ? [name, ''] : [name.slice(0, dot), name.slice(dot)]
  let found = name
  for (let n = 2; taken(found); n += 1) found = `${stem} ${n}${end}`
  return found
}
