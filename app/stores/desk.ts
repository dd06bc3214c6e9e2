import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

/** What is open beside the ledger: the tabs of the right column, the index, the sheets. */
export type Panel = 'plates' | 'table' | 'grid' | 'bench' | 'journal' | 'handbook' | 'exchange' | 'import' | 'compare'

export const PANEL_NAMES: Readonly<Record<Panel, string>> = {
  plates: 'Plates',
  table: 'Table',
  grid: 'Grid',
  bench: 'Reduction bench',
  journal: 'Journal',
  handbook: 'Handbook',
  exchange: 'Exchange',
  import: 'File',
  compare: 'Came back',
}

export const useDeskStore = defineStore('desk', () => {
  /** The tabs of the right column besides the plates, in the order they were opened. */
  const opened = ref<readonly Panel[]>([])
  const panel = ref<Panel>('plates')
  const indexOpen = ref(false)
  const findOpen = ref(false)
  const keysOpen = ref(false)
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

  const tabs = computed<readonly Panel[]>(() => ['plates', ...opened.value])

  function show(next: Panel): void {
    if (next !== 'plates' && !opened.value.includes(next)) opened.value = [...opened.value, next]
    panel.value = next
    part.value = 'plates'
  }

  /** Closes a tab and gives the plate back. */
  function hide(which: Panel): void {
    opened.value = opened.value.filter((p) => p !== which)
    if (panel.value === which) panel.value = 'plates'
    if (opened.value.length === 0) part.value = 'ledger'
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
    opened.value = []
    panel.value = 'plates'
    indexOpen.value = false
    findOpen.value = false
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
    opened, panel, tabs, indexOpen, findOpen, keysOpen, conventionsOpen, sheetOpen, sheetForPrint, stroll, part, topic, renaming, answering, gridLine, benchLine, tableLine, full,
    show, openGrid, openTable, openBench, hide, toggle, openHandbook, reset,
  } // prettier-ignore
})
