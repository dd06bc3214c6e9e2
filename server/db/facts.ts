import type { Database } from './database'

/** Single facts that the data file keeps beside the folios, by name. */
export class Facts {
  constructor(private readonly database: Database) {}

  async get(name: string): Promise<string | null> {
    const [row] = await this.database.rows<{ fact: string }>('SELECT fact FROM facts WHERE name = ?', [name])
    return row?.fact ?? null
  }

  async set(name: string, fact: string): Promise<void> {
    await this.database.writePlain((writer) =>
      writer.change(
        'INSERT INTO facts VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET fact = excluded.fact',
        name,
        fact,
      ),
    )
  }
}
