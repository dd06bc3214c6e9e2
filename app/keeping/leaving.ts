import { z } from '#shared/schema'
import { bytesAt, clearStore, keysUnder, recordsUnder } from './browserStore'
import { tellSignedOut } from './doorChannel'

/** What this browser still has that the server does not, and how all of it is taken away when somebody signs out. */

export interface Unsent {
  readonly folio: string
  /** Changes, texts in the middle of being typed, numbers, changes that were set aside. */
  readonly changes: number
  readonly texts: readonly string[]
  readonly numbers: number
}

const operationsSchema = z.object({ operations: z.array(z.unknown()) })
const textSchema = z.object({ text: z.string() })
const asideSchema = z.object({ texts: z.array(z.string()) })
const lineSchema = z.union([z.object({ source: z.string() }), z.object({ line: z.object({ source: z.string() }) })])

/** Everything that is not on the server, by folio. */
export async function unsentWork(): Promise<readonly Unsent[]> {
  const found = new Map<string, { changes: number; texts: string[]; numbers: number }>()
  const of = (key: string): { changes: number; texts: string[]; numbers: number } => {
    const folio = key.split(':')[1] ?? ''
    const known = found.get(folio) ?? { changes: 0, texts: [], numbers: 0 }
    found.set(folio, known)
    return known
  }
  for (const [key, value] of await recordsUnder('outbox:')) {
    const { operations } = operationsSchema.safeParse(value).data ?? { operations: [value] }
    const unsent = of(key)
    unsent.changes += operations.length
    unsent.texts.push(...operations.flatMap(textsOf))
  }
  for (const [key, value] of await recordsUnder('draft:')) {
    const text = textSchema.safeParse(value).data?.text ?? ''
    if (text.trim() !== '') of(key).texts.push(text)
  }
  for (const [key, value] of await recordsUnder('aside:')) {
    const unsent = of(key)
    unsent.changes += 1
    unsent.texts.push(...(asideSchema.safeParse(value).data?.texts ?? []))
  }
  for (const key of await keysUnder('block:')) of(key).numbers += 1
  return [...found].map(([folio, unsent]) => ({ folio, ...unsent }))
}

function textsOf(operation: unknown): string[] {
  const found = lineSchema.safeParse(operation).data
  if (!found) return []
  const source = 'line' in found ? found.line.source : found.source
  return source === '' ? [] : [source]
}

/** All of it as a file to keep, for whoever signs out before it could be sent: texts to read, and whatever else there is. */
export async function unsentFile(unsent: readonly Unsent[]): Promise<Uint8Array> {
  const { pack } = await import('#core/exchange/archive')
  const text = unsent.map(({ folio, texts }) => [`# folio ${folio}`, ...texts].join('\n')).join('\n\n')
  const waiting = await Promise.all(['outbox', 'draft', 'aside'].map((kind) => recordsUnder(kind)))
  const numbers: { name: string; bytes: Uint8Array }[] = []
  for (const key of await keysUnder('block:')) {
    const bytes = await bytesAt(key)
    if (bytes) numbers.push({ name: `${key.split(':')[2] ?? 'numbers'}.f64`, bytes })
  }
  const encode = (content: string): Uint8Array => new TextEncoder().encode(content)
  return pack([
    { name: 'unsent.txt', bytes: encode(`${text}\n`) },
    { name: 'unsent.json', bytes: encode(JSON.stringify(Object.fromEntries(waiting.flat()))) },
    ...numbers,
  ])
}

/** What belongs to the device and is nobody's work: its theme, how wide the plates are. */
const OF_THE_DEVICE = new Set(['ornate-phasor:preferences'])
/** Takes away what this browser holds of anybody's work; what its other windows write before they go, too. */
export async function forgetEverything(): Promise<void> {
  await tellSignedOut()
  await clearStore()
  for (const key of Object.keys(localStorage)) if (!OF_THE_DEVICE.has(key)) localStorage.removeItem(key)
  sessionStorage.clear()
}
