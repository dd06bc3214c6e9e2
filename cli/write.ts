import type { LineResult } from '#core/evaluate/lineResult'
import { definedName } from '#core/notation/references'
import type { Data } from '#core/measured/data'
import { writeLatex } from '#core/exchange/latexOut'
import { writeMarkdown } from '#core/exchange/markdownOut'
import { writePlain } from '#core/exchange/plainLines'
import { makeReport } from '#core/exchange/report'
import { fault, faultSentence } from '#core/exchange/told'
import { writeData, writeFirst, writeValue } from '#core/exchange/writeValue'
import type { Named } from '#core/exchange/writeValue'
import type { Conventions } from '#core/format/conventions'
import { answersOf } from '#core/views/answers'
import { lineView } from '#core/views/lineView'
import type { FolioFile } from '../shared/folio'
import { writeFolioFile } from '../shared/folioFile'
import { valuesOf } from './input'
import type { Format } from './options'

/** What `--to` writes. */
export type Written = { readonly text: string } | { readonly problem: string }

const said = (written: { kind: 'file'; text: string } | Parameters<typeof faultSentence>[0]): Written =>
  written.kind === 'file' ? { text: written.text } : { problem: faultSentence(written) }

/** A folio in another format. */
export function writeFolioAs(
  folio: FolioFile,
  results: readonly LineResult[],
  format: Format,
  name: string | null,
  conventions: Conventions,
): Written {
  if (format === 'folio') return { text: writeFolioFile(folio) }
  if (format === 'lines') return { text: writePlain(folio.lines) }
  if (format === 'markdown' || format === 'latex') {
    const lines = folio.lines.map((line, k) => ({ ...line, id: String(k) }))
    const views = new Map(results.map((result) => [result.id, lineView(result, conventions)]))
    const head = { title: folio.title, course: '', sheet: '', date: '', names: [] }
    const report = makeReport(head, conventions, lines, (id) => views.get(id) ?? null)
    return { text: format === 'latex' ? writeLatex(report, () => null) : writeMarkdown(report, lines, () => null) }
  }
  const kept = new Map<string, Named>()
  for (const { parsed, evaluated } of results.flatMap((result) => [result, ...answersOf(result)])) {
    const own = definedName(parsed)
    if (own === null) continue
    if (evaluated.value && !evaluated.problem) kept.set(own, { name: own, value: evaluated.value })
    else kept.delete(own)
  }
  if (name === null) return said(writeFirst([...kept.values()], format, conventions))
  const named = kept.get(name)
  return said(named ? writeValue(named, format, conventions) : fault('no-such-name', { name }))
}

/** A data file in another format. */
export function writeDataAs(
  data: Data,
  own: string,
  format: Format,
  name: string | null,
  conventions: Conventions,
): Written {
  if (format === 'folio' || format === 'lines' || format === 'markdown' || format === 'latex')
    return said(fault('wrong-value', { name: 'A file of data', format, needs: 'a folio' }))
  if (name === null) return said(writeData(data, own, format, conventions))
  const named = valuesOf(data, own).find((value) => value.name === name)
  return said(named ? writeValue(named, format, conventions) : fault('no-such-name', { name }))
}
