import { sectionOf } from '~/lines/sections'
import type { FolioDocument } from './document'
import type { FolioEditor } from './editing'

/** Several lines at once, and what an action on one of them is about. */
export function createSelection(doc: FolioDocument, { leave }: FolioEditor) {
  const { current, selected, lines, shownLines } = doc

  /** All lines in sight between the current one and another. */
  function selectTo(lineId: string): void {
    leave()
    const shown = shownLines.value.map((l) => l.id)
    const anchor = anchorOf(shown, lineId)
    const [from, to] = [shown.indexOf(anchor), shown.indexOf(lineId)].sort((a, b) => a - b)
    selected.value = new Set(shown.slice(from, (to ?? 0) + 1))
    current.value = lineId
  }

  /** The end of the selection that stays while the other one moves. */
  function anchorOf(shown: readonly string[], lineId: string): string {
    const chosen = shown.filter((s) => selected.value.has(s))
    const [first, last] = [chosen[0], chosen.at(-1)]
    if (first === undefined || last === undefined) return current.value ?? lineId
    return current.value === first ? last : first
  }

  /** Every line in sight. */
  function selectAll(): void {
    leave()
    selected.value = new Set(shownLines.value.map((l) => l.id))
    current.value = shownLines.value.at(-1)?.id ?? null
  }

  /** One line, with which a selection begins. */
  function selectOne(lineId: string): void {
    leave()
    selected.value = new Set([lineId])
    current.value = lineId
  }

  function toggleSelected(lineId: string): void {
    leave()
    const next = new Set(selected.value.size > 0 || current.value === null ? selected.value : [current.value])
    if (next.has(lineId)) next.delete(lineId)
    else next.add(lineId)
    selected.value = next
    current.value = lineId
  }

  /** What an action on a line is about: the whole selection where the line is in it. */
  function targets(lineId: string): ReadonlySet<string> {
    return selected.value.has(lineId) ? selected.value : new Set([lineId])
  }

  /** The same with what folded headings among them hide. */
  function carried(lineId: string): ReadonlySet<string> {
    const ids = targets(lineId)
    const sections = lines.value.flatMap((l, k) => (ids.has(l.id) && l.folded ? sectionOf(lines.value, k) : []))
    return new Set([...ids, ...sections.map((l) => l.id)])
  }

  return {
    selectTo, selectAll, selectOne, toggleSelected, targets, carried,
  } // prettier-ignore
}

export type FolioSelection = ReturnType<typeof createSelection>
