import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { renameEverywhere } from '#core/notation/rename'
import { sentence } from '#core/notation/sentences'
import { standardName } from '#core/functions/registry'
import type { Conventions } from '#core/format/conventions'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { Folio, Line, LineMark } from '#shared/folio'
import { newId } from '#shared/id'
import type { Plate } from '#shared/plate'
import { applyOperation, difference, invertOperation, rebase } from '#shared/operations'
import type { FolioState, Operation } from '#shared/operations'
import { api } from '~/composables/api'
import { readDraft, readOutbox, writeDraft } from '~/composables/outbox'
import { readSteps, StepKeeper, STEPS_MOST } from '~/composables/steps'
import type { Step } from '~/composables/steps'
import { Tabs } from '~/composables/tabs'
import type { TabRole } from '~/composables/tabs'
import { duplicated, movedBy, movedTo, removed, toggled, turned } from './lineChanges'
import { useResultsStore } from './results'
import { Saver } from './saving'
import { sectionOf, tuckedAway } from './sections'

/** The line that holds the editor. */
export interface Editing {
  readonly id: string
  /** Where the caret goes when the editor opens, or what is selected. */
  readonly caret: number | 'end' | { readonly from: number; readonly to: number }
  /** Counts up: an editor that is opened again is another one. */
  readonly session: number
}

const EMPTY: FolioState = { title: '', conventions: DEFAULT_CONVENTIONS, lines: [] }

/** To the evaluator a note is an empty line. */
export const entryOf = (line: Line): string => (line.note ? '' : line.source)

