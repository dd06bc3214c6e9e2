import type { QueryInterface } from 'sequelize'

/** The plates of a folio, as JSON with it: they are few, and always read together. */
export const plates = {
  async up(context: QueryInterface): Promise<void> {
    await context.sequelize.query("ALTER TABLE folios ADD COLUMN plates TEXT NOT NULL DEFAULT '[]'")
  },
  async down(context: QueryInterface): Promise<void> {
    await context.sequelize.query('ALTER TABLE folios DROP COLUMN plates')
  },
}
