<script setup lang="ts">
import { mdiPlus } from '@mdi/js'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import type { Line } from '#shared/folio'
import { onlyOffered } from '~/lines/firstLines'
import { typeset } from '~/texts/typeset'
import { useAnnouncements } from '~/composables/announcements'
import { useLineDragging } from '~/composables/lineDragging'
import { useRowWindow } from '~/composables/rowWindow'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePreferencesStore } from '~/stores/preferences'
import { useResultsStore } from '~/stores/results'

/** The ruled table of the folio's lines. */
const folio = useFolioStore()
const results = useResultsStore()
const preferences = usePreferencesStore()
const desk = useDeskStore()
const { said } = useAnnouncements()
const pane = ref<HTMLElement | null>(null)
const width = ref(800)

/** Characters that the twin columns need, from the longest readout. */
const needed = computed(() => {
  let rectangular = 11
  let polar = 11
  for (const view of results.views.values()) {
    if (view.readout.shape !== 'twin') continue
    rectangular = Math.max(rectangular, view.readout.rectangular.length)
    const { unit } = view.readout
    polar = Math.max(polar, view.readout.polar.length + (unit ? unit.length + 1 : 0))
  }
  return { rectangular, polar }
})

/** How many characters a column gains at once while values change under the hand. */
const GAIN = 2
/**
 * Their widths: while an entry is typed or a value dragged they only grow, since
 * every change of a width has the whole ledger laid out anew.
 */
const columns = shallowRef(needed.value)
watch([needed, () => results.unsettled], () => {
  const [now, then] = [needed.value, columns.value]
  if (!results.unsettled) {
    if (now.rectangular !== then.rectangular || now.polar !== then.polar) columns.value = now
    return
  }
  const grown = (wanted: number, before: number): number => (wanted > before ? wanted + GAIN : before)
  const next = { rectangular: grown(now.rectangular, then.rectangular), polar: grown(now.polar, then.polar) }
  if (next.rectangular !== then.rectangular || next.polar !== then.polar) columns.value = next
})

/** Width of a character of the values, and what else a row holds, in pixels. */
const CHARACTER = 8.45
const PADDING = 18
const REST = 4 + 50 + 36 + 40 + 24
const LEAST_READING = 190

/** Where the twin does not fit beside the readings, polar goes beneath rectangular. */
const stacked = computed(() => {
  const { rectangular, polar } = columns.value
  const twin = (rectangular + polar) * CHARACTER + 2 * PADDING
  return width.value - REST - twin < LEAST_READING
})
const sizes = computed(() => {
  const { rectangular, polar } = columns.value
  const pixels = (characters: number): string => `${Math.ceil(characters * CHARACTER + PADDING)}px`
  if (!stacked.value) return { '--rectangular-width': pixels(rectangular), '--polar-width': pixels(polar) }
  return { '--rectangular-width': pixels(Math.max(rectangular, polar)), '--polar-width': '0px' }
})

let observer: ResizeObserver | null = null
onMounted(() => {
  if (!pane.value) return
  observer = new ResizeObserver(([entry]) => {
    if (entry) width.value = entry.contentRect.width
  })
  observer.observe(pane.value)
  pane.value.parentElement?.addEventListener('scroll', rows.look, { passive: true })
  rows.look()
})
onBeforeUnmount(() => {
  observer?.disconnect()
  pane.value?.parentElement?.removeEventListener('scroll', rows.look)
})

/** A stroll shows the folio as far as it has come. */
const inSight = computed(() => (desk.stroll === null ? folio.shownLines : folio.lines.slice(0, desk.stroll + 1)))
const rows = useRowWindow(
  () => pane.value?.parentElement ?? null,
  computed(() => inSight.value.map((l) => l.id)),
)
const drawn = computed<Line[]>(() => inSight.value.slice(rows.first.value, rows.last.value))
// Readings are typeset ahead while nothing else is to be done, so that scrolling only has to show them.
let idle = 0
const AHEAD_MOST = 1_500
function* readings(): Generator<string> {
  let count = 0
  for (const view of results.views.values()) {
    if ((count += 1) > AHEAD_MOST) return
    yield preferences.grouping ? view.grouped : view.reading
  }
}
watch(
  () => results.views.size,
  () => {
    if (typeof requestIdleCallback === 'undefined') return
    cancelIdleCallback(idle)
    // Those that come first are most likely to be scrolled to; more than are remembered need not be made.
    let waiting: Iterator<string> | null = null
    const ahead = (deadline: IdleDeadline): void => {
      waiting ??= readings()
      while (deadline.timeRemaining() > 4) {
        const { value: latex, done } = waiting.next()
        if (done) return
        if (latex !== '') typeset(latex)
      }
      idle = requestIdleCallback(ahead)
    }
    idle = requestIdleCallback(ahead)
  },
)
onBeforeUnmount(() => {
  if (idle !== 0) cancelIdleCallback(idle)
})
// A line that is gone to is drawn before anything looks for it.
watch(
  () => folio.editing?.id ?? folio.current,
  (id) => {
    if (id !== null) rows.bring(id)
  },
  { flush: 'sync' },
)
const numbers = computed(() => new Map(folio.lines.map((l, k) => [l.id, k + 1])))

