import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { renameEverywhere } from '#core/notation/rename'
import { sentence } from '#core/sentences/sentences'
import { standardName } from '#core/functions/registry'
import type { Conventions } from '#core/format/conventions'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { Enclosure } from '#shared/enclosure'
import { ANSWER_LENGTH_MAX, NO_HEAD } from '#shared/folio'
import type { Folio, Line, LineMark, SheetHead } from '#shared/folio'
import { writeFolioFile } from '#shared/folioFile'
import { newId } from '#shared/id'
import type { Plate } from '#shared/plate'
import { counted, ENTRY_LENGTH_MAX, LINE_LENGTH_MAX, TITLE_LENGTH_MAX } from '#shared/limits'
import { mergeSentence, rebase } from '#shared/merge'
import { applyOperation, difference, invertOperation, stillStands } from '#shared/operations'
import type { FolioState, Operation } from '#shared/operations'
import { api, RequestError } from '~/keeping/api'
import { storeWorks } from '~/keeping/browserStore'
import type { Apart } from '~/lines/linesApart'
import { DraftKeeper, readDrafts } from '~/keeping/drafts'
import type { Draft } from '~/keeping/drafts'
import { asideRecord, dropAside, keepParts, readAside, readOutbox } from '~/keeping/outbox'
import type { Aside } from '~/keeping/outbox'
import { readSteps, StepKeeper, STEPS_MOST } from '~/keeping/steps'
import type { Step } from '~/keeping/steps'
import { Tabs } from '~/keeping/tabs'
import type { Handed, TabRole } from '~/keeping/tabs'
import { duplicated, movedBy, movedTo, removed, toggled, turned } from '../lines/lineChanges'
import { useResultsStore } from './results'
import { fullSentence, Saver, stateOf } from '../keeping/saving'
import type { MergedOperations } from '../keeping/saving'
import { startOf } from '../keeping/starting'
import { sectionOf, tuckedAway } from '../lines/sections'

/** The line that holds the editor. */
export interface Editing {
  readonly id: string
  /** Where the caret goes when the editor opens, or what is selected. */
  readonly caret: number | 'end' | { readonly from: number; readonly to: number }
  /** Counts up: an editor that is opened again is another one. */
  readonly session: number
  /** The text of the line when its editor was opened. */
  readonly was: string
}

