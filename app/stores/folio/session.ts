import { computed, ref, shallowRef } from 'vue'
import type { Folio } from '#shared/folio'
import { writeFolioFile } from '#shared/folioFile'
import { newId } from '#shared/id'
import { LINE_LENGTH_MAX } from '#shared/limits'
import { olderProducts } from '#core/notation/olderProducts'
import { mergeSentence, rebase } from '#shared/merge'
import { stateOf } from '#shared/operations'
import type { FolioState, Operation } from '#shared/operations'
import { api, RequestError } from '~/keeping/api'
import { goOnSending, onTheirWay } from '~/keeping/blocks'
import { storeWorks } from '~/keeping/browserStore'
import { DraftKeeper, readDrafts } from '~/keeping/drafts'
import { asideRecord, dropAside, keepParts, readAside, readOutbox } from '~/keeping/outbox'
import type { Aside } from '~/keeping/outbox'
import { Saver } from '~/keeping/saving'
import type { MergedOperations } from '~/keeping/saving'
import { startOf } from '~/keeping/starting'
import { readSteps, StepKeeper } from '~/keeping/steps'
import { Tabs } from '~/keeping/tabs'
import type { Handed } from '~/keeping/tabs'
import { useResultsStore } from '../results'
import { EMPTY } from './document'
import type { FolioDocument, Links } from './document'
import type { FolioEditor } from './editing'
import type { FolioHistory } from './history'

