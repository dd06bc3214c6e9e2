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
  /** The plates, as JSON. */
  plates: CreationOptional<string>
  /** What is said of the measured data, as JSON; its numbers are blocks. */
  enclosures: CreationOptional<string>
  /** The head of the sheet, as JSON. */
  head: CreationOptional<string>
  /** The sets of values of its runs, as JSON. */
  sets: CreationOptional<string>
  revision: CreationOptional<number>
  createdAt: string
  changedAt: string
  binnedAt: string | null
}

export interface LineRow extends Model<InferAttributes<LineRow>, InferCreationAttributes<LineRow>> {
  id: string
  folioId: string
  source: string
  note: CreationOptional<boolean>
  folded: CreationOptional<boolean>
  hidden: CreationOptional<boolean>
  varied: CreationOptional<boolean>
  watched: CreationOptional<boolean>
  /** The part of the sheet that it answers; empty where it answers none. */
  answer: CreationOptional<string>
}

/** The numbers of measured data. A block is written once. */
export interface BlockRow extends Model<InferAttributes<BlockRow>, InferCreationAttributes<BlockRow>> {
  folioId: string
  id: string
  numbers: Buffer
  savedAt: string
}

/** What each save did: the operations that led to a revision. */
export interface RevisionRow extends Model<InferAttributes<RevisionRow>, InferCreationAttributes<RevisionRow>> {
  folioId: string
  revision: number
  operations: string
  savedAt: string
  /** The key of the save; null for what is older than keys, or made of several saves. */
  saveKey: CreationOptional<string | null>
  /** What the student has called the state after it. */
  name: CreationOptional<string | null>
  /** The revision it builds on, where that is not the one before. */
  buildsOn: CreationOptional<number | null>
}

/** The whole state of a folio at a revision, from which later states are built. */
export interface CheckpointRow extends Model<InferAttributes<CheckpointRow>, InferCreationAttributes<CheckpointRow>> {
  folioId: string
  revision: number
  /** Title, conventions and lines, as JSON. */
  state: string
  savedAt: string
}

export interface Models {
  readonly folios: ModelStatic<FolioRow>
  readonly lines: ModelStatic<LineRow>
  readonly revisions: ModelStatic<RevisionRow>
  readonly checkpoints: ModelStatic<CheckpointRow>
  readonly blocks: ModelStatic<BlockRow>
}

export function defineModels(sequelize: Sequelize): Models {
  const common = { timestamps: false, underscored: true } as const
  // A fresh object for each column: Sequelize writes the column's name into it.
  const text = () => ({ type: DataTypes.TEXT, allowNull: false }) as const
  const mark = () => ({ type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false }) as const
  const folios = sequelize.define<FolioRow>(
    'folio',
    {
      id: { type: DataTypes.TEXT, primaryKey: true },
      title: text(),
      conventions: text(),
      lineOrder: text(),
      plates: { type: DataTypes.TEXT, allowNull: false, defaultValue: '[]' },
      enclosures: { type: DataTypes.TEXT, allowNull: false, defaultValue: '[]' },
      head: { type: DataTypes.TEXT, allowNull: false, defaultValue: '{}' },
      sets: { type: DataTypes.TEXT, allowNull: false, defaultValue: '[]' },
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
      note: mark(),
      folded: mark(),
      hidden: mark(),
      varied: mark(),
      watched: mark(),
      answer: { type: DataTypes.TEXT, allowNull: false, defaultValue: '' },
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
      saveKey: { type: DataTypes.TEXT, allowNull: true },
      name: { type: DataTypes.TEXT, allowNull: true },
      buildsOn: { type: DataTypes.INTEGER, allowNull: true },
    },
    { ...common, tableName: 'revisions' },
  )
  const checkpoints = sequelize.define<CheckpointRow>(
    'checkpoint',
    {
      folioId: { type: DataTypes.TEXT, primaryKey: true },
      revision: { type: DataTypes.INTEGER, primaryKey: true },
      state: text(),
      savedAt: text(),
    },
    { ...common, tableName: 'checkpoints' },
  )
  const blocks = sequelize.define<BlockRow>(
    'block',
    {
      folioId: { type: DataTypes.TEXT, primaryKey: true },
      id: { type: DataTypes.TEXT, primaryKey: true },
      numbers: { type: DataTypes.BLOB, allowNull: false },
      savedAt: text(),
    },
    { ...common, tableName: 'blocks' },
  )
  return { folios, lines, revisions, checkpoints, blocks }
}
