import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { useVernierStore } from '~/stores/vernier'

/** A number of a line is taken in hand: that at the caret while the line is typed, else its first. */
export function useTakingInHand() {
  const folio = useFolioStore()
  const desk = useDeskStore()
  const vernier = useVernierStore()

  function take(line: string): void {
    const at = folio.editing?.id === line ? caretPlace() : null
    if (vernier.take(line, at)) desk.show('plates')
  }
  return { take }
}

/** Where the caret stands in the text that is typed; `null` where it is elsewhere. */
function caretPlace(): number | null {
  const selection = document.getSelection()
  const node = selection?.anchorNode ?? null
  const entry = node instanceof Element ? node.closest('.cm-content') : node?.parentElement?.closest('.cm-content')
  if (!selection || !node || !entry) return null
  const before = document.createRange()
  before.setStart(entry, 0)
  before.setEnd(node, selection.anchorOffset)
  return before.toString().length
}
