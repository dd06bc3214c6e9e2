import type { Migration } from './migration'

/** Runs: lines that are varied and lines that are watched, and the sets of values, as JSON with the folio. */
export const runs: Migration = {
  async up({ addColumn }) {
    for (const mark of ['varied', 'watched']) await addColumn('lines', mark, 'INTEGER NOT NULL DEFAULT 0')
    await addColumn('folios', 'sets', "TEXT NOT NULL DEFAULT '[]'")
  },
}
