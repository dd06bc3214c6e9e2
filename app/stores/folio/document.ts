import { computed, ref, shallowRef } from 'vue'
import type { Conventions } from '#core/format/conventions'
import { DEFAULT_CONVENTIONS } from '#core/format/conventions'
import type { Enclosure } from '#shared/enclosure'
import { NO_HEAD } from '#shared/folio'
import type { Line, SheetHead } from '#shared/folio'
import { newId } from '#shared/id'
import type { FolioState, Operation } from '#shared/operations'
import type { Plate } from '#shared/plate'
import type { RunSet } from '#shared/runs'
import type { Draft, DraftKeeper } from '~/keeping/drafts'
import type { Saver } from '~/keeping/saving'
import type { StepKeeper } from '~/keeping/steps'
import type { TabRole, Tabs } from '~/keeping/tabs'
import { tuckedAway } from '~/lines/sections'

/** The line that holds the editor. */
export interface Editing {
  readonly id: string
  /** Where the caret goes when the editor opens, or what is selected. */
  readonly caret: number | 'end' | { readonly from: number; readonly to: number }
  /** Counts up: an editor that is opened again is another one. */
  readonly session: number
  /** The text of the line when its editor was opened. */
  readonly was: string
}

export const EMPTY: FolioState = { title: '', conventions: DEFAULT_CONVENTIONS, lines: [] }

/** To the evaluator a note is an empty line. */
export const entryOf = (line: Line): string => (line.note ? '' : line.source)

/** What the open folio is joined with: other tabs, and what this browser keeps of it. */
export interface Links {
  tabs: Tabs | null
  keeper: StepKeeper | null
  drafts: DraftKeeper | null
  /** Drafts that were found when the folio was opened, by line. */
  found: Map<string, Draft>
  /** What the tab that is followed is typing. */
  followed: { readonly id: string; readonly text: string } | null
}

export function noLinks(): Links {
  return { tabs: null, keeper: null, drafts: null, found: new Map(), followed: null }
}

/** The open folio as it stands: its state, who may write it, which line is current and which is open. */
export function createDocument() {
  const id = ref('')
  const notice = ref('')
  const state = shallowRef<FolioState>(EMPTY)
  const saver = shallowRef<Saver | null>(null)
  const role = ref<TabRole>('writer')
  const editing = ref<Editing | null>(null)
  /** The text in the editor. */
  const text = ref('')
  /** The line that arrow keys start from. */
  const current = ref<string | null>(null)
  /** Several lines at once; empty while only one is meant. */
  const selected = shallowRef<ReadonlySet<string>>(new Set())

  const lines = computed(() => state.value.lines)
  const conventions = computed<Conventions>(() => state.value.conventions)
  const title = computed(() => state.value.title)
  const plates = computed<readonly Plate[]>(() => state.value.plates ?? [])
  const enclosures = computed<readonly Enclosure[]>(() => state.value.enclosures ?? [])
  const head = computed<SheetHead>(() => state.value.head ?? NO_HEAD)
  const sets = computed<readonly RunSet[]>(() => state.value.sets ?? [])
  const writable = computed(() => role.value === 'writer')
  const tucked = computed(() => tuckedAway(lines.value))
  const shownLines = computed(() => lines.value.filter((l) => !tucked.value.has(l.id)))

  const indexOf = (lineId: string): number => lines.value.findIndex((l) => l.id === lineId)
  const lineOf = (lineId: string): Line | null => lines.value[indexOf(lineId)] ?? null
  const entries = () => state.value.lines.map((l) => ({ id: l.id, source: entryOf(l) }))

  function insertion(at: number, source: string): Extract<Operation, { type: 'insert' }> {
    return { type: 'insert', line: { id: newId(), source }, at }
  }

  function clearSelection(): void {
    if (selected.value.size > 0) selected.value = new Set()
  }

  /** Says something below the folio's head; nothing takes it away. */
  function tell(sentence: string): void {
    notice.value = sentence
  }

  function makeCurrent(lineId: string | null): void {
    current.value = lineId
  }

  return {
    id, notice, state, saver, role, editing, text, current, selected, lines, conventions, title, plates, enclosures, head, sets,
    writable, tucked, shownLines, indexOf, lineOf, entries, insertion, clearSelection, tell, makeCurrent,
  } // prettier-ignore
}

export type FolioDocument = ReturnType<typeof createDocument>
