import { createStore, promisifyRequest } from 'idb-keyval'
import type { UseStore } from 'idb-keyval'

/**
 * What this browser keeps (IndexedDB): several records change in one
 * transaction, and whoever keeps something is told whether it is kept.
 */
let opened: UseStore | null = null
function store(): UseStore {
  return (opened ??= createStore('keyval-store', 'keyval'))
}

export interface Change {
  readonly put?: readonly (readonly [key: string, value: unknown])[]
  readonly remove?: readonly string[]
}

/** A write that takes longer than this counts as refused, in milliseconds. */
const PATIENCE = 8_000

/** Carries out a change as a whole; false where the browser refuses (full, a private window). */
export async function changeStore({ put = [], remove = [] }: Change): Promise<boolean> {
  try {
    const done = store()('readwrite', (records) => {
      // Plain data: what is reactive or immutable by a proxy cannot be cloned.
      for (const [key, value] of put) records.put(JSON.parse(JSON.stringify(value)), key)
      for (const key of remove) records.delete(key)
      return promisifyRequest(records.transaction)
    })
    let timer: ReturnType<typeof setTimeout> | undefined
    const late = new Promise<never>((_, refuse) => {
      timer = setTimeout(() => refuse(new Error('late')), PATIENCE)
    })
    await Promise.race([done, late]).finally(() => clearTimeout(timer))
    return true
  } catch {
    return false
  }
}

/** Keeps bytes as they are; false where the browser refuses, or does not give back what it took. */
export async function putBytes(key: string, bytes: Uint8Array): Promise<boolean> {
  try {
    await store()('readwrite', (records) => {
      records.put(bytes, key)
      return promisifyRequest(records.transaction)
    })
    const back = await bytesAt(key)
    return back !== null && back.length === bytes.length && back.every((byte, k) => byte === bytes[k])
  } catch {
    return false
  }
}

/** The keys that begin so, without what stands under them. */
export async function keysUnder(prefix: string): Promise<readonly string[]> {
  try {
    const range = IDBKeyRange.bound(prefix, `${prefix}\uffff`)
    const keys = await store()('readonly', (records) => promisifyRequest(records.getAllKeys(range)))
    return keys.map(String)
  } catch {
    return []
  }
}

/** Takes everything away that this browser keeps. */
export async function clearStore(): Promise<void> {
  await store()('readwrite', (records) => {
    records.clear()
    return promisifyRequest(records.transaction)
  })
}

/** Bytes that were kept; `null` where there are none. */
export async function bytesAt(key: string): Promise<Uint8Array | null> {
  const found = await recordAt(key)
  return found instanceof Uint8Array ? found : null
}

/** All records whose keys begin so, in the order of the keys; what cannot be read at all is an empty list. */
export async function recordsUnder(prefix: string): Promise<readonly (readonly [key: string, value: unknown])[]> {
  try {
    return await store()('readonly', async (records) => {
      const range = IDBKeyRange.bound(prefix, `${prefix}\uffff`)
      const [keys, values] = await Promise.all([
        promisifyRequest(records.getAllKeys(range)),
        promisifyRequest<unknown[]>(records.getAll(range)),
      ])
      return keys.map((key, k) => [String(key), values[k]] as const)
    })
  } catch {
    return []
  }
}

/** One record. */
export async function recordAt(key: string): Promise<unknown> {
  try {
    return await store()('readonly', (records) => promisifyRequest<unknown>(records.get(key)))
  } catch {
    return undefined
  }
}

/** Whether this browser keeps anything now: tried, not guessed. */
export async function storeWorks(): Promise<boolean> {
  const key = 'trial'
  const trial = String(Math.random())
  if (!(await changeStore({ put: [[key, trial]] }))) return false
  const kept = (await recordAt(key)) === trial
  await changeStore({ remove: [key] })
  return kept
}
