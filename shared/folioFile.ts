import { whole, z } from './schema'
import { fault } from '../core/exchange/told'
import type { Fault } from '../core/exchange/told'
import { folioFileSchema } from './folio'
import type { FolioFile } from './folio'

/** Folios as files: JSON with a version, that programs older than the file can refuse by its number. */

/** Raised when a file of today would be misread by a program of yesterday. */
export const FOLIO_FILE_VERSION = 3
/** The first version in which a word behind a number and a blank can be a unit. */
const WITH_UNITS = 3

export interface ReadFolioFile {
  readonly kind: 'folio'
  readonly file: FolioFile
}

/** Reads the text of a folio file; a newer version is refused, an older one is brought up. */
export function readFolioFile(text: string): ReadFolioFile | Fault {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch (error) {
    return fault('json-damaged', { why: error instanceof Error ? error.message.slice(0, 120) : 'unreadable' })
  }
  const version = typeof data === 'object' && data !== null && 'version' in data ? data.version : 1
  if (typeof version === 'number' && version > FOLIO_FILE_VERSION)
    return fault('folio-newer', { version, knows: FOLIO_FILE_VERSION })
  const parsed = folioFileSchema.safeParse(data)
  const older = typeof version !== 'number' || version < WITH_UNITS
  if (parsed.success) return { kind: 'folio', file: older ? beforeUnits(parsed.data) : parsed.data }
  const [issue] = parsed.error.issues
  return fault('folio-form', { where: issue?.path.join('.') ?? '', why: issue?.message ?? 'its form is wrong' })
}

/** An older file: its products are written out when the folio is opened. */
function beforeUnits(file: FolioFile): FolioFile {
  return { ...file, conventions: { spaced: 'product', ...file.conventions } }
}

/** The text of a folio file. */
export function writeFolioFile(file: FolioFile): string {
  return `${JSON.stringify({ version: FOLIO_FILE_VERSION, ...file }, null, 2)}\n`
}

/** What a folio file looks like, as JSON Schema (draft 2020-12). */
export function folioFileJsonSchema(): object {
  const schema = z.toJSONSchema(z.extend(folioFileSchema, { version: z.optional(whole(1, FOLIO_FILE_VERSION)) }), {
    io: 'input',
    unrepresentable: 'any',
  })
  return { title: 'A folio file of Ornate Phasor', ...schema }
}
