<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight } from '@mdi/js'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { LineView, ShownProblem } from '#core/views/lineView'
import { isPending } from '#core/sentences/sentences'
import type { Line } from '#shared/folio'
import { focusIsFree } from '~/browser/focus'
import { isKey } from '~/texts/keys'
import { useLineActions } from '~/composables/lineActions'
import type { RowWindow } from '~/composables/rowWindow'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { usePreferencesStore } from '~/stores/preferences'
import { fetchLineEditor, lineEditor } from '~/lines/lineEditor'
import { headingLevel, sectionOf } from '~/lines/sections'
import { useResultsStore } from '~/stores/results'
import { useSilenceStore } from '~/stores/silence'

/** One line of the ledger: typeset and evaluated, or with its editor open. */
const props = defineProps<{ line: Line; number: number; strolled?: boolean; rows: RowWindow }>()
const folio = useFolioStore()
const results = useResultsStore()
const plates = usePlatesStore()
const preferences = usePreferencesStore()
const silence = useSilenceStore()
const desk = useDeskStore()

const editing = computed(() => folio.editing?.id === props.line.id)
const isCurrent = computed(() => folio.current === props.line.id)
const chosen = computed(() => folio.selected.has(props.line.id))
const view = computed<LineView | null>(() => results.views.get(props.line.id) ?? null)
const hue = computed(() => {
  return plates.inks.get(props.line.id)?.hue ?? null
})
const letter = computed(() => folio.conventions.letter)
const remarkOnly = computed(() => view.value?.kind === 'remark' && !props.line.note)
const editor = ref<{ insert: (text: string) => void } | null>(null)
watch(editing, (now) => {
  if (now) void fetchLineEditor()
})
const opener = ref<HTMLElement | null>(null)
const row = ref<HTMLElement | null>(null)
onMounted(() => {
  if (row.value) props.rows.observe(row.value)
  // A row that was out of the window when it was gone to.
  if (isCurrent.value && folio.editing === null && focusIsFree()) opener.value?.focus()
})
onBeforeUnmount(() => {
  if (row.value) props.rows.unobserve(row.value)
})
const { actionsFor, openGrid } = useLineActions()

// Headings and folding.

const heading = computed(() => headingLevel(props.line) !== null)
const section = computed(() => (heading.value && props.line.folded ? sectionOf(folio.lines, props.number - 1) : []))
const sectionText = computed(() => {
  const count = section.value.length
  const failed = section.value.filter((l) => results.views.get(l.id)?.problem).length
  const lines = count === 1 ? '1 line' : `${count} lines`
  return failed === 0 ? `${lines} folded` : `${lines} folded, ${failed} in error`
})
/** A line that is no heading folds to one slim row. */
const slim = computed(() => props.line.folded === true && !heading.value && !editing.value)

// The problem of an entry shows after a rest, or at once when the line is kept.

/** How long typing must rest before an error is spoken of, in milliseconds. */
const PATIENCE = 800
const due = ref(false)
let timer: ReturnType<typeof setTimeout> | null = null
const draft = computed(() => (editing.value && results.draft?.id === props.line.id ? results.draft : null))
watch(
  () => (editing.value ? `${draft.value?.problem?.code} ${folio.text}` : null),
  () => {
    due.value = false
    if (timer !== null) clearTimeout(timer)
    if (draft.value?.problem) timer = setTimeout(() => (due.value = true), PATIENCE)
  },
)
onBeforeUnmount(() => {
  if (timer !== null) clearTimeout(timer)
})

