import { z } from '#shared/schema'
import { api, RequestError } from './api'
import { bytesAt, changeStore, clearStore, keysUnder, putBytes, recordAt } from './browserStore'
import { withTicket } from './ticket'

/**
 * What this browser could not send stands under the address and port of the
 * page. Where the server has another port now, that goes over: from the page at
 * the old port to the server, under a ticket, and from there to the page at the
 * new one, which puts it where it would have kept it itself. It is taken away at
 * one end only when the other has it.
 */

const recordSchema = z.union([
  z.object({ key: z.string(), value: z.unknown() }),
  /** A piece of bytes, where they begin and how many there are in all. */
  z.object({ key: z.string(), piece: z.string(), start: z.int(), of: z.int() }),
])
type HandedRecord = z.infer<typeof recordSchema>

/** Bytes of one piece; of what is handed over in one request; characters of the last words. */
const PIECE = 768 * 1024
const TOGETHER = 1_500_000
const LOCAL = ['ornate-phasor:last-words', 'ornate-phasor:draft', 'ornate-phasor:sheet', 'ornate-phasor:preferences']
const AT_LOCAL = 'local:'

export function newTicket(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(24))
  return btoa(String.fromCharCode(...bytes))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
}

function toText(bytes: Uint8Array): string {
  let text = ''
  for (let at = 0; at < bytes.length; at += 8_192) text += String.fromCharCode(...bytes.subarray(at, at + 8_192))
  return btoa(text)
}

function toBytes(text: string): Uint8Array {
  return Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0))
}

/** Everything this browser keeps for this address, record by record. */
async function* records(piece: number): AsyncGenerator<HandedRecord> {
  for (const key of await keysUnder('')) {
    const bytes = await bytesAt(key)
    if (!bytes) yield { key, value: await recordAt(key) }
    else
      for (let start = 0; start < bytes.length; start += piece)
        yield { key, piece: toText(bytes.subarray(start, start + piece)), start, of: bytes.length }
  }
  for (const key of LOCAL) {
    const value = localStorage.getItem(key)
    if (value !== null) yield { key: `${AT_LOCAL}${key}`, value }
  }
}

/** Hands everything over under a ticket; how many records there were. What was kept here is taken away then. */
export async function handOver(ticket: string, told: (count: number) => void, piece = PIECE): Promise<number> {
  let [from, length] = [0, 0]
  let together: string[] = []
  const send = async (): Promise<void> => {
    if (together.length === 0) return
    await api.hand(ticket, from, together)
    from += together.length
    ;[together, length] = [[], 0]
    told(from)
  }
  for await (const record of records(piece)) {
    const text = JSON.stringify(record)
    if (length + text.length > TOGETHER) await send()
    together.push(text)
    length += text.length
  }
  await send()
  await clearStore()
  for (const key of LOCAL) localStorage.removeItem(key)
  return from
}

/** Takes what was handed over under a ticket; false where this browser does not keep all of it: then the server still has it. */
export async function takeHanded(ticket: string): Promise<boolean> {
  const open = new Map<string, Uint8Array>()
  for (let from = 0; ;) {
    const { records: page } = await api.handed(ticket, from)
    if (page.length === 0) break
    for (const text of page) if (!(await put(JSON.parse(text), open))) return false
    from += page.length
  }
  await api.dropHanded(ticket).catch((error: unknown) => {
    // It is taken away by itself in time.
    if (!(error instanceof RequestError)) throw error
  })
  return true
}

/** Puts a record where it belongs; what stands there already is newer. */
async function put(given: unknown, open: Map<string, Uint8Array>): Promise<boolean> {
  const parsed = recordSchema.safeParse(given)
  if (!parsed.success) return true
  const record = parsed.data
  if ('value' in record && record.key.startsWith(AT_LOCAL)) {
    const key = record.key.slice(AT_LOCAL.length)
    if (LOCAL.includes(key) && typeof record.value === 'string' && localStorage.getItem(key) === null)
      localStorage.setItem(key, record.value)
    return true
  }
  if ((await recordAt(record.key)) !== undefined) return true
  if ('value' in record) return changeStore({ put: [[record.key, record.value]] })
  const bytes = open.get(record.key) ?? new Uint8Array(record.of)
  open.set(record.key, bytes)
  const piece = toBytes(record.piece)
  bytes.set(piece, record.start)
  if (record.start + piece.length < record.of) return true
  open.delete(record.key)
  return putBytes(record.key, bytes)
}

/** The address of a page where the server is now, with the ticket for what was handed over. */
export function presentAddress(here: Location, port: number, to: string, ticket: string | null): string {
  const path = /^\/(?!\/|\\)/.test(to) ? to : '/'
  const [bare = '/'] = path.split('#')
  return `${here.protocol}//${here.hostname}:${port}${ticket === null ? bare : withTicket(bare, ticket)}`
}
