import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import type { AngleUnit } from '#core/values/convert'
import type { LineView } from '#core/views/lineView'
import { readoutText } from '#core/format/readout'
import type { Operation } from '#shared/operations'
import { useFolioStore } from './folio'
import { useResultsStore } from './results'

/** What a line was when the unit of the folio was switched. */
interface Before {
  readonly source: string
  /** `null` as long as nobody knows: it had no value when the unit was switched. */
  readonly text: string | null
}

/** A line that says something else since the switch. */
export interface ChangedLine {
  readonly id: string
  readonly number: number
  readonly source: string
  readonly before: string
  readonly after: string
  /** It reads bare numbers itself; others only follow from such a line. */
  readonly reads: boolean
}

/** The value in one form, without what the unit only shows: an angle means the same in every unit. */
function textOf(view: LineView): string {
  return view.problem ? `error: ${view.problem.message}` : readoutText(view.readout)
}

const showsAngle = (view: LineView, text: string): boolean =>
  view.kind === 'angle' || /(?:°|"| rad)(?:$|[,\]])/.test(text)

/** The unit of bare angles: what a switch of it changed, and the unit written into lines. */
export const useUnitStore = defineStore('unit', () => {
  const folio = useFolioStore()
  const results = useResultsStore()
  const switched = shallowRef<{ readonly from: AngleUnit; readonly before: ReadonlyMap<string, Before> } | null>(null)

  // At once, so that the results are still those under the unit before.
  watch(
    () => [folio.id, folio.conventions.angle] as const,
    ([id, angle], [idBefore, angleBefore]) => {
      if (id !== idBefore) switched.value = null
      else if (angle !== angleBefore) onSwitch(angle, angleBefore)
    },
    { flush: 'sync' },
  )

  function onSwitch(angle: AngleUnit, from: AngleUnit): void {
    if (switched.value) {
      if (switched.value.from === angle) switched.value = null
      return
    }
    const before = new Map(
      folio.lines.map(({ id, source }): [string, Before] => {
        const view = shownOf(id, source, from)
        return [id, { source, text: view && textOf(view) }]
      }),
    )
    switched.value = { from, before }
    void reckonUnknown()
  }

  /** What is shown of a line, where that is of this text and unit. */
  function shownOf(id: string, source: string, angle: AngleUnit): LineView | null {
    const view = results.views.get(id)
    return view?.source === source && view.angle === angle ? view : null
  }

  /** What was not shown yet when the unit was switched is reckoned as it would have been. */
  async function reckonUnknown(): Promise<void> {
    const { value } = switched
    const unknown = [...(value?.before ?? [])].flatMap(([id, { text }]) => (text === null ? [id] : []))
    if (!value || unknown.length === 0) return
    const views = await results.viewsUnder(value.from, unknown)
    if (switched.value !== value) return
    const found = new Map(views.map((view) => [view.id, view]))
    const before = new Map(value.before)
    for (const id of unknown) {
      const [view, source] = [found.get(id), value.before.get(id)?.source ?? '']
      before.set(id, { source, text: view?.source === source ? textOf(view) : 'not known' })
    }
    switched.value = { from: value.from, before }
  }

  /** Lines that stood when the unit was switched, with what they said then and say now; `null` where that is not known yet. */
  const compared = computed(() => {
    const { value } = switched
    if (!value) return []
    return folio.lines.flatMap((line, k) => {
      const before = value.before.get(line.id)
      if (!before || before.source !== line.source || line.note) return []
      const view = shownOf(line.id, line.source, folio.conventions.angle)
      return [{ line, number: k + 1, before: before.text, view }]
    })
  })
  /** True while some line cannot be compared yet. */
  const comparing = computed(() => compared.value.some(({ before, view }) => before === null || view === null))

  const changed = computed<readonly ChangedLine[]>(() => {
    return compared.value.flatMap(({ line, number, before, view }): ChangedLine[] => {
      if (before === null || view === null) return []
      const after = textOf(view)
      const reads = view.unitDependent
      // What only shows an angle in the other unit says the same.
      if (before === after || (!reads && showsAngle(view, after))) return []
      return [{ id: line.id, number, source: line.source, before, after, reads }]
    })
  })

  /** The unit under which a line was written. */
  function writtenUnder(id: string): AngleUnit {
    const before = switched.value?.before.get(id)
    const same = before !== undefined && before.source === folio.lineOf(id)?.source
    return switched.value && same ? switched.value.from : folio.conventions.angle
  }

  /** Writes the unit into lines under which they were written; says which of them stay as they are. */
  async function write(ids: readonly string[]): Promise<void> {
    if (folio.editing) folio.keep()
    const found = await results.stamped(new Map(ids.map((id) => [id, writtenUnder(id)])))
    const left: number[] = []
    const operations = ids.flatMap((id): Operation[] => {
      const line = folio.lineOf(id)
      const text = found.get(id) ?? null
      if (!line) return []
      if (text === null) left.push(folio.indexOf(id) + 1)
      return text === null || text === line.source ? [] : [{ type: 'edit', id, source: text, was: line.source }]
    })
    folio.perform('write the unit in', operations)
    if (left.length > 0) folio.tell(staying(left))
  }

  const writeAll = (): Promise<void> => write(results.unitDependent)

  function dismiss(): void {
    switched.value = null
  }

  return { switched, changed, comparing, writtenUnder, write, writeAll, dismiss }
})

function staying(lines: readonly number[]): string {
  const one = lines.length === 1
  const which = one ? `Line ${lines[0]}` : `Lines ${lines.slice(0, -1).join(', ')} and ${lines.at(-1)}`
  return `${which} ${one ? 'stays as it is' : 'stay as they are'}: with the unit written in, ${one ? 'it' : 'they'} would not say the same.`
}
