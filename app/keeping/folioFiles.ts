import { pack } from '#core/exchange/archive'
import type { ArchiveEntry } from '#core/exchange/archive'
import { encode } from '#core/exchange/encoding'
import { openFile } from '#core/exchange/open'
import { readPlain } from '#core/exchange/plainLines'
import { faultSentence } from '#core/exchange/told'
import { bytesOf } from '#shared/enclosure'
import type { FolioFile } from '#shared/folio'
import { readFolioFile, writeFolioFile } from '#shared/folioFile'
import { newId } from '#shared/id'
import { stateOf } from '#shared/operations'
import { api } from './api'
import { fileName } from './folioFile'

export { pack }

/** Folios as files and back: a folio with measured data is an archive, its numbers beside it. */

const blockName = (block: string): string => `${block}.f64`

/** A folio as a file: JSON, or an archive where numbers go with it. Numbers that nobody has are left out and told. */
export async function folioAsFile(
  file: FolioFile,
  numbersOf: (block: string) => Promise<Uint8Array | null>,
): Promise<ArchiveEntry> {
  const own = { name: `${fileName(file.title)}.folio.json`, bytes: encode(writeFolioFile(file)) }
  const blocks: ArchiveEntry[] = []
  for (const { block } of file.enclosures ?? []) {
    const bytes = await numbersOf(block)
    if (bytes) blocks.push({ name: blockName(block), bytes })
  }
  if ((file.enclosures ?? []).length === 0) return own
  return { name: `${fileName(file.title)}.folio.zip`, bytes: pack([own, ...blocks]) }
}

/** A folio of the shelf as a file. */
export async function shelvedAsFile(id: string): Promise<ArchiveEntry> {
  const folio = await api.open(id)
  const file: FolioFile = { ...stateOf(folio), folio: id, revision: folio.revision }
  return folioAsFile(file, (block) => api.block(id, block))
}

/** A folio that was read from a file, with the numbers that came beside it. */
export interface Arrived {
  readonly file: FolioFile
  readonly numbers: ReadonlyMap<string, Uint8Array>
}

/** Every folio in a file of any kind, or why there is none. */
export function arrivals(bytes: Uint8Array, name: string): readonly Arrived[] | string {
  const opened = openFile(bytes, name)
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
      return inArchive(opened.entries)
  }
}

function inArchive(entries: readonly ArchiveEntry[]): readonly Arrived[] | string {
  const blocks = new Map(entries.filter((e) => e.name.endsWith('.f64')).map((e) => [e.name, e.bytes]))
  const found: Arrived[] = []
  for (const entry of entries) {
    if (/\.zip$/i.test(entry.name)) {
      const inner = openFile(entry.bytes, entry.name)
      if (inner.kind === 'fault') return `${entry.name}: ${faultSentence(inner)}`
      const folios = inner.kind === 'archive' ? inArchive(inner.entries.filter((e) => !/\.zip$/i.test(e.name))) : []
      if (typeof folios === 'string') return `${entry.name}: ${folios}`
      found.push(...folios)
    }
    if (!/\.json$/i.test(entry.name)) continue
    const opened = openFile(entry.bytes, entry.name)
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

/** Puts a folio on the shelf, its numbers with it; a folio whose numbers do not arrive is not left behind. */
export async function shelve({ file, numbers }: Arrived): Promise<string> {
  const fresh = new Map([...numbers.keys()].map((block) => [block, newId()]))
  const enclosures = (file.enclosures ?? []).map((e) => ({ ...e, block: fresh.get(e.block) ?? e.block }))
  const { title, conventions, lines, plates, head, sets } = file
  const folio = await api.create({ title, conventions, lines, plates, head, enclosures, sets })
  try {
    for (const [block, bytes] of numbers) await api.putBlock(folio.id, fresh.get(block) ?? block, new Uint8Array(bytes))
  } catch (error) {
    await api.bin(folio.id, true)
    await api.remove(folio.id)
    throw error
  }
  return folio.id
}
