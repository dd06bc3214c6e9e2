import { ref } from 'vue'
import type { Line } from '#shared/folio'
import { counted, ENTRY_LENGTH_MAX, LINE_LENGTH_MAX } from '#shared/limits'
import { useResultsStore } from '../results'
import type { Editing, FolioDocument, Links } from './document'
import type { FolioHistory } from './history'

/** How often a text that is typed without a pause is given to the server, in milliseconds. */
const DRAFT_EVERY = 3_000

/** The line that is being typed: opened, typed, kept or left as it was, and its draft. */
export function createEditor(doc: FolioDocument, links: Links, { perform }: FolioHistory) {
  const { notice, saver, editing, text, current, lines, writable, shownLines, indexOf, lineOf, insertion, clearSelection } = doc // prettier-ignore
  const results = useResultsStore()
  /** A text that was too long for an entry and fits a note. */
  const overlong = ref('')
  let sessions = 0
  let draftTimer: ReturnType<typeof setTimeout> | null = null

  function edit(lineId: string, caret: Editing['caret'] = 'end'): void {
    if (editing.value?.id === lineId || !writable.value) return
    if (editing.value) keep()
    const line = lineOf(lineId)
    if (!line) return
    clearSelection()
    // A text that was left in the middle, by a crash perhaps, is there again.
    const draft = links.found.get(lineId)
    links.found.delete(lineId)
    text.value = line.source
    current.value = lineId
    sessions += 1
    // It was typed over what stood there then: what another has made of it since is not typed over unseen.
    editing.value = { id: lineId, caret, session: sessions, was: draft?.was ?? line.source }
    if (draft && draft.text !== line.source) type(draft.text)
    else if (draft) void links.drafts?.forget(lineId)
  }

  function type(source: string): void {
    const open = editing.value
    if (!open || text.value === source) return
    text.value = source
    keepDraft()
    draftTimer ??= setTimeout(() => void sendDraft(), DRAFT_EVERY)
    if (lineOf(open.id)?.note) return
    void results.type(open.id, source)
    links.tabs?.tellDraft({ id: open.id, text: source })
  }

  function keepDraft(sent?: string): void {
    const open = editing.value
    if (!open) return
    const given = sent ?? saver.value?.sourceOf(open.id) ?? null
    links.drafts?.keep({ line: open.id, text: text.value, was: open.was, sent: given === open.was ? null : given })
  }

  /** What is typed for long without a pause is given to the server, too, before it is kept. */
  async function sendDraft(): Promise<void> {
    draftTimer = null
    const open = editing.value
    const source = text.value
    if (!open || source === saver.value?.sourceOf(open.id)) return
    // What another has made of the line meanwhile must not be typed over unseen: keeping puts this text below it.
    if (lineOf(open.id)?.source !== open.was) return
    // First it is noted here that this is a draft: a crash in between must not make it look kept.
    keepDraft(source)
    await links.drafts?.flush()
    if (editing.value?.id !== open.id || !writable.value) return
    saver.value?.add([{ type: 'edit', id: open.id, source, was: open.was }])
    if (text.value !== source) draftTimer ??= setTimeout(() => void sendDraft(), DRAFT_EVERY)
  }

  /** The editor is closed; its line has, or gets, the text that counts. */
  function endEditing(open: Editing): void {
    editing.value = null
    if (draftTimer !== null) clearTimeout(draftTimer)
    draftTimer = null
    const line = lineOf(open.id)
    // A draft that was given to the server is made good there; where it is the same nothing is sent.
    if (line && writable.value) saver.value?.add([{ type: 'edit', id: line.id, source: line.source, was: line.source }])
    void links.drafts?.forget(open.id)
  }

  /** Keeps the entry as it stands, in error or not. */
  function keep(): void {
    const open = editing.value
    if (!open) return
    const line = lineOf(open.id)
    const source = text.value
    editing.value = null
    if (line && line.source === open.was) {
      if (line.source !== source) perform('edit', [{ type: 'edit', id: open.id, source, was: line.source }], open.id)
    } else if (source !== open.was && source !== line?.source && source.trim() !== '') {
      // The line was changed or deleted elsewhere meanwhile: both texts are kept.
      const operation = insertion(line ? indexOf(open.id) + 1 : lines.value.length, source)
      perform('edit', [operation], operation.line.id)
      notice.value = line
        ? 'This line was changed elsewhere while you typed: your text stands below it.'
        : 'This line was deleted elsewhere while you typed: your text is a line again, at the end.'
    }
    endEditing(open)
    settle()
  }

  function settle(): void {
    void results.settle()
    links.tabs?.tellDraft(null)
  }

  /** Leaves the line as it was. */
  function restore(): void {
    const open = editing.value
    if (!open) return
    endEditing(open)
    settle()
  }

  /** True where a text is too long to be entered: that is said, nothing is cut, and a note is offered where it fits. */
  function refuses(source: string, note: boolean): boolean {
    const most = note ? LINE_LENGTH_MAX : ENTRY_LENGTH_MAX
    if (source.length <= most) return false
    overlong.value = !note && source.length <= LINE_LENGTH_MAX ? source : ''
    const what = note ? 'A note' : 'An entry'
    const way = note || overlong.value === '' ? 'Put it into several lines.' : 'A note has room for it.'
    notice.value = `${what} has at most ${counted(most)} characters; this would have ${counted(source.length)} and was not taken in. ${way}`
    return true
  }

  /** The next line in sight. */
  function below(lineId: string): Line | undefined {
    const shown = shownLines.value
    return shown[shown.findIndex((l) => l.id === lineId) + 1]
  }

  function neighbour(lineId: string | null, by: 1 | -1): Line | undefined {
    const shown = shownLines.value
    return lineId === null ? shown[0] : shown[shown.findIndex((l) => l.id === lineId) + by]
  }

  function step(by: 1 | -1): boolean {
    const next = neighbour(editing.value?.id ?? current.value, by)
    if (!next) return false
    edit(next.id)
    return true
  }

  /** What is being typed goes on in the line that its text has become. */
  function goOnIn(open: Editing, lineId: string): void {
    const typed = text.value
    void links.drafts?.forget(open.id)
    current.value = lineId
    sessions += 1
    editing.value = { ...open, id: lineId, caret: 'end', session: sessions }
    text.value = typed
    keepDraft()
  }

  /** What was being typed stays a draft. */
  function stopTyping(): void {
    void links.drafts?.flush()
    if (draftTimer !== null) clearTimeout(draftTimer)
    draftTimer = null
    editing.value = null
  }

  /** What was said has been read. */
  function dismissNotice(): void {
    notice.value = ''
    overlong.value = ''
  }

  /** Keeps what is being typed, if anything is. */
  function leave(): void {
    if (editing.value) keep()
  }

  return {
    overlong, edit, type, keep, restore, refuses, settle, endEditing, below, neighbour, step, goOnIn, stopTyping, leave, dismissNotice,
  } // prettier-ignore
}

export type FolioEditor = ReturnType<typeof createEditor>
