import { del, get, set } from 'idb-keyval'
import { z } from 'zod'
import { operationSchema } from '#shared/operations'
import type { Operation } from '#shared/operations'

/** What could not be sent yet waits in the browser (IndexedDB) until it can. */
const outboxSchema = z.object({ revision: z.int(), operations: z.array(operationSchema) })
export type Outbox = z.infer<typeof outboxSchema>

const key = (folio: string): string => `outbox:${folio}`

export async function readOutbox(folio: string): Promise<Outbox | null> {
  try {
    const parsed = outboxSchema.safeParse(await get(key(folio)))
    return parsed.success ? parsed.data : null
  } catch {
    return null
  }
}

/** Keeps the operations; false where the browser refuses (a full disk, a private window). */
export async function writeOutbox(folio: string, revision: number, operations: readonly Operation[]): Promise<boolean> {
  try {
    if (operations.length === 0) await del(key(folio))
    else await set(key(folio), JSON.parse(JSON.stringify({ revision, operations })))
    return true
  } catch {
    return false
  }
}

/** The entry that is being typed, kept so that a reload in the middle of a line loses nothing. */
const DRAFT = 'ornate-phasor:draft'
const draftSchema = z.object({ folio: z.string(), line: z.string(), text: z.string() })

export function readDraft(folio: string): { readonly line: string; readonly text: string } | null {
  try {
    const draft = draftSchema.safeParse(JSON.parse(localStorage.getItem(DRAFT) ?? 'null'))
    return draft.success && draft.data.folio === folio ? draft.data : null
  } catch {
    return null
  }
}

export function writeDraft(draft: z.infer<typeof draftSchema> | null): void {
  try {
    if (draft) localStorage.setItem(DRAFT, JSON.stringify(draft))
    else localStorage.removeItem(DRAFT)
  } catch {
    // A browser without storage still has the open page.
  }
}
