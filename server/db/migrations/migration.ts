import { QueryTypes } from 'sequelize'
import type { Sequelize, Transaction } from 'sequelize'

/** What a migration works with: everything it does belongs to one transaction. */
export interface Runner {
  readonly run: (sql: string, replacements?: unknown[]) => Promise<void>
  readonly rows: <T extends object>(sql: string, replacements?: unknown[]) => Promise<T[]>
  readonly hasColumn: (table: string, column: string) => Promise<boolean>
  /** Adds a column where it is not there already. */
  readonly addColumn: (table: string, column: string, definition: string) => Promise<void>
}

export interface Migration {
  readonly up: (runner: Runner) => Promise<void>
}

export function runner(sequelize: Sequelize, transaction: Transaction): Runner {
  const run = async (sql: string, replacements: unknown[] = []): Promise<void> => {
    await sequelize.query(sql, { replacements, transaction })
  }
  const rows = <T extends object>(sql: string, replacements: unknown[] = []): Promise<T[]> =>
    sequelize.query<T>(sql, { type: QueryTypes.SELECT, replacements, transaction })
  const hasColumn = async (table: string, column: string): Promise<boolean> =>
    (await rows<{ name: string }>(`SELECT name FROM pragma_table_info('${table}')`)).some((r) => r.name === column)
  return {
    run,
    rows,
    hasColumn,
    async addColumn(table, column, definition) {
      if (!(await hasColumn(table, column))) await run(`ALTER TABLE ${table} ADD COLUMN ${column} ${definition}`)
    },
  }
}
