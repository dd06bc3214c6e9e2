/** How long after the page is there, in milliseconds. */
const AFTER = 2_500

/** Fetches what a page opens later, once it has nothing else to do: then it is there without a network, too. */
export function fetchLeavesAhead(leaves: readonly (() => Promise<unknown>)[]): void {
  const fetchAll = (): void => {
    // One that does not come now is asked for again when it is opened.
    for (const leaf of leaves) leaf().catch(() => undefined)
  }
  setTimeout(() => (globalThis.requestIdleCallback ?? setTimeout)(fetchAll), AFTER)
}
