import type { Transaction } from 'sequelize'
import type { Database } from './database'

export type BlockOutcome = 'kept' | 'there' | 'missing'

/** The numbers of measured data, each block under its folio. A block is written once and never changes. */
export class Blocks {
  constructor(
    private readonly database: Database,
    private readonly now: () => string = () => new Date().toISOString(),
  ) {}

  private get models() {
    return this.database.models
  }

  /** Keeps a block; one that is there already stays as it is. */
  async keep(folioId: string, id: string, numbers: Uint8Array): Promise<BlockOutcome> {
    return this.database.write(async (transaction): Promise<BlockOutcome> => {
      if ((await this.models.folios.count({ where: { id: folioId }, transaction })) === 0) return 'missing'
      if ((await this.models.blocks.count({ where: { folioId, id }, transaction })) > 0) return 'there'
      await this.write(folioId, id, numbers, transaction)
      return 'kept'
    })
  }

  /** The numbers of a block; `null` where there is none. */
  async open(folioId: string, id: string): Promise<Uint8Array | null> {
    const row = await this.models.blocks.findOne({ where: { folioId, id } })
    return row ? row.numbers : null
  }

  async write(folioId: string, id: string, numbers: Uint8Array, transaction: Transaction): Promise<void> {
    await this.models.blocks.create(
      { folioId, id, numbers: Buffer.from(numbers), savedAt: this.now() },
      { transaction },
    )
  }

  /** All blocks of a folio for a copy of it. */
  async copy(from: string, to: string, transaction: Transaction): Promise<void> {
    await this.database.run(
      'INSERT INTO blocks (folio_id, id, numbers, saved_at) SELECT ?, id, numbers, ? FROM blocks WHERE folio_id = ?',
      [to, this.now(), from],
      transaction,
    )
  }
}