const list = ref<HTMLElement | null>(null)
useLineDragging(list, '.number', (from, to) => {
  const line = drawn.value[from]
  if (line) folio.moveTo(line.id, rows.first.value + to)
})

/** Not looked at anew with every key that is typed. */
const untouched = computed(() => onlyOffered(folio.lines.map((l) => l.source)))
const beginning = computed(() => folio.writable && desk.stroll === null && untouched.value && onlyOffered([folio.text]))

function leave(event: FocusEvent): void {
  // Leaving the ledger for another part of the page keeps the line.
  const next = event.relatedTarget
  if (next instanceof Node && !pane.value?.contains(next) && !(next instanceof Element && next.closest('.v-overlay')))
    folio.keep()
}
</script>

<template>
  <section
    ref="pane"
    class="ledger"
    :class="{ stacked, close: preferences.close }"
    :style="sizes"
    aria-label="Ledger"
    @focusout="leave"
  >
    <div class="head">
      <span class="head-entry"
        >Entry<v-btn
          data-tip="Show every bracket that the reading supplied"
          variant="text"
          class="grouping"
          :aria-pressed="preferences.grouping"
          @click="preferences.grouping = !preferences.grouping"
        >
          ( ) grouping </v-btn
        ><v-btn
          data-tip="Rows as low as they can be: more lines in sight"
          variant="text"
          class="grouping"
          :aria-pressed="preferences.close"
          @click="preferences.close = !preferences.close"
        >
          close rows
        </v-btn></span
      >
      <span v-if="stacked" class="head-twin">Rectangular and polar</span>
      <template v-else>
        <span class="head-rectangular">Rectangular</span>
        <span class="head-polar">Polar</span>
      </template>
    </div>
    <p class="visually-hidden" role="status">{{ said }}</p>
    <div v-if="rows.above.value > 0" :style="{ height: `${rows.above.value}px` }" />
    <ol ref="list" class="lines">
      <LedgerRow
        v-for="line in drawn"
        :key="line.id"
        :rows="rows"
        :line="line"
        :number="numbers.get(line.id) ?? 0"
        :strolled="desk.stroll !== null && (numbers.get(line.id) ?? 0) === desk.stroll + 1"
      />
    </ol>
    <div v-if="rows.below.value > 0" :style="{ height: `${rows.below.value}px` }" />
    <FirstLinesGuide v-if="beginning" />
    <v-btn
      v-if="desk.stroll === null && folio.writable"
      variant="text"
      class="add"
      @click="folio.insertAt(folio.lines.length)"
    >
      <AppIcon :path="mdiPlus" />
      <span>New line</span>
    </v-btn>
    <div class="foot">
      <SelectionBar />
      <StrollBar v-if="desk.stroll !== null" />
    </div>
  </section>
</template>

<style scoped>
.ledger {
  min-width: 0;
  padding-bottom: 40vh;
}
.head {
  position: sticky;
  top: 0;
  z-index: 3;
  display: flex;
  min-height: 34px;
  align-items: center;
  padding-right: 76px;
  background: var(--paper);
  border-bottom: 3px double var(--brass);
  font-size: 13px;
  font-family: var(--serif);
  font-style: italic;
  color: var(--quiet);
}
.head-entry {
  flex: 1;
  padding-left: 58px;
}
.v-btn.grouping {
  margin-left: 12px;
  min-height: 26px;
  padding: 0 8px;
  font-family: var(--sans);
  font-size: 13px;
  font-style: normal;
  color: var(--quiet);
}
.v-btn.grouping[aria-pressed='true'] {
  border-color: var(--edge);
  color: var(--ink);
}
.head-rectangular {
  width: calc(var(--rectangular-width) - 4px);
  padding-left: 28px;
  box-sizing: content-box;
}
.head-polar {
  width: var(--polar-width);
  padding-left: 4px;
  box-sizing: border-box;
}
.head-twin {
  width: var(--rectangular-width);
  padding-left: 28px;
  box-sizing: content-box;
}
.lines {
  margin: 0;
  padding: 0;
}
.foot {
  position: sticky;
  bottom: 0;
  z-index: 3;
}
.moving {
  background: var(--select);
}
/* Close rows: what is read and what it comes to keep their size, the room around them goes. */
.close :deep(.row) {
  min-height: 28px;
}
.close :deep(.opener),
.close :deep(.cell),
.close :deep(.matrix),
.close :deep(.entries) {
  padding-block: 1px;
}
.close :deep(.dial-cell) {
  padding-block: 0;
}
.close :deep(.dial) {
  width: 24px;
  height: 24px;
}
.close :deep(.trailing) {
  display: inline;
  padding-left: 16px;
}
.close :deep(.note-opener) {
  padding-block: 4px;
}
.stacked :deep(.outcome) {
  grid-template-columns: 24px var(--rectangular-width) 40px;
}
.stacked :deep(.cell.rectangular) {
  padding-bottom: 2px;
}
.stacked :deep(.cell.polar) {
  grid-column: 2;
  grid-row: 2;
  padding-top: 0;
}
.stacked :deep(.cell.dial-cell) {
  grid-column: 3;
  grid-row: 1 / span 2;
  align-self: center;
}
.v-btn.add {
  margin: 8px 0 0 46px;
  color: var(--quiet);
}
.v-btn.add:hover {
  color: var(--ink);
}
@media (max-width: 899px) {
  .head {
    display: none;
  }
}
</style>