/** Vectors, matrices, sweeps and polynomials take the full width below their reading. */
const WIDE: ReadonlySet<string> = new Set(['grid', 'list', 'sweep', 'algebra'])
const wide = computed(() => {
  const shape = view.value?.readout.shape
  return !props.line.note && !props.line.hidden && !view.value?.problem && WIDE.has(shape ?? '')
})
const keptProblem = computed(() => (editing.value ? null : (view.value?.problem ?? null)))
const shownProblem = computed<ShownProblem | null>(() => {
  if (!editing.value) return keptProblem.value
  const found = draft.value?.problem ?? null
  return found && due.value && !found.unfinished ? found : null
})
const waiting = computed(() => (draft.value?.problem?.unfinished ? draft.value.problem : null))
const stale = computed(
  () => editing.value && draft.value !== null && view.value?.readout.shape !== 'none' && view.value?.problem === null,
)
const NO_HINTS: readonly ShownProblem[] = []
const hints = computed<readonly ShownProblem[]>(() => {
  const told = editing.value ? NO_HINTS : (view.value?.hints ?? NO_HINTS)
  const shown = told.filter((h) => !silence.isSilent(folio.id, props.line.id, h.code))
  // The same nothing each time: a row without hints has nothing to draw anew.
  return shown.length === 0 ? NO_HINTS : shown
})
// What of the view the row itself shows: texts, which mostly stay while the value changes.
const reading = computed(() => (preferences.grouping ? view.value?.grouped : view.value?.reading) ?? '')
const remark = computed(() => view.value?.remark ?? null)
const unitDependent = computed(() => view.value?.unitDependent ?? false)
const hint = computed(() => hints.value[0] ?? null)
/** The row that the Tab key stops at: its marks can be reached too. */
const reachable = computed(() => folio.current === props.line.id || (folio.current === null && props.number === 1))
const held = computed(() => results.held.get(props.line.id) === props.line.source && results.held.has(props.line.id))

function fixed(problem: ShownProblem, replacement: string): string {
  const source = editing.value ? folio.text : props.line.source
  return source.slice(0, problem.from) + replacement + source.slice(problem.to)
}

function applyFix(problem: ShownProblem, replacement: string): void {
  const text = fixed(problem, replacement)
  if (editing.value) folio.typeOver(text)
  else folio.rewrite(props.line.id, text, 'fix')
}

/** The first fix of a kept line, by key. */
function mend(): void {
  const problem = keptProblem.value ?? hint.value
  const fix = problem?.fixes[0]
  if (problem && fix) applyFix(problem, fix.replacement)
}

const firstFix = computed(() => {
  const problem = draft.value?.problem
  const fix = problem?.fixes[0]
  return problem && fix ? () => applyFix(problem, fix.replacement) : null
})

function open(event: MouseEvent): void {
  const target = event.target instanceof Element ? event.target.closest<HTMLElement>('[data-span]') : null
  if (!target) {
    folio.edit(props.line.id)
    return
  }
  const [from = 0, to = 0] = (target.dataset.span ?? '').split('-').map(Number)
  const box = target.getBoundingClientRect()
  folio.edit(props.line.id, event.clientX < box.left + box.width / 2 ? from : to)
}

function onKey(event: KeyboardEvent): void {
  const { key, altKey, shiftKey } = event
  const { id } = props.line
  const by = key === 'ArrowUp' ? -1 : key === 'ArrowDown' ? 1 : 0
  if (isKey(event, 'duplicate')) folio.duplicate(id)
  else if (by !== 0 && altKey) folio.moveBy(id, by)
  else if (by !== 0 && shiftKey) selectRow(by)
  else if (by !== 0) focusRow(by)
  else if (isKey(event, 'remove')) folio.remove(id)
  else if (isKey(event, 'fix')) mend()
  else if (isKey(event, 'below')) folio.insertAt(props.number)
  else if (isKey(event, 'above')) folio.insertAt(props.number - 1)
  else if (key === 'Escape' && folio.selected.size > 0) folio.clearSelection()
  else if (key === 'Enter' && props.line.note) folio.edit(id)
  else return
  event.preventDefault()
}

function focusRow(by: 1 | -1): void {
  const next = folio.neighbour(props.line.id, by)
  if (!next) return
  folio.clearSelection()
  folio.makeCurrent(next.id)
}

function selectRow(by: 1 | -1): void {
  const next = folio.neighbour(props.line.id, by)
  if (next) folio.selectTo(next.id)
}

/** Shift and Ctrl on the number select several lines. */
function onNumber(event: MouseEvent): void {
  if (event.shiftKey) folio.selectTo(props.line.id)
  else if (event.ctrlKey || event.metaKey) folio.toggleSelected(props.line.id)
  else {
    folio.clearSelection()
    folio.makeCurrent(props.line.id)
  }
}

/** A click on a note opens it; one on a link follows the link. */
function openNote(event: MouseEvent): void {
  if (event.target instanceof Element && event.target.closest('a')) return
  folio.edit(props.line.id)
}

watch(
  () => folio.current === props.line.id && folio.editing === null && desk.stroll === null,
  async (mine, before) => {
    if (!mine || before) return
    await nextTick()
    if (focusIsFree()) opener.value?.focus()
  },
)

