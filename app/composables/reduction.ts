import { computed, ref, shallowRef } from 'vue'
import type { ExactMatrix } from '#core/linear/exact'
import {
  applyRowOperation, determinantFactor, isEchelon, isReduced, leading, nextOperation, solutions,
} from '#core/linear/reduction' // prettier-ignore
import type { RowOperation, Solutions } from '#core/linear/reduction'
import * as G from '#core/numbers/gaussian'
import type { Gaussian } from '#core/numbers/gaussian'

/** A matrix that is reduced by row operations, every state of it kept, and what each state says. */
export function useReduction() {
  const start = shallowRef<ExactMatrix | null>(null)
  const steps = shallowRef<readonly RowOperation[]>([])
  /** Which state is shown: after so many steps. */
  const at = ref(0)
  /** How many of the last columns are right sides. */
  const right = ref(0)

  function begin(matrix: ExactMatrix | null): void {
    start.value = matrix
    steps.value = []
    at.value = 0
    right.value = matrix && matrix.cols > matrix.rows ? matrix.cols - matrix.rows : 0
  }

  const states = computed<readonly ExactMatrix[]>(() => {
    const list: ExactMatrix[] = []
    let state = start.value
    if (!state) return list
    list.push(state)
    for (const step of steps.value) {
      const next: ExactMatrix | null = applyRowOperation(state, step)
      if (!next) break
      list.push(next)
      state = next
    }
    return list
  })
  const state = computed(() => states.value[at.value] ?? null)
  const columns = computed(() => (state.value ? state.value.cols - right.value : 0))
  const pivots = computed(() => {
    const marks = new Set<string>()
    if (state.value) for (const p of leading(state.value, columns.value)) if (p) marks.add(`${p.row},${p.col}`)
    return marks
  })
  const factor = computed<Gaussian>(() =>
    steps.value.slice(0, at.value).reduce<Gaussian>((f, step) => G.multiply(f, determinantFactor(step)) ?? f, G.ONE),
  )
  const square = computed(() => start.value !== null && start.value.rows === columns.value)
  const form = computed(() => {
    if (!state.value) return ''
    if (isReduced(state.value, columns.value)) return 'This is the reduced row echelon form.'
    return isEchelon(state.value, columns.value) ? 'This is a row echelon form.' : ''
  })
  const about = computed(() => {
    if (!state.value || right.value === 0) return ''
    return aboutSolutions(solutions(state.value, columns.value))
  })

  /** Goes on from the state that is shown; false where there is no such operation. */
  function perform(operation: RowOperation): boolean {
    const current = state.value
    if (!current || !applyRowOperation(current, operation)) return false
    steps.value = [...steps.value.slice(0, at.value), operation]
    at.value = steps.value.length
    return true
  }

  function next(full: boolean): boolean {
    const operation = state.value && nextOperation(state.value, columns.value, full)
    return operation ? perform(operation) : false
  }
  function toTheEnd(full: boolean): void {
    for (let k = 0; k < 2_000 && next(full); k += 1);
  }
  const canGoOn = computed(() => state.value !== null && nextOperation(state.value, columns.value, true) !== null)

  return {
    steps, at, right, begin, state, columns, pivots, factor, square, form, about, perform, next, toTheEnd, canGoOn,
  } // prettier-ignore
}

function aboutSolutions(found: Solutions): string {
  switch (found.kind) {
    case 'one':
      return 'There is exactly one solution.'
    case 'many':
      return `There are infinitely many solutions: ${found.free === 1 ? 'one unknown is' : `${found.free} unknowns are`} free.`
    case 'none':
      return `There is no solution: row ${found.row + 1} says that 0 is something else.`
    case 'open':
      return 'What the solutions are shows in the echelon form.'
  }
}
