import { renameEverywhere } from '#core/notation/rename'
import { sentence } from '#core/sentences/sentences'
import type { Conventions } from '#core/format/conventions'
import type { Enclosure } from '#shared/enclosure'
import { ANSWER_LENGTH_MAX } from '#shared/folio'
import type { Line, LineMark, SheetHead } from '#shared/folio'
import { newId } from '#shared/id'
import { counted, LINE_LENGTH_MAX, TITLE_LENGTH_MAX } from '#shared/limits'
import { difference } from '#shared/operations'
import type { FolioState, Operation } from '#shared/operations'
import { duplicated, movedBy, movedTo, removed, toggled, turned } from '~/lines/lineChanges'
import type { Apart } from '~/lines/linesApart'
import { entryOf } from './document'
import type { FolioDocument } from './document'
import type { FolioEditor } from './editing'
import type { FolioHistory } from './history'
import type { FolioSelection } from './selection'

/** Lines that are put in at once; more come in parts, so that the page stays alive. */
const PASTED_AT_ONCE = 100

/** Whole lines put in, moved, taken out and marked, and what else of a folio is changed at once. */
export function createLineChanges(
  doc: FolioDocument,
  { perform, reveal }: FolioHistory,
  editor: FolioEditor,
  { targets, carried }: FolioSelection,
) {
  const { id, notice, state, editing, text, current, lines, conventions, title, writable, tucked, indexOf, lineOf, insertion, clearSelection } = doc // prettier-ignore
  const { overlong, edit, type, keep, restore, settle, endEditing, below, leave } = editor

  /** What was too long for an entry, as a note below the line. */
  function takeOverlong(): void {
    const source = overlong.value
    overlong.value = ''
    notice.value = ''
    if (source !== '') insertNoteBelow(editing.value?.id ?? current.value, source)
  }

  /** Keeps the entry and goes on to the line below, a new one after the last. */
  function keepAndGoOn(): void {
    const open = editing.value
    if (!open) return
    const next = below(open.id)
    // A last line that is still empty already is the next one.
    if (!next && text.value.trim() === '') return
    keep()
    if (next) edit(next.id)
    else insertAt(lines.value.length)
  }

  /** What was typed before its line was open goes on at the end of that; each line of it is kept. */
  function typeOn(typed: string): void {
    for (const [k, part] of typed.split('\n').entries()) {
      if (k > 0) keepAndGoOn()
      if (part !== '') type(text.value + part)
    }
  }

  function insertAt(at: number, source = ''): void {
    const operation = insertion(at, source)
    perform('new line', [operation], operation.line.id)
    edit(operation.line.id)
  }

  /** Lines of text put in below the current one, or in its place where that is empty. */
  function insertBelow(sources: readonly string[]): void {
    leave()
    const group = newId()
    const empty = current.value === null ? [] : emptyAbove(indexOf(current.value) + 1)
    void insertMany('insert lines', sources, current.value, false, group).then(() => {
      if (empty.length > 0) perform('insert lines', empty, null, group)
    })
  }

  /**
   * Many lines below one, a part at a time so that the page stays alive, as one
   * step. What does not fit the folio any more is said.
   */
  async function insertMany(
    label: string,
    sources: readonly string[],
    below: string | null,
    openLast = false,
    group = newId(),
  ): Promise<void> {
    const folioId = id.value
    let above = below
    let put = 0
    while (put < sources.length) {
      const at = above === null ? lines.value.length : indexOf(above) + 1
      const some = sources.slice(put, put + PASTED_AT_ONCE).map((source, k) => insertion(at + k, source))
      const done = perform(label, some, some.at(-1)?.line.id ?? null, group)
      put += done.length
      const last = done.at(-1)
      if (last?.type === 'insert') above = last.line.id
      if (done.length < some.length) break
      if (put < sources.length) {
        notice.value = `${counted(put)} of ${counted(sources.length)} lines are in…`
        await new Promise((next) => setTimeout(next, 0))
        if (id.value !== folioId || !writable.value) return
      }
    }
    if (sources.length > PASTED_AT_ONCE) notice.value = ''
    if (put < sources.length) {
      const left = sources.length - put
      notice.value =
        `${left === 1 ? 'One line was' : `${counted(left)} lines were`} left out, from “${(sources[put] ?? '').slice(0, 40)}” on: ` +
        'a folio has at most 5 000 lines and 4 million characters. What was copied still is in the clipboard.'
    }
    if (above === null || above === below) return
    if (openLast) edit(above)
    else reveal(above)
  }

  /** An empty line just above a place makes way for what is put in there. */
  function emptyAbove(at: number): readonly Operation[] {
    const line = lines.value[at - 1]
    return line?.source === '' && !line.note ? [{ type: 'remove', id: line.id, was: '' }] : []
  }

  /** Lines with their notes put in at a place, as one step. */
  function insertPlain(
    plain: readonly {
      readonly source: string
      readonly note?: true | undefined
      readonly answer?: string | undefined
    }[],
    at: number,
  ): void {
    leave()
    const operations = plain.map(({ source, note, answer: part }, k): Operation => {
      const line = { id: newId(), source: source.slice(0, LINE_LENGTH_MAX) }
      const marked = { ...line, ...(note ? { note } : {}), ...(part ? { answer: part } : {}) }
      return { type: 'insert', line: marked, at: at + k }
    })
    const last = operations.at(-1)
    if (perform('insert lines', [...operations, ...emptyAbove(at)]).length > 0 && last?.type === 'insert')
      reveal(last.line.id)
  }

  /** Lines put in above the empty last line, where one goes on typing. */
  function putInAndGoOn(plain: Parameters<typeof insertPlain>[0]): void {
    leave()
    const isFree = (line: Line | undefined): boolean => line?.source === '' && !line.note
    insertPlain(plain, lines.value.length - (isFree(lines.value.at(-1)) ? 1 : 0))
    const last = lines.value.at(-1)
    if (last && isFree(last)) edit(last.id)
    else insertAt(lines.value.length)
  }

  /** A note put in below a line, or at the end. */
  function insertNoteBelow(lineId: string | null, source: string): void {
    leave()
    const at = lineId === null ? lines.value.length : indexOf(lineId) + 1
    const note: Operation = { type: 'insert', line: { id: newId(), source, note: true }, at }
    perform('insert note', [note], note.line.id)
    reveal(note.line.id)
  }

  function remove(lineId: string): void {
    if (indexOf(lineId) < 0) return
    if (editing.value?.id === lineId) restore()
    else leave()
    const ids = targets(lineId)
    const rest = lines.value.filter((l) => !ids.has(l.id))
    const first = lines.value.findIndex((l) => ids.has(l.id))
    const next = rest[Math.max(0, first - 1)]
    takeOut(ids, lineId)
    current.value = next?.id ?? lines.value[0]?.id ?? null
  }

  /** Takes lines out as one step; of a folio that would have none an empty one is left. Tells how many went. */
  function takeOut(ids: ReadonlySet<string>, shown: string | null): number {
    const gone = removed(state.value, ids)
    if (gone.length === 0) return 0
    const some = lines.value.some((l) => !ids.has(l.id))
    perform(gone.length === 1 ? 'delete line' : 'delete lines', some ? gone : [...gone, insertion(0, '')], shown)
    clearSelection()
    return gone.length
  }

  /** Takes all these lines out as one step, and says how they come back. */
  function removeAll(ids: ReadonlySet<string>): void {
    leave()
    const count = takeOut(ids, null)
    if (count === 0) return
    current.value = lines.value.at(-1)?.id ?? null
    const what = count === 1 ? 'One line is' : `${counted(count)} lines are`
    notice.value = `${what} deleted. Undo (Ctrl+Z) brings ${count === 1 ? 'it' : 'them'} back.`
  }

  function moveBy(lineId: string, by: 1 | -1): void {
    perform('move', movedBy(state.value, targets(lineId), by, tucked.value), lineId)
    current.value = lineId
  }

  /** Dropped: the line, or the selection it belongs to, begins at this place among the others in sight. */
  function moveTo(lineId: string, to: number): void {
    const ids = carried(lineId)
    const rest = lines.value.filter((l) => !ids.has(l.id))
    const before = rest.filter((l) => !tucked.value.has(l.id))[Math.max(0, to)]
    perform('move', movedTo(state.value, ids, before ? rest.indexOf(before) : rest.length), lineId)
    current.value = lineId
  }

  function duplicate(lineId: string): void {
    leave()
    const copies = duplicated(state.value, carried(lineId), newId)
    const first = copies[0]
    perform('duplicate', copies, lineId)
    if (first?.type === 'insert') reveal(first.line.id)
  }

  function toggle(lineId: string, mark: Exclude<LineMark, 'note'>): void {
    leave()
    perform(mark === 'hidden' ? 'hide result' : 'fold', toggled(state.value, targets(lineId), mark), lineId)
  }

  /** Marks a line as the answer to a part of the sheet; with an empty text it is none any more. */
  function answer(lineId: string, part: string): void {
    leave()
    const text = part.trim().slice(0, ANSWER_LENGTH_MAX)
    if ((lineOf(lineId)?.answer ?? '') !== text)
      perform('answer', [{ type: 'mark', id: lineId, marks: { answer: text } }], lineId)
  }

  /** What stands at the head of the sheet. */
  function writeHead(change: Partial<SheetHead>): void {
    perform('head of the sheet', [{ type: 'head', head: change }], null, 'head')
  }

  /** Lines of a file that came back: theirs in place of mine, or one below the other, or new ones; as one step. */
  function takeFromFile(lines: readonly (Apart & { readonly both: boolean })[]): void {
    leave()
    let shift = 0
    const fresh = (source: string, note: boolean) => ({ id: newId(), source, ...(note ? { note: true as const } : {}) })
    const placed = lines.map((one) => ({ ...one, place: one.id === null ? one.number : indexOf(one.id) + 1 }))
    placed.sort((a, b) => a.place - b.place)
    const operations = placed.flatMap(({ id: lineId, mine, theirs, place, note, both }): Operation[] => {
      if (lineId === null || both) {
        const at = place + shift
        shift += 1
        return [{ type: 'insert', line: fresh(theirs ?? '', note), at }]
      }
      if (theirs === null) {
        shift -= 1
        return [{ type: 'remove', id: lineId, was: mine ?? '' }]
      }
      return [
        { type: 'edit', id: lineId, source: theirs, was: mine ?? '' },
        { type: 'mark', id: lineId, marks: { note } },
      ]
    })
    perform('take from a file', operations)
  }

  /** Keeps measured data with the folio, with lines that take it up, as one step; newer data of a name takes its place. */
  function enclose(enclosure: Enclosure, sources: readonly string[], at: number): readonly string[] {
    leave()
    const put = sources.map((source, k) => insertion(at + k, source))
    const over = put.length === 0 ? [] : emptyAbove(at)
    const done = perform(
      `enclose ${enclosure.name}`,
      [{ type: 'enclose', enclosure }, ...put, ...over],
      put[0]?.line.id ?? null,
    )
    const ids = done.flatMap((o) => (o.type === 'insert' ? [o.line.id] : []))
    const [first] = ids
    if (first !== undefined) reveal(first)
    return ids
  }

  function unenclose(name: string): void {
    leave()
    perform(`take out ${name}`, [{ type: 'unenclose', name }])
  }

  function turn(lineId: string): void {
    const open = editing.value?.id === lineId
    leave()
    perform('note', turned(state.value, targets(lineId)), lineId)
    if (open) edit(lineId)
  }

  /** Several lines pasted at once: the first goes into the open line, the others below it. */
  function paste(first: string, rest: readonly string[]): void {
    const open = editing.value
    const line = open ? lineOf(open.id) : null
    if (!open || !line) return
    const group = newId()
    text.value = first
    editing.value = null
    perform('paste lines', [{ type: 'edit', id: open.id, source: first, was: line.source }], open.id, group)
    endEditing(open)
    settle()
    void insertMany('paste lines', rest, open.id, true, group)
  }

  /** Replaces the text of a line: a fix, the end of a drag. What stands before a line break goes into lines above it. */
  function rewrite(lineId: string, source: string, label: string): void {
    const line = lineOf(lineId)
    if (!line) return
    const { above, own } = broken(source, indexOf(lineId))
    const edited: Operation[] = line.source === own ? [] : [{ type: 'edit', id: lineId, source: own, was: line.source }]
    if (above.length + edited.length > 0) perform(label, [...above, ...edited], lineId)
    settle()
  }

  /** A text with line breaks put into the open line: its last row goes on being typed, the others stand above. */
  function typeOver(source: string): void {
    const open = editing.value
    if (!open) return
    const { above, own } = broken(source, indexOf(open.id))
    if (above.length > 0) perform('new line', above, open.id)
    type(own)
  }

  function broken(source: string, at: number): { readonly above: readonly Operation[]; readonly own: string } {
    const rows = source.split('\n')
    return { above: rows.slice(0, -1).map((row, k) => insertion(at + k, row)), own: rows.at(-1) ?? '' }
  }

  /** Spells a kept name anew in every line; gives back why that cannot be done, or nothing. */
  function renameName(from: string, to: string, isFunction: (name: string) => boolean): string | null {
    leave()
    const sources = lines.value.map(entryOf)
    const { problem, changes } = renameEverywhere(sources, from, to, conventions.value.letter, isFunction)
    if (problem) return sentence(problem)
    const operations = changes.flatMap(({ index, source }): Operation[] => {
      const line = lines.value[index]
      return line ? [{ type: 'edit', id: line.id, source, was: line.source }] : []
    })
    perform('rename everywhere', operations, current.value)
    return null
  }

  /** Goes back to an earlier state as one step. */
  function goBackTo(earlier: FolioState): void {
    leave()
    perform('restore', difference(state.value, earlier))
  }

  function convene(change: Partial<Conventions>): void {
    leave()
    perform('conventions', [{ type: 'convene', conventions: change }])
  }

  function rename(newTitle: string): void {
    const trimmed = newTitle.trim().slice(0, TITLE_LENGTH_MAX)
    if (trimmed !== '' && trimmed !== title.value) perform('rename', [{ type: 'rename', title: trimmed }])
  }

  return {
    takeOverlong, keepAndGoOn, typeOn, insertAt, insertBelow, insertPlain, putInAndGoOn, insertNoteBelow, remove, removeAll, moveBy, moveTo, duplicate, toggle, turn, paste,
    rewrite, typeOver, renameName, goBackTo, takeFromFile, answer, writeHead, enclose, unenclose, convene, rename,
  } // prettier-ignore
}
