import { wrap } from 'comlink'
import type { Remote } from 'comlink'
import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef } from 'vue'
import { z } from '#shared/schema'
import type { AngleUnit } from '#core/values/convert'
import type { Conventions } from '#core/format/conventions'
import type { CopyForm } from '#core/kinds/kind'
import { answerPlace } from '#core/views/answerIds'
import type { LineView, ShownProblem } from '#core/views/lineView'
import type { Example } from '#core/signatures/definition'
import type { Chain } from '#core/working/chain'
import type { WorkingView } from '#core/working/view'
import type { SolvedDetail } from '#core/views/solvedDetails'
import type { BenchStart } from '#core/views/bench'
import { sentence } from '#core/sentences/sentences'
import type { Line } from '#shared/folio'
import type { SweepRows } from '#core/kinds/sweep'
import { changeStore, recordAt } from '~/keeping/browserStore'
import { createShownViews } from './shownViews'
import { CallQueue } from '../workers/calls'
import type { Typed } from '../workers/calls'
import type { Data } from '#core/measured/data'
import type { Fault } from '#core/exchange/told'
import type { NumberFile, NumberFormat, ValueOptions } from '#core/exchange/writeValue'
import type { Enclosure } from '#shared/enclosure'
import type { Edits, Enclosed, EvaluatorService, Placed, Update, Watched, WorkingAsked } from '~/workers/evaluator'

/** How long a calculation may take before it is offered to be stopped, in milliseconds. */
const PATIENCE = 700
/** A line that has its turn makes way for what is typed once it has run so long. */
const MAKES_WAY = 1_000
/** How long the student must rest before a line that takes long has its turn. */
const TURN_REST = 300

/** What is said of a line that was stopped. */
const STOPPED: ShownProblem = {
  code: 'stopped',
  message: sentence({ code: 'stopped', data: {} }),
  from: 0,
  to: 0,
  at: { from: 0, to: 0 },
  fixes: [],
  unfinished: false,
  elsewhere: null,
}

const heldSchema = z.array(z.tuple([z.string(), z.string()]))
const heldKey = (folio: string): string => `held:${folio}`

