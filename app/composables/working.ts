import { computed, ref, shallowRef, watch } from 'vue'
import { stepsAt } from '#core/working/write'
import type { StepView, WorkingView } from '#core/working/view'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** Steps that are asked for before all others. */
const AT_FIRST = 12

/** The steps of one operation: its first one says which rule it is. */
export interface Shown {
  readonly step: StepView
  /** Counted from 1. */
  readonly number: number
  /** What stands before is shown where another operation begins. */
  readonly first: boolean
  /** True where steps of its operation are folded away at this depth. */
  readonly folded: boolean
}

/** The working that the desk has open: fetched anew as its line, the conventions or the point read along change. */
export function useWorking() {
  const desk = useDeskStore()
  const folio = useFolioStore()
  const results = useResultsStore()

  const view = shallowRef<WorkingView | null>(null)
  const missing = ref('')
  /** Ways that were chosen, by the operation that they are for. */
  const ways = ref(new Map<number, string>())
  /** Operations that are opened by themselves. */
  const opened = ref(new Set<number>())
  /** How many steps are uncovered; `null` where all are. */
  const uncovered = ref<number | null>(null)

  const line = computed(() => (typeof desk.workingOf === 'string' ? desk.workingOf : null))
  const result = computed(() => (line.value === null ? null : results.views.get(line.value)))

  let asked = 0
  async function fetch(): Promise<void> {
    const of = desk.workingOf
    const mine = (asked += 1)
    if (of === null) {
      view.value = null
      return
    }
    const chosen = { ways: [...ways.value] }
    // What is in sight first comes first: a long working opens at once.
    const found = await results.working(of, { ...chosen, most: AT_FIRST })
    if (mine !== asked) return
    view.value = typeof found === 'string' ? null : found
    missing.value = typeof found === 'string' ? found : ''
    if (typeof found === 'string' || !found.more) return
    const whole = await results.working(of, chosen)
    if (mine === asked && typeof whole !== 'string') view.value = whole
  }

  watch(
    () => desk.workingOf,
    () => {
      // Only what was chosen is forgotten: an empty choice would be asked for anew.
      if (ways.value.size > 0) ways.value = new Map()
      opened.value = new Set()
      if (uncovered.value !== null) uncovered.value = 1
    },
  )
  watch([() => desk.workingOf, result, () => folio.conventions, ways], () => void fetch(), { immediate: true })

  const steps = computed<readonly StepView[]>(() => {
    const shown = view.value
    if (!shown) return []
    const hand = new Set(stepsAt(shown, desk.workingDepth === 'all' ? 'all' : 'hand'))
    return shown.steps.filter((step) => hand.has(step) || opened.value.has(step.operation))
  })

  const list = computed<readonly Shown[]>(() => {
    const all = view.value?.steps ?? []
    const shown = uncovered.value === null ? steps.value : steps.value.slice(0, uncovered.value)
    return shown.map((step, k) => {
      const first = shown[k - 1]?.operation !== step.operation
      const count = (of: readonly StepView[]): number => of.filter((s) => s.operation === step.operation).length
      return { step, number: k + 1, first, folded: first && count(all) > count(steps.value) }
    })
  })

  function choose(operation: number, way: string): void {
    ways.value = new Map([...ways.value, [operation, way]])
  }

  function open(operation: number): void {
    opened.value = new Set([...opened.value, operation])
  }

  return { view, missing, line, list, steps, uncovered, choose, open, ways }
}
