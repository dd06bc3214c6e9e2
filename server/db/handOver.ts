import type { Database } from './database'

/** Ports at which pages were served so long ago have nothing left in a browser. */
const PORT_LASTS = 90 * 24 * 3_600_000
const PORTS_MOST = 5
/** What nobody has fetched for so long is given up. */
const RECORD_LASTS = 30 * 24 * 3_600_000
const RECORDS_MOST = 5_000

/**
 * A browser keeps what it could not send for one address and port. At a port
 * that the server had before it hands that over: record by record, under a
 * ticket that it made, and fetches it again where the server is now.
 */
export class HandOver {
  constructor(
    private readonly database: Database,
    private readonly now: () => number = Date.now,
  ) {}

  /** Notes the port that is served now; gives back those that were before, the last one first. */
  async ports(port: number): Promise<number[]> {
    const now = this.now()
    await this.database.writePlain(async (writer) => {
      await writer.change('INSERT INTO ports VALUES (?, ?) ON CONFLICT (port) DO UPDATE SET used = excluded.used', port, now) // prettier-ignore
      await writer.change('DELETE FROM ports WHERE used < ?', now - PORT_LASTS)
      await writer.change('DELETE FROM handed_over WHERE at < ?', now - RECORD_LASTS)
    })
    const rows = await this.database.rows<{ port: number }>(
      'SELECT port FROM ports WHERE port <> ? ORDER BY used DESC LIMIT ?',
      [port, PORTS_MOST],
    )
    return rows.map((row) => row.port)
  }

  /** Keeps records under a ticket, from a place on: sent again they are kept once. False where it has too many. */
  async keep(ticket: string, from: number, records: readonly string[]): Promise<boolean> {
    if (from + records.length > RECORDS_MOST) return false
    await this.database.writePlain(async (writer) => {
      for (const [k, record] of records.entries())
        await writer.change(
          'INSERT OR REPLACE INTO handed_over VALUES (?, ?, ?, ?)',
          ticket,
          from + k,
          record,
          this.now(),
        )
    })
    return true
  }

  /** Records of a ticket from a place on: one at least, and more as long as they are small. */
  async fetch(ticket: string, from: number): Promise<string[]> {
    const rows = await this.database.rows<{ record: string }>(
      `SELECT record FROM (
        SELECT record, place, sum(length(record)) OVER (ORDER BY place) AS size FROM handed_over
        WHERE ticket = ? AND place >= ?)
        WHERE size <= 1000000 OR place = ? ORDER BY place`,
      [ticket, from, from],
    )
    return rows.map((row) => row.record)
  }

  /** They have arrived. */
  async drop(ticket: string): Promise<void> {
    await this.database.writePlain((writer) => writer.change('DELETE FROM handed_over WHERE ticket = ?', ticket))
  }
}
