import { blockMarkdown } from '#core/exchange/markdownBlock'
import type { NoteWriter } from '#core/exchange/markdownBlock'
import { readPlain, writePlain } from '#core/exchange/plainLines'
import type { PlainLine } from '#core/exchange/plainLines'
import { makeReport } from '#core/exchange/report'
import type { Block } from '#core/exchange/report'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'
import { useFileOpening } from './fileOpening'

/** Writes notes, once it has been fetched: until then they are copied as plain text. */
let noteWriter: NoteWriter | undefined
export async function fetchNoteWriter(): Promise<void> {
  noteWriter ??= (await import('#core/exchange/markdownOut')).inertNote
}

/** Lines on the clipboard: as text that comes back when it is pasted, as Markdown, and as HTML, all at once. */
export function useClipboardLines() {
  const folio = useFolioStore()
  const results = useResultsStore()
  const { pasteTable } = useFileOpening()

  /** The lines that are chosen, or the one that has the focus; none while text is chosen or typed. */
  function chosen() {
    if (folio.editing || isText(document.activeElement) || (getSelection()?.toString() ?? '') !== '') return []
    if (folio.selected.size > 0) return folio.lines.filter((line) => folio.selected.has(line.id))
    const inLedger = document.activeElement?.closest('.lines') !== null && document.activeElement !== document.body
    return inLedger ? folio.lines.filter((line) => line.id === folio.current) : []
  }

  function copyLines(event: ClipboardEvent): void {
    const lines = event.defaultPrevented ? [] : chosen()
    if (lines.length === 0 || !event.clipboardData) return
    const head = { title: folio.title, ...folio.head, names: [] }
    // The others keep their places, so that each line has its number, and say nothing.
    const told = folio.lines.map((line) => (lines.includes(line) ? line : { ...line, source: '' }))
    const { blocks: shown } = makeReport(head, folio.conventions, told, (id) => results.views.get(id) ?? null)
    event.clipboardData.setData('text/plain', writePlain(lines).replace(/\n$/, ''))
    const { letter } = folio.conventions
    const inMarkdown = shown.map((block) => blockMarkdown(block, letter, noteWriter)).join('\n\n')
    event.clipboardData.setData('text/markdown', inMarkdown)
    event.clipboardData.setData('text/html', htmlOf(shown))
    event.preventDefault()
    folio.tell(lines.length === 1 ? 'The line is on the clipboard.' : `${lines.length} lines are on the clipboard.`)
  }

  /** Pasted where nothing is typed: lines below the current one, or a table that is shown first. */
  function pasteLines(event: ClipboardEvent): void {
    // An editor that has taken it closes while its lines go in: it is not taken once more.
    if (event.defaultPrevented || folio.editing || isText(document.activeElement) || !folio.writable) return
    const text = event.clipboardData?.getData('text/plain') ?? ''
    if (text.trim() === '') return
    event.preventDefault()
    if (pasteTable(text)) return
    putIn(readPlain(text))
  }

  function putIn(lines: readonly PlainLine[]): void {
    const at = folio.current === null ? -1 : folio.indexOf(folio.current)
    folio.insertPlain(lines, at < 0 ? folio.lines.length : at + 1)
  }

  return { copyLines, pasteLines }
}

function isText(element: Element | null): boolean {
  if (element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement) return true
  return element instanceof HTMLElement && element.isContentEditable
}

const escapeHtml = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] ?? c)

/** Lines as a table of number, entry and result; notes over its width. */
function htmlOf(blocks: readonly Block[]): string {
  const rows = blocks.map((block) => {
    if (block.kind === 'note') return `<tr><td colspan="3">${escapeHtml(block.text).replace(/\n/g, '<br>')}</td></tr>`
    if (block.kind === 'figure') return ''
    const { number, source, result, problem } = block
    const said = problem ?? (result.kind === 'value' ? result.forms.map((f) => f.text).join(' = ') : result.kind === 'none' ? '' : result.text) // prettier-ignore
    return `<tr><td>${number}</td><td>${escapeHtml(source)}</td><td>${escapeHtml(said)}</td></tr>`
  })
  return `<table>${rows.join('')}</table>`
}
