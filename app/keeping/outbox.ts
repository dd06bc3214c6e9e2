import { whole, z } from '#shared/schema'
import { partSchema, partsOf } from '#shared/parts'
import type { Part } from '#shared/parts'
import { operationSchema } from '#shared/operations'
import { changeStore, recordAt, recordsUnder } from './browserStore'
import type { Change } from './browserStore'

/**
 * What is not saved on the server yet waits in the browser, part by part, with
 * the revision that the first of them builds on. Nothing in it is ever dropped:
 * what cannot be read, or what the server refuses for good, is set aside.
 */
const baseSchema = z.object({ revision: whole(0) })

/** Something that could not be saved: why, and what it was, as far as it can be shown. */
export const asideSchema = z.object({ at: z.string(), why: z.string(), texts: z.array(z.string()), raw: z.unknown() })
export type Aside = z.infer<typeof asideSchema> & { readonly key: string }

export interface WaitingPart extends Part {
  /** Where it stands among the parts; lower ones are sent first. */
  readonly place: number
}

export interface Outbox {
  /** `null` where nothing has ever waited. */
  readonly revision: number | null
  readonly parts: readonly WaitingPart[]
}

const partKey = (folio: string, part: WaitingPart): string =>
  `outbox:${folio}:${String(part.place).padStart(8, '0')}:${part.key}`
/** A part as it is kept. */
const partRecord = (folio: string, part: WaitingPart): readonly [string, unknown] => [
  partKey(folio, part),
  { key: part.key, operations: part.operations },
]
const baseKey = (folio: string): string => `outbox-base:${folio}`
const asideKey = (folio: string): string => `aside:${folio}:`
/** Where the outbox stood as one record, before it had parts. */
const oldKey = (folio: string): string => `outbox:${folio}`

export async function readOutbox(folio: string): Promise<Outbox> {
  const [base, records] = await Promise.all([recordAt(baseKey(folio)), recordsUnder(oldKey(folio))])
  const parts: WaitingPart[] = []
  let revision = baseSchema.safeParse(base).data?.revision ?? null
  for (const [key, value] of records) {
    if (key === oldKey(folio)) revision = (await takeOldOutbox(folio, value, parts)) ?? revision
    else if (key.startsWith(`${oldKey(folio)}:`)) await takePart(folio, key, value, parts)
  }
  return { revision, parts }
}

async function takePart(folio: string, key: string, value: unknown, parts: WaitingPart[]): Promise<void> {
  const place = Number(key.split(':')[2])
  const part = partSchema.safeParse(value)
  if (part.success) {
    parts.push({ ...part.data, place })
    return
  }
  // What still can be read of it goes on, the rest is set aside.
  const { good, bad } = readable(value)
  const kept = partsOf(good).map((p) => ({ ...p, place }))
  parts.push(...kept)
  await changeStore({
    put: [
      ...kept.map((p) => partRecord(folio, p)),
      ...(bad.length > 0 ? [asideRecord(folio, 'It could not be read any more.', bad)] : []),
    ],
    remove: [key],
  })
}

async function takeOldOutbox(folio: string, value: unknown, parts: WaitingPart[]): Promise<number | null> {
  const revision = baseSchema.safeParse(value).data?.revision ?? null
  const { good, bad } = readable(value)
  const kept = partsOf(good).map((part, k) => ({ ...part, place: k }))
  parts.push(...kept)
  await changeStore({
    put: [
      ...kept.map((p) => partRecord(folio, p)),
      ...(revision === null ? [] : [[baseKey(folio), { revision }] as const]),
      ...(bad.length > 0 ? [asideRecord(folio, 'It could not be read any more.', bad)] : []),
    ],
    remove: [oldKey(folio)],
  })
  return revision
}

const listSchema = z.object({ operations: z.array(z.unknown()) })

/** The operations of a record one by one, those that can be read and those that cannot. */
function readable(value: unknown): { readonly good: Part['operations'][number][]; readonly bad: unknown[] } {
  const list = listSchema.safeParse(value)
  const good: Part['operations'][number][] = []
  const bad: unknown[] = []
  for (const item of list.success ? list.data.operations : [value]) {
    const operation = operationSchema.safeParse(item)
    if (operation.success) good.push(operation.data)
    else bad.push(item)
  }
  return { good, bad }
}

/** Keeps parts as they are now, and takes those away that are sent; false where the browser refuses. */
export function keepParts(
  folio: string,
  revision: number,
  kept: readonly WaitingPart[],
  gone: readonly WaitingPart[] = [],
  aside: Change['put'] = [],
): Promise<boolean> {
  return changeStore({
    put: [[baseKey(folio), { revision }], ...kept.map((p) => partRecord(folio, p)), ...aside],
    remove: gone.map((p) => partKey(folio, p)),
  })
}

/** A record of what could not be saved. */
export function asideRecord(folio: string, why: string, items: readonly unknown[]): readonly [string, unknown] {
  const at = new Date().toISOString()
  const key = `${asideKey(folio)}${at}-${Math.random().toString(36).slice(2, 8)}`
  return [key, { at, why, texts: items.flatMap(textsOf), raw: items }]
}

/** The texts in something that may be an operation. */
function textsOf(item: unknown): string[] {
  const found = z
    .union([z.object({ source: z.string() }), z.object({ line: z.object({ source: z.string() }) })])
    .safeParse(item)
  if (!found.success) return []
  const source = 'line' in found.data ? found.data.line.source : found.data.source
  return source === '' ? [] : [source]
}

export async function readAside(folio: string): Promise<readonly Aside[]> {
  const records = await recordsUnder(asideKey(folio))
  return records.flatMap(([key, value]) => {
    const aside = asideSchema.safeParse(value)
    return [aside.success ? { ...aside.data, key } : { key, at: '', why: '', texts: [], raw: value }]
  })
}

export async function dropAside(keys: readonly string[]): Promise<void> {
  await changeStore({ remove: keys })
}
