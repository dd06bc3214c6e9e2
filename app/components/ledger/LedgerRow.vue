<script setup lang="ts">
import { mdiBinoculars, mdiTuneVariant } from '@mdi/js'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { isPending } from '#core/sentences/sentences'
import type { Line } from '#shared/folio'
import { focusIsFree } from '~/browser/focus'
import { useLineActions } from '~/composables/lineActions'
import { useLongPress } from '~/composables/longPress'
import { useLineWords } from '~/composables/lineWords'
import { useRowKeys } from '~/composables/rowKeys'
import type { RowWindow } from '~/composables/rowWindow'
import { fetchLineEditor, lineEditor } from '~/lines/lineEditor'
import { isWide } from '~/lines/wide'
import { headingLevel, sectionOf } from '~/lines/sections'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** One line of the ledger: typeset and evaluated, or with its editor open. */
const props = defineProps<{ line: Line; number: number; strolled?: boolean; rows: RowWindow }>()
const folio = useFolioStore()
const results = useResultsStore()
const plates = usePlatesStore()
const desk = useDeskStore()

const words = useLineWords(() => props.line)
const {
  editing,
  awaits,
  view,
  draft,
  keptProblem,
  shownProblem,
  waiting,
  stale,
  hints,
  held,
  marked,
  cause,
  toCause,
  applyFix,
  draftFix,
} = words
const { onKey, onNumber, within } = useRowKeys(
  () => props.line,
  () => props.number,
  words.mend,
)
const { actionsFor, openGrid } = useLineActions()
/** The same function as long as the row is there: its menu is not drawn anew with every value. */
const rowActions = () => actionsFor(props.line.id)

const isCurrent = computed(() => folio.current === props.line.id)
const chosen = computed(() => folio.selected.has(props.line.id))
const hue = computed(() => plates.inks.get(props.line.id)?.hue ?? null)
const remarkOnly = computed(() => view.value?.kind === 'remark' && !props.line.note)
const unitDependent = computed(() => view.value?.unitDependent ?? false)
/** Where the line stands in its group of equations, and the number that it has there. */
const place = computed(() => view.value?.place ?? null)
const role = computed(() => place.value?.role ?? null)
const equation = computed(() => (place.value?.role === 'equation' ? place.value.number : null))
/** The row that the Tab key stops at: the arrows go on within it. */
const reachable = computed(() => isCurrent.value || (folio.current === null && props.number === 1))

const editor = ref<{ insert: (text: string) => void } | null>(null)
watch(editing, (now) => {
  if (now) void fetchLineEditor()
})

/** A finger that rests on a line selects it; from then on a tap selects, too. */
const press = useLongPress(
  () => (folio.selected.size > 0 ? folio.toggleSelected(props.line.id) : folio.selectOne(props.line.id)),
  () => folio.selected.size > 0,
  () => folio.toggleSelected(props.line.id),
)

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

const wide = computed(() => {
  const shown = view.value
  return !props.line.note && !props.line.hidden && shown !== null && !shown.problem && isWide(shown.readout)
})

// The focus: the current row has it, unless something else of the page has.

