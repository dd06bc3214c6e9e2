<script setup lang="ts">
import { mdiContentCopy } from '@mdi/js'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import type { SweepRows } from '#core/kinds/sweep'
import { alignColumn, alignTwins } from '#core/format/align'
import type { Twin } from '#core/format/readout'
import { countText } from '~/texts/dress'
import { useLineActions } from '~/composables/lineActions'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** All points of a sweep, with what they run along beside them; only the rows in sight are fetched and drawn. */
const desk = useDeskStore()
const folio = useFolioStore()
const results = useResultsStore()
const plates = usePlatesStore()
const { copy } = useLineActions()

const ROW = 30
/** Rows that are fetched at once, and kept on either side of the window. */
const CHUNK = 120
/** Browsers draw nothing taller than this, in pixels. */
const TALLEST = 8_000_000

const line = computed(() => desk.tableLine)
const view = computed(() => (line.value ? results.views.get(line.value) : undefined))
const readout = computed(() => (view.value?.readout.shape === 'sweep' ? view.value.readout : null))
const count = computed(() => readout.value?.count ?? 0)
const found = shallowRef<SweepRows | null>(null)
const scroller = ref<HTMLElement | null>(null)
const top = ref(0)
const height = ref(400)
let observer: ResizeObserver | null = null

const tall = computed(() => Math.min(count.value * ROW, TALLEST))
/** Beyond the tallest box a pixel of scrolling is several rows. */
const scale = computed(() => (tall.value === 0 ? 1 : (count.value * ROW) / tall.value))
const first = computed(() => Math.max(0, Math.floor((top.value * scale.value) / ROW)))
const visible = computed(() => Math.ceil(height.value / ROW) + 1)

async function fetchRows(): Promise<void> {
  const id = line.value
  if (!id || count.value === 0) {
    found.value = null
    return
  }
  const from = Math.max(0, first.value - CHUNK / 3)
  const rows = await results.sweepRows(id, Math.floor(from), visible.value + CHUNK)
  if (id === line.value) found.value = rows
}
watch([line, () => view.value, () => folio.conventions], () => void fetchRows(), { immediate: true })
watch([first, visible], () => {
  const rows = found.value
  const end = Math.min(count.value, first.value + visible.value)
  if (!rows || first.value < rows.from || end > rows.from + rows.rows.length) void fetchRows()
})

onMounted(() => {
  observer = new ResizeObserver(([entry]) => {
    if (entry) height.value = entry.contentRect.height
  })
  if (scroller.value) observer.observe(scroller.value)
})
onBeforeUnmount(() => observer?.disconnect())

const shown = computed(() => {
  const rows = found.value
  if (!rows) return []
  return Array.from({ length: visible.value }, (_, k) => first.value + k).flatMap((index) => {
    const row = rows.rows[index - rows.from]
    return row ? [{ index, ...row }] : []
  })
})
/** A quantity with its unit, as the head of a column (ISO 80000-1, 7.1.4). */
const quotient = (name: string, unit: string | undefined): string => (unit ? `${name} / ${unit}` : name)
const isTwin = (value: string | Twin): value is Twin => typeof value !== 'string'
/** The columns in sight with their decimal marks in a line. */
const columns = computed(() => {
  const rows = shown.value
  return {
    parameter: alignColumn(rows.map((row) => row.parameter ?? '')),
    ...alignTwins(rows.map((row) => row.value)),
  }
})
const offset = computed(() => top.value - (scale.value === 1 ? top.value % ROW : 0))

const marked = computed(() =>
  plates.along && plates.along.name === axis.value
    ? plates.along.entry === null
      ? plates.along.index
      : (results.placed?.index ?? null)
    : null,
)
/** The name of what the sweep runs along: its own, where it is the range itself. */
const axis = computed(() => found.value?.along ?? view.value?.name ?? null)

