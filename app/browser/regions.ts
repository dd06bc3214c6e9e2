import { nextTick } from 'vue'

/** The parts of the folio's page between which one key goes, and where the focus is in each of them. */

/** What can be reached in a part, in the order in which it is sought: where it says that one begins, a field first. */
const BEGIN = '[data-begin]'
const FIELDS = 'input:not([disabled], [type="radio"]), textarea:not([disabled]), [role="textbox"]'
const REACHED = '[tabindex="0"], button:not([disabled], [tabindex="-1"]), a[href]'

/** How long a leaf that is still being fetched is waited for, in milliseconds. */
const PATIENCE = 4_000

const part = (selector: string): HTMLElement | null => document.querySelector<HTMLElement>(selector)

/** The line that is current has the focus: its editor where it is typed. */
export async function focusLine(): Promise<void> {
  await nextTick()
  const row = part('.row.active') ?? part('.row.current') ?? part('.row')
  row?.querySelector<HTMLElement>('.cm-content, .plain-entry, textarea, .opener')?.focus()
}

/** The picture of the large plate has it. */
export async function focusPlate(): Promise<void> {
  await nextTick()
  part('.plate-column .canvas-host canvas')?.focus()
}

/** What a leaf has to type or choose in has it, as soon as the leaf is there; it is left alone where it is in it already. */
export async function focusLeaf(): Promise<void> {
  const since = Date.now()
  for (;;) {
    await nextTick()
    const leaf = part('.plate-column .leaf > section')
    if (leaf?.contains(document.activeElement)) return
    if (leaf) {
      // One that has nothing to type or choose in is itself what the keys go on from.
      leaf.tabIndex = -1
      return (
        leaf.querySelector<HTMLElement>(BEGIN) ??
        leaf.querySelector<HTMLElement>(FIELDS) ??
        leaf.querySelector<HTMLElement>(REACHED) ??
        leaf
      ).focus()
    }
    if (Date.now() - since > PATIENCE) return
    await new Promise((next) => requestAnimationFrame(next))
  }
}

/** In which part the focus is. */
export function focusedPart(): 'ledger' | 'plates' | 'leaf' | null {
  const active = document.activeElement
  if (active?.closest('.ledger-column')) return 'ledger'
  if (active?.closest('.plate-column .leaf')) return 'leaf'
  return active?.closest('.plate-column') ? 'plates' : null
}