/** Opening and closing a folio: the server, this browser and other tabs, and who of them writes. */
export function createSession(doc: FolioDocument, links: Links, history: FolioHistory, editor: FolioEditor) {
  const { id, notice, state, saver, role, editing, text, current, selected, lines, enclosures, lineOf, entries, insertion } = doc // prettier-ignore
  const { undoSteps, redoSteps, entered, perform } = history
  const { edit, keep, leave } = editor
  const results = useResultsStore()
  const status = ref<'loading' | 'ready' | 'failed'>('loading')
  const message = ref('')
  /** False where this browser keeps nothing: then only the server does. */
  const browserKeeps = ref(true)
  /** What could not be saved and was set aside. */
  const aside = shallowRef<readonly Aside[]>([])
  const signedOut = ref(false)
  /** What is kept of the folio cannot be read as a whole; as much as can be is given as a file. */
  const damaged = ref(false)
  const saveState = computed(() => saver.value?.state.value ?? null)
  /** True where something would be lost if the page were closed now. */
  const wouldLose = computed(
    () =>
      (saver.value !== null && saver.value.waiting.value > 0 && !saver.value.kept.value) ||
      onTheirWay.value.some((numbers) => numbers.folio === id.value && !numbers.kept) ||
      (editing.value !== null && text.value !== editing.value.was && !browserKeeps.value),
  )

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
          links.followed = draft
          void (draft ? results.type(draft.id, draft.text) : results.settle())
        },
      })
      links.tabs = ours
      const first = await ours.begin()
      if (links.tabs !== ours) return
      role.value = first === 'writer' ? 'taking' : 'follower'
      await load(folioId)
      if (links.tabs !== ours) return
      status.value = 'ready'
      history.evaluated.value = true
      const writes = first === 'writer' && saver.value !== null
      if (writes) becomeWriter()
      void storeWorks().then((works) => (browserKeeps.value = works))
      await results.load(entries(), state.value.conventions, folioId, enclosures.value)
      if (writes && links.tabs === ours) await resumeDrafts(folioId)
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
    bringUp()
    void goOnSending(id.value, enclosures.value)
  }

  /** A folio from before units goes on to mean what it did: undone in one step. */
  function bringUp(): void {
    if (state.value.conventions.spaced === 'unit') return
    const { lines } = state.value
    const texts = olderProducts(lines.map((line) => (line.note ? '' : line.source)))
    const changed = lines.flatMap((line, k) => {
      const source = texts[k]
      return source ? [{ line, source, number: k + 1 }] : []
    })
    const told = changed.map(({ number }) => number).join(', ')
    perform('products written out', [
      ...changed.map(({ line, source }): Operation => ({ type: 'edit', id: line.id, source, was: line.source })),
      { type: 'convene', conventions: { spaced: 'unit' } },
    ])
    if (changed.length > 0)
      notice.value = `A word behind a number is a unit now, as in 10 V. Where it was a factor a * is written: line ${told}. Undo takes it back.`
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
    links.keeper = new StepKeeper(folioId)
    links.drafts = new DraftKeeper(folioId, (works) => (browserKeeps.value = works))
    links.found = new Map(kept.map((draft) => [draft.line, draft]))
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

  /** Texts that were given to the server while they were typed are links.drafts still: the line has its own text until it is kept. */
  function withoutDrafts(next: FolioState): FolioState {
    const lines = next.lines.map((line) => {
      const draft = links.found.get(line.id)
      return draft && draft.was !== null && draft.sent === line.source ? { ...line, source: draft.was } : line
    })
    return { ...next, lines }
  }

  /** This tab writes from now on; with what the other one handed over the server need not even answer. */
  async function takeUp(handed: Handed | null): Promise<void> {
    const ours = links.tabs
    const folioId = id.value
    role.value = 'taking'
    // What the other tab was typing it has kept before it handed over; of one that is gone it was links.followed.
    const draft = handed ? null : links.followed
    links.followed = null
    try {
      const folio = handed ? null : await reachable(folioId)
      if (links.tabs !== ours || role.value !== 'taking') return
      await begin(folioId, folio, handed)
      if (links.tabs !== ours || role.value !== 'taking') return
      role.value = 'writer'
      links.tabs?.tellState(state.value)
      notice.value = [notice.value, 'This tab writes the folio now.'].filter((n) => n !== '').join(' ')
      await results.load(entries(), state.value.conventions, folioId, enclosures.value)
      if (links.tabs !== ours) return
      if (draft && !links.found.has(draft.id))
        links.found.set(draft.id, { line: draft.id, text: draft.text, was: null, sent: null, at: Date.now() })
      await resumeDrafts(folioId)
    } catch (error) {
      if (links.tabs !== ours) return
      status.value = 'failed'
      message.value = error instanceof Error ? error.message : 'The folio could not be opened.'
    }
  }

  /** The folio as the server has it; `null` where it does not answer and this tab goes on with what it has links.followed. */
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
    editor.stopTyping()
    role.value = 'follower'
    saver.value?.halt()
    saver.value = null
    history.forget()
    void results.settle()
  }

  /** Another tab asks for the folio: what this one has is kept and handed over, sent or not. */
  async function handOver(): Promise<Handed> {
    keep()
    role.value = 'taking'
    await Promise.all([saver.value?.written(), links.keeper?.flush(), links.drafts?.flush()])
    const baggage = saver.value?.halt() ?? { revision: 0, base: null, parts: [] }
    return {
      state: stateOf(state.value),
      baggage: {
        ...baggage,
        base: baggage.base && stateOf(baggage.base),
        parts: baggage.parts.map((p) => ({ ...p, operations: [...p.operations] })),
      },
    }
  }

  function takeState(next: FolioState): void {
    if (status.value === 'ready') show(next)
    else state.value = next
  }

  /** A reload in the middle of a line finds the line as it was being typed; a line that is gone is put back. */
  async function resumeDrafts(folioId: string): Promise<void> {
    const newest = [...links.found.values()].at(-1)
    for (const draft of [...links.found.values()]) {
      const line = lineOf(draft.line)
      if (line && draft.text === line.source && draft !== newest) links.found.delete(draft.line)
      if (line || draft.text.trim() === '') continue
      links.found.delete(draft.line)
      await links.drafts?.forget(draft.line)
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
      editor.goOnIn(open, copy)
    }
    notice.value = mergeSentence(merged) ?? 'Changes from another window were taken in.'
    return merged
  }

  /** Another state altogether; steps recorded against the old one are checked when used. */
  function show(next: FolioState): void {
    state.value = next
    links.tabs?.tellState(next)
    void results.apply({ order: next.lines.map((l) => l.id), sources: entries(), conventions: { ...next.conventions } })
  }

  function close(): void {
    leave()
    void links.keeper?.flush()
    void links.drafts?.flush()
    links.keeper = null
    links.drafts = null
    links.found = new Map()
    links.followed = null
    aside.value = []
    signedOut.value = false
    damaged.value = false
    links.tabs?.close()
    links.tabs = null
    saver.value?.close()
    saver.value = null
    results.close()
    history.forget()
    history.evaluated.value = false
    entered.value = []
    selected.value = new Set()
    editing.value = null
    current.value = null
    role.value = 'writer'
    state.value = EMPTY
  }

  async function takeOver(): Promise<void> {
    if (role.value !== 'follower') return
    role.value = 'taking'
    await links.tabs?.takeOver()
  }

  /** Everything that is kept is sent and written; called when the page may be closed. */
  async function flush(): Promise<void> {
    links.drafts?.lastWords()
    await Promise.all([saver.value?.flush(), saver.value?.written(), links.keeper?.flush(), links.drafts?.flush()])
  }

  /** Puts texts that were set aside in again, as notes at the end. */
  async function putAsideBack(): Promise<void> {
    leave()
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
    const lines = state.value.lines.map((l) => (l.id === open?.id ? { ...l, source: text.value } : l))
    return writeFolioFile({
      ...stateOf(state.value),
      lines,
      folio: id.value,
      revision: saver.value?.knownRevision ?? 0,
    })
  }

  return {
    status, message, browserKeeps, aside, signedOut, damaged, saveState, wouldLose, open, close, flush, takeOver, asFile, dismissAside, putAsideBack,
  } // prettier-ignore
}