function readHere(index: number): void {
  plates.readAlong(axis.value, index)
}
function key(event: KeyboardEvent): void {
  const steps: Readonly<Record<string, number>> = { ArrowUp: -1, ArrowDown: 1, PageUp: -visible.value, PageDown: visible.value, Home: -count.value, End: count.value } // prettier-ignore
  const step = steps[event.key]
  if (step === undefined) return
  event.preventDefault()
  const next = Math.max(0, Math.min(count.value - 1, (marked.value ?? (step > 0 ? -1 : 1)) + step))
  readHere(next)
  const at = (next * ROW) / scale.value
  if (scroller.value && (at < top.value || at > top.value + height.value - 2 * ROW))
    scroller.value.scrollTop = Math.max(0, at - height.value / 2)
}
</script>

<template>
  <section class="pane" aria-label="Table of a sweep">
    <header>
      <h2>
        {{ view?.name ?? 'A sweep' }}
        <span v-if="readout" class="count">{{ countText(readout.count) }} points</span>
      </h2>
      <v-btn v-if="line && readout" variant="text" @click="copy(line, 'csv')">
        <AppIcon :path="mdiContentCopy" />Copy as CSV
      </v-btn>
    </header>
    <p v-if="!readout" class="quiet">
      This line has no sweep now. Choose a table from the menu of a line that has one.
    </p>
    <template v-else>
      <p class="quiet">A row that is chosen is read along in the ledger and on all plates.</p>
      <div
        ref="scroller"
        class="scroller"
        tabindex="0"
        role="group"
        aria-label="Points; up and down choose one"
        @scroll="top = scroller?.scrollTop ?? 0"
        @keydown="key"
      >
        <div :style="{ height: `${tall + ROW}px` }">
          <table :style="{ transform: `translateY(${offset}px)` }" :aria-rowcount="count + 1">
            <thead>
              <tr>
                <th scope="col">№</th>
                <th v-if="found?.along !== undefined && shown[0]?.parameter !== null" scope="col">
                  {{ quotient(found?.along ?? 'parameter', found?.alongUnit) }}
                </th>
                <th scope="col">{{ quotient(view?.name ?? 'value', found?.unit) }}</th>
                <th v-if="readout.complex" scope="col">polar</th>
              </tr>
            </thead>
            <tbody>
              <tr
                v-for="(row, k) in shown"
                :key="row.index"
                :aria-rowindex="row.index + 2"
                :class="{ marked: row.index === marked }"
                @click="readHere(row.index)"
              >
                <th scope="row">{{ row.index + 1 }}</th>
                <td v-if="row.parameter !== null">
                  <ValueText :text="columns.parameter[k] ?? ''" :letter="folio.conventions.letter" />
                </td>
                <td><ValueText :text="columns.first[k] ?? ''" :letter="folio.conventions.letter" /></td>
                <td v-if="isTwin(row.value)">
                  <ValueText :text="columns.polar[k] ?? ''" :letter="folio.conventions.letter" />
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </div>
    </template>
  </section>
</template>

<style scoped>
.pane {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
header {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
}
h2 {
  margin: 0;
  font-family: var(--serif);
  font-size: 20px;
}
.count {
  margin-left: 8px;
  font-size: 14px;
  font-weight: 400;
  color: var(--quiet);
}
.quiet {
  margin: 4px 0 8px;
  font-size: 14px;
  color: var(--quiet);
}
.scroller {
  position: relative;
  flex: 1;
  min-height: 120px;
  overflow: auto;
  border: 1px solid var(--rule);
  background: var(--leaf);
  scrollbar-width: thin;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td :deep(.value) {
  white-space: pre;
}
td {
  height: 30px;
  padding: 0 12px;
  text-align: left;
  white-space: nowrap;
  border-bottom: 1px solid var(--rule);
}
thead th {
  position: sticky;
  top: 0;
  background: var(--rail);
  font-family: var(--serif);
  font-style: italic;
  font-weight: 600;
}
tbody th {
  font-family: var(--serif);
  font-weight: 400;
  color: var(--quiet);
}
tbody tr {
  cursor: pointer;
}
tbody tr:hover {
  background: var(--rail);
}
.marked,
.marked:hover {
  background: color-mix(in srgb, var(--brass) 22%, var(--leaf));
}
</style>
