import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Example } from '#core/signatures/definition'
import type { ExactMatrix } from '#core/linear/exact'
import type { WorkingDepth } from '#core/working/write'

/** A matrix for the reduction bench, and how many of its last columns are right sides. */
export interface BenchMatrix {
  readonly matrix: ExactMatrix
  readonly right: number
}

/** What is open beside the ledger: the plates or the loose leaf of the right column, the index, the sheets. */
export type Leaf = Exclude<Panel, 'plates'>
export type Panel =
  | 'plates'
  | 'table'
  | 'grid'
  | 'bench'
  | 'working'
  | 'runs'
  | 'leaves'
  | 'journal'
  | 'handbook'
  | 'exchange'
  | 'import'
  | 'compare'

export const PANEL_NAMES: Readonly<Record<Panel, string>> = {
  plates: 'Plates',
  table: 'Table',
  grid: 'Grid',
  bench: 'Reduction bench',
  working: 'Working',
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

  /** A matrix that is on the bench by itself: it comes from a working. */
  const benchMatrix = shallowRef<BenchMatrix | null>(null)

  function openBench(line: string): void {
    benchMatrix.value = null
    benchLine.value = line
    show('bench')
  }

  function putOnBench(matrix: BenchMatrix): void {
    benchLine.value = null
    benchMatrix.value = matrix
    show('bench')
  }

  /** What is worked out: a line, or an example of the handbook. */
  const workingOf = shallowRef<string | Example | null>(null)
  /** True while the student's own working is checked instead of one being shown. */
  const workingChecks = ref(false)
  const workingDepth = ref<WorkingDepth>('hand')
  /** Lines that are to be checked as one working. */
  const chainText = ref('')

  function openWorking(of: string | Example): void {
    workingOf.value = of
    workingChecks.value = false
    show('working')
  }

  function openChain(line: string, text: string): void {
    workingOf.value = line
    chainText.value = text
    workingChecks.value = true
    show('working')
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
    benchMatrix.value = null
    workingOf.value = null
    workingChecks.value = false
    chainText.value = ''
    tableLine.value = null
    full.value = false
    sheetOpen.value = false
    sheetForPrint.value = false
  }

  return {
    leaf, asked, panel, indexOpen, findOpen, keysOpen, titling, conventionsOpen, sheetOpen, sheetForPrint, stroll, part, topic, renaming, answering, gridLine, benchLine, benchMatrix, workingOf, workingChecks, workingDepth, chainText, tableLine, full,
    show, openGrid, openTable, openBench, putOnBench, openWorking, openChain, hide, toggle, openHandbook, reset,
  } // prettier-ignore
})
