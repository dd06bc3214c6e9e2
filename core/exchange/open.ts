import { isArchive, unpack } from './archive'
import type { ArchiveEntry, Budget } from './archive'
import { guessTable, readTable } from './csv'
import type { TableGuess, TableReading } from './csv'
import type { Data } from '../measured/data'
import { decode } from './encoding'
import { readMatrixMarket } from './matrixMarket'
import { recogniseText } from './recognise'
import { fault, remark } from './told'
import type { Fault, Remark } from './told'
import { portsOfName, readTouchstone } from './touchstone'

/** A file that holds data, or a folio, lines of one, or an archive of such files. */
export type Opened =
  | {
      readonly kind: 'data'
      readonly format: DataFormat
      readonly data: Data
      readonly told: readonly Remark[]
      /** Of a table that was read as it was guessed: the guess, to be shown and changed. */
      readonly guess: TableGuess | null
    }
  | { readonly kind: 'folio'; readonly text: string }
  | { readonly kind: 'lines'; readonly text: string }
  | { readonly kind: 'archive'; readonly entries: readonly ArchiveEntry[] }

export type DataFormat = 'matrix-market' | 'touchstone' | 'table'

export interface OpenOptions {
  /** How a table is read, where the student has chosen; else as guessed. */
  readonly reading?: TableReading | undefined
  readonly report?: ((done: number, total: number) => void) | undefined
  /** What is left for archives to unpack to, where one lies in another. */
  readonly budget?: Budget | undefined
}

/** Opens a file by its content; its name decides only where the content does not. */
export function openFile(
  bytes: Uint8Array,
  name: string,
  { reading, report, budget }: OpenOptions = {},
): Opened | Fault {
  if (bytes.length === 0) return fault('empty', {})
  if (isArchive(bytes)) return unpack(bytes, budget)
  const decoded = decode(bytes)
  if (decoded.kind === 'fault') return decoded
  const { text, encoding } = decoded
  if (text.trim() === '') return fault('empty', {})
  const kind = recogniseText(text, name)
  if (kind === 'folio' || kind === 'lines') return { kind, text }
  const read = readData(text, name, kind, reading, report)
  if (read.kind === 'fault') return read
  const told = encoding === 'UTF-8' ? read.told : [remark('encoding', { name: encoding }), ...read.told]
  return { kind: 'data', format: kind, data: read.data, told, guess: read.guess ?? null }
}

interface ReadData {
  readonly kind: 'read'
  readonly data: Data
  readonly told: readonly Remark[]
  readonly guess?: TableGuess
}

function readData(
  text: string,
  name: string,
  format: DataFormat,
  reading: TableReading | undefined,
  report: OpenOptions['report'],
): ReadData | Fault {
  if (format === 'matrix-market') return readMatrixMarket(text)
  if (format === 'touchstone') return readTouchstone(text, portsOfName(name))
  if (reading) return readTable(text, reading, report)
  const guess = guessTable(text)
  if (guess.kind === 'fault') return guess
  const read = readTable(text, guess.reading, report)
  return read.kind === 'fault' ? read : { ...read, guess }
}