/** The open folio: its lines and conventions, the line being edited, undo and saving. */
export const useFolioStore = defineStore('folio', () => {
  const results = useResultsStore()

  const id = ref('')
  const status = ref<'loading' | 'ready' | 'failed'>('loading')
  const message = ref('')
  const notice = ref('')
  const state = shallowRef<FolioState>(EMPTY)
  const editing = ref<Editing | null>(null)
  /** The text in the editor. */
  const text = ref('')
  /** The line that arrow keys start from. */
  const current = ref<string | null>(null)
  /** Several lines at once; empty while only one is meant. */
  const selected = shallowRef<ReadonlySet<string>>(new Set())
  const undoSteps = shallowRef<readonly Step[]>([])
  const redoSteps = shallowRef<readonly Step[]>([])
  const saver = shallowRef<Saver | null>(null)
  const role = ref<TabRole>('writer')
  /** Texts that were entered since the folio was opened, newest last. */
  const entered = shallowRef<readonly string[]>([])

  let sessions = 0
  let tabs: Tabs | null = null
  let keeper: StepKeeper | null = null

  const lines = computed(() => state.value.lines)
  const conventions = computed<Conventions>(() => state.value.conventions)
  const title = computed(() => state.value.title)
  const plates = computed<readonly Plate[]>(() => state.value.plates ?? [])
  const saveState = computed(() => saver.value?.state.value ?? null)
  const writable = computed(() => role.value === 'writer')
  const canUndo = computed(() => undoSteps.value.length > 0 && writable.value)
  const canRedo = computed(() => redoSteps.value.length > 0 && writable.value)
  const tucked = computed(() => tuckedAway(lines.value))
  const shownLines = computed(() => lines.value.filter((l) => !tucked.value.has(l.id)))

  const indexOf = (lineId: string): number => lines.value.findIndex((l) => l.id === lineId)
  const lineOf = (lineId: string): Line | null => lines.value[indexOf(lineId)] ?? null

  async function open(folioId: string): Promise<void> {
    close()
    id.value = folioId
    status.value = 'loading'
    notice.value = ''
    try {
      const ours = new Tabs(folioId, {
        write: () => void reload().then(() => (notice.value = 'This tab writes the folio now.')),
        follow: () => becomeFollower(),
        handOver,
        state: () => state.value,
        takeState,
        takeDraft: (draft) => void (draft ? results.type(draft.id, draft.text) : results.settle()),
      })
      tabs = ours
      role.value = await ours.begin()
      if (tabs !== ours) return
      await load(folioId)
      if (tabs !== ours) return
      status.value = 'ready'
      await results.load(entries(), state.value.conventions)
      if (role.value === 'writer') resumeDraft(folioId)
    } catch (error) {
      status.value = 'failed'
      message.value = error instanceof Error ? error.message : 'The folio could not be opened.'
    }
  }

  /** What the server has, with what this browser has not sent yet on top. */
  async function load(folioId: string): Promise<void> {
    const [folio, outbox, steps] = await Promise.all([api.open(folioId), readOutbox(folioId), readSteps(folioId)])
    const merged =
      outbox && role.value === 'writer'
        ? rebase(folio, outbox.operations, newId)
        : { state: folio, operations: [], kept: 0 }
    if (merged.kept > 0) notice.value = keptSentence(merged.kept)
    state.value = stateOf(merged.state)
    if (role.value === 'follower') return
    undoSteps.value = steps.undo
    redoSteps.value = steps.redo
    keeper = new StepKeeper(folioId)
    const sender = new Saver(folioId, folio.revision, takeTheirs, folio.changedAt)
    saver.value = sender
    if (merged.operations.length > 0) sender.add(merged.operations)
    if (state.value.lines.length === 0) perform('first line', [insertion(0, '')])
  }

  /** Loads the folio again, as the tab that writes. */
  async function reload(): Promise<void> {
    role.value = 'writer'
    try {
      await load(id.value)
      await results.load(entries(), state.value.conventions)
    } catch (error) {
      role.value = 'follower'
      notice.value = error instanceof Error ? error.message : 'The folio could not be opened.'
    }
  }

  function becomeFollower(): void {
    editing.value = null
    role.value = 'follower'
    saver.value?.close()
    saver.value = null
    undoSteps.value = []
    redoSteps.value = []
    void results.settle()
  }

  /** Another tab asks for the folio: what this one has is kept and sent first. */
  async function handOver(): Promise<void> {
    keep()
    await Promise.all([saver.value?.settled(), keeper?.flush()])
  }

  function takeState(next: FolioState): void {
    if (status.value === 'ready') show(next)
    else state.value = next
  }

  const entries = () => state.value.lines.map((l) => ({ id: l.id, source: entryOf(l) }))

  /** A reload in the middle of a line finds the line as it was being typed. */
  function resumeDraft(folioId: string): void {
    const draft = readDraft(folioId)
    const line = draft ? lineOf(draft.line) : null
    if (!draft || !line) return
    edit(line.id, 'end')
    if (draft.text !== line.source) type(draft.text)
  }

  function takeTheirs(theirs: Folio, unsent: readonly Operation[]): readonly Operation[] {
    const merged = rebase(theirs, unsent, newId)
    show(stateOf(merged.state))
    notice.value = merged.kept > 0 ? keptSentence(merged.kept) : 'Changes from another window were taken in.'
    return merged.operations
  }

  /** Another state altogether; steps recorded against the old one are checked when used. */
  function show(next: FolioState): void {
    state.value = next
    tabs?.tellState(next)
    void results.apply({ order: next.lines.map((l) => l.id), sources: entries(), conventions: { ...next.conventions } })
  }

  function close(): void {
    if (editing.value) keep()
    void keeper?.flush()
    keeper = null
    tabs?.close()
    tabs = null
    saver.value?.close()
    saver.value = null
    results.close()
    undoSteps.value = []
    redoSteps.value = []
    entered.value = []
    selected.value = new Set()
    editing.value = null
    current.value = null
    role.value = 'writer'
    state.value = EMPTY
  }

  // Operations.

  /**
   * Applies operations as far as they fit. With `careful`, a text is only
   * replaced where it still is what the step found: nobody else's work is lost.
   */
  function apply(
    operations: readonly Operation[],
    careful = false,
  ): { readonly done: Operation[]; readonly inverse: Operation[] } {
    const done: Operation[] = []
    const inverse: Operation[] = []
    let next = state.value
    for (const operation of operations) {
      if (careful && operation.type === 'edit') {
        const found = next.lines.find((l) => l.id === operation.id)
        if (found?.source !== operation.was) continue
      }
      const back = invertOperation(next, operation)
      const applied = applyOperation(next, operation)
      if (!applied || !back) continue
      next = applied
      done.push(operation)
      inverse.unshift(back)
    }
    if (done.length === 0) return { done, inverse }
    state.value = next
    saver.value?.add(done)
    tabs?.tellState(next)
    if (status.value === 'ready') sendToResults(done)
    return { done, inverse }
  }

  function sendToResults(done: readonly Operation[]): void {
    const reordered = done.some((o) => o.type === 'insert' || o.type === 'remove' || o.type === 'move')
    const touched = new Set(
      done.flatMap((o) => (o.type === 'edit' || o.type === 'mark' ? [o.id] : o.type === 'insert' ? [o.line.id] : [])),
    )
    const sources = [...touched].flatMap((lineId) => {
      const line = lineOf(lineId)
      return line ? [{ id: line.id, source: entryOf(line) }] : []
    })
    void results.apply({
      ...(reordered ? { order: state.value.lines.map((l) => l.id) } : {}),
      ...(sources.length > 0 ? { sources } : {}),
      ...(done.some((o) => o.type === 'convene') ? { conventions: { ...state.value.conventions } } : {}),
    })
  }

  /** Carries out a change as one undoable step. */
  function perform(label: string, operations: readonly Operation[], line: string | null = null): void {
    if (!writable.value) return
    const { done, inverse } = apply(operations)
    if (done.length === 0) return
    remember(done)
    undoSteps.value = [...undoSteps.value.slice(-(STEPS_MOST - 1)), { label, operations: done, inverse, line }]
    redoSteps.value = []
    keepSteps()
  }

  function remember(done: readonly Operation[]): void {
    const texts = done.flatMap((o) => (o.type === 'edit' ? [o.source] : o.type === 'insert' ? [o.line.source] : []))
    const fresh = texts.filter((t) => t.trim() !== '')
    if (fresh.length > 0) entered.value = [...entered.value.slice(-STEPS_MOST), ...fresh]
  }

  function keepSteps(): void {
    keeper?.keep({ undo: [...undoSteps.value], redo: [...redoSteps.value] })
  }

  function undo(): void {
    if (editing.value) keep()
    const step = undoSteps.value.at(-1)
    if (!step || !writable.value) return
    undoSteps.value = undoSteps.value.slice(0, -1)
    takeBack(step, step.inverse)
    redoSteps.value = [...redoSteps.value, step]
    keepSteps()
  }

  function redo(): void {
    if (editing.value) keep()
    const step = redoSteps.value.at(-1)
    if (!step || !writable.value) return
    redoSteps.value = redoSteps.value.slice(0, -1)
    takeBack(step, step.operations)
    undoSteps.value = [...undoSteps.value, step]
    keepSteps()
  }

  function takeBack(step: Step, operations: readonly Operation[]): void {
    const { done } = apply(operations, true)
    if (done.length < operations.length)
      notice.value = 'A part of this step no longer fits, since its line was changed elsewhere: it was left alone.'
    clearSelection()
    if (step.line !== null && lineOf(step.line)) reveal(step.line)
    else if (current.value !== null && !lineOf(current.value)) current.value = lines.value.at(-1)?.id ?? null
  }

  function insertion(at: number, source: string): Extract<Operation, { type: 'insert' }> {
    return { type: 'insert', line: { id: newId(), source }, at }
  }

  // Editing a line.

  function edit(lineId: string, caret: Editing['caret'] = 'end'): void {
    if (editing.value?.id === lineId || !writable.value) return
    if (editing.value) keep()
    const line = lineOf(lineId)
    if (!line) return
    clearSelection()
    text.value = line.source
    current.value = lineId
    sessions += 1
    editing.value = { id: lineId, caret, session: sessions }
  }

  function type(source: string): void {
    const open = editing.value
    if (!open || text.value === source) return
    text.value = source
    writeDraft({ folio: id.value, line: open.id, text: source })
    if (lineOf(open.id)?.note) return
    void results.type(open.id, source)
    tabs?.tellDraft({ id: open.id, text: source })
  }

  /** Keeps the entry as it stands, in error or not. */
  function keep(): void {
    const open = editing.value
    if (!open) return
    editing.value = null
    writeDraft(null)
    const line = lineOf(open.id)
    if (line && line.source !== text.value) {
      perform('edit', [{ type: 'edit', id: open.id, source: text.value, was: line.source }], open.id)
    }
    settle()
  }

  function settle(): void {
    void results.settle()
    tabs?.tellDraft(null)
  }

  /** Leaves the line as it was. */
  function restore(): void {
    if (!editing.value) return
    editing.value = null
    writeDraft(null)
    settle()
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

  // Selecting.

  function clearSelection(): void {
    if (selected.value.size > 0) selected.value = new Set()
  }

  /** All lines in sight between the current one and another. */
  function selectTo(lineId: string): void {
    if (editing.value) keep()
    const shown = shownLines.value.map((l) => l.id)
    const anchor = anchorOf(shown, lineId)
    const [from, to] = [shown.indexOf(anchor), shown.indexOf(lineId)].sort((a, b) => a - b)
    selected.value = new Set(shown.slice(from, (to ?? 0) + 1))
    current.value = lineId
  }

  /** The end of the selection that stays while the other one moves. */
  function anchorOf(shown: readonly string[], lineId: string): string {
    const chosen = shown.filter((s) => selected.value.has(s))
    const [first, last] = [chosen[0], chosen.at(-1)]
    if (first === undefined || last === undefined) return current.value ?? lineId
    return current.value === first ? last : first
  }

  function toggleSelected(lineId: string): void {
    if (editing.value) keep()
    const next = new Set(selected.value.size > 0 || current.value === null ? selected.value : [current.value])
    if (next.has(lineId)) next.delete(lineId)
    else next.add(lineId)
    selected.value = next
    current.value = lineId
  }

  /** What an action on a line is about: the whole selection where the line is in it. */
  function targets(lineId: string): ReadonlySet<string> {
    return selected.value.has(lineId) ? selected.value : new Set([lineId])
  }

  /** The same with what folded headings among them hide. */
  function carried(lineId: string): ReadonlySet<string> {
    const ids = targets(lineId)
    const sections = lines.value.flatMap((l, k) => (ids.has(l.id) && l.folded ? sectionOf(lines.value, k) : []))
    return new Set([...ids, ...sections.map((l) => l.id)])
  }

  /** Brings a line into sight and makes it the current one. */
  function reveal(lineId: string): void {
    const index = indexOf(lineId)
    if (index < 0) return
    if (tucked.value.has(lineId)) {
      const folded = lines.value.slice(0, index).filter((l) => l.folded && l.id !== lineId)
      perform(
        'unfold',
        folded.map(({ id: heading }): Operation => ({ type: 'mark', id: heading, marks: { folded: false } })),
      )
    }
    clearSelection()
    current.value = lineId
  }

  // Whole lines.

  function insertAt(at: number, source = ''): void {
    const operation = insertion(at, source)
    perform('new line', [operation], operation.line.id)
    edit(operation.line.id)
  }

  /** Lines of text put in below the current one. */
  function insertBelow(sources: readonly string[]): void {
    if (editing.value) keep()
    const at = current.value === null ? lines.value.length : indexOf(current.value) + 1
    const inserted = sources.map((source, k) => insertion(at + k, source))
    const last = inserted.at(-1)
    perform('insert lines', inserted, last?.line.id ?? null)
    if (last) reveal(last.line.id)
  }

  /** A note put in below a line, or at the end. */
  function insertNoteBelow(lineId: string | null, source: string): void {
    if (editing.value) keep()
    const at = lineId === null ? lines.value.length : indexOf(lineId) + 1
    const note: Operation = { type: 'insert', line: { id: newId(), source, note: true }, at }
    perform('insert note', [note], note.line.id)
    reveal(note.line.id)
  }

  function remove(lineId: string): void {
    if (indexOf(lineId) < 0) return
    if (editing.value?.id === lineId) restore()
    else if (editing.value) keep()
    const ids = targets(lineId)
    const rest = lines.value.filter((l) => !ids.has(l.id))
    const first = lines.value.findIndex((l) => ids.has(l.id))
    const next = rest[Math.max(0, first - 1)]
    const gone = removed(state.value, ids)
    perform(gone.length === 1 ? 'delete line' : 'delete lines', next ? gone : [...gone, insertion(0, '')], lineId)
    clearSelection()
    current.value = next?.id ?? lines.value[0]?.id ?? null
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
    if (editing.value) keep()
    const copies = duplicated(state.value, carried(lineId), newId)
    const first = copies[0]
    perform('duplicate', copies, lineId)
    if (first?.type === 'insert') reveal(first.line.id)
  }

  function toggle(lineId: string, mark: Exclude<LineMark, 'note'>): void {
    if (editing.value) keep()
    perform(mark === 'hidden' ? 'hide result' : 'fold', toggled(state.value, targets(lineId), mark), lineId)
  }

  function turn(lineId: string): void {
    const open = editing.value?.id === lineId
    if (editing.value) keep()
    perform('note', turned(state.value, targets(lineId)), lineId)
    if (open) edit(lineId)
  }

  /** Several lines pasted at once: the first goes into the open line, the others below it. */
  function paste(first: string, rest: readonly string[]): void {
    const open = editing.value
    const line = open ? lineOf(open.id) : null
    if (!open || !line) return
    const index = indexOf(open.id)
    const inserted = rest.map((source, k) => insertion(index + 1 + k, source))
    editing.value = null
    writeDraft(null)
    perform('paste lines', [{ type: 'edit', id: open.id, source: first, was: line.source }, ...inserted], open.id)
    settle()
    const last = inserted.at(-1)
    if (last) edit(last.line.id)
  }

  /** Replaces the text of a line: a fix, a stamped unit, the end of a drag. */
  function rewrite(lineId: string, source: string, label: string): void {
    const line = lineOf(lineId)
    if (!line) return
    if (line.source !== source) perform(label, [{ type: 'edit', id: lineId, source, was: line.source }], lineId)
    settle()
  }

  /** Writes the unit into every line that was read in the unit of the conventions. */
  function stampAll(): void {
    if (editing.value) keep()
    const operations = results.unitDependent.flatMap((lineId): Operation[] => {
      const line = lineOf(lineId)
      const stamped = results.views.get(lineId)?.stamped
      return line && stamped && stamped !== line.source
        ? [{ type: 'edit', id: lineId, source: stamped, was: line.source }]
        : []
    })
    perform('stamp the unit', operations)
  }

  /** Spells a kept name anew in every line; gives back why that cannot be done, or nothing. */
  function renameName(from: string, to: string): string | null {
    if (editing.value) keep()
    const isFunction = (name: string): boolean => standardName(name) !== null
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
    if (editing.value) keep()
    perform('restore', difference(state.value, earlier))
  }

  function convene(change: Partial<Conventions>): void {
    if (editing.value) keep()
    perform('conventions', [{ type: 'convene', conventions: change }])
  }

  function rename(newTitle: string): void {
    const trimmed = newTitle.trim()
    if (trimmed !== '' && trimmed !== title.value) perform('rename', [{ type: 'rename', title: trimmed }])
  }

  async function takeOver(): Promise<void> {
    await tabs?.takeOver()
  }

  /** Everything that is kept is sent and written; called when the page may be closed. */
  async function flush(): Promise<void> {
    await Promise.all([saver.value?.flush(), keeper?.flush()])
  }

  return {
    id, status, message, notice, state, lines, plates, shownLines, tucked, conventions, title, editing, text, current, selected, entered,
    role, writable, saveState, saver, canUndo, canRedo,
    open, close, flush, takeOver, perform, undo, redo, edit, type, keep, restore, keepAndGoOn, step, neighbour,
    selectTo, toggleSelected, clearSelection, targets, reveal,
    insertAt, insertBelow, insertNoteBelow, remove, moveBy, moveTo, duplicate, toggle, turn, paste, rewrite,
    stampAll, renameName, goBackTo, convene, rename, indexOf, lineOf,
  } // prettier-ignore
})

function stateOf({ title, conventions, lines, plates }: FolioState): FolioState {
  return { title, conventions, lines, plates: plates ?? [] }
}

function keptSentence(count: number): string {
  return count === 1
    ? 'A line was changed in two places: both texts are kept, one below the other.'
    : `${count} lines were changed in two places: both texts of each are kept, one below the other.`
}
