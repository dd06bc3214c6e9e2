import type { Transaction } from 'sequelize'
import { STRAY_BYTES_MOST } from '../../shared/enclosure'
import { folioSchema } from '../../shared/folio'
import type { PatientConnection } from './connections'
import type { Database } from './database'
import { tryJson } from './json'

export type BlockOutcome =
  /** All of it is kept. */
  | { readonly status: 'kept' }
  /** So many bytes from its start on are kept, and more are to come. */
  | { readonly status: 'part'; readonly received: number }
  | { readonly status: 'missing' }
  /** Too much waits in this folio that nothing refers to. */
  | { readonly status: 'full' }

/** A piece of a block: where it begins, and how long the whole is. */
export interface Piece {
  readonly numbers: Uint8Array
  readonly start: number
  readonly of: number
}

/**
 * The numbers of measured data, each block under its folio. They come in pieces,
 * one after the other, so that what is on its way when a connection breaks goes
 * on where it was. A block is written once and never changes.
 */
export class Blocks {
  constructor(
    private readonly database: Database,
    private readonly now: () => string = () => new Date().toISOString(),
  ) {}

  private get models() {
    return this.database.models
  }

  /** Keeps a piece; the last one makes the block whole. What is there already stays as it is. */
  async keep(folioId: string, id: string, { numbers, start, of }: Piece): Promise<BlockOutcome> {
    return this.database.writePlain(async (writer): Promise<BlockOutcome> => {
      const folio = await writer.row<{ enclosures: string }>('SELECT enclosures FROM folios WHERE id = ?', folioId)
      if (!folio) return { status: 'missing' }
      if (await writer.row('SELECT id FROM blocks WHERE folio_id = ? AND id = ?', folioId, id))
        return { status: 'kept' }
      const received = await receivedOf(writer, folioId, id)
      if (start !== received) return { status: 'part', received }
      if ((await strayBytes(writer, folioId)) + numbers.length > STRAY_BYTES_MOST) return { status: 'full' }
      const bytes = Buffer.from(numbers)
      if (start === 0 && numbers.length === of) {
        await this.keepWhole(writer, folioId, id, bytes, isEnclosed(folio.enclosures, id))
        return { status: 'kept' }
      }
      await writer.change('INSERT INTO block_parts VALUES (?, ?, ?, ?, ?)', folioId, id, start, bytes, this.now())
      // What still comes is no stray: it is being sent.
      await writer.change('UPDATE block_parts SET saved_at = ? WHERE folio_id = ? AND id = ?', this.now(), folioId, id)
      if (start + numbers.length < of) return { status: 'part', received: start + numbers.length }
      const whole = await joined(writer, folioId, id, of)
      await writer.change('DELETE FROM block_parts WHERE folio_id = ? AND id = ?', folioId, id)
      await this.keepWhole(writer, folioId, id, whole, isEnclosed(folio.enclosures, id))
      return { status: 'kept' }
    })
  }

  private async keepWhole(
    writer: PatientConnection,
    folioId: string,
    id: string,
    bytes: Buffer,
    enclosed: boolean,
  ): Promise<void> {
    await writer.change(
      'INSERT INTO blocks (folio_id, id, numbers, saved_at, enclosed) VALUES (?, ?, ?, ?, ?)',
      folioId,
      id,
      bytes,
      this.now(),
      enclosed ? 1 : 0,
    )
  }

  /** How much of a block has arrived, and whether that is all of it. */
  async received(folioId: string, id: string): Promise<{ readonly received: number; readonly whole: boolean }> {
    const [there] = await this.database.rows<{ size: number }>(
      'SELECT length(numbers) AS size FROM blocks WHERE folio_id = ? AND id = ?',
      [folioId, id],
    )
    if (there) return { received: there.size, whole: true }
    const [parts] = await this.database.rows<{ size: number | null }>(
      'SELECT sum(length(numbers)) AS size FROM block_parts WHERE folio_id = ? AND id = ?',
      [folioId, id],
    )
    return { received: parts?.size ?? 0, whole: false }
  }

  /** The numbers of a block; `null` where there is none, or not all of it yet. */
  async open(folioId: string, id: string): Promise<Uint8Array | null> {
    const row = await this.models.blocks.findOne({ where: { folioId, id } })
    return row ? row.numbers : null
  }

  /** The numbers of a folio that is made with them. */
  async write(folioId: string, id: string, numbers: Uint8Array, transaction: Transaction): Promise<void> {
    await this.models.blocks.create(
      { folioId, id, numbers: Buffer.from(numbers), savedAt: this.now() },
      { transaction },
    )
  }

  /** All blocks of a folio for a copy of it. */
  async copy(from: string, to: string, transaction: Transaction): Promise<void> {
    await this.database.run(
      'INSERT INTO blocks (folio_id, id, numbers, saved_at) SELECT ?, id, numbers, ? FROM blocks WHERE folio_id = ? AND enclosed = 1',
      [to, this.now(), from],
      transaction,
    )
  }
}

async function receivedOf(writer: PatientConnection, folioId: string, id: string): Promise<number> {
  const row = await writer.row<{ size: number | null }>(
    'SELECT sum(length(numbers)) AS size FROM block_parts WHERE folio_id = ? AND id = ?',
    folioId,
    id,
  )
  return row?.size ?? 0
}

/** Bytes in a folio that none of its enclosures refers to: on their way, or never taken up. */
async function strayBytes(writer: PatientConnection, folioId: string): Promise<number> {
  const row = await writer.row<{ size: number }>(
    `SELECT (SELECT coalesce(sum(length(numbers)), 0) FROM blocks WHERE folio_id = ? AND enclosed = 0)
      + (SELECT coalesce(sum(length(numbers)), 0) FROM block_parts WHERE folio_id = ?) AS size`,
    folioId,
    folioId,
  )
  return row?.size ?? 0
}

async function joined(writer: PatientConnection, folioId: string, id: string, of: number): Promise<Buffer> {
  const whole = Buffer.alloc(of)
  for (let at = 0; at < of;) {
    const part = await writer.row<{ numbers: Buffer }>(
      'SELECT numbers FROM block_parts WHERE folio_id = ? AND id = ? AND start = ?',
      folioId,
      id,
      at,
    )
    if (!part || part.numbers.length === 0) throw new Error('a piece of the numbers is missing')
    whole.set(part.numbers, at)
    at += part.numbers.length
  }
  return whole
}

function isEnclosed(enclosures: string, block: string): boolean {
  return (tryJson(enclosures, folioSchema.shape.enclosures) ?? []).some((enclosure) => enclosure.block === block)
}
