import type { Data } from '#core/measured/data'
import { dataFrom, describe, numbersOf } from '#shared/enclosure'
import type { Enclosure } from '#shared/enclosure'
import { newId } from '#shared/id'
import type { Operation } from '#shared/operations'
import { api } from './api'
import { bytesAt, changeStore, putBytes } from './browserStore'

/**
 * The numbers of measured data on their way: kept in the browser until the server has them, and fetched from
 * either. A block never changes, so that whoever has it has it for good.
 */

const keyOf = (folio: string, block: string): string => `block:${folio}:${block}`

/** Blocks that were made in this page and may not be sent yet. */
const fresh = new Map<string, Uint8Array<ArrayBuffer>>()

/** A new enclosure with its numbers, kept here before anything refers to it. */
export async function encloseNumbers(folio: string, name: string, data: Data): Promise<Enclosure> {
  const block = newId()
  const bytes = new Uint8Array(numbersOf(data))
  fresh.set(keyOf(folio, block), bytes)
  await putBytes(keyOf(folio, block), bytes)
  return describe(name, block, data)
}

/** Sends the numbers that these operations refer to, where the server may not have them. */
export async function sendBlocks(folio: string, operations: readonly Operation[]): Promise<void> {
  for (const operation of operations) {
    if (operation.type !== 'enclose') continue
    const key = keyOf(folio, operation.enclosure.block)
    const bytes = fresh.get(key) ?? (await bytesAt(key))
    if (!bytes) continue
    await api.putBlock(folio, operation.enclosure.block, new Uint8Array(bytes))
    fresh.delete(key)
    await changeStore({ remove: [key] })
  }
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
