import { shallowRef } from 'vue'
import type { Data } from '#core/measured/data'
import { dataFrom, describe, numbersOf, PIECE_LEAST, PIECE_MOST } from '#shared/enclosure'
import type { Enclosure } from '#shared/enclosure'
import { newId } from '#shared/id'
import { api, RequestError } from './api'
import { bytesAt, changeStore, keysUnder, putBytes } from './browserStore'

/**
 * The numbers of measured data on their way: kept in the browser until the server has them, and fetched from
 * either. A block never changes, so that whoever has it has it for good. They travel in pieces, beside the lines:
 * nothing that is typed waits for them, and what breaks off goes on where it was.
 */

const prefixOf = (folio: string): string => `block:${folio}:`
const keyOf = (folio: string, block: string): string => `${prefixOf(folio)}${block}`

/** Numbers that the server may not have yet. */
export interface OnTheirWay {
  readonly folio: string
  readonly block: string
  /** The name of the enclosure. */
  readonly name: string
  readonly sent: number
  readonly of: number
  readonly state: 'sending' | 'stopped' | 'failed'
  /** Why they are not sent; empty while they are. */
  readonly message: string
  /** Whether this browser keeps them: found again, not only put in. */
  readonly kept: boolean
}

export const onTheirWay = shallowRef<readonly OnTheirWay[]>([])

/** Blocks that were made in this page and may not be sent yet. */
const fresh = new Map<string, Uint8Array<ArrayBuffer>>()
const stops = new Map<string, AbortController>()

function change(key: string, next: Partial<OnTheirWay> | null): void {
  onTheirWay.value = onTheirWay.value.flatMap((one) =>
    keyOf(one.folio, one.block) !== key ? [one] : next === null ? [] : [{ ...one, ...next }],
  )
}

/** A new enclosure with its numbers, kept here before anything refers to it, and sent. */
export async function encloseNumbers(folio: string, name: string, data: Data): Promise<Enclosure> {
  const block = newId()
  const bytes = new Uint8Array(numbersOf(data))
  const key = keyOf(folio, block)
  fresh.set(key, bytes)
  const kept = await putBytes(key, bytes)
  sendLater({ folio, block, name, sent: 0, of: bytes.length, state: 'sending', message: '', kept })
  return describe(name, block, data)
}

/** Goes on with numbers that an earlier page could not send. */
export async function goOnSending(folio: string, enclosures: readonly Enclosure[]): Promise<void> {
  const waiting = new Set(await keysUnder(prefixOf(folio)))
  for (const { block, name } of enclosures) {
    const key = keyOf(folio, block)
    if (waiting.has(key) && !onTheirWay.value.some((one) => keyOf(one.folio, one.block) === key))
      sendLater({ folio, block, name, sent: 0, of: 0, state: 'sending', message: '', kept: true })
  }
}

function sendLater(one: OnTheirWay): void {
  // Whatever page is shown then: what only this one has is asked about before it closes.
  if (!one.kept) globalThis.addEventListener('beforeunload', askWhereLost)
  onTheirWay.value = [...onTheirWay.value, one]
  void sendBlock(one)
}

function askWhereLost(event: Event): void {
  if (onTheirWay.value.some((one) => !one.kept)) event.preventDefault()
}

/** Stops sending: they stay here until they are sent. */
export function stopSending({ folio, block }: OnTheirWay): void {
  const key = keyOf(folio, block)
  stops.get(key)?.abort()
  change(key, { state: 'stopped', message: 'stopped' })
}

export function sendAgain(one: OnTheirWay): void {
  change(keyOf(one.folio, one.block), { state: 'sending', message: '' })
  void sendBlock(one)
}

/** A piece takes about so long, in milliseconds: as many bytes as the line carries in it. */
const PIECE_TIME = 2_000
const RETRY_FIRST = 2_000
const RETRY_MOST = 20_000

async function sendBlock({ folio, block }: OnTheirWay): Promise<void> {
  const key = keyOf(folio, block)
  stops.get(key)?.abort()
  const controller = new AbortController()
  stops.set(key, controller)
  const { signal } = controller
  for (let retry = RETRY_FIRST; !signal.aborted; retry = Math.min(2 * retry, RETRY_MOST)) {
    try {
      await sendPieces(folio, block, signal)
      return
    } catch (error) {
      if (signal.aborted) return
      const message = error instanceof Error ? error.message : 'They could not be sent.'
      change(key, { state: 'failed', message })
      // What the server refuses waits until it is asked for again.
      if (error instanceof RequestError && error.final && error.status !== 404) return
      await new Promise((done) => setTimeout(done, retry))
    }
  }
}

async function sendPieces(folio: string, block: string, signal: AbortSignal): Promise<void> {
  const key = keyOf(folio, block)
  const bytes = fresh.get(key) ?? (await bytesAt(key))
  // Sent by another tab meanwhile.
  if (!bytes) return change(key, null)
  const of = bytes.length
  const there = await api.received(folio, block)
  change(key, { state: 'sending', message: '', sent: there.received, of })
  if (!there.whole) await putBlock(folio, block, bytes, signal, (sent) => change(key, { sent }), there.received)
  if (signal.aborted) return
  fresh.delete(key)
  stops.delete(key)
  change(key, null)
  await changeStore({ remove: [key] })
}

/** The numbers of a block, wherever they are; `null` where nobody has them. */
export async function openNumbers(folio: string, block: string): Promise<Uint8Array | null> {
  const key = keyOf(folio, block)
  return fresh.get(key) ?? (await bytesAt(key)) ?? (await api.block(folio, block))
}

/** The data of an enclosure; `null` where nobody has its numbers. */
export async function openEnclosure(folio: string, enclosure: Enclosure): Promise<Data | null> {
  const bytes = await openNumbers(folio, enclosure.block)
  return bytes && dataFrom(enclosure, bytes)
}

/** Sends a block from a byte on, in pieces as large as the line carries in a while; stopped it throws. */
export async function putBlock(
  folio: string,
  block: string,
  bytes: Uint8Array,
  signal: AbortSignal,
  told: (sent: number) => void,
  from = 0,
): Promise<void> {
  let [sent, size] = [from, PIECE_LEAST]
  for (;;) {
    signal.throwIfAborted()
    const began = performance.now()
    const piece = new Uint8Array(bytes.subarray(sent, sent + size))
    const answer = await api.putPiece(folio, block, { bytes: piece, start: sent, of: bytes.length }, signal)
    told(answer.received)
    if (answer.kept) return
    sent = answer.received
    const carried = (piece.length / Math.max(1, performance.now() - began)) * PIECE_TIME
    size = Math.round(Math.min(PIECE_MOST, 2 * size, Math.max(PIECE_LEAST, carried)))
  }
}