/** The source in three pieces, with the place of its problem in the middle. */
const marked = computed(() => {
  const { source } = props.line
  const problem = keptProblem.value
  // Of a line that waits, or was stopped, no place in it is at fault.
  if (!problem || isPending(problem.code) || problem.code === 'stopped') return null
  return {
    before: source.slice(0, problem.at.from),
    at: source.slice(problem.at.from, problem.at.to),
    after: source.slice(problem.at.to),
  }
})

// A line that was turned into a note, or back, has another element in its place: the focus goes there.
watch(
  () => props.line.note,
  async () => {
    if (folio.current !== props.line.id || folio.editing) return
    await nextTick()
    opener.value?.focus()
  },
)

/** Where the value of this line comes from, said once for screen readers. */
const spoken = computed(() => (props.line.source.trim() === '' ? 'empty' : props.line.source))
/** The reading of what is typed; while that cannot be read, the last one that could. */
const liveReading = computed(() => {
  const of = (v: LineView | null): string => (v ? (preferences.grouping ? v.grouped : v.reading) : '')
  return of(draft.value) || of(view.value)
})
</script>

<template>
  <li
    ref="row"
    class="row"
    :data-id="line.id"
    :class="{
      active: editing,
      chosen,
      note: line.note,
      wide,
      slim,
      strolled,
      remark: remarkOnly && !editing,
      error: keptProblem !== null && !isPending(keptProblem.code),
      current: isCurrent,
    }"
    :style="hue === null ? {} : { '--own-hue': `var(--hue-${hue + 1})` }"
    :data-line="number"
  >
    <span class="stroke" :class="{ hued: hue !== null }" aria-hidden="true" />
    <span class="number" title="Drag to move the line; Shift or Ctrl and a click select several" @click="onNumber">
      <svg v-if="editing" class="nib" viewBox="0 0 20 20" aria-hidden="true">
        <path d="M2 18l3.2-8.6L13 2.6 17.4 7l-6.8 7.8z M2 18l6-6" />
      </svg>
      {{ number }}
    </span>

    <div class="entry">
      <button
        v-if="heading && !editing"
        type="button"
        class="fold-toggle"
        :aria-expanded="!line.folded"
        :aria-label="line.folded ? `Unfold what stands below line ${number}` : `Fold what stands below line ${number}`"
        :tabindex="reachable ? 0 : -1"
        @click="folio.toggle(line.id, 'folded')"
      >
        <AppIcon :path="line.folded ? mdiChevronRight : mdiChevronDown" />
      </button>
      <NoteEditor v-if="editing && line.note" :id="line.id" :number="number" />
      <div
        v-else-if="line.note"
        ref="opener"
        class="opener note-opener"
        role="group"
        :tabindex="reachable ? 0 : -1"
        :aria-label="`Line ${number}, note. Enter to edit`"
        @click="openNote"
        @keydown="onKey"
        @focus="folio.makeCurrent(line.id)"
      >
        <NoteText v-if="line.source.trim() !== ''" :text="line.source" :letter="letter" />
        <span v-else class="waiting">An empty note</span>
      </div>
      <template v-else-if="editing">
        <component
          :is="lineEditor"
          :id="line.id"
          :key="folio.editing?.session"
          ref="editor"
          :number="number"
          :caret="folio.editing?.caret ?? 'end'"
          :mark="shownProblem?.at ?? null"
          :fix="firstFix"
        />
      </template>
      <button
        v-else
        ref="opener"
        type="button"
        class="opener"
        :tabindex="reachable ? 0 : -1"
        :aria-label="`Line ${number}: ${spoken}. Edit`"
        @click="open"
        @keydown="onKey"
        @focus="folio.makeCurrent(line.id)"
      >
        <span v-if="marked" class="source"
          >{{ marked.before }}<mark :class="{ gap: marked.at === '' }">{{ marked.at }}</mark
          >{{ marked.after }}</span
        >
        <span v-else-if="remarkOnly" class="remark-text">{{ remark }}</span>
        <template v-else-if="!slim && reading !== ''">
          <ReadingMath :latex="reading" />
          <span v-if="remark" class="trailing">{{ remark }}</span>
        </template>
        <span v-else-if="line.source !== ''" class="source">{{ line.source }}</span>
        <span v-else class="blank">&nbsp;</span>
      </button>
      <span v-if="section.length > 0" class="folded-note">{{ sectionText }}</span>
      <MarkBadge
        v-if="line.answer && !editing"
        class="unit-badge"
        :sign="line.answer"
        tone="exact"
        :explanation="`The answer to part ${line.answer}: boxed on the sheet, and listed there.`"
        :reachable="reachable"
      />
      <MarkBadge
        v-if="unitDependent && !editing"
        class="unit-badge"
        :sign="folio.conventions.angle === 'deg' ? '°' : 'rad'"
        tone="unit"
        :explanation="`A bare number in this line is read in ${folio.conventions.angle === 'deg' ? 'degrees' : 'radians'}, because the conventions say so.`"
        :reachable="reachable"
      />
    </div>

    <div class="outcome" :class="{ stale }">
      <LineOutcome :line="line" :number="number" :hue="hue" :reachable="reachable" :failed="keptProblem !== null" />
    </div>

    <div class="row-menu">
      <MenuButton :label="`Actions for line ${number}`" :actions="() => actionsFor(line.id)" />
    </div>

    <div v-if="editing && !line.note" class="strip-line">
      <span v-if="waiting" class="waiting">{{ waiting.message }}</span>
      <ReadingMath v-else-if="liveReading !== ''" :latex="liveReading" :class="{ stale }" />
      <span v-else class="waiting">The reading of the line appears here as you type.</span>
      <RecallNote />
      <span v-if="stale" class="stale-note">result from before this edit</span>
    </div>

    <LineMessages
      v-if="!line.note && (!slim || keptProblem)"
      :line="line.id"
      :problem="shownProblem"
      :hints="hints"
      :reachable="reachable"
      :editing="editing"
      :held="held"
      @fix="applyFix"
    />
    <div v-if="editing && !line.note" class="below">
      <KeyStrip @insert="(text) => editor?.insert(text)" @grid="openGrid(line.id)" />
    </div>
  </li>
