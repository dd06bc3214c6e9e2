import type { Line } from '#shared/folio'
import { isKey } from '~/texts/keys'
import { useFolioStore } from '~/stores/folio'

/** Whether a control can be seen, and used. */
function isShown(control: HTMLElement): boolean {
  return !control.hasAttribute('disabled') && control.getClientRects().length > 0
}

/** Keys on a row that is not being edited, and clicks on its number. */
export function useRowKeys(line: () => Line, number: () => number, mend: () => Promise<void>) {
  const folio = useFolioStore()

  function focusRow(by: 1 | -1): void {
    const next = folio.neighbour(line().id, by)
    if (!next) return
    folio.clearSelection()
    folio.makeCurrent(next.id)
  }

  function selectRow(by: 1 | -1): void {
    const next = folio.neighbour(line().id, by)
    if (next) folio.selectTo(next.id)
  }

  function onKey(event: KeyboardEvent): void {
    const { key, altKey, shiftKey } = event
    const { id, note } = line()
    const by = key === 'ArrowUp' ? -1 : key === 'ArrowDown' ? 1 : 0
    if (isKey(event, 'duplicate')) folio.duplicate(id)
    else if (by !== 0 && altKey) folio.moveBy(id, by)
    else if (by !== 0 && shiftKey) selectRow(by)
    else if (by !== 0) focusRow(by)
    else if (isKey(event, 'remove')) folio.remove(id)
    else if (isKey(event, 'fix')) void mend()
    else if (isKey(event, 'below')) folio.insertAt(number())
    else if (isKey(event, 'above')) folio.insertAt(number() - 1)
    else if (key === 'Escape' && folio.selected.size > 0) folio.clearSelection()
    else if (key === 'Enter' && note) folio.edit(id)
    else return
    event.preventDefault()
  }

  /**
   * A row is one stop of the Tab key. From what opens its line the left and right
   * arrows go through its other controls; up and down leave the row, Escape goes back.
   */
  function within(event: KeyboardEvent): void {
    const { key, target, currentTarget } = event
    if (event.defaultPrevented || event.altKey || event.ctrlKey || event.metaKey || event.shiftKey) return
    if (!(target instanceof HTMLElement) || !(currentTarget instanceof HTMLElement)) return
    if (folio.editing?.id === line().id) return
    const controls = [...currentTarget.querySelectorAll<HTMLElement>('button, [tabindex]')].filter(isShown)
    const opener = currentTarget.querySelector<HTMLElement>('.opener')
    const at = controls.indexOf(target)
    const by = key === 'ArrowRight' ? 1 : key === 'ArrowLeft' ? -1 : 0
    if (at < 0) return
    if (by !== 0) controls[at + by]?.focus()
    else if (target !== opener && key === 'Escape') opener?.focus()
    else if (target !== opener && (key === 'ArrowUp' || key === 'ArrowDown')) focusRow(key === 'ArrowUp' ? -1 : 1)
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  /** Shift and Ctrl on the number select several lines. */
  function onNumber(event: MouseEvent): void {
    const { id } = line()
    if (event.shiftKey) folio.selectTo(id)
    else if (event.ctrlKey || event.metaKey) folio.toggleSelected(id)
    else {
      folio.clearSelection()
      folio.makeCurrent(id)
    }
  }

  return { onKey, onNumber, within }
}
