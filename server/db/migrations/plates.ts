import type { Migration } from './migration'

/** The plates of a folio, as JSON with it: they are few, and always read together. */
export const plates: Migration = {
  up: ({ addColumn }) => addColumn('folios', 'plates', "TEXT NOT NULL DEFAULT '[]'"),
}
