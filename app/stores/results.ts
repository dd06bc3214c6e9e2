import { wrap } from 'comlink'
import type { Remote } from 'comlink'
import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef } from 'vue'
import type { Conventions } from '#core/format/conventions'
import type { LineView } from '#core/format/lineView'
import { assignSlots } from '#core/scene/scene'
import type { Line } from '#shared/folio'
import type { Edits, EvaluatorService, Update } from '~/workers/evaluator'

/** Values kept under a name stand on the plate; one that is only passing stays in the ledger. */
export function onPlate(view: LineView | undefined): boolean {
  return view !== undefined && view.point !== null && view.name !== null
}

/** What every line came to, as the worker tells it. */
export const useResultsStore = defineStore('results', () => {
  const views = shallowReactive(new Map<string, LineView>())
  /** The problem of an entry that is being typed. */
  const draft = shallowRef<LineView | null>(null)
  const order = shallowRef<readonly string[]>([])
  const slots = shallowRef<ReadonlyMap<string, number>>(new Map())
  const busy = ref(false)

  let worker: Worker | null = null
  let service: Remote<EvaluatorService> | null = null
  /** Calls go one after another; a newer draft takes the place of one still waiting. */
  let queue: Promise<void> = Promise.resolve()
  let waitingDraft: { id: string; source: string } | null = null
  let draftQueued = false

  function remote(): Remote<EvaluatorService> {
    if (service) return service
    worker = new Worker(new URL('../workers/evaluator.worker.ts', import.meta.url), { type: 'module' })
    service = wrap<EvaluatorService>(worker)
    return service
  }

  function take(update: Update): void {
    for (const view of update.views) views.set(view.id, view)
    draft.value = update.draft
    const shown = order.value.filter((id) => onPlate(views.get(id)))
    slots.value = assignSlots(shown, slots.value)
  }

  function enqueue(call: (evaluator: Remote<EvaluatorService>) => Promise<Update>): Promise<void> {
    const run = async (): Promise<void> => {
      busy.value = true
      try {
        take(await call(remote()))
      } finally {
        busy.value = false
      }
    }
    queue = queue.then(run, run)
    return queue
  }

  function load(lines: readonly Line[], conventions: Conventions): Promise<void> {
    views.clear()
    draft.value = null
    slots.value = new Map()
    order.value = lines.map((l) => l.id)
    const plain = lines.map(({ id, source }) => ({ id, source }))
    return enqueue((evaluator) => evaluator.load(plain, { ...conventions }))
  }

  function apply(edits: Edits): Promise<void> {
    if (edits.order) {
      order.value = edits.order
      const kept = new Set(edits.order)
      for (const id of [...views.keys()]) if (!kept.has(id)) views.delete(id)
    }
    return enqueue((evaluator) => evaluator.apply(edits))
  }

  /** Evaluates an entry while it is typed or dragged; only the newest text counts. */
  function type(id: string, source: string): Promise<void> {
    waitingDraft = { id, source }
    if (draftQueued) return queue
    draftQueued = true
    return enqueue((evaluator) => {
      draftQueued = false
      const newest = waitingDraft ?? { id, source }
      waitingDraft = null
      return evaluator.type(newest.id, newest.source)
    })
  }

  function settle(): Promise<void> {
    waitingDraft = null
    return enqueue((evaluator) => evaluator.settle())
  }

  function close(): void {
    worker?.terminate()
    worker = null
    service = null
    queue = Promise.resolve()
    draftQueued = false
    waitingDraft = null
    views.clear()
  }

  const unitDependent = computed(() => order.value.filter((id) => views.get(id)?.unitDependent))

  return { views, draft, order, slots, busy, unitDependent, load, apply, type, settle, close }
})
