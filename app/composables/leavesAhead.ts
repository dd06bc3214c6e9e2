import { fetchNoteReader } from './clipboardLines'

/** The leaves that are fetched when they are first opened, or once the page has nothing else to do: then they are there without a network, too. */
const LEAVES = [
  () => import('~/components/curve/CurvePlate.vue'),
  fetchNoteReader,
  () => import('~/components/desk/GridPane.vue'),
  () => import('~/components/desk/HandbookPane.vue'),
  () => import('~/components/desk/JournalPane.vue'),
  () => import('~/components/desk/ReductionPane.vue'),
  () => import('~/components/desk/TablePane.vue'),
  () => import('~/components/exchange/ComparePane.vue'),
  () => import('~/components/exchange/ExchangePane.vue'),
  () => import('~/components/exchange/ImportPane.vue'),
]

/** How long after the folio is there, in milliseconds. */
const AFTER = 2_500

export function fetchLeavesAhead(): void {
  const fetchAll = (): void => {
    // One that does not come now is asked for again when it is opened.
    for (const leaf of LEAVES) leaf().catch(() => undefined)
  }
  setTimeout(() => (globalThis.requestIdleCallback ?? setTimeout)(fetchAll), AFTER)
}
