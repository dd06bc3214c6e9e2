import { freshBudget } from '#core/exchange/archive'
import type { ArchiveEntry, Budget } from '#core/exchange/archive'
import { openFile } from '#core/exchange/open'
import { readPlain } from '#core/exchange/plainLines'
import { faultSentence } from '#core/exchange/told'
import { bytesOf } from '#shared/enclosure'
import type { FolioFile } from '#shared/folio'
import { readFolioFile } from '#shared/folioFile'

/** Folios in files of any kind. Read away from the page: what a file unpacks to is known only then. */

/** How the numbers of a folio are called in an archive. */
export const blockName = (block: string): string => `${block}.f64`

/** A folio that was read from a file, with the numbers that came beside it. */
export interface Arrived {
  readonly file: FolioFile
  readonly numbers: ReadonlyMap<string, Uint8Array>
}

/** Every folio in a file of any kind, or why there is none. */
export function arrivals(bytes: Uint8Array, name: string): readonly Arrived[] | string {
  const budget = freshBudget()
  const opened = openFile(bytes, name, { budget })
  switch (opened.kind) {
    case 'fault':
      return faultSentence(opened)
    case 'data':
      return 'data'
    case 'lines': {
      const lines = readPlain(opened.text).map((line) => ({ ...line }))
      const title = name
        .replace(/\.[A-Za-z0-9.]{1,16}$/, '')
        .trim()
        .slice(0, 200)
      return [{ file: { title: title === '' ? 'Lines' : title, conventions: {}, lines }, numbers: new Map() }]
    }
    case 'folio': {
      const read = readFolioFile(opened.text)
      return read.kind === 'fault' ? faultSentence(read) : [{ file: read.file, numbers: new Map() }]
    }
    case 'archive':
      return inArchive(opened.entries, budget)
  }
}

function inArchive(entries: readonly ArchiveEntry[], budget: Budget): readonly Arrived[] | string {
  const blocks = new Map(entries.filter((e) => e.name.endsWith('.f64')).map((e) => [e.name, e.bytes]))
  const found: Arrived[] = []
  for (const entry of entries) {
    if (/\.zip$/i.test(entry.name)) {
      const inner = openFile(entry.bytes, entry.name, { budget })
      if (inner.kind === 'fault') return `${entry.name}: ${faultSentence(inner)}`
      const folios =
        inner.kind === 'archive'
          ? inArchive(
              inner.entries.filter((e) => !/\.zip$/i.test(e.name)),
              budget,
            )
          : []
      if (typeof folios === 'string') return `${entry.name}: ${folios}`
      found.push(...folios)
    }
    if (!/\.json$/i.test(entry.name)) continue
    const opened = openFile(entry.bytes, entry.name, { budget })
    const read = opened.kind === 'folio' ? readFolioFile(opened.text) : null
    if (opened.kind === 'fault') return `${entry.name}: ${faultSentence(opened)}`
    if (!read) continue
    if (read.kind === 'fault') return `${entry.name}: ${faultSentence(read)}`
    const numbers = (read.file.enclosures ?? []).flatMap((e) => {
      const bytes = blocks.get(blockName(e.block))
      return bytes && bytes.length === bytesOf(e) ? [[e.block, bytes] as const] : []
    })
    found.push({ file: read.file, numbers: new Map(numbers) })
  }
  return found.length === 0 ? 'The archive holds no folio.' : found
}
