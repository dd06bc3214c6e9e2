import { dialectOf } from '#core/exchange/dialect'
import { encode } from '#core/exchange/encoding'
import { askForFiles } from '~/browser/askForFiles'
import { useDeskStore } from '~/stores/desk'
import { useExchangeStore } from '~/stores/exchange'
import { useFolioStore } from '~/stores/folio'

/** Files that are dropped on the folio, chosen, or pasted: shown before anything is taken in. */
export function useFileOpening() {
  const desk = useDeskStore()
  const folio = useFolioStore()
  const exchange = useExchangeStore()

  async function openFile(file: File, below: string | null = folio.current): Promise<void> {
    if (!folio.writable) return
    if (folio.editing) folio.keep()
    desk.show('import')
    await exchange.open(file.name, new Uint8Array(await file.arrayBuffer()), below)
  }

  async function chooseFile(): Promise<void> {
    const [file] = await askForFiles()
    if (file) await openFile(file)
  }

  /** A table from a spreadsheet; false where the text is none, and stays text. */
  function pasteTable(text: string): boolean {
    if (!text.includes('\t')) return false
    const rows = text.split(/\r\n|\r|\n/).filter((row) => row.trim() !== '')
    const block = dialectOf(rows)
    if (!block || block.dialect.separator !== '\t' || block.width < 2 || rows.length < 2) return false
    const below = folio.editing?.id ?? folio.current
    if (folio.editing) folio.restore()
    desk.show('import')
    void exchange.open('pasted table.tsv', encode(text), below)
    return true
  }

  return { openFile, chooseFile, pasteTable }
}
