import { shallowReactive, shallowRef } from 'vue'
import type { LineView } from '#core/views/lineView'
import { OverFrames } from '~/browser/overFrames'
import type { Family, FamilyMember } from '~/workers/families'

/** What an answer of the worker shows. */
interface Shown {
  readonly views: readonly LineView[]
  /** What plates of families show; `null` where nothing is said of them. */
  readonly families: readonly Family[] | null
}

/** What is shown first under the hand has one place among the frames; each other line has its own. */
const FIRST = ''

/**
 * What every line came to, as it is shown. Under the hand lines are shown over several frames: first the one under
 * it together with the curves, then marks, then the rest. What is still to be shown of a line stands in one place: a newer
 * view takes that of an older one, wherever in the order it was, so that the last that is shown is the last that came.
 */
export function createShownViews(underHand: () => string | null) {
  const views = shallowReactive(new Map<string, LineView>())
  const families = shallowRef<ReadonlyMap<string, readonly FamilyMember[]>>(new Map())
  const frames = new OverFrames<string>()
  const toShow = new Map<string, LineView>()
  /** Lines that are shown in the first place. */
  const first = new Set<string>()
  let familiesToShow: readonly Family[] | null = null

  const isFirst = ({ id, sweep }: LineView): boolean => id === underHand() || sweep !== null
  const isMark = ({ drawn }: LineView): boolean => (drawn?.entries.length ?? 0) > 0

  function show(view: LineView): void {
    // An answer has a view like a line: whatever shows values finds it under its own identifier.
    for (const { id } of views.get(view.id)?.answers ?? []) if (!view.answers.some((a) => a.id === id)) views.delete(id)
    for (const answer of view.answers) views.set(answer.id, answer)
    views.set(view.id, view)
  }

  function showLine(id: string): void {
    const view = toShow.get(id)
    toShow.delete(id)
    if (view) show(view)
  }

  function showFirst(): void {
    for (const id of first) showLine(id)
    first.clear()
    if (familiesToShow) families.value = new Map(familiesToShow.map(({ plate, members }) => [plate, members]))
    familiesToShow = null
  }

  /** Shows what came: at once, or in the order of the frames. */
  function put(came: Shown, atOnce: boolean): void {
    for (const view of came.views) toShow.set(view.id, view)
    familiesToShow = came.families ?? familiesToShow
    for (const view of came.views) if (isFirst(view)) first.add(view.id)
    const rest = came.views.filter((view) => !first.has(view.id))
    const inTurn = [...rest.filter(isMark), ...rest.filter((view) => !isMark(view))]
    frames.put([[FIRST, showFirst], ...inTurn.map(({ id }) => [id, () => showLine(id)] as const)])
    if (atOnce) frames.flush()
  }

  /** Lines that are gone, with their answers, are not shown any more. */
  function keepOnly(isThere: (id: string) => boolean): void {
    for (const id of [...views.keys()]) if (!isThere(id)) views.delete(id)
  }

  function clear(): void {
    frames.drop()
    toShow.clear()
    first.clear()
    familiesToShow = null
    views.clear()
  }

  return { views, families, put, show, keepOnly, clear, flush: () => frames.flush(), shown: () => frames.done }
}
