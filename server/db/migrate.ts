import { QueryTypes, Transaction } from 'sequelize'
import type { Sequelize } from 'sequelize'
import { Umzug } from 'umzug'
import { makeCopy } from './copyFiles'
import { firstTables } from './migrations/first-tables'
import { keysNamesAndSearch } from './migrations/keys-names-and-search'
import { marksAndCheckpoints } from './migrations/marks-and-checkpoints'
import { enclosures } from './migrations/enclosures'
import { plates } from './migrations/plates'
import { keeping } from './migrations/keeping'
import { runs } from './migrations/runs'
import type { Migration } from './migrations/migration'
import { runner } from './migrations/migration'

/** Migrations in order; a name, once shipped, never changes. */
export const MIGRATIONS: readonly ({ readonly name: string } & Migration)[] = [
  { name: '0001-first-tables', ...firstTables },
  { name: '0002-marks-and-checkpoints', ...marksAndCheckpoints },
  { name: '0003-plates', ...plates },
  { name: '0004-keys-names-and-search', ...keysNamesAndSearch },
  { name: '0005-enclosures', ...enclosures },
  { name: '0006-runs', ...runs },
  { name: '0007-keeping', ...keeping },
]

/** Written into the file, so that a program that is older sees at once that it is. */
export const SCHEMA_VERSION = MIGRATIONS.length

async function tables(sequelize: Sequelize): Promise<ReadonlySet<string>> {
  const rows = await sequelize.query<{ name: string }>("SELECT name FROM sqlite_master WHERE type = 'table'", {
    type: QueryTypes.SELECT,
  })
  return new Set(rows.map((r) => r.name))
}

async function namesDone(sequelize: Sequelize, transaction?: Transaction): Promise<string[]> {
  const rows = await sequelize.query<{ name: string }>('SELECT name FROM migrations ORDER BY name', {
    type: QueryTypes.SELECT,
    ...(transaction ? { transaction } : {}),
  })
  return rows.map((r) => r.name)
}

/** Throws where the file was written by a program that knows more than this one; writes nothing. */
export async function refuseNewer(sequelize: Sequelize, refusal: () => Error): Promise<void> {
  const [row] = await sequelize.query<{ user_version: number }>('PRAGMA user_version', { type: QueryTypes.SELECT })
  if ((row?.user_version ?? 0) > SCHEMA_VERSION) throw refusal()
  if (!(await tables(sequelize)).has('migrations')) return
  const known = new Set(MIGRATIONS.map((m) => m.name))
  if ((await namesDone(sequelize)).some((name) => !known.has(name))) throw refusal()
}

/**
 * Runs what has not run yet. Each migration is one transaction together with the
 * note that it has run, so that a kill leaves the file before or after it, never
 * between; each may also meet its own half-done work, which older programs left.
 * Before a file with data is changed, a copy of it is made.
 */
export async function migrate(sequelize: Sequelize, file: string | null, log: (line: string) => void): Promise<void> {
  const present = await tables(sequelize)
  await sequelize.query('CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(255) NOT NULL UNIQUE PRIMARY KEY)')
  const done = new Set(await namesDone(sequelize))
  const pending = MIGRATIONS.filter((m) => !done.has(m.name))
  if (pending.length === 0) return setVersion(sequelize)
  if (present.has('folios') && file !== null) await copyBefore(sequelize, file, pending[0]?.name ?? '', log)
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({
      name,
      up: () =>
        sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, async (transaction) => {
          // Another server on the same file may have been first.
          if ((await namesDone(sequelize, transaction)).includes(name)) return
          await up(runner(sequelize, transaction))
          await sequelize.query('INSERT INTO migrations (name) VALUES (?)', { replacements: [name], transaction })
        }),
    })),
    storage: {
      executed: () => namesDone(sequelize),
      // Noted by the migration itself, in its own transaction.
      logMigration: async () => undefined,
      unlogMigration: async () => undefined,
    },
    logger: undefined,
  })
  await umzug.up()
  await setVersion(sequelize)
}

async function setVersion(sequelize: Sequelize): Promise<void> {
  const [row] = await sequelize.query<{ user_version: number }>('PRAGMA user_version', { type: QueryTypes.SELECT })
  if ((row?.user_version ?? 0) < SCHEMA_VERSION) await sequelize.query(`PRAGMA user_version = ${SCHEMA_VERSION}`)
}

/** A copy of the whole file as it was, beside it. */
async function copyBefore(
  sequelize: Sequelize,
  file: string,
  next: string,
  log: (line: string) => void,
): Promise<void> {
  const copy = await makeCopy(sequelize, file, `before-${next}`)
  log(`The data file is upgraded; as it was before, it is kept as ${copy}`)
}