const row = ref<HTMLElement | null>(null)
const opener = ref<{ focus: () => void } | null>(null)
onMounted(() => {
  if (row.value) props.rows.observe(row.value)
  // A row that was out of the window when it was gone to.
  if (isCurrent.value && folio.editing === null && focusIsFree()) opener.value?.focus()
})
onBeforeUnmount(() => {
  if (row.value) props.rows.unobserve(row.value)
})
watch(
  () => isCurrent.value && folio.editing === null && desk.stroll === null,
  async (mine, before) => {
    if (!mine || before) return
    await nextTick()
    if (focusIsFree()) opener.value?.focus()
  },
)
// A browser takes the focus from what is put elsewhere in the page: a row that is moved keeps it.
watch(
  () => props.number,
  async () => {
    const { activeElement } = document
    if (!(activeElement instanceof HTMLElement) || !row.value?.contains(activeElement)) return
    await nextTick()
    // What has the focus by then, a line that was put in perhaps, keeps it.
    if (document.activeElement === null || document.activeElement === document.body) activeElement.focus()
  },
)
// A line that was turned into a note, or back, has another element in its place: the focus goes there.
watch(
  () => props.line.note,
  async () => {
    if (!isCurrent.value || folio.editing) return
    await nextTick()
    opener.value?.focus()
  },
)
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
      grouped: role !== null,
      [`group-${role}`]: role !== null,
    }"
    :style="{
      '--own-hue': hue === null ? undefined : `var(--hue-${hue + 1})`,
    }"
    :data-line="number"
    @keydown="within"
  >
    <span class="stroke" :class="{ hued: hue !== null }" aria-hidden="true" />
    <span class="number" title="Drag to move the line; Shift or Ctrl and a click select several" @click="onNumber">
      <svg v-if="editing" class="nib" viewBox="0 0 20 20" aria-hidden="true">
        <path d="M2 18l3.2-8.6L13 2.6 17.4 7l-6.8 7.8z M2 18l6-6" />
      </svg>
      {{ number }}
    </span>

    <div
      class="body"
      @pointerdown="press.down"
      @pointermove="press.move"
      @pointerup="press.end"
      @pointercancel="press.end"
      @contextmenu="press.menu"
      @click.capture="press.click"
    >
      <div class="entry">
        <FoldToggle v-if="heading && !editing" :line="line" :number="number" />
        <NoteEditor v-if="editing && line.note" :id="line.id" :number="number" />
        <component
          :is="lineEditor"
          v-else-if="editing"
          :id="line.id"
          :key="folio.editing?.session"
          ref="editor"
          :number="number"
          :caret="folio.editing?.caret ?? 'end'"
          :mark="shownProblem?.at ?? null"
          :fix="draftFix"
        />
        <LineOpener
          v-else
          ref="opener"
          :line="line"
          :number="number"
          :view="view"
          :marked="marked"
          :slim="slim"
          :reachable="reachable"
          @pressed="onKey"
        />
        <span v-if="section.length > 0" class="folded-note">{{ sectionText }}</span>
        <MarkBadge
          v-if="line.answer && !editing"
          class="unit-badge"
          :sign="line.answer"
          tone="exact"
          :explanation="`The answer to part ${line.answer}: boxed on the sheet, and listed there.`"
        />
        <MarkBadge
          v-if="(line.varied || line.watched) && !line.note && !editing"
          class="unit-badge"
          :icon="line.varied ? mdiTuneVariant : mdiBinoculars"
          tone="runs"
          :explanation="
            line.varied
              ? 'Varied: its value is tried in several sets, see the runs.'
              : 'Watched: its results under several sets are compared, see the runs.'
          "
        />
        <MarkBadge
          v-if="unitDependent && !editing"
          class="unit-badge"
          :sign="folio.conventions.angle === 'deg' ? '°' : 'rad'"
          tone="unit"
          :explanation="`A bare number in this line is read in ${folio.conventions.angle === 'deg' ? 'degrees' : 'radians'}, because the conventions say so.`"
        />
      </div>

      <div class="outcome" :class="{ stale }">
        <span v-if="equation !== null" class="equation-number" :aria-label="`Equation ${equation}`"
          >({{ equation }})</span
        >
        <LineOutcome :line="line" :number="number" :hue="hue" :failed="keptProblem !== null" :awaits="awaits" />
      </div>
    </div>

    <div class="row-menu">
      <MenuButton tabindex="-1" :label="`Actions for line ${number}`" :actions="rowActions" />
    </div>

    <template v-if="!line.hidden && keptProblem === null">
      <LineAnswer
        v-for="(answer, k) in view?.answers ?? []"
        :key="answer.id"
        :view="answer"
        :number="number"
        :place="k"
      />
      <SolvedDetails
        v-if="view && view.answers.length > 0"
        :view="view"
        :place="view.answers.length"
        :reachable="reachable"
      />
    </template>

    <LineStrip v-if="editing && !line.note" :draft="draft" :view="view" :waiting="waiting" :stale="stale" />

    <LineMessages
      v-if="!line.note && (!slim || keptProblem)"
      :line="line.id"
      :problem="shownProblem"
      :hints="hints"
      :reachable="reachable"
      :editing="editing"
      :text="editing ? folio.text : line.source"
      :held="held"
      :cause="cause"
      @cause="toCause"
      @fix="applyFix"
    />
    <div v-if="editing && !line.note" class="below">
      <KeyStrip :text="folio.text" @insert="(text) => editor?.insert(text)" @grid="openGrid(line.id)" />
    </div>
  </li>
</template>

