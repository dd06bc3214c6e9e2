/** Where the focus is going, from its leaving one element until its arrival at another. */
let onItsWay: Element | null = null

function leaves({ relatedTarget }: FocusEvent): void {
  onItsWay = relatedTarget instanceof Element ? relatedTarget : null
  if (onItsWay) setTimeout(() => (onItsWay = null))
}
if (typeof document !== 'undefined') document.addEventListener('focusout', leaves, { capture: true })

/** True where a line of the ledger may take the focus: nothing elsewhere on the page has or gets it, save a sheet that closes. */
export function focusIsFree(): boolean {
  const active = onItsWay ?? document.activeElement
  return !active || active === document.body || active.closest('.ledger, .v-overlay') !== null
}
