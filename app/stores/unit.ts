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
  readonly text: string
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
function textOf(view: LineView | undefined): string {
  if (!view) return ''
  return view.problem ? `error: ${view.problem.message}` : readoutText(view.readout)
}

const showsAngle = (view: LineView | undefined, text: string): boolean =>
  view?.kind === 'angle' || /(?:°|"| rad)(?:$|[,\]])/.test(text)

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
    const before = folio.lines.map((line): [string, Before] => [
      line.id,
      { source: line.source, text: textOf(results.views.get(line.id)) },
    ])
    switched.value = { from, before: new Map(before) }
  }

  const changed = computed<readonly ChangedLine[]>(() => {
    const { value } = switched
    if (!value) return []
    return folio.lines.flatMap((line, k): ChangedLine[] => {
      const before = value.before.get(line.id)
      const view = results.views.get(line.id)
      if (!before || before.source !== line.source || line.note) return []
      const after = textOf(view)
      const reads = view?.unitDependent ?? false
      // What only shows an angle in the other unit says the same.
      if (before.text === after || (!reads && showsAngle(view, after))) return []
      return [{ id: line.id, number: k + 1, source: line.source, before: before.text, after, reads }]
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

  return { switched, changed, writtenUnder, write, writeAll, dismiss }
})

function staying(lines: readonly number[]): string {
  const one = lines.length === 1
  const which = one ? `Line ${lines[0]}` : `Lines ${lines.slice(0, -1).join(', ')} and ${lines.at(-1)}`
  return `${which} ${one ? 'stays as it is' : 'stay as they are'}: with the unit written in, ${one ? 'it' : 'they'} would not say the same.`
}
