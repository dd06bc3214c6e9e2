import { wrap } from 'comlink'
import type { Remote } from 'comlink'
import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef } from 'vue'
import type { Conventions } from '#core/format/conventions'
import type { CopyForm } from '#core/format/copy'
import type { LineView } from '#core/format/lineView'
import type { ExactMatrix } from '#core/linear/exact'
import type { Line } from '#shared/folio'
import type { SweepRows } from '#core/format/sweep'
import type { Edits, EvaluatorService, Update, Watched } from '~/workers/evaluator'

/** How long a calculation may take before it is offered to be stopped, in milliseconds. */
const PATIENCE = 700

/** What every line came to, as the worker tells it. */
export const useResultsStore = defineStore('results', () => {
  const views = shallowReactive(new Map<string, LineView>())
  /** The problem of an entry that is being typed. */
  const draft = shallowRef<LineView | null>(null)
  const order = shallowRef<readonly string[]>([])
  /** True once a calculation has taken so long that it may be stopped. */
  const slow = ref(false)
  /** True while an entry is typed or a value dragged: what is shown is not kept yet. */
  const unsettled = ref(false)
  /** How far a long calculation has come, from 0 to 1; `null` where it does not tell. */
  const progress = ref<number | null>(null)
  /** Texts of lines that were stopped: held back until they are edited or asked for. */
  const held = shallowReactive(new Map<string, string>())

  /** The folio as it was last told to the worker, to start another one from. */
  const told = new Map<string, string>()
  let conventions: Conventions | null = null
  /** The line whose change is being reckoned, and its text. */
  let suspect: { readonly id: string; readonly source: string } | null = null

  let worker: Worker | null = null
  let service: Remote<EvaluatorService> | null = null
  let stopRunning: (() => void) | null = null
  /** Calls go one after another; a newer draft takes the place of one still waiting. */
  let queue: Promise<void> = Promise.resolve()
  let waitingDraft: { id: string; source: string } | null = null
  let draftQueued = false

  function remote(): Remote<EvaluatorService> {
    if (service) return service
    worker = new Worker(new URL('../workers/evaluator.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', ({ data }: MessageEvent<{ progress?: number }>) => {
      if (typeof data.progress === 'number') progress.value = data.progress
    })
    service = wrap<EvaluatorService>(worker)
    return service
  }

  function take(update: Update): void {
    for (const view of update.views) views.set(view.id, view)
    draft.value = update.draft
  }

  function enqueue(call: (evaluator: Remote<EvaluatorService>) => Promise<Update>): Promise<void> {
    const run = async (): Promise<void> => {
      const timer = setTimeout(() => (slow.value = suspect !== null), PATIENCE)
      const stopped = new Promise<null>((done) => (stopRunning = () => done(null)))
      try {
        const update = await Promise.race([call(remote()), stopped])
        if (update) take(update)
      } finally {
        clearTimeout(timer)
        stopRunning = null
        slow.value = false
        progress.value = null
      }
    }
    queue = queue.then(run, run)
    return queue
  }

  function load(lines: readonly Line[], settings: Conventions): Promise<void> {
    views.clear()
    held.clear()
    told.clear()
    draft.value = null
    order.value = lines.map((l) => l.id)
    for (const line of lines) told.set(line.id, line.source)
    conventions = { ...settings }
    suspect = null
    return start()
  }

  /** Tells the worker, a fresh one perhaps, the whole folio. */
  function start(): Promise<void> {
    return enqueue((evaluator) => {
      const lines = order.value.map((id) => ({ id, source: told.get(id) ?? '' }))
      return conventions
        ? evaluator.load(lines, conventions, [...held], { ...watched })
        : Promise.resolve({ views: [], draft: null })
    })
  }

  function apply(edits: Edits): Promise<void> {
    if (edits.order) {
      order.value = edits.order
      const kept = new Set(edits.order)
      for (const id of [...views.keys()]) if (!kept.has(id)) views.delete(id)
    }
    for (const { id, source } of edits.sources ?? []) told.set(id, source)
    conventions = edits.conventions ?? conventions
    return enqueue((evaluator) => {
      suspect = edits.sources?.at(-1) ?? suspect
      return evaluator.apply(edits)
    })
  }

  /** What is shown beyond the lines themselves: terms of sums, points of sweeps, the point that is read along. */
  let watched: Watched = { chains: [], sweeps: [], along: null }
  function watchAlso(change: Partial<Watched>): Promise<void> {
    watched = { ...watched, ...change }
    return enqueue((evaluator) => evaluator.apply(change))
  }

  /** Rows of the table of a sweep. */
  async function sweepRows(id: string, from: number, count: number): Promise<SweepRows | null> {
    await queue
    return remote().sweepRows(id, from, count)
  }

  /** Evaluates an entry while it is typed or dragged; only the newest text counts. */
  function type(id: string, source: string): Promise<void> {
    unsettled.value = true
    waitingDraft = { id, source }
    // A text that is being reckoned for long already is out of date now.
    if (slow.value && suspect?.id === id) restart()
    if (draftQueued) return queue
    draftQueued = true
    return enqueue((evaluator) => {
      draftQueued = false
      const newest = waitingDraft ?? { id, source }
      waitingDraft = null
      suspect = newest
      return evaluator.type(newest.id, newest.source)
    })
  }

  function settle(): Promise<void> {
    unsettled.value = false
    waitingDraft = null
    return enqueue((evaluator) => evaluator.settle())
  }

  /** Ends a calculation that takes too long; its line is held back, the rest goes on. */
  function stop(): void {
    if (suspect === null) return
    held.set(suspect.id, suspect.source)
    waitingDraft = null
    restart()
  }

  /** Ends the worker and has another one begin where the page is. */
  function restart(): void {
    end()
    stopRunning?.()
    void start()
  }

  /** Reckons a line again that was stopped. */
  function release(id: string): Promise<void> {
    suspect = { id, source: held.get(id) ?? '' }
    held.delete(id)
    return enqueue((evaluator) => evaluator.release(id))
  }

  /** The value of a line as text to copy, once everything before is reckoned. */
  async function copyText(id: string, form: CopyForm): Promise<string | null> {
    await queue
    return remote().copyText(id, form)
  }

  /** The matrix of a line with its exact entries, for the reduction bench. */
  async function exactMatrix(id: string): Promise<ExactMatrix | null> {
    await queue
    return remote().exactMatrix(id)
  }

  function end(): void {
    worker?.terminate()
    worker = null
    service = null
  }

  function close(): void {
    end()
    stopRunning?.()
    queue = Promise.resolve()
    draftQueued = false
    waitingDraft = null
    views.clear()
    held.clear()
  }

  const unitDependent = computed(() => order.value.filter((id) => views.get(id)?.unitDependent))

  return {
    views,
    draft,
    order,
    slow,
    progress,
    unsettled,
    held,
    unitDependent,
    load,
    apply,
    watchAlso,
    sweepRows,
    type,
    settle,
    stop,
    release,
    copyText,
    exactMatrix,
    close,
  }
})
