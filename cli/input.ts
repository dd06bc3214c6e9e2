import { openFile } from '#core/exchange/open'
import type { DataFormat } from '#core/exchange/open'
import type { ArchiveEntry } from '#core/exchange/archive'
import { enclosedValue } from '#core/measured/enclosed'
import type { Data } from '#core/measured/data'
import { fault, faultSentence, remarkSentence } from '#core/exchange/told'
import type { Conventions } from '#core/format/conventions'
import type { Value } from '#core/values/types'
import { dataFrom } from '../shared/enclosure'
import type { FolioFile } from '../shared/folio'
import { readFolioFile } from '../shared/folioFile'

/** What `reckon` is given: lines to evaluate, or data that is there already. */
export type Input =
  | {
      readonly kind: 'lines'
      readonly folio: FolioFile
      readonly conventions: Partial<Conventions>
      /** Measured data that came with the folio. */
      readonly enclosed: readonly { readonly name: string; readonly data: Data }[]
    }
  | { readonly kind: 'data'; readonly data: Data; readonly name: string; readonly told: readonly string[] }
  | { readonly kind: 'problem'; readonly problem: string }

/** Reads a file of any kind by its content. */
export function readInput(bytes: Uint8Array, name: string): Input {
  // No lines at all are a folio, too.
  if (bytes.length === 0) return linesOf('')
  const opened = openFile(bytes, name)
  switch (opened.kind) {
    case 'fault':
      return opened.code === 'empty'
        ? linesOf(new TextDecoder().decode(bytes))
        : { kind: 'problem', problem: faultSentence(opened) }
    case 'archive':
      return readArchive(opened.entries)
    case 'folio':
      return readFolio(opened.text)
    case 'lines':
      return linesOf(opened.text)
    case 'data':
      return { kind: 'data', data: opened.data, name: nameOfData(opened.format), told: opened.told.map(remarkSentence) }
  }
}

const nameOfData = (format: DataFormat): string => (format === 'matrix-market' ? 'M' : 'data')

/** Of an archive the one folio that is in it, with its numbers. */
function readArchive(entries: readonly ArchiveEntry[]): Input {
  const folios = entries.filter((entry) => entry.name.endsWith('.json'))
  const [only] = folios
  if (!only) return { kind: 'problem', problem: faultSentence(fault('archive-empty', {})) }
  if (folios.length === 1) {
    const input = readInput(only.bytes, only.name)
    if (input.kind !== 'lines') return input
    const enclosed = (input.folio.enclosures ?? []).flatMap((enclosure) => {
      const block = entries.find((entry) => entry.name === `${enclosure.block}.f64`)
      const data = block && dataFrom(enclosure, block.bytes)
      return data ? [{ name: enclosure.name, data }] : []
    })
    return { ...input, enclosed }
  }
  const names = folios.map((entry) => entry.name).join(', ')
  return { kind: 'problem', problem: `The archive holds ${folios.length} folios; give one of them: ${names}` }
}

function readFolio(text: string): Input {
  const read = readFolioFile(text)
  if (read.kind === 'fault') return { kind: 'problem', problem: faultSentence(read) }
  return { kind: 'lines', folio: read.file, conventions: read.file.conventions, enclosed: [] }
}

/** Plain lines; a last line break ends the last line. */
function linesOf(text: string): Input {
  const rows = text.split(/\r\n|\r|\n/)
  if (rows.at(-1) === '') rows.pop()
  return {
    kind: 'lines',
    folio: { title: 'Untitled', conventions: {}, lines: rows.map((source) => ({ source })) },
    conventions: {},
    enclosed: [],
  }
}

/** The values that data holds, in the order of the file, each under its name there. */
export function valuesOf(data: Data, name: string): readonly { readonly name: string; readonly value: Value }[] {
  const value = enclosedValue(name, data)
  if (value.kind !== 'parts' || data.kind !== 'table') return [{ name, value }]
  return [...value.parts.values()].map((part, k) => ({ name: data.columns[k]?.name ?? '', value: part }))
}