</template>

<style scoped>
.row {
  position: relative;
  display: grid;
  grid-template-columns: 4px 50px minmax(0, 1fr) auto 36px;
  align-items: stretch;
  min-height: 44px;
  border-bottom: 1px solid var(--rule);
  list-style: none;
}
.row:hover {
  background: color-mix(in srgb, var(--rail) 45%, transparent);
}
.row.active {
  background: var(--leaf);
  border-bottom: 3px double var(--brass);
  box-shadow: 0 -3px 0 -2px var(--brass);
}
.row.active::before {
  content: '';
  position: absolute;
  inset: -3px 0 auto;
  border-top: 3px double var(--brass);
}
.stroke {
  grid-row: 1;
}
.stroke.hued {
  background: var(--own-hue);
  margin: 5px 0;
  border-radius: 0 2px 2px 0;
}
.number {
  grid-row: 1;
  position: relative;
  display: flex;
  align-items: center;
  justify-content: flex-end;
  padding-right: 12px;
  font-family: var(--serif);
  font-size: 14px;
  font-variant-numeric: oldstyle-nums tabular-nums;
  color: var(--brass-text);
  cursor: grab;
  touch-action: none;
  user-select: none;
}
.nib {
  position: absolute;
  left: 3px;
  width: 14px;
  height: 14px;
  fill: var(--leaf);
  stroke: var(--brass-text);
  stroke-width: 1.4;
  stroke-linejoin: round;
  transform: rotate(90deg);
}
.entry {
  min-width: 0;
  display: flex;
}
.opener {
  flex: 1;
  min-width: 0;
  text-align: left;
  padding: 8px 4px;
  cursor: text;
  overflow: hidden;
  scrollbar-width: thin;
}
/* Only where it is wanted: every box that scrolls costs a layer of its own in each frame. */
.row:hover .opener,
.row.current .opener {
  overflow: auto hidden;
}
.opener:focus-visible {
  outline-offset: -2px;
}
.line-editor {
  flex: 1;
  min-width: 0;
  align-self: center;
  padding: 4px 2px;
}
.source {
  font-family: var(--mono);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
mark {
  background: none;
  color: inherit;
  text-decoration: underline wavy var(--error) 1.5px;
  text-underline-offset: 4px;
}
mark.gap {
  border-left: 2px dashed var(--error);
  margin: 0 2px;
}
.row {
  scroll-margin: 56px 0 130px;
}
.row.chosen {
  background: var(--select);
}
.row.chosen .number {
  font-weight: 700;
  color: var(--ink);
}
.row.strolled {
  background: var(--leaf);
  border-block: 3px double var(--brass);
}
.fold-toggle {
  align-self: flex-start;
  display: grid;
  place-items: center;
  width: 24px;
  min-height: 40px;
  margin-left: -6px;
  color: var(--brass-text);
}
.folded-note {
  align-self: center;
  padding: 0 12px;
  font-size: 13.5px;
  color: var(--quiet);
  white-space: nowrap;
}
.wide .entry {
  grid-column: 3 / 5;
}
.wide .outcome {
  display: block;
  grid-column: 3 / -1;
  grid-row: 2;
  border-left: 0;
}
.wide .row-menu {
  grid-column: 5;
  grid-row: 1;
}
.note .entry {
  grid-column: 3 / 5;
}
.note .outcome {
  display: none;
}
.note .row-menu {
  grid-column: 5;
}
.note-opener {
  padding: 10px 12px 10px 4px;
}
.slim {
  min-height: 34px;
}
.slim .opener {
  padding-block: 4px;
}
.slim .source {
  display: block;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--quiet);
}
.slim .outcome :deep(.cell) {
  padding-block: 4px;
  max-height: 30px;
  overflow: hidden;
}
.remark .opener {
  padding-block: 12px 10px;
}
.remark .entry {
  grid-column: 3 / 5;
}
.remark .outcome {
  display: none;
}
.remark .row-menu {
  grid-column: 5;
}
.remark-text {
  font-family: var(--serif);
  font-size: 17px;
  font-weight: 500;
}
.trailing {
  display: block;
  font-size: 13px;
  color: var(--quiet);
  padding-top: 2px;
  white-space: normal;
}
.unit-badge {
  align-self: center;
  margin-right: 8px;
}
.outcome {
  /* A value that changes under the hand has only its own cell laid out anew. */
  contain: layout style;
  position: relative;
  display: grid;
  grid-template-columns: 24px var(--rectangular-width) var(--polar-width) 40px;
  align-items: stretch;
  border-left: 1px solid var(--rule);
}
.outcome.stale :deep(.cell) {
  opacity: 0.55;
}
.stale-note {
  margin-left: auto;
  flex: none;
  font-size: 12.5px;
  color: var(--quiet);
}
.reading.stale {
  opacity: 0.55;
}
.row-menu {
  display: grid;
  place-items: center;
}
.row-menu :deep(.menu-button) {
  opacity: 0;
}
.row:hover .row-menu :deep(.menu-button),
.row.active .row-menu :deep(.menu-button),
.row.current .row-menu :deep(.menu-button),
.row-menu :deep(.menu-button:focus-visible),
.row-menu :deep(.menu-button[aria-expanded='true']) {
  opacity: 1;
}
.strip-line,
.below {
  grid-column: 3 / -1;
}
.below {
  padding: 0 12px 10px 4px;
}
.strip-line {
  min-height: 42px;
  padding: 0 12px 4px 4px;
  display: flex;
  align-items: center;
  gap: 12px;
  overflow-x: auto;
  overflow-y: hidden;
}
.waiting {
  font-size: 14px;
  color: var(--quiet);
  font-style: italic;
}
@media (max-width: 899px) and (pointer: coarse) {
  .below {
    position: fixed;
    inset: auto 0 var(--keyboard, 0px);
    z-index: 8;
    padding: 4px 6px;
    background: var(--rail);
    border-top: 1px solid var(--edge);
  }
}
@media (max-width: 899px) {
  .row {
    grid-template-columns: 4px 34px minmax(0, 1fr) 36px;
  }
  .row-menu {
    grid-column: 4;
    grid-row: 1;
  }
  .remark .entry,
  .wide .entry,
  .note .entry {
    grid-column: 3;
  }
  .remark .row-menu,
  .wide .row-menu,
  .note .row-menu {
    grid-column: 4;
  }
  .row-menu :deep(.menu-button) {
    opacity: 1;
  }
  .number {
    padding-right: 8px;
  }
  .outcome {
    grid-column: 3 / -1;
    border-left: 0;
    grid-template-columns: 22px auto auto 1fr;
    padding-bottom: 4px;
  }
  .outcome :deep(.cell) {
    padding: 2px 16px 6px 4px;
  }
}
</style>