/** What every line came to, as the worker tells it. */
export const useResultsStore = defineStore('results', () => {
  const shown = createShownViews(() => typed?.id ?? null)
  const { views, families } = shown
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

  /** Lines that take long and wait for their turn; the first of them may be at it. */
  const postponed = shallowRef<readonly string[]>([])
  /** Where the typed value that is read along was found. */
  const placed = shallowRef<Placed | null>(null)
  /** The line that has its turn. */
  const running = ref<string | null>(null)
  let runningSince = 0
  let turnTimer: ReturnType<typeof setTimeout> | null = null
  let folioId = ''

  /** The folio as it was last told to the worker, to start another one from. */
  const told = shallowReactive(new Map<string, string>())
  let conventions: Conventions | null = null
  /** Measured data that the folio has, by name; without its numbers while they are on their way. */
  const enclosed = shallowReactive(new Map<string, Enclosed>())
  /** The line whose change is being reckoned, and its text. */
  let suspect: Typed | null = null

  let worker: Worker | null = null
  let service: Remote<EvaluatorService> | null = null
  let stopRunning: (() => void) | null = null
  let queue = new CallQueue()
  /** The draft that the worker reckons with. */
  let typed: Typed | null = null

  function remote(): Remote<EvaluatorService> {
    if (service) return service
    worker = new Worker(new URL('../workers/evaluator.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', ({ data }: MessageEvent<{ progress?: number; line?: string }>) => {
      if (typeof data.progress === 'number') progress.value = data.progress
      // Stopping stops the line that is reckoned, whichever was edited.
      if (typeof data.line === 'string') suspect = { id: data.line, source: sourceOf(data.line) }
    })
    service = wrap<EvaluatorService>(worker)
    return service
  }

  /** The text of a line as the worker has it: what is typed in its place, or its own. */
  function sourceOf(id: string): string {
    return typed?.id === id ? typed.source : (told.get(id) ?? '')
  }

  function take(update: Update): void {
    // A line may have gone while it was reckoned.
    shown.put({ ...update, views: update.views.filter(({ id }) => told.has(id)) }, !unsettled.value)
    draft.value = update.draft
    postponed.value = update.postponed
    placed.value = update.placed
    planTurn()
    lookLater()
  }

  /** The line that is typed, dragged or slid, in this tab or in the one that writes: another text stands in its place. */
  const inHand = ref<string | null>(null)
  /** Whether what is shown of a line is of the text that it has, or of one that is just tried in its place. */
  function isOfItsText(id: string): boolean {
    return inHand.value === id || views.get(id)?.source === told.get(id)
  }

  /** Texts that were asked for again, by line: a worker that does not tell them then never will. */
  const askedAgain = new Map<string, string>()
  let looks = false
  /** Once everything is answered and shown, every line must have a view of its text. */
  function lookLater(): void {
    if (looks) return
    looks = true
    const asked = queue.answered
    void asked.then(() => {
      looks = false
      // More has been asked for meanwhile: what comes of it is looked at.
      if (asked !== queue.answered) return lookLater()
      if (unsettled.value || service === null) return
      const missing = order.value.flatMap((id) => {
        const source = told.get(id)
        return source === undefined || isOfItsText(id) || askedAgain.get(id) === source ? [] : [{ id, source }]
      })
      if (missing.length === 0) return
      for (const { id, source } of missing) askedAgain.set(id, source)
      void enqueue((evaluator) => evaluator.again(missing))
    })
  }

  /** Lines that take long have their turns one after another, while nothing is typed. */
  function planTurn(): void {
    if (turnTimer !== null) clearTimeout(turnTimer)
    turnTimer = postponed.value.length === 0 ? null : setTimeout(giveTurn, TURN_REST)
  }

  function giveTurn(): void {
    turnTimer = null
    const [next] = postponed.value
    if (next === undefined || running.value !== null) return
    if (unsettled.value) return planTurn()
    running.value = next
    runningSince = Date.now()
    void enqueue((evaluator) => {
      suspect = { id: next, source: sourceOf(next) }
      return evaluator.giveTurn(next)
    }).finally(() => {
      if (running.value === next) running.value = null
      if (wayTimer !== null) clearTimeout(wayTimer)
      planTurn()
    })
  }

  /** What is typed does not wait for a line that takes long: that begins anew when its turn comes again. */
  function makeWay(): void {
    if (running.value === null) return
    const left = runningSince + MAKES_WAY - Date.now()
    if (wayTimer !== null) clearTimeout(wayTimer)
    wayTimer = left > 0 ? setTimeout(makeWay, left) : null
    if (left > 0) return
    running.value = null
    restart()
  }
  let wayTimer: ReturnType<typeof setTimeout> | null = null

  function enqueue(call: (evaluator: Remote<EvaluatorService>) => Promise<Update>): Promise<void> {
    return queue.call(() => answerOf(call))
  }

  async function answerOf(call: (evaluator: Remote<EvaluatorService>) => Promise<Update>): Promise<void> {
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

  function load(
    lines: readonly Line[],
    settings: Conventions,
    folio = '',
    enclosures: readonly Enclosure[] = [],
  ): Promise<void> {
    // What is known of them already, from before another tab handed over, is known still.
    for (const [name, { block }] of enclosed)
      if (!enclosures.some((e) => e.name === name && e.block === block)) enclosed.delete(name)
    for (const { name, block } of enclosures)
      if (!enclosed.has(name)) enclosed.set(name, { block, data: null, lost: false })
    shown.clear()
    held.clear()
    told.clear()
    askedAgain.clear()
    postponed.value = []
    folioId = folio

    draft.value = null
    order.value = lines.map((l) => l.id)
    for (const line of lines) told.set(line.id, line.source)
    conventions = { ...settings }
    suspect = null
    const before = folio === '' ? Promise.resolve(undefined) : recordAt(heldKey(folio))
    return enqueue(async (evaluator) => {
      // A line that was stopped stays so over a reload, until it is edited or asked for.
      const list = heldSchema.safeParse(await before)
      if (folioId === folio) for (const [id, source] of list.data ?? []) held.set(id, source)
      return loadInto(evaluator)
    })
  }

  /** Tells the worker, a fresh one perhaps, the whole folio. */
  function start(): Promise<void> {
    return enqueue(loadInto)
  }

  function loadInto(evaluator: Remote<EvaluatorService>): Promise<Update> {
    const lines = order.value.map((id) => ({ id, source: told.get(id) ?? '' }))
    return conventions
      ? evaluator.load(lines, conventions, [...held], { ...watched }, [...enclosed])
      : Promise.resolve({ views: [], draft: null, postponed: [], placed: null, families: null })
  }

  function apply(edits: Edits): Promise<void> {
    makeWay()
    shown.flush()
    if (edits.order) {
      order.value = edits.order
      const kept = new Set(edits.order)
      for (const id of [...told.keys()]) if (!kept.has(id)) told.delete(id)
      shown.keepOnly((id) => kept.has(id) || kept.has(answerPlace(id)?.line ?? ''))
    }
    for (const { id, source } of edits.sources ?? []) told.set(id, source)
    conventions = edits.conventions ?? conventions
    return enqueue((evaluator) => {
      if (typed && edits.sources?.some((line) => line.id === typed?.id)) typed = null
      suspect = edits.sources?.at(-1) ?? suspect
      return evaluator.apply(edits)
    })
  }

  /** What is shown beyond the lines themselves: terms of sums, points of sweeps, the point that is read along. */
  let watched: Watched = { chains: [], sweeps: [], along: null, families: [] }
  function watchAlso(change: Partial<Watched>): Promise<void> {
    watched = { ...watched, ...change }
    return enqueue((evaluator) => evaluator.apply(change))
  }

  /** Measured data comes, or is announced, or cannot be had. */
  function enclose(name: string, block: string, data: Data | null, lost = false): Promise<void> {
    const known = enclosed.get(name)
    if (known?.block === block && known.data !== null && data === null) return queue.answered
    enclosed.set(name, { block, data, lost })
    return enqueue((evaluator) => evaluator.enclose(name, { block, data, lost }))
  }

  function unenclose(name: string): Promise<void> {
    enclosed.delete(name)
    return enqueue((evaluator) => evaluator.unenclose(name))
  }

  /** A value of a line, or all kept numbers, as a file. */
  async function numberFile(
    id: string | null,
    format: NumberFormat,
    options: ValueOptions,
  ): Promise<NumberFile | Fault> {
    await queue.answered
    return remote().numberFile(id, format, options)
  }

  /** Rows of the table of a sweep. */
  async function sweepRows(id: string, from: number, count: number): Promise<SweepRows | null> {
    await queue.answered
    return remote().sweepRows(id, from, count)
  }

  /** Evaluates an entry while it is typed or dragged; only the newest text counts. */
  function type(id: string, source: string): Promise<void> {
    unsettled.value = true
    inHand.value = id
    makeWay()
    // A text that is being reckoned for long already is out of date now.
    if (slow.value && suspect?.id === id) restart()
    return queue.type({ id, source }, (newest) =>
      answerOf((evaluator) => {
        suspect = newest
        typed = newest
        return evaluator.type(newest.id, newest.source)
      }).then(() => shown.shown()),
    )
  }

  function settle(): Promise<void> {
    unsettled.value = false
    inHand.value = null
    shown.flush()
    queue.dropTyped()
    return enqueue((evaluator) => {
      typed = null
      return evaluator.settle()
    })
  }

  /** Ends a calculation that takes too long; its line is held back, the rest goes on. */
  function stop(): void {
    if (suspect === null) return
    held.set(suspect.id, suspect.source)
    keepHeld()
    running.value = null
    queue.dropTyped()
    restart()
  }

  /** Stops one line, whether it has its turn or waits for it. */
  function stopLine(id: string): void {
    const source = sourceOf(id)
    if (running.value === id) {
      suspect = { id, source }
      return stop()
    }
    held.set(id, source)
    keepHeld()
    // Shown at once: the worker hears of it only when the line that has its turn is done.
    postponed.value = postponed.value.filter((other) => other !== id)
    shown.flush()
    const view = views.get(id)
    if (view) shown.show({ ...view, source, kind: 'error', problem: STOPPED })
    void enqueue((evaluator) => evaluator.hold(id, source))
  }

  function keepHeld(): void {
    if (folioId !== '') void changeStore({ put: [[heldKey(folioId), [...held]]] })
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
    keepHeld()
    return enqueue((evaluator) => evaluator.release(id))
  }

  /** Resolves once what is shown is what all that was asked for so far came to; a line that takes long is not waited for. */
  async function caughtUp(): Promise<void> {
    await Promise.race([queue.answered, new Promise((done) => setTimeout(done, MAKES_WAY))])
    shown.flush()
  }

  /** The value of a line as text to copy, once everything before is reckoned. */
  async function copyText(id: string, form: CopyForm): Promise<string | null> {
    await queue.answered
    return remote().copyText(id, form)
  }

  /** Lines with the unit written in, each under its own, once everything before is reckoned. */
  async function stamped(units: ReadonlyMap<string, AngleUnit>): Promise<ReadonlyMap<string, string | null>> {
    await queue.answered
    return remote().stamped(units)
  }

  /** What lines would say under another unit of bare angles, once everything before is reckoned. */
  async function viewsUnder(angle: AngleUnit, ids: readonly string[]): Promise<readonly LineView[]> {
    await queue.answered
    return remote().viewsUnder(angle, ids)
  }

  /** What of a line can be reduced on the bench; a sentence where nothing can. */
  async function bench(id: string): Promise<BenchStart | string> {
    await queue.answered
    return remote().bench(id)
  }

  /** What is to be known of how a line solved its equations. */
  async function solvedDetails(id: string): Promise<readonly SolvedDetail[]> {
    await queue.answered
    return remote().solvedDetails(id)
  }

  /** The working of a line, or of an example of the handbook; a sentence where there is none. */
  async function working(of: string | Example, asked: WorkingAsked): Promise<WorkingView | string> {
    await queue.answered
    return typeof of === 'string' ? remote().working(of, asked) : remote().workingOfExample(of, asked)
  }

  /** A student's own working, checked link by link in the place of a line. */
  async function checkedChain(id: string, lines: readonly string[]): Promise<Chain> {
    await queue.answered
    return remote().checkChain(id, lines)
  }

  function end(): void {
    worker?.terminate()
    worker = null
    service = null
  }

  function close(): void {
    end()
    if (turnTimer !== null) clearTimeout(turnTimer)
    if (wayTimer !== null) clearTimeout(wayTimer)
    turnTimer = null
    wayTimer = null
    running.value = null
    typed = null
    inHand.value = null
    unsettled.value = false
    postponed.value = []
    folioId = ''
    stopRunning?.()
    queue = new CallQueue()
    shown.clear()
    held.clear()
    enclosed.clear()
  }

  const unitDependent = computed(() => order.value.filter((id) => views.get(id)?.unitDependent))

  return {
    views,
    families,
    draft,
    order,
    slow,
    progress,
    unsettled,
    held,
    enclosed,
    postponed,
    placed,
    running,
    unitDependent,
    isOfItsText,
    caughtUp,
    load,
    apply,
    watchAlso,
    enclose,
    unenclose,
    numberFile,
    sweepRows,
    type,
    settle,
    stop,
    stopLine,
    release,
    copyText,
    stamped,
    viewsUnder,
    bench,
    solvedDetails,
    working,
    checkedChain,
    close,
  }
})
