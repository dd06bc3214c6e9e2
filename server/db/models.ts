import { DataTypes } from 'sequelize'
import type {
  CreationOptional,
  InferAttributes,
  InferCreationAttributes,
  Model,
  ModelStatic,
  Sequelize,
} from 'sequelize'

export interface FolioRow extends Model<InferAttributes<FolioRow>, InferCreationAttributes<FolioRow>> {
  id: string
  title: string
  /** JSON, validated with the shared schema when it is read. */
  conventions: string
  /** The ids of the lines in their order, as JSON: moving a line is one write. */
  lineOrder: string
  revision: CreationOptional<number>
  createdAt: string
  changedAt: string
  binnedAt: string | null
}

export interface LineRow extends Model<InferAttributes<LineRow>, InferCreationAttributes<LineRow>> {
  id: string
  folioId: string
  source: string
}

/** What each save did: the operations that led to a revision. */
export interface RevisionRow extends Model<InferAttributes<RevisionRow>, InferCreationAttributes<RevisionRow>> {
  folioId: string
  revision: number
  operations: string
  savedAt: string
}

export interface Models {
  readonly folios: ModelStatic<FolioRow>
  readonly lines: ModelStatic<LineRow>
  readonly revisions: ModelStatic<RevisionRow>
}

export function defineModels(sequelize: Sequelize): Models {
  const common = { timestamps: false, underscored: true } as const
  // A fresh object for each column: Sequelize writes the column's name into it.
  const text = () => ({ type: DataTypes.TEXT, allowNull: false }) as const
  const folios = sequelize.define<FolioRow>(
    'folio',
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      title: text(),
      conventions: text(),
      lineOrder: text(),
      revision: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 },
      createdAt: text(),
      changedAt: text(),
      binnedAt: { type: DataTypes.TEXT, allowNull: true },
    },
    { ...common, tableName: 'folios' },
  )
  const lines = sequelize.define<LineRow>(
    'line',
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      folioId: { type: DataTypes.TEXT, primaryKey: true },
      source: text(),
    },
    { ...common, tableName: 'lines' },
  )
  const revisions = sequelize.define<RevisionRow>(
    'revision',
    {
      folioId: { type: DataTypes.TEXT, primaryKey: true },
      revision: { type: DataTypes.INTEGER, primaryKey: true },
      operations: text(),
      savedAt: text(),
    },
    { ...common, tableName: 'revisions' },
  )
  return { folios, lines, revisions }
}
