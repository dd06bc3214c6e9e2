import { defineStore } from 'pinia'
import { ref } from 'vue'

/** What is open beside the ledger: the plates or the loose leaf of the right column, the index, the sheets. */
export type Leaf = Exclude<Panel, 'plates'>
export type Panel =
  'plates' | 'table' | 'grid' | 'bench' | 'runs' | 'leaves' | 'journal' | 'handbook' | 'exchange' | 'import' | 'compare'

export const PANEL_NAMES: Readonly<Record<Panel, string>> = {
  plates: 'Plates',
  table: 'Table',
  grid: 'Grid',
  bench: 'Reduction bench',
  runs: 'Runs',
  leaves: 'Leaves',
  journal: 'Journal',
  handbook: 'Handbook',
  exchange: 'Exchange',
  import: 'File',
  compare: 'Came back',
}

export const useDeskStore = defineStore('desk', () => {
  /** The loose leaf beside the plates: one at a time, a new one takes its place. */
  const leaf = ref<Leaf | null>(null)
  /** Counts up as a leaf is asked for: it gets the focus, though it was open already. */
  const asked = ref(0)
  const panel = ref<Panel>('plates')
  const indexOpen = ref(false)
  const findOpen = ref(false)
  const keysOpen = ref(false)
  /** True while the folio's title is being written. */
  const titling = ref(false)
  const conventionsOpen = ref(false)
  /** True while the folio is seen as the sheet that is handed in. */
  const sheetOpen = ref(false)
  /** True where only the browser's print command has opened it: it goes again when that is done. */
  const sheetForPrint = ref(false)
  /** The line that the stroll has come to, counted from 0; `null` outside a stroll. */
  const stroll = ref<number | null>(null)
  /** The part of the page that a narrow window shows. */
  const part = ref<'ledger' | 'plates' | 'index'>('ledger')
  /** The entry that the handbook should show. */
  const topic = ref<string | null>(null)
  /** A kept name that is to be spelled anew, or a line to be named. */
  const renaming = ref<string | null>(null)
  /** A line that is to be marked as an answer. */
  const answering = ref<string | null>(null)

  /** The line that the grid fills. */
  const gridLine = ref<string | null>(null)

  function openGrid(line: string): void {
    gridLine.value = line
    show('grid')
  }

  /** The sweep whose points are tabled. */
  const tableLine = ref<string | null>(null)

  function openTable(line: string): void {
    tableLine.value = line
    show('table')
  }

  /** The matrix on the reduction bench. */
  const benchLine = ref<string | null>(null)

  function openBench(line: string): void {
    benchLine.value = line
    show('bench')
  }

  /** True while the right column has the whole window. */
  const full = ref(false)

  function show(next: Panel): void {
    if (next !== 'plates') {
      leaf.value = next
      asked.value += 1
    }
    panel.value = next
    part.value = 'plates'
  }

  /** Takes the leaf away and gives the plate back. */
  function hide(which: Panel): void {
    if (leaf.value !== which) return
    leaf.value = null
    panel.value = 'plates'
    part.value = 'ledger'
  }

  function toggle(which: Panel): void {
    if (panel.value === which && which !== 'plates') hide(which)
    else show(which)
  }

  function openHandbook(name: string): void {
    topic.value = name
    show('handbook')
  }

  function reset(): void {
    leaf.value = null
    panel.value = 'plates'
    indexOpen.value = false
    findOpen.value = false
    titling.value = false
    stroll.value = null
    part.value = 'ledger'
    topic.value = null
    renaming.value = null
    answering.value = null
    gridLine.value = null
    benchLine.value = null
    tableLine.value = null
    full.value = false
    sheetOpen.value = false
    sheetForPrint.value = false
  }

  return {
    leaf, asked, panel, indexOpen, findOpen, keysOpen, titling, conventionsOpen, sheetOpen, sheetForPrint, stroll, part, topic, renaming, answering, gridLine, benchLine, tableLine, full,
    show, openGrid, openTable, openBench, hide, toggle, openHandbook, reset,
  } // prettier-ignore
})
