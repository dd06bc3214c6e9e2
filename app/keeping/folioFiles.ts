import { pack } from '#core/exchange/archive'
import type { ArchiveEntry } from '#core/exchange/archive'
import { encode } from '#core/exchange/encoding'
import type { FolioFile } from '#shared/folio'
import { writeFolioFile } from '#shared/folioFile'
import { newId } from '#shared/id'
import { stateOf } from '#shared/operations'
import { api } from './api'
import { blockName } from './arrivals'
import type { Arrived } from './arrivals'
import { putBlock } from './blocks'
import { fileName } from './folioFile'

export { pack }

/** Folios as files and back: a folio with measured data is an archive, its numbers beside it. */

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

/** Puts a folio on the shelf, its numbers with it; a folio whose numbers do not arrive is not left behind. */
export async function shelve(
  { file, numbers }: Arrived,
  signal: AbortSignal,
  told: (sent: number, of: number) => void,
): Promise<string> {
  const fresh = new Map([...numbers.keys()].map((block) => [block, newId()]))
  const enclosures = (file.enclosures ?? []).map((e) => ({ ...e, block: fresh.get(e.block) ?? e.block }))
  const { title, conventions, lines, plates, head, sets } = file
  const folio = await api.create({ title, conventions, lines, plates, head, enclosures, sets })
  const of = [...numbers.values()].reduce((sum, bytes) => sum + bytes.length, 0)
  let before = 0
  try {
    for (const [block, bytes] of numbers) {
      await putBlock(folio.id, fresh.get(block) ?? block, bytes, signal, (sent) => told(before + sent, of))
      before += bytes.length
    }
  } catch (error) {
    await api.bin(folio.id, true)
    await api.remove(folio.id)
    throw error
  }
  return folio.id
}
