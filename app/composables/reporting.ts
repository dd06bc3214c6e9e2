import { pack } from '#core/exchange/archive'
import type { ArchiveEntry } from '#core/exchange/archive'
import { encode } from '#core/exchange/encoding'
import { writeLatex } from '#core/exchange/latexOut'
import { writeMarkdown } from '#core/exchange/markdownOut'
import { makeReport } from '#core/exchange/report'
import type { Report, ReportPlate } from '#core/exchange/report'
import { runsInPrint } from '#core/exchange/runsOut'
import type { RunsTable } from '#core/exchange/runsOut'
import type { Plate } from '#shared/plate'
import { saveAs } from '~/drawing/files'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'
import { useRunsStore } from '~/stores/runs'
import { useSheetStore } from '~/stores/sheet'
import { IN_BLACK, IN_COLOUR } from '~/theme/print'
import { fileName } from '../keeping/folioFile'
import { usePlatePictures } from './platePictures'

/** The folio as a report, and the files that are made from it. */
export function useReporting() {
  const folio = useFolioStore()
  const plates = usePlatesStore()
  const results = useResultsStore()
  const sheet = useSheetStore()
  const runs = useRunsStore()
  const pictures = usePlatePictures()

  /** Plates that show something, with what they show. */
  const shownPlates = (): readonly (ReportPlate & { readonly plate: Plate })[] =>
    plates.all.flatMap((plate, k) => {
      const lines = plates.valuesOn(plate).map((value) => value.line)
      return lines.length === 0 ? [] : [{ id: plate.id, number: k + 1, caption: plate.caption, lines, plate }]
    })

  function report(): Report {
    const lines = folio.lines.map((line) => (sheet.choices.notes || !line.note ? line : { ...line, source: '' }))
    const head = { title: folio.title, ...folio.head, names: sheet.names }
    const list = sheet.choices.plates ? shownPlates() : []
    return makeReport(head, folio.conventions, lines, (id) => results.views.get(id) ?? null, list)
  }

  /** The account of the runs, as it was last reckoned. */
  const runsTables = (): readonly RunsTable[] =>
    runs.account ? runsInPrint(runs.account, runs.columnNames, folio.conventions.letter) : []

  const theme = () => (sheet.choices.colour ? IN_COLOUR : IN_BLACK)

  async function pictureFiles(ending: 'svg' | 'png'): Promise<ReadonlyMap<string, ArchiveEntry>> {
    const files = new Map<string, ArchiveEntry>()
    for (const { id, number, plate } of sheet.choices.plates ? shownPlates() : []) {
      const blob = ending === 'svg' ? await pictures.svg(plate, theme()) : await pictures.png(plate, theme())
      if (!blob) continue
      files.set(id, { name: `plate-${number}.${ending}`, bytes: new Uint8Array(await blob.arrayBuffer()) })
    }
    return files
  }

  async function saveReport(format: 'markdown' | 'latex'): Promise<void> {
    folio.keep()
    const files = await pictureFiles(format === 'markdown' ? 'svg' : 'png')
    const pictureOf = (id: string): string | null => files.get(id)?.name ?? null
    const text =
      format === 'markdown' ? writeMarkdown(report(), folio.lines, pictureOf) : writeLatex(report(), pictureOf)
    const own = `${fileName(folio.title)}.${format === 'markdown' ? 'md' : 'tex'}`
    const archive = pack([{ name: own, bytes: encode(text) }, ...files.values()])
    saveAs(new Blob([new Uint8Array(archive)], { type: 'application/zip' }), `${fileName(folio.title)}-${format}.zip`)
  }

  return { report, runsTables, shownPlates, pictures, theme, saveReport }
}