/** How often a text that is typed without a pause is given to the server, in milliseconds. */
const DRAFT_EVERY = 3_000
/** Lines that are put in at once; more come in parts, so that the page stays alive. */
const PASTED_AT_ONCE = 100

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

  /** False where this browser keeps nothing: then only the server does. */
  const browserKeeps = ref(true)
  /** What could not be saved and was set aside. */
  const aside = shallowRef<readonly Aside[]>([])

  let sessions = 0
  let tabs: Tabs | null = null
  let keeper: StepKeeper | null = null
  let drafts: DraftKeeper | null = null
  /** Drafts that were found when the folio was opened, by line. */
  let found = new Map<string, Draft>()
  let draftTimer: ReturnType<typeof setTimeout> | null = null
  /** What the tab that is followed is typing. */
  let followed: { readonly id: string; readonly text: string } | null = null
  const signedOut = ref(false)
  /** What is kept of the folio cannot be read as a whole; as much as can be is given as a file. */
  const damaged = ref(false)
  /** A text that was too long for an entry and fits a note. */
  const overlong = ref('')

  const lines = computed(() => state.value.lines)
  const conventions = computed<Conventions>(() => state.value.conventions)
  const title = computed(() => state.value.title)
  const plates = computed<readonly Plate[]>(() => state.value.plates ?? [])
  const enclosures = computed<readonly Enclosure[]>(() => state.value.enclosures ?? [])
  const head = computed<SheetHead>(() => state.value.head ?? NO_HEAD)
  const saveState = computed(() => saver.value?.state.value ?? null)
  const writable = computed(() => role.value === 'writer')
  /** True where something would be lost if the page were closed now. */
  const wouldLose = computed(
    () =>
      (saver.value !== null && saver.value.waiting.value > 0 && !saver.value.kept.value) ||
      (editing.value !== null && text.value !== editing.value.was && !browserKeeps.value),
  )
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
        write: (handed) => void takeUp(handed),
        follow: () => becomeFollower(),
        handOver,
        state: () => state.value,
        takeState,
        takeDraft: (draft) => {
          followed = draft
          void (draft ? results.type(draft.id, draft.text) : results.settle())
        },
      })
      tabs = ours
      const first = await ours.begin()
      if (tabs !== ours) return
      role.value = first === 'writer' ? 'taking' : 'follower'
      await load(folioId)
      if (tabs !== ours) return
      status.value = 'ready'
      const writes = first === 'writer' && saver.value !== null
      if (writes) becomeWriter()
      void storeWorks().then((works) => (browserKeeps.value = works))
      await results.load(entries(), state.value.conventions, folioId, enclosures.value)
      if (writes && tabs === ours) await resumeDrafts(folioId)
    } catch (error) {
      status.value = 'failed'
      signedOut.value = error instanceof RequestError && error.signedOut
      damaged.value = error instanceof RequestError && error.problem?.damaged === true
      message.value = error instanceof Error ? error.message : 'The folio could not be opened.'
      aside.value = await readAside(folioId)
    }
  }

  /** Nothing is typed here before the state is there: what is written on an old one could be lost. */
  function becomeWriter(): void {
    role.value = 'writer'
    if (state.value.lines.length === 0) perform('first line', [insertion(0, '')])
  }

  /** What the server has, with what this browser has not sent yet on top. */
  async function load(folioId: string): Promise<void> {
    const folio = await api.open(folioId)
    if (role.value === 'follower') {
      state.value = stateOf(folio)
      return
    }
    await begin(folioId, folio)
  }

  /** Begins to write: from what the server has, or from what another tab has handed over. */
  async function begin(folioId: string, folio: Folio | null, handed: Handed | null = null): Promise<void> {
    const [outbox, steps, kept] = await Promise.all([readOutbox(folioId), readSteps(folioId), readDrafts(folioId)])
    const start = await startOf(folioId, { folio, outbox, handed, followed: folio ? null : state.value })
    // Meanwhile another tab may have taken the folio, or the page gone on to another one.
    if (id.value !== folioId || role.value !== 'taking') return
    if (start.said) notice.value = start.said
    undoSteps.value = steps.undo
    redoSteps.value = steps.redo
    keeper = new StepKeeper(folioId)
    drafts = new DraftKeeper(folioId, (works) => (browserKeeps.value = works))
    found = new Map(kept.map((draft) => [draft.line, draft]))
    state.value = withoutDrafts(start.saver.head)
    saver.value = new Saver(start.saver, { merge, setAside: () => void showAside() })
    if (start.replaced.length + start.unfit.length > 0) {
      const put =
        start.unfit.length > 0 ? [asideRecord(folioId, 'There was no room for it in the folio.', start.unfit)] : []
      await keepParts(folioId, start.saver.revision, start.saver.parts, start.replaced, put)
    }
    await showAside()
  }

  async function showAside(): Promise<void> {
    const { value } = id
    const list = await readAside(value)
    if (id.value === value) aside.value = list
  }

  /** What was set aside has been copied, put in again or given up. */
  async function dismissAside(): Promise<void> {
    await dropAside(aside.value.map((a) => a.key))
    await showAside()
  }

  /** Texts that were given to the server while they were typed are drafts still: the line has its own text until it is kept. */
  function withoutDrafts(next: FolioState): FolioState {
    const lines = next.lines.map((line) => {
      const draft = found.get(line.id)
      return draft && draft.was !== null && draft.sent === line.source ? { ...line, source: draft.was } : line
    })
    return { ...next, lines }
  }

  /** This tab writes from now on; with what the other one handed over the server need not even answer. */
  async function takeUp(handed: Handed | null): Promise<void> {
    const ours = tabs
    const folioId = id.value
    role.value = 'taking'
    // What the other tab was typing it has kept before it handed over; of one that is gone it was followed.
    const draft = handed ? null : followed
    followed = null
    try {
      const folio = handed ? null : await reachable(folioId)
      if (tabs !== ours || role.value !== 'taking') return
      await begin(folioId, folio, handed)
      if (tabs !== ours || role.value !== 'taking') return
      role.value = 'writer'
      tabs?.tellState(state.value)
      notice.value = [notice.value, 'This tab writes the folio now.'].filter((n) => n !== '').join(' ')
      await results.load(entries(), state.value.conventions, folioId, enclosures.value)
      if (tabs !== ours) return
      if (draft && !found.has(draft.id))
        found.set(draft.id, { line: draft.id, text: draft.text, was: null, sent: null, at: Date.now() })
      await resumeDrafts(folioId)
    } catch (error) {
      if (tabs !== ours) return
      status.value = 'failed'
      message.value = error instanceof Error ? error.message : 'The folio could not be opened.'
    }
  }

  /** The folio as the server has it; `null` where it does not answer and this tab goes on with what it has followed. */
  async function reachable(folioId: string): Promise<Folio | null> {
    try {
      return await api.open(folioId)
    } catch (error) {
      if (error instanceof RequestError && error.status === 404) throw error
      return null
    }
  }

  function becomeFollower(): void {
    // What was being typed stays a draft, which the tab that writes now takes up.
    void drafts?.flush()
    if (draftTimer !== null) clearTimeout(draftTimer)
    draftTimer = null
    editing.value = null
    role.value = 'follower'
    saver.value?.halt()
    saver.value = null
    undoSteps.value = []
    redoSteps.value = []
    void results.settle()
  }

  /** Another tab asks for the folio: what this one has is kept and handed over, sent or not. */
  async function handOver(): Promise<Handed> {
    keep()
    role.value = 'taking'
    await Promise.all([saver.value?.written(), keeper?.flush(), drafts?.flush()])
    const baggage = saver.value?.halt() ?? { revision: 0, base: null, parts: [] }
    return {
      state: plain(state.value),
      baggage: {
        ...baggage,
        base: baggage.base && plain(baggage.base),
        parts: baggage.parts.map((p) => ({ ...p, operations: [...p.operations] })),
      },
    }
  }

  function takeState(next: FolioState): void {
    if (status.value === 'ready') show(next)
    else state.value = next
  }

  const entries = () => state.value.lines.map((l) => ({ id: l.id, source: entryOf(l) }))

  /** A reload in the middle of a line finds the line as it was being typed; a line that is gone is put back. */
  async function resumeDrafts(folioId: string): Promise<void> {
    const newest = [...found.values()].at(-1)
    for (const draft of [...found.values()]) {
      const line = lineOf(draft.line)
      if (line && draft.text === line.source && draft !== newest) found.delete(draft.line)
      if (line || draft.text.trim() === '') continue
      found.delete(draft.line)
      await drafts?.forget(draft.line)
      const operation = insertion(lines.value.length, draft.text)
      perform('put a text back', [operation], operation.line.id)
      notice.value = 'A line that you were typing was deleted elsewhere: your text is a line again, at the end.'
    }
    if (id.value === folioId && newest && lineOf(newest.line) && editing.value === null) edit(newest.line, 'end')
  }

  /** Ours on top of what others saved first. */
  function merge(theirs: FolioState, unsent: readonly Operation[], seen: FolioState | null): MergedOperations {
    const merged = rebase(theirs, unsent, newId, seen)
    const open = editing.value
    const copy = open ? merged.copies.get(open.id) : undefined
    const here = copy ?? open?.id
    const sent = here === undefined ? undefined : merged.state.lines.find((l) => l.id === here)?.source
    // The open line keeps the text it had; what of its draft has been sent is not kept yet.
    const draft = open && sent !== undefined && sent !== open.was && saver.value?.sourceOf(open.id) === sent
    const shown = draft
      ? { ...merged.state, lines: merged.state.lines.map((l) => (l.id === here ? { ...l, source: open.was } : l)) }
      : merged.state
    show(stateOf(shown))
    if (open && copy !== undefined) {
      // What is being typed goes on in the line that its text has become.
      const typed = text.value
      void drafts?.forget(open.id)
      current.value = copy
      sessions += 1
      editing.value = { ...open, id: copy, caret: 'end', session: sessions }
      text.value = typed
      keepDraft()
    }
    notice.value = mergeSentence(merged) ?? 'Changes from another window were taken in.'
    return merged
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
    void drafts?.flush()
    keeper = null
    drafts = null
    found = new Map()
    followed = null
    aside.value = []
    signedOut.value = false
    damaged.value = false
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
   * Applies operations as far as they fit. Those that take back others (`undone`,
   * one for each) are only applied where the state still shows what those did:
   * what somebody else has written since is never removed.
   */
  function apply(
    operations: readonly Operation[],
    undone: readonly (Operation | undefined)[] | null = null,
  ): { readonly done: Operation[]; readonly inverse: Operation[] } {
    const done: Operation[] = []
    const inverse: Operation[] = []
    let next = state.value
    let full: string | null = null
    for (const [k, operation] of operations.entries()) {
      const before = undone?.[k]
      if (before && !stillStands(next, before)) continue
      const back = invertOperation(next, operation)
      const applied = applyOperation(next, operation)
      full ??= applied ? null : fullSentence(next, operation)
      if (!applied || !back) continue
      next = applied
      done.push(operation)
      inverse.unshift(back)
    }
    if (full) notice.value = full
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
  function perform(
    label: string,
    operations: readonly Operation[],
    line: string | null = null,
    group?: string,
  ): readonly Operation[] {
    if (!writable.value) return []
    const { done, inverse } = apply(operations)
    if (done.length === 0) return done
    remember(done)
    const step: Step = { label, operations: done, inverse, line, ...(group === undefined ? {} : { group }) }
    undoSteps.value = [...undoSteps.value.slice(-(STEPS_MOST - 1)), step]
    redoSteps.value = []
    keepSteps()
    return done
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
    takeBack(step, step.inverse, step.operations)
    redoSteps.value = [...redoSteps.value, step]
    keepSteps()
    if (step.group !== undefined && undoSteps.value.at(-1)?.group === step.group) undo()
  }

  function redo(): void {
    if (editing.value) keep()
    const step = redoSteps.value.at(-1)
    if (!step || !writable.value) return
    redoSteps.value = redoSteps.value.slice(0, -1)
    takeBack(step, step.operations, step.inverse)
    undoSteps.value = [...undoSteps.value, step]
    keepSteps()
    if (step.group !== undefined && redoSteps.value.at(-1)?.group === step.group) redo()
  }

  /** What is taken back stands in the other order: the last that was done is the first to go. */
  function takeBack(step: Step, operations: readonly Operation[], undone: readonly Operation[]): void {
    const { done } = apply(operations, undone.toReversed())
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
    // A text that was left in the middle, by a crash perhaps, is there again.
    const draft = found.get(lineId)
    found.delete(lineId)
    text.value = line.source
    current.value = lineId
    sessions += 1
    editing.value = { id: lineId, caret, session: sessions, was: line.source }
    if (draft && draft.text !== line.source) type(draft.text)
    else if (draft) void drafts?.forget(lineId)
  }

  function type(source: string): void {
    const open = editing.value
    if (!open || text.value === source) return
    text.value = source
    keepDraft()
    draftTimer ??= setTimeout(() => void sendDraft(), DRAFT_EVERY)
    if (lineOf(open.id)?.note) return
    void results.type(open.id, source)
    tabs?.tellDraft({ id: open.id, text: source })
  }

  function keepDraft(sent?: string): void {
    const open = editing.value
    if (!open) return
    const given = sent ?? saver.value?.sourceOf(open.id) ?? null
    drafts?.keep({ line: open.id, text: text.value, was: open.was, sent: given === open.was ? null : given })
  }

  /** What is typed for long without a pause is given to the server, too, before it is kept. */
  async function sendDraft(): Promise<void> {
    draftTimer = null
    const open = editing.value
    const source = text.value
    if (!open || !lineOf(open.id) || source === saver.value?.sourceOf(open.id)) return
    // First it is noted here that this is a draft: a crash in between must not make it look kept.
    keepDraft(source)
    await drafts?.flush()
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
    void drafts?.forget(open.id)
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
    tabs?.tellDraft(null)
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
    void insertMany('insert lines', sources, current.value)
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
    if (editing.value) keep()
    const operations = plain.map(({ source, note, answer: part }, k): Operation => {
      const line = { id: newId(), source: source.slice(0, LINE_LENGTH_MAX) }
      const marked = { ...line, ...(note ? { note } : {}), ...(part ? { answer: part } : {}) }
      return { type: 'insert', line: marked, at: at + k }
    })
    const last = operations.at(-1)
    if (perform('insert lines', [...operations, ...emptyAbove(at)]).length > 0 && last?.type === 'insert')
      reveal(last.line.id)
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

  /** Marks a line as the answer to a part of the sheet; with an empty text it is none any more. */
  function answer(lineId: string, part: string): void {
    if (editing.value) keep()
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
    if (editing.value) keep()
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
    if (editing.value) keep()
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
    if (editing.value) keep()
    perform(`take out ${name}`, [{ type: 'unenclose', name }])
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
    const trimmed = newTitle.trim().slice(0, TITLE_LENGTH_MAX)
    if (trimmed !== '' && trimmed !== title.value) perform('rename', [{ type: 'rename', title: trimmed }])
  }

  async function takeOver(): Promise<void> {
    if (role.value !== 'follower') return
    role.value = 'taking'
    await tabs?.takeOver()
  }

  /** Everything that is kept is sent and written; called when the page may be closed. */
  async function flush(): Promise<void> {
    drafts?.lastWords()
    await Promise.all([saver.value?.flush(), saver.value?.written(), keeper?.flush(), drafts?.flush()])
  }

  /** Puts texts that were set aside in again, as notes at the end. */
  async function putAsideBack(): Promise<void> {
    if (editing.value) keep()
    const notes = aside.value.flatMap((a) => a.texts)
    const operations = notes.map((source, k): Operation => ({
      type: 'insert',
      line: { id: newId(), source: source.slice(0, LINE_LENGTH_MAX), note: true },
      at: lines.value.length + k,
    }))
    const done = perform('put back', operations)
    if (done.length === operations.length) await dismissAside()
  }

  /** The folio as it stands here, the text that is being typed with it, as a file of its own. */
  function asFile(): string {
    const open = editing.value
    const { title, conventions, plates, enclosures = [], head: sheetHead = NO_HEAD } = state.value
    const lines = state.value.lines.map((l) => (l.id === open?.id ? { ...l, source: text.value } : l))
    const file = {
      title,
      conventions,
      lines: [...lines],
      plates: [...(plates ?? [])],
      enclosures: [...enclosures],
      head: sheetHead,
    }
    return writeFolioFile({ ...file, folio: id.value, revision: saver.value?.knownRevision ?? 0 })
  }

  return {
    id, status, message, notice, state, lines, plates, enclosures, head, shownLines, tucked, conventions, title, editing, text, current, selected, entered,
    role, writable, wouldLose, overlong, browserKeeps, signedOut, damaged, aside, saveState, saver, canUndo, canRedo,
    open, close, flush, takeOver, asFile, dismissAside, putAsideBack, refuses, takeOverlong, perform, undo, redo, edit, type, keep, restore, keepAndGoOn, step, neighbour,
    selectTo, toggleSelected, clearSelection, targets, reveal,
    insertAt, insertBelow, insertPlain, insertNoteBelow, remove, moveBy, moveTo, duplicate, toggle, turn, paste, rewrite, typeOver,
    renameName, goBackTo, takeFromFile, answer, writeHead, enclose, unenclose, convene, rename, indexOf, lineOf,
  } // prettier-ignore
})

/** A state as a message carries it. */
function plain(state: FolioState): Handed['state'] {
  const { title, conventions, lines, plates, enclosures, head } = state
  return {
    title,
    conventions,
    lines: [...lines],
    plates: [...(plates ?? [])],
    enclosures: [...(enclosures ?? [])],
    head,
  }
}
