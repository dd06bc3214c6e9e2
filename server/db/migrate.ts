import { SequelizeStorage, Umzug } from 'umzug'
import type { QueryInterface, Sequelize } from 'sequelize'
import { firstTables } from './migrations/first-tables'
import { marksAndCheckpoints } from './migrations/marks-and-checkpoints'
import { plates } from './migrations/plates'

/** Migrations in order; a name, once shipped, never changes. */
const MIGRATIONS = [
  { name: '0001-first-tables', ...firstTables },
  { name: '0002-marks-and-checkpoints', ...marksAndCheckpoints },
  { name: '0003-plates', ...plates },
]

export async function migrate(sequelize: Sequelize): Promise<void> {
  const umzug = new Umzug<QueryInterface>({
    migrations: MIGRATIONS.map(({ name, up, down }) => ({
      name,
      up: ({ context }) => up(context),
      down: ({ context }) => down(context),
    })),
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  })
  await umzug.up()
}
