/** True where a line of the ledger may take the focus: nothing elsewhere on the page has it, save a sheet that closes. */
export function focusIsFree(): boolean {
  const active = document.activeElement
  return !active || active === document.body || active.closest('.ledger, .v-overlay') !== null
}
