import { wrap } from 'comlink'
import type { Remote } from 'comlink'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { valueText, withValue } from '#core/notation/valuePart'
import type { RunsAccount, RunsTask } from '#core/views/runs'
import { newId } from '#shared/id'
import type { Line } from '#shared/folio'
import type { Operation } from '#shared/operations'
import { RUN_SETS_MOST, SET_NAME_MAX, setName, VARIED_MOST, withEntry } from '#shared/runs'
import type { RunSet } from '#shared/runs'
import type { RunsService } from '~/workers/runs'
import { useDeskStore } from './desk'
import { useFolioStore } from './folio'
import { entryOf } from './folio/document'
import { useResultsStore } from './results'

/** A change that comes while the runs are reckoned so long begins anew at once, in milliseconds. */
const PATIENCE = 1_000

/** The runs of the open folio: which lines are varied and watched, the sets of values, and what comes of them. */
export const useRunsStore = defineStore('runs', () => {
  const folio = useFolioStore()
  const results = useResultsStore()
  const desk = useDeskStore()

  const canRun = (line: Line): boolean => !line.note && line.source.trim() !== ''
  const varied = computed(() => folio.lines.filter((line) => line.varied && canRun(line)))
  const watched = computed(() => folio.lines.filter((line) => line.watched && canRun(line)))
  const sets = computed(() => folio.sets)
  /** True where there is something to compare. */
  const any = computed(() => varied.value.length + watched.value.length > 0)
  const room = computed(() => sets.value.length < RUN_SETS_MOST)

  // What is marked, and the values of the sets.

  /** Varies or watches a line, or takes it out of the runs. */
  function mark(id: string, as: 'varied' | 'watched' | null): void {
    const line = folio.lineOf(id)
    if (!line || !canRun(line)) return
    if (as === 'varied' && !line.varied && varied.value.length >= VARIED_MOST) {
      folio.tell(`At most ${VARIED_MOST} lines are varied.`)
      return
    }
    const label = as === 'varied' ? 'vary in runs' : as === 'watched' ? 'watch in runs' : 'take out of the runs'
    folio.perform(label, [{ type: 'mark', id, marks: { varied: as === 'varied', watched: as === 'watched' } }], id)
  }

  /** What is typed in a line is kept before its value is changed from here. */
  function keepOpen(): void {
    if (folio.editing) folio.keep()
  }

  function put(label: string, set: RunSet): void {
    folio.perform(label, [{ type: 'set', set }])
  }

  /** A letter that no set is called by. */
  function freeLetter(): string {
    const taken = new Set(sets.value.map(setName))
    for (let k = 0; ; k += 1) {
      const name = `Set ${String.fromCharCode(65 + k)}`
      if (!taken.has(name)) return name
    }
  }

  /** A new set: without values of its own, with those that the folio has, or with those of another set. */
  function add(like: 'folio' | RunSet | null = null): void {
    const own = () => Object.fromEntries(varied.value.map((line) => [line.id, valueText(line.source)]))
    const values = like === null ? {} : like === 'folio' ? own() : like.values
    put('new set of values', { id: newId(), name: freeLetter(), values })
  }

  function rename(set: RunSet, name: string): void {
    if (name.trim() !== set.name) put('name a set', { ...set, name: name.trim().slice(0, SET_NAME_MAX) })
  }

  function remove(set: RunSet): void {
    folio.perform('take a set of values away', [{ type: 'unset', id: set.id }])
  }

  /** Other values of lines, in sets or (without one) in the folio itself, as one step. */
  function enterMany(
    entries: readonly { readonly line: Line; readonly set: RunSet | null; readonly entry: string }[],
  ): void {
    keepOpen()
    const changed = new Map<string, RunSet>()
    const operations: Operation[] = []
    for (const { line, set, entry } of entries) {
      if (set) {
        const before = changed.get(set.id) ?? set
        if (entry.trim() !== (before.values[line.id] ?? '')) changed.set(set.id, withEntry(before, line.id, entry))
      } else if (entry.trim() !== '') operations.push(...edited(folio.lineOf(line.id) ?? line, entry))
    }
    for (const set of changed.values()) operations.push({ type: 'set', set })
    if (operations.length > 0) folio.perform(operations.length === 1 ? 'value of a set' : 'values of sets', operations)
  }

  const enter = (line: Line, set: RunSet | null, entry: string): void => enterMany([{ line, set, entry }])

  /** What gives a line of the folio another value. */
  function edited(line: Line, entry: string): Operation[] {
    const source = withValue(line.source, entry)
    return source === line.source ? [] : [{ type: 'edit', id: line.id, source, was: line.source }]
  }

  /** The values of a set become those of the folio, as one step. */
  function take(set: RunSet): void {
    keepOpen()
    const edits = varied.value.flatMap((line) => {
      const entry = set.values[line.id]
      return entry === undefined ? [] : edited(line, entry)
    })
    if (folio.perform(`values of ${set.name}`, edits).length === 0) folio.tell('The folio has these values already.')
  }

  // What comes of them: reckoned beside the page, while somebody looks.

  const account = shallowRef<RunsAccount | null>(null)
  /** What the columns of the account are called: it may be of a moment before. */
  const columnNames = computed<readonly string[]>(() =>
    (account.value?.columns ?? []).map((id) => {
      const place = sets.value.findIndex((set) => set.id === id)
      const set = sets.value[place]
      return id === '' ? 'Folio' : set ? setName(set, place) : 'a set that is gone'
    }),
  )
  const reckoning = ref(false)
  /** Why there is no account, where the worker came to grief. */
  const failed = ref('')
  const seen = computed(() => (desk.leaf === 'runs' || desk.sheetOpen) && any.value)
  const task = computed<RunsTask>(() => ({
    // A line that was stopped stays so here.
    lines: folio.lines.map((line) => {
      const source = entryOf(line)
      return { id: line.id, source: results.held.get(line.id) === source ? '' : source }
    }),
    varied: varied.value.map((line) => line.id),
    watched: watched.value.map((line) => line.id),
    sets: sets.value.map(({ id, values }) => ({ id, values })),
  }))

  let worker: Worker | null = null
  let service: Remote<RunsService> | null = null
  let knowsData = false
  let since = 0
  let turn = 0
  let again: ReturnType<typeof setTimeout> | null = null

  function remote(): Remote<RunsService> {
    if (service) return service
    worker = new Worker(new URL('../workers/runs.worker.ts', import.meta.url), { type: 'module' })
    service = wrap<RunsService>(worker)
    knowsData = false
    return service
  }

  function end(): void {
    turn += 1
    if (again !== null) clearTimeout(again)
    again = null
    worker?.terminate()
    worker = null
    service = null
    reckoning.value = false
  }

  function goOn(): void {
    again = null
    if (reckoning.value) void reckon()
  }

  async function reckon(): Promise<void> {
    if (reckoning.value) {
      // The newest is reckoned next; what takes long makes way for it.
      const left = since + PATIENCE - Date.now()
      if (left > 0) return void (again ??= setTimeout(goOn, left))
      end()
    }
    const mine = (turn += 1)
    reckoning.value = true
    try {
      const reckoner = remote()
      for (;;) {
        since = Date.now()
        if (!knowsData) await reckoner.enclose([...results.enclosed])
        knowsData = true
        const [now, conventions] = [task.value, folio.conventions]
        const found = await reckoner.reckon(now, { ...conventions })
        if (mine !== turn) return
        account.value = found
        failed.value = ''
        if (now === task.value && conventions === folio.conventions && knowsData) break
      }
    } catch (error) {
      if (mine !== turn) return
      failed.value = error instanceof Error ? error.message : 'The runs could not be reckoned.'
      end()
    }
    reckoning.value = false
  }

  watch(
    // Nothing is gathered while nobody looks.
    [seen, () => (seen.value ? task.value : null), () => folio.conventions],
    ([now]) => {
      if (now) return void reckon()
      end()
      if (!any.value) account.value = null
    },
    { immediate: true },
  )
  watch(
    () => [...results.enclosed.values()],
    () => {
      knowsData = false
      if (seen.value) void reckon()
    },
  )
  // Another folio has another account.
  watch(
    () => folio.id,
    () => {
      end()
      account.value = null
    },
  )

  return {
    varied,
    watched,
    sets,
    any,
    room,
    account,
    columnNames,
    reckoning,
    failed,
    canRun,
    mark,
    add,
    rename,
    remove,
    enter,
    enterMany,
    take,
  }
})
