import { computed, onScopeDispose, ref, watch } from 'vue'
import { isPending } from '#core/sentences/sentences'
import type { LineView, ShownProblem } from '#core/views/lineView'
import type { Line } from '#shared/folio'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'
import { useSilenceStore } from '~/stores/silence'

/** How long typing must rest before an error is spoken of, in milliseconds. */
export const PATIENCE = 800
/** How long a line may have the view of another text before it is said to wait, in milliseconds. */
const REST = 300
/** The same nothing each time: a row without hints has nothing to draw anew. */
const NO_HINTS: readonly ShownProblem[] = []

/** A line whose error is the cause of another's. */
export interface Cause {
  readonly id: string
  /** Counted from 0. */
  readonly index: number
  /** Where its own error is. */
  readonly place: { readonly from: number; readonly to: number } | null
}

/** What is said of a line and when: errors of what is kept at once, of what is typed after a rest; hints of kept lines. */
export function useLineWords(line: () => Line) {
  const folio = useFolioStore()
  const results = useResultsStore()
  const silence = useSilenceStore()

  const editing = computed(() => folio.editing?.id === line().id)
  /** What is known is of another text than the line has, and that for a while: it is not shown. */
  const awaits = ref(false)
  let restTimer: ReturnType<typeof setTimeout> | undefined
  watch(
    () => !editing.value && !results.isOfItsText(line().id),
    (another) => {
      clearTimeout(restTimer)
      if (another) restTimer = setTimeout(() => (awaits.value = true), REST)
      else awaits.value = false
    },
    { immediate: true },
  )
  const view = computed<LineView | null>(() => (awaits.value ? null : (results.views.get(line().id) ?? null)))
  /** What is typed, as far as it has been reckoned. */
  const draft = computed(() => (editing.value && results.draft?.id === line().id ? results.draft : null))

  const due = ref(false)
  let timer: ReturnType<typeof setTimeout> | null = null
  const rest = (): void => {
    if (timer !== null) clearTimeout(timer)
  }
  watch(
    () => (editing.value ? `${draft.value?.problem?.code} ${folio.text}` : null),
    () => {
      due.value = false
      rest()
      if (draft.value?.problem) timer = setTimeout(() => (due.value = true), PATIENCE)
    },
  )
  onScopeDispose(() => {
    rest()
    clearTimeout(restTimer)
  })

  /** The error of a line that is kept. */
  const keptProblem = computed(() => (editing.value ? null : (view.value?.problem ?? null)))
  const shownProblem = computed<ShownProblem | null>(() => {
    if (!editing.value) return keptProblem.value
    const found = draft.value?.problem ?? null
    return found && due.value && !found.unfinished ? found : null
  })
  /** What an unfinished entry waits for. */
  const waiting = computed(() => (draft.value?.problem?.unfinished ? draft.value.problem : null))
  /** The result that is shown is from before this edit. */
  const stale = computed(
    () => editing.value && draft.value !== null && view.value?.readout.shape !== 'none' && view.value?.problem === null,
  )
  const hints = computed<readonly ShownProblem[]>(() => {
    const told = editing.value ? NO_HINTS : (view.value?.hints ?? NO_HINTS)
    const shown = told.filter((h) => !silence.isSilent(folio.id, line().id, h.code))
    return shown.length === 0 ? NO_HINTS : shown
  })
  /** The line was stopped, and can be run again. */
  const held = computed(() => results.held.get(line().id) === line().source && results.held.has(line().id))
  /** The kept text before, at and behind the place of its error; `null` where no place is at fault. */
  const marked = computed(() => {
    const { source } = line()
    const problem = keptProblem.value
    if (!problem || isPending(problem.code) || problem.code === 'stopped') return null
    const { from, to } = problem.at
    return { before: source.slice(0, from), at: source.slice(from, to), after: source.slice(to) }
  })

  /** The line at which the error has its cause: at the end of those that wait for one another. */
  const cause = computed(() => {
    let found: Cause | null = null
    let problem = editing.value ? draft.value?.problem : keptProblem.value
    while (problem?.elsewhere && problem.elsewhere - 1 !== found?.index) {
      const index: number = problem.elsewhere - 1
      const at = folio.lines[index]
      if (!at || at.id === line().id) break
      problem = results.views.get(at.id)?.problem ?? null
      found = { id: at.id, index, place: problem?.at ?? null }
    }
    return found
  })
  /** The line of the cause is opened where its own error is. */
  function toCause(): void {
    if (cause.value) folio.edit(cause.value.id, cause.value.place ?? 'end')
  }

  function applyFix({ from, to }: ShownProblem, replacement: string): void {
    const source = editing.value ? folio.text : line().source
    const text = source.slice(0, from) + replacement + source.slice(to)
    if (editing.value) folio.typeOver(text)
    else folio.rewrite(line().id, text, 'fix')
  }
  /** What the first fix of a problem would do; `null` where there is none. */
  function firstFix(problem: ShownProblem | null | undefined): (() => void) | null {
    const fix = problem?.fixes[0]
    return problem && fix ? () => applyFix(problem, fix.replacement) : null
  }
  /** The first fix of what is typed. */
  const draftFix = computed(() => firstFix(draft.value?.problem) ?? (cause.value ? toCause : null))
  /** The first fix of a kept line, by key; where its error comes from another line, the way there. A key that is quicker than the answer waits for it. */
  async function mend(): Promise<void> {
    await results.caughtUp()
    const fix = firstFix(keptProblem.value ?? hints.value[0]) ?? toCause
    fix()
  }

  return {
    editing, awaits, view, draft, keptProblem, shownProblem, waiting, stale, hints, held, marked, cause, toCause, applyFix, draftFix, mend,
  } // prettier-ignore
}
