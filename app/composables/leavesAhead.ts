/** How long after the page is there, in milliseconds. */
const AFTER = 2_500

/** Whoever pays for what is sent asks the browser to save it (Network Information, `saveData`). */
function savesData(): boolean {
  const { connection } = navigator as Navigator & { readonly connection?: { readonly saveData?: boolean } }
  return connection?.saveData === true
}

/**
 * Fetches what a page opens later, once it has nothing else to do: then it is there without a network, too. Where the
 * browser is asked to save data it comes when it is opened.
 */
export function fetchLeavesAhead(leaves: readonly (() => Promise<unknown>)[]): void {
  if (savesData()) return
  const fetchAll = (): void => {
    // One that does not come now is asked for again when it is opened.
    for (const leaf of leaves) leaf().catch(() => undefined)
  }
  setTimeout(() => (globalThis.requestIdleCallback ?? setTimeout)(fetchAll), AFTER)
}
