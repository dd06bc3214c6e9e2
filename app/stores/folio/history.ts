import { answerPlace } from '#core/views/answerIds'
import { computed, ref, shallowRef } from 'vue'
import { applyOperation, invertOperation, stillStands } from '#shared/operations'
import type { FolioState, Operation } from '#shared/operations'
import { ownTitle } from '#shared/folioTitle'
import { fullSentence } from '~/keeping/saving'
import { STEPS_MOST } from '~/keeping/steps'
import type { Step } from '~/keeping/steps'
import { useResultsStore } from '../results'
import { entryOf } from './document'
import type { FolioDocument, Links } from './document'

/** Every change of the open folio: an operation with its inverse, steps that are taken back and done again. */
export function createHistory(doc: FolioDocument, links: Links) {
  const { notice, state, saver, current, lines, writable, tucked, indexOf, lineOf, clearSelection } = doc
  const results = useResultsStore()
  const undoSteps = shallowRef<readonly Step[]>([])
  const redoSteps = shallowRef<readonly Step[]>([])
  /** Texts that were entered since the folio was opened, newest last. */
  const entered = shallowRef<readonly string[]>([])
  /** True once the evaluator has the folio: from then on it is told of every change. */
  const evaluated = ref(false)
  const canUndo = computed(() => undoSteps.value.length > 0 && writable.value)
  const canRedo = computed(() => redoSteps.value.length > 0 && writable.value)

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
    links.tabs?.tellState(next)
    if (evaluated.value) sendToResults(done)
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
    const before = state.value
    const { done, inverse } = apply(operations)
    if (done.length === 0) return done
    const named = apply(naming(before))
    done.push(...named.done)
    inverse.unshift(...named.inverse)
    remember(done)
    const step: Step = { label, operations: done, inverse, line, ...(group === undefined ? {} : { group }) }
    undoSteps.value = [...undoSteps.value.slice(-(STEPS_MOST - 1)), step]
    redoSteps.value = []
    keepSteps()
    return done
  }

  /** A folio that nobody has given a title is called after its first heading or line, and follows it. */
  function naming(before: FolioState): readonly Operation[] {
    if (before.title !== state.value.title || before.title !== ownTitle(before.lines)) return []
    const title = ownTitle(state.value.lines)
    return title === before.title ? [] : [{ type: 'rename', title }]
  }

  function remember(done: readonly Operation[]): void {
    const texts = done.flatMap((o) => (o.type === 'edit' ? [o.source] : o.type === 'insert' ? [o.line.source] : []))
    const fresh = texts.filter((t) => t.trim() !== '')
    if (fresh.length > 0) entered.value = [...entered.value.slice(-STEPS_MOST), ...fresh]
  }

  function keepSteps(): void {
    links.keeper?.keep({ undo: [...undoSteps.value], redo: [...redoSteps.value] })
  }

  function undo(): void {
    const step = undoSteps.value.at(-1)
    if (!step || !writable.value) return
    undoSteps.value = undoSteps.value.slice(0, -1)
    takeBack(step, step.inverse, step.operations)
    redoSteps.value = [...redoSteps.value, step]
    keepSteps()
    if (step.group !== undefined && undoSteps.value.at(-1)?.group === step.group) undo()
  }

  function redo(): void {
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

  /** Brings a line into sight and makes it the current one. */
  function reveal(id: string): void {
    // What equations were solved for is shown by their line.
    const lineId = lineOf(id) ? id : (answerPlace(id)?.line ?? id)
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

  /** Forgets every step and text: another folio is opened, or another tab writes. */
  function forget(): void {
    undoSteps.value = []
    redoSteps.value = []
  }

  return {
    undoSteps, redoSteps, entered, evaluated, canUndo, canRedo, perform, undo, redo, reveal, forget,
  } // prettier-ignore
}

export type FolioHistory = ReturnType<typeof createHistory>