<style scoped>
.row {
  position: relative;
  display: grid;
  grid-template-columns: 4px 50px minmax(0, 1fr) 36px;
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
.row :deep(.stroke) {
  grid-row: 1;
}
.row :deep(.stroke.hued) {
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
/* The brace from sought to determine, at the edge of the numbers. */
.grouped::after {
  content: '';
  position: absolute;
  left: 47px;
  top: -1px;
  bottom: -1px;
  width: 7px;
  border-left: 2px solid var(--brass);
  pointer-events: none;
}
.group-sought::after {
  top: 12px;
  border-top: 2px solid var(--brass);
  border-top-left-radius: 8px;
}
.group-determine::after {
  bottom: 12px;
  border-bottom: 2px solid var(--brass);
  border-bottom-left-radius: 8px;
}
.equation-number {
  grid-column: 1 / -1;
  align-self: center;
  justify-self: end;
  padding: 4px 14px 4px 4px;
  font-family: var(--serif);
  font-size: 15px;
  color: var(--brass-text);
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
.row :deep(.body) {
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
}
.row :deep(.entry) {
  min-width: 0;
  display: flex;
}
.line-editor {
  flex: 1;
  min-width: 0;
  align-self: center;
  padding: 4px 2px;
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
.folded-note {
  align-self: center;
  padding: 0 12px;
  font-size: 13.5px;
  color: var(--quiet);
  white-space: nowrap;
}
/* What is wider than the columns stands beside its reading where both have room, else below it. */
.wide .body {
  display: flex;
  flex-wrap: wrap;
}
.wide .entry {
  flex: 1 1 auto;
}
.wide.active .entry {
  flex-basis: 300px;
}
.wide .outcome {
  display: block;
  align-self: center;
  max-width: 100%;
  min-width: min(100%, calc(64px + var(--rectangular-width) + var(--polar-width)));
  border-left: 0;
}
.note .outcome {
  display: none;
}
.slim {
  min-height: 34px;
}
.slim .outcome :deep(.cell) {
  padding-block: 4px;
  max-height: 30px;
  overflow: hidden;
}
.remark .outcome {
  display: none;
}
.unit-badge {
  align-self: center;
  margin-right: 8px;
}
.row :deep(.outcome) {
  /* A value that changes under the hand has only its own cell laid out anew. */
  contain: layout style;
  position: relative;
  display: grid;
  grid-template-columns: 24px var(--rectangular-width) var(--polar-width) 40px;
  align-items: stretch;
  border-left: 1px solid var(--rule);
}
/* An equation has the whole width: at its end stands its number. */
.group-sought .outcome,
.group-equation .outcome {
  display: flex;
  justify-content: flex-end;
  border-left: 0;
}
/* An earlier result: in one quiet colour, which keeps its contrast. */
.outcome.stale :deep(.cell),
.outcome.stale :deep(.cell *) {
  color: var(--quiet);
}
.row :deep(.row-menu) {
  display: grid;
  place-items: center;
}
.row :deep(.row-menu .menu-button) {
  opacity: 0;
}
.row:hover :deep(.row-menu .menu-button),
.row.active :deep(.row-menu .menu-button),
.row.current :deep(.row-menu .menu-button),
.row :deep(.row-menu .menu-button:focus-visible),
.row :deep(.row-menu .menu-button[aria-expanded='true']) {
  opacity: 1;
}
.below {
  grid-column: 3 / -1;
  padding: 0 12px 10px 4px;
}
@media (max-width: 899px) and (pointer: coarse) {
  .below {
    position: fixed;
    /* Upon the keyboard of the screen, or upon the foot bar where there is none. */
    inset: auto 0 max(var(--keyboard, 0px), var(--foot, 0px));
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
  .row :deep(.row-menu .menu-button) {
    opacity: 1;
  }
  .number {
    padding-right: 8px;
  }
  .grouped::after {
    left: 33px;
  }
  /* A short result stands at the right of its reading; one that has no room there goes below. */
  .row :deep(.body) {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
  }
  .row :deep(.entry) {
    flex: 1 1 auto;
  }
  .active .entry {
    flex-basis: 100%;
  }
  .row :deep(.outcome),
  .wide .outcome {
    display: flex;
    flex-wrap: wrap;
    justify-content: flex-end;
    column-gap: 10px;
    min-width: 0;
    max-width: 100%;
    margin-left: auto;
    border-left: 0;
  }
  .row :deep(.outcome .cell) {
    padding: 1px 6px 1px 2px;
  }
  .row :deep(.outcome .mark-cell) {
    padding-inline: 0 2px;
  }
  .row :deep(.outcome .cell .value) {
    font-size: 13px;
  }
  /* The dial has its room beside the polar form: it is never alone on a line. */
  .row :deep(.outcome .cell.polar) {
    padding-right: 34px;
  }
  .row :deep(.outcome .dial-cell) {
    width: 30px;
    margin-left: -30px;
    padding: 1px;
  }
}
</style>
