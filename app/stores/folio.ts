import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Conventions } from '#core/format/conventions'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { Folio, Line } from '#shared/folio'
import { newId } from '#shared/id'
import { applyOperation, invertOperation, rebase } from '#shared/operations'
import type { FolioState, Operation } from '#shared/operations'
import { api } from '~/composables/api'
import { readDraft, readOutbox, writeDraft } from '~/composables/outbox'
import { useResultsStore } from './results'
import { Saver } from './saving'

/** One undoable step: operations and what takes them back, in the order to apply. */
interface Step {
  readonly label: string
  readonly operations: readonly Operation[]
  readonly inverse: readonly Operation[]
  /** The line to go to when the step is undone or redone. */
  readonly line: string | null
}

/** The line that holds the editor. */
export interface Editing {
  readonly id: string
  /** Where the caret goes when the editor opens. */
  readonly caret: number | 'end'
}

const UNDO_LIMIT = 1_000

/** The open folio: its lines and conventions, the line being edited, undo and saving. */
export const useFolioStore = defineStore('folio', () => {
  const results = useResultsStore()

  const id = ref('')
  const status = ref<'loading' | 'ready' | 'failed'>('loading')
  const message = ref('')
  const notice = ref('')
  const state = shallowRef<FolioState>({ title: '', conventions: DEFAULT_CONVENTIONS, lines: [] })
  const editing = ref<Editing | null>(null)
  /** The text in the editor. */
  const text = ref('')
  /** The line that arrow keys start from. */
  const current = ref<string | null>(null)
  const undoSteps = shallowRef<readonly Step[]>([])
  const redoSteps = shallowRef<readonly Step[]>([])
  const saver = shallowRef<Saver | null>(null)

  const lines = computed(() => state.value.lines)
  const conventions = computed<Conventions>(() => state.value.conventions)
  const title = computed(() => state.value.title)
  const saveState = computed(() => saver.value?.state.value ?? null)
  const canUndo = computed(() => undoSteps.value.length > 0)
  const canRedo = computed(() => redoSteps.value.length > 0)

  const indexOf = (lineId: string): number => lines.value.findIndex((l) => l.id === lineId)
  const lineOf = (lineId: string): Line | null => lines.value[indexOf(lineId)] ?? null

  async function open(folioId: string): Promise<void> {
    close()
    id.value = folioId
    status.value = 'loading'
    notice.value = ''
    try {
      const [folio, outbox] = await Promise.all([api.open(folioId), readOutbox(folioId)])
      const merged = outbox ? rebase(folio, outbox.operations, newId) : { state: folio, operations: [], kept: 0 }
      if (merged.kept > 0) notice.value = keptSentence(merged.kept)
      state.value = { title: merged.state.title, conventions: merged.state.conventions, lines: merged.state.lines }
      const sender = new Saver(folioId, folio.revision, takeTheirs, folio.changedAt)
      saver.value = sender
      if (merged.operations.length > 0) sender.add(merged.operations)
      if (state.value.lines.length === 0) perform('first line', [insertion(0, '')])
      status.value = 'ready'
      await results.load(state.value.lines, state.value.conventions)
      resumeDraft(folioId)
    } catch (error) {
      status.value = 'failed'
      message.value = error instanceof Error ? error.message : 'The folio could not be opened.'
    }
  }

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
    state.value = { title: merged.state.title, conventions: merged.state.conventions, lines: merged.state.lines }
    notice.value = merged.kept > 0 ? keptSentence(merged.kept) : 'Changes from another window were taken in.'
    // Steps recorded against the old state may no longer fit; they are checked when used.
    void results.apply({
      order: state.value.lines.map((l) => l.id),
      sources: state.value.lines,
      conventions: { ...state.value.conventions },
    })
    return merged.operations
  }

  function close(): void {
    if (editing.value) keep()
    saver.value?.close()
    saver.value = null
    results.close()
    undoSteps.value = []
    redoSteps.value = []
    editing.value = null
    current.value = null
    state.value = { title: '', conventions: DEFAULT_CONVENTIONS, lines: [] }
  }

  // Operations.

  function apply(operations: readonly Operation[]): { readonly done: Operation[]; readonly inverse: Operation[] } {
    const done: Operation[] = []
    const inverse: Operation[] = []
    let next = state.value
    for (const operation of operations) {
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
    if (status.value === 'ready') sendToResults(done)
    return { done, inverse }
  }

  function sendToResults(done: readonly Operation[]): void {
    const reordered = done.some((o) => o.type === 'insert' || o.type === 'remove' || o.type === 'move')
    const sources = done.flatMap((o) => {
      const line = o.type === 'edit' ? lineOf(o.id) : o.type === 'insert' ? o.line : null
      return line ? [{ id: line.id, source: line.source }] : []
    })
    void results.apply({
      ...(reordered ? { order: state.value.lines.map((l) => l.id) } : {}),
      ...(sources.length > 0 ? { sources } : {}),
      ...(done.some((o) => o.type === 'convene') ? { conventions: { ...state.value.conventions } } : {}),
    })
  }

  /** Carries out a change as one undoable step. */
  function perform(label: string, operations: readonly Operation[], line: string | null = null): void {
    const { done, inverse } = apply(operations)
    if (done.length === 0) return
    undoSteps.value = [...undoSteps.value.slice(-(UNDO_LIMIT - 1)), { label, operations: done, inverse, line }]
    redoSteps.value = []
  }

  function undo(): void {
    if (editing.value) keep()
    const step = undoSteps.value.at(-1)
    if (!step) return
    undoSteps.value = undoSteps.value.slice(0, -1)
    apply(step.inverse)
    redoSteps.value = [...redoSteps.value, step]
    goTo(step)
  }

  function redo(): void {
    if (editing.value) keep()
    const step = redoSteps.value.at(-1)
    if (!step) return
    redoSteps.value = redoSteps.value.slice(0, -1)
    apply(step.operations)
    undoSteps.value = [...undoSteps.value, step]
    goTo(step)
  }

  function goTo(step: Step): void {
    if (step.line !== null && lineOf(step.line)) current.value = step.line
    else if (current.value !== null && !lineOf(current.value)) current.value = lines.value.at(-1)?.id ?? null
  }

  function insertion(at: number, source: string): Extract<Operation, { type: 'insert' }> {
    return { type: 'insert', line: { id: newId(), source }, at }
  }

  // Editing a line.

  function edit(lineId: string, caret: number | 'end' = 'end'): void {
    if (editing.value?.id === lineId) return
    if (editing.value) keep()
    const line = lineOf(lineId)
    if (!line) return
    text.value = line.source
    current.value = lineId
    editing.value = { id: lineId, caret }
  }

  function type(source: string): void {
    if (!editing.value || text.value === source) return
    text.value = source
    writeDraft({ folio: id.value, line: editing.value.id, text: source })
    void results.type(editing.value.id, source)
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
    void results.settle()
  }

  /** Leaves the line as it was. */
  function restore(): void {
    if (!editing.value) return
    editing.value = null
    writeDraft(null)
    void results.settle()
  }

  /** Keeps the entry and goes on to the line below, a new one after the last. */
  function keepAndGoOn(): void {
    const open = editing.value
    if (!open) return
    const index = indexOf(open.id)
    const next = lines.value[index + 1]
    // A last line that is still empty already is the next one.
    if (!next && text.value.trim() === '') return
    keep()
    if (next) edit(next.id)
    else insertAt(index + 1)
  }

  function step(by: 1 | -1): boolean {
    const from = editing.value?.id ?? current.value
    const next = from === null ? lines.value[0] : lines.value[indexOf(from) + by]
    if (!next) return false
    edit(next.id)
    return true
  }

  // Whole lines.

  function insertAt(at: number, source = ''): void {
    const operation = insertion(at, source)
    perform('new line', [operation], operation.line.id)
    edit(operation.line.id)
  }

  function remove(lineId: string): void {
    const index = indexOf(lineId)
    if (index < 0) return
    if (editing.value?.id === lineId) restore()
    else if (editing.value) keep()
    const neighbour = lines.value[index - 1] ?? lines.value[index + 1]
    if (neighbour) perform('delete line', [{ type: 'remove', id: lineId }], lineId)
    else perform('delete line', [{ type: 'remove', id: lineId }, insertion(0, '')], lineId)
    current.value = neighbour?.id ?? lines.value[0]?.id ?? null
  }

  function move(lineId: string, to: number): void {
    const from = indexOf(lineId)
    const target = Math.max(0, Math.min(lines.value.length - 1, to))
    if (from < 0 || from === target) return
    perform('move line', [{ type: 'move', id: lineId, to: target }], lineId)
    current.value = lineId
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
    void results.settle()
    const last = inserted.at(-1)
    if (last) edit(last.line.id)
  }

  /** Replaces the text of a line: a fix, a stamped unit, the end of a drag. */
  function rewrite(lineId: string, source: string, label: string): void {
    const line = lineOf(lineId)
    if (!line) return
    if (line.source !== source) perform(label, [{ type: 'edit', id: lineId, source, was: line.source }], lineId)
    void results.settle()
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

  function convene(change: Partial<Conventions>): void {
    if (editing.value) keep()
    perform('conventions', [{ type: 'convene', conventions: change }])
  }

  function rename(newTitle: string): void {
    const trimmed = newTitle.trim()
    if (trimmed !== '' && trimmed !== title.value) perform('rename', [{ type: 'rename', title: trimmed }])
  }

  return {
    id, status, message, notice, state, lines, conventions, title, editing, text, current, saveState, saver, canUndo, canRedo,
    open, close, perform, undo, redo, edit, type, keep, restore, keepAndGoOn, step, insertAt, remove, move, paste, rewrite,
    stampAll, convene, rename, indexOf, lineOf,
  } // prettier-ignore
})

function keptSentence(count: number): string {
  return count === 1
    ? 'A line was changed in two places: both texts are kept, one below the other.'
    : `${count} lines were changed in two places: both texts of each are kept, one below the other.`
}
