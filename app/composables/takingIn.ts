import { watch } from 'vue'
import { matrixValue } from '#core/measured/enclosed'
import { copyText } from '#core/kinds/kinds'
import { readPlain } from '#core/exchange/plainLines'
import type { Data, DataMatrix } from '#core/measured/data'
import type { FolioFile } from '#shared/folio'
import { readFolioFile } from '#shared/folioFile'
import { faultSentence } from '#core/exchange/told'
import { lineNameOf, partsOf } from '#shared/enclosure'
import type { Enclosure } from '#shared/enclosure'
import { encloseNumbers } from '../keeping/blocks'
import { keptNames } from '../lines/nameIndex'
import { useDeskStore } from '~/stores/desk'
import { useExchangeStore } from '~/stores/exchange'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'

/** Entries of a matrix that is written into a line at most. */
export const WRITTEN_MOST = 100
/** Columns that get a line of their own, to be drawn. */
const DRAWN_MOST = 4
/** How long a picture waits for its values, in milliseconds. */
const PATIENCE = 20_000

/** What is done with a file once the student has seen what is in it. */
export function useTakingIn() {
  const desk = useDeskStore()
  const exchange = useExchangeStore()
  const folio = useFolioStore()
  const plates = usePlatesStore()

  const place = (): number => {
    const at = exchange.below === null ? -1 : folio.indexOf(exchange.below)
    return at < 0 ? folio.lines.length : at + 1
  }

  /** The file is dealt with, or given up. */
  function close(): void {
    exchange.clear()
    desk.hide('import')
  }

  /** A name that no line keeps yet. */
  function freeName(wanted: string): string {
    const kept = keptNames(folio.lines)
    let name = wanted
    for (let n = 2; kept.has(name); n += 1) name = `${wanted}_${n}`
    return name
  }

  /** Keeps the data with the folio, with a line that takes it up; drawn where that is asked for. */
  async function enclose(name: string, data: Data, draw: boolean): Promise<void> {
    const enclosure = await encloseNumbers(folio.id, name, data)
    const takesUp = `enclosure("${enclosure.name}")`
    const known = folio.lines.some((line) => line.source.includes(takesUp))
    const sources = known ? [] : linesFor(enclosure, takesUp, draw)
    const ids = folio.enclose(enclosure, sources, place())
    close()
    folio.tell(known ? `“${enclosure.name}” has the new numbers; the lines that use it follow.` : '')
    const [, ...drawn] = ids
    if (draw && drawn.length > 0) drawWhenThere(drawn)
  }

  function linesFor(enclosure: Enclosure, takesUp: string, draw: boolean): string[] {
    const name = freeName(lineNameOf(enclosure))
    const first = `${name} = ${takesUp}`
    if (!draw || enclosure.kind === 'matrix') return [first]
    const parts = partsOf(enclosure)
    const drawn = parts.filter((_, k) => k !== enclosure.parameter && enclosure.columns[k]?.order === 1)
    return [first, ...drawn.slice(0, DRAWN_MOST).map((part) => `${freeName(`${name}_${part}`)} = ${name}.${part}`)]
  }

  /** Curves of the new lines, as soon as their values are there. */
  function drawWhenThere(ids: readonly string[]): void {
    const [first, ...others] = ids
    if (first === undefined) return
    const stop = watch(
      () => plates.candidates.find((c) => c.line === first && c.sweep),
      (candidate) => {
        if (!candidate) return
        clearTimeout(timer)
        stop()
        plates.showCurves(first)
        for (const other of others) if (plates.plate.kind === 'curve') plates.put(plates.plate, other, true)
        desk.show('plates')
      },
      { flush: 'post' },
    )
    const timer = setTimeout(() => stop(), PATIENCE)
  }

  /** A small matrix as an entry that can be edited. */
  function writeIn(name: string, matrix: DataMatrix): void {
    const own = freeName(lineNameOf({ kind: 'matrix', name, block: '', rows: 1, cols: 1, complex: false }))
    const entry = copyText(matrixValue(matrix), 'full', folio.conventions)
    folio.insertPlain([{ source: `${own} = ${entry}` }], place())
    close()
  }

  /** The lines of a text, or of a folio file, put into this folio. */
  function putIn(text: string, isFolio: boolean): void {
    const lines = isFolio ? folioOf(text)?.lines : readPlain(text)
    if (!lines) return
    folio.insertPlain(lines, place())
    close()
  }

  function folioOf(text: string): FolioFile | null {
    const read = readFolioFile(text)
    if (read.kind === 'folio') return read.file
    exchange.problem = faultSentence(read)
    return null
  }

  return { enclose, writeIn, putIn, close }
}
